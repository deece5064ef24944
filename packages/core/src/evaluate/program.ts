import { type Diagnostic, placeWithin } from "../diagnostics/index.ts";
import type { Cell, Dialect } from "../dialects/dialect.ts";
import { type Expression, type ParseLimits, parseLimits } from "../syntax/index.ts";
import { Failure, OverTime, type TextRange, type Value, isFailure, startClock, stopClock } from "../values/index.ts";
import { Binder } from "./bind.ts";
import { type Bound, type BoundOperation, allPartsOf, replaced } from "./bound.ts";
import { constantFailure } from "./constants.ts";
import { typeOfDeclared } from "./declared.ts";
import { commonParts } from "./common.ts";
import { type Observer, emit } from "./emit.ts";
import type { Trial } from "./habits.ts";
import { originsOf } from "./origins.ts";
import { type Sample, readColumn } from "./sample.ts";
import type { Origins } from "./stretches.ts";
import { Trace, type TraceStep } from "./trace.ts";
import { type Frame, newFrame, usualSteps } from "./frame.ts";
import type { Type } from "../dialects/types.ts";

/** Named bounds on reading and evaluating an expression; each has an error that names it. */
export interface Limits extends ParseLimits {
  /** Turns of loops and calls of functions given as values that one row may take. */
  readonly steps: number;
  /** Milliseconds that one row may take. */
  readonly milliseconds: number;
}

/** What ends a run before its last row. */
export interface RunBudget {
  /** Milliseconds that all rows may take together. */
  readonly milliseconds?: number;
  /** Asked from time to time; the rows after it says so are not evaluated. */
  readonly isStopped?: () => boolean;
}

/**
 * The limits that hold where none are given.
 *
 * @example
 * const sample = sampleOf([{ label: "Alnus" }]);
 * const program = compile(xpath(), "count(for $i in 1 to 100 return $i)", sample, { ...defaultLimits, steps: 10 });
 * program.run(sample).map(({ code }) => code); // ["steps-spent"]
 */
export const defaultLimits: Limits = { ...parseLimits, steps: usualSteps, milliseconds: 10_000 };

/** An expression bound to a dialect and to the names and types of columns. */
export interface Program {
  readonly dialect: Dialect;
  readonly source: string;
  readonly tree: Expression;
  readonly diagnostics: readonly Diagnostic[];
  /** Whether it can run: no diagnostic is an error. */
  readonly ok: boolean;
  /** The dialect's name for the type of the result. */
  readonly type: Type;
  readonly bound: Bound;
  /**
   * The value on every row of the sample. A program that is not `ok` gives its first error on
   * every row. The sample must have the columns that the program was compiled for, in their order.
   * Rows that `budget` leaves no time for are the failure `run-stopped`.
   */
  run(sample: Sample, budget?: RunBudget): Value[];
  /** Whether a row that has been evaluated asked for the values of all rows, as counting over a column does. */
  readonly readsWholeColumns: boolean;
  /** Where the columns are read from while it runs. */
  readonly frame: Frame;
  /** The value on one row, 0-based; `observe` is told every sub-expression's value. */
  runRow(sample: Sample, row: number, observe?: Observer): Value;
  /**
   * The program with other parts in the place of some of its own: what it gives then on a row, 0-based. Where a dialect's own code
   * does not bear what it is given so, that is the failure `not-covered`.
   */
  experiment(changes: ReadonlyMap<Bound, Bound>): (sample: Sample, row: number) => Value;
  /** Every sub-expression with its value on one row, 0-based; in source order, outer ones first. */
  trace(sample: Sample, row: number): TraceStep[];
  /** Where each stretch of the value on one row, 0-based, came from, and what of the columns that were read is not in it. */
  origins(sample: Sample, row: number): Origins;
}

/** A pattern that cannot be read, at the place within it. */
function withinPattern(problem: Diagnostic, source: string): Diagnostic {
  const { pattern, offset } = problem.facts;
  if (typeof pattern !== "string" || typeof offset !== "number") return problem;
  return { ...problem, range: placeWithin(source, problem.range, pattern, offset) };
}

