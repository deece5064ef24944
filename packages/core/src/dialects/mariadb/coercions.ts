import {
  Bytes,
  Decimal,
  Double,
  Failure,
  type Value,
  bytesOfLatin,
  integer,
  isFailure,
  isWholeNumber,
  latinOfBytes,
  lookup,
  utf8Of,
  FixedDouble,
  roundHalfEven,
} from "../../values/index.ts";
import { PatternError, cachedPattern } from "../../patterns/index.ts";
import { bitsOf } from "./arithmetic.ts";
import type { Conversion, TypeRules } from "../dialect.ts";
import { isComparison } from "../shared/comparisons.ts";
import { mostDecimals } from "../shared/code.ts";
import { isPure, parameterAt, relations } from "../row.ts";
import { cutTo, fitted } from "../shared/sizes.ts";
import { type Own, type Step, partsOfWork, unlessMissing, worked } from "../step.ts";
import { clockText, hasZeroPart, dateText, longest, momentText, readMoment, readSpan, readTime, spanText } from "./moments.ts";
import { int64, isBeyondTimes, ofBytes, uint64 } from "./numbers.ts";
import { steps, toText, toDecimal, toInteger } from "./steps.ts";

/** Types: `text` with its collation after a space where COLLATE says one, `decimal` with its scale where that is known, `binary`, `hextext` (x'…'), `hybrid` (0x…), the numbers, `date`, `datetime`, `time`, `null`. */
export const baseType = (type: string): string => type.split(" ")[0];
const isBinary = (type: string): boolean => ["binary", "hybrid", "hextext"].includes(type);
/** The type of a text that is written as a literal. */
export const textLiteral = "text literal";
/** The type of CAST(x AS CHAR), which counts as a number without decimals where one is calculated. */
const castText = "text char";
/** Bytes written as a literal, which take the collation of a text beside them unless that is a literal, too. */
const isBytesLiteral = (type: string): boolean => type === "hybrid" || type === "hextext";

/** The collations that are covered, by the answers that make them. */
export const collations = {
  utf8mb4_general_ci: { case: "general", padding: "padded" },
  utf8mb4_unicode_ci: { case: "unicode", padding: "padded" },
  utf8mb4_bin: { case: "minded", padding: "padded" },
  utf8mb4_general_nopad_ci: { case: "general", padding: "counted" },
  utf8mb4_unicode_nopad_ci: { case: "unicode", padding: "counted" },
  utf8mb4_nopad_bin: { case: "minded", padding: "counted" },
} as const;
export type Collation = keyof typeof collations;

/** Whether COLLATE says the collation of a type. */
const isCollated = (type: string): boolean => type.split(" ")[1] in collations;

/** Functions of which there is a row for each collation. */
const mindsCollation = new Set(
  ["=", "<>", "<", "<=", ">", ">=", "<=>", "strcmp", "like", "locate", "instr", "position", "regexp"].concat([
    "regexp_replace",
    "regexp_substr",
    "regexp_instr",
  ]),
);

export const byBytes = { case: "minded", padding: "counted" } as const;

/** The collation of a comparison: bytes where one side is binary, what COLLATE says, or the one of the dialect. */
export function collationFor(types: readonly string[], usual: Collation): Collation | "binary" {
  const kinds = types.map(baseType);
  const isStronger = (type: string) => baseType(type) === "text" && type !== textLiteral;
  if (kinds.includes("binary") || (kinds.some(isBytesLiteral) && !types.some(isStronger))) return "binary";
  const named = types.find(isCollated)?.split(" ")[1];
  return (named as Collation | undefined) ?? usual;
}

const numbers = ["integer", "unsigned", "decimal", "double"];
const temporal = ["date", "datetime", "time"];

/** A text, number or date as a date and time; null where it is none. */
function asMoment(value: Value): Value {
  const text = toText(value) as string;
  const moment = readMoment(text);
  if (moment) return momentText(moment);
  const isOdd = typeof value !== "string" || hasZeroPart(text);
  return isOdd ? new Failure("not-covered", { what: `dates like ${text}, in which a part is missing or zero` }) : null;
}
/** A time of day becomes a moment of the current day. */
const onToday = (): Value => new Failure("not-covered", { what: "the current date" });

