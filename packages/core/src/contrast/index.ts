import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type Bound, type Program, type Sample, compile, defaultLimits, inputValues, jobsOf } from "../evaluate/index.ts";
import { OverTime, type Value, isFailure, startClock, stopClock } from "../values/index.ts";
import { type Evaluated, type Parting, type Step, anotherOf, partingOf, truthParting, withAnswers } from "./cause.ts";
import { type Effect, effectOf } from "./effect.ts";
import { agree, asTruth } from "./equal.ts";

export { type Difference, type Parting, withAnswers } from "./cause.ts";
export type { Effect } from "./effect.ts";
export { agree, kindOfOutcome, type OutcomeKind } from "./equal.ts";
export {
  type ExplainedDifference,
  type ExplainedParting,
  explainDifference,
  explainEffect,
  explainFailure,
  explainParting,
} from "./explain.ts";
export { showValue } from "./shown.ts";

/** An expression with its dialect. */
export interface Side {
  readonly dialect: Dialect;
  readonly expression: string;
}

/** How one side differs from the first on a row; `parting` is undefined where the two have no step in common. */
export interface RowDifference {
  /** The number of the side, from 1; it is compared with side 0. */
  readonly side: number;
  readonly parting: Parting | undefined;
  /** Where both write one function or sign and it is another operation on each side: what it is on each. */
  readonly another?: string;
  readonly effect: Effect;
}

/** One row of a contrast. */
export interface ContrastRow {
  /** 0-based. */
  readonly row: number;
  /** One value for each side. */
  readonly values: readonly Value[];
  readonly agree: boolean;
  readonly differences: readonly RowDifference[];
}

/** Rows on which a side differs from the first for one reason; all else is told of the first of them. */
export interface CauseGroup extends RowDifference {
  /** 0-based. */
  readonly rows: readonly number[];
}

export interface Contrast {
  readonly programs: readonly Program[];
  /** Every row of the sample, in order. */
  readonly rows: readonly ContrastRow[];
  /** The rows that differ, by side and cause; the commonest first. */
  readonly groups: readonly CauseGroup[];
}

/** A program on a row: its value, the operations that it carries out, with the idioms that they make up, and what it gives otherwise. */
function evaluated(program: Program, sample: Sample, row: number): Evaluated {
  const steps: Step[] = [];
  const nodes: Omit<Step, "bound" | "slots">[] = [];
  const turns = new Map<Bound, number>();
  const value = program.runRow(sample, row, (source, found, node, slots) => {
    turns.set(node, (turns.get(node) ?? 0) + 1);
    const name = source.kind === "call" ? program.source.slice(source.nameRange.start, source.nameRange.end) : "";
    const step = { dialect: program.dialect, range: source.range, written: name.toLowerCase(), node, value: found };
    if (node.kind === "operation" && slots) steps.push({ ...step, bound: node, slots });
    nodes.push(step);
  });
  withinTime(() => {
    for (const step of nodes) {
      for (const bound of jobsOf(step.node)) {
        const slots = inputValues(program, bound, row);
        // A shape may come to an operation on some rows only.
        const isSame = !slots.some(isFailure) && agree(asTruth(withAnswers(bound, slots, bound.answers)), asTruth(step.value));
        if (isSame) steps.push({ ...step, bound, slots });
      }
    }
  });
  // What is carried out several times has no one value that another could stand for.
  const once = steps.filter(({ node }) => turns.get(node) === 1);
  return { value, steps: once, runWith: (changes) => program.runWith(sample, row, changes) };
}

/**
 * What is tried on a row, where that takes no longer than a row may; otherwise undefined. `go` goes on with the time that is left
 * after a run of a whole expression, which has a clock of its own.
 */
function withinTime<T>(tried: (go: () => void) => T): T | undefined {
  const end = Date.now() + defaultLimits.milliseconds;
  const go = () => {
    if (Date.now() > end) throw new OverTime();
    startClock(end - Date.now());
  };
  try {
    go();
    return tried(go);
  } catch (error) {
    if (error instanceof OverTime) return undefined;
    throw error;
  } finally {
    stopClock();
  }
}

