import { listLimit, listTooLong, operationOf } from "../../text/index.ts";
import {
  Bytes,
  base64Of,
  bytesOfBase64,
  Decimal,
  Double,
  Failure,
  FunctionItem,
  type Value,
  bytesOfHex,
  hexOf,
  integer,
  isDate,
  isFailure,
  isList,
  isoDate,
  textOfUtf8,
  utf8Of,
  lookup,
  nearest,
} from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { bad, logic as logicBy, strict } from "../shared/code.ts";
import { type FormatStyle, formatBraces, formatPercent } from "../shared/formatting.ts";
import { baseType, castAny, isNumeric, typeRules, unify } from "./coercions.ts";
import { borders, datePart, dayAt, dayName, dayNumber, formatDate, lastDay, monthName, readDate, truncated } from "./moments.ts";
import { doubleText, inRange, toDouble, toText } from "./numbers.ts";

/** Compares two present values of one type: −1, 0 or 1. */
const order = operationOf("compare").prepare(
  { missing: "null", case: "minded", padding: "counted", mixed: "by kind", truth: "true or false" } as never,
  { relation: "order" },
) as unknown as (a: Value, b: Value) => number;

/** Equality of items; null is like null only where asked for. */
const same = (a: Value, b: Value): boolean => (a === null || b === null ? a === b : order(a, b) === 0);

const logic = (decisive: boolean): Code =>
  logicBy(
    decisive,
    (value) => value as boolean | null,
    (value) => value,
  );

/** A value as the type that it has together with others. */
function converted(value: Value, from: string, to: string): Value {
  if (value === null) return null;
  if (typeof value === "boolean" && isNumeric(baseType(to))) return castAny(baseType(to), Number(value));
  return typeRules.conversion(from, baseType(to))?.convert?.(value) ?? value;
}

/** The types of values that have to go together; a failure where they do not. */
function together({ types, args }: Pick<CodeContext, "types" | "args">): string | Failure {
  return unify(types) ?? new Failure("branch-types", { given: types, count: args.length });
}

const coalesce: Code = {
  lazy: (cells, context) => {
    const type = together(context);
    return (row) => {
      if (isFailure(type)) return type;
      for (let i = 0; i < cells.length; i++) {
        const value = cells[i](row);
        if (value !== null) return isFailure(value) ? value : converted(value, context.types[i], type);
      }
      return null;
    };
  },
};

const extreme = (direction: number): Code => ({
  run: (args, context) => {
    const type = together(context);
    if (isFailure(type)) return type;
    const values = args.map((arg, i) => converted(arg, context.types[i], type));
    return (
      values.find(isFailure) ??
      values.reduce(
        (best, value) => (best === null || (value !== null && order(value, best) * direction > 0) ? value : best),
        null,
      )
    );
  },
});

const onDouble = (run: (value: number, other: number) => number): Code =>
  strict((a: Double, b?: Double) => {
    const result = run(a.value, b?.value ?? 0);
    return Number.isNaN(result) && !Number.isNaN(a.value) && !Number.isNaN(b?.value)
      ? new Failure("number-out-of-range")
      : new Double(result);
  });

/** The sizes of whole numbers in bits. */
const sizes: Readonly<Record<string, number>> = lookup({ tinyint: 8, smallint: 16, integer: 32, bigint: 64, hugeint: 128 });

/** The size of the widest whole number among types. */
const sizeOf = (types: readonly string[]): number => Math.max(32, ...types.map((type) => sizes[type] ?? 32));

/** The logarithm of what is above 0. */
const logarithm = (run: (value: number) => number): Code =>
  strict(({ value }: Double) =>
    value > 0 || Number.isNaN(value) ? new Double(run(value)) : bad("there is no logarithm of a number that is not above 0"),
  );

const negate = (value: Value): Value =>
  value instanceof Double
    ? new Double(-value.value)
    : value instanceof Decimal
      ? value.negated()
      : integer(-BigInt(value as number));

