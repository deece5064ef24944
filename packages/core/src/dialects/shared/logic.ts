import type { AnswerOf } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";

/** What truth values have in a dialect: how they are given, what a condition's parameter is there, how AND and OR look at their sides. */
interface Logic {
  readonly truth: AnswerOf<"truth">;
  /** The type of a truth value. */
  readonly result: string;
  /** The parameter that takes a value for true or false. */
  readonly condition: string;
  readonly evaluates: AnswerOf<"evaluates">;
  readonly inConditions?: AnswerOf<"inConditions">;
  readonly constants?: AnswerOf<"constants">;
  /** The parameters of XOR, where there is one. */
  readonly xor?: string;
  /** Whether IS UNKNOWN is another word for IS NULL. */
  readonly hasUnknown?: true;
  /** The standard's section for AND and OR, for IS NULL, and for IS TRUE. */
  readonly evidence: readonly [connect: string, missing: string, truth: string];
}

const opposites = { and: "Whether both are true.", or: "Whether one is true.", xor: "Whether just one is true." } as const;

/** AND, OR, NOT (ISO 9075-2, 6.39), IS NULL and IS NOT NULL (8.8), IS TRUE and IS FALSE (6.39), and what some have besides. */
export function logicRows(logic: Logic): FunctionRow[] {
  const { truth, result, condition, evaluates, inConditions = "the same", constants = "none" } = logic;
  const [connected, ofMissing, ofTruth] = logic.evidence;
  const row = { family: "logic", result, notation: "operator" } as const;
  const joiners = [["and", condition], ["or", condition], ...(logic.xor ? [["xor", logic.xor] as const] : [])] as const;
  const tests = [
    ["is null", "missing", "any"],
    ["is not null", "present", "any"],
    ["is true", "true", condition],
    ["is false", "false", condition],
    ...(logic.hasUnknown ? ([["is unknown", "missing", condition]] as const) : []),
  ] as const;
  return [
    ...joiners.map(([name, side]): FunctionRow => ({
      ...row,
      name,
      summary: opposites[name],
      parameters: params(`left ${side} > a, right ${side} > b`),
      operation: "connect",
      answers: { truth, evaluates, inConditions, constants },
      fixed: { joiner: name },
      evidence: connected,
    })),
    {
      ...row,
      name: "not",
      summary: "True for false.",
      parameters: params(`value ${condition}`),
      operation: "not",
      answers: { missing: "null", truth },
      evidence: connected,
    },
    ...tests.map(([name, what, type]): FunctionRow => ({
      ...row,
      name,
      summary: `Whether it is ${what === "missing" ? "null" : what === "present" ? "not null" : what}.`,
      parameters: params(`value ${type}`),
      operation: "is",
      answers: { truth },
      fixed: { what },
      evidence: type === "any" ? ofMissing : ofTruth,
    })),
  ];
}
