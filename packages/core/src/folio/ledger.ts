import type { TextKind } from "../survey/kinds.ts";
import type { CalculatedColumn, PlanOptions } from "./columns.ts";

/** What was done in one step: enough to do it again on other rows. */
export interface Deed {
  readonly dialect: string;
  readonly options: Readonly<Record<string, string>>;
  readonly columns: readonly CalculatedColumn[];
  /** How the file before it was read, where that was said. */
  readonly reading?: { readonly encoding?: string; readonly separator?: string; readonly missing?: string };
  /** Kinds of columns of text that were asked for, and the one of all others. */
  readonly kinds: Readonly<Record<string, TextKind>>;
  readonly others?: TextKind;
  readonly where?: PlanOptions["where"];
  readonly only?: PlanOptions["only"];
  readonly unfold?: PlanOptions["unfold"];
  /** Texts that became what was decided, by columns. */
  readonly decided?: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

/** What became of a column in a step. */
export interface Effect {
  readonly isNew: boolean;
  readonly changed: number;
  readonly failed: number;
  readonly empty: number;
  readonly nothing: number;
  /** The rows that were changed, 1-based, as they stand after the step: `1-3,7`; of a new column none. */
  readonly rows: string;
}

/** The state of the file before and after, by digests of its bytes, and where the one before is kept. */
interface Passage {
  readonly at: string;
  readonly was: string;
  readonly is: string;
  readonly kept: string;
}

export interface StepEntry extends Passage {
  readonly step: number;
  readonly did: Deed;
  readonly rows: number;
  readonly effects: Readonly<Record<string, Effect>>;
  /** For each row the one that it was made from, where they are others: `1-3,5*2`. */
  readonly from?: string;
}

/** A line of a ledger: a step, or one that was taken back or done again. */
export type Entry = StepEntry | (Passage & { readonly undo: number }) | (Passage & { readonly redo: number });

/** Where a ledger stands: the steps that count, in order, and those that can be done again, the next one last. */
export interface LedgerState {
  readonly steps: readonly StepEntry[];
  readonly undone: readonly StepEntry[];
  /** For an undone step, where the file after it is kept. */
  readonly after: ReadonlyMap<number, string>;
}

export function ledgerState(entries: readonly Entry[]): LedgerState {
  const steps: StepEntry[] = [];
  let undone: StepEntry[] = [];
  const after = new Map<number, string>();
  for (const entry of entries) {
    if ("step" in entry) {
      steps.push(entry);
      undone = [];
    } else if ("undo" in entry) {
      undone.push(steps.pop()!);
      after.set(entry.undo, entry.kept);
    } else steps.push(undone.pop()!);
  }
  return { steps, undone, after };
}

/** Rows, 1-based, written as runs: `1-3,7`; one that comes several times as `5*2`. */
export class RowRuns {
  readonly #runs: string[] = [];
  #first = 0;
  #last = 0;
  #times = 1;

  add(row: number): void {
    if (row === this.#last && this.#first === this.#last) this.#times++;
    else if (row === this.#last + 1 && this.#first > 0 && this.#times === 1) this.#last = row;
    else {
      this.#flush();
      [this.#first, this.#last, this.#times] = [row, row, 1];
    }
  }

  #flush(): void {
    if (this.#first === 0) return;
    const run = this.#first === this.#last ? String(this.#first) : `${this.#first}-${this.#last}`;
    this.#runs.push(this.#times > 1 ? `${run}*${this.#times}` : run);
    this.#first = 0;
  }

  toString(): string {
    this.#flush();
    return this.#runs.join();
  }
}

interface Run {
  readonly first: number;
  readonly last: number;
  readonly times: number;
}

const runsOf = (text: string): Run[] =>
  [...text.matchAll(/(\d+)(?:-(\d+))?(?:\*(\d+))?/g)].map(([, first, last = first, times = "1"]) => ({
    first: Number(first),
    last: Number(last),
    times: Number(times),
  }));

const holds = (text: string, row: number): boolean => runsOf(text).some(({ first, last }) => first <= row && row <= last);

/** The row at a place, 1-based, of what runs write. */
function rowAt(text: string, place: number): number | undefined {
  let left = place;
  for (const { first, last, times } of runsOf(text)) {
    const size = (last - first + 1) * times;
    if (left <= size) return first + Math.floor((left - 1) / times);
    left -= size;
  }
  return undefined;
}

/** The steps that changed a cell, the last one first, each with the row that it had after and before it; rows are 1-based. */
export function stepsOfCell(
  { steps }: LedgerState,
  column: string,
  row: number,
): { readonly step: StepEntry; readonly row: number; readonly before: number }[] {
  const found: { step: StepEntry; row: number; before: number }[] = [];
  let now: number | undefined = row;
  for (const step of [...steps].reverse()) {
    const before: number | undefined = step.from === undefined ? now : rowAt(step.from, now);
    if (before === undefined) break;
    const effect = Object.hasOwn(step.effects, column) ? step.effects[column] : undefined;
    if (effect && (effect.isNew || holds(effect.rows, now))) found.push({ step, row: now, before });
    if (effect?.isNew) break;
    now = before;
  }
  return found;
}