const onNumber = (decimal: (value: Decimal) => Value, double: (value: number) => number): Code =>
  strict((value: Value) =>
    value instanceof Decimal ? decimal(value) : value instanceof Double ? new Double(double(value.value)) : value,
  );

const halfAway = (value: number): number => Math.sign(value) * Math.floor(Math.abs(value) + 0.5);

function round(value: Value, digits: number = 0): Value {
  if (value instanceof Double) {
    if (digits === 0) return new Double(halfAway(value.value));
    const power = 10 ** Math.abs(digits);
    const result = digits > 0 ? halfAway(value.value * power) / power : halfAway(value.value / power) * power;
    return Number.isFinite(result) ? new Double(result) : digits > 0 ? value : new Double(0);
  }
  const decimal = value instanceof Decimal ? value : Decimal.of(value as number);
  if (digits >= decimal.scale) return value;
  if (digits >= 0) return decimal.rounded(digits);
  const size = 10n ** BigInt(-digits + decimal.scale);
  const half = decimal.coefficient < 0n ? -size / 2n : size / 2n;
  const result = ((decimal.coefficient + half) / size) * 10n ** BigInt(-digits);
  return value instanceof Decimal ? new Decimal(result, 0) : integer(result);
}

function truncate(value: Value, digits: number): Value {
  if (value instanceof Double) {
    if (Number.isNaN(value.value)) return value;
    const power = 10 ** Math.abs(digits);
    const result = digits > 0 ? Math.trunc(value.value * power) / power : Math.trunc(value.value / power) * power;
    return new Double(Number.isFinite(result) ? result : digits > 0 ? value.value : 0);
  }
  const decimal = value instanceof Decimal ? value : Decimal.of(value as number);
  if (digits >= decimal.scale) return value;
  const unit = 10n ** BigInt(decimal.scale - digits);
  const kept = decimal.coefficient / unit;
  if (value instanceof Decimal) return digits >= 0 ? new Decimal(kept, digits) : new Decimal(kept * 10n ** BigInt(-digits), 0);
  return integer(kept * unit);
}

/** Halves to the even neighbour. */
function roundEven(value: Value, digits: number): Value {
  const decimal =
    value instanceof Double
      ? Decimal.parse(doubleText(value.value))
      : value instanceof Decimal
        ? value
        : Decimal.of(value as number);
  if (!decimal) return digits < 0 ? new Double(0) : value;
  if (digits >= decimal.scale) return toDouble(value);
  const unit = 10n ** BigInt(Math.abs(digits));
  const scaled = digits < 0 ? new Decimal(decimal.coefficient, decimal.scale - digits) : decimal.times(Decimal.of(unit));
  const floor = scaled.floor();
  const rest = scaled.minus(Decimal.of(floor)).compare(new Decimal(5n, 1));
  const whole = rest > 0 || (rest === 0 && floor % 2n !== 0n) ? floor + 1n : floor;
  const size = digits < 0 ? Number(whole * unit) : Number(whole) / Number(unit);
  return new Double(size === 0 && decimal.coefficient < 0n ? -0 : size);
}

const bits = (operate: (a: bigint, b: bigint) => bigint): Code =>
  strict((a: number, b: number) => integer(operate(BigInt(a), BigInt(b))));

function shiftLeft(a: number, b: number, size: number): Value {
  if (a < 0) return bad("a negative number cannot be shifted to the left");
  if (b < 0) return bad("a number cannot be shifted by less than 0");
  return b >= size ? (a === 0 ? 0 : new Failure("number-out-of-range")) : integer(BigInt(a) << BigInt(b));
}

const bytesOf = (value: Value): Uint8Array => (value instanceof Bytes ? value.bytes : utf8Of(value as string));
const isNumber = (value: Value): boolean => typeof value === "number" || typeof value === "bigint";

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

