import { describe, expect, test } from "@jest/globals";
import { Bytes, Decimal, Double, Failure, type Value, compile } from "indigo-quill";
import { type Dialect, type FunctionRow, dialects, duckdb, isPure, stepsOf } from "indigo-quill/dialects";
import { type OperationId, applyKernel, operationOf, operations } from "indigo-quill/text";
import { type TraitId, describeTrait } from "indigo-quill/traits";

type Slots = readonly (Value | undefined)[];

const noRows = { columns: [], rows: 1 };

/** Slots on which two answers to a trait give different results; other answers that must be set for it to matter. */
interface Effect {
  readonly slots?: Slots;
  /** Instead of slots, for what is asked before any row is looked at: an expression of DuckDB. */
  readonly expression?: string;
  readonly answers: readonly [string, string];
  readonly with?: Readonly<Record<string, string>>;
  readonly fixed?: Readonly<Record<string, string>>;
}

const _ = undefined;
const blank: [string, string] = ["null", "blank"];
/** How a text is read where nothing else is said. */
const read = {
  numbers: "exact",
  numberKind: "integer",
  range: "32 bits",
  reads: "all of it",
  blanks: "ascii",
  notNumber: "error",
  exponent: "read",
  separators: "none",
  bases: "ten",
  tooSmall: "zero",
};

