import type { Code } from "../dialect.ts";
import { type FunctionRow, params } from "../row.ts";

/**
 * Aggregates of SQL (ISO 9075-2, 10.9). An expression is evaluated on one row, and so are they: what they give is the
 * aggregate of a table of that row alone, and the binder warns of it.
 */

/**
 * Name, parameters (or the type of the one value), the type of the result and, where that is not the value itself, how it is
 * made from it.
 */
export type Aggregate = readonly [name: string, given: string, result: string, code?: string];

/** The rows of aggregates; with DISTINCT, which says nothing on one row, as a second name. */
export const aggregateRows = (list: readonly Aggregate[], evidence: string): FunctionRow[] =>
  list.map(([name, given, result, code = "aggregate of one"]) => ({
    name,
    aliases: [`${name} distinct`],
    family: "list",
    summary: `${summaries[code] ?? "The value of the one row"}; an aggregate.`,
    parameters: params(given.includes(" ") || given === "" ? given : `value ${given}`),
    result,
    code,
    evidence,
    aggregate: true,
  }));

const summaries: Readonly<Record<string, string>> = {
  "aggregate count": "1, or 0 where the value is null",
  "aggregate list": "A list of the one value",
  "aggregate sum": "The number that the one row has",
  "aggregate total": "The number that the one row has, 0 for null",
  "aggregate mean": "The value of the one row as a mean",
  "aggregate nothing": "Null, which one value gives",
  "aggregate spread": "0, or null where the value is null, or no number where it is infinite",
  "aggregate zero": "0, or null where the value is null",
};

export const aggregateCode: Readonly<Record<string, Code>> = {
  "aggregate of one": { run: ([value]) => value },
  "aggregate count": { run: (args) => (args[0] === null ? 0 : 1) },
  // Several values of a row are joined without anything between them.
  "aggregate joined": { strict: true, run: (values) => values.join("") },
  "aggregate list": { run: ([value]) => [value] },
  "aggregate nothing": { run: () => null },
  "aggregate zero": { strict: true, run: () => 0 },
};
