import { dateFromDays, daysFromDate } from "./dates.ts";

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
  /** Days from 1970-01-01. */
  readonly days: number;
  /** 0 for Sunday. */
  readonly weekday: number;
}

const shape = /^(\d{4,})-(\d\d)-(\d\d)(?:[T ](\d\d):(\d\d)(?::(\d\d)(?:\.(\d{1,6}))?)?)?$/;

/** The parts of an ISO 8601 text, the time of day after a space or T or left out; undefined where it is none. */
export function calendarParts(text: string): CalendarParts | undefined {
  const found = shape.exec(text);
  if (!found) return undefined;
  const [year, month, day, hour, minute, second] = found.slice(1, 7).map((part) => Number(part ?? 0));
  const days = daysFromDate(year, month, day);
  const micro = Number((found[7] ?? "").padEnd(6, "0"));
  return { year, month, day, hour, minute, second, micro, days, weekday: dateFromDays(days).weekday };
}
