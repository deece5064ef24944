import type { AnswerOf } from "../../traits/index.ts";
import { doubleTextBy } from "../../text/index.ts";
import { readAsWhole, written } from "../shared/numbers.ts";
import { step, worked } from "../step.ts";

const missing = "null" as const;

const text = {
  ...written,
  intervalText: "1 month",
  powerFrom: "1e16",
  power: "1e+20",
  wholeDouble: "with .0",
  negativeZero: "kept",
  beyondNumbers: "nan and inf",
  truthText: "true",
  bytesText: "escaped",
  listText: "[a, b]",
} as const;

const read = { ...readAsWhole, fractionRead: "rounded", separators: "underscores", beyondDouble: "infinity" } as const;

const double = { ...read, numberWords: "read" } as const;
const whole = (range: AnswerOf<"range">, bases: AnswerOf<"bases"> = "two and sixteen") =>
  step("number-of", { ...read, numberKind: "integer", range, bases });

/** What DuckDB does to values without a function. */
export const steps = {
  truth: step("truth-of", { missing, textTruth: "words and letters", truthOfNaN: "true" }),
  text: step("text-of", text),
  "text of bytes": step("text-of", { ...text, bytesText: "a character each" }),
  "text of 32 bits": step("text-of", { ...text, digits: "shortest of 32 bits" }),
  tinyint: whole("8 bits"),
  utinyint: whole("8 bits without a sign"),
  smallint: whole("16 bits"),
  usmallint: whole("16 bits without a sign"),
  integer: whole("32 bits"),
  uinteger: whole("32 bits without a sign"),
  bigint: whole("64 bits"),
  ubigint: whole("64 bits without a sign"),
  hugeint: whole("128 bits", "ten"),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...double, numberKind: "double" }),
  float: step("number-of", { ...double, numberKind: "double of 32 bits" }),
};

/** A value as text; null and failures stay. */
export const toText = worked(steps.text);

/** A floating-point number of 32 bits as text. */
export const floatText = worked(steps["text of 32 bits"]);

/** A double as text: shortest digits, always with a point or an exponent. */
export const doubleText = doubleTextBy(text);

export const toDecimal = worked(steps.decimal);
export const toDouble = worked(steps.double);

/** The types of numbers, each with the step that brings a value to it. */
export type Integer =
  "tinyint" | "utinyint" | "smallint" | "usmallint" | "integer" | "uinteger" | "bigint" | "ubigint" | "hugeint";
export type Numeric = Integer | "decimal" | "double" | "float";
