import { type OperationId, type TraitsOf, operationOf } from "../../text/index.ts";
import type { Answers } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";
import type { Step } from "../step.ts";

/**
 * How a function is called, in a line: its name, what it takes as `params` reads it, and the type of the result, as in
 * `left(text text, count integer > length): text`. Of several names with commas between them each is a function, and of
 * `abs(number T): T for integer, double` each type.
 */
type Signature = string;

/** What a signature says; a name that is no word is an operator's. */
function readSignature(signature: Signature) {
  const match = /^(.+?)\((.*)\): (.+?)(?: for (.+))?$/.exec(signature);
  if (!match) throw new Error(`cannot read the signature "${signature}"`);
  const [, names, form, result, types = ""] = match;
  return names.split(", ").flatMap((name) =>
    types.split(", ").map((type) => ({
      name,
      parameters: params(form.replace(/\bT\b/g, type)),
      result: result.replace(/\bT\b/g, type),
      ...(!/^[A-Za-z_][\w.:-]*$/.test(name) && { notation: "operator" as const }),
    })),
  );
}

/** A function of one name that is an operation with answers; its family is that of the operation where `more` does not say another. */
export function pure<const O extends OperationId>(
  signature: Signature,
  summary: string,
  operation: O,
  answers: Answers<TraitsOf<O>>,
  evidence: string,
  more: Pick<FunctionRow, "aliases" | "notation" | "extension" | "collations"> &
    Pick<Step, "fixed"> & { readonly family?: FunctionRow["family"] } = {},
): FunctionRow {
  const [called] = readSignature(signature);
  const { family } = operationOf(operation);
  return { ...called, family, summary, operation, answers, evidence, ...more } as FunctionRow;
}

type Line = readonly [signature: Signature, family: FunctionRow["family"], summary: string, evidence: string];

/** Functions with code of their own, in a line; `code` names it where that is not the function's name. */
export type Coded = readonly [...line: Line, code?: string];

/** Functions that are a step, in a line. */
export type Stepped = readonly [...line: Line, step: Step & { readonly then?: Step }];

const asIs = (evidence: string): string => evidence;

export const steppedRows = (lines: readonly Stepped[], cite = asIs): FunctionRow[] =>
  lines.flatMap(([signature, family, summary, evidence, step]) =>
    readSignature(signature).map((called) => ({ ...called, family, summary, evidence: cite(evidence), ...step })),
  );

export const codedRows = (lines: readonly Coded[], cite = asIs): FunctionRow[] =>
  lines.flatMap(([signature, family, summary, evidence, code]) =>
    readSignature(signature).map((called) => ({
      ...called,
      family,
      summary,
      evidence: cite(evidence),
      code: code ?? called.name,
    })),
  );
