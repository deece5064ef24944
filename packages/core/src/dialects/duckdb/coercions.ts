import type { AnswerOf } from "../../traits/index.ts";
import { Decimal, type Value, isFailure, isWholeNumber } from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { Conversion, ConversionLine, TypeRules } from "../dialect.ts";
import { checkedFormat } from "./fields.ts";
import { mostDecimals } from "../shared/code.ts";
import { type FunctionRow, parameterAt, relations } from "../row.ts";
import { extended, fitted } from "../shared/sizes.ts";
import { type Step, type Work, partsOfWork, step } from "../step.ts";
import { inRange, ranges } from "./numbers.ts";
import { type Integer, steps, toText } from "./steps.ts";
import { isInteger, isNumeric, names, numeric, widening, unify, isCollated, collationOf, results } from "./types.ts";
import { decimalOf, isListType, itemOf, listOf, nameOf, scaleOf, widthOf } from "../types.ts";

/** A text as a value of a type. */
function fromText(type: string): Work {
  if (isNumeric(type)) return steps[type];
  switch (type) {
    case "boolean":
      return steps.truth;
    case "date":
    case "timestamp":
    case "time":
      return moment(type, "text");
    case "blob":
      return bytesOf("escapes in base 16");
    case "interval":
      return step(
        "interval-from-text",
        { missing: "null", intervalForms: "units and clocks" },
        { unit: "second", form: "1 month" },
      );
  }
  const item = itemOf(type);
  return item === undefined ? [] : listFromText(item);
}

/** A text as a list of items of a type. */
const listFromText = (item: string): Work => [step("list-of-text", { listForm: "[a, b]" }), { each: fromText(item) }];

/** A date or time by how it is written; `from` says what it is. */
const moment = (wanted: string, from: string) =>
  step("moment-of", { missing: "null", dateForms: "year first", clockOfDate: "left out", notADate: "error" }, { wanted, from });

const bytesOf = (bytesWritten: AnswerOf<"bytesWritten">) => step("bytes-of", { bytesWritten });

/** A literal, which may have become a value already. */
const literalTo = (type: string): Conversion => ({ cost: type === "text" ? 1 : 2, convert: fromText(type) });

const textFrom = (type: string): Step => (type === "float" ? steps["text of 32 bits"] : steps.text);

/** A decimal with at least so many decimals. */
const scaled = (value: Value, scale: number): Value =>
  value instanceof Decimal && value.scale < scale ? value.rounded(scale) : value;

const early = { early: true } as const;

const options = (letters: string) =>
  step("check-text", {}, { shape: `^[${letters} \\t\\n\\v\\f\\r]*$`, refused: "pattern-flags", about: "" });

/** A word that says how a list is sorted. */
const orderWord = (shape: string) =>
  step("check-text", {}, { shape, letters: "ignored", refused: "invalid-value", about: "does not say how to sort a list" });

/** How a value becomes one that is compared with the items of a list of a type; what has no conversion is no item of it. */
function itemConversion(given: string, listType: string): Conversion {
  const item = itemOf(listType) ?? "any";
  const base = nameOf(item);
  if (given === "boolean" && isNumeric(base)) return { cost: 0, convert: steps[base] };
  const convert = conversion(given, base === "decimal" ? item : base)?.convert;
  return { cost: 0, ...(convert && { convert }) };
}

/** The ends of what is taken for an offset or a length, of 32 bits and a sign. */
const [least, most] = [-4294967296, 4294967295];
const offset = (limits: Step["fixed"]) => step("check-number", {}, { ...limits, refused: "number-out-of-range" });

/** What is cast to a decimal of a known size has that size. */
function sized(given: Conversion, to: string): Conversion {
  const size = widthOf(to);
  if (nameOf(to) !== "decimal" || size === undefined) return given;
  return { ...given, convert: [...partsOfWork(given.convert ?? []), fitted("error", scaleOf(to), size)] };
}

/** A side of a comparison: a text beside another type is read as that type. */
function comparedAs(from: string, to: string): Conversion | undefined {
  if (from === to) return { cost: 0 };
  if (to === "list") return from !== "literal" && isListType(from) ? { cost: 0 } : undefined;
  if (from === "literal" && to === "text") return { cost: 0.5 };
  if (from === "literal" || from === "text") return { ...sized(literalTo(nameOf(to)), to), cost: from === "text" ? 8 : 3 };
  const name = nameOf(to);
  if (from === "boolean" && isNumeric(name)) return { cost: isInteger(name) ? 4 : 6, convert: steps[name] };
  return from === "any" ? { cost: 3 } : conversion(from, name);
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
  ["> text", "direction", 0, orderWord("^(?:asc|ascending|default|desc|descending)$")],
  ["> text", "nullplace", 0, orderWord("^(?:nulls[_ ])?(?:last|first)$|^default$")],
  ["null", "lambda|reducer", "never"],
  ["null", "text", 1],
  ["null", "*", 1.5],
  ["any", "text|output|nonlist", 3, steps.text],
  ["any", "*", 3],
  ["> text", "bytetext", 0, [bytesOf("utf-8"), steps["text of bytes"]]],
  ["boolean", "position|upto|ordinal", "never"],
  ["> bigint", "position", 0, offset({ least, most })],
  ["> bigint", "upto", 0, offset({ most })],
  // Beyond what a double counts exactly there is no piece, whatever the number.
  ["> bigint", "ordinal", 0],
  ["> text", "escape", 0, step("check-escape", { escapeSize: "one byte or none" })],
  ["> text", "dateformat|dateshape", 0, checkedFormat, early],
  ["> integer", "group", 0, step("check-number", {}, { least: 0, most: 9, refused: "no-such-group" }), early],
  ["double|float", "floating", 1],
  ["decimal", "fraction", 0],
  ["> text", "options", 0, options("cimnpsl"), early],
  ["> text", "replace_options", 0, options("cgimnpsl"), early],
  ["> text", "pattern", 0, step("check-pattern", { pattern: "re2" }), early],
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
  ["literal", "floating|fraction|anylist|shownlist|lambda|reducer", "never"],
  ["…[]", "anylist", 1],
  // What becomes of each item where it is shown.
  ["text…[]|literal…[]", "shownlist", 1],
  ["float[]", "shownlist", 1, { each: steps["text of 32 bits"] }],
  ["…[]", "shownlist", 1, { each: steps.text }],
  ["date", "timestamp", 1, moment("timestamp", "date")],
  ...numeric.filter(isInteger).map((to): ConversionLine => ["boolean", to, 50, steps[to]]),
  ...widenings,
];