const asTime = (value: Value): Value => {
  const text = toText(value) as string;
  if (isBeyondTimes(value)) {
    const moment = readMoment(text);
    if (moment) return clockText(moment);
  }
  const span = readTime(text);
  return span === undefined ? null : spanText(span);
};

/** A time as the number of its microseconds; a text that is none is the time 0. */
const asSpan = (value: Value): Value => readTime(value as string) ?? 0;

/** A date or time as the number of its digits. */
const digitsOf = (value: Value): Value => {
  const digits = (value as string).replace(/[-: ]/g, "").replace(/\.0+$/, "");
  return Decimal.parse((value as string).startsWith("-") ? `-${digits}` : digits) ?? Decimal.of(0);
};

/** A conversion to a number, from the type's own number where it has one: dates by their digits, 0x… by its bytes. */
function numeric(from: string, ...work: readonly (Step | Own)[]): readonly (Step | Own)[] {
  if (temporal.includes(baseType(from))) return [unlessMissing(digitsOf), ...work];
  return baseType(from) === "hybrid" ? [unlessMissing((value) => integer(ofBytes(value as Bytes))), ...work] : work;
}

/** A number as a whole one; those that are, with a sign or without, stay. */
const whole = (from: string, ...work: readonly Own[]) =>
  numeric(from, ...(["integer", "unsigned"].includes(baseType(from)) ? [] : [steps.integer]), ...work.map(unlessMissing));

/** A pattern that can be read, or the failure that says why not. */
function readable(pattern: string): Value {
  const found = cachedPattern("pcre", pattern, "");
  return found instanceof PatternError && !found.isUncovered
    ? new Failure("pattern-syntax", { pattern, problem: found.problem, offset: found.offset })
    : pattern;
}

function asBytes(value: Value): Value {
  return value instanceof Bytes ? value : new Bytes(utf8Of(toText(value) as string));
}

