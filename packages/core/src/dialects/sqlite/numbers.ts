import { Bytes, Double, type Value, integer, textOfBytes } from "../../values/index.ts";

const int64 = 9223372036854775807n;

/** An integer of 64 bits, or the double that it becomes beyond. */
export function fitInteger(value: bigint): Value {
  return value > int64 || value < -int64 - 1n ? new Double(Number(value)) : integer(value);
}

/** Significant decimal digits of a finite number that is not 0, and the power of ten of the first. */
export interface Digits {
  readonly digits: string;
  readonly exponent: number;
}

/** Half up at the digit with this index. */
function roundedAt({ digits, exponent }: Digits, length: number): Digits {
  if (length >= digits.length) return { digits, exponent };
  if (length < 0) return { digits: "0", exponent };
  const kept = digits.slice(0, length);
  if (digits[length] < "5") return { digits: kept || "0", exponent };
  const raised = String(BigInt(kept || "0") + 1n).padStart(length, "0");
  return raised.length > length
    ? { digits: raised.slice(0, Math.max(1, length)), exponent: exponent + 1 }
    : { digits: raised, exponent };
}

/**
 * The digits that the engine works from: 18 of them, or 19 where the power of two below the number
 * has fewer decimal places than the number. What is rounded later is therefore rounded twice.
 */
function decode(value: number): Digits {
  let power = Math.floor(Math.log2(value));
  if (2 ** power > value) power--;
  if (2 ** (power + 1) <= value) power++;
  const written = value.toExponential(17).split("e");
  const isLong = Math.floor((power * 78913) / 262144) < Number(written[1]);
  const [mantissa, exponent] = isLong ? value.toExponential(18).split("e") : written;
  return { digits: mantissa.replace(".", ""), exponent: Number(exponent) };
}

const numberOf = ({ digits, exponent }: Digits): number => Number(`${digits[0]}.${digits.slice(1) || "0"}e${exponent}`);

/** 17 significant digits, or fewer where the last ones are a run of nines or zeros that is not needed. */
function shortened(value: number, decoded: Digits): Digits {
  const { digits, exponent } = decoded;
  const isRun = (digits[15] === "9" && digits[14] === "9") || digits.slice(13, 16) === "000";
  if (isRun) {
    let end = 14;
    while (end > 0 && digits[end - 1] === digits[14]) end--;
    const short = digits[14] === "0" ? { digits: digits.slice(0, end) || "0", exponent } : roundedAt(decoded, end);
    if (numberOf(short) === value) return short;
  }
  return roundedAt(decoded, 17);
}

/** The digits of a finite number rounded after `places` of the fraction, or to `significant` digits; at most `limit` are exact. */
export function digitsOf(value: number, how: { places?: number; significant?: number; limit: number }): Digits {
  if (value === 0) return { digits: "0", exponent: 0 };
  const decoded = decode(value);
  const wanted = how.significant ?? decoded.exponent + 1 + how.places!;
  const length = Math.min(wanted, how.limit);
  return length === 17 && how.limit > 17 ? shortened(value, decoded) : roundedAt(decoded, length);
}

/** A double as text: `%!.17g`. */
export function doubleText(value: number): string {
  if (value === 0) return "0.0";
  if (!Number.isFinite(value)) return value > 0 ? "Inf" : "-Inf";
  const { digits, exponent } = shortened(Math.abs(value), decode(Math.abs(value)));
  const sign = value < 0 ? "-" : "";
  const kept = digits.replace(/0+$/, "");
  if (exponent < -4 || exponent >= 17) {
    const size = String(Math.abs(exponent)).padStart(2, "0");
    return `${sign}${kept[0]}.${kept.slice(1) || "0"}e${exponent < 0 ? "-" : "+"}${size}`;
  }
  if (exponent < 0) return `${sign}0.${"0".repeat(-exponent - 1)}${kept}`;
  return `${sign}${kept.slice(0, exponent + 1).padEnd(exponent + 1, "0")}.${kept.slice(exponent + 1) || "0"}`;
}

/** A value as text; null stays. */
export function toText(value: Value): Value {
  if (typeof value === "string" || value === null) return value;
  if (value instanceof Bytes) return textOfBytes(value.bytes);
  return value instanceof Double ? doubleText(value.value) : String(value);
}

/** A text up to its first NUL, where C takes it to end. */
export function untilNul(text: string): string {
  const end = text.indexOf("\0");
  return end < 0 ? text : text.slice(0, end);
}

const numeral = /^[ \t\n\v\f\r]*([+-]?)(\d+(?:\.\d*)?|\.\d+)(?:[eE]([+-]?\d+))?/;

/** The number that a text begins with, 0 for none; an integer where it is written as one and fits. */
export function prefixNumber(text: string): number | bigint | Double {
  const found = numeral.exec(text);
  if (!found) return 0;
  const [written, sign, digits, power] = found;
  if (power === undefined && !digits.includes(".")) {
    const value = BigInt(digits) * (sign === "-" ? -1n : 1n);
    if (value <= int64 && value >= -int64 - 1n) return integer(value);
  }
  return new Double(Number(written));
}

/** Whether the whole text is a number, with white space around it at most. */
export const isNumeral = (text: string): boolean =>
  /^[ \t\n\v\f\r]*[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?[ \t\n\v\f\r]*$/.test(text);

/** An operand of arithmetic: a text counts as the number that it begins with. */
export function toNumber(value: Value): Value {
  if (typeof value === "string") return prefixNumber(value);
  return value instanceof Bytes ? prefixNumber(toText(value) as string) : value;
}

/** NUMERIC affinity: a text that is a number becomes one, a double that is whole an integer; others stay. */
export function toNumeric(value: Value): Value {
  if (typeof value !== "string" || !isNumeral(value)) return value;
  return whole(prefixNumber(value));
}

/** A double that is a whole number of at most 51 bits as an integer. */
export function whole(value: Value): Value {
  return value instanceof Double && Number.isInteger(value.value) && Math.abs(value.value) < 2 ** 51 ? value.value : value;
}

/** An integer, fractions cut, beyond 64 bits the nearest one; a text counts as the integer that it begins with. */
export function toInteger(value: Value): number | bigint {
  const given = value instanceof Bytes ? toText(value) : value;
  if (typeof given === "string") {
    const digits = /^[ \t\n\v\f\r]*([+-]?\d+)/.exec(given)?.[1];
    return digits === undefined ? 0 : clamped(BigInt(digits.replace("+", "")));
  }
  if (!(given instanceof Double)) return given as number | bigint;
  if (Math.abs(given.value) >= 2 ** 63) return integer(given.value > 0 ? int64 : -int64 - 1n);
  return integer(BigInt(Math.trunc(given.value)));
}

const clamped = (value: bigint): number | bigint => integer(value > int64 ? int64 : value < -int64 - 1n ? -int64 - 1n : value);

/** The value as a double; a text counts as the number that it begins with. */
export function toDouble(value: Value): Double {
  const given = toNumber(value);
  return given instanceof Double ? given : new Double(Number(given));
}
