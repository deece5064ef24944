import { calendarRows } from "../shared/calendar.ts";
import { type Coded, codedRows, steppedRows } from "../shared/coded.ts";
import { decidingRows, presentRows } from "../shared/deciding.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { bitRows, roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates, meanRow } from "./aggregates.ts";
import { type FunctionRow, isPure, params } from "../row.ts";
import { formatTokens } from "./formats.ts";
import { step } from "../step.ts";
import { type Alike, byBytes, collations } from "./types.ts";

const doc = (section: string) => `MariaDB 10.11.19, ${section}`;
const strings = doc("String Functions");
const operatorsDoc = doc("Operators");
const patterns = doc("Regular Expressions Functions");
const numeric = doc("Numeric Functions");
const dates = doc("Date & Time Functions");
const control = doc("Control Flow Functions");
const misc = doc("Information and Miscellaneous Functions");
const oracle = doc("sql_mode, functions of compatible names");

const missing = "null" as const;
const signs = { missing, numbers: "exact", signKind: "whole" } as const;
const inBits = {
  missing,
  range: "64 bits without a sign",
  placesBelow: "a count of 32 bits",
  placesBeyond: "zero",
} as const;
const math = {
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
const trimmed = { missing, inner: "kept", characters: "space", removed: "whole" } as const;
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
const text: FunctionRow[] = [
  { name: "substring", aliases: ["substr", "mid"], family: "extract", summary: "Characters from a position, from the end when negative.", parameters: params("text text, start position, count? position > length"), result: "text", operation: "slice", answers: sliced, evidence: strings },
  { name: "left", family: "extract", summary: "The first n characters.", parameters: params("text text, count position > length"), result: "text", operation: "slice", answers: sliced, fixed: { start: 1 }, evidence: strings },
  { name: "right", family: "extract", summary: "The last n characters.", parameters: params("text text, count position > length"), result: "text", operation: "slice", answers: { ...sliced, from: "end" }, fixed: { start: 1 }, evidence: strings },
  { name: "substring_index", family: "extract", summary: "What stands before the nth delimiter, or after the nth from the end.", parameters: params("text text, delimiter text, n int32"), result: "text", operation: "segment", answers: { missing, part: "through nth", zeroPiece: "empty", noPiece: "empty", absent: "whole", emptyNeedle: "nowhere", case: "minded" }, evidence: strings },
  { name: "reverse", family: "extract", summary: "The characters in reverse order.", parameters: params("text text"), result: "text", operation: "reverse", answers: { missing, unit: "code point" }, evidence: strings },
  ...eachCase((letterCase): FunctionRow => ({ name: "locate", family: "locate", summary: "The position of a text from a start on, 0 when absent.", parameters: params("needle text, text text, start? position"), result: "integer", operation: "locate", answers: { missing, unit: "code point", first: "1", pattern: "literal", case: letterCase, absent: "zero", startBelow: "nowhere", emptyNeedle: "before a character", fraction: "rounded" }, evidence: strings })),
  ...eachCase((letterCase): FunctionRow => ({ name: "instr", aliases: ["position"], family: "locate", summary: "The position of a text, 0 when absent.", parameters: params("text text, needle text"), result: "integer", operation: "locate", answers: { missing, unit: "code point", first: "1", pattern: "literal", case: letterCase, absent: "zero", startBelow: "nowhere", emptyNeedle: "before a character", fraction: "rounded" }, evidence: strings })),
  ...eachCase((letterCase): FunctionRow => ({ name: "like", family: "locate", summary: "Whether the whole text fits a pattern of % and _.", parameters: params("text text, pattern text > needle, escape?! escape > flags"), result: "integer", operation: "test", answers: { missing, pattern: "like, escape literal", where: "whole", truth: "1 or 0", case: letterCase }, notation: "operator", evidence: strings })),
  ...eachPatternCase((letterCase): FunctionRow => ({ name: "regexp", family: "locate", summary: "Whether a pattern matches.", parameters: params("text text, pattern pattern > needle"), result: "integer", operation: "test", answers: { missing, pattern: "pcre", where: "anywhere", truth: "1 or 0", case: letterCase }, notation: "operator", evidence: patterns })),
  ...eachPatternCase((letterCase): FunctionRow => ({ name: "regexp_instr", family: "locate", summary: "The position of the first match of a pattern, 0 when absent.", parameters: params("text text, pattern pattern > needle"), result: "integer", operation: "find", answers: { ...found, case: letterCase, report: "position", absent: "zero" }, evidence: patterns })),
  ...eachPatternCase((letterCase): FunctionRow => ({ name: "regexp_substr", family: "extract", summary: "The first match of a pattern, empty when there is none.", parameters: params("text text, pattern pattern > needle"), result: "text", operation: "find", answers: { ...found, case: letterCase, report: "text", absent: "empty" }, evidence: patterns })),
  ...eachPatternCase((letterCase): FunctionRow => ({ name: "regexp_replace", family: "substitute", summary: "Replaces every match of a pattern.", parameters: params("text text, pattern pattern > old, replacement text > new"), result: "text", operation: "substitute", answers: { missing, pattern: "pcre", case: letterCase, occurrences: "all", replacement: "backslash digits", emptyMatch: "ends", emptyOld: "null" }, evidence: patterns })),
  // Where texts are compared byte for byte it looks at what it puts in only where it finds something.
  ...([["whole", lettersAlike], ["whole if not found", byteForByte]] as const).map(([emptyOld, meant]): FunctionRow => ({ collations: meant, name: "replace", family: "substitute", summary: "Replaces a text everywhere, case minded.", parameters: params("text text, old text, new text"), result: "text", operation: "substitute", answers: { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal", emptyMatch: "allowed", emptyOld }, evidence: strings })),
  { name: "insert", family: "substitute", summary: "Replaces a number of characters from a position.", parameters: params("text text, start position, length position, new text"), result: "text", operation: "replace-span", answers: { missing, unit: "code point", first: "1", startBelow: "unchanged", spanBeyond: "unchanged", negativeSpan: "to the end", farEnd: "taken", fraction: "rounded" }, evidence: strings },
  { name: "upper", aliases: ["ucase"], family: "recase", summary: "All letters in upper case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "upper" }, evidence: strings },
  { name: "lower", aliases: ["lcase"], family: "recase", summary: "All letters in lower case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "lower" }, evidence: strings },
  { name: "trim", family: "trim", summary: "Without a text at both ends, a space unless one is given.", parameters: params("text text, removed? text > characters"), result: "text", operation: "trim", answers: { ...trimmed, ends: "both" }, evidence: strings },
  { name: "trim leading", family: "trim", summary: "Without a text at the start, a space unless one is given.", parameters: params("text text, removed? text > characters"), result: "text", operation: "trim", answers: { ...trimmed, ends: "start" }, notation: "operator", evidence: strings },
  { name: "trim trailing", family: "trim", summary: "Without a text at the end, a space unless one is given.", parameters: params("text text, removed? text > characters"), result: "text", operation: "trim", answers: { ...trimmed, ends: "end" }, notation: "operator", evidence: strings },
  { name: "ltrim", family: "trim", summary: "Without spaces at the start.", parameters: params("text text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "start" }, evidence: strings },
  { name: "rtrim", family: "trim", summary: "Without spaces at the end.", parameters: params("text text"), result: "text", operation: "trim", answers: { ...trimmed, ends: "end" }, evidence: strings },
  { name: "char_length", aliases: ["character_length"], family: "measure-test", summary: "The number of characters.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "code point" }, evidence: strings },
  { name: "length", aliases: ["octet_length", "lengthb"], family: "measure-test", summary: "The number of bytes.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: strings },
  { name: "bit_length", family: "measure-test", summary: "The number of bits.", parameters: params("text text"), result: "integer", operation: "measure", answers: { missing, counted: "utf-8 bit" }, evidence: strings },
  { name: "ascii", family: "measure-test", summary: "The first byte.", parameters: params("text text"), result: "integer", operation: "code-of", answers: { missing, alphabet: "utf-8 byte", ofEmpty: "zero" }, evidence: strings },
  { name: "repeat", family: "pad", summary: "A text several times over.", parameters: params("text text, count position"), result: "text", operation: "repeat", answers: { missing, negativeCount: "empty", fraction: "rounded", tooLong: "null beyond 16 MiB" }, evidence: strings },
  { name: "space", family: "pad", summary: "A number of spaces.", parameters: params("count position"), result: "text", operation: "repeat", answers: { missing, negativeCount: "empty", fraction: "rounded", tooLong: "null beyond 16 MiB" }, fixed: { text: " " }, evidence: strings },
  { name: "lpad", family: "pad", summary: "Filled up at the start, or cut at the end.", parameters: params("text text, length position, fill? text"), result: "text", operation: "pad", answers: { ...padded, side: "left" }, evidence: strings },
  { name: "rpad", family: "pad", summary: "Filled up at the end, or cut there.", parameters: params("text text, length position, fill? text"), result: "text", operation: "pad", answers: { ...padded, side: "right" }, evidence: strings },
  { name: "concat", family: "split-join", summary: "Joins values; null with anything is null.", parameters: params("values* text > items"), result: "text", operation: "join", answers: joined, evidence: strings },
  { name: "concat_ws", family: "split-join", summary: "Joins values with a separator, skipping null.", parameters: params("separator text, values* text > items"), result: "text", operation: "join", answers: { ...joined, missingItem: "skipped" }, evidence: strings },
  ...Object.entries(collations).map(([name, collation]): FunctionRow => ({ collations: [name], name: "strcmp", family: "measure-test", summary: "-1, 0 or 1 by the order of two texts.", parameters: params("left string > a, right string > b"), result: "integer", operation: "compare", answers: { missing, ...collation, mixed: "error", notANumber: "there is none", truth: "1 or 0" }, fixed: { relation: "order" }, evidence: strings })),
  { name: "strcmp", family: "measure-test", summary: "-1, 0 or 1 by the order of two texts.", parameters: params("left text > a, right text > b"), result: "integer", operation: "compare", answers: { missing, case: "general", padding: "padded", mixed: "error", notANumber: "there is none", truth: "1 or 0" }, fixed: { relation: "order" }, evidence: strings },
  { name: "strcmp", family: "measure-test", summary: "-1, 0 or 1 by the order of two texts of bytes.", parameters: params("left bytes > a, right bytes > b"), result: "integer", operation: "compare", answers: { missing, ...byBytes, mixed: "error", notANumber: "there is none", truth: "1 or 0" }, fixed: { relation: "order" }, evidence: strings },
];

const compared: readonly { readonly type: string; readonly alike: Alike; readonly collations?: readonly string[] }[] = [
  ...Object.entries(collations).map(([name, alike]) => ({ type: "string", alike, collations: [name] })),
  { type: "bytes", alike: byBytes, collations: ["binary"] },
  ...["whole", "exact", "moment", "clock", "floating"].map((type) => ({ type, alike: byBytes })),
];

// prettier-ignore
const operators: FunctionRow[] = [
  ...relationsWith("<=>").flatMap((relation) =>
    compared.map(({ type, alike, ...meant }) =>
      comparisonRow(relation, {
        ...meant,
        left: type,
        right: type,
        result: "integer",
        answers: { missing, ...alike, mixed: "error", notANumber: "there is none", truth: "1 or 0" },
        evidence: operatorsDoc,
      }),
    ),
  ),
  ...([
    ["+", "+", { whole: "integer, of any", exact: "decimal, most", floating: "double, most" }],
    ["-", "-", { whole: "integer, of any", exact: "decimal, most", floating: "double, most" }],
    ["*", "*", { whole: "integer, of any", exact: "decimal, sum", floating: "double, most" }],
    ["/", "/", { exact: "decimal, four more", floating: "double, four more" }],
    ["%", "mod", { whole: "integer, of the first", exact: "decimal, most", floating: "double, most" }],
    ["div", "idiv", { whole: "integer, of any", exact: "integer, of any" }],
  ] as const).flatMap(([name, sign, byType]) =>
    Object.entries(byType).map(([type, result]): FunctionRow => ({
        name,
        aliases: name === "%" ? ["mod"] : [],
        family: "convert",
        summary: "Arithmetic on two numbers; a text counts as the number that it begins with.",
        parameters: params(`left ${name === "div" && type === "exact" ? "decimal" : type} > a, right ${name === "div" && type === "exact" ? "decimal" : type} > b`),
        result,
        operation: "calculate",
        answers: { missing, numbers: "exact", quotient: "decimal", quotientDigits: "four more decimals", byZero: "null", doubleByZero: "null", overflow: "infinity", remainder: "of fractions", remainderSign: "of what is divided", tooSmall: "zero" },
        fixed: { sign },
        notation: "operator",
        evidence: operatorsDoc,
      })),
  ),
];

const ofDate = (name: string, summary: string, result = "integer"): Coded => [
  name,
  "convert",
  summary,
  "date datetime",
  result,
  dates,
];
// prettier-ignore
const coded = codedRows(
  [
    ["ord", "convert", "The bytes of the first character as a number.", "text text", "integer", strings],
    ["char", "convert", "The bytes of numbers.", "codes* integer", "hextext", strings],
    ["char using", "convert", "The characters of numbers.", "codes* integer", "text", strings],
    ["chr", "convert", "The character of a byte.", "code integer", "text", strings],
    ["hex", "convert", "A number, or the bytes of a text, in base 16.", "value any", "own text", strings],
    ["unhex", "convert", "Bytes from base 16; null for anything else.", "text text", "hextext char", strings],
    ["bin", "convert", "A number in base 2.", "number text", "own text", strings],
    ["oct", "convert", "A number in base 8.", "number text", "own text", numeric],
    ["conv", "convert", "A number from one base to another.", "number text, from int32, to int32", "own text", numeric],
    ["field", "list", "The place of a value among others, 0 when it is none of them.", "value any, values* any", "integer", strings],
    ["find_in_set", "list", "The place of a text in a list with commas, 0 when it is not there.", "text text, list text", "integer", strings],
    ["make_set", "list", "The values whose bits are set, with commas.", "bits integer, values* any", "text", strings],
    ["export_set", "list", "One text for each bit that is set, another for each that is not.", "bits integer, on text, off text, separator? text, count? integer", "text", strings],
    ["interval", "list", "How many of the sorted values are not above the first.", "value any, values* any", "integer", control],
    ["format", "convert", "A number with thousands separated.", "number any, decimals integer, locale? text", "own text", strings],
    ["quote", "convert", "The text as an SQL literal.", "text any", "text", strings],
    ["soundex", "convert", "A key of how a text sounds.", "text text", "text", strings],
    ["to_base64", "convert", "The bytes in base 64.", "text binary", "text", strings],
    ["from_base64", "convert", "Bytes from base 64; null for anything else.", "text text", "hextext", strings],
    ["md5", "convert", "The MD5 digest in base 16.", "text binary", "text", strings],
    ...["sha", "sha1"].map((name): Coded => [name, "convert", "The SHA-1 digest in base 16.", "text binary", "text", strings]),
    ["sha2", "convert", "A SHA-2 digest of so many bits in base 16, null where there is none.", "text binary, bits integer", "digest", strings],
    ["crc32", "convert", "A check sum.", "text binary", "unsigned", numeric],
    ["crc32", "convert", "A check sum, going on from another.", "before integer, text binary", "unsigned", numeric],
    ["crc32c", "convert", "A check sum (Castagnoli).", "text binary", "unsigned", numeric],
    ["crc32c", "convert", "A check sum (Castagnoli), going on from another.", "before integer, text binary", "unsigned", numeric],
    ["natural_sort_key", "convert", "A key that sorts 2 before 12.", "text text", "text", strings],
    ["inet_aton", "convert", "The number of an address of four parts.", "address text", "unsigned", misc],
    ["inet_ntoa", "convert", "The address of four parts of a number.", "number integer", "text char", misc],
    ["is_ipv4", "convert", "Whether the text is an address of four parts.", "text text", "integer", misc],
    ["charset", "convert", "The character set of a value.", "value any", "own text", misc],
    ["collation", "convert", "The collation of a value.", "value any", "own text", misc],
    ["get_format", "convert", "A format of dates by its place.", "kind text, place text", "own text", dates],
    ["replace_oracle", "convert", "replace(), null being empty text.", "text text, old text, new text", "text", oracle],
    ["concat_operator_oracle", "convert", "Joins values, skipping null.", "values* text", "text", oracle],
    ["sformat", "split-join", "Fills the places {} of a format.", "format text, values?* any", "text", strings],
    ["nvl2", "logic", "The second value where the first is not null, otherwise the third.", "value any, present any, absent any", "unified, but the first", control],
    ["greatest", "logic", "The largest value; null if one is null.", "first any, values* any", "extreme", operatorsDoc],
    ["least", "logic", "The smallest value; null if one is null.", "first any, values* any", "extreme", operatorsDoc],
    ...[["whole", "integer, of the first"], ["exact", "decimal, as asked"], ["floating", "double, as asked"]].flatMap(([type, result]): Coded[] => [
      ["round", "convert", "Rounded, halves away from zero.", `number ${type}, decimals? integer`, result, numeric],
      ["truncate", "convert", "Cut to a number of decimals.", `number ${type}, decimals integer`, result, numeric],
    ]),
    ["log", "convert", "The natural logarithm, or one to a base.", "number double, argument? double", "double", numeric],
    ["pow", "convert", "A power.", "base double, exponent double", "double", numeric],
    ["power", "convert", "A power.", "base double, exponent double", "double", numeric, "pow"],
    ["atan", "convert", "The angle of a tangent, or of a point.", "y double, x? double", "double", numeric],
    ["atan2", "convert", "The angle of a point.", "y double, x? double", "double", numeric, "atan"],
    ofDate("to_days", "Days since the year 0."),
    ofDate("to_seconds", "Seconds since the year 0."),
    ofDate("last_day", "The last day of the month.", "date"),
    ofDate("date", "The date of a date and time.", "date"),
    ["hour", "convert", "The hour of a time.", "time time", "integer", dates],
    ["minute", "convert", "The minute of a time.", "time time", "integer", dates],
    ["second", "convert", "The second of a time.", "time time", "integer", dates],
    ["microsecond", "convert", "The millionths of the second.", "time time", "integer", dates],
    ["time", "convert", "The time of a date and time.", "time time", "time", dates],
    ["time_to_sec", "convert", "A time in seconds.", "time time", "decimal", dates],
    ["sec_to_time", "convert", "Seconds as a time.", "seconds decimal", "time", dates],
    ["week", "convert", "The week of the year.", "date datetime, mode? integer", "integer", dates],
    ["yearweek", "convert", "The year and week.", "date datetime, mode? integer", "integer", dates],
    ["extract", "convert", "A field of a date.", "field text, date any", "integer", dates],
    ["timestamp", "convert", "A date and time.", "date datetime, time? text", "datetime", dates],
    ["date_format", "convert", "A date in a format, with the names of a language.", "date datetime, format text, locale text", "text char", dates],
    ["time_format", "convert", "A time in a format.", "time time, format text", "text char", dates],
    ["date_add", "convert", "A date some time later.", "date any, amount any, unit text", "shifted", dates],
    ["date_sub", "convert", "A date some time earlier.", "date any, amount any, unit text", "shifted", dates],
    ["datediff", "convert", "The days between two dates.", "left datetime, right datetime", "integer", dates],
    ["timestampdiff", "convert", "The time between two dates in a unit.", "unit text, left datetime, right datetime", "integer", dates],
    ["timestampadd", "convert", "A date some units later.", "unit text, amount any, date any", "text date", dates],
    ["addtime", "convert", "A date or time some time later.", "date any, time any", "clocked", dates],
    ["subtime", "convert", "A date or time some time earlier.", "date any, time any", "clocked", dates],
    ["timediff", "convert", "The time between two times, or two dates.", "left any, right any", "time", dates],
    ["from_unixtime", "convert", "The date and time of seconds after 1970, in UTC.", "seconds decimal", "datetime", dates],
    ["from_unixtime", "convert", "The date and time of seconds after 1970, in UTC, in a format.", "seconds decimal, format text", "text char", dates],
    ["unix_timestamp", "convert", "The seconds after 1970, in UTC.", "date? datetime", "decimal", dates],
    ["convert_tz", "convert", "A date and time, moved from one offset to another.", "date datetime, from text, to text", "datetime", dates],
    ["to_char", "convert", "A date in a format of patterns.", "date any, format? text", "own text", dates],
    ["from_days", "convert", "The date of a day number.", "days integer", "date", dates],
    ["makedate", "convert", "A date from a year and a day of the year.", "year integer, day integer", "date", dates],
    ["maketime", "convert", "A time from its parts.", "hour integer, minute integer, second decimal", "time", dates],
    ["period_add", "convert", "A period YYYYMM some months later.", "period integer, months integer", "integer", dates],
    ["period_diff", "convert", "The months between two periods.", "left integer, right integer", "integer", dates],
  ],
);

/** Empty text is null in the mode whose functions end in _oracle. */
const nullWhenEmpty = { then: step("unless-same", { ...byBytes, mixed: "error", notANumber: "there is none" }, { b: "" }) };
const oracleTrim = (ends: "both" | "start" | "end") => ({ ...step("trim", { ...trimmed, ends }), ...nullWhenEmpty });
const oraclePad = (side: "left" | "right") => ({ ...step("pad", { ...padded, side }), ...nullWhenEmpty });

/** How str_to_date() reads: loosely, and as much as the format has of a date and a time. */
const readByFormat = step(
  "date-from-text",
  {
    missing,
    notADate: "null",
    unknownToken: "null",
    emptyFormat: "empty text",
    formatSpaces: "any",
    restOfText: "passed over",
    partsLeftOut: "zero",
    yearDigits: "completed",
    nameBeginnings: "read",
    halfOfDay: "refused",
    doubledSign: "nothing",
    formatGives: "what it asks for",
  },
  { tokens: formatTokens },
);

// prettier-ignore
const formatted = steppedRows([
  ["date_format", "convert", "A date in a format.", "date datetime, format text", "text char", dates, step("text-from-date", { missing, unknownToken: "itself", emptyFormat: "null" }, { tokens: formatTokens })],
  ["str_to_date", "convert", "A date read by a format.", "text text, format text", "datetime", dates, readByFormat],
]);

// prettier-ignore
const ofOracle = steppedRows([
  ["lpad_oracle", "pad", "lpad(), null for empty text.", "text text, length position, fill? text", "text", oracle, oraclePad("left")],
  ["rpad_oracle", "pad", "rpad(), null for empty text.", "text text, length position, fill? text", "text", oracle, oraclePad("right")],
  ["ltrim_oracle", "trim", "ltrim(), null for empty text.", "text text", "text", oracle, oracleTrim("start")],
  ["rtrim_oracle", "trim", "rtrim(), null for empty text.", "text text", "text", oracle, oracleTrim("end")],
  ["trim_oracle", "trim", "trim(), null for empty text.", "text text", "text", oracle, oracleTrim("both")],
  ["substr_oracle", "extract", "substr(), with 0 for the first character and null for empty text.", "text text, start position > start, count? position > length", "text", oracle, { ...step("slice", { ...sliced, startBelow: "from the end, 0 the first" }), ...nullWhenEmpty }],
]);

/** Functions of texts that count bytes where they are given bytes, and then give bytes. */
const ofBytes = new Set(
  "substring substr left right substring_index reverse locate instr replace insert trim ltrim rtrim char_length length ascii repeat lpad rpad concat concat_ws"
    .split(" ")
    .concat("trim leading", "trim trailing"),
);

/** The rows of those functions, over texts that have one character for each byte. */
const bytes: readonly FunctionRow[] = [...text, ...ofOracle]
  .filter(isPure)
  .filter((row) => ofBytes.has(row.name.replace("_oracle", "")) && (row.collations?.includes("binary") ?? true))
  .map((row) => ({
    ...row,
    parameters: row.parameters.map((each) => (each.type === "text" ? { ...each, type: "bytetext" } : each)),
    result: row.result === "text" ? "bytes beside" : row.result,
    answers: { ...row.answers, ...("counted" in row.answers && { counted: "code point" }) },
  })) as readonly FunctionRow[];

const elt = decidingRows({ result: "text", evidence: strings }, [
  ["elt", "The nth of several values.", "n uint32, values* text", { decides: "nth", none: "null" }],
]).map((row): FunctionRow => ({ ...row, family: "list" }));

/** The functions and operators of MariaDB 10.11. */
export const mariadbRows: readonly FunctionRow[] = [
  ...text,
  ...bytes,
  ...operators,
  ...calendarRows(
    {
      year: "year",
      quarter: "quarter",
      month: "month",
      day: "day",
      dayofmonth: "day",
      dayofyear: "day of year",
      weekofyear: "iso week",
      dayname: "day name",
      monthname: "month name",
    },
    { dayofweek: "Sunday 1", weekday: "Monday 0" },
    { type: "datetime", result: "integer", text: "text", evidence: dates, missing: "null" },
  ),
  ...formatted,
  ...ofOracle,
  ...elt,
  ...presentRows({ result: "unified", evidence: control }, ["ifnull", "nvl"]),
  ...logicRows({
    truth: "1 or 0",
    result: "integer",
    condition: "condition",
    evaluates: "left first",
    hasXor: true,
    evidence: [operatorsDoc, operatorsDoc, operatorsDoc],
  }),
  {
    name: "isnull",
    family: "logic",
    summary: "Whether it is null.",
    parameters: params("value any"),
    result: "integer",
    operation: "is",
    answers: { truth: "1 or 0" },
    fixed: { what: "missing" },
    evidence: operatorsDoc,
  },
  ...mathRows({ names: "acos asin cos cot degrees exp ln log10 log2 radians sin sqrt tan", type: "double", ...math }),
  piRow("pi", { ...math, result: "double, six" }),
  ...[
    { type: "whole", opposite: "integer, opposite", size: "integer, of the first", rounded: "integer, of the first" },
    { type: "exact", opposite: "same", size: "same", rounded: "decimal, none" },
    { type: "floating", opposite: "double, most", size: "double, most", rounded: "double, none" },
  ].flatMap(({ type, opposite, size, rounded }) => [
    ...signedRows({ "-": "opposite" }, { type, result: opposite, answers: signs, evidence: operatorsDoc }),
    ...signedRows({ abs: "size" }, { type, result: size, answers: signs, evidence: numeric }),
    ...signedRows({ sign: "sign" }, { type, result: "integer", answers: signs, evidence: numeric }),
    ...roundRows(
      { ceiling: "up", ceil: "up", floor: "down" },
      { type, result: rounded, answers: { missing, numbers: "exact" }, evidence: numeric },
    ),
  ]),
  ...bitRows(
    { "~": "not", "&": "and", "|": "or", "^": "xor", "<<": "left", ">>": "right" },
    { type: "bits", places: "integer", result: "unsigned", answers: inBits, evidence: operatorsDoc },
  ),
  ...bitRows({ bit_count: "count" }, { type: "bits", result: "integer", answers: inBits, evidence: numeric }),
  ...itselfRows(["upper", "ucase", "lower", "lcase"], {
    type: "binary",
    summary: "Bytes as they are.",
    result: "binary",
    evidence: strings,
  }),
  ...itselfRows(["+"], { summary: "The value itself.", result: "same", notation: "operator", evidence: operatorsDoc }),
  ...Object.keys(collations).flatMap((name) =>
    itselfRows([`collate ${name}`], {
      type: "text",
      summary: "The text, compared in a collation.",
      result: `text ${name}`,
      notation: "operator",
      // Bytes have no collation of texts.
      refuses: [{ types: "binary|hybrid|hextext", as: "argument-type" }],
      evidence: operatorsDoc,
    }),
  ),
  ...coded,
  ...aggregates,
  meanRow(operators, "exact"),
];
