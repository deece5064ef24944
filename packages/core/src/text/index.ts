import { textFromDate } from "./dates/text-from-date.ts";
import { digitsOf, numberInBase } from "./bases.ts";
import { is } from "./being.ts";
import { calculate, wholeQuotient } from "./calculate.ts";
import { escape, normalize } from "./escape.ts";
import { reverse, segment, slice } from "./extract.ts";
import { compareItems, distinctItems, extreme, findItem, holdsItems, replaceItems, sortItems } from "./items.ts";
import {
  addItem,
  checkSize,
  dropItems,
  item,
  joinLists,
  listOf,
  reverseItems,
  series,
  size,
  sliceItems,
  spliceItems,
} from "./lists.ts";
import { calendarField, weekOfYear, weekday } from "./calendar.ts";
import { bytesOf } from "./bytes-of.ts";
import { checkEscape, checkKind, checkNumber, checkPattern, checkText, instead } from "./checks.ts";
import { typedMoment } from "./dates/typed.ts";
import { checkFormat, dateFromText } from "./dates/date-from-text.ts";
import { addIntervals, intervalField, intervalFromText, intervalOf, intervalRatio, scaleInterval } from "./dates/intervals.ts";
import { addToDate, intervalBetween, unitsBetween } from "./dates/moved-dates.ts";
import { digitsOfMoment, fitSecond, momentOf } from "./dates/moment-of.ts";
import { dateByWords } from "./dates/date-by-words.ts";
import { startOfUnit } from "./dates/start-of-unit.ts";
import { listOfText } from "./list-of-text.ts";
import { itemsIn, oneItem } from "./sequences.ts";
import { fit, fitDouble, fitText } from "./fit.ts";
import { fixedText, formatNumber, numberByFormat } from "./formats/index.ts";
import { likeness } from "./likeness.ts";
import { find, locate, test } from "./locate.ts";
import { charOf, codeOf, compare, distinct, measure, unlessSame } from "./measure-test.ts";
import type { Answers } from "../traits/index.ts";
import type { Value } from "../values/index.ts";
import type { Operation } from "./operation.ts";
import { column, itself } from "./itself.ts";
import { connect, decisiveOf, not, truthOf } from "./logic.ts";
import { math } from "./math.ts";
import { numberOf } from "./number-of.ts";
import { bits, round, signed } from "./numeric.ts";
import { ofOne } from "./of-one.ts";
import { pad, repeat } from "./pad.ts";
import { recase } from "./recase.ts";
import { join, split } from "./split-join.ts";
import { replaceSpan, substitute, translate } from "./substitute.ts";
import { textOf } from "./text-of.ts";
import { trim } from "./trim.ts";

export * from "./operation.ts";
export { decisiveOf };
export * as marked from "./dates/marked.ts";
export { type FormatText, type FormatWord, formatWords, inCaseOf, ordinalEnding } from "./dates/format-words.ts";
export {
  type DatePart,
  datePartsBy,
  dateTokens,
  julianEpoch,
  parseTokens,
  romanMonths,
  tokenTable,
  writeByWords,
  writeDate,
} from "./dates/text-from-date.ts";
export { unitNames } from "./dates/start-of-unit.ts";
export { roomFor } from "./dates/intervals.ts";
export { generalDigits } from "./formats/sections.ts";
export { doubleTextBy, escapedBytes } from "./text-of.ts";
export { type Piece, watched } from "./pieces.ts";

/** Every operation, by its identifier. */
export const operations = {
  slice,
  segment,
  reverse,
  locate,
  test,
  find,
  "replace-span": replaceSpan,
  substitute,
  translate,
  escape,
  recase,
  normalize,
  trim,
  measure,
  "code-of": codeOf,
  "char-of": charOf,
  compare,
  distinct,
  "unless-same": unlessSame,
  likeness,
  join,
  split,
  repeat,
  pad,
  calculate,
  "whole-quotient": wholeQuotient,
  signed,
  round,
  bits,
  is,
  connect,
  not,
  "truth-of": truthOf,
  "number-of": numberOf,
  fit,
  "fit-double": fitDouble,
  "bytes-of": bytesOf,
  "moment-of": momentOf,
  "digits-of-moment": digitsOfMoment,
  "typed-moment": typedMoment,
  "fit-second": fitSecond,
  instead,
  "check-escape": checkEscape,
  "check-pattern": checkPattern,
  "check-kind": checkKind,
  "check-text": checkText,
  "check-number": checkNumber,
  "one-item": oneItem,
  "items-in": itemsIn,
  "list-of-text": listOfText,
  "fit-text": fitText,
  math,
  "format-number": formatNumber,
  "number-by-format": numberByFormat,
  "fixed-text": fixedText,
  "digits-of": digitsOf,
  "number-in-base": numberInBase,
  itself,
  column,
  "of-one": ofOne,
  "text-of": textOf,
  item,
  size,
  "drop-items": dropItems,
  "reverse-items": reverseItems,
  "join-lists": joinLists,
  "add-item": addItem,
  "list-of": listOf,
  "slice-items": sliceItems,
  "splice-items": spliceItems,
  "check-size": checkSize,
  series,
  "find-item": findItem,
  "holds-items": holdsItems,
  "distinct-items": distinctItems,
  "replace-items": replaceItems,
  "sort-items": sortItems,
  extreme,
  "compare-items": compareItems,
  "calendar-field": calendarField,
  weekday,
  "week-of-year": weekOfYear,
  "text-from-date": textFromDate,
  "date-from-text": dateFromText,
  "date-by-words": dateByWords,
  "check-format": checkFormat,
  "interval-from-text": intervalFromText,
  "interval-of": intervalOf,
  "add-intervals": addIntervals,
  "scale-interval": scaleInterval,
  "interval-ratio": intervalRatio,
  "interval-field": intervalField,
  "interval-between": intervalBetween,
  "add-to-date": addToDate,
  "units-between": unitsBetween,
  "start-of-unit": startOfUnit,
} as const;

export type OperationId = keyof typeof operations;

/** The traits that an operation asks. */
export type TraitsOf<O extends OperationId> = (typeof operations)[O]["traits"][number];

/** An operation by its identifier, seen without its particular traits. */
export const operationOf = (id: OperationId): Operation => operations[id];

/** A kernel as code calls it: a present value, or undefined, for each slot of its operation. */
export type PreparedKernel = (...slots: readonly (Value | undefined)[]) => Value;

/** The kernel of an operation outside a function row, with all of its answers; `fixed` holds the slots that are set once for all. */
export const kernelFor = <O extends OperationId>(
  id: O,
  answers: Answers<TraitsOf<O>>,
  fixed: Readonly<Record<string, Value>> = {},
): PreparedKernel => operationOf(id).prepare(answers as Answers, fixed) as PreparedKernel;

/** How two present values of kinds that compare stand to each other: −1, 0 or 1. */
export const orderFor = (answers: Omit<Answers<TraitsOf<"compare">>, "missing" | "truth">) =>
  kernelFor("compare", { missing: "null", truth: "true or false", ...answers }, { relation: "order" }) as (
    a: Value,
    b: Value,
  ) => number;
