import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

export const aggregates = aggregateRows(
  [
    ["count", "", "integer", "aggregate count"],
    ["count", "any", "integer", "aggregate count"],
    ...["max", "min"].map((name): Aggregate => [name, "any", "unified"]),
    ["sum", "exact", "decimal"],
    ["sum", "floating", "double"],
    ["avg", "floating", "double"],
    ["group_concat", "values* text", "text", "aggregate joined"],
    ...["std", "stddev", "stddev_pop", "variance", "var_pop"].map((name): Aggregate => [
      name,
      "floating",
      "double",
      "aggregate zero",
    ]),
    ...["stddev_samp", "var_samp"].map((name): Aggregate => [name, "floating", "double", "aggregate nothing"]),
  ],
  "MariaDB documentation, Aggregate Functions",
);
