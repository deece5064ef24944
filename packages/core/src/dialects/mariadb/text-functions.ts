import { pure } from "../shared/rows.ts";
import type { FunctionRow } from "../row.ts";
import { byBytes, collations } from "./types.ts";
import { strings, patterns, numeric } from "./evidence.ts";

export const missing = "null" as const;
export const signs = { missing, numbers: "exact", signKind: "whole" } as const;
export const inBits = {
  missing,
  range: "64 bits without a sign",
  placesBelow: "a count of 32 bits",
  placesBeyond: "zero",
} as const;
export const math = {
  result: "double",
  answers: { missing, numbers: "exact", outside: "null", overflow: "error", tooSmall: "zero", closeness: "nearest" },
  evidence: numeric,
} as const;
export const sliced = {
  missing,
  unit: "code point",
  first: "1",
  from: "start",
  third: "length",
  startBelow: "from the end or nothing",
  negativeLength: "empty",
  startBeyond: "empty",
  fraction: "rounded",
} as const;
export const trimmed = { missing, inner: "kept", characters: "space", removed: "whole" } as const;
const joined = { missing, missingItem: "null", emptyItem: "kept" } as const;
const recased = { missing, mapping: "early simple", words: "space", restOfWord: "lowered" } as const;
export const padded = {
  missing,
  unit: "code point",
  negativeCount: "null",
  longer: "cut",
  emptyFill: "null",
  tooLong: "null beyond 16 MiB",
} as const;
const found = { missing, pattern: "pcre", group: "match" } as const;
const letterCases = ["general", "unicode", "minded"] as const;

/** The collations that tell letters apart in one of several ways. */
const collationsBy = (...cases: readonly string[]): readonly string[] =>
  Object.entries(collations).flatMap(([name, { case: letterCase }]) => (cases.includes(letterCase) ? [name] : []));
const lettersAlike = collationsBy("general", "unicode");
const byteForByte = [...collationsBy("minded"), "binary"];

/** A row for each way in which letters are told apart. */
const eachCase = (make: (letterCase: (typeof letterCases)[number]) => FunctionRow): FunctionRow[] =>
  letterCases.map((letterCase) => ({
    ...make(letterCase),
    collations: letterCase === "minded" ? byteForByte : collationsBy(letterCase),
  }));
