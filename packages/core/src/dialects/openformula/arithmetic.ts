import {
  Failure,
  type Value,
  bad,
  dateFromDays,
  daysFromDate,
  isoWeekOf,
  serialEpoch,
  serialOfText,
} from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { step } from "../step.ts";
import { dated } from "./steps.ts";

/** A number beyond the range is an error. */
export const finite = (result: Value): Value =>
  typeof result === "number" && !Number.isFinite(result) ? new Failure("number-out-of-range") : result;

/** Code that takes numbers only. */
export const onNumbers = (compute: (...numbers: number[]) => Value): Code => ({
  run: (args) => {
    const result = compute(...(args.map((arg) => arg ?? 0) as number[]));
    return finite(result);
  },
});

const romanLetters = { M: 1000, D: 500, C: 100, L: 50, X: 10, V: 5, I: 1 } as const;
type RomanLetter = keyof typeof romanLetters;

/** A smaller letter before a larger one is taken from it; forms from 0 (classic) to 4 allow more such pairs. */
const romanPairs = [
  ["IV", "IX", "XL", "XC", "CD", "CM"],
  ["VL", "VC", "LD", "LM"],
  ["IL", "IC", "XD", "XM"],
  ["VD", "VM"],
  ["ID", "IM"],
];

/** The value of Roman numerals: a letter before a larger one counts negative. NaN where there is another letter. */
function romanValue(letters: string): number {
  const values = [...letters].map((letter) => romanLetters[letter as RomanLetter] ?? NaN);
  return values.reduce((sum, value, i) => sum + (value < values[i + 1] ? -value : value), 0);
}

function roman(value: number, form: number): Value {
  let rest = Math.trunc(value);
  if (rest < 0 || rest > 3999) return bad("Roman numerals go from 0 to 3999");
  const last = Math.trunc(form);
  if (last < 0 || last > 4) return bad("the form of Roman numerals must be 0 to 4");
  const parts = [...Object.keys(romanLetters), ...romanPairs.slice(0, last + 1).flat()].map((part) => ({
    part,
    size: romanValue(part),
  }));
  let result = "";
  for (const { part, size } of parts.sort((a, b) => b.size - a.size)) for (; rest >= size; rest -= size) result += part;
  return result;
}

function arabic(text: string): Value {
  const value = romanValue(text.trim().toUpperCase());
  return Number.isNaN(value) ? bad(`"${text}" is not a Roman numeral`) : value;
}

const timePart = (part: (seconds: number) => number) =>
  onNumbers((value) => part(Math.round((value - Math.floor(value)) * 86400)));

const dateOf = (serial: number) => dateFromDays(Math.floor(serial) - serialEpoch);

/** The serial number of a day some months later: the same day of the month, or its last one; `day` may ask for another. */
function monthsLater(serial: number, months: number, day?: number): number {
  const { year, month, day: own } = dateOf(serial);
  const later = month + Math.trunc(months);
  const last = dateFromDays(daysFromDate(year, later + 1, 0)).day;
  return daysFromDate(year, later, Math.min(day ?? own, last)) + serialEpoch;
}

const isoWeek = (serial: number): number => isoWeekOf(Math.floor(serial) - serialEpoch).week;

/** The day with which a week begins (0 Sunday) for the kinds of WEEKNUM. */
const weekStarts: Readonly<Record<number, number>> = { 1: 0, 2: 1, 11: 1, 12: 2, 13: 3, 14: 4, 15: 5, 16: 6, 17: 0 };

function week(serial: number, kind: number): Value {
  if (kind === 21) return isoWeek(serial);
  const first = weekStarts[kind];
  if (first === undefined) return bad("the kind of week must be 1, 2, 11 to 17 or 21");
  const days = Math.floor(serial) - serialEpoch;
  const january = daysFromDate(dateFromDays(days).year, 1, 1);
  const before = (dateFromDays(january).weekday - first + 7) % 7;
  return Math.floor((days - january + before) / 7) + 1;
}

const ofSerial = { ...dated, slot: "date", slots: ["value"] };

