import { pure } from "../shared/rows.ts";
import { comparisonRow, relationsWith } from "../shared/comparisons.ts";
import { wholeTypes } from "./numbers.ts";
import type { FunctionRow } from "../row.ts";
import { collations } from "./types.ts";
import { numbers, operatorsDoc } from "./evidence.ts";

import { missing, truth } from "./text-functions.ts";

export const compared = [
  "text",
  "boolean",
  "integer",
  "bigint",
  "hugeint",
  "decimal",
  "double",
  "date",
  "timestamp",
  "time",
  "interval",
  "blob",
  "list",
];
const otherNames: Readonly<Record<string, readonly string[]>> = {
  "+": ["add"],
  "-": ["subtract"],
  "*": ["multiply"],
  "//": ["divide"],
  "%": ["mod"],
  "^": ["pow", "power"],
};
const textCases = ["minded", "ignored", "accents ignored", "both ignored"] as const;
const collationsBy = (letterCase: string): readonly string[] =>
  Object.keys(collations).filter((name) => collations[name] === letterCase);

const calculated = {
  missing,
  numbers: "exact",
  quotient: "double",
  quotientDigits: "twenty decimals",
  byZero: "null",
  overflow: "infinity",
  remainder: "of fractions",
  remainderSign: "of what is divided",
  tooSmall: "zero",
} as const;

/** The types of numbers between which a sign stands. */
function calculatedTypes(sign: string): readonly string[] {
  if (sign === "/" || sign === "^") return ["double"];
  return sign === "//" ? [...wholeTypes, "double"] : [...wholeTypes, "decimal", "double"];
}

// prettier-ignore
export const operators: FunctionRow[] = [
  ...relationsWith("is distinct from").flatMap((relation) =>
    compared.flatMap((type) =>
      (type === "text" ? textCases : (["minded"] as const)).map((letterCase) =>
        comparisonRow(relation, {
          ...(type === "text" && { collations: collationsBy(letterCase) }),
          left: `side.${type}`,
          right: `side.${type}`,
          result: "boolean",
          answers: { missing, case: letterCase, padding: "counted", mixed: "error", notANumber: "above all", truth },
          evidence: operatorsDoc,
        }),
      ),
    ),
  ),
  ...[["+", "+"], ["-", "-"], ["*", "*"], ["/", "/"], ["//", "idiv"], ["%", "mod"], ["^", "^"]].flatMap(([name, sign]) =>
    calculatedTypes(name).map((type): FunctionRow => {
      const result = type === "decimal" && name !== "%" ? `decimal, ${name === "*" ? "sum" : "most"}` : type;
      const answers = { ...calculated, doubleByZero: name === "//" ? "null" : "infinity" } as const;
      const fixed = { sign: name === "//" && type === "double" ? "/" : sign };
      return pure(`${name}(left ${type} > a, right ${type} > b): ${result}`, "Arithmetic on two numbers.",
        "calculate", answers, numbers, { aliases: otherNames[name] ?? [], fixed, notation: "operator" });
    }),
  ),
];
