import { step, worked } from "../step.ts";

const missing = "null" as const;

const read = {
  missing,
  numbers: "exact",
  range: "any",
  reads: "all of it",
  blanks: "unicode",
  notNumber: "error",
  plusSign: "read",
  exponent: "read",
  fractionRead: "rounded",
  separators: "none",
  bases: "ten",
  bytesRead: "as text",
  numberWords: "refused",
  otherForms: "none",
  digitsBeyond: "error",
  tooLarge: "error",
  tooSmall: "zero",
  beyondDouble: "infinity",
  decimalHalves: "away from zero",
  doubleHalves: "away from zero",
  doubleDigits: "shortest",
} as const;

/** What SQL does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "true, false or unknown" }),
  text: step("text-of", {
    missing,
    numbers: "exact",
    digits: "shortest",
    powerFrom: "always",
    powerBelow: "1e-4",
    power: "1E20",
    wholeDouble: "bare",
    negativeZero: "dropped",
    beyondNumbers: "NaN and Infinity",
    decimalZeros: "kept",
    truthText: "TRUE",
    bytesText: "utf-8",
    listText: "item by item",
  }),
  smallint: step("number-of", { ...read, numberKind: "integer", range: "16 bits" }),
  integer: step("number-of", { ...read, numberKind: "integer", range: "32 bits" }),
  bigint: step("number-of", { ...read, numberKind: "integer", range: "64 bits" }),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...read, numberKind: "double" }),
};

/** A value as text (6.13 <cast specification>); null and failures stay. */
export const toText = worked(steps.text);
