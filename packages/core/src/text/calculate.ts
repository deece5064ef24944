import { Decimal, Double, Failure, type Value, integer, isFailure, nearest } from "../values/index.ts";
import { type Exact, known } from "./numeric.ts";
import { type SlotNumber, any, number, operation, settled } from "./operation.ts";

const onDoubles: Readonly<Record<string, (a: number, b: number) => Value>> = {
  "+": (a, b) => a + b,
  "-": (a, b) => a - b,
  "*": (a, b) => a * b,
  "/": (a, b) => a / b,
  mod: (a, b) => a % b,
  idiv: (a, b) => Math.trunc(a / b),
  "^": nearest.pow,
};

/** Whole numbers below this in size divide without an error that would round a quotient up to the next whole one. */
const divisible = 2 ** 51;

/** What calculates with small whole numbers as the host's numbers; NaN where it has to be done with care. */
function ofSmall(sign: string, isWhole: boolean): (a: number, b: number) => number {
  if (sign === "+") return (a, b) => a + b;
  if (sign === "-") return (a, b) => a - b;
  if (sign === "*") return (a, b) => a * b;
  if (sign === "mod") return (a, b) => (a < 0 !== b < 0 ? NaN : a % b);
  if (!isWhole) return () => NaN;
  return (a, b) => (b === 0 || a >= divisible || a <= -divisible ? NaN : Math.trunc(a / b));
}

/** Decimal digits before and after which a quotient is cut: at least 16 significant ones. */
function quotientScale(a: Decimal, b: Decimal): number {
  const weight = (value: Decimal) => {
    const digits = String(value.coefficient < 0n ? -value.coefficient : value.coefficient).length - value.scale;
    return value.isZero ? 0 : Math.ceil(digits / 4) - 1;
  };
  const lead = (value: Decimal) => {
    const plain = value.toString().replace("-", "");
    const [whole, fraction = ""] = plain.split(".");
    const aligned = whole.replace(/^0+/, "");
    if (aligned) return Number(aligned.slice(0, ((aligned.length - 1) % 4) + 1));
    const zeros = /^0*/.exec(fraction)![0].length;
    return Number(fraction.slice(zeros - (zeros % 4), zeros - (zeros % 4) + 4).padEnd(4, "0"));
  };
  const weightOf = (value: Decimal) => {
    if (value.isZero) return 0;
    const plain = value.toString().replace("-", "").split(".");
    if (/[1-9]/.test(plain[0])) return weight(value);
    return -Math.floor(/^0*/.exec(plain[1] ?? "")![0].length / 4) - 1;
  };
  let top = weightOf(a) - weightOf(b);
  if (lead(a) <= lead(b)) top--;
  return Math.max(16 - top * 4, a.scale, b.scale, 0);
}

/** Decimal digits are kept in groups of nine, nine groups at most. */
const groups = (digits: number): number => Math.ceil(digits / 9);

/** What is below this has room, wherever its point stands. */
const eightGroups = 10n ** 72n;

/** The quotient in whole groups of digits, with at least four decimals more than both numbers have. */
function byNines(a: Decimal, b: Decimal): Decimal {
  const [x, y] = [groups(a.scale) * 9, groups(b.scale) * 9];
  const more = Math.max(0, 4 - (x - a.scale) - (y - b.scale));
  const fraction = groups(x + y + more);
  const found = a.cutOver(b, 9 * fraction);
  if (fraction <= 9 && found.coefficient < eightGroups && found.coefficient > -eightGroups) return found;
  const whole = String(a.quotient(b)).replace(/^-|^-?0$/, "").length;
  return a.cutOver(b, 9 * Math.min(fraction, 9 - groups(whole)));
}

