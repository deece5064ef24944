import {
  Decimal,
  Double,
  Failure,
  type Value,
  asciiTrimmed,
  countBytes,
  isDate,
  isFailure,
  isWholeNumber,
  lookup,
  monthNames,
} from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { Conversion, ConversionLine, TypeRules } from "../dialect.ts";
import { isPure, relations } from "../row.ts";
import { cutTo, filledTo, fitted } from "../shared/sizes.ts";
import { type Own, type Step, type Work, partsOfWork, step, unlessMissing, worked } from "../step.ts";
import { isOneOf } from "../types.ts";
import { trimmed } from "./functions.ts";
import { readEscaped, readHex } from "./bytes.ts";
import { inRange, readArray } from "./numbers.ts";
import { laterSteps, steps, toDecimal, toText } from "./steps.ts";

const numeric = ["smallint", "integer", "bigint", "decimal", "double"];
type Numeric = "smallint" | "integer" | "bigint" | "decimal" | "double";
const isNumeric = (type: string): type is Numeric => numeric.includes(type);

const moments = ["date", "timestamp", "timestamptz"];
const isMoment = (type: string) => moments.includes(type);
const isText = (type: string) => type === "text" || type === "bpchar";

/** Type names as written, to the names used here. */
export const names: Readonly<Record<string, string>> = lookup({
  text: "text",
  varchar: "text",
  name: "text",
  nchar: "bpchar",
  char: "bpchar",
  character: "bpchar",
  bpchar: "bpchar",
  int: "integer",
  int4: "integer",
  integer: "integer",
  int8: "bigint",
  bigint: "bigint",
  int2: "smallint",
  smallint: "smallint",
  numeric: "decimal",
  decimal: "decimal",
  float8: "double",
  float: "double",
  "double precision": "double",
  bool: "boolean",
  boolean: "boolean",
  date: "date",
  timestamp: "timestamp",
  timestamptz: "timestamptz",
  bytea: "bytea",
});

/** The forms of a date that are read (8.5.1, with the order month, day, year): what each group of digits or letters is. */
const dateForms: readonly (readonly [RegExp, string])[] = [
  [/^(\d{4})-(\d{1,2})-(\d{1,2})$/, "ymd"],
  [/^(\d{4})\/(\d{1,2})\/(\d{1,2})$/, "ymd"],
  [/^(\d{4})(\d{2})(\d{2})$/, "ymd"],
  [/^(\d{1,2})[/-](\d{1,2})[/-](\d{4})$/, "mdy"],
  [/^([A-Za-z]{3,9}) (\d{1,2}),? (\d{4})$/, "mdy"],
  [/^(\d{1,2})[ -]([A-Za-z]{3,9})[ -](\d{4})$/, "dmy"],
];

/** The number of a month by its name, its first three letters, or "sept"; 0 for no month. */
function monthNumber(written: string): number {
  if (/\d/.test(written)) return Number(written);
  const name = written.toLowerCase().replace(/^sept$/, "sep");
  return monthNames.findIndex((month) => [month, month.slice(0, 3)].some((known) => known.toLowerCase() === name)) + 1;
}

/** A date, and a time of day after it, as ISO text; a form that the engine may know and we do not is not covered. */
function readMoment(text: string): { date: string; time: string } | Failure {
  const trimmed = asciiTrimmed(text);
  const [, written, hour, minute, second] =
    /^([\s\S]*?)(?:(?: +|T)([01]?\d|2[0-3]):([0-5]\d)(?::([0-5]\d(?:\.\d{1,6})?))?)?$/.exec(trimmed)!;
  const form = dateForms.find(([shape]) => shape.test(written));
  if (!form)
    return /\d/.test(text) || /^(?:now|today|tomorrow|yesterday|epoch|[+-]?infinity)$/i.test(trimmed)
      ? new Failure("not-covered", { what: `dates written like "${text}"` })
      : new Failure("not-a-date", { text });
  const groups = form[0].exec(written)!;
  const [year, month, day] = [..."ymd"].map((part) => groups[form[1].indexOf(part) + 1]);
  if (Number(year) < 1 || !isDate(Number(year), monthNumber(month), Number(day))) return new Failure("not-a-date", { text });
  const two = (value: string | number | undefined) => String(value ?? 0).padStart(2, "0");
  const [whole, part = ""] = two(second).split(".");
  const fraction = part.replace(/0+$/, "");
  return {
    date: `${year}-${two(monthNumber(month))}-${two(day)}`,
    time: `${two(hour)}:${two(minute)}:${two(whole)}${fraction && `.${fraction}`}`,
  };
}

