import type { FunctionRow } from "../row.ts";
import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

export const aggregates = aggregateRows(
  [
    ["count", "", "integer", "1 or 0"],
    ["count", "any", "integer", "1 or 0"],
    ...["max", "min"].map((name): Aggregate => [name, "any", "unified"]),
    ["sum", "exact", "decimal, most"],
    ["sum", "floating", "double, most"],
    ["avg", "floating", "double, four more"],
    ["group_concat", "values* text > items", "text", "joined"],
    ["group_concat separator", "value text, separator text", "text"],
    ...["std", "stddev", "stddev_pop", "variance", "var_pop"].map((name): Aggregate => [name, "floating", "double", "zero"]),
    ...["stddev_samp", "var_samp"].map((name): Aggregate => [name, "floating", "double", "nothing"]),
  ],
  "MariaDB documentation, Aggregate Functions",
);

/** The mean of one number: divided by 1, so that it has the decimals of a quotient. */
export function meanRow(operators: readonly FunctionRow[], type: string): FunctionRow {
  const division = operators.find(({ name, parameters }) => name === "/" && parameters[0].type === type)!;
  const { notation: _, parameters, ...rest } = division as Extract<FunctionRow, { operation: "calculate" }>;
  return {
    ...rest,
    name: "avg",
    aliases: ["avg distinct"],
    summary: "The value of the one row as a mean; an aggregate.",
    parameters: parameters.slice(0, 1),
    fixed: { sign: "/", b: 1 },
    aggregate: true,
  };
}
