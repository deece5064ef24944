import { type FunctionRow, params } from "../row.ts";
import type { Step } from "../step.ts";

/** A function with code of its own in a line; `code` names it where that is not the function's name. */
export type Coded = readonly [
  name: string,
  family: FunctionRow["family"],
  summary: string,
  parameters: string,
  result: string,
  evidence: string,
  code?: string,
];

/** A function that is a step, in a line. */
export type Stepped = readonly [
  name: string,
  family: FunctionRow["family"],
  summary: string,
  parameters: string,
  result: string,
  evidence: string,
  step: Step,
];

const notationOf = (name: string) => (/^[A-Za-z_0-9:-]+$/.test(name) ? {} : { notation: "operator" as const });

export const steppedRows = (lines: readonly Stepped[], cite = (evidence: string) => evidence): FunctionRow[] =>
  lines.map(([name, family, summary, form, result, evidence, step]) => ({
    name,
    family,
    summary,
    parameters: params(form),
    result,
    ...step,
    ...notationOf(name),
    evidence: cite(evidence),
  }));

/** Rows of such lines; a name that is no word is an operator's. */
export const codedRows = (lines: readonly Coded[], cite = (evidence: string) => evidence): FunctionRow[] =>
  lines.map(([name, family, summary, form, result, evidence, code = name]) => ({
    name,
    family,
    summary,
    parameters: params(form),
    result,
    code,
    ...notationOf(name),
    evidence: cite(evidence),
  }));
