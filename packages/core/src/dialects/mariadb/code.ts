import { operationOf } from "../../text/index.ts";
import {
  Bytes,
  base64Of,
  bytesOfBase64,
  Decimal,
  Double,
  Failure,
  type Value,
  bytesOfHex,
  dateFromDays,
  daysFromDate,
  dayNames,
  hexOf,
  integer,
  isFailure,
  isoWeekOf,
  lookup,
  monthNames,
  textOfUtf8,
  utf8Of,
} from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { logic as logicBy, strict } from "../shared/code.ts";
import { type Collation, baseType, byBytes, collationFor, collations, extremeType, typeRules, unify } from "./coercions.ts";
import {
  type Moment,
  dateText,
  dayOf,
  epochDays,
  formatMoment,
  isTimeUnit,
  isUnit,
  momentAt,
  momentOf,
  momentText,
  readByFormat,
  readMoment,
  readTime,
  shifted,
  spanText,
  weekOf,
  weekRule,
} from "./moments.ts";
import { doubleText, int64, roundEven, toDecimal, toDouble, toInteger, toText, truthOf, uint64 } from "./numbers.ts";

/** A moment from a text of a column has six digits of the second's fraction. */
const fromColumn = (text: string, place: number, context: CodeContext): string =>
  context.types[place] === "text" && context.constant(place) === undefined && /:\d\d/.test(text) ? withMicroseconds(text) : text;

const withMicroseconds = (text: string): string => {
  const [whole, fraction = ""] = text.split(".");
  return `${whole}.${fraction.padEnd(6, "0")}`;
};

const logic = (decisive: boolean): Code => logicBy(decisive, truthOf, Number);

type Order = (a: Value, b: Value) => number;

const orderBy = (answers: object): Order =>
  operationOf("compare").prepare({ missing: "null", mixed: "error", truth: "1 or 0", ...answers } as never, {
    relation: "order",
  }) as unknown as Order;

const orders: Readonly<Record<string, Order>> = lookup({
  ...Object.fromEntries(Object.entries(collations).map(([name, answers]) => [name, orderBy(answers)])),
  binary: orderBy(byBytes),
});

const numericKinds = ["integer", "unsigned", "decimal", "double"];

/** How values of several types are compared together: as what, and in what order. */
function comparison(
  types: readonly string[],
  collation: Collation,
): { convert: (value: Value, from: string) => Value; order: Order } {
  const kinds = types.map(baseType).filter((kind) => kind !== "null");
  const rules = typeRules(collation);
  const to = (type: string) => (value: Value, from: string) =>
    value === null ? null : (rules.conversion(from, type)?.convert?.(value) ?? value);
  if (kinds.every((kind) => kind === "text" || kind === "binary")) {
    const name = collationFor(types, collation);
    return { convert: to(name === "binary" ? "binary" : "text"), order: orders[name] };
  }
  if (kinds.some((kind) => ["date", "datetime"].includes(kind))) return { convert: to("datetime"), order: orders.binary };
  const isExact = kinds.every((kind) => numericKinds.includes(kind) && kind !== "double");
  return { convert: to(isExact ? "decimal" : "double"), order: orders.binary };
}

/** Whether two present values are equal; a failure where one cannot be brought to what they are compared as. */
function same(a: Value, b: Value, types: readonly string[], collation: Collation): boolean | Failure {
  const { convert, order } = comparison(types, collation);
  const [x, y] = [convert(a, types[0]), convert(b, types[1])];
  if (isFailure(x)) return x;
  if (isFailure(y)) return y;
  return x !== null && y !== null && order(x, y) === 0;
}

/** The greatest (`direction` 1) or least of present values, as the type that they have together. */
const extreme = (direction: number, collation: Collation): Code => ({
  strict: true,
  run: (args, { types }) => {
    const { convert, order } = comparison(types, collation);
    const keys = args.map((arg, i) => convert(arg, types[i]));
    const failure = keys.find(isFailure);
    if (failure) return failure;
    if (keys.includes(null)) return new Failure("not-covered", { what: "texts that are no dates beside dates" });
    let best = 0;
    for (let i = 1; i < keys.length; i++) if (order(keys[i], keys[best]) * direction > 0) best = i;
    return toType(extremeType(types), types[best], collation)(args[best]);
  },
});

