import { Decimal, Double, Failure, type Value, bad, scientificText, tick, utf8Of } from "../../values/index.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { ordinalEnding } from "../dates/format-words.ts";
import { roman } from "./pictures.ts";
import type { Exact } from "../numeric.ts";

/** Formats of numbers in which 9 and 0 are digits (PostgreSQL documentation, table 9.28). */

/** A part of a format: a pattern in capitals, or text that stands for itself. */
interface Part {
  readonly pattern?: string;
  readonly written: string;
}

interface NumberFormat {
  readonly parts: readonly Part[];
  /** Places before the point and after it. */
  readonly whole: number;
  readonly decimals: number;
  /** How many of the places before the point are before the first `0` that is there; undefined where there is none. */
  readonly blank?: number;
  /** How many places there are up to the last `0`. */
  readonly filled: number;
  /** How many places V shifts to the left. */
  readonly shift: number;
  readonly has: ReadonlySet<string>;
  /** On which side of the digits an S stands, and after how many of them. */
  readonly sign?: { readonly side: "before" | "after"; readonly place: number };
}

const shape =
  /"((?:\\[\s\S]|[^"\\])*)"?|\\"|EEEE|eeee|FM|fm|MI|mi|PL|pl|PR|pr|RN|rn|SG|sg|SP|sp|TH|th|[BCDGLSV90.,]|[bcdglsv]|[\s\S]/gu;

const signs = ["S", "MI", "PL", "SG", "PR"];

/** Reads a format, or says what does not go together in it. */
function readFormat(format: string): NumberFormat | Failure {
  const has = new Set<string>();
  let [whole, decimals, filled, shift] = [0, 0, 0, 0];
  let blank: number | undefined;
  let sign: NumberFormat["sign"];
  let problem: string | undefined;
  const clash = (pattern: string, others: readonly string[]) => {
    const other = others.find((each) => has.has(each));
    if (other) problem ??= `${pattern} and ${other} do not go together in a number format`;
  };
  const parts = Array.from(format.matchAll(shape), ([written, quoted]): Part => {
    tick(written.length);
    if (quoted !== undefined) return { written: quoted.replace(/\\([\s\S])/g, "$1") };
    if (written === '\\"') return { written: '"' };
    if (!/^(?:[BCDGLSV90.,]|FM|EEEE|MI|PL|PR|RN|SG|SP|TH)$/i.test(written)) return { written };
    const pattern = written.toUpperCase() === "D" ? "." : written.toUpperCase();
    if (has.has("EEEE") && pattern !== "EEEE") problem ??= "EEEE is the last pattern of a number format";
    if (pattern === "9" || pattern === "0") {
      if (has.has("PR")) problem ??= "the digits stand before PR in a number format";
      if (pattern === "0" && !has.has(".")) blank ??= whole;
      if (has.has("V") && pattern === "9") shift++;
      else if (has.has(".")) decimals++;
      else whole++;
      if (pattern === "0") filled = whole + decimals;
    } else if (pattern === ".") clash("a point", [".", "V"]);
    else if (pattern === "S") {
      clash("S", signs);
      sign ??= has.has(".") ? { side: "after", place: 0 } : { side: "before", place: whole };
    } else if (pattern === "MI" || pattern === "PL" || pattern === "SG") clash(pattern, ["S"]);
    else if (pattern === "PR") clash("PR", ["S", "MI", "PL", "SG"]);
    else if (pattern === "V") clash("V", ["."]);
    else if (pattern === "EEEE") clash("EEEE", ["EEEE", "FM", "S", "PR", "MI", "PL", "SG", "RN", "V"]);
    has.add(pattern);
    return { pattern, written };
  });
  if (problem) return bad(problem);
  return { parts, whole, decimals, filled, shift, has, ...(blank !== undefined && { blank }), ...(sign && { sign }) };
}