function bytesShown(size: number, base: number, units: readonly string[]): string {
  const sign = size < 0 ? "-" : "";
  let value = Math.abs(size);
  if (value < base) return `${sign}${value} ${value === 1 ? "byte" : "bytes"}`;
  let unit = -1;
  let rest = 0;
  while (value >= base && unit < units.length - 1) {
    rest = value % base;
    value = Math.floor(value / base);
    unit++;
  }
  return `${sign}${value}.${Math.floor((rest * 10) / base)} ${units[unit]}`;
}

function bar(x: Double, min: Double, max: Double, width?: Double): Value {
  const size = width?.value ?? 80;
  if (!Number.isFinite(size) || size < 1 || size > 1000) return bad("the width of a bar must lie between 1 and 1000");
  const part = x.value < min.value ? 0 : x.value > max.value ? 1 : (x.value - min.value) / (max.value - min.value);
  const eighths = Math.floor(part * size * 8 + 1e-9);
  const full = Math.floor(eighths / 8);
  const rest = eighths % 8;
  const result = "█".repeat(full) + (rest ? [..." ▏▎▍▌▋▊▉"][rest] : "");
  return result.padEnd(Math.floor(size), " ");
}

const typeNames: Readonly<Record<string, string>> = { text: "VARCHAR", literal: "VARCHAR", null: '"NULL"' };

function typeOf({ types: [type] }: CodeContext): Value {
  const base = baseType(type);
  const item = base.replace(/(?:\[\])+$/, "");
  if (item === "decimal" || item === "any") return new Failure("not-covered", { what: "the size of a decimal type" });
  return (typeNames[item] ?? item.toUpperCase()) + base.slice(item.length);
}

type List = readonly Value[];

/** A position from 1, or from the end when negative, as an index from 0. */
const indexOf = (position: number, length: number): number => (position < 0 ? length + position : position - 1);

/** The first and last position of a slice as indexes: the end is left out. */
function sliceBounds(first: Value, last: Value, length: number): [number, number] {
  const from = first === null ? 0 : Number(first);
  const to = last === null ? length : Number(last);
  const begin = from < 0 ? Math.max(0, length + from) : Math.max(0, from - 1);
  const end = to < 0 ? length + to + 1 : to;
  return [begin, Math.min(length, Math.max(begin, end))];
}

const itemsBetween: Code = {
  run: ([list, first, last, step], { types, args }) => {
    const isOpen = (i: number) => args[i]?.kind === "literal" && types[i] === "open end";
    if (list === null || (first === null && !isOpen(1)) || (last === null && !isOpen(2))) return null;
    const items = list as List;
    const by = Number(step ?? 1);
    if (by < 0) return new Failure("not-covered", { what: "slices with a negative step" });
    const [begin, end] = sliceBounds(first, last, items.length);
    const taken = items.slice(begin, end);
    if (by === 0) return taken.length === 0 ? [] : bad("the step of a slice must not be 0");
    return by === 1 ? taken : taken.filter((_, i) => i % by === 0);
  },
};

const charactersBetween: Code = {
  run: ([text, first, last], { types, args }) => {
    const isOpen = (i: number) => args[i]?.kind === "literal" && types[i] === "open end";
    if (text === null || (first === null && !isOpen(1)) || (last === null && !isOpen(2))) return null;
    const characters = [...(text as string)];
    return characters.slice(...sliceBounds(first, last, characters.length)).join("");
  },
};

/** Like `strict`, but only the path has to be there. */
const onPath = (run: (...args: never[]) => Value): Code => ({
  run: ([path, ...rest]) =>
    path === null ? null : (run as (...args: (Value | undefined)[]) => Value)(path, ...rest.map((value) => value ?? undefined)),
});

/** A value as an item of a list of the type, so that it can be compared with others. */
const itemLike = (item: Value, from: string, listType: string): Value => converted(item, from, listType.slice(0, -2));

/** A value cast to the type of a list's items. */
const castLike = (item: Value, from: string, listType: string): Value =>
  item === null ? null : (typeRules.cast(from, listType.slice(0, -2).replace("text", "varchar"))?.convert(item) ?? item);

