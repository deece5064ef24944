import { worked } from "../step.ts";
import { format } from "./number-format.ts";
import { marked, orderFor } from "../../text/index.ts";
import {
  Bytes,
  base64Of,
  bytesOfBase64,
  Decimal,
  Double,
  Failure,
  type Value,
  bytesOfHex,
  hexOf,
  integer,
  isFailure,
  lookup,
  textOfUtf8,
  utf8Of,
  FixedDouble,
} from "../../values/index.ts";
import type { Cell, Code } from "../dialect.ts";
import { strict } from "../shared/code.ts";
import { digestText } from "../shared/digests.ts";
import { type FormatStyle, formatBraces } from "../shared/formatting.ts";
import { type Collation, byBytes, collationFor, collations, extremeType, unify } from "./types.ts";
import { conversion } from "./conversions.ts";
import { arithmeticCode, bigOf, bitsOf } from "./arithmetic.ts";
import { dateCode } from "./dates.ts";

import { int64, uint64 } from "./numbers.ts";
import { toText, doubleText, toDouble } from "./steps.ts";
import { type Type, typeOf } from "../types.ts";

type Order = (a: Value, b: Value) => number;

const orderBy = (answers: Omit<Parameters<typeof orderFor>[0], "mixed" | "notANumber">): Order =>
  orderFor({ mixed: "error", notANumber: "there is none", ...answers });

const orders: Readonly<Record<string, Order>> = lookup({
  ...Object.fromEntries(Object.entries(collations).map(([name, answers]) => [name, orderBy(answers)])),
  binary: orderBy(byBytes),
});

const numericKinds = ["integer", "unsigned", "decimal", "double"];

/** A time as the number of its microseconds, by which it is compared. */
const spanOf = (value: Value): Value => (typeof value === "string" ? (marked.readTime(value) ?? null) : value);

/** How values of several types are compared together: as what, and in what order. */
function comparison(
  types: readonly Type[],
  collation: Collation,
): { convert: (value: Value, from: Type) => Value; order: Order } {
  const kinds = types.map(({ name }) => name).filter((kind) => kind !== "null");
  const to = (type: string) => (value: Value, from: Type) =>
    value === null ? null : worked(conversion(from, typeOf(type))?.convert)(value);
  if (kinds.every((kind) => kind === "text" || kind === "binary")) {
    const name = collationFor(types, collation);
    return { convert: to(name === "binary" ? "binary" : "text"), order: orders[name] };
  }
  if (kinds.some((kind) => ["date", "datetime"].includes(kind))) return { convert: to("datetime"), order: orders.binary };
  if (kinds.includes("time")) return { convert: (value, from) => spanOf(to("time")(value, from)), order: orders.binary };
  const isExact = kinds.every((kind) => numericKinds.includes(kind) && kind !== "double");
  return { convert: to(isExact ? "decimal" : "double"), order: orders.binary };
}

/** The greatest (`direction` 1) or least of present values, as the type that they have together. */
const extreme = (direction: number, collation: Collation): Code => ({
  like: {
    operation: "extreme",
    slots: ["values"],
    fixed: { wanted: direction > 0 ? "greatest" : "least" },
    answers: {
      ...collations[collation],
      missingValue: "null",
      amongEqual: "first",
      mixed: "error",
      notANumber: "there is none",
    },
  },
  strict: true,
  run: (args, { types }) => {
    const { convert, order } = comparison(types, collation);
    const keys = args.map((arg, i) => convert(arg, types[i]));
    const failure = keys.find(isFailure);
    if (failure) return failure;
    if (keys.includes(null) && extremeType(types).name === "time") return null;
    if (keys.includes(null)) return new Failure("not-covered", { what: "texts that are no dates beside dates" });
    let best = 0;
    for (let i = 1; i < keys.length; i++) if (order(keys[i], keys[best]) * direction > 0) best = i;
    const found = toType(extremeType(types), types[best])(args[best]);
    // Beside a text no number of decimals is fixed.
    return found instanceof FixedDouble && types.some(isText) ? new Double(found.value) : found;
  },
});

/** How a value of a type becomes one of another. */
function toType(type: Type, from: Type): (value: Value) => Value {
  const isSame = from === type || (typeOf(from.name) === type && type.name !== "double");
  const convert = worked(isSame ? undefined : conversion(from, type)?.convert);
  return (value) => (value === null ? null : convert(value));
}