/** The shift of V, and the digits with the decimals of the format, as `whole[.decimals]`. */
function digitsOf(value: Value, { decimals, shift }: NumberFormat): { negative: boolean; digits: string } {
  if (value instanceof Double) {
    const shifted = value.value * 10 ** shift;
    const size = Math.abs(shifted);
    const whole = rounded(size, 0).length;
    // A double has 15 digits; what the format has places for beyond them is not written.
    return {
      negative: shifted < 0 || Object.is(shifted, -0),
      digits: rounded(size, Math.min(decimals, Math.max(0, 15 - whole))),
    };
  }
  const exact = (value as Decimal).times(new Decimal(10n ** BigInt(shift), 0)).rounded(decimals);
  const negative = exact.coefficient < 0n;
  return { negative, digits: String(negative ? exact.negated() : exact) };
}

/** A positive double with so many decimals; what lies just between two is rounded to the even one. */
function rounded(value: number, places: number): string {
  if (value >= 1e21) return String(BigInt(value));
  const text = value.toFixed(places);
  const isBetween = places < 60 && /^50*$/.test(value.toFixed(places + 40).slice(text.length + (places ? 0 : 1)));
  const isOdd = /[13579]$/.test(text);
  return isBetween && isOdd ? Decimal.parse(text)!.minus(new Decimal(1n, places)).toString() : text;
}

/** A number in Roman numerals, and signs in the place of one that has none. */
function inRoman(value: Value): string {
  const number = Number(value instanceof Double ? rounded(value.value, 0) : (value as Decimal).rounded(0));
  return number < 1 || number > 3999 ? "#".repeat(15) : roman(BigInt(number)).toUpperCase();
}

/** A number with one digit before the point and an exponent of two digits at least. */
function scientific(value: Value, decimals: number): string {
  if (value instanceof Double) return (value.value < 0 ? "-" : " ") + scientificText(Math.abs(value.value), decimals);
  const { coefficient } = value as Decimal;
  const all = String(coefficient < 0n ? -coefficient : coefficient);
  const exponent = coefficient === 0n ? 0 : all.length - 1 - (value as Decimal).scale;
  // 9.99 with one decimal is 10.0e+00: the exponent is that of the number before it is rounded.
  const mantissa = new Decimal(BigInt(all), all.length - 1).rounded(decimals);
  const power = String(Math.abs(exponent)).padStart(2, "0");
  return `${coefficient < 0n ? "-" : " "}${mantissa.toString()}e${exponent < 0 ? "-" : "+"}${power}`;
}

/** The format that was read last: it is the same on most rows. */
let last: { readonly format: string; readonly read: NumberFormat | Failure } | undefined;

function formatOf(format: string): NumberFormat | Failure {
  if (last?.format !== format) last = { format, read: readFormat(format) };
  return last.read;
}

/** Writes a number into the places of a format. */
export function writeByNines(given: Exact | Double | Decimal, format: string, powerHalves: AnswerOf<"powerHalves">): Value {
  const read = formatOf(format);
  const isWhole = typeof given === "number" || typeof given === "bigint";
  const value = isWhole ? new Decimal(BigInt(given), 0) : given;
  if (read instanceof Failure) return read;
  if (value instanceof Double && !Number.isFinite(value.value))
    return new Failure("not-covered", { what: "formats of NaN and infinity" });
  if (read.has.has("EEEE"))
    return scientific(isWhole && powerHalves === "to even" ? new Double(Number(given)) : value, read.decimals);
  if (!read.has.has("RN")) return fitted(read, value);
  // An exact number is taken for an integer first.
  const isWide = value instanceof Decimal && BigInt.asIntN(32, value.rounded(0).coefficient) !== value.rounded(0).coefficient;
  return isWide ? new Failure("number-out-of-range") : written(read, inRoman(value), undefined);
}

function fitted(format: NumberFormat, value: Value): Value {
  const { negative, digits } = digitsOf(value, format);
  const places = format.whole + format.shift;
  const [whole, decimals = ""] = digits.split(".");
  if (whole.length <= places) return written(format, digits, negative);
  return written(format, "#".repeat(places) + (format.shift ? "" : `.${"#".repeat(decimals.length)}`), negative);
}

