import { codedRows, pure } from "../shared/rows.ts";
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
  pure("substr(text clipped, start position, count? position > length): none", "Characters from a position, from the end when negative.",
    "slice", sliced, doc, { aliases: ["substring"] }),
  pure("instr(text text, needle text): none", "The position of a text, 0 when absent.",
    "locate", { missing, unit: "code point", first: "1", pattern: "literal", case: "minded", absent: "zero",
      startBelow: "error", emptyNeedle: "at the start", fraction: "truncated" },
    doc),
  pure("like(text clipped, pattern clipped > needle, escape? escape > flags): none",
    "Whether the whole text fits a pattern of % and _, ignoring the case of A to Z.",
    "test", liked, operatorDoc, { notation: "operator" }),
  pure("like(pattern text > needle, text text, escape? escape > flags): none", "The operator LIKE with the pattern first.",
    "test", liked, doc),
  pure("glob(text clipped, pattern clipped > needle): none", "Whether the whole text fits a pattern of *, ? and [...].",
    "test", globbed, operatorDoc, { notation: "operator" }),
  pure("glob(pattern text > needle, text text): none", "The operator GLOB with the pattern first.", "test", globbed, doc),
  pure("replace(text text, old text, new text): none", "Replaces a text everywhere.",
    "substitute", { missing, pattern: "literal", case: "minded", occurrences: "all", replacement: "literal",
      emptyMatch: "allowed", emptyOld: "whole" },
    doc),
  pure("upper(text text): none", "The letters a to z in upper case.", "recase", { ...recased, form: "upper" }, doc),
  pure("lower(text text): none", "The letters A to Z in lower case.", "recase", { ...recased, form: "lower" }, doc),
  pure("trim(text text, characters? text): none", "Without given characters at both ends.", "trim", { ...trimmed, ends: "both" }, doc),
  pure("ltrim(text text, characters? text): none", "Without given characters at the start.", "trim", { ...trimmed, ends: "start" }, doc),
  pure("rtrim(text text, characters? text): none", "Without given characters at the end.", "trim", { ...trimmed, ends: "end" }, doc),
  pure("length(text clipped): none", "The number of characters, up to a NUL.", "measure", { missing, counted: "code point" }, doc),
  pure("length(bytes blob > text): none", "The number of bytes of a blob.", "measure", { missing, counted: "utf-8 byte" }, doc),
  pure("octet_length(text text): none", "The number of bytes.", "measure", { missing, counted: "utf-8 byte" }, doc),
  pure("unicode(text clipped): none", "The code point of the first character.",
    "code-of", { missing, alphabet: "unicode", ofEmpty: "null" }, doc),
  pure("concat(values* text > items): none", "Joins values, null like empty text.", "join", joined, doc),
  pure("concat_ws(separator text, values* text > items): none", "Joins values with a separator, skipping null.",
    "join", { ...joined, missingItem: "skipped" }, doc),
  pure("||(left text > items, right text > items): none", "Joins two values; null with anything is null.",
    "join", { ...joined, missingItem: "null" }, operatorDoc),
];

const sides = [
  ["numeric_side", "as_numeric"],
  ["as_numeric", "numeric_side"],
  ["text_side", "as_text"],
  ["as_text", "text_side"],
  ["any_side", "any_side"],
];

/** Comparisons by affinity and collation, and arithmetic. */
const calculated = {
  missing,
  numbers: "exact",
  quotient: "integer",
  quotientDigits: "twenty decimals",
  byZero: "null",
  doubleByZero: "null",
  overflow: "infinity",
  remainder: "of whole parts",
  remainderSign: "of what is divided",
  tooSmall: "zero",
} as const;

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
  ...[["+", "number"], ["-", "number"], ["*", "number"], ["/", "number"], ["%", "divided"]].map(([sign, type]) =>
    pure(`${sign}(left ${type} > a, right ${type} > b): none`,
      "Arithmetic on two numbers; a text counts as the number that it begins with.",
      "calculate", calculated, operatorDoc, { fixed: { sign: sign === "%" ? "mod" : sign } })),
];

// prettier-ignore
const coded = codedRows([
  ["char(codes?* any): none", "convert", "The characters of code points.", doc],
  ["substr(bytes blob, start integer, count? integer): blob", "convert", "Bytes of a blob from a position.", doc, "byte slice"],
  ["instr(bytes blob, needle blob): none", "convert", "The position of bytes in a blob.", doc, "byte position"],
  ["hex(value any): none", "convert", "The UTF-8 bytes in base 16.", doc],
  ["unhex(text text, ignored? text): blob", "convert", "Bytes from base 16; null for anything else.", doc],
  ["quote(value any): none", "convert", "The value as an SQL literal.", doc],
  ["unistr(text text): none", "convert", "Reads Unicode escapes.", doc],
  ["unistr_quote(value any): none", "convert", "The value as an SQL literal, control characters escaped.", doc],
  ["printf(format? any, values?* any): none", "split-join", "Fills the directives of a format.", doc],
  ["format(format? any, values?* any): none", "split-join", "Fills the directives of a format.", doc, "printf"],
  ["typeof(value any): none", "convert", "The kind of a value.", doc],
  ["zeroblob(length integer): blob", "convert", "A blob of zeros.", doc],
  ["abs(number any): none", "convert", "The number without its sign.", doc],
  ["round(number real, digits? integer): none", "convert", "Rounded to a number of decimals, always a real.", doc],
  ["likelihood(value any, probability any): same collation", "logic", "The value itself.", doc],
  ["log(number any, argument? any): none", "convert", "The logarithm, to base 10 unless one is given.", mathDoc],
  ["mod(number any, divisor any): none", "convert", "What is left of a quotient.", mathDoc],
  ["date(value?* any): none", "convert", "A date as YYYY-MM-DD.", dateDoc],
  ["time(value?* any): none", "convert", "A time of day as HH:MM:SS.", dateDoc],
  ["datetime(value?* any): none", "convert", "A date and time as YYYY-MM-DD HH:MM:SS.", dateDoc],
  ["julianday(value?* any): none", "convert", "The Julian day number.", dateDoc],
  ["unixepoch(value?* any): none", "convert", "Seconds since 1970.", dateDoc],
  ["strftime(format any, value?* any): none", "convert", "A date in a format.", dateDoc],
  ["timediff(left any, right any): none", "convert", "The time between two dates.", dateDoc],
]);

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
    names:
      "acos acosh asin asinh atan atan2 atanh cos cosh degrees exp ln log10 log2 power pow=power radians sin sinh sqrt tan tanh",
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
