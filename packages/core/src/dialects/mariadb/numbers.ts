import { Bytes, Decimal, Double, Failure, type Value, integer, isFailure, textOfBytes } from "../../values/index.ts";

export const int64 = 9223372036854775807n;
export const uint64 = 18446744073709551615n;

/** Significant digits and decimal exponent of the shortest text that reads back as `value`. */
function shortest(value: number): { digits: string; exponent: number } {
  const [mantissa, exponent] = Math.abs(value).toExponential().split("e");
  return { digits: mantissa.replace(".", ""), exponent: Number(exponent) };
}

/** A double as text: plain while the exponent lies from −15 to 14, otherwise like `1.5e20`. */
export function doubleText(value: number): string {
  if (value === 0) return "0";
  const { digits, exponent } = shortest(value);
  const sign = value < 0 ? "-" : "";
  if (exponent >= 15 || exponent < -15) return `${sign}${digits[0]}${digits.length > 1 ? "." + digits.slice(1) : ""}e${exponent}`;
  if (exponent < 0) return `${sign}0.${"0".repeat(-exponent - 1)}${digits}`;
  return digits.length <= exponent + 1
    ? sign + digits.padEnd(exponent + 1, "0")
    : `${sign}${digits.slice(0, exponent + 1)}.${digits.slice(exponent + 1)}`;
}

/** A double that is shown with so many decimals: what pi() and rounding give. */
export class FixedDouble extends Double {
  constructor(
    value: number,
    readonly decimals: number,
  ) {
    super(value);
  }
}

function fixedText({ value, decimals }: FixedDouble): string {
  // The digits are the shortest that mean the number, and those that are left out round it as it is: a half to the even one.
  const written = Decimal.parse(String(value))!;
  if (written.scale <= decimals) return written.rounded(decimals).toString();
  const exact = value.toFixed(Math.min(100, decimals + 40));
  const at = exact.length - Math.min(100 - decimals, 40);
  const isHalf = /^50*$/.test(exact.slice(at)) && /[02468]\.?$/.test(exact.slice(0, at));
  return isHalf ? exact.slice(0, at).replace(/\.$/, "") : value.toFixed(decimals);
}

/** A value as text; null stays. */
export function toText(value: Value): Value {
  if (typeof value === "string" || value === null || isFailure(value)) return value;
  if (value instanceof Bytes) return textOfBytes(value.bytes);
  if (value instanceof FixedDouble) return fixedText(value);
  if (value instanceof Double) return doubleText(value.value);
  return typeof value === "boolean" ? String(Number(value)) : String(value);
}

const numeral = /^[ \t\n\v\f\r]*([+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?)/;

/** The number that a text begins with, 0 for none. */
export const prefixDouble = (text: string): number => Number(numeral.exec(text)?.[1] ?? 0);

/** Bytes written in base 16 or 2 as the number that they make. */
export const ofBytes = ({ bytes }: Bytes): bigint => bytes.reduce((sum, byte) => ((sum << 8n) | BigInt(byte)) & uint64, 0n);

export function toDouble(value: Value): Value {
  if (value === null || value instanceof Double || isFailure(value)) return value;
  if (typeof value === "string") {
    const number = prefixDouble(value);
    return new Double(Number.isFinite(number) ? number : Math.sign(number) * Number.MAX_VALUE);
  }
  if (value instanceof Bytes) return toDouble(toText(value));
  return new Double(value instanceof Decimal ? value.toNumber() : Number(value));
}

/** A text as the decimal that it begins with; doubles by their digits. */
export function toDecimal(value: Value): Value {
  if (value === null || value instanceof Decimal || isFailure(value)) return value;
  if (typeof value === "string") return Decimal.parse(numeral.exec(value)?.[1] ?? "0") ?? Decimal.of(0);
  if (value instanceof Double) return Decimal.parse(doubleText(value.value)) ?? Decimal.of(0);
  return value instanceof Bytes
    ? toDecimal(toText(value))
    : Decimal.of(Number.isSafeInteger(value) ? (value as number) : (value as bigint));
}

const clamped = (value: bigint): number | bigint => integer(value > int64 ? int64 : value < -int64 - 1n ? -int64 - 1n : value);

/** Rounded to a whole number, halves away from zero for decimals and to even for doubles; a text by its leading digits. */
export function toInteger(value: Value): Value {
  if (value === null || isFailure(value) || typeof value === "number" || typeof value === "bigint") return value;
  if (typeof value === "boolean") return Number(value);
  if (value instanceof Bytes) return toInteger(toText(value));
  if (value instanceof Decimal) return clamped(value.rounded(0).coefficient);
  if (value instanceof Double) return wholeDouble(value.value);
  const digits = /^[ \t\n\v\f\r]*([+-]?\d+)/.exec(value as string)?.[1];
  if (digits === undefined) return 0;
  // What only an unsigned number has room for becomes a negative one.
  const whole = BigInt(digits.replace("+", ""));
  return whole > int64 ? integer(BigInt.asIntN(64, whole > uint64 ? uint64 : whole)) : clamped(whole);
}

/** Whether a number is too large for a time HHMMSS, so that it is read as a date. */
export const isBeyondTimes = (value: Value): boolean =>
  value !== null && typeof value !== "string" && (toDouble(value) as Double).value > 8_385_959;

export function roundEven(value: number): number {
  const floor = Math.floor(value);
  const part = value - floor;
  return part > 0.5 || (part === 0.5 && floor % 2 !== 0) ? floor + 1 : floor;
}

function wholeDouble(value: number): number | bigint {
  if (Math.abs(value) >= 2 ** 63) return integer(value > 0 ? int64 : -int64 - 1n);
  return integer(BigInt(roundEven(value)));
}

/** The truth of a value: a number that is not 0. */
export function truthOf(value: Value): boolean | null | Failure {
  if (value === null || isFailure(value)) return value;
  if (value instanceof Decimal) return !value.isZero;
  const number = toDouble(value);
  return number instanceof Double ? number.value !== 0 : false;
}
