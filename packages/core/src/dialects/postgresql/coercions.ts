import { Decimal, countBytes, isFailure, isWholeNumber, lookup } from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { Conversion, ConversionLine, TypeRules } from "../dialect.ts";
import { isPure, relations } from "../row.ts";
import { cutTo, filledTo, fitted } from "../shared/sizes.ts";
import { type Named, type Step, type Work, partsOfWork, step, withSteps } from "../step.ts";
import { Type, isOneOf, typeOf, unknownType } from "../types.ts";

import { inRange } from "./numbers.ts";
import { laterSteps, steps, toDecimal, toText } from "./steps.ts";
import { trimmed } from "./text-functions.ts";

const numeric = ["smallint", "integer", "bigint", "decimal", "double"];
type Numeric = "smallint" | "integer" | "bigint" | "decimal" | "double";
const isNumeric = (name: string): name is Numeric => numeric.includes(name);

const moments = ["date", "timestamp", "timestamptz"];
const isMoment = ({ name }: Type) => moments.includes(name);
const isText = ({ name }: Type) => name === "text" || name === "bpchar";
const textType = typeOf("text");

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
  interval: "interval",
  bytea: "bytea",
});

/** A date or time by how it is written (8.5.1, with the order month, day, year); `from` says what it is. */
const moment = (to: string, from: string) =>
  step(
    "moment-of",
    { missing: "null", dateForms: "numbers or names of months", clockOfDate: "left out", notADate: "error" },
    // The session's time zone is UTC here.
    { wanted: to === "timestamptz" ? "timestamp in UTC" : to, from: from === "timestamptz" ? "timestamp" : from },
  );

/** A stretch of time by how it is written (8.5.4); a number alone counts `unit`. */
const interval = (unit = "second") =>
  step("interval-from-text", { missing: "null", intervalForms: "units, a clock, 1-2 or P1Y2M" }, { unit, form: "1 mon" });

/** Bytes as they are written (8.4): `\\x` and two base-16 digits for each, or escapes. */
const bytes = step("bytes-of", { bytesWritten: "base 16, or escapes" });

/** A literal of unknown type, or a text in a cast, as a value of the type. */
function fromText(type: Type): Work {
  const { name, item } = type;
  if (isNumeric(name)) return steps[name];
  if (name === "boolean") return steps.truth;
  if (isMoment(type)) return moment(name, "text");
  if (name === "bytea") return bytes;
  if (name === "interval") return interval();
  if (name === "anyarray") return arrayOf([]);
  return item ? arrayOf(fromText(item)) : [];
}

/** An array of items, each made by some work, where a text may stand for one. */
const arrayOf = (work: Work): Work => [step("list-of-text", { listForm: "{a,b}" }), { each: work }];

/** A char(n) without the spaces that fill it up. */
const trimBlanks = step("trim", { ...trimmed, ends: "end" });

/** A literal where bytes or bits may stand is taken for bits. */
const bitString = [
  step("check-text", {}, { shape: "^[01]*$", refused: "not-a-number", about: "" }),
  step("check-text", {}, { shape: "(?!)", refused: "not-covered", about: "bit strings" }),
];

/** The type of a text with the collation C, in which only ASCII letters have case (24.2.2). */
export const ofC = typeOf("text_c");
/** The same of a literal, which may still become something else than a text. */
const literalOfC = typeOf("unknown C");
const isOfC = (type: Type): boolean => type === ofC || type === literalOfC;
const plainText = (type: Type): Type => (isOfC(type) ? (type === ofC ? textType : unknownType) : type);

/** A date that what is calculated here has room for; others can only be shown. */
const withinYears = step(
  "check-text",
  {},
  {
    shape: "^(?:\\d{4}-.*(?<! BC))?$",
    refused: "not-covered",
    about: "calculating with dates before the year 1 and after 9999",
  },
);

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
  ["> text", "escape", 0, step("check-escape", { escapeSize: "one character or none" }), { late: true }],
  ["bytea", "bits", 0],
  ["unknown", "bits", 1, bitString],
  [
    "> text",
    "zoneless",
    0,
    step("check-text", {}, { shape: "^(?![^]*[tT][zZ])", refused: "not-covered", about: "the format TZ" }),
  ],
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
  ...[...moments, "interval", "bytea"].map((to): ConversionLine => ["unknown", to, 2, fromText(typeOf(to))]),
  ["unknown", "anyarray", 4, fromText(typeOf("anyarray"))],
  ["…[]", "anyarray", 0],
  // What becomes of each item where it is shown.
  ["text[]", "shownarray", 0],
  ["…[]", "shownarray", 0, { each: steps.output }],
  ["bpchar", "text", 1, trimBlanks],
  ["date", "timestamp", 1, [moment("timestamp", "date"), withinYears]],
  // Of dates and timestamps the one with a time zone is preferred (10.3).
  ["date|timestamp", "timestamptz", 0.9, [moment("timestamptz", "timestamp"), withinYears]],
  ...promotions,
];

