import { type Program, type Sample, type Source, type TextRange, isFailure } from "indigo-quill";
import type { PlanStep } from "indigo-quill/folio";
import { visibleText } from "indigo-quill/authoring";
import { countCodePoints } from "indigo-quill/values";
import { type Style, cellText, failureText } from "./style.ts";
import { table } from "./table.ts";

/** Characters of a text by their places, counted in code points from 1: `3`, or `3–7`. */
function places(text: string, { start, end }: TextRange): string {
  const first = countCodePoints(text, start) + 1;
  const last = countCodePoints(text, end);
  return last > first ? `${first}–${last}` : String(first);
}

/** Where the value of a column on a row (0-based) came from, as data. */
export function originsData({ column, program }: Pick<PlanStep, "column" | "program">, sample: Sample, row: number): object {
  const { value, ...rest } = program.origins(sample, row);
  const plain = isFailure(value)
    ? { error: { code: value.code, message: failureText(value) } }
    : { value: program.dialect.plain(value) };
  return { columns: column.names, row: row + 1, ...plain, ...rest };
}

/** Where each stretch of the value on a row (0-based) came from, and what of the columns did not come through. */
export function originsText(program: Program, sample: Sample, row: number, style: Style): string {
  const { value, stretches, dropped } = program.origins(sample, row);
  const shown = { ...style, spaces: true };
  const written = (text: string) => visibleText(text, true);
  const valueOf = (column: string) => String(sample.columns.find(({ name }) => name === column)!.values[row]);
  const said = ({ start, end }: TextRange) => visibleText(program.source.slice(start, end), false);
  const source = ({ column, literal, range }: Source): string => {
    if (column !== undefined) return range ? `${column} ${places(valueOf(column), range)}` : column;
    return `written as ${said(literal)}`;
  };
  const head = `${cellText(value, program.dialect, shown)}${isFailure(value) ? `  ${failureText(value)}` : ""}`;
  const wholes = new Map<number | undefined, string>();
  for (const { text, item } of stretches) wholes.set(item, (wholes.get(item) ?? "") + text);
  const lines = stretches.map(({ text, range, item, from, by }) => {
    return [
      written(text),
      `${item === undefined ? "" : `${item + 1}: `}${places(wholes.get(item)!, range)}`,
      from.length === 0 ? "put in" : from.map(source).join(", "),
      by && by.end > by.start ? said(by) : "",
    ];
  });
  const lost = dropped.map(({ column, range, text }) => `${column} ${places(valueOf(column), range)} (${written(text)})`);
  const told = lines.length > 0 ? `\n${table(["stretch", "characters", "from", "made by"], lines, style)}` : "";
  return `${head}\n${told}${lost.length > 0 ? `\nNot in it: ${lost.join(", ")}.\n` : ""}`;
}
