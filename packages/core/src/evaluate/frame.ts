import type { Cell } from "../dialects/dialect.ts";
import { Failure, type Value } from "../values/index.ts";
import type { Bound } from "./bound.ts";

/** Where the cells of a program read their columns, and what they count while they run. */
export interface Frame {
  /** Set before a run. */
  readonly columns: (readonly Value[])[];
  /** Counts the rows that are evaluated, so that what stands in several places is evaluated once for each. */
  turn: number;
  /** The cells of what stands in several places, with an observer and without one. */
  readonly cells: readonly [observed: Map<Bound, Cell>, plain: Map<Bound, Cell>];
  /** Parts that are the same in several places: of each, the first; set before a run over many rows. */
  common?: ReadonlyMap<Bound, Bound>;
  /** Turns of loops and calls of functions given as values that a row may take, and how many it has taken. */
  readonly limit: number;
  steps: number;
  /** Calls of functions given as values that are under way. */
  depth: number;
  /** Whether a row asked for the values of all rows. */
  readsWholeColumns: boolean;
}

/** Steps that a row may take where no other limit is given. */
export const usualSteps = 250_000;

export const newFrame = (limit = usualSteps): Frame => ({
  columns: [],
  turn: 0,
  cells: [new Map(), new Map()],
  limit,
  steps: 0,
  depth: 0,
  readsWholeColumns: false,
});

/** Counts steps against the limit; a failure when they are spent. */
export const spend = (frame: Frame, count: number): Failure | undefined =>
  (frame.steps += count) > frame.limit ? new Failure("steps-spent", { limit: frame.limit }) : undefined;
