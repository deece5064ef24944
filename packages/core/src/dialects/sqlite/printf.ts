import { type Value, countBytes, countCodePoints, digitsOf } from "../../values/index.ts";
import { textLimit, tooLong } from "../../text/index.ts";
import { textUntilNul, toText, toDouble, toInteger } from "./steps.ts";

interface Directive {
  readonly left: boolean;
  readonly sign: string;
  readonly zero: boolean;
  readonly alternate: boolean;
  readonly full: boolean;
  readonly grouped: boolean;
  readonly width: number;
  readonly precision: number | undefined;
}

const directive = /%([-+ 0#!,]*)(\d+|\*)?(?:\.(-?\d+|\*|))?(?:ll|l)?([\s\S]|$)/g;

/** Thousands with commas between them. */
const grouped = (digits: string): string => digits.replace(/\B(?=(?:\d{3})+$)/g, ",");

/** Filled up with spaces; the width counts bytes, with the flag `!` characters. */
function padded(body: string, { left, width, full }: Directive): string {
  const lacking = width - (full ? countCodePoints(body) : countBytes(body));
  if (lacking <= 0) return body;
  return left ? body + " ".repeat(lacking) : " ".repeat(lacking) + body;
}

/** A number: its sign, then zeros up to the width where the flag asks for them. */
function signed(negative: boolean, digits: string, how: Directive): string {
  const sign = negative ? "-" : how.sign;
  const lacking = how.zero && !how.left ? how.width - sign.length - digits.length : 0;
  return padded(sign + "0".repeat(Math.max(0, lacking)) + digits, how);
}

function wholeNumber(value: Value, kind: string, how: Directive): string {
  const given = BigInt(value === null ? 0 : toInteger(value));
  const isSigned = kind === "d" || kind === "i";
  const size = isSigned ? (given < 0n ? -given : given) : BigInt.asUintN(64, given);
  let digits = kind === "o" ? size.toString(8) : /[xXp]/.test(kind) ? size.toString(16) : String(size);
  if (kind === "X" || kind === "p") digits = digits.toUpperCase();
  digits = digits.padStart(how.precision ?? 0, "0");
  if (how.zero && !how.left) digits = digits.padStart(how.width - (isSigned && (given < 0n || how.sign) ? 1 : 0), "0");
  if (how.grouped && !/[xXpo]/.test(kind)) digits = grouped(digits);
  if (how.alternate && size !== 0n) digits = (kind === "o" ? "0" : /[xp]/.test(kind) ? "0x" : kind === "X" ? "0X" : "") + digits;
  return padded((isSigned ? (given < 0n ? "-" : how.sign) : "") + digits, how);
}

/** Digits laid out around a point that stands after the digit of 10^0; `places` of the fraction. */
function fixed(digits: string, exponent: number, places: number): [whole: string, fraction: string] {
  const whole = exponent < 0 ? "0" : digits.slice(0, exponent + 1).padEnd(exponent + 1, "0");
  const fraction = exponent < 0 ? "0".repeat(-exponent - 1) + digits : digits.slice(exponent + 1);
  return [whole, fraction.slice(0, places).padEnd(places, "0")];
}

function floating(value: Value, kind: string, how: Directive): string {
  const given = value === null ? 0 : toDouble(value).value;
  const negative = given < 0;
  if (!Number.isFinite(given)) {
    return padded((negative ? "-" : how.sign) + "Inf", how);
  }
  const size = Math.abs(given);
  const limit = how.full ? 26 : 16;
  const lower = kind.toLowerCase();
  let precision = how.precision ?? 6;
  if (lower === "g" && precision === 0) precision = 1;
  const { digits, exponent } =
    lower === "f"
      ? digitsOf(size, { places: precision, limit })
      : digitsOf(size, { significant: lower === "e" ? precision + 1 : precision, limit });
  const scientific = lower === "e" || (lower === "g" && (exponent < -4 || exponent > precision - 1));
  const places = lower === "g" ? (scientific ? precision - 1 : precision - exponent - 1) : precision;
  let [whole, fraction] = scientific
    ? [digits[0], digits.slice(1).padEnd(places, "0").slice(0, places)]
    : fixed(digits, exponent, places);
  if (lower === "g" && !how.alternate) fraction = fraction.replace(/0+$/, "");
  else if (how.full) fraction = fraction.replace(/0+$/, "");
  if (how.full && fraction === "") fraction = "0";
  if (how.grouped) whole = grouped(whole);
  const point = fraction !== "" || how.alternate ? "." : "";
  const power = scientific
    ? `${kind === "E" || kind === "G" ? "E" : "e"}${exponent < 0 ? "-" : "+"}${String(Math.abs(exponent)).padStart(2, "0")}`
    : "";
  return signed(negative, whole + point + fraction + power, how);
}

const quotes: Readonly<Record<string, string>> = { q: "'", Q: "'", w: '"' };

function quoted(value: Value, kind: string, how: Directive): string {
  const mark = quotes[kind];
  if (value === null) return padded(kind === "Q" ? "NULL" : "(NULL)", how);
  const text = cut(textUntilNul(value) as string, how);
  const doubled = text.replaceAll(mark, mark + mark);
  return padded(kind === "Q" ? `'${doubled}'` : doubled, how);
}

/** The precision of a text counts bytes; with the flag `!` characters. */
function cut(text: string, { precision, full }: Directive): string {
  if (precision === undefined) return text;
  const characters = [...text];
  if (full) return characters.slice(0, precision).join("");
  let bytes = 0;
  let end = 0;
  for (; end < characters.length; end++) {
    bytes += countBytes(characters[end]);
    if (bytes > precision) break;
  }
  const isSplit = end < characters.length && bytes - countBytes(characters[end]) < precision;
  return characters.slice(0, end).join("") + (isSplit ? "\ufffd" : "");
}

/** printf() (documentation, "Built-in printf()"). */
export function printf(values: readonly Value[]): Value {
  const [template, ...args] = values;
  if (template === null || template === undefined) return null;
  let next = 0;
  let broken = false;
  const take = (): Value => (next < args.length ? args[next++] : null);
  let result = "";
  let kept = 0;
  const source = textUntilNul(template) as string;
  directive.lastIndex = 0;
  for (let match = directive.exec(source); match && !broken; match = directive.exec(source)) {
    result += source.slice(kept, match.index);
    kept = match.index + match[0].length;
    const [, flags, writtenWidth, writtenPrecision, kind] = match;
    let width = writtenWidth === "*" ? Number(toInteger(take() ?? 0)) : Number(writtenWidth ?? 0);
    const isLeft = flags.includes("-") || width < 0;
    width = Math.abs(width);
    const precision =
      writtenPrecision === undefined
        ? undefined
        : Math.abs(writtenPrecision === "*" ? Number(toInteger(take() ?? 0)) : Number(writtenPrecision || "0"));
    if (width > textLimit || (precision ?? 0) > textLimit) return tooLong(Math.max(width, precision ?? 0));
    const how: Directive = {
      left: isLeft,
      sign: flags.includes("+") ? "+" : flags.includes(" ") ? " " : "",
      zero: flags.includes("0"),
      alternate: flags.includes("#"),
      full: flags.includes("!"),
      grouped: flags.includes(","),
      width,
      precision,
    };
    if (/[diuxXop]/.test(kind)) result += wholeNumber(take(), kind, how);
    else if (/[fFeEgG]/.test(kind)) result += floating(take(), kind, how);
    else if (/[sz]/.test(kind)) {
      const value = take();
      result += padded(value === null ? "" : cut(textUntilNul(value) as string, how), how);
    } else if (/[qQw]/.test(kind)) result += quoted(take(), kind, how);
    else if (kind === "c") {
      const value = take();
      const char = value === null ? "\0" : ([...(toText(value) as string)][0] ?? "\0");
      result += padded(char.repeat(Math.max(1, how.precision ?? 1)), { ...how, full: true });
    } else if (kind === "%") result += padded("%", how);
    else if (kind === "") {
      // A sign at the end stands for itself, unless something came after it.
      if (match[0] === "%") result += "%";
      broken = true;
    } else if (kind !== "n") broken = true;
  }
  if (!broken) result += source.slice(kept);
  return result.length > textLimit ? tooLong(result.length) : result;
}
