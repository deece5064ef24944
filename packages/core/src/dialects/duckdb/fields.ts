/** The functions that give a field of a date, and those that number its day of the week. */
export const dateFields = {
  year: "year",
  quarter: "quarter",
  month: "month",
  day: "day",
  dayofmonth: "day",
  dayofyear: "day of year",
  days_in_month: "days in month",
  week: "iso week",
  weekofyear: "iso week",
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

export const weekdays = { dayofweek: "Sunday 0", weekday: "Sunday 0", isodow: "Monday 1" } as const;
