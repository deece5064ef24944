import { type FunctionRow, params } from "../row.ts";
import { step } from "../step.ts";
import { steppedRows } from "../shared/coded.ts";
import { valueOf } from "./steps.ts";
import { decidingRows } from "../shared/deciding.ts";
import { itselfRows, truthRows } from "../shared/itself.ts";
import { mathRows } from "../shared/math.ts";
import { roundRows, signedRows } from "../shared/numeric.ts";

/** The dialect's options as the table needs them; see `options` in `index.ts`. */
export interface TableOptions {
  readonly unit: "code point" | "utf-16 unit";
  readonly searchPattern: "open" | "wildcards" | "literal";
  readonly textCase: "minded" | "ignored";
}

const section = (number: string) => `OpenDocument 1.3 part 4, ${number}`;

/** The functions and operators of OpenFormula. */
export function openFormulaRows({ unit, searchPattern, textCase }: TableOptions): FunctionRow[] {
  const missing = "blank" as const;
  const placed = { missing, unit, first: "1", startBelow: "error", fraction: "truncated" } as const;
  const positions = { ...placed, spanBeyond: "added", negativeSpan: "error", farEnd: "taken" } as const;
  const sliced = { ...placed, negativeLength: "error", startBeyond: "empty", from: "start", third: "length" } as const;
  const bytes = { unit: "utf-8 byte" } as const;
  const located = {
    missing,
    unit,
    first: "1",
    absent: "error",
    startBelow: "error",
    emptyNeedle: "at the start",
    fraction: "truncated",
  } as const;
  const recased = { missing, mapping: "full", words: "not a letter", restOfWord: "lowered" } as const;
  const found = "needle text, text text, start? number";
  // prettier-ignore
  const text: FunctionRow[] = [
    { name: "LEFT", family: "extract", summary: "The first characters of a text.", parameters: params("text text, count? number > length = 1"), result: "text", operation: "slice", answers: sliced, fixed: { start: 1 }, evidence: section("6.20.12") },
    { name: "RIGHT", family: "extract", summary: "The last characters of a text.", parameters: params("text text, count? number > length = 1"), result: "text", operation: "slice", answers: { ...sliced, from: "end" }, fixed: { start: 1 }, evidence: section("6.20.19") },
    { name: "MID", family: "extract", summary: "A number of characters from a position.", parameters: params("text text, start number, length number"), result: "text", operation: "slice", answers: sliced, evidence: section("6.20.15") },
    { name: "LEFTB", family: "extract", summary: "The first bytes of a text.", parameters: params("text text, count? number > length = 1"), result: "text", operation: "slice", answers: { ...sliced, ...bytes }, fixed: { start: 1 }, evidence: section("6.7.3") },
    { name: "RIGHTB", family: "extract", summary: "The last bytes of a text.", parameters: params("text text, count? number > length = 1"), result: "text", operation: "slice", answers: { ...sliced, ...bytes, from: "end" }, fixed: { start: 1 }, evidence: section("6.7.7") },
    { name: "MIDB", family: "extract", summary: "A number of bytes from a position.", parameters: params("text text, start number, length number"), result: "text", operation: "slice", answers: { ...sliced, ...bytes }, evidence: section("6.7.5") },
    { name: "FIND", family: "locate", summary: "The position of a text; minds case.", parameters: params(found), result: "number", operation: "locate", answers: { ...located, pattern: "literal", case: "minded" }, evidence: section("6.20.9") },
    { name: "FINDB", family: "locate", summary: "The byte position of a text; minds case.", parameters: params(found), result: "number", operation: "locate", answers: { ...located, ...bytes, pattern: "literal", case: "minded" }, evidence: section("6.7.2") },
    { name: "SEARCH", family: "locate", summary: "The position of a text or pattern; ignores case.", parameters: params(found), result: "number", operation: "locate", answers: { ...located, pattern: searchPattern, case: "ignored" }, evidence: section("6.20.20") },
    { name: "SEARCHB", family: "locate", summary: "The byte position of a text or pattern; ignores case.", parameters: params(found), result: "number", operation: "locate", answers: { ...located, ...bytes, pattern: searchPattern, case: "ignored" }, evidence: section("6.7.8") },
    { name: "SUBSTITUTE", family: "substitute", summary: "Replaces a text everywhere, or its nth occurrence.", parameters: params("text text, old text, new text, which? number"), result: "text", operation: "substitute", answers: { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal", emptyMatch: "allowed", emptyOld: "null" }, evidence: section("6.20.21") },
    { name: "REPLACE", family: "substitute", summary: "Replaces a number of characters from a position.", parameters: params("text text, start number, length number, new text"), result: "text", operation: "replace-span", answers: positions, evidence: section("6.20.17") },
    { name: "REPLACEB", family: "substitute", summary: "Replaces a number of bytes from a position.", parameters: params("text text, start number, length number, new text"), result: "text", operation: "replace-span", answers: { ...positions, ...bytes }, evidence: section("6.7.6") },
    { name: "UPPER", family: "recase", summary: "All letters in upper case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "upper" }, evidence: section("6.20.27") },
    { name: "LOWER", family: "recase", summary: "All letters in lower case.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "lower" }, evidence: section("6.20.14") },
    { name: "PROPER", family: "recase", summary: "Each run of letters with an upper case start.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "title" }, evidence: section("6.20.16") },
    { name: "ASC", family: "recase", summary: "Full-width letters and katakana as half-width ones.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "half width" }, evidence: section("6.20.2") },
    { name: "JIS", family: "recase", summary: "Half-width letters and katakana as full-width ones.", parameters: params("text text"), result: "text", operation: "recase", answers: { ...recased, form: "full width" }, evidence: section("6.20.11") },
    { name: "TRIM", family: "trim", summary: "No spaces at the ends, one between words.", parameters: params("text text"), result: "text", operation: "trim", answers: { missing, ends: "both", inner: "one space", characters: "space", removed: "each" }, evidence: section("6.20.24") },
    { name: "CLEAN", family: "trim", summary: "Without control characters.", parameters: params("text text"), result: "text", operation: "trim", answers: { missing, ends: "everywhere", inner: "kept", characters: "control", removed: "each" }, evidence: section("6.20.4") },
    { name: "LEN", family: "measure-test", summary: "The number of characters.", parameters: params("text text"), result: "number", operation: "measure", answers: { missing, counted: unit }, evidence: section("6.20.13") },
    { name: "LENB", family: "measure-test", summary: "The number of bytes.", parameters: params("text text"), result: "number", operation: "measure", answers: { missing, counted: "utf-8 byte" }, evidence: section("6.7.4") },
    { name: "EXACT", family: "measure-test", summary: "Whether two texts are the same, case minded.", parameters: params("text1 text > a, text2 text > b"), result: "boolean", operation: "compare", answers: { missing, case: "minded", padding: "counted", mixed: "by kind", notANumber: "there is none", truth: "true or false" }, fixed: { relation: "=" }, evidence: section("6.20.8") },
    { name: "CODE", family: "measure-test", summary: "The number of the first character in an 8-bit code page.", parameters: params("text text"), result: "number", operation: "code-of", answers: { missing, alphabet: "windows-1252", ofEmpty: "error" }, evidence: section("6.20.5") },
    { name: "UNICODE", family: "measure-test", summary: "The code point of the first character.", parameters: params("text text"), result: "number", operation: "code-of", answers: { missing, alphabet: "unicode", ofEmpty: "error" }, evidence: section("6.20.26") },
    { name: "CHAR", family: "measure-test", summary: "The character of a number in an 8-bit code page.", parameters: params("number number"), result: "text", operation: "char-of", answers: { missing, alphabet: "windows-1252", fraction: "truncated" }, evidence: section("6.20.3") },
    { name: "UNICHAR", family: "measure-test", summary: "The character of a code point.", parameters: params("number number"), result: "text", operation: "char-of", answers: { missing, alphabet: "unicode", fraction: "truncated" }, evidence: section("6.20.25") },
    { name: "REPT", family: "pad", summary: "A text several times over.", parameters: params("text text, count number"), result: "text", operation: "repeat", answers: { missing, negativeCount: "error", fraction: "truncated", tooLong: "error" }, evidence: section("6.20.18") },
    { name: "CONCATENATE", family: "split-join", summary: "Texts one after the other.", parameters: params("texts* text > items"), result: "text", operation: "join", answers: { missing, missingItem: "empty", emptyItem: "kept" }, evidence: section("6.20.6") },
    { name: "CONCAT", family: "split-join", summary: "Texts one after the other.", parameters: params("texts* texts > items"), result: "text", operation: "join", answers: { missing, missingItem: "empty", emptyItem: "kept" }, evidence: "shared extension", extension: true },
    { name: "TEXTJOIN", family: "split-join", summary: "Texts with a separator between them, empty ones skipped if wanted.", parameters: params("separator text, skipEmpty boolean, texts* texts > items"), result: "text", operation: "join", answers: { missing, missingItem: "empty", emptyItem: "kept" }, evidence: "shared extension", extension: true },
  ];

  const compared = {
    missing,
    case: textCase,
    padding: "counted",
    mixed: "by kind",
    notANumber: "there is none",
    truth: "true or false",
  } as const;
  const calculated = {
    missing,
    numbers: "double",
    quotient: "double",
    quotientDigits: "twenty decimals",
    byZero: "error",
    doubleByZero: "error",
    overflow: "error",
    remainder: "of fractions",
    remainderSign: "of the divisor",
    tooSmall: "zero",
  } as const;
  // prettier-ignore
  const operators: FunctionRow[] = [
    { name: "&", family: "split-join", summary: "Joins two texts.", parameters: params("left text > items, right text > items"), result: "text", operation: "join", answers: { missing, missingItem: "empty", emptyItem: "kept" }, notation: "operator", evidence: section("6.4.10") },
    ...["=", "<>", "<", "<=", ">", ">="].map((relation): FunctionRow => ({ name: relation, family: "measure-test", summary: "Compares two values.", parameters: params("left single > a, right single > b"), result: "boolean", operation: "compare", answers: compared, fixed: { relation }, notation: "operator", evidence: section("6.4.7 to 6.4.9") })),
    ...["+", "-", "*", "/", "^"].map((sign): FunctionRow => ({ name: sign, family: "convert", summary: "Arithmetic on two numbers.", parameters: params("left number > a, right number > b"), result: "number", operation: "calculate", answers: calculated, fixed: { sign }, notation: "operator", evidence: section("6.4.2 to 6.4.6") })),
    ...itselfRows(["+"], { summary: "The value itself.", result: "any", notation: "operator", evidence: section("6.4.13") }),
    { name: "NOT", family: "logic", summary: "True for false.", parameters: params("condition boolean > value"), result: "boolean", operation: "not", answers: { missing, truth: "true or false" }, evidence: section("6.15.7") },
    { name: "%", family: "convert", summary: "A hundredth of a number.", parameters: params("number number > a"), result: "number", operation: "calculate", answers: calculated, fixed: { sign: "/", b: 100 }, notation: "operator", evidence: section("6.4.14") },
    { name: "POWER", family: "convert", summary: "A number raised to a power.", parameters: params("number number > a, exponent number > b"), result: "number", operation: "calculate", answers: calculated, fixed: { sign: "^" }, evidence: section("6.16.46") },
  ];
  const numbers = { missing, numbers: "double" } as const;
  const signs = { type: "number", answers: { ...numbers, signKind: "whole" } } as const;
  return [
    ...text,
    ...operators,
    ...kindRows,
    ...baseRows,
    ...choiceRows,
    ...otherRows,
    ...truthRows({ TRUE: true, FALSE: false }, { result: "boolean", evidence: section("6.15.3 and 6.15.9") }),
    ...signedRows({ "-": "opposite" }, { ...signs, evidence: section("6.4.12") }),
    ...signedRows({ ABS: "size", SIGN: "sign" }, { ...signs, evidence: section("6.16.2 and 6.16.60") }),
    ...roundRows({ INT: "down" }, { type: "number", answers: numbers, evidence: section("6.17.2") }),
    ...roundRows(
      { TRUNC: "toward zero", ROUND: "half away from zero", ROUNDUP: "away from zero", ROUNDDOWN: "toward zero" },
      {
        type: "number",
        digits: "digits? number = 0",
        answers: { ...numbers, fraction: "truncated" },
        evidence: section("6.17.5 to 6.17.8"),
      },
    ),
    ...mathRows({
      names: "SQRT=sqrt",
      type: "number",
      result: "number",
      answers: { ...numbers, outside: "error", overflow: "error", tooSmall: "zero", closeness: "nearest" },
      evidence: section("6.16.61"),
    }),
    {
      name: "MOD",
      family: "convert",
      summary: "What is left after division, with the divisor's sign.",
      parameters: params("number number > a, divisor number > b"),
      result: "number",
      operation: "calculate",
      answers: calculated,
      fixed: { sign: "mod" },
      evidence: section("6.16.43"),
    },
  ];
}

type Other = readonly [
  name: string,
  family: "convert" | "logic" | "list",
  summary: string,
  parameters: string,
  result: string,
  section: string,
];

/** Functions that carry code of their own, by upper-case name. */
// prettier-ignore
const whether = (what: string) => step("is", { truth: "true or false" }, { what });

/** What a value is, an error among what it may be, and the number that it is. */
// prettier-ignore
const kindRows = steppedRows(
  [
    ["VALUE", "convert", "A text as a number.", "text any > value", "number", "6.13.34", valueOf],
    ["ISERROR", "logic", "Whether it is an error.", "value any", "boolean", "6.13.16", whether("failing")],
    ["ISERR", "logic", "Whether it is an error but #N/A.", "value any", "boolean", "6.13.15", whether("failing otherwise")],
    ["ISNA", "logic", "Whether it is #N/A.", "value any", "boolean", "6.13.20", whether("not available")],
    ["ISBLANK", "logic", "Whether it is a blank cell.", "value any", "boolean", "6.13.14", whether("blank")],
    ["ISTEXT", "logic", "Whether it is a text.", "value any", "boolean", "6.13.25", whether("text")],
    ["ISNONTEXT", "logic", "Whether it is no text.", "value any", "boolean", "6.13.21", whether("no text")],
    ["ISNUMBER", "logic", "Whether it is a number.", "value any", "boolean", "6.13.22", whether("number")],
    ["ISLOGICAL", "logic", "Whether it is true or false.", "value any", "boolean", "6.13.19", whether("boolean")],
  ],
  section,
);

const toBase = (base: number, bits: number) =>
  step("digits-of", { missing: "blank", letterDigits: "capital", digitRoom: "as asked" }, { base, bits });
const fromBase = step("itself", {});

/** Numbers of ten digits in a base, those with the first bit set being below 0 (6.19). */
// prettier-ignore
const baseRows = steppedRows(
  [
    ["BASE", "convert", "A number written in another base.", "number number, base number, least? number > digits = 0", "text", "6.19.3", step("digits-of", { missing: "blank", letterDigits: "capital", digitRoom: "as needed" })],
    ["DECIMAL", "convert", "A number read in another base.", "text text, base number", "number", "6.19.10", step("number-in-base", { missing: "blank", numbers: "double" })],
    ["BIN2DEC", "convert", "A number read in base 2.", "text base.2 > value", "number", "6.19.4", fromBase],
    ["OCT2DEC", "convert", "A number read in base 8.", "text base.8 > value", "number", "6.19.15", fromBase],
    ["HEX2DEC", "convert", "A number read in base 16.", "text base.16 > value", "number", "6.19.12", fromBase],
    ["DEC2BIN", "convert", "A number written in base 2.", "number number, digits? number", "text", "6.19.7", toBase(2, 10)],
    ["DEC2OCT", "convert", "A number written in base 8.", "number number, digits? number", "text", "6.19.9", toBase(8, 30)],
    ["DEC2HEX", "convert", "A number written in base 16.", "number number, digits? number", "text", "6.19.8", toBase(16, 40)],
    ["BIN2OCT", "convert", "A number from base 2 to base 8.", "text base.2 > number, digits? number", "text", "6.19.6", toBase(8, 30)],
    ["BIN2HEX", "convert", "A number from base 2 to base 16.", "text base.2 > number, digits? number", "text", "6.19.5", toBase(16, 40)],
    ["OCT2BIN", "convert", "A number from base 8 to base 2.", "text base.8 > number, digits? number", "text", "6.19.14", toBase(2, 10)],
    ["OCT2HEX", "convert", "A number from base 8 to base 16.", "text base.8 > number, digits? number", "text", "6.19.16", toBase(16, 40)],
    ["HEX2BIN", "convert", "A number from base 16 to base 2.", "text base.16 > number, digits? number", "text", "6.19.11", toBase(2, 10)],
    ["HEX2OCT", "convert", "A number from base 16 to base 8.", "text base.16 > number, digits? number", "text", "6.19.13", toBase(8, 30)],
  ],
  section,
);

const choiceRows: FunctionRow[] = [
  ...decidingRows({ result: "any", evidence: section("6.15.4") }, [
    [
      "IF",
      "One value or another.",
      "condition any, then? branch = true, otherwise? branch = false",
      { decides: "first that holds", none: "null" },
    ],
  ]),
  ...decidingRows({ result: "any", evidence: section("6.15.5") }, [
    [
      "IFERROR",
      "A value, or another where it is an error.",
      "value any, otherwise any",
      { decides: "unless failing", caught: "all" },
    ],
  ]),
  ...decidingRows({ result: "any", evidence: section("6.15.6") }, [
    [
      "IFNA",
      "A value, or another where it is #N/A.",
      "value any, otherwise any",
      { decides: "unless failing", caught: "not available" },
    ],
  ]),
  ...decidingRows({ result: "any", evidence: section("6.14.3") }, [
    ["CHOOSE", "The nth of several values.", "index number, values* any", { decides: "nth", none: "error" }],
  ]),
  ...decidingRows({ result: "any", evidence: "shared extension", extension: true }, [
    ["IFS", "The value after the first true condition.", "pairs* any", { decides: "first that holds", none: "not available" }],
  ]),
];

const otherRows: FunctionRow[] = (
  [
    ["T", "convert", "The text itself; empty for what is no text.", "value any", "text", "6.20.22"],
    ["N", "convert", "A number; 0 for a text.", "value any", "number", "6.13.26"],
    [
      "NUMBERVALUE",
      "convert",
      "A text as a number, with given separators.",
      "text text, decimal? text, group? text",
      "number",
      "6.13.28",
    ],
    ["TEXT", "convert", "A value written in a number format.", "value any, format text", "text", "6.20.23"],
    [
      "FIXED",
      "convert",
      "A number with a fixed number of decimals.",
      "number number, decimals? number = 2, noGroups? boolean = false",
      "text",
      "6.20.10",
    ],
    ["DOLLAR", "convert", "A number as an amount of money.", "number number, decimals? number = 2", "text", "6.20.7"],
    ["ROMAN", "convert", "A number in Roman numerals.", "number number, format? number = 0", "text", "6.19.17"],
    ["ARABIC", "convert", "Roman numerals as a number.", "text text", "number", "6.19.2"],
    ["CEILING", "convert", "The number rounded up to a multiple.", "number number, multiple? number = 1", "number", "6.17.1"],
    ["FLOOR", "convert", "The number rounded down to a multiple.", "number number, multiple? number = 1", "number", "6.17.3"],
    ["QUOTIENT", "convert", "The whole part of a quotient.", "number number, divisor number", "number", "6.16.49"],
    ["EVEN", "convert", "Rounded away from zero to an even number.", "number number", "number", "6.16.30"],
    ["ODD", "convert", "Rounded away from zero to an odd number.", "number number", "number", "6.16.44"],
    [
      "DATE",
      "convert",
      "A date from its parts, as a serial number.",
      "year number, month number, day number",
      "number",
      "6.10.2",
    ],
    ["DATEVALUE", "convert", "A date from a text, as a serial number.", "text text", "number", "6.10.4"],
    ["TIMEVALUE", "convert", "A time of day from a text, as a part of a day.", "text text", "number", "6.10.18"],
    [
      "TIME",
      "convert",
      "A time of day from its parts, as a part of a day.",
      "hours number, minutes number, seconds number",
      "number",
      "6.10.17",
    ],
    ["YEAR", "convert", "The year of a date.", "date number", "number", "6.10.23"],
    ["MONTH", "convert", "The month of a date.", "date number", "number", "6.10.13"],
    ["DAY", "convert", "The day of the month.", "date number", "number", "6.10.5"],
    ["HOUR", "convert", "The hour of a time.", "time number", "number", "6.10.10"],
    ["MINUTE", "convert", "The minute of a time.", "time number", "number", "6.10.12"],
    ["SECOND", "convert", "The second of a time.", "time number", "number", "6.10.16"],
    ["WEEKDAY", "convert", "The day of the week.", "date number, kind? number = 1", "number", "6.10.20"],
    ["DAYS", "convert", "The days from one date to another.", "end number, start number", "number", "6.10.6"],
    ["EDATE", "convert", "The same day some months later.", "date number, months number", "number", "6.10.8"],
    ["EOMONTH", "convert", "The last day of the month some months later.", "date number, months number", "number", "6.10.9"],
    ["WEEKNUM", "convert", "The number of the week in the year.", "date number, kind? number = 1", "number", "6.10.21"],
    ["ISOWEEKNUM", "convert", "The number of the ISO week.", "date number", "number", "6.10.11"],
    ["MROUND", "convert", "The number rounded to a multiple.", "number number, multiple number", "number", "6.17.4"],
    ["AND", "logic", "Whether all are true.", "conditions* any", "boolean", "6.15.2"],
    ["OR", "logic", "Whether one is true.", "conditions* any", "boolean", "6.15.8"],
    ["XOR", "logic", "Whether an odd number are true.", "conditions* any", "boolean", "6.15.10"],
    ["SWITCH", "logic", "The value after the first equal one.", "value any, cases* any", "any", ""],
    ["NA", "logic", "The error #N/A.", "", "any", "6.13.27"],
    ["ERROR.TYPE", "logic", "The number of an error.", "value any", "number", "6.13.11"],
    [
      "TYPE",
      "logic",
      "The number of a kind of value: 1 number, 2 text, 4 truth value, 16 error, 64 list.",
      "value any",
      "number",
      "6.13.33",
    ],
    ["ISEVEN", "logic", "Whether a number is even.", "number number", "boolean", "6.13.17"],
    ["ISODD", "logic", "Whether a number is odd.", "number number", "boolean", "6.13.23"],
    ["SUM", "list", "The sum of numbers.", "values* any", "number", "6.16.61"],
    ["PRODUCT", "list", "The product of numbers.", "values* any", "number", "6.16.48"],
    ["AVERAGE", "list", "The mean of numbers.", "values* any", "number", "6.18.3"],
    ["MIN", "list", "The smallest number.", "values* any", "number", "6.18.48"],
    ["MAX", "list", "The largest number.", "values* any", "number", "6.18.45"],
    ["COUNT", "list", "How many numbers there are.", "values* any", "number", "6.13.6"],
    ["COUNTA", "list", "How many values there are.", "values* any", "number", "6.13.7"],
    ["COUNTBLANK", "list", "How many blanks there are.", "values any", "number", "6.13.8"],
    ["COUNTIF", "list", "How many values meet a criterion.", "values any, criterion any", "number", "6.13.9"],
    [
      "SUMIF",
      "list",
      "The sum of the numbers whose row meets a criterion.",
      "values any, criterion any, numbers? any",
      "number",
      "6.16.62",
    ],
    [
      "AVERAGEIF",
      "list",
      "The mean of the numbers whose row meets a criterion.",
      "values any, criterion any, numbers? any",
      "number",
      "6.18.5",
    ],
  ] satisfies Other[]
).map(([name, family, summary, form, result, number]) => ({
  name,
  family,
  summary,
  parameters: params(form),
  result,
  code: name,
  ...(number ? { evidence: section(number) } : { evidence: "shared extension", extension: true as const }),
}));
