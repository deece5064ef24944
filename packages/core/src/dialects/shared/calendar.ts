import type { AnswerOf } from "../../traits/index.ts";
import type { FunctionRow } from "../row.ts";
import type { Code } from "../dialect.ts";
import { type Step, step } from "../step.ts";
import { type Stepped, steppedRows } from "./rows.ts";

interface Calendar {
  /** The type of the date that is given. */
  readonly type: string;
  readonly result: string;
  /** The type of names of days and months. */
  readonly text: string;
  readonly evidence: string;
}

/** Words of formats for halves of the day, and for eras; AD stands for what any year here is. */
export const halvesAndEras = {
  AM: "half",
  PM: "half",
  "A.M.": "half with points",
  "P.M.": "half with points",
  AD: '"AD"',
  BC: '"AD"',
  "A.D.": '"A.D."',
  "B.C.": '"A.D."',
} as const;

const missing = "null" as const;
const isoWeek = step("week-of-year", { missing, weeks: "ISO 8601" });

/** What stands for a field that is named by a constant, the date behind it. */
const fieldSteps: Readonly<Record<string, Step>> = {
  ...Object.fromEntries(
    ["year", "quarter", "month", "day", "hour", "minute"].map((field) => [field, step("calendar-field", { missing }, { field })]),
  ),
  doy: step("calendar-field", { missing }, { field: "day of year" }),
  week: isoWeek,
  dow: step("weekday", { missing, weekdays: "Sunday 0" }),
  isodow: step("weekday", { missing, weekdays: "Monday 1" }),
};

/** What EXTRACT of a field comes to, where that is written; `named` brings names of fields together. */
export const extractLike =
  (named: (name: string) => string, own: Readonly<Record<string, Step>> = {}): Code["like"] =>
  (constant) => {
    const name = constant(0);
    const found = typeof name === "string" ? { ...fieldSteps, ...own }[named(name)] : undefined;
    return found && { ...found, slots: [null, "date"] };
  };

/** Functions that give a field of a date, by the field; those that number its day of the week, and its week, by how. */
export function calendarRows(
  named: Readonly<Record<string, string>>,
  weekdays: Readonly<Record<string, AnswerOf<"weekdays">>>,
  weeks: Readonly<Record<string, AnswerOf<"weeks">>>,
  { type, result, text, evidence }: Calendar,
): FunctionRow[] {
  const date = `date ${type}`;
  return steppedRows([
    ...Object.entries(named).map(([name, field]): Stepped => {
      const summary = `The ${field.replace("iso", "ISO")} of a date.`;
      const of = field.endsWith("name") ? text : result;
      return [`${name}(${date}): ${of}`, "convert", summary, evidence, step("calendar-field", { missing }, { field })];
    }),
    ...Object.entries(weekdays).map(([name, how]): Stepped => {
      const summary = `The number of the day of the week, ${how.replace(/^(\w+) (\d)$/, "$2 for $1")}.`;
      return [`${name}(${date}): ${result}`, "convert", summary, evidence, step("weekday", { missing, weekdays: how })];
    }),
    ...Object.entries(weeks).map(([name, how]): Stepped => {
      const summary = "The number of the week in the year.";
      return [`${name}(${date}): ${result}`, "convert", summary, evidence, step("week-of-year", { missing, weeks: how })];
    }),
  ]);
}
