import type { AnswerOf, Answers } from "../../traits/index.ts";
import {
  type CalendarParts,
  type Moment,
  type Value,
  bad,
  calendarParts,
  dateFromDays,
  daysFromDate,
  lookup,
} from "../../values/index.ts";
import { calendarFields, notADate } from "../calendar.ts";
import { moment, operation, optional, tabled, text } from "../operation.ts";
import { type FormatWord, type WordCase, formatWords, inCaseOf, ordinalEnding } from "./format-words.ts";
import { writeByComponents } from "./components.ts";

type Field = (parts: CalendarParts) => Value;

/** The Julian day of 1970-01-01. */
export const julianEpoch = 2_440_588;
export const romanMonths = ["I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X", "XI", "XII"];

const yearDay = ({ days, year }: CalendarParts): number => days - daysFromDate(year, 1, 1) + 1;

/** The week of the year that begins with its first Sunday or Monday; the days before are week 0. */
const weekSince =
  (weekday: 0 | 1) =>
  (parts: CalendarParts): number =>
    Math.floor((yearDay(parts) + 6 - ((parts.weekday - weekday + 7) % 7)) / 7);
const sundayWeek = weekSince(0);

/** The same by Monday, where what comes before is week 1 if it has four days of the year. */
function weekOfFourDays(parts: CalendarParts): number {
  const first = dateFromDays(daysFromDate(parts.year, 1, 1)).weekday;
  return weekSince(1)(parts) + (first >= 2 && first <= 4 ? 1 : 0);
}

/** The last day of the year before, where days before the first Sunday belong to the last week there. */
function fullWeekDay(parts: CalendarParts): CalendarParts {
  if (sundayWeek(parts) > 0) return parts;
  const days = daysFromDate(parts.year, 1, 1) - 1;
  return { ...parts, ...dateFromDays(days), days };
}

/** What may be written of a date and time, besides the fields of the calendar. */
const fields: Readonly<Record<string, Field>> = lookup<Field>({
  ...calendarFields,
  "year of century": ({ year }) => year % 100,
  "iso year of century": (parts) => (calendarFields["iso year"](parts) as number) % 100,
  "year of millennium": ({ year }) => year % 1000,
  "year of decade": ({ year }) => year % 10,
  "year with comma": ({ year }) => `${Math.floor(year / 1000)},${String(year % 1000).padStart(3, "0")}`,
  "iso year of millennium": (parts) => (calendarFields["iso year"](parts) as number) % 1000,
  "iso year of decade": (parts) => (calendarFields["iso year"](parts) as number) % 10,
  "iso day of year": (parts) => (calendarFields["iso week"](parts) as number) * 7 - 7 + (parts.weekday || 7),
  "roman month": ({ month }) => romanMonths[month - 1],
  "week of year": (parts) => Math.ceil(yearDay(parts) / 7),
  "week of month": ({ day }) => Math.ceil(day / 7),
  "julian day": ({ days }) => days + julianEpoch,
  "hour of half": ({ hour }) => hour % 12 || 12,
  half: ({ hour }) => (hour % 24 < 12 ? "AM" : "PM"),
  "half with points": ({ hour }) => (hour % 24 < 12 ? "A.M." : "P.M."),
  "second of day": ({ hour, minute, second }) => hour * 3600 + minute * 60 + second,
  "day with ending": ({ day }) => `${day}${ordinalEnding(String(day))}`,
  "weekday from Sunday": ({ weekday }) => weekday,
  "weekday from Monday": ({ weekday }) => weekday || 7,
  "weekday counted from Sunday": ({ weekday }) => weekday + 1,
  "week of Sundays": sundayWeek,
  "week of Mondays": weekSince(1),
  "week of four days": weekOfFourDays,
  "full week of Sundays": (parts) => sundayWeek(fullWeekDay(parts)),
  "year of full week": (parts) => fullWeekDay(parts).year,
  thousandth: ({ micro }) => Math.floor(micro / 1000),
  millionth: ({ micro }) => micro,
  billionth: ({ micro }) => micro * 1000,
  // All their digits, whatever takes zeros away.
  ...Object.fromEntries(
    ["tenths", "hundredths", "thousandths", "ten-thousandths", "hundred-thousandths", "millionths"].map((name, i) => [
      `digits to ${name}`,
      ({ micro }: CalendarParts) =>
        String(micro)
          .padStart(6, "0")
          .slice(0, i + 1),
    ]),
  ),
});

