import type { AnswerOf } from "../../traits/index.ts";
import { Failure, asciiTrimmed, bad, dayNames, lookup, monthNames } from "../../values/index.ts";

const digits = (most: number): RegExp => new RegExp(`^\\d{1,${most}}`);

/** The fields that are read, by the words of a table of tokens: their digits, or the names that may stand there. */
const shapes: Readonly<Record<string, RegExp | "months" | "days">> = lookup<RegExp | "months" | "days">({
  year: digits(4),
  "year of century": digits(2),
  month: digits(2),
  "month name": "months",
  day: digits(2),
  "day with ending": digits(2),
  "day of year": digits(3),
  "day name": "days",
  "weekday from Sunday": /^[0-6]/,
  "weekday from Monday": /^[1-7]/,
  hour: digits(2),
  "hour of half": digits(2),
  half: /^[ap]m/i,
  minute: digits(2),
  second: digits(2),
  thousandth: digits(3),
  millionth: digits(6),
  "week of Sundays": digits(2),
  "week of four days": digits(2),
  "full week of Sundays": digits(2),
  "iso week": digits(2),
  "iso year": digits(4),
  "year of full week": digits(4),
});

const blanks = /^[ \t\n\v\f\r]+/;

/** What has been read: the digits of each field, or the number of its name. */
export type Found = Map<string, string>;

/** Names in small letters, and the first three of each. */
const namesOf = (all: readonly string[]) => {
  const whole = all.map((name) => name.toLowerCase());
  return { whole, short: whole.map((name) => name.slice(0, 3)) };
};
const names = { months: namesOf(monthNames), days: namesOf(dayNames) };

/** Which name is meant, counted from 1: one that is written in full, or the only one that begins so; 0 for none. */
function clearName(begin: string, all: readonly string[]): number {
  const found = all.flatMap((name, i) => (name.startsWith(begin) ? [i + 1] : []));
  return found.find((number) => all[number - 1] === begin) ?? (found.length === 1 ? found[0] : 0);
}

/** A name at the start of a text: its number, counted from 1, and its size. */
const nameBy: Readonly<
  Record<AnswerOf<"nameBeginnings">, (text: string, all: readonly string[]) => readonly [number: number, size: number]>
> = {
  refused: (text, all) => {
    const start = text.slice(0, longestName).toLowerCase();
    const at = all.findIndex((name) => start.startsWith(name));
    return [at + 1, all[at]?.length ?? 0];
  },
  read: (text, all) => {
    const [written = ""] = /^\p{L}+/u.exec(text) ?? [];
    return written === "" ? [0, 0] : [clearName(written.toLowerCase(), all), written.length];
  },
};
const longestName = 9;

export interface Rules {
  readonly spaces: AnswerOf<"formatSpaces">;
  readonly rest: AnswerOf<"restOfText">;
  readonly names: AnswerOf<"nameBeginnings">;
  readonly halves: AnswerOf<"halfOfDay">;
  readonly doubled: AnswerOf<"doubledSign">;
  readonly leftOut: AnswerOf<"partsLeftOut">;
}

/** Why a format cannot be read, whatever the text. */
export const badFormat = (problem: string): Failure => bad(problem);

/** A part of a format: a field with its form, a character, what stands for nothing, or the end of what a token is short for. */
export type Part =
  { readonly field: string; readonly form?: string } | { readonly char: string } | { readonly is: "unknown" | "start" | "end" };

/** The parts of a format, the formats that its tokens are short for written out. */
export function partsOf(
  format: string,
  tokens: ReadonlyMap<string, string>,
  unknown: AnswerOf<"unknownToken">,
  doubled: Rules["doubled"],
): readonly Part[] | Failure {
  const parts: Part[] = [];
  for (const [part, given] of format.matchAll(/%(-?[^]|$)|[^]/gu)) {
    const meaning = given === undefined ? undefined : tokens.get(given);
    if (given === undefined) parts.push({ char: part });
    else if (given === "%" ? doubled === "one sign" : given === "" && unknown !== "error") parts.push({ char: "%" });
    else if (meaning?.startsWith("=")) {
      const inner = partsOf(meaning.slice(1), tokens, unknown, doubled);
      if (inner instanceof Failure) return inner;
      parts.push({ is: "start" }, ...inner, { is: "end" });
    } else if (meaning !== undefined) {
      const [, field, form] = /^(.+?)(?: (short|small|_?\d))?$/.exec(meaning)!;
      if (!(field in shapes)) return new Failure("not-covered", { what: `%${given} when a date is read` });
      parts.push({ field, ...(form && { form }) });
    } else if (unknown === "itself") parts.push(...[...given].map((char) => ({ char })));
    else if (unknown === "null" || given === "%") parts.push({ is: "unknown" });
    else return badFormat(given === "" ? "a % ends the date format" : `"${part}" is no directive of a date format`);
  }
  return parts;
}

