import { kernelFor } from "../../text/index.ts";
import {
  Bytes,
  Decimal,
  Failure,
  type Value,
  asciiTrimmed,
  isDate,
  countBytes,
  isFailure,
  isWholeNumber,
  isoDate,
  latinOfBytes,
  lookup,
  utf8Of,
} from "../../values/index.ts";
import { PatternError, cachedPattern } from "../../patterns/index.ts";
import type { Conversion, TypeRules } from "../dialect.ts";
import { isComparison } from "../shared/comparisons.ts";
import { strftime } from "./fields.ts";
import { formatFault } from "./moments.ts";
import { readIntervalText } from "./intervals.ts";
import { mostDecimals } from "../shared/code.ts";
import { type FunctionRow, relations } from "../row.ts";
import { fitted } from "../shared/sizes.ts";
import { type Own, type Step, type Work, followedBy, partsOfWork, unlessMissing, worked } from "../step.ts";
import { inRange, ranges } from "./numbers.ts";
import { type Integer, type Numeric, steps, toText } from "./steps.ts";

/**
 * Types: the engine's in lower case, with `text` for VARCHAR, `literal` for a text literal that becomes
 * what is wanted, `null`, `any` for the variable of a lambda, and `[]` after the type of a list's items.
 * A collation stands after a space, and so do the decimals of a decimal where their number is known.
 */
export const baseType = (type: string): string => type.replace(/ [^[]+/, "");

const integers = ["tinyint", "utinyint", "smallint", "usmallint", "integer", "uinteger", "bigint", "ubigint", "hugeint"];
const numeric = [...integers, "decimal", "float", "double"];
export const isInteger = (type: string): type is Integer => integers.includes(type);
export const isNumeric = (type: string): type is Numeric => numeric.includes(type);

const names: Readonly<Record<string, string>> = lookup({
  varchar: "text",
  text: "text",
  string: "text",
  char: "text",
  bpchar: "text",
  character: "text",
  tinyint: "tinyint",
  int1: "tinyint",
  smallint: "smallint",
  int2: "smallint",
  short: "smallint",
  integer: "integer",
  int: "integer",
  int4: "integer",
  signed: "integer",
  bigint: "bigint",
  int8: "bigint",
  long: "bigint",
  hugeint: "hugeint",
  utinyint: "utinyint",
  usmallint: "usmallint",
  uinteger: "uinteger",
  ubigint: "ubigint",
  decimal: "decimal",
  numeric: "decimal",
  double: "double",
  float8: "double",
  float: "float",
  float4: "float",
  real: "float",
  boolean: "boolean",
  bool: "boolean",
  logical: "boolean",
  date: "date",
  timestamp: "timestamp",
  datetime: "timestamp",
  time: "time",
  interval: "interval",
  blob: "blob",
  bytea: "blob",
  binary: "blob",
  varbinary: "blob",
});

const two = (digits: string): string => digits.padStart(2, "0");

/** A date, and what stands after it; undefined where there is none. */
function readDay(text: string): { date: string; rest: string } | undefined {
  const found = /^[ \t\n\v\f\r]*(\d{1,6})([-/ \\])(\d{1,2})\2(\d{1,2})([\s\S]*)$/.exec(text);
  if (!found || !isDate(Number(found[1]), Number(found[3]), Number(found[4]))) return undefined;
  return { date: isoDate(Number(found[1]), Number(found[3]), Number(found[4])), rest: found[5] };
}

function readClock(text: string): string | undefined {
  const found = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:\.(\d{1,9}))?)?$/.exec(asciiTrimmed(text));
  if (!found || Number(found[1]) > 23 || Number(found[2]) > 59 || Number(found[3] ?? 0) > 59) return undefined;
  const fraction = (found[4] ?? "").slice(0, 6).replace(/0+$/, "");
  return `${two(found[1])}:${found[2]}:${found[3] ?? "00"}${fraction && `.${fraction}`}`;
}

