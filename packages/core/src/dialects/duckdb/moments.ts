import { dateTokens, kernelFor } from "../../text/index.ts";
import {
  type CalendarParts,
  calendarParts,
  Double,
  Failure,
  type Value,
  asciiTrimmed,
  clockAt,
  dateFromDays,
  dayNames,
  daysFromDate,
  integer,
  isDate,
  isoDate,
  lookup,
  monthNames,
} from "../../values/index.ts";
import { dateFields, strftimeTokens, weekdays } from "./fields.ts";

const two = (value: number): string => String(value).padStart(2, "0");

/** The parts of what is a date, or a date and time. */
const partsOf = (text: string): CalendarParts => calendarParts(text)!;

/** What each token after % stands for in strftime(). */
const written = dateTokens(strftimeTokens);

const noFormat = () => new Failure("invalid-value", { problem: "the format is empty" });

/** What is read for each letter after % in strptime(): the field and its shape. */
const readers: Readonly<Record<string, readonly [field: string, shape: string]>> = lookup({
  a: ["", dayNames.map((name) => name.slice(0, 3)).join("|")],
  A: ["", dayNames.join("|")],
  d: ["day", "\\d{1,2}"],
  b: ["monthName", monthNames.map((name) => name.slice(0, 3)).join("|")],
  h: ["monthName", monthNames.map((name) => name.slice(0, 3)).join("|")],
  B: ["monthName", monthNames.join("|")],
  m: ["month", "\\d{1,2}"],
  y: ["shortYear", "\\d{1,2}"],
  Y: ["year", "-?\\d{1,4}"],
  H: ["hour", "\\d{1,2}"],
  I: ["hour12", "\\d{1,2}"],
  p: ["half", "am|pm"],
  M: ["minute", "\\d{1,2}"],
  S: ["second", "\\d{1,2}"],
  f: ["micro", "\\d{1,6}"],
  g: ["milli", "\\d{1,3}"],
  j: ["yearDay", "\\d{1,3}"],
  w: ["", "[0-6]"],
  u: ["", "[1-7]"],
});

/** Why a format cannot be read, whatever the text; undefined where it can, or is not covered. */
export function formatFault(format: string): Failure | undefined {
  const fault = readDate("", format);
  if (fault instanceof Failure) return fault.code === "not-covered" ? undefined : fault;
  for (const [part, letter] of format.matchAll(/%(-?[\s\S]|$)/gu))
    if (letter !== "%" && !/^[cxX]$/.test(letter) && !written.has(letter))
      return new Failure("invalid-value", { problem: `"${part}" is no directive of a date format` });
  return undefined;
}

/** The text read by a format; undefined where it does not fit, a failure where the format cannot be read. */
export function readDate(text: string, format: string): string | undefined | Failure {
  if (format === "") return noFormat();
  if (/(?:^|[^%])(?:%%)*%$/.test(format)) return new Failure("invalid-value", { problem: "a % ends the date format" });
  const full = format.replace(/%c/g, "%Y-%m-%d %H:%M:%S").replace(/%x/g, "%Y-%m-%d").replace(/%X/g, "%H:%M:%S");
  const found: Record<string, string> = {};
  let rest = text.replace(/^[ \t\n\v\f\r]+/, "");
  for (const [part, letter] of full.matchAll(/%(-?[\s\S]|$)|[\s\S]/gu)) {
    if (letter === undefined || letter === "%") {
      const char = letter ?? part;
      if (/[ \t\n\v\f\r]/.test(char)) {
        if (!/^[ \t\n\v\f\r]/.test(rest)) return undefined;
        rest = rest.replace(/^[ \t\n\v\f\r]+/, "");
        continue;
      }
      if (!rest.startsWith(char)) return undefined;
      rest = rest.slice(char.length);
      continue;
    }
    const reader = readers[letter.replace("-", "")];
    if (!reader)
      return written.has(letter)
        ? new Failure("not-covered", { what: `%${letter} when a date is read` })
        : new Failure("invalid-value", { problem: `"${part}" is no directive of a date format` });
    const match = new RegExp(`^(?:${reader[1]})`, "i").exec(rest);
    if (!match) return undefined;
    found[reader[0]] = match[0];
    rest = rest.slice(match[0].length);
  }
  if (asciiTrimmed(rest) !== "") return undefined;
  return assembled(found);
}

