import {
  Bytes,
  bad,
  base64Of,
  bytesOfBase64,
  Double,
  Failure,
  type Value,
  bytesOfHex,
  hexOf,
  integer,
  isDate,
  isoDate,
  textOfUtf8,
  utf8Of,
} from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { extractLike } from "../shared/calendar.ts";
import { strict } from "../shared/code.ts";
import { dayCode } from "../shared/days.ts";
import { digestText, digests } from "../shared/digests.ts";
import { type FormatStyle, formatBraces, formatPercent } from "../shared/formatting.ts";
import { arithmeticCode } from "./arithmetic.ts";
import { partNamed } from "./fields.ts";
import { listCode } from "./lists.ts";
import { datePart, dayAt, dayNumber, lastDay, momentAt, sinceEpoch } from "./moments.ts";
import { doubleText, toText } from "./steps.ts";
import { bytesOfSize } from "./statistics.ts";

const bytesIn = (value: string | Bytes): Uint8Array => (value instanceof Bytes ? value.bytes : utf8Of(value));

const bytesOf = (value: Value): Uint8Array => (value instanceof Bytes ? value.bytes : utf8Of(value as string));

function unhex(text: string): Value {
  const bytes = bytesOfHex(text.length % 2 ? `0${text}` : text);
  return bytes ? new Bytes(bytes) : bad(`"${text}" is not written in base 16`);
}

function unbin(text: string): Value {
  if (!/^[01]*$/.test(text)) return bad(`"${text}" is not written in base 2`);
  const padded = text.padStart(Math.ceil(text.length / 8) * 8, "0");
  return new Bytes(Uint8Array.from(padded.match(/.{8}/g) ?? [], (byte) => parseInt(byte, 2)));
}

function toBase(number: number, base: number, digits: number = 0): Value {
  if (number < 0) return bad("the number must not be below 0");
  if (base < 2 || base > 36) return bad("the base must lie between 2 and 36");
  if (digits < 0 || digits > 64) return bad("the number of digits must lie between 0 and 64");
  return BigInt(number).toString(base).toUpperCase().padStart(digits, "0");
}

function fromBase64(text: string): Value {
  const bytes = bytesOfBase64(text);
  return bytes ? new Bytes(bytes) : bad(`"${text}" is not written in base 64`);
}

const urlEncode = (text: string): string =>
  [...utf8Of(text)]
    .map((byte) =>
      /[A-Za-z0-9_.~-]/.test(String.fromCharCode(byte)) && byte < 128
        ? String.fromCharCode(byte)
        : `%${byte.toString(16).toUpperCase().padStart(2, "0")}`,
    )
    .join("");

function urlDecode(text: string): Value {
  const bytes: number[] = [];
  for (const [part, hex] of text.matchAll(/%([0-9a-fA-F]{2})|[\s\S]/gu))
    bytes.push(...(hex === undefined ? utf8Of(part) : [parseInt(hex, 16)]));
  return textOfUtf8(Uint8Array.from(bytes)) ?? bad("what is percent-encoded is no UTF-8");
}