/** Arrays by their items; `text[]!` takes nothing but that, and a literal. */
function derived(from: Type, to: Type): Conversion | undefined {
  if (to.name.endsWith("!")) {
    const own = to.name.slice(0, -1);
    return isOneOf(from, `${own}|unknown`) ? plainConversion(from, typeOf(own)) : undefined;
  }
  const [given, wanted] = [from.item, to.item];
  if (wanted === undefined) return undefined;
  if (from === unknownType) return { cost: 4, convert: fromText(to) };
  if (given === undefined) return undefined;
  if (given === unknownType) return { cost: 1, convert: arrayOf(fromText(wanted)) };
  const item = plainConversion(plainText(given), wanted);
  return item?.convert ? { cost: item.cost, convert: arrayOf(item.convert) } : item;
}

const plainConversion = conversionTable(conversions, derived);

/** What COLLATE "C" makes of a text is a text like any other, but for functions that know it. */
const conversion: TypeRules["conversion"] = (from, to) =>
  to === ofC ? (isOfC(from) ? { cost: -1 } : undefined) : plainConversion(plainText(from), to);

/** A name has room for 63 bytes (8.3). */
const asName: Named = {
  named: "a name of 63 bytes",
  run(value) {
    if (typeof value !== "string" || countBytes(value) < 64) return value;
    let size = 0;
    return [...value].filter((char) => (size += countBytes(char)) < 64).join("");
  },
};

/** What a type name in a cast means: its name here, and its size. */
function typeNamed(written: string): { type: Type; size?: number; scale?: number } | undefined {
  const match = /^("?[a-z][a-z0-9_ ]*"?)(?:\((\d+)(?:,(\d+))?\))?((?:\[\])*)$/.exec(written);
  const name = match && names[match[1]];
  if (!name) return undefined;
  const isChar = name === "bpchar" && match[1] !== "bpchar";
  const size = match[2] === undefined ? (isChar ? 1 : undefined) : Number(match[2]);
  if (size === 0) return undefined;
  return {
    type: match[4] ? Type.list(typeOf(name)) : typeOf(name),
    ...(size !== undefined && { size }),
    ...(match[3] !== undefined && { scale: Number(match[3]) }),
  };
}

/** What a cast to a type, without its size, does. */
function castWork(from: Type, type: Type): Work {
  if (isText(type)) return from.name === "bpchar" && type === textType ? trimBlanks : steps.text;
  if (from === type) return [];
  if (isNumeric(type.name) || type.name === "boolean" || isText(from) || from === unknownType) return fromText(type);
  return isMoment(from) && isMoment(type) ? moment(type.name, from.name) : [];
}

/** What the size of a type in a cast does. */
function sizeWork({ name }: Type, size: number | undefined, scale = 0): readonly Step[] {
  if (size === undefined) return [];
  if (name === "text") return [cutTo(size)];
  return name === "bpchar" ? [filledTo(size)] : name === "decimal" ? [fitted("error", scale, size)] : [];
}

function canCast(from: Type, to: Type): boolean {
  if (from === to || from === unknownType || isText(to) || isText(from)) return true;
  const names = [from.name, to.name];
  if (names.every(isNumeric)) return true;
  return ["integer,boolean", "boolean,integer"].includes(names.join()) || (isMoment(from) && isMoment(to));
}

/** The last of some types in their order. */
const widest = (order: readonly string[], names: readonly string[]): Type =>
  typeOf(order[Math.max(...names.map((name) => order.indexOf(name)))]);

const within = (bits: number) =>
  step("check-number", {}, { least: -(2 ** (bits - 1)), below: 2 ** (bits - 1), refused: "number-out-of-range" });

/** The whole numbers of each size. */
const wholes: Readonly<Record<string, Step | undefined>> = { smallint: within(16), integer: within(32), bigint: within(64) };

