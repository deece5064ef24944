import { type Aggregate, aggregateRows } from "../shared/aggregates.ts";

const ordered = ["text", "integer", "decimal", "double", "date"];
const numbers = ["integer", "decimal", "double"];

export const aggregates = aggregateRows(
  [
    ["count", "", "integer", "1 or 0"],
    ...[...ordered, "boolean"].map((type): Aggregate => ["count", type, "integer", "1 or 0"]),
    ...["max", "min"].flatMap((name) => ordered.map((type): Aggregate => [name, type, type])),
    ...["any_value"].flatMap((name) => [...ordered, "boolean"].map((type): Aggregate => [name, type, type])),
    ...["sum", "avg"].flatMap((name) => numbers.map((type): Aggregate => [name, type, type])),
    ["every", "boolean", "boolean"],
  ],
  "ISO/IEC 9075-2:2023, 10.9 <aggregate function>",
);
