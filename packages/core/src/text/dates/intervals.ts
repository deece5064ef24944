import {
  Decimal,
  Failure,
  Interval,
  type IntervalForm,
  type Stretch,
  type Value,
  Double,
  asDouble,
  bad,
  intervalForms,
  lengthOf,
  lookup,
  microsOf,
} from "../../values/index.ts";
import { any, number, operation, settled, text } from "../operation.ts";
import { counted, hasRoom, noTime, plus, readStretch, unitNamed, units } from "./interval-text.ts";

const noInterval = (given: string): Failure => bad(`"${given}" is no stretch of time`);
const wrongKind = (): Failure => new Failure("wrong-kind", { expected: "a stretch of time", given: "another kind of value" });

/** A stretch as a value, where it has room. */
export const roomFor = (stretch: Stretch, make: (stretch: Stretch) => Interval): Interval | Failure =>
  hasRoom(stretch) ? make(stretch) : new Failure("number-out-of-range");

/** Reads a text as a stretch of time; `unit` is what a number alone counts, and smaller parts than it are left out. */
export const intervalFromText = operation({
  id: "interval-from-text",
  family: "convert",
  summary: "reads a text as a stretch of time",
  slots: [text("text"), settled("unit", Object.keys(units)), settled("form", intervalForms)],
  traits: ["missing", "intervalForms"],
  prepare({ intervalForms: forms }, { unit, form }) {
    const cut = cutter(unit as string);
    return (given: string): Value => {
      const stretch = readStretch(given, unit as string, forms);
      return stretch ? roomFor(cut(stretch), (each) => new Interval(form as IntervalForm, each)) : noInterval(given);
    };
  },
});

/** Leaves out what is smaller than a unit. */
function cutter(unit: string): (stretch: Stretch) => Stretch {
  const { months = 0, days = 0, micros = 0n } = units[unit];
  if (months > 0) return (stretch) => ({ ...noTime, months: stretch.months - (stretch.months % months) });
  if (days > 0) return (stretch) => ({ ...stretch, micros: 0n });
  return micros > microsOf.second
    ? (stretch) => ({ ...stretch, micros: stretch.micros - (stretch.micros % micros) })
    : (stretch) => stretch;
}

/** So many of a unit of time; fractions count of seconds and smaller units only. */
export const intervalOf = operation({
  id: "interval-of",
  family: "convert",
  summary: "gives so many of a unit of time",
  slots: [number("count"), text("unit"), settled("form", intervalForms)],
  traits: ["missing"],
  prepare(_answers, { form }) {
    return (count: Value, name: string): Value => {
      const unit = unitNamed(name);
      if (unit === undefined) return bad(`"${name}" is no unit of time`);
      const given = asDouble(count);
      if (!Number.isFinite(given)) return new Failure("number-out-of-range");
      const stretch =
        typeof count === "bigint" && units[unit].micros !== undefined
          ? { ...noTime, micros: count * units[unit].micros }
          : counted(unit.endsWith("second") ? given : Math.trunc(given), unit, false);
      return roomFor(stretch, (each) => new Interval(form as IntervalForm, each));
    };
  },
});

const directions = ["later", "earlier"] as const;
const signOf = (direction: Value | undefined): 1 | -1 => (direction === "earlier" ? -1 : 1);

/** Adds a stretch of time to another, or takes it away. */
export const addIntervals = operation({
  id: "add-intervals",
  family: "convert",
  summary: "adds two stretches of time",
  slots: [any("a"), any("b"), settled("direction", directions)],
  traits: ["missing"],
  prepare(_answers, { direction }) {
    const sign = signOf(direction);
    return (a: Value, b: Value): Value =>
      a instanceof Interval && b instanceof Interval
        ? roomFor(plus(a.stretch, b.stretch, sign), (sum) => a.with(sum))
        : wrongKind();
  },
});

/** To a millionth, so that parts that a calculation leaves behind are none. */
const settledFraction = (value: number): number => Math.round(value * 1e6) / 1e6;

/** A stretch of which each part is multiplied; a part of a month is days of a thirtieth, one of those and of a day time. */
function scaled({ months, days, micros }: Stretch, by: (part: number) => number): Stretch {
  const [allMonths, allDays] = [by(months), by(days)];
  const time = by(Number(micros));
  if (![allMonths, allDays, time].every(Number.isFinite)) return { ...noTime, months: NaN };
  const [wholeMonths, wholeDays] = [Math.trunc(allMonths), Math.trunc(allDays)];
  const ofMonths = settledFraction((allMonths - wholeMonths) * 30);
  const daysOfMonths = Math.trunc(ofMonths);
  const ofDays = settledFraction((allDays - wholeDays + ofMonths - daysOfMonths) * 86_400);
  const moreDays = Math.trunc(ofDays / 86_400);
  return {
    months: wholeMonths,
    days: wholeDays + daysOfMonths + moreDays,
    micros: BigInt(Math.round(time + (ofDays - moreDays * 86_400) * 1e6)),
  };
}

