/** The digits that a number is written with: each rule is named, so that the host's rule is never a dialect's by accident. */

/** Significant decimal digits of a finite number without its sign, and the power of ten of the first. */
export interface Digits {
  readonly digits: string;
  readonly exponent: number;
}

/** What a number in exponential notation has before and after its `e`. */
function split(written: string): Digits {
  const [mantissa, exponent] = written.split("e");
  return { digits: mantissa.replace(".", ""), exponent: Number(exponent) };
}

/** As few digits as read back as the same number. */
export const shortestDigits = (value: number): Digits => split(Math.abs(value).toExponential());

/** As few digits as read back as the same number of 32 bits. */
export function shortestOf32Bits(value: number): Digits {
  const size = [1, 2, 3, 4, 5, 6, 7, 8, 9].find((count) => Math.fround(Number(value.toPrecision(count))) === value);
  return shortestDigits(Number(value.toPrecision(size)));
}

/** So many significant digits at most, without zeros at the end. */
export function roundedDigits(value: number, most: number): Digits {
  const { digits, exponent } = split(Math.abs(value).toExponential(most - 1));
  return { digits: digits.replace(/0+$/, "") || "0", exponent };
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
 * The digits of a positive number from which others are rounded: 18 of them, or 19 where the power of two below the number
 * has fewer decimal places than the number. What is rounded later is therefore rounded twice.
 */
function decode(value: number): Digits {
  let power = Math.floor(Math.log2(value));
  if (2 ** power > value) power--;
  if (2 ** (power + 1) <= value) power++;
  const short = split(value.toExponential(17));
  return Math.floor((power * 78913) / 262144) < short.exponent ? split(value.toExponential(18)) : short;
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

/** At most 17 significant digits, without a run at the end that is not needed. */
export function seventeenDigits(value: number): Digits {
  const { digits, exponent } = shortened(Math.abs(value), decode(Math.abs(value)));
  return { digits: digits.replace(/0+$/, ""), exponent };
}

/** Digits with their point, without a power of ten. */
export function plainDigits({ digits, exponent }: Digits): string {
  if (exponent < 0) return "0." + "0".repeat(-exponent - 1) + digits;
  if (digits.length <= exponent + 1) return digits.padEnd(exponent + 1, "0");
  return digits.slice(0, exponent + 1) + "." + digits.slice(exponent + 1);
}

/** The digits of a finite double, all of them, and the power of ten of the first. */
function exactDigits(value: number): { digits: string; exponent: number } {
  if (value === 0) return { digits: "0", exponent: 0 };
  let power = 0;
  let mantissa = value;
  while (!Number.isInteger(mantissa)) {
    mantissa *= 2;
    power++;
  }
  // value = mantissa / 2^power = mantissa * 5^power / 10^power
  const digits = String(BigInt(mantissa) * 5n ** BigInt(power));
  return { digits, exponent: digits.length - 1 - power };
}

/** The first `count` digits, the rest rounded half to even; a carry raises the exponent. */
export function roundedTo(value: number, count: (exponent: number) => number): { digits: string; exponent: number } {
  const { digits, exponent } = exactDigits(value);
  const length = count(exponent);
  if (length >= digits.length) return { digits: digits.padEnd(length, "0"), exponent };
  if (length < 0) return { digits: "", exponent };
  const rest = digits.slice(length);
  const kept = BigInt(digits.slice(0, length) || "0");
  const half = "5".padEnd(rest.length, "0");
  const isUp = rest > half || (rest === half && kept % 2n === 1n);
  const result = String(isUp ? kept + 1n : kept).padStart(length, "0");
  if (length === 0) return isUp ? { digits: "1", exponent: exponent + 1 } : { digits: "", exponent };
  return result.length > length ? { digits: result.slice(0, length), exponent: exponent + 1 } : { digits: result, exponent };
}

/** One digit, so many after the point, and a power of ten of at least two digits. */
export function scientificText(value: number, places: number): string {
  const { digits, exponent } = roundedTo(value, () => places + 1);
  const power = `e${exponent < 0 ? "-" : "+"}${String(Math.abs(exponent)).padStart(2, "0")}`;
  return `${digits[0]}${places > 0 ? "." + digits.slice(1) : ""}${power}`;
}