function assembled(found: Readonly<Record<string, string>>): string | undefined {
  const number = (name: string) => (found[name] === undefined ? undefined : Number(found[name]));
  const short = number("shortYear");
  const year = number("year") ?? (short === undefined ? 1900 : short < 70 ? short + 2000 : short + 1900);
  const name = found.monthName?.slice(0, 3).toLowerCase();
  const named = name === undefined ? undefined : monthNames.findIndex((month) => month.slice(0, 3).toLowerCase() === name) + 1;
  let [month, day] = [number("month") ?? named ?? 1, number("day") ?? 1];
  const ordinal = number("yearDay");
  if (ordinal !== undefined && number("month") === undefined && named === undefined) {
    if (ordinal < 1 || ordinal > 366) return undefined;
    ({ month, day } = dateFromDays(daysFromDate(year, 1, ordinal)));
  }
  const hour12 = number("hour12");
  if (hour12 !== undefined && (hour12 < 1 || hour12 > 12)) return undefined;
  const pm = found.half?.toLowerCase() === "pm";
  const hour = hour12 === undefined ? (number("hour") ?? 0) : (hour12 % 12) + (pm ? 12 : 0);
  const [minute, second] = [number("minute") ?? 0, number("second") ?? 0];
  if (!isDate(year, month, day) || hour > 23 || minute > 59 || second > 59) return undefined;
  const fraction = (found.micro ?? found.milli ?? "").replace(/0+$/, "");
  return `${isoDate(year, month, day)} ${two(hour)}:${two(minute)}:${two(second)}${fraction && `.${fraction}`}`;
}

const missing = "null";
const { dayname: _day, monthname: _month, days_in_month: _days, ...named } = dateFields;

/** The fields that date_part() and the functions of their names give. */
const parts: Readonly<Record<string, (text: string) => Value>> = lookup({
  ...Object.fromEntries(
    Object.entries({ ...named, doy: dateFields.dayofyear }).map(([name, field]) => [
      name,
      kernelFor("calendar-field", { missing }, { field }),
    ]),
  ),
  ...Object.fromEntries(
    Object.entries({ ...weekdays, dow: weekdays.dayofweek }).map(([name, how]) => [
      name,
      kernelFor("weekday", { missing, weekdays: how }),
    ]),
  ),
});

const secondsOf = ({ days, hour, minute, second }: CalendarParts): number => days * 86_400 + hour * 3600 + minute * 60 + second;

/** A moment as a number counted from the start of 1970, or as a Julian day. */
export const sinceEpoch: Readonly<Record<string, (text: string) => Value>> = {
  epoch: (text) => new Double(microsOf(text) / 1e6),
  epoch_ms: (text) => Math.floor(microsOf(text) / 1000),
  epoch_us: (text) => microsOf(text),
  epoch_ns: (text) => integer(BigInt(microsOf(text)) * 1000n),
  julian: (text) => {
    const { days, hour, minute, second, micro } = partsOf(text);
    return new Double(days + 2_440_588 + ((hour * 60 + minute) * 60e6 + second * 1e6 + micro) / 86_400e6);
  },
};

const microsOf = (text: string): number => secondsOf(partsOf(text)) * 1e6 + partsOf(text).micro;

/** The moment so many millionths of a second after the start of 1970. */
export function momentAt(micros: bigint): Value {
  const rest = ((micros % microsOfDay) + microsOfDay) % microsOfDay;
  const date = dayAt(Number((micros - rest) / microsOfDay));
  return date instanceof Failure ? date : `${date} ${clockAt(Number(rest))}`;
}

const microsOfDay = 86_400_000_000n;

