import { tokenTable, unitNames } from "../../text/index.ts";
import { step } from "../step.ts";

/** The functions that give a field of a date, and those that number its day of the week. */
export const dateFields = {
  year: "year",
  quarter: "quarter",
  month: "month",
  day: "day",
  dayofmonth: "day",
  dayofyear: "day of year",
  days_in_month: "days in month",
  isoyear: "iso year",
  yearweek: "iso year and week",
  decade: "decade",
  century: "century",
  millennium: "millennium",
  era: "era",
  hour: "hour",
  minute: "minute",
  second: "second",
  millisecond: "milliseconds",
  microsecond: "microseconds",
  nanosecond: "nanoseconds",
  dayname: "day name",
  monthname: "month name",
} as const;

/** Functions that number weeks, and how. */
export const weeks = { week: "ISO 8601", weekofyear: "ISO 8601" } as const;

export const weekdays = { dayofweek: "Sunday 0", weekday: "Sunday 0", isodow: "Monday 1" } as const;

/** Other names of units, and of what else date_part() gives (the engine's table of date parts). */
const otherNames = {
  year: "yr y years yrs",
  quarter: "quarters",
  month: "mon months mons",
  week: "weeks w weekofyear",
  day: "days d dayofmonth",
  hour: "hours hr h hrs",
  minute: "minutes mins min m",
  second: "seconds secs sec s",
  decade: "dec decades decs",
  century: "cent centuries c",
  millennium: "mil millenniums millennia mils millenium",
};
const ofSeconds = {
  millisecond: "milliseconds ms msec msecs mseconds",
  microsecond: "microseconds us usec usecs usecond useconds",
};
const tableOf = (names: Readonly<Record<string, string>>): string =>
  Object.entries(names)
    .map(([name, others]) => `${name} ${others}`)
    .join(", ");

const partNames = unitNames(tableOf({ ...otherNames, ...ofSeconds, dow: "dayofweek weekday", doy: "dayofyear" }));

/** The name of a part of a date, by any of its names. */
export const partNamed = (name: string): string => partNames.get(name.toLowerCase()) ?? name.toLowerCase();

/** date_trunc(); what is no unit stands for the one in which it counts. */
export const startOfUnit = step(
  "start-of-unit",
  { missing: "null", centuriesFrom: "the year 0" },
  {
    units: tableOf({
      ...otherNames,
      day: `${otherNames.day} dow dayofweek weekday isodow doy dayofyear julian`,
      week: `${otherNames.week} yearweek`,
      second: `${otherNames.second} epoch`,
      isoyear: "isoyear",
      milliseconds: `millisecond ${ofSeconds.millisecond}`,
      microseconds: `microsecond ${ofSeconds.microsecond}`,
    }),
    era: "in the year",
  },
);

/** What each token after % stands for in strftime() and strptime(). */
export const strftimeTokens = tokenTable({
  a: "day name short",
  A: "day name",
  w: "weekday from Sunday",
  u: "weekday from Monday",
  d: "day 2",
  "-d": "day",
  b: "month name short",
  h: "month name short",
  B: "month name",
  m: "month 2",
  "-m": "month",
  y: "year of century 2",
  "-y": "year of century",
  Y: "year",
  G: "iso year 4",
  V: "iso week 2",
  H: "hour 2",
  "-H": "hour",
  I: "hour of half 2",
  "-I": "hour of half",
  p: "half",
  M: "minute 2",
  "-M": "minute",
  S: "second 2",
  "-S": "second",
  f: "millionth 6",
  g: "thousandth 3",
  n: "billionth 9",
  z: '"+00"',
  Z: '""',
  j: "day of year 3",
  "-j": "day of year",
  U: "week of Sundays 2",
  W: "week of Mondays 2",
  c: "=%Y-%m-%d %H:%M:%S",
  x: "=%Y-%m-%d",
  X: "=%H:%M:%S",
});

export const strftime = step(
  "text-from-date",
  { missing: "null", formatLanguage: "percent", unknownToken: "error", emptyFormat: "error" },
  { tokens: strftimeTokens },
);

/** How strptime() reads. */
export const strptime = (notADate: "error" | "null") =>
  step(
    "date-from-text",
    {
      missing: "null",
      notADate,
      unknownToken: "error",
      emptyFormat: "error",
      formatSpaces: "as it stands",
      restOfText: "no date",
      partsLeftOut: "1900-01-01",
      yearDigits: "as written",
      nameBeginnings: "refused",
      halfOfDay: "counts",
      doubledSign: "one sign",
      formatGives: "a date and time",
    },
    { tokens: strftimeTokens },
  );

/** A format with tokens that there are. */
export const checkedFormat = step("check-format", { unknownToken: "error", emptyFormat: "error" }, { tokens: strftimeTokens });