/** Bytes of numbers, without the zero bytes before each. */
function bytesOfCodes(codes: readonly Value[]): Uint8Array {
  const bytes = codes.flatMap((code) => {
    if (code === null) return [];
    const hex = BigInt.asUintN(32, bigOf(code)).toString(16);
    return [...bytesOfHex(hex.length % 2 ? `0${hex}` : hex)!];
  });
  return Uint8Array.from(bytes);
}

function ord(text: string): Value {
  const [first] = text;
  if (first === undefined) return 0;
  return utf8Of(first).reduce((sum, byte) => sum * 256 + byte, 0);
}

function conv(text: string, given: number | bigint, wanted: number | bigint): Value {
  const [from, to] = [Number(given), Number(wanted)];
  const [base, target] = [Math.abs(from), Math.abs(to)];
  if (base < 2 || base > 36 || target < 2 || target > 36) return null;
  if (text === "") return null;
  const [, sign, written] = /^[ \t\n\v\f\r]*([+-]?)([0-9a-zA-Z]*)/.exec(text)!;
  let value = 0n;
  for (const char of written) {
    const digit = parseInt(char, 36);
    if (digit >= base || value > uint64) break;
    value = value * BigInt(base) + BigInt(digit);
  }
  // What has no room is the end of 64 bits, without a sign or with one.
  const most = from < 0 ? int64 : uint64;
  if (value > most) value = from < 0 && sign === "-" ? -int64 - 1n : most;
  else if (sign === "-") value = -value;
  const shown = to < 0 ? BigInt.asIntN(64, value) : BigInt.asUintN(64, value);
  return shown.toString(target).toUpperCase();
}

function quote(value: Value): Value {
  if (value === null) return "NULL";
  return `'${(toText(value) as string).replace(/['\\\0\x1a]/g, (char) => (char === "\0" ? "\\0" : char === "\x1a" ? "\\Z" : `\\${char}`))}'`;
}

const soundCodes = "01230120022455012623010202";

function soundex(text: string): Value {
  const codeOf = (letter: string) => soundCodes[letter.charCodeAt(0) - 65];
  const letters = [...text]
    .map((char) => (/[a-z]/.test(char) ? char.toUpperCase() : char))
    .filter((char) => /[A-Z]/.test(char) || char >= "\u00c0");
  if (letters.length === 0) return "";
  let result = letters[0];
  let last = /[A-Z]/.test(letters[0]) ? codeOf(letters[0]) : "0";
  for (const letter of letters.slice(1)) {
    if (!/[A-Z]/.test(letter)) continue;
    const code = codeOf(letter);
    // A vowel does not part two letters that sound alike.
    if (code !== "0" && code !== last) result += last = code;
  }
  return result + "0".repeat(Math.max(0, 4 - [...result].length));
}

const toBase64 = ({ bytes }: Bytes): Value => base64Of(bytes).replace(/.{76}(?=.)/g, "$&\n");

function fromBase64(text: string): Value {
  const bytes = bytesOfBase64(text.replace(/[ \t\n\v\f\r]/g, ""));
  return bytes ? new Bytes(bytes) : null;
}

const isNumberType = ({ name }: Type): boolean => ["integer", "unsigned", "decimal", "double", "int32"].includes(name);

/** sformat(): decimals count as doubles, a null that is a number as 0, and the largest whole numbers as signed ones. */
function sformat([template, ...given]: readonly Value[], [, ...types]: readonly Type[]): Value {
  const args = given.map((arg, i) => (arg === null && isNumberType(types[i]) ? 0 : arg));
  if (template === null || args.includes(null)) return null;
  const values = args.map((arg) =>
    arg instanceof Decimal ? toDouble(arg) : typeof arg === "bigint" ? integer(BigInt.asIntN(64, arg)) : arg,
  );
  const result = formatBraces([template, ...values], formatStyle);
  return isFailure(result) && result.code !== "not-covered" ? null : result;
}

const formatStyle: FormatStyle = {
  isLate: true,
  toText,
  doubleText: (value) => {
    const [digits, power] = value.toExponential().split("e");
    const exponent = Number(power);
    if (exponent >= -4 && exponent < 16) return doubleText(value).includes("e") ? String(value) : doubleText(value);
    return `${digits}e${exponent < 0 ? "-" : "+"}${String(Math.abs(exponent)).padStart(2, "0")}`;
  },
};

