import {
  type CalendarParts,
  Failure,
  Interval,
  type IntervalForm,
  Moment,
  type Stretch,
  type Value,
  bad,
  calendarParts,
  clockAt,
  dateFromDays,
  daysFromDate,
  integer,
  intervalForms,
  isoDate,
  lookup,
  microsOf,
  partsOf,
} from "../../values/index.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { notADate } from "../calendar.ts";
import { any, moment, operation, settled, text } from "../operation.ts";
import { unitNamed, units } from "./interval-text.ts";

/** The last year of which systems have all moments. */
const lastYear = 294_246;

/** A day, and millionths of a second of it. */
interface Place {
  /** Days from 1970-01-01. */
  readonly days: number;
  readonly micros: bigint;
}

const placeOf = ({ days, hour, minute, second, micro }: CalendarParts): Place => ({
  days,
  micros: BigInt(hour * 3600 + minute * 60 + second) * microsOf.second + BigInt(micro),
});

/** The same day of another month; of a shorter one its last, or those of the next one that are beyond it. */
function inMonth(days: number, months: number, dayBeyond: AnswerOf<"dayBeyond">): number {
  const { year, month, day } = dateFromDays(days);
  const moved = month + months;
  const length = daysFromDate(year, moved + 1, 1) - daysFromDate(year, moved, 1);
  return daysFromDate(year, moved, dayBeyond === "the last day" ? Math.min(day, length) : day);
}

/** A place so much later or earlier: first the months, then the days, then the time. */
function moved({ days, micros }: Place, by: Stretch, sign: 1 | -1, dayBeyond: AnswerOf<"dayBeyond">): Place {
  const start = (by.months === 0 ? days : inMonth(days, sign * by.months, dayBeyond)) + sign * by.days;
  const time = micros + BigInt(sign) * by.micros;
  const rest = ((time % microsOf.day) + microsOf.day) % microsOf.day;
  return { days: start + Number((time - rest) / microsOf.day), micros: rest };
}

/** What stands behind a moment as text: its zone. */
const zone = /(?:(?<=\d)\+00|Z|(?<=\d)[+-]\d\d:\d\d)$/;

const clockOnly = /^(\d\d):(\d\d):(\d\d)(?:\.(\d{1,6}))?$/;

/** A time of day so much later or earlier, on whatever day. */
function movedTime([, hour, minute, second, fraction = ""]: readonly string[], by: Stretch, sign: 1 | -1): string {
  const whole = BigInt(Number(hour) * 3600 + Number(minute) * 60 + Number(second));
  const place = { days: 0, micros: whole * microsOf.second + BigInt(fraction.padEnd(6, "0")) };
  return clockAt(Number(moved(place, { ...by, months: 0 }, sign, "the last day").micros));
}

/** Moves a date, a date and time, or a time of day, by a stretch of time. */
export const addToDate = operation({
  id: "add-to-date",
  family: "convert",
  summary: "gives the moment a stretch of time later or earlier",
  slots: [moment("date"), any("interval"), settled("direction", ["later", "earlier"])],
  traits: ["missing", "dayBeyond", "timeAdded", "clockDigits", "noSuchDate"],
  prepare({ dayBeyond, timeAdded, clockDigits, noSuchDate }, { direction }) {
    const sign = direction === "earlier" ? -1 : 1;
    const timed = {
      "a date and time": () => true,
      "a date, with hours a time": ({ micros }: Stretch) => micros !== 0n,
      "a date": () => false,
    }[timeAdded];
    const fitted = (clock: string) =>
      clockDigits === "six" ? `${clock}${clock.includes(".") ? "" : "."}`.padEnd(15, "0") : clock;
    const none = (): Value => (noSuchDate === "null" ? null : new Failure("number-out-of-range"));

    return (date: string | Moment, interval: Value): Value => {
      if (!(interval instanceof Interval))
        return new Failure("wrong-kind", { expected: "a stretch of time", given: "another kind of value" });
      const { stretch } = interval;
      const written = date instanceof Moment ? date.text : date;
      if (/\.\d{7}/.test(written)) return new Failure("not-covered", { what: "parts of a millionth of a second" });
      const [mark = ""] = zone.exec(written) ?? [];
      const like = (text: string) => (date instanceof Moment ? new Moment(date.type, text + mark) : text + mark);
      const time = clockOnly.exec(written.slice(0, written.length - mark.length));
      if (time) return like(fitted(movedTime(time, stretch, sign)));
      const parts = calendarParts(date);
      if (!parts) return notADate(date);
      if (Math.abs(stretch.months) > lastYear * 12) return none();
      const { days, micros } = moved(placeOf(parts), stretch, sign, dayBeyond);
      const { year, month, day } = dateFromDays(days);
      if (Math.abs(year) > lastYear) return none();
      if (year < 1) return new Failure("not-covered", { what: "dates before the year 1" });
      const between = /\d([T ])\d/.exec(written)?.[1] ?? (timed(stretch) ? " " : undefined);
      return like(isoDate(year, month, day) + (between === undefined ? "" : between + fitted(clockAt(Number(micros)))));
    };
  },
});

/** Whole months from one moment to a later one, by the first one's day of the month. */
function wholeMonths(from: Place, to: Place): number {
  const [a, b] = [dateFromDays(from.days), dateFromDays(to.days)];
  const months = (b.year - a.year) * 12 + b.month - a.month;
  const isShort = b.day < a.day || (b.day === a.day && to.micros < from.micros);
  return isShort ? months - 1 : months;
}

