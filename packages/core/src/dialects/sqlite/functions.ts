import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { decidingRows, presentRows } from "../shared/deciding.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import { type FunctionRow, params } from "../row.ts";
import { collations } from "./coercions.ts";

const doc = "SQLite 3.54.1, Built-In Scalar SQL Functions";
const operatorDoc = "SQLite 3.54.1, SQL Language Expressions";
const mathDoc = "SQLite 3.54.1, Built-In Mathematical SQL Functions";
const dateDoc = "SQLite 3.54.1, Date And Time Functions";

const missing = "null" as const;
const math = {
  result: "none",
  answers: { missing, numbers: "exact", outside: "null", overflow: "infinity", tooSmall: "zero", closeness: "the host's" },
  evidence: mathDoc,
} as const;
const signs = { missing, numbers: "exact", signKind: "whole" } as const;
export const sliced = {
  missing,
  unit: "code point",
  first: "1",
  from: "start",
  third: "length",
  startBelow: "from the end",
  negativeLength: "before",
  startBeyond: "empty",
  fraction: "truncated",
} as const;
const trimmed = { missing, inner: "kept", characters: "space", removed: "each" } as const;
const joined = { missing, missingItem: "empty", emptyItem: "kept" } as const;
const recased = { missing, mapping: "ascii", words: "space", restOfWord: "lowered" } as const;
const liked = { missing, pattern: "like, escape open", where: "whole", truth: "1 or 0", case: "ignored in ascii" } as const;
const globbed = { missing, pattern: "glob", where: "whole", truth: "1 or 0", case: "minded" } as const;

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
const text: FunctionRow[] = [
  { name: "substr", aliases: ["substring"], family: "extract", summary: "Characters from a position, from the end when negative.", parameters: params("text clipped, start position, count? position > length"), result: "none", operation: "slice", answers: sliced, evidence: doc },
  { name: "instr", family: "locate", summary: "The position of a text, 0 when absent.", parameters: params("text text, needle text"), result: "none", operation: "locate", answers: { missing, unit: "code point", first: "1", pattern: "literal", case: "minded", absent: "zero", startBelow: "error", emptyNeedle: "at the start", fraction: "truncated" }, evidence: doc },
  { name: "like", family: "locate", summary: "Whether the whole text fits a pattern of % and _, ignoring the case of A to Z.", parameters: params("text clipped, pattern clipped > needle, escape? escape > flags"), result: "none", operation: "test", answers: liked, notation: "operator", evidence: operatorDoc },
  { name: "like", family: "locate", summary: "The operator LIKE with the pattern first.", parameters: params("pattern text > needle, text text, escape? escape > flags"), result: "none", operation: "test", answers: liked, evidence: doc },
  { name: "glob", family: "locate", summary: "Whether the whole text fits a pattern of *, ? and [...].", parameters: params("text clipped, pattern clipped > needle"), result: "none", operation: "test", answers: globbed, notation: "operator", evidence: operatorDoc },
  { name: "glob", family: "locate", summary: "The operator GLOB with the pattern first.", parameters: params("pattern text > needle, text text"), result: "none", operation: "test", answers: globbed, evidence: doc },
  { name: "replace", family: "substitute", summary: "Replaces a text everywhere.", parameters: params("text text, old text, new text"), result: "none", operation: "substitute", answers: { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal", emptyMatch: "allowed", emptyOld: "whole" }, evidence: doc },
  { name: "upper", family: "recase", summary: "The letters a to z in upper case.", parameters: params("text text"), result: "none", operation: "recase", answers: { ...recased, form: "upper" }, evidence: doc },
  { name: "lower", family: "recase", summary: "The letters A to Z in lower case.", parameters: params("text text"), result: "none", operation: "recase", answers: { ...recased, form: "lower" }, evidence: doc },
  { name: "trim", family: "trim", summary: "Without given characters at both ends.", parameters: params("text text, characters? text"), result: "none", operation: "trim", answers: { ...trimmed, ends: "both" }, evidence: doc },
  { name: "ltrim", family: "trim", summary: "Without given characters at the start.", parameters: params("text text, characters? text"), result: "none", operation: "trim", answers: { ...trimmed, ends: "start" }, evidence: doc },
  { name: "rtrim", family: "trim", summary: "Without given characters at the end.", parameters: params("text text, characters? text"), result: "none", operation: "trim", answers: { ...trimmed, ends: "end" }, evidence: doc },
  { name: "length", family: "measure-test", summary: "The number of characters, up to a NUL.", parameters: params("text clipped"), result: "none", operation: "measure", answers: { missing, counted: "code point" }, evidence: doc },
  { name: "length", family: "measure-test", summary: "The number of bytes of a blob.", parameters: params("bytes blob > text"), result: "none", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: doc },
  { name: "octet_length", family: "measure-test", summary: "The number of bytes.", parameters: params("text text"), result: "none", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: doc },
  { name: "unicode", family: "measure-test", summary: "The code point of the first character.", parameters: params("text clipped"), result: "none", operation: "code-of", answers: { missing, alphabet: "unicode", ofEmpty: "null" }, evidence: doc },
  { name: "concat", family: "split-join", summary: "Joins values, null like empty text.", parameters: params("values* text > items"), result: "none", operation: "join", answers: joined, evidence: doc },
  { name: "concat_ws", family: "split-join", summary: "Joins values with a separator, skipping null.", parameters: params("separator text, values* text > items"), result: "none", operation: "join", answers: { ...joined, missingItem: "skipped" }, evidence: doc },
  { name: "||", family: "split-join", summary: "Joins two values; null with anything is null.", parameters: params("left text > items, right text > items"), result: "none", operation: "join", answers: { ...joined, missingItem: "null" }, notation: "operator", evidence: operatorDoc },
];

const sides = [
  ["numeric_side", "as_numeric"],
  ["as_numeric", "numeric_side"],
  ["text_side", "as_text"],
  ["as_text", "text_side"],
  ["any_side", "any_side"],
];

/** Comparisons by affinity and collation, and arithmetic. */
// prettier-ignore
const operators: FunctionRow[] = [
  ...relationsWith("is").flatMap((relation) =>
    Object.entries(collations).flatMap(([name, collation]) =>
      sides.map(([left, right]) =>
        comparisonRow(relation, {
          collations: [name],
          left,
          right,
          result: "none",
          answers: { missing, ...collation, mixed: "by kind", notANumber: "there is none", truth: "1 or 0" },
          evidence: operatorDoc,
        }),
      ),
    ),
  ),
  ...[["+", "number"], ["-", "number"], ["*", "number"], ["/", "number"], ["%", "divided"]].map(([sign, type]): FunctionRow => ({
    name: sign,
    family: "convert",
    summary: "Arithmetic on two numbers; a text counts as the number that it begins with.",
    parameters: params(`left ${type} > a, right ${type} > b`),
    result: "none",
    operation: "calculate",
    answers: { missing, numbers: "exact", quotient: "integer", quotientDigits: "twenty decimals", byZero: "null", doubleByZero: "null", overflow: "infinity", remainder: "of whole parts", remainderSign: "of what is divided", tooSmall: "zero" },
    fixed: { sign: sign === "%" ? "mod" : sign },
    notation: "operator",
    evidence: operatorDoc,
  })),
];

type Coded = readonly [
  name: string,
  family: FunctionRow["family"],
  summary: string,
  parameters: string,
  evidence: string,
  result?: string,
  code?: string,
];

// prettier-ignore
const coded = (
  [
    ["char", "convert", "The characters of code points.", "codes?* any", doc],
    ["substr", "convert", "Bytes of a blob from a position.", "bytes blob, start integer, count? integer", doc, "blob", "byte slice"],
    ["instr", "convert", "The position of bytes in a blob.", "bytes blob, needle blob", doc, "none", "byte position"],
    ["hex", "convert", "The UTF-8 bytes in base 16.", "value any", doc],
    ["unhex", "convert", "Bytes from base 16; null for anything else.", "text text, ignored? text", doc, "blob"],
    ["quote", "convert", "The value as an SQL literal.", "value any", doc],
    ["unistr", "convert", "Reads Unicode escapes.", "text text", doc],
    ["unistr_quote", "convert", "The value as an SQL literal, control characters escaped.", "value any", doc],
    ["printf", "split-join", "Fills the directives of a format.", "format? any, values?* any", doc],
    ["format", "split-join", "Fills the directives of a format.", "format? any, values?* any", doc, "none", "printf"],
    ["typeof", "convert", "The kind of a value.", "value any", doc],
    ["zeroblob", "convert", "A blob of zeros.", "length integer", doc, "blob"],
    ["abs", "convert", "The number without its sign.", "number any", doc],
    ["round", "convert", "Rounded to a number of decimals, always a real.", "number real, digits? integer", doc],
    ["likelihood", "logic", "The value itself.", "value any, probability any", doc, "same collation"],
    ["log", "convert", "The logarithm, to base 10 unless one is given.", "number any, argument? any", mathDoc],
    ["mod", "convert", "What is left of a quotient.", "number any, divisor any", mathDoc],
    ["pow", "convert", "A power.", "base any, exponent any", mathDoc],
    ["power", "convert", "A power.", "base any, exponent any", mathDoc, "none", "pow"],
    ["date", "convert", "A date as YYYY-MM-DD.", "value?* any", dateDoc],
    ["time", "convert", "A time of day as HH:MM:SS.", "value?* any", dateDoc],
    ["datetime", "convert", "A date and time as YYYY-MM-DD HH:MM:SS.", "value?* any", dateDoc],
    ["julianday", "convert", "The Julian day number.", "value?* any", dateDoc],
    ["unixepoch", "convert", "Seconds since 1970.", "value?* any", dateDoc],
    ["strftime", "convert", "A date in a format.", "format any, value?* any", dateDoc],
    ["timediff", "convert", "The time between two dates.", "left any, right any", dateDoc],
  ] satisfies Coded[]
).map(
  ([name, family, summary, form, evidence, result = "none", code]: Coded): FunctionRow => ({
    name,
    family,
    summary,
    parameters: params(form),
    result,
    code: code ?? name,
    ...(/^[a-z_0-9]+$/.test(name) ? {} : { notation: "operator" as const }),
    evidence,
  }),
);

/** The functions and operators of SQLite 3.54. */
export const sqliteRows: readonly FunctionRow[] = [
  ...text,
  ...operators,
  ...logicRows({
    truth: "1 or 0",
    result: "none",
    condition: "condition",
    evaluates: "both",
    constants: "whole numbers",
    evidence: [operatorDoc, operatorDoc, operatorDoc],
  }),
  ...mathRows({
    names: "acos acosh asin asinh atan atan2 atanh cos cosh degrees exp ln log10 log2 radians sin sinh sqrt tan tanh",
    type: "numeral",
    ...math,
  }),
  piRow("pi", math),
  ...presentRows({ result: "none", evidence: doc }, ["ifnull"], "first any, values* any"),
  ...decidingRows(
    { result: "none", evidence: doc },
    ["iif", "if"].map((name) => [
      name,
      "The value after the first condition that holds.",
      "condition any, result any, more?* any",
      { decides: "first that holds", none: "null" },
    ]),
  ),
  // A function: no side takes the affinity of the other.
  ...Object.entries(collations).map(([name, collation]): FunctionRow => ({
    collations: [name],
    name: "nullif",
    family: "logic",
    summary: "Null where two values are equal, otherwise the first.",
    parameters: params("value any > a, other any > b"),
    result: "none",
    operation: "unless-same",
    answers: { ...collation, mixed: "by kind", notANumber: "there is none" },
    evidence: doc,
  })),
  // Of equal values min gives the last, max the first.
  ...Object.entries(collations).flatMap(([name, collation]) =>
    (["greatest", "least"] as const).map((wanted): FunctionRow => ({
      collations: [name],
      name: wanted === "greatest" ? "max" : "min",
      family: "logic",
      summary: `The ${wanted === "greatest" ? "largest" : "smallest"} value; null if one is null.`,
      parameters: params("first any > values, others* any > values"),
      result: "none",
      operation: "extreme",
      answers: {
        missingValue: "null",
        amongEqual: wanted === "greatest" ? "first" : "last",
        ...collation,
        mixed: "by kind",
        notANumber: "there is none",
      },
      fixed: { wanted },
      evidence: doc,
    })),
  ),
  ...signedRows({ sign: "sign" }, { type: "numeral", result: "none", answers: signs, evidence: doc }),
  ...signedRows({ "-": "opposite" }, { type: "number", result: "none", answers: signs, evidence: operatorDoc }),
  ...roundRows(
    { ceil: "up", ceiling: "up", floor: "down", trunc: "toward zero" },
    { type: "numeral", result: "none", answers: { missing, numbers: "exact" }, evidence: mathDoc },
  ),
  ...bitRows(
    { "~": "not", "&": "and", "|": "or", "<<": "left", ">>": "right" },
    {
      type: "integer",
      result: "none",
      answers: { missing, range: "64 bits", placesBelow: "the other way", placesBeyond: "filled" },
      evidence: operatorDoc,
    },
  ),
  ...itselfRows(["likely", "unlikely"], { summary: "The value itself.", result: "same collation", evidence: doc }),
  ...itselfRows(["+"], {
    summary: "The value itself, without its affinity.",
    result: "same collation",
    notation: "operator",
    evidence: operatorDoc,
  }),
  ...Object.keys(collations).flatMap((name) =>
    itselfRows([`collate ${name}`], {
      summary: "The value, compared in a collation.",
      result: `collated ${name}`,
      notation: "operator",
      evidence: operatorDoc,
    }),
  ),
  ...coded,
  ...aggregates,
];