export const typeRules: TypeRules = {
  dynamic: false,
  kinds: { text: "text", smallint: "whole number", integer: "whole number", double: "double" },
  folds: true,
  nullFirst: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return textType;
    if (present.every((value) => typeof value === "boolean")) return typeOf("boolean");
    if (!present.every((value) => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal))
      return textType;
    if (!present.every(isWholeNumber)) return typeOf("decimal");
    return typeOf(present.every((value) => !isFailure(inRange("integer", value))) ? "integer" : "bigint");
  },
  readColumn({ name }, value) {
    if (name === "text") return toText(value);
    return name === "decimal"
      ? toDecimal(typeof value === "number" && !Number.isInteger(value) ? Decimal.of(value) : value)
      : value;
  },
  conversions,
  conversion,
  preference(row, given) {
    const types = given.map(plainText);
    // Of what they take, greatest and least make one type like CASE (10.5).
    if (isPure(row) && row.operation === "extreme") return row.result === typeRules.unify(types)?.name ? -10 : 0;
    // An operand of unknown type is taken to be of the other's type where there is such an operator (10.2).
    const at = types.indexOf(unknownType);
    const isTaken = row.notation === "operator" && types.length === 2 && at >= 0 && types[1 - at] !== unknownType;
    return isTaken && row.parameters[at].type === String(types[1 - at]) ? -10 : 0;
  },
  resultType(row, types) {
    if (row.result === "text" && types.some(isOfC)) return ofC;
    if (row.result !== "item" && row.result !== "same") return typeOf(row.result);
    const type = row.result === "item" ? (types[0].item ?? types[0]) : types[0];
    return type === unknownType ? textType : type === literalOfC ? ofC : type;
  },
  dates: "date",
  cast(given, to) {
    const from = plainText(given);
    const [, unit] = /^interval (?:\w+ to )?(\w+)$/.exec(to) ?? [];
    if (unit && (isText(from) || from === unknownType)) return { type: typeOf("interval"), convert: interval(unit) };
    const named = typeNamed(to);
    if (!named) return undefined;
    const { type, size, scale } = named;
    if (type.item) {
      if (from !== unknownType && from !== textType && !from.item) return undefined;
      return { type, convert: arrayOf(castWork(from.item ?? textType, type.item)) };
    }
    if (!canCast(from, type)) return undefined;
    if (to === "name") return { type, convert: [steps.output, asName] };
    return { type, convert: [...partsOfWork(castWork(from, type)), ...sizeWork(type, size, scale)] };
  },
  nullifType(leftGiven, rightGiven) {
    const [left, right] = [leftGiven, rightGiven].map((type) => (type === literalOfC ? unknownType : type));
    const both = [left.name, right.name];
    // There are operators between integers of all sizes.
    if (both.every((name) => /^(?:smallint|integer|bigint)$/.test(name))) return left;
    if (both.every(isNumeric)) return widest(numeric, both);
    // A literal is read as what it is compared with.
    if (left === unknownType && right === unknownType) return leftGiven === literalOfC ? ofC : textType;
    if (left === unknownType) return right;
    return left.name === "bpchar" && right === textType ? right : left;
  },
  unify(given) {
    const types = given.map(plainText);
    const known = types.filter((type) => type !== unknownType);
    const names = known.map(({ name }) => name);
    if (given.some(isOfC) && known.every((type) => type === textType)) return ofC;
    if (known.length === 0) return types.length > 0 ? textType : unknownType;
    if (names.every(isNumeric)) return widest(numeric, names);
    // Of text and char(n), which become each other, the first decides (10.5); of dates and timestamps the widest.
    const [first] = known;
    if (known.every(isText)) return first;
    const best = known.every(isMoment) ? widest(moments, names) : first;
    return known.every((type) => conversion(type, best)) ? best : undefined;
  },
  carriesCollation: ({ name }) => /^(?:text|bpchar|unknown)|\[\]$/.test(name),
  groups: true,
  rows: {
    compares: new Set([...relations, "is null", "is not null", "is distinct from"]),
    areValues: true,
    nested: true,
    queries: true,
    truth: (value, range) => ({ kind: "literal", value: value, type: "boolean", range }),
  },
  list: (_form, values) => values,
  fits: ({ name }) => wholes[name],
};

/** Each step of version 15 with the one that does it since 16. */
const sinceLater = new Map<Step, Step>(
  (Object.keys(steps) as (keyof typeof steps)[]).map((name) => [steps[name], laterSteps[name]]),
);

const withLaterSteps = <C extends { readonly convert?: Work }>(given: C | undefined): C | undefined =>
  given?.convert ? { ...given, convert: withSteps(given.convert, (each) => sinceLater.get(each) ?? each) } : given;

/** The rules of values since version 16. */
export const laterTypeRules: TypeRules = {
  ...typeRules,
  conversion: (from, to) => withLaterSteps(conversion(from, to)),
  cast: (from, to) => withLaterSteps(typeRules.cast(from, to)),
};
