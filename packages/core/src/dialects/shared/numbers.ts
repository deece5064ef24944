/** Answers about numbers that several dialects share; each says beside them what it does otherwise. */

const missing = "null" as const;

/** How values are written as texts where integers and decimals are told apart from floating-point numbers. */
export const written = {
  missing,
  numbers: "exact",
  digits: "shortest",
  powerBelow: "1e-4",
  wholeDouble: "bare",
  negativeZero: "dropped",
  decimalZeros: "kept",
  bytesText: "utf-8",
  listText: "item by item",
  intervalText: "there is none",
} as const;

const read = {
  missing,
  numbers: "exact",
  blanks: "ascii",
  plusSign: "read",
  exponent: "read",
  fractionRead: "refused",
  separators: "none",
  bases: "ten",
  truthRead: "1 or 0",
  bytesRead: "as text",
  numberWords: "refused",
  otherForms: "none",
  tooSmall: "zero",
  decimalHalves: "away from zero",
  doubleHalves: "to even",
  doubleDigits: "shortest",
} as const;

/** How texts are read as numbers where a text counts as the number that it begins with, 0 for none. */
export const readFromBeginning = {
  ...read,
  range: "64 bits",
  reads: "its beginning",
  notNumber: "zero",
  tooLarge: "nearest",
} as const;

/** The same where a text must be a number as a whole. */
export const readAsWhole = {
  ...read,
  range: "any",
  reads: "all of it",
  notNumber: "error",
  digitsBeyond: "error",
  tooLarge: "error",
} as const;
