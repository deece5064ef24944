import {
  type CalendarParts,
  type Moment,
  type Value,
  bad,
  calendarParts,
  clockAt,
  dateFromDays,
  daysFromDate,
  isoDate,
  isoWeekOf,
} from "../../values/index.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { notADate } from "../calendar.ts";
import { moment, operation, settled, tabled, text } from "../operation.ts";

/** The day on which a unit begins, counted from 1970-01-01; `years` are counted from the year 0 or 1. */
const days = {
  day: ({ days: day }) => day,
  week: ({ days: day, weekday }) => day - ((weekday + 6) % 7),
  month: ({ year, month }) => daysFromDate(year, month, 1),
  quarter: ({ year, month }) => daysFromDate(year, month - ((month - 1) % 3), 1),
  year: ({ year }) => daysFromDate(year, 1, 1),
  isoyear: ({ days: day, weekday }) => day - ((weekday + 6) % 7) - (isoWeekOf(day).week - 1) * 7,
  decade: ({ year }) => daysFromDate(year - (year % 10), 1, 1),
  century: ({ year }, first) => daysFromDate(year - ((year - first) % 100), 1, 1),
  millennium: ({ year }, first) => daysFromDate(year - ((year - first) % 1000), 1, 1),
} as const satisfies Readonly<Record<string, (parts: CalendarParts, first: 0 | 1) => number>>;

/** Units of a day, in millionths of a second. */
const clocks = { hour: 3600e6, minute: 60e6, second: 1e6, milliseconds: 1e3, microseconds: 1 } as const;

const units: readonly string[] = [...Object.keys(days), ...Object.keys(clocks)];

/** What is wrong with a table of units. */
function unitFault(table: string): string | undefined {
  const unknown = table.split(", ").find((line) => !units.includes(line.split(" ")[0]));
  return unknown === undefined ? undefined : `"${unknown}" does not begin with a unit; there are ${units.join(", ")}`;
}

/** Reads a table of units, each with its other names: `year yr y, month mon`. What each name means, in small letters. */
export const unitNames = (table: string): ReadonlyMap<string, string> =>
  new Map(table.split(", ").flatMap((line) => line.split(" ").map((name, _i, [unit]) => [name, unit] as const)));

const firstYear: Readonly<Record<AnswerOf<"centuriesFrom">, 0 | 1>> = { "the year 1": 1, "the year 0": 0 };

/** The moment at which a unit of a date and time begins. */
export const startOfUnit = operation({
  id: "start-of-unit",
  family: "convert",
  summary: "gives the moment at which a unit of a date and time begins",
  slots: [
    text("unit"),
    moment("date"),
    tabled("units", "year yr years, month mon months, day days, hour hr hours", unitFault),
    settled("era", ["at the end", "in the year"]),
  ],
  traits: ["missing", "centuriesFrom"],
  prepare({ centuriesFrom }, { units: table, era }) {
    const names = unitNames(table as string);
    const first = firstYear[centuriesFrom];
    const dateOf = era === "at the end" ? dateOfEra : dateOfYear;
    const momentText = (day: number, micros: number, zone: string): string => {
      const written = dateOf(day);
      return `${written.date} ${clockAt(micros)}${zone}${written.era}`;
    };
    return (given: string, date: string | Moment): Value => {
      const unit = names.get(given.toLowerCase());
      if (unit === undefined) return bad(`"${given}" is no unit of a date and time that is covered`);
      const parts = calendarParts(date);
      if (!parts) return notADate(date);
      const zone = typeof date === "string" && date.endsWith("+00") ? "+00" : "";
      if (unit in days) return momentText(days[unit as keyof typeof days](parts, first), 0, zone);
      const micros = ((parts.hour * 60 + parts.minute) * 60 + parts.second) * 1e6 + parts.micro;
      return momentText(parts.days, micros - (micros % clocks[unit as keyof typeof clocks]), zone);
    };
  },
});

/** A date as text, with its era behind it where it lies before the year 1. */
export function dateOfEra(days: number): { readonly date: string; readonly era: string } {
  const { year, month, day } = dateFromDays(days);
  return { date: isoDate(year < 1 ? 1 - year : year, month, day), era: year < 1 ? " BC" : "" };
}

/** The same with the year as ISO 8601 counts it, from 0. */
function dateOfYear(days: number): ReturnType<typeof dateOfEra> {
  const { year, month, day } = dateFromDays(days);
  return { date: isoDate(year, month, day), era: "" };
}
