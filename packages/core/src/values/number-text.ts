/** How numbers are written as text: each rule is named, so that the host's rule is never a dialect's by accident. */

/** Significant digits and decimal exponent of the shortest text that reads back as `value` (finite, not 0). */
function shortest(value: number): { digits: string; exponent: number } {
  const [mantissa, exponent] = Math.abs(value).toExponential().split("e");
  return { digits: mantissa.replace(".", ""), exponent: Number(exponent) };
}

function plain(digits: string, exponent: number): string {
  if (exponent < 0) return "0." + "0".repeat(-exponent - 1) + digits;
  if (digits.length <= exponent + 1) return digits.padEnd(exponent + 1, "0");
  return digits.slice(0, exponent + 1) + "." + digits.slice(exponent + 1);
}

/**
 * The spreadsheet general format: at most 15 significant digits, no zeros at the end of the
 * fraction, an exponent of at least two digits from 1E+21 on and below 1E-9.
 */
export function generalNumber(value: number): string {
  if (value === 0) return "0";
  const [mantissa, power] = Math.abs(value).toExponential(14).split("e");
  const digits = mantissa.replace(".", "").replace(/0+$/, "");
  const exponent = Number(power);
  const sign = value < 0 ? "-" : "";
  if (exponent < 21 && exponent >= -10) return sign + plain(digits, exponent);
  const point = digits.length > 1 ? "." + digits.slice(1) : "";
  const size = String(Math.abs(exponent)).padStart(2, "0");
  return `${sign}${digits[0]}${point}E${exponent < 0 ? "-" : "+"}${size}`;
}

/** SQL double precision: shortest exact digits; an exponent of two digits below 1e-4 and from 1e15 on. */
export function sqlDouble(value: number): string {
  if (Number.isNaN(value)) return "NaN";
  if (!Number.isFinite(value)) return value < 0 ? "-Infinity" : "Infinity";
  if (value === 0) return Object.is(value, -0) ? "-0" : "0";
  const { digits, exponent } = shortest(value);
  const sign = value < 0 ? "-" : "";
  if (exponent >= -4 && exponent < 15) return sign + plain(digits, exponent);
  const point = digits.length > 1 ? "." + digits.slice(1) : "";
  const size = String(Math.abs(exponent)).padStart(2, "0");
  return `${sign}${digits[0]}${point}e${exponent < 0 ? "-" : "+"}${size}`;
}

/** `xs:double` as text (F&O 3.1, 19.1.2.2): plain from 1e-6 up to 1e6, otherwise `1.0E7`. */
export function xsDouble(value: number): string {
  if (Number.isNaN(value)) return "NaN";
  if (!Number.isFinite(value)) return value < 0 ? "-INF" : "INF";
  if (value === 0) return Object.is(value, -0) ? "-0" : "0";
  const { digits, exponent } = shortest(value);
  const sign = value < 0 ? "-" : "";
  if (exponent >= -6 && exponent < 6) return sign + plain(digits, exponent);
  return `${sign}${digits[0]}.${digits.slice(1) || "0"}E${exponent}`;
}
