import type { AnswerOf } from "../../traits/index.ts";
import { doubleTextBy } from "../../text/index.ts";
import { step, worked } from "../step.ts";

const missing = "null" as const;

const written = {
  missing,
  numbers: "exact",
  digits: "shortest",
  powerFrom: "1e16",
  powerBelow: "1e-4",
  power: "1e+20",
  wholeDouble: "with .0",
  negativeZero: "kept",
  beyondNumbers: "nan and inf",
  decimalZeros: "kept",
  truthText: "true",
  bytesText: "escaped",
  listText: "[a, b]",
} as const;

const read = {
  missing,
  numbers: "exact",
  range: "any",
  reads: "all of it",
  blanks: "ascii",
  notNumber: "error",
  plusSign: "read",
  exponent: "read",
  fractionRead: "rounded",
  separators: "underscores",
  bases: "ten",
  bytesRead: "as text",
  numberWords: "refused",
  otherForms: "none",
  digitsBeyond: "error",
  tooLarge: "error",
  tooSmall: "zero",
  beyondDouble: "infinity",
  decimalHalves: "away from zero",
  doubleHalves: "to even",
  doubleDigits: "shortest",
} as const;
const double = { ...read, numberWords: "read" } as const;
const whole = (range: AnswerOf<"range">) =>
  step("number-of", { ...read, numberKind: "integer", range, bases: "two and sixteen" });

/** What DuckDB does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "words and letters" }),
  text: step("text-of", written),
  "text of 32 bits": step("text-of", { ...written, digits: "shortest of 32 bits" }),
  tinyint: whole("8 bits"),
  utinyint: whole("8 bits without a sign"),
  smallint: whole("16 bits"),
  usmallint: whole("16 bits without a sign"),
  integer: whole("32 bits"),
  uinteger: whole("32 bits without a sign"),
  bigint: whole("64 bits"),
  ubigint: whole("64 bits without a sign"),
  hugeint: whole("128 bits"),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...double, numberKind: "double" }),
  float: step("number-of", { ...double, numberKind: "double of 32 bits" }),
};

/** A value as text; null and failures stay. */
export const toText = worked(steps.text);

/** A floating-point number of 32 bits as text. */
export const floatText = worked(steps["text of 32 bits"]);

/** A double as text: shortest digits, always with a point or an exponent. */
export const doubleText = doubleTextBy(written);

export const toDecimal = worked(steps.decimal);
export const toDouble = worked(steps.double);

/** The types of numbers, each with the step that brings a value to it. */
export type Integer =
  "tinyint" | "utinyint" | "smallint" | "usmallint" | "integer" | "uinteger" | "bigint" | "ubigint" | "hugeint";
export type Numeric = Integer | "decimal" | "double" | "float";
