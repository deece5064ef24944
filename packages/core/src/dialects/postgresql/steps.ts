import { step, worked } from "../step.ts";

const missing = "null" as const;

const written = {
  missing,
  numbers: "exact",
  digits: "shortest",
  powerFrom: "1e15",
  powerBelow: "1e-4",
  power: "1e+20",
  wholeDouble: "bare",
  negativeZero: "kept",
  beyondNumbers: "NaN and Infinity",
  decimalZeros: "kept",
  truthText: "true",
  bytesText: "base 16",
  listText: "{a,b}",
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
  fractionRead: "refused",
  separators: "none",
  bases: "ten",
  bytesRead: "as text",
  numberWords: "read",
  otherForms: "none",
  digitsBeyond: "error",
  tooLarge: "error",
  tooSmall: "error",
  beyondDouble: "error",
  decimalHalves: "away from zero",
  doubleHalves: "to even",
  doubleDigits: "fifteen",
} as const;

/** What PostgreSQL does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "words and what they begin with" }),
  text: step("text-of", written),
  output: step("text-of", { ...written, truthText: "t" }),
  smallint: step("number-of", { ...read, numberKind: "integer", range: "16 bits" }),
  integer: step("number-of", { ...read, numberKind: "integer", range: "32 bits" }),
  bigint: step("number-of", { ...read, numberKind: "integer", range: "64 bits" }),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...read, numberKind: "double", bases: "sixteen" }),
};

/** A value as text in the form of its type's output, but for a truth value; null and failures stay. */
export const toText = worked(steps.text);

/** The output form, where a truth value is `t` or `f`. */
export const outputText = worked(steps.output);

export const toDecimal = worked(steps.decimal);
export const toDouble = worked(steps.double);

const laterRead = { ...read, separators: "underscores", bases: "two, eight and sixteen" } as const;

/** How texts are read as numbers since version 16, in other bases and with marks between the digits. */
export const later = {
  smallint: step("number-of", { ...laterRead, numberKind: "integer", range: "16 bits" }),
  integer: step("number-of", { ...laterRead, numberKind: "integer", range: "32 bits" }),
  bigint: step("number-of", { ...laterRead, numberKind: "integer", range: "64 bits" }),
  decimal: step("number-of", { ...laterRead, numberKind: "decimal" }),
};
