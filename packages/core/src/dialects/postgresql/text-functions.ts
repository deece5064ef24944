import { pure } from "../shared/rows.ts";
import { type FunctionRow, params } from "../row.ts";
import { doc, strings, patterns } from "./evidence.ts";

export const missing = "null" as const;
export const exact = { missing, numbers: "exact" } as const;
export const signs = { ...exact, signKind: "the number's" } as const;
export const ranges = { smallint: "16 bits", integer: "32 bits", bigint: "64 bits" } as const;
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
export const joined = { missing, missingItem: "skipped", emptyItem: "kept" } as const;

/** What changes the case of letters; `mapping` is the C library's. */
// prettier-ignore
export const recasing = (mapping: "simple" | "simple, capital ß" | "ascii", type = "text"): FunctionRow[] => {
  const recased = { missing, mapping, words: type === "text" ? "not alphanumeric" : "not ascii alphanumeric",
    restOfWord: "lowered" } as const;
  return [
    pure(`upper(text ${type}): ${type}`, "All letters in upper case.", "recase", { ...recased, form: "upper" }, strings),
    pure(`lower(text ${type}): ${type}`, "All letters in lower case.", "recase", { ...recased, form: "lower" }, strings),
    pure(`initcap(text ${type}): ${type}`, "Each word with an upper case start.", "recase", { ...recased, form: "title" }, strings),
  ];
};

