import { dateTokens, tokenTable, writeDate } from "../../text/index.ts";
import { Bytes, Double, Failure, type Value, dateFromDays, daysFromDate, isFailure } from "../../values/index.ts";
import type { AnswerOf } from "../../traits/index.ts";
import type { Likeness } from "../dialect.ts";
import { step } from "../step.ts";
import { textUntilNul, toText, toDouble } from "./steps.ts";
import { printf } from "./printf.ts";

/** Milliseconds since noon of the Julian day 0, as the engine counts time. */
const dayLength = 86_400_000;
/** 1970-01-01T00:00 on that line. */
const epoch = 210_866_760_000_000;
/** 9999-12-31T23:59:59.999, the last moment that there is. */
const last = 464_269_060_799_999;

/** A moment while modifiers are applied; `subsecond` says that fractions are asked for. */
interface Moment {
  time: number;
  subsecond: boolean;
  /** The number that was given where it may still be read as something else. */
  raw: number | undefined;
  /** The day of a month that lies beyond its end, for `floor`. */
  overflow: number;
  /** The date as it was written, which may lie beyond the end of its month. */
  written: { readonly year: number; readonly month: number; readonly day: number } | undefined;
  /** The date that is shown where it is not that of the time: the written one after `start of day`. */
  shown: { readonly year: number; readonly month: number; readonly day: number } | undefined;
}

const clock =
  "(\\d\\d):(\\d\\d)(?::(\\d\\d)(\\.\\d+)?)?[ \\t\\n\\v\\f\\r]*(?:([+-])(\\d\\d):(\\d\\d)|([zZ]))?[ \\t\\n\\v\\f\\r]*";
const dateForm = new RegExp(`^(-?)(\\d{4})-(\\d\\d)-(\\d\\d)(?:[ \\t\\n\\v\\f\\rT]+${clock})?[ \\t\\n\\v\\f\\r]*$`);
const clockForm = new RegExp(`^${clock}$`);

const fromParts = (year: number, month: number, day: number, milliseconds = 0): number =>
  daysFromDate(year, month, day) * dayLength + epoch + milliseconds;

/** Milliseconds of a time of day by the groups of `clock`, its zone taken off; undefined where out of range. */
function clockTime([hour, minute, second = "0", fraction = "", sign, zoneHour = "0", zoneMinute = "0"]: readonly (
  string | undefined
)[]): number | undefined {
  const [h, m, s] = [Number(hour), Number(minute), Number(second)];
  const isBeyondMidnight = h === 24 && m + s + Number(fraction || "0") > 0;
  if (h > 24 || isBeyondMidnight || m > 59 || s > 59 || Number(zoneHour) > 14 || Number(zoneMinute) > 59) return undefined;
  const zone = (Number(zoneHour) * 60 + Number(zoneMinute)) * (sign === "-" ? -1 : 1);
  return Math.floor(h * 3_600_000 + (m - zone) * 60_000 + (s + Number(fraction || "0")) * 1000 + 0.5);
}

