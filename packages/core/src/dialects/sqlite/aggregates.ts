import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

export const aggregates = aggregateRows(
  [
    ["count", "", "none", "1 or 0"],
    ["count", "any", "none", "1 or 0"],
    ...["max", "min"].map((name): Aggregate => [name, "any", "same collation"]),
    ["sum", "any", "none", "code sum"],
    ["total", "any", "none", "code total"],
    ["avg", "any", "none", "code mean"],
    ["group_concat", "value text, separator? text", "none"],
    ["string_agg", "value text, separator text", "none"],
  ],
  "SQLite documentation, Built-in Aggregate Functions",
);