function readDate(text: string): Value {
  const moment = readMoment(text);
  return moment instanceof Failure ? moment : moment.date;
}

function readTimestamp(text: string): Value {
  const moment = readMoment(text);
  return moment instanceof Failure ? moment : `${moment.date} ${moment.time}`;
}

/** A timestamp in the time zone UTC, the session's here. */
const inUtc = (timestamp: Value): Value => (typeof timestamp === "string" ? `${timestamp}+00` : timestamp);

/** Bytes as they are written (8.4): `\x` and two base-16 digits for each, or escapes. */
const readBytes = (text: string): Value => (text.startsWith("\\x") ? readHex(text.slice(2)) : readEscaped(text));

/** A literal of unknown type, or a text in a cast, read as a value of the type. */
function read(type: string, value: Value): Value {
  if (typeof value !== "string") return value;
  if (isNumeric(type)) return worked(steps[type])(value);
  if (type === "boolean") return worked(steps.truth)(value);
  if (type === "date") return readDate(value);
  if (type === "timestamp") return readTimestamp(value);
  if (type === "timestamptz") return inUtc(readTimestamp(value));
  if (type === "bytea") return readBytes(value);
  if (type.endsWith("[]") || type === "anyarray") {
    const items = readArray(value);
    if (items instanceof Failure) return items;
    return (
      items?.map((item) => (item === null ? null : read(type.slice(0, -2), item))) ??
      new Failure("invalid-value", { problem: `"${value}" is not an array` })
    );
  }
  return value;
}

/** A char(n) without the spaces that fill it up. */
const trimBlanks = step("trim", { ...trimmed, ends: "end" });

/** An escape character, which may be left out as empty text. */
const oneCharacter = (value: Value): Value =>
  typeof value === "string" && [...value].length > 1 ? new Failure("escape-length", { escape: value }) : value;

/** A literal where bytes or bits may stand is taken for bits. */
const bitString = (text: string): Failure =>
  /^[01]*$/.test(text) ? new Failure("not-covered", { what: "bit strings" }) : new Failure("not-a-number", { text });

/** The type of a text with the collation C, in which only ASCII letters have case (24.2.2). */
export const ofC = "text_c";
const plainText = (type: string): string => (type === ofC ? "text" : type);

/** A date that what is calculated here has room for; others can only be shown. */
const withinYears = (value: Value): Value =>
  typeof value === "string" && value !== "" && !/^\d{4}-.*(?<! BC)$/.test(value)
    ? new Failure("not-covered", { what: "calculating with dates before the year 1 and after 9999" })
    : value;

const asTyped = (type: string) => unlessMissing((value) => read(type, value));
const asMoment = (type: string) => unlessMissing((value) => withinYears(castMoment(type, value as string)));

/** Each number type as those after it, by the steps that it is away. */
const promotions = numeric.flatMap((from, low) =>
  numeric.slice(low + 1).map((to, away): ConversionLine => {
    const convert = to === "decimal" || to === "double" ? steps[to] : undefined;
    // There is an operator of a smallint with each of the other whole numbers.
    if (from === "smallint" && !convert) return [from, to, (away + 1) / 10];
    // Integers prefer double precision to numeric where both would do, as in round(7); with a numeric beside them they do not.
    return [from, to, from === "decimal" ? 1 : to === "double" ? 0.5 : convert ? 1 : away + 1, convert];
  }),
);

