import { Decimal as Big } from "decimal.js";

/**
 * Functions of doubles that give the double nearest to the true value, as the C library of the engines
 * does for nearly every argument; the host's own miss the last digit now and then.
 */

type OfOne = (value: number) => number;

const Precise = Big.clone({ precision: 40, toExpPos: 9e15, toExpNeg: -9e15 });

/** The very value of a double, which is not what it is written as. */
const exact = (value: number): Big => new Precise(Math.abs(value) < 1e21 ? value.toPrecision(60) : BigInt(value).toString());

const nearest =
  (host: OfOne, calculate: (value: Big) => Big): OfOne =>
  (value) => {
    const guess = host(value);
    return Number.isFinite(guess) && guess !== 0 && Number.isFinite(value) ? calculate(exact(value)).toNumber() : guess;
  };

export const exp = nearest(Math.exp, (value) => value.exp());
export const ln = nearest(Math.log, (value) => value.ln());
export const log2 = nearest(Math.log2, (value) => value.log(2));
export const sin = nearest(Math.sin, (value) => value.sin());
export const cos = nearest(Math.cos, (value) => value.cos());
export const tan = nearest(Math.tan, (value) => value.tan());
export const asin = nearest(Math.asin, (value) => value.asin());
export const acos = nearest(Math.acos, (value) => value.acos());
export const atan = nearest(Math.atan, (value) => value.atan());

export function atan2(y: number, x: number): number {
  const guess = Math.atan2(y, x);
  if (!Number.isFinite(y) || !Number.isFinite(x) || y === 0 || x === 0) return guess;
  return Precise.atan2(exact(y), exact(x)).toNumber();
}

/** What has no value in JavaScript, a power of 1 that is no number or infinite, is 1 (C 17, F.10.4.4). */
export function pow(base: number, exponent: number): number {
  if (base === 1 || (base === -1 && Math.abs(exponent) === Infinity)) return 1;
  const guess = base ** exponent;
  if (!Number.isFinite(guess) || guess === 0 || !Number.isFinite(base) || Number.isSafeInteger(guess)) return guess;
  return exact(base).pow(exact(exponent)).toNumber();
}

/** From the logarithm of the fraction and the power of two, which is how the C library makes it. */
export function log10(value: number): number {
  if (!(value > 0) || !Number.isFinite(value)) return Math.log10(value);
  const power = Math.floor(Math.log2(value));
  const exponent = value / 2 ** power >= 2 ? power + 1 : value / 2 ** power < 1 ? power - 1 : power;
  const whole = exponent < 0 ? exponent + 1 : exponent;
  const rest = whole * 3.69423907715893078616e-13 + 4.34294481903251816668e-1 * ln(value / 2 ** whole);
  return rest + whole * 3.01029995663611771306e-1;
}
