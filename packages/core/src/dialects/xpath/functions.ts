import type { AnswerOf } from "../../traits/index.ts";
import { type Stepped, codedRows, pure, steppedRows } from "../shared/rows.ts";
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
  pure("substring(text string?, start double, length? double): text", "A number of characters from a position.",
    "slice", sliced, fo("5.4.3")),
  pure("substring-before(text string?, delimiter string?): text", "What stands before the first occurrence of a text.",
    "segment", { ...segmented, part: "before", zeroPiece: "empty", noPiece: "empty" }, fo("5.5.4")),
  pure("substring-after(text string?, delimiter string?): text", "What stands after the first occurrence of a text.",
    "segment", { ...segmented, part: "after", zeroPiece: "empty", noPiece: "empty" }, fo("5.5.5")),
  pure("contains(text string?, needle string?): boolean", "Whether a text stands in another.",
    "test", { ...tested, where: "anywhere", truth: "true or false" }, fo("5.5.1")),
  pure("starts-with(text string?, needle string?): boolean", "Whether a text starts with another.",
    "test", { ...tested, where: "start", truth: "true or false" }, fo("5.5.2")),
  pure("ends-with(text string?, needle string?): boolean", "Whether a text ends with another.",
    "test", { ...tested, where: "end", truth: "true or false" }, fo("5.5.3")),
  pure("matches(text string?, pattern string > needle, flags? string): boolean", "Whether a pattern matches.",
    "test", { ...tested, pattern: "xpath", where: "anywhere", truth: "true or false" }, fo("5.6.3")),
  pure("replace(text string?, pattern string > old, replacement string > new, flags? string): text", "Replaces every match of a pattern.",
    "substitute", { missing, pattern: "xpath", case: "minded", occurrences: "all", replacement: "dollar",
      emptyMatch: "error", emptyOld: "null" },
    fo("5.6.4")),
  pure("translate(text string?, from string, to string): text", "Maps single characters, or drops them.",
    "translate", { missing, unit: "code point" }, fo("5.4.9")),
  pure("encode-for-uri(text string?): text", "The text as a part of a URI.", "escape", { missing, scheme: "uri part" }, fo("6.2")),
  pure("iri-to-uri(text string?): text", "An IRI as a URI.", "escape", { missing, scheme: "iri" }, fo("6.3")),
  pure("escape-html-uri(text string?): text", "A URI for HTML.", "escape", { missing, scheme: "html uri" }, fo("6.4")),
  pure("upper-case(text string?): text", "All letters in upper case.", "recase", { ...recased, form: "upper" }, fo("5.4.7")),
  pure("lower-case(text string?): text", "All letters in lower case.", "recase", { ...recased, form: "lower" }, fo("5.4.8")),
  pure("normalize-unicode(text string?, form? string): text", "A Unicode normal form.",
    "normalize", { missing, asked: "text" }, fo("5.4.6")),
  pure("normalize-space(text string?): text", "No white space at the ends, one space within.",
    "trim", { missing, ends: "both", inner: "one space", characters: "xml space", removed: "each" }, fo("5.4.5")),
  pure("string-length(text string?): integer", "The number of characters.", "measure", { missing, counted: "code point" }, fo("5.4.4")),
  pure("compare(left string? > a, right string? > b): any", "-1, 0 or 1 by the order of two texts.",
    "compare", compared, fo("5.3.6"), { fixed: { relation: "order" } }),
  pure("codepoint-equal(left string? > a, right string? > b): any", "Whether two texts are the same.",
    "compare", compared, fo("5.3.7"), { fixed: { relation: "=" } }),
  pure("concat(first stringify? > items, others* stringify? > items): text", "Joins two or more values.", "join", joined, fo("5.4.1")),
  pure("||(left stringify? > items, right stringify? > items): text", "Joins two values.", "join", joined, "XPath 3.1, 3.6"),
  pure("string-join(items strings*, separator? string): text", "Joins the items of a sequence.", "join", joined, fo("5.4.2")),
  pure("tokenize(text string?): text*", "Splits at white space.",
    "split", { ...split, edges: "trimmed" }, fo("5.6.5"), { fixed: { delimiter: "[ \\t\\r\\n]+" } }),
  pure("tokenize(text string?, pattern string > delimiter, flags? string): text*", "Splits at the matches of a pattern.",
    "split", split, fo("5.6.5")),
];

