import { tokenTable } from "../../text/index.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { halvesAndEras } from "../shared/calendar.ts";
import { steppedRows } from "../shared/rows.ts";
import { step } from "../step.ts";
import type { FunctionRow } from "../row.ts";
import { doc } from "./evidence.ts";

const missing = "null" as const;

/** What each word stands for in formats of dates (9.8.1, table 9.27). */
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
  ...halvesAndEras,
  TZH: '"+00"',
  TZM: '"00"',
  OF: '"+00"',
  FX: '""',
} as const;

/** How to_date() and to_timestamp() read. */
const readByWords = (wanted: "date" | "timestamp in UTC") =>
  step("date-by-words", { missing }, { tokens: tokenTable({ ...tokens, TZ: '"UTC"' }), wanted });

/** to_char of a date and time, in a time zone of this name. */
const toChar = (zone: "" | "UTC") =>
  step(
    "text-from-date",
    { missing, formatLanguage: "words", unknownToken: "itself", emptyFormat: "null" },
    { tokens: tokenTable({ ...tokens, TZ: `"${zone}"` }) },
  );

/** The units of dates with their other names (the server's table of units). */
export const unitTable =
  "microseconds microsecond us usec usecs useconds microsecon, milliseconds millisecond ms msec msecs mseconds millisecon, " +
  "second s sec secs seconds, minute m min mins minutes, hour h hr hrs hours, day d days, week w weeks, month mon mons months, " +
  "quarter qtr, year y yr yrs years, decade dec decs decades, century c cent centuries, millennium mil mils millennia";

const startOfUnit = step("start-of-unit", { missing, centuriesFrom: "the year 1" }, { units: unitTable, era: "at the end" });

/** How a whole number is written by a format with a power of ten: one of 32 bits as a double, larger ones as a decimal. */
const numberBy = (powerHalves: AnswerOf<"powerHalves">) =>
  step("format-number", { missing, numberFormats: "nines", powerHalves });

/** Numbers and dates by formats; later versions than 15 read the names of time zones, which are not covered. */
// prettier-ignore
export const formatRows = (version: string): FunctionRow[] => {
  const format = `format ${version === "15" ? "text" : "zoneless"}`;
  return steppedRows(
    [
      ["to_char(number integer, format text): text", "convert", "A number in a format.", "9.8", numberBy("to even")],
      ["to_char(number T, format text): text for bigint, decimal, double", "convert",
        "A number in a format.", "9.8", numberBy("away from zero")],
      ["to_number(text text, format text): decimal", "convert",
        "A number read by a format.", "9.8", step("number-by-format", { missing })],
      ["to_char(date timestamp, format text): text", "convert", "A date in a format.", "9.8", toChar("")],
      ["to_char(date timestamptz, format text): text", "convert", "A date in a format.", "9.8", toChar("UTC")],
      [`to_date(text text, ${format}): date`, "convert", "A date read by a format.", "9.8", readByWords("date")],
      [`to_timestamp(text text, ${format}): timestamptz`, "convert",
        "A moment read by a format.", "9.8", readByWords("timestamp in UTC")],
      ["date_trunc(field text > unit, date T): T for timestamp, timestamptz", "convert",
        "A moment without what is smaller than a field.", "9.9", startOfUnit],
    ],
    doc,
  );
};