/** Months rounded to whole ones, halves up, and days and time as they come out (F&O 3.1, 8.4). */
function roundedMonths({ months, days, micros }: Stretch, by: (part: number) => number): Stretch {
  const time = by(Number(BigInt(days) * microsOf.day + micros));
  const rounded = Number.isFinite(time) ? Math.floor(by(months) + 0.5) + 0 : NaN;
  return { months: rounded, days: 0, micros: BigInt(Math.round(Number.isFinite(time) ? time : 0)) };
}

/** Multiplies a stretch of time, or divides it. */
export const scaleInterval = operation({
  id: "scale-interval",
  family: "convert",
  summary: "multiplies a stretch of time by a number",
  slots: [any("interval"), any("factor"), settled("does", ["times", "by"])],
  traits: ["missing", "partsOfMonths", "byZero"],
  prepare({ partsOfMonths, byZero }, { does }) {
    const change = partsOfMonths === "rounded" ? roundedMonths : scaled;
    return (interval: Value, factor: Value): Value => {
      if (!(interval instanceof Interval)) return wrongKind();
      const { stretch } = interval;
      const by = asDouble(factor);
      const isWhole = does === "times" && (typeof factor === "bigint" || Number.isInteger(by));
      if (isWhole) {
        const micros = stretch.micros * BigInt(typeof factor === "bigint" ? factor : by);
        return roomFor({ months: stretch.months * by, days: stretch.days * by, micros }, (each) => interval.with(each));
      }
      if (does === "by" && by === 0) return byZero === "null" ? null : new Failure("division-by-zero");
      if (!Number.isFinite(by)) return new Failure("number-out-of-range");
      const made = change(stretch, does === "by" ? (part) => part / by : (part) => part * by);
      return roomFor(made, (each) => interval.with(each));
    };
  },
});

/** How often one stretch of time goes into another. */
export const intervalRatio = operation({
  id: "interval-ratio",
  family: "convert",
  summary: "divides a stretch of time by another",
  slots: [any("a"), any("b")],
  traits: ["missing"],
  prepare() {
    return (a: Value, b: Value): Value => {
      if (!(a instanceof Interval && b instanceof Interval)) return wrongKind();
      const divisor = Decimal.of(lengthOf(b.stretch));
      return divisor.isZero ? new Failure("division-by-zero") : Decimal.of(lengthOf(a.stretch)).over(divisor, 20).trimmed();
    };
  },
});

/** The parts of a stretch, by their names; those of seconds as a number of millionths and how many digits of it are a fraction. */
const intervalFields: Readonly<Record<string, (stretch: Stretch) => number | Decimal>> = lookup({
  millennium: ({ months }) => Math.trunc(months / 12_000),
  century: ({ months }) => Math.trunc(months / 1200),
  decade: ({ months }) => Math.trunc(months / 120),
  year: ({ months }) => Math.trunc(months / 12),
  quarter: ({ months }) => Math.trunc((months % 12) / 3) + 1,
  month: ({ months }) => months % 12,
  day: ({ days }) => days,
  hour: ({ micros }) => Number(micros / microsOf.hour),
  minute: ({ micros }) => Number((micros % microsOf.hour) / microsOf.minute),
  second: ({ micros }) => new Decimal(micros % microsOf.minute, 6),
  millisecond: ({ micros }) => new Decimal(micros % microsOf.minute, 3),
  microsecond: ({ micros }) => Number(micros % microsOf.minute),
  // A year of months is one of 365 days and a quarter.
  epoch: ({ months, days, micros }) => {
    const daysOfYears = (BigInt(Math.trunc(months / 12)) * 36_525n * microsOf.day) / 100n;
    return new Decimal(daysOfYears + BigInt((months % 12) * 30 + days) * microsOf.day + micros, 6);
  },
});

/** Gives a part of a stretch of time. */
export const intervalField = operation({
  id: "interval-field",
  family: "convert",
  summary: "gives a part of a stretch of time",
  slots: [any("interval"), text("field"), settled("seconds", ["whole", "whole, all of them as a double", "with their fraction"])],
  traits: ["missing"],
  prepare(_answers, { seconds }) {
    return (interval: Value, name: string): Value => {
      if (!(interval instanceof Interval)) return wrongKind();
      const give = intervalFields[unitNamed(name) ?? name.toLowerCase()];
      if (!give) return bad(`"${name}" is no part of a stretch of time`);
      const value = give(interval.stretch);
      if (!(value instanceof Decimal) || seconds === "with their fraction") return value;
      const isDouble = seconds !== "whole" && /^epoch$/i.test(name);
      return isDouble ? new Double(value.toNumber()) : Math.trunc(value.toNumber()) + 0;
    };
  },
});
