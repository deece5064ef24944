import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { mistake } from "../evaluate/mistakes.ts";
import { type Name, walk } from "../syntax/index.ts";
import type { CalculatedColumn } from "./columns.ts";

const namesIn = (dialect: Dialect, source: string): Name[] =>
  [...walk(dialect.parse(source).tree)].filter((node): node is Name => node.kind === "name");

/**
 * Columns in an order in which each comes after those that it names, otherwise as they are given. A column that is there
 * sees its own old value. What goes round in a circle, or is given twice, is a problem of its column.
 */
export function inOrder(
  dialect: Dialect,
  columns: readonly CalculatedColumn[],
  given: readonly string[],
): { ordered: readonly CalculatedColumn[]; problems: ReadonlyMap<CalculatedColumn, Diagnostic> } {
  const problems = new Map<CalculatedColumn, Diagnostic>();
  const makers = new Map<string, CalculatedColumn>();
  for (const column of columns)
    for (const name of column.names) {
      if (makers.has(name)) problems.set(column, mistake("column-twice", { start: 0, end: column.expression.length }, { name }));
      else makers.set(name, column);
    }
  const ordered = new Set<CalculatedColumn>();
  const path: CalculatedColumn[] = [];
  const visit = (column: CalculatedColumn): void => {
    if (ordered.has(column)) return;
    path.push(column);
    for (const node of namesIn(dialect, column.expression)) {
      const found = [...makers].find(([name]) => dialect.namesColumn(node.name, name));
      if (!found || (found[1] === column && given.includes(found[0]))) continue;
      const from = path.indexOf(found[1]);
      if (from < 0) visit(found[1]);
      else if (!problems.has(column)) {
        const round = [...path.slice(from), found[1]].map(({ names }) => names.join(", "));
        problems.set(column, mistake("column-cycle", node.range, { round }));
      }
    }
    path.pop();
    ordered.add(column);
  };
  columns.forEach(visit);
  return { ordered: [...ordered], problems };
}

/** The calculated columns that one of them needs, itself included, as they are given. */
export function neededFor(dialect: Dialect, columns: readonly CalculatedColumn[], name: string): CalculatedColumn[] {
  const needed = new Set<CalculatedColumn>();
  const visit = (column: CalculatedColumn): void => {
    if (needed.has(column)) return;
    needed.add(column);
    const named = namesIn(dialect, column.expression);
    for (const other of columns)
      if (other.names.some((own) => named.some((node) => dialect.namesColumn(node.name, own)))) visit(other);
  };
  columns.filter(({ names }) => names.includes(name)).forEach(visit);
  return columns.filter((column) => needed.has(column));
}

/** The same expression for each of several columns; in it `it` stands for the column. */
export function forEach(dialect: Dialect, names: readonly string[], expression: string): CalculatedColumn[] {
  const places = namesIn(dialect, expression).filter((node) => dialect.namesColumn(node.name, "it"));
  return names.map((name) => {
    let source = expression;
    for (const { range } of [...places].sort((a, b) => b.range.start - a.range.start))
      source = source.slice(0, range.start) + dialect.columnText(name) + source.slice(range.end);
    return { names: [name], expression: source };
  });
}
