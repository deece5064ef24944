import { message } from "../diagnostics/index.ts";
import { operationOf } from "../text/index.ts";
import { describeTrait } from "../traits/index.ts";
import type { Failure } from "../values/index.ts";
import type { Parting } from "./parting.ts";
import type { Difference } from "./swap.ts";
import type { Effect } from "./effect.ts";
import { showValue } from "./shown.ts";

/** A trait that two dialects answer differently: the question, and for each side its answer and what follows from it. */
export interface ExplainedDifference {
  readonly question: string;
  readonly sides: readonly [string, string];
}

/** A parting in words: what happened on the row, what was to be done, and each smallest set of traits that explains it. */
export interface ExplainedParting {
  readonly happened: string;
  readonly does: string;
  /** Empty when no set of up to three traits explains it. */
  readonly causes: readonly (readonly ExplainedDifference[])[];
  /** What the experiment was and gave; undefined where no cause was found, and for what parts only together with others. */
  readonly tried?: string;
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
  const { functions, outputs, inputs, operation, otherOperation, causes, reaches, further } = parting;
  const [left, right] = functions.map((name, i) => `${name} (${titles[i]})`);
  const given = Object.entries(inputs).map(([name, [own, other]]) => {
    const [a, b] = [showValue(own), showValue(other)];
    return a === b ? `${name} ${a}` : `${name} ${a} (${titles[0]}) or ${b} (${titles[1]})`;
  });
  const job = operation === "whole" ? "works out a value of the row" : operationOf(operation).summary;
  return {
    happened: `On ${given.join(", ")}: ${left} gives ${showValue(outputs[0])}, ${right} ${showValue(outputs[1])}.`,
    does: otherOperation ? `${functions[0]} ${job}, ${functions[1]} ${operationOf(otherOperation).summary}.` : `Each ${job}.`,
    causes: causes.map((cause) => cause.map((difference) => explainDifference(difference, titles))),
    ...(further && { further: further.map((other) => explainParting(other, titles)) }),
    ...(causes.length > 0 && further === undefined && reaches === "whole" && { tried: triedText(parting, titles) }),
  };
}

function triedText({ oneWay, outputs, causes }: Parting, titles: readonly [string, string]): string {
  const answers = causes[0].length > 1 ? "the other's answers" : "the other's answer";
  if (oneWay === undefined) return `Tried: with ${answers} each gives what the other gave.`;
  const given = showValue(outputs[1 - oneWay]);
  return `Tried: with ${answers} ${titles[oneWay]} gives ${given}, too; the other way round it does not show.`;
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
