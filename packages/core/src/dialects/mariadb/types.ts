import { type Value, isFailure } from "../../values/index.ts";
import type { ResultType } from "../dialect.ts";
import { fractionOf } from "./second-digits.ts";
import { toInteger } from "./steps.ts";
import { Type, decimalOf, typeOf } from "../types.ts";

/** Types: `text` with its collation where COLLATE says one, `decimal` with its scale where that is known, `binary`, `hextext` (x'…'), `hybrid` (0x…), the numbers, `date`, `datetime`, `time`, `null`. */
export const isBinary = ({ name }: Type): boolean => ["binary", "hybrid", "hextext"].includes(name);
/** The type of a text that is written as a literal. */
export const textLiteral = Type.of("text", { from: "literal" });
/** The type of CAST(x AS CHAR), which counts as a number without decimals where one is calculated; as do bytes of CAST. */
export const castText = Type.of("text", { from: "char" });
export const castBytes = Type.of("binary", { from: "char" });
/** The type of a text that is made from a date, and counts as a number by the digits of that. */
export const dateText = Type.of("text", { from: "date" });
/**
 * Whether a decimal is made from a quotient, which keeps more digits than its type shows: they are calculated with, and it is
 * rounded where it is shown, compared with one other number, or made into a text.
 */
export const isDivided = ({ name, from, scale }: Type): boolean =>
  name === "decimal" && from === "division" && scale !== undefined;
/** A decimal of so many digits, made from a quotient where one of those is that it is made from. */
const madeFrom = (types: readonly Type[], scale: number): Type =>
  types.some(isDivided) ? Type.of("decimal", { ...decimalOf(scale), from: "division" }) : decimalOf(scale);

/** Bytes written as a literal, which take the collation of a text beside them unless that is a literal, too. */
export const isBytesLiteral = ({ name }: Type): boolean => name === "hybrid" || name === "hextext";

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
export const isCollated = ({ collation }: Type): boolean => collation !== undefined;

export const byBytes = { case: "minded", padding: "counted" } as const;

/** The collation of a comparison: bytes where one side is binary, what COLLATE says, or the one of the dialect. */
export function collationFor(types: readonly Type[], usual: Collation): Collation | "binary" {
  const isStronger = (type: Type) => type.name === "text" && type !== textLiteral;
  if (types.some(({ name }) => name === "binary") || (types.some(isBytesLiteral) && !types.some(isStronger))) return "binary";
  return (types.find(isCollated)?.collation as Collation | undefined) ?? usual;
}

export const numbers = ["integer", "unsigned", "decimal", "double"];
export const temporal = ["date", "datetime", "time"];

/** The type of the greatest of values: a date or time where there is one, a double where numbers stand beside texts. */
export function extremeType(types: readonly Type[]): Type {
  const kinds = types.map(({ name }) => name).filter((kind) => kind !== "null");
  const moments = kinds.filter((kind) => temporal.includes(kind));
  if (moments.length > 0) return typeOf(moments.every((kind) => kind === moments[0]) ? moments[0] : "datetime");
  const isMixed = kinds.some((kind) => numbers.includes(kind)) && kinds.some((kind) => kind === "text" || kind === "binary");
  return isMixed ? typeOf("double") : (unify(types) ?? typeOf("text"));
}

const isUnsigned = ({ name }: Type): boolean => name === "unsigned";

/** The decimals that a number of a type shows; NaN where they are not fixed. */
const fixedDecimals = ({ name, from, scale = NaN }: Type): number =>
  ["integer", "unsigned", "date", "hybrid"].includes(name) || from === "char" ? 0 : scale;

const decimalScale = ({ name, scale = NaN }: Type): number => (name === "decimal" ? scale : 0);

/** How many decimals a calculated number shows, by those of what it is made from and the places that a call asks for. */
const decimalsOf: Readonly<Record<string, (scales: readonly number[], asked: Value | undefined) => number>> = {
  most: (scales) => Math.max(...scales),
  sum: (scales) => scales.reduce((sum, scale) => sum + scale, 0),
  "four more": (scales) => Math.max(...scales) + 4,
  none: () => 0,
  six: () => 6,
  "as asked": (scales, asked) => {
    if (scales.length === 1) return 0;
    return asked === undefined || isFailure(asked) ? scales[0] : Math.max(0, Number(toInteger(asked) ?? 0));
  },
};