/** How an argument becomes a parameter; every value can become every other, the cost says what is meant. */
export function conversion(from: string, to: string): Conversion | undefined {
  const kind = isBinary(baseType(from)) ? "binary" : baseType(from);
  const isWhole = kind === "integer" || kind === "unsigned";
  const decimals = /^double (\d+)$/.exec(to)?.[1];
  if (decimals !== undefined)
    return {
      cost: 1,
      convert: numeric(
        from,
        steps.double,
        unlessMissing((value) => new FixedDouble((value as Double).value, Number(decimals))),
      ),
    };
  if (to.startsWith("decimal ")) {
    const scale = Number(to.slice(8));
    const scaled = (value: Value) => {
      const decimal = value as Decimal;
      return decimal.scale < scale ? decimal.rounded(scale) : decimal;
    };
    return { cost: 1, convert: numeric(from, steps.decimal, unlessMissing(scaled)) };
  }
  switch (to) {
    case "any":
      return { cost: 0 };
    case "condition":
      return { cost: 0, convert: steps.truth };
    case "escape":
      return {
        cost: 0,
        early: true,
        // One that is null is the usual one.
        convert: (value) => {
          if (isFailure(value)) return value;
          const escape = value === null ? "\\" : (toText(value) as string);
          return [...escape].length > 1 ? new Failure("escape-length", { escape }) : escape;
        },
      };
    case "text":
      return {
        cost: kind === "text" ? 0 : kind === "binary" ? 3 : 1,
        ...(kind !== "text" && { convert: steps.text }),
      };
    case "binary":
      return { cost: kind === "binary" ? 0 : 3, convert: unlessMissing(asBytes) };
    case "bytetext":
      return {
        cost: kind === "binary" ? 0 : 2,
        convert: unlessMissing((value) => latinOfBytes((asBytes(value) as Bytes).bytes)),
      };
    case "bits":
      return {
        cost: 0,
        ...(!isWhole && {
          convert: [...(kind === "double" ? [] : numeric(from, steps.decimal)), unlessMissing((value) => integer(bitsOf(value)))],
        }),
      };
    case "pattern":
      return {
        cost: kind === "text" ? 0 : 1,
        early: true,
        convert: [steps.text, unlessMissing((text) => readable(text as string))],
      };
    case "string":
      if (isBytesLiteral(baseType(from))) return { cost: 0, convert: steps.text };
      return kind === "text" || kind === "null" ? { cost: 0 } : undefined;
    case "bytes":
      return kind === "text" || kind === "null" || kind === "binary" ? { cost: 0, convert: unlessMissing(asBytes) } : undefined;
    case "whole":
      return isWhole || kind === "null" ? { cost: 0 } : undefined;
    case "exact":
      return isWhole || kind === "decimal" || kind === "null" ? { cost: 1, convert: steps.decimal } : undefined;
    case "moment":
      if (kind === "date" || kind === "datetime") return { cost: 2, convert: unlessMissing(asMoment) };
      // A text that is no date comes before every date.
      return kind === "text" || kind === "null"
        ? { cost: 4, convert: unlessMissing((value) => asMoment(value) ?? "") }
        : undefined;
    case "clock":
      if (kind === "time") return { cost: 2, convert: unlessMissing(asSpan) };
      return kind === "text" ? { cost: 4, convert: unlessMissing(asSpan) } : undefined;
    case "position":
      return { cost: isWhole ? 0 : 2, convert: whole(from, Number) };
    case "place":
      return { cost: isWhole ? 0 : 2, convert: whole(from, (value) => Number(value) || 1) };
    case "uint32":
      return {
        cost: isWhole ? 0 : 2,
        convert: whole(from, (value) => Number(BigInt.asUintN(32, BigInt(value as number)))),
      };
    case "int32":
      return {
        cost: isWhole ? 0 : 2,
        convert: whole(from, (value) => Number(BigInt.asIntN(32, BigInt(value as number)))),
      };
    case "integer":
    case "unsigned":
      return { cost: isWhole ? 0 : 2, ...(!isWhole && { convert: whole(from) }) };
    case "decimal":
      return { cost: kind === "decimal" ? 0 : isWhole ? 1 : 3, convert: numeric(from, steps.decimal) };
    case "double":
    case "floating":
      return {
        cost: kind === "double" ? 0 : 6,
        convert: numeric(from, steps.double, ...(kind === "double" ? [plainDouble] : [])),
      };
    case "date":
      if (kind === to) return { cost: 0 };
      return {
        cost: 3,
        convert: unlessMissing((value) => {
          const moment = kind === "time" ? onToday() : asMoment(value);
          return typeof moment === "string" ? moment.slice(0, 10) : moment;
        }),
      };
    case "datetime":
      if (kind === to)
        return { cost: 0, convert: unlessMissing((value) => (readMoment(value as string) ? value : asMoment(value))) };
      return { cost: 3, convert: unlessMissing(kind === "time" ? onToday : asMoment) };
    case "time":
      if (kind === to) return { cost: 0 };
      if (kind === "date") return { cost: 3, convert: unlessMissing(() => "00:00:00") };
      return { cost: 3, convert: unlessMissing(asTime) };
  }
  return { cost: kind === to ? 0 : 3 };
}

const castNames: Readonly<Record<string, string>> = lookup({
  char: "text",
  varchar: "text",
  "char character set utf8mb4": "text",
  "char character set utf8mb3": "narrow",
  "char character set utf8": "narrow",
  "char character set ascii": "ascii",
  nchar: "text",
  binary: "binary",
  varbinary: "binary",
  signed: "integer",
  "signed integer": "integer",
  integer: "integer",
  int: "integer",
  unsigned: "unsigned",
  "unsigned integer": "unsigned",
  "unsigned int": "unsigned",
  "signed int": "integer",
  decimal: "decimal",
  dec: "decimal",
  numeric: "decimal",
  double: "double",
  "double precision": "double",
  float: "float",
  date: "date",
  datetime: "datetime",
  time: "time",
});

const limit = (size: number): bigint => 10n ** BigInt(size) - 1n;

