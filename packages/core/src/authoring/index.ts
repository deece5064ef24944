export { type AnswerExample, type TriedAnswers, answersTried, examplesOfAnswers } from "./answers/index.ts";
export {
  type Answering,
  type AnsweringFunction,
  type ConcordanceEntry,
  type Example,
  type Examples,
  type Moved,
  type MovedDifference,
  concordanceOf,
  exampleColumn,
  examplesOf,
  movedTo,
} from "./concordance.ts";
export {
  type CallHelp,
  type Completion,
  type Hover,
  type Renaming,
  callAt,
  completionsAt,
  hoverAt,
  renameAt,
  renamed,
  stepAt,
} from "./caret.ts";
export { type Part, changedParts } from "./changes.ts";
export { type Formatted, format } from "./format.ts";
export { type Found, find, tasksOf } from "./find.ts";
export { type Candidate, type Wanted, expressionsFor } from "./wanted.ts";
export type { WrittenPattern } from "../evaluate/index.ts";
export { type DialectFlavour, flavoursOf, patternsIn, patternsOn } from "./patterns.ts";
export { notesOf } from "./notes/index.ts";
export { type Ruler, type RulerCell, rulerOf } from "./ruler.ts";
export { visibleText } from "./white-space.ts";
export * from "./statements.ts";
