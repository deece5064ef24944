import type { IntervalForm, Value } from "../../values/index.ts";
import type { Code, Likeness } from "../dialect.ts";
import type { FunctionRow } from "../row.ts";
import { step } from "../step.ts";
import { strict } from "./code.ts";
import { directions } from "./intervals.ts";
import { codedRows, steppedRows } from "./rows.ts";

const missing = "null";

/** What is calculated with dates and numbers of days, the days between two dates being of the type `days`. */
export const dayRows = (days: string, evidence: string): FunctionRow[] => [
  ...steppedRows([
    [
      `-(left date > to, right date > from): ${days}`,
      "convert",
      "The days between two dates.",
      evidence,
      step("units-between", { missing, unitsBetween: "borders" }, { unit: "day" }),
    ],
  ]),
  ...codedRows([
    ["+(date date, days integer): date", "convert", "A date some days later.", evidence, "add days"],
    ["+(days integer, date date): date", "convert", "A date some days later.", evidence, "days added"],
    ["-(date date, days integer): date", "convert", "A date some days earlier.", evidence, "subtract days"],
  ]),
];

/** The code of these rows, by what gives the date some days later; `form` is how a stretch of time is shown. */
export function dayCode(form: IntervalForm, dayAt: (date: string, days: number) => Value): Readonly<Record<string, Code>> {
  const span = { ...step("interval-of", { missing }, { form, unit: "day" }), slot: "interval", slots: ["count"] };
  const moved = (sign: keyof typeof directions, slots: Likeness["slots"]): Likeness => ({
    ...step(
      "add-to-date",
      { missing, dayBeyond: "the last day", timeAdded: "a date", clockDigits: "as many as it has", noSuchDate: "error" },
      { direction: directions[sign] },
    ),
    slots,
  });
  return {
    "add days": { like: moved("+", ["date", span]), ...strict(dayAt) },
    "days added": { like: moved("+", [span, "date"]), ...strict((days: number, date: string) => dayAt(date, days)) },
    "subtract days": { like: moved("-", ["date", span]), ...strict((date: string, days: number) => dayAt(date, -days)) },
  };
}