/** A double of so many digits, so many of them after the point; what is too large becomes the largest. */
function sizedDouble(value: number, [size, scale]: readonly number[]): Double {
  if (scale === undefined) return new Double(value);
  const most = Number(limit(size)) / 10 ** scale;
  const power = 10 ** scale;
  // The server rounds what stands behind the point by itself.
  const whole = Math.floor(value);
  const rounded = Number.isFinite(value) ? whole + roundHalfEven((value - whole) * power) / power : value;
  return new FixedDouble(Math.max(-most, Math.min(most, rounded)), scale);
}

/** What a cast to a type of some sizes does. */
function castWork(type: string, sizes: readonly number[], from: string): readonly (Step | Own)[] {
  const [size, scale = 0] = sizes;
  const work = (to: string) => partsOfWork(conversion(from, to)?.convert ?? []);
  switch (type) {
    case "text":
      return [steps.text, ...(size === undefined ? [] : [cutTo(size)])];
    case "decimal":
      return [...work("decimal"), fitted("nearest", scale, size ?? 10)];
    case "integer":
      return [...work("integer"), (value) => (typeof value === "bigint" && value > int64 ? BigInt.asIntN(64, value) : value)];
    case "double":
      return [...work("double"), unlessMissing((value) => sizedDouble((value as Double).value, sizes))];
    case "float":
      return [steps.double, unlessMissing((value) => new Double(Number(Math.fround((value as Double).value).toPrecision(6))))];
    case "datetime":
    case "time":
      return [...work(type), (value) => withFraction(value, size ?? 0)];
  }
  const own = castTo(type, size, from);
  return own ? [unlessMissing(own)] : work(type);
}

function castTo(type: string, size: number | undefined, from: string): Own | undefined {
  const convert = (to: string) => worked(conversion(from, to)?.convert);
  switch (type) {
    // What the character set lacks becomes a question mark.
    case "narrow":
      return (value) => (toText(value) as string).replace(/[\u{10000}-\u{10ffff}]/gu, "?");
    case "ascii":
      return (value) => (toText(value) as string).replace(/[^\0-\x7f]/gu, "?");
    case "binary":
      return (value) => {
        const { bytes } = asBytes(value) as Bytes;
        if (size === undefined) return new Bytes(bytes);
        // A text is cut by its characters, and filled up by its bytes.
        const kept = isBinary(baseType(from))
          ? bytes.slice(0, size)
          : utf8Of([...(toText(value) as string)].slice(0, size).join(""));
        const sized = new Uint8Array(Math.max(size, kept.length));
        sized.set(kept);
        return new Bytes(sized);
      };
    case "unsigned":
      return (value) => {
        const isBelow = value instanceof Decimal ? value.coefficient < 0n : value instanceof Double && value.value < 0;
        if (isBelow) return 0;
        const exact = value instanceof Decimal ? value.rounded(0).coefficient : undefined;
        if (exact !== undefined && exact > int64) return exact > uint64 ? uint64 : exact;
        if (value instanceof Double && value.value >= 2 ** 63) return value.value >= 2 ** 64 ? uint64 : BigInt(value.value);
        const digits = typeof value === "string" ? /^[ \t\n\v\f\r]*\+?(\d+)/.exec(value)?.[1] : undefined;
        if (digits !== undefined && BigInt(digits) > int64) return BigInt(digits) > uint64 ? uint64 : BigInt(digits);
        const whole = convert("integer")(value);
        return typeof whole === "number" || typeof whole === "bigint"
          ? whole < 0
            ? BigInt.asUintN(64, BigInt(whole))
            : whole
          : whole;
      };
  }
  return undefined;
}

/** A moment with so many digits of the second's fraction. */
function withFraction(value: Value, digits: number): Value {
  if (typeof value !== "string") return value;
  const [whole, fraction = ""] = value.split(".");
  return digits === 0 ? whole : `${whole}.${fraction.slice(0, digits).padEnd(digits, "0")}`;
}

/** With the digits of the second's fraction that a literal is written with. */
const asWritten = (text: string, literal: string): string =>
  withFraction(text, (/\.(\d{1,6})/.exec(literal)?.[1] ?? "").length) as string;

