import { dateTokens, marked, tokenTable, writeDate } from "../../text/index.ts";
import { dateFromDays } from "../../values/index.ts";
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

/** date_format(), of a time with as many hours as it has, too. */
export function formatMoment(value: marked.Moment, format: string): string {
  const days = dayOf(value);
  return writeDate({ ...value, days, weekday: dateFromDays(days).weekday }, format, written, (letter) => letter || "%");
}
