import { kernelFor } from "../../text/index.ts";
import {
  type CalendarParts,
  bad,
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
} from "../../values/index.ts";
import { dateFields, partNamed, weekdays, weeks } from "./fields.ts";

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

/** A part of a date; one that is no whole number only where its name is the same for all rows. */
export function datePart(name: string, text: string, isConstant: boolean): Value {
  const known = partNamed(name);
  if (isConstant && (known === "epoch" || known === "julian")) return sinceEpoch[known](text);
  const field = parts[known];
  return field ? field(text) : bad(`"${name}" is no part of a date that is covered`);
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
