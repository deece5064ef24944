import { kernelFor } from "../../text/index.ts";
import { Decimal, Failure, type Value, countBytes, isFailure, isWholeNumber, latinOfBytes, utf8Of } from "../../values/index.ts";
import { PatternError, cachedPattern } from "../../patterns/index.ts";
import { conversionTable } from "../conversions.ts";
import type { Conversion, ConversionLine, TypeRules } from "../dialect.ts";
import { strftime } from "./fields.ts";
import { formatFault } from "./moments.ts";
import { mostDecimals } from "../shared/code.ts";
import { type FunctionRow, parameterAt, relations } from "../row.ts";
import { fitted } from "../shared/sizes.ts";
import { type Own, type Step, type Work, partsOfWork, unlessMissing, worked } from "../step.ts";
import { inRange, ranges } from "./numbers.ts";
import { read, readList } from "./reading.ts";
import { steps, toText } from "./steps.ts";
import { baseType, isInteger, isNumeric, names, numeric, widening, unify, isCollated, collationOf, results } from "./types.ts";

const literalTo = (type: string): Conversion => ({
  cost: type === "text" ? 1 : 2,
  convert: isNumeric(type)
    ? steps[type]
    : type === "boolean"
      ? steps.truth
      : unlessMissing((value) => (typeof value === "string" ? read(type, value) : value)),
});

const textFrom = (type: string): Step => (type === "float" ? steps["text of 32 bits"] : steps.text);

/** A decimal with at least so many decimals. */
const scaled = (value: Value, scale: number): Value =>
  value instanceof Decimal && value.scale < scale ? value.rounded(scale) : value;

const early = { early: true } as const;

/** A date in a format, tried with one that every format can write. */
const readableFormat = (format: Value): Value => {
  const tried = written("2000-01-01", format);
  return tried instanceof Failure ? tried : format;
};

const withOptions = (allowed: RegExp) => (flags: Value) =>
  allowed.test(flags as string) ? flags : new Failure("pattern-flags", { flags });

const asTimestamp = unlessMissing((date) => `${date as string} 00:00:00`);

/** How a value becomes one that is compared with the items of a list of a type; what has no conversion is no item of it. */
function itemConversion(given: string, listType: string): Conversion {
  const item = listType.endsWith("[]") ? listType.slice(0, -2) : "any";
  const base = baseType(item);
  if (given === "boolean" && isNumeric(base)) return { cost: 0, convert: steps[base] };
  const convert = conversion(given, item.startsWith("decimal ") ? item : base)?.convert;
  return { cost: 0, ...(convert && { convert }) };
}

const orderWords = {
  direction: /^(?:(asc|ascending|default)|desc|descending)$/i,
  nullplace: /^(?:nulls[_ ])?(?:(last)|first)$|^(default)$/i,
};

/** What says how a list is sorted, in one word of ours. */
const wordOf =
  (kind: keyof typeof orderWords): Own =>
  (written) => {
    const found = orderWords[kind].exec(written as string);
    if (!found) return new Failure("invalid-value", { problem: `"${String(written)}" does not say how to sort a list` });
    const isUsual = found[1] !== undefined || found[2] !== undefined;
    if (kind === "direction") return isUsual ? "ascending" : "descending";
    return isUsual ? "last" : "first";
  };

const written = kernelFor("text-from-date", strftime.answers, strftime.fixed);

/** The ends of what is taken for an offset or a length, of 32 bits and a sign. */
const [leastOffset, mostOffset] = [-4294967296, 4294967295];

const withinOffsets = (value: Value): Value =>
  (value as number | bigint) < leastOffset ? new Failure("number-out-of-range") : notBeyond(value);

const notBeyond = (value: Value): Value =>
  (value as number | bigint) > mostOffset ? new Failure("number-out-of-range") : Number(value);