const toType =
  (type: string, from: string, collation: Collation) =>
  (value: Value): Value =>
    value === null || baseType(from) === baseType(type)
      ? value
      : (typeRules(collation).conversion(from, baseType(type))?.convert?.(value) ?? value);

/** The first value that is there, from some place on, as the type that all have together. */
const firstPresent = (collation: Collation): Code => ({
  lazy: (cells, { types }) => {
    const type = unify(types) ?? "text";
    return (row) => {
      for (let i = 0; i < cells.length; i++) {
        const value = cells[i](row);
        if (value !== null) return isFailure(value) ? value : toType(type, types[i], collation)(value);
      }
      return null;
    };
  },
});

const bigOf = (value: Value): bigint => {
  if (value instanceof Decimal) return value.rounded(0).coefficient;
  const whole = toInteger(value);
  return BigInt(whole as number);
};

const bits = (operate: (a: bigint, b: bigint) => bigint): Code =>
  strict((a: Value, b: Value) =>
    integer(BigInt.asUintN(64, operate(BigInt.asUintN(64, bigOf(a)), BigInt.asUintN(64, bigOf(b))))),
  );

const onDouble = (run: (value: number, other: number) => number): Code =>
  strict((a: Double, b?: Double) => {
    const result = run(a.value, b?.value ?? 0);
    return Number.isNaN(result) ? null : Number.isFinite(result) ? new Double(result) : new Failure("number-out-of-range");
  });

const unit = (digits: number): bigint => 10n ** BigInt(digits);

function cutDecimal(value: Decimal, digits: number): Decimal {
  if (digits >= value.scale) return value;
  const kept = value.coefficient / unit(value.scale - Math.max(digits, 0));
  if (digits >= 0) return new Decimal(kept, digits);
  return new Decimal((kept / unit(-digits)) * unit(-digits), 0);
}

function roundDecimal(value: Decimal, digits: number): Decimal {
  if (digits >= value.scale) return value;
  return digits >= 0 ? value.rounded(digits) : new Decimal(roundedWhole(value, -digits), 0);
}

/** Rounded to a multiple of a power of ten, halves away from zero. */
function roundedWhole(value: Decimal, power: number): bigint {
  const size = unit(power + value.scale);
  const half = value.coefficient < 0n ? -size / 2n : size / 2n;
  return ((value.coefficient + half) / size) * unit(power);
}

const sizeOf = (digits: Value | undefined): number => Math.max(-30, Math.min(30, Number(digits ?? 0)));

function round(value: Value, digits?: Value): Value {
  const size = sizeOf(digits);
  if (value instanceof Decimal) return roundDecimal(value, size);
  if (value instanceof Double) return new Double(roundDouble(value.value, size, roundEven));
  return size >= 0 ? value : integer(roundedWhole(Decimal.of(value as number), -size));
}

function truncate(value: Value, digits: Value): Value {
  const size = sizeOf(digits);
  if (value instanceof Decimal) return cutDecimal(value, size);
  if (value instanceof Double) return new Double(roundDouble(value.value, size, Math.trunc));
  return size >= 0 ? value : integer(cutDecimal(Decimal.of(value as number), size).coefficient);
}

function roundDouble(value: number, digits: number, whole: (value: number) => number): number {
  const power = 10 ** Math.abs(digits);
  const scaled = digits < 0 ? value / power : value * power;
  if (!Number.isFinite(scaled)) return value;
  return digits < 0 ? whole(scaled) * power : whole(scaled) / power;
}

const onNumber = (decimal: (value: Decimal) => Value, double: (value: number) => number): Code =>
  strict((value: Value) =>
    value instanceof Decimal ? decimal(value) : value instanceof Double ? new Double(double(value.value)) : value,
  );

const negate = (value: Value): Value =>
  value instanceof Double
    ? new Double(0 - value.value)
    : value instanceof Decimal
      ? value.negated()
      : integer(-BigInt(value as number));

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
  const value = utf8Of(first).reduce((sum, byte) => sum * 256 + byte, 0);
  return value > 0x7fffffff ? value - 2 ** 32 : value;
}

