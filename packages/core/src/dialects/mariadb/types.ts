import { type Value, isFailure } from "../../values/index.ts";
import { toInteger } from "./steps.ts";

/** Types: `text` with its collation after a space where COLLATE says one, `decimal` with its scale where that is known, `binary`, `hextext` (x'…'), `hybrid` (0x…), the numbers, `date`, `datetime`, `time`, `null`. */
export const baseType = (type: string): string => type.split(" ")[0];
export const isBinary = (type: string): boolean => ["binary", "hybrid", "hextext"].includes(type);
/** The type of a text that is written as a literal. */
export const textLiteral = "text literal";
/** The type of CAST(x AS CHAR), which counts as a number without decimals where one is calculated. */
export const castText = "text char";
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

/** Whether COLLATE says the collation of a type. */
export const isCollated = (type: string): boolean => type.split(" ")[1] in collations;

/** Functions of which there is a row for each collation. */
export const mindsCollation = new Set(
  ["=", "<>", "<", "<=", ">", ">=", "<=>", "strcmp", "like", "locate", "instr", "position", "regexp"].concat([
    "regexp_replace",
    "regexp_substr",
    "regexp_instr",
  ]),
);

export const byBytes = { case: "minded", padding: "counted" } as const;

/** The collation of a comparison: bytes where one side is binary, what COLLATE says, or the one of the dialect. */
export function collationFor(types: readonly string[], usual: Collation): Collation | "binary" {
  const kinds = types.map(baseType);
  const isStronger = (type: string) => baseType(type) === "text" && type !== textLiteral;
  if (kinds.includes("binary") || (kinds.some(isBytesLiteral) && !types.some(isStronger))) return "binary";
  const named = types.find(isCollated)?.split(" ")[1];
  return (named as Collation | undefined) ?? usual;
}

export const numbers = ["integer", "unsigned", "decimal", "double"];
export const temporal = ["date", "datetime", "time"];

/** The type of the greatest of values: a date or time where there is one, a double where numbers stand beside texts. */
export function extremeType(types: readonly string[]): string {
  const kinds = types.map(baseType).filter((kind) => kind !== "null");
  const moments = kinds.filter((kind) => temporal.includes(kind));
  if (moments.length > 0) return moments.every((kind) => kind === moments[0]) ? moments[0] : "datetime";
  const isMixed = kinds.some((kind) => numbers.includes(kind)) && kinds.some((kind) => kind === "text" || kind === "binary");
  return isMixed ? "double" : (unify(types) ?? "text");
}

/** The decimals that a number of a type shows; NaN where they are not fixed. */
const fixedDecimals = (type: string): number =>
  baseType(type) === "integer" || baseType(type) === "unsigned" || type === castText
    ? 0
    : /^(?:decimal|double) \d/.test(type)
      ? Number(type.split(" ")[1])
      : NaN;

/** How many decimals a calculation shows, by those of its operands, and where it is rounded by those that it is rounded to. */
function shownDecimals(
  kind: "decimal" | "double",
  name: string,
  scales: readonly number[],
  constant: (index: number) => Value | undefined,
): number {
  const most = Math.max(...scales);
  switch (name) {
    case "+":
    case "-":
    case "%":
    case "abs":
    case "sum":
      return most;
    case "*":
      return kind === "double" ? most : scales.reduce((sum, scale) => sum + scale, 0);
    case "/":
    case "avg":
      return scales[0] + 4;
    case "ceil":
    case "ceiling":
    case "floor":
      return 0;
    case "pi":
      return 6;
    case "round":
    case "truncate": {
      if (scales.length === 1) return 0;
      const places = constant(1);
      return places === undefined || isFailure(places) ? scales[0] : Math.max(0, Number(toInteger(places) ?? 0));
    }
  }
  return NaN;
}

const decimalScale = (type: string): number => (baseType(type) === "decimal" ? Number(type.slice(8) || NaN) : 0);

/** The type of a calculated number: how many decimals it shows is fixed where that of its operands is. */
export function numberType(
  kind: "decimal" | "double",
  name: string,
  types: readonly string[],
  constant: (index: number) => Value | undefined,
): string {
  const decimals = shownDecimals(kind, name, types.map(kind === "double" ? fixedDecimals : decimalScale), constant);
  if (kind === "double") return decimals <= 30 ? `double ${decimals}` : "double";
  return Number.isNaN(decimals) ? "decimal" : `decimal ${Math.min(38, decimals)}`;
}

/** A decimal type with as many decimals as the widest of several, where all are known. */
function decimalType(types: readonly string[]): string {
  const scales = types.filter((type) => baseType(type) === "decimal").map((type) => Number(type.slice(8) || NaN));
  return scales.some(Number.isNaN) ? "decimal" : `decimal ${Math.max(...scales)}`;
}

/** The type that a choice has whose branches have these types. */
export function unify(types: readonly string[]): string | undefined {
  const kinds = types.map((type) => (isBinary(type) ? "binary" : baseType(type))).filter((type) => type !== "null");
  if (kinds.length === 0) return "null";
  if (kinds.every((kind) => kind === kinds[0]) && !["decimal", "double", "binary"].includes(kinds[0]))
    return kinds[0] === "text" ? (types.find(isCollated) ?? "text") : kinds[0];
  if (kinds.every((kind) => numbers.includes(kind))) {
    const highest = numbers[Math.max(...kinds.map((kind) => numbers.indexOf(kind)))];
    const decimals = Math.max(...types.filter((type) => type !== "null").map(fixedDecimals));
    if (highest === "double") return Number.isNaN(decimals) ? "double" : `double ${decimals}`;
    return highest === "unsigned" ? "decimal" : highest === "decimal" ? decimalType(types) : highest;
  }
  if (kinds.every((kind) => temporal.includes(kind))) return "datetime";
  const isWeaker = types.every((type) => !isBinary(baseType(type)) || isBytesLiteral(baseType(type)));
  const hasText = types.some((type) => baseType(type) === "text" && type !== textLiteral);
  return kinds.includes("binary") && !(isWeaker && hasText) ? (isWeaker ? "hextext" : "binary") : "text";
}
