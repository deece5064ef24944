import { doubleTextBy } from "../../text/index.ts";
import { readFromBeginning, written } from "../shared/numbers.ts";
import { type Own, step, worked } from "../step.ts";

const missing = "null" as const;

const read = { ...readFromBeginning, digitsBeyond: "counted round", beyondDouble: "largest" } as const;

/** What MariaDB does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "the number it begins with" }),
  text: step("text-of", {
    ...written,
    powerFrom: "1e15",
    powerBelow: "1e-15",
    power: "1e20",
    beyondNumbers: "nan and inf",
    truthText: "1",
  }),
  integer: step("number-of", { ...read, numberKind: "integer" }),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...read, numberKind: "double" }),
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
