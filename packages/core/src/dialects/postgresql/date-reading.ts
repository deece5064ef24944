import {
  Failure,
  type Value,
  dateFromDays,
  dayNames,
  daysFromDate,
  isDate,
  isoDate,
  lookup,
  monthNames,
} from "../../values/index.ts";
import { bad } from "../shared/code.ts";
import { type Part, julianEpoch, partsOf, romanMonths } from "./date-patterns.ts";

/** How wide a number is that another follows at once, where it is not as wide as its pattern. */
const widths: Readonly<Record<string, number>> = lookup({
  ...Object.fromEntries([1, 2, 3, 4, 5, 6].map((digits) => [`FF${digits}`, digits])),
  HH24: 2,
  HH12: 2,
  MS: 3,
  US: 6,
});
/** Patterns of letters, between which and a number before them there is no doubt where the number ends. */
const isLetters = (pattern: string) => /^(?:MONTH|MON|DAY|DY|RM|A\.?[MD]\.?|P\.?M\.?|B\.?C\.?|TZ|FX)$/i.test(pattern);
const isoPattern = /^I/i;
/** Patterns that go with dates of months and of weeks alike. */
const freePattern = /^(?:HH|MI|SS|MS|US|FF|A\.?M|P\.?M|FX|TZ|Q|DAY|DY|J|CC|B\.?C|A\.?D)/i;
const outOfRange = (text: string) => new Failure("not-a-date", { text }, undefined, "22008");

/** What is read for each field; two digits of a year are completed as they are read. */
type Fields = Map<string, number>;

/** Reads a text by a format, the format being followed as loosely as the engine follows it (9.8.1, usage notes). */
class Reader {
  readonly fields: Fields = new Map();
  #at = 0;
  /** Blanks passed over that the format does not ask for. */
  #extra = 0;
  #isFixed = false;
  mode: "iso" | "gregorian" | undefined;

  constructor(
    readonly text: string,
    readonly parts: readonly Part[],
  ) {}