// prettier-ignore
const operators: FunctionRow[] = [
  ...([["eq", "="], ["ne", "<>"], ["lt", "<"], ["le", "<="], ["gt", ">"], ["ge", ">="]] as const).map(([name, relation]): FunctionRow =>
    pure(`${name}(left atomic? > a, right atomic? > b): any`,
      "Compares two single values.",
      "compare", compared, "XPath 3.1, 3.7.1", { fixed: { relation }, notation: "operator" })),
  ...([["+", "+"], ["-", "-"], ["*", "*"], ["div", "/"], ["idiv", "idiv"], ["mod", "mod"]] as const).map(([name, sign]): FunctionRow =>
    pure(`${name}(left numeric? > a, right numeric? > b): any`,
      "Arithmetic on two numbers.",
      "calculate", calculated, "XPath 3.1, 3.5", { fixed: { sign }, notation: "operator" })),
  ...(["and", "or"] as const).map((joiner): FunctionRow => pure(`${joiner}(left condition > a, right condition > b): boolean`,
    `Whether ${joiner === "and" ? "both are" : "one is"} true.`,
    "connect", { truth: "true or false", evaluates: "left first, not promised", inConditions: "the same", constants: "none" },
    "XPath 3.1, 3.8 and 2.3.4", { fixed: { joiner }, notation: "operator" })),
  pure("not(value condition): boolean", "True for false.", "not", { missing, truth: "true or false" }, fo("7.3.2")),
  pure("boolean(value condition): boolean", "The effective boolean value.",
    "is", { truth: "true or false" }, fo("7.3.1"), { fixed: { what: "true" } }),
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

const numberIn = (numberFormats: AnswerOf<"numberFormats">) =>
  step("format-number", { missing: "blank", numberFormats, powerHalves: "away from zero" });
const formatted = step("text-from-date", {
  missing: "null",
  formatLanguage: "components",
  unknownToken: "error",
  emptyFormat: "empty text",
});

// prettier-ignore
const lists = steppedRows(
  [
    ["number(value atomic?): any", "convert", "A number, NaN where it is none.", "4.5.1", steps.number],
    ["format-integer(number integer?, picture string > format): text", "convert",
      "A whole number in a picture.", "4.6.1", numberIn("numbering")],
    ["format-number(number numeric?, picture string > format): text", "convert",
      "A number in a picture.", "4.7.2", numberIn("picture")],
    ["format-dateTime(date dateTime?, picture string > format): any", "convert", "A date and time in a picture.", "9.8.1", formatted],
    ["format-date(date date?, picture string > format): any", "convert", "A date in a picture.", "9.8.2", formatted],
    ["format-time(date time?, picture string > format): any", "convert", "A time in a picture.", "9.8.3", formatted],
    ["count(items items > list): integer", "list", "How many items there are.", "14.4.1", size],
    ["head(items items > list): any", "list", "The first item.", "14.1.3", itemAt("null", 1)],
    ["tail(items items > list): any*", "list",
      "All but the first item.", "14.1.4", step("drop-items", { missing: "blank", tooMany: "all of them" }, { count: 1, end: "start" })],
    ["reverse(items items > list): any*", "list", "In reverse order.", "14.1.7", step("reverse-items", { missing: "blank" })],
    ["unordered(items any > value): any", "list", "The items.", "14.1.9", step("itself", {})],
    ["array:size(array members > list): integer", "list", "The number of members.", "17.3.1", size],
    ["array:get(array members > list, position integer): any", "list", "The member at a position.", "17.3.2", itemAt("error")],
    ["data(items atoms > value): any*", "convert", "The atomic items.", "2.4", step("itself", {})],
    ["empty(items items > value): boolean", "list",
      "Whether there is no item.", "14.1.1", step("is", { truth: "true or false" }, { what: "without items" })],
    ["exists(items items > value): boolean", "list",
      "Whether there is an item.", "14.1.2", step("is", { truth: "true or false" }, { what: "with items" })],
    ["insert-before(items items > list, position integer, inserted items > others): any*", "list",
      "With items put in at a position.", "14.1.5", spliced(0)],
    ["remove(items items > list, position integer): any*", "list", "Without the item at a position.", "14.1.6", spliced(1)],
    ["subsequence(items items > list, start double, length? double > until): any*", "list",
      "A number of items from a position.", "14.1.8", sliceOf("passed")],
    ["distinct-values(items atoms > list): any*", "list",
      "Each value once.", "14.2.1", step("distinct-items", { missing: "blank", distinctOrder: "first met", ...sameness,
        notANumber: "above all" }, { wanted: "items" })],
    ["index-of(items atoms > list, value atomic > item): any*", "list",
      "The positions of a value.", "14.2.2", step("find-item", { missing: "blank", missingWanted: "looked for",
        ...sameness, notANumber: "unordered" }, { wanted: "all places" })],
    ["zero-or-one(items items > list): any*", "list",
      "The items, of which there must be at most one.", "14.3.1", counted({ least: 0, most: 1 })],
    ["one-or-more(items items > list): any*", "list", "The items, of which there must be at least one.", "14.3.2", counted({ least: 1 })],
    ["exactly-one(items items > list): any*", "list",
      "The items, of which there must be just one.", "14.3.3", counted({ least: 1, most: 1 })],
    ["max(items atoms > values): any", "list", "The largest.", "14.4.3", extreme("greatest")],
    ["min(items atoms > values): any", "list", "The smallest.", "14.4.4", extreme("least")],
    ["array:append(array members > list, member any > item): array", "list",
      "With a member added.", "17.3.4", step("add-item", { missingList: "skipped" }, { end: "end" })],
    ["array:tail(array members > list): array", "list", "All but the first member.", "17.3.10", sliceOf("error", { start: 2 })],
    ["array:reverse(array members > list): array", "list", "In reverse order.", "17.3.11", step("reverse-items", { missing: "blank" })],
    ["array:subarray(array members > list, start integer, length? integer > until): array", "list",
      "A number of members from a position.", "17.3.6", sliceOf("error")],
    ["array:head(array members > list): any", "list", "The first member.", "17.3.9", itemAt("error", 1)],
  ],
  fo,
);

// prettier-ignore
const comparisons = steppedRows(
  [
    ["=(left atomic* > a, right atomic* > b): boolean", "logic", "Whether items of both sides are equal.", "3.7.2", general("=")],
    ["!=(left atomic* > a, right atomic* > b): boolean", "logic", "Whether items of both sides differ.", "3.7.2", general("!=")],
    ["<(left atomic* > a, right atomic* > b): boolean", "logic", "Whether an item is below one of the other side.", "3.7.2", general("<")],
    ["<=(left atomic* > a, right atomic* > b): boolean", "logic",
      "Whether an item is not above one of the other side.", "3.7.2", general("<=")],
    [">(left atomic* > a, right atomic* > b): boolean", "logic", "Whether an item is above one of the other side.", "3.7.2", general(">")],
    [">=(left atomic* > a, right atomic* > b): boolean", "logic",
      "Whether an item is not below one of the other side.", "3.7.2", general(">=")],
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
const moved = (direction: "later" | "earlier") =>
  step(
    "add-to-date",
    { missing: "null", dayBeyond: "the last day", timeAdded: "a date", clockDigits: "as many as it has", noSuchDate: "error" },
    { direction },
  );
const together = (direction: "later" | "earlier") => step("add-intervals", { missing: "null" }, { direction });
const scaled = (does: "times" | "by") =>
  step("scale-interval", { missing: "null", partsOfMonths: "rounded", byZero: "error" }, { does });
const between = step("interval-between", { missing: "null" }, { parts: "days and time", type: "dayTimeDuration", form: "P1M" });
const partOf = (field: string, seconds: "whole" | "with their fraction" = "whole") =>
  step("interval-field", { missing: "null" }, { field, seconds });

/** Each type of moment with the durations that are added to it. */
const movedBy = {
  date: ["yearMonthDuration", "dayTimeDuration"],
  dateTime: ["yearMonthDuration", "dayTimeDuration"],
  time: ["dayTimeDuration"],
};

// prettier-ignore
const durations = steppedRows(
  [
    ...Object.entries(movedBy).flatMap(([type, spans]): Stepped[] => [
      ...spans.flatMap((span): Stepped[] => [
        [`+(date ${type}!, span ${span}! > interval): ${type}`, "convert", "A moment so much later.", "9.7", moved("later")],
        [`+(span ${span}! > interval, date ${type}!): ${type}`, "convert", "A moment so much later.", "9.7", moved("later")],
        [`-(date ${type}!, span ${span}! > interval): ${type}`, "convert", "A moment so much earlier.", "9.7", moved("earlier")],
      ]),
      [`-(later ${type}!, earlier ${type}!): dayTimeDuration`, "convert", "The time between two moments.", "9.7", between],
    ]),
    ["-(later moment, earlier date!): dayTimeDuration", "convert", "The time between two moments.", "9.7", between],
    ...["yearMonthDuration", "dayTimeDuration"].flatMap((type): Stepped[] => [
      [`+(date moment, span ${type}! > interval): any`, "convert", "A moment so much later.", "9.7", moved("later")],
      [`-(date moment, span ${type}! > interval): any`, "convert", "A moment so much earlier.", "9.7", moved("earlier")],
      [`+(left ${type}! > a, right ${type}! > b): ${type}`, "convert", "Two durations together.", "8.4", together("later")],
      [`-(left ${type}! > a, right ${type}! > b): ${type}`, "convert", "One duration less another.", "8.4", together("earlier")],
      [`*(span ${type}! > interval, factor numeric?): ${type}`, "convert", "A duration several times over.", "8.4", scaled("times")],
      [`*(factor numeric?, span ${type}! > interval): ${type}`, "convert", "A duration several times over.", "8.4", scaled("times")],
      [`div(span ${type}! > interval, factor numeric?): ${type}`, "convert", "A part of a duration.", "8.4", scaled("by")],
      [`div(left ${type}! > a, right ${type}! > b): any`, "convert", "How often one duration goes into another.", "8.4",
        step("interval-ratio", { missing: "null" })],
    ]),
    ...Object.entries({ years: "year", months: "month", days: "day", hours: "hour", minutes: "minute" }).map(([name, field]): Stepped =>
      [`${name}-from-duration(span duration? > interval): integer?`, "convert", `The ${name} of a duration.`, "8.3", partOf(field)]),
    ["seconds-from-duration(span duration? > interval): any", "convert", "The seconds of a duration.", "8.3",
      partOf("second", "with their fraction")],
  ],
  fo,
);

const dated = { result: "any", text: "text", evidence: fo("9.5") } as const;
const days = { year: "year", month: "month", day: "day" };
const clock = { hours: "hour", minutes: "minute", seconds: "second and fraction" };
const partsOf = (type: "date" | "time" | "dateTime", parts: Readonly<Record<string, string>>): FunctionRow[] => {
  const named = Object.entries(parts).map(([part, field]) => [`${part}-from-${type}`, field]);
  return calendarRows(Object.fromEntries(named) as Readonly<Record<string, string>>, {}, {}, { ...dated, type: `${type}?` });
};

// prettier-ignore
const coded = codedRows([
  ["string(item any): text", "convert", "The text of an item.", fo("2.3")],
  ["string-to-codepoints(text string?): any", "convert", "The code points of a text.", fo("5.2.2")],
  ["codepoints-to-string(codes atomic*): text", "convert", "The text of code points.", fo("5.2.1")],
  ["contains-token(texts string*, token string): boolean", "list", "Whether a text has a word.", fo("5.5.6")],
  ["dateTime(date date?, time time?): any", "convert", "A date and a time in one.", fo("5.2")],
  ["math:pow(number numeric?, exponent numeric): any", "convert", "A number raised to a power.", fo("4.8.8")],
  ["instance of(value any, type string): boolean", "logic", "Whether a value is of a type.", "XPath 3.1, 3.14.2"],
  ["treat as(value any, type string): any", "logic", "The value, which must be of a type.", "XPath 3.1, 3.14.5"],
  ["castable as(value any, type string): boolean", "logic", "Whether a value can be cast.", "XPath 3.1, 3.14.3"],
  ["deep-equal(left any, right any): boolean", "list", "Whether two sequences are the same.", fo("14.2.3")],
  ["avg(items atomic*): any", "list", "The mean.", fo("14.4.2")],
  ["sum(items atomic*, zero? atomic?): any", "list", "The sum.", fo("14.4.5")],
  ["for-each(items any, action function): any", "list", "A function of each item.", fo("16.2.1")],
  ["filter(items any, test function): any", "list", "The items for which a function is true.", fo("16.2.2")],
  ["fold-left(items any, zero any, action function): any", "list", "A function of a start and each item in turn.", fo("16.2.3")],
  ["fold-right(items any, zero any, action function): any", "list", "A function of each item and a start, from the end.", fo("16.2.4")],
  ["for-each-pair(left any, right any, action function): any", "list", "A function of the items of two sequences.", fo("16.2.5")],
  ["sort(items any, collation? any, key? function): any", "list", "The items in order.", fo("16.2.6")],
  ["apply(action function, args array): any", "list", "A function of the members of an array.", fo("16.2.7")],
  ["function-arity(action function): integer", "list", "The number of a function's parameters.", fo("16.1.3")],
  ["error(code? any, description? string, object? any): any", "logic", "Raises an error.", fo("3.1.1")],
  ["array of(items? any): any", "list", "An array of the items.", "XPath 3.1, 3.11.2"],
  ["look up(from any, key any): any", "list", "The member or entry for a key.", "XPath 3.1, 3.11.3"],
  ["look up all(from any): any", "list", "All members or entries.", "XPath 3.1, 3.11.3"],
  ["map:get(map map, key atomic?): any", "list", "The entry for a key.", fo("17.1.6")],
  ["map:contains(map map, key atomic?): boolean", "list", "Whether there is an entry.", fo("17.1.5")],
  ["map:keys(map map): any", "list", "The keys.", fo("17.1.4")],
  ["map:size(map map): integer", "list", "The number of entries.", fo("17.1.3")],
  ["map:put(map map, key atomic?, value any): any", "list", "With an entry set.", fo("17.1.8")],
  ["map:entry(key atomic?, value any): any", "list", "A map of one entry.", fo("17.1.9")],
  ["map:remove(map map, keys atomic*): any", "list", "Without entries.", fo("17.1.10")],
  ["map:merge(maps any): any", "list", "Maps in one, the first entry kept.", fo("17.1.2")],
  ["map:for-each(map map, action function): any", "list", "A function of each key and value.", fo("17.1.11")],
  ["array:join(arrays any): any", "list", "Arrays in one.", fo("17.3.12")],
  ["array:flatten(items any): any", "list", "The members of all arrays within.", fo("17.3.18")],
  ["array:for-each(array array, action function): any", "list", "A function of each member.", fo("17.3.13")],
  ["array:filter(array array, test function): any", "list", "The members for which a function is true.", fo("17.3.14")],
]);

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
  ...durations,
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
