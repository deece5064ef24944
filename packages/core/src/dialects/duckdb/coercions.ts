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
import { isInteger, isNumeric, names, numeric, textType, widening, unify, isCollated, collationOf, results } from "./types.ts";
import { Type, anyType, decimalOf, typeOf } from "../types.ts";

/** A text as a value of a type. */
function fromText({ name, item }: Type): Work {
  if (isNumeric(name)) return steps[name];
  switch (name) {
    case "boolean":
      return steps.truth;
    case "date":
    case "timestamp":
    case "time":
      return moment(name, "text");
    case "blob":
      return bytesOf("escapes in base 16");
    case "interval":
      return step(
        "interval-from-text",
        { missing: "null", intervalForms: "units and clocks" },
        { unit: "second", form: "1 month" },
      );
  }
  return item ? listFromText(item) : [];
}

/** A text as a list of items of a type. */
const listFromText = (item: Type): Work => [step("list-of-text", { listForm: "[a, b]" }), { each: fromText(item) }];

/** A date or time by how it is written; `from` says what it is. */
const moment = (wanted: string, from: string) =>
  step("moment-of", { missing: "null", dateForms: "year first", clockOfDate: "left out", notADate: "error" }, { wanted, from });

const bytesOf = (bytesWritten: AnswerOf<"bytesWritten">) => step("bytes-of", { bytesWritten });

/** A literal, which may have become a value already. */
const literalTo = (type: Type): Conversion => ({ cost: type === textType ? 1 : 2, convert: fromText(type) });

const textFrom = ({ name }: Type): Step => (name === "float" ? steps["text of 32 bits"] : steps.text);

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
function itemConversion(given: Type, { item = anyType }: Type): Conversion {
  if (given.name === "boolean" && isNumeric(item.name)) return { cost: 0, convert: steps[item.name] };
  const convert = conversion(given, item.name === "decimal" ? item : item.plain)?.convert;
  return { cost: 0, ...(convert && { convert }) };
}

/** The ends of what is taken for an offset or a length, of 32 bits and a sign. */
const [least, most] = [-4294967296, 4294967295];
const offset = (limits: Step["fixed"]) => step("check-number", {}, { ...limits, refused: "number-out-of-range" });

/** What is cast to a decimal of a known size has that size. */
function sized(given: Conversion, { name, scale, width }: Type): Conversion {
  if (name !== "decimal" || scale === undefined || width === undefined) return given;
  return { ...given, convert: [...partsOfWork(given.convert ?? []), fitted("error", scale, width)] };
}

