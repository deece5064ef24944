import type { AnswerOf } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";

/** What the tests of a value have in a dialect: how they give truth, and what a condition's parameter is there. */
interface Being {
  readonly truth: AnswerOf<"truth">;
  readonly result: string;
  readonly condition: string;
  /** The standard's section for IS NULL, and for IS TRUE. */
  readonly evidence: readonly [missing: string, truth: string];
}

/** IS NULL, IS NOT NULL, IS TRUE and IS FALSE (ISO 9075-2, 8.8 and 6.39), and IS UNKNOWN where it is another word for the first. */
export const beingRows = ({ truth, result, condition, evidence }: Being, hasUnknown = false): FunctionRow[] =>
  (
    [
      ["is null", "missing", "any"],
      ["is not null", "present", "any"],
      ["is true", "true", condition],
      ["is false", "false", condition],
      ...(hasUnknown ? ([["is unknown", "missing", condition]] as const) : []),
    ] as const
  ).map(([name, what, type]) => ({
    name,
    family: "logic",
    summary: `Whether it is ${what === "missing" ? "null" : what === "present" ? "not null" : what}.`,
    parameters: params(`value ${type}`),
    result,
    operation: "is",
    answers: { truth },
    fixed: { what },
    notation: "operator",
    evidence: evidence[type === "any" ? 0 : 1],
  }));
