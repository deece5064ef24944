import { type Coded, steppedRows } from "../shared/coded.ts";
import { steps } from "./steps.ts";
import { type Step, step } from "../step.ts";
import { type FunctionRow, params } from "../row.ts";
import { calendarRows } from "../shared/calendar.ts";
import { itselfRows, truthRows } from "../shared/itself.ts";
import { mathRows, piRow } from "../shared/math.ts";
import { roundRows, signedRows } from "../shared/numeric.ts";

const fo = (section: string) => `XPath and XQuery Functions and Operators 3.1, ${section}`;

const missing = "blank" as const;
const sliced = {
  missing,
  unit: "code point",
  first: "1",
  from: "start",
  third: "length",
  startBelow: "window",
  negativeLength: "empty",
  startBeyond: "empty",
  fraction: "rounded",
} as const;
const segmented = { missing, absent: "empty", emptyNeedle: "at the start", case: "minded" } as const;
const tested = { missing, pattern: "literal", case: "minded" } as const;
const recased = { missing, mapping: "full", words: "not alphanumeric", restOfWord: "lowered" } as const;
const split = {
  missing,
  pattern: "xpath",
  case: "minded",
  emptyDelimiter: "whole",
  delimiterIs: "one text",
  emptyText: "nothing",
  edges: "pieces",
  emptyMatch: "error",
  missingDelimiter: "null",
} as const;
const compared = {
  missing: "null",
  case: "minded",
  padding: "counted",
  mixed: "error",
  notANumber: "unordered",
  truth: "true or false",
} as const;
export const calculated = {
  missing: "null",
  numbers: "exact",
  quotient: "decimal",
  quotientDigits: "twenty decimals",
  byZero: "error",
  doubleByZero: "infinity",
  overflow: "infinity",
  remainder: "of fractions",
  remainderSign: "of what is divided",
  tooSmall: "zero",
} as const;
const joined = { missing, missingItem: "empty", emptyItem: "kept" } as const;