  read(): Failure | undefined {
    for (const [i, part] of this.parts.entries()) {
      if (this.#rest === "") break;
      if (part.pattern?.toUpperCase() === "FX") this.#isFixed = true;
      if (!this.#isFixed && (part.pattern !== undefined || i === 0)) this.#extra += this.#blanks();
      if (part.pattern === undefined) this.#literal(part);
      else {
        const failure = this.#field(part, i);
        if (failure) return failure;
        if (!this.#isFixed) this.#extra = this.#blanks();
      }
    }
    return undefined;
  }

  get #rest(): string {
    return this.text.slice(this.#at);
  }

  #blanks(): number {
    const { length } = /^[ \t\n\v\f\r]*/.exec(this.#rest)![0];
    this.#at += length;
    return length;
  }

  /** A character passed over, whatever it is. */
  #pass(): void {
    this.#at += String.fromCodePoint(this.text.codePointAt(this.#at) ?? 0).length;
  }

  /** The two letters of an ordinal. */
  #suffix(part: Part): void {
    if (part.suffix !== undefined) for (let i = 0; i < 2 && this.#rest !== ""; i++) this.#pass();
  }

  #literal({ text = "", isQuoted }: Part): void {
    for (const char of text) {
      if (this.#rest === "") return;
      const isSeparator = !isQuoted && /[ \t\n\v\f\r!-/:-@[-`{-~]/.test(char);
      if (this.#isFixed) this.#pass();
      else if (isSeparator) {
        this.#extra--;
        if (/^[ \t\n\v\f\r!-/:-@[-`{-~]/.test(this.#rest)) {
          this.#pass();
          this.#extra++;
        }
      } else if (this.#extra > 0) this.#extra--;
      else this.#pass();
    }
  }

  /** Keeps `value` for a field; what is `written` a second time must be what was kept, as the engine has it. */
  #set(name: string, value: number, written = value): Failure | undefined {
    const known = this.fields.get(name);
    if (known !== undefined && known !== 0 && known !== written) return bad(`the format gives two values for ${name}`);
    this.fields.set(name, value);
    return undefined;
  }

  /** Reads a number of so many digits, or of as many as there are where nothing of the format follows at once. */
  #number(width: number, part: Part, at: number): { value: number; length: number } | Failure {
    this.#blanks();
    const next = this.parts[at + 1];
    const isOpen =
      part.isBare ||
      part.suffix !== undefined ||
      !next ||
      (next.pattern !== undefined ? isLetters(next.pattern) : !/^\d/.test(next.text ?? ""));
    const wrong = (problem: string) =>
      new Failure("invalid-value", { problem: `${problem} for ${part.pattern}` }, undefined, "22007");
    if (!isOpen && this.#rest.length < width) return wrong(`"${this.#rest}" is too short`);
    const found = /^[ \t\n\v\f\r]*[+-]?\d+/.exec(isOpen ? this.#rest : this.#rest.slice(0, width))?.[0] ?? "";
    if (found === "" || (!isOpen && found.length < width))
      return wrong(`"${this.#rest.slice(0, width)}" is no number of ${width} digits`);
    this.#at += found.length;
    const value = Number(found);
    if (Math.abs(value) > 2147483647) return outOfRange(this.text);
    return { value, length: found.length };
  }

  /** Reads one of some words, whatever their case; its place among them. */
  #word(words: readonly string[], { pattern }: Part): number | Failure {
    const rest = this.#rest.toLowerCase();
    const found = words.findIndex((word) => rest.startsWith(word.toLowerCase()));
    if (found < 0)
      return new Failure("invalid-value", { problem: `"${this.#rest}" has no value for ${pattern}` }, undefined, "22007");
    this.#at += words[found].length;
    return found;
  }

  #field(part: Part, at: number): Failure | undefined {
    const key = part.pattern!.toUpperCase();
    if (!freePattern.test(key)) {
      const mode = isoPattern.test(key) ? "iso" : "gregorian";
      if (this.mode && this.mode !== mode) return bad("a format mixes week dates with dates of months");
      this.mode = mode;
    }
    const number = (name: string, scale: (value: number, length: number) => number = (value) => value) => {
      const read = this.#number(widths[key] ?? key.length, part, at);
      if (read instanceof Failure) return read;
      this.#suffix(part);
      return name === "" ? undefined : this.#set(name, scale(read.value, read.length), read.value);
    };
    const word = (name: string, words: readonly string[], value: (place: number) => number) => {
      const found = this.#word(words, part);
      return found instanceof Failure ? found : this.#set(name, value(found), name === "weekday" ? found : value(found));
    };
    switch (key) {
      case "FX":
        return undefined;
      case "A.M.":
      case "P.M.":
        return this.#set("half day", 1) ?? word("pm", ["a.m.", "p.m."], (i) => i);
      case "AM":
      case "PM":
        return this.#set("half day", 1) ?? word("pm", ["am", "pm"], (i) => i);
      case "A.D.":
      case "B.C.":
        return word("bc", ["a.d.", "b.c."], (i) => i);
      case "AD":
      case "BC":
        return word("bc", ["ad", "bc"], (i) => i);
      case "MONTH":
        return word("month", monthNames, (i) => i + 1);
      case "MON":
        return word(
          "month",
          monthNames.map((name) => name.slice(0, 3)),
          (i) => i + 1,
        );
      case "RM":
        return word("month", romanMonths.toReversed(), (i) => 12 - i);
      case "DAY":
        return word("weekday", dayNames, (i) => i + 1);
      case "DY":
        return word(
          "weekday",
          dayNames.map((name) => name.slice(0, 3)),
          (i) => i + 1,
        );
      case "HH":
      case "HH12":
        return this.#set("half day", 1) ?? number("hour");
      case "HH24":
        return number("hour");
      case "MI":
        return number("minute");
      case "SS":
        return number("second");
      case "SSSS":
      case "SSSSS":
        return number("seconds");
      case "MS":
        return number("milliseconds", (value, length) => value * (length === 1 ? 100 : length === 2 ? 10 : 1));
      case "US":
      case "FF1":
      case "FF2":
      case "FF3":
      case "FF4":
      case "FF5":
      case "FF6":
        return number("microseconds", (value, length) => value * 10 ** Math.max(0, 6 - length));
      case "MM":
        return number("month");
      case "DD":
        return number("day");
      case "DDD":
      case "IDDD":
        return number("day of year");
      case "D":
        return number("weekday");
      case "ID":
        return number("weekday", (value) => (value < 7 ? value + 1 : 1));
      case "WW":
      case "IW":
        return number("week");
      case "W":
        return number("week of month");
      case "Q":
        return number("");
      case "CC":
        return number("century");
      case "J":
        return number("julian");
      case "Y,YYY": {
        const found = /^[ \t\n\v\f\r]*([+-]?\d+),([ \t\n\v\f\r]*\d{1,3})/.exec(this.#rest);
        if (!found) return bad(`"${this.#rest}" is not like Y,YYY`);
        this.#at += found[0].length;
        this.#suffix(part);
        this.fields.set("year digits", 4);
        return this.#set("year", Number(found[1]) * 1000 + Number(found[2]));
      }
      case "YYYY":
      case "IYYY":
        this.fields.set("year digits", 4);
        return number("year");
      case "YYY":
      case "IYY":
      case "YY":
      case "IY":
      case "Y":
      case "I":
        this.fields.set("year digits", key.length);
        return number("year", (value, length) => (length < 4 ? fullYear(value) : value));
    }
    return key === "TZ" ? bad("TZ is for to_char only") : new Failure("not-covered", { what: `the format ${part.pattern}` });
  }
}

/** A year of up to three digits, completed to lie near 2020. */
const fullYear = (year: number): number =>
  year < 70 ? year + 2000 : year < 100 ? year + 1900 : year < 520 ? year + 2000 : year < 1000 ? year + 1000 : year;

/** A day of an ISO week, with 1 for Sunday as the last. */
const isoWeekDay = (year: number, week: number, weekday: number): number => {
  const fourth = daysFromDate(year, 1, 4);
  return fourth - ((dateFromDays(fourth).weekday + 6) % 7) + (week - 1) * 7 + (weekday > 1 ? weekday - 2 : 6);
};

/** to_date and to_timestamp: the moment that a text gives by a format, as `date time`. */
function readMoment(text: string, format: string, lastYear: number): { date: string; time: string; era: string } | Failure {
  const parts = partsOf(format).flatMap((part): Part[] =>
    part.text === undefined || part.isQuoted ? [part] : [...part.text].map((char) => ({ text: char })),
  );
  const reader = new Reader(text, parts);
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
  const fraction = String(micros).padStart(6, "0").replace(/0+$/, "");
  const two = (value: number) => String(value).padStart(2, "0");
  return { ...day, time: `${two(hour)}:${two(minute)}:${two(second)}${fraction && `.${fraction}`}` };
}

/** The date that the fields give together. */
function dayOf(fields: Fields, isIso: boolean, text: string, lastYear: number): { date: string; era: string } | Failure {
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
  from(days);
  return { date: isoDate(year < 1 ? 1 - year : year, month, day), era: year < 1 ? " BC" : "" };
}

/** to_date; a date has a year up to 5874897 (8.5). */
export function readDate(text: string, format: string): Value {
  const moment = readMoment(text, format, 5_874_897);
  return moment instanceof Failure ? moment : moment.date + moment.era;
}

/** to_timestamp, in UTC; its year is at most 294276 (8.5). */
export function readTimestamp(text: string, format: string): Value {
  const moment = readMoment(text, format, 294_276);
  return moment instanceof Failure ? moment : `${moment.date} ${moment.time}+00${moment.era}`;
}
