import { lookup } from "../../values/index.ts";
import type { ResultType } from "../dialect.ts";
import { Type, anyType, decimalOf, typeOf } from "../types.ts";
import { partNamed } from "./fields.ts";
import { ranges } from "./numbers.ts";
import type { Integer, Numeric } from "./steps.ts";

/**
 * Types: the engine's in lower case, with `text` for VARCHAR, `literal` for a text literal that becomes
 * what is wanted, `null`, `any` for the variable of a lambda, and `[]` after the type of a list's items.
 * A text has the collation that COLLATE says, a decimal its digits where their number is known.
 */
const integers = ["tinyint", "utinyint", "smallint", "usmallint", "integer", "uinteger", "bigint", "ubigint", "hugeint"];
export const numeric = [...integers, "decimal", "float", "double"];
export const isInteger = (name: string): name is Integer => integers.includes(name);
export const isNumeric = (name: string): name is Numeric => numeric.includes(name);

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

export const textType = typeOf("text");
const nullType = typeOf("null");

/** The type that values of several types have together, found pair by pair; undefined when there is none. */
export function unify(types: readonly Type[], isOpen = false): Type | undefined {
  const isLiteral = types.length > 0 && types.every(({ name }) => name === "literal");
  if (isLiteral) return textType;
  const [first = nullType, ...others] = isOpen ? [nullType, ...types] : types;
  return others.reduce<Type | undefined>((common, type) => (common === undefined ? undefined : unifyTwo(common, type)), first);
}

function unifyTwo(left: Type, right: Type): Type | undefined {
  const [a, b] = [left.name, right.name];
  if (a === b && a !== "decimal") return a === "literal" ? textType : right.item || right === right.plain ? left : right;
  // A text literal beside null is a text, whatever comes after.
  if (a === "null" || b === "any") return b === "literal" ? textType : right;
  if (b === "null" || a === "any") return a === "literal" ? textType : left;
  if (a === "literal") return right;
  if (b === "literal") return left;
  const kinds = [a, b];
  if (kinds.every(isNumeric) || kinds.every((kind) => isInteger(kind) || kind === "boolean")) {
    const common = numeric.find((type) =>
      kinds.every((kind) => kind === type || kind === "boolean" || widening(kind, type) !== undefined),
    );
    if (common === undefined) return undefined;
    return common === "decimal" ? decimalType([left, right]) : typeOf(common);
  }
  if (kinds.every((kind) => kind === "date" || kind === "timestamp")) return typeOf("timestamp");
  const item = left.item && right.item && unifyTwo(left.item, right.item);
  return item && Type.list(item);
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

/** The decimals of a number: none of a whole one, NaN of a decimal where they are not known. */
const decimals = ({ name, scale = NaN }: Type): number => (name === "decimal" ? scale : 0);

/** A decimal type with as many digits before and after the point as the widest of two, where all are known. */
function decimalType(types: readonly Type[]): Type {
  const scale = Math.max(...types.map(decimals));
  const whole = Math.max(...types.map(({ name, width = NaN, scale = NaN }) => digitsOf[name] ?? width - scale));
  return decimalOf(scale, Number.isNaN(whole) ? undefined : Math.min(38, whole + scale));
}

/** The type of a decimal calculated from numbers, where how many decimals each has is known. */
const calculatedDecimal =
  (ofScales: (scales: readonly number[]) => number): ResultType =>
  (types) =>
    decimalOf(ofScales(types.map(decimals)));

/** By the result that a row names: the type of what a call gives, where that hangs on its arguments. */
export const results: Readonly<Record<string, ResultType>> = {
  "decimal, most": calculatedDecimal((scales) => Math.max(...scales)),
  "decimal, sum": calculatedDecimal(([a, b]) => a + b),
  "own text": () => textType,
  // A text has the collation of any text that it is made with.
  text: (types) => types.find(isCollated) ?? textType,
  same: ([first]) => (["literal", "null"].includes(first.name) ? textType : first),
  item: ([first]) => first.item ?? (first === anyType ? anyType : textType),
  list([first, second = nullType]) {
    if (first.name === "null[]" && second !== nullType) return Type.list(second.name === "literal" ? textType : second.plain);
    return first.item ? first.plain : Type.list(anyType);
  },
  // What is no whole number is given only where its name is the same for all rows.
  "part of a date": (_types, constant) =>
    typeOf(["epoch", "julian"].includes(partNamed(String(constant(0)))) ? "double" : "bigint"),
  "list of second item": ([, second]) => (second.item ? second.plain : Type.list(anyType)),
  aggregated: () => anyType,
  unified: (types) => unify(types) ?? textType,
  "unified list": (types) => Type.list(unify(types) ?? textType),
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
export const isCollated = ({ collation }: Type): boolean => collation !== undefined;

/** The collation of a call: that of the first text that has one. */
export const collationOf = (types: readonly Type[]): string => types.find(isCollated)?.collation ?? "binary";