/** Where the parts of a path are divided. */
const dividers: Readonly<Record<string, RegExp>> = { system: /[/\\]/, both_slash: /[/\\]/, forward_slash: /\//, backslash: /\\/ };
const divider = (separator = "system"): RegExp => dividers[separator] ?? dividers.system;

function fileName(path: string, withoutExtension: boolean, separator?: string): string {
  const name = path.split(divider(separator)).pop()!;
  const dot = name.lastIndexOf(".");
  return withoutExtension && dot > 0 ? name.slice(0, dot) : name;
}

function pathParts(path: string, separator?: string): string[] {
  const parts = path.split(divider(separator)).filter((part) => part !== "");
  return divider(separator).test(path[0] ?? "") ? [path[0], ...parts] : parts;
}

const lastDivider = (path: string, separator?: string): number => {
  for (let at = path.length - 1; at >= 0; at--) if (divider(separator).test(path[at])) return at;
  return -1;
};

function bytesShown(given: number | bigint, base: bigint, units: readonly string[]): string {
  const size = BigInt(given);
  const sign = size < 0n ? "-" : "";
  let value = size < 0n ? -size : size;
  if (value < base) return `${sign}${value} ${value === 1n ? "byte" : "bytes"}`;
  let unit = -1;
  let rest = 0n;
  while (value >= base && unit < units.length - 1) {
    rest = value % base;
    value /= base;
    unit++;
  }
  return `${sign}${value}.${(rest * 10n) / base} ${units[unit]}`;
}

function bar(x: Double, min: Double, max: Double, width?: Double): Value {
  const size = width?.value ?? 80;
  if (!Number.isFinite(size) || size < 1 || size > 1000) return bad("the width of a bar must lie between 1 and 1000");
  const part = x.value <= min.value ? 0 : x.value > max.value ? 1 : (x.value - min.value) / (max.value - min.value);
  const eighths = Math.floor(part * size * 8 + 1e-9);
  const full = Math.floor(eighths / 8);
  const rest = eighths % 8;
  const result = "█".repeat(full) + (rest ? [..." ▏▎▍▌▋▊▉"][rest] : "");
  return result.padEnd(Math.floor(size), " ");
}

const typeNames: Readonly<Record<string, string>> = { text: "VARCHAR", literal: "VARCHAR", null: '"NULL"' };

function typeOf({ types: [{ name, width, scale }] }: CodeContext): Value {
  if (width !== undefined) return `DECIMAL(${width},${scale})`;
  const item = name.replace(/(?:\[\])+$/, "");
  if (item === "decimal" || item === "any") return new Failure("not-covered", { what: "the size of a decimal type" });
  return (typeNames[item] ?? item.toUpperCase()) + name.slice(item.length);
}

/** Like `strict`, but only the path has to be there. */
const onPath = (run: (...args: never[]) => Value): Code => ({
  run: ([path, ...rest]) =>
    path === null ? null : (run as (...args: (Value | undefined)[]) => Value)(path, ...rest.map((value) => value ?? undefined)),
});

/** The format ends where it has a U+0000. */
const withoutNul = ([template, ...values]: readonly Value[]): Value[] => [(template as string).replace(/\0[^]*$/, ""), ...values];

const formatStyle: FormatStyle = { isLate: false, doubleText, toText };

/** hex() and bin(): the digits of a whole number of its type's bits, and the bytes of anything else. */
const digitsOf = (base: 2 | 16): Code => ({
  strict: true,
  run: ([value], { types: [{ name: type }] }) => {
    if (typeof value === "number" || typeof value === "bigint")
      return BigInt.asUintN(type === "hugeint" && value < 0 ? 128 : type === "hugeint" ? 127 : 64, BigInt(value))
        .toString(base)
        .toUpperCase();
    if (value instanceof Double && !Number.isFinite(value.value)) return bad("there are no digits of what is not finite");
    const bytes = value instanceof Double ? bignumOf(value.value) : bytesOf(value);
    return base === 16 ? hexOf(bytes) : [...bytes].map((byte) => byte.toString(2).padStart(8, "0")).join("");
  },
});

/** A double as the engine's number of any size: three bytes of sign and size, then the whole part; inverted below zero. */
function bignumOf(value: number): Uint8Array {
  const hex = BigInt(Math.abs(Math.trunc(value))).toString(16);
  const magnitude = bytesOfHex(hex.length % 2 ? `0${hex}` : hex)!;
  const bytes = Uint8Array.from([
    0x80 | (magnitude.length >> 16),
    (magnitude.length >> 8) & 255,
    magnitude.length & 255,
    ...magnitude,
  ]);
  return value < 0 ? bytes.map((byte) => 255 - byte) : bytes;
}

/** Functions that are not rows of data. */
export const duckdbCode: Readonly<Record<string, Code>> = {
  "aggregate with separator": { strict: true, run: ([value]) => toText(value) },
  hex: digitsOf(16),
  unhex: strict(unhex),
  bin: digitsOf(2),
  unbin: strict(unbin),
  to_base: strict(toBase),
  to_base64: strict(({ bytes }: Bytes) => base64Of(bytes)),
  from_base64: strict(fromBase64),
  encode: strict((text: string) => new Bytes(utf8Of(text))),
  decode: strict(({ bytes }: Bytes) => textOfUtf8(bytes) ?? bad("the bytes are no UTF-8")),
  format: { run: (args) => (args.includes(null) ? null : formatBraces(withoutNul(args), formatStyle)) },
  printf: {
    run: (args, { types }) =>
      args.includes(null)
        ? null
        : formatPercent(withoutNul(args), formatStyle, (place) => (types[place + 1].name === "hugeint" ? 128 : 64)),
  },
  regexp_escape: strict((text: string) =>
    text.replace(/[^0-9A-Za-z_]/gu, (char) => (char.charCodeAt(0) < 128 ? (char === "\0" ? "\\x00" : `\\${char}`) : char)),
  ),
  url_encode: strict(urlEncode),
  url_decode: strict(urlDecode),
  parse_filename: onPath((path: string, withoutExtension = false, separator?: string) =>
    fileName(path, withoutExtension, separator),
  ),
  "parse_filename by": onPath((path: string, separator: string) => fileName(path, false, separator)),
  parse_dirname: onPath((path: string, separator?: string) => {
    const [first, ...others] = path.split(divider(separator));
    return others.length === 0 ? "" : first === "" ? path[0] : first;
  }),
  parse_dirpath: onPath((path: string, separator?: string) => {
    const at = lastDivider(path, separator);
    return at < 0 ? "" : path.length === 1 ? path : path.slice(0, at);
  }),
  parse_path: onPath((path: string, separator?: string) => pathParts(path, separator)),
  format_bytes: strict((size: number | bigint) => bytesShown(size, 1024n, ["KiB", "MiB", "GiB", "TiB", "PiB"])),
  format_decimal_bytes: strict((size: number | bigint) => bytesShown(size, 1000n, ["kB", "MB", "GB", "TB", "PB"])),
  bar: strict(bar),
  typeof: { run: (_args, context) => typeOf(context) },
  pg_typeof: {
    run: (_args, context) => {
      const name = typeOf(context);
      return typeof name === "string" ? name.toLowerCase() : name;
    },
  },
  ...arithmeticCode,
  struct: { run: () => new Failure("not-covered", { what: "structs" }) },
  ...listCode,
  extract: {
    like: extractLike(partNamed),
    strict: true,
    run: ([name, date], { constant }) => datePart(name as string, date as string, constant(0) !== undefined),
  },
  ...Object.fromEntries(Object.entries(sinceEpoch).map(([name, run]) => [name, strict(run)])),
  "timestamp of ms": strict((value: number | bigint) => momentAt(BigInt(value) * 1000n)),
  // The farthest ones stand for the moments without end.
  "timestamp of us": strict((value: number | bigint) =>
    BigInt(value) ** 2n === (2n ** 63n - 1n) ** 2n ? new Failure("number-out-of-range") : momentAt(BigInt(value)),
  ),
  ...Object.fromEntries(
    (["md5", "sha1", "sha256"] as const).map((name) => [
      name,
      strict((value: string | Bytes) => digestText(name, bytesIn(value))),
    ]),
  ),
  // The digest's bytes from the last to the first are the number.
  md5_number: strict((value: string | Bytes) => integer(BigInt(`0x${hexOf(digests.md5(bytesIn(value)).toReversed())}`))),
  parse_formatted_bytes: strict((text: string) => bytesOfSize(text) ?? bad(`"${text}" is no size with a unit`)),
  last_day: strict(lastDay),
  make_date: strict((year: number | bigint, month: number | bigint, day: number | bigint) =>
    year < 0
      ? new Failure("not-covered", { what: "dates before the year 0" })
      : isDate(Number(year), Number(month), Number(day))
        ? isoDate(Number(year), Number(month), Number(day))
        : bad(`there is no date ${year}-${month}-${day}`),
  ),
  ...dayCode("1 month", (date, days) => dayAt(dayNumber(date) + days)),
};
