/** Calendar arithmetic on the proleptic Gregorian calendar, without time zones. */

/** Days from 1970-01-01 to a date; `month` and `day` are 1-based and may overflow into the next unit. */
export function daysFromDate(year: number, month: number, day: number): number {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return Math.round(date.getTime() / 86_400_000);
}

/** The date that lies `days` after 1970-01-01; `weekday` is 0 for Sunday. */
export function dateFromDays(days: number): { year: number; month: number; day: number; weekday: number } {
  const date = new Date(days * 86_400_000);
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate(), weekday: date.getUTCDay() };
}

/** A date as ISO text, the year in four digits at least. */
export const isoDate = (year: number, month: number, day: number): string =>
  [String(year).padStart(4, "0"), String(month).padStart(2, "0"), String(day).padStart(2, "0")].join("-");

/** The ISO 8601 week of a day: the week of a year's first Thursday is its first, and it begins on Monday. */
export function isoWeekOf(days: number): { year: number; week: number } {
  const { year, month, day } = dateFromDays(days - ((dateFromDays(days).weekday + 6) % 7) + 3);
  return { year, week: Math.floor((daysFromDate(year, month, day) - daysFromDate(year, 1, 1)) / 7) + 1 };
}

/** Whether there is such a date. */
export function isDate(year: number, month: number, day: number): boolean {
  const found = dateFromDays(daysFromDate(year, month, day));
  return found.year === year && found.month === month && found.day === day;
}

/** The English names of the months, January first. */
export const monthNames: readonly string[] = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];

/** The English names of the days, Sunday first, as in `weekday`. */
export const dayNames: readonly string[] = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