function readDate(text: string): Value {
  const day = readDay(text);
  if (day && (day.rest.trim() === "" || readClock(day.rest.replace(/^[T ]/, "")) !== undefined)) return day.date;
  return /^[ \t\n\v\f\r]*(?:epoch|-?infinity)[ \t\n\v\f\r]*$|\(BC\)|^[ \t\n\v\f\r]*-\d+[-/]/i.test(text)
    ? new Failure("not-covered", { what: `the date ${text}` })
    : new Failure("not-a-date", { text });
}

function readTimestamp(text: string): Value {
  const day = readDay(text);
  const rest = day?.rest.replace(/^[T ]/, "") ?? "";
  const clock = asciiTrimmed(rest) === "" ? "00:00:00" : readClock(rest);
  if (day && clock) return `${day.date} ${clock}`;
  return day && /[zZ]|[+-]\d\d/.test(rest)
    ? new Failure("not-covered", { what: "time zones" })
    : new Failure("not-a-date", { text });
}

function readBytes(text: string): Value {
  const bytes: number[] = [];
  for (const [part, hex] of text.matchAll(/\\x([0-9a-fA-F]{2})|[\s\S]/g)) {
    if (hex !== undefined) bytes.push(parseInt(hex, 16));
    else if (part.charCodeAt(0) < 128 && part !== "\\") bytes.push(part.charCodeAt(0));
    else return new Failure("invalid-value", { problem: `"${text}" is not a blob: bytes outside ASCII are written \\xNN` });
  }
  return new Bytes(Uint8Array.from(bytes));
}

/** Reads the text form of a list. */
function readList(text: string, item: string): Value {
  const inner = /^\[([\s\S]*)\]$/.exec(asciiTrimmed(text))?.[1];
  const bad = new Failure("invalid-value", { problem: `"${text}" is not a list` });
  if (inner === undefined) return bad;
  if (/[[{]/.test(inner)) return new Failure("not-covered", { what: "lists of lists as text" });
  if (asciiTrimmed(inner) === "") return [];
  const items: Value[] = [];
  const shape =
    /(?:[ \t\n\v\f\r]*'((?:[^'\\]|\\[\s\S]|'')*)'[ \t\n\v\f\r]*|[ \t\n\v\f\r]*"((?:[^"\\]|\\[\s\S])*)"[ \t\n\v\f\r]*|((?:[^,'"\\]|\\[\s\S])*))(,|$)/y;
  for (let more = true; more;) {
    const match = shape.exec(inner);
    if (!match) return bad;
    const quoted = match[1] ?? match[2];
    const value = quoted !== undefined ? quoted.replace(/\\([\s\S])/g, "$1") : asciiTrimmed(match[3]);
    items.push(quoted === undefined && /^null$/i.test(value) ? null : read(item, value));
    more = match[4] === ",";
  }
  return items.find(isFailure) ?? items;
}

/** A text read as a value of a type. */
export function read(type: string, text: string): Value {
  if (type.endsWith("[]")) return readList(text, type.slice(0, -2));
  if (isNumeric(type)) return worked(steps[type])(text);
  switch (type) {
    case "boolean":
      return worked(steps.truth)(text);
    case "date":
      return readDate(text);
    case "timestamp":
      return readTimestamp(text);
    case "time":
      return readClock(text) ?? new Failure("not-a-date", { text });
    case "interval":
      return readIntervalText(text);
    case "blob":
      return readBytes(text);
  }
  return text;
}

const literalTo = (type: string): Conversion => ({
  cost: type === "text" ? 1 : 2,
  convert: isNumeric(type)
    ? steps[type]
    : type === "boolean"
      ? steps.truth
      : unlessMissing((value) => (typeof value === "string" ? read(type, value) : value)),
});

const preferredTypes: Readonly<Record<string, number>> = lookup({ bigint: 1.01, integer: 1.03, hugeint: 1.2 });