/** Functions of the text families: each is an operation with answers. */
// prettier-ignore
const text: FunctionRow[] = [
  { name: "substring", family: "extract", summary: "A number of characters from a position.", parameters: params("text string?, start double, length? double"), result: "text", operation: "slice", answers: sliced, evidence: fo("5.4.3") },
  { name: "substring-before", family: "extract", summary: "What stands before the first occurrence of a text.", parameters: params("text string?, delimiter string?"), result: "text", operation: "segment", answers: { ...segmented, part: "before", zeroPiece: "empty", noPiece: "empty" }, evidence: fo("5.5.4") },
  { name: "substring-after", family: "extract", summary: "What stands after the first occurrence of a text.", parameters: params("text string?, delimiter string?"), result: "text", operation: "segment", answers: { ...segmented, part: "after", zeroPiece: "empty", noPiece: "empty" }, evidence: fo("5.5.5") },
  { name: "contains", family: "locate", summary: "Whether a text stands in another.", parameters: params("text string?, needle string?"), result: "boolean", operation: "test", answers: { ...tested, where: "anywhere", truth: "true or false" }, evidence: fo("5.5.1") },
  { name: "starts-with", family: "locate", summary: "Whether a text starts with another.", parameters: params("text string?, needle string?"), result: "boolean", operation: "test", answers: { ...tested, where: "start", truth: "true or false" }, evidence: fo("5.5.2") },
  { name: "ends-with", family: "locate", summary: "Whether a text ends with another.", parameters: params("text string?, needle string?"), result: "boolean", operation: "test", answers: { ...tested, where: "end", truth: "true or false" }, evidence: fo("5.5.3") },
  { name: "matches", family: "locate", summary: "Whether a pattern matches.", parameters: params("text string?, pattern string > needle, flags? string"), result: "boolean", operation: "test", answers: { ...tested, pattern: "xpath", where: "anywhere", truth: "true or false" }, evidence: fo("5.6.3") },
  { name: "replace", family: "substitute", summary: "Replaces every match of a pattern.", parameters: params("text string?, pattern string > old, replacement string > new, flags? string"), result: "text", operation: "substitute", answers: { missing, pattern: "xpath", case: "minded", occurrences: "all", replacement: "dollar", emptyMatch: "error", emptyOld: "null" }, evidence: fo("5.6.4") },
  { name: "translate", family: "substitute", summary: "Maps single characters, or drops them.", parameters: params("text string?, from string, to string"), result: "text", operation: "translate", answers: { missing, unit: "code point" }, evidence: fo("5.4.9") },
  { name: "encode-for-uri", family: "substitute", summary: "The text as a part of a URI.", parameters: params("text string?"), result: "text", operation: "escape", answers: { missing, scheme: "uri part" }, evidence: fo("6.2") },
  { name: "iri-to-uri", family: "substitute", summary: "An IRI as a URI.", parameters: params("text string?"), result: "text", operation: "escape", answers: { missing, scheme: "iri" }, evidence: fo("6.3") },
  { name: "escape-html-uri", family: "substitute", summary: "A URI for HTML.", parameters: params("text string?"), result: "text", operation: "escape", answers: { missing, scheme: "html uri" }, evidence: fo("6.4") },
  { name: "upper-case", family: "recase", summary: "All letters in upper case.", parameters: params("text string?"), result: "text", operation: "recase", answers: { ...recased, form: "upper" }, evidence: fo("5.4.7") },
  { name: "lower-case", family: "recase", summary: "All letters in lower case.", parameters: params("text string?"), result: "text", operation: "recase", answers: { ...recased, form: "lower" }, evidence: fo("5.4.8") },
  { name: "normalize-unicode", family: "recase", summary: "A Unicode normal form.", parameters: params("text string?, form? string"), result: "text", operation: "normalize", answers: { missing, asked: "text" }, evidence: fo("5.4.6") },
  { name: "normalize-space", family: "trim", summary: "No white space at the ends, one space within.", parameters: params("text string?"), result: "text", operation: "trim", answers: { missing, ends: "both", inner: "one space", characters: "xml space", removed: "each" }, evidence: fo("5.4.5") },
  { name: "string-length", family: "measure-test", summary: "The number of characters.", parameters: params("text string?"), result: "integer", operation: "measure", answers: { missing, counted: "code point" }, evidence: fo("5.4.4") },
  { name: "compare", family: "measure-test", summary: "-1, 0 or 1 by the order of two texts.", parameters: params("left string? > a, right string? > b"), result: "any", operation: "compare", answers: compared, fixed: { relation: "order" }, evidence: fo("5.3.6") },
  { name: "codepoint-equal", family: "measure-test", summary: "Whether two texts are the same.", parameters: params("left string? > a, right string? > b"), result: "any", operation: "compare", answers: compared, fixed: { relation: "=" }, evidence: fo("5.3.7") },
  { name: "concat", family: "split-join", summary: "Joins two or more values.", parameters: params("first stringify? > items, others* stringify? > items"), result: "text", operation: "join", answers: joined, evidence: fo("5.4.1") },
  { name: "||", family: "split-join", summary: "Joins two values.", parameters: params("left stringify? > items, right stringify? > items"), result: "text", operation: "join", answers: joined, notation: "operator", evidence: "XPath 3.1, 3.6" },
  { name: "string-join", family: "split-join", summary: "Joins the items of a sequence.", parameters: params("items strings*, separator? string"), result: "text", operation: "join", answers: joined, evidence: fo("5.4.2") },
  { name: "tokenize", family: "split-join", summary: "Splits at white space.", parameters: params("text string?"), result: "text*", operation: "split", answers: { ...split, edges: "trimmed" }, fixed: { delimiter: "[ \\t\\r\\n]+" }, evidence: fo("5.6.5") },
  { name: "tokenize", family: "split-join", summary: "Splits at the matches of a pattern.", parameters: params("text string?, pattern string > delimiter, flags? string"), result: "text*", operation: "split", answers: split, evidence: fo("5.6.5") },
];

