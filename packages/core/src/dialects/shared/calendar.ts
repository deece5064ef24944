import type { Answers } from "../../traits/index.ts";
import type { FunctionRow } from "../row.ts";
import { step } from "../step.ts";
import { type Stepped, steppedRows } from "./rows.ts";

interface Calendar {
  /** The type of the date that is given. */
  readonly type: string;
  readonly result: string;
  /** The type of names of days and months. */
  readonly text: string;
  readonly evidence: string;
  readonly missing: Answers<"missing">["missing"];
}

/** Functions that give a field of a date, by the field; and those that number its day of the week, by how. */
export function calendarRows(
  named: Readonly<Record<string, string>>,
  weekdays: Readonly<Record<string, Answers<"weekdays">["weekdays"]>>,
  { type, result, text, evidence, missing }: Calendar,
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
  ]);
}
