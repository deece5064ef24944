import { type Stepped, codedRows, steppedRows } from "../shared/coded.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows } from "../shared/math.ts";
import { roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import type { AnswerOf } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";
import { step } from "../step.ts";

const iso = (section: string) => `ISO/IEC 9075-2:2023, ${section}`;
const characters = iso("6.34 <character value function>");
const lengths = iso("6.30 <numeric value function>");

const missing = "null" as const;
const truth = "true or false" as const;
const sliced = {
  missing,
  unit: "code point",
  first: "1",
  from: "start",
  third: "length",
  startBelow: "window",
  negativeLength: "error",
  startBeyond: "empty",
  fraction: "refused",
} as const;
const trimmed = { missing, inner: "kept", characters: "space", removed: "each" } as const;
const recased = { missing, mapping: "full", words: "space", restOfWord: "lowered" } as const;
const padded = {
  missing,
  unit: "code point",
  negativeCount: "error",
  longer: "cut",
  emptyFill: "whole",
  tooLong: "error",
} as const;
const signs = { missing, numbers: "exact", signKind: "the number's" } as const;
const matching = { missing, pattern: "xpath", case: "minded" } as const;

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
const text: FunctionRow[] = [
  { name: "substring", family: "extract", summary: "A number of characters from a position: SUBSTRING(s FROM p FOR n).", parameters: params("text text, start count, count? count > length"), result: "text", operation: "slice", answers: sliced, evidence: characters },
  { name: "substring octets", family: "extract", summary: "A number of octets from a position: SUBSTRING(s FROM p FOR n USING OCTETS).", parameters: params("text text, start count, count? count > length"), result: "text", operation: "slice", answers: { ...sliced, unit: "utf-8 byte" }, notation: "operator", evidence: characters },
  { name: "substring similar", family: "extract", summary: "The part of a text that an SQL regular expression marks.", parameters: params("text text, pattern text > needle, escape text > flags"), result: "text", operation: "find", answers: { missing, pattern: "similar", case: "minded", report: "text", group: "first group", absent: "null" }, notation: "operator", evidence: characters },
  { name: "substring_regex", family: "extract", summary: "The nth match of an XQuery pattern, or one of its groups: SUBSTRING_REGEX(p IN s).", parameters: params("text text, pattern text > needle, flags text, start count, n count, group count"), result: "text", operation: "find", answers: { ...matching, report: "text", group: "match", absent: "null" }, evidence: characters },
  { name: "position", family: "locate", summary: "The position of a text, 0 when absent: POSITION(a IN s).", parameters: params("text text, needle text"), result: "integer", operation: "locate", answers: { missing, unit: "code point", first: "1", pattern: "literal", case: "minded", absent: "zero", startBelow: "error", emptyNeedle: "at the start", fraction: "refused" }, evidence: lengths },
  { name: "position_regex", family: "locate", summary: "The position of the nth match of an XQuery pattern, 0 when absent: POSITION_REGEX(p IN s).", parameters: params("text text, pattern text > needle, flags text, start count, n count, group count, side count"), result: "integer", operation: "find", answers: { ...matching, report: "position", group: "match", absent: "zero" }, evidence: lengths },
  { name: "occurrences_regex", family: "locate", summary: "How often an XQuery pattern matches: OCCURRENCES_REGEX(p IN s).", parameters: params("text text, pattern text > needle, flags text, start count"), result: "integer", operation: "find", answers: { ...matching, report: "count", group: "match", absent: "zero" }, evidence: lengths },
  { name: "like", family: "locate", summary: "Whether the whole text fits a pattern of % and _.", parameters: params("text text, pattern text > needle"), result: "boolean", operation: "test", answers: { missing, pattern: "like, escape strict", where: "whole", truth, case: "minded" }, fixed: { flags: "" }, notation: "operator", evidence: iso("8.5 <like predicate>") },
  { name: "like", family: "locate", summary: "Whether the whole text fits a pattern of % and _, with an escape character.", parameters: params("text text, pattern text > needle, escape escape > flags"), result: "boolean", operation: "test", answers: { missing, pattern: "like, escape strict", where: "whole", truth, case: "minded" }, notation: "operator", evidence: iso("8.5 <like predicate>") },
  { name: "similar to", family: "locate", summary: "Whether the whole text fits an SQL regular expression.", parameters: params("text text, pattern text > needle"), result: "boolean", operation: "test", answers: { missing, pattern: "similar", where: "whole", truth, case: "minded" }, fixed: { flags: "" }, notation: "operator", evidence: iso("8.6 <similar predicate>") },
  { name: "similar to", family: "locate", summary: "Whether the whole text fits an SQL regular expression, with an escape character.", parameters: params("text text, pattern text > needle, escape escape > flags"), result: "boolean", operation: "test", answers: { missing, pattern: "similar", where: "whole", truth, case: "minded" }, notation: "operator", evidence: iso("8.6 <similar predicate>") },
  { name: "like_regex", family: "locate", summary: "Whether an XQuery pattern matches.", parameters: params("text text, pattern text > needle, flags? text"), result: "boolean", operation: "test", answers: { ...matching, where: "anywhere", truth }, notation: "operator", evidence: iso("8.7 <regex like predicate>") },
  { name: "overlay", family: "substitute", summary: "Replaces a number of characters from a position: OVERLAY(s PLACING r FROM p FOR n).", parameters: params("text text, new text, start count, count? count > length"), result: "text", operation: "replace-span", answers: { missing, unit: "code point", first: "1", startBelow: "error", spanBeyond: "added", negativeSpan: "repeated", farEnd: "taken", fraction: "refused" }, evidence: characters },
  { name: "translate_regex", family: "substitute", summary: "Replaces matches of an XQuery pattern: TRANSLATE_REGEX(p IN s WITH r).", parameters: params("text text, pattern text > old, replacement text > new, flags text, start count, occurrence? count > which"), result: "text", operation: "substitute", answers: { ...matching, occurrences: "all", replacement: "dollar", emptyMatch: "error", emptyOld: "null" }, evidence: characters },
  { name: "upper", family: "recase", summary: "All letters in upper case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "upper" }, evidence: characters },
  { name: "lower", family: "recase", summary: "All letters in lower case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "lower" }, evidence: characters },
  { name: "normalize", family: "recase", summary: "A Unicode normal form.", parameters: params("text text, form? text"), result: "text", operation: "normalize", answers: { missing, asked: "text" }, evidence: characters },
  { name: "is normalized", family: "measure-test", summary: "Whether a text is in a normal form.", parameters: params("text text, form text"), result: "boolean", operation: "normalize", answers: { missing, asked: "whether" }, notation: "operator", evidence: iso("8.12 <normalized predicate>") },
  ...([["trim", "both", "at both ends"], ["trim leading", "start", "at the start"], ["trim trailing", "end", "at the end"]] as const).map(([name, ends, where]): FunctionRow => ({ name, family: "trim", summary: `Without a character ${where}, a space unless one is given.`, parameters: params("text text, character? character > characters"), result: "text", operation: "trim", answers: { ...trimmed, ends }, ...(name !== "trim" && { notation: "operator" }), evidence: characters })),
  ...([["btrim", "both", "at both ends"], ["ltrim", "start", "at the start"], ["rtrim", "end", "at the end"]] as const).map(([name, ends, where]): FunctionRow => ({ name, family: "trim", summary: `Without given characters ${where}.`, parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends }, evidence: characters })),
  { name: "lpad", family: "pad", summary: "Filled up at the start, or cut at the end.", parameters: params("text text, length count, fill? text"), result: "text", operation: "pad", answers: { ...padded, side: "left" }, evidence: characters },
  { name: "rpad", family: "pad", summary: "Filled up at the end, or cut there.", parameters: params("text text, length count, fill? text"), result: "text", operation: "pad", answers: { ...padded, side: "right" }, evidence: characters },
  { name: "char_length", aliases: ["character_length"], family: "measure-test", summary: "The number of characters.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "code point" }, evidence: lengths },
  { name: "octet_length", family: "measure-test", summary: "The number of octets.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: lengths },
  { name: "||", family: "split-join", summary: "Joins two texts; null with anything is null.", parameters: params("left text > items, right text > items"), result: "text", operation: "join", answers: { missing, missingItem: "null", emptyItem: "kept" }, notation: "operator", evidence: iso("6.32 <string value expression>") },
];

const kinds = ["text", "boolean", "integer", "decimal", "double", "date"];

// prettier-ignore
const operators = (padding: AnswerOf<"padding">): FunctionRow[] => [
  ...relationsWith("is distinct from").flatMap((relation) =>
    kinds.map((type) =>
      comparisonRow(relation, {
        left: type,
        right: type,
        result: "boolean",
        answers: { missing, case: "minded", padding, mixed: "error", notANumber: "there is none", truth },
        evidence: iso(relation === "is distinct from" ? "8.15 <distinct predicate>" : "8.2 <comparison predicate>"),
      }),
    ),
  ),
  ...["+", "-", "*", "/", "mod"].flatMap((sign) =>
    (sign === "mod" ? ["integer", "decimal"] : ["integer", "decimal", "double"]).map((type): FunctionRow => ({
      name: sign,
      family: "convert",
      summary: "Arithmetic on two numbers.",
      parameters: params(`left ${type} > a, right ${type} > b`),
      result: type,
      operation: "calculate",
      answers: { missing, numbers: "exact", quotient: "integer", quotientDigits: "sixteen significant ones", byZero: "error", doubleByZero: "error", overflow: "error", remainder: "of fractions", remainderSign: "of what is divided", tooSmall: "error" },
      fixed: { sign },
      ...(sign !== "mod" && { notation: "operator" }),
      evidence: iso(sign === "mod" ? "6.30 <modulus expression>" : "6.29 <numeric value expression>"),
    })),
  ),
];

// prettier-ignore
const coded = codedRows(
  [
    ["log", "convert", "The logarithm to a base.", "base double, number double", "double", "6.30 <general logarithm function>"],
    ["power", "convert", "A power.", "base double, exponent double", "double", "6.30 <power function>"],
    ["extract", "convert", "A field of a date.", "field text, date date", "integer", "6.30 <extract expression>"],
  ], iso,
);

const extremes = (padding: AnswerOf<"padding">): FunctionRow[] =>
  steppedRows(
    kinds.flatMap((type) =>
      (["greatest", "least"] as const).map((wanted): Stepped => {
        const ordering = { case: "minded", padding, mixed: "error", notANumber: "there is none" } as const;
        const extreme = step("extreme", { missingValue: "null", amongEqual: "first", ...ordering }, { wanted });
        const summary = `The ${wanted === "greatest" ? "largest" : "smallest"} value; null if one is null.`;
        return [wanted, "logic", summary, `values* ${type}`, type, "6.36 <greatest or least function>", extreme];
      }),
    ),
    iso,
  );

/** The functions and operators of SQL:2023, texts compared with this padding. */
export const sqlRows = (padding: AnswerOf<"padding">): readonly FunctionRow[] => [
  ...text,
  ...operators(padding),
  ...extremes(padding),
  ...logicRows({
    truth: "true or false",
    result: "boolean",
    condition: "condition",
    evaluates: "left first",
    hasUnknown: true,
    evidence: [iso("6.39 <boolean value expression>"), iso("8.8 <null predicate>"), iso("6.39 <boolean test>")],
  }),
  ...mathRows({
    names: "acos asin atan cos cosh exp ln log10 sin sinh sqrt tan tanh",
    type: "double",
    result: "double",
    answers: {
      missing: "null",
      numbers: "exact",
      outside: "error",
      overflow: "error",
      tooSmall: "zero",
      closeness: "the host's",
    },
    evidence: iso("6.30 <numeric value function>"),
  }),
  ...["integer", "decimal", "double"].flatMap((type) => [
    ...itselfRows(["+"], {
      type,
      summary: "The number itself.",
      result: type,
      notation: "operator",
      evidence: iso("6.29 <factor>"),
    }),
    ...signedRows({ "-": "opposite" }, { type, answers: signs, evidence: iso("6.29 <factor>") }),
    ...signedRows({ abs: "size" }, { type, answers: signs, evidence: lengths }),
    ...roundRows(
      { ceiling: "up", ceil: "up", floor: "down" },
      { type, answers: { missing, numbers: "exact" }, evidence: lengths },
    ),
  ]),
  ...coded,
  ...aggregates,
];