/** What DATE, TIMESTAMP and TIME before a text take: nothing but the date, a date and time, a time that is not too long. */
const literals: Readonly<Record<string, (text: string) => string | undefined>> = lookup({
  "date literal": (text) => (/\d[ T]\d|:/.test(text) ? undefined : readMoment(text) && dateText(readMoment(text)!)),
  "datetime literal": (text) => {
    const moment = /\d[ T]\d.*\d\s*$|^\d{12,}/s.test(text) ? readMoment(text) : undefined;
    return moment && asWritten(momentText(moment), text);
  },
  "time literal": (text) => {
    const span = /-\d+-|[^\d\s]\s*$/.test(text) ? undefined : readSpan(text);
    return span === undefined || Math.abs(span) > longest ? undefined : asWritten(spanText(span), text);
  },
});

/** The longest text that the server makes (`max_allowed_packet`), in bytes; here counted in UTF-16 units. */
const packet = 16 * 1024 * 1024;

function fits(type: string, isPart = false): ((value: Value) => Value) | undefined {
  const decimals = /^double (\d+)$/.exec(type)?.[1];
  if (decimals !== undefined) {
    const plain = fits("double")!;
    return (value) => {
      const kept = plain(value);
      return kept instanceof Double ? new FixedDouble(kept.value, Number(decimals)) : kept;
    };
  }
  const tooLarge = () => new Failure("number-out-of-range");
  switch (type) {
    case "integer":
      return (value) =>
        (typeof value === "bigint" || typeof value === "number") && (value > int64 || value < -int64 - 1n) ? tooLarge() : value;
    case "unsigned":
      return (value) =>
        (typeof value === "bigint" || typeof value === "number") && (value > uint64 || value < 0) ? tooLarge() : value;
    case "double":
      return (value) => (value instanceof Double && !Number.isFinite(value.value) ? tooLarge() : value);
    case "text":
      return isPart ? undefined : (value) => (typeof value === "string" && value.length > packet ? null : value);
    case "binary":
    case "hextext":
      return (value) => (typeof value === "string" ? new Bytes(bytesOfLatin(value)) : value);
  }
  return undefined;
}

