import type { Answers } from "../traits/index.ts";
import {
  type CalendarParts,
  Failure,
  type Moment,
  type Value,
  calendarParts,
  dateFromDays,
  daysFromDate,
  lookup,
} from "../values/index.ts";
import { calendarFields, notADate } from "./calendar.ts";
import { operation, tabled, text } from "./operation.ts";

type Field = (parts: CalendarParts) => Value;

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
const written: Readonly<Record<string, Field>> = lookup<Field>({
  ...calendarFields,
  "year of century": ({ year }) => year % 100,
  "iso year of century": (parts) => (calendarFields["iso year"](parts) as number) % 100,
  "hour of half": ({ hour }) => hour % 12 || 12,
  half: ({ hour }) => (hour % 24 < 12 ? "AM" : "PM"),
  "day with ending": ({ day }) => `${day}${day >= 10 && day <= 19 ? "th" : (["th", "st", "nd", "rd"][day % 10] ?? "th")}`,
  "weekday from Sunday": ({ weekday }) => weekday,
  "weekday from Monday": ({ weekday }) => weekday || 7,
  "week of Sundays": sundayWeek,
  "week of Mondays": weekSince(1),
  "week of four days": weekOfFourDays,
  "full week of Sundays": (parts) => sundayWeek(fullWeekDay(parts)),
  "year of full week": (parts) => fullWeekDay(parts).year,
  thousandth: ({ micro }) => Math.floor(micro / 1000),
  millionth: ({ micro }) => micro,
  billionth: ({ micro }) => micro * 1000,
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

/** What is wrong with a table of tokens. */
export function tokenFault(table: string): string | undefined {
  const entries = table.split(", ").map((entry) => ({ entry, found: entryShape.exec(entry) }));
  const formats = new Map(entries.flatMap(({ found }) => (found?.[2] === undefined ? [] : [[found[1], found[2]] as const])));
  for (const { entry, found } of entries) {
    if (!found) return `"${entry}" is no token with what it stands for, like "d day 2"`;
    const [, token, format = "", , name] = found;
    if (name !== undefined && !written[name])
      return `a date has no field "${name}"; there are ${Object.keys(written).join(", ")}`;
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
  for (const entry of table.split(", ")) {
    const [, token, format, quoted, name, form] = entryShape.exec(entry) as readonly (string | undefined)[] as string[];
    if (quoted !== undefined) tokens.set(token, () => quoted);
    else if (format !== undefined) tokens.set(token, (parts) => writeDate(parts, format, tokens, (part) => part));
    else tokens.set(token, form === undefined ? written[name] : formed(written[name], form));
  }
  tables.set(table, tokens);
  return tokens;
}

/** The tokens of a table, each with what it stands for in the words of the table. */
export function parseTokens(table: string): ReadonlyMap<string, string> {
  return new Map(table.split(", ").map((entry) => [/^\S+/.exec(entry)![0], entry.replace(/^\S+ /, "")]));
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

/** Writes a date and time by a format with tokens after %. */
export const textFromDate = operation({
  id: "text-from-date",
  family: "convert",
  summary: "writes a date and time by a format",
  slots: [
    text("date"),
    text("format"),
    tabled("tokens", "Y year 4, m month 2, d day 2, T =%H:%M, H hour 2, M minute 2", tokenFault),
  ],
  traits: ["missing", "unknownToken", "emptyFormat"],
  prepare({ unknownToken, emptyFormat }, fixed) {
    const tokens = dateTokens(fixed.tokens as string);
    return (date: string | Moment, format: string): Value => {
      if (format === "" && emptyFormat !== "empty text") return missingFormat[emptyFormat]();
      const parts = calendarParts(date);
      if (!parts) return notADate(date);
      let unknown: string | undefined;
      const result = writeDate(parts, format, tokens, (token) => {
        unknown ??= token;
        return token === "" ? "%" : token;
      });
      if (unknown === undefined || unknownToken === "itself") return result;
      return unknownToken === "null"
        ? null
        : new Failure("invalid-value", { problem: `"%${unknown}" is no directive of a date format` });
    };
  },
});

const missingFormat: Readonly<Record<Exclude<Answers<"emptyFormat">["emptyFormat"], "empty text">, () => Value>> = {
  null: () => null,
  error: () => new Failure("invalid-value", { problem: "the format is empty" }),
};
