import type { Dialect } from "../dialects/dialect.ts";
import type { TaskId } from "../dialects/tasks/index.ts";
import { done } from "./calls-elsewhere.ts";
import { type Rule, habit } from "./habit.ts";
import { masked, operandStart, rewrittenCalls, splitOutside } from "./outside.ts";

/** A number of a unit of time, as it is written. */
interface Amount {
  readonly count: string;
  readonly unit: string;
}

const units = "year|month|week|day|hour";
const shortUnits: Readonly<Record<string, string>> = {
  yyyy: "year",
  yy: "year",
  y: "year",
  m: "month",
  mm: "month",
  ww: "week",
  d: "day",
  dd: "day",
  h: "hour",
  hh: "hour",
};

/** The unit that a word or a text of one names, in any number; undefined where it is none. */
function unitIn(written: string): string | undefined {
  const name = written.replace(/^['"]|['"]$/g, "").toLowerCase();
  const [, unit] = new RegExp(`^(${units})s?$`).exec(name) ?? [];
  return unit ?? (/^['"]/.test(written) ? shortUnits[name] : undefined);
}

/** `interval 1 month`, `interval '1 month'`, `interval '1' month`, `'+1 month'` */
function amountIn(written: string): Amount | undefined {
  const [, count, unit] =
    new RegExp(
      `^(?:interval\\s*)?['"]?\\s*\\(?([+-]?\\d+|\\$?[\\p{L}_][\\p{L}\\p{N}_]*)\\)?\\s*['"]?\\s*(${units})s?\\s*['"]?$`,
      "iu",
    ).exec(written.trim()) ?? [];
  return unit === undefined ? undefined : { count: count.replace(/^\+/, ""), unit: unit.toLowerCase() };
}

/** What a unit is counted in, and how often it goes into one. */
const counted: Readonly<Record<string, readonly [task: TaskId, slot: string, size: number]>> = {
  year: ["monthsLater", "months", 12],
  month: ["monthsLater", "months", 1],
  week: ["addDays", "days", 7],
  day: ["addDays", "days", 1],
  hour: ["hoursLater", "hours", 1],
};

/** A date so much later (`sign` 1) or earlier, as a dialect says it. */
export function moved(dialect: Dialect, date: string, { count, unit }: Amount, sign: 1 | -1): string | undefined {
  const [task, slot, size] = counted[unit];
  const isNumber = /^-?\d+$/.test(count);
  const times = isNumber ? String(Number(count) * size * sign) : size * sign === 1 ? count : `(${count} * ${size * sign})`;
  return done(dialect, task, { [slot === "hours" ? "moment" : "date"]: date, [slot]: times });
}

const said = "a date is moved otherwise here";

const hasIntervals = ({ rows }: Dialect): boolean =>
  rows.some(({ parameters }) => parameters.some(({ type }) => type === "interval"));

/** A stretch of time that is written as a text behind a sign. */
export const stretchText = new RegExp(`([+-]\\s*)(?='([+-]?\\d+)\\s*(${units})s?')`, "i");

/** d + '1 day', where such a text is no stretch of time by itself. */
const movedByText: Rule = (source, dialect) => {
  const found = stretchText.exec(source);
  if (!found) return [];
  const end = source.slice(0, found.index).trimEnd().length;
  const start = operandStart(masked(source), end);
  const amount = { count: found[2].replace("+", ""), unit: found[3].toLowerCase() };
  const meant = start === undefined ? undefined : moved(dialect, source.slice(start, end), amount, found[1][0] === "-" ? -1 : 1);
  const behind = source.slice(source.indexOf("'", source.indexOf("'", found.index) + 1) + 1);
  return [
    ...(hasIntervals(dialect)
      ? habit(source, source.replace(stretchText, "$1interval "), "interval stands before a stretch of time")
      : []),
    ...(meant === undefined ? [] : habit(source, source.slice(0, start) + meant + behind, said)),
  ];
};

/** DATE_ADD(d, INTERVAL n MONTH), DATEADD(month, n, d) and their like. */
const movedByCall: Rule = (source, dialect) =>
  habit(
    source,
    rewrittenCalls(source, "date_add|date_sub|dateadd|datesub|adddate|subdate|timestampadd", (name, inside) => {
      const sign = /sub/i.test(name) ? -1 : 1;
      const [first, second, third] = splitOutside(inside, /[,;]/).map((part) => part.trim());
      const unit = third === undefined ? undefined : unitIn(first);
      if (unit !== undefined) return moved(dialect, third, { count: second, unit }, sign);
      const last = third === undefined ? undefined : unitIn(third);
      const days = third === undefined && /^\d+$/.test(second ?? "") ? { count: second, unit: "day" } : undefined;
      const amount =
        last === undefined ? (days ?? (third === undefined ? amountIn(second ?? "") : undefined)) : { count: second, unit: last };
      return amount && moved(dialect, first, amount, sign);
    }),
    said,
  );

const asWritten: readonly ((amount: Amount) => string)[] = [
  ({ count, unit }) => `interval '${count} ${unit}'`,
  ({ count, unit }) => `interval ${count} ${unit}`,
];

/** d + INTERVAL … in the words of another language: as its literal, or as the date that is meant. */
const movedBySign: Rule = (source, dialect) => {
  const span = new RegExp(
    `([+-])\\s*interval\\s*(?:(['"])\\s*([+-]?\\d+)\\s*(?:\\2\\s*(${units})s?|(${units})s?\\s*\\2)|\\(?(\\d+|\\$?[\\p{L}_][\\p{L}\\p{N}_]*)\\)?\\s+(${units})s?)(?![\\p{L}\\p{N}_])`,
    "iu",
  );
  const found = span.exec(source);
  const end = source.slice(0, found?.index ?? 0).trimEnd().length;
  const start = found ? operandStart(masked(source), end) : undefined;
  if (!found || start === undefined) return [];
  const amount = { count: found[3] ?? found[6], unit: (found[4] ?? found[5] ?? found[7]).toLowerCase() };
  const before = source.slice(0, found.index);
  const behind = source.slice(found.index + found[0].length);
  const sign = found[1] === "-" ? -1 : 1;
  // Where there are such values, a date is all that may lack.
  const meant = hasIntervals(dialect) ? undefined : moved(dialect, source.slice(start, end), amount, sign);
  return [
    ...asWritten.flatMap((write) =>
      habit(source, `${before}${found[1]} ${write(amount)}${behind}`, "a stretch of time is written otherwise here"),
    ),
    ...(meant === undefined ? [] : habit(source, source.slice(0, start) + meant + behind, said)),
  ];
};

const between: Readonly<Record<string, TaskId>> = { day: "daysBetween", month: "wholeMonths", year: "wholeYears" };

/** DATEDIFF(unit, from, to), DATEDIF(from; to; unit) */
const unitsBetween: Rule = (source, dialect) =>
  habit(
    source,
    rewrittenCalls(source, "datediff|date_diff|timestampdiff|datedif|months_between", (name, inside) => {
      const [first, second, third] = splitOutside(inside, /[,;]/).map((part) => part.trim());
      if (/^months/i.test(name))
        return third === undefined ? done(dialect, "wholeMonths", { from: second, to: first }) : undefined;
      const unit = third === undefined ? undefined : unitIn(first);
      if (unit !== undefined) return unit in between ? done(dialect, between[unit], { from: second, to: third }) : undefined;
      const last = third === undefined ? undefined : unitIn(third);
      return last !== undefined && last in between ? done(dialect, between[last], { from: first, to: second }) : undefined;
    }),
    "what lies between two dates is counted otherwise here",
  );

const starts: Readonly<Record<string, TaskId>> = { month: "monthStart", year: "yearStart" };

/** DATE_TRUNC('month', d) */
const truncated: Rule = (source, dialect) =>
  habit(
    source,
    rewrittenCalls(source, "date_trunc|datetrunc|trunc", (_name, inside) => {
      const [first, second, more] = splitOutside(inside, /[,;]/).map((part) => part.trim());
      if (second === undefined || more !== undefined) return undefined;
      const [unit, date] = unitIn(first) === undefined ? [unitIn(second), first] : [unitIn(first), second];
      return unit !== undefined && unit in starts ? done(dialect, starts[unit], { date }) : undefined;
    }),
    "the start of a month or a year is written otherwise here",
  );

/** A duration that is written as a text, and days that are added as a number, where durations have types of their own. */
const durations: Rule = (source, { rows }) => {
  if (!rows.some(({ parameters }) => parameters.some(({ type }) => type === "dayTimeDuration!"))) return [];
  const typed = source.replace(
    /([+-]\s*)(['"])(-?P(?:\d+[YMD])*(?:T(?:[\d.]+[HMS])+)?)\2/g,
    (_, sign: string, quote: string, text: string) =>
      `${sign}xs:${/^-?P(?:\d+[YM])+$/.test(text) ? "yearMonth" : "dayTime"}Duration(${quote}${text}${quote})`,
  );
  const counted = source.replace(
    /(\bxs:date(?:Time)?\((?:[^()]|\([^()]*\))*\)\s*[+-]\s*)(\d+)(?![\d.]|\s*\*)/g,
    (_, date: string, days: string) => `${date}xs:dayTimeDuration('P${days}D')`,
  );
  return [...habit(source, typed, "a duration has a type here"), ...habit(source, counted, "days are added as a duration here")];
};

/** Dates that are moved, compared and cut in the words of other languages. */
export const datesElsewhere: readonly Rule[] = [movedByCall, movedByText, movedBySign, unitsBetween, truncated, durations];
