/** How dates and times are written without a format. */
import type { AnswerOf } from "../../traits/index.ts";
import { Failure, asciiTrimmed, isDate, isoDate, monthNames, two } from "../../values/index.ts";
import * as marked from "./marked.ts";

/** A date, a time of day, or both, each as ISO text. */
export interface MomentText {
  readonly date?: string;
  readonly clock?: string;
}

/** What is read in a text: a date, whatever stands after it; a time of day; or both, or a date alone. */
export type Wanted = "date" | "time" | "both";

/** Reads a text; undefined where it is none of what is wanted, a failure where we do not know. */
type Reader = (text: string, wanted: Wanted) => MomentText | Failure | undefined;

const uncovered = (text: string): Failure => new Failure("not-covered", { what: `dates written like "${text}"` });

/** Seconds with their fraction, without the zeros that end it. */
const secondText = (second: string): string => {
  const [whole, fraction = ""] = second.split(".");
  const kept = fraction.slice(0, 6).replace(/0+$/, "");
  return two(whole) + (kept && `.${kept}`);
};

const iso: Reader = (text) => {
  const [date, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text.trim()) ?? [];
  return date !== undefined && isDate(Number(year), Number(month), Number(day)) ? { date } : undefined;
};

/** A date as ISO 8601 has it, perhaps with a time of day behind it; `isOne` says which numbers are one. */
const isoWithTime =
  (isOne: (year: number, month: number, day: number) => boolean): Reader =>
  (text) => {
    const [, year, month, day, rest] = /^(\d{4})-(\d{2})-(\d{2})((?:[ T].*)?)$/.exec(asciiTrimmed(text)) ?? [];
    if (year === undefined || !isOne(Number(year), Number(month), Number(day))) return undefined;
    const date = `${year}-${month}-${day}`;
    if (rest === "") return { date };
    const time = clockOf(rest.replace(/^[T ]+/, ""));
    return time?.rest === "" ? { date, clock: time.clock } : undefined;
  };

/** A time of day and what stands after it. */
function clockOf(text: string): { clock: string; rest: string } | undefined {
  const [, hour, minute, second = "00", rest] = /^(\d{1,2}):(\d{1,2})(?::(\d{1,2}(?:\.\d+)?))?(?!\d)([^]*)$/.exec(text) ?? [];
  if (hour === undefined || Number(hour) > 23 || Number(minute) > 59 || Number(second) >= 60) return undefined;
  return { clock: `${two(hour)}:${two(minute)}:${secondText(second)}`, rest };
}

const yearFirst: Reader = (given, wanted) => {
  const text = given.replace(/^[ \t\n\v\f\r]+/, "");
  if (wanted === "time") {
    const dated = clockOf(text) ?? yearFirst(text, "both");
    return dated instanceof Failure || !dated ? dated : { clock: dated.clock ?? "00:00:00" };
  }
  const [, year, , month, day, rest] = /^(\d{1,6})([-/ \\])(\d{1,2})\2(\d{1,2})(?!\d)([^]*)$/.exec(text) ?? [];
  if (year === undefined) return /^(?:epoch|-?infinity)[ \t\n\v\f\r]*$|^-\d+[-/]/i.test(text) ? uncovered(given) : undefined;
  if (!isDate(Number(year), Number(month), Number(day))) return undefined;
  if (/^[ \t\n\v\f\r]+\(BC\)/i.test(rest)) return uncovered(given);
  const date = isoDate(Number(year), Number(month), Number(day));
  if (wanted === "date" || asciiTrimmed(rest) === "") return { date };
  const time = clockOf(rest.replace(/^[T ]/, "").replace(/^[ \t\n\v\f\r]+/, ""));
  if (time && asciiTrimmed(time.rest) === "") return { date, clock: time.clock };
  return /[zZ]|[+-]\d\d/.test(rest) ? new Failure("not-covered", { what: "time zones" }) : undefined;
};

/** Forms in the order month, day, year: what each group of digits or letters is. */
const forms: readonly (readonly [RegExp, string])[] = [
  ...["-", "/", "\\.", " "].map((mark) => [new RegExp(`^(\\d{4})${mark}(\\d{1,2})${mark}(\\d{1,2})$`), "ymd"] as const),
  [/^(\d{4})(\d{2})(\d{2})$/, "ymd"],
  ...["-", "/", "\\."].map((mark) => [new RegExp(`^(\\d{1,2})${mark}(\\d{1,2})${mark}(\\d{4}|\\d{2})$`), "mdy"] as const),
  [/^([A-Za-z]{3,9}) (\d{1,2}),? (\d{4}|\d{2})$/, "mdy"],
  [/^([A-Za-z]{3,9})-(\d{1,2})-(\d{4}|\d{2})$/, "mdy"],
  [/^(\d{1,2})[ -]([A-Za-z]{3,9})[ -](\d{4}|\d{2})$/, "dmy"],
];

/** A year in two digits is one from 1970 to 2069. */
const fullYear = (year: string): number => (year.length === 2 ? Number(year) + (Number(year) < 70 ? 2000 : 1900) : Number(year));

/** The number of a month by its name, its first three letters, or "sept"; 0 for no month. */
function monthNumber(written: string): number {
  if (/\d/.test(written)) return Number(written);
  const name = written.toLowerCase().replace(/^sept$/, "sep");
  return monthNames.findIndex((month) => [month, month.slice(0, 3)].some((known) => known.toLowerCase() === name)) + 1;
}

const named: Reader = (text) => {
  const trimmed = asciiTrimmed(text);
  const [, written, hour, minute, second] =
    /^([\s\S]*?)(?:(?: +|T)([01]?\d|2[0-3]):([0-5]\d)(?::([0-5]\d(?:\.\d{1,6})?))?)?$/.exec(trimmed)!;
  const [shape, order] = forms.find(([each]) => each.test(written)) ?? [];
  if (!shape || !order)
    return /\d/.test(text) || /^(?:now|today|tomorrow|yesterday|epoch|[+-]?infinity)$/i.test(trimmed)
      ? uncovered(text)
      : undefined;
  const groups = shape.exec(written)!;
  const [year, month, day] = [..."ymd"].map((part) => groups[order.indexOf(part) + 1]);
  if (fullYear(year) < 1 || !isDate(fullYear(year), monthNumber(month), Number(day))) return undefined;
  return {
    date: `${String(fullYear(year)).padStart(4, "0")}-${two(monthNumber(month))}-${two(day)}`,
    clock: `${two(hour ?? 0)}:${two(minute ?? 0)}:${secondText(second ?? "00")}`,
  };
};

const anyMarks: Reader = (text, wanted) => {
  if (wanted === "time") {
    const span = marked.readTime(text);
    return span === undefined ? undefined : { clock: marked.spanText(span) };
  }
  const moment = marked.readMoment(text);
  if (moment) return { date: marked.dateText(moment), clock: marked.clockText(moment) };
  return marked.hasZeroPart(text)
    ? new Failure("not-covered", { what: `dates like ${text}, in which a part is missing or zero` })
    : undefined;
};

/** The readers of texts, by what they take for a date. */
export const readersBy: Readonly<Record<AnswerOf<"dateForms">, Reader>> = {
  "ISO 8601": iso,
  "ISO 8601, or with a time": isoWithTime(isDate),
  "ISO 8601, 31 days a month": isoWithTime((_year, month, day) => month >= 1 && month <= 12 && day >= 1 && day <= 31),
  "year first": yearFirst,
  "numbers or names of months": named,
  "any marks": anyMarks,
};
