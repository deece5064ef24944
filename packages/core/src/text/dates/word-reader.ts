import { Failure, bad, dayNames, lookup, monthNames } from "../../values/index.ts";
import type { FormatText, FormatWord } from "./format-words.ts";
import { romanMonths } from "./text-from-date.ts";

/** A format, taken apart. */
export type Words = readonly (FormatWord | FormatText)[];

/** Patterns of letters, between which and a number before them there is no doubt where the number ends. */
const isLetters = (token: string) => /^(?:MONTH|MON|DAY|DY|RM|A\.?[MD]\.?|P\.?M\.?|B\.?C\.?|TZ|FX)$/.test(token);
const isoPattern = /^I/i;
/** Patterns that go with dates of months and of weeks alike. */
const freePattern = /^(?:HH|MI|SS|MS|US|FF|A\.?M|P\.?M|FX|TZ|Q|DAY|DY|J|CC|B\.?C|A\.?D)/i;
export const outOfRange = (text: string) => new Failure("not-a-date", { text }, undefined, "22008");

/** What is read for each field; two digits of a year are completed as they are read. */
export type Fields = Map<string, number>;

/** Reads a text by a format, the format being followed as loosely as the engine follows it (9.8.1, usage notes). */
export class Reader {
  readonly fields: Fields = new Map();
  #at = 0;
  /** Blanks passed over that the format does not ask for. */
  #extra = 0;
  #isFixed = false;
  mode: "iso" | "gregorian" | undefined;

  constructor(
    readonly text: string,
    readonly parts: Words,
  ) {}

