import type { AnswerOf } from "../../traits/index.ts";
import { Decimal, Double, Failure, type Value, integer } from "../../values/index.ts";
import { decimalOf } from "../types.ts";

/** The ranges of the integer types. */
export const ranges: Readonly<Record<string, readonly [bigint, bigint]>> = {
  tinyint: [-128n, 127n],
  smallint: [-32768n, 32767n],
  integer: [-2147483648n, 2147483647n],
  bigint: [-9223372036854775808n, 9223372036854775807n],
  hugeint: [-(2n ** 127n), 2n ** 127n - 1n],
  utinyint: [0n, 255n],
  usmallint: [0n, 65535n],
  uinteger: [0n, 4294967295n],
  ubigint: [0n, 18446744073709551615n],
};

/** The integer types, those of a size with a sign before those without. */
export const wholeTypes: readonly string[] = Object.keys(ranges);

export const unsignedTypes = wholeTypes.filter((type) => ranges[type][0] === 0n);

/** The types of numbers that are rounded as they are; others become the next that is one of these. */
export const roundedTypes = ["tinyint", "smallint", "integer", "bigint", "hugeint", "decimal", "double"];

/** The bits of an integer type. */
const bitsOfType = (type: string): number => (ranges[type][1] - ranges[type][0]).toString(2).length;

/** The answer that tells the range of an integer type. */
export const rangeOf = (type: string): AnswerOf<"range"> =>
  `${bitsOfType(type)} bits${ranges[type][0] < 0n ? "" : " without a sign"}` as AnswerOf<"range">;

/** A number in the bits that a type has, counted round from its other end where it does not fit. */
export const wrapped = (type: string, value: bigint): bigint =>
  ranges[type][0] < 0n ? BigInt.asIntN(bitsOfType(type), value) : BigInt.asUintN(bitsOfType(type), value);

/** A number as written: the smallest of integer, bigint and hugeint, a decimal with a point, a double with an exponent. */
export function numberLiteral(source: string): { value: Value; type: string } {
  const digits = source.replaceAll("_", "");
  if (/[eE]/.test(digits)) return { value: new Double(Number(digits)), type: "double" };
  if (/^\d+$/.test(digits)) {
    const value = BigInt(digits);
    const type = ["integer", "bigint", "hugeint"].find((name) => value <= ranges[name][1]);
    if (type) return { value: integer(value), type };
    return { value: new Double(Number(digits)), type: "double" };
  }
  const value = Decimal.parse(digits)!;
  return digits.replace(/^0+|\./g, "").length > 38
    ? { value: new Double(Number(digits)), type: "double" }
    : { value, type: String(decimalOf(value.scale, String(value).length - 1)) };
}

/** A whole number of a type, or the failure that it is out of range. */
export function inRange(type: string, value: bigint): Value {
  const [low, high] = ranges[type];
  return value < low || value > high ? new Failure("number-out-of-range") : integer(value);
}
