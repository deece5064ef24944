import { Decimal as Big } from "decimal.js";
import { Decimal, Double, Failure, type Value } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { bad, strict } from "../shared/code.ts";

/** Functions of numbers (PostgreSQL documentation, 9.3): those of numeric give at least 16 significant digits. */

const Precise = Big.clone({ toExpPos: 9e15, toExpNeg: -9e15 });

const digitsOf = (value: Decimal): number => String(value.coefficient).length + value.scale;

/** The number, to be calculated with to about so many digits beyond those of its own and of any result's end. */
const precise = (value: Decimal, digits = 0): Big =>
  new (Precise.clone({ precision: 60 + digitsOf(value) + Math.abs(digits) }))(value.toString());

const complex = () => new Failure("invalid-value", { problem: "the power is no real number" }, undefined, "2201F");
const tooMany = () => new Failure("not-covered", { what: "roots, powers and logarithms of more than 400 digits" });

/** A power of about so many digits that is not calculated: the engine gives up beyond its limits, too. */
function uncalculated(size: number, least: number, most: number, scale = 1000): Value {
  if (size > most) return new Failure("number-out-of-range");
  return size < least ? new Decimal(0n, Math.min(1000, scale)) : tooMany();
}

/** The digits that e has to its highest power, and another base with a fraction in the exponent. */
const [ofE, ofOthers] = [6000, 6020].map((exponent) => exponent * Math.LOG10E);

/** A function of numerics of at most 400 digits: logarithms are calculated to 1,000 and no further. */
const onNumeric = (run: (...values: Decimal[]) => Value): Code =>
  strict((...values: Decimal[]) => (values.some((value) => digitsOf(value) > 400) ? tooMany() : run(...values)));

/** A result with so many decimals, and no more than 1,000. */
const given = (value: Big, ...scales: number[]): Decimal =>
  Decimal.parse(value.toFixed(Math.min(1000, Math.max(0, ...scales)), Big.ROUND_HALF_UP))!;

/** A whole power. Until version 15 its decimals are 16; later ones count significant digits. */
function wholePower(version: string, base: Decimal, exponent: Decimal): Value {
  const times = Number(exponent.coefficient);
  const size = base.isZero ? 0 : Math.trunc(times * Math.log10(Math.abs(base.toNumber())));
  const scale = Math.max(version === "15" ? 16 : 16 - size, base.scale, exponent.scale, 0);
  if (Math.abs(times) > 1000 || Math.abs(size) > 400) return uncalculated(size, -1001, 131_072, scale);
  const whole = new Decimal(base.coefficient ** BigInt(Math.abs(times)), base.scale * Math.abs(times));
  return times < 0 ? Decimal.of(1).over(whole, scale) : whole.rounded(scale);
}

const power = (version: string) =>
  onNumeric((base, exponent) => {
    const trimmed = exponent.trimmed();
    if (base.isZero && exponent.coefficient < 0n) return complex();
    if (trimmed.scale === 0) return wholePower(version, base, new Decimal(trimmed.coefficient, 0));
    if (base.coefficient < 0n) return complex();
    if (base.isZero) return Decimal.of(0).rounded(16);
    const size = Math.trunc(exponent.toNumber() * Math.log10(base.toNumber()));
    if (Math.abs(size) > 400) return uncalculated(size, -ofOthers, ofOthers);
    return given(precise(base, size).pow(precise(exponent)), 16 - size, base.scale, exponent.scale);
  });

/** How many groups of four digits a number has before the point, less one. */
const weightOf = ({ coefficient, scale, isZero }: Decimal): number =>
  isZero ? 0 : Math.floor((String(coefficient).replace("-", "").length - 1 - scale) / 4);

const squareRoot = onNumeric((value) => {
  if (value.coefficient < 0n)
    return new Failure("invalid-value", { problem: "a negative number has no square root" }, undefined, "2201F");
  const digits = Math.trunc(((weightOf(value) + 1) * 4) / 2) - 1;
  return given(precise(value).sqrt(), 16 - digits, value.scale);
});

/** About how many digits a logarithm has before the point. */
function logarithmSize(value: Decimal): number {
  const number = value.toNumber();
  if (number >= 0.9 && number <= 1.1) {
    const rest = value.minus(Decimal.of(1));
    if (rest.isZero) return 0;
    const lead = precise(rest).abs();
    const weight = weightOf(rest);
    return weight * 4 + Math.trunc(Math.log10(Math.trunc(lead.div(new Precise(10000).pow(weight)).toNumber())));
  }
  return Math.trunc(Math.log10(Math.abs(Math.log(number))));
}

