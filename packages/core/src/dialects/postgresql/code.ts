import { worked } from "../step.ts";
import { kernelFor, listLimit, orderFor, unitNames } from "../../text/index.ts";
import {
  Decimal,
  Double,
  Failure,
  type Value,
  bad,
  clockAt,
  countCodePoints,
  dateFromDays,
  daysFromDate,
  integer,
  isDate,
  isFailure,
  isoDate,
  isoWeekOf,
  lookup,
} from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { extractLike } from "../shared/calendar.ts";
import { strict } from "../shared/code.ts";
import { dayCode } from "../shared/days.ts";
import { unitTable } from "./format-functions.ts";
import { arithmeticCode } from "./arithmetic.ts";
import { bytesCode } from "./bytes.ts";
import { typeRules } from "./coercions.ts";

import { intervalCode } from "./intervals.ts";
import { sizeOf, sizeText, timestampOf, withBackslash } from "./sizes.ts";
import { outputText, steps } from "./steps.ts";
import { calculated } from "./text-functions.ts";

/** Compares two present values as the operators do: −1, 0 or 1. */
const order = orderFor({ case: "minded", padding: "counted", mixed: "error", notANumber: "above all" });

const relations: Readonly<Record<string, (order: number) => boolean>> = {
  "=": (o) => o === 0,
  "<>": (o) => o !== 0,
  "<": (o) => o < 0,
  "<=": (o) => o <= 0,
  ">": (o) => o > 0,
  ">=": (o) => o >= 0,
};

/** The pattern operators as relations of a text and a pattern. */
const fits = (pattern: "like" | "posix", letterCase: "minded" | "ignored" | "lowered") =>
  kernelFor("test", {
    missing: "null",
    pattern,
    where: pattern === "like" ? "whole" : "anywhere",
    case: letterCase,
    truth: "true or false",
  }) as (text: Value, pattern: Value) => boolean | Failure;
const tests: Readonly<Record<string, (a: Value, b: Value) => boolean | Failure>> = {
  like: fits("like", "minded"),
  ilike: fits("like", "lowered"),
  "~": fits("posix", "minded"),
  "~*": fits("posix", "ignored"),
};

const quotient = kernelFor("calculate", calculated, { sign: "/" });

/** `= ANY`, `LIKE ALL` and the like, with null where a null item leaves it open. */
function quantified(any: boolean): Code {
  const compared = (value: Value, list: readonly Value[], relation: string): Value => {
    const negative = relation.startsWith("not ");
    const test = tests[relation.replace("not ", "")] ?? ((a: Value, b: Value) => relations[relation](order(a, b)));
    const holds = list.map((item) => {
      const answer = value === null || item === null ? null : test(value, item);
      return negative && typeof answer === "boolean" ? !answer : answer;
    });
    return holds.find(isFailure) ?? (holds.includes(any) ? any : holds.includes(null) ? null : !any);
  };
  return {
    run: ([value, list, relation]) => (list === null ? null : compared(value, list as readonly Value[], relation as string)),
  };
}

/** format(): `%[position$][-][width]type` (9.4.1). */
function format(values: readonly Value[]): Value {
  const [template, ...args] = values;
  if (template === null) return null;
  let next = 0;
  let failure: Failure | undefined;
  const take = (): Value =>
    next < args.length ? args[next++] : ((failure ??= bad("there are too few arguments for format()")), null);
  const result = (template as string).replace(
    /%(?:%|(?:(\d+)\$)?(-?)(\d+|\*(?:(\d+)\$)?)?([sIL])|[\s\S]?)/g,
    (part, position?: string, left?: string, width?: string, widthAt?: string, kind?: string) => {
      if (part === "%%") return "%";
      if (!kind) {
        failure ??= bad(`"${part}" is no conversion of format()`);
        return "";
      }
      if (widthAt !== undefined) next = Number(widthAt) - 1;
      if (next < 0) failure ??= bad("format() counts arguments from 1");
      const given = width?.startsWith("*") ? (take() ?? 0) : (width ?? 0);
      const size = typeof given === "string" ? worked(steps.integer)(given) : given;
      if (typeof size !== "number") failure ??= isFailure(size) ? size : bad("the width is no number");
      if (position !== undefined) {
        next = Number(position) - 1;
        if (next < 0) failure ??= bad("format() counts arguments from 1");
      }
      const value = take();
      if (value === null && kind === "I") failure ??= bad("null cannot be written as a name");
      const text = String(
        kind === "s"
          ? (value ?? "")
          : kind === "L"
            ? value === null
              ? "NULL"
              : quote("sql literal", value as string)
            : quote("sql name", String(value)),
      );
      const blanks = " ".repeat(Math.max(0, Math.abs(Number(size)) - countCodePoints(text)));
      return left || Number(size) < 0 ? text + blanks : blanks + text;
    },
  );
  return failure ?? result;
}