/**
 * A problem without the mends that make a column of what is none: the reader does not know which there are. A word that then
 * stands for the clock is not covered.
 */
function withColumnsThere(problem: Diagnostic, dialect: Dialect, { columns }: Sample): Diagnostic {
  if (problem.fixes.length === 0 || (problem.code !== "reserved-word" && problem.code !== "expected")) return problem;
  const names = new Set(columns.map(({ name }) => dialect.columnText(name).toLowerCase()));
  const fixes = problem.fixes.filter(({ edits }) => edits.every(({ text }) => names.has(text.toLowerCase())));
  const word = String(problem.facts.word);
  const reason = dialect.uncovered.get(word.toLowerCase());
  if (fixes.length > 0 || !reason?.startsWith("the clock")) return { ...problem, fixes };
  return { ...problem, code: "not-covered", facts: { what: `${word} (${reason})` }, fixes };
}

/** Says how a text that is wrong may be meant: the problems with their mends. */
export type Meant = (tree: Expression, found: Trial) => readonly Diagnostic[];

/** Reads, binds and compiles an expression; `meant` is asked about one that is wrong. */
export function programOf(dialect: Dialect, source: string, sample: Sample, limits: Limits, meant?: Meant): Program {
  const parsed = dialect.parse(source, limits);
  const frame = newFrame(limits.steps);
  const columns = sample.columns.map(({ name, values, type: known, declared }) => {
    let type = known;
    return {
      name,
      // Found out where it is asked for: most columns of a wide sample are not used.
      get type() {
        return (type ??= declared ? typeOfDeclared(dialect, declared, values) : dialect.types.columnType(values));
      },
    };
  });
  const binder = new Binder(dialect, columns, source);
  const parseFailed = parsed.diagnostics.some((d) => d.severity === "error");
  const bound = binder.bindWhole(parsed.tree);
  // What a half-read tree lacks would only be reported twice.
  const found = [
    ...parsed.diagnostics.map((each) => withColumnsThere(each, dialect, sample)),
    ...(parseFailed ? [] : binder.diagnostics.map((each) => withinPattern(each, source))),
  ];
  const isWrong = found.some((d) => d.severity === "error");
  const diagnostics = isWrong && meant ? meant(parsed.tree, { ok: false, isRead: !parseFailed, diagnostics: found }) : found;
  const error = diagnostics.find((d) => d.severity === "error");
  const failure = error && new Failure(error.code, error.facts, error.range, dialect.standardCode(error.code, error.facts));

  /** What every row gives where the dialect evaluates constants first and one fails. */
  const folded = !failure && dialect.types.folds ? constantFailure(bound, dialect, limits.milliseconds) : undefined;

  const used = columnsUsed({ bound });
  let loaded: Sample | undefined;
  function load(values: Sample): void {
    if (values !== loaded)
      for (const i of used) {
        const { values: given } = values.columns[i];
        frame.columns[i] =
          sample.columns[i].type === undefined ? readColumn(dialect, columns[i].type, given, sample.columns[i].declared) : given;
      }
    loaded = values;
    frame.steps = 0;
  }

  let observer: Observer | undefined;
  let observed: Cell | undefined;
  function runRow(values: Sample, row: number, observe?: Observer): Value {
    if (failure) return failure;
    load(values);
    observer = observe;
    try {
      observed ??= emit(bound, frame, dialect, (...seen) => observer?.(...seen));
      startClock(limits.milliseconds);
      frame.turn++;
      const value = observed(row);
      return folded ?? value;
    } catch (error) {
      return beyondLimits(error, parsed.tree.range, limits);
    } finally {
      stopClock();
    }
  }

  let cell: Cell | undefined;
  return {
    dialect,
    source,
    tree: parsed.tree,
    diagnostics,
    ok: !failure,
    type: bound.type,
    bound,
    frame,
    get readsWholeColumns() {
      return frame.readsWholeColumns;
    },
    runRow,
    run(values, { milliseconds = Infinity, isStopped }: RunBudget = {}) {
      const result = new Array<Value>(values.rows);
      if (failure ?? folded) return result.fill((failure ?? folded)!);
      load(values);
      try {
        frame.common ??= commonParts(bound);
        cell ??= emit(bound, frame, dialect);
      } catch (error) {
        return result.fill(beyondLimits(error, parsed.tree.range, limits));
      }
      const end = Date.now() + milliseconds;
      let look = 0;
      for (let row = 0; row < values.rows; row++) {
        try {
          for (; row < values.rows; row++) {
            if (row === look) {
              if (Date.now() > end || (row % rowsBetweenLooks === 0 && isStopped?.()))
                return result.fill(new Failure("run-stopped", { rows: row }, parsed.tree.range), row);
              // The first rows may be slow.
              look += Math.min(row || 1, rowsBetweenLooks);
            }
            frame.steps = 0;
            startClock(limits.milliseconds);
            frame.turn++;
            result[row] = cell(row);
          }
        } catch (error) {
          result[row] = beyondLimits(error, parsed.tree.range, limits);
        } finally {
          stopClock();
        }
      }
      return result;
    },
    experiment(changes) {
      if (failure) return () => failure;
      const changed = replaced(bound, changes);
      const early = folded && constantFailure(changed, dialect, limits.milliseconds);
      if (early) return () => early;
      const tried = emit(changed, frame, dialect);
      return (values, row) => {
        load(values);
        try {
          startClock(limits.milliseconds);
          frame.turn++;
          return tried(row);
        } catch (error) {
          if (isBeyond(error)) return beyondLimits(error, parsed.tree.range, limits);
          return new Failure("not-covered", { what: String(error) }, parsed.tree.range);
        } finally {
          stopClock();
        }
      };
    },
    trace(values, row) {
      const trace = new Trace(dialect);
      runRow(values, row, trace.observe);
      return trace.steps(parsed.tree, source);
    },
    origins(values, row) {
      const value = runRow(values, row);
      if (isFailure(value)) return { value, stretches: [], dropped: [] };
      frame.steps = 0;
      startClock(limits.milliseconds);
      try {
        const names = columns.map(({ name }) => name);
        return originsOf(bound, row, frame, dialect, names);
      } catch (error) {
        return { value: beyondLimits(error, parsed.tree.range, limits), stretches: [], dropped: [] };
      } finally {
        stopClock();
      }
    },
  };
}

