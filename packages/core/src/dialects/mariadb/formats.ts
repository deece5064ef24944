import { dateTokens, marked, parseTokens, tokenTable, writeByWords, writeDate } from "../../text/index.ts";
import { type Failure, bad, dateFromDays } from "../../values/index.ts";

import { halvesAndEras } from "../shared/calendar.ts";
import { step } from "../step.ts";
import { dayOf } from "./moments.ts";

/** What each token after % stands for in date_format() and str_to_date(). */
export const formatTokens = tokenTable({
  a: "day name short",
  b: "month name short",
  c: "month",
  D: "day with ending",
  d: "day 2",
  e: "day",
  f: "millionth 6",
  H: "hour 2",
  h: "hour of half 2",
  I: "hour of half 2",
  i: "minute 2",
  j: "day of year 3",
  k: "hour",
  l: "hour of half",
  M: "month name",
  m: "month 2",
  p: "half",
  r: "=%I:%i:%S %p",
  S: "second 2",
  s: "second 2",
  T: "=%H:%i:%S",
  U: "week of Sundays 2",
  u: "week of four days 2",
  V: "full week of Sundays 2",
  v: "iso week 2",
  W: "day name",
  w: "weekday from Sunday",
  X: "year of full week 4",
  x: "iso year 4",
  Y: "year 4",
  y: "year of century 2",
});
const written = dateTokens(formatTokens);

/** The parts of a moment as what writes them has them. */
function partsOf(value: marked.Moment) {
  const days = dayOf(value);
  return { ...value, days, weekday: dateFromDays(days).weekday };
}

/** date_format(), of a time with as many hours as it has, too. */
export const formatMoment = (value: marked.Moment, format: string): string =>
  writeDate(partsOf(value), format, written, (letter) => letter || "%");

/** What each word stands for in to_char(). */
const wordTable = tokenTable({
  YYYY: "year 4",
  RRRR: "year 4",
  YYY: "year of millennium 3",
  YY: "year of century 2",
  RR: "year of century 2",
  Y: "year of decade",
  MONTH: "month name 9",
  MON: "month name short",
  MM: "month 2",
  MI: "minute 2",
  DAY: "day name 9",
  DY: "day name short",
  DD: "day 2",
  HH24: "hour 2",
  HH12: "hour of half 2",
  HH: "hour of half 2",
  SS: "second 2",
  ...halvesAndEras,
});
const words = parseTokens(wordTable);

/** What to_char() comes to where no mark is left out. */
export const toCharLike = {
  ...step(
    "text-from-date",
    { missing: "null", formatLanguage: "words in any case", unknownToken: "error", emptyFormat: "null" },
    { tokens: wordTable },
  ),
  slots: ["date", "format"],
};

/** Texts between quotes, and the first of the marks that stand side by side; an ampersand with what comes next. */
const firstMarks = /"[^"]*"?|(?<=^|[a-z0-9"]|[ap]\.m\.|[ab]\.[cd]\.)(?:(\|)|(&(?=[a-z])))/gi;

/** to_char(); letters and digits beside its words are refused, and an ampersand before a word; the first bar is left out. */
export function writeWords(value: marked.Moment, format: string): string | Failure {
  let unknown: string | undefined;
  const kept = format.replace(firstMarks, (part, bar, ampersand) => {
    if (ampersand) unknown = "&";
    return bar ? "" : part;
  });
  const text = writeByWords(partsOf(value), kept, words, "words in any case", (char) => {
    if (/[A-Za-z0-9]|[^ -~]/.test(char)) unknown ??= char;
    return char;
  });
  return unknown === undefined ? text : bad(`the format of to_char() has no "${unknown}" here`);
}
