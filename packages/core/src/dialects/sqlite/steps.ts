import type { Double, Value } from "../../values/index.ts";
import { readFromBeginning, written } from "../shared/numbers.ts";
import { step, worked } from "../step.ts";

const missing = "null" as const;

const read = { ...readFromBeginning, beyondDouble: "infinity", decimalHalves: "cut off", doubleHalves: "cut off" } as const;

const asText = {
  ...written,
  digits: "seventeen",
  powerFrom: "1e17",
  power: "1.0e+20",
  wholeDouble: "with .0",
  beyondNumbers: "NaN and Inf",
  truthText: "1",
} as const;

/** What SQLite does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "the number it begins with", truthOfNaN: "there is none" }),
  text: step("text-of", asText),
  "text, or bytes": step("text-of", { ...asText, bytesText: "kept" }),
  // Where C takes a text to end.
  "until NUL": step(
    "segment",
    { missing, part: "before", absent: "whole", zeroPiece: "empty", noPiece: "empty", emptyNeedle: "nowhere", case: "minded" },
    { delimiter: "\0" },
  ),
  divided: step("number-of", { ...read, numberKind: "as written, to the point", digitsBeyond: "double" }),
  number: step("number-of", { ...read, numberKind: "as written", digitsBeyond: "double" }),
  numeric: step("number-of", {
    ...read,
    numberKind: "integer if whole",
    digitsBeyond: "double",
    reads: "all of it",
    notNumber: "unchanged",
    bytesRead: "kept",
  }),
  numeral: step("number-of", {
    ...read,
    numberKind: "as written",
    digitsBeyond: "double",
    reads: "all of it",
    notNumber: "null",
    bytesRead: "never",
  }),
  "cast to numeric": step("number-of", { ...read, numberKind: "integer if whole", digitsBeyond: "double" }),
  integer: step("number-of", { ...read, numberKind: "integer", digitsBeyond: "nearest" }),
  real: step("number-of", { ...read, numberKind: "double", digitsBeyond: "double" }),
};

/** A value as text (`%!.17g` for doubles); null and failures stay. */
export const toText = worked(steps.text);

/** A value as text up to its first NUL. */
export const textUntilNul = worked([steps.text, steps["until NUL"]]);

/** An operand of arithmetic: a text counts as the number that it begins with, an integer where it is written as one and fits. */
export const toNumber = worked(steps.number);

/** An integer, fractions cut, beyond 64 bits the nearest one; a text counts as the integer that it begins with. */
export const toInteger = worked(steps.integer) as (value: Value) => number | bigint;

/** The value as a double; a text counts as the number that it begins with. */
export const toDouble = worked(steps.real) as (value: Value) => Double;

/** True, false or null for a condition: a number that is not 0. */
export const toTruth = worked(steps.truth);