/** The check sum of bytes, or of them after others whose check sum is `before`; `polynomial` with its bits reversed. */
const checkSum = (polynomial: number): Code =>
  strict((first: Bytes | number | bigint, second?: Bytes) => {
    const { bytes } = second ?? (first as Bytes);
    let crc = (second === undefined ? 0 : Number(BigInt.asUintN(32, BigInt(first as number)))) ^ -1;
    for (const byte of bytes) {
      crc ^= byte;
      for (let i = 0; i < 8; i++) crc = crc & 1 ? (crc >>> 1) ^ polynomial : crc >>> 1;
    }
    return (crc ^ -1) >>> 0;
  });

/** A sort key in which runs of digits are led by how many digits they have, so that 2 comes before 12. */
const naturalKey = (text: string): string =>
  text.replace(/\d+/g, (digits) => {
    const number = digits.replace(/^0+(?=\d)/, "");
    const length = number.length;
    if (length < 10) return `${length - 1}${number}`;
    if (length < 28) return `${"9".repeat(Math.floor((length - 1) / 9))}${(length - 1) % 9}${number}`;
    return `9990${String(length - 1).length - 1}${length - 1}${number}`;
  });

/** A number of the four parts of an address; fewer parts leave those before the last out. */
function addressNumber(text: string): Value {
  const parts = text.split(".");
  if (!/^[\d.]*\d$/.test(text) || parts.some((part) => Number(part) > 255)) return null;
  const last = BigInt(parts.pop()!);
  const shift = parts.length === 1 ? 2n : parts.length === 2 ? 1n : 0n;
  const before = parts.reduce((sum, part) => sum * 256n + BigInt(part || "0"), 0n);
  return integer(BigInt.asUintN(64, before * 256n ** (shift + 1n) + last));
}

const address = (value: number | bigint): Value =>
  value < 0 || value > 0xffffffff ? null : [24, 16, 8, 0].map((shift) => (Number(value) >>> shift) & 255).join(".");

const isAddress = (text: string): boolean => /^(?:(?:[01]?\d?\d|2[0-4]\d|25[0-5])(?:\.(?!$)|$)){4}$/.test(text);

/** Text functions of a list with commas. */
function findInSet(text: string, list: string, order: Order): Value {
  if (list === "" || text.includes(",")) return 0;
  return list.split(",").findIndex((item) => order(item, text) === 0) + 1;
}

const isText = ({ name }: Type): boolean => name === "text";

/** What get_format() names (documentation, "GET_FORMAT"). */
const dateFormats: Readonly<Record<string, Readonly<Record<string, string>>>> = lookup({
  date: lookup({ usa: "%m.%d.%Y", jis: "%Y-%m-%d", iso: "%Y-%m-%d", eur: "%d.%m.%Y", internal: "%Y%m%d" }),
  time: lookup({ usa: "%h:%i:%s %p", jis: "%H:%i:%s", iso: "%H:%i:%s", eur: "%H.%i.%s", internal: "%H%i%s" }),
  datetime: lookup({
    usa: "%Y-%m-%d %H.%i.%s",
    jis: "%Y-%m-%d %H:%i:%s",
    iso: "%Y-%m-%d %H:%i:%s",
    eur: "%Y-%m-%d %H.%i.%s",
    internal: "%Y%m%d%H%i%s",
  }),
});