/** Sorted, null last unless said otherwise. */
function sorted(list: List, descending: boolean, nullsFirst: boolean): List {
  const present = list.filter((item) => item !== null);
  const missing = list.filter((item) => item === null);
  present.sort((a, b) => (descending ? order(b, a) : order(a, b)));
  return nullsFirst ? [...missing, ...present] : [...present, ...missing];
}

/** The list with its missing items where they are asked for: last unless first. */
const withNulls = (nulls: Value, sort: (first: boolean) => Value): Value =>
  nulls !== null && !/^(?:nulls[_ ])?(?:first|last)$|^default$/i.test(nulls as string)
    ? bad(`"${String(nulls)}" is no place for null`)
    : sort(/first/i.test(String(nulls ?? "")));

const isDescending = (direction: Value): boolean => /^desc/i.test(String(direction ?? "asc"));

const distinct = (list: List): Value[] => {
  const found: Value[] = [];
  for (const item of list) if (item !== null && !found.some((each) => same(each, item))) found.push(item);
  return found;
};

function aggregate(list: List, name: string, more: List): Value {
  const present = list.filter((item) => item !== null);
  const asNumbers = () => present.map((item) => (toDouble(item) as Double).value);
  switch (name.toLowerCase()) {
    case "string_agg":
    case "group_concat":
    case "listagg":
      return present.length === 0
        ? null
        : present.map((item) => toText(item) as string).join((more[0] as string | undefined) ?? ",");
    case "count":
      return present.length;
    case "min":
      return present.reduce<Value>((best, item) => (best === null || order(item, best) < 0 ? item : best), null);
    case "max":
      return present.reduce<Value>((best, item) => (best === null || order(item, best) > 0 ? item : best), null);
    case "first":
      return list[0] ?? null;
    case "last":
      return list[list.length - 1] ?? null;
    case "any_value":
      return present[0] ?? null;
    case "sum": {
      if (present.length === 0) return null;
      if (present.every(isNumber)) return integer(present.reduce<bigint>((sum, item) => sum + BigInt(item as number), 0n));
      if (present.every((item) => item instanceof Decimal))
        return present.reduce<Decimal>((sum, item) => sum.plus(item), Decimal.of(0));
      return new Double(asNumbers().reduce((sum, item) => sum + item, 0));
    }
    case "avg":
    case "mean":
      return present.length === 0 ? null : new Double(asNumbers().reduce((sum, item) => sum + item, 0) / present.length);
  }
  return new Failure("not-covered", { what: `the aggregate ${name}` });
}

const aggregated = (name: string): Code => strict((list: List) => aggregate(list, name, []));

/** Calls the function of a list, with the position where it takes two. */
function called(item: FunctionItem, values: List, context: CodeContext): Value {
  return context.spend(1) ?? item.call(values.slice(0, item.arity));
}

const transform: Code = {
  run: ([list, lambda], context) => {
    if (list === null) return null;
    const results: Value[] = [];
    for (const [i, each] of (list as List).entries()) {
      const result = called(lambda as FunctionItem, [each, i + 1], context);
      if (isFailure(result)) return result;
      results.push(result);
    }
    return results;
  },
};

/** What a function of a filter gives as a condition. */
const conditionOf = (value: Value): Value => converted(value, typeof value === "string" ? "text" : "double", "condition");

const filter: Code = {
  run: ([list, lambda], context) => {
    if (list === null) return null;
    const kept: Value[] = [];
    for (const [i, each] of (list as List).entries()) {
      const result = called(lambda as FunctionItem, [each, i + 1], context);
      const holds = result === null || isFailure(result) ? result : conditionOf(result);
      if (isFailure(holds)) return holds;
      if (holds === true) kept.push(each);
    }
    return kept;
  },
};

