import {
  Bytes,
  Decimal,
  Double,
  Failure,
  type Value,
  integer,
  isFailure,
  latinOfBytes,
  utf8Of,
  FixedDouble,
} from "../../values/index.ts";
import { PatternError, cachedPattern } from "../../patterns/index.ts";
import { bitsOf } from "./arithmetic.ts";
import { conversionTable } from "../conversions.ts";
import type { Conversion, ConversionLine } from "../dialect.ts";
import { type Own, type Step, unlessMissing } from "../step.ts";
import { clockText, hasZeroPart, momentText, readMoment, readTime, spanText } from "./moments.ts";
import { isBeyondTimes, ofBytes } from "./numbers.ts";
import { steps, toText } from "./steps.ts";
import { isOneOf } from "../types.ts";

/** A text, number or date as a date and time; null where it is none. */
function asMoment(value: Value): Value {
  const text = toText(value) as string;
  const moment = readMoment(text);
  if (moment) return momentText(moment);
  const isOdd = typeof value !== "string" || hasZeroPart(text);
  return isOdd ? new Failure("not-covered", { what: `dates like ${text}, in which a part is missing or zero` }) : null;
}
/** A time of day becomes a moment of the current day. */
const onToday = (): Value => new Failure("not-covered", { what: "the current date" });

const asTime = (value: Value): Value => {
  const text = toText(value) as string;
  if (isBeyondTimes(value)) {
    const moment = readMoment(text);
    if (moment) return clockText(moment);
  }
  const span = readTime(text);
  return span === undefined ? null : spanText(span);
};

/** A time as the number of its microseconds; a text that is none is the time 0. */
const asSpan = (value: Value): Value => readTime(value as string) ?? 0;

/** A date or time as the number of its digits. */
const digitsOf = (value: Value): Value => {
  const digits = (value as string).replace(/[-: ]/g, "").replace(/\.0+$/, "");
  return Decimal.parse((value as string).startsWith("-") ? `-${digits}` : digits) ?? Decimal.of(0);
};

/** What becomes a number otherwise than as a text does: dates by their digits, 0x… by its bytes. */
const own: readonly (readonly [from: string, Own])[] = [
  ["date|datetime|time|text date", unlessMissing(digitsOf)],
  ["hybrid", unlessMissing((value) => integer(ofBytes(value as Bytes)))],
];

/** A conversion to a number, from the type's own number where it has one. */
const numeric = (from: string, ...work: readonly (Step | Own)[]): readonly (Step | Own)[] => [
  ...own.flatMap(([types, number]) => (isOneOf(from, types) ? [number] : [])),
  ...work,
];

/** A pattern that can be read, or the failure that says why not. */
function readable(pattern: string): Value {
  const found = cachedPattern("pcre", pattern, "");
  return found instanceof PatternError && !found.isUncovered
    ? new Failure("pattern-syntax", { pattern, problem: found.problem, offset: found.offset })
    : pattern;
}

export function asBytes(value: Value): Value {
  return value instanceof Bytes ? value : new Bytes(utf8Of(toText(value) as string));
}

/** A double without a fixed number of decimals. */
const plainDouble = (value: Value): Value => (value instanceof FixedDouble ? new Double(value.value) : value);

/** One that is null is the usual one. */
function escapeOf(value: Value): Value {
  if (isFailure(value)) return value;
  const escape = value === null ? "\\" : (toText(value) as string);
  return [...escape].length > 1 ? new Failure("escape-length", { escape }) : escape;
}

const dateOf = (moment: Value): Value => (typeof moment === "string" ? moment.slice(0, 10) : moment);
const early = { early: true } as const;

/** A number of a kind, from what is none yet, by the type's own number; and what is done to it after that. */
const numbered = (to: string, cost: number, ...work: readonly (Step | Own)[]): ConversionLine[] => [
  ...own.map(([from, number]): ConversionLine => [from, to, cost, [number, ...work]]),
  ["*", to, cost, work],
];

/** A whole number, those that are stay, with a sign or without; and what is done to it after that. */
const whole = (to: string, ...after: readonly Own[]): ConversionLine[] => {
  const rest = after.map(unlessMissing);
  return [["integer|unsigned", to, 0, rest], ...numbered(to, 2, steps.integer, ...rest)];
};

