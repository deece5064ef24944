import { type FunctionRow, params } from "../row.ts";
import { step } from "../step.ts";
import { codedRows, pure, steppedRows } from "../shared/rows.ts";
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
    pure("LEFT(text text, count? number > length = 1): text", "The first characters of a text.",
      "slice", sliced, section("6.20.12"), { fixed: { start: 1 } }),
    pure("RIGHT(text text, count? number > length = 1): text", "The last characters of a text.",
      "slice", { ...sliced, from: "end" }, section("6.20.19"), { fixed: { start: 1 } }),
    pure("MID(text text, start number, length number): text", "A number of characters from a position.",
      "slice", sliced, section("6.20.15")),
    pure("LEFTB(text text, count? number > length = 1): text", "The first bytes of a text.",
      "slice", { ...sliced, ...bytes }, section("6.7.3"), { fixed: { start: 1 } }),
    pure("RIGHTB(text text, count? number > length = 1): text", "The last bytes of a text.",
      "slice", { ...sliced, ...bytes, from: "end" }, section("6.7.7"), { fixed: { start: 1 } }),
    pure("MIDB(text text, start number, length number): text", "A number of bytes from a position.",
      "slice", { ...sliced, ...bytes }, section("6.7.5")),
    pure(`FIND(${found}): number`, "The position of a text; minds case.",
      "locate", { ...located, pattern: "literal", case: "minded" }, section("6.20.9")),
    pure(`FINDB(${found}): number`, "The byte position of a text; minds case.",
      "locate", { ...located, ...bytes, pattern: "literal", case: "minded" }, section("6.7.2")),
    pure(`SEARCH(${found}): number`, "The position of a text or pattern; ignores case.",
      "locate", { ...located, pattern: searchPattern, case: "ignored" }, section("6.20.20")),
    pure(`SEARCHB(${found}): number`, "The byte position of a text or pattern; ignores case.",
      "locate", { ...located, ...bytes, pattern: searchPattern, case: "ignored" }, section("6.7.8")),
    pure("SUBSTITUTE(text text, old text, new text, which? number): text", "Replaces a text everywhere, or its nth occurrence.",
      "substitute", { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal",
        emptyMatch: "allowed", emptyOld: "null" },
      section("6.20.21")),
    pure("REPLACE(text text, start number, length number, new text): text", "Replaces a number of characters from a position.",
      "replace-span", positions, section("6.20.17")),
    pure("REPLACEB(text text, start number, length number, new text): text", "Replaces a number of bytes from a position.",
      "replace-span", { ...positions, ...bytes }, section("6.7.6")),
    pure("UPPER(text text): text", "All letters in upper case.", "recase", { ...recased, form: "upper" }, section("6.20.27")),
    pure("LOWER(text text): text", "All letters in lower case.", "recase", { ...recased, form: "lower" }, section("6.20.14")),
    pure("PROPER(text text): text", "Each run of letters with an upper case start.",
      "recase", { ...recased, form: "title" }, section("6.20.16")),
    pure("ASC(text text): text", "Full-width letters and katakana as half-width ones.",
      "recase", { ...recased, form: "half width" }, section("6.20.2")),
    pure("JIS(text text): text", "Half-width letters and katakana as full-width ones.",
      "recase", { ...recased, form: "full width" }, section("6.20.11")),
    pure("TRIM(text text): text", "No spaces at the ends, one between words.",
      "trim", { missing, ends: "both", inner: "one space", characters: "space", removed: "each" }, section("6.20.24")),
    pure("CLEAN(text text): text", "Without control characters.",
      "trim", { missing, ends: "everywhere", inner: "kept", characters: "control", removed: "each" }, section("6.20.4")),
    pure("LEN(text text): number", "The number of characters.", "measure", { missing, counted: unit }, section("6.20.13")),
    pure("LENB(text text): number", "The number of bytes.", "measure", { missing, counted: "utf-8 byte" }, section("6.7.4")),
    pure("EXACT(text1 text > a, text2 text > b): boolean", "Whether two texts are the same, case minded.",
      "compare", { missing, case: "minded", padding: "counted", mixed: "by kind", notANumber: "there is none", truth: "true or false" },
      section("6.20.8"), { fixed: { relation: "=" } }),
    pure("CODE(text text): number", "The number of the first character in an 8-bit code page.",
      "code-of", { missing, alphabet: "windows-1252", ofEmpty: "error" }, section("6.20.5")),
    pure("UNICODE(text text): number", "The code point of the first character.",
      "code-of", { missing, alphabet: "unicode", ofEmpty: "error" }, section("6.20.26")),
    pure("CHAR(number number): text", "The character of a number in an 8-bit code page.",
      "char-of", { missing, alphabet: "windows-1252", fraction: "truncated" }, section("6.20.3")),
    pure("UNICHAR(number number): text", "The character of a code point.",
      "char-of", { missing, alphabet: "unicode", fraction: "truncated" }, section("6.20.25")),
    pure("REPT(text text, count number): text", "A text several times over.",
      "repeat", { missing, negativeCount: "error", fraction: "truncated", tooLong: "error" }, section("6.20.18")),
    pure("CONCATENATE(texts* text > items): text", "Texts one after the other.",
      "join", { missing, missingItem: "empty", emptyItem: "kept" }, section("6.20.6")),
    pure("CONCAT(texts* texts > items): text", "Texts one after the other.",
      "join", { missing, missingItem: "empty", emptyItem: "kept" }, "shared extension", { extension: true }),
    pure("TEXTJOIN(separator text, skipEmpty boolean, texts* texts > items): text",
      "Texts with a separator between them, empty ones skipped if wanted.",
      "join", { missing, missingItem: "empty", emptyItem: "kept" }, "shared extension", { extension: true }),
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
    pure("&(left text > items, right text > items): text", "Joins two texts.",
      "join", { missing, missingItem: "empty", emptyItem: "kept" }, section("6.4.10")),
    ...["=", "<>", "<", "<=", ">", ">="].map((relation): FunctionRow => pure(`${relation}(left single > a, right single > b): boolean`,
      "Compares two values.",
      "compare", compared, section("6.4.7 to 6.4.9"), { fixed: { relation }, notation: "operator" })),
    ...["+", "-", "*", "/", "^"].map((sign): FunctionRow => pure(`${sign}(left number > a, right number > b): number`,
      "Arithmetic on two numbers.",
      "calculate", calculated, section("6.4.2 to 6.4.6"), { fixed: { sign }, notation: "operator" })),
    ...itselfRows(["+"], { summary: "The value itself.", result: "any", notation: "operator", evidence: section("6.4.13") }),
    pure("NOT(condition boolean > value): boolean", "True for false.", "not", { missing, truth: "true or false" }, section("6.15.7")),
    pure("%(number number > a): number", "A hundredth of a number.",
      "calculate", calculated, section("6.4.14"), { fixed: { sign: "/", b: 100 } }),
    pure("POWER(number number > a, exponent number > b): number", "A number raised to a power.",
      "calculate", calculated, section("6.16.46"), { fixed: { sign: "^" } }),
  ];
  const numbers = { missing, numbers: "double" } as const;
  const signs = { type: "number", answers: { ...numbers, signKind: "whole" } } as const;
  return [
    ...text,
    ...operators,
    ...kindRows,
    ...writtenRows,
    ...baseRows,
    ...choiceRows,
    ...otherRows,
    { ...switchRow, extension: true },
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

const whether = (what: string) => step("is", { truth: "true or false" }, { what });

/** What a value is, an error among what it may be, and the number that it is. */
// prettier-ignore
const kindRows = steppedRows(
  [
    ["VALUE(text any > value): number", "convert", "A text as a number.", "6.13.34", valueOf],
    ["ISERROR(value any): boolean", "logic", "Whether it is an error.", "6.13.16", whether("failing")],
    ["ISERR(value any): boolean", "logic", "Whether it is an error but #N/A.", "6.13.15", whether("failing otherwise")],
    ["ISNA(value any): boolean", "logic", "Whether it is #N/A.", "6.13.20", whether("not available")],
    ["ISBLANK(value any): boolean", "logic", "Whether it is a blank cell.", "6.13.14", whether("blank")],
    ["ISTEXT(value any): boolean", "logic", "Whether it is a text.", "6.13.25", whether("text")],
    ["ISNONTEXT(value any): boolean", "logic", "Whether it is no text.", "6.13.21", whether("no text")],
    ["ISNUMBER(value any): boolean", "logic", "Whether it is a number.", "6.13.22", whether("number")],
    ["ISLOGICAL(value any): boolean", "logic", "Whether it is true or false.", "6.13.19", whether("boolean")],
  ],
  section,
);

const fieldOf = (field: string) => step("calendar-field", { missing: "blank" }, { field });
const inSections = step("format-number", { missing: "blank", numberFormats: "sections", powerHalves: "away from zero" });
const blank = { missing: "blank", fraction: "truncated" } as const;

// prettier-ignore
const writtenRows = steppedRows(
  [
    ["TEXT(value amount > number, format text): text", "convert",
      "A value written in a number format.", "6.20.23", inSections],
    ["FIXED(number number, decimals? number = 2, noGroups? boolean = false): text", "convert",
      "A number with a fixed number of decimals.", "6.20.10", step("fixed-text", blank, { mark: "" })],
    ["DOLLAR(number number, decimals? number = 2): text", "convert",
      "A number as an amount of money.", "6.20.7", step("fixed-text", blank, { mark: "$" })],
    ["YEAR(date dated): number", "convert", "The year of a date.", "6.10.23", fieldOf("year")],
    ["MONTH(date dated): number", "convert", "The month of a date.", "6.10.13", fieldOf("month")],
    ["DAY(date dated): number", "convert", "The day of the month.", "6.10.5", fieldOf("day")],
    ["ISOWEEKNUM(date dated): number", "convert",
      "The number of the ISO week.", "6.10.11", step("week-of-year", { missing: "blank", weeks: "ISO 8601" })],
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
    ["BASE(number number, base number, least? number > digits = 0): text", "convert",
      "A number written in another base.", "6.19.3", step("digits-of", { missing: "blank", letterDigits: "capital",
        digitRoom: "as needed" })],
    ["DECIMAL(text text, base number): number", "convert",
      "A number read in another base.", "6.19.10", step("number-in-base", { missing: "blank", numbers: "double" })],
    ["BIN2DEC(text base.2 > value): number", "convert", "A number read in base 2.", "6.19.4", fromBase],
    ["OCT2DEC(text base.8 > value): number", "convert", "A number read in base 8.", "6.19.15", fromBase],
    ["HEX2DEC(text base.16 > value): number", "convert", "A number read in base 16.", "6.19.12", fromBase],
    ["DEC2BIN(number number, digits? number): text", "convert", "A number written in base 2.", "6.19.7", toBase(2, 10)],
    ["DEC2OCT(number number, digits? number): text", "convert", "A number written in base 8.", "6.19.9", toBase(8, 30)],
    ["DEC2HEX(number number, digits? number): text", "convert", "A number written in base 16.", "6.19.8", toBase(16, 40)],
    ["BIN2OCT(text base.2 > number, digits? number): text", "convert", "A number from base 2 to base 8.", "6.19.6", toBase(8, 30)],
    ["BIN2HEX(text base.2 > number, digits? number): text", "convert", "A number from base 2 to base 16.", "6.19.5", toBase(16, 40)],
    ["OCT2BIN(text base.8 > number, digits? number): text", "convert", "A number from base 8 to base 2.", "6.19.14", toBase(2, 10)],
    ["OCT2HEX(text base.8 > number, digits? number): text", "convert", "A number from base 8 to base 16.", "6.19.16", toBase(16, 40)],
    ["HEX2BIN(text base.16 > number, digits? number): text", "convert", "A number from base 16 to base 2.", "6.19.11", toBase(2, 10)],
    ["HEX2OCT(text base.16 > number, digits? number): text", "convert", "A number from base 16 to base 8.", "6.19.13", toBase(8, 30)],
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

/** Functions that carry code of their own. */
const otherRows = codedRows(
  [
    ["T(value any): text", "convert", "The text itself; empty for what is no text.", "6.20.22"],
    ["N(value any): number", "convert", "A number; 0 for a text.", "6.13.26"],
    [
      "NUMBERVALUE(text text, decimal? text, group? text): number",
      "convert",
      "A text as a number, with given separators.",
      "6.13.28",
    ],
    ["ROMAN(number number, format? number = 0): text", "convert", "A number in Roman numerals.", "6.19.17"],
    ["ARABIC(text text): number", "convert", "Roman numerals as a number.", "6.19.2"],
    ["CEILING(number number, multiple? number = 1): number", "convert", "The number rounded up to a multiple.", "6.17.1"],
    ["FLOOR(number number, multiple? number = 1): number", "convert", "The number rounded down to a multiple.", "6.17.3"],
    ["QUOTIENT(number number, divisor number): number", "convert", "The whole part of a quotient.", "6.16.49"],
    ["EVEN(number number): number", "convert", "Rounded away from zero to an even number.", "6.16.30"],
    ["ODD(number number): number", "convert", "Rounded away from zero to an odd number.", "6.16.44"],
    ["DATE(year number, month number, day number): number", "convert", "A date from its parts, as a serial number.", "6.10.2"],
    ["DATEVALUE(text text): number", "convert", "A date from a text, as a serial number.", "6.10.4"],
    ["TIMEVALUE(text text): number", "convert", "A time of day from a text, as a part of a day.", "6.10.18"],
    [
      "TIME(hours number, minutes number, seconds number): number",
      "convert",
      "A time of day from its parts, as a part of a day.",
      "6.10.17",
    ],
    ["HOUR(time number): number", "convert", "The hour of a time.", "6.10.10"],
    ["MINUTE(time number): number", "convert", "The minute of a time.", "6.10.12"],
    ["SECOND(time number): number", "convert", "The second of a time.", "6.10.16"],
    ["WEEKDAY(date number, kind? number = 1): number", "convert", "The day of the week.", "6.10.20"],
    ["DAYS(end number, start number): number", "convert", "The days from one date to another.", "6.10.6"],
    ["EDATE(date number, months number): number", "convert", "The same day some months later.", "6.10.8"],
    ["EOMONTH(date number, months number): number", "convert", "The last day of the month some months later.", "6.10.9"],
    ["WEEKNUM(date number, kind? number = 1): number", "convert", "The number of the week in the year.", "6.10.21"],
    ["MROUND(number number, multiple number): number", "convert", "The number rounded to a multiple.", "6.17.4"],
    ["AND(conditions* any): boolean", "logic", "Whether all are true.", "6.15.2"],
    ["OR(conditions* any): boolean", "logic", "Whether one is true.", "6.15.8"],
    ["XOR(conditions* any): boolean", "logic", "Whether an odd number are true.", "6.15.10"],
    ["NA(): any", "logic", "The error #N/A.", "6.13.27"],
    ["ERROR.TYPE(value any): number", "logic", "The number of an error.", "6.13.11"],
    [
      "TYPE(value any): number",
      "logic",
      "The number of a kind of value: 1 number, 2 text, 4 truth value, 16 error, 64 list.",
      "6.13.33",
    ],
    ["ISEVEN(number number): boolean", "logic", "Whether a number is even.", "6.13.17"],
    ["ISODD(number number): boolean", "logic", "Whether a number is odd.", "6.13.23"],
    ["SUM(values* any): number", "list", "The sum of numbers.", "6.16.61"],
    ["PRODUCT(values* any): number", "list", "The product of numbers.", "6.16.48"],
    ["AVERAGE(values* any): number", "list", "The mean of numbers.", "6.18.3"],
    ["MIN(values* any): number", "list", "The smallest number.", "6.18.48"],
    ["MAX(values* any): number", "list", "The largest number.", "6.18.45"],
    ["COUNT(values* any): number", "list", "How many numbers there are.", "6.13.6"],
    ["COUNTA(values* any): number", "list", "How many values there are.", "6.13.7"],
    ["COUNTBLANK(values any): number", "list", "How many blanks there are.", "6.13.8"],
    ["COUNTIF(values any, criterion any): number", "list", "How many values meet a criterion.", "6.13.9"],
    [
      "SUMIF(values any, criterion any, numbers? any): number",
      "list",
      "The sum of the numbers whose row meets a criterion.",
      "6.16.62",
    ],
    [
      "AVERAGEIF(values any, criterion any, numbers? any): number",
      "list",
      "The mean of the numbers whose row meets a criterion.",
      "6.18.5",
    ],
  ],
  section,
);

/** As several spreadsheets have it, though not the standard. */
const [switchRow] = codedRows([
  ["SWITCH(value any, cases* any): any", "logic", "The value after the first equal one.", "shared extension"],
]);
