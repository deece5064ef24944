import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

const ordered = ["text", "smallint", "integer", "bigint", "decimal", "double", "date", "timestamp", "timestamptz", "anyarray"];
const whole = ["smallint", "integer", "bigint"];

export const aggregates = aggregateRows(
  [
    ["count", "", "bigint", "1 or 0"],
    ["count", "any", "bigint", "1 or 0"],
    ...["max", "min"].flatMap((name) => ordered.map((type): Aggregate => [name, type, type === "anyarray" ? "same" : type])),
    ...["max", "min"].map((name): Aggregate => [name, "char", "bpchar"]),
    ["array_agg", "char", "text[]", "a list"],
    ["sum", "smallint", "bigint"],
    ["sum", "integer", "bigint"],
    ["sum", "bigint", "decimal", "code exact"],
    ["sum", "decimal", "decimal"],
    ["sum", "double", "double"],
    ...[...whole, "decimal"].map((type): Aggregate => ["avg", type, "decimal", "code mean"]),
    ["avg", "double", "double"],
    ...["bool_and", "bool_or", "every"].map((name): Aggregate => [name, "boolean", "boolean"]),
    ...["bit_and", "bit_or", "bit_xor"].flatMap((name) => whole.map((type): Aggregate => [name, type, type])),
    ["string_agg", "value text, separator text", "text"],
    ...["text", "integer", "bigint", "decimal", "double", "boolean", "date"].map((type): Aggregate => [
      "array_agg",
      type,
      `${type}[]`,
      "a list",
    ]),
    ...["stddev_pop", "var_pop"].flatMap((name): Aggregate[] => [
      [name, "decimal", "decimal", "zero"],
      [name, "double", "double", "code spread"],
    ]),
    ...["stddev", "stddev_samp", "variance", "var_samp"].flatMap((name) =>
      ["decimal", "double"].map((type): Aggregate => [name, type, type, "nothing"]),
    ),
  ],
  "PostgreSQL 15 documentation, 9.21",
);
