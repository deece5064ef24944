import { type Coded, type Stepped, codedRows, steppedRows } from "../shared/coded.ts";
import { step } from "../step.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import { type Refused, refusing } from "../refusals.ts";
import { type FunctionRow, params } from "../row.ts";
import { collations } from "./lexis.ts";

const doc = (section: string) => `PostgreSQL 15 documentation, ${section}`;
const strings = doc("9.4");
const patterns = doc("9.7");
const numbers = doc("9.3");

const missing = "null" as const;
const exact = { missing, numbers: "exact" } as const;
const signs = { ...exact, signKind: "the number's" } as const;
const ranges = { smallint: "16 bits", integer: "32 bits", bigint: "64 bits" } as const;
export const sliced = {
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
export const located = {
  missing,
  unit: "code point",
  first: "1",
  pattern: "literal",
  case: "minded",
  absent: "zero",
  startBelow: "error",
  emptyNeedle: "at the start",
  fraction: "refused",
} as const;
export const spanned = {
  missing,
  unit: "code point",
  first: "1",
  startBelow: "error",
  spanBeyond: "added",
  negativeSpan: "repeated",
  farEnd: "error",
  fraction: "refused",
} as const;
export const trimmed = { missing, inner: "kept", characters: "space", removed: "each" } as const;
const matching = { missing, pattern: "posix", case: "minded" } as const;
const found = { ...matching, group: "match", absent: "null" } as const;
export const calculated = {
  missing,
  numbers: "exact",
  quotient: "integer",
  quotientDigits: "sixteen significant ones",
  byZero: "error",
  doubleByZero: "error",
  overflow: "error",
  tooSmall: "error",
  remainder: "of fractions",
  remainderSign: "of what is divided",
} as const;
const replacing = {
  ...matching,
  occurrences: "first",
  replacement: "backslash",
  emptyMatch: "allowed",
  emptyOld: "null",
} as const;
const literalSplit = {
  missing,
  pattern: "literal",
  case: "minded",
  emptyDelimiter: "whole",
  delimiterIs: "one text",
  emptyText: "nothing",
  edges: "pieces",
  emptyMatch: "allowed",
  missingDelimiter: "characters",
} as const;
const patternSplit = { ...literalSplit, pattern: "posix", emptyText: "one piece", missingDelimiter: "null" } as const;
const joined = { missing, missingItem: "skipped", emptyItem: "kept" } as const;

/** What changes the case of letters; `mapping` is the C library's. */
// prettier-ignore
const recasing = (mapping: "simple" | "simple, capital ß" | "ascii", type = "text"): FunctionRow[] => {
  const recased = { missing, mapping, words: type === "text" ? "not alphanumeric" : "not ascii alphanumeric", restOfWord: "lowered" } as const;
  return [
    { name: "upper", family: "recase", summary: "All letters in upper case.", parameters: params(`text ${type}`), result: type, operation: "recase", answers: { ...recased, form: "upper" }, evidence: strings },
    { name: "lower", family: "recase", summary: "All letters in lower case.", parameters: params(`text ${type}`), result: type, operation: "recase", answers: { ...recased, form: "lower" }, evidence: strings },
    { name: "initcap", family: "recase", summary: "Each word with an upper case start.", parameters: params(`text ${type}`), result: type, operation: "recase", answers: { ...recased, form: "title" }, evidence: strings },
  ];
};

/** ILIKE where one of the texts has the collation C. */
const ilikeInC = ["text text_c, pattern text > needle", "text text, pattern text_c > needle"].map((form): FunctionRow => ({
  name: "ilike",
  family: "locate",
  summary: "LIKE, ignoring the case of ASCII letters.",
  parameters: params(`${form}, escape? escape > flags`),
  result: "boolean",
  operation: "test",
  answers: { missing, pattern: "like", where: "whole", truth: "true or false", case: "ignored in ascii" },
  notation: "operator",
  evidence: doc("24.2.2"),
}));

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
const text: FunctionRow[] = [
  { name: "substring", aliases: ["substr"], family: "extract", summary: "A number of characters from a position.", parameters: params("text text, start integer, count? integer > length"), result: "text", operation: "slice", answers: sliced, evidence: strings },
  { name: "left", family: "extract", summary: "The first n characters, or all but the last -n.", parameters: params("text text, count integer > length"), result: "text", operation: "slice", answers: { ...sliced, negativeLength: "all but" }, fixed: { start: 1 }, evidence: strings },
  { name: "right", family: "extract", summary: "The last n characters, or all but the first -n.", parameters: params("text text, count integer > length"), result: "text", operation: "slice", answers: { ...sliced, negativeLength: "all but", from: "end" }, fixed: { start: 1 }, evidence: strings },
  { name: "split_part", family: "extract", summary: "The nth piece between delimiters, from the end when negative.", parameters: params("text text, delimiter text, n integer"), result: "text", operation: "segment", answers: { missing, part: "nth", zeroPiece: "error", noPiece: "empty", absent: "whole", emptyNeedle: "nowhere", case: "minded" }, evidence: strings },
  { name: "reverse", family: "extract", summary: "The characters in reverse order.", parameters: params("text text"), result: "text", operation: "reverse", answers: { missing, unit: "code point" }, evidence: strings },
  { name: "strpos", aliases: ["position"], family: "locate", summary: "The position of a text, 0 when absent.", parameters: params("text text, needle text"), result: "integer", operation: "locate", answers: located, evidence: strings },
  { name: "starts_with", family: "locate", summary: "Whether a text starts with another.", parameters: params("text text, start text > needle"), result: "boolean", operation: "test", answers: { missing, pattern: "literal", case: "minded", where: "start", truth: "true or false" }, evidence: strings },
  { name: "^@", family: "locate", summary: "Whether a text starts with another.", parameters: params("text text, start text > needle"), result: "boolean", operation: "test", answers: { missing, pattern: "literal", case: "minded", where: "start", truth: "true or false" }, notation: "operator", evidence: strings },
  { name: "like", family: "locate", summary: "Whether the whole text fits a pattern of % and _.", parameters: params("text text, pattern text > needle, escape? escape > flags"), result: "boolean", operation: "test", answers: { missing, pattern: "like", where: "whole", truth: "true or false", case: "minded" }, notation: "operator", evidence: doc("9.7.1") },
  { name: "ilike", family: "locate", summary: "LIKE, ignoring case.", parameters: params("text text, pattern text > needle, escape? escape > flags"), result: "boolean", operation: "test", answers: { missing, pattern: "like", where: "whole", truth: "true or false", case: "lowered" }, notation: "operator", evidence: doc("9.7.1") },
  { name: "substring similar", family: "extract", summary: "The part of a text that an SQL regular expression marks.", parameters: params("text text, pattern text > needle, escape escape > flags"), result: "text", operation: "find", answers: { missing, pattern: "similar", case: "minded", report: "text", group: "first group", absent: "null" }, notation: "operator", evidence: patterns },
  { name: "similar to", family: "locate", summary: "Whether the whole text fits an SQL regular expression.", parameters: params("text text, pattern text > needle, escape? escape > flags"), result: "boolean", operation: "test", answers: { missing, pattern: "similar", where: "whole", truth: "true or false", case: "minded" }, notation: "operator", evidence: doc("9.7.2") },
  { name: "~", family: "locate", summary: "Whether a pattern matches, case minded.", parameters: params("text text, pattern text > needle"), result: "boolean", operation: "test", answers: { ...matching, where: "anywhere", truth: "true or false" }, notation: "operator", evidence: patterns },
  { name: "~*", family: "locate", summary: "Whether a pattern matches, ignoring case.", parameters: params("text text, pattern text > needle"), result: "boolean", operation: "test", answers: { ...matching, case: "ignored", where: "anywhere", truth: "true or false" }, notation: "operator", evidence: patterns },
  { name: "regexp_like", family: "locate", summary: "Whether a pattern matches.", parameters: params("text text, pattern text > needle, flags? text"), result: "boolean", operation: "test", answers: { ...matching, where: "anywhere", truth: "true or false" }, evidence: patterns },
  { name: "regexp_count", family: "locate", summary: "How often a pattern matches.", parameters: params("text text, pattern text > needle, start? integer, flags? text"), result: "integer", operation: "find", answers: { ...found, report: "count", absent: "zero" }, evidence: patterns },
  { name: "regexp_instr", family: "locate", summary: "The position of the nth match of a pattern, 0 when absent.", parameters: params("text text, pattern text > needle, start? integer, n? integer, side? integer, flags? text, group? integer"), result: "integer", operation: "find", answers: { ...found, report: "position", absent: "zero" }, evidence: patterns },
  { name: "regexp_substr", family: "extract", summary: "The nth match of a pattern.", parameters: params("text text, pattern text > needle, start? integer, n? integer, flags? text, group? integer"), result: "text", operation: "find", answers: { ...found, report: "text" }, evidence: patterns },
  { name: "regexp_match", family: "extract", summary: "The groups of the first match, as an array.", parameters: params("text text, pattern text > needle, flags? text"), result: "text[]", operation: "find", answers: { ...found, report: "groups" }, evidence: patterns },
  { name: "substring", family: "extract", summary: "What a pattern, or its first group, matches.", parameters: params("text text, pattern text > needle"), result: "text", operation: "find", answers: { ...found, report: "text", group: "first group" }, evidence: doc("9.7.3") },
  { name: "replace", family: "substitute", summary: "Replaces a text everywhere.", parameters: params("text text, old text, new text"), result: "text", operation: "substitute", answers: { ...replacing, pattern: "literal", occurrences: "all", replacement: "literal" }, evidence: strings },
  { name: "regexp_replace", family: "substitute", summary: "Replaces the first match of a pattern, or all with flag g.", parameters: params("text text, pattern text > old, replacement text > new, flags? text"), result: "text", operation: "substitute", answers: replacing, evidence: patterns },
  { name: "regexp_replace", family: "substitute", summary: "Replaces matches of a pattern from a position on.", parameters: params("text text, pattern text > old, replacement text > new, start integer, n? integer > which, flags? text"), result: "text", operation: "substitute", answers: replacing, evidence: patterns },
  { name: "overlay", family: "substitute", summary: "Replaces a number of characters from a position.", parameters: params("text text, new text, start integer, count? integer > length"), result: "text", operation: "replace-span", answers: spanned, evidence: strings },
  { name: "translate", family: "substitute", summary: "Maps single characters, or drops them.", parameters: params("text text, from text, to text"), result: "text", operation: "translate", answers: { missing, unit: "code point" }, evidence: strings },
  { name: "quote_literal", family: "substitute", summary: "The text as an SQL literal.", parameters: params("text quotable > text"), result: "text", operation: "escape", answers: { missing, scheme: "sql literal" }, evidence: strings },
  { name: "quote_ident", family: "substitute", summary: "The text as an SQL name.", parameters: params("text text"), result: "text", operation: "escape", answers: { missing, scheme: "sql name" }, evidence: strings },
  { name: "normalize", family: "recase", summary: "A Unicode normal form.", parameters: params("text text, form? text"), result: "text", operation: "normalize", answers: { missing, asked: "text" }, evidence: strings },
  { name: "btrim", family: "trim", summary: "Without given characters at both ends.", parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "both" }, evidence: strings },
  { name: "ltrim", family: "trim", summary: "Without given characters at the start.", parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "start" }, evidence: strings },
  { name: "rtrim", family: "trim", summary: "Without given characters at the end.", parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "end" }, evidence: strings },
  { name: "length", aliases: ["char_length", "character_length"], family: "measure-test", summary: "The number of characters.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "code point" }, evidence: strings },
  { name: "octet_length", family: "measure-test", summary: "The number of bytes.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: strings },
  { name: "octet_length", family: "measure-test", summary: "The number of bytes, blanks at the end counted.", parameters: params("text padded"), result: "integer", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: strings },
  { name: "bit_length", family: "measure-test", summary: "The number of bits.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "utf-8 bit" }, evidence: strings },
  { name: "ascii", family: "measure-test", summary: "The code point of the first character.", parameters: params("text text"), result: "integer", operation: "code-of", answers: { missing, alphabet: "unicode", ofEmpty: "zero" }, evidence: strings },
  { name: "chr", family: "measure-test", summary: "The character of a code point.", parameters: params("code integer > number"), result: "text", operation: "char-of", answers: { missing, alphabet: "unicode", fraction: "refused" }, evidence: strings },
  { name: "repeat", family: "pad", summary: "A text several times over.", parameters: params("text text, count integer"), result: "text", operation: "repeat", answers: { missing, negativeCount: "empty", fraction: "refused", tooLong: "error" }, evidence: strings },
  { name: "lpad", family: "pad", summary: "Filled up at the start, or cut at the end.", parameters: params("text text, length integer, fill? text"), result: "text", operation: "pad", answers: { missing, unit: "code point", side: "left", negativeCount: "empty", longer: "cut", emptyFill: "whole", tooLong: "error" }, evidence: strings },
  { name: "rpad", family: "pad", summary: "Filled up at the end, or cut there.", parameters: params("text text, length integer, fill? text"), result: "text", operation: "pad", answers: { missing, unit: "code point", side: "right", negativeCount: "empty", longer: "cut", emptyFill: "whole", tooLong: "error" }, evidence: strings },
  { name: "concat", family: "split-join", summary: "Joins values, skipping null.", parameters: params("values* output > items"), result: "text", operation: "join", answers: joined, evidence: strings },
  { name: "concat_ws", family: "split-join", summary: "Joins values with a separator, skipping null.", parameters: params("separator text, values* output > items"), result: "text", operation: "join", answers: joined, evidence: strings },
  { name: "||", family: "split-join", summary: "Joins two texts; null with anything is null.", parameters: params("left text > items, right nonarray > items"), result: "text", operation: "join", answers: { ...joined, missingItem: "null" }, notation: "operator", evidence: strings },
  { name: "||", family: "split-join", summary: "Joins two texts; null with anything is null.", parameters: params("left nonarray > items, right text > items"), result: "text", operation: "join", answers: { ...joined, missingItem: "null" }, notation: "operator", evidence: strings },
  { name: "array_to_string", family: "split-join", summary: "Joins the items of an array.", parameters: params("list anyarray > items, separator text, forNull? text > forMissing"), result: "text", operation: "join", answers: joined, evidence: doc("9.19") },
  { name: "string_to_array", family: "split-join", summary: "Splits at a delimiter; null splits into characters.", parameters: params("text text, delimiter text, forNull? text > missingPiece"), result: "text[]", operation: "split", answers: literalSplit, evidence: strings },
  { name: "is normalized", family: "measure-test", summary: "Whether a text is in a normal form.", parameters: params("text text, form text"), result: "boolean", operation: "normalize", answers: { missing, asked: "whether" }, notation: "operator", evidence: strings },
  { name: "is_normalized", family: "measure-test", summary: "Whether a text is in a normal form.", parameters: params("text text, form? text"), result: "boolean", operation: "normalize", answers: { missing, asked: "whether" }, evidence: strings },
  { name: "regexp_split_to_array", family: "split-join", summary: "Splits at the matches of a pattern.", parameters: params("text text, pattern text > delimiter, flags? text"), result: "text[]", operation: "split", answers: patternSplit, evidence: patterns },
];

/** Pattern operators on a `char(n)`, whose blanks at the end are then minded. */
const padded: FunctionRow[] = text
  .filter(({ name }) => ["like", "ilike", "similar to", "~", "~*"].includes(name))
  .map((row) => ({ ...row, parameters: row.parameters.map((each, i) => (i === 0 ? { ...each, type: "padded" } : each)) }));

const comparable = [
  "text",
  "bpchar",
  "boolean",
  "integer",
  "bigint",
  "decimal",
  "double",
  "date",
  "timestamp",
  "timestamptz",
  "bytea",
  "anyarray",
];

// prettier-ignore
const operators: FunctionRow[] = [
  ...relationsWith("is distinct from").flatMap((relation) =>
    comparable.map((type) =>
      comparisonRow(relation, {
        left: type,
        right: type,
        result: "boolean",
        answers: { missing, case: "minded", padding: "counted", mixed: "error", notANumber: "above all", truth: "true or false" },
        evidence: doc("9.2"),
      }),
    ),
  ),
  ...["+", "-", "*", "/", "mod", "^"].flatMap((sign) =>
    (sign === "^" ? ["double"] : ["smallint", "integer", "bigint", "decimal", "double"]).filter((type) => sign !== "mod" || type !== "double").map((type): FunctionRow => ({
      name: sign === "mod" ? "%" : sign,
      aliases: sign === "mod" ? ["mod"] : sign === "^" ? ["power", "pow"] : [],
      family: "convert",
      summary: "Arithmetic on two numbers.",
      parameters: params(`left ${type} > a, right ${type} > b`),
      result: type,
      operation: "calculate",
      answers: calculated,
      fixed: { sign },
      notation: "operator",
      evidence: doc("9.3"),
    })),
  ),
];

// prettier-ignore
const coded = codedRows(
  [
    ["concat variadic", "split-join", "Joins the items of an array, skipping null.", "list anyarray", "text", "9.4"],
    ["concat_ws variadic", "split-join", "Joins the items of an array with a separator, skipping null.", "separator text, list anyarray", "text", "9.4"],
    ["format variadic", "split-join", "Fills %s, %I and %L of a format with the items of an array.", "format text, list anyarray", "text", "9.4.1"],
    ["quote_nullable", "convert", "The text as an SQL literal, NULL for null.", "text quotable", "text", "9.4"],
    ["format", "split-join", "Fills %s, %I and %L of a format.", "format text, values?* output", "text", "9.4.1"],
    ["unistr", "convert", "Reads Unicode escapes.", "text text", "text", "9.4"],
    ["length", "convert", "The number of bytes.", "bytes bytea", "integer", "9.5", "bytes length"],
    ["octet_length", "convert", "The number of bytes.", "bytes bytea", "integer", "9.5", "bytes length"],
    ["bit_length", "convert", "The number of bits.", "bytes bytea", "integer", "9.5", "bytes bits"],
    ["length", "convert", "The number of characters that the bytes are in an encoding.", "bytes bytea, encoding text", "integer", "9.5", "bytes length in"],
    ["||", "convert", "Joins bytes.", "left bytea, right bytea", "bytea", "9.5", "bytes joined"],
    ["substring", "convert", "A number of bytes from a position.", "bytes bytea, start integer, count? integer", "bytea", "9.5", "bytes substring"],
    ["substr", "convert", "A number of bytes from a position.", "bytes bytea, start integer, count? integer", "bytea", "9.5", "bytes substring"],
    ["overlay", "convert", "Replaces a number of bytes from a position.", "bytes bytea, new bytea, start integer, count? integer", "bytea", "9.5", "bytes overlay"],
    ["position", "convert", "The position of bytes, 0 when absent.", "bytes bytea, needle bytea", "integer", "9.5", "bytes position"],
    ["btrim", "convert", "Without given bytes at both ends.", "bytes bytea, given bytea", "bytea", "9.5", "bytes btrim"],
    ["ltrim", "convert", "Without given bytes at the start.", "bytes bytea, given bytea", "bytea", "9.5", "bytes ltrim"],
    ["rtrim", "convert", "Without given bytes at the end.", "bytes bytea, given bytea", "bytea", "9.5", "bytes rtrim"],
    ["get_byte", "convert", "The byte at a place counted from 0.", "bytes bytea, place integer", "integer", "9.5"],
    ["set_byte", "convert", "With another byte at a place counted from 0.", "bytes bytea, place integer, value integer", "bytea", "9.5"],
    ["get_bit", "convert", "The bit at a place counted from 0.", "bytes bits, place integer", "integer", "9.5"],
    ["get_bit", "convert", "The bit at a place counted from 0.", "bytes bytea, place bigint", "integer", "9.5"],
    ["set_bit", "convert", "With another bit at a place counted from 0.", "bytes bits, place integer, value integer", "bytea", "9.5"],
    ["set_bit", "convert", "With another bit at a place counted from 0.", "bytes bytea, place bigint, value integer", "bytea", "9.5"],
    ["encode", "convert", "Bytes as text: hex, base64 or escape.", "bytes bytea, format text", "text", "9.5"],
    ["decode", "convert", "The bytes that a text gives: hex, base64 or escape.", "text text, format text", "bytea", "9.5"],
    ["convert_from", "convert", "The text that bytes are in an encoding.", "bytes bytea, encoding text", "text_c", "9.5"],
    ["convert_to", "convert", "The bytes of a text in an encoding.", "text text, encoding text", "bytea", "9.5"],
    ["convert", "convert", "Bytes from one encoding in another.", "bytes bytea, from text, to text", "bytea", "9.5"],
    ["md5", "convert", "The MD5 digest of a text in base 16.", "text text", "text", "9.4"],
    ["md5", "convert", "The MD5 digest of bytes in base 16.", "bytes bytea", "text", "9.5", "bytes md5"],
    ...["sha224", "sha256", "sha384", "sha512"].map((name): Coded => [name, "convert", "A SHA-2 digest.", "bytes bytea", "bytea", "9.5"]),
    ["bit_count", "convert", "How many bits are set.", "bytes bytea", "bigint", "9.5"],
    ...["bigint", "decimal"].map((type): Coded => ["pg_size_pretty", "convert", "A number of bytes in a unit that is easy to read.", `size ${type}`, "text", "9.27.7"]),
    ["pg_size_bytes", "convert", "The number of bytes that a size with its unit is.", "size text", "bigint", "9.27.7"],
    ["text", "convert", "A value as text.", "value any", "text", "4.2.9"],
    ["like_escape", "convert", "A pattern of LIKE whose escape character becomes a backslash.", "pattern text, escape text", "text", "9.7.1"],
    ["make_timestamp", "convert", "A date and time from their parts.", "year integer, month integer, day integer, hour integer, minute integer, second double", "timestamp", "9.9"],
    ...["date", "timestamp", "timestamptz"].map((type): Coded => ["isfinite", "convert", "Whether it is no infinity.", `date ${type}`, "boolean", "9.9"]),
    ["parse_ident", "split-join", "Splits a qualified name.", "name text", "text[]", "9.4"],
    ...["text", "integer", "bigint", "decimal", "double", "boolean"].flatMap((type): Coded[] => [
      ["compare any", "logic", "Whether the comparison holds for an item.", `value ${type}, list ${type}[], relation text`, "boolean", "9.24"],
      ["compare all", "logic", "Whether the comparison holds for every item.", `value ${type}, list ${type}[], relation text`, "boolean", "9.24"],
      ["array_fill", "list", "An array of one item, repeated.", `item ${type}, lengths integer[], starts? integer[]`, `${type}[]`, "9.19"],
    ]),
    ["array_ndims", "list", "The number of dimensions, null for no items.", "list anyarray", "integer", "9.19"],
    ["array_dims", "list", "The bounds as text, null for no items.", "list anyarray", "text", "9.19"],
    ["array_length", "list", "The number of items, null for none.", "list anyarray, dimension integer", "integer", "9.19"],
    ["array_upper", "list", "The last position.", "list anyarray, dimension integer", "integer", "9.19", "array_length"],
    ["array_lower", "list", "The first position.", "list anyarray, dimension integer", "integer", "9.19"],
    ["num_nulls", "logic", "How many values are null.", "values* any", "integer", "9.2"],
    ["num_nonnulls", "logic", "How many values are not null.", "values* any", "integer", "9.2"],
    ...["integer", "bigint", "decimal"].flatMap((type): Coded[] => [
      ["gcd", "convert", "The greatest common divisor.", `left ${type}, right ${type}`, type, "9.3"],
      ["lcm", "convert", "The least common multiple.", `left ${type}, right ${type}`, type, "9.3"],
    ]),
    ["factorial", "convert", "The product of the numbers up to one.", "number bigint", "decimal", "9.3"],
    ["scale", "convert", "The number of decimals.", "number decimal", "integer", "9.3"],
    ["min_scale", "convert", "The number of decimals that are needed.", "number decimal", "integer", "9.3"],
    ["trim_scale", "convert", "Without zeros at the end of the decimals.", "number decimal", "decimal", "9.3"],
    ["div", "convert", "The quotient cut towards zero.", "left decimal, right decimal", "decimal", "9.3"],
    ["sqrt", "convert", "The square root.", "number decimal", "decimal", "9.3", "sqrt decimal"],
    ...["^", "power", "pow"].map((name): Coded => [name, "convert", "A power.", "base decimal, exponent decimal", "decimal", "9.3", "power decimal"]),
    ["exp", "convert", "A power of e.", "exponent decimal", "decimal", "9.3", "exp decimal"],
    ["ln", "convert", "The natural logarithm.", "number decimal", "decimal", "9.3", "ln decimal"],
    ...["log", "log10"].flatMap((name): Coded[] => [
      [name, "convert", "The logarithm to base 10.", "number decimal", "decimal", "9.3", "log decimal"],
    ]),
    ["log", "convert", "The logarithm to a base.", "base decimal, number decimal", "decimal", "9.3", "log base"],
    ["degrees", "convert", "An angle in degrees.", "number double", "double", "9.3"],
    ...["decimal", "double"].map((type): Coded => ["width_bucket", "convert", "How many of the bounds, which are in order, a number has reached.", `number ${type}, bounds ${type}[]`, "integer", "9.3", "width_bucket bounds"]),
    ["width_bucket", "convert", "In which of some equal buckets a number lies.", "number decimal, low decimal, high decimal, count integer", "integer", "9.3"],
    ["width_bucket", "convert", "In which of some equal buckets a number lies.", "number double, low double, high double, count integer", "integer", "9.3", "width_bucket double"],
    ["to_char", "convert", "A date in a format.", "date timestamp, format text", "text", "9.8", "to_char date"],
    ["to_char", "convert", "A date in a format.", "date timestamptz, format text", "text", "9.8", "to_char date"],
    ["to_timestamp", "convert", "A moment read by a format.", "text text, format text", "timestamptz", "9.8"],
    ["to_timestamp", "convert", "The moment so many seconds after the start of 1970.", "seconds double", "timestamptz", "9.9", "to_timestamp seconds"],
    ["date_trunc", "convert", "A moment without what is smaller than a field.", "field text, date timestamp", "timestamp", "9.9"],
    ["date_trunc", "convert", "A moment without what is smaller than a field.", "field text, date timestamptz", "timestamptz", "9.9"],
    ["to_char", "convert", "A number in a format.", "number decimal, format text", "text", "9.8", "to_char number"],
    ["to_char", "convert", "A number in a format.", "number double, format text", "text", "9.8", "to_char number"],
    ["to_date", "convert", "A date read by a format.", "text text, format text", "date", "9.8"],
    ["to_number", "convert", "A number read by a format.", "text text, format text", "decimal", "9.8"],
    ["extract", "convert", "A field of a date.", "field text, date date", "decimal", "9.9", "extract date"],
    ["extract", "convert", "A field of a date.", "field text, date timestamp", "decimal", "9.9"],
    ["extract", "convert", "A field of a date.", "field text, date timestamptz", "decimal", "9.9"],
    ["date_part", "convert", "A field of a date.", "field text, date timestamp", "double", "9.9"],
    ["date_part", "convert", "A field of a date.", "field text, date timestamptz", "double", "9.9"],
    ["make_date", "convert", "A date from its parts.", "year integer, month integer, day integer", "date", "9.9"],
    ["-", "convert", "The days between two dates.", "left date, right date", "integer", "9.9", "days between"],
    ["+", "convert", "A date some days later.", "date date, days integer", "date", "9.9", "add days"],
    ["-", "convert", "A date some days earlier.", "date date, days integer", "date", "9.9", "subtract days"],
  ], doc,
);

/** Functions that stand behind operators and others, by the name of what they do. */
const byOtherName: Readonly<Record<string, string>> = {
  like: "like",
  textlike: "like",
  texticlike: "ilike",
  textregexeq: "~",
  texticregexeq: "~*",
  textcat: "||",
  textlen: "length",
  texteq: "=",
  textne: "<>",
  text_lt: "<",
  text_le: "<=",
  text_gt: ">",
  text_ge: ">=",
};
const named: readonly FunctionRow[] = Object.entries(byOtherName).flatMap(([name, other]) =>
  [...text, ...operators, ...coded]
    .filter(
      (row) =>
        row.name === other && row.parameters[0].type === "text" && /^(?:text|nonarray)$/.test(row.parameters[1]?.type ?? "text"),
    )
    .slice(0, 1)
    .map(({ notation: _, aliases: __, ...row }): FunctionRow => {
      const parameters = row.parameters.slice(0, 2).map((parameter) => ({ ...parameter, type: "text" }));
      return { ...row, name, parameters };
    }),
);

/** The digits of a number in two's complement, of as many bits as its type has. */
const inBase = (name: string, base: number): Stepped[] =>
  (["integer", "bigint"] as const).map((type): Stepped => {
    const digits = step(
      "digits-of",
      { missing, letterDigits: "small", digitRoom: "as needed" },
      { base, bits: type === "integer" ? 32 : 64 },
    );
    return [name, "convert", `A number in base ${base}.`, `number ${type}`, "text", "9.4", digits];
  });

/** What version 16 brought. */
// prettier-ignore
const since16: FunctionRow[] = steppedRows(
  [...inBase("to_bin", 2), ...inBase("to_oct", 8)],
  (section) => `PostgreSQL 17 documentation, ${section}`,
);

/** What the functions of doubles have, with a C library. */
const math = (library: string, overflow: "error" | "infinity" = "error") =>
  ({
    type: "double",
    result: "double",
    answers: {
      missing,
      numbers: "exact",
      outside: "error",
      overflow,
      tooSmall: "error",
      closeness: library === "glibc" ? "nearest" : "the host's",
    },
  }) as const;

const itemAt = step("item", { missing, first: "1", negativePosition: "nowhere", noItem: "null" });
const together = step("join-lists", { missingList: "skipped" });
const appended = step("add-item", { missingList: "skipped" }, { end: "end" });
const prepended = step("add-item", { missingList: "skipped" }, { end: "start" });
const sameness = { case: "minded", padding: "counted", notANumber: "above all" } as const;
const find = (wanted: "first place" | "all places") =>
  step("find-item", { missing, missingWanted: "looked for", ...sameness }, { wanted });
const holds = (how: "any" | "all") => step("holds-items", { missing, missingShared: "never there", ...sameness }, { how });
const replaced = (how: "replaced" | "left out") => step("replace-items", { missing, ...sameness }, { how });
const extreme = (wanted: "greatest" | "least", missingValue: "skipped" | "null") =>
  step("extreme", { missingValue, amongEqual: "first", ...sameness, mixed: "error" }, { wanted });

// prettier-ignore
const arrays = steppedRows(
  [
    ["item of list", "list", "The item at a position.", "list anyarray, index subscript > position", "item", "8.15.3", itemAt],
    ["cardinality", "list", "The number of items.", "list anyarray", "integer", "9.19", step("size", { missing })],
    ["trim_array", "list", "Without the last n items.", "list anyarray, count integer", "same", "9.19", step("drop-items", { missing, tooMany: "error" }, { end: "end" })],
    ...["text", "integer", "bigint", "decimal", "double", "boolean"].flatMap((type): Stepped[] => [
      ["||", "list", "Appends an item to an array.", `list ${type}[], item ${type}`, `${type}[]`, "9.19", appended],
      ["||", "list", "Puts an item before an array.", `item ${type}, list ${type}[]`, `${type}[]`, "9.19", prepended],
      ["||", "list", "Joins two arrays.", `left ${type}[] > a, right ${type}[] > b`, `${type}[]`, "9.19", together],
      ["array_append", "list", "Appends an item to an array.", `list ${type}[], item ${type}`, `${type}[]`, "9.19", appended],
      ["array_prepend", "list", "Puts an item before an array.", `item ${type}, list ${type}[]`, `${type}[]`, "9.19", prepended],
      ["array_cat", "list", "Joins two arrays.", `left ${type}[] > a, right ${type}[] > b`, `${type}[]`, "9.19", together],
      ["array_remove", "list", "Without the items that are equal to one.", `list ${type}[], item ${type}`, `${type}[]`, "9.19", replaced("left out")],
      ["array_replace", "list", "With one item in place of another.", `list ${type}[], old ${type} > item, new ${type} > replacement`, `${type}[]`, "9.19", replaced("replaced")],
      ["array_position", "list", "The position of an item.", `list ${type}[], item ${type}, start? integer`, "integer", "9.19", find("first place")],
      ["array_positions", "list", "The positions of an item.", `list ${type}[], item ${type}`, "integer[]", "9.19", find("all places")],
      ["@>", "list", "Whether the first array holds every item of the second.", `left ${type}[]! > list, right ${type}[]! > others`, "boolean", "9.19", holds("all")],
      ["<@", "list", "Whether the second array holds every item of the first.", `left ${type}[]! > others, right ${type}[]! > list`, "boolean", "9.19", holds("all")],
      ["&&", "list", "Whether two arrays share an item.", `left ${type}[]! > list, right ${type}[]! > others`, "boolean", "9.19", holds("any")],
    ]),
    ["slice of list", "list", "The items from one position to another.", "list anyarray, first subscript > start, last subscript > until", "same", "8.15.3", step("slice-items", { missing, until: "position", outsideList: "passed", fraction: "refused" })],
    ...["text", "integer", "bigint", "decimal", "double", "boolean", "date", "char"].flatMap((type): Stepped[] => [
      ["greatest", "logic", "The largest value.", `values* ${type}`, type === "char" ? "bpchar" : type, "9.18.4", extreme("greatest", "skipped")],
      ["least", "logic", "The smallest value.", `values* ${type}`, type === "char" ? "bpchar" : type, "9.18.4", extreme("least", "skipped")],
    ]),
    ...inBase("to_hex", 16),
    ["text_larger", "logic", "The larger of two texts.", "left text > values, right text > values", "text", "9.18.4", extreme("greatest", "null")],
    ["text_smaller", "logic", "The smaller of two texts.", "left text > values, right text > values", "text", "9.18.4", extreme("least", "null")],
  ],
  (section) => `PostgreSQL 15 documentation, ${section}`,
);

/** What a literal of unknown type leaves open, as it may be any of the types that these take (10.3). */
const refused: readonly Refused[] = [
  ["- + * / % & | # << >> gcd lcm", "unknown, unknown", "ambiguous-call"],
  ["- ~", "unknown", "ambiguous-call"],
  ["to_char trunc to_hex to_bin to_oct bit_count array_fill", "unknown, …", "ambiguous-call"],
  ["extract date_part date_trunc", "*, unknown", "ambiguous-call"],
  ["pg_size_pretty", "unknown|smallint|integer", "ambiguous-call"],
  ["to_hex to_bin to_oct", "smallint", "ambiguous-call"],
];

/** The functions and operators of a version, with the case mapping of a C library. */
export const postgresqlRows = (version: string, library: string): readonly FunctionRow[] =>
  refusing(rowsOf(version, library), refused);

const rowsOf = (version: string, library: string): readonly FunctionRow[] => [
  ...text,
  ...padded,
  ...recasing(library === "musl" ? "simple, capital ß" : "simple"),
  ...recasing("ascii", "text_c"),
  ...ilikeInC,
  ...operators,
  ...arrays,
  piRow("pi", { ...math(library), evidence: numbers }),
  ...mathRows({ names: "sqrt |/=sqrt cbrt ||/=cbrt exp ln log=log10 log10 radians", ...math(library), evidence: numbers }),
  ...mathRows({ names: "asin acos atan atan2 tanh asinh acosh", ...math(library), evidence: numbers }),
  ...mathRows({ names: "sin cos tan cot sinh cosh atanh", ...math(library, "infinity"), evidence: numbers }),
  ...["smallint", "integer", "bigint", "decimal", "double"].flatMap((type) => [
    ...itselfRows(["+"], { type, summary: "The number itself.", result: type, notation: "operator", evidence: numbers }),
    ...signedRows({ "-": "opposite", abs: "size", "@": "size" }, { type, answers: signs, evidence: numbers }),
  ]),
  ...["decimal", "double"].flatMap((type) => [
    ...signedRows({ sign: "sign" }, { type, answers: signs, evidence: numbers }),
    ...roundRows(
      {
        round: type === "decimal" ? "half away from zero" : "half to even",
        ceil: "up",
        ceiling: "up",
        floor: "down",
        trunc: "toward zero",
      },
      { type, answers: exact, evidence: numbers },
    ),
  ]),
  ...roundRows(
    { round: "half away from zero", trunc: "toward zero" },
    { type: "decimal", digits: "digits integer", answers: { ...exact, moreDigits: "zeros" }, evidence: numbers },
  ),
  ...(["smallint", "integer", "bigint"] as const).flatMap((type) =>
    bitRows(
      { "&": "and", "|": "or", "#": "xor", "~": "not", "<<": "left", ">>": "right" },
      {
        type,
        places: "integer",
        answers: { missing, range: ranges[type], placesBelow: "counted round", placesBeyond: "filled" },
        evidence: numbers,
      },
    ),
  ),
  ...collations.flatMap((name) => [
    ...itselfRows([`collate ${name}`], {
      type: "text",
      summary: "A text with a collation.",
      result: /^(?:C|POSIX|ucs_basic)$/.test(name) ? "text_c" : "text",
      notation: "operator",
      evidence: doc("24.2.2"),
    }),
    ...itselfRows([`collate ${name}`], {
      type: "padded",
      summary: "A text of a fixed length with a collation.",
      result: "bpchar",
      notation: "operator",
      evidence: doc("24.2.2"),
    }),
  ]),
  ...logicRows({
    truth: "true or false",
    result: "boolean",
    condition: "condition",
    evaluates: "left first",
    constants: "any",
    hasUnknown: true,
    evidence: [doc("9.1"), doc("9.2"), doc("9.2")],
  }),
  ...coded,
  ...aggregates,
  ...named,
  ...(version === "15" ? [] : since16),
];
