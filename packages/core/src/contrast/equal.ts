import {
  Decimal,
  Failure,
  Interval,
  type MessageCode,
  Moment,
  type Value,
  asDouble,
  isFailure,
  isList,
  isNumeric,
  microsOf,
} from "../values/index.ts";

/** The kinds that are told apart when values of two dialects are compared. */
export type OutcomeKind = "text" | "number" | "boolean" | "nothing" | "error" | "list" | "other";

export function kindOfOutcome(value: Value): OutcomeKind {
  if (value === null) return "nothing";
  if (isFailure(value)) return "error";
  if (typeof value === "string" || value instanceof Moment) return "text";
  if (typeof value === "boolean") return "boolean";
  if (isNumeric(value)) return "number";
  return isList(value) ? "list" : "other";
}

/** How a stretch of time is written is a matter of the system that shows it, not of the value. */
function textOf(value: Value): Value {
  if (!(value instanceof Interval)) return value instanceof Moment ? value.text : value;
  const { months, days, micros } = value.stretch;
  return `${months} months and ${BigInt(days) * microsOf.day + micros}`;
}

/**
 * Whether two numbers are the same value, up to what a calculation in another order changes (relative tolerance 1e-12). NaN is
 * itself, and infinity is only itself.
 */
export const sameNumber = (a: number, b: number): boolean =>
  Object.is(a, b) || a === b || (Number.isFinite(a - b) && Math.abs(a - b) <= 1e-12 * Math.max(Math.abs(a), Math.abs(b)));

/** A whole number with all its digits, where those are known: a double has them up to 2^53. */
function wholeOf(value: Value): bigint | undefined {
  if (typeof value === "bigint") return value;
  if (value instanceof Decimal) return value.trimmed().scale === 0 ? value.trimmed().coefficient : undefined;
  const number = asDouble(value);
  return Number.isSafeInteger(number) ? BigInt(number) : undefined;
}

/** Whole numbers are the same where all their digits are, others up to what a calculation in another order changes. */
function sameNumbers(a: Value, b: Value): boolean {
  const [x, y] = [asDouble(a), asDouble(b)];
  if (x === y && Math.abs(x) <= Number.MAX_SAFE_INTEGER) return true;
  const [whole, other] = [wholeOf(a), wholeOf(b)];
  return whole === undefined || other === undefined ? sameNumber(x, y) : whole === other;
}

/**
 * Whether two dialects gave the same. Texts, and dates by their ISO text, agree when they are the same code units; numbers when
 * they are the same value, whatever their type, whole ones exactly and others with a relative tolerance of 1e-12; truth values, and
 * lists item by item. Nothing (null, blank, the empty sequence) agrees with nothing only, not with empty
 * text; an error agrees with an error only, whatever its code. Values of two kinds never agree.
 */
export function agree(a: Value, b: Value): boolean {
  const kind = kindOfOutcome(a);
  if (kind !== kindOfOutcome(b)) return false;
  switch (kind) {
    case "nothing":
    case "error":
      return true;
    case "number":
      return sameNumbers(a, b);
    case "list": {
      const [left, right] = [a as readonly Value[], b as readonly Value[]];
      return left.length === right.length && left.every((item, i) => agree(item, right[i]));
    }
    case "text":
      return textOf(a) === textOf(b);
    default:
      return a === b;
  }
}

/** A truth value as the number that some dialects have for it. */
export const asTruth = (value: Value): Value => (typeof value === "boolean" ? Number(value) : value);

/** What may be taken as no difference, each by a switch. */
export const switches = {
  truth: "true is 1 and false is 0",
  nothing: "nothing is empty text",
  ends: "spaces at the end of a text do not count",
  form: "texts are compared in normal form C",
  tolerance: "numbers agree to nine digits",
  numbers: "a text that is a number is that number",
} as const;

/** The name of a switch. */
export type Switch = keyof typeof switches;

/** Named sets of switches; `strict`, without any, holds where none is named. */
export const agreements = {
  strict: [],
  values: ["truth", "tolerance"],
  texts: ["truth", "nothing", "numbers", "tolerance"],
  loose: ["truth", "nothing", "ends", "form", "numbers", "tolerance"],
} as const satisfies Readonly<Record<string, readonly Switch[]>>;

/** A value as the switches see it. */
function seen(value: Value, on: ReadonlySet<Switch>): Value {
  if (isList(value)) return value.map((item) => seen(item, on));
  if (value === null) return on.has("nothing") ? seen("", on) : null;
  if (typeof value === "boolean") return on.has("truth") ? Number(value) : value;
  if (value instanceof Moment) return seen(value.text, on);
  if (typeof value !== "string") return kindOfOutcome(value) === "number" && on.has("tolerance") ? rounded(value) : value;
  const number = on.has("numbers") && /^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i.test(value) ? Number(value) : undefined;
  if (number !== undefined) return seen(number, on);
  const formed = on.has("form") ? value.normalize("NFC") : value;
  return on.has("ends") ? formed.replace(/ +$/, "") : formed;
}

const rounded = (value: Value): Value => {
  const number = asDouble(value);
  return Number.isFinite(number) ? Number(number.toPrecision(9)) : value;
};

/** Whether two dialects gave the same, as `agree` says it, where some differences count as none. */
export function agreeBy(on: ReadonlySet<Switch>): (a: Value, b: Value) => boolean {
  return on.size === 0 ? agree : (a, b) => agree(a, b) || agree(seen(a, on), seen(b, on));
}

/** Failures that say that a bound of ours was met, or that something is not covered: what a system would give is not known. */
const unknownCodes: ReadonlySet<MessageCode> = new Set<MessageCode>([
  "time-spent",
  "run-stopped",
  "beyond-memory",
  "text-too-long",
  "list-too-long",
  "steps-spent",
  "calls-too-deep",
  "pattern-budget",
  "not-covered",
]);

/** Whether it is not known what a side gives: a limit was met. Such a value neither agrees nor differs. */
export const isUnknown = (value: Value): value is Failure => value instanceof Failure && unknownCodes.has(value.code);