const eachPatternCase = (make: (letterCase: "ignored" | "minded") => FunctionRow): FunctionRow[] => [
  { ...make("ignored"), collations: lettersAlike },
  { ...make("minded"), collations: byteForByte },
];

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
export const text: FunctionRow[] = [
  pure("substring(text text, start position, count? position > length): text", "Characters from a position, from the end when negative.",
    "slice", sliced, strings, { aliases: ["substr", "mid"] }),
  pure("left(text text, count position > length): text", "The first n characters.", "slice", sliced, strings, { fixed: { start: 1 } }),
  pure("right(text text, count position > length): text", "The last n characters.",
    "slice", { ...sliced, from: "end" }, strings, { fixed: { start: 1 } }),
  pure("substring_index(text text, delimiter text, n int32): text", "What stands before the nth delimiter, or after the nth from the end.",
    "segment", { missing, part: "through nth", zeroPiece: "empty", noPiece: "empty", absent: "whole",
      emptyNeedle: "nowhere", case: "minded" },
    strings),
  pure("reverse(text text): text", "The characters in reverse order.", "reverse", { missing, unit: "code point" }, strings),
  ...eachCase((letterCase): FunctionRow => pure("locate(needle text, text text, start? position): integer",
    "The position of a text from a start on, 0 when absent.",
    "locate", { missing, unit: "code point", first: "1", pattern: "literal", case: letterCase, absent: "zero",
      startBelow: "nowhere", emptyNeedle: "before a character", fraction: "rounded" },
    strings)),
  ...eachCase((letterCase): FunctionRow => pure("instr(text text, needle text): integer", "The position of a text, 0 when absent.",
    "locate", { missing, unit: "code point", first: "1", pattern: "literal", case: letterCase, absent: "zero",
      startBelow: "nowhere", emptyNeedle: "before a character", fraction: "rounded" },
    strings, { aliases: ["position"] })),
  ...eachCase((letterCase): FunctionRow => pure("like(text text, pattern text > needle, escape?! escape > flags): integer",
    "Whether the whole text fits a pattern of % and _.",
    "test", { missing, pattern: "like, escape literal", where: "whole", truth: "1 or 0", case: letterCase },
    strings, { notation: "operator" })),
  ...eachPatternCase((letterCase): FunctionRow => pure("regexp(text text, pattern pattern > needle): integer", "Whether a pattern matches.",
    "test", { missing, pattern: "pcre", where: "anywhere", truth: "1 or 0", case: letterCase }, patterns, { notation: "operator" })),
  ...eachPatternCase((letterCase): FunctionRow => pure("regexp_instr(text text, pattern pattern > needle): integer",
    "The position of the first match of a pattern, 0 when absent.",
    "find", { ...found, case: letterCase, report: "position", absent: "zero" }, patterns)),
  ...eachPatternCase((letterCase): FunctionRow => pure("regexp_substr(text text, pattern pattern > needle): text",
    "The first match of a pattern, empty when there is none.",
    "find", { ...found, case: letterCase, report: "text", absent: "empty" }, patterns, { family: "extract" })),
  ...eachPatternCase((letterCase): FunctionRow => pure("regexp_replace(text text, pattern pattern > old, replacement text > new): text",
    "Replaces every match of a pattern.",
    "substitute", { missing, pattern: "pcre", case: letterCase, occurrences: "all", replacement: "backslash digits",
      emptyMatch: "ends", emptyOld: "null" },
    patterns)),
  // Where texts are compared byte for byte it looks at what it puts in only where it finds something.
  ...([["whole", lettersAlike], ["whole if not found", byteForByte]] as const).map(([emptyOld, meant]): FunctionRow =>
    pure("replace(text text, old text, new text): text",
      "Replaces a text everywhere, case minded.",
      "substitute", { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal",
      emptyMatch: "allowed", emptyOld },
    strings, { collations: meant })),
  pure("insert(text text, start position, length position, new text): text", "Replaces a number of characters from a position.",
    "replace-span", { missing, unit: "code point", first: "1", startBelow: "unchanged", spanBeyond: "unchanged",
      negativeSpan: "to the end", farEnd: "taken", fraction: "rounded" },
    strings),
  pure("upper(text text): text", "All letters in upper case.", "recase", { ...recased, form: "upper" }, strings, { aliases: ["ucase"] }),
  pure("lower(text text): text", "All letters in lower case.", "recase", { ...recased, form: "lower" }, strings, { aliases: ["lcase"] }),
  pure("trim(text text, removed? text > characters): text", "Without a text at both ends, a space unless one is given.",
    "trim", { ...trimmed, ends: "both" }, strings),
  pure("trim leading(text text, removed? text > characters): text", "Without a text at the start, a space unless one is given.",
    "trim", { ...trimmed, ends: "start" }, strings),
  pure("trim trailing(text text, removed? text > characters): text", "Without a text at the end, a space unless one is given.",
    "trim", { ...trimmed, ends: "end" }, strings),
  pure("ltrim(text text): text", "Without spaces at the start.", "trim", { ...trimmed, ends: "start" }, strings),
  pure("rtrim(text text): text", "Without spaces at the end.", "trim", { ...trimmed, ends: "end" }, strings),
  pure("char_length(text text): integer", "The number of characters.",
    "measure", { missing, counted: "code point" }, strings, { aliases: ["character_length"] }),
  pure("length(text text): integer", "The number of bytes.",
    "measure", { missing, counted: "utf-8 byte" }, strings, { aliases: ["octet_length", "lengthb"] }),
  pure("bit_length(text text): integer", "The number of bits.", "measure", { missing, counted: "utf-8 bit" }, strings),
  pure("ascii(text text): integer", "The first byte.", "code-of", { missing, alphabet: "utf-8 byte", ofEmpty: "zero" }, strings),
  pure("repeat(text text, count position): text", "A text several times over.",
    "repeat", { missing, negativeCount: "empty", fraction: "rounded", tooLong: "null beyond 16 MiB" }, strings),
  pure("space(count position): text", "A number of spaces.",
    "repeat", { missing, negativeCount: "empty", fraction: "rounded", tooLong: "null beyond 16 MiB" }, strings, { fixed: { text: " " } }),
  pure("lpad(text text, length position, fill? text): text", "Filled up at the start, or cut at the end.",
    "pad", { ...padded, side: "left" }, strings),
  pure("rpad(text text, length position, fill? text): text", "Filled up at the end, or cut there.",
    "pad", { ...padded, side: "right" }, strings),
  pure("concat(values* text > items): text", "Joins values; null with anything is null.", "join", joined, strings),
  pure("concat_ws(separator text, values* text > items): text", "Joins values with a separator, skipping null.",
    "join", { ...joined, missingItem: "skipped" }, strings),
  ...Object.entries(collations).map(([name, collation]): FunctionRow => pure("strcmp(left string > a, right string > b): integer",
    "-1, 0 or 1 by the order of two texts.",
    "compare", { missing, ...collation, mixed: "error", notANumber: "there is none", truth: "1 or 0" },
    strings, { fixed: { relation: "order" }, collations: [name] })),
  pure("strcmp(left text > a, right text > b): integer", "-1, 0 or 1 by the order of two texts.",
    "compare", { missing, case: "general", padding: "padded", mixed: "error", notANumber: "there is none", truth: "1 or 0" },
    strings, { fixed: { relation: "order" } }),
  pure("strcmp(left bytes > a, right bytes > b): integer", "-1, 0 or 1 by the order of two texts of bytes.",
    "compare", { missing, ...byBytes, mixed: "error", notANumber: "there is none", truth: "1 or 0" },
    strings, { fixed: { relation: "order" } }),
];