// prettier-ignore
const operators: FunctionRow[] = [
  ...([["eq", "="], ["ne", "<>"], ["lt", "<"], ["le", "<="], ["gt", ">"], ["ge", ">="]] as const).map(([name, relation]): FunctionRow => ({ name, family: "measure-test", summary: "Compares two single values.", parameters: params("left atomic? > a, right atomic? > b"), result: "any", operation: "compare", answers: compared, fixed: { relation }, notation: "operator", evidence: "XPath 3.1, 3.7.1" })),
  ...([["+", "+"], ["-", "-"], ["*", "*"], ["div", "/"], ["idiv", "idiv"], ["mod", "mod"]] as const).map(([name, sign]): FunctionRow => ({ name, family: "convert", summary: "Arithmetic on two numbers.", parameters: params("left numeric? > a, right numeric? > b"), result: "any", operation: "calculate", answers: calculated, fixed: { sign }, notation: "operator", evidence: "XPath 3.1, 3.5" })),
  ...(["and", "or"] as const).map((joiner): FunctionRow => ({ name: joiner, family: "logic", summary: `Whether ${joiner === "and" ? "both are" : "one is"} true.`, parameters: params("left condition > a, right condition > b"), result: "boolean", operation: "connect", answers: { truth: "true or false", evaluates: "left first", inConditions: "the same", constants: "none" }, fixed: { joiner }, notation: "operator", evidence: "XPath 3.1, 3.8" })),
  { name: "not", family: "logic", summary: "True for false.", parameters: params("value condition"), result: "boolean", operation: "not", answers: { missing, truth: "true or false" }, evidence: fo("7.3.2") },
  { name: "boolean", family: "logic", summary: "The effective boolean value.", parameters: params("value condition"), result: "boolean", operation: "is", answers: { truth: "true or false" }, fixed: { what: "true" }, evidence: fo("7.3.1") },
];

const itemAt = (noItem: "null" | "error", position?: number) =>
  step(
    "item",
    { missing: "blank", first: "1", negativePosition: "nowhere", noItem },
    position === undefined ? undefined : { position },
  );
const size = step("size", { missing: "blank" });
const sameness = { case: "minded", padding: "counted" } as const;
const extreme = (wanted: "greatest" | "least") =>
  step(
    "extreme",
    { missingValue: "skipped", amongEqual: "first", ...sameness, mixed: "error", notANumber: "unordered" },
    { wanted },
  );
const spliced = (count: number) => step("splice-items", { missing: "blank", outsideList: "passed" }, { count });
const sliceOf = (outsideList: "passed" | "error", fixed?: Step["fixed"]) =>
  step("slice-items", { missing: "blank", until: "number of items", outsideList, fraction: "rounded" }, fixed);
const counted = (fixed: Step["fixed"]) => step("check-size", { missing: "blank" }, fixed);
const general = (relation: string) =>
  step(
    "compare-items",
    { ...sameness, mixed: "error", notANumber: "unordered", truth: "true or false" },
    { relation: relation === "!=" ? "<>" : relation },
  );

