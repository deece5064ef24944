import { type Part, changedParts, visibleText } from "indigo-quill/authoring";
import type { Sample, Value } from "indigo-quill";
import type { Applied, Plan } from "indigo-quill/folio";
import { type Style, cellText } from "./style.ts";
import { TableLines, table } from "./table.ts";

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

/** What is changed in both texts, underlined in colour on a terminal, otherwise between ⟦ and ⟧. */
function marked({ before, after }: Change, plan: Plan, style: Style): [string, string] {
  const shown = (value: Value) => cellText(value, plan.dialect, style);
  if (typeof before !== "string" || typeof after !== "string" || before.length + after.length > 400)
    return [shown(before), shown(after)];
  const isColoured = style.colour.red("x") !== "x";
  const text = (parts: readonly Part[], colour: (text: string) => string) =>
    parts
      .map((part) => {
        const visible = visibleText(part.text, part.isChanged || style.spaces);
        return part.isChanged ? (isColoured ? colour(visible) : `⟦${visible}⟧`) : visible;
      })
      .join("");
  const parts = changedParts(before, after);
  return [
    before === "" ? shown(before) : text(parts.before, (part) => style.colour.underline(style.colour.red(part))),
    after === "" ? shown(after) : text(parts.after, (part) => style.colour.underline(style.colour.green(part))),
  ];
}

/** A table of the cells that change, row by row, as the rows come. */
export function previewOfRows(plan: Plan, style: Style) {
  const lines = new TableLines(["row", "column", "before", "after"], style, [0]);
  return (applied: Applied, piece: Sample, start: number): string => {
    const rows = [...changesOf(plan, applied, piece)].map((change) => [
      String(start + change.row + 1),
      change.column,
      ...marked(change, plan, style),
    ]);
    return lines.lines(rows);
  };
}

/** The changes by distinct value and what it becomes, the most frequent first. */
export class PreviewOfValues {
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

  table(style: Style): string {
    const rows = this.list().map((change) => [String(change.count), change.column, ...marked(change, this.plan, style)]);
    return table(["rows", "column", "before", "after"], rows, style, [0]);
  }
}
