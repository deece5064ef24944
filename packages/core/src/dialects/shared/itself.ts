import { type FunctionRow, params } from "../row.ts";

/** Rows of functions and operators that give the value itself, with another type perhaps. */
export const itselfRows = (
  names: readonly string[],
  {
    type = "any",
    ...row
  }: Pick<FunctionRow, "summary" | "result" | "evidence" | "notation" | "refuses"> & { readonly type?: string },
): FunctionRow[] =>
  names.map((name) => ({ ...row, name, family: "logic", parameters: params(`value ${type}`), operation: "itself", answers: {} }));

/** Rows of functions that give true and false. */
export const truthRows = (
  names: Readonly<Record<string, boolean>>,
  { result, evidence }: Pick<FunctionRow, "result" | "evidence">,
): FunctionRow[] =>
  Object.entries(names).map(([name, value]) => ({
    name,
    family: "logic",
    summary: value ? "True." : "False.",
    parameters: [],
    result,
    operation: "itself",
    answers: {},
    fixed: { value },
    evidence,
  }));