const positive = (value: Decimal): Failure | undefined =>
  value.coefficient > 0n
    ? undefined
    : new Failure("invalid-value", { problem: `${value.toString()} has no logarithm` }, undefined, "2201E");

const naturalLogarithm = onNumeric(
  (value) => positive(value) ?? given(precise(value).ln(), 16 - logarithmSize(value), value.scale),
);

const logarithm = (base: Decimal, value: Decimal): Value => {
  const wrong = positive(base) ?? positive(value);
  if (wrong) return wrong;
  if (base.compare(Decimal.of(1)) === 0) return new Failure("division-by-zero");
  const size = logarithmSize(value) - logarithmSize(base);
  return given(precise(value).ln().div(precise(base).ln()), 16 - size, base.scale, value.scale);
};

const exponential = onNumeric((value) => {
  const size = Math.trunc(value.toNumber() * 0.434294481903252);
  if (Math.abs(size) > 400) return uncalculated(size, -ofE, ofE);
  return given(precise(value, size).exp(), 16 - size, value.scale);
});

/** The same for doubles; before version 17 what is rounded up to the end of the last bucket lies behind it. */
function bucketOf(value: number, low: number, high: number, count: number, version: string): Value {
  if (count < 1) return bad("there must be one bucket at least");
  if (low === high) return bad("the bounds of the buckets must differ");
  const [start, end, at] = low < high ? [low, high, value] : [-low, -high, -value];
  if (at < start) return 0;
  if (at >= end) return count + 1;
  const before = Math.trunc(count * ((at - start) / (end - start)));
  return version === "15" ? before + 1 : Math.min(before + 1, count);
}

/** The number of the one of so many equal buckets between two bounds in which a value lies. */
function bucket(value: Decimal, low: Decimal, high: Decimal, count: number): Value {
  if (count < 1) return bad("there must be one bucket at least");
  const order = low.compare(high);
  if (order === 0) return bad("the bounds of the buckets must differ");
  // From high to low it is the same with the other sign.
  const [start, end, at] = order < 0 ? [low, high, value] : [low.negated(), high.negated(), value.negated()];
  if (at.compare(start) < 0) return 0;
  if (at.compare(end) >= 0) return count + 1;
  return Number(at.minus(start).times(Decimal.of(count)).quotient(end.minus(start))) + 1;
}

/** The code of what is calculated with decimals and doubles, in a version. */
export const arithmeticCode = (version: string): Readonly<Record<string, Code>> => ({
  "power decimal": power(version),
  "sqrt decimal": {
    ...squareRoot,
    like: {
      operation: "math",
      slots: ["x"],
      fixed: { name: "sqrt" },
      answers: { missing: "null", numbers: "exact", outside: "error", overflow: "error", tooSmall: "zero", closeness: "nearest" },
    },
  },
  "ln decimal": naturalLogarithm,
  "log decimal": onNumeric((value) => logarithm(Decimal.of(10), value)),
  "log base": onNumeric(logarithm),
  "exp decimal": exponential,
  degrees: strict(({ value }: Double) => {
    const result = value / (Math.PI / 180);
    return Number.isFinite(value) && !Number.isFinite(result) ? new Failure("number-out-of-range") : new Double(result);
  }),
  width_bucket: strict(bucket),
  "width_bucket bounds": strict((value: Decimal | Double, bounds: readonly (Decimal | Double | null)[]) => {
    if (bounds.includes(null)) return bad("a bound of the buckets must not be null");
    const isReached = (bound: Decimal | Double | null) =>
      value instanceof Decimal ? value.compare(bound as Decimal) >= 0 : value.value >= (bound as Double).value;
    // The bounds are halved, so that their order counts.
    let [low, high] = [0, bounds.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (isReached(bounds[middle])) low = middle + 1;
      else high = middle;
    }
    return low;
  }),
  "width_bucket double": strict((value: Double, low: Double, high: Double, count: number) =>
    !Number.isNaN(value.value) && Number.isFinite(low.value) && Number.isFinite(high.value)
      ? bucketOf(value.value, low.value, high.value, count, version)
      : bad("buckets lie between finite numbers"),
  ),
});
