import { dateFromDays, daysFromDate } from "./dates.ts";
import { Decimal } from "./decimal.ts";
import { Interval } from "./intervals.ts";
import { partsOf } from "./moments.ts";
import { Moment } from "./value.ts";

/** The parts of a date, or of a date and time, of the proleptic Gregorian calendar. */
export interface CalendarParts {
  readonly year: number;
  /** 1 to 12. */
  readonly month: number;
  /** 1 to 31. */
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
  readonly second: number;
  /** The fraction of the second in millionths. */
  readonly micro: number;
  /** The second with its fraction, where that may be finer. */
  readonly exact?: Decimal;
  /** Days from 1970-01-01. */
  readonly days: number;
  /** 0 for Sunday. */
  readonly weekday: number;
}

const shape = /^(\d{4,})-(\d\d)-(\d\d)(?:[T ](\d\d):(\d\d)(?::(\d\d)(?:\.(\d{1,6}))?)?(?:\+00)?)?$/;

/** The parts of a moment of a type of its own; those that the type lacks are the ones of 1972-12-31 at 00:00. */
function partsOfMoment(moment: Moment): CalendarParts {
  const { year = 1972, month = 12, day = 31, hour = 0, minute = 0, second: exact = Decimal.of(0) } = partsOf(moment);
  const days = daysFromDate(year, month, day);
  const second = Number(exact.floor());
  const micro = Number(exact.minus(Decimal.of(second)).times(Decimal.of(1e6)).floor());
  return { year, month, day, hour, minute, second, micro, exact, days, weekday: dateFromDays(days).weekday };
}

/** The parts of an ISO 8601 text, the time of day after a space or T or left out, or of a moment; undefined where it is none. */
export function calendarParts(given: string | Moment): CalendarParts | undefined {
  if (given instanceof Interval) return undefined;
  if (given instanceof Moment) return partsOfMoment(given);
  const found = shape.exec(given);
  if (!found) return undefined;
  const [year, month, day, hour, minute, second] = found.slice(1, 7).map((part) => Number(part ?? 0));
  const days = daysFromDate(year, month, day);
  const micro = Number((found[7] ?? "").padEnd(6, "0"));
  return { year, month, day, hour, minute, second, micro, days, weekday: dateFromDays(days).weekday };
}