/** How an argument becomes a parameter: implicit conversions only (10.3). */
const conversions: readonly ConversionLine[] = [
  // A char(n) with the spaces that fill it up.
  ["bpchar", "char|padded", 0],
  ["unknown", "char", 1],
  ["bpchar", "bpchar", 0, trimBlanks],
  ["unknown", "bpchar", 2, trimBlanks],
  ...moments.map((type): ConversionLine => [type, type, 0, withinYears]),
  ["=", "*", 0],
  ["*", "any", 0],
  ["boolean", "condition", 0],
  ["unknown", "condition", 1, steps.truth],
  ["integer", "subscript", 0],
  [numeric.join("|"), "subscript", 0, steps.integer],
  ["> integer", "subscript", 0],
  ["bpchar", "quotable", 0, trimBlanks],
  ["*", "quotable", 0, steps.text],
  ["> text", "escape", 0, oneCharacter, { late: true }],
  ["bytea", "bits", 0],
  ["unknown", "bits", 1, unlessMissing((value) => bitString(value as string))],
  ["bpchar", "output", 0],
  ["*", "output", 0, steps.output],
  ["text|unknown", "nonarray", 0],
  ["bpchar", "nonarray", 2, trimBlanks],
  ["!…[]", "nonarray", 2, steps.text],
  ["unknown", "text", 1],
  // Of the numeric types double precision is preferred where nothing else decides (10.3).
  ["unknown", "double", 1.9, steps.double],
  ...(["smallint", "integer", "bigint", "decimal"] as const).map((to): ConversionLine => ["unknown", to, 2, steps[to]]),
  ["unknown", "boolean", 2, steps.truth],
  ...[...moments, "bytea"].map((to): ConversionLine => ["unknown", to, 2, asTyped(to)]),
  ["unknown", "anyarray", 4, asTyped("anyarray")],
  ["…[]", "anyarray", 0],
  ["bpchar", "text", 1, trimBlanks],
  ["date", "timestamp", 1, asMoment("timestamp")],
  // Of dates and timestamps the one with a time zone is preferred (10.3).
  ["date|timestamp", "timestamptz", 0.9, asMoment("timestamptz")],
  ...promotions,
];

/** Arrays by their items; `text[]!` takes nothing but that, and a literal. */
function derived(from: string, to: string): Conversion | undefined {
  if (to.endsWith("!")) return isOneOf(from, `${to.slice(0, -1)}|unknown`) ? plainConversion(from, to.slice(0, -1)) : undefined;
  if (!to.endsWith("[]")) return undefined;
  if (from === "unknown") return { cost: 4, convert: asTyped(to) };
  if (!from.endsWith("[]")) return undefined;
  const itemType = to.slice(0, -2);
  if (from === "unknown[]") return { cost: 1, convert: eachItem((item) => read(itemType, item)) };
  const item = plainConversion(from.slice(0, -2), itemType);
  return item?.convert ? { cost: item.cost, convert: eachItem(worked(item.convert)) } : item;
}

const eachItem = (change: Own): Own => unlessMissing((items) => (items as readonly Value[]).map(change));

const plainConversion = conversionTable(conversions, derived);

/** What COLLATE "C" makes of a text is a text like any other, but for functions that know it. */
const conversion: TypeRules["conversion"] = (from, to) =>
  to === ofC ? (from === ofC ? { cost: -1 } : undefined) : plainConversion(plainText(from), to);

/** A name has room for 63 bytes (8.3). */
function asName(value: Value): Value {
  if (typeof value !== "string" || countBytes(value) < 64) return value;
  let size = 0;
  const kept = [...value].filter((char) => (size += countBytes(char)) < 64);
  return kept.join("");
}

