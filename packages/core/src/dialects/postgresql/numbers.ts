import { Bytes, Decimal, Double, Failure, type Value, hexOf, integer, isFailure, sqlDouble } from "../../values/index.ts";

const int4 = 2147483647;
const int8 = 9223372036854775807n;

/** A number as written: integer, bigint where it needs 64 bits, otherwise numeric (4.1.2.6). */
export function numberLiteral(source: string): { value: Value; type: string } | undefined {
  const digits = source.replaceAll("_", "").toLowerCase();
  if (/^(?:-?\d+|0[xob].+)$/.test(digits)) {
    const exact = BigInt(digits);
    const value = integer(exact);
    if (typeof value === "number" && value <= int4) return { value, type: "integer" };
    return exact <= int8 ? { value, type: "bigint" } : { value: Decimal.of(exact), type: "decimal" };
  }
  const value = Decimal.parse(digits);
  return value && { value, type: "decimal" };
}

/** The value, or a failure where it is outside the type's range. */
export function inRange(type: string, value: Value): Value {
  if (typeof value !== "number" && typeof value !== "bigint") return value;
  if (type === "integer" && (value > int4 || value < -int4 - 1)) return new Failure("number-out-of-range");
  if (type === "smallint" && (value > 32767 || value < -32768)) return new Failure("number-out-of-range");
  return BigInt(value) > int8 || BigInt(value) < -int8 - 1n ? new Failure("number-out-of-range") : value;
}

export function toDecimal(value: Value): Value {
  if (typeof value === "number" || typeof value === "bigint") return Decimal.of(value);
  if (value instanceof Double) {
    return Number.isFinite(value.value)
      ? (Decimal.parse(String(Number(value.value.toPrecision(15)))) ?? Decimal.of(0))
      : new Failure("not-covered", { what: "numeric NaN and infinity" });
  }
  return value;
}

export function toDouble(value: Value): Value {
  if (typeof value === "number" || typeof value === "bigint") return new Double(Number(value));
  if (!(value instanceof Decimal)) return value;
  const number = value.toNumber();
  return Number.isFinite(number) && (number !== 0 || value.isZero) ? new Double(number) : new Failure("number-out-of-range");
}

/** Rounded to an integer: decimals away from zero at a half, doubles to even. */
export function toInteger(type: string, value: Value): Value {
  if (value instanceof Decimal) return inRange(type, integer(value.rounded(0).coefficient));
  if (value instanceof Double) {
    if (!Number.isFinite(value.value)) return new Failure("number-out-of-range");
    const floor = Math.floor(value.value);
    const part = value.value - floor;
    return inRange(type, integer(BigInt(part > 0.5 || (part === 0.5 && floor % 2 !== 0) ? floor + 1 : floor)));
  }
  return typeof value === "boolean" ? Number(value) : inRange(type, value);
}

/** Without white space at the ends as the engine's input functions know it; a no-break space stays. */
export const trimmedInput = (text: string): string => text.replace(/^[ \t\n\v\f\r]+|[ \t\n\v\f\r]+$/g, "");

/** A text read as a number of the type, or the failure 22P02. */
export function readNumber(type: string, text: string): Value {
  const trimmed = trimmedInput(text);
  const bad = new Failure("not-a-number", { text });
  if (type === "integer" || type === "bigint" || type === "smallint")
    return /^[+-]?\d+$/.test(trimmed) ? inRange(type, integer(BigInt(trimmed.replace("+", "")))) : bad;
  const isSpecial = /^(?:[+-]?(?:inf|infinity)|nan)$/i.test(trimmed);
  if (type === "decimal")
    return isSpecial ? new Failure("not-covered", { what: "numeric NaN and infinity" }) : (Decimal.parse(trimmed) ?? bad);
  if (isSpecial) return new Double(/nan/i.test(trimmed) ? NaN : trimmed.startsWith("-") ? -Infinity : Infinity);
  if (!/^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i.test(trimmed) && !/^0x[0-9a-f]+$/i.test(trimmed)) return bad;
  const value = Number(trimmed);
  const isLost = !Number.isFinite(value) || (value === 0 && /[1-9]/.test(trimmed.replace(/e.*/i, "")));
  return isLost ? new Failure("number-out-of-range") : new Double(value);
}

/** A value in the text form of its type's output; a truth value as `true` or `false`. */
export function toText(value: Value): Value {
  if (typeof value === "string" || value === null || isFailure(value)) return value;
  if (value instanceof Double) return sqlDouble(value.value);
  if (value instanceof Bytes) return `\\x${hexOf(value.bytes).toLowerCase()}`;
  return Array.isArray(value) ? arrayText(value as readonly Value[]) : String(value);
}

/** The output form, where a truth value is `t` or `f`. */
export const outputText = (value: Value): Value => (typeof value === "boolean" ? (value ? "t" : "f") : toText(value));

/** An array in its text form, items quoted where they must be (8.15.6). */
export function arrayText(items: readonly Value[]): string {
  const shown = items.map((item) => {
    if (item === null) return "NULL";
    const text = outputText(item) as string;
    if (Array.isArray(item)) return text;
    return text === "" || /[{}",\\ \t\n\v\f\r]/.test(text) || /^null$/i.test(text) ? `"${text.replace(/["\\]/g, "\\$&")}"` : text;
  });
  return `{${shown.join(",")}}`;
}

/** Reads the text form of a one-dimensional array; undefined when it is none. */
export function readArray(text: string): (string | null)[] | Failure | undefined {
  const inner = /^\s*\{([\s\S]*)\}\s*$/.exec(text)?.[1];
  if (/^\s*\[/.test(text)) return new Failure("not-covered", { what: "arrays whose first position is not 1" });
  if (inner === undefined) return undefined;
  if (/^\s*\{/.test(inner)) return new Failure("not-covered", { what: "arrays of arrays" });
  if (inner.trim() === "") return [];
  const items: (string | null)[] = [];
  const item = /\s*(?:"((?:[^"\\]|\\[\s\S])*)"|([^{}",]*?))\s*(,|$)/y;
  for (let more = true; more;) {
    const match = item.exec(inner);
    if (!match || (match[1] === undefined && match[2] === "")) return undefined;
    const value = match[1] === undefined ? match[2] : match[1];
    items.push(match[1] === undefined && /^null$/i.test(value) ? null : value.replace(/\\([\s\S])/g, "$1"));
    more = match[3] === ",";
  }
  return items;
}
