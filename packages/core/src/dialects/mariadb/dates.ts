import { Decimal, Failure, type Value, bad, dateFromDays, daysFromDate, isFailure, lookup } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { strict } from "../shared/code.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { extractLike } from "../shared/calendar.ts";
import { step } from "../step.ts";
import { marked } from "../../text/index.ts";
import { dayOf, epochDays, lastDayOf, momentAt, momentOf, weekOf, weekRule } from "./moments.ts";
import { formatMoment, toCharLike, writeWords } from "./formats.ts";
import { microsOf, secondsOf, shift, shiftBy, timestampDiff, zeroPart } from "./date-shifts.ts";
import { cutTo, fractionDigits, fractionOf, microIn, numericDigits, withDigits } from "./second-digits.ts";
import { isBeyondTimes } from "./numbers.ts";
import { toText } from "./steps.ts";
import type { Type } from "../types.ts";

const onMoment = (read: (moment: marked.Moment) => Value): Code => strict((text: string) => read(momentOf(text)));

/** The hour, minute, second or fraction of a time. */
const onTime = (read: (span: number) => number): Code => strict((text: string) => read(Math.abs(marked.readTime(text)!)));

/** The three bits of the mode of a week that count. */
const modeOf = (mode: Value | undefined): number => Number(BigInt((mode ?? 0) as number | bigint) & 7n);

/** How the modes of week() number weeks that others number so, too (documentation, "WEEK"). */
const weeksByMode: Readonly<Record<string, AnswerOf<"weeks"> | undefined>> = {
  "0": "Sundays from 0",
  "3": "ISO 8601",
  "5": "Mondays from 0",
};

/** What extract() gives for each field. */
const extracted: Readonly<Record<string, (moment: marked.Moment) => number>> = lookup({
  year: (m) => m.year,
  quarter: (m) => Math.ceil(m.month / 3),
  month: (m) => m.month,
  week: (m) => weekOf(m, weekRule(0)).week,
  day: (m) => m.day,
  hour: (m) => m.hour,
  minute: (m) => m.minute,
  second: (m) => m.second,
  microsecond: (m) => m.micro,
  year_month: (m) => m.year * 100 + m.month,
  day_hour: (m) => m.day * 100 + m.hour,
  day_minute: (m) => m.day * 10_000 + m.hour * 100 + m.minute,
  day_second: (m) => m.day * 1_000_000 + m.hour * 10_000 + m.minute * 100 + m.second,
  hour_minute: (m) => m.hour * 100 + m.minute,
  hour_second: (m) => m.hour * 10_000 + m.minute * 100 + m.second,
  minute_second: (m) => m.minute * 100 + m.second,
  day_microsecond: (m) => (m.day * 1_000_000 + m.hour * 10_000 + m.minute * 100 + m.second) * 1e6 + m.micro,
  hour_microsecond: (m) => (m.hour * 10_000 + m.minute * 100 + m.second) * 1e6 + m.micro,
  minute_microsecond: (m) => (m.minute * 100 + m.second) * 1e6 + m.micro,
  second_microsecond: (m) => m.second * 1e6 + m.micro,
});

/** Fields that a time without a date has no part in. */
const ofDates = new Set(["year", "quarter", "month", "week", "year_month"]);

function extract(field: string, value: Value, type: Type): Value {
  const name = field.toLowerCase();
  const read = extracted[name];
  if (!read) return bad(`"${field}" is no field of a date`);
  const text = toText(value) as string;
  const isNumber = typeof value !== "string";
  if (!isNumber && name.startsWith("day") && /^\s*\d{1,5}(?![^\sA-Za-z]| \d)/.test(text)) return null;
  const isTime =
    type.name === "time" ||
    /^\s*-?(?:\d+ )?(?:\d+:|\d{1,7}(?:\.|$))/.test(text) ||
    ((isNumber || !name.startsWith("day")) && /^\s*\d{8}(?:\.|$)/.test(text));
  const moment = isTime && !dateShape.test(text) && !ofDates.has(name) ? undefined : marked.readMoment(text);
  if (moment) return read(moment);
  if (dateShape.test(text) && marked.hasZeroPart(text)) return zeroPart(text);
  const span = ofDates.has(name) || dateShape.test(text) ? undefined : marked.readSpan(text);
  if (span === undefined) return null;
  const { hour, ...rest } = partsOf(span);
  return Math.sign(span || 1) * read({ ...rest, day: Math.floor(hour / 24), hour: hour % 24 }) + 0;
}