// prettier-ignore
const lists = steppedRows(
  [
    ["number", "convert", "A number, NaN where it is none.", "value atomic?", "any", "4.5.1", steps.number],
    ["count", "list", "How many items there are.", "items items > list", "integer", "14.4.1", size],
    ["head", "list", "The first item.", "items items > list", "any", "14.1.3", itemAt("null", 1)],
    ["tail", "list", "All but the first item.", "items items > list", "any*", "14.1.4", step("drop-items", { missing: "blank", tooMany: "all of them" }, { count: 1, end: "start" })],
    ["reverse", "list", "In reverse order.", "items items > list", "any*", "14.1.7", step("reverse-items", { missing: "blank" })],
    ["unordered", "list", "The items.", "items any > value", "any", "14.1.9", step("itself", {})],
    ["array:size", "list", "The number of members.", "array members > list", "integer", "17.3.1", size],
    ["array:get", "list", "The member at a position.", "array members > list, position integer", "any", "17.3.2", itemAt("error")],
    ["data", "convert", "The atomic items.", "items atoms > value", "any*", "2.4", step("itself", {})],
    ["empty", "list", "Whether there is no item.", "items items > value", "boolean", "14.1.1", step("is", { truth: "true or false" }, { what: "without items" })],
    ["exists", "list", "Whether there is an item.", "items items > value", "boolean", "14.1.2", step("is", { truth: "true or false" }, { what: "with items" })],
    ["insert-before", "list", "With items put in at a position.", "items items > list, position integer, inserted items > others", "any*", "14.1.5", spliced(0)],
    ["remove", "list", "Without the item at a position.", "items items > list, position integer", "any*", "14.1.6", spliced(1)],
    ["subsequence", "list", "A number of items from a position.", "items items > list, start double, length? double > until", "any*", "14.1.8", sliceOf("passed")],
    ["distinct-values", "list", "Each value once.", "items atoms > list", "any*", "14.2.1", step("distinct-items", { missing: "blank", distinctOrder: "first met", ...sameness, notANumber: "above all" }, { wanted: "items" })],
    ["index-of", "list", "The positions of a value.", "items atoms > list, value atomic > item", "any*", "14.2.2", step("find-item", { missing: "blank", missingWanted: "looked for", ...sameness, notANumber: "unordered" }, { wanted: "all places" })],
    ["zero-or-one", "list", "The items, of which there must be at most one.", "items items > list", "any*", "14.3.1", counted({ least: 0, most: 1 })],
    ["one-or-more", "list", "The items, of which there must be at least one.", "items items > list", "any*", "14.3.2", counted({ least: 1 })],
    ["exactly-one", "list", "The items, of which there must be just one.", "items items > list", "any*", "14.3.3", counted({ least: 1, most: 1 })],
    ["max", "list", "The largest.", "items atoms > values", "any", "14.4.3", extreme("greatest")],
    ["min", "list", "The smallest.", "items atoms > values", "any", "14.4.4", extreme("least")],
    ["array:append", "list", "With a member added.", "array members > list, member any > item", "array", "17.3.4", step("add-item", { missingList: "skipped" }, { end: "end" })],
    ["array:tail", "list", "All but the first member.", "array members > list", "array", "17.3.10", sliceOf("error", { start: 2 })],
    ["array:reverse", "list", "In reverse order.", "array members > list", "array", "17.3.11", step("reverse-items", { missing: "blank" })],
    ["array:subarray", "list", "A number of members from a position.", "array members > list, start integer, length? integer > until", "array", "17.3.6", sliceOf("error")],
    ["array:head", "list", "The first member.", "array members > list", "any", "17.3.9", itemAt("error", 1)],
  ],
  fo,
);

// prettier-ignore
const comparisons = steppedRows(
  [
    ["=", "logic", "Whether items of both sides are equal.", "left atomic* > a, right atomic* > b", "boolean", "3.7.2", general("=")],
    ["!=", "logic", "Whether items of both sides differ.", "left atomic* > a, right atomic* > b", "boolean", "3.7.2", general("!=")],
    ["<", "logic", "Whether an item is below one of the other side.", "left atomic* > a, right atomic* > b", "boolean", "3.7.2", general("<")],
    ["<=", "logic", "Whether an item is not above one of the other side.", "left atomic* > a, right atomic* > b", "boolean", "3.7.2", general("<=")],
    [">", "logic", "Whether an item is above one of the other side.", "left atomic* > a, right atomic* > b", "boolean", "3.7.2", general(">")],
    [">=", "logic", "Whether an item is not below one of the other side.", "left atomic* > a, right atomic* > b", "boolean", "3.7.2", general(">=")],
  ],
  (section) => `XPath 3.1, ${section}`,
);
const to: FunctionRow = {
  name: "to",
  family: "list",
  summary: "The whole numbers from one to another.",
  parameters: params("first integer?, last integer?"),
  result: "any*",
  ...step("series", { missing: "null", lastNumber: "included" }),
  notation: "operator",
  evidence: "XPath 3.1, 3.4.1",
};
const dated = { result: "any", text: "text", missing: "null", evidence: fo("9.5") } as const;
const days = { year: "year", month: "month", day: "day" };
const clock = { hours: "hour", minutes: "minute", seconds: "second and fraction" };
const partsOf = (type: "date" | "time" | "dateTime", parts: Readonly<Record<string, string>>): FunctionRow[] => {
  const named = Object.entries(parts).map(([part, field]) => [`${part}-from-${type}`, field]);
  return calendarRows(Object.fromEntries(named) as Readonly<Record<string, string>>, {}, { ...dated, type: `${type}?` });
};