const quote = (scheme: "sql literal" | "sql name", text: string) =>
  kernelFor("escape", { missing: "null", scheme })(text) as string;

function unistr(text: string): Value {
  let broken = false;
  const result = text.replace(
    /\\(?:(\\)|u([0-9a-fA-F]{4})|\+([0-9a-fA-F]{6})|U([0-9a-fA-F]{8})|([0-9a-fA-F]{4})|)/g,
    (_part, backslash, ...codes: (string | undefined)[]) => {
      if (backslash) return "\\";
      const code = parseInt(codes.slice(0, 4).find((c) => c !== undefined) ?? "", 16);
      if (Number.isNaN(code) || code > 0x10ffff || code === 0) broken = true;
      return broken ? "" : String.fromCodePoint(code);
    },
  );
  return broken || !result.isWellFormed() ? bad("a Unicode escape cannot be read") : result;
}

function parseIdent(name: string): Value {
  const parts: string[] = [];
  const shape = /[ \t\n\r\f]*(?:"((?:[^"]|"")+)"|([A-Za-z_\u0080-\uffff][\w$\u0080-\uffff]*))[ \t\n\r\f]*(\.|$)/y;
  for (;;) {
    const match = shape.exec(name);
    if (!match) return bad(`"${name}" is not a name`);
    parts.push(match[1]?.replaceAll('""', '"') ?? match[2].replace(/[A-Z]/g, (letter) => letter.toLowerCase()));
    if (match[3] === "") return parts;
  }
}

/** The last year that a date has (8.5). */
const lastYear = 5_874_897;

const addDays = (date: string, days: number): Value => {
  const { year, month, day } = dateFromDays(dayNumber(date) + days);
  if (year > lastYear) return new Failure("number-out-of-range");
  return year < 1 ? new Failure("not-covered", { what: "dates before the year 1" }) : isoDate(year, month, day);
};

const dayNumber = (date: string): number => {
  const [year, month, day] = date.slice(0, 10).split("-").map(Number);
  return daysFromDate(year, month, day);
};

const units = unitNames(unitTable);
const fieldName = (name: string): string => units.get(name.toLowerCase()) ?? name.toLowerCase();

function field(name: string, timestamp: string): Value {
  const [date, time] = timestamp.replace("+00", "").split(" ");
  const [year, month, day] = date.split("-").map(Number);
  const [hour, minute, second] = time.split(":");
  const days = daysFromDate(year, month, day);
  const { weekday } = dateFromDays(days);
  const fields: Record<string, () => Value> = lookup({
    year: () => year,
    month: () => month,
    day: () => day,
    quarter: () => Math.ceil(month / 3),
    dow: () => weekday,
    isodow: () => weekday || 7,
    doy: () => days - daysFromDate(year, 1, 1) + 1,
    hour: () => Number(hour),
    minute: () => Number(minute),
    second: () => Decimal.parse(second)!.rounded(6),
    milliseconds: () => Decimal.parse(second)!.times(Decimal.of(1000)).rounded(3),
    microseconds: () => Decimal.parse(second)!.times(Decimal.of(1_000_000)).rounded(0),
    week: () => isoWeekOf(days).week,
    isoyear: () => isoWeekOf(days).year,
    julian: () => {
      const clock = (Number(hour) * 60 + Number(minute)) * 60e6 + Math.round(Number(second) * 1e6);
      const whole = Decimal.of(days + 2_440_588);
      return clock === 0 ? whole : whole.plus(quotient(Decimal.of(clock), Decimal.of(86_400e6)) as Decimal);
    },
    decade: () => Math.floor(year / 10),
    century: () => Math.ceil(year / 100),
    millennium: () => Math.ceil(year / 1000),
    epoch: () =>
      Decimal.of(days * 86400 + Number(hour) * 3600 + Number(minute) * 60)
        .plus(Decimal.parse(second)!)
        .rounded(6),
  });
  return fields[fieldName(name)]?.() ?? bad(`"${name}" is no field of a date that is covered`);
}