/** The greatest number of a field that is looked at as it is read, where there must be such a day. */
const limits: Readonly<Record<string, number | undefined>> = { month: 12, day: 31, hour: 23, minute: 59, second: 59 };

/** The fields that number weeks. */
export const weeks: ReadonlySet<string> = new Set(["week of Sundays", "week of four days", "full week of Sundays", "iso week"]);

/** The year that goes with a week that has one of its own. */
export const yearsOfWeeks: Readonly<Record<string, string | undefined>> = {
  "full week of Sundays": "year of full week",
  "iso week": "iso year",
};

/** Reads the parts of a format one by one. */
export class Reader {
  readonly found: Found = new Map();
  /** Whether the hour is one of 12. */
  isHalf = false;
  #rest: string;
  #isAfterBlank = false;
  /** Whether it was before what a token is short for. */
  #wasHalf = false;

  constructor(
    given: string,
    readonly rules: Rules,
  ) {
    this.#rest = given.replace(blanks, "");
  }

  /** Whether a text fits the parts of a format. */
  fits(parts: readonly Part[]): boolean {
    const isOpen = this.rules.spaces === "any";
    const mayEnd = this.rules.rest === "passed over";
    for (const part of parts) {
      if (isOpen) this.#rest = this.#rest.replace(blanks, "");
      if (this.#rest === "" && mayEnd && !("is" in part && part.is === "end")) break;
      const isRead =
        "char" in part ? this.#char(part.char, isOpen) : "is" in part ? this.#other(part.is) : this.#field(part.field, part.form);
      if (!isRead) return false;
      this.#isAfterBlank = "char" in part && blanks.test(part.char);
    }
    return mayEnd || asciiTrimmed(this.#rest) === "";
  }

  #take(size: number): true {
    this.#rest = this.#rest.slice(size);
    return true;
  }

  #keep(field: string, value: string): true {
    // Behind all that has been read.
    this.found.delete(field);
    this.found.set(field, value);
    return true;
  }

  #char(char: string, isOpen: boolean): boolean {
    const isBlank = blanks.test(char);
    if (isBlank && (isOpen || this.#isAfterBlank)) return true;
    if (!this.#rest.startsWith(char)) return false;
    this.#take(char.length);
    if (isBlank) this.#rest = this.#rest.replace(blanks, "");
    return true;
  }

  /** What a token is short for has its own half of the day. */
  #other(is: "unknown" | "start" | "end"): boolean {
    if (is === "unknown") return false;
    if (is === "start") {
      [this.#wasHalf, this.isHalf] = [this.isHalf, false];
      return true;
    }
    const isHalf = this.isHalf;
    const hour = this.hour();
    this.isHalf = this.#wasHalf;
    if (!isHalf) return true;
    this.found.delete("half");
    return hour !== undefined && this.#keep("hour", String(hour));
  }

  #field(field: string, form: string | undefined): boolean {
    const shape = shapes[field];
    if (!(shape instanceof RegExp)) return this.#name(shape, form);
    const [written] = shape.exec(this.#rest) ?? [];
    if (written === undefined) return false;
    const isStrict = this.rules.leftOut !== "zero";
    const number = Number(written);
    switch (field) {
      case "half":
        if (this.rules.halves === "refused" && !this.isHalf) return false;
        return this.#keep("half", written.toLowerCase()) && this.#take(2);
      case "hour of half":
        if (isStrict && (number < 1 || number > 12)) return false;
        this.isHalf = true;
        return this.#keep("hour", written) && this.#take(written.length);
      case "thousandth":
      case "millionth":
        return this.#keep("fraction", written) && this.#take(written.length);
      case "day with ending":
        // Two characters end it, whatever they are.
        this.#keep("day", written);
        return this.#take(written.length + /^[^]{0,2}/u.exec(this.#rest.slice(written.length))![0].length);
      case "day of year":
        if (isStrict && (number < 1 || number > 366 || this.found.has(field))) return false;
    }
    if (
      weeks.has(field) ? number > 53 || (number === 0 && field in yearsOfWeeks) : isStrict && number > (limits[field] ?? Infinity)
    )
      return false;
    return this.#keep(field, written) && this.#take(written.length);
  }

  #name(of: "months" | "days", form: string | undefined): boolean {
    const [number, size] = nameBy[this.rules.names](this.#rest, names[of][form === "short" ? "short" : "whole"]);
    if (number === 0) return false;
    const isMonth = of === "months";
    return this.#keep(isMonth ? "month name" : "weekday from Sunday", String(isMonth ? number : number - 1)) && this.#take(size);
  }

  /** The hour; undefined where it is none of 12, or of 24. */
  hour(): number | undefined {
    const hour = Number(this.found.get("hour") ?? 0);
    const half = this.found.get("half");
    if (this.rules.halves === "counts" ? half === undefined : !this.isHalf) return hour > 23 ? undefined : hour;
    if (hour > 12 || (hour === 0 && this.isHalf)) return undefined;
    return (hour % 12) + (half === "pm" ? 12 : 0);
  }
}