/** Rows after which a run looks whether it is to end; at the clock it looks among the first ones, too. */
const rowsBetweenLooks = 256;

const isBeyond = (error: unknown): boolean => error instanceof OverTime || error instanceof RangeError;

/** The failure that a row took too long, or that the host refused to hold a text or a stack of some size; any other error is thrown on. */
function beyondLimits(error: unknown, range: TextRange, { milliseconds }: Limits): Failure {
  if (error instanceof OverTime) return new Failure("time-spent", { limit: milliseconds }, range);
  if (error instanceof RangeError) return new Failure("beyond-memory", {}, range);
  throw error;
}

/**
 * The columns that a program reads, by their place in the sample, 0-based.
 *
 * @example
 * const sample = sampleOf([{ label: "Alnus", code: "a1", n: 3 }]);
 * [...columnsUsed(compile(postgresql(), "repeat(label, n)", sample))]; // [0, 2]
 */
export function columnsUsed({ bound }: Pick<Program, "bound">): Set<number> {
  return new Set(allPartsOf(bound).flatMap((part) => (part.kind === "column" ? [part.column] : [])));
}

const inputCells = new WeakMap<BoundOperation, readonly (readonly Cell[] | Cell | undefined)[]>();

/** The values in the slots of an operation of a program that has just run on the sample. */
export function inputValues(program: Program, operation: BoundOperation, row: number): (Value | undefined)[] {
  let cells = inputCells.get(operation);
  if (!cells) {
    const cellOf = (bound: Bound) => emit(bound, program.frame, program.dialect);
    cells = operation.inputs.map((input) => input && ("kind" in input ? cellOf(input) : input.map(cellOf)));
    inputCells.set(operation, cells);
  }
  return cells.map((cell) => (typeof cell === "function" ? cell(row) : cell?.map((each) => each(row))));
}