/** How far a number type has to go up to become another; undefined where it would lose something. */
function widening(from: string, to: string): number | undefined {
  const [low, high] = [numeric.indexOf(from), numeric.indexOf(to)];
  if (low < 0 || high < low) return undefined;
  if (isInteger(from) && isInteger(to)) {
    const [[a, b], [c, d]] = [ranges[from], ranges[to]];
    // Where several would do, the engine prefers bigint, then integer, then the others alike.
    return a >= c && b <= d ? (preferredTypes[to] ?? 1.1) : undefined;
  }
  return to === "decimal" ? 2 : to === "float" ? 4 : 3;
}

const textFrom = (type: string): Step => (type === "float" ? steps["text of 32 bits"] : steps.text);

/** A decimal with at least so many decimals. */
const scaled = (value: Value, scale: number): Value =>
  value instanceof Decimal && value.scale < scale ? value.rounded(scale) : value;

/** How an argument becomes a parameter: implicit casts only. */
function conversion(given: string, to: string): Conversion | undefined {
  const scale = /^decimal (\d+)$/.exec(to)?.[1];
  if (scale !== undefined) {
    const exact = given === "boolean" ? { cost: 0, convert: steps.decimal } : conversion(given, "decimal");
    return followedBy(exact, (value) => scaled(value, Number(scale)));
  }
  const from = baseType(given);
  if (from === to || to === "any") return { cost: 0 };
  if (to.startsWith("item.")) return itemConversion(given, to.slice("item.".length));
  if (to === "direction" || to === "nullplace")
    return followedBy(conversion(given, "text"), (value) => wordOf(to, value as string));
  if (from === "null" && to === "lambda") return undefined;
  if (from === "null") return { cost: to === "text" ? 1 : 1.5 };
  if (from === "any") return { cost: 3 };
  if (to === "lambda") return undefined;
  if (to === "bytetext") return followedBy(conversion(given, "text"), (value) => latinOfBytes(utf8Of(value as string)));
  if (to === "position" || to === "upto") {
    const whole = from === "boolean" ? undefined : conversion(given, "bigint");
    return followedBy(whole, to === "position" ? withinOffsets : notBeyond);
  }
  // Beyond what a double counts exactly there is no piece, whatever the number.
  if (to === "ordinal") return followedBy(from === "boolean" ? undefined : conversion(given, "bigint"), Number);
  if (to === "escape") {
    const oneByte = (value: Value) => (countBytes(value as string) > 1 ? new Failure("escape-length", { escape: value }) : value);
    return followedBy(conversion(given, "text"), oneByte);
  }
  if (to === "dateformat" || to === "dateshape") {
    return early(conversion(given, "text"), (value) => {
      const tried = to === "dateformat" ? written("2000-01-01", value) : formatFault(value as string);
      return tried instanceof Failure ? tried : value;
    });
  }
  if (to === "group") {
    return early(conversion(given, "integer"), (value) =>
      (value as number) < 0 || (value as number) > 9 ? new Failure("no-such-group", { group: value }) : value,
    );
  }
  if (to === "floating") return from === "double" || from === "float" ? { cost: 1 } : undefined;
  if (to === "fraction") return from === "decimal" ? { cost: 0 } : undefined;
  if (to === "options" || to === "replace_options") {
    const allowed = to === "options" ? /^[cimnpsl \t\n\v\f\r]*$/ : /^[cgimnpsl \t\n\v\f\r]*$/;
    return early(conversion(given, "text"), (value) =>
      allowed.test(value as string) ? value : new Failure("pattern-flags", { flags: value }),
    );
  }
  if (to === "pattern") return early(conversion(given, "text"), (value) => readable(value as string));
  if (to === "open") {
    if (from === "open") return { cost: 0 };
    const isCast = ["decimal", "double", "text", "hugeint"].includes(from);
    return isCast ? { cost: 1, convert: steps.bigint } : conversion(given, "bigint");
  }
  if (to === "condition") {
    if (from === "boolean") return { cost: 0 };
    if (from === "literal" || from === "text") return { ...literalTo("boolean"), late: true };
    return isNumeric(from) ? { cost: 2, convert: steps.truth } : undefined;
  }
  if (to === "output") return { cost: 1, ...(from !== "text" && from !== "literal" && { convert: textFrom(from) }) };
  if (to === "nonlist") return from.endsWith("[]") ? undefined : { cost: 1, convert: textFrom(from) };
  if (to.startsWith("side.")) return comparedAs(from, to.slice(5));
  if (from === "literal") return to === "text" ? { cost: 0.5 } : to === "anylist" ? undefined : literalTo(to);
  if (to === "anylist") return from.endsWith("[]") ? { cost: 1 } : undefined;
  if (to.endsWith("[]") && from.endsWith("[]")) {
    const [inner, target] = [from.slice(0, -2), to.slice(0, -2)];
    if (inner === "null" || inner === "any" || target === "any") return { cost: 1 };
    const item = conversion(inner, target);
    return item && { cost: item.cost, ...(item.convert && { convert: eachItem(item.convert) }) };
  }
  if (to === "timestamp" && from === "date") return { cost: 1, convert: unlessMissing((value) => `${value as string} 00:00:00`) };
  if (from === "boolean" && isInteger(to)) return { cost: 50, convert: steps[to] };
  const cost = widening(from, to);
  if (cost === undefined) return undefined;
  return { cost, ...(isNumeric(to) && !isInteger(to) && { convert: steps[to] }) };
}