/** The rules of values in MariaDB, for texts of a collation. */
export const typeRules = (collation: Collation): TypeRules => ({
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    return present.every((value) => typeof value === "boolean" || isWholeNumber(value))
      ? "integer"
      : `decimal ${mostDecimals(present)}`;
  },
  readColumn(type, value) {
    if (type === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? new Double(value) : value);
    return baseType(type) === "decimal" && value !== null && typeof value !== "boolean"
      ? (toDecimal(value) as Decimal).rounded(Number(type.slice(8)))
      : typeof value === "boolean"
        ? Number(value)
        : value;
  },
  conversion,
  // Of the rows of a function that minds the collation, the one with the answers of this call's collation is meant.
  preference(row, types) {
    if (!isPure(row) || !mindsCollation.has(row.name)) return 0;
    const wanted = collationFor(types, collation);
    const answers = row.answers as Readonly<Record<string, string>>;
    const { case: letterCase, padding } = wanted === "binary" ? byBytes : collations[wanted];
    if (isComparison(row)) {
      const [{ type }] = row.parameters;
      if (type !== "string" && type !== "bytes") return 0;
      return (type === "bytes") === (wanted === "binary") &&
        (type === "bytes" || (answers.case === letterCase && answers.padding === padding))
        ? 0
        : 100;
    }
    const isAlike = answers.case === letterCase || (answers.case === "ignored" && letterCase !== "minded");
    return isAlike ? 0 : 100;
  },
  // Its three parts are compared as dates where one is a date, and as numbers where one is a number.
  betweenType(types) {
    const kinds = types.map(baseType);
    if (!kinds.some((kind) => kind === "text" || isBinary(kind))) return undefined;
    const isMoment = (kind: string) => kind === "date" || kind === "datetime";
    if (kinds.some(isMoment)) return kinds.every((kind) => isMoment(kind) || kind === "text") ? "moment" : undefined;
    if (kinds.includes("time")) return kinds.every((kind) => kind === "time" || kind === "text") ? "clock" : undefined;
    return kinds.some((kind) => /^(?:integer|unsigned|decimal|double)$/.test(kind)) ? "floating" : undefined;
  },
  // Bytes have no collation of texts.
  refuses: (row, types) => (row.name.startsWith("collate utf8") && isBinary(baseType(types[0])) ? "argument-type" : undefined),
  resultType(row, types, constant) {
    if (row.name === "-" && types.length === 1 && types[0] === "unsigned") return "decimal 0";
    if (row.result === "decimal" && /^(?:-|abs)$/.test(row.name) && types.length === 1) return types[0];
    // Bytes of a column stay its own; others are like a literal's.
    if (row.result === "bytes beside") return types.some((type) => baseType(type) === "binary") ? "binary" : "hextext";
    if (row.result === "collated") return `text ${row.name.replace("collate ", "")}`;
    const signed = row.name === "%" ? types[0] : types.find((type) => type === "unsigned");
    if (row.result === "integer" && types.length === 2 && /^(?:[-+*%]|div)$/.test(row.name) && signed === "unsigned")
      return "unsigned";
    if (row.result === "shifted") return ["datetime", "time"].includes(baseType(types[0])) ? baseType(types[0]) : "date";
    if (row.result === "clocked") {
      const kind = baseType(types[0]);
      return kind === "date" ? "datetime" : ["datetime", "text"].includes(kind) || isBinary(kind) ? kind : "time";
    }
    if (row.result === "extreme") return extremeType(types);
    if (row.result === "own text") return "text";
    // Where the bits are none that there are, the result has no character set.
    if (row.result === "digest") {
      const bits = constant(1);
      return bits === undefined || [0, 224, 256, 384, 512].includes(Number(toInteger(bits))) ? "text" : "binary";
    }
    // What a text is made of gives it its collation; a count, a place or bytes that it is made with does not.
    if (row.result === "text")
      return types.find((type, i) => isCollated(type) && /^(?:text|pattern|any)$/.test(parameterAt(row, i).type)) ?? "text";
    if (row.result === "decimal" || row.result === "double") return numberType(row.result, row.name, types, constant);
    if (row.result === "integer" && types[0] === "unsigned" && /^(?:abs|ceil|ceiling|floor|round|truncate)$/.test(row.name))
      return "unsigned";
    if (row.result === "unified") return unify(types.slice(row.name === "nvl2" ? 1 : 0)) ?? "text";
    return row.result === "same" ? (baseType(types[0]) === "null" ? "double" : types[0]) : row.result;
  },
  dates: "date",
  cast(from, to) {
    const literal = literals[to];
    if (literal) {
      const type = baseType(to);
      const unread = (text: string) =>
        hasZeroPart(text) ? new Failure("not-covered", { what: `dates like ${text}` }) : new Failure("not-a-date", { text });
      return { type, convert: unlessMissing((value) => literal(value as string) ?? unread(value as string)) };
    }
    const match = /^([a-z ]+?)(?: ?\(([\d,]+)\))?(?: (?:character set|charset) (\w+))?$/.exec(to);
    const set = match?.[3];
    const type = match && castNames[set === undefined ? match[1] : `${match[1]} character set ${set}`];
    if (!type) return undefined;
    const sizes = match[2]?.split(",").map(Number) ?? [];
    if ((type === "decimal" || type === "double") && (sizes[0] > 65 || sizes[1] > 38 || sizes[1] > sizes[0])) return undefined;
    const kinds: Readonly<Record<string, string>> = {
      float: "double",
      narrow: "text",
      ascii: "text",
      decimal: `decimal ${sizes[1] ?? 0}`,
      ...(type === "double" && sizes[1] !== undefined && { double: `double ${sizes[1]}` }),
    };
    const result = type === "text" ? castText : (kinds[type] ?? type);
    return { type: result, convert: castWork(type, sizes, from) };
  },
  unify,
  nullStops: true,
  rows: {
    compares: new Set([...relations, "<=>"]),
    nested: true,
    queries: true,
    checksConditions: true,
    truth: (value, range) => ({ kind: "literal", value: Number(value), type: "integer", range }),
  },
  list: (_form, values) => values,
  fits,
});

