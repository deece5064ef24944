import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

export const aggregates = aggregateRows(
  [
    ["count", "", "none", "aggregate count"],
    ["count", "any", "none", "aggregate count"],
    ...["max", "min"].map((name): Aggregate => [name, "any", "same collation"]),
    ["sum", "any", "none", "aggregate sum"],
    ["total", "any", "none", "aggregate total"],
    ["avg", "any", "none", "aggregate mean"],
    ["group_concat", "value text, separator? text", "none"],
    ["string_agg", "value text, separator text", "none"],
  ],
  "SQLite documentation, Built-in Aggregate Functions",
);