/** A pattern that can be read, or the failure that says why not. */
function readable(pattern: string): Value {
  const found = cachedPattern("re2", pattern, "");
  return found instanceof PatternError && !found.isUncovered
    ? new Failure("pattern-syntax", { pattern, problem: found.problem, offset: found.offset })
    : pattern;
}

/** What is done to each item of a list that is there; a failure of one is that of the list. */
const eachItem = (work: Work): Own => {
  const change = worked(work);
  return unlessMissing((list) => {
    const items = (list as readonly Value[]).map((item) => (item === null ? null : change(item)));
    return items.find(isFailure) ?? items;
  });
};

/** A side of a comparison: a text beside another type is read as that type. */
function comparedAs(from: string, to: string): Conversion | undefined {
  if (from === to) return { cost: 0 };
  if (from === "literal") return to === "text" ? { cost: 0.5 } : to === "list" ? undefined : { ...literalTo(to), cost: 3 };
  if (to === "list") return from.endsWith("[]") ? { cost: 0 } : undefined;
  if (from === "text") return { ...literalTo(to), cost: 8 };
  if (from === "boolean" && isNumeric(to)) return { cost: isInteger(to) ? 4 : 6, convert: steps[to] };
  return from === "any" ? { cost: 3 } : conversion(from, to);
}

/** Each number type as those that hold all its values. */
const widenings = numeric.flatMap((from) =>
  numeric.flatMap((to): ConversionLine[] => {
    const cost = from === to ? undefined : widening(from, to);
    return cost === undefined ? [] : [[from, to, cost, isNumeric(to) && !isInteger(to) ? steps[to] : undefined]];
  }),
);

/** How an argument becomes a parameter: implicit casts only. */
const conversions: readonly ConversionLine[] = [
  ["=", "*", 0],
  ["*", "any", 0],
  ["> text", "direction", 0, wordOf("direction")],
  ["> text", "nullplace", 0, wordOf("nullplace")],
  ["null", "lambda", "never"],
  ["null", "text", 1],
  ["null", "*", 1.5],
  ["any", "*", 3],
  ["> text", "bytetext", 0, (text) => latinOfBytes(utf8Of(text as string))],
  ["boolean", "position|upto|ordinal", "never"],
  ["> bigint", "position", 0, withinOffsets],
  ["> bigint", "upto", 0, notBeyond],
  // Beyond what a double counts exactly there is no piece, whatever the number.
  ["> bigint", "ordinal", 0, Number],
  ["> text", "escape", 0, (text) => (countBytes(text as string) > 1 ? new Failure("escape-length", { escape: text }) : text)],
  ["> text", "dateformat", 0, readableFormat, early],
  ["> text", "dateshape", 0, (format) => formatFault(format as string) ?? format, early],
  [
    "> integer",
    "group",
    0,
    (group) => ((group as number) < 0 || (group as number) > 9 ? new Failure("no-such-group", { group }) : group),
    early,
  ],
  ["double|float", "floating", 1],
  ["decimal", "fraction", 0],
  ["> text", "options", 0, withOptions(/^[cimnpsl \t\n\v\f\r]*$/), early],
  ["> text", "replace_options", 0, withOptions(/^[cgimnpsl \t\n\v\f\r]*$/), early],
  ["> text", "pattern", 0, (pattern) => readable(pattern as string), early],
  ["decimal|double|text|hugeint", "open", 1, steps.bigint],
  ["> bigint", "open", 0],
  ["boolean", "condition", 0],
  ["literal|text", "condition", 2, steps.truth, { late: true }],
  [numeric.join("|"), "condition", 2, steps.truth],
  ["text|literal", "output", 1],
  ["…[]", "nonlist", "never"],
  ["float", "output|nonlist", 1, steps["text of 32 bits"]],
  ["*", "output|nonlist", 1, steps.text],
  ["literal", "text", 0.5],
  ["literal", "floating|fraction|anylist|lambda", "never"],
  ["…[]", "anylist", 1],
  ["date", "timestamp", 1, asTimestamp],
  ...numeric.filter(isInteger).map((to): ConversionLine => ["boolean", to, 50, steps[to]]),
  ...widenings,
];