/** Writes digits into the places of a format; a Roman number has no sign, and ends where one is asked for. */
function written(format: NumberFormat, digits: string, negative: boolean | undefined): Value {
  const { has, blank, parts } = format;
  const isRoman = negative === undefined;
  const fill = !has.has("FM");
  const whole = format.whole + format.shift;
  const wholeDigits = digits.split(".")[0].length;
  const blanks = isRoman ? 0 : Math.max(0, whole - wholeDigits);
  // With FM the zeros at the end are left out that no 0 of the format asks for.
  let last: number | undefined;
  if (!fill && has.has(".") && digits.includes(".")) {
    last = digits.replace(/0+$/, "").length - 1;
    if (format.filled > blanks) last = Math.max(last, Math.min(digits.length - 1, format.filled - blanks));
  }
  const endsAtPoint = last !== undefined && digits[last] === ".";
  const hasSign = has.has("MI") || has.has("PL") || has.has("SG");
  const isBracketed = has.has("PR") && (negative || fill);
  const side = format.sign?.side === "before" && format.sign.place === whole ? "after" : format.sign?.side;
  let isSigned = hasSign ? has.has("MI") || has.has("SG") : !negative && !fill && !format.sign;
  const count = format.decimals + whole - 1 + (!isSigned && blanks === 0 ? 1 : 0);

  let [out, place, cursor] = ["", 0, 0];
  let isInside = false;
  let isOver = false;
  const digit = (pattern: string): void => {
    isInside = false;
    const isLeadingZero = blank === undefined && cursor === 0 && digits[0] === "0" && format.decimals !== 0;
    if (!isSigned && (place >= blanks || blank === place) && (!isLeadingZero || endsAtPoint)) {
      if (format.sign) {
        if (side === "before") out += negative ? "-" : "+";
        isSigned = side === "before";
      } else {
        out += isBracketed ? (negative ? "<" : " ") : negative ? "-" : fill ? " " : "";
        isSigned = true;
      }
    }
    if (place < blanks) {
      isInside = blank !== undefined && blank <= place;
      out += isInside ? "0" : fill ? " " : "";
    } else {
      const next = digits[cursor];
      if (next === ".") out += ".";
      else if (last !== undefined && cursor > last && pattern !== "0") isInside = false;
      else if (isLeadingZero) out += fill ? " " : endsAtPoint ? "0" : "";
      else if (next === undefined) isOver = true;
      else {
        out += next;
        isInside = true;
      }
      cursor++;
    }
    const end = last === cursor ? place : count + (blanks > 0 ? 1 : 0) + (has.has(".") ? 1 : 0);
    if (place + 1 === end && !isOver) {
      if (isSigned && isBracketed) out += negative ? ">" : " ";
      else if (side === "after") out += negative ? "-" : "+";
    }
    place++;
  };

  for (const { pattern, written } of parts) {
    if (isOver) break;
    tick(1);
    if (pattern === undefined) out += written;
    else if (/^[90.]$/.test(pattern)) {
      if (!isRoman) digit(pattern);
    } else if (pattern === "," || pattern === "G") out += isInside ? "," : fill ? " " : "";
    else if (pattern === "L") out += " ";
    else if (pattern === "RN") out += inCase(written, fill ? digits.padStart(15) : digits);
    else if (pattern === "TH") {
      if (isRoman || negative || digits[0] === "#" || has.has(".")) continue;
      if (digits === ".") return bad("th stands after digits in a number format");
      out += inCase(written, ordinalEnding(digits));
    } else if (pattern === "MI") out += negative ? "-" : fill ? " " : "";
    else if (pattern === "PL") out += negative === false ? "+" : fill ? " " : "";
    else if (pattern === "SG" && isRoman) break;
    else if (pattern === "SG") out += negative ? "-" : "+";
  }
  return out;
}

