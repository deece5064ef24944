import { pure } from "../shared/rows.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import type { FunctionRow } from "../row.ts";
import { doc, numbers } from "./evidence.ts";
import { calculated, missing } from "./text-functions.ts";

const comparable = [
  "text",
  "bpchar",
  "boolean",
  "integer",
  "bigint",
  "decimal",
  "double",
  "date",
  "timestamp",
  "timestamptz",
  "interval",
  "bytea",
  "anyarray",
];

// prettier-ignore
export const operators: FunctionRow[] = [
  ...relationsWith("is distinct from").flatMap((relation) =>
    comparable.map((type) =>
      comparisonRow(relation, {
        left: type,
        right: type,
        result: "boolean",
        answers: { missing, case: "minded", padding: "counted", mixed: "error", notANumber: "above all", truth: "true or false" },
        evidence: doc("9.2"),
      }),
    ),
  ),
  ...([
    ["+", "+", "smallint integer bigint decimal double"],
    ["-", "-", "smallint integer bigint decimal double"],
    ["*", "*", "smallint integer bigint decimal double"],
    ["/", "/", "smallint integer bigint decimal double"],
    ["%", "mod", "smallint integer bigint decimal", "mod"],
    ["^", "^", "double", "power", "pow"],
  ] as const).flatMap(([name, sign, types, ...aliases]) =>
    types.split(" ").map((type) =>
      pure(`${name}(left ${type} > a, right ${type} > b): ${type}`, "Arithmetic on two numbers.",
        "calculate", calculated, numbers, { aliases, fixed: { sign }, notation: "operator" }))),
];