const singular = (name: string): string =>
  name
    .toLowerCase()
    .replace(/^(years|months|days|quarters|weeks|hours|minutes|seconds|decades|milliseconds|microseconds)$/, (word) =>
      word.slice(0, -1),
    );

export function datePart(name: string, text: string): Value {
  const field = parts[singular(name)];
  if (/^(?:epoch|julian)$/i.test(name)) return sinceEpoch[name.toLowerCase()](text);
  return field ? field(text) : new Failure("invalid-value", { problem: `"${name}" is no part of a date that is covered` });
}

/** The start of a part. */
export function truncated(name: string, text: string): Value {
  const { year, month, hour, minute, second, days, weekday } = partsOf(text);
  const day = (y: number, m: number, d = 1) => `${isoDate(y, m, d)} 00:00:00`;
  const date = text.slice(0, text.indexOf(" "));
  const since = (years: number) => day(Math.floor(year / years) * years, 1);
  switch (singular(name)) {
    case "year":
      return day(year, 1);
    case "decade":
      return since(10);
    case "century":
      return since(100);
    case "millennium":
      return since(1000);
    case "quarter":
      return day(year, Math.floor((month - 1) / 3) * 3 + 1);
    case "month":
      return day(year, month);
    case "week": {
      const monday = dateFromDays(days - ((weekday + 6) % 7));
      return day(monday.year, monday.month, monday.day);
    }
    case "day":
      return `${date} 00:00:00`;
    case "hour":
      return `${date} ${two(hour)}:00:00`;
    case "minute":
      return `${date} ${two(hour)}:${two(minute)}:00`;
    case "second":
      return `${date} ${two(hour)}:${two(minute)}:${two(second)}`;
  }
  return new Failure("invalid-value", { problem: `"${name}" is no part of a date that is covered` });
}

/** How many borders of a part lie between two dates. */
export function borders(name: string, from: string, to: string): Value {
  const [a, b] = [partsOf(from), partsOf(to)];
  const between = (unit: (parts: CalendarParts) => number): number => unit(b) - unit(a);
  const units: Readonly<Record<string, (parts: CalendarParts) => number>> = lookup({
    year: ({ year }) => year,
    quarter: ({ year, month }) => year * 4 + Math.floor((month - 1) / 3),
    month: ({ year, month }) => year * 12 + month,
    day: ({ days }) => days,
    hour: (p) => Math.floor(secondsOf(p) / 3600),
    minute: (p) => Math.floor(secondsOf(p) / 60),
    second: secondsOf,
    decade: ({ year }) => Math.floor(year / 10),
    century: ({ year }) => Math.floor(year / 100),
    millennium: ({ year }) => Math.floor(year / 1000),
    millisecond: (p) => secondsOf(p) * 1000 + Math.floor(p.micro / 1000),
    microsecond: (p) => secondsOf(p) * 1e6 + p.micro,
  });
  // Weeks are not counted by their borders: seven days make one.
  if (/^(?:week|yearweek)$/.test(singular(name))) return Math.trunc((b.days - a.days) / 7);
  const unit = units[singular(name)];
  return unit ? between(unit) : new Failure("invalid-value", { problem: `"${name}" is no part of a date that is covered` });
}

function daysInMonth(text: string): number {
  const { year, month } = partsOf(text);
  return daysFromDate(year, month + 1, 1) - daysFromDate(year, month, 1);
}

export function lastDay(text: string): string {
  const { year, month } = partsOf(text);
  return isoDate(year, month, daysInMonth(text));
}

export const dayNumber = (text: string): number => partsOf(text).days;

/** Days from 1970-01-01 to the last date that there is, 5881580-07-10; as many lie before. */
const lastDayNumber = 2147483646;

export function dayAt(days: number): string | Failure {
  if (Math.abs(days) > lastDayNumber) return new Failure("number-out-of-range");
  const { year, month, day } = dateFromDays(days);
  return year < 0 ? new Failure("not-covered", { what: "dates before the year 0" }) : isoDate(year, month, day);
}
