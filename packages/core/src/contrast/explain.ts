import { message } from "../diagnostics/index.ts";
import { type OperationId, operationOf } from "../text/index.ts";
import { describeTrait } from "../traits/index.ts";
import type { Failure } from "../values/index.ts";
import type { Difference, Parting } from "./cause.ts";
import type { Effect } from "./effect.ts";
import { showValue } from "./shown.ts";

/** A trait that two dialects answer differently: the question, and for each side its answer and what follows from it. */
export interface ExplainedDifference {
  readonly question: string;
  readonly sides: readonly [string, string];
}

/** A parting in words: where and on what, and each smallest set of traits that explains it. */
export interface ExplainedParting {
  readonly place: string;
  readonly outputs: string;
  /** Empty when no set of up to three traits explains it. */
  readonly causes: readonly (readonly ExplainedDifference[])[];
  /** Which side alone was tried with success, where only one was. */
  readonly oneWay?: string;
  /** What parts, too, where it is not all of it. */
  readonly further?: readonly ExplainedParting[];
}

export function explainDifference({ trait, answers }: Difference, titles: readonly [string, string]): ExplainedDifference {
  const { question, answers: known } = describeTrait(trait);
  const side = (i: 0 | 1) => `${titles[i]}: ${known[answers[i]]}`;
  return { question, sides: [side(0), side(1)] };
}

/** Says where two evaluations part, on what inputs, with what outputs, and why. */
export function explainParting(parting: Parting, titles: readonly [string, string]): ExplainedParting {
  const { functions, outputs, inputs, operation, causes, oneWay, reaches, further } = parting;
  const { otherOperation } = parting;
  const does = (id: OperationId) => operationOf(id).summary;
  const given = Object.entries(inputs).map(([name, value]) => `${name} ${showValue(value)}`);
  return {
    place: otherOperation
      ? `${functions[0]} (${titles[0]}) ${does(operation)}, ${functions[1]} (${titles[1]}) ${does(otherOperation)}.`
      : `${functions[0]} (${titles[0]}) and ${functions[1]} (${titles[1]}): each ${does(operation)}.`,
    outputs: `Given ${given.join(", ")}, they give ${showValue(outputs[0])} and ${showValue(outputs[1])}.`,
    causes: causes.map((cause) => cause.map((difference) => explainDifference(difference, titles))),
    ...(further && { further: further.map((other) => explainParting(other, titles)) }),
    ...(oneWay !== undefined &&
      reaches === "whole" && {
        oneWay: `With the other's answer ${titles[oneWay]} gives ${showValue(outputs[1 - oneWay])}, too; the other way round it does not show.`,
      }),
  };
}

/** Where two results differ first, and what stands there. */
export function explainEffect({ of, at, left, right }: Effect, titles: readonly [string, string]): string {
  const shown = (text: string) => (of !== "texts" ? text : text === "" ? "nothing more" : JSON.stringify(text));
  const place = { texts: `at character ${at + 1}`, lists: `at item ${at + 1}`, values: "as values" }[of];
  return `The results differ ${place}: ${titles[0]} has ${shown(left)}, ${titles[1]} ${shown(right)}.`;
}

/** What a failure says, for a person; its standard code in front where it has one. */
export function explainFailure(failure: Failure): string {
  return failure.standard && failure.standard !== message(failure) ? `${failure.standard} ${message(failure)}` : message(failure);
}