/** The months of a period YYYYMM or YYMM; 0 for what is none. */
function periodMonths(period: number | bigint): number {
  if (period <= 0 || period > 999_912) return 0;
  const year = Math.floor(Number(period) / 100);
  return fullYear(year) * 12 + (Number(period) % 100) - 1;
}

const fullYear = (year: number): number => (year < 70 ? year + 2000 : year < 100 ? year + 1900 : year);

/** The period that so many months are, a number of 32 bits without a sign. */
function periodOf(months: number): number {
  const count = Number(BigInt.asUintN(32, BigInt(months)));
  return count === 0 ? 0 : fullYear(Math.floor(count / 12)) * 100 + (count % 12) + 1;
}

/** timestamp(): a moment, a time of day added to it. */
function timestampOf(text: string, time?: string): Value {
  if (time === undefined) return text;
  const stretch = marked.readStretch(time);
  if (stretch === undefined) return null;
  const from = momentOf(text);
  const result = momentAt(dayOf(from), secondsOf(from) * 1e6 + from.micro + stretch);
  return result ? marked.momentText(result) : null;
}

/** A number or text as a span of time, which may be longer than a time can be. */
const longSpan = (value: Value): { span: number } | undefined => {
  const text = toText(value) as string;
  const span = marked.readStretch(text);
  return span === undefined ? undefined : { span };
};

/** Three numbers between other marks than those of a time. */
const dateShape = /^\s*\d+[^\w\s:]\d+[^\w\s:]\d/;

/** A value as a date and time or as a span of time: by its type, or by how a text is written. */
function momentOrSpan(
  value: Value,
  type: Type,
): { moment: marked.Moment; kind: "date" | "datetime" } | { span: number } | undefined {
  const text = toText(value) as string;
  const kind = type.name;
  const isText = typeof value === "string" && kind !== "date" && kind !== "datetime" && kind !== "time";
  const isMoment = kind === "date" || kind === "datetime" || (isText ? marked.isDated(text) : isBeyondTimes(value));
  if (isMoment) {
    const moment = marked.readMoment(text);
    const isDate = kind === "date" || (kind !== "datetime" && /^\d{8}$/.test(text));
    if (moment || typeof value === "string") return moment && { moment, kind: isDate ? "date" : "datetime" };
  }
  const span = marked.readTime(text);
  return span === undefined ? undefined : { span };
}

/** addtime() and subtime(): of a text a text, with all digits of a fraction that is not zero. */
const addTime = (direction: 1 | -1): Code => ({
  strict: true,
  run: ([value, time], context) => {
    const start = momentOrSpan(value, context.types[0]);
    const isTemporal = ["date", "datetime", "time"].includes(context.types[1].name);
    const change = isTemporal ? momentOrSpan(time, context.types[1]) : longSpan(time);
    if (!start && marked.hasZeroPart(toText(value) as string)) return zeroPart(value);
    if (!start || (isBeyondTimes(value) && "span" in start) || !change || "moment" in change) return null;
    const isText = context.types[0].name === "text";
    const shown = (text: string) => {
      const digits = Math.max(fractionDigits(0, context, value), fractionDigits(1, context, time));
      return withDigits(text, isText ? (fractionOf(text) === "" ? 0 : 6) : digits);
    };
    if ("span" in start) {
      const sum = start.span + direction * change.span;
      return shown(marked.spanText(Math.max(-marked.longest, Math.min(marked.longest, sum))));
    }
    const { moment } = start;
    const result = momentAt(dayOf(moment), secondsOf(moment) * 1e6 + moment.micro + direction * change.span);
    return result ? shown(marked.momentText(result)) : null;
  },
});

/** Seconds after 1970-01-01 up to which the server's clock counts. */
const lastSecond = 2 ** 31 - 1;

/** The moment of a number of seconds after 1970-01-01; the session's time zone is taken to be UTC. */
function fromSeconds(seconds: Decimal, digits: number): string | null {
  const micro = microIn(seconds);
  if (seconds.coefficient < 0n || micro >= (lastSecond + 1) * 1e6) return null;
  return withDigits(marked.momentText(momentAt(0, micro)!), digits);
}

/** Minutes of an offset from UTC; null where it is none. */
function offsetOf(zone: string): number | Failure | null {
  const [, sign, hour, minute] = /^([+-])(\d{1,2}):(\d{2})$/.exec(zone) ?? [];
  if (sign === undefined) return /^[a-z]/i.test(zone) ? new Failure("not-covered", { what: `the time zone ${zone}` }) : null;
  const size = Number(hour) * 60 + Number(minute);
  if (Number(minute) > 59 || size > (sign === "-" ? 12 * 60 + 59 : 13 * 60)) return null;
  return sign === "-" ? -size : size;
}