/** Years, months and days between two moments; days are those of the month before the later one's. */
function byCalendar(later: Place, earlier: Place): Stretch {
  const months = wholeMonths(earlier, later);
  const [a, b] = [dateFromDays(earlier.days), dateFromDays(later.days)];
  const borrowed = later.micros < earlier.micros ? 1 : 0;
  const micros = later.micros - earlier.micros + BigInt(borrowed) * microsOf.day;
  const days = b.day - a.day - borrowed;
  // Days that are short are borrowed from the month of the earlier one.
  const length = daysFromDate(a.year, a.month + 1, 1) - daysFromDate(a.year, a.month, 1);
  return { months, days: days < 0 ? days + length : days, micros };
}

const isBefore = (a: Place, b: Place): boolean => a.days < b.days || (a.days === b.days && a.micros < b.micros);
const opposite = ({ months, days, micros }: Stretch): Stretch => ({ months: -months + 0, days: -days + 0, micros: -micros });

/** Where a moment lies on one line of time; without a zone it is in UTC. */
function placeOn(value: string | Moment): Place | undefined {
  const parts = calendarParts(value);
  const { zone: minutes = 0 } = value instanceof Moment && parts ? partsOf(value) : {};
  return parts && moved(placeOf(parts), { months: 0, days: 0, micros: BigInt(minutes) * microsOf.minute }, -1, "the last day");
}

/** How much time lies between two moments. */
export const intervalBetween = operation({
  id: "interval-between",
  family: "convert",
  summary: "gives the stretch of time between two moments",
  slots: [
    moment("later"),
    moment("earlier"),
    settled("parts", ["days and time", "years, months and days"]),
    settled("type", ["interval", "dayTimeDuration"]),
    settled("form", intervalForms),
  ],
  traits: ["missing"],
  prepare(_answers, { parts, type, form }) {
    return (later: string | Moment, earlier: string | Moment): Value => {
      const [x, y] = [placeOn(later), placeOn(earlier)];
      if (!x || !y) return notADate(x ? earlier : later);
      const made = (stretch: Stretch) => new Interval(form as IntervalForm, stretch, type as string);
      if (parts !== "days and time") return made(isBefore(x, y) ? opposite(byCalendar(y, x)) : byCalendar(x, y));
      const micros = BigInt(x.days - y.days) * microsOf.day + x.micros - y.micros;
      return made({ months: 0, days: Number(micros / microsOf.day), micros: micros % microsOf.day });
    };
  },
});

/** The number of the unit of a calendar in which a place lies, by how many months it has. */
const borderOf = (months: number, { days }: Place): number => {
  const { year, month } = dateFromDays(days);
  return Math.floor((year * 12 + month - 1) / months);
};

const lineOf = ({ days, micros }: Place): bigint => BigInt(days) * microsOf.day + micros;
const floored = (value: bigint, size: bigint): bigint => (value - (((value % size) + size) % size)) / size;

/** Whether a place is on the last day of a month, and another one on a later day of a longer one. */
function isLastOf(place: Place, from: Place): boolean {
  const [a, b] = [dateFromDays(from.days), dateFromDays(place.days)];
  return dateFromDays(place.days + 1).day === 1 && a.day > b.day && place.micros >= from.micros;
}

/** Fields of a date whose changes are counted like those of a unit. */
const likeUnits: Readonly<Record<string, string>> = lookup({
  yearweek: "week",
  weekofyear: "week",
  dayofweek: "day",
  weekday: "day",
  dow: "day",
  isodow: "day",
  dayofyear: "day",
  doy: "day",
  julian: "day",
  epoch: "second",
});

/** Counts units of time between two moments. */
export const unitsBetween = operation({
  id: "units-between",
  family: "convert",
  summary: "counts units of time between two moments",
  slots: [text("unit"), moment("from"), moment("to")],
  traits: ["missing", "unitsBetween"],
  prepare({ unitsBetween: how }) {
    function months(from: Place, to: Place, size: number): number {
      if (how === "borders") return borderOf(size, to) - borderOf(size, from);
      const isBack = isBefore(to, from);
      const [low, high] = isBack ? [to, from] : [from, to];
      const whole = wholeMonths(low, high) + Number(how === "whole ones, or to the last day" && isLastOf(high, low));
      return Math.trunc((isBack ? -whole : whole) / size) + 0;
    }

    return (name: string, from: string | Moment, to: string | Moment): Value => {
      const unit = unitNamed(name) ?? likeUnits[name.toLowerCase()];
      if (unit === undefined) return bad(`"${name}" is no unit of time`);
      const [x, y] = [placeOn(from), placeOn(to)];
      if (!x || !y) return notADate(x ? to : from);
      const { months: size, days = 0, micros = BigInt(days) * microsOf.day } = units[unit];
      if (size !== undefined) return months(x, y, size);
      // Weeks have no border: seven days make one.
      if (how === "borders")
        return days === 7
          ? Math.trunc((y.days - x.days) / 7) + 0
          : integer(floored(lineOf(y), micros) - floored(lineOf(x), micros));
      return integer((lineOf(y) - lineOf(x)) / micros);
    };
  },
});
