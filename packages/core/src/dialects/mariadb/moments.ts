import { marked } from "../../text/index.ts";
import { dateFromDays, daysFromDate, lookup, type Value } from "../../values/index.ts";

export const momentOf = (text: Value): marked.Moment => marked.readMoment(text as string)!;

export const dayOf = ({ year, month, day }: marked.Moment): number => daysFromDate(year, month, day);

/** Days from the year 0 to 1970-01-01, as to_days() counts. */
export const epochDays = 719_528;

const microOf = ({ hour, minute, second, micro }: marked.Moment): number => (hour * 3600 + minute * 60 + second) * 1e6 + micro;

/** The moment some microseconds after midnight of a day (days after 1970-01-01); undefined outside the years 1 to 9999. */
export function momentAt(days: number, micro: number): marked.Moment | undefined {
  if (!(Math.abs(days) < 1e9 && Math.abs(micro) < 9e18)) return undefined;
  const whole = days + Math.floor(micro / 86_400e6);
  const { year, month, day } = dateFromDays(whole);
  if (year < 1 || year > 9999) return undefined;
  const rest = micro - Math.floor(micro / 86_400e6) * 86_400e6;
  const seconds = Math.floor(rest / 1e6);
  return {
    year,
    month,
    day,
    hour: Math.floor(seconds / 3600),
    minute: Math.floor(seconds / 60) % 60,
    second: seconds % 60,
    micro: rest % 1e6,
  };
}

/** How many months, and how many microseconds, one of each unit is. */
const units: Readonly<Record<string, readonly [months: bigint, micro: bigint]>> = lookup({
  microsecond: [0n, 1n],
  second: [0n, 1_000_000n],
  minute: [0n, 60_000_000n],
  hour: [0n, 3_600_000_000n],
  day: [0n, 86_400_000_000n],
  week: [0n, 604_800_000_000n],
  month: [1n, 0n],
  quarter: [3n, 0n],
  year: [12n, 0n],
});

/** The units of a compound one, the largest first. */
const compounds: Readonly<Record<string, readonly string[]>> = lookup({
  second_microsecond: ["second", "microsecond"],
  minute_microsecond: ["minute", "second", "microsecond"],
  minute_second: ["minute", "second"],
  hour_microsecond: ["hour", "minute", "second", "microsecond"],
  hour_second: ["hour", "minute", "second"],
  hour_minute: ["hour", "minute"],
  day_microsecond: ["day", "hour", "minute", "second", "microsecond"],
  day_second: ["day", "hour", "minute", "second"],
  day_minute: ["day", "hour", "minute"],
  day_hour: ["day", "hour"],
  year_month: ["year", "month"],
});

export const isUnit = (unit: string): boolean => unit in units || unit in compounds;
/** Whether a unit is one of time, so that a date becomes a date with time. */
export const isTimeUnit = (unit: string): boolean => /micro|second|minute|hour/.test(unit);

/** What an amount of units is in months, whole days and microseconds of a day, each with the amount's sign. */
interface Change {
  readonly months: number;
  readonly days: number;
  readonly micro: number;
}

const changeOf = (months: bigint, micro: bigint): Change => ({
  months: Number(months),
  days: Number(micro / units.day[1]),
  micro: Number(micro % units.day[1]),
});

/** The whole number that a text begins with, in the engine's 64 bits: what is too long is all bits set, which is -1. */
function bitsOf(amount: string): bigint {
  const number = BigInt(/^[ \t\n\v\f\r]*(-?\d+)/.exec(amount)?.[1] ?? 0);
  const most = 2n ** 64n - 1n;
  return number < -(2n ** 63n) ? -(2n ** 63n) : BigInt.asIntN(64, number > most ? most : number);
}

/** A number of seconds with its fraction, in microseconds. */
function microOfSeconds(amount: string): bigint | undefined {
  const seconds = Number(/^[ \t\n\v\f\r]*-?\d*(?:\.\d*)?(?:[eE][+-]?\d+)?/.exec(amount)?.[0] || 0);
  return Number.isFinite(seconds) ? BigInt(Math.trunc(seconds * 1e6)) : undefined;
}