// prettier-ignore
const effects: { readonly [O in OperationId]: Readonly<Record<string, Effect>> } = {
  is: { truth: { slots: [null, _], answers: ["true or false", "1 or 0"], fixed: { what: "missing" } } },
  connect: {
    truth: { slots: [true, true, _], answers: ["true or false", "1 or 0"], fixed: { joiner: "and" } },
    evaluates: { slots: [false, new Failure("not-a-number"), _], answers: ["left first", "both"], fixed: { joiner: "and" } },
    inConditions: { expression: "case when false and cast('x' as integer) > 1 then 1 end", answers: ["the same", "rows left open"], with: { constants: "none" } },
    constants: { expression: "false and cast('x' as integer) > 1", answers: ["none", "any"] },
  },
  item: {
    missing: { slots: [null, 1], answers: blank, with: { noItem: "error" } },
    first: { slots: [["a", "b"], 1], answers: ["0", "1"] },
    negativePosition: { slots: [["a", "b"], -1], answers: ["from the end", "nowhere"] },
    noItem: { slots: [["a"], 2], answers: ["null", "error"] },
  },
  "calendar-field": { missing: { slots: [null, _], answers: blank, fixed: { field: "year" } } },
  weekday: {
    missing: { slots: [null], answers: blank },
    weekdays: { slots: ["2019-04-03"], answers: ["Sunday 0", "Sunday 1"] },
  },
  size: { missing: { slots: [null], answers: blank } },
  "drop-items": {
    missing: { slots: [null, 1, _], answers: blank, fixed: { end: "end" } },
    tooMany: { slots: [["a"], 2, _], answers: ["all of them", "error"], fixed: { end: "end" } },
  },
  "reverse-items": { missing: { slots: [null], answers: blank } },
  "list-of": {},
  "slice-items": {
    missing: { slots: [null, 1, _], answers: blank },
    until: { slots: [["a", "b", "c"], 2, 1], answers: ["number of items", "position"] },
    outsideList: { slots: [["a"], 3, _], answers: ["passed", "error"] },
    fraction: { slots: [["a", "b"], 1.5, _], answers: ["truncated", "rounded"] },
  },
  "splice-items": {
    missing: { slots: [null, 1, 0, ["a"]], answers: blank, with: { outsideList: "passed" } },
    outsideList: { slots: [["a"], 3, 1, _], answers: ["passed", "error"] },
  },
  "check-size": { missing: { slots: [null, 0, _], answers: blank } },
  series: {
    missing: { slots: [null, 2, _], answers: blank },
    lastNumber: { slots: [1, 3, _], answers: ["included", "left out"] },
  },
  "find-item": {
    missing: { slots: [null, "a", _, _], answers: blank, fixed: { wanted: "whether" } },
    missingWanted: { slots: [["a"], null, _, _], answers: ["null", "looked for"], fixed: { wanted: "whether" } },
    case: { slots: [["a"], "A", _, _], answers: ["minded", "ignored"], fixed: { wanted: "whether" } },
    padding: { slots: [["a"], "a ", _, _], answers: ["counted", "stripped"], fixed: { wanted: "whether" } },
    notANumber: { slots: [[new Double(NaN)], new Double(NaN), _, _], answers: ["unordered", "above all"], fixed: { wanted: "whether" } },
  },
  "holds-items": {
    missing: { slots: [null, ["a"], _], answers: blank, fixed: { how: "all" } },
    missingShared: { slots: [["a"], [null], _], answers: ["left out", "never there"], fixed: { how: "all" } },
    case: { slots: [["a"], ["A"], _], answers: ["minded", "ignored"], fixed: { how: "any" } },
    padding: { slots: [["a"], ["a "], _], answers: ["counted", "stripped"], fixed: { how: "any" } },
    notANumber: { slots: [[new Double(NaN)], [new Double(NaN)], _], answers: ["unordered", "above all"], fixed: { how: "any" } },
  },
  "distinct-items": {
    missing: { slots: [null, _, _], answers: blank, fixed: { wanted: "items" } },
    distinctOrder: { slots: [["a", "b"], _, _], answers: ["first met", "last first"], fixed: { wanted: "items" } },
    case: { slots: [["a", "A"], _, _], answers: ["minded", "ignored"], fixed: { wanted: "number" } },
    padding: { slots: [["a", "a "], _, _], answers: ["counted", "padded"], fixed: { wanted: "number" } },
    notANumber: { slots: [[new Double(NaN), new Double(NaN)], _, _], answers: ["unordered", "above all"], fixed: { wanted: "number" } },
  },
  "replace-items": {
    missing: { slots: [null, "a", "b", _], answers: blank, fixed: { how: "replaced" } },
    case: { slots: [["a"], "A", "b", _], answers: ["minded", "ignored"], fixed: { how: "replaced" } },
    padding: { slots: [["a"], "a ", "b", _], answers: ["counted", "stripped"], fixed: { how: "replaced" } },
    notANumber: { slots: [[new Double(NaN)], new Double(NaN), "b", _], answers: ["unordered", "above all"], fixed: { how: "left out" } },
  },
  "sort-items": {
    missing: { slots: [null, _, _, _], answers: blank, fixed: { wanted: "items" } },
    case: { slots: [["b", "A", "a", "B"], _, _, _], answers: ["minded", "ignored"], fixed: { wanted: "items" } },
    padding: { slots: [["a ", "a"], _, _, _], answers: ["counted", "stripped"], fixed: { wanted: "items" } },
    mixed: { slots: [["a", 1], _, _, _], answers: ["error", "by kind"], fixed: { wanted: "items" } },
    notANumber: { slots: [[new Double(NaN), 1], _, _, _], answers: ["unordered", "above all"], fixed: { wanted: "items" } },
  },
  extreme: {
    missingValue: { slots: [["a", null], _], answers: ["null", "skipped"], fixed: { wanted: "least" } },
    amongEqual: { slots: [[1, Decimal.parse("1.0")!], _], answers: ["first", "last"], fixed: { wanted: "least" } },
    case: { slots: [["a", "B"], _], answers: ["minded", "ignored"], fixed: { wanted: "greatest" } },
    padding: { slots: [["a", "a "], _], answers: ["counted", "stripped"], fixed: { wanted: "greatest" } },
    mixed: { slots: [["a", 1], _], answers: ["error", "by kind"], fixed: { wanted: "least" } },
    notANumber: { slots: [[new Double(NaN), 1], _], answers: ["unordered", "above all"], fixed: { wanted: "least" } },
  },
  "compare-items": {
    case: { slots: ["a", ["A"], _], answers: ["minded", "ignored"], fixed: { relation: "=" } },
    padding: { slots: ["a", ["a "], _], answers: ["counted", "stripped"], fixed: { relation: "=" } },
    mixed: { slots: ["a", [1], _], answers: ["error", "by kind"], fixed: { relation: "=" } },
    notANumber: { slots: [new Double(NaN), [new Double(NaN)], _], answers: ["unordered", "above all"], fixed: { relation: "=" } },
    truth: { slots: ["a", ["a"], _], answers: ["true or false", "1 or 0"], fixed: { relation: "=" } },
  },
  "join-lists": { missingList: { slots: [null, ["a"]], answers: ["null", "skipped"] } },
  "add-item": { missingList: { slots: [null, "a", _], answers: ["null", "skipped"], fixed: { end: "end" } } },
  not: {
    missing: { slots: [null], answers: blank },
    truth: { slots: [true], answers: ["true or false", "1 or 0"] },
  },
  "truth-of": {
    missing: { slots: [null], answers: blank },
    textTruth: { slots: ["yes"], answers: ["words and letters", "the number it begins with"] },
    truthOfNaN: { slots: [new Double(NaN)], answers: ["true", "false"] },
  },
  instead: {},
  "check-kind": {},
  "check-text": {},
  "check-number": {},
  "items-in": {},
  "fit-double": {},
  "fit-second": {},
  "digits-of-moment": {},
  "typed-moment": {},
  "check-escape": { escapeSize: { slots: [""], answers: ["one character", "one character or none"] } },
  "check-pattern": { pattern: { slots: ["("], answers: ["pcre", "literal"] } },
  "one-item": { several: { slots: [["a", "b"]], answers: ["the first", "error"] } },
  "bytes-of": { bytesWritten: { slots: ["é"], answers: ["utf-8", "a character each"] } },
  "moment-of": {
    dateForms: { slots: ["4/3/2019", _, _], answers: ["numbers or names of months", "ISO 8601"], fixed: { wanted: "date", from: "text" } },
    notADate: { slots: ["x", _, _], answers: ["error", "null"], fixed: { wanted: "date", from: "text" } },
  },
  slice: {
    missing: { slots: [null, 1, 2], answers: blank },
    unit: { slots: ["a😀b", 1, 2], answers: ["code point", "utf-16 unit"] },
    first: { slots: ["abc", 1, 1], answers: ["1", "0"] },
    from: { slots: ["abc", 1, 1], answers: ["start", "end"] },
    third: { slots: ["abcdef", 2, 4], answers: ["length", "end"] },
    startBelow: { slots: ["abc", 0, 2], answers: ["window", "clamp"] },
    negativeLength: { slots: ["abc", 1, -1], answers: ["empty", "all but"] },
    startBeyond: { slots: ["abc", 5, 2], answers: ["empty", "null"] },
    fraction: { slots: ["abcdef", 1.5, 2], answers: ["truncated", "rounded"] },
  },
  segment: {
    missing: { slots: [null, ",", 1], answers: blank, with: { absent: "whole" } },
    part: { slots: ["a,b", ",", 1], answers: ["before", "after"] },
    absent: { slots: ["ab", ",", 1], answers: ["whole", "empty"] },
    zeroPiece: { slots: ["a,b", ",", 0], answers: ["error", "empty"], with: { part: "nth" } },
    noPiece: { slots: ["a,b", ",", 3], answers: ["empty", "null"], with: { part: "nth" } },
    emptyNeedle: { slots: ["ab", "", 1], answers: ["at the start", "nowhere"], with: { part: "before", absent: "whole" } },
    case: { slots: ["aXb", "x", 1], answers: ["minded", "ignored"], with: { part: "before", absent: "whole" } },
  },
  reverse: {
    missing: { slots: [null], answers: blank },
    unit: { slots: ["a😀"], answers: ["code point", "utf-16 unit"] },
  },
  locate: {
    missing: { slots: [null, "a", _], answers: blank, with: { absent: "zero" } },
    unit: { slots: ["😀b", "b", _], answers: ["code point", "utf-16 unit"] },
    first: { slots: ["ab", "b", _], answers: ["1", "0"] },
    pattern: { slots: ["a.b", ".", _], answers: ["literal", "posix"] },
    case: { slots: ["aB", "b", _], answers: ["minded", "ignored"], with: { absent: "zero" } },
    absent: { slots: ["ab", "x", _], answers: ["zero", "null"] },
    startBelow: { slots: ["ab", "a", 0], answers: ["error", "clamp"] },
    emptyNeedle: { slots: ["ab", "", _], answers: ["at the start", "nowhere"], with: { absent: "zero" } },
    fraction: { slots: ["abab", "a", 1.5], answers: ["truncated", "rounded"] },
  },
  test: {
    missing: { slots: [null, "a", _], answers: blank },
    pattern: { slots: ["ab", "a.", _], answers: ["literal", "posix"] },
    where: { slots: ["ab", "b", _], answers: ["anywhere", "start"], with: { pattern: "literal" } },
    case: { slots: ["ab", "A", _], answers: ["minded", "ignored"] },
    truth: { slots: ["ab", "a", _], answers: ["true or false", "1 or 0"] },
  },
  find: {
    missing: { slots: [null, "a", _, _, _, _, _], answers: blank, with: { absent: "zero" } },
    pattern: { slots: ["a.c", ".", _, _, _, _, _], answers: ["literal", "posix"], with: { report: "position" } },
    case: { slots: ["ab", "B", _, _, _, _, _], answers: ["minded", "ignored"], with: { pattern: "posix" } },
    report: { slots: ["ab", "b", _, _, _, _, _], answers: ["text", "position"], with: { pattern: "posix" } },
    group: { slots: ["ab", "(a)b", _, _, _, _, _], answers: ["match", "first group"], with: { pattern: "posix", report: "text" } },
    absent: { slots: ["ab", "x", _, _, _, _, _], answers: ["null", "empty"], with: { report: "text" } },
  },
  "replace-span": {
    missing: { slots: [null, 1, 1, "x"], answers: blank },
    unit: { slots: ["😀b", 2, 1, "x"], answers: ["code point", "utf-16 unit"] },
    first: { slots: ["abc", 1, 1, "x"], answers: ["1", "0"] },
    startBelow: { slots: ["abc", 0, 1, "x"], answers: ["error", "clamp"] },
    spanBeyond: { slots: ["abc", 4, 0, "x"], answers: ["added", "unchanged"] },
    farEnd: { slots: ["abc", 2, 2147483647, "x"], answers: ["taken", "error"] },
    negativeSpan: { slots: ["abc", 3, -1, "x"], answers: ["empty", "repeated"] },
    fraction: { slots: ["abc", 1.5, 1, "x"], answers: ["truncated", "rounded"] },
  },
  substitute: {
    missing: { slots: [null, "a", "b", _, _, _], answers: blank },
    pattern: { slots: ["a.b", ".", "-", _, _, _], answers: ["literal", "posix"] },
    case: { slots: ["aA", "A", "-", _, _, _], answers: ["minded", "ignored"] },
    occurrences: { slots: ["aa", "a", "-", _, _, _], answers: ["all", "first"] },
    replacement: { slots: ["ab", "(a)", "\\1\\1", _, _, _], answers: ["literal", "backslash"], with: { pattern: "posix" } },
    emptyMatch: { slots: ["ab", "x*", "-", _, _, _], answers: ["allowed", "error"], with: { pattern: "posix" } },
    emptyOld: { slots: ["ab", "", null, _, _, _], answers: ["null", "whole"], with: { missing: "null" } },
  },
  translate: {
    missing: { slots: [null, "a", "b"], answers: blank },
    unit: { slots: ["😀a", "😀", "xy"], answers: ["code point", "utf-16 unit"] },
  },
  escape: {
    missing: { slots: [null], answers: blank, with: { scheme: "sql literal" } },
    scheme: { slots: ["a'b c"], answers: ["uri part", "sql literal"] },
  },
  recase: {
    missing: { slots: [null], answers: blank },
    form: { slots: ["aB"], answers: ["upper", "lower"] },
    mapping: { slots: ["ß"], answers: ["full", "simple"], with: { form: "upper" } },
    words: { slots: ["2nd o'neil"], answers: ["not a letter", "space"], with: { form: "title" } },
    restOfWord: { slots: ["McLEAN"], answers: ["lowered", "kept"], with: { form: "title" } },
  },
  normalize: {
    missing: { slots: [null, "NFC"], answers: blank },
    asked: { slots: ["e\u0301", "NFC"], answers: ["text", "whether"] },
  },
  trim: {
    missing: { slots: [null, _], answers: blank },
    ends: { slots: [" a ", _], answers: ["both", "start"], with: { characters: "space" } },
    inner: { slots: ["a  b", _], answers: ["kept", "one space"], with: { characters: "space", ends: "both" } },
    characters: { slots: ["\ta", _], answers: ["space", "xml space"], with: { ends: "both" } },
    removed: { slots: ["abxba", "ab"], answers: ["each", "whole"], with: { ends: "both" } },
  },
  measure: {
    missing: { slots: [null], answers: blank },
    counted: { slots: ["é😀"], answers: ["code point", "utf-16 unit"] },
  },
  "code-of": {
    missing: { slots: [null], answers: blank, with: { ofEmpty: "zero" } },
    alphabet: { slots: ["€"], answers: ["unicode", "windows-1252"] },
    ofEmpty: { slots: [""], answers: ["zero", "error"] },
  },
  "char-of": {
    missing: { slots: [null], answers: blank },
    alphabet: { slots: [128], answers: ["unicode", "windows-1252"] },
    fraction: { slots: [65.5], answers: ["truncated", "rounded"] },
  },
  compare: {
    missing: { slots: ["", null, "="], answers: blank, fixed: { relation: "=" } },
    case: { slots: ["a", "A", "="], answers: ["minded", "ignored"], fixed: { relation: "=" } },
    notANumber: {
      slots: [new Double(NaN), new Double(NaN), "="],
      answers: ["unordered", "above all"],
      fixed: { relation: "=" },
    },
    mixed: { slots: ["a", 1, "="], answers: ["error", "by kind"], fixed: { relation: "=" } },
    padding: { slots: ["a ", "a", "="], answers: ["counted", "padded"], fixed: { relation: "=" } },
    truth: { slots: ["a", "a", "="], answers: ["true or false", "1 or 0"], fixed: { relation: "=" } },
  },
  distinct: {
    case: { slots: ["a", "A", _], answers: ["minded", "ignored"], fixed: { told: "same" } },
    padding: { slots: ["a ", "a", _], answers: ["counted", "padded"], fixed: { told: "same" } },
    mixed: { slots: ["a", 1, _], answers: ["error", "by kind"], fixed: { told: "same" } },
    notANumber: { slots: [new Double(NaN), new Double(NaN), _], answers: ["unordered", "above all"], fixed: { told: "same" } },
    truth: { slots: [null, null, _], answers: ["true or false", "1 or 0"], fixed: { told: "same" } },
  },
  "unless-same": {
    case: { slots: ["a", "A"], answers: ["minded", "ignored"] },
    padding: { slots: ["a ", "a"], answers: ["counted", "padded"] },
    mixed: { slots: ["a", 1], answers: ["error", "by kind"] },
    notANumber: { slots: [new Double(NaN), new Double(NaN)], answers: ["unordered", "above all"] },
  },
  likeness: {
    missing: { slots: [null, "a", _], answers: blank, with: { measure: "edits" } },
    measure: { slots: ["ab", "ba", _], answers: ["edits", "edits and swaps"] },
  },
  join: {
    missing: { slots: [["a"], null, _, _], answers: blank },
    missingItem: { slots: [["a", null, "b"], "-", _, _], answers: ["skipped", "empty"] },
    emptyItem: { slots: [["a", "", "b"], "-", _, _], answers: ["kept", "skipped"] },
  },
  split: {
    missing: { slots: [null, ",", _, _], answers: blank },
    pattern: { slots: ["a.b", ".", _, _], answers: ["literal", "posix"] },
    case: { slots: ["aXb", "x", _, _], answers: ["minded", "ignored"] },
    missingDelimiter: { slots: ["ab", null, _, _], answers: ["null", "characters"] },
    delimiterIs: { slots: ["a, b;c", ", ", _, _], answers: ["one text", "any of its characters"], with: { pattern: "literal" } },
    emptyDelimiter: { slots: ["ab", "", _, _], answers: ["whole", "characters"], with: { pattern: "literal" } },
    emptyText: { slots: ["", ",", _, _], answers: ["nothing", "one piece"] },
    edges: { slots: [",a,", ",", _, _], answers: ["pieces", "trimmed"] },
    emptyMatch: { slots: ["ab", "x*", _, _], answers: ["allowed", "error"], with: { pattern: "posix" } },
  },
  repeat: {
    missing: { slots: [null, 2], answers: blank },
    negativeCount: { slots: ["a", -1], answers: ["error", "empty"] },
    tooLong: { slots: ["é", 9_000_000], answers: ["error", "null beyond 16 MiB"] },
    fraction: { slots: ["a", 1.5], answers: ["truncated", "rounded"] },
  },
  pad: {
    missing: { slots: [null, 2, "x"], answers: blank },
    unit: { slots: ["😀", 2, "x"], answers: ["code point", "utf-16 unit"] },
    side: { slots: ["a", 3, "x"], answers: ["left", "right"] },
    negativeCount: { slots: ["a", -1, "x"], answers: ["empty", "null"] },
    tooLong: { slots: ["a", 5_000_000, "x"], answers: ["error", "null beyond 16 MiB"] },
    longer: { slots: ["Alnus", 3, "x"], answers: ["cut", "cut at the start"] },
    emptyFill: { slots: ["a", 3, ""], answers: ["whole", "null"] },
  },
  calculate: {
    missing: { slots: [null, 1, "+"], answers: blank, with: { numbers: "double" }, fixed: { sign: "+" } },
    numbers: { slots: [7, 2, "/"], answers: ["double", "exact"], with: { quotient: "integer" }, fixed: { sign: "/" } },
    quotient: { slots: [7, 2, "/"], answers: ["integer", "decimal"], with: { numbers: "exact" }, fixed: { sign: "/" } },
    quotientDigits: { slots: [Decimal.parse("1.0")!, 3, "/"], answers: ["four more decimals", "twenty decimals"], with: { numbers: "exact" }, fixed: { sign: "/" } },
    byZero: { slots: [1, 0, "/"], answers: ["error", "null"], with: { numbers: "exact" }, fixed: { sign: "/" } },
    doubleByZero: { slots: [new Double(1), 0, "/"], answers: ["error", "infinity"], with: { numbers: "exact" }, fixed: { sign: "/" } },
    tooSmall: { slots: [new Double(1e-300), new Double(1e-300), "*"], answers: ["error", "zero"], with: { numbers: "exact" }, fixed: { sign: "*" } },
    remainderSign: { slots: [-5, 3, "mod"], answers: ["of what is divided", "of the divisor"], with: { numbers: "exact" }, fixed: { sign: "mod" } },
    overflow: { slots: [new Double(1e308), new Double(1e308), "*"], answers: ["error", "infinity"], with: { numbers: "exact" }, fixed: { sign: "*" } },
    remainder: { slots: [new Double(5.5), new Double(2), "mod"], answers: ["of fractions", "of whole parts"], with: { numbers: "exact", overflow: "infinity" }, fixed: { sign: "mod" } },
  },
  signed: {
    missing: { slots: [null, _], answers: blank, fixed: { wanted: "size" } },
    numbers: { slots: [-2.5, _], answers: ["double", "exact"], fixed: { wanted: "size" } },
    signKind: { slots: [new Double(2.5), _], answers: ["whole", "the number's"], with: { numbers: "exact" }, fixed: { wanted: "sign" } },
  },
  round: {
    missing: { slots: [null, _], answers: blank },
    numbers: { slots: [2.5, _], answers: ["double", "exact"] },
    direction: { slots: [2.5, _], answers: ["half away from zero", "half to even"] },
    roundedDigits: { slots: [1.005, 2], answers: ["shortest", "exact"], with: { direction: "half up" } },
    digitsBelow: { slots: [17, -1], answers: ["before the point", "none"] },
    moreDigits: { slots: [Decimal.parse("1.5")!, 3], answers: ["kept", "zeros"], with: { numbers: "exact" } },
    fraction: { slots: [2.25, 1.5], answers: ["truncated", "rounded"], with: { numbers: "double" } },
  },
  bits: {
    missing: { slots: [null, _, _], answers: blank, fixed: { does: "not" } },
    range: { slots: [0, _, _], answers: ["64 bits", "64 bits without a sign"], fixed: { does: "not" } },
    placesBelow: { slots: [4, -1, _], answers: ["the other way", "error, or 0"], fixed: { does: "left" } },
    placesBeyond: { slots: [-1, 99, _], answers: ["zero", "filled"], with: { range: "64 bits", placesBelow: "the other way" }, fixed: { does: "right" } },
  },
  "of-one": {
    ofOne: { slots: ["a", _], answers: ["the value", "1 or 0"] },
  },
  "text-of": {
    missing: { slots: [null], answers: blank },
    numbers: { slots: [1e21], answers: ["double", "exact"], with: { power: "1E20", powerFrom: "1e21" } },
    digits: { slots: [new Double(0.1 + 0.2)], answers: ["shortest", "fifteen"], with: { powerFrom: "1e15" } },
    powerFrom: { slots: [new Double(1e6)], answers: ["1e6", "1e15"] },
    powerBelow: { slots: [new Double(1e-5)], answers: ["1e-4", "1e-6"] },
    power: { slots: [new Double(1e20)], answers: ["1e+20", "1.0E20"], with: { powerFrom: "1e15" } },
    wholeDouble: { slots: [new Double(12)], answers: ["bare", "with .0"], with: { powerFrom: "1e15" } },
    negativeZero: { slots: [new Double(-0)], answers: ["kept", "dropped"], with: { powerFrom: "1e15" } },
    beyondNumbers: { slots: [new Double(Infinity)], answers: ["NaN and Infinity", "nan and inf"] },
    decimalZeros: { slots: [Decimal.parse("12.50")!], answers: ["kept", "dropped"], with: { numbers: "exact" } },
    truthText: { slots: [true], answers: ["true", "1"] },
    bytesText: { slots: [new Bytes(Uint8Array.of(97))], answers: ["utf-8", "base 16"] },
    listText: { slots: [["a", true]], answers: ["[a, b]", "{a,b}"] },
  },
  "number-of": {
    missing: { slots: [null], answers: blank },
    numbers: { slots: [1], answers: ["double", "exact"], with: { numberKind: "double" } },
    numberKind: { slots: ["12"], answers: ["integer", "double"], with: read },
    range: { slots: ["300"], answers: ["8 bits", "16 bits"], with: read },
    reads: { slots: ["12abc"], answers: ["all of it", "its beginning"], with: read },
    blanks: { slots: ["\u00a012"], answers: ["ascii", "unicode"], with: read },
    notNumber: { slots: ["abc"], answers: ["error", "zero"], with: read },
    plusSign: { slots: ["+5"], answers: ["read", "refused"], with: read },
    exponent: { slots: ["1e3"], answers: ["read", "not read"], with: { ...read, numberKind: "double" } },
    fractionRead: { slots: ["12.5"], answers: ["refused", "rounded"], with: read },
    separators: { slots: ["1_000"], answers: ["none", "underscores"], with: read },
    bases: { slots: ["0x10"], answers: ["ten", "sixteen"], with: read },
    truthRead: { slots: [true], answers: ["1 or 0", "refused"], with: read },
    bytesRead: { slots: [new Bytes(Uint8Array.of(49))], answers: ["as text", "kept"], with: read },
    numberWords: { slots: ["inf"], answers: ["read", "refused"], with: { ...read, numberKind: "double" } },
    otherForms: { slots: ["12%"], answers: ["none", "percent, fractions and dates"], with: { ...read, numberKind: "double" } },
    digitsBeyond: { slots: ["300"], answers: ["error", "nearest"], with: { ...read, range: "8 bits" } },
    tooLarge: { slots: [300], answers: ["error", "nearest"], with: { ...read, range: "8 bits" } },
    beyondDouble: { slots: ["1e999"], answers: ["error", "infinity"], with: { ...read, numberKind: "double" } },
    tooSmall: { slots: ["1e-999"], answers: ["zero", "error"], with: { ...read, numberKind: "double" } },
    decimalHalves: { slots: [Decimal.parse("2.5")!], answers: ["away from zero", "cut off"], with: read },
    doubleHalves: { slots: [new Double(2.5)], answers: ["to even", "away from zero"], with: read },
    doubleDigits: { slots: [new Double(0.1 + 0.2)], answers: ["shortest", "fifteen"], with: { ...read, numberKind: "decimal" } },
  },
  itself: {},
  "whole-quotient": { wholeQuotient: { slots: [-7, 2], answers: ["toward zero", "down"] } },
  column: { columnNumbers: { slots: [2.5, 3], answers: ["as written", "of one scale"] } },
  "text-from-date": {
    missing: { slots: [null, "%Y", _], answers: ["null", "blank"], fixed: { tokens: "Y year" } },
    unknownToken: { slots: ["2019-04-03", "%q", _], answers: ["null", "itself"], fixed: { tokens: "Y year" } },
    emptyFormat: { slots: ["2019-04-03", "", _], answers: ["null", "empty text"], fixed: { tokens: "Y year" } },
  },
  "digits-of": {
    missing: { slots: [null, 2, _, _], answers: blank },
    letterDigits: { slots: [255, 16, _, _], answers: ["capital", "small"] },
    digitRoom: { slots: [255, 16, 1, _], answers: ["as needed", "as asked"] },
  },
  "number-in-base": {
    missing: { slots: [null, 2, _], answers: blank },
    numbers: { slots: ["zzzzzzzzzzzz", 36, _], answers: ["double", "exact"] },
  },
  math: {
    missing: { slots: [null, _], answers: blank, fixed: { name: "sqrt" } },
    numbers: { slots: [4, _], answers: ["double", "exact"], fixed: { name: "sqrt" } },
    outside: { slots: [-1, _], answers: ["error", "null"], fixed: { name: "sqrt" } },
    overflow: { slots: [1000, _], answers: ["error", "infinity"], fixed: { name: "exp" } },
    tooSmall: { slots: [-1000, _], answers: ["zero", "error"], fixed: { name: "exp" } },
    closeness: { slots: [1e22, _], answers: ["nearest", "the host's"], fixed: { name: "tan" } },
  },
  fit: {
    missing: { slots: [null, 0, _], answers: blank },
    tooLarge: { slots: [1000, 0, 2], answers: ["error", "nearest"] },
  },
};