/** What a type name in a cast means: its name here, and its size. */
function typeNamed(written: string): { type: string; size?: number; scale?: number } | undefined {
  const match = /^("?[a-z][a-z0-9_ ]*"?)(?:\((\d+)(?:,(\d+))?\))?((?:\[\])*)$/.exec(written);
  const type = match && names[match[1]];
  if (!type) return undefined;
  const isChar = type === "bpchar" && match[1] !== "bpchar";
  const size = match[2] === undefined ? (isChar ? 1 : undefined) : Number(match[2]);
  if (size === 0) return undefined;
  return {
    type: type + (match[4] ? "[]" : ""),
    ...(size !== undefined && { size }),
    ...(match[3] !== undefined && { scale: Number(match[3]) }),
  };
}

/** What a cast to a type, without its size, does. */
function castWork(from: string, type: string): Work {
  if (isText(type)) return from === "bpchar" && type === "text" ? trimBlanks : steps.text;
  if (isNumeric(type)) return from === type ? [] : steps[type];
  if (type === "boolean") return from === type ? [] : steps.truth;
  return unlessMissing((value) => castValue(from, type, value));
}

/** A value of a type as one of another that is neither a number nor a text. */
function castValue(from: string, type: string, value: Value): Value {
  if (typeof value !== "string") return value;
  if (isText(from) || from === "unknown") return read(type, value);
  return isMoment(from) && isMoment(type) ? castMoment(type, value) : value;
}

/** A date or timestamp as another. */
function castMoment(type: string, value: string): Value {
  const [, date, time = "00:00:00", era = ""] = /^(\S+?)(?: ([\d:.]+)(?:\+00)?)?( BC)?$/.exec(value)!;
  return type === "date" ? date + era : `${date} ${time}${type === "timestamptz" ? "+00" : ""}${era}`;
}

/** What the size of a type in a cast does. */
function sizeWork(type: string, size: number | undefined, scale = 0): readonly Step[] {
  if (size === undefined) return [];
  if (type === "text") return [cutTo(size)];
  return type === "bpchar" ? [filledTo(size)] : type === "decimal" ? [fitted("error", scale, size)] : [];
}

function canCast(from: string, to: string): boolean {
  if (from === to || from === "unknown" || to === "text" || to === "bpchar" || from === "text" || from === "bpchar") return true;
  if (numeric.includes(from) && numeric.includes(to)) return true;
  if (from === "integer" && to === "boolean") return true;
  if (from === "boolean" && to === "integer") return true;
  return isMoment(from) && isMoment(to);
}