const weekdaysByKind: Readonly<Record<string, AnswerOf<"weekdays"> | undefined>> = {
  "1": "Sunday 1",
  "2": "Monday 1",
  "3": "Monday 0",
};
const weeksByKind: Readonly<Record<string, AnswerOf<"weeks"> | undefined>> = {
  "1": "Sundays from 1",
  "2": "Mondays from 1",
  "21": "ISO 8601",
};

/** Functions of numbers and dates, by name. */
export const arithmetic: Readonly<Record<string, Code>> = {
  ROMAN: onNumbers(roman),
  ARABIC: { run: ([text]) => arabic((text as string) ?? "") },
  CEILING: onNumbers((value, multiple) => (multiple === 0 ? 0 : Math.ceil(value / multiple) * multiple)),
  FLOOR: onNumbers((value, multiple) => (multiple === 0 ? 0 : Math.floor(value / multiple) * multiple)),
  QUOTIENT: onNumbers((value, divisor) => (divisor === 0 ? new Failure("division-by-zero") : Math.trunc(value / divisor))),
  EVEN: onNumbers((value) => Math.sign(value) * Math.ceil(Math.abs(value) / 2) * 2),
  ODD: onNumbers((value) => (value < 0 ? -1 : 1) * (Math.ceil((Math.abs(value) - 1) / 2) * 2 + 1)),
  DATE: onNumbers((year, month, day) => daysFromDate(Math.trunc(year), Math.trunc(month), Math.trunc(day)) + serialEpoch),
  DATEVALUE: {
    run: ([text]) => floored(serialOfText((text as string) ?? ""), text),
    reads: {
      0: step(
        "moment-of",
        { missing: "blank", dateForms: "ISO 8601, or with a time", clockOfDate: "left out", notADate: "error" },
        { wanted: "date", from: "text" },
      ),
    },
  },
  TIMEVALUE: {
    run: ([text]) => {
      const serial = serialOfText((text as string) ?? "");
      return serial === undefined ? new Failure("not-a-date", { text }) : serial - Math.floor(serial);
    },
  },
  TIME: onNumbers((hours, minutes, seconds) => (Math.trunc(hours) * 3600 + Math.trunc(minutes) * 60 + seconds) / 86400),
  HOUR: timePart((seconds) => Math.floor(seconds / 3600) % 24),
  MINUTE: timePart((seconds) => Math.floor(seconds / 60) % 60),
  SECOND: timePart((seconds) => seconds % 60),
  WEEKDAY: {
    like: (constant) => {
      const weekdays = weekdaysByKind[String(constant(1) ?? 1)];
      return weekdays && { ...step("weekday", { missing: "blank", weekdays }), slots: [ofSerial] };
    },
    ...onNumbers((serial, kind) => {
      const { weekday } = dateOf(serial);
      if (kind === 1) return weekday + 1;
      return kind === 2 ? ((weekday + 6) % 7) + 1 : kind === 3 ? (weekday + 6) % 7 : bad("the kind of week must be 1, 2 or 3");
    }),
  },
  DAYS: onNumbers((end, start) => Math.floor(end) - Math.floor(start)),
  EDATE: onNumbers((serial, months) => monthsLater(serial, months)),
  EOMONTH: onNumbers((serial, months) => monthsLater(serial, months, 31)),
  WEEKNUM: {
    like: (constant) => {
      const weeks = weeksByKind[String(constant(1) ?? 1)];
      return weeks && { ...step("week-of-year", { missing: "blank", weeks }), slots: [ofSerial] };
    },
    ...onNumbers(week),
  },
  MROUND: onNumbers((value, multiple) =>
    multiple === 0
      ? 0
      : Math.sign(value) * Math.sign(multiple) < 0
        ? new Failure("number-out-of-range")
        : Math.round(value / multiple) * multiple,
  ),
};

function floored(serial: number | undefined, text: Value): Value {
  return serial === undefined ? new Failure("not-a-date", { text }) : Math.floor(serial);
}
