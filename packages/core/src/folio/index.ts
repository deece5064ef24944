/** Calculated columns over a sample: several at once, in the order of their use. */
export {
  type Applied,
  type CalculatedColumn,
  type Changes,
  type Plan,
  type PlanOptions,
  type PlanProblem,
  type PlanStep,
  type Stage,
  placesUsed,
  programsOf,
  planColumns,
} from "./columns.ts";
export { forEach } from "./order.ts";
export {
  type Claim,
  type Folio,
  type FolioColumn,
  type Snippet,
  folioSchema,
  listFiles,
  readFolio,
  withSnippets,
} from "./folio.ts";
export type { ShapeProblem } from "../diagnostics/shape.ts";
export { type ClaimResult, checkClaims } from "./claims.ts";
export { freeName, planStatement } from "./statement.ts";
export {
  type Deed,
  type Effect,
  type Entry,
  type LedgerState,
  RowRuns,
  type StepEntry,
  ledgerState,
  stepsOfCell,
} from "./ledger.ts";
export { type Inlined, inlined } from "./inline.ts";
export { type Said, saidJobs } from "./proof.ts";
export { type Lifted, lifted } from "./lift.ts";
export { type IdleCleanup, type Needs, idleCleanups, needsOf } from "./needs.ts";
export { type FolioEdit, renamings } from "./rename.ts";
export { type Change, ChangedValues, changesOf } from "./preview.ts";
