import { Bytes, Decimal, Double, Failure, type Value, integer, isFailure } from "../../values/index.ts";

/** The ranges of the integer types. */
export const ranges: Readonly<Record<string, readonly [bigint, bigint]>> = {
  tinyint: [-128n, 127n],
  smallint: [-32768n, 32767n],
  integer: [-2147483648n, 2147483647n],
  bigint: [-9223372036854775808n, 9223372036854775807n],
  hugeint: [-(2n ** 127n), 2n ** 127n - 1n],
  utinyint: [0n, 255n],
  usmallint: [0n, 65535n],
  uinteger: [0n, 4294967295n],
  ubigint: [0n, 18446744073709551615n],
};

/** The integer types, those of a size with a sign before those without. */
export const wholeTypes: readonly string[] = Object.keys(ranges);

/** The types of numbers that are rounded as they are; others become the next that is one of these. */
export const roundedTypes = ["tinyint", "smallint", "integer", "bigint", "hugeint", "decimal", "double"];

/** The bits of an integer type. */
export const bitsOfType = (type: string): number => (ranges[type][1] - ranges[type][0]).toString(2).length;

/** A number in the bits that a type has, counted round from its other end where it does not fit. */
export const wrapped = (type: string, value: bigint): bigint =>
  ranges[type][0] < 0n ? BigInt.asIntN(bitsOfType(type), value) : BigInt.asUintN(bitsOfType(type), value);

/** A number as written: the smallest of integer, bigint and hugeint, a decimal with a point, a double with an exponent. */
export function numberLiteral(source: string): { value: Value; type: string } {
  const digits = source.replaceAll("_", "");
  if (/[eE]/.test(digits)) return { value: new Double(Number(digits)), type: "double" };
  if (/^\d+$/.test(digits)) {
    const value = BigInt(digits);
    const type = ["integer", "bigint", "hugeint"].find((name) => value <= ranges[name][1]);
    if (type) return { value: integer(value), type };
    return { value: new Double(Number(digits)), type: "double" };
  }
  const value = Decimal.parse(digits)!;
  return digits.replace(/^0+|\./g, "").length > 38
    ? { value: new Double(Number(digits)), type: "double" }
    : { value, type: `decimal ${value.scale}` };
}

/** A double as text: shortest digits, always with a point or an exponent. */
export function doubleText(value: number): string {
  if (Number.isNaN(value)) return "nan";
  if (!Number.isFinite(value)) return value < 0 ? "-inf" : "inf";
  if (value === 0) return Object.is(value, -0) ? "-0.0" : "0.0";
  const [mantissa, power] = Math.abs(value).toExponential().split("e");
  const [digits, exponent] = [mantissa.replace(".", ""), Number(power)];
  const sign = value < 0 ? "-" : "";
  if (exponent < -4 || exponent >= 16) {
    const size = String(Math.abs(exponent)).padStart(2, "0");
    return `${sign}${digits[0]}${digits.length > 1 ? "." + digits.slice(1) : ""}e${exponent < 0 ? "-" : "+"}${size}`;
  }
  if (exponent < 0) return `${sign}0.${"0".repeat(-exponent - 1)}${digits}`;
  return `${sign}${digits.slice(0, exponent + 1).padEnd(exponent + 1, "0")}.${digits.slice(exponent + 1) || "0"}`;
}

/** Bytes as text: printable ASCII for itself, the others as \xNN. */
export const bytesText = ({ bytes }: Bytes): string =>
  [...bytes]
    .map((byte) =>
      byte >= 32 && byte < 127 && ![34, 39, 92].includes(byte)
        ? String.fromCharCode(byte)
        : `\\x${byte.toString(16).toUpperCase().padStart(2, "0")}`,
    )
    .join("");

/** A value as text. */
/** The shortest text that reads back as the same number of 32 bits. */
export function floatText(value: Value): Value {
  if (!(value instanceof Double) || !Number.isFinite(value.value)) return toText(value);
  const digits = [1, 2, 3, 4, 5, 6, 7, 8, 9].find((size) => Math.fround(Number(value.value.toPrecision(size))) === value.value);
  return doubleText(Number(value.value.toPrecision(digits)));
}

