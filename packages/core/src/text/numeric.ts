import type { AnswerOf } from "../traits/index.ts";
import { Decimal, Double, Failure, type Value, bad, integer, isFailure } from "../values/index.ts";
import { rangeOf } from "./number-of.ts";
import { type SlotNumber, any, countBy, givenBy, number, operation, optional, settled } from "./operation.ts";

export type Exact = number | bigint;

/** A number in a slot; another dialect's values may be missing, of other kinds, or fractions that are no decimals. */
export function known(value: Value): Exact | Double | Decimal | Failure {
  if (value === null) return 0;
  if (typeof value === "number") return Number.isInteger(value) ? value : new Double(value);
  if (typeof value === "boolean") return Number(value);
  if (typeof value === "bigint" || value instanceof Double || value instanceof Decimal) return value;
  return new Failure("wrong-kind", { expected: "a number", given: typeof value === "string" ? "text" : "another value" });
}

/** What an operation does to each kind of number, without caring which way the dialect holds them. */
interface OnNumber {
  readonly double: (value: number) => number;
  readonly decimal: (value: Decimal) => Value;
  readonly whole: (value: bigint) => Value;
}

function onNumber(numbers: AnswerOf<"numbers">, { double, decimal, whole }: OnNumber): (value: Value) => Value {
  const plain = givenBy(numbers);
  return (given) => {
    const value = known(given);
    if (isFailure(value)) return value;
    if (numbers === "double") return plain(double(value instanceof Double ? value.value : Number(value)));
    if (value instanceof Double) return value.with(double(value.value));
    return value instanceof Decimal ? decimal(value) : whole(BigInt(value));
  };
}

/** What a sign makes of a number: `wanted` is `opposite` (the negative), `size` (without its sign) or `sign` (-1, 0 or 1). */
export const signed = operation({
  id: "signed",
  family: "convert",
  summary: "takes a number's sign, or changes it",
  slots: [any("number"), settled("wanted", ["opposite", "size", "sign"])],
  traits: ["missing", "numbers", "signKind"],
  prepare({ numbers, signKind }, { wanted }) {
    if (wanted === "opposite")
      return onNumber(numbers, {
        double: (value) => -value,
        decimal: (value) => value.negated(),
        whole: (value) => integer(-value),
      });
    if (wanted === "size")
      return onNumber(numbers, {
        double: Math.abs,
        decimal: (value) => (value.coefficient < 0n ? value.negated() : value),
        whole: (value) => integer(value < 0n ? -value : value),
      });
    const signs = onNumber(numbers, {
      // What is no number has no sign.
      double: (value) => Math.sign(value) || 0,
      decimal: (value) => Decimal.of(value.compare(Decimal.of(0))),
      whole: (value) => (value === 0n ? 0 : value < 0n ? -1 : 1),
    });
    if (signKind === "the number's") return signs;
    return (value: Value): Value => {
      const sign = signs(value);
      return sign instanceof Double ? sign.value : sign instanceof Decimal ? Number(sign.coefficient) : sign;
    };
  },
});

/** How many times `size` goes into a whole number, rounded in a direction. */
function rounded(value: bigint, size: bigint, direction: AnswerOf<"direction">): bigint {
  const [cut, rest] = [value / size, value % size];
  if (rest === 0n) return cut;
  const away = rest < 0n ? -1n : 1n;
  if (direction === "up") return rest > 0n ? cut + 1n : cut;
  if (direction === "down") return rest < 0n ? cut - 1n : cut;
  if (direction === "toward zero") return cut;
  if (direction === "away from zero") return cut + away;
  const twice = 2n * rest * away;
  if (twice !== size) return twice > size ? cut + away : cut;
  if (direction === "half to even") return cut % 2n === 0n ? cut : cut + away;
  return direction === "half up" && away < 0n ? cut : cut + away;
}

/** The same for a double and its whole part. */
function roundedDouble(value: number, direction: AnswerOf<"direction">): number {
  const cut = Math.trunc(value);
  const rest = Math.abs(value - cut);
  if (rest === 0 || direction === "toward zero") return cut;
  if (direction === "up") return Math.ceil(value);
  if (direction === "down") return Math.floor(value);
  const isAway =
    direction === "away from zero" ||
    rest > 0.5 ||
    (rest === 0.5 && (direction === "half to even" ? cut % 2 !== 0 : direction === "half away from zero" || value > 0));
  return isAway ? cut + Math.sign(value) : cut;
}

/** Tens beyond which no number goes. */
const mostTens = 400;

/** Decimals are rounded to so many digits at most. */
const mostDigits = 2000;

