import { Decimal, Double, type Value, integer, lookup, FixedDouble, roundHalfEven } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { roundingLike } from "../shared/code.ts";
import { int64, uint64 } from "./numbers.ts";
import { toInteger } from "./steps.ts";

/** The nearest number that 64 bits hold; what is too far below 0 has all bits set. */
const inBits = (whole: bigint): bigint =>
  whole > uint64 || whole < -uint64 ? uint64 : whole < -int64 - 1n ? -int64 - 1n : whole;

export const bigOf = (value: Value): bigint => {
  if (value instanceof Decimal) return inBits(value.rounded(0).coefficient);
  if (value instanceof Double) return inBits(BigInt(Math.sign(value.value) * Math.round(Math.abs(value.value))));
  return BigInt(toInteger(value) as number);
};

const unit = (digits: number): bigint => 10n ** BigInt(digits);

function cutDecimal(value: Decimal, digits: number): Decimal {
  if (digits >= value.scale) return value;
  const kept = value.coefficient / unit(value.scale - Math.max(digits, 0));
  if (digits >= 0) return new Decimal(kept, digits);
  return new Decimal((kept / unit(-digits)) * unit(-digits), 0);
}

export function roundDecimal(value: Decimal, digits: number): Decimal {
  if (digits >= value.scale) return value;
  return digits >= 0 ? value.rounded(digits) : new Decimal(roundedWhole(value, -digits), 0);
}

/** Rounded to a multiple of a power of ten, halves away from zero. */
function roundedWhole(value: Decimal, power: number): bigint {
  const size = unit(power + value.scale);
  const half = value.coefficient < 0n ? -size / 2n : size / 2n;
  return ((value.coefficient + half) / size) * unit(power);
}

const sizeOf = (digits: Value | undefined): number => Math.max(-38, Math.min(38, Number(digits ?? 0)));

/** round() and truncate(): where the number of decimals is the same for every row, so many are shown. */
const toDecimals = (decimal: typeof roundDecimal, whole: (value: number) => number): Code => ({
  strict: true,
  run: ([value, digits], { steady }) => {
    const size = sizeOf(digits);
    const isSteady = digits === undefined || steady(1);
    if (value instanceof Decimal) {
      const result = decimal(value, size);
      const scale = isSteady ? Math.max(size, 0) : value.scale;
      return result.scale < scale ? result.rounded(scale) : result;
    }
    if (!(value instanceof Double)) return size >= 0 ? value : integer(decimal(Decimal.of(value as number), size).coefficient);
    const result = roundDouble(value.value, size, whole);
    return isSteady && size <= 30 ? new FixedDouble(result, Math.max(0, size)) : new Double(result);
  },
});

export function roundDouble(value: number, digits: number, whole: (value: number) => number): number {
  const power = 10 ** Math.abs(digits);
  const scaled = digits < 0 ? value / power : value * power;
  if (!Number.isFinite(scaled)) return value;
  return digits < 0 ? whole(scaled) * power : whole(scaled) / power;
}

/** The bits of a number, as one without a sign. */
export const bitsOf = (value: Value): bigint => BigInt.asUintN(64, bigOf(value));

/** The code of what is calculated. */
export const arithmeticCode: Readonly<Record<string, Code>> = lookup({
  round: { ...toDecimals(roundDecimal, roundHalfEven), like: roundingLike("half away from zero", { roundedDigits: "scaled" }) },
  truncate: toDecimals(cutDecimal, Math.trunc),
});