/** How a value becomes one that is compared with the items of a list of a type; what has no conversion is no item of it. */
function itemConversion(given: string, listType: string): Conversion {
  const item = listType.endsWith("[]") ? listType.slice(0, -2) : "any";
  const base = baseType(item);
  if (given === "boolean" && isNumeric(base)) return { cost: 0, convert: steps[base] };
  const convert = conversion(given, item.startsWith("decimal ") ? item : base)?.convert;
  return { cost: 0, ...(convert && { convert }) };
}

const orderWords = {
  direction: /^(?:(asc|ascending|default)|desc|descending)$/i,
  nullplace: /^(?:nulls[_ ])?(?:(last)|first)$|^(default)$/i,
};

/** What says how a list is sorted, in one word of ours. */
function wordOf(kind: keyof typeof orderWords, written: string): Value {
  const found = orderWords[kind].exec(written);
  if (!found) return new Failure("invalid-value", { problem: `"${written}" does not say how to sort a list` });
  const isUsual = found[1] !== undefined || found[2] !== undefined;
  if (kind === "direction") return isUsual ? "ascending" : "descending";
  return isUsual ? "last" : "first";
}

const written = kernelFor("text-from-date", strftime.answers, strftime.fixed);

/** The ends of what is taken for an offset or a length, of 32 bits and a sign. */
const [leastOffset, mostOffset] = [-4294967296, 4294967295];

const withinOffsets = (value: Value): Value =>
  (value as number | bigint) < leastOffset ? new Failure("number-out-of-range") : notBeyond(value);

const notBeyond = (value: Value): Value =>
  (value as number | bigint) > mostOffset ? new Failure("number-out-of-range") : Number(value);

/** A pattern that can be read, or the failure that says why not. */
function readable(pattern: string): Value {
  const found = cachedPattern("re2", pattern, "");
  return found instanceof PatternError && !found.isUncovered
    ? new Failure("pattern-syntax", { pattern, problem: found.problem, offset: found.offset })
    : pattern;
}

/** What a constant fails at is an error of the whole. */
const early = (first: Conversion | undefined, next: Own): Conversion | undefined => {
  const conversion = followedBy(first, next);
  return conversion && { ...conversion, early: true };
};