/** Functions that are not rows of data, for texts of a collation. */
export function mariadbCode(collation: Collation): Readonly<Record<string, Code>> {
  return {
    ord: strict(ord),
    char: { run: (args) => new Bytes(bytesOfCodes(args)) },
    "char using": { run: (args) => textOfUtf8(bytesOfCodes(args)) ?? null },
    chr: strict((code: number) => (code === 0 ? "\0" : (textOfUtf8(bytesOfCodes([code])) ?? null))),
    hex: strict((value: Value) => {
      if (typeof value === "string") return hexOf(utf8Of(value));
      return value instanceof Bytes ? hexOf(value.bytes) : BigInt.asUintN(64, bigOf(value)).toString(16).toUpperCase();
    }),
    unhex: strict((text: string) => {
      const bytes = bytesOfHex(text.length % 2 ? `0${text}` : text);
      return bytes ? new Bytes(bytes) : null;
    }),
    bin: strict((text: string) => conv(text, 10, 2)),
    oct: strict((text: string) => conv(text, 10, 8)),
    conv: strict(conv),
    // Nothing more is evaluated where the first is null.
    field: {
      lazy: ([first, ...others], { types }) => {
        const { convert, order } = comparison(types, collation);
        const keyOf = (cell: Cell, place: number, row: number): Value => {
          const value = cell(row);
          return value === null || isFailure(value) ? value : convert(value, types[place]);
        };
        return (row) => {
          const wanted = keyOf(first, 0, row);
          if (wanted === null || isFailure(wanted)) return wanted ?? 0;
          const keys = others.map((other, i) => keyOf(other, i + 1, row));
          return keys.find(isFailure) ?? keys.findIndex((key) => key !== null && order(key, wanted) === 0) + 1;
        };
      },
    },
    find_in_set: {
      strict: true,
      run: ([text, list], { types }) => findInSet(text as string, list as string, unpadded(collationFor(types, collation))),
    },
    make_set: {
      run: ([set, ...values]) => {
        if (set === null) return null;
        const chosen = values.filter((value, i) => value !== null && i < 64 && (bitsOf(set) >> BigInt(i)) & 1n);
        return chosen.map((value) => toText(value) as string).join(",");
      },
    },
    export_set: strict((set: Value, on: string, off: string, separator = ",", count: Value = 64) => {
      // The number of bits is one of 32 bits, without a sign.
      const size = Math.min(64, Number(BigInt.asUintN(32, BigInt(count as number))));
      return Array.from({ length: size }, (_, i) => ((bitsOf(set) >> BigInt(i)) & 1n ? on : off)).join(separator);
    }),
    // Only values up to the first that is above are evaluated.
    interval: {
      lazy:
        ([first, ...others]) =>
        (row) => {
          const value = first(row);
          if (value === null || isFailure(value)) return value ?? -1;
          const number = (toDouble(value) as Double).value;
          for (let i = 0; i < others.length; i++) {
            const other = others[i](row);
            if (isFailure(other)) return other;
            if (other !== null && (toDouble(other) as Double).value > number) return i;
          }
          return others.length;
        },
    },
    format: {
      run: ([value, decimals, locale = null], { types }) =>
        value === null || decimals === null
          ? null
          : format(value, decimals, locale, !["integer", "unsigned", "decimal"].includes(types[0].name)),
    },
    quote: { run: ([value]) => quote(value) },
    soundex: strict(soundex),
    to_base64: strict(toBase64),
    from_base64: strict(fromBase64),
    md5: strict(({ bytes }: Bytes) => digestText("md5", bytes)),
    ...Object.fromEntries(["sha", "sha1"].map((name) => [name, strict(({ bytes }: Bytes) => digestText("sha1", bytes))])),
    sha2: {
      run: ([value, bits]) => {
        const name = `sha${Number(bits ?? 0) || 256}`;
        const isKnown = name === "sha224" || name === "sha256" || name === "sha384" || name === "sha512";
        return value === null || !isKnown ? null : digestText(name, (value as Bytes).bytes);
      },
    },
    crc32: checkSum(0xedb88320),
    crc32c: checkSum(0x82f63b78),
    natural_sort_key: strict(naturalKey),
    inet_aton: strict(addressNumber),
    inet_ntoa: strict(address),
    is_ipv4: { run: ([text]) => Number(text !== null && isAddress(text as string)) },
    charset: { run: (_args, { types: [type] }) => (isText(type) ? "utf8mb4" : "binary") },
    collation: { run: (_args, { types }) => (isText(types[0]) ? collationFor(types, collation) : "binary") },
    get_format: strict((kind: string, place: string) => dateFormats[kind][place.toLowerCase()] ?? null),
    replace_oracle: {
      run: ([text, old, replacement]) =>
        text === null || !old ? text : (text as string).replaceAll(old as string, () => (replacement ?? "") as string) || null,
    },
    concat_operator_oracle: { run: (values) => (values.every((value) => value === null) ? null : values.join("")) },
    sformat: { run: (args, { types }) => sformat(args, types) },
    nvl2: {
      lazy: ([first, ...choices], { types }) => {
        const type = unify(types.slice(1)) ?? typeOf("text");
        const converted = types.slice(1).map((from) => toType(type, from));
        return (row) => {
          const value = first(row);
          if (isFailure(value)) return value;
          const chosen = value === null ? 1 : 0;
          const result = choices[chosen](row);
          return isFailure(result) ? result : converted[chosen](result);
        };
      },
    },
    greatest: extreme(1, collation),
    least: extreme(-1, collation),
    ...arithmeticCode,
    ...dateCode,
  };
}

/** The order of texts in a collation, spaces at the end counted. */
function unpadded(name: Collation | "binary"): Order {
  return orderBy({ ...(name === "binary" ? byBytes : collations[name]), padding: "counted" });
}
