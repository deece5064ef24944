import {
  type CalendarParts,
  Decimal,
  Failure,
  Moment,
  type Value,
  calendarParts,
  dateFromDays,
  dayNames,
  daysFromDate,
  isoWeekOf,
  lookup,
  monthNames,
} from "../values/index.ts";
import { day, moment, operation, settled } from "./operation.ts";

/** The fields of a date and time, by the proleptic Gregorian calendar and ISO 8601's weeks. */
export const calendarFields: Readonly<Record<string, (parts: CalendarParts) => Value>> = lookup({
  year: ({ year }) => year,
  quarter: ({ month }) => Math.ceil(month / 3),
  month: ({ month }) => month,
  day: ({ day }) => day,
  "day of year": ({ days, year }) => days - daysFromDate(year, 1, 1) + 1,
  "days in month": ({ year, month }) => daysFromDate(year, month + 1, 1) - daysFromDate(year, month, 1),
  decade: ({ year }) => Math.floor(year / 10),
  // The year 0 is the last one of the first century before them.
  century: ({ year }) => Math.ceil(year / 100) || -1,
  millennium: ({ year }) => Math.ceil(year / 1000) || -1,
  era: ({ year }) => (year > 0 ? 1 : 0),
  "iso week": ({ days }) => isoWeekOf(days).week,
  "iso year": ({ days }) => isoWeekOf(days).year,
  "iso year and week": ({ days }) => {
    const { year, week } = isoWeekOf(days);
    return year * 100 + (year > 0 ? week : -week);
  },
  hour: ({ hour }) => hour,
  minute: ({ minute }) => minute,
  second: ({ second }) => second,
  "second and fraction": ({ second, micro, exact }) => exact ?? new Decimal(BigInt(second * 1e6 + micro), 6).trimmed(),
  milliseconds: ({ second, micro }) => second * 1000 + Math.floor(micro / 1000),
  microseconds: ({ second, micro }) => second * 1e6 + micro,
  nanoseconds: ({ second, micro }) => (second * 1e6 + micro) * 1000,
  "day name": ({ weekday }) => dayNames[weekday],
  "month name": ({ month }) => monthNames[month - 1],
});

/** What stands for a text that is no date. */
export const notADate = (given: string | Moment): Failure =>
  new Failure("not-a-date", { text: given instanceof Moment ? given.text : given });

/** Gives a field of a date and time, by the proleptic Gregorian calendar and ISO 8601's weeks; small seconds with whole ones. */
export const calendarField = operation({
  id: "calendar-field",
  family: "convert",
  summary: "gives a field of a date and time",
  slots: [moment("date"), settled("field", Object.keys(calendarFields))],
  traits: ["missing"],
  prepare(_answers, { field }) {
    const give = calendarFields[field as string];
    return (value: string | Moment): Value => {
      const parts = calendarParts(value);
      return parts ? give(parts) : notADate(value);
    };
  },
});

/** The week of a year that begins on a day of the week (0 Sunday); the days before its first such day are in week 0, or in 1 with `isCut`. */
const weekFrom =
  (first: number, isCut: boolean) =>
  ({ days, year }: CalendarParts): number => {
    const start = daysFromDate(year, 1, 1);
    const before = (dateFromDays(start).weekday - first + 7) % 7;
    return Math.floor((days - start + before) / 7) + (isCut || before === 0 ? 1 : 0);
  };

/** Numbers the weeks of a year. */
export const weekOfYear = operation({
  id: "week-of-year",
  family: "convert",
  summary: "gives the number of a date's week in the year",
  slots: [day("date")],
  traits: ["missing", "weeks"],
  prepare({ weeks }) {
    const numbered = {
      "ISO 8601": ({ days }: CalendarParts) => isoWeekOf(days).week,
      "Sundays from 0": weekFrom(0, false),
      "Mondays from 0": weekFrom(1, false),
      "Sundays from 1": weekFrom(0, true),
      "Mondays from 1": weekFrom(1, true),
    }[weeks];
    return (value: string | Moment): Value => {
      const parts = calendarParts(value);
      return parts ? numbered(parts) : notADate(value);
    };
  },
});

/** Numbers the days of the week. */
export const weekday = operation({
  id: "weekday",
  family: "convert",
  summary: "gives the number of a date's day of the week",
  slots: [day("date")],
  traits: ["missing", "weekdays"],
  prepare({ weekdays }) {
    const numbered = {
      "Sunday 0": (day: number) => day,
      "Sunday 1": (day: number) => day + 1,
      "Monday 0": (day: number) => (day + 6) % 7,
      "Monday 1": (day: number) => day || 7,
    }[weekdays];
    return (value: string | Moment): Value => {
      const parts = calendarParts(value);
      return parts ? numbered(parts.weekday) : notADate(value);
    };
  },
});
