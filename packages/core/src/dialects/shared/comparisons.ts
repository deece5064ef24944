import type { TraitsOf } from "../../text/index.ts";
import type { Answers } from "../../traits/index.ts";
import { type FunctionRow, isPure, params, relations } from "../row.ts";

/** What two values are compared as, and how. */
interface Compared {
  readonly left: string;
  readonly right: string;
  readonly result: string;
  readonly answers: Answers<TraitsOf<"compare">>;
  readonly evidence: string;
  readonly collations?: readonly string[];
}

/** The relations of a dialect, and what it calls the one in which missing values are alike. */
export const relationsWith = (same: "is distinct from" | "<=>" | "is"): readonly string[] => [...relations, same];

/** The row of a relation. */
export function comparisonRow(relation: string, { left, right, answers, ...row }: Compared): FunctionRow {
  const common = {
    ...row,
    name: relation,
    parameters: params(`left ${left} > a, right ${right} > b`),
    notation: "operator",
  } as const;
  if ((relations as readonly string[]).includes(relation))
    return {
      ...common,
      family: "measure-test",
      summary: "Compares two values.",
      operation: "compare",
      answers,
      fixed: { relation },
    };
  const { missing: _, ...others } = answers;
  const told = relation === "is distinct from" ? "differ" : "same";
  const summary = `Whether they ${told === "same" ? "are the same" : told}, null being like null.`;
  return { ...common, family: "logic", summary, operation: "distinct", answers: others, fixed: { told } };
}

type OfComparison = "compare" | "distinct" | "unless-same" | "extreme";

/** Whether a row puts values in order, or tells them apart. */
export const isComparison = (row: FunctionRow): row is Extract<FunctionRow, { operation: OfComparison }> =>
  isPure(row) &&
  (["compare", "distinct", "unless-same", "extreme"] satisfies OfComparison[] as readonly string[]).includes(row.operation);
