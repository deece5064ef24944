import { ordinalEnding } from "../dates/format-words.ts";
import { Decimal, Double, Failure, type Value, asDouble } from "../../values/index.ts";

export const badPicture = (picture: string, code: string) =>
  new Failure("invalid-value", { problem: `the picture "${picture}" cannot be read` }).named(code);

const romanParts: readonly (readonly [bigint, string])[] = [
  [1000n, "m"],
  [900n, "cm"],
  [500n, "d"],
  [400n, "cd"],
  [100n, "c"],
  [90n, "xc"],
  [50n, "l"],
  [40n, "xl"],
  [10n, "x"],
  [9n, "ix"],
  [5n, "v"],
  [4n, "iv"],
  [1n, "i"],
];

/** The largest number in Roman numerals, a thousand M; what is beyond is written in digits, as the standard has it. */
const mostRoman = 1_000_000n;

/** A number in Roman numerals, in small letters. */
export function roman(value: bigint): string {
  let result = "";
  let rest = value;
  for (const [size, letters] of romanParts) for (; rest >= size; rest -= size) result += letters;
  return result;
}

function alphabetic(value: bigint): string {
  let result = "";
  for (let rest = value; rest > 0n; rest = (rest - 1n) / 26n)
    result = String.fromCharCode(97 + Number((rest - 1n) % 26n)) + result;
  return result;
}

/** fn:format-integer for decimal digits with groups, letters and Roman numerals, and ordinals (F&O 3.1, 4.6.1). */
export function writeNumbering(value: bigint, picture: string): Value {
  const [, primary, modifier] = /^([\s\S]*?)(;[^;]*)?$/.exec(picture)!;
  if (modifier !== undefined && !/^;(?:[co](?:\([^)]*\))?)?[at]?$/.test(modifier)) return badPicture(picture, "err:FODF1310");
  const size = value < 0n ? -value : value;
  const sign = value < 0n ? "-" : "";
  const suffix = modifier?.startsWith(";o") ? ordinalEnding(String(size)) : "";
  if (/^[iI]$/.test(primary) && size > 0n && size <= mostRoman)
    return sign + (primary === "i" ? roman(size) : roman(size).toUpperCase());
  if (/^[aA]$/.test(primary) && size > 0n) return sign + (primary === "a" ? alphabetic(size) : alphabetic(size).toUpperCase());
  if (/^[iI]$/.test(primary)) return writeNumbering(value, `1${modifier ?? ""}`);
  if (!/^[#0-9\p{P}\p{S} ]*\d$/u.test(primary) || !/^[^0-9]*[0-9]/.test(primary))
    return /^\p{L}/u.test(primary)
      ? new Failure("not-covered", { what: `the picture "${picture}"` })
      : badPicture(picture, "err:FODF1310");
  const digits = String(size).padStart((primary.match(/\d/g) ?? []).length, "0");
  return sign + group(digits, primary) + suffix;
}

/** Puts separators where the picture has them; regular ones are repeated to the left. */
function group(digits: string, picture: string): string {
  const marks: { at: number; mark: string }[] = [];
  let count = 0;
  for (const char of [...picture].reverse()) {
    if (/[#\d]/.test(char)) count++;
    else marks.push({ at: count, mark: char });
  }
  if (marks.length === 0) return digits;
  const step = marks[0].at;
  // Regular: the same mark at every multiple of the first one's place, as far as the picture has digits.
  const regular =
    marks.length === Math.floor((count - 1) / step) &&
    marks.every(({ at, mark }, i) => at === step * (i + 1) && mark === marks[0].mark);
  let result = "";
  [...digits].reverse().forEach((digit, i) => {
    const mark =
      i === 0 ? undefined : regular ? (i % step === 0 ? marks[0].mark : undefined) : marks.find(({ at }) => at === i)?.mark;
    result = digit + (mark ?? "") + result;
  });
  return result;
}

/** fn:format-number with the default decimal format (F&O 3.1, 4.7.2); exponents are not covered. */
export function writePicture(value: Decimal | Double, picture: string): Value {
  const parts = picture.split(";");
  const shape = /^([^#0-9.,%‰;e]*)([#0-9,]*)(?:(\.)([0-9#,]*))?([%‰]?)([^#0-9.,;]*)$/;
  const negative = asDouble(value) < 0 || Object.is(asDouble(value), -0);
  const chosen = negative && parts[1] !== undefined ? parts[1] : parts[0];
  const match = shape.exec(chosen);
  if (!match || parts.length > 2)
    return /e/.test(picture)
      ? new Failure("not-covered", { what: "exponents in a picture" })
      : badPicture(picture, "err:FODF1310");
  const [, before, whole, point, fraction = "", percent, after] = match;
  if (!/[#0-9]/.test(whole + fraction) || /[0-9]#/.test(whole.replace(/,/g, "")) || /#[0-9]/.test(fraction.replace(/,/g, "")))
    return badPicture(picture, "err:FODF1310");
  const amount = asDouble(value);
  if (Number.isNaN(amount)) return "NaN";
  const sign = negative && parts[1] === undefined ? "-" : "";
  if (!Number.isFinite(amount)) return `${sign}${before}Infinity${percent}${after}`;
  const exact = value instanceof Decimal ? value : Decimal.of(Math.abs(amount));
  const positive = exact.coefficient < 0n ? exact.negated() : exact;
  const scaled =
    percent === "%" ? positive.times(Decimal.of(100)) : percent === "‰" ? positive.times(Decimal.of(1000)) : positive;
  const most = fraction.replace(/,/g, "").length;
  const least = fraction.replace(/[,#]/g, "").length;
  const [digits, decimals = ""] = halfEven(scaled, most).split(".");
  let tail = decimals.padEnd(least, "0");
  while (tail.length > least && tail.endsWith("0")) tail = tail.slice(0, -1);
  const required = whole.replace(/[,#]/g, "").length;
  let head = digits.replace(/^0+/, "").padStart(required, "0");
  if (head === "" && tail === "") head = "0";
  return sign + before + (whole.includes(",") ? group(head, whole) : head) + (point && tail ? `.${tail}` : "") + percent + after;
}

function halfEven(value: Decimal, digits: number): string {
  if (value.scale <= digits) return value.toString();
  const unit = 10n ** BigInt(value.scale - digits);
  const [cut, rest] = [value.coefficient / unit, value.coefficient % unit];
  const up = rest * 2n > unit || (rest * 2n === unit && cut % 2n === 1n);
  return new Decimal(up ? cut + 1n : cut, digits).toString();
}
