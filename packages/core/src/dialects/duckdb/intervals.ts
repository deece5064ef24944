import { Failure, type Value, clockAt, dateFromDays, daysFromDate, isoDate, lookup } from "../../values/index.ts";

/** A stretch of time as DuckDB keeps it: months and days are not always of one length. */
export interface Interval {
  readonly months: number;
  readonly days: number;
  /** Millionths of a second. */
  readonly micros: number;
}

const hour = 3_600_000_000;
const day = 24 * hour;

/** How much one of a unit is, in months, days or millionths of a second. */
const units: Readonly<Record<string, Partial<Interval>>> = {
  millennium: { months: 12_000 },
  century: { months: 1200 },
  decade: { months: 120 },
  year: { months: 12 },
  quarter: { months: 3 },
  month: { months: 1 },
  week: { days: 7 },
  day: { days: 1 },
  hour: { micros: hour },
  minute: { micros: hour / 60 },
  second: { micros: 1e6 },
  millisecond: { micros: 1e3 },
  microsecond: { micros: 1 },
};

const otherNames: Readonly<Record<string, string>> = {
  millennium: "millennia mil mils",
  century: "centuries cent c",
  decade: "decades dec decs",
  year: "years yr yrs y",
  quarter: "quarters",
  month: "months mon mons",
  week: "weeks w",
  day: "days d dayofmonth",
  hour: "hours hr hrs h",
  minute: "minutes min mins m",
  second: "seconds sec secs s",
  millisecond: "milliseconds ms msec msecs",
  microsecond: "microseconds us usec usecs",
};

const unitsByName: Readonly<Record<string, string>> = lookup(
  Object.fromEntries(
    Object.entries(otherNames).flatMap(([unit, names]) => [unit, ...names.split(" ")].map((name) => [name, unit])),
  ),
);

/** The name of a unit that may be written in several ways; undefined where there is none. */
export const unitNamed = (name: string): string | undefined => unitsByName[name.toLowerCase()];

const plus = (a: Interval, b: Interval, sign = 1): Interval => ({
  months: a.months + sign * b.months,
  days: a.days + sign * b.days,
  micros: a.micros + sign * b.micros,
});

/** So many of a unit; a part of a month is days of a thirtieth, a part of a day is time. */
export function intervalOf(count: number, unit: string): Interval {
  const { months = 0, days = 0, micros = 0 } = units[unit];
  const [allMonths, allDays] = [count * months, count * days];
  const partOfMonth = months > 0 && months < 12 ? allMonths - Math.trunc(allMonths) : 0;
  return {
    months: Math.trunc(allMonths),
    days: Math.trunc(allDays) + Math.trunc(partOfMonth * 30),
    micros: Math.round(count * micros + (allDays - Math.trunc(allDays)) * day),
  };
}

const limit = 2_147_483_647;
const checked = (interval: Interval): Interval | Failure =>
  Math.abs(interval.months) > limit || Math.abs(interval.days) > limit || Math.abs(interval.micros) > 2 ** 63
    ? new Failure("number-out-of-range")
    : interval;

/** Reads `1 year 2 days 03:04:05 ago`; a number alone at the end is seconds. */
export function readInterval(text: string): Interval | Failure {
  const broken = new Failure("invalid-value", { problem: `"${text}" is no stretch of time` });
  const body = text.replace(/^\s*@/, "").trim();
  const isAgo = /\sago$/i.test(body);
  let rest = isAgo ? body.slice(0, -3) : body;
  let sum: Interval = { months: 0, days: 0, micros: 0 };
  if (rest.trim() === "") return broken;
  while (rest.trim() !== "") {
    const clock = /^\s*(-?)(\d+):(\d{1,2})(?::(\d{1,2})(?:\.(\d{1,6})\d*)?)?(?=\s|$)/.exec(rest);
    const counted = clock ? null : /^\s*(-?\d*\.?\d+)\s*([a-z]*)/i.exec(rest);
    if (clock) {
      const [, sign, hours, minutes, seconds = "0", fraction = ""] = clock;
      if (Number(minutes) > 59 || Number(seconds) > 59) return broken;
      const micros = Number(hours) * hour + Number(minutes) * 60e6 + Number(seconds) * 1e6 + Number(fraction.padEnd(6, "0"));
      sum = plus(sum, { months: 0, days: 0, micros: sign ? -micros : micros });
    } else if (counted) {
      const [whole, count, name] = counted;
      const isLast = rest.slice(whole.length).trim() === "";
      const unit = name ? unitNamed(name) : isLast ? "second" : undefined;
      if (!unit) return broken;
      sum = plus(sum, intervalOf(Number(count), unit));
    } else return broken;
    rest = rest.slice((clock ?? counted)![0].length);
  }
  return checked(isAgo ? plus({ months: 0, days: 0, micros: 0 }, sum, -1) : sum);
}