const reduce: Code = {
  run: ([list, lambda, initial], context) => {
    if (list === null) return null;
    if ((lambda as FunctionItem).arity < 2) return bad("the function of list_reduce takes two or three arguments");
    const items = initial === undefined ? (list as List) : [initial, ...(list as List)];
    if (items.length === 0) return bad("an empty list has nothing to reduce");
    let result = items[0];
    for (let i = 1; i < items.length; i++) {
      result = called(lambda as FunctionItem, [result, items[i], i], context);
      if (isFailure(result)) return result;
    }
    return result;
  },
};

function series(first: number, last: number | undefined, step: number = 1, withEnd: boolean): Value {
  const [from, to] = last === undefined ? [0, first] : [first, last];
  if (step === 0) return [];
  const length = Math.floor((to - from) / step) + 1;
  if (length > listLimit) return listTooLong(length);
  const result: number[] = [];
  for (let value = from; step > 0 ? (withEnd ? value <= to : value < to) : withEnd ? value >= to : value > to; value += step)
    result.push(value);
  return result;
}

function concatenated(lists: List): Value {
  const present = lists.filter((list) => list !== null);
  return present.length === 0 ? null : present.flatMap((list) => list as List);
}

/** A date by the first of several formats that fits. */
function readByAny(text: string, formats: string | List): Value | undefined {
  for (const format of [formats].flat()) {
    const found = typeof format === "string" ? readDate(text, format) : undefined;
    if (found !== undefined) return found;
  }
  return undefined;
}

const formatStyle: FormatStyle = { isLate: false, doubleText, toText };