/** What is done to each item of a list that is there; a failure of one is that of the list. */
const eachItem = (work: Work): Own => {
  const change = worked(work);
  return unlessMissing((list) => {
    const items = (list as readonly Value[]).map((item) => (item === null ? null : change(item)));
    return items.find(isFailure) ?? items;
  });
};

/** A side of a comparison: a text beside another type is read as that type. */
function comparedAs(from: string, to: string): Conversion | undefined {
  if (from === to) return { cost: 0 };
  if (from === "literal") return to === "text" ? { cost: 0.5 } : to === "list" ? undefined : { ...literalTo(to), cost: 3 };
  if (to === "list") return from.endsWith("[]") ? { cost: 0 } : undefined;
  if (from === "text") return { ...literalTo(to), cost: 8 };
  if (from === "boolean" && isNumeric(to)) return { cost: isInteger(to) ? 4 : 6, convert: steps[to] };
  return from === "any" ? { cost: 3 } : conversion(from, to);
}

/** What a type name in a cast means: its name here, and its sizes. */
function typeNamed(written: string): { type: string; sizes: readonly number[]; depth: number } | undefined {
  const match = /^([a-z0-9]+)(?:\((\d+(?:,\d+)*)\))?((?:\[\])*)$/.exec(written);
  const type = match ? names[match[1]] : undefined;
  if (!match || !type) return undefined;
  return { type, sizes: match[2]?.split(",").map(Number) ?? [], depth: match[3].length / 2 };
}

function castTo(from: string, type: string, sizes: readonly number[]): Work | undefined {
  if (type === "text") return textFrom(from);
  const isOpen = from === "text" || from === "literal" || from === "any" || from === "null";
  if (isNumeric(type))
    return isOpen || isNumeric(from) || from === "boolean" ? [steps[type], ...sizeWork(type, sizes)] : undefined;
  if (isOpen && type === "boolean") return steps.truth;
  if (isOpen) return (value) => (typeof value === "string" ? read(type, value) : castAny(type, value));
  if (isNumeric(from) && type === "boolean") return steps.truth;
  if (from === "date" && type === "timestamp") return (value) => `${value as string} 00:00:00`;
  if (from === "timestamp" && type === "date") return (value) => (value as string).slice(0, 10);
  if (from === "timestamp" && type === "time") return (value) => (value as string).slice(11);
  return from === type ? (value) => value : undefined;
}

/** A number or truth value as one of a type. */
export const castAny = (type: string, value: Value): Value =>
  isNumeric(type) ? worked(steps[type])(value) : type === "boolean" ? worked(steps.truth)(value) : value;

/** A decimal has so many digits, so many of them after the point: 18 and 3 unless said otherwise. */
const sizeWork = (type: string, [size = 18, scale]: readonly number[]): readonly Step[] =>
  type === "decimal" ? [fitted("error", scale ?? (size === 18 ? 3 : 0), size)] : [];

/** The type that values of several types have together, found pair by pair; undefined when there is none. */
export function unify(types: readonly string[], isOpen = false): string | undefined {
  const isLiteral = types.length > 0 && types.every((type) => baseType(type) === "literal");
  if (isLiteral) return "text";
  const [first = "null", ...others] = isOpen ? ["null", ...types] : types;
  return others.reduce<string | undefined>((common, type) => (common === undefined ? undefined : unifyTwo(common, type)), first);
}