  read(): Failure | undefined {
    for (const [i, part] of this.parts.entries()) {
      if (this.#rest === "") break;
      const isWord = "token" in part;
      if (isWord && part.token === "FX") this.#isFixed = true;
      if (!this.#isFixed && (isWord || i === 0)) this.#extra += this.#blanks();
      if (!isWord) this.#literal(part);
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
  #suffix(part: FormatWord): void {
    if (part.suffix !== undefined) for (let i = 0; i < 2 && this.#rest !== ""; i++) this.#pass();
  }

  #literal({ text, isQuoted }: FormatText): void {
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
  #number(width: number, part: FormatWord, at: number): { value: number; length: number } | Failure {
    this.#blanks();
    const next = this.parts[at + 1];
    const isOpen =
      part.isBare || part.suffix !== undefined || !next || ("token" in next ? isLetters(next.token) : !/^\d/.test(next.text));
    const wrong = (problem: string) =>
      new Failure("invalid-value", { problem: `${problem} for ${part.written}` }, undefined, "22007");
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
  #word(words: readonly string[], { written }: FormatWord): number | Failure {
    const rest = this.#rest.toLowerCase();
    const found = words.findIndex((word) => rest.startsWith(word.toLowerCase()));
    if (found < 0)
      return new Failure("invalid-value", { problem: `"${this.#rest}" has no value for ${written}` }, undefined, "22007");
    this.#at += words[found].length;
    return found;
  }

  #field(part: FormatWord, at: number): Failure | undefined {
    const key = part.token;
    if (!freePattern.test(key)) {
      const mode = isoPattern.test(key) ? "iso" : "gregorian";
      if (this.mode && this.mode !== mode) return bad("a format mixes week dates with dates of months");
      this.mode = mode;
    }
    const reading = readings[key];
    if (reading === undefined)
      return key === "TZ" ? bad("TZ is for to_char only") : new Failure("not-covered", { what: `the format ${part.written}` });
    if (reading.isHalf) {
      const failure = this.#set("half day", 1);
      if (failure) return failure;
    }
    if (reading.also) this.fields.set(...reading.also);
    if (reading.words) {
      const found = this.#word(reading.words, part);
      // A weekday is kept counted from 1, and compared counted from 0.
      const value = typeof found === "number" ? reading.value(found, 0) : found;
      return value instanceof Failure
        ? value
        : this.#set(reading.field, value, reading.field === "weekday" ? (found as number) : value);
    }
    if (key === "Y,YYY") return this.#yearWithComma(part);
    if (reading.width === 0) return undefined;
    const read = this.#number(reading.width, part, at);
    if (read instanceof Failure) return read;
    this.#suffix(part);
    return reading.field === "" ? undefined : this.#set(reading.field, reading.value(read.value, read.length), read.value);
  }

  #yearWithComma(part: FormatWord): Failure | undefined {
    const found = /^[ \t\n\v\f\r]*([+-]?\d+),([ \t\n\v\f\r]*\d{1,3})/.exec(this.#rest);
    if (!found) return bad(`"${this.#rest}" is not like Y,YYY`);
    this.#at += found[0].length;
    this.#suffix(part);
    return this.#set("year", Number(found[1]) * 1000 + Number(found[2]));
  }
}

/** How a word of a format is read. */
interface Reading {
  /** What it is kept as; "" where it is read and not kept. */
  readonly field: string;
  /** How wide its number is where another follows at once; 0 where nothing is read. */
  readonly width: number;
  /** The words that may stand there, where it is no number. */
  readonly words?: readonly string[];
  /** What is kept of a number so long, or of the place of a word. */
  readonly value: (value: number, length: number) => number;
  /** Whether the hour is then one of 12. */
  readonly isHalf?: true;
  /** What else is known then. */
  readonly also?: readonly [field: string, value: number];
}

const asRead = (value: number): number => value;
const oneMore = (place: number): number => place + 1;
const short = (names: readonly string[]): readonly string[] => names.map((name) => name.slice(0, 3));

const number = (field: string, width: number, value: Reading["value"] = asRead): Reading => ({ field, width, value });
const word = (field: string, words: readonly string[], value: Reading["value"] = asRead): Reading => ({
  field,
  width: 0,
  words,
  value,
});
const year = (digits: number): Reading => ({
  ...number("year", digits, digits < 4 ? (value, length) => (length < 4 ? fullYear(value) : value) : asRead),
  also: ["year digits", digits],
});
const half = (...words: readonly string[]): Reading => ({ ...word("pm", words), isHalf: true });
const micros: Reading["value"] = (value, length) => value * 10 ** Math.max(0, 6 - length);

/** How the words of a format are read. */
const readings: Readonly<Record<string, Reading | undefined>> = lookup<Reading>({
  FX: number("", 0),
  "A.M.": half("a.m.", "p.m."),
  "P.M.": half("a.m.", "p.m."),
  AM: half("am", "pm"),
  PM: half("am", "pm"),
  "A.D.": word("bc", ["a.d.", "b.c."]),
  "B.C.": word("bc", ["a.d.", "b.c."]),
  AD: word("bc", ["ad", "bc"]),
  BC: word("bc", ["ad", "bc"]),
  MONTH: word("month", monthNames, oneMore),
  MON: word("month", short(monthNames), oneMore),
  RM: word("month", romanMonths.toReversed(), (place) => 12 - place),
  MM: number("month", 2),
  DAY: word("weekday", dayNames, oneMore),
  DY: word("weekday", short(dayNames), oneMore),
  D: number("weekday", 1),
  ID: number("weekday", 1, (value) => (value < 7 ? value + 1 : 1)),
  DD: number("day", 2),
  DDD: number("day of year", 3),
  IDDD: number("day of year", 3),
  WW: number("week", 2),
  IW: number("week", 2),
  W: number("week of month", 1),
  Q: number("", 1),
  CC: number("century", 2),
  J: number("julian", 1),
  HH: { ...number("hour", 2), isHalf: true },
  HH12: { ...number("hour", 2), isHalf: true },
  HH24: number("hour", 2),
  MI: number("minute", 2),
  SS: number("second", 2),
  SSSS: number("seconds", 4),
  SSSSS: number("seconds", 5),
  MS: number("milliseconds", 3, (value, length) => value * (length === 1 ? 100 : length === 2 ? 10 : 1)),
  US: number("microseconds", 6, micros),
  ...Object.fromEntries(
    [1, 2, 3, 4, 5, 6].map((digits) => [
      `FF${digits}`,
      { ...number("microseconds", digits, micros), also: ["second digits", digits] },
    ]),
  ),
  "Y,YYY": year(4),
  YYYY: year(4),
  IYYY: year(4),
  YYY: year(3),
  IYY: year(3),
  YY: year(2),
  IY: year(2),
  Y: year(1),
  I: year(1),
});

/** A year of up to three digits, completed to lie near 2020. */
const fullYear = (year: number): number =>
  year < 70 ? year + 2000 : year < 100 ? year + 1900 : year < 520 ? year + 2000 : year < 1000 ? year + 1000 : year;