/** The type of a number that shows so many decimals; NaN where that is not fixed. */
function numberWith(kind: "decimal" | "double", decimals: number, types: readonly Type[]): Type {
  return kind === "double" ? Type.of(kind, decimals <= 30 ? { scale: decimals } : {}) : madeFrom(types, Math.min(38, decimals));
}

const numberResults = (kind: "decimal" | "double", scaleOf: (type: Type) => number): Record<string, ResultType> =>
  Object.fromEntries(
    Object.entries(decimalsOf).map(([name, decimals]) => [
      `${kind}, ${name}`,
      (types, constant) => numberWith(kind, decimals(types.map(scaleOf), constant(1)), types),
    ]),
  );

/** By the result that a row names: the type of what a call gives, where that hangs on its arguments. */
export const results: Readonly<Record<string, ResultType>> = {
  ...numberResults("decimal", decimalScale),
  ...numberResults("double", fixedDecimals),
  "decimal, of a quotient": ([first]) =>
    Type.of("decimal", { ...decimalOf(Math.min(38, decimalScale(first) + 4)), from: "division" }),
  // As many decimals as the second of what is given has, six where that is a text that may change.
  "decimal, of seconds": ([first], constant) => {
    const written = constant(0);
    if (first?.name === "text") return decimalOf(typeof written === "string" ? fractionOf(written).length : 6);
    return decimalOf(first?.name === "double" ? 6 : Math.min(6, first?.scale ?? 0));
  },
  same: ([first]) => (first.name === "null" ? typeOf("double") : first),
  "integer, of the first": ([first]) => (isUnsigned(first) ? first : typeOf("integer")),
  "integer, of any": (types) => typeOf(types.some(isUnsigned) ? "unsigned" : "integer"),
  "integer, opposite": ([first]) => (isUnsigned(first) ? decimalOf(0) : typeOf("integer")),
  // Bytes of a column stay its own; others are like a literal's.
  "bytes beside": (types) => typeOf(types.some(({ name }) => name === "binary") ? "binary" : "hextext"),
  shifted: ([{ name }]) => typeOf(["datetime", "time"].includes(name) ? name : "date"),
  clocked([first]) {
    const kind = first.name;
    if (kind === "date") return typeOf("datetime");
    return kind === "text" ? dateText : typeOf(kind === "datetime" || isBinary(first) ? kind : "time");
  },
  extreme: (types) => extremeType(types),
  "own text": () => typeOf("text"),
  // Where the bits are none that there are, the result has no character set.
  digest(_types, constant) {
    const bits = constant(1);
    return typeOf(bits === undefined || [0, 224, 256, 384, 512].includes(Number(toInteger(bits))) ? "text" : "binary");
  },
  unified: (types) => unify(types) ?? typeOf("text"),
  "unified, but the first": ([, ...types]) => unify(types) ?? typeOf("text"),
};

/** A decimal type with as many decimals as the widest of several, where all are known. */
const decimalType = (types: readonly Type[]): Type =>
  madeFrom(types, Math.max(...types.filter(({ name }) => name === "decimal").map(decimalScale)));

/** The type that a choice has whose branches have these types. */
export function unify(types: readonly Type[]): Type | undefined {
  const kinds = types.map((type) => (isBinary(type) ? "binary" : type.name)).filter((kind) => kind !== "null");
  if (kinds.length === 0) return typeOf("null");
  if (kinds.every((kind) => kind === kinds[0]) && !["decimal", "double", "binary"].includes(kinds[0]))
    return (kinds[0] === "text" && types.find(isCollated)) || typeOf(kinds[0]);
  if (kinds.every((kind) => numbers.includes(kind))) {
    const highest = numbers[Math.max(...kinds.map((kind) => numbers.indexOf(kind)))];
    const decimals = Math.max(...types.filter(({ name }) => name !== "null").map(fixedDecimals));
    if (highest === "double") return Type.of("double", Number.isNaN(decimals) ? {} : { scale: decimals });
    return highest === "decimal" ? decimalType(types) : highest === "unsigned" ? decimalOf(0) : typeOf(highest);
  }
  if (kinds.every((kind) => temporal.includes(kind))) return typeOf("datetime");
  const isWeaker = types.every((type) => !isBinary(type) || isBytesLiteral(type));
  const hasText = types.some((type) => type.name === "text" && type !== textLiteral);
  return typeOf(kinds.includes("binary") && !(isWeaker && hasText) ? (isWeaker ? "hextext" : "binary") : "text");
}