function conv(text: string, from: number, to: number): Value {
  const [base, target] = [Math.abs(from), Math.abs(to)];
  if (base < 2 || base > 36 || target < 2 || target > 36) return null;
  if (text === "") return null;
  const [, sign, written] = /^\s*([+-]?)([0-9a-zA-Z]*)/.exec(text)!;
  let value = 0n;
  for (const char of written) {
    const digit = parseInt(char, 36);
    if (digit >= base) break;
    value = value * BigInt(base) + BigInt(digit);
  }
  if (value > uint64) value = uint64;
  if (sign === "-") value = from < 0 && value > int64 ? -int64 - 1n : -value;
  const shown = to < 0 ? BigInt.asIntN(64, value) : BigInt.asUintN(64, value);
  return shown.toString(target).toUpperCase();
}

/** Thousands and the mark before the fraction, by locale; others than these are not covered. */
const locales: Readonly<Record<string, readonly [string, string]>> = lookup({
  en_us: [",", "."],
  de_de: [".", ","],
  en_gb: [",", "."],
  fr_fr: ["", ","],
  it_it: ["", ","],
  es_es: ["", ","],
  nl_nl: ["", ","],
  pl_pl: ["", ","],
  ru_ru: [".", ","],
  ja_jp: [",", "."],
});

function format(value: Value, decimals: Value, locale: Value, isDouble: boolean): Value {
  const marks = locales[String(locale ?? "en_US").toLowerCase()] ?? locales.en_us;
  const size = Math.min(38, Math.max(0, Number(decimals)));
  const number = isDouble ? new Decimal(0n, 0) : roundDecimal(toDecimal(value) as Decimal, size);
  const text = isDouble ? fixedDouble((toDouble(value) as Double).value, size) : number.rounded(size).toString();
  const [whole, fraction] = text.replace("-", "").split(".");
  const grouped = marks[0] === "" ? whole : whole.replace(/\B(?=(?:\d{3})+$)/g, marks[0]);
  return (text.startsWith("-") ? "-" : "") + grouped + (fraction ? marks[1] + fraction : "");
}

const fixedDouble = (value: number, digits: number): string => {
  const rounded = roundDouble(value, digits, roundEven);
  return (Decimal.parse(doubleText(rounded)) ?? Decimal.of(0)).rounded(digits).toString();
};

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
  return result.padEnd(4, "0");
}

const toBase64 = ({ bytes }: Bytes): Value => base64Of(bytes).replace(/.{76}(?=.)/g, "$&\n");

function fromBase64(text: string): Value {
  const bytes = bytesOfBase64(text.replace(/[ \t\n\r]/g, ""));
  return bytes ? new Bytes(bytes) : null;
}

