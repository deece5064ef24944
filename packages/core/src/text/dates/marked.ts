/** Dates and times as numbers with marks between them, or as digits side by side. */
import { type CalendarParts, countBytes, isDate, two, utf8Of } from "../../values/index.ts";

/** A date and time; `micro` is the fraction of the second in millionths. */
export type Moment = Omit<CalendarParts, "days" | "weekday">;

export const four = (value: number): string => String(value).padStart(4, "0");

/** Years of two digits are 2000 to 2069 and 1970 to 1999. */
export const fullYear = (digits: string): number =>
  digits.length !== 2 ? Number(digits) : Number(digits) + (Number(digits) < 70 ? 2000 : 1900);

/** The numbers of a date and time; undefined where one is beyond what it may be. */
function numbersOf([first, ...others]: readonly string[]): readonly number[] | undefined {
  const [month, day, hour = 0, minute = 0, second = 0] = others.map(Number);
  const year = fullYear(first);
  const isInRange = year <= 9999 && month <= 12 && day <= 31 && hour <= 23 && minute <= 59 && second <= 59;
  return isInRange ? [year, month, day, hour, minute, second] : undefined;
}

function moment(parts: readonly string[], fraction: string): Moment | undefined {
  const [year, month, day, hour, minute, second] = numbersOf(parts) ?? [0, 0, 0];
  // The year 0 is no leap year here.
  if (month === 0 || day === 0 || !isDate(year || 1, month, day)) return undefined;
  return { year, month, day, hour, minute, second, micro: microOfDigits(fraction) };
}

const blank = "[ \\t\\n\\v\\f\\r]";
const mark = "[!-/:-@[-`{-~]";
const markHere = new RegExp(`^${mark}`);
const blanksOrT = new RegExp(`^(?:T|${blank}+)`);
/** Days before a time: digits, blanks, and at least two characters that begin with a digit. */
const daysBefore = new RegExp(`^\\d+${blank}+(?=\\d[^])`);