function unifyTwo(left: string, right: string): string | undefined {
  const [a, b] = [baseType(left), baseType(right)];
  if (a === b && a !== "decimal") return a === "literal" ? "text" : right.includes(" ") ? right : left;
  // A text literal beside null is a text, whatever comes after.
  if (a === "null" || b === "any") return b === "literal" ? "text" : right;
  if (b === "null" || a === "any") return a === "literal" ? "text" : left;
  if (a === "literal") return right;
  if (b === "literal") return left;
  const kinds = [a, b];
  if (kinds.every(isNumeric) || kinds.every((kind) => isInteger(kind) || kind === "boolean")) {
    const common = numeric.find((type) =>
      kinds.every((kind) => kind === type || kind === "boolean" || widening(kind, type) !== undefined),
    );
    return common === "decimal" ? decimalType([left, right]) : common;
  }
  if (kinds.every((kind) => kind === "date" || kind === "timestamp")) return "timestamp";
  if (!kinds.every((kind) => kind.endsWith("[]"))) return undefined;
  const item = unifyTwo(left.slice(0, -2), right.slice(0, -2));
  return item && `${item}[]`;
}

/** A decimal type with as many decimals as the widest of two, where all are known. */
function decimalType(types: readonly string[]): string {
  const scales = types.filter((type) => baseType(type) === "decimal").map((type) => Number(type.slice(8) || NaN));
  return scales.some(Number.isNaN) ? "decimal" : `decimal ${Math.max(...scales)}`;
}

/** The type of a sum or product of decimals, where how many decimals each has is known. */
function calculatedType(sign: string, types: readonly string[]): string {
  const [a, b] = types.map((type) => (baseType(type) === "decimal" ? Number(type.slice(8) || NaN) : 0));
  const scale = sign === "*" ? a + b : Math.max(a, b);
  return Number.isNaN(scale) ? "decimal" : `decimal ${scale}`;
}

/** Functions of one number of any type. */
const ofAnyNumber = new Set([
  "abs",
  "sign",
  "ceil",
  "ceiling",
  "floor",
  "trunc",
  "round",
  "round_even",
  "roundbankers",
  "bit_count",
  "~",
  "-",
  "+",
]);

/** Functions of two numbers of any type. */
const ofTwoNumbers = new Set("& | xor * // % gcd greatest_common_divisor lcm least_common_multiple fmod fdiv".split(" "));

/** Whether lists and the items that go with them have a type together, and are of a kind that the function takes. */
function itemsFit(row: FunctionRow, types: readonly string[]): boolean {
  const [first] = types.map(baseType);
  if (
    /^list_(?:sum|avg|product|stddev|var|sem|bool)/.test(row.name) &&
    first.endsWith("[]") &&
    !["null[]", "any[]"].includes(first)
  )
    return row.name.startsWith("list_bool") ? first === "boolean[]" : isNumeric(first.slice(0, -2));
  if (row.name === "flatten")
    return first.endsWith("[][]") || first === "null" || first === "any" || first === "null[]" || first === "any[]";
  const mixed = types.flatMap((type, i) => {
    const given = baseType(type);
    const parameter = row.parameters[Math.min(i, row.parameters.length - 1)];
    if (parameter.type === "anylist" && given.endsWith("[]")) return [given.slice(0, -2)];
    if (parameter.type !== "item.list") return [];
    // What is put into a list is a text where it is written as one.
    return [given === "literal" && /append|prepend|push/.test(row.name) ? "text" : given];
  });
  return mixed.length < 2 || unify(mixed) !== undefined;
}

/** Collations that COLLATE may name, by the answers that make them. */
export const collations: Readonly<Record<string, "minded" | "ignored" | "accents ignored" | "both ignored">> = lookup({
  binary: "minded",
  c: "minded",
  posix: "minded",
  nocase: "ignored",
  noaccent: "accents ignored",
  "nocase.noaccent": "both ignored",
});

/** Whether COLLATE says the collation of texts, or of those in a list. */
const isCollated = (type: string): boolean => type.startsWith("text ");

export const collationOf = (types: readonly string[]): (typeof collations)[string] =>
  collations[types.find(isCollated)?.slice("text ".length) ?? "binary"];

/** Functions that look for a text in a collation there. */
const searches = new Set(["like", "ilike", "like_escape", "ilike_escape", "glob", "contains", "starts_with", "strpos"]);