// prettier-ignore
const coded = (
  [
    ["string", "convert", "The text of an item.", "item any", "text", fo("2.3")],
    ["string-to-codepoints", "convert", "The code points of a text.", "text string?", "any", fo("5.2.2")],
    ["codepoints-to-string", "convert", "The text of code points.", "codes atomic*", "text", fo("5.2.1")],
    ["contains-token", "list", "Whether a text has a word.", "texts string*, token string", "boolean", fo("5.5.6")],
    ["dateTime", "convert", "A date and a time in one.", "date date?, time time?", "any", fo("5.2")],
    ["format-date", "convert", "A date in a picture.", "date date?, picture string", "any", fo("9.8.2")],
    ["format-time", "convert", "A time in a picture.", "time time?, picture string", "any", fo("9.8.3")],
    ["format-dateTime", "convert", "A date and time in a picture.", "moment dateTime?, picture string", "any", fo("9.8.1")],
    ["format-integer", "convert", "A whole number in a picture.", "number integer?, picture string", "text", fo("4.6.1")],
    ["format-number", "convert", "A number in a picture.", "number numeric?, picture string", "text", fo("4.7.2")],
    ["math:pow", "convert", "A number raised to a power.", "number numeric?, exponent numeric", "any", fo("4.8.8")],
    ["instance of", "logic", "Whether a value is of a type.", "value any, type string", "boolean", "XPath 3.1, 3.14.2"],
    ["treat as", "logic", "The value, which must be of a type.", "value any, type string", "any", "XPath 3.1, 3.14.5"],
    ["castable as", "logic", "Whether a value can be cast.", "value any, type string", "boolean", "XPath 3.1, 3.14.3"],
    ["deep-equal", "list", "Whether two sequences are the same.", "left any, right any", "boolean", fo("14.2.3")],
    ["avg", "list", "The mean.", "items atomic*", "any", fo("14.4.2")],
    ["sum", "list", "The sum.", "items atomic*, zero? atomic?", "any", fo("14.4.5")],
    ["for-each", "list", "A function of each item.", "items any, action function", "any", fo("16.2.1")],
    ["filter", "list", "The items for which a function is true.", "items any, test function", "any", fo("16.2.2")],
    ["fold-left", "list", "A function of a start and each item in turn.", "items any, zero any, action function", "any", fo("16.2.3")],
    ["fold-right", "list", "A function of each item and a start, from the end.", "items any, zero any, action function", "any", fo("16.2.4")],
    ["for-each-pair", "list", "A function of the items of two sequences.", "left any, right any, action function", "any", fo("16.2.5")],
    ["sort", "list", "The items in order.", "items any, collation? any, key? function", "any", fo("16.2.6")],
    ["apply", "list", "A function of the members of an array.", "action function, args array", "any", fo("16.2.7")],
    ["function-arity", "list", "The number of a function's parameters.", "action function", "integer", fo("16.1.3")],
    ["error", "logic", "Raises an error.", "code? any, description? string, object? any", "any", fo("3.1.1")],
    ["array of", "list", "An array of the items.", "items? any", "any", "XPath 3.1, 3.11.2"],
    ["look up", "list", "The member or entry for a key.", "from any, key any", "any", "XPath 3.1, 3.11.3"],
    ["look up all", "list", "All members or entries.", "from any", "any", "XPath 3.1, 3.11.3"],
    ["map:get", "list", "The entry for a key.", "map map, key atomic?", "any", fo("17.1.6")],
    ["map:contains", "list", "Whether there is an entry.", "map map, key atomic?", "boolean", fo("17.1.5")],
    ["map:keys", "list", "The keys.", "map map", "any", fo("17.1.4")],
    ["map:size", "list", "The number of entries.", "map map", "integer", fo("17.1.3")],
    ["map:put", "list", "With an entry set.", "map map, key atomic?, value any", "any", fo("17.1.8")],
    ["map:entry", "list", "A map of one entry.", "key atomic?, value any", "any", fo("17.1.9")],
    ["map:remove", "list", "Without entries.", "map map, keys atomic*", "any", fo("17.1.10")],
    ["map:merge", "list", "Maps in one, the first entry kept.", "maps any", "any", fo("17.1.2")],
    ["map:for-each", "list", "A function of each key and value.", "map map, action function", "any", fo("17.1.11")],
    ["array:join", "list", "Arrays in one.", "arrays any", "any", fo("17.3.12")],
    ["array:flatten", "list", "The members of all arrays within.", "items any", "any", fo("17.3.18")],
    ["array:for-each", "list", "A function of each member.", "array array, action function", "any", fo("17.3.13")],
    ["array:filter", "list", "The members for which a function is true.", "array array, test function", "any", fo("17.3.14")],
  ] satisfies Coded[]
).map(
  ([name, family, summary, form, result, evidence]): FunctionRow => ({
    name,
    family,
    summary,
    parameters: params(form),
    result,
    code: name,
    ...(/^[a-z][\w:-]*$/.test(name) && !["and", "or"].includes(name) ? {} : { notation: "operator" as const }),
    evidence,
  }),
);