/** A stretch of time as text, which is also how it is kept as a value. */
export function intervalText({ months, days, micros }: Interval): string {
  const counted = (count: number, unit: string) => (count === 0 ? [] : [`${count} ${unit}${Math.abs(count) === 1 ? "" : "s"}`]);
  const clock = Math.abs(micros);
  const hours = Math.floor(clock / hour);
  const time = `${micros < 0 ? "-" : ""}${String(hours).padStart(2, "0")}${clockAt(clock % hour).slice(2)}`;
  const parts = [...counted(Math.trunc(months / 12), "year"), ...counted(months % 12, "month"), ...counted(days, "day")];
  return [...parts, ...(micros !== 0 || parts.length === 0 ? [time] : [])].join(" ");
}

const textOrFailure = (interval: Interval | Failure): Value => (interval instanceof Failure ? interval : intervalText(interval));

/** An interval value, which was read before. */
const known = (value: Value): Interval => readInterval(value as string) as Interval;

export const readIntervalText = (text: string): Value => textOrFailure(readInterval(text));
export const intervalValue = (count: number, unit: string): Value => textOrFailure(checked(intervalOf(count, unit)));
export const addIntervals = (a: Value, b: Value, sign: 1 | -1): Value => textOrFailure(checked(plus(known(a), known(b), sign)));
export const timesInterval = (interval: Value, count: Value): Value => {
  const { months, days, micros } = known(interval);
  const times = Number(count);
  return textOrFailure(checked({ months: months * times, days: days * times, micros: micros * times }));
};

const microsOfClock = (clock: string): number => {
  const [hours, minutes, seconds] = clock.split(":").map(Number);
  return hours * hour + minutes * 60e6 + Math.round(seconds * 1e6);
};

/** The last year of a timestamp. */
const lastYear = 294_246;

/** A timestamp so much later or earlier: first the months, then the days, then the time. */
export function shifted(moment: string, interval: Value, sign: 1 | -1): Value {
  const { months, days, micros } = known(interval);
  const [date, clock] = moment.split(" ");
  const [year, month, dayOfMonth] = date.split("-").map(Number);
  const index = year * 12 + month - 1 + sign * months;
  const [y, m] = [Math.floor(index / 12), (((index % 12) + 12) % 12) + 1];
  if (Math.abs(y) > lastYear) return new Failure("number-out-of-range");
  const lastOfMonth = daysFromDate(y, m + 1, 1) - daysFromDate(y, m, 1);
  const start = daysFromDate(y, m, Math.min(dayOfMonth, lastOfMonth)) + sign * days;
  const time = microsOfClock(clock) + sign * micros;
  const rest = ((time % day) + day) % day;
  const result = dateFromDays(start + (time - rest) / day);
  return Math.abs(result.year) > lastYear
    ? new Failure("number-out-of-range")
    : `${isoDate(result.year, result.month, result.day)} ${clockAt(rest)}`;
}

/** A time of day so much later or earlier, on whatever day. */
export function shiftedTime(clock: string, interval: Value, sign: 1 | -1): Value {
  const time = microsOfClock(clock) + sign * known(interval).micros;
  return clockAt(((time % day) + day) % day);
}

/** The days and the time between two timestamps. */
export function between(later: string, earlier: string): Value {
  const micros = (moment: string) => {
    const [date, clock] = moment.split(" ");
    const [year, month, dayOfMonth] = date.split("-").map(Number);
    return [daysFromDate(year, month, dayOfMonth), microsOfClock(clock)];
  };
  const [a, b] = [micros(later), micros(earlier)];
  const total = (a[0] - b[0]) * day + a[1] - b[1];
  return intervalText({ months: 0, days: Math.trunc(total / day), micros: total % day });
}