export function toText(value: Value): Value {
  if (typeof value === "string" || value === null || isFailure(value)) return value;
  if (value instanceof Double) return doubleText(value.value);
  if (value instanceof Bytes) return bytesText(value);
  return Array.isArray(value) ? listText(value as readonly Value[]) : String(value);
}

/** A list as text: items quoted where they hold what would end or open one. */
export function listText(items: readonly Value[]): string {
  const shown = items.map((item) => {
    if (item === null) return "NULL";
    const text = toText(item) as string;
    if (typeof item !== "string") return text;
    return text === "" || /[,[\]{}()'":=]|^[ \t\n\v\f\r]|[ \t\n\v\f\r]$|^null$/i.test(text)
      ? `'${text.replace(/['\\]/g, "\\$&")}'`
      : text;
  });
  return `[${shown.join(", ")}]`;
}

export function roundEven(value: number): number {
  const floor = Math.floor(value);
  const part = value - floor;
  return part > 0.5 || (part === 0.5 && floor % 2 !== 0) ? floor + 1 : floor;
}

/** A whole number of a type, or the failure that it is out of range. */
export function inRange(type: string, value: bigint): Value {
  const [low, high] = ranges[type];
  return value < low || value > high ? new Failure("number-out-of-range") : integer(value);
}

/** A text as a whole number of the type; fractions are rounded half away from zero. */
export function readInteger(type: string, text: string): Value {
  const trimmed = text.replace(/^[ \t\n\v\f\r]+|[ \t\n\v\f\r]+$/g, "");
  const bad = new Failure("not-a-number", { text });
  const hex = /^0x([0-9a-f]+)$/i.exec(trimmed) ?? /^0b([01]+)$/i.exec(trimmed);
  if (hex) return inRange(type, BigInt(trimmed.toLowerCase()));
  if (!/^[+-]?(?:\d+(?:_\d+)*(?:\.(?:\d+(?:_\d+)*)?)?|\.\d+)(?:[eE][+-]?\d+)?$/.test(trimmed) || /^\+/.test(trimmed)) return bad;
  const value = Decimal.parse(trimmed.replaceAll("_", "").replace(/\.(?=$|[eE])/, ""));
  return value ? inRange(type, value.rounded(0).coefficient) : bad;
}

/** A text as a double. */
export function readDouble(text: string): Value {
  const trimmed = text.replace(/^[ \t\n\v\f\r]+|[ \t\n\v\f\r]+$/g, "").replaceAll(/(\d)_(?=\d)/g, "$1");
  if (/^[+-]?(?:inf|infinity)$/i.test(trimmed)) return new Double(trimmed.startsWith("-") ? -Infinity : Infinity);
  if (/^[+-]?nan$/i.test(trimmed)) return new Double(NaN);
  if (!/^-?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/.test(trimmed)) return new Failure("not-a-number", { text });
  const value = Number(trimmed);
  return Number.isFinite(value) ? new Double(value) : new Failure("not-a-number", { text });
}

export function toDouble(value: Value): Value {
  if (typeof value === "number" || typeof value === "bigint" || typeof value === "boolean") return new Double(Number(value));
  return value instanceof Decimal ? new Double(value.toNumber()) : value;
}

export function toDecimal(value: Value): Value {
  return typeof value === "number" || typeof value === "bigint" ? Decimal.of(value) : value;
}

/** A number as a whole number of the type: decimals half away from zero, doubles half to even. */
export function toInteger(type: string, value: Value): Value {
  if (value instanceof Decimal) return inRange(type, value.rounded(0).coefficient);
  if (value instanceof Double)
    return Number.isFinite(value.value) ? inRange(type, BigInt(roundEven(value.value))) : new Failure("number-out-of-range");
  return inRange(type, BigInt(value as number));
}