/** What is before the point of a number, or the integer of 64 bits that is nearest. */
function whole64(value: Value): bigint {
  const whole = value instanceof Double ? value.value : (value as Exact);
  if (Number.isNaN(whole)) return 0n;
  const exact = typeof whole === "bigint" || Math.abs(whole) === Infinity ? whole : BigInt(Math.trunc(whole));
  if (exact >= 2n ** 63n) return 2n ** 63n - 1n;
  return exact < -(2n ** 63n) ? -(2n ** 63n) : BigInt(exact);
}

/** What dividing and rounding to a whole number come to. */
export const wholeQuotient = operation({
  id: "whole-quotient",
  family: "convert",
  summary: "divides two numbers to a whole one",
  slots: [number("a"), number("b")],
  traits: ["wholeQuotient"],
  prepare({ wholeQuotient: cut }) {
    const whole = { "toward zero": Math.trunc, down: Math.floor, up: Math.ceil }[cut];
    return (a: SlotNumber, b: SlotNumber): Value => {
      const result = whole(Number(a) / Number(b)) + 0;
      return Number.isFinite(result) ? result : new Failure("division-by-zero");
    };
  },
});

/** Arithmetic on two numbers; `sign` is `+`, `-`, `*`, `/`, `idiv`, `mod` or `^`. */
export const calculate = operation({
  id: "calculate",
  family: "convert",
  summary: "does arithmetic on two numbers",
  slots: [any("a"), any("b"), settled("sign", Object.keys(onDoubles))],
  traits: [
    "missing",
    "numbers",
    "quotient",
    "quotientDigits",
    "byZero",
    "doubleByZero",
    "overflow",
    "tooSmall",
    "remainder",
    "remainderSign",
  ],
  prepare({ numbers, quotient, quotientDigits, byZero, doubleByZero, overflow, tooSmall, remainder, remainderSign }, fixed) {
    const sign = fixed.sign as string;
    const onDouble = onDoubles[sign];
    const isDivision = sign === "/" || sign === "mod" || sign === "idiv";

    const dividedByZero = (answer: typeof byZero): Value => (answer === "null" ? null : new Failure("division-by-zero"));

    /** What a division of a double by zero gives; what is not a number stays so. */
    function doubleDividedByZero(a: number, zero: number): Value {
      if (Number.isNaN(a) && doubleByZero !== "null") return new Double(NaN);
      return doubleByZero === "infinity" ? new Double(sign === "/" ? a / zero : NaN) : dividedByZero(doubleByZero);
    }

    /** Whether a remainder is to have the other sign, which adding the divisor gives it. */
    const isTurned = (rest: number | bigint, divisor: number | bigint): boolean =>
      remainderSign === "of the divisor" && Number(rest) !== 0 && rest < 0 !== divisor < 0;

    const toDouble = (value: Value) =>
      value instanceof Double ? value.value : value instanceof Decimal ? value.toNumber() : Number(value);

    if (numbers === "double") {
      return (first: Value, second: Value): Value => {
        const a = typeof first === "number" ? first : toDouble(first);
        const b = typeof second === "number" ? second : toDouble(second);
        if (b === 0 && isDivision) return doubleDividedByZero(a, b);
        const result =
          sign === "mod" && remainderSign === "of the divisor" ? a - b * Math.floor(a / b) : (onDouble(a, b) as number);
        return Number.isFinite(result) ? result : new Failure("number-out-of-range");
      };
    }

    function onExact(a: Exact, b: Exact): Value {
      const [x, y] = [BigInt(a), BigInt(b)];
      if (sign === "+") return integer(x + y);
      if (sign === "-") return integer(x - y);
      if (sign === "*") return integer(x * y);
      if (sign === "^") return new Double(nearest.pow(Number(x), Number(y)));
      if (y === 0n) return dividedByZero(byZero);
      if (sign === "mod") {
        const rest = x % y;
        return integer(isTurned(rest, y) ? rest + y : rest);
      }
      if (sign === "idiv" || quotient === "integer") return integer(x / y);
      return quotient === "double" ? new Double(Number(x) / Number(y)) : onDecimals(Decimal.of(x), Decimal.of(y));
    }

    function onDecimals(a: Decimal, b: Decimal): Value {
      if (sign === "+") return a.plus(b);
      if (sign === "-") return a.minus(b);
      if (sign === "*") return a.times(b);
      if (b.isZero) return dividedByZero(byZero);
      if (sign === "mod") {
        const rest = a.remainder(b);
        return isTurned(rest.coefficient, b.coefficient) ? rest.plus(b) : rest;
      }
      if (sign === "idiv") return integer(a.quotient(b));
      if (quotientDigits === "four more decimals") return byNines(a, b);
      return quotientDigits === "twenty decimals" ? a.over(b, 20).trimmed() : a.over(b, quotientScale(a, b));
    }

    function withDouble(a: number, b: number): Value {
      if (isDivision && b === 0) return sign === "idiv" ? dividedByZero(byZero) : doubleDividedByZero(a, b);
      if (sign === "idiv") {
        const whole = Math.trunc(a / b);
        return Number.isFinite(whole) && !Number.isNaN(a) ? integer(BigInt(whole)) : new Failure("number-out-of-range");
      }
      const isPowerless = sign === "^" && ((a === 0 && b < 0) || (a < 0 && Number.isFinite(b) && !Number.isInteger(b)));
      if (overflow === "error" && isPowerless) return new Failure("power-argument");
      const result = onDouble(a, b) as number;
      const isFromFinite = Number.isFinite(a) && Number.isFinite(b);
      const isLost = result === 0 && a !== 0 && b !== 0 && (sign === "*" || sign === "/" || sign === "^");
      if (isFromFinite && ((overflow === "error" && !Number.isFinite(result)) || (tooSmall === "error" && isLost)))
        return new Failure("number-out-of-range");
      return new Double(sign === "mod" && isTurned(result, b) ? result + b : result);
    }

    const toDecimal = (value: Value) => (value instanceof Decimal ? value : Decimal.of(value as Exact));

    /** The remainder of what is left of each in an integer of 64 bits. */
    function remainderOfWholes(a: Value, b: Value): Value {
      const [x, y] = [whole64(a), whole64(b)];
      if (y === 0n) return dividedByZero(byZero);
      const rest = x % y;
      return new Double(Number(isTurned(rest, y) ? rest + y : rest));
    }

    const small = ofSmall(sign, sign === "idiv" || (sign === "/" && quotient === "integer"));
    return (first: Value, second: Value): Value => {
      if (typeof first === "number" && typeof second === "number") {
        const result = small(first, second);
        // Of whole numbers; there is no negative zero among them.
        if (Number.isSafeInteger(result) && Number.isInteger(first) && Number.isInteger(second)) return result + 0;
      }
      const a = known(first);
      const b = isFailure(a) ? a : known(second);
      if (isFailure(a) || isFailure(b)) return b;
      if (sign === "mod" && remainder === "of whole parts" && (a instanceof Double || b instanceof Double))
        return remainderOfWholes(a, b);
      if (a instanceof Double || b instanceof Double) return withDouble(toDouble(a), toDouble(b));
      if (a instanceof Decimal || b instanceof Decimal) return onDecimals(toDecimal(a), toDecimal(b));
      return onExact(a, b);
    };
  },
  narrowed(answers, fixed, kind) {
    const { sign } = fixed;
    if (answers.numbers === "double" || (sign !== "+" && sign !== "-" && sign !== "*")) return undefined;
    const run = onDoubles[sign] as (a: number, b: number) => number;
    const general = this.prepare(answers, fixed) as (a: Value, b: Value) => Value;
    if (kind === "whole number")
      return (a: number, b: number): Value => {
        const result = run(a, b);
        return Number.isSafeInteger(result) ? result + 0 : general(a, b);
      };
    if (kind !== "double") return undefined;
    return (a: Double, b: Double): Value => {
      const result = run(a.value, b.value);
      return result !== 0 && Number.isFinite(result) ? new Double(result) : general(a, b);
    };
  },
});
