import { Bytes, Double, type Value, isWholeNumber } from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { ConversionLine, TypeRules } from "../dialect.ts";
import { isPure, relations } from "../row.ts";
import { type Work, step } from "../step.ts";
import { fitInteger } from "./numbers.ts";
import { steps, toDouble, toInteger, toText } from "./steps.ts";
import { Type, typeOf } from "../types.ts";

/**
 * A type here is what is known of an expression before it runs: its affinity (documentation, "Datatypes In SQLite", 3), and the
 * collation of its column, or that which COLLATE says.
 */
export type Affinity = "none" | "text" | "integer" | "real" | "numeric" | "blob";

export const affinityOf = (type: Type): Affinity => type.name as Affinity;

/** The collation of a comparison (7.1): one that COLLATE says, then that of a column, the left one first. */
export const collationFor = (types: readonly Type[]): string =>
  types.find(({ isSaid }) => isSaid)?.collation ?? firstCollation(types);

/** The collation of the first argument that has one, by which min() and max() compare ("Built-In Scalar SQL Functions"). */
const firstCollation = (types: readonly Type[]): string =>
  types.find(({ collation }) => collation !== undefined)?.collation ?? "binary";

/** The answers that make a collation. */
export const collations = {
  binary: { case: "minded", padding: "counted" },
  nocase: { case: "ignored in ascii", padding: "counted" },
  rtrim: { case: "minded", padding: "stripped" },
} as const;

/** What functions and operators take: every value can be given for everything but a blob. */
const conversions: readonly ConversionLine[] = [
  ["blob", "blob", -1],
  ["*", "blob", "never"],
  ["*", "text", 0, steps.text],
  ["*", "clipped", 0, [steps.text, steps["until NUL"]]],
  ["*", "escape", 0, [steps.text, step("check-escape", { escapeSize: "one character" })]],
  ["*", "number", 0, steps.number],
  ["*", "divided", 0, steps.divided],
  ["*", "numeral", 0, steps.numeral],
  ["*", "integer", 0, steps.integer],
  ["*", "position", 0, steps.integer],
  ["*", "real", 0, steps.real],
  ["*", "condition", 0, steps.truth],
  // How the sides of a comparison take affinity from each other (4.2), or neither from the other.
  ["integer|real|numeric", "numeric_side", 0],
  ["!integer|real|numeric", "as_numeric", 0, steps.numeric],
  ["text", "text_side", 0],
  ["none|blob", "as_text", 0, steps["text, or bytes"]],
  ["*", "any_side", 1],
  ["*", "any", 0],
];

/** CAST (documentation, "CAST expressions"), by the affinity of the type's name (3.1). */
const casts: Readonly<Record<Affinity, Work>> = {
  none: [],
  text: steps.text,
  integer: steps.integer,
  real: steps.real,
  numeric: steps["cast to numeric"],
  blob: [steps["text, or bytes"], step("bytes-of", { bytesWritten: "utf-8" })],
};

/** The affinity that a type name in a cast means. */
export function affinityNamed(name: string): Affinity {
  if (/int/i.test(name)) return "integer";
  if (/char|clob|text/i.test(name)) return "text";
  if (name === "" || /blob/i.test(name)) return "blob";
  return /real|floa|doub/i.test(name) ? "real" : "numeric";
}

/** Integers beyond 64 bits go on as doubles; what is not a number is null. */
function asStored(value: Value): Value {
  if (typeof value === "boolean") return Number(value);
  if (typeof value === "bigint") return fitInteger(value);
  return value instanceof Double && Number.isNaN(value.value) ? null : value;
}

/** The rules of values in SQLite, for text columns with a collation. */
export const typeRules = (collation: string): TypeRules => ({
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return Type.of("text", { collation });
    const isWhole = present.every((value) => typeof value === "boolean" || isWholeNumber(value));
    return Type.of(isWhole ? "integer" : "real", { collation: "binary" });
  },
  readColumn(type, value) {
    const affinity = affinityOf(type);
    if (affinity === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? new Double(value) : value);
    return affinity === "real" ? toDouble(value) : typeof value === "bigint" ? toInteger(value) : Number(value);
  },
  onRow: { type: typeOf("blob"), isOpen: (type) => affinityOf(type) === "none", holds: (value) => value instanceof Bytes },
  conversions,
  conversion: conversionTable(conversions),
  collationOf: (types, row) => (isPure(row) && row.operation === "extreme" ? firstCollation(types) : collationFor(types)),
  resultType({ result }, [first]) {
    if (result === "same collation") return Type.of("none", first);
    const own = typeOf(result);
    return own.name === "collated" ? Type.of(first.name, { ...own, isSaid: true }) : own;
  },
  cast(from, to) {
    // A type without a name is one that says nothing of numbers or texts, as any other name.
    const affinity = to === "" ? "numeric" : affinityNamed(to);
    return { type: Type.of(affinity, from), convert: casts[affinity] };
  },
  unify: () => typeOf("none"),
  rows: {
    compares: new Set([...relations, "is"]),
    queries: true,
    // The affinity of its column, without the collation (3.2).
    queryType: ({ name }) => typeOf(name),
    truth: (value, range) => ({ kind: "literal", value: Number(value), type: "none", range }),
  },
  list: (_form, values) => values,
  fits: (type) => (affinityOf(type) === "none" ? { named: "values of SQLite", run: asStored } : undefined),
});
