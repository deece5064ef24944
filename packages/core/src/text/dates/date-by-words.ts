import { Failure, type Value, bad, clockAt, dateFromDays, daysFromDate, isDate } from "../../values/index.ts";
import { operation, settled, tabled, text } from "../operation.ts";
import { formatWords } from "./format-words.ts";
import { dateOfEra } from "./start-of-unit.ts";
import { julianEpoch, parseTokens, tokenFault } from "./text-from-date.ts";
import { type Fields, Reader, type Words, outOfRange } from "./word-reader.ts";

/** A day of an ISO week, with 1 for Sunday as the last. */
const isoWeekDay = (year: number, week: number, weekday: number): number => {
  const fourth = daysFromDate(year, 1, 4);
  return fourth - ((dateFromDays(fourth).weekday + 6) % 7) + (week - 1) * 7 + (weekday > 1 ? weekday - 2 : 6);
};

/** The moment that a text gives by the words of a format. */
function readMoment(text: string, words: Words, lastYear: number): Read | Failure {
  const reader = new Reader(text, words);
  const failure = reader.read();
  if (failure) return failure;
  const field = (name: string) => reader.fields.get(name) ?? 0;
  const seconds = field("seconds");
  let hour = field("hour") || Math.floor(seconds / 3600);
  const minute = field("minute") || Math.floor((seconds % 3600) / 60);
  const second = field("second") || seconds % 60;
  if (reader.fields.has("half day")) {
    if (hour < 1 || hour > 12) return bad(`${hour} is no hour of a clock of 12`);
    hour = (hour % 12) + (field("pm") ? 12 : 0);
  }
  const day = dayOf(reader.fields, reader.mode === "iso", text, lastYear);
  if (day instanceof Failure) return day;
  if (hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 59) return outOfRange(text);
  const micros = field("milliseconds") * 1000 + field("microseconds");
  if (micros < 0 || micros >= 1_000_000) return outOfRange(text);
  return { day, micros: ((hour * 60 + minute) * 60 + second) * 1_000_000 + micros, digits: reader.fields.get("second digits") };
}

interface Read {
  /** Counted from 1970-01-01. */
  readonly day: number;
  /** The time of day in millionths of a second. */
  readonly micros: number;
  /** How many digits of a second a word like FF3 asks for. */
  readonly digits: number | undefined;
}

/** The first day of 2000, from which halves are rounded away. */
const middle = 10_957;
const dayLength = 86_400_000_000;

/** The day and the time with as many digits as are asked for. */
function rounded({ day, micros, digits = 6 }: Read): readonly [day: number, micros: number] {
  const unit = 10 ** (6 - digits);
  const rest = micros % unit;
  const isUp = day < middle ? rest > unit / 2 : rest > 0 && rest >= unit / 2;
  const time = micros - rest + (isUp ? unit : 0);
  return time < dayLength ? [day, time] : [day + 1, time - dayLength];
}

/** The day that the fields give together, counted from 1970-01-01. */
function dayOf(fields: Fields, isIso: boolean, text: string, lastYear: number): number | Failure {
  const field = (name: string) => fields.get(name) ?? 0;
  const century = field("century") * (field("bc") ? -1 : 1);
  let year = field("year");
  if (year !== 0 && century !== 0 && field("year digits") <= 2) {
    const short = year % 100;
    year =
      century >= 0
        ? short
          ? (century - 1) * 100 + short
          : century * 100
        : short
          ? (century + 1) * 100 - short + 1
          : century * 100 + 1;
  } else if (year !== 0) {
    if (field("bc")) year = -year;
    if (year < 0) year++;
  } else if (century !== 0) year = century > 0 ? (century - 1) * 100 + 1 : century * 100 + 1;
  let [month, day] = [1, 1];
  let dayOfYear = field("day of year");
  let isWhole =
    (year !== 0 || century !== 0) && field("month") + dayOfYear > 0 && field("day") + field("week of month") + dayOfYear > 0;
  const from = (days: number) => {
    ({ year, month, day } = dateFromDays(days));
    isWhole = true;
  };
  if (field("julian")) from(field("julian") - julianEpoch);
  if (field("week")) {
    if (isIso) from(isoWeekDay(year, field("week"), field("weekday") || 2));
    else dayOfYear = (field("week") - 1) * 7 + 1;
  }
  day = field("week of month") ? (field("week of month") - 1) * 7 + 1 : field("day") || day;
  month = field("month") || month;
  if (dayOfYear && (month <= 1 || day <= 1)) {
    if (!year && !field("bc")) return bad("a day of the year needs a year");
    if (isIso) from(isoWeekDay(year, 1, 2) + dayOfYear - 1);
    else {
      const length = daysFromDate(year + 1, 1, 1) - daysFromDate(year, 1, 1);
      const found = dayOfYear > length ? { month: 13, day: dayOfYear - length } : dateFromDays(daysFromDate(year, 1, dayOfYear));
      [month, day] = [month <= 1 ? found.month : month, day <= 1 ? found.day : day];
    }
  }
  if (month < 1 || month > 12 || day < 1 || day > 31 || (isWhole && !isDate(year, month, day)) || year > lastYear)
    return outOfRange(text);
  // Without a year, or another part, a day that its month has not is counted on into the next one.
  const days = daysFromDate(year, month, day);
  // The calendar begins with day 0 of the Julian count (8.5.1).
  if (days < -julianEpoch) return outOfRange(text);
  return days;
}

/** A date has a year up to 5874897 (8.5). */
function readDate(text: string, words: Words): Value {
  const moment = readMoment(text, words, 5_874_897);
  if (moment instanceof Failure) return moment;
  const { date, era } = dateOfEra(moment.day);
  return date + era;
}

/** A moment in UTC; its year is at most 294276 (8.5). */
function readTimestamp(text: string, words: Words): Value {
  const moment = readMoment(text, words, 294_276);
  if (moment instanceof Failure) return moment;
  const [day, micros] = rounded(moment);
  const { date, era } = dateOfEra(day);
  return `${date} ${clockAt(micros)}+00${era}`;
}

/** Reads a date, or a date and time, by a format of words; what stands for no word of it is passed over. */
export const dateByWords = operation({
  id: "date-by-words",
  family: "convert",
  summary: "reads a date and time by a format of words",
  slots: [
    text("text"),
    text("format"),
    tabled("tokens", "YYYY year 4, MM month 2, DD day 2, MONTH month name 9, HH24 hour 2, MI minute 2", tokenFault),
    settled("wanted", ["date", "timestamp in UTC"]),
  ],
  traits: ["missing"],
  prepare(_answers, { tokens, wanted }) {
    const known = parseTokens(tokens as string);
    const read = wanted === "date" ? readDate : readTimestamp;
    return (given: string, format: string): Value => read(given, formatWords(format, known));
  },
});
