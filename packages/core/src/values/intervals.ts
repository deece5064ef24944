import { clockAt } from "./dates.ts";
import { Moment } from "./value.ts";

/** Millionths of a second in units that are always of one length. */
export const microsOf = { second: 1_000_000n, minute: 60_000_000n, hour: 3_600_000_000n, day: 86_400_000_000n } as const;

/** A stretch of time in three parts, as months and days are not always of one length; each has its own sign. */
export interface Stretch {
  readonly months: number;
  readonly days: number;
  /** Millionths of a second. */
  readonly micros: bigint;
}

const sizeOf = (micros: bigint): bigint => (micros < 0n ? -micros : micros);

/** Hours, which may be more than 24, minutes and seconds, without a sign. */
function clockOf(micros: bigint): string {
  const size = sizeOf(micros);
  return String(size / microsOf.hour).padStart(2, "0") + clockAt(Number(size % microsOf.hour)).slice(2);
}

/** Years, months, days and a clock; `isOne` says which numbers are one of a unit, `plus` what stands before a part behind one below 0. */
function inWords({ months, days, micros }: Stretch, month: string, isOne: (count: number) => boolean, plus: string): string {
  const parts: string[] = [];
  let before = "";
  for (const [count, unit] of [
    [Math.trunc(months / 12), "year"],
    [months % 12, month],
    [days, "day"],
  ] as const) {
    if (count === 0) continue;
    parts.push(`${count > 0 ? before : ""}${count} ${unit}${isOne(count) ? "" : "s"}`);
    before = count < 0 ? plus : "";
  }
  if (micros !== 0n || parts.length === 0) parts.push((micros < 0n ? "-" : before) + clockOf(micros));
  return parts.join(" ");
}

/** A duration as XML Schema 1.1 part 2, 3.3.6, writes it, with one sign for all of it. */
function asDuration({ months, days, micros }: Stretch, type: string): string {
  const isBelow = months < 0 || days < 0 || micros < 0n;
  const size = sizeOf(BigInt(days) * microsOf.day + micros);
  const ofDay = size % microsOf.day;
  const seconds = clockAt(Number(ofDay % microsOf.minute))
    .slice(6)
    .replace(/^0/, "");
  const counted = (count: number | bigint, unit: string) => (Number(count) === 0 ? "" : `${count}${unit}`);
  const date =
    counted(Math.trunc(Math.abs(months) / 12), "Y") + counted(Math.abs(months % 12), "M") + counted(size / microsOf.day, "D");
  const time =
    counted(ofDay / microsOf.hour, "H") +
    counted((ofDay % microsOf.hour) / microsOf.minute, "M") +
    (seconds === "0" ? "" : `${seconds}S`);
  if (date + time === "") return type === "yearMonthDuration" ? "P0M" : "PT0S";
  return `${isBelow ? "-" : ""}P${date}${time && `T${time}`}`;
}

/** A duration knows days and time only together: 36 hours are a day and 12 hours. */
function inDays({ months, days, micros }: Stretch): Stretch {
  const time = BigInt(days) * microsOf.day + micros;
  return { months, days: Number(time / microsOf.day), micros: time % microsOf.day };
}

/** The types of durations (XPath 3.1 data model, 2.7), with the parts that each has. */
const durationShapes: Readonly<Record<string, RegExp>> = {
  duration: /^-?P(?=.)(?!.*T$)(?:(\d+)Y)?(?:(\d+)M)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/,
  yearMonthDuration: /^-?P(?=.)(?:(\d+)Y)?(?:(\d+)M)?$/,
  dayTimeDuration: /^-?P(?=.)(?!.*T$)()()(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/,
};

export const durationTypes: readonly string[] = Object.keys(durationShapes);

/** A text in the lexical form of a type of duration; undefined where it is not. Digits beyond a millionth are cut off. */
export function durationOf(type: string, text: string): Interval | undefined {
  const found = durationShapes[type].exec(text);
  if (!found) return undefined;
  const sign = text.startsWith("-") ? -1 : 1;
  const [years, months, days, hours, minutes] = [1, 2, 3, 4, 5].map((at) => BigInt(found[at] || 0));
  const [seconds, fraction = ""] = (found[6] ?? "0").split(".");
  const micros =
    days * microsOf.day +
    hours * microsOf.hour +
    minutes * microsOf.minute +
    BigInt(seconds) * microsOf.second +
    BigInt(fraction.slice(0, 6).padEnd(6, "0"));
  return new Interval("P1M", { months: sign * Number(years * 12n + months), days: 0, micros: BigInt(sign) * micros }, type);
}

/** A duration as one of another type, which has not all of its parts. */
export function durationAs(type: string, { stretch: { months, days, micros } }: Interval): Interval {
  const kept = {
    months: type === "dayTimeDuration" ? 0 : months,
    ...(type === "yearMonthDuration" ? { days: 0, micros: 0n } : { days, micros }),
  };
  return new Interval("P1M", kept, type);
}

/** How a stretch is written, named by what one month is there. */
const forms = {
  "1 mon": (stretch: Stretch) => inWords(stretch, "mon", (count) => count === 1, "+"),
  "1 month": (stretch: Stretch) => inWords(stretch, "month", (count) => Math.abs(count) === 1, ""),
  P1M: asDuration,
} as const;

export type IntervalForm = keyof typeof forms;

export const intervalForms = Object.keys(forms) as readonly IntervalForm[];

/**
 * A stretch of time as a value: an interval of SQL, or a duration; `text` is how its dialect writes it.
 *
 * @example
 * const sample = { columns: [], rows: 1 };
 * const [span] = compile(postgresql(), "interval '1 month' * 1.5", sample).run(sample);
 * [span instanceof Interval, span.stretch.months, span.stretch.days, span.text]; // [true, 1, 15, "1 mon 15 days"]
 */
export class Interval extends Moment {
  readonly stretch: Stretch;

  constructor(
    readonly form: IntervalForm,
    stretch: Stretch,
    type = "interval",
  ) {
    super(type, forms[form](stretch, type));
    this.stretch = form === "P1M" ? inDays(stretch) : stretch;
  }

  /** How it is written in a form. */
  in(form: IntervalForm): string {
    return form === this.form ? this.text : forms[form](this.stretch, this.type);
  }

  /** Another one, of the same type and written in the same way. */
  with(stretch: Stretch): Interval {
    return new Interval(this.form, stretch, this.type);
  }
}

/** A stretch as one number, by which two are compared: a month counts as 30 days, a day as 24 hours. */
export const lengthOf = ({ months, days, micros }: Stretch): bigint => BigInt(months * 30 + days) * microsOf.day + micros;
