import { Bytes, Decimal, Double, type Value, lookup, utf8Of, FixedDouble, roundHalfEven } from "../../values/index.ts";
import { cutTo, fitted } from "../shared/sizes.ts";
import { type Own, type Step, partsOfWork, unlessMissing, worked } from "../step.ts";
import { dateText, longest, momentText, readMoment, readSpan, spanText } from "./moments.ts";
import { int64, uint64 } from "./numbers.ts";
import { steps, toText } from "./steps.ts";
import { baseType, isBinary } from "./types.ts";
import { asBytes, conversion } from "./conversions.ts";

export const castNames: Readonly<Record<string, string>> = lookup({
  char: "text",
  varchar: "text",
  "char character set utf8mb4": "text",
  "char character set utf8mb3": "narrow",
  "char character set utf8": "narrow",
  "char character set ascii": "ascii",
  nchar: "text",
  binary: "binary",
  varbinary: "binary",
  signed: "integer",
  "signed integer": "integer",
  integer: "integer",
  int: "integer",
  unsigned: "unsigned",
  "unsigned integer": "unsigned",
  "unsigned int": "unsigned",
  "signed int": "integer",
  decimal: "decimal",
  dec: "decimal",
  numeric: "decimal",
  double: "double",
  "double precision": "double",
  float: "float",
  date: "date",
  datetime: "datetime",
  time: "time",
});

export const limit = (size: number): bigint => 10n ** BigInt(size) - 1n;

/** A double of so many digits, so many of them after the point; what is too large becomes the largest. */
function sizedDouble(value: number, [size, scale]: readonly number[]): Double {
  if (scale === undefined) return new Double(value);
  const most = Number(limit(size)) / 10 ** scale;
  const power = 10 ** scale;
  // The server rounds what stands behind the point by itself.
  const whole = Math.floor(value);
  const rounded = Number.isFinite(value) ? whole + roundHalfEven((value - whole) * power) / power : value;
  return new FixedDouble(Math.max(-most, Math.min(most, rounded)), scale);
}

/** What a cast to a type of some sizes does. */
export function castWork(type: string, sizes: readonly number[], from: string): readonly (Step | Own)[] {
  const [size, scale = 0] = sizes;
  const work = (to: string) => partsOfWork(conversion(from, to)?.convert ?? []);
  switch (type) {
    case "text":
      return [steps.text, ...(size === undefined ? [] : [cutTo(size)])];
    case "decimal":
      return [...work("decimal"), fitted("nearest", scale, size ?? 10)];
    case "integer":
      return [...work("integer"), (value) => (typeof value === "bigint" && value > int64 ? BigInt.asIntN(64, value) : value)];
    case "double":
      return [...work("double"), unlessMissing((value) => sizedDouble((value as Double).value, sizes))];
    case "float":
      return [steps.double, unlessMissing((value) => new Double(Number(Math.fround((value as Double).value).toPrecision(6))))];
    case "datetime":
    case "time":
      return [...work(type), (value) => withFraction(value, size ?? 0)];
  }
  const own = castTo(type, size, from);
  return own ? [unlessMissing(own)] : work(type);
}

function castTo(type: string, size: number | undefined, from: string): Own | undefined {
  const convert = (to: string) => worked(conversion(from, to)?.convert);
  switch (type) {
    // What the character set lacks becomes a question mark.
    case "narrow":
      return (value) => (toText(value) as string).replace(/[\u{10000}-\u{10ffff}]/gu, "?");
    case "ascii":
      return (value) => (toText(value) as string).replace(/[^\0-\x7f]/gu, "?");
    case "binary":
      return (value) => {
        const { bytes } = asBytes(value) as Bytes;
        if (size === undefined) return new Bytes(bytes);
        // A text is cut by its characters, and filled up by its bytes.
        const kept = isBinary(baseType(from))
          ? bytes.slice(0, size)
          : utf8Of([...(toText(value) as string)].slice(0, size).join(""));
        const sized = new Uint8Array(Math.max(size, kept.length));
        sized.set(kept);
        return new Bytes(sized);
      };
    case "unsigned":
      return (value) => {
        const isBelow = value instanceof Decimal ? value.coefficient < 0n : value instanceof Double && value.value < 0;
        if (isBelow) return 0;
        const exact = value instanceof Decimal ? value.rounded(0).coefficient : undefined;
        if (exact !== undefined && exact > int64) return exact > uint64 ? uint64 : exact;
        if (value instanceof Double && value.value >= 2 ** 63) return value.value >= 2 ** 64 ? uint64 : BigInt(value.value);
        const digits = typeof value === "string" ? /^[ \t\n\v\f\r]*\+?(\d+)/.exec(value)?.[1] : undefined;
        if (digits !== undefined && BigInt(digits) > int64) return BigInt(digits) > uint64 ? uint64 : BigInt(digits);
        const whole = convert("integer")(value);
        return typeof whole === "number" || typeof whole === "bigint"
          ? whole < 0
            ? BigInt.asUintN(64, BigInt(whole))
            : whole
          : whole;
      };
  }
  return undefined;
}

/** A moment with so many digits of the second's fraction. */
function withFraction(value: Value, digits: number): Value {
  if (typeof value !== "string") return value;
  const [whole, fraction = ""] = value.split(".");
  return digits === 0 ? whole : `${whole}.${fraction.slice(0, digits).padEnd(digits, "0")}`;
}

/** With the digits of the second's fraction that a literal is written with. */
const asWritten = (text: string, literal: string): string =>
  withFraction(text, (/\.(\d{1,6})/.exec(literal)?.[1] ?? "").length) as string;

/** What DATE, TIMESTAMP and TIME before a text take: nothing but the date, a date and time, a time that is not too long. */
export const literals: Readonly<Record<string, (text: string) => string | undefined>> = lookup({
  "date literal": (text) => (/\d[ T]\d|:/.test(text) ? undefined : readMoment(text) && dateText(readMoment(text)!)),
  "datetime literal": (text) => {
    const moment = /\d[ T]\d.*\d\s*$|^\d{12,}/s.test(text) ? readMoment(text) : undefined;
    return moment && asWritten(momentText(moment), text);
  },
  "time literal": (text) => {
    const span = /-\d+-|[^\d\s]\s*$/.test(text) ? undefined : readSpan(text);
    return span === undefined || Math.abs(span) > longest ? undefined : asWritten(spanText(span), text);
  },
});
