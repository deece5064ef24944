import { type Part, changedParts, visibleText } from "indigo-quill/authoring";
import type { Sample, Value } from "indigo-quill";
import { type Applied, type Change, type ChangedValues, type Plan, changesOf } from "indigo-quill/folio";
import { type Style, cellText } from "./style.ts";
import { TableLines, table } from "./table.ts";

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

/** The changes by distinct value, as a table. */
export function tableOfValues(values: ChangedValues, plan: Plan, style: Style): string {
  const rows = values.list().map((change) => [String(change.count), change.column, ...marked(change, plan, style)]);
  return table(["rows", "column", "before", "after"], rows, style, [0]);
}
