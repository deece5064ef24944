import { Decimal, Double, Failure, type Value, bad, lookup } from "../../values/index.ts";
import { marked } from "../../text/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { step } from "../step.ts";
import { amountOf, dayOf, isTimeUnit, isUnit, momentOf, shifted } from "./moments.ts";
import { fractionDigits, numericDigits, withDigits } from "./second-digits.ts";
import { toInteger, toText } from "./steps.ts";
import type { Type } from "../types.ts";

/** A date in which the month or the day is zero is one there. */
export const zeroPart = (date: Value): Failure => new Failure("not-covered", { what: `dates like ${String(date)}` });

export const secondsOf = ({ hour, minute, second }: marked.Moment): number => hour * 3600 + minute * 60 + second;
export const microsOf = (moment: marked.Moment): number => dayOf(moment) * 86_400e6 + secondsOf(moment) * 1e6 + moment.micro;

/** So many of a unit as a stretch of time. */
const amountLike = {
  ...step("interval-of", { missing: "null" }, { form: "1 month" }),
  slot: "interval",
  slots: ["count", "unit"],
};
const opposite = step(
  "scale-interval",
  { missing: "null", partsOfMonths: "rounded", byZero: "error" },
  { does: "times", factor: -1 },
);

/** date_add() and date_sub(): of a date a date unless the unit is one of time, of a text a text. */
export const shift = (direction: 1 | -1): Code => ({
  strict: true,
  reads: {
    0: step(
      "moment-of",
      { missing: "null", dateForms: "any marks", clockOfDate: "kept", notADate: "null" },
      { wanted: "date", from: "text" },
    ),
  },
  like: {
    ...step(
      "add-to-date",
      {
        missing: "null",
        dayBeyond: "the last day",
        timeAdded: "a date, with hours a time",
        clockDigits: "six",
        noSuchDate: "null",
      },
      { direction: "later" },
    ),
    slots: ["date", direction === 1 ? amountLike : { ...opposite, slot: "interval", slots: [amountLike] }],
  },
  run: ([value, amount, unitName], context) => shiftBy(value, amount, unitName as string, direction, context, [0, 1]),
});

export function shiftBy(
  value: Value,
  amount: Value,
  unitName: string,
  direction: 1 | -1,
  context: CodeContext,
  [valuePlace, amountPlace]: readonly [number, number],
): Value {
  // Of a number beyond 63 bits only these units take the bits as they are; a text's are always taken.
  if (typeof amount === "bigint" && amount >= 2n ** 63n && !["year", "month", "microsecond"].includes(unitName)) return null;
  const isTime = context.types[valuePlace].name === "time" || isClock(value, context.types[valuePlace]);
  // A number counts rounded, but for seconds; a text by the digits that it begins with.
  const isRounded = unitName !== "second" && !unitName.includes("_") && (amount instanceof Decimal || amount instanceof Double);
  const count = toText(isRounded ? toInteger(amount) : amount) as string;
  const result = isTime ? shiftTime(value as string, count, unitName, direction) : shiftText(value, count, unitName, direction);
  if (typeof result !== "string") return result;
  const ofUnit = /micro/.test(unitName) ? 6 : unitName === "second" ? numericDigits(amount, context.types[amountPlace]) : 0;
  return withDigits(result, Math.max(fractionDigits(valuePlace, context, value), ofUnit));
}

/** Whether what was read by a format is a time without a date. */
const isClock = (value: Value, type: Type): boolean =>
  type.name === "datetime" && typeof value === "string" && /^-?\d+:/.test(value);

function shiftTime(text: string, amount: string, unitName: string, direction: 1 | -1): Value {
  const change = amountOf(amount, unitName);
  if (!change || change.months !== 0) return new Failure("not-covered", { what: "the current date" });
  return marked.spanText(marked.readTime(text)! + direction * (change.days * 86_400e6 + change.micro));
}

function shiftText(value: Value, amount: string, unitName: string, direction: 1 | -1): Value {
  if (!isUnit(unitName)) return bad(`"${unitName}" is no unit of time`);
  const given = toText(value) as string;
  const moment = marked.readMoment(given);
  const result = moment && shifted(moment, amount, unitName, direction);
  if (!moment && marked.hasZeroPart(given)) return zeroPart(given);
  if (!result) return null;
  return marked.hasClock(given) || isTimeUnit(unitName) ? marked.momentText(result) : marked.dateText(result);
}

const differences: Readonly<Record<string, number>> = lookup({
  microsecond: 1,
  second: 1e6,
  minute: 60e6,
  hour: 3600e6,
  day: 86_400e6,
  week: 604_800e6,
});
const monthly: Readonly<Record<string, number>> = lookup({ month: 1, quarter: 3, year: 12 });

export function timestampDiff(unitName: string, from: string, to: string): Value {
  const [a, b] = [momentOf(from), momentOf(to)];
  if (unitName in differences) return Math.trunc((microsOf(b) - microsOf(a)) / differences[unitName]) + 0;
  if (!(unitName in monthly)) return bad(`"${unitName}" is no unit of time`);
  const [low, high, sign] = microsOf(a) <= microsOf(b) ? [a, b, 1] : [b, a, -1];
  let months = (high.year - low.year) * 12 + high.month - low.month;
  const within = (m: marked.Moment) => (m.day - 1) * 86_400e6 + secondsOf(m) * 1e6 + m.micro;
  if (within(high) < within(low)) months--;
  return sign * Math.trunc(months / monthly[unitName]) + 0;
}