/** Rounds a number to a digit: `digits` after the point, before it where below 0; to a whole number where left out. */
export const round = operation({
  id: "round",
  family: "convert",
  summary: "rounds a number to a digit",
  slots: [any("number"), optional(number("digits"))],
  traits: ["missing", "numbers", "direction", "moreDigits", "fraction", "roundedDigits", "digitsBelow"],
  prepare({ numbers, direction, moreDigits, fraction, roundedDigits, digitsBelow }) {
    const wholeDigits = countBy(fraction);

    function ofDecimal(value: Decimal, digits: number): Decimal {
      if (digits >= value.scale) return moreDigits === "zeros" ? value.rounded(Math.min(digits, mostDigits)) : value;
      // Beyond the first digit there is nothing but 0, and what is next to it.
      // From one digit before the first on, all that may be left is one of what it is rounded to.
      const last = Math.max(digits, -String(value.coefficient).length - 1);
      const units = rounded(value.coefficient, 10n ** BigInt(value.scale - last), direction);
      if (digits >= 0) return new Decimal(units, digits);
      return new Decimal(units === 0n ? 0n : units * 10n ** BigInt(Math.min(-digits, mostTens)), 0);
    }

    function ofDouble(value: number, digits: number): number {
      if (digits === 0 || !Number.isFinite(value)) return roundedDouble(value, direction);
      const power = 10 ** digits;
      if (roundedDigits === "scaled" && digits > 0 && Number.isFinite(value * power))
        return roundedDouble(value * power, direction) / power;
      if (roundedDigits === "exact" && digits > 0) return Number(value.toFixed(Math.min(digits, 100)));
      // By the digits that it is written with, so that 1.005 is 1.01 though the number is a little below.
      const result = ofDecimal(Decimal.of(value), digits).toNumber();
      return result === 0 && value < 0 ? -0 : result;
    }

    const toDigits = (digits: number) =>
      onNumber(numbers, {
        double: (value) => ofDouble(value, digits),
        decimal: (value) => ofDecimal(value, digits),
        whole: (value) => (digits >= 0 ? integer(value) : integer(ofDecimal(new Decimal(value, 0), digits).coefficient)),
      });
    let last = 0;
    let run = toDigits(last);
    return (value: Value, given: SlotNumber = 0): Value => {
      const wanted = wholeDigits(given);
      if (isFailure(wanted)) return wanted;
      const digits = digitsBelow === "none" ? Math.max(0, wanted) : wanted;
      if (digits !== last) [last, run] = [digits, toDigits(digits)];
      return run(value);
    };
  },
});

type Combine = (a: bigint, b: bigint) => bigint;
const combinations: Readonly<Record<string, Combine | undefined>> = {
  and: (a, b) => a & b,
  or: (a, b) => a | b,
  xor: (a, b) => a ^ b,
  not: (a) => ~a,
};

/** Works on the bits of whole numbers: `does` is `and`, `or`, `xor`, `not`, `left`, `right` (shifts by `b` places) or `count`. */
export const bits = operation({
  id: "bits",
  family: "convert",
  summary: "works on the bits of whole numbers",
  slots: [any("a"), optional(any("b")), settled("does", ["and", "or", "xor", "not", "left", "right", "count"])],
  traits: ["missing", "range", "placesBelow", "placesBeyond"],
  prepare({ range, placesBelow, placesBeyond }, { does }) {
    const limits = rangeOf(range);
    const width = limits ? (limits[1] - limits[0]).toString(2).length : 128;
    const isSigned = !limits || limits[0] < 0n;
    const held = (value: bigint): bigint => (isSigned ? BigInt.asIntN(width, value) : BigInt.asUintN(width, value));

    /** Shifts by a count of places that is not negative. */
    function shift(value: bigint, places: bigint, toLeft: boolean): Value {
      const isBeyond = places >= BigInt(width);
      if (toLeft && placesBeyond === "error") {
        if (value < 0n) return bad("a negative number cannot be shifted to the left");
        return isBeyond ? (value === 0n ? 0 : new Failure("number-out-of-range")) : integer(value << places);
      }
      if (isBeyond) return !toLeft && placesBeyond === "filled" && value < 0n ? -1 : 0;
      return integer(held(toLeft ? value << places : value >> places));
    }

    function shifted(value: bigint, places: bigint, toLeft: boolean): Value {
      if (placesBelow === "counted round") return shift(value, BigInt.asUintN(width > 32 ? 6 : 5, places), toLeft);
      if (placesBelow === "a count of 32 bits") return shift(value, BigInt.asUintN(32, places), toLeft);
      if (places >= 0n) return shift(value, places, toLeft);
      if (placesBelow === "the other way") return shift(value, -places, !toLeft);
      return toLeft ? bad("a number cannot be shifted by less than 0") : 0;
    }

    const combine = combinations[does as string];
    return (first: Value, second?: Value): Value => {
      const [a, b] = [wholeIn(first), second === undefined ? 0n : wholeIn(second)];
      if (isFailure(a) || isFailure(b)) return isFailure(a) ? a : b;
      if (combine) return integer(held(combine(held(a), held(b))));
      if (does === "count") return BigInt.asUintN(width, a).toString(2).replaceAll("0", "").length;
      return shifted(held(a), b, does === "left");
    };
  },
});

function wholeIn(given: Value): bigint | Failure {
  const value = known(given);
  if (typeof value === "bigint" || typeof value === "number") return BigInt(value);
  return isFailure(value) ? value : new Failure("wrong-kind", { expected: "a whole number", given: "a number with a fraction" });
}