/** What is tried of two sides within the time of a row. */
function triedOf<T>(left: Evaluated, right: Evaluated, tried: (left: Evaluated, right: Evaluated) => T): T | undefined {
  let isOver = false;
  const timed = (side: Evaluated, go: () => void): Evaluated => ({
    ...side,
    runWith(changes) {
      const value = side.runWith(changes);
      // What is replayed later has the time of a run.
      if (!isOver) go();
      return value;
    },
  });
  const found = withinTime((go) => tried(timed(left, go), timed(right, go)));
  isOver = true;
  return found;
}

/** Where two evaluations part, and, where no cause is found, what one name is on each side. */
function explained(left: Evaluated, right: Evaluated): Pick<RowDifference, "parting" | "another"> {
  if (agree(asTruth(left.value), asTruth(right.value))) return { parting: truthParting(left, right) };
  const found = triedOf(left, right, (one, other) => {
    const parting = partingOf(one, other);
    const another = parting && parting.causes.length > 0 ? undefined : anotherOf(one, other);
    return { parting, ...(another !== undefined && { another }) };
  });
  return found ?? { parting: undefined };
}

/**
 * Evaluates two or more expressions over the same rows and says where the others differ from the
 * first, at which step first, and by which traits.
 */
export function contrast(sides: readonly Side[], sample: Sample): Contrast {
  const programs = sides.map(({ dialect, expression }) => compile(dialect, expression, sample));
  const columns = programs.map((program) => program.run(sample));
  const rows = Array.from({ length: sample.rows }, (_, row): ContrastRow => {
    const values = columns.map((column) => column[row]);
    const differing = values.flatMap((value, side) => (side > 0 && !agree(values[0], value) ? [side] : []));
    if (differing.length === 0) return { row, values, agree: true, differences: [] };
    const first = evaluated(programs[0], sample, row);
    const outcome = (side: number) => ({ program: programs[side], value: values[side] });
    const differences = differing.map((side): RowDifference => {
      const other = evaluated(programs[side], sample, row);
      return { side, ...explained(first, other), effect: effectOf(outcome(0), outcome(side), sample, row) };
    });
    return { row, values, agree: false, differences };
  });
  return { programs, rows, groups: groupsOf(rows) };
}

function groupsOf(rows: readonly ContrastRow[]): CauseGroup[] {
  const groups = new Map<string, CauseGroup & { rows: number[] }>();
  for (const { row, differences } of rows) {
    for (const difference of differences) {
      const { side, parting, another } = difference;
      const told =
        parting && [parting, ...(parting.further ?? [])].map(({ operation, ranges, causes }) => [operation, ranges, causes]);
      const key = JSON.stringify([side, told, another]);
      const group = groups.get(key) ?? { ...difference, rows: [] };
      group.rows.push(row);
      groups.set(key, group);
    }
  }
  return [...groups.values()].sort((a, b) => a.side - b.side || b.rows.length - a.rows.length);
}

/** What a dialect makes of a text pasted into it. */
export interface Pasted {
  readonly dialect: Dialect;
  /** Why it is not accepted; empty when it is. */
  readonly refused: readonly Diagnostic[];
}

/** Gives one text to several dialects, and contrasts those that accept it (undefined when fewer than two do). */
export function paste(
  expression: string,
  dialects: readonly Dialect[],
  sample: Sample,
): { pasted: readonly Pasted[]; contrast: Contrast | undefined } {
  const pasted = dialects.map((dialect): Pasted => {
    const program = compile(dialect, expression, sample);
    return { dialect, refused: program.ok ? [] : program.diagnostics.filter((d) => d.severity === "error") };
  });
  const sides = pasted.filter(({ refused }) => refused.length === 0).map(({ dialect }) => ({ dialect, expression }));
  return { pasted, contrast: sides.length > 1 ? contrast(sides, sample) : undefined };
}
