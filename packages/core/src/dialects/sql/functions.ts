import { type Stepped, codedRows, steppedRows, pure } from "../shared/rows.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { itselfRows } from "../shared/itself.ts";
import { logicRows } from "../shared/logic.ts";
import { mathRows } from "../shared/math.ts";
import { roundRows, signedRows } from "../shared/numeric.ts";
import { aggregates } from "./aggregates.ts";
import type { AnswerOf } from "../../traits/index.ts";
import type { FunctionRow } from "../row.ts";
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

const calculated = {
  missing,
  numbers: "exact",
  quotient: "integer",
  quotientDigits: "sixteen significant ones",
  byZero: "error",
  doubleByZero: "error",
  overflow: "error",
  remainder: "of fractions",
  remainderSign: "of what is divided",
  tooSmall: "error",
} as const;

/** What TRIM and the functions of three names do: at which ends. */
const trimmedEnds = [
  ["btrim", "trim", "both", "at both ends"],
  ["ltrim", "trim leading", "start", "at the start"],
  ["rtrim", "trim trailing", "end", "at the end"],
] as const;

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
const text: FunctionRow[] = [
  pure("substring(text text, start count, count? count > length): text", "A number of characters from a position.",
    "slice", sliced, characters),
  pure("substring octets(text text, start count, count? count > length): text", "A number of octets from a position.",
    "slice", { ...sliced, unit: "utf-8 byte" }, characters),
  pure("substring similar(text text, pattern text > needle, escape text > flags): text",
    "The part of a text that an SQL regular expression marks.",
    "find", { missing, pattern: "similar", case: "minded", report: "text", group: "first group", absent: "null" },
    characters, { family: "extract" }),
  pure("substring_regex(text text, pattern text > needle, flags text, start count, n count, group count): text",
    "The nth match of an XQuery pattern, or one of its groups.",
    "find", { ...matching, report: "text", group: "match", absent: "null" }, characters, { family: "extract" }),
  pure("position(text text, needle text): integer", "The position of a text, 0 when absent.",
    "locate", { missing, unit: "code point", first: "1", pattern: "literal", case: "minded", absent: "zero",
      startBelow: "error", emptyNeedle: "at the start", fraction: "refused" },
    lengths),
  pure("position_regex(text text, pattern text > needle, flags text, start count, n count, group count, side count): integer",
    "The position of the nth match of an XQuery pattern, 0 when absent.",
    "find", { ...matching, report: "position", group: "match", absent: "zero" }, lengths),
  pure("occurrences_regex(text text, pattern text > needle, flags text, start count): integer", "How often an XQuery pattern matches.",
    "find", { ...matching, report: "count", group: "match", absent: "zero" }, lengths),
  pure("like(text text, pattern text > needle): boolean", "Whether the whole text fits a pattern of % and _.",
    "test", { missing, pattern: "like, escape strict", where: "whole", truth, case: "minded" },
    iso("8.5 <like predicate>"), { fixed: { flags: "" }, notation: "operator" }),
  pure("like(text text, pattern text > needle, escape escape > flags): boolean",
    "Whether the whole text fits a pattern of % and _, with an escape character.",
    "test", { missing, pattern: "like, escape strict", where: "whole", truth, case: "minded" },
    iso("8.5 <like predicate>"), { notation: "operator" }),
  pure("similar to(text text, pattern text > needle): boolean", "Whether the whole text fits an SQL regular expression.",
    "test", { missing, pattern: "similar", where: "whole", truth, case: "minded" },
    iso("8.6 <similar predicate>"), { fixed: { flags: "" } }),
  pure("similar to(text text, pattern text > needle, escape escape > flags): boolean",
    "Whether the whole text fits an SQL regular expression, with an escape character.",
    "test", { missing, pattern: "similar", where: "whole", truth, case: "minded" }, iso("8.6 <similar predicate>")),
  pure("like_regex(text text, pattern text > needle, flags? text): boolean", "Whether an XQuery pattern matches.",
    "test", { ...matching, where: "anywhere", truth }, iso("8.7 <regex like predicate>"), { notation: "operator" }),
  pure("overlay(text text, new text, start count, count? count > length): text", "Replaces a number of characters from a position.",
    "replace-span", { missing, unit: "code point", first: "1", startBelow: "error", spanBeyond: "added",
      negativeSpan: "repeated", farEnd: "taken", fraction: "refused" },
    characters),
  pure("translate_regex(text text, pattern text > old, replacement text > new, flags text, start count, n? count > which): text",
    "Replaces matches of an XQuery pattern.",
    "substitute", { ...matching, occurrences: "all", replacement: "dollar", emptyMatch: "error", emptyOld: "null" }, characters),
  pure("upper(text text): text", "All letters in upper case.", "recase", { ...recased, form: "upper" }, characters),
  pure("lower(text text): text", "All letters in lower case.", "recase", { ...recased, form: "lower" }, characters),
  pure("normalize(text text, form? text): text", "A Unicode normal form.", "normalize", { missing, asked: "text" }, characters),
  pure("is normalized(text text, form text): boolean", "Whether a text is in a normal form.",
    "normalize", { missing, asked: "whether" }, iso("8.12 <normalized predicate>"), { family: "measure-test" }),
  ...trimmedEnds.map(([, name, ends, where]) =>
    pure(`${name}(text text, character? character > characters): text`, `Without a character ${where}, a space unless one is given.`,
      "trim", { ...trimmed, ends }, characters)),
  ...trimmedEnds.map(([name, , ends, where]) =>
    pure(`${name}(text text, characters? text): text`, `Without given characters ${where}.`,
      "trim", { ...trimmed, ends }, characters)),
  pure("lpad(text text, length count, fill? text): text", "Filled up at the start, or cut at the end.",
    "pad", { ...padded, side: "left" }, characters),
  pure("rpad(text text, length count, fill? text): text", "Filled up at the end, or cut there.",
    "pad", { ...padded, side: "right" }, characters),
  pure("char_length(text text): integer", "The number of characters.",
    "measure", { missing, counted: "code point" }, lengths, { aliases: ["character_length"] }),
  pure("octet_length(text text): integer", "The number of octets.", "measure", { missing, counted: "utf-8 byte" }, lengths),
  pure("||(left text > items, right text > items): text", "Joins two texts; null with anything is null.",
    "join", { missing, missingItem: "null", emptyItem: "kept" }, iso("6.32 <string value expression>")),
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
    (sign === "mod" ? ["integer", "decimal"] : ["integer", "decimal", "double"]).map((type) =>
      pure(`${sign}(left ${type} > a, right ${type} > b): ${type}`, "Arithmetic on two numbers.", "calculate", calculated,
        iso(sign === "mod" ? "6.30 <modulus expression>" : "6.29 <numeric value expression>"), { fixed: { sign } }),
    ),
  ),
];

// prettier-ignore
const coded = codedRows(
  [
    ["extract(field text, date date): integer", "convert", "A field of a date.", "6.30 <extract expression>"],
  ], iso,
);

const extremes = (padding: AnswerOf<"padding">): FunctionRow[] =>
  steppedRows(
    kinds.flatMap((type) =>
      (["greatest", "least"] as const).map((wanted): Stepped => {
        const ordering = { case: "minded", padding, mixed: "error", notANumber: "there is none" } as const;
        const extreme = step("extreme", { missingValue: "null", amongEqual: "first", ...ordering }, { wanted });
        const summary = `The ${wanted === "greatest" ? "largest" : "smallest"} value; null if one is null.`;
        return [`${wanted}(values* ${type}): ${type}`, "logic", summary, "6.36 <greatest or least function>", extreme];
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
    evaluates: "left first, not promised",
    hasUnknown: true,
    evidence: [iso("6.39 <boolean value expression>"), iso("8.8 <null predicate>"), iso("6.39 <boolean test>")],
  }),
  ...mathRows({
    names: "acos asin atan cos cosh exp ln log log10 power sin sinh sqrt tan tanh",
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