function nearestEven(value: number): number {
  const floor = Math.floor(value);
  return value - floor === 0.5 ? floor + (floor % 2 === 0 ? 0 : 1) : Math.round(value);
}

/** Seconds since the start of 1970, to the nearest microsecond. */
function momentOf({ value }: Double): Value {
  if (!Number.isFinite(value)) return new Failure("not-covered", { what: "timestamps of infinity" });
  if (value < -210_866_803_200 || value >= 9_224_318_016_000) return new Failure("number-out-of-range");
  // The engine counts from 2000.
  const micros = BigInt(nearestEven((value - 946_684_800) * 1e6)) + 946_684_800_000_000n;
  const seconds = micros / 1_000_000n - (micros % 1_000_000n < 0n ? 1n : 0n);
  const { year, month, day } = dateFromDays(Number(seconds / 86400n - (seconds % 86400n < 0n ? 1n : 0n)));
  if (year < 1 || year > 9999) return new Failure("not-covered", { what: "dates before the year 1 and after 9999" });
  const rest = Number(((seconds % 86400n) + 86400n) % 86400n);
  const micro = Number(micros - seconds * 1_000_000n);
  return `${isoDate(year, month, day)} ${clockAt(rest * 1e6 + micro)}+00`;
}

/** A function of whole numbers, decimals being brought to the same scale. */
const onScale = (run: (a: bigint, b: bigint) => bigint): Code =>
  strict((a: number | bigint | Decimal, b: number | bigint | Decimal) => {
    if (!(a instanceof Decimal && b instanceof Decimal)) return integer(run(BigInt(a as number), BigInt(b as number)));
    const scale = Math.max(a.scale, b.scale);
    return new Decimal(run(a.at(scale), b.at(scale)), scale);
  });

const size = (value: bigint): bigint => (value < 0n ? -value : value);
const divisor = (a: bigint, b: bigint): bigint => (b === 0n ? size(a) : divisor(b, a % b));

/** The product of the numbers up to one; numeric has room for that of 32,177. */
function factorial(number: number | bigint): Value {
  if (number < 0) return bad("a negative number has no factorial");
  if (number > 32177) return new Failure("number-out-of-range");
  if (number > 3000) return new Failure("not-covered", { what: "factorials of more than 3000" });
  let product = 1n;
  for (let factor = 2n; factor <= BigInt(number); factor++) product *= factor;
  return Decimal.of(product);
}

const outputs = (list: Value): Value[] => (list as readonly Value[]).map(outputText);

const toDecimal = (value: Value): Value => (typeof value === "number" ? Decimal.of(value) : value);