/** What an amount of a unit is; a compound amount is read from its runs of digits. */
export function amountOf(amount: string, unit: string): Change | undefined {
  const names = compounds[unit];
  if (!names) {
    if (!(unit in units)) return undefined;
    const [months, micro] = units[unit];
    if (unit === "second") {
      const read = microOfSeconds(amount);
      return read === undefined ? undefined : changeOf(0n, read);
    }
    // The engine keeps a year in 32 bits and adds to it without looking.
    const count = unit === "year" ? BigInt.asIntN(32, bitsOf(amount)) : bitsOf(amount);
    return changeOf(count * months, count * micro);
  }
  const digits = amount.match(/\d+/g) ?? [];
  if (digits.length > names.length) return undefined;
  // The last of several is a fraction of a second where the unit has one.
  const isFraction = names.at(-1) === "microsecond" && digits.length > 1;
  const runs = digits.map((run, i) => BigInt(isFraction && i === digits.length - 1 ? run.slice(0, 6).padEnd(6, "0") : run));
  const used = [...Array<bigint>(names.length - runs.length).fill(0n), ...runs];
  const sum = (part: 0 | 1) => names.reduce((total, name, i) => total + units[name][part] * used[i], 0n);
  const sign = /^[ \t\n\v\f\r]*-/.test(amount) ? -1n : 1n;
  return changeOf(sign * sum(0), sign * sum(1));
}

/** The last day of a month; the year 0 is no leap year here. */
export const lastDayOf = (year: number, month: number): number =>
  year === 0 && month === 2 ? 28 : daysFromDate(year, month + 1, 1) - daysFromDate(year, month, 1);

/** The moment an amount of a unit later (`direction` 1) or earlier; undefined where there is none. */
export function shifted(from: marked.Moment, amount: string, unit: string, direction: 1 | -1): marked.Moment | undefined {
  const change = amountOf(amount, unit);
  if (!change) return undefined;
  const total = from.year * 12 + from.month - 1 + direction * change.months;
  const [year, month] = [Math.floor(total / 12), (total % 12) + 1];
  if (total < 0 || year > 9999) return undefined;
  const day = Math.min(from.day, lastDayOf(year, month));
  if (change.days === 0 && change.micro === 0) return { ...from, year, month, day };
  return momentAt(daysFromDate(year, month, day) + direction * change.days, microOf(from) + direction * change.micro);
}

/** How weeks are counted: whether they start on Monday, whether there is a week 0, and what the first week of a year is. */
interface WeekRule {
  readonly mondayFirst: boolean;
  /** The days before the first week belong to the last week of the year before; otherwise to week 0. */
  readonly weekYear: boolean;
  /** The first week is the one with the first such day, not the one with four days of the year. */
  readonly firstWeekday: boolean;
}

/** The rule of a mode of week() (documentation, "WEEK"). */
export const weekRule = (mode: number): WeekRule => ({
  mondayFirst: (mode & 1) === 1,
  weekYear: (mode & 2) === 2,
  firstWeekday: ((mode & 4) === 4) === ((mode & 1) === 1),
});

/** Week of the year, and the year that it belongs to. */
export function weekOf(date: marked.Moment, rule: WeekRule): { year: number; week: number } {
  const firstOf = (y: number) => daysFromDate(y, 1, 1);
  const lengthOf = (y: number) => firstOf(y + 1) - firstOf(y);
  const startsLate = (day: number) => (rule.firstWeekday ? day !== 0 : day >= 4);
  let { year } = date;
  let { weekYear } = rule;
  let start = firstOf(year);
  let weekday = (dateFromDays(start).weekday + (rule.mondayFirst ? 6 : 0)) % 7;
  if (date.month === 1 && date.day <= 7 - weekday) {
    if (!weekYear && startsLate(weekday)) return { year, week: 0 };
    weekYear = true;
    year--;
    start -= lengthOf(year);
    weekday = (weekday + 53 * 7 - lengthOf(year)) % 7;
  }
  const days = startsLate(weekday) ? dayOf(date) - (start + 7 - weekday) : dayOf(date) - (start - weekday);
  if (weekYear && days >= 52 * 7 && !startsLate((weekday + lengthOf(year)) % 7)) return { year: year + 1, week: 1 };
  return { year, week: Math.floor(days / 7) + 1 };
}
