import { calendarRows } from "../shared/calendar.ts";
import { dateFields, strftime, strptime, weekdays } from "./fields.ts";
import { type Coded, type Stepped, codedRows, steppedRows } from "../shared/coded.ts";
import { type Step, step } from "../step.ts";
import { decidingRows, presentRows } from "../shared/deciding.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import { unitFunctions } from "./intervals.ts";
import { rangeOf, roundedTypes, unsignedTypes, wholeTypes } from "./numbers.ts";
import { type Refused, refusing } from "../refusals.ts";
import { type FunctionRow, type Refusal, params } from "../row.ts";
import { collations, numeric } from "./types.ts";

const doc = (section: string) => `DuckDB 1.5.6, ${section}`;
const strings = doc("Text Functions");
const patterns = doc("Pattern Matching");
const regexes = doc("Regular Expressions");
const lists = doc("List Functions");
const numbers = doc("Numeric Functions");
const operatorsDoc = doc("Comparison Operators");
const dates = doc("Date Functions");

const missing = "null" as const;
const truth = "true or false" as const;
const sliced = {
  missing,
  unit: "code point",
  first: "1",
  from: "start",
  third: "length",
  startBelow: "from the end",
  negativeLength: "before",
  startBeyond: "empty",
  fraction: "refused",
} as const;
const located = {
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
const trimmed = { missing, inner: "kept", characters: "separator", removed: "each" } as const;
const recased = { missing, mapping: "simple, capital ß", words: "space", restOfWord: "lowered" } as const;
const matching = { missing, pattern: "re2", case: "minded" } as const;
const joined = { missing, missingItem: "skipped", emptyItem: "kept" } as const;
const padded = {
  missing,
  unit: "code point",
  negativeCount: "empty",
  longer: "cut",
  emptyFill: "error",
  tooLong: "error",
} as const;
const literalSplit = {
  missing,
  pattern: "literal",
  case: "minded",
  emptyDelimiter: "characters",
  delimiterIs: "one text",
  emptyText: "one piece",
  edges: "pieces",
  emptyMatch: "allowed",
  missingDelimiter: "whole",
} as const;
const literalTest = { missing, pattern: "literal", case: "minded", truth } as const;
const likeTest = { missing, pattern: "like, escape literal", where: "whole", truth } as const;

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
const text: FunctionRow[] = [
  { name: "substring", aliases: ["substr"], family: "extract", summary: "Characters from a position, from the end when negative.", parameters: params("text text, start position, count? position > length"), result: "text", operation: "slice", answers: sliced, evidence: strings },
  { name: "substring_grapheme", family: "extract", summary: "What a reader sees as characters, from a position.", parameters: params("text text, start position, count? position > length"), result: "text", operation: "slice", answers: { ...sliced, unit: "grapheme", startBelow: "from the end, within" }, evidence: strings },
  { name: "left", family: "extract", summary: "The first n characters, or all but the last -n.", parameters: params("text text, count upto > length"), result: "text", operation: "slice", answers: { ...sliced, negativeLength: "all but" }, fixed: { start: 1 }, evidence: strings },
  { name: "right", family: "extract", summary: "The last n characters, or all but the first -n.", parameters: params("text text, count bigint > length"), result: "text", operation: "slice", answers: { ...sliced, negativeLength: "all but", from: "end" }, fixed: { start: 1 }, evidence: strings },
  { name: "left_grapheme", family: "extract", summary: "The first n of what a reader sees as characters.", parameters: params("text text, count upto > length"), result: "text", operation: "slice", answers: { ...sliced, unit: "grapheme", negativeLength: "all but" }, fixed: { start: 1 }, evidence: strings },
  { name: "right_grapheme", family: "extract", summary: "The last n of what a reader sees as characters.", parameters: params("text text, count bigint > length"), result: "text", operation: "slice", answers: { ...sliced, unit: "grapheme", negativeLength: "all but", from: "end" }, fixed: { start: 1 }, evidence: strings },
  { name: "array_extract", aliases: ["list_extract", "list_element"], family: "extract", summary: "The character at a position, from the end when negative.", parameters: params("text text, index position > start"), result: "text", operation: "slice", answers: { ...sliced, startBelow: "from the end or nothing" }, fixed: { length: 1 }, evidence: strings },
  { name: "split_part", family: "extract", summary: "The nth piece between delimiters, from the end when negative.", parameters: params("text text, delimiter text, n ordinal"), result: "own text", operation: "segment", answers: { missing, part: "nth", zeroPiece: "empty", noPiece: "empty", absent: "whole", emptyNeedle: "between characters", case: "minded" }, evidence: strings },
  { name: "reverse", family: "extract", summary: "What a reader sees as characters in reverse order.", parameters: params("text text"), result: "text", operation: "reverse", answers: { missing, unit: "grapheme" }, evidence: strings },
  { name: "strpos", aliases: ["instr", "position"], family: "locate", summary: "The position of a text, 0 when absent.", parameters: params("text text, needle text"), result: "bigint", operation: "locate", answers: located, evidence: strings },
  { name: "contains", family: "locate", summary: "Whether a text stands in another.", parameters: params("text text, needle text"), result: "boolean", operation: "test", answers: { ...literalTest, where: "anywhere" }, evidence: strings },
  { name: "starts_with", aliases: ["prefix", "^@"], family: "locate", summary: "Whether a text starts with another.", parameters: params("text text, start text > needle"), result: "boolean", operation: "test", answers: { ...literalTest, where: "start" }, evidence: strings },
  { name: "ends_with", aliases: ["suffix"], family: "locate", summary: "Whether a text ends with another.", parameters: params("text text, end text > needle"), result: "boolean", operation: "test", answers: { ...literalTest, where: "end" }, evidence: strings },
  ...(["like", "ilike"] as const).flatMap((name): FunctionRow[] => [
    { name, family: "locate", summary: "Whether the whole text fits a pattern of % and _, without an escape character.", parameters: params("text text, pattern text > needle"), result: "boolean", operation: "test", answers: { ...likeTest, case: name === "like" ? "minded" : "lowered" }, fixed: { flags: "" }, notation: "operator", evidence: patterns },
    { name, family: "locate", summary: "Whether the whole text fits a pattern of % and _.", parameters: params("text text, pattern text > needle, escape escape > flags"), result: "boolean", operation: "test", answers: { ...likeTest, pattern: "like", case: name === "like" ? "minded" : "lowered" }, notation: "operator", evidence: patterns },
  ]),
  ...(["like", "ilike"] as const).map((name): FunctionRow => ({ name: `${name}_escape`, family: "locate", summary: "Whether the whole text fits a pattern of % and _, with an escape character.", parameters: params("text text, pattern text > needle, escape escape > flags"), result: "boolean", operation: "test", answers: { ...likeTest, pattern: "like", case: name === "like" ? "minded" : "lowered" }, evidence: patterns })),
  { name: "glob", family: "locate", summary: "Whether the bytes of the whole text fit a pattern of *, ? and [...].", parameters: params("text bytetext, pattern bytetext > needle"), result: "boolean", operation: "test", answers: { missing, pattern: "glob with escapes", where: "whole", truth, case: "minded" }, notation: "operator", evidence: patterns },
  { name: "similar to", family: "locate", summary: "Whether a pattern fits the whole text.", parameters: params("text text, pattern pattern > needle"), result: "boolean", operation: "test", answers: { ...matching, where: "whole", truth }, notation: "operator", evidence: patterns },
  { name: "regexp_full_match", family: "locate", summary: "Whether a pattern fits the whole text.", parameters: params("text text, pattern pattern > needle, options?! options > flags"), result: "boolean", operation: "test", answers: { ...matching, where: "whole", truth }, evidence: regexes },
  { name: "regexp_matches", aliases: ["regexp_like"], family: "locate", summary: "Whether a pattern matches.", parameters: params("text text, pattern pattern > needle, options?! options > flags"), result: "boolean", operation: "test", answers: { ...matching, where: "anywhere", truth }, evidence: regexes },
  { name: "regexp_extract", family: "extract", summary: "The first match of a pattern, or one of its groups; empty when there is none.", parameters: params("text text, pattern pattern > needle, group?! group, options?! options > flags"), result: "text", operation: "find", answers: { ...matching, report: "text", group: "match", absent: "empty" }, evidence: regexes },
  { name: "regexp_extract_all", family: "split-join", summary: "Every match of a pattern, or one of its groups, as a list.", parameters: params("text text, pattern pattern > needle, group? integer, options?! options > flags"), result: "text[]", operation: "find", answers: { ...matching, report: "texts", group: "match", absent: "empty" }, evidence: regexes },
  { name: "replace", family: "substitute", summary: "Replaces a text everywhere.", parameters: params("text text, old text, new text"), result: "text", operation: "substitute", answers: { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal", emptyMatch: "allowed", emptyOld: "null" }, evidence: strings },
  { name: "regexp_replace", family: "substitute", summary: "Replaces the first match of a pattern, or all with option g.", parameters: params("text text, pattern pattern > old, replacement text > new, options?! replace_options > flags"), result: "text", operation: "substitute", answers: { ...matching, occurrences: "first", replacement: "backslash numbers", emptyMatch: "not after a match", emptyOld: "null" }, evidence: regexes },
  { name: "translate", family: "substitute", summary: "Maps single characters, or drops them.", parameters: params("text text, from text, to text"), result: "text", operation: "translate", answers: { missing, unit: "code point" }, evidence: strings },
  { name: "upper", aliases: ["ucase"], family: "recase", summary: "All letters in upper case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "upper" }, evidence: strings },
  { name: "lower", aliases: ["lcase"], family: "recase", summary: "All letters in lower case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "lower" }, evidence: strings },
  { name: "nfc_normalize", family: "recase", summary: "The composed Unicode normal form.", parameters: params("text text"), result: "text", operation: "normalize", answers: { missing, asked: "text" }, evidence: strings },
  { name: "trim", family: "trim", summary: "Without given characters at both ends.", parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "both" }, evidence: strings },
  { name: "ltrim", family: "trim", summary: "Without given characters at the start.", parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "start" }, evidence: strings },
  { name: "rtrim", family: "trim", summary: "Without given characters at the end.", parameters: params("text text, characters? text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "end" }, evidence: strings },
  { name: "length", aliases: ["len", "char_length", "character_length"], family: "measure-test", summary: "The number of characters.", parameters: params("text text"), result: "bigint", operation: "measure", answers: { missing, counted: "code point" }, evidence: strings },
  { name: "length_grapheme", family: "measure-test", summary: "The number of what a reader sees as characters.", parameters: params("text text"), result: "bigint", operation: "measure", answers: { missing, counted: "grapheme" }, evidence: strings },
  { name: "strlen", family: "measure-test", summary: "The number of bytes.", parameters: params("text text"), result: "bigint", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: strings },
  { name: "bit_length", family: "measure-test", summary: "The number of bits.", parameters: params("text text"), result: "bigint", operation: "measure", answers: { missing, counted: "utf-8 bit" }, evidence: strings },
  { name: "ascii", family: "measure-test", summary: "The code point of the first character, 0 for empty text.", parameters: params("text text"), result: "integer", operation: "code-of", answers: { missing, alphabet: "unicode", ofEmpty: "zero" }, evidence: strings },
  { name: "unicode", aliases: ["ord"], family: "measure-test", summary: "The code point of the first character, -1 for empty text.", parameters: params("text text"), result: "integer", operation: "code-of", answers: { missing, alphabet: "unicode", ofEmpty: "minus one" }, evidence: strings },
  { name: "chr", family: "measure-test", summary: "The character of a code point.", parameters: params("code integer > number"), result: "text", operation: "char-of", answers: { missing, alphabet: "unicode and nul", fraction: "refused" }, evidence: strings },
  { name: "octet_length", family: "measure-test", summary: "The number of bytes.", parameters: params("bytes blob > text"), result: "bigint", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: strings },
  { name: "strip_accents", family: "recase", summary: "Letters without their accents.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "unaccented" }, evidence: strings },
  ...([["levenshtein", "edits"], ["editdist3", "edits"], ["damerau_levenshtein", "edits and swaps"], ["hamming", "differing bytes"], ["mismatches", "differing bytes"]] as const).map(([name, measure]): FunctionRow => ({ name, family: "measure-test", summary: "How far two texts are apart.", parameters: params("left text > a, right text > b"), result: "bigint", operation: "likeness", answers: { missing, measure }, evidence: strings })),
  { name: "jaccard", family: "measure-test", summary: "How alike two texts are, from 0 to 1.", parameters: params("left text > a, right text > b"), result: "double", operation: "likeness", answers: { missing, measure: "shared bytes" }, evidence: strings },
  ...([["jaro_similarity", "jaro"], ["jaro_winkler_similarity", "jaro-winkler"]] as const).map(([name, measure]): FunctionRow => ({ name, family: "measure-test", summary: "How alike two texts are, from 0 to 1.", parameters: params("left text > a, right text > b, cutoff? double"), result: "double", operation: "likeness", answers: { missing, measure }, evidence: strings })),
  { name: "repeat", family: "pad", summary: "A text several times over.", parameters: params("text text, count position"), result: "text", operation: "repeat", answers: { missing, negativeCount: "empty", fraction: "refused", tooLong: "error" }, evidence: strings },
  { name: "lpad", family: "pad", summary: "Filled up at the start, or cut at the end.", parameters: params("text text, length integer, fill text"), result: "text", operation: "pad", answers: { ...padded, side: "left" }, evidence: strings },
  { name: "rpad", family: "pad", summary: "Filled up at the end, or cut there.", parameters: params("text text, length integer, fill text"), result: "text", operation: "pad", answers: { ...padded, side: "right" }, evidence: strings },
  { name: "concat", family: "split-join", summary: "Joins values, skipping null.", parameters: params("values* nonlist > items"), result: "text", operation: "join", answers: joined, evidence: strings },
  { name: "concat_ws", family: "split-join", summary: "Joins values with a separator, skipping null.", parameters: params("separator text, values* output > items"), result: "text", operation: "join", answers: joined, evidence: strings },
  { name: "||", family: "split-join", summary: "Joins two values; null with anything is null.", parameters: params("left nonlist > items, right nonlist > items"), result: "text", operation: "join", answers: { ...joined, missingItem: "null" }, notation: "operator", evidence: strings },
  { name: "string_split", aliases: ["str_split", "string_to_array", "split"], family: "split-join", summary: "Splits at a delimiter, into characters at an empty one.", parameters: params("text text, delimiter text"), result: "text[]", operation: "split", answers: literalSplit, evidence: strings },
  { name: "string_split_regex", aliases: ["str_split_regex", "regexp_split_to_array"], family: "split-join", summary: "Splits at the matches of a pattern.", parameters: params("text text, pattern pattern > delimiter, options?! options > flags"), result: "text[]", operation: "split", answers: { ...literalSplit, pattern: "re2", emptyMatch: "one character" }, evidence: regexes },
  { name: "array_to_string", family: "split-join", summary: "Joins the items of a list.", parameters: params("list anylist > items, separator! text"), result: "own text", operation: "join", answers: joined, evidence: lists },
];

const compared = [
  "text",
  "boolean",
  "integer",
  "bigint",
  "hugeint",
  "decimal",
  "double",
  "date",
  "timestamp",
  "time",
  "blob",
  "list",
];
const otherNames: Readonly<Record<string, readonly string[]>> = {
  "+": ["add"],
  "-": ["subtract"],
  "*": ["multiply"],
  "//": ["divide"],
  "%": ["mod"],
  "^": ["pow", "power"],
};
const textCases = ["minded", "ignored", "accents ignored", "both ignored"] as const;
const collationsBy = (letterCase: string): readonly string[] =>
  Object.keys(collations).filter((name) => collations[name] === letterCase);

// prettier-ignore
const operators: FunctionRow[] = [
  ...relationsWith("is distinct from").flatMap((relation) =>
    compared.flatMap((type) =>
      (type === "text" ? textCases : (["minded"] as const)).map((letterCase) =>
        comparisonRow(relation, {
          ...(type === "text" && { collations: collationsBy(letterCase) }),
          left: `side.${type}`,
          right: `side.${type}`,
          result: "boolean",
          answers: { missing, case: letterCase, padding: "counted", mixed: "error", notANumber: "above all", truth },
          evidence: operatorsDoc,
        }),
      ),
    ),
  ),
  ...[["+", "+"], ["-", "-"], ["*", "*"], ["/", "/"], ["//", "idiv"], ["%", "mod"], ["^", "^"]].flatMap(([name, sign]) =>
    (name === "/" || name === "^" ? ["double"] : name === "//" ? [...wholeTypes, "double"] : [...wholeTypes, "decimal", "double"]).map((type): FunctionRow => ({
      name,
      aliases: otherNames[name] ?? [],
      family: "convert",
      summary: "Arithmetic on two numbers.",
      parameters: params(`left ${type} > a, right ${type} > b`),
      result: type === "decimal" && name !== "%" ? `decimal, ${name === "*" ? "sum" : "most"}` : type,
      operation: "calculate",
      answers: { missing, numbers: "exact", quotient: "double", quotientDigits: "twenty decimals", byZero: "null", doubleByZero: name === "//" ? "null" : "infinity", overflow: "infinity", remainder: "of fractions", remainderSign: "of what is divided", tooSmall: "zero" },
      fixed: { sign: name === "//" && type === "double" ? "/" : sign },
      notation: "operator",
      evidence: numbers,
    })),
  ),
];

const signs = { missing, numbers: "exact", signKind: "whole" } as const;
const shifting = { missing, placesBelow: "error, or 0", placesBeyond: "error" } as const;
const math = {
  type: "double",
  result: "double",
  answers: { missing, numbers: "exact", outside: "error", overflow: "infinity", tooSmall: "zero", closeness: "nearest" },
  evidence: numbers,
} as const;

// prettier-ignore
const coded = codedRows(
  [
    ["hex", "convert", "The bytes of a text in base 16.", "value text", "text", strings],
    ...["bigint", "hugeint", "floating"].map((type): Coded => ["hex", "convert", "A number in base 16.", `value ${type}`, "text", strings, "hex"]),
    ["hex", "convert", "Bytes in base 16.", "value blob", "text", strings],
    ["to_hex", "convert", "The bytes of a text in base 16.", "value text", "text", strings, "hex"],
    ...["bigint", "hugeint", "floating"].map((type): Coded => ["to_hex", "convert", "A number in base 16.", `value ${type}`, "text", strings, "hex"]),
    ["to_hex", "convert", "Bytes in base 16.", "value blob", "text", strings, "hex"],
    ["unhex", "convert", "Bytes from base 16.", "text text", "blob", strings],
    ["from_hex", "convert", "Bytes from base 16.", "text text", "blob", strings, "unhex"],
    ["bin", "convert", "The bytes of a text in base 2.", "value text", "text", strings],
    ...["bigint", "hugeint", "floating"].map((type): Coded => ["bin", "convert", "A number in base 2.", `value ${type}`, "text", strings, "bin"]),
    ["to_binary", "convert", "The bytes of a text in base 2.", "value text", "text", strings, "bin"],
    ...["bigint", "hugeint", "floating"].map((type): Coded => ["to_binary", "convert", "A number in base 2.", `value ${type}`, "text", strings, "bin"]),
    ["unbin", "convert", "Bytes from base 2.", "text text", "blob", strings],
    ["from_binary", "convert", "Bytes from base 2.", "text text", "blob", strings, "unbin"],
    ["to_base", "convert", "A number in a base.", "number bigint, base integer, digits? integer", "text", strings],
    ["to_base64", "convert", "Bytes in base 64.", "bytes blob", "text", strings],
    ["base64", "convert", "Bytes in base 64.", "bytes blob", "text", strings, "to_base64"],
    ["from_base64", "convert", "Bytes from base 64.", "text text", "blob", strings],
    ["encode", "convert", "The UTF-8 bytes of a text.", "text text", "blob", strings],
    ["decode", "convert", "The text of UTF-8 bytes.", "bytes blob", "text", strings],
    ["array_length", "list", "The number of items.", "list anylist, dimension? bigint", "bigint", lists],
    ["format", "split-join", "Fills the places {} of a format.", "format text, values?* any", "text", strings],
    ["printf", "split-join", "Fills the directives % of a format.", "format text, values?* any", "text", strings],
    ["regexp_escape", "convert", "The text as a pattern for itself.", "text text", "text", regexes],
    ["url_encode", "convert", "Percent-encoded for a URL.", "text text", "text", strings],
    ["url_decode", "convert", "Percent-encoding read.", "text text", "text", strings],
    ["parse_filename", "convert", "The last part of a path.", "path text, withoutExtension? boolean, separator? text", "text", strings],
    ["parse_filename", "convert", "The last part of a path.", "path text, separator text", "text", strings, "parse_filename by"],
    ["parse_dirname", "convert", "The first part of a path.", "path text, separator? text", "text", strings],
    ["parse_dirpath", "convert", "A path without its last part.", "path text, separator? text", "text", strings],
    ["parse_path", "convert", "The parts of a path.", "path text, separator? text", "text[]", strings],
    ["format_bytes", "convert", "A number of bytes in KiB, MiB and so on.", "bytes bigint", "text", strings],
    ["formatreadablesize", "convert", "A number of bytes in KiB, MiB and so on.", "bytes bigint", "text", strings, "format_bytes"],
    ["formatreadabledecimalsize", "convert", "A number of bytes in kB, MB and so on.", "bytes bigint", "text", strings, "format_decimal_bytes"],
    ["bar", "convert", "A bar as long as a number is large.", "x double, min double, max double, width? double", "text", strings],
    ["typeof", "convert", "The type of a value.", "value any", "own text", doc("Utility Functions")],
    ...unsignedTypes.map((type): Coded => ["-", "convert", "The negative of a number.", `number ${type}`, type, numbers, `- ${type}`]),
    ["bit_count", "convert", "How many bits are set.", "number hugeint", "tinyint", numbers],
    ...roundedTypes.map((type): Coded => ["round", "convert", "Rounded, halves away from zero.", `number ${type}, digits?${type === "decimal" ? "!" : ""} integer`, type, numbers, `round ${type}`]),
    ...[...wholeTypes, "decimal", "double"].map((type): Coded => ["trunc", "convert", "Cut to a number of decimals.", `number ${type}, digits${type === "decimal" ? "!" : ""} integer`, type, numbers, "trunc at"]),
    ["regexp_extract", "extract", "The groups of the first match as a struct.", "text text, pattern text, names text[]", "any", regexes, "struct"],
    ...["round_even", "roundbankers"].flatMap((name) => roundedTypes.map((type): Coded => [name, "convert", "Rounded, halves to the even neighbour.", `number ${type}, digits${type === "decimal" ? "!" : ""} integer`, "double", numbers, `round_even ${type}`])),
    ["fdiv", "convert", "A quotient, down to the next whole number.", "left double, right double", "double", numbers],
    ["fmod", "convert", "The remainder of such a quotient.", "left double, right double", "double", numbers],
    ["repeat", "list", "The items of a list several times over.", "list anylist, count bigint", "list", lists],
    ["pg_typeof", "convert", "The type of a value, in small letters.", "value any", "own text", doc("Utility Functions")],
    ...["atanh", "gamma", "lgamma"].map((name): Coded => [name, "convert", "A mathematical function.", "number double", "double", numbers]),
    ["log", "convert", "The logarithm to base 10, or to a base.", "number double, argument? double", "double", numbers],
    ["factorial", "convert", "The product of the numbers up to one.", "number integer", "hugeint", numbers],
    ...["bigint", "hugeint"].flatMap((type): Coded[] => [
      ["gcd", "convert", "The greatest common divisor.", `left ${type}, right ${type}`, type, numbers],
      ["greatest_common_divisor", "convert", "The greatest common divisor.", `left ${type}, right ${type}`, type, numbers, "gcd"],
      ["lcm", "convert", "The least common multiple.", `left ${type}, right ${type}`, type, numbers],
      ["least_common_multiple", "convert", "The least common multiple.", `left ${type}, right ${type}`, type, numbers, "lcm"],
    ]),
    ["even", "convert", "The next even number away from zero.", "number double", "double", numbers],
    ["isinf", "convert", "Whether it is an infinity.", "number double", "boolean", numbers],
    ["isfinite", "convert", "Whether it is a number that is no infinity.", "number double", "boolean", numbers],
    ["signbit", "convert", "Whether the sign is negative.", "number double", "boolean", numbers],
    ...["text", "blob"].flatMap((type) => [["md5", "text"], ["sha1", "text"], ["sha256", "text"], ["md5_number", "uhugeint"]].map(([name, result]): Coded => [name, "convert", "A digest.", `value ${type}`, result, strings])),
    ["parse_formatted_bytes", "convert", "The number of bytes that a size with its unit is.", "size text", "ubigint", strings],
    ["isnan", "convert", "Whether it is not a number.", "number double", "boolean", numbers],
    ["array_slice", "list", "The characters from one position to another.", "text text, first open, last open", "text", strings, "characters between"],
    ["list_slice", "list", "The characters from one position to another.", "text text, first open, last open", "text", strings, "characters between"],
    ["array_slice", "list", "The items from one position to another.", "list anylist, first open, last open, step? open", "list", lists, "items between"],
    ["list_slice", "list", "The items from one position to another.", "list anylist, first open, last open, step? open", "list", lists, "items between"],
    ...["list_concat", "list_cat", "array_concat", "array_cat"].map((name): Coded => [name, "list", "Joins lists.", "lists* anylist", "unified", lists, "list_concat"]),
    ["concat", "list", "Joins lists.", "lists* anylist", "unified", lists, "list_concat"],
    ...["list_resize", "array_resize"].map((name): Coded => [name, "list", "Cut or filled up to a length.", "list anylist, length bigint, fill? any", "list", lists, "list_resize"]),
    ...["list_select", "array_select"].map((name): Coded => [name, "list", "The items at several positions.", "list anylist, positions bigint[]", "list", lists, "list_select"]),
    ...["list_where", "array_where"].map((name): Coded => [name, "list", "The items at the places of true.", "list anylist, mask boolean[]", "list", lists, "list_where"]),
    ...["list_aggregate", "list_aggr", "array_aggregate", "array_aggr", "aggregate"].map((name): Coded => [name, "list", "An aggregate of the items.", "list anylist, name! text, more?*! any", "aggregated", lists, "list_aggregate"]),
    ["list_string_agg", "list", "Joins the items with commas.", "list anylist", "text", lists],
    ["list_any_value", "list", "One of the items.", "list anylist", "item", lists],
    ["list_mode", "list", "The commonest item, the first of those that are as common.", "list anylist", "item", lists],
    ...["list_median", "list_product", "list_stddev_pop", "list_stddev_samp", "list_var_pop", "list_var_samp", "list_sem", "list_bool_and", "list_bool_or"].map((name): Coded => [name, "list", "A value made from the items.", "list anylist", "any", lists]),
    ...["list_sum", "list_avg", "list_count"].map((name): Coded => [name, "list", "A number made from the items.", "list anylist", "any", lists]),
    ["flatten", "list", "The items of the lists in a list.", "list anylist", "item", lists],
    ...["list_transform", "list_apply", "array_transform", "array_apply", "apply"].map((name): Coded => [name, "list", "A function of every item.", "list anylist, lambda lambda", "any[]", lists, "list_transform"]),
    ...["list_filter", "array_filter", "filter"].map((name): Coded => [name, "list", "The items for which a function is true.", "list anylist, lambda lambda", "list", lists, "list_filter"]),
    ...["list_reduce", "array_reduce", "reduce"].map((name): Coded => [name, "list", "The items put together one after the other.", "list anylist, lambda lambda, initial? any", "any", lists, "list_reduce"]),
    ...["date", "timestamp"].flatMap((type): Coded[] => [
      ["extract", "convert", "A field of a date.", `field text, date ${type}`, "bigint", dates],
      ["date_part", "convert", "A field of a date.", `field text, date ${type}`, "bigint", dates, "extract"],
      ["datepart", "convert", "A field of a date.", `field text, date ${type}`, "bigint", dates, "extract"],
      ...["epoch", "julian"].map((name): Coded => [name, "convert", "A date as a number of seconds or days.", `date ${type}`, "double", dates]),
      ...["epoch_ms", "epoch_us", "epoch_ns"].map((name): Coded => [name, "convert", "The parts of seconds since 1970.", `date ${type}`, "bigint", dates]),
      ["last_day", "convert", "The last day of the month.", `date ${type}`, "date", dates],
    ]),
    ["epoch_ms", "convert", "The moment so many thousandths of a second after the start of 1970.", "milliseconds bigint", "timestamp", dates, "timestamp of ms"],
    ["make_timestamp", "convert", "The moment so many millionths of a second after the start of 1970.", "microseconds bigint", "timestamp", dates, "timestamp of us"],
    ["make_date", "convert", "A date from its parts.", "year bigint, month bigint, day bigint", "date", dates],
    ["-", "convert", "The days between two dates.", "left date, right date", "bigint", dates, "days between"],
    ["+", "convert", "A date some days later.", "date date, days integer", "date", dates, "add days"],
    ["-", "convert", "A date some days earlier.", "date date, days integer", "date", dates, "subtract days"],
    ["datediff", "convert", "How many borders of a part lie between two dates.", "part text, left timestamp, right timestamp", "bigint", dates],
    ["date_diff", "convert", "How many borders of a part lie between two dates.", "part text, left timestamp, right timestamp", "bigint", dates, "datediff"],
    ["interval", "convert", "So many of a unit of time.", "count double, unit text", "interval", dates],
    ...Object.entries(unitFunctions).map(([name, type]): Coded => [name, "convert", "So many of a unit of time.", `count ${type}`, "interval", dates]),
    ["+", "convert", "A moment so much later.", "date timestamp, span interval", "timestamp", dates, "add interval"],
    ["+", "convert", "A moment so much later.", "span interval, date timestamp", "timestamp", dates, "interval added"],
    ["-", "convert", "A moment so much earlier.", "date timestamp, span interval", "timestamp", dates, "subtract interval"],
    ["date_add", "convert", "A moment so much later.", "date timestamp, span interval", "timestamp", dates, "add interval"],
    ["+", "convert", "A time of day so much later.", "time time, span interval", "time", dates, "add interval to time"],
    ["+", "convert", "A time of day so much later.", "span interval, time time", "time", dates, "interval added to time"],
    ["-", "convert", "A time of day so much earlier.", "time time, span interval", "time", dates, "subtract interval from time"],
    ["+", "convert", "Two stretches of time together.", "left interval, right interval", "interval", dates, "add intervals"],
    ["-", "convert", "One stretch of time less another.", "left interval, right interval", "interval", dates, "subtract intervals"],
    ["*", "convert", "A stretch of time several times over.", "span interval, count bigint", "interval", dates, "times interval"],
    ["*", "convert", "A stretch of time several times over.", "count bigint, span interval", "interval", dates, "interval times"],
    ["-", "convert", "A stretch of time backwards.", "span interval", "interval", dates, "negate interval"],
    ["-", "convert", "The days and the time between two moments.", "later timestamp, earlier timestamp", "interval", dates, "interval between"],
    ["date_trunc", "convert", "The start of a part.", "part text, date timestamp", "timestamp", dates],
  ],
);

const itemAt = (position?: number) =>
  step(
    "item",
    { missing, first: "1", negativePosition: "from the end", noItem: "null" },
    position === undefined ? undefined : { position },
  );
const sameness = { case: "minded", padding: "counted", notANumber: "above all" } as const;
const ordering = { ...sameness, mixed: "by kind" } as const;
const find = (wanted: "whether" | "first place") =>
  step("find-item", { missing, missingWanted: wanted === "whether" ? "null" : "looked for", ...sameness }, { wanted });
const holds = (how: "any" | "all") => step("holds-items", { missing, missingShared: "left out", ...sameness }, { how });
const added = (end: "start" | "end") => step("add-item", { missingList: "skipped" }, { end });
const distinct = (distinctOrder: "first met" | "last first", wanted: "items" | "number") =>
  step("distinct-items", { missing, distinctOrder, ...sameness }, { wanted });
const sort = (fixed: Step["fixed"]) => step("sort-items", { missing, ...ordering }, fixed);
const extreme = (wanted: "greatest" | "least") =>
  step("extreme", { missingValue: "skipped", amongEqual: "first", ...ordering }, { wanted });
const series = (lastNumber: "included" | "left out", fixed?: Step["fixed"]) => step("series", { missing, lastNumber }, fixed);
const withoutOne = (end: "start" | "end") => step("drop-items", { missing, tooMany: "all of them" }, { count: 1, end });
const sliceOf = (fixed: Step["fixed"]) => step("slice", { ...sliced, negativeLength: "all but" }, fixed);

/** strptime() and try_strptime(), which differ in what stands for no date. */
const datesRead = (
  [
    ["strptime", "error", "", ""],
    ["try_strptime", "null", ", null when it does not fit", ", null when none does"],
  ] as const
).flatMap(([name, notADate, unlessOne, unlessAny]) =>
  steppedRows([
    [
      name,
      "convert",
      `A date read by a format${unlessOne}.`,
      "text text, format! dateshape",
      "timestamp",
      dates,
      strptime(notADate),
    ],
    [
      name,
      "convert",
      `A date read by the first of several formats that fits${unlessAny}.`,
      "text text, formats! text[] > format",
      "timestamp",
      dates,
      strptime(notADate),
    ],
  ]),
);

// prettier-ignore
const plainLists = steppedRows([
  ...["array_extract", "list_extract", "list_element"].map((name): Stepped => [name, "list", "The item at a position.", "list anylist, index bigint > position", "item", lists, itemAt()]),
  ["array_pop_back", "list", "Without the last character.", "text text", "text", lists, sliceOf({ start: 1, length: -1 })],
  ["array_pop_front", "list", "Without the first character.", "text text", "text", lists, sliceOf({ start: 2 })],
  ["array_pop_back", "list", "Without the last item.", "list anylist", "list", lists, withoutOne("end")],
  ["array_pop_front", "list", "Without the first item.", "list anylist", "list", lists, withoutOne("start")],
  ...["date", "timestamp"].map((type): Stepped => ["strftime", "convert", "A date in a format.", `date ${type}, format! dateformat`, "text", dates, strftime]),
  ["strftime", "convert", "A date in a format.", "format! dateformat, date timestamp", "text", dates, strftime],
  ["list_first", "list", "The first item.", "list anylist", "item", lists, itemAt(1)],
  ["list_last", "list", "The last item.", "list anylist", "item", lists, itemAt(-1)],
  ...["list_value", "list_pack"].map((name): Stepped => [name, "list", "A list of values.", "values?* any", "unified list", lists, step("list-of", {})]),
  ...["list_contains", "list_has", "array_contains", "array_has", "contains"].map((name): Stepped => [name, "list", "Whether a list holds a value.", "list anylist, item item.list", "boolean", lists, find("whether")]),
  ...["list_position", "list_indexof", "array_position", "array_indexof"].map((name): Stepped => [name, "list", "The position of a value, null when it is not there.", "list anylist, item item.list", "integer", lists, find("first place")]),
  ...["list_has_any", "array_has_any", "&&"].map((name): Stepped => [name, "list", "Whether two lists share a value.", "left anylist > list, right anylist > others", "boolean", lists, holds("any")]),
  ...["list_has_all", "array_has_all", "@>"].map((name): Stepped => [name, "list", "Whether the first list holds every value of the second.", "left anylist > list, right anylist > others", "boolean", lists, holds("all")]),
  ["<@", "list", "Whether the second list holds every value of the first.", "left anylist > others, right anylist > list", "boolean", lists, holds("all")],
  ...["list_append", "array_append", "array_push_back"].map((name): Stepped => [name, "list", "Appends a value to a list.", "list anylist, item item.list", "list", lists, added("end")]),
  ...["list_prepend", "array_prepend"].map((name): Stepped => [name, "list", "Puts a value before a list.", "item item.list, list anylist", "list of second item", lists, added("start")]),
  ["array_push_front", "list", "Puts a value before a list.", "list anylist, item item.list", "list", lists, added("start")],
  ...["list_distinct", "array_distinct"].map((name): Stepped => [name, "list", "Every value once, null left out.", "list anylist", "list", lists, distinct("last first", "items")]),
  ...["list_unique", "array_unique"].map((name): Stepped => [name, "list", "How many different values there are.", "list anylist", "ubigint", lists, distinct("first met", "number")]),
  ...["list_intersect", "array_intersect"].map((name): Stepped => [name, "list", "The values that two lists share.", "left anylist > list, right anylist > within", "list", lists, distinct("first met", "items")]),
  ...["list_sort", "array_sort"].map((name): Stepped => [name, "list", "The items in order.", "list anylist, direction?! direction, nulls?! nullplace > missingAt", "list", lists, sort({ wanted: "items" })]),
  ...["list_reverse_sort", "array_reverse_sort"].map((name): Stepped => [name, "list", "The items in descending order.", "list anylist, nulls?! nullplace > missingAt", "list", lists, sort({ wanted: "items", direction: "descending" })]),
  ...["list_grade_up", "array_grade_up", "grade_up"].map((name): Stepped => [name, "list", "The positions of the items in order.", "list anylist, direction?! direction, nulls?! nullplace > missingAt", "bigint[]", lists, sort({ wanted: "places" })]),
  ["list_min", "list", "The least of the items.", "list anylist > values", "item", lists, extreme("least")],
  ["list_max", "list", "The greatest of the items.", "list anylist > values", "item", lists, extreme("greatest")],
  ["greatest", "logic", "The largest value, null left out.", "values* any", "unified", numbers, extreme("greatest")],
  ["least", "logic", "The smallest value, null left out.", "values* any", "unified", numbers, extreme("least")],
  ...(["range", "generate_series"] as const).flatMap((name): Stepped[] => {
    const last = name === "range" ? "left out" : "included";
    return [
      [name, "list", "Numbers from 0 up to an end.", "end bigint > last", "bigint[]", lists, series(last, { first: 0 })],
      [name, "list", "Numbers from a start up to an end.", "start bigint > first, end bigint > last, step? bigint", "bigint[]", lists, series(last)],
    ];
  }),
  ...["list_reverse", "array_reverse"].map((name): Stepped => [name, "list", "The items in reverse order.", "list anylist", "list", lists, step("reverse-items", { missing })]),
  ["||", "list", "Joins two lists.", "left anylist > a, right anylist > b", "unified", lists, step("join-lists", { missingList: "null" })],
  ...["length", "len"].map((name): Stepped => [name, "list", "The number of items.", "list anylist", "bigint", lists, step("size", { missing })]),
]);

/** A decimal keeps its number of decimals. */
const ownResult = (type: string): string => (type === "decimal" ? "same" : type);

/** Lists into which no text is put. */
const notOfTexts = "!text[]|literal[]|null[]|any[]|null|any";
/** Lists that are none of numbers. */
const notOfNumbers = `!${[...numeric, "null", "any"].map((type) => `${type}[]`).join("|")}|null|any`;

// prettier-ignore
const refused: readonly Refused[] = [
  // A text literal may be a number of any type,
  ["abs sign ceil ceiling floor trunc round round_even roundbankers bit_count ~", "literal, …", "ambiguous-call"],
  ["- +", "literal", "ambiguous-call"],
  ["& | xor * // % gcd greatest_common_divisor lcm least_common_multiple fmod fdiv", "literal, literal", "ambiguous-call"],
  ["<< >> / fdiv fmod", "literal, *", "ambiguous-call"],
  ["round_even roundbankers", "*, literal", "ambiguous-call"],
  // beside a whole number also a date, while from a number only a number is subtracted,
  ["+ -", "literal, literal|tinyint|smallint|integer", "ambiguous-call"],
  ["+", "tinyint|smallint|integer, literal", "ambiguous-call"],
  // an interval, which is multiplied by larger numbers, or the names of groups.
  ["*", "literal, bigint|double|decimal", "ambiguous-call"],
  ["*", "bigint|double|decimal, literal", "ambiguous-call"],
  ["regexp_extract", "*, *, literal, …", "ambiguous-call"],
  // Only = and <> compare a text with what is none.
  ["< <= > >=", "text, !text|literal|null|any…", "argument-type"],
  ["< <= > >=", "!text|literal|null|any…, text", "argument-type"],
  ["< <= > >=", "boolean, decimal|double|float", "argument-type"],
  ["< <= > >=", "decimal|double|float, boolean", "argument-type"],
  ...["text …, …", "*, text …, …"].map((types): Refused => [
    "like ilike like_escape ilike_escape glob contains starts_with strpos", types, "not-covered",
  ]),
  ["list_append array_append array_push_back array_push_front", `${notOfTexts}, literal`, "argument-type"],
  ["list_prepend array_prepend", `literal, ${notOfTexts}`, "argument-type"],
  ["list_sum list_avg list_product list_stddev_pop list_stddev_samp list_var_pop list_var_samp list_sem", notOfNumbers, "argument-type"],
  ["flatten", "!…[][]|null[]|any[]|null|any", "argument-type"],
  ["list_bool_and list_bool_or", "!boolean[]|null[]|any[]|null|any", "argument-type"],
];

/** A text literal may be a date or a timestamp where no other argument says which. */
const dated = (row: FunctionRow): FunctionRow => {
  const isSum = (row.name === "+" || row.name === "-") && row.parameters.length === 2;
  if (row.evidence !== dates || isSum) return row;
  const refuses = row.parameters.flatMap(({ type }, place): Refusal[] =>
    /^(?:date|timestamp)$/.test(type)
      ? [{ types: row.parameters.map((_, i) => (i === place ? "literal" : "!date|timestamp")).join(", "), as: "ambiguous-call" }]
      : [],
  );
  return refuses.length === 0 ? row : { ...row, refuses: [...(row.refuses ?? []), ...refuses] };
};

const rows: readonly FunctionRow[] = [
  ...text,
  ...operators,
  ...datesRead,
  ...plainLists,
  ...["date", "timestamp"].flatMap((type) =>
    calendarRows(dateFields, weekdays, { type, result: "bigint", text: "text", evidence: dates, missing }),
  ),
  ...presentRows({ result: "unified", evidence: operatorsDoc }, ["ifnull"]),
  ...decidingRows({ result: "same", evidence: numbers }, [
    ["try", "The value, or null where it is an error.", "value any", { decides: "unless failing", caught: "all" }],
  ]),
  ...logicRows({
    truth: "true or false",
    result: "boolean",
    condition: "condition",
    evaluates: "both",
    inConditions: "rows left open",
    constants: "any",
    evidence: [operatorsDoc, operatorsDoc, operatorsDoc],
  }),
  ...mathRows({ names: "acosh", ...math, answers: { ...math.answers, outside: "not a number" } }),
  ...mathRows({
    names: "acos asin asinh atan atan2 cbrt cos cosh degrees exp ln log10 log2 radians sin sinh sqrt tan tanh",
    ...math,
  }),
  ...mathRows({ names: "cot", ...math, answers: { ...math.answers, overflow: "error" } }),
  piRow("pi", math),
  ...[...wholeTypes.filter((type) => !unsignedTypes.includes(type)), "decimal", "double"].flatMap((type) =>
    signedRows({ "-": "opposite" }, { type, result: ownResult(type), answers: signs, evidence: numbers }),
  ),
  ...[...wholeTypes, "decimal", "double"].flatMap((type) => [
    ...signedRows({ abs: "size" }, { type, result: ownResult(type), answers: signs, evidence: numbers }),
    ...signedRows({ sign: "sign" }, { type, result: "tinyint", answers: signs, evidence: numbers }),
  ]),
  ...[
    { type: "fraction", result: "decimal" },
    { type: "double", result: "double" },
  ].flatMap((kind) =>
    roundRows(
      { trunc: "toward zero", ceil: "up", ceiling: "up", floor: "down" },
      { ...kind, answers: { missing, numbers: "exact" }, evidence: numbers },
    ),
  ),
  ...wholeTypes.flatMap((type) => {
    const row = { type, answers: { ...shifting, range: rangeOf(type) }, evidence: numbers } as const;
    return [
      ...bitRows({ "~": "not", "&": "and", "|": "or", xor: "xor", "<<": "left", ">>": "right" }, row),
      ...(type === "hugeint" ? [] : bitRows({ bit_count: "count" }, { ...row, result: "tinyint" })),
    ];
  }),
  ...wholeTypes.flatMap((type) =>
    itselfRows(["trunc"], { type, summary: "The whole number itself.", result: type, evidence: numbers }),
  ),
  ...[...wholeTypes, "decimal", "double"].flatMap((type) =>
    itselfRows(["+"], { type, summary: "The number itself.", result: ownResult(type), notation: "operator", evidence: numbers }),
  ),
  ...Object.keys(collations).flatMap((name) =>
    itselfRows([`collate ${name}`], {
      type: "text",
      summary: "The text, compared in a collation.",
      result: `text ${name}`,
      notation: "operator",
      evidence: operatorsDoc,
    }),
  ),
  ...coded,
  ...aggregates,
];

/** The functions and operators of DuckDB 1.5. */
export const duckdbRows: readonly FunctionRow[] = refusing(rows.map(dated), refused);