/** How a field is written: a width with zeros (`2`) or spaces (`_2`), three letters (`short`), in small letters (`small`). */
function formed(field: Field, form: string): Field {
  if (form === "short") return (parts) => String(field(parts)).slice(0, 3);
  if (form === "small") return (parts) => String(field(parts)).toLowerCase();
  const [fill, width] = form.startsWith("_") ? [" ", Number(form.slice(1))] : ["0", Number(form)];
  return (parts) => {
    const value = String(field(parts));
    return value.startsWith("-") ? `-${value.slice(1).padStart(width - 1, fill)}` : value.padStart(width, fill);
  };
}

/** How dates are written by a format: what each token after % stands for, in the words of a table of tokens. */
export type DateTokens = ReadonlyMap<string, Field>;

const tables = new Map<string, DateTokens>();

/** A token, and what it stands for. */
const entryShape = /^(\S+) (?:=(.+)|"(.*)"|(.+?)(?: (short|small|_?\d))?)$/;

const entriesOf = (table: string): string[] => (table === "" ? [] : table.split(", "));

/** What is wrong with a table of tokens. */
export function tokenFault(table: string): string | undefined {
  const entries = table.split(", ").map((entry) => ({ entry, found: entryShape.exec(entry) }));
  const formats = new Map(entries.flatMap(({ found }) => (found?.[2] === undefined ? [] : [[found[1], found[2]] as const])));
  for (const { entry, found } of entries) {
    if (!found) return `"${entry}" is no token with what it stands for, like "d day 2"`;
    const [, token, format = "", , name] = found;
    if (name !== undefined && !fields[name]) return `a date has no field "${name}"; there are ${Object.keys(fields).join(", ")}`;
    const [, nested] = [...format.matchAll(/%(-?[\s\S])/gu)].find(([, each]) => formats.has(each)) ?? [];
    if (nested !== undefined)
      return `"${token}" is short for a format with "%${nested}", which is short for one itself; write out what that is`;
  }
  return undefined;
}

/**
 * Reads a table of tokens: `d day 2, b month name short, T =%H:%M:%S, Z "+00"`. After the token stands a field with its
 * form, after `=` a format of such fields that it is short for, in quotes what is written as it is.
 */
export function dateTokens(table: string): DateTokens {
  const known = tables.get(table);
  if (known) return known;
  const tokens = new Map<string, Field>([["%", () => "%"]]);
  for (const entry of entriesOf(table)) {
    const [, token, format, quoted, name, form] = entryShape.exec(entry) as readonly (string | undefined)[] as string[];
    if (quoted !== undefined) tokens.set(token, () => quoted);
    else if (format !== undefined) tokens.set(token, (parts) => writeDate(parts, format, tokens, (part) => part));
    else tokens.set(token, form === undefined ? fields[name] : formed(fields[name], form));
  }
  tables.set(table, tokens);
  return tokens;
}

/** The tokens of a table, each with what it stands for in the words of the table. */
export function parseTokens(table: string): ReadonlyMap<string, string> {
  return new Map(entriesOf(table).map((entry) => [/^\S+/.exec(entry)![0], entry.replace(/^\S+ /, "")]));
}

/** A table of tokens as text. */
export const tokenTable = (tokens: Readonly<Record<string, string>>): string =>
  Object.entries(tokens)
    .map(([token, meaning]) => `${token} ${meaning}`)
    .join(", ");

/** Writes a date by a format; `unknown` says what stands for a token that there is not. */
export function writeDate(parts: CalendarParts, format: string, tokens: DateTokens, unknown: (token: string) => string): string {
  return format.replace(/%(-?[\s\S]|$)/gu, (_directive, given: string) => {
    const token = tokens.has(given) || !given.startsWith("-") ? given : "-";
    const field = tokens.get(token);
    return (field ? String(field(parts)) : unknown(token)) + given.slice(token.length);
  });
}

/** What a token stands for, taken apart; what is short for a format stands for itself among words. */
interface Meaning {
  readonly quoted: string | undefined;
  readonly name: string;
  readonly form: string;
}

const meanings = new Map<string, Meaning>();

function meaningOf(written: string): Meaning {
  const known = meanings.get(written);
  if (known) return known;
  const [, , short, quoted = short, name = "", form = ""] = entryShape.exec(`. ${written}`)!;
  const made = { quoted, name, form };
  meanings.set(written, made);
  return made;
}

