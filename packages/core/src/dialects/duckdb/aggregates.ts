import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

const same = ["max", "min", "first", "last", "any_value", "arbitrary"];
const whole = ["tinyint", "smallint", "integer", "bigint", "hugeint"];

export const aggregates = aggregateRows(
  [
    ["count", "", "bigint", "1 or 0"],
    ["count", "any", "bigint", "1 or 0"],
    ...same.map((name): Aggregate => [name, "any", "unified"]),
    ["sum", "hugeint", "hugeint"],
    ["sum", "decimal", "decimal"],
    ["sum", "double", "double"],
    ["product", "double", "double"],
    ...["avg", "mean"].map((name): Aggregate => [name, "double", "double"]),
    ...["bool_and", "bool_or"].map((name): Aggregate => [name, "boolean", "boolean"]),
    ...["bit_and", "bit_or", "bit_xor"].flatMap((name) => whole.map((type): Aggregate => [name, type, type])),
    ...["string_agg", "group_concat", "listagg"].flatMap((name) =>
      ["text", "any"].map((type): Aggregate => [name, `value ${type}, separator?! text`, "own text", "code with separator"]),
    ),
    ...["array_agg", "list"].map((name): Aggregate => [name, "any", "unified list", "a list"]),
    ...["stddev_pop", "var_pop"].map((name): Aggregate => [name, "double", "double", "zero"]),
    ...["stddev", "stddev_samp", "variance", "var_samp"].flatMap((name) =>
      ["double"].map((type): Aggregate => [name, type, type, "nothing"]),
    ),
  ],
  "DuckDB 1.5 documentation, Aggregate Functions",
);
