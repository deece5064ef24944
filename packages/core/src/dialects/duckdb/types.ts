import { lookup } from "../../values/index.ts";
import type { ResultType } from "../dialect.ts";
import { plainType } from "../types.ts";
import { ranges } from "./numbers.ts";
import type { Integer, Numeric } from "./steps.ts";

/**
 * Types: the engine's in lower case, with `text` for VARCHAR, `literal` for a text literal that becomes
 * what is wanted, `null`, `any` for the variable of a lambda, and `[]` after the type of a list's items.
 * A collation stands after a space, and so do the decimals of a decimal where their number is known.
 */
export const baseType = plainType;

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

/** The type of a decimal calculated from numbers, where how many decimals each has is known. */
const decimalOf =
  (decimals: (scales: readonly number[]) => number): ResultType =>
  (types) => {
    const scale = decimals(types.map((type) => (baseType(type) === "decimal" ? Number(type.slice(8) || NaN) : 0)));
    return Number.isNaN(scale) ? "decimal" : `decimal ${scale}`;
  };

const isListType = (type: string): boolean => baseType(type).endsWith("[]");

/** By the result that a row names: the type of what a call gives, where that hangs on its arguments. */
export const results: Readonly<Record<string, ResultType>> = {
  "decimal, most": decimalOf((scales) => Math.max(...scales)),
  "decimal, sum": decimalOf(([a, b]) => a + b),
  "own text": () => "text",
  // A text has the collation of any text that it is made with.
  text: (types) => types.find(isCollated) ?? "text",
  same: ([first]) => (["literal", "null"].includes(baseType(first)) ? "text" : first),
  item: ([first]) => (isListType(first) ? first.slice(0, -2) : baseType(first) === "any" ? "any" : "text"),
  list([first, second]) {
    const [list, item] = [first, second ?? "null"].map(baseType);
    if (list === "null[]" && item !== "null") return `${item === "literal" ? "text" : item}[]`;
    return isListType(list) ? list : "any[]";
  },
  "list of second item": ([, second]) => (isListType(second) ? baseType(second) : "any[]"),
  aggregated: () => "any",
  unified: (types) => unify(types) ?? "text",
  "unified list": (types) => `${unify(types) ?? "text"}[]`,
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
export const isCollated = (type: string): boolean => type.startsWith("text ");

/** The collation of a call: that of the first text that has one. */
export const collationOf = (types: readonly string[]): string => types.find(isCollated)?.slice("text ".length) ?? "binary";