const number = { type: "numeric?", result: "any" } as const;
const exact = { missing: "null", numbers: "exact" } as const;
const signs = { ...exact, signKind: "the number's" } as const;
const math = {
  result: "any",
  answers: {
    missing: "null",
    numbers: "exact",
    outside: "not a number",
    overflow: "infinity",
    tooSmall: "zero",
    closeness: "nearest",
  },
  evidence: fo("4.8"),
} as const;

/** The functions and operators of XPath 3.1. */
export const xpathRows: readonly FunctionRow[] = [
  ...text,
  ...operators,
  ...lists,
  ...comparisons,
  to,
  ...partsOf("date", days),
  ...partsOf("time", clock),
  ...partsOf("dateTime", { ...days, ...clock }),
  ...mathRows({
    names: [
      "math:acos=acos math:asin=asin math:atan=atan math:cos=cos math:exp=exp math:exp10=exp10 math:log=ln",
      "math:log10=log10 math:sin=sin math:sqrt=sqrt math:tan=tan",
    ].join(" "),
    type: "numeric?",
    ...math,
  }),
  piRow("math:pi", math),
  ...truthRows({ true: true, false: false }, { result: "boolean", evidence: fo("7.1.1 and 7.1.2") }),
  ...mathRows({ names: "math:atan2=atan2", type: "double", ...math }),
  ...signedRows({ "-": "opposite" }, { ...number, answers: signs, evidence: "XPath 3.1, 3.5" }),
  ...signedRows({ abs: "size" }, { ...number, answers: signs, evidence: fo("4.4.1") }),
  ...roundRows({ ceiling: "up", floor: "down" }, { ...number, answers: exact, evidence: fo("4.4.2 and 4.4.3") }),
  ...roundRows(
    { round: "half up", "round-half-to-even": "half to even" },
    { ...number, digits: "digits? integer", answers: exact, evidence: fo("4.4.4 and 4.4.5") },
  ),
  ...itselfRows(["+"], {
    type: "numeric?",
    summary: "The number itself.",
    result: "any",
    notation: "operator",
    evidence: "XPath 3.1, 3.5",
  }),
  ...coded,
];