/** ILIKE where one of the texts has the collation C. */
export const ilikeInC = ["text text_c, pattern text > needle", "text text, pattern text_c > needle"].map((form): FunctionRow => ({
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
export const text: FunctionRow[] = [
  pure("substring(text text, start integer, count? integer > length): text", "A number of characters from a position.",
    "slice", sliced, strings, { aliases: ["substr"] }),
  pure("left(text text, count integer > length): text", "The first n characters, or all but the last -n.",
    "slice", { ...sliced, negativeLength: "all but" }, strings, { fixed: { start: 1 } }),
  pure("right(text text, count integer > length): text", "The last n characters, or all but the first -n.",
    "slice", { ...sliced, negativeLength: "all but", from: "end" }, strings, { fixed: { start: 1 } }),
  pure("split_part(text text, delimiter text, n integer): text", "The nth piece between delimiters, from the end when negative.",
    "segment", { missing, part: "nth", zeroPiece: "error", noPiece: "empty", absent: "whole", emptyNeedle: "nowhere", case: "minded" },
    strings),
  pure("reverse(text text): text", "The characters in reverse order.", "reverse", { missing, unit: "code point" }, strings),
  pure("strpos(text text, needle text): integer", "The position of a text, 0 when absent.",
    "locate", located, strings, { aliases: ["position"] }),
  pure("starts_with(text text, start text > needle): boolean", "Whether a text starts with another.",
    "test", { missing, pattern: "literal", case: "minded", where: "start", truth: "true or false" }, strings),
  pure("^@(text text, start text > needle): boolean", "Whether a text starts with another.",
    "test", { missing, pattern: "literal", case: "minded", where: "start", truth: "true or false" }, strings),
  pure("like(text text, pattern text > needle, escape? escape > flags): boolean", "Whether the whole text fits a pattern of % and _.",
    "test", { missing, pattern: "like", where: "whole", truth: "true or false", case: "minded" }, doc("9.7.1"), { notation: "operator" }),
  pure("ilike(text text, pattern text > needle, escape? escape > flags): boolean", "LIKE, ignoring case.",
    "test", { missing, pattern: "like", where: "whole", truth: "true or false", case: "lowered" }, doc("9.7.1"), { notation: "operator" }),
  pure("substring similar(text text, pattern text > needle, escape escape > flags): text",
    "The part of a text that an SQL regular expression marks.",
    "find", { missing, pattern: "similar", case: "minded", report: "text", group: "first group", absent: "null" },
    patterns, { family: "extract" }),
  pure("similar to(text text, pattern text > needle, escape? escape > flags): boolean",
    "Whether the whole text fits an SQL regular expression.",
    "test", { missing, pattern: "similar", where: "whole", truth: "true or false", case: "minded" }, doc("9.7.2")),
  pure("~(text text, pattern text > needle): boolean", "Whether a pattern matches, case minded.",
    "test", { ...matching, where: "anywhere", truth: "true or false" }, patterns),
  pure("~*(text text, pattern text > needle): boolean", "Whether a pattern matches, ignoring case.",
    "test", { ...matching, case: "ignored", where: "anywhere", truth: "true or false" }, patterns),
  pure("regexp_like(text text, pattern text > needle, flags? text): boolean", "Whether a pattern matches.",
    "test", { ...matching, where: "anywhere", truth: "true or false" }, patterns),
  pure("regexp_count(text text, pattern text > needle, start? integer, flags? text): integer", "How often a pattern matches.",
    "find", { ...found, report: "count", absent: "zero" }, patterns),
  pure("regexp_instr(text text, pattern text > needle, start? integer, n? integer, side? integer, flags? text, group? integer): integer",
    "The position of the nth match of a pattern, 0 when absent.",
    "find", { ...found, report: "position", absent: "zero" }, patterns),
  pure("regexp_substr(text text, pattern text > needle, start? integer, n? integer, flags? text, group? integer): text",
    "The nth match of a pattern.",
    "find", { ...found, report: "text" }, patterns, { family: "extract" }),
  pure("regexp_match(text text, pattern text > needle, flags? text): text[]", "The groups of the first match, as an array.",
    "find", { ...found, report: "groups" }, patterns, { family: "extract" }),
  pure("substring(text text, pattern text > needle): text", "What a pattern, or its first group, matches.",
    "find", { ...found, report: "text", group: "first group" }, doc("9.7.3"), { family: "extract" }),
  pure("replace(text text, old text, new text): text", "Replaces a text everywhere.",
    "substitute", { ...replacing, pattern: "literal", occurrences: "all", replacement: "literal" }, strings),
  pure("regexp_replace(text text, pattern text > old, replacement text > new, flags? text): text",
    "Replaces the first match of a pattern, or all with flag g.",
    "substitute", replacing, patterns),
  pure("regexp_replace(text text, pattern text > old, replacement text > new, start integer, n? integer > which, flags? text): text",
    "Replaces matches of a pattern from a position on.",
    "substitute", replacing, patterns),
  pure("overlay(text text, new text, start integer, count? integer > length): text", "Replaces a number of characters from a position.",
    "replace-span", spanned, strings),
  pure("translate(text text, from text, to text): text", "Maps single characters, or drops them.",
    "translate", { missing, unit: "code point" }, strings),
  pure("quote_literal(text quotable > text): text", "The text as an SQL literal.", "escape", { missing, scheme: "sql literal" }, strings),
  pure("quote_ident(text text): text", "The text as an SQL name.", "escape", { missing, scheme: "sql name" }, strings),
  pure("normalize(text text, form? text): text", "A Unicode normal form.", "normalize", { missing, asked: "text" }, strings),
  pure("btrim(text text, characters? text): text", "Without given characters at both ends.", "trim", { ...trimmed, ends: "both" }, strings),
  pure("ltrim(text text, characters? text): text", "Without given characters at the start.",
    "trim", { ...trimmed, ends: "start" }, strings),
  pure("rtrim(text text, characters? text): text", "Without given characters at the end.", "trim", { ...trimmed, ends: "end" }, strings),
  pure("length(text text): integer", "The number of characters.",
    "measure", { missing, counted: "code point" }, strings, { aliases: ["char_length", "character_length"] }),
  pure("octet_length(text text): integer", "The number of bytes.", "measure", { missing, counted: "utf-8 byte" }, strings),
  pure("octet_length(text padded): integer", "The number of bytes, blanks at the end counted.",
    "measure", { missing, counted: "utf-8 byte" }, strings),
  pure("bit_length(text text): integer", "The number of bits.", "measure", { missing, counted: "utf-8 bit" }, strings),
  pure("ascii(text text): integer", "The code point of the first character.",
    "code-of", { missing, alphabet: "unicode", ofEmpty: "zero" }, strings),
  pure("chr(code integer > number): text", "The character of a code point.",
    "char-of", { missing, alphabet: "unicode", fraction: "refused" }, strings),
  pure("repeat(text text, count integer): text", "A text several times over.",
    "repeat", { missing, negativeCount: "empty", fraction: "refused", tooLong: "error" }, strings),
  pure("lpad(text text, length integer, fill? text): text", "Filled up at the start, or cut at the end.",
    "pad", { missing, unit: "code point", side: "left", negativeCount: "empty", longer: "cut", emptyFill: "whole", tooLong: "error" },
    strings),
  pure("rpad(text text, length integer, fill? text): text", "Filled up at the end, or cut there.",
    "pad", { missing, unit: "code point", side: "right", negativeCount: "empty", longer: "cut", emptyFill: "whole", tooLong: "error" },
    strings),
  pure("concat(values* output > items): text", "Joins values, skipping null.", "join", joined, strings),
  pure("concat_ws(separator text, values* output > items): text", "Joins values with a separator, skipping null.", "join", joined, strings),
  pure("||(left text > items, right nonarray > items): text", "Joins two texts; null with anything is null.",
    "join", { ...joined, missingItem: "null" }, strings),
  pure("||(left nonarray > items, right text > items): text", "Joins two texts; null with anything is null.",
    "join", { ...joined, missingItem: "null" }, strings),
  pure("array_to_string(list shownarray > items, separator text, forNull? text > forMissing): text", "Joins the items of an array.",
    "join", joined, doc("9.19")),
  pure("string_to_array(text text, delimiter text, forNull? text > missingPiece): text[]",
    "Splits at a delimiter; null splits into characters.",
    "split", literalSplit, strings),
  pure("is normalized(text text, form text): boolean", "Whether a text is in a normal form.",
    "normalize", { missing, asked: "whether" }, strings, { family: "measure-test" }),
  pure("is_normalized(text text, form? text): boolean", "Whether a text is in a normal form.",
    "normalize", { missing, asked: "whether" }, strings, { family: "measure-test" }),
  pure("regexp_split_to_array(text text, pattern text > delimiter, flags? text): text[]", "Splits at the matches of a pattern.",
    "split", patternSplit, patterns),
];

/** Pattern operators on a `char(n)`, whose blanks at the end are then minded. */
export const padded: FunctionRow[] = text
  .filter(({ name }) => ["like", "ilike", "similar to", "~", "~*"].includes(name))
  .map((row) => ({ ...row, parameters: row.parameters.map((each, i) => (i === 0 ? { ...each, type: "padded" } : each)) }));