/** Functions that are not rows of data. */
export const duckdbCode: Readonly<Record<string, Code>> = {
  hex: strict((value: Value) =>
    isNumber(value)
      ? BigInt.asUintN(64, BigInt(value as number))
          .toString(16)
          .toUpperCase()
      : hexOf(bytesOf(value)),
  ),
  unhex: strict(unhex),
  bin: strict((value: Value) =>
    isNumber(value)
      ? BigInt.asUintN(64, BigInt(value as number)).toString(2)
      : [...bytesOf(value)].map((byte) => byte.toString(2).padStart(8, "0")).join(""),
  ),
  unbin: strict(unbin),
  to_base: strict(toBase),
  to_base64: strict(({ bytes }: Bytes) => base64Of(bytes)),
  from_base64: strict(fromBase64),
  encode: strict((text: string) => new Bytes(utf8Of(text))),
  decode: strict(({ bytes }: Bytes) => textOfUtf8(bytes) ?? bad("the bytes are no UTF-8")),
  "list length": strict((list: List) => list.length),
  array_length: strict((list: List, dimension: number = 1) =>
    dimension === 1 ? list.length : bad("only the first dimension has a length here"),
  ),
  format: { run: (args) => (args.includes(null) ? null : formatBraces(args, formatStyle)) },
  printf: {
    run: (args, { types }) =>
      args.includes(null) ? null : formatPercent(args, formatStyle, (place) => (types[place + 1] === "hugeint" ? 128 : 64)),
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
  format_bytes: strict((size: number | bigint) => bytesShown(Number(size), 1024, ["KiB", "MiB", "GiB", "TiB", "PiB"])),
  format_decimal_bytes: strict((size: number | bigint) => bytesShown(Number(size), 1000, ["kB", "MB", "GB", "TB", "PB"])),
  bar: strict(bar),
  typeof: { run: (_args, context) => typeOf(context) },
  pg_typeof: {
    run: (_args, context) => {
      const name = typeOf(context);
      return typeof name === "string" ? name.toLowerCase() : name;
    },
  },
  coalesce,
  greatest: extreme(1),
  least: extreme(-1),
  "is null": { run: ([value]) => value === null },
  "is not null": { run: ([value]) => value !== null },
  "is true": { run: ([value]) => value === true },
  "is false": { run: ([value]) => value === false },
  "is distinct from": { run: ([a, b]) => !same(a, b) },
  and: logic(false),
  or: logic(true),
  not: strict((value: boolean) => !value),
  itself: { run: ([value]) => value },
  negate: strict(negate),
  abs: strict((value: Value) => {
    const isNegative =
      value instanceof Double ? value.value < 0 : value instanceof Decimal ? value.coefficient < 0n : (value as number) < 0;
    return isNegative ? negate(value) : value;
  }),
  sign: strict((value: Value) =>
    value instanceof Decimal
      ? value.compare(Decimal.of(0))
      : Math.sign(value instanceof Double ? value.value : Number(value)) || 0,
  ),
  round: strict(round),
  "trunc at": strict(truncate),
  struct: { run: () => new Failure("not-covered", { what: "structs" }) },
  round_even: strict(roundEven),
  fdiv: strict((a: Double, b: Double) => new Double(Math.floor(a.value / b.value))),
  fmod: strict((a: Double, b: Double) => new Double(b.value === 0 ? NaN : a.value - Math.floor(a.value / b.value) * b.value)),
  repeat: strict((list: List, count: number) =>
    list.length * count > listLimit
      ? listTooLong(list.length * count)
      : Array.from({ length: Math.max(0, count) }, () => list).flat(),
  ),
  trunc: onNumber((value) => new Decimal(value.coefficient / 10n ** BigInt(value.scale), 0), Math.trunc),
  ceil: onNumber((value) => new Decimal(-value.negated().floor(), 0), Math.ceil),
  floor: onNumber((value) => new Decimal(value.floor(), 0), Math.floor),
  "&": bits((a, b) => a & b),
  "|": bits((a, b) => a | b),
  xor: bits((a, b) => a ^ b),
  "<<": { strict: true, run: ([a, b], { types }) => shiftLeft(a as number, b as number, sizeOf(types)) },
  ">>": {
    strict: true,
    run: ([a, b], { types }) =>
      (b as number) < 0 || (b as number) >= sizeOf(types) ? 0 : integer(BigInt(a as number) >> BigInt(b as number)),
  },
  "~": strict((value: number) => integer(~BigInt(value))),
  bit_count: {
    strict: true,
    run: ([value], { types }) =>
      BigInt.asUintN(sizes[types[0]] ?? 32, BigInt(value as number))
        .toString(2)
        .replaceAll("0", "").length,
  },
  acos: onDouble(nearest.acos),
  acosh: strict(({ value }: Double) => new Double(Math.acosh(value))),
  asin: onDouble(nearest.asin),
  asinh: onDouble(Math.asinh),
  atan: onDouble(nearest.atan),
  // The engine gives infinity on both sides.
  atanh: onDouble((value) => (Math.abs(Math.atanh(value)) === Infinity ? Infinity : Math.atanh(value))),
  cbrt: onDouble(Math.cbrt),
  cos: onDouble(nearest.cos),
  cosh: onDouble(Math.cosh),
  cot: strict(({ value }: Double) =>
    value === 0 || Math.abs(value) === Infinity ? new Failure("number-out-of-range") : new Double(1 / nearest.tan(value)),
  ),
  degrees: onDouble((value) => value * (180 / Math.PI)),
  exp: onDouble(nearest.exp),
  gamma: { run: () => new Failure("not-covered", { what: "the gamma function" }) },
  lgamma: { run: () => new Failure("not-covered", { what: "the gamma function" }) },
  ln: logarithm(nearest.ln),
  log10: logarithm(nearest.log10),
  log2: logarithm(nearest.log2),
  radians: onDouble((value) => value * (Math.PI / 180)),
  sin: onDouble(nearest.sin),
  sinh: onDouble(Math.sinh),
  sqrt: strict(({ value }: Double) => (value < 0 ? bad("a negative number has no square root") : new Double(Math.sqrt(value)))),
  tan: onDouble(nearest.tan),
  tanh: onDouble(Math.tanh),
  log: strict((a: Double, b?: Double) => {
    const [base, value] = b === undefined ? [10, a.value] : [a.value, b.value];
    if (Number.isNaN(value) || Number.isNaN(base)) return new Double(NaN);
    if (!(value > 0) || !(base > 0)) return bad("there is no logarithm of a number that is not above 0");
    if (base === 1) return bad("1 is no base of a logarithm");
    return new Double(b === undefined ? nearest.log10(value) : nearest.log10(value) / nearest.log10(base));
  }),
  atan2: onDouble(nearest.atan2),
  pi: { run: () => new Double(Math.PI) },
  factorial: strict((value: number) => {
    if (value < 0) return new Failure("number-out-of-range");
    let result = 1n;
    for (let i = 2n; i <= BigInt(value) && result < 2n ** 128n; i++) result *= i;
    return inRange("hugeint", result);
  }),
  gcd: strict((a: number, b: number) => integer(gcd(BigInt(a), BigInt(b)))),
  lcm: strict((a: number, b: number) => {
    const divisor = gcd(BigInt(a), BigInt(b));
    const product = divisor === 0n ? 0n : (BigInt(a) * BigInt(b)) / divisor;
    return integer(product < 0n ? -product : product);
  }),
  even: onDouble((value) => {
    const whole = value >= 0 ? Math.ceil(value) : -Math.ceil(-value);
    return whole % 2 === 0 ? whole : whole + (value >= 0 ? 1 : -1);
  }),
  isnan: strict(({ value }: Double) => Number.isNaN(value)),
  "characters between": charactersBetween,
  "without last": strict((text: string) => [...text].slice(0, -1).join("")),
  "without first": strict((text: string) => [...text].slice(1).join("")),
  "item at": strict((list: List, index: number | bigint) => list[indexOf(Number(index), list.length)] ?? null),
  "items between": itemsBetween,
  list_value: {
    run: (args, context) => {
      const type = together(context);
      if (isFailure(type)) return type;
      const items = args.map((arg, i) => converted(arg, context.types[i], type));
      return items.find(isFailure) ?? items;
    },
  },
  list_contains: {
    run: ([list, item], { types }) => {
      if (list === null || item === null) return null;
      const wanted = itemLike(item, types[1], types[0]);
      return isFailure(wanted) ? wanted : (list as List).some((each) => each !== null && same(each, wanted));
    },
  },
  list_position: {
    run: ([list, item], { types }) => {
      if (list === null) return null;
      const wanted = itemLike(item, types[1], types[0]);
      if (isFailure(wanted)) return wanted;
      const at = (list as List).findIndex((each) => same(each, wanted));
      return at < 0 ? null : at + 1;
    },
  },
  list_has_any: strict((a: List, b: List) => a.some((item) => item !== null && b.some((each) => same(each, item)))),
  list_has_all: strict((a: List, b: List) => b.every((item) => item === null || a.some((each) => same(each, item)))),
  "<@": strict((a: List, b: List) => a.every((item) => item === null || b.some((each) => same(each, item)))),
  list_concat: { run: concatenated },
  "list joined": strict((a: List, b: List) => [...a, ...b]),
  list_append: { run: ([list, item], { types }) => appended(list, itemLike(item, types[1], types[0])) },
  list_prepend: {
    run: ([item, list], { types }) => {
      const first = itemLike(item, types[0], types[1]);
      return isFailure(first) ? first : [first, ...((list as List | null) ?? [])];
    },
  },
  array_push_front: {
    run: ([list, item], { types }) => {
      const first = itemLike(item, types[1], types[0]);
      return isFailure(first) ? first : [first, ...((list as List | null) ?? [])];
    },
  },
  array_pop_back: strict((list: List) => list.slice(0, -1)),
  array_pop_front: strict((list: List) => list.slice(1)),
  // The engine gives the values as its table holds them, which for a few is the last one first.
  list_distinct: strict((list: List) => distinct(list).reverse()),
  list_unique: strict((list: List) => distinct(list).length),
  list_reverse: strict((list: List) => [...list].reverse()),
  list_sort: {
    run: ([list, direction = null, nulls = null]) => {
      if (direction !== null && !/^(?:asc|desc|ascending|descending|default)$/i.test(direction as string))
        return bad(`"${direction as string}" is no order of a list`);
      return list === null ? null : withNulls(nulls, (first) => sorted(list as List, isDescending(direction), first));
    },
  },
  list_reverse_sort: strict((list: List, nulls: Value = null) => withNulls(nulls, (first) => sorted(list, true, first))),
  list_resize: {
    run: ([list, length, fill = null], { types }) => {
      if (list === null) return null;
      const size = Number(length ?? 0);
      if (size < 0) return bad("a list cannot be shorter than nothing");
      if (size > listLimit) return listTooLong(size);
      const filling = types.length > 2 ? castLike(fill, types[2], types[0]) : null;
      return isFailure(filling)
        ? filling
        : Array.from({ length: size }, (_, i) => (i < (list as List).length ? (list as List)[i] : filling));
    },
  },
  list_select: strict((list: List, positions: List) =>
    positions.map((at) => (at === null ? null : (list[Number(at) - 1] ?? null))),
  ),
  list_where: strict((list: List, mask: List) =>
    mask.includes(null)
      ? bad("a mask must not hold null")
      : mask.flatMap((isKept, i) => (isKept === true ? [list[i] ?? null] : [])),
  ),
  list_intersect: strict((a: List, b: List) => distinct(a).filter((item) => b.some((each) => each !== null && same(each, item)))),
  list_aggregate: {
    run: ([list, name, ...more]) => (list === null || name === null ? null : aggregate(list as List, name as string, more)),
  },
  ...Object.fromEntries(
    ["string_agg", "min", "max", "first", "last", "any_value", "sum", "avg", "count"].map((name) => [
      `list_${name}`,
      aggregated(name),
    ]),
  ),
  flatten: strict((list: List) => list.flatMap((each) => (isList(each) ? each : []))),
  range: strict((first: number | bigint, last?: number | bigint, step?: number | bigint) =>
    series(Number(first), last === undefined ? undefined : Number(last), step === undefined ? 1 : Number(step), false),
  ),
  generate_series: strict((first: number | bigint, last?: number | bigint, step?: number | bigint) =>
    series(Number(first), last === undefined ? undefined : Number(last), step === undefined ? 1 : Number(step), true),
  ),
  list_transform: transform,
  list_filter: filter,
  list_reduce: reduce,
  strftime: strict(formatDate),
  "strftime turned": strict((format: string, date: string) => formatDate(date, format)),
  strptime: strict(
    (text: string, formats: string | List) =>
      readByAny(text, formats) ?? bad(`"${text}" does not fit the format ${JSON.stringify(formats)}`),
  ),
  try_strptime: strict((text: string, formats: string | List) => readByAny(text, formats) ?? null),
  extract: strict(datePart),
  ...Object.fromEntries(
    [
      "year",
      "month",
      "day",
      "quarter",
      "week",
      "dayofweek",
      "isodow",
      "dayofyear",
      "dayofmonth",
      "weekday",
      "hour",
      "minute",
      "second",
    ].map((name) => [name, strict((date: string) => datePart(name, date))]),
  ),
  dayname: strict(dayName),
  monthname: strict(monthName),
  last_day: strict(lastDay),
  make_date: strict((year: number | bigint, month: number | bigint, day: number | bigint) =>
    year < 1
      ? new Failure("not-covered", { what: "dates before the year 1" })
      : isDate(Number(year), Number(month), Number(day))
        ? isoDate(Number(year), Number(month), Number(day))
        : bad(`there is no date ${year}-${month}-${day}`),
  ),
  "days between": strict((a: string, b: string) => dayNumber(a) - dayNumber(b)),
  "add days": strict((date: string, days: number) => dayAt(dayNumber(date) + days)),
  "subtract days": strict((date: string, days: number) => dayAt(dayNumber(date) - days)),
  datediff: strict(borders),
  date_trunc: strict(truncated),
};

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
}

function appended(list: Value, item: Value): Value {
  return isFailure(item) ? item : [...((list as List | null) ?? []), item];
}
