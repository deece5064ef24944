import { Decimal as Big } from "decimal.js";
import type { AnswerOf } from "../traits/index.ts";
import { Decimal, Failure, type Value } from "../values/index.ts";

/** Mathematical functions of decimals, which give at least 16 significant digits (PostgreSQL documentation, 9.3). */

const Precise = Big.clone({ toExpPos: 9e15, toExpNeg: -9e15 });

const digitsOf = (value: Decimal): number => String(value.coefficient).length + value.scale;

/** The number, to be calculated with to about so many digits beyond those of its own and of any result's end. */
const precise = (value: Decimal, digits = 0): Big =>
  new (Precise.clone({ precision: 60 + digitsOf(value) + Math.abs(digits) }))(value.toString());

const complex = () => new Failure("power-argument");
const tooMany = () => new Failure("not-covered", { what: "roots, powers and logarithms of more than 400 digits" });

/** A power of about so many digits that is not calculated: the engine gives up beyond its limits, too. */
function uncalculated(size: number, least: number, most: number, scale = 1000): Value {
  if (size > most) return new Failure("number-out-of-range");
  return size < least ? new Decimal(0n, Math.min(1000, scale)) : tooMany();
}

/** The digits that e has to its highest power, and another base with a fraction in the exponent. */
const [ofE, ofOthers] = [6000, 6020].map((exponent) => exponent * Math.LOG10E);

/** A result with so many decimals, and no more than 1,000. */
const given = (value: Big, ...scales: number[]): Decimal =>
  Decimal.parse(value.toFixed(Math.min(1000, Math.max(0, ...scales)), Big.ROUND_HALF_UP))!;

/** How many decimals a whole power has: 16, or so many that 16 digits count. */
type Rule = Exclude<AnswerOf<"ofDecimals">, "a double">;

/** A whole power. */
function wholePower(rule: Rule, base: Decimal, exponent: Decimal): Value {
  const times = Number(exponent.coefficient);
  const size = base.isZero ? 0 : Math.trunc(times * Math.log10(Math.abs(base.toNumber())));
  const scale = Math.max(rule === "16 decimals" ? 16 : 16 - size, base.scale, exponent.scale, 0);
  if (Math.abs(times) > 1000 || Math.abs(size) > 400) return uncalculated(size, -1001, 131_072, scale);
  const whole = new Decimal(base.coefficient ** BigInt(Math.abs(times)), base.scale * Math.abs(times));
  return times < 0 ? Decimal.of(1).over(whole, scale) : whole.rounded(scale);
}

function power(base: Decimal, exponent: Decimal, rule: Rule): Value {
  const trimmed = exponent.trimmed();
  if (base.isZero && exponent.coefficient < 0n) return complex();
  if (trimmed.scale === 0) return wholePower(rule, base, new Decimal(trimmed.coefficient, 0));
  if (base.coefficient < 0n) return complex();
  if (base.isZero) return Decimal.of(0).rounded(16);
  const size = Math.trunc(exponent.toNumber() * Math.log10(base.toNumber()));
  if (Math.abs(size) > 400) return uncalculated(size, -ofOthers, ofOthers);
  return given(precise(base, size).pow(precise(exponent)), 16 - size, base.scale, exponent.scale);
}

/** How many groups of four digits a number has before the point, less one. */
const weightOf = ({ coefficient, scale, isZero }: Decimal): number =>
  isZero ? 0 : Math.floor((String(coefficient).replace("-", "").length - 1 - scale) / 4);

function squareRoot(value: Decimal): Value {
  if (value.coefficient < 0n) return complex();
  const digits = Math.trunc(((weightOf(value) + 1) * 4) / 2) - 1;
  return given(precise(value).sqrt(), 16 - digits, value.scale);
}

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
  value.coefficient > 0n ? undefined : new Failure("logarithm-argument");

const naturalLogarithm = (value: Decimal): Value =>
  positive(value) ?? given(precise(value).ln(), 16 - logarithmSize(value), value.scale);

function logarithm(value: Decimal, base: Decimal): Value {
  const wrong = positive(base) ?? positive(value);
  if (wrong) return wrong;
  if (base.compare(Decimal.of(1)) === 0) return new Failure("division-by-zero");
  const size = logarithmSize(value) - logarithmSize(base);
  return given(precise(value).ln().div(precise(base).ln()), 16 - size, base.scale, value.scale);
}

function exponential(value: Decimal): Value {
  const size = Math.trunc(value.toNumber() * 0.434294481903252);
  if (Math.abs(size) > 400) return uncalculated(size, -ofE, ofE);
  return given(precise(value, size).exp(), 16 - size, value.scale);
}

const functions: Readonly<Record<string, ((x: Decimal, y: Decimal, rule: Rule) => Value) | undefined>> = {
  sqrt: squareRoot,
  exp: exponential,
  ln: naturalLogarithm,
  log10: (value) => logarithm(value, Decimal.of(10)),
  log: logarithm,
  power,
};

/** A mathematical function of decimals of at most 400 digits, as logarithms are calculated to 1,000 and no further. */
export function decimalMath(name: string, rule: Rule): ((x: Decimal, y?: Decimal) => Value) | undefined {
  const run = functions[name];
  return run && ((x, y = Decimal.of(0)) => (digitsOf(x) > 400 || digitsOf(y) > 400 ? tooMany() : run(x, y, rule)));
}
