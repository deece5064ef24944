import { kernelFor } from "../../text/index.ts";
import {
  Bytes,
  Double,
  Failure,
  type Value,
  bad,
  bytesOfHex,
  hexOf,
  nearest,
  utf8Of,
  isWholeNumber,
  digitsOf,
} from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { roundingLike, strict } from "../shared/code.ts";
import { dateFunctions, dateRead, shiftLike, strftime, strftimeLike, timediff } from "./moments.ts";
import { sliced } from "./functions.ts";
import { worked } from "../step.ts";
import { fitInteger } from "./numbers.ts";
import { steps, toText, toDouble, toInteger } from "./steps.ts";
import { printf } from "./printf.ts";

/** A function of doubles: null for what is no number and outside its domain. */
const onDouble = (run: (value: number, other: number) => number): Code => ({
  strict: true,
  run: (args) => {
    const numbers = args.map(numberOrNull);
    if (numbers.some((number) => number === null)) return null;
    const result = run(numberOf(numbers[0]), numberOf(numbers[1] ?? 0));
    return Number.isNaN(result) ? null : new Double(result);
  },
});

const numberOf = (value: Value): number => (value instanceof Double ? value.value : Number(value));

/** A number, or a text that is one; null for anything else. */
const numberOrNull = worked(steps.numeral);

function round(value: Double, digits: number | bigint = 0): Value {
  const size = Math.min(30, Math.max(0, Number(digits)));
  const given = value.value;
  if (Math.abs(given) >= 2 ** 52 || !Number.isFinite(given)) return value;
  if (size === 0) return new Double(Math.trunc(given + (given < 0 ? -0.5 : 0.5)) + 0);
  const rounded = digitsOf(Math.abs(given), { places: size, limit: 26 });
  const result = Number(`${rounded.digits[0]}.${rounded.digits.slice(1) || "0"}e${rounded.exponent}`);
  return new Double(given < 0 ? -result : result);
}

const bytesOf = (value: Value): Uint8Array => (value instanceof Bytes ? value.bytes : utf8Of(toText(value) as string));

function quote(value: Value): Value {
  if (value === null) return "NULL";
  if (value instanceof Bytes) return `X'${hexOf(value.bytes)}'`;
  if (typeof value !== "string")
    return value instanceof Double && !Number.isFinite(value.value)
      ? value.value < 0
        ? "-9.0e+999"
        : "9.0e+999"
      : toText(value);
  const end = value.indexOf("\0");
  return `'${(end < 0 ? value : value.slice(0, end)).replaceAll("'", "''")}'`;
}

function unistr(text: string): Value {
  let broken = false;
  const result = text.replace(
    /\\(?:(\\)|u([0-9a-fA-F]{4})|U([0-9a-fA-F]{8})|\+([0-9a-fA-F]{6})|([0-9a-fA-F]{4})|)/g,
    (_part, backslash, ...codes: (string | undefined)[]) => {
      if (backslash) return "\\";
      const code = parseInt(codes.slice(0, 4).find((c) => c !== undefined) ?? "", 16);
      if (Number.isNaN(code) || code > 0x10ffff) broken = true;
      return broken ? "" : String.fromCodePoint(code);
    },
  );
  return broken ? bad("invalid Unicode escape") : result;
}

function unistrQuote(value: Value): Value {
  const quoted = quote(value) as string;
  if (typeof value !== "string" || !/[\x01-\x1f]/.test(quoted)) return quoted;
  const escaped = quoted.replace(/[\x01-\x1f\\]/g, (char) =>
    char === "\\" ? "\\\\" : `\\u${char.charCodeAt(0).toString(16).padStart(4, "0")}`,
  );
  return `unistr(${escaped})`;
}

function unhex(text: string, ignored = ""): Value {
  const skipped = new Set(ignored);
  let digits = "";
  for (const char of text) {
    if (/[0-9a-fA-F]/.test(char)) digits += char;
    else if (!skipped.has(char) || digits.length % 2 === 1) return null;
  }
  const bytes = bytesOfHex(digits);
  return bytes ? new Bytes(bytes) : null;
}

