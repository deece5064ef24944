import { type Value, isFailure } from "../../values/index.ts";
import type { ResultType } from "../dialect.ts";
import { toInteger } from "./steps.ts";
import { decimalOf, knownOf, nameOf, scaleOf, typed } from "../types.ts";

/** Types: `text` with its collation after a space where COLLATE says one, `decimal` with its scale where that is known, `binary`, `hextext` (x'…'), `hybrid` (0x…), the numbers, `date`, `datetime`, `time`, `null`. */
export const isBinary = (type: string): boolean => ["binary", "hybrid", "hextext"].includes(type);
/** The type of a text that is written as a literal. */
export const textLiteral = "text literal";
/** The type of CAST(x AS CHAR), which counts as a number without decimals where one is calculated; as do bytes of CAST. */
export const castText = "text char";
export const castBytes = "binary char";
/** The type of a text that is made from a date, and counts as a number by the digits of that. */
export const dateText = "text date";
/** Bytes written as a literal, which take the collation of a text beside them unless that is a literal, too. */
export const isBytesLiteral = (type: string): boolean => type === "hybrid" || type === "hextext";

/** The collations that are covered, by the answers that make them. */
export const collations = {
  utf8mb4_general_ci: { case: "general", padding: "padded" },
  utf8mb4_unicode_ci: { case: "unicode", padding: "padded" },
  utf8mb4_bin: { case: "minded", padding: "padded" },
  utf8mb4_general_nopad_ci: { case: "general", padding: "counted" },
  utf8mb4_unicode_nopad_ci: { case: "unicode", padding: "counted" },
  utf8mb4_nopad_bin: { case: "minded", padding: "counted" },
} as const;
export type Collation = keyof typeof collations;
/** What a collation takes to be the same. */
export type Alike = (typeof collations)[Collation] | typeof byBytes;

/** Whether COLLATE says the collation of a type. */
export const isCollated = (type: string): boolean => (knownOf(type) ?? "") in collations;

export const byBytes = { case: "minded", padding: "counted" } as const;

/** The collation of a comparison: bytes where one side is binary, what COLLATE says, or the one of the dialect. */
export function collationFor(types: readonly string[], usual: Collation): Collation | "binary" {
  const kinds = types.map(nameOf);
  const isStronger = (type: string) => nameOf(type) === "text" && type !== textLiteral;
  if (kinds.includes("binary") || (kinds.some(isBytesLiteral) && !types.some(isStronger))) return "binary";
  const named = types.find(isCollated);
  return named === undefined ? usual : (knownOf(named) as Collation);
}

export const numbers = ["integer", "unsigned", "decimal", "double"];
export const temporal = ["date", "datetime", "time"];

/** The type of the greatest of values: a date or time where there is one, a double where numbers stand beside texts. */
export function extremeType(types: readonly string[]): string {
  const kinds = types.map(nameOf).filter((kind) => kind !== "null");
  const moments = kinds.filter((kind) => temporal.includes(kind));
  if (moments.length > 0) return moments.every((kind) => kind === moments[0]) ? moments[0] : "datetime";
  const isMixed = kinds.some((kind) => numbers.includes(kind)) && kinds.some((kind) => kind === "text" || kind === "binary");
  return isMixed ? "double" : (unify(types) ?? "text");
}

/** The decimals that a number of a type shows; NaN where they are not fixed. */
const fixedDecimals = (type: string): number =>
  ["integer", "unsigned"].includes(nameOf(type)) || knownOf(type) === "char" ? 0 : scaleOf(type);

const decimalScale = (type: string): number => (nameOf(type) === "decimal" ? scaleOf(type) : 0);

/** How many decimals a calculated number shows, by those of what it is made from and the places that a call asks for. */
const decimalsOf: Readonly<Record<string, (scales: readonly number[], asked: Value | undefined) => number>> = {
  most: (scales) => Math.max(...scales),
  sum: (scales) => scales.reduce((sum, scale) => sum + scale, 0),
  "four more": ([first]) => first + 4,
  none: () => 0,
  six: () => 6,
  "as asked": (scales, asked) => {
    if (scales.length === 1) return 0;
    return asked === undefined || isFailure(asked) ? scales[0] : Math.max(0, Number(toInteger(asked) ?? 0));
  },
};