/** Bytes that are neither digits nor marks where they are looked at as Latin-1; the server leaves them out at the end. */
const isIdle = (byte: number): boolean =>
  byte < 0x80
    ? !/[\d!-/:-@[-`{-~]/.test(String.fromCharCode(byte))
    : idle.has(byte) || (byte >= 0xc0 && byte !== 0xd7 && byte !== 0xf7);
const idle: ReadonlySet<number> = new Set([0x81, 0x83, 0x8a, 0x8c, 0x8d, 0x8e, 0x8f, 0x90, 0x9a, 0x9c, 0x9d, 0x9e, 0x9f, 0xa0]);

const leading = /^[ \t\n\v\f\r]*\+?[ \t\n\v\f\r]*/;

/** A text without blanks and a plus before it, and without what says nothing behind it. */
function trimmedEnds(given: string): string {
  const text = given.replace(leading, "");
  let end = text.length;
  while (end > 0) {
    const start = end - ((text.charCodeAt(end - 1) & 0xfc00) === 0xdc00 ? 2 : 1);
    if (!utf8Of(text.slice(start, end)).every(isIdle)) break;
    end = start;
  }
  return text.slice(0, end);
}

/** The numbers of a text that is read as a date and time, as far as they go. */
interface Scanned {
  readonly parts: readonly string[];
  /** The mark between the first two; empty where the digits stand side by side. */
  readonly mark: string;
  readonly fraction: string;
}

/**
 * Reads digits side by side in parts of two, the year of four where there are 4, 8 or at least 14 digits; or numbers with a mark
 * between each and the next. Between the date and the time stand blanks, a T, or with `marksPart` a mark; without it a mark
 * there says that the text is no date.
 */
function scanned(text: string, marksPart: boolean): Scanned {
  const parts: string[] = [];
  let at = 0;
  const take = (most?: number): boolean => {
    const digits = /^\d+/.exec(text.slice(at, most === undefined ? undefined : at + most))?.[0];
    if (digits === undefined) return false;
    parts.push(digits);
    at += digits.length;
    return true;
  };
  const skip = (shape: RegExp): boolean => {
    const found = shape.exec(text.slice(at))?.[0];
    at += found?.length ?? 0;
    return found !== undefined;
  };
  const fraction = () => /^\.(\d*)/.exec(text.slice(at))?.[1] ?? "";
  const run = /^[\dT]*/.exec(text)![0];
  const count = run.replaceAll("T", "").length;
  if (run === text || (text[run.length] === "." && (count === 12 || count >= 14))) {
    if (take(count === 4 || count === 8 || count >= 14 ? 4 : 2) && take(2) && take(2)) {
      skip(/^T/);
      if (take(2) && take(2)) take(2);
    }
    return { parts, mark: "", fraction: fraction() };
  }
  if (!take() || !skip(markHere)) return { parts, mark: "", fraction: "" };
  const first = text[at - 1];
  if (!take() || !skip(markHere) || !take()) return { parts, mark: first, fraction: "" };
  const isMarked = markHere.test(text.slice(at));
  if (isMarked && !marksPart) return { parts: [], mark: first, fraction: "" };
  if (skip(isMarked ? markHere : blanksOrT) && take() && skip(markHere) && take() && skip(markHere)) take();
  return { parts, mark: first, fraction: fraction() };
}

/** A text, or a number as text, read as a date and time; undefined where it is none. */
export function readMoment(given: string): Moment | undefined {
  const { parts, fraction } = scanned(trimmedEnds(given), true);
  return parts.length < 3 ? undefined : moment(parts, fraction);
}

export const dateText = ({ year, month, day }: Moment): string => `${four(year)}-${two(month)}-${two(day)}`;

const fractionText = (micro: number): string => (micro ? `.${String(micro).padStart(6, "0").replace(/0+$/, "")}` : "");

export const clockText = ({ hour, minute, second, micro }: Moment): string =>
  `${two(hour)}:${two(minute)}:${two(second)}${fractionText(micro)}`;

export const momentText = (value: Moment): string => `${dateText(value)} ${clockText(value)}`;

/** A time of day or a span in microseconds; undefined where the text is none. */
export function readTime(text: string): number | undefined {
  const span = readSpan(text);
  return span === undefined ? undefined : Math.max(-longest, Math.min(longest, span));
}

/** The largest number that is a time HHMMSS; a larger one may be read as a date. */
export const largestTime = 8_385_959;

/**
 * A number as a time: one of 8 to 14 digits is a date and time, whose day its month need not have; any other counts hours,
 * minutes and seconds from its end. Undefined where it is none.
 */
export function timeOfNumber(text: string): number | undefined {
  const [, sign, whole, fraction = ""] = /^(-?)(\d+)(?:\.(\d*))?$/.exec(text) ?? [];
  if (whole === undefined) return undefined;
  const size = whole.length;
  if (sign === "" && size >= 8 && size <= 14) {
    const found = numbersOf(scanned(size === 8 ? whole : whole.padStart(size <= 12 ? 12 : 14, "0"), false).parts);
    return found && spanOf(found[3], found[4], found[5], size === 8 ? "" : fraction).micros;
  }
  const [hour, minute, second] = [whole.slice(0, -4), whole.slice(-4, -2), whole.slice(-2)].map(Number);
  if (minute > 59 || second > 59) return undefined;
  const span = Math.min(longest, spanOf(hour, minute, second, fraction).micros);
  return sign === "" ? span : -span;
}

/** The longest time, in microseconds. */
export const longest = 3_020_399_999_999;

/** A date, and what parts it from a time: spaces, a T, or a mark. */
const clocked = new RegExp(`^\\d+${mark}\\d+${mark}\\d+(?:[ \\t\\n\\v\\f\\r]+|T|${mark})\\d`);

/** Whether a text that is read as a date says the time of day, too. */
export const hasClock = (text: string): boolean => clocked.test(text.replace(leading, "")) || /^\d{12,}/.test(text.trim());

/** A stretch of time in microseconds, and how many digits of the second's fraction are written. */
interface Span {
  readonly micros: number;
  readonly digits: number;
}

const spanOf = (hour: number, minute: number, second: number, fraction: string): Span => ({
  micros: (hour * 3600 + minute * 60 + second) * 1e6 + microOfDigits(fraction),
  digits: Math.min(6, fraction.length),
});

/** The time of a text that is read as a date and time; undefined where it is a time alone, `out of range` where a number is too large. */
function dated(text: string): (Span & { readonly isValid: boolean }) | "out of range" | undefined {
  const { parts, mark: first, fraction } = scanned(text, false);
  // A date alone is one only where the text goes on.
  if (parts.length < 3 || ((parts.length === 3 || first === "") && countBytes(text) < 12)) return undefined;
  const found = numbersOf(parts);
  if (!found) return "out of range";
  const [year, month, day, hour, minute, second] = found;
  const isValid = month === 0 || day === 0 || isDate(year || 4, month, day);
  return { ...spanOf(hour, minute, second, fraction), isValid };
}

/** Whether a text is a date in which the month or the day is zero. */
export function hasZeroPart(given: string): boolean {
  const { parts } = scanned(signed(given)[1], false);
  const [, month, day] = (parts.length < 3 ? undefined : numbersOf(parts)) ?? [];
  return month === 0 || day === 0;
}

/** Three numbers with colons between them are a time, not a date, unless a time follows. */
const isColoned = (text: string): boolean => /^\d+:\d+:\d+(?![T \t\n\v\f\r]*\d)/.test(text);

/** Whether a text is read as a date and time where it could be a time, too. */
export function isDated(given: string): boolean {
  const [, text] = signed(given);
  return !isColoned(text) && dated(text) !== undefined;
}

const microOfDigits = (fraction: string): number => Number(fraction.slice(0, 6).padEnd(6, "0"));

/** The hours of the longest stretch of time that is added to a moment. */
const longestHours = 87_649_415;

/** A time in microseconds, with days before it, or in digits side by side; undefined where it is none. */
function readClock(text: string): Span | undefined {
  let parts: number[];
  let at: number;
  const [digits] = /^\d+/.exec(text) ?? [];
  if (digits === undefined) return undefined;
  const days = daysBefore.exec(text)?.[0];
  if (days !== undefined) {
    const clock = /^\d+(?::\d+){0,2}/.exec(text.slice(days.length))![0];
    parts = [Number(digits), ...clock.split(":").map(Number)];
    at = days.length + clock.length;
  } else if (/^:\d/.test(text.slice(digits.length))) {
    const clock = /^\d+(?::\d+){1,2}/.exec(text)![0];
    parts = [0, ...clock.split(":").map(Number)];
    at = clock.length;
  } else {
    const value = Number(digits);
    parts = [0, Math.floor(value / 10_000), Math.floor(value / 100) % 100, value % 100];
    at = digits.length;
  }
  const [day, hour, minute = 0, second = 0] = parts;
  const fraction = /^\.\d*/.exec(text.slice(at))?.[0] ?? "";
  if (/^[eE][-+]?\d/.test(text.slice(at + fraction.length))) return undefined;
  if (minute > 59 || second > 59) return undefined;
  return spanOf(day * 24 + hour, minute, second, fraction.slice(1));
}

/** A sign, and what stands behind it without blanks and without what says nothing at the end. */
function signed(given: string): readonly [sign: 1 | -1, text: string] {
  const text = trimmedEnds(given);
  return text.startsWith("-") ? [-1, text.slice(1).replace(/^[ \t\n\v\f\r]+/, "")] : [1, text];
}

/** A time that may be longer than the longest, that of a date and time or one alone, and the digits of its fraction. */
function readTimed(given: string): Span | undefined {
  const [sign, text] = signed(given);
  const date = isColoned(text) ? undefined : dated(text);
  if (date === "out of range" || (date && sign < 0)) return undefined;
  // A day that its month does not have counts for all digits.
  if (date) return date.isValid ? date : { ...date, digits: 6 };
  const span = readClock(text);
  return span && { ...span, micros: sign * span.micros };
}

export const readSpan = (given: string): number | undefined => readTimed(given)?.micros;
/** How many digits of the second's fraction a text has that is read as a time. */
export const timeDigits = (given: string): number => readTimed(given)?.digits ?? 0;

/** A stretch of time to be added, which no date and time is. */
export function readStretch(given: string): number | undefined {
  const [sign, text] = signed(given);
  const date = dated(text);
  if ((typeof date === "object" && date.isValid) || /^\d+(?:\.\d+)?-/.test(text)) return undefined;
  const span = readClock(text)?.micros;
  return span === undefined || span >= (longestHours + 1) * 3600e6 ? undefined : sign * span;
}

/** A time, or a date and time, with so many digits of the second's fraction. */
export function withSecondDigits(text: string, digits: number): string {
  const [whole, fraction = ""] = text.split(".");
  return digits > 0 ? `${whole}.${fraction.slice(0, digits).padEnd(digits, "0")}` : whole;
}

/** A span of microseconds as `[-]HH:MM:SS[.ffffff]`, with as many digits of the fraction as are needed. */
export function spanText(span: number): string {
  const size = Math.abs(span);
  const seconds = Math.floor(size / 1e6);
  return `${span < 0 ? "-" : ""}${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${fractionText(size % 1e6)}`;
}
