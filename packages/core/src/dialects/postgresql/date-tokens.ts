import { tokenTable } from "../../text/index.ts";
import { step } from "../step.ts";

/** What each word stands for in formats of dates (9.8.1, table 9.27); AD stands for what any year here is. */
const tokens = {
  "Y,YYY": "year with comma",
  YYYY: "year 4",
  YYY: "year of millennium 3",
  YY: "year of century 2",
  Y: "year of decade",
  IYYY: "iso year 4",
  IYY: "iso year of millennium 3",
  IY: "iso year of century 2",
  I: "iso year of decade",
  MONTH: "month name 9",
  MON: "month name short",
  MM: "month 2",
  RM: "roman month 4",
  DAY: "day name 9",
  DY: "day name short",
  DDD: "day of year 3",
  DD: "day 2",
  D: "weekday counted from Sunday",
  IDDD: "iso day of year 3",
  ID: "weekday from Monday",
  WW: "week of year 2",
  IW: "iso week 2",
  W: "week of month",
  Q: "quarter",
  CC: "century 2",
  J: "julian day",
  HH24: "hour 2",
  HH12: "hour of half 2",
  HH: "hour of half 2",
  MI: "minute 2",
  SS: "second 2",
  SSSSS: "second of day",
  SSSS: "second of day",
  MS: "digits to thousandths",
  US: "digits to millionths",
  FF1: "digits to tenths",
  FF2: "digits to hundredths",
  FF3: "digits to thousandths",
  FF4: "digits to ten-thousandths",
  FF5: "digits to hundred-thousandths",
  FF6: "digits to millionths",
  AM: "half",
  PM: "half",
  "A.M.": "half with points",
  "P.M.": "half with points",
  AD: '"AD"',
  BC: '"AD"',
  "A.D.": '"A.D."',
  "B.C.": '"A.D."',
  TZH: '"+00"',
  TZM: '"00"',
  OF: '"+00"',
  FX: '""',
} as const;

/** How to_date() and to_timestamp() read. */
export const readByWords = (wanted: "date" | "timestamp in UTC") =>
  step("date-by-words", { missing: "null" }, { tokens: tokenTable({ ...tokens, TZ: '"UTC"' }), wanted });

/** to_char of a date and time, in a time zone of this name. */
export const toChar = (zone: "" | "UTC") =>
  step(
    "text-from-date",
    { missing: "null", formatLanguage: "words", unknownToken: "itself", emptyFormat: "null" },
    { tokens: tokenTable({ ...tokens, TZ: `"${zone}"` }) },
  );

/** The units of dates with their other names (the server's table of units). */
export const unitTable =
  "microseconds microsecond us usec usecs useconds microsecon, milliseconds millisecond ms msec msecs mseconds millisecon, " +
  "second s sec secs seconds, minute m min mins minutes, hour h hr hrs hours, day d days, week w weeks, month mon mons months, " +
  "quarter qtr, year y yr yrs years, decade dec decs decades, century c cent centuries, millennium mil mils millennia";

export const startOfUnit = step(
  "start-of-unit",
  { missing: "null", centuriesFrom: "the year 1" },
  { units: unitTable, era: "at the end" },
);