/** Bytes are cut like texts whose characters are the bytes. */
const slice = kernelFor("slice", { ...sliced, unit: "utf-16 unit" });

function byteSlice({ bytes }: Bytes, start: number | bigint, count?: number | bigint): Value {
  if (bytes.length === 0) return null;
  const all = String.fromCharCode(...bytes);
  const taken = slice(all, Number(start), count === undefined ? undefined : Number(count)) as string;
  return new Bytes(Uint8Array.from(taken, (char) => char.charCodeAt(0)));
}

const kindOf = (value: Value): string => {
  if (value === null) return "null";
  if (typeof value === "string") return "text";
  return value instanceof Bytes ? "blob" : value instanceof Double ? "real" : "integer";
};

/** Functions that are not rows of data. */
export const sqliteCode: Readonly<Record<string, Code>> = {
  // Only what is an integer, and no text that looks like one, is summed as one.
  "aggregate sum": { strict: true, run: ([value]) => (isWholeNumber(value) ? value : toDouble(value)) },
  "aggregate total": { run: ([value]) => (value === null ? new Double(0) : toDouble(value)) },
  "aggregate mean": { strict: true, run: ([value]) => toDouble(value) },
  ...Object.fromEntries(
    Object.entries(dateFunctions).map(([name, run]): [string, Code] => [
      name,
      { run: (args) => run(args), reads: { 0: dateRead("kept") } },
    ]),
  ),
  date: { run: dateFunctions.date, like: shiftLike("a date"), reads: { 0: dateRead("left out") } },
  datetime: { run: dateFunctions.datetime, like: shiftLike("a date and time"), reads: { 0: dateRead("kept") } },
  strftime: { run: (args) => strftime(args), like: strftimeLike, reads: { 1: dateRead("kept") } },
  timediff: { run: timediff },
  printf: { run: (args) => printf(args) },
  char: {
    run: (args) =>
      args
        .map((arg) => {
          const code = arg === null ? 0 : Number(toInteger(arg));
          return String.fromCodePoint(code < 0 || code > 0x10ffff || (code >= 0xd800 && code < 0xe000) ? 0xfffd : code);
        })
        .join(""),
  },
  "byte slice": strict(byteSlice),
  "byte position": strict(
    ({ bytes: a }: Bytes, { bytes: b }: Bytes) => String.fromCharCode(...a).indexOf(String.fromCharCode(...b)) + 1,
  ),
  hex: { run: ([value]) => (value === null ? "" : hexOf(bytesOf(value))) },
  unhex: strict(unhex),
  quote: { run: ([value]) => quote(value) },
  unistr: strict(unistr),
  unistr_quote: { run: ([value]) => unistrQuote(value) },
  typeof: { run: ([value]) => kindOf(value) },
  zeroblob: {
    run: ([length]) =>
      Number(length) > 1_000_000_000 ? bad("string or blob too big") : new Bytes(new Uint8Array(Math.max(0, Number(length)))),
  },
  abs: strict((value: Value) => {
    if (typeof value === "string" || value instanceof Bytes) return new Double(Math.abs(toDouble(value).value));
    if (value instanceof Double) return new Double(Math.abs(value.value));
    if (value === -9223372036854775808n) return new Failure("number-out-of-range");
    return (value as number) < 0 ? fitInteger(-BigInt(value as number)) : value;
  }),
  round: { ...strict(round), like: roundingLike("half away from zero", { roundedDigits: "exact", digitsBelow: "none" }) },
  likelihood: { run: ([value]) => value },
  mod: onDouble((a, b) => a % b),
  log: {
    strict: true,
    run: (args) => {
      const base = numberOrNull(args[0]);
      const [a, b] = [base === null ? NaN : numberOf(base), args.length > 1 ? toDouble(args[1]).value : NaN];
      if (!(a > 0)) return null;
      if (args.length === 1) return new Double(Math.log10(a));
      return b > 0 && a > 1 ? new Double(nearest.ln(b) / nearest.ln(a)) : null;
    },
  },
};