/** What a dialect does by an operation with answers, with a function or without one. */
const allStepsOf = (dialect: Dialect) => [...dialect.rows.filter(isPure), ...stepsOf(dialect)];

/** The answers of some function or step that does the operation. */
function someAnswers(id: OperationId): Readonly<Record<string, string>> {
  for (const make of Object.values(dialects)) {
    for (const step of allStepsOf(make())) if (step.operation === id) return step.answers;
  }
  // What only casts of some size do.
  return Object.fromEntries(operationOf(id).traits.map((trait) => [trait, Object.keys(describeTrait(trait).answers)[0]]));
}

function result(
  id: OperationId,
  { slots, expression, with: others = {}, fixed = {} }: Effect,
  trait: string,
  answer: string,
): Value {
  if (expression !== undefined) {
    const dialect = duckdb();
    const changed = (row: FunctionRow) =>
      isPure(row) && row.operation === id
        ? ({ ...row, answers: { ...row.answers, ...others, [trait]: answer } } as FunctionRow)
        : row;
    return compile({ ...dialect, rows: dialect.rows.map(changed) }, expression, noRows).run(noRows)[0];
  }
  const answers = { ...someAnswers(id), ...others, [trait]: answer };
  const operation = operationOf(id);
  return applyKernel(operation.prepare(answers as never, fixed), slots ?? [], operation.slots, answers.missing);
}

