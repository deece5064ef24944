import { generalDigits } from "../../text/index.ts";
import { type Step, step, worked } from "../step.ts";

const missing = "null" as const;

const read = {
  missing,
  numbers: "double",
  numberKind: "double",
  range: "any",
  reads: "all of it",
  blanks: "unicode",
  notNumber: "error",
  plusSign: "read",
  exponent: "read",
  fractionRead: "refused",
  separators: "commas",
  bases: "ten",
  truthRead: "1 or 0",
  bytesRead: "as text",
  numberWords: "refused",
  otherForms: "percent, fractions and dates",
  digitsBeyond: "error",
  tooLarge: "error",
  tooSmall: "zero",
  beyondDouble: "no number",
  decimalHalves: "away from zero",
  doubleHalves: "to even",
  doubleDigits: "shortest",
} as const;

/** How a value becomes a number (6.13.34), by the option `textAsNumber`. */
const numbers: Readonly<Record<string, Step>> = {
  convert: step("number-of", read),
  zero: step("number-of", { ...read, notNumber: "zero" }),
  error: step("number-of", { ...read, reads: "nothing" }),
};

/** What VALUE does, whatever the option says. */
export const valueOf = step("number-of", { ...read, missing: "blank", truthRead: "refused" });

/** A value that a format writes: a text only where it is no number. */
export const amount = step("number-of", { ...read, notNumber: "unchanged" });

/** A serial number as the date that it stands for. */
export const dated = step(
  "moment-of",
  { missing: "blank", dateForms: "ISO 8601, or with a time", clockOfDate: "kept", notADate: "error" },
  { wanted: "date", from: "serial" },
);

/** A number of ten digits in a base; one whose first bit is set is below 0 (6.19). */
const inBase = (base: number, bits: number) => step("number-in-base", { missing, numbers: "double" }, { base, bits });

/** What OpenFormula does to values without a function. */
export const stepsBy = (textRule: string) => ({
  "base 2": inBase(2, 10),
  "base 8": inBase(8, 30),
  "base 16": inBase(16, 40),
  number: numbers[textRule],
  truth: step("truth-of", { missing, textTruth: "true or false", truthOfNaN: "there is none" }),
  text: step("text-of", {
    missing,
    numbers: "double",
    ...generalDigits,
    decimalZeros: "dropped",
    truthText: "TRUE",
    bytesText: "utf-8",
    listText: "item by item",
    intervalText: "there is none",
  }),
});

const steps = stepsBy("convert");

/** A value as text (OpenDocument 1.3 part 4, 6.3.14), an array item by item; null and failures stay. */
export const toText = worked(steps.text);

/** A value as a number. */
export const toNumber = worked(steps.number);

const numberOrNothing = worked(step("number-of", { ...read, notNumber: "null" }));

/** A text as a number by the rules of VALUE (6.13.34); undefined when it is none. */
export const numberOfText = (text: string): number | undefined => (numberOrNothing(text) as number | null) ?? undefined;
