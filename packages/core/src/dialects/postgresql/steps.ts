import type { TraitsOf } from "../../text/index.ts";
import type { Answers } from "../../traits/index.ts";
import { readAsWhole, written } from "../shared/numbers.ts";
import { step, worked } from "../step.ts";

const missing = "null" as const;

const text = {
  ...written,
  intervalText: "1 mon",
  powerFrom: "1e15",
  power: "1e+20",
  negativeZero: "kept",
  beyondNumbers: "NaN and Infinity",
  truthText: "true",
  bytesText: "base 16",
  listText: "{a,b}",
} as const;

const read = { ...readAsWhole, numberWords: "read", tooSmall: "error", beyondDouble: "error", doubleDigits: "fifteen" } as const;

const exactSteps = (answers: Omit<Answers<TraitsOf<"number-of">>, "numberKind">) => ({
  smallint: step("number-of", { ...answers, numberKind: "integer", range: "16 bits" }),
  integer: step("number-of", { ...answers, numberKind: "integer", range: "32 bits" }),
  bigint: step("number-of", { ...answers, numberKind: "integer", range: "64 bits" }),
  decimal: step("number-of", { ...answers, numberKind: "decimal" }),
});

/** What PostgreSQL does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "words and what they begin with", truthOfNaN: "there is none" }),
  text: step("text-of", text),
  output: step("text-of", { ...text, truthText: "t" }),
  ...exactSteps(read),
  double: step("number-of", { ...read, numberKind: "double", bases: "sixteen" }),
};

/** A value as text in the form of its type's output, but for a truth value; null and failures stay. */
export const toText = worked(steps.text);

/** The output form, where a truth value is `t` or `f`. */
export const outputText = worked(steps.output);

export const toDecimal = worked(steps.decimal);
export const toDouble = worked(steps.double);

/** How texts are read as numbers since version 16, in other bases and with marks between the digits. */
export const laterSteps = { ...steps, ...exactSteps({ ...read, separators: "underscores", bases: "two, eight and sixteen" }) };