const inCase = (written: string, text: string) => (/[a-z]/.test(written) ? text.toLowerCase() : text.toUpperCase());

/** How many bytes of UTF-8 the character has that a byte begins. */
const characterLength = (byte: string) => (byte < "\xc0" ? 1 : byte < "\xe0" ? 2 : byte < "\xf0" ? 3 : 4);

/** Characters of numbers, which a literal of the format does not pass over. */
const isNumberPart = (char: string) => /[\d.,+-]/.test(char);

/**
 * Reads a number: each place of the format takes a digit where there is one; what is written otherwise is passed over,
 * a character for a literal and a byte for a place (9.8.1).
 */
export function readByNines(given: string, format: string): Value {
  if (format === "") return null;
  const read = formatOf(format);
  if (read instanceof Failure) return read;
  const { has, parts, decimals } = read;
  if (has.has("EEEE") || has.has("RN")) return bad(`${has.has("RN") ? "RN" : "EEEE"} is not for reading numbers`);
  const text = String.fromCharCode(...utf8Of(given));
  let [sign, number, at, wholeRead, decimalsRead] = ["", "", 0, 0, 0];
  let hasPoint = false;
  const skip = () => {
    if (at < text.length && !isNumberPart(text[at])) at += characterLength(text[at]);
  };
  /** Takes a sign, a digit or the point; whether the place has been used. */
  const digit = (pattern: string): void => {
    if (text[at] === " ") at++;
    if (at >= text.length) return;
    if (sign === "" && pattern !== "." && wholeRead + decimalsRead === 0) {
      const isMinus = text[at] === "-" || (has.has("PR") && text[at] === "<");
      if (isMinus || text[at] === "+") {
        sign = isMinus ? "-" : "+";
        at++;
      }
    }
    if (at >= text.length) return;
    let isRead = false;
    if (/\d/.test(text[at])) {
      if (hasPoint && decimalsRead === decimals) return;
      number += text[at];
      isRead = true;
      if (hasPoint) decimalsRead++;
      else wholeRead++;
    } else if (has.has(".") && !hasPoint && text[at] === ".") {
      number += ".";
      hasPoint = true;
      isRead = true;
    }
    if (sign !== "" || wholeRead + decimalsRead === 0) return;
    const next = text[at + 1];
    if (read.sign && isRead && next !== undefined && /[+-]/.test(next)) {
      sign = next;
      at++;
    } else if (!isRead && !read.sign && (has.has("MI") || has.has("PL") || has.has("SG")) && /[+-]/.test(text[at]))
      sign = text[at];
  };
  for (const { pattern } of parts) {
    if (at >= text.length) break;
    const here = text[at];
    if (pattern === undefined) {
      at += characterLength(here);
      continue;
    }
    if (/^[90.]$/.test(pattern)) digit(pattern);
    else if (pattern === "," || pattern === "G") {
      if (has.has("FM") || here !== ",") continue;
    } else if (pattern === "L" || pattern === "TH") {
      if (pattern === "L" || !has.has(".")) skip();
      if (pattern === "TH" && !has.has(".")) skip();
      continue;
    } else if (
      (pattern === "MI" && here === "-") ||
      (pattern === "PL" && here === "+") ||
      (pattern === "SG" && /[+-]/.test(here))
    )
      sign = here;
    else if (pattern === "MI" || pattern === "PL" || pattern === "SG") {
      skip();
      continue;
    } else continue;
    at++;
  }
  const value = Decimal.parse(sign.replace("+", "") + number.replace(/\.$/, ""));
  if (!value) return new Failure("not-a-number", { text: given });
  const whole = wholeRead - (/^0*/.exec(number)?.[0].length ?? 0);
  if (whole > read.whole + read.shift) return new Failure("number-out-of-range");
  return has.has("V") ? value.over(new Decimal(10n ** BigInt(read.shift), 0), value.scale + 16) : value;
}
