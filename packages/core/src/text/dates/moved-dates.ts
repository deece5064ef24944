import {
  type CalendarParts,
  Failure,
  Interval,
  type IntervalForm,
  Moment,
  type Stretch,
  type Value,
  calendarParts,
  clockAt,
  dateFromDays,
  daysFromDate,
  intervalForms,
  isoDate,
  microsOf,
} from "../../values/index.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { notADate } from "../calendar.ts";
import { any, operation, settled, text } from "../operation.ts";

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

/** What follows the parts of a moment as text: its zone. */
const zone = /(?:\+00|Z|(?<=:.*)[+-]\d\d:\d\d)$/;

const clockOnly = /^(\d\d):(\d\d):(\d\d)(?:\.(\d{1,6}))?$/;

/** A time of day so much later or earlier, on whatever day. */
function movedTime(found: RegExpExecArray, by: Stretch, sign: 1 | -1): string {
  const [hour, minute, second] = found.slice(1, 4).map(Number);
  const place = {
    days: 0,
    micros: BigInt(hour * 3600 + minute * 60 + second) * microsOf.second + BigInt((found[4] ?? "").padEnd(6, "0")),
  };
  return clockAt(Number(moved(place, { ...by, months: 0 }, sign, "the last day").micros));
}

/** Moves a date, a date and time, or a time of day, by a stretch of time. */
export const addToDate = operation({
  id: "add-to-date",
  family: "convert",
  summary: "gives the moment a stretch of time later or earlier",
  slots: [text("date"), any("interval"), settled("direction", ["later", "earlier"])],
  traits: ["missing", "dayBeyond", "timeAdded", "noSuchDate"],
  prepare({ dayBeyond, timeAdded, noSuchDate }, { direction }) {
    const sign = direction === "earlier" ? -1 : 1;
    const none = (): Value => (noSuchDate === "null" ? null : new Failure("number-out-of-range"));

    return (date: string | Moment, interval: Value): Value => {
      if (!(interval instanceof Interval))
        return new Failure("wrong-kind", { expected: "a stretch of time", given: "another kind of value" });
      const { stretch } = interval;
      const written = date instanceof Moment ? date.text : date;
      const time = clockOnly.exec(written);
      if (time) return movedTime(time, stretch, sign);
      const parts = calendarParts(date);
      if (!parts) return notADate(date);
      if (Math.abs(stretch.months) > lastYear * 12) return none();
      const { days, micros } = moved(placeOf(parts), stretch, sign, dayBeyond);
      const { year, month, day } = dateFromDays(days);
      if (Math.abs(year) > lastYear) return none();
      if (year < 1) return new Failure("not-covered", { what: "dates before the year 1" });
      const mark = /\d([T ])\d/.exec(written)?.[1];
      const isMoment = mark !== undefined || (timeAdded === "a date and time" && stretch.micros !== 0n);
      const shown = isoDate(year, month, day) + (isMoment ? (mark ?? " ") + clockAt(Number(micros)) : "");
      const text = shown + (zone.exec(written)?.[0] ?? "");
      return date instanceof Moment ? new Moment(date.type, text) : text;
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

/** How much time lies between two moments. */
export const intervalBetween = operation({
  id: "interval-between",
  family: "convert",
  summary: "gives the stretch of time between two moments",
  slots: [
    text("later"),
    text("earlier"),
    settled("parts", ["days and time", "years, months and days"]),
    settled("type", ["interval", "dayTimeDuration"]),
    settled("form", intervalForms),
  ],
  traits: ["missing"],
  prepare(_answers, { parts, type, form }) {
    return (later: string | Moment, earlier: string | Moment): Value => {
      const [a, b] = [calendarParts(later), calendarParts(earlier)];
      if (!a || !b) return notADate(a ? earlier : later);
      const [x, y] = [placeOf(a), placeOf(b)];
      const made = (stretch: Stretch) => new Interval(form as IntervalForm, stretch, type as string);
      if (parts !== "days and time") return made(isBefore(x, y) ? opposite(byCalendar(y, x)) : byCalendar(x, y));
      const micros = BigInt(x.days - y.days) * microsOf.day + x.micros - y.micros;
      return made({ months: 0, days: Number(micros / microsOf.day), micros: micros % microsOf.day });
    };
  },
});