/** What a word of a format gives for a date. */
function writtenWord(parts: CalendarParts, word: FormatWord, meaning: string, wordCase: WordCase): string {
  const { quoted, name, form } = meaningOf(meaning);
  const value = (quoted ?? String(fields[name](parts))).slice(0, form === "short" ? 3 : undefined);
  const isNumber = /^\d/.test(value);
  const width = word.isBare || (word.isTight && name.endsWith("name")) ? 0 : Number(form) || 0;
  if (!isNumber) return (wordCase === "words" ? inCaseOf(word.written, value) : value).padEnd(width);
  const shown = value.padStart(width, "0");
  return shown + (word.suffix === undefined || quoted !== undefined ? "" : inCaseOf(word.suffix, ordinalEnding(shown)));
}

/** Writes a date by a format of words; `unknown` says what stands for a character beside them. */
export const writeByWords = (
  parts: CalendarParts,
  format: string,
  tokens: ReadonlyMap<string, string>,
  wordCase: WordCase,
  unknown: (char: string) => string,
): string =>
  formatWords(format, tokens, wordCase)
    .map((part) =>
      "token" in part
        ? writtenWord(parts, part, tokens.get(part.token)!, wordCase)
        : part.isQuoted
          ? part.text
          : unknown(part.text),
    )
    .join("");

/** A part of a date as a format writes it. */
export interface DatePart {
  /** How it stands in the format. */
  readonly written: string;
  readonly text: string;
  /** What it stands for; left out for what stands for itself. */
  readonly field?: string;
}

/** What the parts of a format make of a date; each character that stands for itself is one. */
export function datePartsBy(date: CalendarParts, format: string, table: string, language: TokenLanguage): readonly DatePart[] {
  const known = parseTokens(table);
  const plain = (text: string): DatePart[] => [...text].map((char) => ({ written: char, text: char }));
  if (language !== "percent")
    return formatWords(format, known, language).flatMap((part): DatePart[] => {
      if (!("token" in part)) return plain(part.text);
      const meaning = known.get(part.token)!;
      return [{ written: part.source, text: writtenWord(date, part, meaning, language), field: meaningOf(meaning).name }];
    });
  const tokens = dateTokens(table);
  return [...format.matchAll(/%(-?[^]|$)|[^]/gu)].flatMap(([part, given]): readonly DatePart[] => {
    const meaning = given === undefined ? undefined : known.get(given);
    if (meaning === undefined) return plain(given || part);
    if (meaning.startsWith("=")) return datePartsBy(date, meaning.slice(1), table, language);
    return [{ written: part, text: String(tokens.get(given)!(date)), field: meaningOf(meaning).name }];
  });
}

/** Writes a date and time by a format. */
export const textFromDate = operation({
  id: "text-from-date",
  family: "convert",
  summary: "writes a date and time by a format",
  slots: [
    moment("date"),
    text("format"),
    optional(tabled("tokens", "Y year 4, m month 2, d day 2, T =%H:%M, H hour 2, M minute 2", tokenFault)),
  ],
  traits: ["missing", "formatLanguage", "unknownToken", "emptyFormat"],
  prepare({ formatLanguage, unknownToken, emptyFormat }, fixed) {
    const write =
      formatLanguage === "components" ? undefined : writerBy(formatLanguage, (fixed.tokens as string | undefined) ?? "");
    return (date: string | Moment, format: string): Value => {
      if (format === "" && emptyFormat !== "empty text") return missingFormat[emptyFormat]();
      if (!write) return writeByComponents(date, format);
      const parts = calendarParts(date);
      if (!parts) return notADate(date);
      let unknown: string | undefined;
      const result = write(parts, format, (token) => (unknown ??= token));
      if (unknown === undefined || unknownToken === "itself") return result;
      return unknownToken === "null" ? null : bad(`"${unknown}" is no directive of a date format`);
    };
  },
});

/** A language of formats whose tokens stand in a table. */
type TokenLanguage = Exclude<AnswerOf<"formatLanguage">, "components">;

type Writer = (parts: CalendarParts, format: string, found: (unknown: string) => void) => string;

/** Writes by the formats of a language, and tells of what stands for nothing in them; a mark beside words stands for itself. */
function writerBy(language: TokenLanguage, table: string): Writer {
  if (language !== "percent") {
    const words = parseTokens(table);
    return (parts, format, found) =>
      writeByWords(parts, format, words, language, (char) => {
        if (/[A-Za-z0-9]|[^ -~]/.test(char)) found(char);
        return char;
      });
  }
  const tokens = dateTokens(table);
  return (parts, format, found) =>
    writeDate(parts, format, tokens, (token) => {
      found(`%${token}`);
      return token || "%";
    });
}

const missingFormat: Readonly<Record<Exclude<Answers<"emptyFormat">["emptyFormat"], "empty text">, () => Value>> = {
  null: () => null,
  error: () => bad("the format is empty"),
};