/** Of a literal, which is read as what is wanted, and of lists by their items. */
function derived(given: string, to: string): Conversion | undefined {
  const from = baseType(given);
  if (to.startsWith("side.")) return comparedAs(from, to.slice("side.".length));
  if (from === "literal") return literalTo(to);
  if (!to.endsWith("[]") || !from.endsWith("[]")) return undefined;
  const [inner, target] = [from.slice(0, -2), to.slice(0, -2)];
  if (inner === "null" || inner === "any" || target === "any") return { cost: 1 };
  const item = conversion(inner, target);
  return item && { cost: item.cost, ...(item.convert && { convert: eachItem(item.convert) }) };
}

const plainConversion = conversionTable(conversions, derived);

/** The same where a decimal of so many decimals is wanted, or what goes with the items of a list. */
function conversion(given: string, to: string): Conversion | undefined {
  if (to.startsWith("item.")) return itemConversion(given, to.slice("item.".length));
  if (!to.startsWith("decimal ")) return plainConversion(given, to);
  const exact = given === "boolean" ? { cost: 0, convert: steps.decimal } : plainConversion(given, "decimal");
  const scale = unlessMissing((value) => scaled(value, Number(to.slice("decimal ".length))));
  return exact && { ...exact, convert: [...partsOfWork(exact.convert ?? []), scale] };
}

/** What a type name in a cast means: its name here, and its sizes. */
function typeNamed(written: string): { type: string; sizes: readonly number[]; depth: number } | undefined {
  const match = /^([a-z0-9]+)(?:\((\d+(?:,\d+)*)\))?((?:\[\])*)$/.exec(written);
  const type = match ? names[match[1]] : undefined;
  if (!match || !type) return undefined;
  return { type, sizes: match[2]?.split(",").map(Number) ?? [], depth: match[3].length / 2 };
}

function castTo(from: string, type: string, sizes: readonly number[]): Work | undefined {
  if (type === "text") return textFrom(from);
  const isOpen = from === "text" || from === "literal" || from === "any" || from === "null";
  if (isNumeric(type))
    return isOpen || isNumeric(from) || from === "boolean" ? [steps[type], ...sizeWork(type, sizes)] : undefined;
  if (isOpen && type === "boolean") return steps.truth;
  if (isOpen) return (value) => (typeof value === "string" ? read(type, value) : castAny(type, value));
  if (isNumeric(from) && type === "boolean") return steps.truth;
  if (from === "date" && type === "timestamp") return (value) => `${value as string} 00:00:00`;
  if (from === "timestamp" && type === "date") return (value) => (value as string).slice(0, 10);
  if (from === "timestamp" && type === "time") return (value) => (value as string).slice(11);
  return from === type ? (value) => value : undefined;
}

/** A number or truth value as one of a type. */
export const castAny = (type: string, value: Value): Value =>
  isNumeric(type) ? worked(steps[type])(value) : type === "boolean" ? worked(steps.truth)(value) : value;

/** A decimal has so many digits, so many of them after the point: 18 and 3 unless said otherwise. */
const sizeWork = (type: string, [size = 18, scale]: readonly number[]): readonly Step[] =>
  type === "decimal" ? [fitted("error", scale ?? (size === 18 ? 3 : 0), size)] : [];

/** Whether lists and the items that go with them have a type together. */
function itemsFit(row: FunctionRow, types: readonly string[]): boolean {
  const mixed = types.flatMap((type, i) => {
    const given = baseType(type);
    const { type: wanted } = parameterAt(row, i);
    if (wanted === "anylist" && given.endsWith("[]")) return [given.slice(0, -2)];
    return wanted === "item.list" ? [given] : [];
  });
  return mixed.length < 2 || unify(mixed) !== undefined;
}