/** A side of a comparison: a text beside another type is read as that type. */
function comparedAs(from: Type, to: Type): Conversion | undefined {
  if (from === to) return { cost: 0 };
  const [given, { name }] = [from.name, to];
  if (name === "list") return given !== "literal" && from.item ? { cost: 0 } : undefined;
  if (given === "literal" && to === textType) return { cost: 0.5 };
  if (given === "literal" || given === "text") return { ...sized(literalTo(to.plain), to), cost: given === "text" ? 8 : 3 };
  if (given === "boolean" && isNumeric(name)) return { cost: isInteger(name) ? 4 : 6, convert: steps[name] };
  return from === anyType ? { cost: 3 } : conversion(from, to.plain);
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
function derived(given: Type, to: Type): Conversion | undefined {
  const from = given.plain;
  if (to.name.startsWith("side.")) return comparedAs(from, within(to));
  if (from.name === "literal") return literalTo(to);
  const [inner, target] = [from.item, to.item];
  if (inner === undefined || target === undefined) return undefined;
  if (inner.name === "null" || inner === anyType || target === anyType) return { cost: 1 };
  const item = conversion(inner, target);
  return item && { cost: item.cost, ...(item.convert && { convert: { each: item.convert } }) };
}

/** The type after the word for what it is wanted for: `decimal 3` of `side.decimal 3`. */
const within = (type: Type): Type => typeOf(String(type).replace(/^\w+\./, ""));

const plainConversion = conversionTable(conversions, derived);

/** The same where a decimal of so many decimals is wanted, or what goes with the items of a list. */
function conversion(given: Type, to: Type): Conversion | undefined {
  if (to.name.startsWith("item.")) return itemConversion(given, within(to));
  if (to.name !== "decimal" || to.scale === undefined) return plainConversion(given, to);
  const exact = given.name === "boolean" ? { cost: 0, convert: steps.decimal } : plainConversion(given, to.plain);
  // A text is cast to the type, size and all.
  if (exact && to.width !== undefined && ["text", "literal"].includes(given.name)) return sized(exact, to);
  return exact && { ...exact, convert: [...partsOfWork(exact.convert ?? []), extended(to.scale)] };
}

/** What a type name in a cast means: its name here, and its sizes. */
function typeNamed(written: string): { name: string; sizes: readonly number[]; depth: number } | undefined {
  const match = /^([a-z0-9]+)(?:\((\d+(?:,\d+)*)\))?((?:\[\])*)$/.exec(written);
  const name = match ? names[match[1]] : undefined;
  if (!match || !name) return undefined;
  return { name, sizes: match[2]?.split(",").map(Number) ?? [], depth: match[3].length / 2 };
}

function castTo(type: Type, to: string, sizes: readonly number[]): Work | undefined {
  if (to === "text") return textFrom(type);
  const from = type.name;
  const isOpen = ["text", "literal", "any", "null"].includes(from);
  if (isNumeric(to)) return isOpen || isNumeric(from) || from === "boolean" ? [steps[to], ...sizeWork(to, sizes)] : undefined;
  if (isOpen || (isNumeric(from) && to === "boolean")) return fromText(typeOf(to));
  const isMoment = from === "timestamp" ? ["date", "time"].includes(to) : from === "date" && to === "timestamp";
  return isMoment ? moment(to, from) : from === to ? [] : undefined;
}

/** A decimal has so many digits, so many of them after the point: 18 and 3 unless said otherwise. */
const sizeWork = (type: string, [size = 18, scale]: readonly number[]): readonly Step[] =>
  type === "decimal" ? [fitted("error", scale ?? (size === 18 ? 3 : 0), size)] : [];

/** Whether lists and the items that go with them have a type together. */
function itemsFit(row: FunctionRow, types: readonly Type[]): boolean {
  const mixed = types.flatMap(({ plain }, i) => {
    const { type: wanted } = parameterAt(row, i);
    if (wanted === "anylist" && plain.item) return [plain.item];
    return wanted === "item.list" ? [plain] : [];
  });
  return mixed.length < 2 || unify(mixed) !== undefined;
}

/** The rules of values in DuckDB. */
export const typeRules: TypeRules = {
  // A constant that does not convert fails on the rows that need it.
  dynamic: true,
  kinds: {
    text: "text",
    tinyint: "whole number",
    utinyint: "whole number",
    smallint: "whole number",
    usmallint: "whole number",
    integer: "whole number",
    uinteger: "whole number",
    double: "double",
  },
  nullFirst: true,
  // It becomes what is wanted, as a literal does, or anything where it was to be the item of a list.
  typeOfNothing: ({ name }, { result }) => (result === "item" ? typeOf("null") : name === "text" ? typeOf("literal") : undefined),
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return textType;
    if (present.every((value) => typeof value === "boolean")) return typeOf("boolean");
    if (!present.every((value) => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal))
      return textType;
    if (!present.every(isWholeNumber)) return decimalOf(mostDecimals(present));
    const isSmall = present.every((value) => !isFailure(inRange("integer", BigInt(value as number))));
    return typeOf(isSmall ? "integer" : "bigint");
  },
  readColumn({ name, scale = 0 }, value) {
    if (name === "text") return toText(value);
    return name === "decimal" && typeof value === "number" ? scaled(Decimal.of(value), scale) : value;
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
    if (types.some(({ name }, i) => name === "boolean" && isInteger(parameterAt(row, i).type))) return "argument-type";
    return row.family === "list" && !itemsFit(row, types) ? "argument-type" : undefined;
  },
  resultType: ({ result }, types, constant) => results[result]?.(types, constant) ?? typeOf(result),
  dates: "date",
  cast(from, to) {
    const isTry = to.startsWith("try ");
    const named = typeNamed(isTry ? to.slice(4) : to);
    if (!named) return undefined;
    const { name, sizes, depth } = named;
    const isDecimal = name === "decimal" && depth === 0;
    const target = isDecimal
      ? decimalOf(sizes[1] ?? (sizes.length === 0 ? 3 : 0), sizes[0] ?? 18)
      : Array.from({ length: depth }).reduce<Type>((item) => Type.list(item), typeOf(name));
    if (target === from.plain && isCollated(from)) return { type: from, convert: [] };
    let convert: Work | undefined;
    if (depth === 0) convert = castTo(from, name, sizes);
    else if (from.name === "text" || from.name === "literal") convert = listFromText(target.item!);
    else if (from.plain.item && depth === 1) {
      const item = castTo(from.plain.item, name, sizes);
      convert = item && { each: item };
    } else if (from.name === "null" || from.plain === target) convert = [];
    if (!convert) return undefined;
    return { type: target, convert, ...(isTry && { tries: true as const }) };
  },
  unify,
  // A whole number that is written takes the type of those beside it, where it fits.
  numberBeside(value, own, others) {
    const known = others.map(({ plain }) => plain).filter(({ name }) => name !== "null");
    if (known.length === 0 || !known.every(({ name }) => isInteger(name))) return own;
    const type = unify(known)!;
    return isFailure(inRange(type.name, BigInt(value))) ? own : type;
  },
  togetherType(types, form) {
    if (form !== "between") return undefined;
    const common = unify(types);
    return common && !common.item && common.name !== "text" ? typeOf(`side.${common.name}`) : undefined;
  },
  lambdaTypes(parameter, list) {
    const { item } = list;
    if (item === undefined || item.name === "null") return undefined;
    return parameter === "reducer" ? [anyType, item, typeOf("bigint")] : [item, typeOf("bigint")];
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
  fits: ({ name }) => (name in ranges ? steps[name as Integer] : undefined),
  items: (value) => (value === null ? [] : (value as readonly Value[])),
  sequence: (items) => items,
};
