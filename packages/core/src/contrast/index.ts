import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type Program, type Sample, compile, defaultLimits, idiomOf, inputValues } from "../evaluate/index.ts";
import { OverTime, type Value, startClock, stopClock } from "../values/index.ts";
import { type Parting, type Step, partingOf } from "./cause.ts";
import { agree } from "./equal.ts";

export { type Difference, type Parting, withAnswers } from "./cause.ts";
export { agree, kindOfOutcome, type OutcomeKind } from "./equal.ts";
export {
  type ExplainedDifference,
  type ExplainedParting,
  explainDifference,
  explainFailure,
  explainParting,
  showValue,
} from "./explain.ts";

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

/** Rows on which a side differs from the first for one reason. */
export interface CauseGroup {
  readonly side: number;
  readonly parting: Parting | undefined;
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

/** The operations that a program carries out on a row, innermost first, with the idioms that they make up. */
function stepsOf(program: Program, sample: Sample, row: number): Step[] {
  const steps: Step[] = [];
  program.runRow(sample, row, (source, value, bound, slots) => {
    if (bound.kind !== "operation" || !slots) return;
    const step = { dialect: program.dialect, range: source.range, value };
    steps.push({ ...step, bound, slots });
    const idiom = idiomOf(bound);
    if (idiom && idiom.operation !== bound.operation)
      steps.push({ ...step, bound: idiom, slots: inputValues(program, idiom, row) });
  });
  return steps;
}

/** The parting of two evaluations; undefined where trying the causes takes longer than a row may. */
function partingInTime(left: readonly Step[], right: readonly Step[]): Parting | undefined {
  try {
    startClock(defaultLimits.milliseconds);
    return partingOf(left, right);
  } catch (error) {
    if (error instanceof OverTime) return undefined;
    throw error;
  } finally {
    stopClock();
  }
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
    const first = programs[0].ok ? stepsOf(programs[0], sample, row) : [];
    const differences = differing.map((side) => ({
      side,
      parting: programs[side].ok ? partingInTime(first, stepsOf(programs[side], sample, row)) : undefined,
    }));
    return { row, values, agree: false, differences };
  });
  return { programs, rows, groups: groupsOf(rows) };
}

function groupsOf(rows: readonly ContrastRow[]): CauseGroup[] {
  const groups = new Map<string, { side: number; parting: Parting | undefined; rows: number[] }>();
  for (const { row, differences } of rows) {
    for (const { side, parting } of differences) {
      const key = JSON.stringify([side, parting && [parting.operation, parting.ranges, parting.causes]]);
      const group = groups.get(key) ?? { side, parting, rows: [] };
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
