import type { Sample } from "../evaluate/index.ts";
import type { Value } from "../values/index.ts";
import type { Applied, Plan } from "./columns.ts";

/** One cell that becomes another. */
export interface Change {
  /** The row in the piece, and its place among the rows that are given, 0-based. */
  readonly row: number;
  readonly place: number;
  readonly column: string;
  readonly before: Value;
  readonly after: Value;
}

/** The cells that become others, in order, errors among them; cells are as they were written. */
export function* changesOf({ given }: Plan, { sample, rows, changes }: Applied, piece: Sample): Generator<Change> {
  const replaced = changes
    .filter(({ name }) => given.has(name))
    .map(({ name, changed, failed }) => {
      const named = ({ columns }: Sample) => columns.find((column) => column.name === name)!;
      const { values, written } = named(piece);
      return { name, touched: new Set([...changed, ...failed]), before: written ?? values, after: named(sample).values };
    });
  for (const [place, row] of rows.entries())
    for (const { name, touched, before, after } of replaced)
      if (touched.has(row)) yield { row, place, column: name, before: before[row], after: after[place] };
}

/** The changes by distinct value and what it becomes, the most frequent first. */
export class ChangedValues {
  readonly #found = new Map<string, Change & { count: number }>();

  constructor(readonly plan: Plan) {}

  add(applied: Applied, piece: Sample): void {
    for (const change of changesOf(this.plan, applied, piece)) {
      const key = JSON.stringify([change.column, typeof change.before, String(change.before), String(change.after)]);
      const known = this.#found.get(key);
      if (known) known.count++;
      else this.#found.set(key, { ...change, count: 1 });
    }
  }

  list(): (Change & { count: number })[] {
    return [...this.#found.values()].sort((a, b) => b.count - a.count || a.row - b.row);
  }
}
