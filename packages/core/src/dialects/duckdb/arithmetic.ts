import { Decimal, Double, Failure, type Value, bad, integer, lookup, nearest } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { roundingLike, strict } from "../shared/code.ts";
import { inRange, ranges, roundedTypes, unsignedTypes, wrapped } from "./numbers.ts";
import { doubleText, toDouble } from "./steps.ts";

const onDouble = (run: (value: number, other: number) => number): Code =>
  strict((a: Double, b?: Double) => {
    const result = run(a.value, b?.value ?? 0);
    return Number.isNaN(result) && !Number.isNaN(a.value) && !Number.isNaN(b?.value)
      ? new Failure("number-out-of-range")
      : new Double(result);
  });

const halfAway = (value: number): number => Math.sign(value) * Math.round(Math.abs(value));

function round(value: Value, digits: number = 0): Value {
  if (value instanceof Double) {
    if (digits === 0) return new Double(halfAway(value.value));
    const power = 10 ** Math.abs(digits);
    const result = digits > 0 ? halfAway(value.value * power) / power : halfAway(value.value / power) * power;
    return Number.isFinite(result) ? new Double(result) : digits > 0 ? value : new Double(0);
  }
  const decimal = value instanceof Decimal ? value : Decimal.of(value as number);
  if (digits >= decimal.scale) return value;
  if (digits >= 0) return decimal.rounded(digits);
  const size = 10n ** BigInt(-digits + decimal.scale);
  const half = decimal.coefficient < 0n ? -size / 2n : size / 2n;
  const result = ((decimal.coefficient + half) / size) * 10n ** BigInt(-digits);
  return value instanceof Decimal ? new Decimal(result, 0) : integer(result);
}

function truncate(value: Value, digits: number): Value {
  if (value instanceof Double) {
    if (Number.isNaN(value.value)) return value;
    const power = 10 ** Math.abs(digits);
    const result = digits > 0 ? Math.trunc(value.value * power) / power : Math.trunc(value.value / power) * power;
    return new Double(Number.isFinite(result) ? result : digits > 0 ? value.value : 0);
  }
  const decimal = value instanceof Decimal ? value : Decimal.of(value as number);
  if (digits >= decimal.scale) return value;
  const unit = 10n ** BigInt(decimal.scale - digits);
  const kept = decimal.coefficient / unit;
  if (value instanceof Decimal) return digits >= 0 ? new Decimal(kept, digits) : new Decimal(kept * 10n ** BigInt(-digits), 0);
  return integer(kept * unit);
}

/** Halves to the even neighbour. */
function roundEven(value: Value, digits: number): Value {
  // One digit more is looked at.
  if (digits === 2147483647) return new Failure("number-out-of-range");
  const decimal =
    value instanceof Double
      ? Decimal.parse(doubleText(value.value))
      : value instanceof Decimal
        ? value
        : Decimal.of(value as number);
  if (!decimal) return digits < 0 ? new Double(0) : value;
  if (digits >= decimal.scale) return toDouble(value);
  const unit = 10n ** BigInt(Math.abs(digits));
  const scaled = digits < 0 ? new Decimal(decimal.coefficient, decimal.scale - digits) : decimal.times(Decimal.of(unit));
  const floor = scaled.floor();
  const rest = scaled.minus(Decimal.of(floor)).compare(new Decimal(5n, 1));
  const whole = rest > 0 || (rest === 0 && floor % 2n !== 0n) ? floor + 1n : floor;
  const size = digits < 0 ? Number(whole * unit) : Number(whole) / Number(unit);
  // Of exact numbers only a half is multiplied back from its even neighbour, which keeps the sign.
  const isBelow = value instanceof Double ? value.value < 0 : rest === 0 && decimal.coefficient < 0n;
  return new Double(size === 0 && isBelow ? -0 : size);
}

const onesIn = (value: bigint): number => value.toString(2).replaceAll("0", "").length;

