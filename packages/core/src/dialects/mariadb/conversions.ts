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
import type { Conversion } from "../dialect.ts";
import { type Own, type Step, unlessMissing } from "../step.ts";
import { clockText, hasZeroPart, momentText, readMoment, readTime, spanText } from "./moments.ts";
import { isBeyondTimes, ofBytes } from "./numbers.ts";
import { steps, toText } from "./steps.ts";
import { baseType, dateText, isBinary, isBytesLiteral, temporal } from "./types.ts";

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

/** A conversion to a number, from the type's own number where it has one: dates by their digits, 0x… by its bytes. */
export function numeric(from: string, ...work: readonly (Step | Own)[]): readonly (Step | Own)[] {
  if (temporal.includes(baseType(from)) || from === dateText) return [unlessMissing(digitsOf), ...work];
  return baseType(from) === "hybrid" ? [unlessMissing((value) => integer(ofBytes(value as Bytes))), ...work] : work;
}

/** A number as a whole one; those that are, with a sign or without, stay. */
export const whole = (from: string, ...work: readonly Own[]) =>
  numeric(from, ...(["integer", "unsigned"].includes(baseType(from)) ? [] : [steps.integer]), ...work.map(unlessMissing));

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

/** How an argument becomes a parameter; every value can become every other, the cost says what is meant. */
export function conversion(from: string, to: string): Conversion | undefined {
  const kind = isBinary(baseType(from)) ? "binary" : baseType(from);
  const isWhole = kind === "integer" || kind === "unsigned";
  const decimals = /^double (\d+)$/.exec(to)?.[1];
  if (decimals !== undefined)
    return {
      cost: 1,
      convert: numeric(
        from,
        steps.double,
        unlessMissing((value) => new FixedDouble((value as Double).value, Number(decimals))),
      ),
    };
  if (to.startsWith("decimal ")) {
    const scale = Number(to.slice(8));
    const scaled = (value: Value) => {
      const decimal = value as Decimal;
      return decimal.scale < scale ? decimal.rounded(scale) : decimal;
    };
    return { cost: 1, convert: numeric(from, steps.decimal, unlessMissing(scaled)) };
  }
  switch (to) {
    case "any":
      return { cost: 0 };
    case "condition":
      return { cost: 0, convert: steps.truth };
    case "escape":
      return {
        cost: 0,
        early: true,
        // One that is null is the usual one.
        convert: (value) => {
          if (isFailure(value)) return value;
          const escape = value === null ? "\\" : (toText(value) as string);
          return [...escape].length > 1 ? new Failure("escape-length", { escape }) : escape;
        },
      };
    case "text":
      return {
        cost: kind === "text" ? 0 : kind === "binary" ? 3 : 1,
        ...(kind !== "text" && { convert: steps.text }),
      };
    case "binary":
      return { cost: kind === "binary" ? 0 : 3, convert: unlessMissing(asBytes) };
    case "bytetext":
      return {
        cost: kind === "binary" ? 0 : 2,
        convert: unlessMissing((value) => latinOfBytes((asBytes(value) as Bytes).bytes)),
      };
    case "bits":
      return {
        cost: 0,
        ...(!isWhole && {
          convert: [...(kind === "double" ? [] : numeric(from, steps.decimal)), unlessMissing((value) => integer(bitsOf(value)))],
        }),
      };
    case "pattern":
      return {
        cost: kind === "text" ? 0 : 1,
        early: true,
        convert: [steps.text, unlessMissing((text) => readable(text as string))],
      };
    case "string":
      if (isBytesLiteral(baseType(from))) return { cost: 0, convert: steps.text };
      return kind === "text" || kind === "null" ? { cost: 0 } : undefined;
    case "bytes":
      return kind === "text" || kind === "null" || kind === "binary" ? { cost: 0, convert: unlessMissing(asBytes) } : undefined;
    case "whole":
      return isWhole || kind === "null" ? { cost: 0 } : undefined;
    case "exact":
      return isWhole || kind === "decimal" || kind === "null" ? { cost: 1, convert: steps.decimal } : undefined;
    case "moment":
      if (kind === "date" || kind === "datetime") return { cost: 2, convert: unlessMissing(asMoment) };
      // A text that is no date comes before every date.
      return kind === "text" || kind === "null"
        ? { cost: 4, convert: unlessMissing((value) => asMoment(value) ?? "") }
        : undefined;
    case "clock":
      if (kind === "time") return { cost: 2, convert: unlessMissing(asSpan) };
      return kind === "text" ? { cost: 4, convert: unlessMissing(asSpan) } : undefined;
    case "position":
      return { cost: isWhole ? 0 : 2, convert: whole(from, Number) };
    case "place":
      return { cost: isWhole ? 0 : 2, convert: whole(from, (value) => Number(value) || 1) };
    case "uint32":
      return {
        cost: isWhole ? 0 : 2,
        convert: whole(from, (value) => Number(BigInt.asUintN(32, BigInt(value as number)))),
      };
    case "int32":
      return {
        cost: isWhole ? 0 : 2,
        convert: whole(from, (value) => Number(BigInt.asIntN(32, BigInt(value as number)))),
      };
    case "integer":
    case "unsigned":
      return { cost: isWhole ? 0 : 2, ...(!isWhole && { convert: whole(from) }) };
    case "decimal":
      return { cost: kind === "decimal" ? 0 : isWhole ? 1 : 3, convert: numeric(from, steps.decimal) };
    case "double":
    case "floating":
      return {
        cost: kind === "double" ? 0 : 6,
        convert: numeric(from, steps.double, ...(kind === "double" ? [plainDouble] : [])),
      };
    case "date":
      if (kind === to) return { cost: 0 };
      return {
        cost: 3,
        convert: unlessMissing((value) => {
          const moment = kind === "time" ? onToday() : asMoment(value);
          return typeof moment === "string" ? moment.slice(0, 10) : moment;
        }),
      };
    case "datetime":
      if (kind === to)
        return { cost: 0, convert: unlessMissing((value) => (readMoment(value as string) ? value : asMoment(value))) };
      return { cost: 3, convert: unlessMissing(kind === "time" ? onToday : asMoment) };
    case "time":
      if (kind === to) return { cost: 0 };
      if (kind === "date") return { cost: 3, convert: unlessMissing(() => "00:00:00") };
      return { cost: 3, convert: unlessMissing(asTime) };
  }
  return { cost: kind === to ? 0 : 3 };
}

/** A double without a fixed number of decimals. */
const plainDouble = (value: Value): Value => (value instanceof FixedDouble ? new Double(value.value) : value);
