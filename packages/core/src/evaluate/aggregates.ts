import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import type { Name } from "../syntax/index.ts";
import { type Bound, partsOf } from "./bound.ts";
import { mistake } from "./mistakes.ts";

/** What is wrong with aggregates: one within another, and in some dialects a column outside of all; the last found first. */
export function aggregateMistakes(whole: Bound, isAggregate: (part: Bound) => boolean, dialect: Dialect): Diagnostic[] {
  const found: Diagnostic[] = [];
  const outside: Bound[] = [];
  let aggregates = 0;
  const seen = new Set<Bound>();
  const visit = (part: Bound, within?: Bound): void => {
    if (seen.has(part)) return;
    seen.add(part);
    const own = isAggregate(part) ? part : undefined;
    if (own && within && own.source !== within.source) found.unshift(mistake("nested-aggregate", own.source.range));
    if (own) aggregates++;
    if (part.kind === "column" && !within) outside.push(part);
    for (const child of partsOf(part)) visit(child, own ?? within);
  };
  visit(whole);
  if (dialect.types.groups && aggregates > 0 && outside.length > 0) {
    const { source } = outside[0];
    found.unshift(mistake("ungrouped-column", source.range, { name: dialect.columnText((source as Name).name) }));
  }
  return found;
}
