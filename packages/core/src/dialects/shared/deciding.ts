import { type Decision, type FunctionRow, params } from "../row.ts";

type Deciding = readonly [name: string, summary: string, parameters: string, decision: Decision];

type Shared = Pick<FunctionRow, "result" | "evidence" | "extension">;

/** Functions that choose among their arguments. */
export const decidingRows = (shared: Shared, rows: readonly Deciding[]): FunctionRow[] =>
  rows.map(([name, summary, form, decision]) => ({
    name,
    family: "logic",
    summary,
    parameters: params(form),
    ...shared,
    ...decision,
  }));

/** COALESCE under its names. */
export const presentRows = (shared: Shared, others: readonly string[], form = "values* any"): FunctionRow[] => {
  const summary = "The first value that is not null.";
  const decision: Decision = { decides: "first present" };
  return decidingRows(shared, [
    ["coalesce", summary, form, decision],
    ...others.map((name): Deciding => [name, summary, "value any, otherwise any", decision]),
  ]);
};
