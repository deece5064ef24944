import { Failure, type Value, asciiTrimmed, clockAt, dateFromDays, daysFromDate, isoDate, lookup } from "../../values/index.ts";

/** A stretch of time as DuckDB keeps it: months and days are not always of one length. */
export interface Interval {
  readonly months: number;
  readonly days: number;
  /** Millionths of a second. */
  readonly micros: bigint;
}

const hour = 3_600_000_000n;
const day = 24n * hour;

/** How much one of a unit is, in months, days or millionths of a second. */
const units: Readonly<Record<string, { months?: number; days?: number; micros?: number }>> = {
  millennium: { months: 12_000 },
  century: { months: 1200 },
  decade: { months: 120 },
  year: { months: 12 },
  quarter: { months: 3 },
  month: { months: 1 },
  week: { days: 7 },
  day: { days: 1 },
  hour: { micros: 3600e6 },
  minute: { micros: 60e6 },
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

/** The functions that give so many of a unit, and the type of the number that each takes. */
export const unitFunctions: Readonly<Record<string, "integer" | "bigint" | "double">> = {
  to_millennia: "integer",
  to_centuries: "integer",
  to_decades: "integer",
  to_years: "integer",
  to_quarters: "integer",
  to_months: "integer",
  to_weeks: "integer",
  to_days: "integer",
  to_hours: "bigint",
  to_minutes: "bigint",
  to_seconds: "double",
  to_milliseconds: "double",
  to_microseconds: "bigint",
};

/** The name of a unit that may be written in several ways; undefined where there is none. */
export const unitNamed = (name: string): string | undefined => unitsByName[name.toLowerCase()];

const none: Interval = { months: 0, days: 0, micros: 0n };

const plus = (a: Interval, b: Interval, sign: 1 | -1 = 1): Interval => ({
  months: a.months + sign * b.months,
  days: a.days + sign * b.days,
  micros: a.micros + BigInt(sign) * b.micros,
});

/** So many of a unit; a part of a month is days of a thirtieth, a part of a day is time. */
export function intervalOf(given: number | bigint, unit: string): Interval {
  const { months = 0, days = 0, micros = 0 } = units[unit];
  if (typeof given === "bigint" && micros > 0) return { ...none, micros: given * BigInt(micros) };
  const count = Number(given);
  const [allMonths, allDays] = [count * months, count * days];
  const partOfMonth = months > 0 && months < 12 ? allMonths - Math.trunc(allMonths) : 0;
  return {
    months: Math.trunc(allMonths),
    days: Math.trunc(allDays) + Math.trunc(partOfMonth * 30),
    micros: BigInt(Math.round(count * micros + (allDays - Math.trunc(allDays)) * Number(day))),
  };
}

const limit = 2_147_483_647;
const checked = (interval: Interval): Interval | Failure =>
  Math.abs(interval.months) > limit || Math.abs(interval.days) > limit || BigInt.asIntN(64, interval.micros) !== interval.micros
    ? new Failure("number-out-of-range")
    : interval;

/** Reads `1 year 2 days 03:04:05 ago`; a number alone at the end is seconds. */
export function readInterval(text: string): Interval | Failure {
  const broken = new Failure("invalid-value", { problem: `"${text}" is no stretch of time` });
  const body = asciiTrimmed(text.replace(/^[ \t\n\v\f\r]*@/, ""));
  const isAgo = /[ \t\n\v\f\r]ago$/i.test(body);
  let rest = isAgo ? body.slice(0, -3) : body;
  let sum = none;
  if (asciiTrimmed(rest) === "") return broken;
  while (asciiTrimmed(rest) !== "") {
    const clock = /^[ \t\n\v\f\r]*(-?)(\d+):(\d{1,2})(?::(\d{1,2})(?:\.(\d{1,6})\d*)?)?(?=[ \t\n\v\f\r]|$)/.exec(rest);
    const counted = clock ? null : /^[ \t\n\v\f\r]*(-?\d*\.?\d+)[ \t\n\v\f\r]*([a-z]*)/i.exec(rest);
    if (clock) {
      const [, sign, hours, minutes, seconds = "0", fraction = ""] = clock;
      if (Number(minutes) > 59 || Number(seconds) > 59) return broken;
      const micros =
        BigInt(hours) * hour + BigInt(Number(minutes) * 60e6 + Number(seconds) * 1e6 + Number(fraction.padEnd(6, "0")));
      sum = plus(sum, { ...none, micros }, sign ? -1 : 1);
    } else if (counted) {
      const [whole, count, name] = counted;
      const isLast = asciiTrimmed(rest.slice(whole.length)) === "";
      const unit = name ? unitNamed(name) : isLast ? "second" : undefined;
      if (!unit) return broken;
      sum = plus(sum, intervalOf(Number(count), unit));
    } else return broken;
    rest = rest.slice((clock ?? counted)![0].length);
  }
  return checked(isAgo ? plus(none, sum, -1) : sum);
}

/** A stretch of time as text, which is also how it is kept as a value. */
export function intervalText({ months, days, micros }: Interval): string {
  const counted = (count: number, unit: string) => (count === 0 ? [] : [`${count} ${unit}${Math.abs(count) === 1 ? "" : "s"}`]);
  const clock = micros < 0n ? -micros : micros;
  const time = `${micros < 0n ? "-" : ""}${String(clock / hour).padStart(2, "0")}${clockAt(Number(clock % hour)).slice(2)}`;
  const parts = [...counted(Math.trunc(months / 12), "year"), ...counted(months % 12, "month"), ...counted(days, "day")];
  return [...parts, ...(micros !== 0n || parts.length === 0 ? [time] : [])].join(" ");
}

const textOrFailure = (interval: Interval | Failure): Value => (interval instanceof Failure ? interval : intervalText(interval));

/** An interval value, which was read before. */
const known = (value: Value): Interval => readInterval(value as string) as Interval;

export const readIntervalText = (text: string): Value => textOrFailure(readInterval(text));
export const intervalValue = (count: number | bigint, unit: string): Value => textOrFailure(checked(intervalOf(count, unit)));
export const addIntervals = (a: Value, b: Value, sign: 1 | -1): Value => textOrFailure(checked(plus(known(a), known(b), sign)));
export const timesInterval = (interval: Value, count: Value): Value => {
  const { months, days, micros } = known(interval);
  const times = Number(count);
  return textOrFailure(
    checked({ months: months * times, days: days * times, micros: micros * BigInt(count as number | bigint) }),
  );
};

const microsOfClock = (clock: string): bigint => {
  const [hours, minutes, seconds] = clock.split(":").map(Number);
  return BigInt(hours * 3600e6 + minutes * 60e6 + Math.round(seconds * 1e6));
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
  const time = microsOfClock(clock) + BigInt(sign) * micros;
  const rest = ((time % day) + day) % day;
  const result = dateFromDays(start + Number((time - rest) / day));
  if (Math.abs(result.year) > lastYear) return new Failure("number-out-of-range");
  return result.year < 0
    ? new Failure("not-covered", { what: "dates before the year 0" })
    : `${isoDate(result.year, result.month, result.day)} ${clockAt(Number(rest))}`;
}

/** A time of day so much later or earlier, on whatever day. */
export function shiftedTime(clock: string, interval: Value, sign: 1 | -1): Value {
  const time = microsOfClock(clock) + BigInt(sign) * known(interval).micros;
  return clockAt(Number(((time % day) + day) % day));
}

/** The days and the time between two timestamps. */
export function between(later: string, earlier: string): Value {
  const micros = (moment: string) => {
    const [date, clock] = moment.split(" ");
    const [year, month, dayOfMonth] = date.split("-").map(Number);
    return BigInt(daysFromDate(year, month, dayOfMonth)) * day + microsOfClock(clock);
  };
  const total = micros(later) - micros(earlier);
  return intervalText({ months: 0, days: Number(total / day), micros: total % day });
}