describe.each((Object.keys(operations) as OperationId[]).filter((id) => operationOf(id).traits.length > 0))("%s", (id) => {
  test.each([...operationOf(id).traits])("%s changes a result", (trait) => {
    const effect = effects[id][trait];
    expect(effect).toBeDefined();
    const [a, b] = effect.answers.map((answer) => result(id, effect, trait, answer));
    expect(a).not.toEqual(b);
  });
});

test("every answer is one of its trait's", () => {
  for (const make of Object.values(dialects)) {
    for (const row of allStepsOf(make())) {
      expect(Object.keys(row.answers).sort()).toEqual([...operationOf(row.operation).traits].sort());
      for (const [trait, answer] of Object.entries(row.answers))
        expect(Object.keys(describeTrait(trait as TraitId).answers)).toContain(answer);
    }
  }
});

test("every parameter of a pure row fills a slot of its operation", () => {
  for (const make of Object.values(dialects)) {
    for (const row of make().rows.filter(isPure)) {
      const slots = operationOf(row.operation).slots.map(({ name }) => name);
      for (const { slot } of row.parameters) expect(slots).toContain(slot);
      for (const slot of Object.keys(row.fixed ?? {})) expect(slots).toContain(slot);
    }
  }
});

test.each(Object.keys(dialects))("%s: each function says in which document it stands", (id) => {
  expect(
    dialects[id]()
      .rows.filter(({ evidence }) => !/^[A-Za-z]/.test(evidence))
      .map(({ name }) => name),
  ).toEqual([]);
});