/** Of a literal, which is read as what is wanted, and of lists by their items. */
function derived(given: string, to: string): Conversion | undefined {
  const from = nameOf(given);
  if (to.startsWith("side.")) return comparedAs(from, to.slice("side.".length));
  if (from === "literal") return literalTo(to);
  const [inner, target] = [itemOf(from), itemOf(to)];
  if (inner === undefined || target === undefined) return undefined;
  if (inner === "null" || inner === "any" || target === "any") return { cost: 1 };
  const item = conversion(inner, target);
  return item && { cost: item.cost, ...(item.convert && { convert: { each: item.convert } }) };
}

const plainConversion = conversionTable(conversions, derived);

/** The same where a decimal of so many decimals is wanted, or what goes with the items of a list. */
function conversion(given: string, to: string): Conversion | undefined {
  if (to.startsWith("item.")) return itemConversion(given, to.slice("item.".length));
  const scale = nameOf(to) === "decimal" ? scaleOf(to) : NaN;
  if (Number.isNaN(scale)) return plainConversion(given, to);
  const exact = given === "boolean" ? { cost: 0, convert: steps.decimal } : plainConversion(given, "decimal");
  // A text is cast to the type, size and all.
  if (exact && widthOf(to) !== undefined && ["text", "literal"].includes(nameOf(given))) return sized(exact, to);
  return exact && { ...exact, convert: [...partsOfWork(exact.convert ?? []), extended(scale)] };
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
  if (isOpen || (isNumeric(from) && type === "boolean")) return fromText(type);
  const isMoment = from === "timestamp" ? ["date", "time"].includes(type) : from === "date" && type === "timestamp";
  return isMoment ? moment(type, from) : from === type ? [] : undefined;
}

/** A decimal has so many digits, so many of them after the point: 18 and 3 unless said otherwise. */
const sizeWork = (type: string, [size = 18, scale]: readonly number[]): readonly Step[] =>
  type === "decimal" ? [fitted("error", scale ?? (size === 18 ? 3 : 0), size)] : [];

/** Whether lists and the items that go with them have a type together. */
function itemsFit(row: FunctionRow, types: readonly string[]): boolean {
  const mixed = types.flatMap((type, i) => {
    const given = nameOf(type);
    const { type: wanted } = parameterAt(row, i);
    const item = itemOf(given);
    if (wanted === "anylist" && item !== undefined) return [item];
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
    if (!present.every(isWholeNumber)) return decimalOf(mostDecimals(present));
    return present.every((value) => !isFailure(inRange("integer", BigInt(value as number)))) ? "integer" : "bigint";
  },
  readColumn(type, value) {
    if (type === "text") return toText(value);
    return nameOf(type) === "decimal" && typeof value === "number" ? scaled(Decimal.of(value), scaleOf(type)) : value;
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
    const target = isDecimal
      ? decimalOf(sizes[1] ?? (sizes.length === 0 ? 3 : 0), sizes[0] ?? 18)
      : Array.from({ length: depth }).reduce<string>(listOf, type);
    const kind = nameOf(from);
    if (target === kind && isCollated(from)) return { type: from, convert: [] };
    let convert: Work | undefined;
    if (depth === 0) convert = castTo(kind, type, sizes);
    else if (kind === "text" || kind === "literal") convert = listFromText(itemOf(target)!);
    else if (isListType(kind) && depth === 1) {
      const item = castTo(itemOf(kind)!, type, sizes);
      convert = item && { each: item };
    } else if (kind === "null" || kind === target) convert = [];
    if (!convert) return undefined;
    return { type: target, convert, ...(isTry && { tries: true as const }) };
  },
  unify,
  // A whole number that is written takes the type of those beside it, where it fits.
  numberBeside(value, own, others) {
    const known = others.map(nameOf).filter((type) => type !== "null");
    if (known.length === 0 || !known.every(isInteger)) return own;
    const type = unify(known)!;
    return isFailure(inRange(type, BigInt(value))) ? own : type;
  },
  betweenType(types) {
    const common = unify(types);
    return common && !isListType(common) && nameOf(common) !== "text" ? `side.${nameOf(common)}` : undefined;
  },
  lambdaTypes(parameter, list) {
    const item = itemOf(list);
    if (item === undefined || item === "null") return undefined;
    return parameter === "reducer" ? ["any", item, "bigint"] : [item, "bigint"];
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
  fits: (type) => (type in ranges ? steps[type as Integer] : undefined),
  items: (value) => (value === null ? [] : (value as readonly Value[])),
  sequence: (items) => items,
};
