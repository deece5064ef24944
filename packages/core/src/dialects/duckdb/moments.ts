import { kernelFor } from "../../text/index.ts";
import {
  type CalendarParts,
  calendarParts,
  Double,
  Failure,
  type Value,
  clockAt,
  dateFromDays,
  daysFromDate,
  integer,
  isoDate,
  lookup,
  two,
  bad,
} from "../../values/index.ts";
import { dateFields, weekdays, weeks } from "./fields.ts";

/** The parts of what is a date, or a date and time. */
const partsOf = (text: string): CalendarParts => calendarParts(text)!;

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
  ...Object.fromEntries(Object.entries(weeks).map(([name, how]) => [name, kernelFor("week-of-year", { missing, weeks: how })])),
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

export const singular = (name: string): string =>
  name
    .toLowerCase()
    .replace(/^(years|months|days|quarters|weeks|hours|minutes|seconds|decades|milliseconds|microseconds)$/, (word) =>
      word.slice(0, -1),
    );

export function datePart(name: string, text: string): Value {
  const field = parts[singular(name)];
  if (/^(?:epoch|julian)$/i.test(name)) return sinceEpoch[name.toLowerCase()](text);
  return field ? field(text) : bad(`"${name}" is no part of a date that is covered`);
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
  return bad(`"${name}" is no part of a date that is covered`);
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