/** The type of the greatest of values: a date or time where there is one, a double where numbers stand beside texts. */
export function extremeType(types: readonly string[]): string {
  const kinds = types.map(baseType).filter((kind) => kind !== "null");
  const moments = kinds.filter((kind) => temporal.includes(kind));
  if (moments.length > 0) return moments.every((kind) => kind === moments[0]) ? moments[0] : "datetime";
  const isMixed = kinds.some((kind) => numbers.includes(kind)) && kinds.some((kind) => kind === "text" || kind === "binary");
  return isMixed ? "double" : (unify(types) ?? "text");
}

/** A double without a fixed number of decimals. */
const plainDouble = (value: Value): Value => (value instanceof FixedDouble ? new Double(value.value) : value);

/** The decimals that a number of a type shows; NaN where they are not fixed. */
const fixedDecimals = (type: string): number =>
  baseType(type) === "integer" || baseType(type) === "unsigned" || type === castText
    ? 0
    : /^(?:decimal|double) \d/.test(type)
      ? Number(type.split(" ")[1])
      : NaN;

/** How many decimals a calculation shows, by those of its operands, and where it is rounded by those that it is rounded to. */
function shownDecimals(
  kind: "decimal" | "double",
  name: string,
  scales: readonly number[],
  constant: (index: number) => Value | undefined,
): number {
  const most = Math.max(...scales);
  switch (name) {
    case "+":
    case "-":
    case "%":
    case "abs":
    case "sum":
      return most;
    case "*":
      return kind === "double" ? most : scales.reduce((sum, scale) => sum + scale, 0);
    case "/":
    case "avg":
      return scales[0] + 4;
    case "ceil":
    case "ceiling":
    case "floor":
      return 0;
    case "pi":
      return 6;
    case "round":
    case "truncate": {
      if (scales.length === 1) return 0;
      const places = constant(1);
      return places === undefined || isFailure(places) ? scales[0] : Math.max(0, Number(toInteger(places) ?? 0));
    }
  }
  return NaN;
}

const decimalScale = (type: string): number => (baseType(type) === "decimal" ? Number(type.slice(8) || NaN) : 0);

/** The type of a calculated number: how many decimals it shows is fixed where that of its operands is. */
function numberType(
  kind: "decimal" | "double",
  name: string,
  types: readonly string[],
  constant: (index: number) => Value | undefined,
): string {
  const decimals = shownDecimals(kind, name, types.map(kind === "double" ? fixedDecimals : decimalScale), constant);
  if (kind === "double") return decimals <= 30 ? `double ${decimals}` : "double";
  return Number.isNaN(decimals) ? "decimal" : `decimal ${Math.min(38, decimals)}`;
}

/** A decimal type with as many decimals as the widest of several, where all are known. */
function decimalType(types: readonly string[]): string {
  const scales = types.filter((type) => baseType(type) === "decimal").map((type) => Number(type.slice(8) || NaN));
  return scales.some(Number.isNaN) ? "decimal" : `decimal ${Math.max(...scales)}`;
}

/** The type that a choice has whose branches have these types. */
export function unify(types: readonly string[]): string | undefined {
  const kinds = types.map((type) => (isBinary(type) ? "binary" : baseType(type))).filter((type) => type !== "null");
  if (kinds.length === 0) return "null";
  if (kinds.every((kind) => kind === kinds[0]) && !["decimal", "double", "binary"].includes(kinds[0]))
    return kinds[0] === "text" ? (types.find(isCollated) ?? "text") : kinds[0];
  if (kinds.every((kind) => numbers.includes(kind))) {
    const highest = numbers[Math.max(...kinds.map((kind) => numbers.indexOf(kind)))];
    const decimals = Math.max(...types.filter((type) => type !== "null").map(fixedDecimals));
    if (highest === "double") return Number.isNaN(decimals) ? "double" : `double ${decimals}`;
    return highest === "unsigned" ? "decimal" : highest === "decimal" ? decimalType(types) : highest;
  }
  if (kinds.every((kind) => temporal.includes(kind))) return "datetime";
  const isWeaker = types.every((type) => !isBinary(baseType(type)) || isBytesLiteral(baseType(type)));
  const hasText = types.some((type) => baseType(type) === "text" && type !== textLiteral);
  return kinds.includes("binary") && !(isWeaker && hasText) ? (isWeaker ? "hextext" : "binary") : "text";
}
