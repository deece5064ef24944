import {
  Decimal,
  Double,
  Failure,
  type Value,
  countCodePoints,
  isDate,
  isFailure,
  isWholeNumber,
  lookup,
} from "../../values/index.ts";
import type { Conversion, TypeRules } from "../dialect.ts";
import { relations } from "../row.ts";
import { unlessMissing } from "../step.ts";

const numeric = ["integer", "decimal", "double"];

function toDecimal(value: Value): Value {
  return typeof value === "number" || typeof value === "bigint" ? Decimal.of(value) : value;
}

function toDouble(value: Value): Value {
  if (typeof value === "number" || typeof value === "bigint") return new Double(Number(value));
  return value instanceof Decimal ? new Double(value.toNumber()) : value;
}

/** An approximate number as text (6.13, general rule 12): one digit, a point where more follow, E and the exponent. */
function approximate(value: number): string {
  if (value === 0) return "0E0";
  const [mantissa, exponent] = value.toExponential().split("e");
  return `${mantissa}E${Number(exponent)}`;
}

/** A value as text (6.13 <cast specification>). */
export function toText(value: Value): Value {
  if (typeof value === "string" || value === null || isFailure(value)) return value;
  if (typeof value === "boolean") return value ? "TRUE" : "FALSE";
  return value instanceof Double ? approximate(value.value) : String(value);
}

/** Numbers go up the order of the types; null and a text of the same type stay; there is no other implicit conversion (4.4, 9.1). */
function conversion(from: string, to: string): Conversion | undefined {
  if (from === to || to === "any") return { cost: 0 };
  if (from === "null") return { cost: to === "text" ? 1 : 1.5 };
  if (to === "character" || to === "escape") {
    if (from !== "text") return undefined;
    const code = to === "character" ? "trim-character" : "escape-length";
    return {
      cost: 0,
      convert: unlessMissing((value) =>
        [...(value as string)].length === 1 ? value : new Failure(code, { text: value, escape: value }),
      ),
    };
  }
  // A position or a number of characters: what is beyond a double's whole numbers is beyond every text.
  if (to === "count" && from === "integer")
    return { cost: 0, convert: (value) => (typeof value === "bigint" ? Number(value) : value) };
  if (to === "condition") return from === "boolean" ? { cost: 0 } : undefined;
  const [low, high] = [numeric.indexOf(from), numeric.indexOf(to)];
  if (low < 0 || high < low) return undefined;
  return { cost: high - low, convert: unlessMissing(to === "decimal" ? toDecimal : toDouble) };
}

const names: Readonly<Record<string, string>> = lookup({
  char: "char",
  character: "char",
  varchar: "text",
  "char varying": "text",
  "character varying": "text",
  clob: "text",
  "character large object": "text",
  "national character": "char",
  "national character varying": "text",
  nchar: "char",
  integer: "integer",
  int: "integer",
  smallint: "integer",
  bigint: "integer",
  numeric: "decimal",
  decimal: "decimal",
  dec: "decimal",
  "double precision": "double",
  float: "double",
  real: "double",
  boolean: "boolean",
  date: "date",
});

/** Bounds of the integer types, which the standard leaves to the implementation; these are what engines share. */
const bits: Readonly<Record<string, number>> = lookup({ smallint: 16, integer: 32, int: 32, bigint: 64 });

function read(type: string, text: string): Value {
  const trimmed = text.trim();
  const bad = new Failure(type === "boolean" ? "not-a-boolean" : type === "date" ? "not-a-date" : "not-a-number", { text });
  if (type === "boolean") {
    const word = trimmed.toUpperCase();
    return word === "TRUE" ? true : word === "FALSE" ? false : word === "UNKNOWN" ? null : bad;
  }
  if (type === "date") {
    const found = /^(\d{4})-(\d{2})-(\d{2})$/.exec(trimmed);
    return found && isDate(Number(found[1]), Number(found[2]), Number(found[3])) ? trimmed : bad;
  }
  if (!/^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/.test(trimmed)) return bad;
  if (type === "double") return new Double(Number(trimmed));
  return Decimal.parse(trimmed.replace(/\.(?=$|[eE])/, "")) ?? bad;
}

/** A text of a length: padded where the type is CHARACTER; only spaces may be cut without loss. */
function sizedText(text: string, type: string, size: number): string {
  const cut = [...text].slice(0, size).join("");
  return type === "char" ? cut + " ".repeat(Math.max(0, size - countCodePoints(cut))) : cut;
}

function sizedNumber(value: Value, word: string, [size, scale = 0]: readonly number[]): Value {
  const tooLarge = new Failure("number-out-of-range");
  if (value instanceof Double) {
    if (!(word in bits) && size === undefined) return value;
    return sizedNumber(Decimal.parse(value.value.toFixed(Math.min(scale + 1, 20))) ?? Decimal.of(0), word, [size, scale]);
  }
  const decimal = toDecimal(value) as Decimal;
  if (word in bits) {
    const whole = decimal.rounded(0).coefficient;
    return BigInt.asIntN(bits[word], whole) === whole ? Number(whole) : tooLarge;
  }
  if (size === undefined) return decimal.rounded(0);
  const rounded = decimal.rounded(scale);
  const limit = 10n ** BigInt(size);
  return rounded.coefficient < limit && rounded.coefficient > -limit ? rounded : tooLarge;
}

/** The rules of values in SQL. */
export const typeRules: TypeRules = {
  dynamic: false,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    if (present.every((value) => typeof value === "boolean")) return "boolean";
    return present.every(isWholeNumber) ? "integer" : "decimal";
  },
  readColumn(type, value) {
    if (type === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? Decimal.of(value) : value);
    return type === "decimal" && (typeof value === "number" || typeof value === "bigint") ? Decimal.of(value) : value;
  },
  conversion,
  resultType: (row, types) => (row.result === "same" ? types[0] : row.result),
  dates: "date",
  cast(from, to) {
    const match = /^([a-z ]+?)(?:\((\d+(?:,\d+)*)\))?$/.exec(to);
    const type = match && names[match[1]];
    if (!match || !type) return undefined;
    const sizes = match[2]?.split(",").map(Number) ?? [];
    const isText = type === "text" || type === "char";
    const isNumber = numeric.includes(type);
    const allowed = from === "null" || from === type || from === "text" || isText || (isNumber && numeric.includes(from));
    if (!allowed) return undefined;
    return {
      type: isText ? "text" : type,
      convert: unlessMissing((value) => {
        if (isText) {
          const size = sizes[0] ?? (type === "char" ? 1 : undefined);
          const text = toText(value) as string;
          return size === undefined ? text : sizedText(text, type, size);
        }
        const given = typeof value === "string" ? read(type, value) : value;
        if (given === null || isFailure(given) || !isNumber) return given;
        return type === "double" ? toDouble(given) : sizedNumber(given, match[1], sizes);
      }),
    };
  },
  truth: (value) => (typeof value === "boolean" || value === null || isFailure(value) ? value : false),
  unify(types) {
    const known = types.filter((type) => type !== "null");
    if (known.length === 0) return "null";
    if (known.every((type) => type === known[0])) return known[0];
    return known.every((type) => numeric.includes(type))
      ? numeric[Math.max(...known.map((type) => numeric.indexOf(type)))]
      : undefined;
  },
  groups: true,
  rows: {
    compares: new Set([...relations, "is null", "is not null", "is distinct from"]),
    nested: true,
    queries: true,
    truth: (value, range) => ({ kind: "literal", value: value, type: "boolean", range }),
  },
  list: (_form, values) => values,
};
