import type { Diagnostic } from "../../diagnostics/index.ts";
import { type Program, type Sample, allPartsOf } from "../../evaluate/index.ts";
import type { Value } from "../../values/index.ts";
import { askedOf } from "./asked.ts";
import {
  columnAsCondition,
  comparedWithNull,
  emptyRange,
  literalAmongConditions,
  nullAmong,
  orderedAsTexts,
  otherText,
  textAsCondition,
  textCalculated,
  wildcardsCompared,
} from "./comparisons.ts";
import { excluding } from "./conditions.ts";
import { aloneInTurn, catchesOthers, decided, falseOtherwise, neverMissing, neverReached, sameBranches } from "./branches.ts";
import { alwaysFailing } from "./failing.ts";
import { nothingChanged, sameEverywhere } from "./outcomes.ts";
import { foreignFormats } from "./formats.ts";
import { countedFromOtherEnd, itemOfOne, itemZero, separatorLast, startingAtZero } from "./places.ts";
import { delimiterTaken, fitsEverything, neverEqual, neverHolds, replacedInText, searchedInText } from "./searches.ts";
import {
  bytesCounted,
  chainedComparison,
  columnAsSeparator,
  firstReplaced,
  foreignDateFormat,
  missingGroup,
  monthBesideHour,
  negativeLength,
  negativeStart,
  powerAsBits,
  roundedQuotients,
  signAlone,
  signPlace,
  splitSign,
  sumOfJoined,
  trimsLetters,
  wholeOfGroup,
  wildcardInPattern,
} from "./traps.ts";
import {
  foreignGroups,
  foreignWildcards,
  joinedOtherwise,
  lostEscapes,
  namesAsTexts,
  otherCase,
  patternAsText,
  quotedColumns,
  separatorOfRows,
  sizeNotHeeded,
  stringAsNumber,
  textsBeside,
} from "./texts.ts";

const ofOperations = [
  textAsCondition,
  columnAsCondition,
  textCalculated,
  startingAtZero,
  foreignWildcards,
  foreignGroups,
  wholeOfGroup,
  patternAsText,
  otherCase,
  separatorLast,
  orderedAsTexts,
  wildcardsCompared,
  otherText,
  negativeStart,
  negativeLength,
  bytesCounted,
  missingGroup,
  wildcardInPattern,
  sumOfJoined,
  columnAsSeparator,
  searchedInText,
  replacedInText,
  trimsLetters,
  firstReplaced,
  countedFromOtherEnd,
  signAlone,
  fitsEverything,
];
const ofParts = [
  foreignDateFormat,
  foreignFormats,
  monthBesideHour,
  chainedComparison,
  neverReached,
  falseOtherwise,
  signPlace,
  sameBranches,
  neverMissing,
  aloneInTurn,
  itemOfOne,
  catchesOthers,
];
const ofWholes = [
  comparedWithNull,
  nullAmong,
  emptyRange,
  literalAmongConditions,
  powerAsBits,
  splitSign,
  textsBeside,
  stringAsNumber,
  separatorOfRows,
  itemZero,
  quotedColumns,
  namesAsTexts,
  lostEscapes,
  joinedOtherwise,
  roundedQuotients,
  delimiterTaken,
  decided,
  excluding,
  sizeNotHeeded,
];

/**
 * What an expression that is accepted may not mean, each with its place and, where what was meant is known, the mend: a text that is a
 * column's name, another language's wildcard, group or escape, `= null`, a position of 0, what is an error wherever it is reached, a
 * sign that does not join here, a text that is found nowhere or searched the wrong way round, a delimiter that is taken with the
 * result, conditions that exclude each other, a branch that no row reaches or that gives what all others do, a literal behind which nothing is asked for, a group that is not
 * there, another language's date format, a replacement that changes no row, one result on every row.
 *
 * @param sample the rows; parts of the expression are tried on the first 200
 * @param values what it gives on the rows of the sample, `program.run(sample)`
 *
 * @returns warnings, in the order of their places; none for a program that cannot run
 */
export function notesOf(program: Program, sample: Sample, values: readonly Value[]): Diagnostic[] {
  if (!program.ok) return [];
  const asked = askedOf(program, sample, values);
  const parts = allPartsOf(program.bound);
  const operations = parts.flatMap((part) => (part.kind === "operation" ? [part] : []));
  const found = [
    ...alwaysFailing(asked),
    ...ofWholes.flatMap((ask) => ask(asked)),
    ...parts.flatMap((part) => ofParts.flatMap((ask) => ask(part, asked))),
    ...operations.flatMap((operation) => ofOperations.flatMap((ask) => ask(operation, asked))),
  ];
  // What holds on no row is told where nothing else is.
  if (found.length === 0)
    found.push(...operations.flatMap((operation) => [...neverHolds(operation, asked), ...neverEqual(operation, asked)]));
  const places = new Map(found.map((each) => [`${each.code} ${each.range.start}`, each]));
  const told = [...places.values()].sort((a, b) => a.range.start - b.range.start);
  return told.length > 0
    ? told
    : [...operations.flatMap((operation) => nothingChanged(operation, asked)), ...sameEverywhere(asked)];
}
