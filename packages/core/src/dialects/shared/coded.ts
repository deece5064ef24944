import { type FunctionRow, params } from "../row.ts";
import type { Step } from "../step.ts";

type Line = readonly [
  name: string,
  family: FunctionRow["family"],
  summary: string,
  parameters: string,
  result: string,
  evidence: string,
];

/** A function with code of its own in a line; `code` names it where that is not the function's name. */
export type Coded = readonly [...line: Line, code?: string];

/** A function that is a step, in a line. */
export type Stepped = readonly [...line: Line, step: Step & { readonly then?: Step }];

/** What a line says of a function; a name that is no word is an operator's. */
const baseOf = ([name, family, summary, form, result, evidence]: Line, cite: (evidence: string) => string) => ({
  name,
  family,
  summary,
  parameters: params(form),
  result,
  ...(/^[A-Za-z_0-9:-]+$/.test(name) ? {} : { notation: "operator" as const }),
  evidence: cite(evidence),
});

const asIs = (evidence: string): string => evidence;

export const steppedRows = (lines: readonly Stepped[], cite = asIs): FunctionRow[] =>
  lines.map(([name, family, summary, form, result, evidence, step]) => ({
    ...baseOf([name, family, summary, form, result, evidence], cite),
    ...step,
  }));

export const codedRows = (lines: readonly Coded[], cite = asIs): FunctionRow[] =>
  lines.map(([name, family, summary, form, result, evidence, code = name]) => ({
    ...baseOf([name, family, summary, form, result, evidence], cite),
    code,
  }));
