export {
  type CauseGroup,
  type Contrast,
  type ContrastOptions,
  type ContrastRow,
  type Pasted,
  type RowDifference,
  type Side,
  type UnknownRows,
  apartOn,
  contrast,
  paste,
} from "./contrast.ts";
export type { Parting } from "./parting.ts";
export { type Difference, withAnswers } from "./swap.ts";
export type { Effect } from "./effect.ts";
export {
  type OutcomeKind,
  type Switch,
  agree,
  agreeBy,
  agreements,
  isUnknown,
  kindOfOutcome,
  sameNumber,
  switches,
} from "./equal.ts";
export {
  type ExplainedDifference,
  type ExplainedParting,
  explainDifference,
  explainEffect,
  explainFailure,
  explainParting,
  titlesOf,
} from "./explain.ts";
export { showValue } from "./shown.ts";
export { instead, othersTo } from "./answers.ts";
export { type Assumption, type Coverage, type Untold, coverage, tryingRows, untoldText } from "./coverage.ts";
export { type Caught, type Hunt, type HuntOptions, type Quarry, type Reach, columnsOf, hunt, quarries } from "./hunt.ts";
export type { RowOf } from "./rows.ts";
