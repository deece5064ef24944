import { type FunctionRow, params } from "../row.ts";

/** Rows of functions and operators that give the value itself, with another type perhaps. */
export const itselfRows = (
  names: readonly string[],
  { type = "any", ...row }: Pick<FunctionRow, "summary" | "result" | "evidence" | "notation"> & { readonly type?: string },
): FunctionRow[] =>
  names.map((name) => ({ ...row, name, family: "logic", parameters: params(`value ${type}`), operation: "itself", answers: {} }));