const resultName = (row: { result: string }, types: readonly string[]): string => {
  const kinds = types.map(baseType);
  switch (row.result) {
    case "same":
      return kinds[0] === "literal" || kinds[0] === "null" ? "text" : types[0];
    case "item":
      return kinds[0].endsWith("[]") ? types[0].slice(0, -2) : kinds[0] === "any" ? "any" : "text";
    case "list":
      return kinds[0].endsWith("[]")
        ? kinds[0] === "null[]" && kinds[1] && kinds[1] !== "null"
          ? `${kinds[1] === "literal" ? "text" : kinds[1]}[]`
          : kinds[0]
        : "any[]";
    case "list of second item":
      return kinds[1].endsWith("[]") ? kinds[1] : "any[]";
    case "aggregated":
      return "any";
    case "unified":
      return unify(types) ?? "text";
    case "unified list":
      return `${unify(types) ?? "text"}[]`;
  }
  return row.result;
};

/** The rules of values in DuckDB. */
export const typeRules: TypeRules = {
  // A constant that does not convert fails on the rows that need it.
  dynamic: true,
  nullFirst: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    if (present.every((value) => typeof value === "boolean")) return "boolean";
    if (!present.every((value) => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal))
      return "text";
    if (!present.every(isWholeNumber)) return `decimal ${mostDecimals(present)}`;
    return present.every((value) => !isFailure(inRange("integer", BigInt(value as number)))) ? "integer" : "bigint";
  },
  readColumn(type, value) {
    if (type === "text") return toText(value);
    return baseType(type) === "decimal" && typeof value === "number" ? scaled(Decimal.of(value), Number(type.slice(8))) : value;
  },
  conversion,
  preference(row, types) {
    if (!isComparison(row) || row.parameters[0].type !== "side.text") return 0;
    return row.answers.case === collationOf(types) ? 0 : 100;
  },
  refuses(row, types) {
    const collated = new Set(types.filter(isCollated));
    if (collated.size > 1 && row.result !== "unified") return "argument-type";
    if (collated.size > 0 && (searches.has(row.name) || (row.family === "list" && row.result !== "item" && !row.aggregate)))
      return "not-covered";
    // Beside a whole number a text literal may be a number or a date; from a number only a number is subtracted.
    const isSum = (row.name === "+" || row.name === "-") && types.length === 2;
    const isOpen = row.name === "+" ? types.includes("literal") : types[0] === "literal";
    if (isSum && isOpen && types.every((type) => /^(?:literal|tinyint|smallint|integer)$/.test(type))) return "ambiguous-call";
    // It may be an interval, too, which is multiplied and divided by larger numbers.
    const isScaling = row.name === "*" && types.some((type) => /^(?:bigint|double|decimal)/.test(type));
    if (
      types.length === 2 &&
      types.includes("literal") &&
      (isScaling || (/^(?:\/|fdiv|fmod)$/.test(row.name) && types[0] === "literal"))
    )
      return "ambiguous-call";
    if (/^(?:<<|>>)$/.test(row.name) && types[0] === "literal") return "ambiguous-call";
    if (ofTwoNumbers.has(row.name) && types.every((type) => type === "literal")) return "ambiguous-call";
    // A text literal may be any number.
    if (types[0] === "literal" && ofAnyNumber.has(row.name) && (types.length === 1 || !/^[-+]$/.test(row.name)))
      return "ambiguous-call";
    if (/^round_?(?:even|bankers)$/.test(row.name) && types[1] === "literal") return "ambiguous-call";
    if (row.name === "regexp_extract" && types[2] === "literal") return "ambiguous-call";
    // Only = and <> compare a text with what is none.
    const isOrder = ["<", "<=", ">", ">="].includes(row.name);
    if (isOrder && types.includes("text") && types.some((type) => !/^(?:text|literal|null|any)\b/.test(type)))
      return "argument-type";
    if (isOrder && types.includes("boolean") && types.some((type) => /^(?:decimal|double|float)$/.test(baseType(type))))
      return "argument-type";
    // A text literal may be a date or a timestamp.
    const isDated = (type: string, i: number) => type === "literal" && /^(?:date|timestamp)$/.test(row.parameters[i].type);
    const isKnown = types.some((type) => type === "date" || type === "timestamp");
    if (row.evidence.endsWith("Date Functions") && !isSum && !isKnown && types.some(isDated)) return "ambiguous-call";
    // A truth value is a number only beside numbers, in a list or a choice.
    const isTruth = (type: string, i: number) =>
      type === "boolean" && isInteger(row.parameters[Math.min(i, row.parameters.length - 1)].type);
    if (types.some(isTruth)) return "argument-type";
    return row.family === "list" && !itemsFit(row, types) ? "argument-type" : undefined;
  },
  resultType(row, types) {
    if (row.result === "decimal" && types.length === 1 && /^(?:[-+]|abs)$/.test(row.name)) return types[0];
    if (row.result === "decimal" && types.length === 2 && /^[-+*]$/.test(row.name)) return calculatedType(row.name, types);
    if (row.result === "collated") return `text ${row.name.replace("collate ", "")}`;
    if (row.result === "own text") return "text";
    // A text has the collation of any text that it is made with.
    return row.result === "text" ? (types.find(isCollated) ?? "text") : resultName(row, types);
  },
  dates: "date",
  cast(from, to) {
    const isTry = to.startsWith("try ");
    const named = typeNamed(isTry ? to.slice(4) : to);
    if (!named) return undefined;
    const { type, sizes, depth } = named;
    const isDecimal = type === "decimal" && depth === 0;
    const target = isDecimal ? `decimal ${sizes[1] ?? (sizes.length === 0 ? 3 : 0)}` : type + "[]".repeat(depth);
    const kind = baseType(from);
    if (target === kind && isCollated(from)) return { type: from, convert: (value) => value };
    let convert: Work | undefined;
    if (depth === 0) convert = castTo(kind, type, sizes);
    else if (kind === "text" || kind === "literal") convert = (value) => readList(value as string, target.slice(0, -2));
    else if (kind.endsWith("[]") && depth === 1) {
      const item = castTo(kind.slice(0, -2), type, sizes);
      convert = item && eachItem(item);
    } else if (kind === "null" || kind === target) convert = (value) => value;
    if (!convert) return undefined;
    const parts = partsOfWork(convert).map((part) => (typeof part === "function" ? unlessMissing(part) : part));
    return { type: target, convert: parts, ...(isTry && { tries: true as const }) };
  },
  unify,
  // A whole number that is written takes the type of those beside it, where it fits.
  numberBeside(value, own, others) {
    const known = others.map(baseType).filter((type) => type !== "null");
    if (known.length === 0 || !known.every(isInteger)) return own;
    const type = unify(known)!;
    return isFailure(inRange(type, BigInt(value))) ? own : type;
  },
  betweenType(types) {
    const common = unify(types);
    return common && !common.endsWith("[]") && baseType(common) !== "text" ? `side.${baseType(common)}` : undefined;
  },
  groups: true,
  simplifiesChoices: true,
  rows: {
    compares: new Set([...relations, "is null", "is not null", "is distinct from"]),
    areValues: true,
    nested: true,
    nullsLast: true,
    eager: true,
    truth: (value, range) => ({ kind: "literal", value: value, type: "boolean", range }),
  },
  list: (_form, values) => values,
  fits: (type) =>
    type in ranges
      ? (value) => (typeof value === "number" || typeof value === "bigint" ? inRange(type, BigInt(value)) : value)
      : undefined,
  items: (value) => (value === null ? [] : (value as readonly Value[])),
  sequence: (items) => items,
};