/** The functions that round, for a type of numbers; whole numbers stay in the bits of theirs. */
function rounding(type: string): Readonly<Record<string, Code>> {
  const kept = (value: bigint): bigint => (type in ranges ? wrapped(type, value) : value);
  return {
    [`round ${type}`]: {
      ...strict((value: Value, digits?: number) => {
        const rounded = round(value, digits);
        return typeof rounded === "number" || typeof rounded === "bigint" ? integer(kept(BigInt(rounded))) : rounded;
      }),
      like: roundingLike("half away from zero", { roundedDigits: "scaled" }),
    },
    [`round_even ${type}`]: {
      ...strict((value: Value, digits: number) => {
        const rounded = roundEven(value, digits);
        if (!(type in ranges) || !(rounded instanceof Double) || Object.is(rounded.value, -0)) return rounded;
        return new Double(Number(kept(BigInt(rounded.value))));
      }),
      like: roundingLike("half to even", { roundedDigits: "scaled" }),
    },
  };
}

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
}

/** The code of what is calculated. */
export const arithmeticCode: Readonly<Record<string, Code>> = lookup({
  // A type without a sign counts round from its other end.
  ...Object.fromEntries(
    unsignedTypes.map((type) => [`- ${type}`, strict((value: number) => integer(wrapped(type, -BigInt(value))))]),
  ),
  // The count of 128 bits has no room in the eight of its type.
  bit_count: strict((value: number) => Number(BigInt.asIntN(8, BigInt(onesIn(BigInt.asUintN(128, BigInt(value))))))),
  ...Object.fromEntries(roundedTypes.map(rounding).flatMap((codes) => Object.entries(codes))),
  "trunc at": strict(truncate),
  fdiv: strict((a: Double, b: Double) => new Double(Math.floor(a.value / b.value))),
  fmod: strict((a: Double, b: Double) => new Double(b.value === 0 ? NaN : a.value - Math.floor(a.value / b.value) * b.value)),
  // The engine gives infinity on both sides.
  atanh: onDouble((value) => (Math.abs(Math.atanh(value)) === Infinity ? Infinity : Math.atanh(value))),
  gamma: { run: () => new Failure("not-covered", { what: "the gamma function" }) },
  lgamma: { run: () => new Failure("not-covered", { what: "the gamma function" }) },
  log: strict((a: Double, b?: Double) => {
    const [base, value] = b === undefined ? [10, a.value] : [a.value, b.value];
    if (base === 1) return bad("1 is no base of a logarithm");
    if (value <= 0 || base <= 0) return bad("there is no logarithm of a number that is not above 0");
    return new Double(b === undefined ? nearest.log10(value) : nearest.log10(value) / nearest.log10(base));
  }),
  factorial: strict((value: number) => {
    if (value < 0) return new Failure("number-out-of-range");
    let result = 1n;
    for (let i = 2n; i <= BigInt(value) && result < 2n ** 128n; i++) result *= i;
    return inRange("hugeint", result);
  }),
  gcd: strict((a: number, b: number) => integer(gcd(BigInt(a), BigInt(b)))),
  lcm: strict((a: number, b: number) => {
    const divisor = gcd(BigInt(a), BigInt(b));
    const product = divisor === 0n ? 0n : (BigInt(a) * BigInt(b)) / divisor;
    return integer(product < 0n ? -product : product);
  }),
  even: onDouble((value) => {
    const whole = value >= 0 ? Math.ceil(value) : -Math.ceil(-value);
    return whole % 2 === 0 ? whole : whole + (value >= 0 ? 1 : -1);
  }),
  isinf: strict(({ value }: Double) => Math.abs(value) === Infinity),
  isfinite: strict(({ value }: Double) => Number.isFinite(value)),
  signbit: strict(({ value }: Double) =>
    // A quotient of zeros has a sign in the engine's processor, which a NaN does not show here.
    Number.isNaN(value)
      ? new Failure("not-covered", { what: "the sign of what is no number" })
      : value < 0 || Object.is(value, -0),
  ),
  isnan: strict(({ value }: Double) => Number.isNaN(value)),
});
