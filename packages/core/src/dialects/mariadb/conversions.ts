import type { AnswerOf } from "../../traits/index.ts";
import { conversionTable } from "../conversions.ts";
import type { Conversion, ConversionLine } from "../dialect.ts";
import { type Step, partsOfWork, step } from "../step.ts";
import { extended, shownWith } from "../shared/sizes.ts";
import { type Type, isOneOf } from "../types.ts";
import { steps } from "./steps.ts";
import { isDivided } from "./types.ts";

/** What becomes a number otherwise than as a text does: dates by their digits, 0x… by its bytes. */
const own: readonly (readonly [from: string, Step])[] = [
  ["date|datetime|time|text from date", step("digits-of-moment", {})],
  ["hybrid", steps["digits of bytes"]],
];

/** A conversion to a number, from the type's own number where it has one. */
const numeric = (from: Type, ...work: readonly Step[]): readonly Step[] => [
  ...own.flatMap(([types, number]) => (isOneOf(from, types) ? [number] : [])),
  ...work,
];

const early = { early: true } as const;

/** A number of a kind, from what is none yet, by the type's own number; and what is done to it after that. */
const numbered = (to: string, cost: number, ...work: readonly Step[]): ConversionLine[] => [
  ...own.map(([from, number]): ConversionLine => [from, to, cost, [number, ...work]]),
  ["*", to, cost, work],
];

/** A whole number, those that are stay, with a sign or without; and what is done to it after that. */
const whole = (to: string, ...after: readonly Step[]): ConversionLine[] => [
  ["integer|unsigned", to, 0, after],
  ...numbered(to, 2, steps.integer, ...after),
];

/** A date or time by how it is written; `from` says what it is. */
const moment = (wanted: string, from: string, none: AnswerOf<"notADate"> = "null") =>
  step("moment-of", { missing: "null", dateForms: "any marks", clockOfDate: "left out", notADate: none }, { wanted, from });

/** What is taken for a date by its text, or by its digits where it is a number. */
const moments = (to: string, wanted: string): ConversionLine[] => [
  [`text|date|datetime|${bytes}`, to, 3, moment(wanted, "text")],
  ["*", to, 3, moment(wanted, "number")],
];

/** A date and time in which no part is zero. */
const withoutZeros = step(
  "check-text",
  {},
  { shape: "^(?!\\d+-00|\\d+-\\d+-00)", refused: "not-covered", about: "dates in which a part is missing or zero" },
);
/** The bytes of a text that has a character for each. */
export const ofCharacters = step("bytes-of", { bytesWritten: "a character each" });
export const bytesOf = step("bytes-of", { bytesWritten: "utf-8" });
const pattern = step("check-pattern", { pattern: "pcre" });
const escape = step("check-escape", { escapeSize: "one character or none" });

const bytes = "binary|hybrid|hextext";

/** A double that is shown with so many decimals, or with as many as it has. */
export const shown = (scale?: number, size?: number): Step =>
  step("fit-double", {}, { ...(scale !== undefined && { scale }), ...(size !== undefined && { size }) });

/** How an argument becomes a parameter; every value can become every other, the cost says what is meant. */
export const conversions: readonly ConversionLine[] = [
  ["*", "any|printed", 0],
  ["*", "condition", 0, steps.truth],
  // XOR asks whether the whole number is zero.
  ...whole("wholecondition", steps.truth),
  // An escape that is null is the usual one.
  ["*", "escape", 0, [step("instead", {}, { other: "\\" }), steps.text, escape], early],
  ["text", "text", 0],
  [bytes, "text", 3, steps.text],
  ["*", "text", 1, steps.text],
  [bytes, "binary", 0, bytesOf],
  ["*", "binary", 3, [steps.text, bytesOf]],
  [bytes, "bytetext", 0, [bytesOf, steps["text of bytes"]]],
  ["*", "bytetext", 2, [steps.text, bytesOf, steps["text of bytes"]]],
  ["integer|unsigned", "bits", 0],
  ["double", "bits", 0, steps.bits],
  ...numbered("bits", 0, steps.decimal, steps.bits),
  ["text", "pattern", 0, [steps.text, pattern], early],
  ["*", "pattern", 1, [steps.text, pattern], early],
  ["hybrid|hextext", "string", 0, steps.text],
  ["text|null", "string", 0],
  [`text|null|${bytes}`, "bytes", 0, bytesOf],
  ["integer|unsigned|null", "whole", 0],
  ["integer|unsigned|decimal|null", "compared", 0.9, steps.decimal],
  ["integer|unsigned|decimal|null", "exact", 1, steps.decimal],
  ["date|datetime", "moment", 2, moment("timestamp", "text")],
  ["text|null", "moment", 4, moment("timestamp", "text", "before every date")],
  ["time", "clock", 2, moment("microseconds", "text", "midnight")],
  ["text", "clock", 4, moment("microseconds", "text", "midnight")],
  ["*", "string|bytes|whole|compared|exact|moment|clock", "never"],
  ...whole("position"),
  ...whole("uint32", steps.uint32),
  ...whole("int32", steps.int32),
  ...whole("integer|unsigned"),
  ["decimal", "decimal", 0, steps.decimal],
  ["integer|unsigned", "decimal", 1, steps.decimal],
  ...numbered("decimal", 3, steps.decimal),
  ["double", "double|floating", 0, [steps.double, shown()]],
  ...numbered("double|floating", 6, steps.double),
  ["date", "date", 0],
  ["time", "date|datetime", 3, moment("date", "time")],
  ...moments("date", "date"),
  ["datetime", "datetime", 0, withoutZeros],
  ...moments("datetime", "timestamp"),
  ["time", "time", 0],
  ["date", "time", 3, moment("time", "date")],
  ...moments("time", "time"),
];

const plainConversion = conversionTable(conversions);

/** What a decimal that keeps more digits than it shows is like where it is shown. */
export const asShown = (type: Type): readonly Step[] => (isDivided(type) ? [shownWith(type.scale!)] : []);

/** The same where a number with so many decimals is wanted, or one as it is shown. */
export function conversion(from: Type, to: Type): Conversion | undefined {
  if (isDivided(from) && isOneOf(to, "text|bytetext|binary|pattern|escape|printed|compared")) {
    const { cost, convert = [] } = plainConversion(from, to)!;
    return { cost, convert: [...asShown(from), ...partsOfWork(convert)] };
  }
  const { name: kind, scale: decimals } = to;
  if (decimals === undefined || (kind !== "double" && kind !== "decimal")) return plainConversion(from, to);
  const after = kind === "double" ? shown(decimals) : extended(decimals);
  return { cost: 1, convert: numeric(from, steps[kind], after) };
}