/** The rules of values in DuckDB. */
export const typeRules: TypeRules = {
  // A constant that does not convert fails on the rows that need it.
  dynamic: true,
  nullFirst: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    if (present.every((value) => typeof value === "boolean")) return "boolean";
    if (!present.every((value) => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal))
      return "text";
    if (!present.every(isWholeNumber)) return `decimal ${mostDecimals(present)}`;
    return present.every((value) => !isFailure(inRange("integer", BigInt(value as number)))) ? "integer" : "bigint";
  },
  readColumn(type, value) {
    if (type === "text") return toText(value);
    return baseType(type) === "decimal" && typeof value === "number" ? scaled(Decimal.of(value), Number(type.slice(8))) : value;
  },
  conversions,
  conversion,
  collationOf,
  refuses(row, types) {
    const collated = new Set(types.filter(isCollated));
    if (collated.size > 1 && row.result !== "unified") return "argument-type";
    const isOfList = row.family === "list" && !row.aggregate;
    if (collated.size > 0 && isOfList && row.result !== "item") return "not-covered";
    // A truth value is a number only beside numbers, in a list or a choice.
    if (types.some((type, i) => type === "boolean" && isInteger(parameterAt(row, i).type))) return "argument-type";
    return row.family === "list" && !itemsFit(row, types) ? "argument-type" : undefined;
  },
  resultType: ({ result }, types, constant) => results[result]?.(types, constant) ?? result,
  dates: "date",
  cast(from, to) {
    const isTry = to.startsWith("try ");
    const named = typeNamed(isTry ? to.slice(4) : to);
    if (!named) return undefined;
    const { type, sizes, depth } = named;
    const isDecimal = type === "decimal" && depth === 0;
    const target = isDecimal ? `decimal ${sizes[1] ?? (sizes.length === 0 ? 3 : 0)}` : type + "[]".repeat(depth);
    const kind = baseType(from);
    if (target === kind && isCollated(from)) return { type: from, convert: (value) => value };
    let convert: Work | undefined;
    if (depth === 0) convert = castTo(kind, type, sizes);
    else if (kind === "text" || kind === "literal") convert = (value) => readList(value as string, target.slice(0, -2));
    else if (kind.endsWith("[]") && depth === 1) {
      const item = castTo(kind.slice(0, -2), type, sizes);
      convert = item && eachItem(item);
    } else if (kind === "null" || kind === target) convert = (value) => value;
    if (!convert) return undefined;
    const parts = partsOfWork(convert).map((part) => (typeof part === "function" ? unlessMissing(part) : part));
    return { type: target, convert: parts, ...(isTry && { tries: true as const }) };
  },
  unify,
  // A whole number that is written takes the type of those beside it, where it fits.
  numberBeside(value, own, others) {
    const known = others.map(baseType).filter((type) => type !== "null");
    if (known.length === 0 || !known.every(isInteger)) return own;
    const type = unify(known)!;
    return isFailure(inRange(type, BigInt(value))) ? own : type;
  },
  betweenType(types) {
    const common = unify(types);
    return common && !common.endsWith("[]") && baseType(common) !== "text" ? `side.${baseType(common)}` : undefined;
  },
  groups: true,
  simplifiesChoices: true,
  rows: {
    compares: new Set([...relations, "is null", "is not null", "is distinct from"]),
    areValues: true,
    nested: true,
    nullsLast: true,
    eager: true,
    truth: (value, range) => ({ kind: "literal", value: value, type: "boolean", range }),
  },
  list: (_form, values) => values,
  fits: (type) =>
    type in ranges
      ? (value) => (typeof value === "number" || typeof value === "bigint" ? inRange(type, BigInt(value)) : value)
      : undefined,
  items: (value) => (value === null ? [] : (value as readonly Value[])),
  sequence: (items) => items,
};
