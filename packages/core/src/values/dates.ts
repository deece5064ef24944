/** Calendar arithmetic on the proleptic Gregorian calendar, without time zones. */

/** Days in 400 years, after which the calendar begins anew, and from a 1 March of such a year, 0000, to 1970-01-01. */
const [daysOfEra, toEpoch] = [146_097, 719_468];

/** Days from 1970-01-01 to a date of any year; `month` and `day` are 1-based and may overflow into the next unit. */
export function daysFromDate(year: number, month: number, day: number): number {
  // Years are counted from March, so that a leap day is a year's last.
  const months = year * 12 + month - 3;
  const [marchYear, fromMarch] = [Math.floor(months / 12), ((months % 12) + 12) % 12];
  const leapDays = Math.floor(marchYear / 4) - Math.floor(marchYear / 100) + Math.floor(marchYear / 400);
  return marchYear * 365 + leapDays + Math.floor((153 * fromMarch + 2) / 5) + day - 1 - toEpoch;
}

/** The date of any year that lies `days` after 1970-01-01; `weekday` is 0 for Sunday. */
export function dateFromDays(days: number): { year: number; month: number; day: number; weekday: number } {
  const since = days + toEpoch;
  const era = Math.floor(since / daysOfEra);
  const ofEra = since - era * daysOfEra;
  const yearOfEra = Math.floor(
    (ofEra - Math.floor(ofEra / 1460) + Math.floor(ofEra / 36_524) - Math.floor(ofEra / 146_096)) / 365,
  );
  const ofYear = ofEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const fromMarch = Math.floor((5 * ofYear + 2) / 153);
  const month = fromMarch < 10 ? fromMarch + 3 : fromMarch - 9;
  return {
    year: era * 400 + yearOfEra + (month <= 2 ? 1 : 0),
    month,
    day: ofYear - Math.floor((153 * fromMarch + 2) / 5) + 1,
    weekday: (((days + 4) % 7) + 7) % 7,
  };
}

/** A number of a date or time in two digits at least. */
export const two = (value: number | string): string => String(value).padStart(2, "0");

/** A date as ISO text, the year in four digits at least. */
export const isoDate = (year: number, month: number, day: number): string =>
  [String(year).padStart(4, "0"), two(month), two(day)].join("-");

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

/** A time of day as text, `HH:MM:SS` with the fraction that there is; given as millionths of a second since midnight. */
export function clockAt(micros: number): string {
  const clock = [micros / 3600e6, (micros / 60e6) % 60, (micros / 1e6) % 60].map((part) =>
    String(Math.floor(part)).padStart(2, "0"),
  );
  const fraction = String(micros % 1e6)
    .padStart(6, "0")
    .replace(/0+$/, "");
  return clock.join(":") + (fraction && `.${fraction}`);
}

/** Days from the serial date 0 (1899-12-30) to 1970-01-01. */
export const serialEpoch = -daysFromDate(1899, 12, 30);

/** An ISO date, time or both as a serial number of days since 1899-12-30. */
export function serialOfText(text: string): number | undefined {
  const match = /^(?:(\d{4})-(\d{2})-(\d{2}))?(?:(?:^|[T ])(\d{1,2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?)?$/.exec(text);
  if (!match || text === "") return undefined;
  const [, year, month, day, hours = "0", minutes = "0", seconds = "0"] = match;
  if (Number(minutes) > 59 || Number(seconds) >= 60) return undefined;
  const time = (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds)) / 86400;
  if (!year) return time;
  if (!isDate(Number(year), Number(month), Number(day))) return undefined;
  return daysFromDate(Number(year), Number(month), Number(day)) + serialEpoch + time;
}