/** The type of a number that shows so many decimals; NaN where that is not fixed. */
function numberWith(kind: "decimal" | "double", decimals: number): string {
  return kind === "double" ? typed(kind, decimals <= 30 ? decimals : undefined) : decimalOf(Math.min(38, decimals));
}

const numberResults = (kind: "decimal" | "double", scaleOf: (type: string) => number): Record<string, ResultType> =>
  Object.fromEntries(
    Object.entries(decimalsOf).map(([name, decimals]) => [
      `${kind}, ${name}`,
      (types, constant) => numberWith(kind, decimals(types.map(scaleOf), constant(1))),
    ]),
  );

/** By the result that a row names: the type of what a call gives, where that hangs on its arguments. */
export const results: Readonly<Record<string, ResultType>> = {
  ...numberResults("decimal", decimalScale),
  ...numberResults("double", fixedDecimals),
  same: ([first]) => (nameOf(first) === "null" ? "double" : first),
  "integer, of the first": ([first]) => (first === "unsigned" ? first : "integer"),
  "integer, of any": (types) => (types.includes("unsigned") ? "unsigned" : "integer"),
  "integer, opposite": ([first]) => (first === "unsigned" ? "decimal 0" : "integer"),
  // Bytes of a column stay its own; others are like a literal's.
  "bytes beside": (types) => (types.some((type) => nameOf(type) === "binary") ? "binary" : "hextext"),
  shifted: ([first]) => (["datetime", "time"].includes(nameOf(first)) ? nameOf(first) : "date"),
  clocked([first]) {
    const kind = nameOf(first);
    if (kind === "date") return "datetime";
    return kind === "text" ? dateText : kind === "datetime" || isBinary(kind) ? kind : "time";
  },
  extreme: (types) => extremeType(types),
  "own text": () => "text",
  // Where the bits are none that there are, the result has no character set.
  digest(_types, constant) {
    const bits = constant(1);
    return bits === undefined || [0, 224, 256, 384, 512].includes(Number(toInteger(bits))) ? "text" : "binary";
  },
  unified: (types) => unify(types) ?? "text",
  "unified, but the first": ([, ...types]) => unify(types) ?? "text",
};

/** A decimal type with as many decimals as the widest of several, where all are known. */
const decimalType = (types: readonly string[]): string =>
  decimalOf(Math.max(...types.filter((type) => nameOf(type) === "decimal").map(scaleOf)));

/** The type that a choice has whose branches have these types. */
export function unify(types: readonly string[]): string | undefined {
  const kinds = types.map((type) => (isBinary(type) ? "binary" : nameOf(type))).filter((type) => type !== "null");
  if (kinds.length === 0) return "null";
  if (kinds.every((kind) => kind === kinds[0]) && !["decimal", "double", "binary"].includes(kinds[0]))
    return kinds[0] === "text" ? (types.find(isCollated) ?? "text") : kinds[0];
  if (kinds.every((kind) => numbers.includes(kind))) {
    const highest = numbers[Math.max(...kinds.map((kind) => numbers.indexOf(kind)))];
    const decimals = Math.max(...types.filter((type) => type !== "null").map(fixedDecimals));
    if (highest === "double") return typed("double", Number.isNaN(decimals) ? undefined : decimals);
    return highest === "unsigned" ? "decimal" : highest === "decimal" ? decimalType(types) : highest;
  }
  if (kinds.every((kind) => temporal.includes(kind))) return "datetime";
  const isWeaker = types.every((type) => !isBinary(nameOf(type)) || isBytesLiteral(nameOf(type)));
  const hasText = types.some((type) => nameOf(type) === "text" && type !== textLiteral);
  return kinds.includes("binary") && !(isWeaker && hasText) ? (isWeaker ? "hextext" : "binary") : "text";
}
