import { dateTokens, marked, tokenTable, writeDate } from "../../text/index.ts";
import { dateFromDays, dayNames, daysFromDate, lookup, monthNames } from "../../values/index.ts";
import { dayOf } from "./moments.ts";

/** What each token after % stands for in date_format(). */
const formatTokens = tokenTable({
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

/** What is read for each letter after % in str_to_date(): the field and the shape. */
const readers: Readonly<Record<string, readonly [field: string, shape: string]>> = lookup({
  Y: ["year", "\\d{1,4}"],
  y: ["shortYear", "\\d{1,2}"],
  m: ["month", "\\d{1,2}"],
  c: ["month", "\\d{1,2}"],
  d: ["day", "\\d{1,2}"],
  e: ["day", "\\d{1,2}"],
  D: ["ordinal", "\\d{1,2}[^]{0,2}"],
  H: ["hour", "\\d{1,2}"],
  k: ["hour", "\\d{1,2}"],
  h: ["hour12", "\\d{1,2}"],
  I: ["hour12", "\\d{1,2}"],
  l: ["hour12", "\\d{1,2}"],
  i: ["minute", "\\d{1,2}"],
  s: ["second", "\\d{1,2}"],
  S: ["second", "\\d{1,2}"],
  f: ["micro", "\\d{1,6}"],
  p: ["half", "am|pm"],
  M: ["monthName", "\\p{L}+"],
  b: ["monthName", "\\p{L}+"],
  W: ["weekdayName", "\\p{L}+"],
  a: ["weekdayName", "\\p{L}+"],
  j: ["yearDay", "\\d{1,3}"],
  w: ["weekday", "[0-6]"],
  U: ["week U", "\\d{1,2}"],
  u: ["week u", "\\d{1,2}"],
  V: ["week V", "\\d{1,2}"],
  v: ["week v", "\\d{1,2}"],
  X: ["year V", "\\d{1,4}"],
  x: ["year v", "\\d{1,4}"],
});
const composite: Readonly<Record<string, string>> = lookup({ T: "%H:%i:%S", r: "%I:%i:%S %p" });

const shortNames = (names: readonly string[]) => names.map((name) => name.slice(0, 3));

/** The names that are read for a letter. */
const words: Readonly<Record<string, readonly string[]>> = lookup({
  M: monthNames,
  b: shortNames(monthNames),
  W: dayNames,
  a: shortNames(dayNames),
});

/** Which name is meant, counted from 1: one that is written in full, or the only one that begins so; 0 for none. */
function numberOfName(written: string, names: readonly string[]): number {
  const begin = written.toLowerCase();
  const found = names.flatMap((name, i) => (name.toLowerCase().startsWith(begin) ? [i + 1] : []));
  const whole = found.find((number) => names[number - 1].length === begin.length);
  return whole ?? (found.length === 1 ? found[0] : 0);
}

/**
 * The day of a week day in a week, in days since 1970. U and V count weeks from the first Sunday, u and v from Monday in the
 * first week that has four days; V and v want the year that goes with them (X, x), U and u an ordinary one.
 */
function dayOfWeek(found: Readonly<Record<string, string>>, letter: string, weekday: number, year: number): number | undefined {
  const week = Number(found[`week ${letter}`]);
  const own = found[`year ${letter}`];
  const isStrict = letter === "V" || letter === "v";
  const hasOwnYear = found["year V"] !== undefined || found["year v"] !== undefined;
  if (week > 53 || (isStrict ? own === undefined || week === 0 : hasOwnYear)) return undefined;
  const first = daysFromDate(isStrict ? Number(own) : year, 1, 1);
  const sundayFirst = dateFromDays(first).weekday;
  if (letter === "U" || letter === "V") return first + (sundayFirst === 0 ? 0 : 7) - sundayFirst + (week - 1) * 7 + (weekday % 7);
  const mondayFirst = (sundayFirst + 6) % 7;
  return first + (mondayFirst <= 3 ? 0 : 7) - mondayFirst + (week - 1) * 7 + (weekday - 1);
}

/** str_to_date(): the text by the format; null where it does not fit. */
export function readByFormat(text: string, format: string): string | null {
  const full = format.replace(/%([Tr])/g, (_part, letter: string) => composite[letter]);
  const found: Record<string, string> = {};
  let rest = text;
  for (const [part, letter] of full.matchAll(/%([\s\S])|[\s\S]/gu)) {
    rest = rest.replace(/^[ \t\n\v\f\r]+/, "");
    if (rest === "") break;
    if (letter === undefined || letter === "%") {
      const char = letter ?? part;
      if (/[ \t\n\v\f\r]/.test(char)) continue;
      if (!rest.startsWith(char)) return null;
      rest = rest.slice(char.length);
      continue;
    }
    const reader = readers[letter];
    const match = reader && new RegExp(`^(?:${reader[1]})`, "iu").exec(rest);
    if (!match || (letter in words && numberOfName(match[0], words[letter]) === 0)) return null;
    found[reader[0]] = match[0];
    rest = rest.slice(match[0].length);
  }
  const number = (name: string) => (found[name] === undefined ? undefined : parseInt(found[name], 10));
  const monthByName = found.monthName && numberOfName(found.monthName, monthNames);
  let hour = number("hour") ?? (number("hour12") === undefined ? 0 : number("hour12")! % 12);
  if (number("hour12") !== undefined && (number("hour12")! > 12 || number("hour12") === 0)) return null;
  if (found.half?.toLowerCase() === "pm") hour += 12;
  let year =
    found.year !== undefined
      ? marked.fullYear(found.year.padStart(found.year.length > 2 ? 4 : 2, "0"))
      : found.shortYear !== undefined
        ? marked.fullYear(found.shortYear.padStart(2, "0"))
        : 0;
  let [month, day] = [
    number("month") ?? (monthByName || 0),
    number("day") ?? (found.ordinal === undefined ? 0 : parseInt(found.ordinal.slice(0, 2), 10)),
  ];
  const yearDay = number("yearDay");
  if (yearDay !== undefined && year === 0) return null;
  if (yearDay !== undefined && yearDay > 0) ({ month, day } = dateFromDays(daysFromDate(year, 1, yearDay)));
  const weekday =
    found.weekdayName === undefined
      ? found.weekday && (Number(found.weekday) || 7)
      : numberOfName(found.weekdayName, dayNames.slice(1)) || 7;
  const weeks = Object.keys(found).findLast((name) => name.startsWith("week "));
  if (weeks !== undefined && weekday !== undefined) {
    const days = dayOfWeek(found, weeks.slice(5), Number(weekday), year);
    if (days === undefined) return null;
    ({ year, month, day } = dateFromDays(days));
    if (year < 1 || year > 9999) return null;
  }
  const [minute, second] = [number("minute") ?? 0, number("second") ?? 0];
  if (month > 12 || day > 31 || hour > 23 || minute > 59 || second > 59) return null;
  const { hasDate, hasTime } = partsOfFormat(full);
  const fraction = /%f/.test(full) ? `.${(found.micro ?? "").padEnd(6, "0")}` : "";
  const date = `${marked.four(year)}-${marked.two(month)}-${marked.two(day)}`;
  const time = `${marked.two(hour)}:${marked.two(minute)}:${marked.two(second)}${fraction}`;
  return hasTime ? (hasDate ? `${date} ${time}` : time) : date;
}

/** Which parts the letters of a format stand for. */
const partsOfFormat = (format: string): { hasDate: boolean; hasTime: boolean } => ({
  hasDate: /%[aYymcbMdDejWwUuVvXx]/.test(format),
  hasTime: /%[HkhIlisSfprT]/.test(format),
});
