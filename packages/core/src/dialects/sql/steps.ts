import { readAsWhole, written } from "../shared/numbers.ts";
import { step, worked } from "../step.ts";

const missing = "null" as const;

const read = {
  ...readAsWhole,
  blanks: "unicode",
  fractionRead: "rounded",
  beyondDouble: "infinity",
  doubleHalves: "away from zero",
} as const;

/** What SQL does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "true, false or unknown", truthOfNaN: "there is none" }),
  date: step(
    "moment-of",
    { missing: "null", dateForms: "ISO 8601", clockOfDate: "left out", notADate: "error" },
    { wanted: "date", from: "text" },
  ),
  text: step("text-of", { ...written, powerFrom: "always", power: "1E20", beyondNumbers: "NaN and Infinity", truthText: "TRUE" }),
  smallint: step("number-of", { ...read, numberKind: "integer", range: "16 bits" }),
  integer: step("number-of", { ...read, numberKind: "integer", range: "32 bits" }),
  bigint: step("number-of", { ...read, numberKind: "integer", range: "64 bits" }),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...read, numberKind: "double" }),
};

/** A value as text (6.13 <cast specification>); null and failures stay. */
export const toText = worked(steps.text);