function crc32({ bytes }: Bytes): Value {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let i = 0; i < 8; i++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

/** sformat(): places `{}`, `{n}` and those with a width and an alignment. */
function sformat(values: readonly Value[]): Value {
  const [template, ...args] = values;
  if (values.includes(null)) return null;
  let next = 0;
  let failure: Failure | undefined;
  const result = (template as string).replace(
    /\{\{|\}\}|\{(\d*)(?::(.?[<>^])?(\d+)?(?:\.(\d+))?([sdf])?)?\}|[{}]/gsu,
    (part, place: string | undefined, align: string | undefined, width: string | undefined) => {
      if (part === "{{" || part === "}}") return part[0];
      if (place === undefined) {
        failure ??= new Failure("invalid-value", { problem: "a brace of the format is not closed" });
        return "";
      }
      const at = place === "" ? next++ : Number(place);
      if (at >= args.length) failure ??= new Failure("invalid-value", { problem: "the format wants more values" });
      const value = args[at] ?? null;
      const text = (toText(value instanceof Decimal ? toDouble(value) : value) ?? "") as string;
      const lacking = Math.max(0, Number(width ?? 0) - [...text].length);
      const [fill, side] =
        align === undefined
          ? [" ", typeof args[at] === "string" ? "<" : ">"]
          : [align.length > 1 ? align[0] : " ", align.slice(-1)];
      const before = side === "<" ? 0 : side === ">" ? lacking : lacking >> 1;
      return fill.repeat(before) + text + fill.repeat(lacking - before);
    },
  );
  return failure ? null : result;
}

const onMoment = (read: (moment: Moment) => Value): Code => strict((text: string) => read(momentOf(text)));
const weekdayOf = (moment: Moment): number => dateFromDays(dayOf(moment)).weekday;

/** The hour, minute, second or fraction of a time. */
const onTime = (read: (span: number) => number): Code => strict((text: string) => read(Math.abs(readTime(text)!)));

const secondsOf = ({ hour, minute, second }: Moment): number => hour * 3600 + minute * 60 + second;
const microsOf = (moment: Moment): number => dayOf(moment) * 86_400e6 + secondsOf(moment) * 1e6 + moment.micro;

/** date_add() and date_sub(): of a date a date unless the unit is one of time, of a text a text. */
const shift = (direction: 1 | -1): Code => ({
  strict: true,
  run: ([value, amount, unitName], context) => {
    const shifted = shiftText(value, amount as string, unitName as string, direction);
    return typeof shifted === "string" ? fromColumn(shifted, 0, context) : shifted;
  },
});

function shiftText(value: Value, amount: string, unitName: string, direction: 1 | -1): Value {
  if (!isUnit(unitName)) return new Failure("invalid-value", { problem: `"${unitName}" is no unit of time` });
  const given = toText(value) as string;
  const moment = readMoment(given);
  const result = moment && shifted(moment, amount, unitName, direction);
  if (!moment && /^0{4}-|-00/.test(given)) return new Failure("not-covered", { what: `dates like ${given}` });
  if (!result) return null;
  const hadTime = /\d[ T]\d|^\d{12,}/.test(given.trim());
  return hadTime || isTimeUnit(unitName) ? momentText(result) : dateText(result);
}

const differences: Readonly<Record<string, number>> = lookup({
  microsecond: 1,
  second: 1e6,
  minute: 60e6,
  hour: 3600e6,
  day: 86_400e6,
  week: 604_800e6,
});
const monthly: Readonly<Record<string, number>> = lookup({ month: 1, quarter: 3, year: 12 });

function timestampDiff(unitName: string, from: string, to: string): Value {
  const [a, b] = [momentOf(from), momentOf(to)];
  if (unitName in differences) return Math.trunc((microsOf(b) - microsOf(a)) / differences[unitName]) + 0;
  if (!(unitName in monthly)) return new Failure("invalid-value", { problem: `"${unitName}" is no unit of time` });
  const [low, high, sign] = microsOf(a) <= microsOf(b) ? [a, b, 1] : [b, a, -1];
  let months = (high.year - low.year) * 12 + high.month - low.month;
  const within = (m: Moment) => (m.day - 1) * 86_400e6 + secondsOf(m) * 1e6 + m.micro;
  if (within(high) < within(low)) months--;
  return sign * Math.trunc(months / monthly[unitName]) + 0;
}

/** What extract() gives for each field. */
const extracted: Readonly<Record<string, (moment: Moment) => number>> = lookup({
  year: (m) => m.year,
  quarter: (m) => Math.ceil(m.month / 3),
  month: (m) => m.month,
  week: (m) => weekOf(m, weekRule(0)).week,
  day: (m) => m.day,
  hour: (m) => m.hour,
  minute: (m) => m.minute,
  second: (m) => m.second,
  microsecond: (m) => m.micro,
  year_month: (m) => m.year * 100 + m.month,
  day_hour: (m) => m.day * 100 + m.hour,
  day_minute: (m) => m.day * 10_000 + m.hour * 100 + m.minute,
  day_second: (m) => m.day * 1_000_000 + m.hour * 10_000 + m.minute * 100 + m.second,
  hour_minute: (m) => m.hour * 100 + m.minute,
  hour_second: (m) => m.hour * 10_000 + m.minute * 100 + m.second,
  minute_second: (m) => m.minute * 100 + m.second,
});

function extract(field: string, value: Value): Value {
  const read = extracted[field.toLowerCase()];
  if (!read) return new Failure("invalid-value", { problem: `"${field}" is no field of a date that is covered` });
  const text = toText(value) as string;
  const moment = readMoment(text);
  if (moment) return read(moment);
  const span =
    /hour|minute|second/.test(field.toLowerCase()) && !/day|month/.test(field.toLowerCase()) ? readTime(text) : undefined;
  if (span === undefined) return null;
  const seconds = Math.floor(Math.abs(span) / 1e6);
  const parts = {
    year: 0,
    month: 0,
    day: 0,
    hour: Math.floor(seconds / 3600),
    minute: Math.floor(seconds / 60) % 60,
    second: seconds % 60,
    micro: Math.abs(span) % 1e6,
  };
  return Math.sign(span || 1) * read(parts) + 0;
}

const periodMonths = (period: number): number => {
  if (period === 0) return 0;
  const year = Math.floor(period / 100);
  return (year < 70 ? year + 2000 : year < 100 ? year + 1900 : year) * 12 + (period % 100) - 1;
};

/** Text functions of a list with commas. */
function findInSet(text: string, list: string, order: Order): Value {
  if (list === "" || text.includes(",")) return 0;
  return list.split(",").findIndex((item) => order(item, text) === 0) + 1;
}

const bitsOf = (value: Value): bigint => BigInt.asUintN(64, bigOf(value));

const itself: Code = { run: ([value]) => value };

/** timestamp(): a moment, a time of day added to it. */
function timestampOf(text: string, time?: string): Value {
  if (time === undefined) return text;
  if (readMoment(time) || readTime(time) === undefined) return null;
  const from = momentOf(text);
  const result = momentAt(dayOf(from), secondsOf(from) * 1e6 + from.micro + readTime(time)!);
  return result ? momentText(result) : null;
}

/** Functions that are not rows of data, for texts of a collation. */
export function mariadbCode(collation: Collation): Readonly<Record<string, Code>> {
  return {
    ord: strict(ord),
    char: { run: (args) => new Bytes(bytesOfCodes(args)) },
    "char using": { run: (args) => textOfUtf8(bytesOfCodes(args)) ?? null },
    chr: strict((code: number) => (code >= 0 && code < 128 ? String.fromCharCode(code) : null)),
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
    // Only the value that is chosen is evaluated.
    elt: {
      lazy:
        ([place, ...values]) =>
        (row) => {
          const n = place(row);
          const value = n === null || isFailure(n) ? n : (values[Number(n) - 1]?.(row) ?? null);
          return toText(value);
        },
    },
    field: {
      run: ([value, ...others], { types }) => {
        if (value === null) return 0;
        const { convert, order } = fieldComparison(types, collation);
        const wanted = convert(value, types[0]);
        const isSame = (other: Value) =>
          other !== null && wanted !== null && !isFailure(other) && !isFailure(wanted) && order(other, wanted) === 0;
        return others.findIndex((other, i) => isSame(convert(other, types[i + 1]))) + 1;
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
      const size = Number(count) < 0 || Number(count) > 64 ? 64 : Number(count);
      return Array.from({ length: size }, (_, i) => ((bitsOf(set) >> BigInt(i)) & 1n ? on : off)).join(separator);
    }),
    interval: {
      run: ([value, ...others]) => {
        if (value === null) return -1;
        const number = (toDouble(value) as Double).value;
        const above = others.findIndex((other) => other !== null && (toDouble(other) as Double).value > number);
        return above < 0 ? others.length : above;
      },
    },
    format: {
      run: ([value, decimals, locale = null], { types }) =>
        value === null || decimals === null
          ? null
          : format(value, decimals, locale, !["integer", "unsigned", "decimal"].includes(baseType(types[0]))),
    },
    quote: { run: ([value]) => quote(value) },
    soundex: strict(soundex),
    to_base64: strict(toBase64),
    from_base64: strict(fromBase64),
    crc32: strict(crc32),
    sformat: { run: sformat },
    coalesce: firstPresent(collation),
    nvl2: {
      run: ([value, present, absent], { types }) => {
        const type = unify(types.slice(1)) ?? "text";
        return value !== null ? toType(type, types[1], collation)(present) : toType(type, types[2], collation)(absent);
      },
    },
    greatest: extreme(1, collation),
    least: extreme(-1, collation),
    "is null": { run: ([value]) => Number(value === null) },
    "is not null": { run: ([value]) => Number(value !== null) },
    "is true": { run: ([value]) => Number(truthOf(value) === true) },
    "is false": { run: ([value]) => Number(truthOf(value) === false) },
    "<=>": {
      run: ([a, b], { types }) => {
        const equal = a === null || b === null ? a === b : same(a, b, types, collation);
        return isFailure(equal) ? equal : Number(equal);
      },
    },
    and: logic(false),
    or: logic(true),
    xor: strict((a: Value, b: Value) => Number(truthOf(a) !== truthOf(b))),
    not: strict((value: Value) => Number(truthOf(value) === false)),
    itself,
    negate: strict(negate),
    abs: strict((value: Value) => {
      const isNegative =
        value instanceof Double ? value.value < 0 : value instanceof Decimal ? value.coefficient < 0n : (value as number) < 0;
      return isNegative ? negate(value) : value;
    }),
    ceiling: onNumber((value) => integer(-value.negated().floor()), Math.ceil),
    floor: onNumber((value) => integer(value.floor()), Math.floor),
    round: strict(round),
    truncate: strict(truncate),
    sign: strict((value: Value) =>
      value instanceof Decimal ? value.compare(Decimal.of(0)) : Math.sign(value instanceof Double ? value.value : Number(value)),
    ),
    "~": strict((value: Value) => integer(BigInt.asUintN(64, ~bigOf(value)))),
    "&": bits((a, b) => a & b),
    "|": bits((a, b) => a | b),
    "^": bits((a, b) => a ^ b),
    "<<": bits((a, b) => (b > 63n ? 0n : a << b)),
    ">>": bits((a, b) => (b > 63n ? 0n : a >> b)),
    bit_count: strict((value: Value) => bitsOf(value).toString(2).replaceAll("0", "").length),
    acos: onDouble(Math.acos),
    asin: onDouble(Math.asin),
    atan: onDouble(Math.atan),
    cos: onDouble(Math.cos),
    cot: onDouble((value) => 1 / Math.tan(value)),
    degrees: onDouble((value) => (value * 180) / Math.PI),
    exp: onDouble(Math.exp),
    ln: onDouble((value) => (value > 0 ? Math.log(value) : NaN)),
    log10: onDouble((value) => (value > 0 ? Math.log10(value) : NaN)),
    log2: onDouble((value) => (value > 0 ? Math.log2(value) : NaN)),
    radians: onDouble((value) => (value * Math.PI) / 180),
    sin: onDouble(Math.sin),
    sqrt: onDouble(Math.sqrt),
    tan: onDouble(Math.tan),
    log: strict((a: Double, b?: Double) => {
      if (b === undefined) return a.value > 0 ? new Double(Math.log(a.value)) : null;
      return a.value > 0 && a.value !== 1 && b.value > 0 ? new Double(Math.log(b.value) / Math.log(a.value)) : null;
    }),
    pow: strict((a: Double, b: Double) => {
      const result = a.value ** b.value;
      return Number.isFinite(result) ? new Double(result) : new Failure("number-out-of-range");
    }),
    atan2: onDouble(Math.atan2),
    pi: { run: () => new Double(Math.PI) },
    year: onMoment((m) => m.year),
    quarter: onMoment((m) => Math.ceil(m.month / 3)),
    month: onMoment((m) => m.month),
    day: onMoment((m) => m.day),
    dayofmonth: onMoment((m) => m.day),
    dayofweek: onMoment((m) => weekdayOf(m) + 1),
    dayofyear: onMoment((m) => dayOf(m) - daysFromDate(m.year, 1, 1) + 1),
    weekday: onMoment((m) => (weekdayOf(m) + 6) % 7),
    weekofyear: onMoment((m) => isoWeekOf(dayOf(m)).week),
    to_days: onMoment((m) => dayOf(m) + epochDays),
    to_seconds: onMoment((m) => (dayOf(m) + epochDays) * 86_400 + secondsOf(m)),
    dayname: onMoment((m) => dayNames[weekdayOf(m)]),
    monthname: onMoment((m) => monthNames[m.month - 1]),
    last_day: onMoment((m) => dateText({ ...m, day: daysFromDate(m.year, m.month + 1, 1) - daysFromDate(m.year, m.month, 1) })),
    date: onMoment((m) => dateText(m)),
    hour: onTime((span) => Math.floor(span / 3600e6)),
    minute: onTime((span) => Math.floor(span / 60e6) % 60),
    second: onTime((span) => Math.floor(span / 1e6) % 60),
    microsecond: onTime((span) => span % 1e6),
    time_to_sec: strict((text: string) => {
      const span = readTime(text)!;
      return span % 1e6 === 0 ? Decimal.of(span / 1e6) : new Decimal(BigInt(span), 6);
    }),
    sec_to_time: strict((seconds: Decimal) => {
      const micro = Number(seconds.times(Decimal.of(1_000_000)).rounded(0).coefficient);
      return spanText(Math.max(-3_020_399_000_000, Math.min(3_020_399_000_000, micro)), true);
    }),
    week: strict((text: string, mode: number | bigint = 0) => weekOf(momentOf(text), weekRule(Number(mode) & 7)).week),
    yearweek: strict((text: string, mode: number | bigint = 0) => {
      const { year, week } = weekOf(momentOf(text), weekRule((Number(mode) & 7) | 2));
      return year * 100 + week;
    }),
    extract: strict(extract),
    timestamp: {
      strict: true,
      run: ([text, time], context) => {
        const result = timestampOf(text as string, time as string | undefined);
        return typeof result === "string"
          ? fromColumn(result, context.types.length > 1 && context.types[1] === "text" ? 1 : 0, context)
          : result;
      },
    },
    date_format: {
      run: ([text, template]) =>
        text === null || template === null || template === "" ? null : formatMoment(momentOf(text), template as string),
    },
    time_format: strict((text: string, template: string) => {
      const given = readTime(text)!;
      const span = Math.abs(given);
      const seconds = Math.floor(span / 1e6);
      const time = {
        year: 0,
        month: 0,
        day: 0,
        hour: Math.floor(seconds / 3600),
        minute: Math.floor(seconds / 60) % 60,
        second: seconds % 60,
        micro: span % 1e6,
      };
      return template === "" ? null : (given < 0 ? "-" : "") + formatMoment(time, template);
    }),
    str_to_date: strict((text: string, template: string) => readByFormat(text, template)),
    date_add: shift(1),
    date_sub: shift(-1),
    datediff: strict((a: string, b: string) => dayOf(momentOf(a)) - dayOf(momentOf(b))),
    timestampdiff: strict(timestampDiff),
    timestampadd: {
      strict: true,
      run: ([unitName, amount, value], context) =>
        (shift(1) as { run: (args: readonly Value[], c: CodeContext) => Value }).run([value, amount, unitName], context),
    },
    from_days: strict((days: number | bigint) => {
      const { year, month, day } = dateFromDays(Number(days) - epochDays);
      return year < 1 || year > 9999 ? "0000-00-00" : dateText({ year, month, day } as Moment);
    }),
    makedate: strict((year: number, day: number | bigint) => {
      if (day <= 0 || year < 0) return null;
      const full = year < 70 ? year + 2000 : year < 100 ? year + 1900 : year;
      const { year: y, month, day: d } = dateFromDays(daysFromDate(full, 1, 1) + Number(day) - 1);
      return y > 9999 ? null : dateText({ year: y, month, day: d } as Moment);
    }),
    maketime: strict((hour: number, minute: number | bigint, second: Decimal) => {
      if (minute < 0 || minute > 59 || second.coefficient < 0n || second.toNumber() >= 60) return null;
      const micro =
        (Math.abs(hour) * 3600 + Number(minute) * 60) * 1e6 + Number(second.times(Decimal.of(1_000_000)).rounded(0).coefficient);
      return spanText(Math.sign(hour || 1) * Math.min(micro, 3_020_399_000_000), true);
    }),
    period_add: strict((period: number | bigint, months: number | bigint) => {
      const total = periodMonths(Number(period)) + Number(months);
      return period === 0 ? 0 : Math.floor(total / 12) * 100 + (total % 12) + 1;
    }),
    period_diff: strict((a: number | bigint, b: number | bigint) => periodMonths(Number(a)) - periodMonths(Number(b))),
  };
}

/** field() compares as texts where all are texts, as whole numbers where all are, otherwise as doubles. */
function fieldComparison(types: readonly string[], collation: Collation) {
  return comparison(types, collation);
}

/** The order of texts in a collation, spaces at the end counted. */
function unpadded(name: Collation | "binary"): Order {
  return orderBy({ ...(name === "binary" ? byBytes : collations[name]), padding: "counted" });
}
