import type { AnswerOf } from "../../traits/index.ts";
import { doubleTextBy } from "../../text/index.ts";
import { readFromBeginning, written } from "../shared/numbers.ts";
import { type Own, step, worked } from "../step.ts";

export const missing = "null" as const;

const read = { ...readFromBeginning, digitsBeyond: "counted round", beyondDouble: "largest" } as const;

const asText = {
  ...written,
  powerFrom: "1e15",
  powerBelow: "1e-15",
  power: "1e20",
  beyondNumbers: "nan and inf",
  truthText: "1",
} as const;

/** A number in so many bits. */
const ofBits = (range: AnswerOf<"range">, tooLarge: AnswerOf<"tooLarge">) =>
  step("number-of", { ...read, numberKind: "integer", range, tooLarge, doubleHalves: "away from zero" });

/** What MariaDB does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "the number it begins with", truthOfNaN: "there is none" }),
  text: step("text-of", asText),
  integer: step("number-of", { ...read, numberKind: "integer" }),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...read, numberKind: "double" }),
  "digits of bytes": step("number-of", {
    ...read,
    numberKind: "integer",
    range: "64 bits without a sign",
    bytesRead: "as digits",
  }),
  "text of bytes": step("text-of", { ...asText, bytesText: "a character each" }),
  bits: ofBits("64 bits without a sign", "bits, or all of them"),
  uint32: ofBits("32 bits without a sign", "lowest bits"),
  int32: ofBits("32 bits", "lowest bits"),
  int64: ofBits("64 bits", "lowest bits"),
  uint64: ofBits("64 bits without a sign", "lowest bits"),
  "unsigned of number": step("number-of", {
    ...read,
    numberKind: "integer",
    range: "64 bits without a sign",
    tooLarge: "nearest",
  }),
  "unsigned of text": step("number-of", {
    ...read,
    numberKind: "integer",
    range: "64 bits without a sign",
    digitsBeyond: "nearest, by its bits",
  }),
  float: step("number-of", { ...read, numberKind: "double of 32 bits", tooLarge: "infinity" }),
};

/** A value as text; null and failures stay. */
export const toText = worked(steps.text);

/** A double as text: plain while the exponent lies from −15 to 14, otherwise like `1.5e20`. */
export const doubleText = doubleTextBy(steps.text.answers);

const fromOther = worked(steps.integer);

/** Rounded to a whole number, with a sign or without, halves away from zero for decimals and to even for doubles; a text by its leading digits. */
export const toInteger: Own = (value) => (typeof value === "number" || typeof value === "bigint" ? value : fromOther(value));

/** A text as the decimal that it begins with; doubles by their digits. */
export const toDecimal = worked(steps.decimal);

/** A text as the double that it begins with. */
export const toDouble = worked(steps.double);