/** A time value (documentation, "Date And Time Functions", 2); undefined where it is none. */
function readTime(given: Value): Moment | undefined {
  const value = given instanceof Bytes ? (textUntilNul(given) as string) : given;
  const moment = (time: number, raw?: number): Moment => ({
    time,
    subsecond: false,
    raw,
    overflow: 0,
    written: undefined,
    shown: undefined,
  });
  if (typeof value === "string") {
    const date = dateForm.exec(value);
    if (date) {
      const [, sign, year, month, day, ...rest] = date;
      const [m, d] = [Number(month), Number(day)];
      if (m < 1 || m > 12 || d < 1 || d > 31) return undefined;
      const time = rest[0] === undefined ? 0 : clockTime(rest);
      if (time === undefined) return undefined;
      const y = Number(year) * (sign ? -1 : 1);
      const isShifted = time < 0 || time >= dayLength || rest[4] !== undefined;
      return {
        ...moment(fromParts(y, m, d, time)),
        overflow: Math.max(0, d - (daysFromDate(y, m + 1, 1) - daysFromDate(y, m, 1))),
        written: isShifted ? undefined : { year: y, month: m, day: d },
      };
    }
    const only = clockForm.exec(value);
    if (only) {
      const time = clockTime(only.slice(1));
      return time === undefined ? undefined : moment(fromParts(2000, 1, 1, time));
    }
    if (!/^[ \t\n\v\f\r]*[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?[ \t\n\v\f\r]*$/.test(value)) return undefined;
  }
  if (value === null) return undefined;
  const raw = toDouble(value).value;
  return raw >= 0 && raw < 5_373_484.5 ? moment(Math.floor(raw * dayLength + 0.5), raw) : { ...moment(NaN, raw) };
}

interface Parts {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly weekday: number;
  readonly days: number;
  /** Milliseconds of the day. */
  readonly clock: number;
}

function partsOf(time: number): Parts {
  const days = Math.floor((time - epoch) / dayLength);
  return { ...dateFromDays(days), days, clock: time - epoch - days * dayLength };
}

const units: Readonly<Record<string, number>> = { day: 1, hour: 1 / 24, minute: 1 / 1440, second: 1 / 86_400 };

/** Changes a moment by one modifier (3); false where it is none. */
function modify(moment: Moment, written: string, isFirst: boolean): boolean {
  const word = written.toLowerCase();
  const wasRaw = moment.raw;
  moment.raw = undefined;
  moment.shown = undefined;
  if (word === "unixepoch") {
    if (wasRaw === undefined || !isFirst) return false;
    moment.time = Math.floor(wasRaw * 1000 + 0.5) + epoch;
    return moment.time >= 0 && moment.time <= last;
  }
  if (word === "julianday") return isFirst && wasRaw !== undefined && !Number.isNaN(moment.time);
  if (word === "auto") {
    if (!isFirst) return false;
    if (wasRaw !== undefined && Number.isNaN(moment.time)) moment.time = Math.floor(wasRaw * 1000 + 0.5) + epoch;
    return moment.time >= 0 && moment.time <= last;
  }
  if (word === "subsec" || word === "subsecond") return (moment.subsecond = true);
  if (word === "localtime" || word === "utc") {
    // A number outside the line of time becomes a moment of its own.
    if (Number.isNaN(moment.time)) moment.time = word === "utc" ? 0 : fromParts(2000, 1, 1);
    return true;
  }
  if (Number.isNaN(moment.time)) return false;
  if (word === "ceiling") return (moment.overflow = 0) === 0;
  if (word === "floor") {
    moment.time -= moment.overflow * dayLength;
    moment.overflow = 0;
    return true;
  }
  const { year, month, day, weekday, days, clock: timeOfDay } = { ...partsOf(moment.time), ...moment.written };
  const { written: asWritten } = moment;
  moment.written = undefined;
  if (word.startsWith("start of ")) {
    if (word === "start of day") moment.shown = asWritten;
    const unit = word.slice(9);
    if (!["day", "month", "year"].includes(unit)) return false;
    moment.time = fromParts(year, unit === "year" ? 1 : month, unit === "day" ? day : 1);
    return true;
  }
  const toWeekday = /^weekday (\d(?:\.0*)?)$/.exec(word);
  if (toWeekday) {
    const wanted = Number(toWeekday[1]);
    if (wanted > 6) return false;
    moment.time += ((wanted - weekday + 7) % 7) * dayLength;
    return true;
  }
  const shift = /^([+-]?\d+(?:\.\d*)?|[+-]?\.\d+)[ \t\n\v\f\r]+(second|minute|hour|day|month|year)s?$/.exec(word);
  if (shift) return shiftBy(moment, { year, month, day, weekday, days, clock: timeOfDay }, Number(shift[1]), shift[2]);
  const clockShift = /^([+-])?(\d\d):(\d\d)(?::(\d\d)(\.\d+)?)?$/.exec(word);
  if (clockShift) {
    const [, sign, ...rest] = clockShift;
    const time = clockTime(rest);
    if (time === undefined) return false;
    moment.time += (sign === "-" ? -time : time) % dayLength;
    return true;
  }
  const dateShift = /^([+-])(\d{4})-(\d\d)-(\d\d)(?:[ \t\n\v\f\r]+(\d\d:\d\d(?::\d\d(?:\.\d+)?)?))?$/.exec(word);
  if (!dateShift || Number(dateShift[3]) > 11 || Number(dateShift[4]) > 30) return false;
  const sign = dateShift[1] === "-" ? -1 : 1;
  const [years, months, dayCount] = dateShift.slice(2, 5).map((part) => sign * Number(part));
  moment.time = shiftedMonths(moment, { year, month, day, days, weekday, clock: timeOfDay }, years * 12 + months);
  moment.time += dayCount * dayLength;
  return dateShift[5] === undefined || modify(moment, dateShift[1] + dateShift[5], false);
}

function shiftedMonths(moment: Moment, { year, month, day, clock: timeOfDay }: Parts, months: number): number {
  const total = year * 12 + month - 1 + months;
  const [y, m] = [Math.floor(total / 12), (((total % 12) + 12) % 12) + 1];
  moment.overflow = Math.max(0, day - (daysFromDate(y, m + 1, 1) - daysFromDate(y, m, 1)));
  return fromParts(y, m, day, timeOfDay);
}

function shiftBy(moment: Moment, parts: Parts, amount: number, unit: string): boolean {
  const perDay = units[unit];
  moment.overflow = 0;
  if (perDay === undefined) {
    const wholeCount = Math.trunc(amount);
    moment.time = shiftedMonths(moment, parts, unit === "year" ? wholeCount * 12 : wholeCount);
    const rest = (amount - wholeCount) * (unit === "year" ? 365 : 30) * dayLength;
    moment.time += Math.trunc(rest + (rest < 0 ? -0.5 : 0.5));
  } else {
    const change = amount * perDay * dayLength;
    moment.time += Math.trunc(change + (change < 0 ? -0.5 : 0.5));
  }
  return moment.time >= 0 && moment.time <= last;
}

/** The moment of a time value with modifiers; null where one cannot be read. */
function momentOf(values: readonly Value[]): Moment | Failure | null {
  if (values.some((value) => value === null)) return null;
  if (values.length === 0 || /^(?:now|subsec|subsecond)$/i.test(toText(values[0]) as string))
    return new Failure("not-covered", { what: "the current time" });
  const moment = readTime(values[0]);
  if (!moment) return null;
  for (let i = 1; i < values.length; i++) if (!modify(moment, toText(values[i]) as string, i === 1)) return null;
  return Number.isNaN(moment.time) || moment.time < 0 || moment.time > last ? null : moment;
}

const two = (value: number): string => String(value).padStart(2, "0");
const yearText = (year: number): string => (year < 0 ? "-" : "") + String(Math.abs(year)).padStart(4, "0");
const dateText = ({ year, month, day }: Parts): string => `${yearText(year)}-${two(month)}-${two(day)}`;

function clockText({ clock: ms }: Parts, subsecond: boolean): string {
  const second = Math.floor(ms / 1000) % 60;
  const seconds = subsecond ? (printf(["%06.3f", new Double(second + (ms % 1000) / 1000)]) as string) : two(second);
  return `${two(Math.floor(ms / 3_600_000))}:${two(Math.floor(ms / 60_000) % 60)}:${seconds}`;
}

const onMoment =
  (show: (moment: Moment) => Value) =>
  (values: readonly Value[]): Value => {
    const moment = momentOf(values);
    return moment === null || isFailure(moment) ? moment : show(moment);
  };

const seconds = (time: number): number => Math.floor((time - epoch) / 1000);

/** date(), time(), datetime(), julianday(), unixepoch() */
export const dateFunctions: Readonly<Record<string, (values: readonly Value[]) => Value>> = {
  date: onMoment(({ time, shown }) => dateText({ ...partsOf(time), ...shown })),
  time: onMoment(({ time, subsecond }) => clockText(partsOf(time), subsecond)),
  datetime: onMoment(
    ({ time, subsecond, shown }) => `${dateText({ ...partsOf(time), ...shown })} ${clockText(partsOf(time), subsecond)}`,
  ),
  julianday: onMoment(({ time }) => new Double(time / dayLength)),
  unixepoch: onMoment(({ time, subsecond }) => (subsecond ? new Double((time - epoch) / 1000) : seconds(time))),
};

/** What each token after % stands for in strftime(); J, s and f are written by the moment itself. */
const strftimeTokens = tokenTable({
  d: "day 2",
  e: "day _2",
  F: "=%Y-%m-%d",
  G: "iso year 4",
  g: "iso year of century 2",
  H: "hour 2",
  k: "hour _2",
  I: "hour of half 2",
  l: "hour of half _2",
  j: "day of year 3",
  m: "month 2",
  M: "minute 2",
  p: "half",
  P: "half small",
  R: "=%H:%M",
  S: "second 2",
  T: "=%H:%M:%S",
  u: "weekday from Monday",
  U: "week of Sundays 2",
  V: "iso week 2",
  w: "weekday from Sunday",
  W: "week of Mondays 2",
  Y: "year 4",
});
const written = dateTokens(strftimeTokens);

/** What strftime() comes to on a date that is no other by modifiers. */
export const strftimeLike = {
  ...step(
    "text-from-date",
    { missing: "null", formatLanguage: "percent", unknownToken: "null", emptyFormat: "empty text" },
    { tokens: strftimeTokens },
  ),
  slots: ["format", "date"],
};

/** How a text is read as a date (documentation, "Date And Time Functions", 2). */
export const dateRead = (clockOfDate: AnswerOf<"clockOfDate">) =>
  step(
    "moment-of",
    { missing: "null", dateForms: "ISO 8601, 31 days a month", clockOfDate, notADate: "null" },
    { wanted: "date", from: "text" },
  );

/** What date() and datetime() come to with one modifier that is a number of units. */
export const shiftLike = (timeAdded: AnswerOf<"timeAdded">): Likeness => ({
  ...step(
    "add-to-date",
    { missing: "null", dayBeyond: "days of the next month", timeAdded, clockDigits: "as many as it has", noSuchDate: "null" },
    { direction: "later" },
  ),
  slots: [
    "date",
    {
      ...step(
        "interval-from-text",
        { missing: "null", intervalForms: "units, a clock, 1-2 or P1Y2M" },
        { unit: "second", form: "1 month" },
      ),
      slot: "interval",
      slots: ["text"],
    },
  ],
});

/** strftime(format, time, modifier, …); null for a letter that stands for nothing. */
export function strftime(values: readonly Value[]): Value {
  const [format, ...rest] = values;
  const moment = format === null ? null : momentOf(rest);
  if (moment === null || isFailure(moment)) return moment;
  const { clock: ms, ...day } = { ...partsOf(moment.time), ...moment.shown };
  const [hour, minute, second] = [Math.floor(ms / 3_600_000), Math.floor(ms / 60_000) % 60, Math.floor(ms / 1000) % 60];
  const parts = { ...day, hour, minute, second, micro: (ms % 1000) * 1000 };
  const tokens = new Map([
    ...written,
    ["J", () => printf(["%.16g", new Double(moment.time / dayLength)])],
    ["s", () => (moment.subsecond ? printf(["%.3f", new Double((moment.time - epoch) / 1000)]) : seconds(moment.time))],
    ["f", () => `${two(second)}.${String(ms % 1000).padStart(3, "0")}`],
  ]);
  let isKnown = true;
  const result = writeDate(parts, textUntilNul(format) as string, tokens, () => {
    isKnown = false;
    return "";
  });
  return isKnown ? result : null;
}

/** timediff(a, b): what has to be added to b to reach a, as `+YYYY-MM-DD HH:MM:SS.SSS`. */
export function timediff(values: readonly Value[]): Value {
  const [a, b] = [momentOf([values[0]]), momentOf([values[1]])];
  if (a === null || isFailure(a)) return a;
  if (b === null || isFailure(b)) return b;
  const isForward = a.time >= b.time;
  const [from, to] = isForward ? [b.time, a.time] : [a.time, b.time];
  const target = isForward ? partsOf(from) : partsOf(to);
  const base = isForward ? partsOf(to) : partsOf(from);
  let months = Math.abs((base.year - target.year) * 12 + base.month - target.month);
  const shifted = () =>
    fromParts(
      Math.floor((target.year * 12 + target.month - 1 + (isForward ? months : -months)) / 12),
      ((((target.month - 1 + (isForward ? months : -months)) % 12) + 12) % 12) + 1,
      target.day,
      target.clock,
    );
  while (isForward ? shifted() > to : shifted() < from) months--;
  const rest = isForward ? to - shifted() : shifted() - from;
  const days = Math.floor(rest / dayLength);
  const parts = { ...base, clock: rest - days * dayLength };
  return `${isForward ? "+" : "-"}${String(Math.floor(months / 12)).padStart(4, "0")}-${two(months % 12)}-${two(days)} ${clockText(parts, true)}`;
}