function convertZone(text: string, from: string, to: string): Value {
  const [a, b] = [offsetOf(from), offsetOf(to)];
  if (isFailure(a)) return a;
  if (isFailure(b)) return b;
  if (a === null || b === null) return null;
  const moment = momentOf(text);
  const seconds = (dayOf(moment) * 1440 - a) * 60 + secondsOf(moment);
  // What the clock does not count stays.
  if (seconds < 0 || seconds > lastSecond) return text;
  return marked.momentText(momentAt(dayOf(moment), microsOf(moment) - dayOf(moment) * 86_400e6 + (b - a) * 60e6)!);
}

/** The parts of a time; the hours may be more than a day's. */
function partsOf(span: number): marked.Moment {
  const seconds = Math.floor(Math.abs(span) / 1e6);
  return {
    year: 0,
    month: 0,
    day: 0,
    hour: Math.floor(seconds / 3600),
    minute: Math.floor(seconds / 60) % 60,
    second: seconds % 60,
    micro: Math.abs(span) % 1e6,
  };
}

/** The functions of dates and times. */
export const dateCode: Readonly<Record<string, Code>> = lookup({
  to_days: onMoment((m) => dayOf(m) + epochDays),
  to_seconds: onMoment((m) => (dayOf(m) + epochDays) * 86_400 + secondsOf(m)),
  last_day: onMoment((m) => marked.dateText({ ...m, day: lastDayOf(m.year, m.month) })),
  date: onMoment((m) => marked.dateText(m)),
  hour: onTime((span) => Math.floor(span / 3600e6)),
  minute: onTime((span) => Math.floor(span / 60e6) % 60),
  second: onTime((span) => Math.floor(span / 1e6) % 60),
  microsecond: onTime((span) => span % 1e6),
  time: {
    strict: true,
    run: ([time], context) => {
      const written = context.constant(0);
      const isText = typeof written === "string" && context.types[0].name === "text";
      return withDigits(time as string, isText ? marked.timeDigits(written) : fractionDigits(0, context, time));
    },
  },
  time_to_sec: {
    strict: true,
    run: ([time], context) => cutTo(new Decimal(BigInt(marked.readTime(time as string)!), 6), fractionDigits(0, context, time)),
  },
  sec_to_time: {
    strict: true,
    run: ([seconds], { types }) => {
      const micro = Math.max(-marked.longest, Math.min(marked.longest, microIn(seconds as Decimal)));
      return withDigits(marked.spanText(micro), numericDigits(seconds, types[0]));
    },
  },
  // A mode that is null counts as 0.
  week: {
    like: (constant) => {
      const weeks = weeksByMode[String(constant(1) ?? 0)];
      return weeks && { ...step("week-of-year", { missing: "null", weeks }), slots: ["date"] };
    },
    run: ([text, mode]) => (text === null ? null : weekOf(momentOf(text as string), weekRule(modeOf(mode))).week),
  },
  yearweek: {
    run: ([text, mode]) => {
      if (text === null) return null;
      const { year, week } = weekOf(momentOf(text), weekRule(modeOf(mode) | 2));
      return year * 100 + week;
    },
  },
  extract: {
    like: extractLike((name) => name.toLowerCase(), {
      week: step("week-of-year", { missing: "null", weeks: "Sundays from 0" }),
    }),
    strict: true,
    run: ([field, value], { types }) => extract(field as string, value, types[1]),
  },
  timestamp: {
    strict: true,
    run: ([text, time], context) => {
      const result = timestampOf(text as string, time as string | undefined);
      const digits = Math.max(fractionDigits(0, context, text), time === undefined ? 0 : fractionDigits(1, context, time));
      return typeof result === "string" ? withDigits(result, digits) : result;
    },
  },
  // A language that is null counts as the usual one.
  date_format: {
    run: ([text, template, locale]) => {
      if (text === null || template === null || template === "") return null;
      if (locale !== null && !/^en_/i.test(locale as string) && /%[abMWrp]/.test(template as string))
        return new Failure("not-covered", { what: `names of days and months in ${locale as string}` });
      return formatMoment(momentOf(text), template as string);
    },
  },
  time_format: strict((text: string, template: string) => {
    const span = marked.readTime(text)!;
    // A time has no day to be named.
    if (template === "" || /%[YymcMbDdejaWwUuVvXx]/.test(template.replaceAll("%%", ""))) return null;
    return (span < 0 ? "-" : "") + formatMoment(partsOf(span), template);
  }),
  addtime: addTime(1),
  subtime: addTime(-1),
  timediff: {
    strict: true,
    run: ([a, b], context) => {
      const [x, y] = [momentOrSpan(a, context.types[0]), momentOrSpan(b, context.types[1])];
      const unread = [!x && a, !y && b].find((each) => each !== false && marked.hasZeroPart(toText(each) as string));
      if (unread) return zeroPart(unread);
      if (!x || !y || ("moment" in x ? x.kind : "") !== ("moment" in y ? y.kind : "")) return null;
      const size = (each: typeof x) => ("moment" in each ? microsOf(each.moment) : each.span);
      const span = Math.max(-marked.longest, Math.min(marked.longest, size(x) - size(y)));
      return withDigits(marked.spanText(span), Math.max(fractionDigits(0, context, a), fractionDigits(1, context, b)));
    },
  },
  from_unixtime: {
    strict: true,
    run: ([seconds, template], { types }) => {
      const isWhole = (seconds as Decimal).trimmed().scale === 0 && types[0].name !== "decimal";
      const text = fromSeconds(seconds as Decimal, isWhole ? 0 : numericDigits(seconds, types[0]));
      if (template === "") return null;
      return text === null || template === undefined ? text : formatMoment(momentOf(text), template as string);
    },
  },
  unix_timestamp: {
    strict: true,
    run: ([text], context) => {
      if (text === undefined) return new Failure("not-covered", { what: "the current time" });
      const micro = microsOf(momentOf(text));
      if (micro < 0 || micro >= (lastSecond + 1) * 1e6) return null;
      return new Decimal(BigInt(micro), 6).rounded(fractionDigits(0, context, text));
    },
  },
  convert_tz: {
    strict: true,
    run: ([text, from, to], context) => {
      const result = convertZone(text as string, from as string, to as string);
      return typeof result === "string" ? withDigits(result, fractionDigits(0, context, text)) : result;
    },
  },
  to_char: {
    like: toCharLike,
    run: ([value, template], { types, steady }) => {
      const kind = types[0].name;
      if (!["text", "date", "datetime", "time"].includes(kind)) return bad("to_char() takes a date, a time or a text");
      if (kind === "time") return new Failure("not-covered", { what: "to_char() of a time" });
      const moment = value === null ? undefined : marked.readMoment(value as string);
      if (template === null || (!steady(1) && (!moment || template === ""))) return null;
      // A format that is the same for every row and cannot be read is an error without a date, too.
      const text = writeWords(moment ?? momentAt(0, 0)!, template as string);
      return moment || isFailure(text) ? text : null;
    },
  },
  date_add: shift(1),
  date_sub: shift(-1),
  datediff: strict((a: string, b: string) => dayOf(momentOf(a)) - dayOf(momentOf(b))),
  timestampdiff: {
    ...strict(timestampDiff),
    like: { ...step("units-between", { missing: "null", unitsBetween: "whole ones" }), slots: ["unit", "from", "to"] },
  },
  timestampadd: {
    strict: true,
    run: ([unitName, amount, value], context) => shiftBy(value, amount, unitName as string, 1, context, [2, 1]),
  },
  from_days: strict((days: number | bigint) => {
    const { year, month, day } = dateFromDays(Number(days) - epochDays);
    return year < 1 || year > 9999 ? "0000-00-00" : marked.dateText({ year, month, day } as marked.Moment);
  }),
  makedate: strict((given: number | bigint, day: number | bigint) => {
    const year = Number(given);
    if (day <= 0 || year < 0) return null;
    const full = year < 70 ? year + 2000 : year < 100 ? year + 1900 : year;
    const { year: y, month, day: d } = dateFromDays(daysFromDate(full, 1, 1) + Number(day) - 1);
    return !(y <= 9999) ? null : marked.dateText({ year: y, month, day: d } as marked.Moment);
  }),
  maketime: {
    strict: true,
    run: ([hour, minute, second], { types }) => {
      if ((minute as number) < 0 || (minute as number) > 59) return null;
      const micro = microIn(second as Decimal);
      if (micro < 0 || micro >= 60e6) return null;
      const size = (Math.abs(Number(hour)) * 3600 + Number(minute) * 60) * 1e6 + micro;
      const span = Math.sign(Number(hour) || 1) * Math.min(size, marked.longest);
      return withDigits(marked.spanText(span), numericDigits(second, types[2]));
    },
  },
  period_add: strict((period: number | bigint, months: number | bigint) =>
    period === 0 ? 0 : periodOf(periodMonths(period) + Number(BigInt.asIntN(32, BigInt(months)))),
  ),
  period_diff: strict((a: number | bigint, b: number | bigint) => periodMonths(a) - periodMonths(b)),
});
