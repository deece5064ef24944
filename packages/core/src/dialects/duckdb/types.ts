import { lookup } from "../../values/index.ts";
import type { ResultType } from "../dialect.ts";
import { decimalOf, isListType, itemOf, knownOf, listOf, nameOf, scaleOf, widthOf } from "../types.ts";
import { ranges } from "./numbers.ts";
import type { Integer, Numeric } from "./steps.ts";

/**
 * Types: the engine's in lower case, with `text` for VARCHAR, `literal` for a text literal that becomes
 * what is wanted, `null`, `any` for the variable of a lambda, and `[]` after the type of a list's items.
 * A collation stands after a space, and so do the decimals of a decimal where their number is known.
 */
const integers = ["tinyint", "utinyint", "smallint", "usmallint", "integer", "uinteger", "bigint", "ubigint", "hugeint"];
export const numeric = [...integers, "decimal", "float", "double"];
export const isInteger = (type: string): type is Integer => integers.includes(type);
export const isNumeric = (type: string): type is Numeric => numeric.includes(type);

export const names: Readonly<Record<string, string>> = lookup({
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

const preferredTypes: Readonly<Record<string, number>> = lookup({ bigint: 1.01, integer: 1.03, hugeint: 1.2 });

/** How far a number type has to go up to become another; undefined where it would lose something. */
export function widening(from: string, to: string): number | undefined {
  const [low, high] = [numeric.indexOf(from), numeric.indexOf(to)];
  if (low < 0 || high < low) return undefined;
  if (isInteger(from) && isInteger(to)) {
    const [[a, b], [c, d]] = [ranges[from], ranges[to]];
    // Where several would do, the engine prefers bigint, then integer, then the others alike.
    return a >= c && b <= d ? (preferredTypes[to] ?? 1.1) : undefined;
  }
  return to === "decimal" ? 2 : to === "float" ? 4 : 3;
}

/** The type that values of several types have together, found pair by pair; undefined when there is none. */
export function unify(types: readonly string[], isOpen = false): string | undefined {
  const isLiteral = types.length > 0 && types.every((type) => nameOf(type) === "literal");
  if (isLiteral) return "text";
  const [first = "null", ...others] = isOpen ? ["null", ...types] : types;
  return others.reduce<string | undefined>((common, type) => (common === undefined ? undefined : unifyTwo(common, type)), first);
}

function unifyTwo(left: string, right: string): string | undefined {
  const [a, b] = [nameOf(left), nameOf(right)];
  if (a === b && a !== "decimal") return a === "literal" ? "text" : knownOf(right) === undefined ? left : right;
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
  const items = [left, right].map(itemOf);
  if (items[0] === undefined || items[1] === undefined) return undefined;
  const item = unifyTwo(items[0], items[1]);
  return item && listOf(item);
}

/** The most digits that whole numbers of a type have. */
const digitsOf: Readonly<Record<string, number>> = {
  tinyint: 3,
  utinyint: 3,
  smallint: 5,
  usmallint: 5,
  integer: 10,
  uinteger: 10,
  bigint: 19,
  ubigint: 20,
  hugeint: 38,
};

/** A decimal type with as many digits before and after the point as the widest of two, where all are known. */
function decimalType(types: readonly string[]): string {
  const scale = Math.max(...types.filter((type) => nameOf(type) === "decimal").map(scaleOf));
  const whole = Math.max(...types.map((type) => digitsOf[nameOf(type)] ?? (widthOf(type) ?? NaN) - scaleOf(type)));
  return decimalOf(scale, Number.isNaN(whole) ? undefined : Math.min(38, whole + scale));
}

/** The type of a decimal calculated from numbers, where how many decimals each has is known. */
const calculatedDecimal =
  (decimals: (scales: readonly number[]) => number): ResultType =>
  (types) =>
    decimalOf(decimals(types.map((type) => (nameOf(type) === "decimal" ? scaleOf(type) : 0))));

/** By the result that a row names: the type of what a call gives, where that hangs on its arguments. */
export const results: Readonly<Record<string, ResultType>> = {
  "decimal, most": calculatedDecimal((scales) => Math.max(...scales)),
  "decimal, sum": calculatedDecimal(([a, b]) => a + b),
  "own text": () => "text",
  // A text has the collation of any text that it is made with.
  text: (types) => types.find(isCollated) ?? "text",
  same: ([first]) => (["literal", "null"].includes(nameOf(first)) ? "text" : first),
  item: ([first]) => itemOf(first) ?? (nameOf(first) === "any" ? "any" : "text"),
  list([first, second]) {
    const [list, item] = [first, second ?? "null"].map(nameOf);
    if (list === "null[]" && item !== "null") return listOf(item === "literal" ? "text" : item);
    return isListType(list) ? list : "any[]";
  },
  "list of second item": ([, second]) => (isListType(second) ? nameOf(second) : "any[]"),
  aggregated: () => "any",
  unified: (types) => unify(types) ?? "text",
  "unified list": (types) => listOf(unify(types) ?? "text"),
};

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
export const isCollated = (type: string): boolean => nameOf(type) === "text" && knownOf(type) !== undefined;

/** The collation of a call: that of the first text that has one. */
export const collationOf = (types: readonly string[]): string => knownOf(types.find(isCollated) ?? "text") ?? "binary";
