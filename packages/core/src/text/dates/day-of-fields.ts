import type { AnswerOf } from "../../traits/index.ts";
import { Failure, dateFromDays, daysFromDate, isDate } from "../../values/index.ts";
import { type Found, weeks, yearsOfWeeks } from "./format-reader.ts";

/** A date, as year, month and day. */
export interface Day {
  readonly year: number;
  readonly month: number;
  readonly day: number;
}

/** The first day of the first week of a year, by what counts as one, in days since 1970. */
function firstWeek(week: string, year: number): number {
  const first = daysFromDate(year, 1, 1);
  const { weekday } = dateFromDays(first);
  if (week.endsWith("of Sundays")) return first + ((7 - weekday) % 7);
  const fromMonday = (weekday + 6) % 7;
  return first - fromMonday + (fromMonday > 3 ? 7 : 0);
}

/** What has been read, as numbers. */
const numbersOf =
  (found: Found) =>
  (field: string): number | undefined => {
    const written = found.get(field);
    return written === undefined ? undefined : Number(written);
  };

/**
 * The day of a week day in a week; undefined where none is written, "none" where there is none. Two ways to count weeks want
 * the year that goes with them, the others an ordinary one.
 */
function dayOfWeek(found: Found, year: number): Day | "none" | undefined {
  const number = numbersOf(found);
  const week = [...found.keys()].findLast((field) => weeks.has(field));
  const weekday = number("weekday from Sunday");
  if (week === undefined || weekday === undefined) return undefined;
  const own = yearsOfWeeks[week];
  const ofWeek = own === undefined ? undefined : number(own);
  const hasOwn = found.has("year of full week") || found.has("iso year");
  const count = number(week)!;
  if (own === undefined ? hasOwn : ofWeek === undefined || count === 0) return "none";
  const offset = week.endsWith("of Sundays") ? weekday : (weekday + 6) % 7;
  const day = dateFromDays(firstWeek(week, ofWeek ?? year) + (count - 1) * 7 + offset);
  return day.year >= 1 && day.year <= 9999 ? day : "none";
}

const completed = (year: number): number => year + (year < 70 ? 2000 : 1900);

/** The year that is written last; two digits are one of this century or the last where they are completed. */
function yearBy(found: Found, yearDigits: AnswerOf<"yearDigits">): number | undefined {
  const field = lastOf(found, "year", "year of century");
  if (field === undefined) return undefined;
  const written = found.get(field)!;
  const isShort = field !== "year" || (yearDigits === "completed" && written.length <= 2);
  return isShort ? completed(Number(written)) : Number(written);
}

/** Which of some fields is written last. */
const lastOf = (found: Found, ...fields: readonly string[]): string | undefined =>
  [...found.keys()].findLast((field) => fields.includes(field));

/** The month that is written last, by its number or its name. */
const monthOf = (found: Found): number | undefined => {
  const field = lastOf(found, "month", "month name");
  return field === undefined ? undefined : Number(found.get(field));
};

/** The date of the fields, each that is not written being 0: a month and a day may be, and a day that its month has not. */
function looseDay(found: Found, yearDigits: AnswerOf<"yearDigits">): Day | undefined {
  const number = numbersOf(found);
  const year = yearBy(found, yearDigits) ?? 0;
  const ordinal = number("day of year");
  // The year 0 has 365 days, which are no dates.
  if (ordinal && year === 0 && ordinal < 366) return undefined;
  const ofWeek = dayOfWeek(found, year);
  if (ofWeek) return ofWeek === "none" ? undefined : ofWeek;
  const day = ordinal
    ? dateFromDays(year === 0 ? daysFromDate(1, 1, 1) + ordinal - 366 : daysFromDate(year, 1, ordinal))
    : { year, month: monthOf(found) ?? 0, day: number("day") ?? 0 };
  return day.year <= 9999 && day.month <= 12 && day.day <= 31 ? day : undefined;
}

/** The date of the fields, those that are not written being of 1900-01-01; numbers of months and days count for more than one of the year. */
function strictDay(found: Found, yearDigits: AnswerOf<"yearDigits">): Day | Failure | undefined {
  const number = numbersOf(found);
  if ([...found.keys()].some((field) => weeks.has(field) || field.startsWith("year of full") || field === "iso year"))
    return new Failure("not-covered", { what: "weeks when a date is read" });
  const year = yearBy(found, yearDigits) ?? 1900;
  const ordinal = number("day of year");
  if (ordinal !== undefined && !found.has("month") && !found.has("day")) return dateFromDays(daysFromDate(year, 1, ordinal));
  const [month, day] = [monthOf(found) ?? 1, number("day") ?? 1];
  return isDate(year, month, day) ? { year, month, day } : undefined;
}

/** The date that has been read, by what the parts are that are left out. */
export const dayBy: Readonly<
  Record<AnswerOf<"partsLeftOut">, (found: Found, yearDigits: AnswerOf<"yearDigits">) => Day | Failure | undefined>
> = { zero: looseDay, "1900-01-01": strictDay };