/** Functions that are not rows of data. */
export const postgresqlCode = (version: string): Readonly<Record<string, Code>> => ({
  "aggregate spread": strict(({ value }: Double) => new Double(Number.isFinite(value) ? 0 : NaN)),
  "aggregate exact": strict((value: number | bigint) => Decimal.of(value)),
  "aggregate mean": strict((value: number | bigint | Decimal) =>
    quotient(value instanceof Decimal ? value : Decimal.of(value), Decimal.of(1)),
  ),
  ...bytesCode,
  ...intervalCode(version),
  ...arithmeticCode(version),
  quote_nullable: { run: ([text]) => (text === null ? "NULL" : quote("sql literal", text as string)) },
  format: { run: format },
  "format variadic": { run: ([template, list]) => format([template, ...(list === null ? [] : outputs(list))]) },
  "concat variadic": strict((list: readonly Value[]) =>
    outputs(list)
      .filter((item) => item !== null)
      .join(""),
  ),
  "concat_ws variadic": strict((separator: string, list: readonly Value[]) =>
    outputs(list)
      .filter((item) => item !== null)
      .join(separator),
  ),
  unistr: strict(unistr),
  parse_ident: strict(parseIdent),
  "compare any": quantified(true),
  "compare all": quantified(false),
  pg_size_pretty: strict((size: number | bigint | Decimal) => sizeText(size)),
  pg_size_bytes: strict(sizeOf),
  text: { run: ([value], { types: [type] }) => worked(typeRules.cast(type, "text")?.convert)(value) },
  like_escape: strict(withBackslash),
  make_timestamp: strict(timestampOf),
  isfinite: strict(() => true),
  array_ndims: strict((list: readonly Value[]) => (list.length > 0 ? 1 : null)),
  array_dims: strict((list: readonly Value[]) => (list.length > 0 ? `[1:${list.length}]` : null)),
  array_fill: {
    run: ([item, lengths, starts]) => {
      if (lengths === null || starts === null) return bad("the lengths of an array must not be null");
      if ((lengths as readonly Value[]).includes(null)) return bad("the length of an array must not be null");
      const [length = 0, ...more] = lengths as readonly number[];
      if (starts !== undefined && (starts as readonly number[]).length !== (lengths as readonly number[]).length)
        return bad("there are more or fewer starts than lengths");
      if (more.length > 0) return new Failure("not-covered", { what: "arrays of arrays" });
      if (starts !== undefined && (starts as readonly number[])[0] !== 1)
        return new Failure("not-covered", { what: "arrays whose first position is not 1" });
      return length < 0 || length > listLimit ? bad(`an array cannot have ${length} items`) : Array<Value>(length).fill(item);
    },
  },
  array_length: strict((list: readonly Value[], dimension: number) => (dimension === 1 && list.length > 0 ? list.length : null)),
  array_lower: strict((list: readonly Value[], dimension: number) => (dimension === 1 && list.length > 0 ? 1 : null)),
  num_nulls: { run: (args) => args.filter((arg) => arg === null).length },
  num_nonnulls: { run: (args) => args.filter((arg) => arg !== null).length },
  div: strict((a: Decimal, b: Decimal) => (b.isZero ? new Failure("division-by-zero") : new Decimal(a.quotient(b), 0))),
  "to_timestamp seconds": strict(momentOf),
  gcd: onScale((a, b) => divisor(a, b)),
  lcm: onScale((a, b) => (a === 0n || b === 0n ? 0n : size((a / divisor(a, b)) * b))),
  factorial: strict(factorial),
  scale: strict((value: Decimal) => value.scale),
  min_scale: strict((value: Decimal) => value.trimmed().scale),
  trim_scale: strict((value: Decimal) => value.trimmed()),
  "extract date": {
    like: extractLike(fieldName),
    ...strict((name: string, date: string) =>
      /^(?:hour|minute|second|milliseconds|microseconds|timezone\w*)$/.test(fieldName(name))
        ? bad(`a date has no "${name}"`)
        : toDecimal(field(name, `${date} 00:00:00`)),
    ),
  },
  extract: {
    like: extractLike(fieldName),
    ...strict((name: string, timestamp: string) => toDecimal(field(name, timestamp))),
  },
  date_part: {
    like: extractLike(fieldName),
    ...strict((name: string, timestamp: string) => {
      const value = field(name, timestamp);
      return isFailure(value) ? value : new Double(Number(outputText(value)));
    }),
  },
  make_date: strict((year: number, month: number, day: number) => {
    if (year < 0) return new Failure("not-covered", { what: "dates before the year 1" });
    return year > 0 && year <= lastYear && isDate(year, month, day)
      ? isoDate(year, month, day)
      : new Failure("not-a-date", { text: `${year}-${month}-${day}` });
  }),
  ...dayCode("1 mon", addDays),
});