const bytes = "binary|hybrid|hextext";

/** How an argument becomes a parameter; every value can become every other, the cost says what is meant. */
export const conversions: readonly ConversionLine[] = [
  ["*", "any", 0],
  ["*", "condition", 0, steps.truth],
  ["*", "escape", 0, escapeOf, early],
  ["text", "text", 0],
  [bytes, "text", 3, steps.text],
  ["*", "text", 1, steps.text],
  [bytes, "binary", 0, unlessMissing(asBytes)],
  ["*", "binary", 3, unlessMissing(asBytes)],
  [bytes, "bytetext", 0, unlessMissing((value) => latinOfBytes((asBytes(value) as Bytes).bytes))],
  ["*", "bytetext", 2, unlessMissing((value) => latinOfBytes((asBytes(value) as Bytes).bytes))],
  ["integer|unsigned", "bits", 0],
  ["double", "bits", 0, unlessMissing((value) => integer(bitsOf(value)))],
  ...numbered(
    "bits",
    0,
    steps.decimal,
    unlessMissing((value) => integer(bitsOf(value))),
  ),
  ["text", "pattern", 0, [steps.text, unlessMissing((text) => readable(text as string))], early],
  ["*", "pattern", 1, [steps.text, unlessMissing((text) => readable(text as string))], early],
  ["hybrid|hextext", "string", 0, steps.text],
  ["text|null", "string", 0],
  [`text|null|${bytes}`, "bytes", 0, unlessMissing(asBytes)],
  ["integer|unsigned|null", "whole", 0],
  ["integer|unsigned|decimal|null", "exact", 1, steps.decimal],
  ["date|datetime", "moment", 2, unlessMissing(asMoment)],
  // A text that is no date comes before every date.
  ["text|null", "moment", 4, unlessMissing((value) => asMoment(value) ?? "")],
  ["time", "clock", 2, unlessMissing(asSpan)],
  ["text", "clock", 4, unlessMissing(asSpan)],
  ["*", "string|bytes|whole|exact|moment|clock", "never"],
  ...whole("position", Number),
  ...whole("place", (value) => Number(value) || 1),
  ...whole("uint32", (value) => Number(BigInt.asUintN(32, BigInt(value as number)))),
  ...whole("int32", (value) => Number(BigInt.asIntN(32, BigInt(value as number)))),
  ...whole("integer|unsigned"),
  ["decimal", "decimal", 0, steps.decimal],
  ["integer|unsigned", "decimal", 1, steps.decimal],
  ...numbered("decimal", 3, steps.decimal),
  ["double", "double|floating", 0, [steps.double, plainDouble]],
  ...numbered("double|floating", 6, steps.double),
  ["date", "date", 0],
  ["time", "date|datetime", 3, unlessMissing(onToday)],
  ["*", "date", 3, unlessMissing((value) => dateOf(asMoment(value)))],
  ["datetime", "datetime", 0, unlessMissing((value) => (readMoment(value as string) ? value : asMoment(value)))],
  ["*", "datetime", 3, unlessMissing(asMoment)],
  ["time", "time", 0],
  ["date", "time", 3, unlessMissing(() => "00:00:00")],
  ["*", "time", 3, unlessMissing(asTime)],
];

const plainConversion = conversionTable(conversions);

/** The same where a number with so many decimals is wanted. */
export function conversion(from: string, to: string): Conversion | undefined {
  const [kind, decimals] = to.split(" ");
  if (kind === "double" && decimals !== undefined) {
    const fixed = (value: Value) => new FixedDouble((value as Double).value, Number(decimals));
    return { cost: 1, convert: numeric(from, steps.double, unlessMissing(fixed)) };
  }
  if (kind !== "decimal" || decimals === undefined) return plainConversion(from, to);
  const scaled = (value: Value) => {
    const decimal = value as Decimal;
    return decimal.scale < Number(decimals) ? decimal.rounded(Number(decimals)) : decimal;
  };
  return { cost: 1, convert: numeric(from, steps.decimal, unlessMissing(scaled)) };
}