export const typeRules: TypeRules = {
  dynamic: false,
  folds: true,
  nullFirst: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    if (present.every((value) => typeof value === "boolean")) return "boolean";
    if (!present.every((value) => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal))
      return "text";
    if (!present.every(isWholeNumber)) return "decimal";
    return present.every((value) => !isFailure(inRange("integer", value))) ? "integer" : "bigint";
  },
  readColumn(type, value) {
    if (type === "text") return toText(value);
    return type === "decimal"
      ? toDecimal(typeof value === "number" && !Number.isInteger(value) ? Decimal.of(value) : value)
      : value;
  },
  conversions,
  conversion,
  preference(row, types) {
    // Of what they take, greatest and least make one type like CASE (10.5).
    if (isPure(row) && row.operation === "extreme") return row.result === typeRules.unify(types) ? -10 : 0;
    // An operand of unknown type is taken to be of the other's type where there is such an operator (10.2).
    const at = types.indexOf("unknown");
    const isTaken = row.notation === "operator" && types.length === 2 && at >= 0 && types[1 - at] !== "unknown";
    return isTaken && row.parameters[at].type === types[1 - at] ? -10 : 0;
  },
  resultType(row, types) {
    if (row.result === "text" && types.includes(ofC)) return ofC;
    if (row.result === "item") return types[0] === "unknown[]" ? "text" : types[0].replace(/\[\]$/, "");
    return row.result === "same" ? (types[0] === "unknown" ? "text" : types[0]) : row.result;
  },
  dates: "date",
  cast(given, to) {
    const from = plainText(given);
    const named = typeNamed(to);
    if (!named) return undefined;
    const { type, size, scale } = named;
    if (type.endsWith("[]")) {
      const item = type.slice(0, -2);
      if (from !== "unknown" && from !== "text" && !from.endsWith("[]")) return undefined;
      return {
        type,
        convert: unlessMissing((value) => {
          const items = typeof value === "string" ? readArray(value) : (value as readonly Value[]);
          if (items instanceof Failure) return items;
          if (!items) return new Failure("invalid-value", { problem: `"${String(value)}" is not an array` });
          const converted = items.map((each) =>
            each === null ? null : worked(castWork(typeof each === "string" ? "text" : "integer", item))(each),
          );
          return converted.find(isFailure) ?? converted;
        }),
      };
    }
    if (!canCast(from, type)) return undefined;
    return {
      type,
      convert: [...partsOfWork(castWork(from, type)), ...(to === "name" ? [asName] : sizeWork(type, size, scale))],
    };
  },
  nullifType(left, right) {
    const both = [left, right];
    // There are operators between integers of all sizes.
    if (both.every((type) => /^(?:smallint|integer|bigint)$/.test(type))) return left;
    if (both.every((type) => numeric.includes(type))) return numeric[Math.max(...both.map((type) => numeric.indexOf(type)))];
    // A literal is read as what it is compared with.
    if (left === "unknown") return right === "unknown" ? "text" : right;
    return left === "bpchar" && right === "text" ? "text" : left;
  },
  unify(given) {
    const types = given.map(plainText);
    const known = types.filter((type) => type !== "unknown");
    if (given.includes(ofC) && known.every((type) => type === "text")) return ofC;
    if (known.length === 0) return types.length > 0 ? "text" : "unknown";
    if (known.every((type) => numeric.includes(type))) return numeric[Math.max(...known.map((type) => numeric.indexOf(type)))];
    // Of text and char(n), which become each other, the first decides (10.5); of dates and timestamps the widest.
    const [first] = known;
    if (known.every(isText)) return first;
    const best = known.every(isMoment) ? moments[Math.max(...known.map((type) => moments.indexOf(type)))] : first;
    return known.every((type) => conversion(type, best)) ? best : undefined;
  },
  carriesCollation: (type) => /^(?:text|bpchar|unknown)|\[\]$/.test(type),
  groups: true,
  rows: {
    compares: new Set([...relations, "is null", "is not null", "is distinct from"]),
    areValues: true,
    nested: true,
    queries: true,
    truth: (value, range) => ({ kind: "literal", value: value, type: "boolean", range }),
  },
  list: (_form, values) => values,
  fits: (type) => (/^(?:smallint|integer|bigint)$/.test(type) ? (value) => inRange(type, value) : undefined),
};

/** Whether a value is a number of any kind. */
export const isNumber = (value: Value): boolean =>
  typeof value === "number" || typeof value === "bigint" || value instanceof Decimal || value instanceof Double;

/** Each step of version 15 with the one that does it since 16. */
const sinceLater = new Map<Step | Own, Step>(
  (Object.keys(steps) as (keyof typeof steps)[]).map((name) => [steps[name], laterSteps[name]]),
);

const withLaterSteps = <C extends { readonly convert?: Work }>(given: C | undefined): C | undefined =>
  given?.convert ? { ...given, convert: partsOfWork(given.convert).map((part) => sinceLater.get(part) ?? part) } : given;

/** The rules of values since version 16. */
export const laterTypeRules: TypeRules = {
  ...typeRules,
  conversion: (from, to) => withLaterSteps(conversion(from, to)),
  cast: (from, to) => withLaterSteps(typeRules.cast(from, to)),
};
