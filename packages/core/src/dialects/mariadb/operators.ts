import { pure } from "../shared/rows.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import type { FunctionRow } from "../row.ts";
import { type Alike, byBytes, collations } from "./types.ts";
import { operatorsDoc } from "./evidence.ts";

import { missing } from "./text-functions.ts";

export const compared: readonly { readonly type: string; readonly alike: Alike; readonly collations?: readonly string[] }[] = [
  ...Object.entries(collations).map(([name, alike]) => ({ type: "string", alike, collations: [name] })),
  { type: "bytes", alike: byBytes, collations: ["binary"] },
  ...["whole", "compared", "exact", "moment", "clock", "floating"].map((type) => ({ type, alike: byBytes })),
];

const calculated = {
  missing,
  numbers: "exact",
  quotient: "decimal",
  quotientDigits: "four more decimals",
  byZero: "null",
  doubleByZero: "null",
  overflow: "infinity",
  remainder: "of fractions",
  remainderSign: "of what is divided",
  tooSmall: "zero",
} as const;

// prettier-ignore
export const operators: FunctionRow[] = [
  ...relationsWith("<=>").flatMap((relation) =>
    compared.map(({ type, alike, ...meant }) =>
      comparisonRow(relation, {
        ...meant,
        left: type,
        right: type,
        result: "integer",
        answers: { missing, ...alike, mixed: "error", notANumber: "there is none", truth: "1 or 0" },
        evidence: operatorsDoc,
      }),
    ),
  ),
  ...([
    ["+", "+", { whole: "integer, of any", exact: "decimal, most", floating: "double, most" }],
    ["-", "-", { whole: "integer, of any", exact: "decimal, most", floating: "double, most" }],
    ["*", "*", { whole: "integer, of any", exact: "decimal, sum", floating: "double, most" }],
    ["/", "/", { whole: "decimal, of a quotient", exact: "decimal, of a quotient", floating: "double, four more" }],
    ["%", "mod", { whole: "integer, of the first", exact: "decimal, most", floating: "double, most" }],
    ["div", "idiv", { whole: "integer, of any", exact: "integer, of any" }],
  ] as const).flatMap(([name, sign, byType]) =>
    Object.entries(byType).map(([kind, result]): FunctionRow => {
      const type = name === "div" && kind === "exact" ? "decimal" : kind;
      return pure(`${name}(left ${type} > a, right ${type} > b): ${result}`,
        "Arithmetic on two numbers; a text counts as the number that it begins with.",
        "calculate", calculated, operatorsDoc, { aliases: name === "%" ? ["mod"] : [], fixed: { sign }, notation: "operator" });
    }),
  ),
];
