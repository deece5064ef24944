import type { Bound, BoundOperation } from "../evaluate/index.ts";
import { operationOf } from "../text/index.ts";
import { type TraitId, describeTrait } from "../traits/index.ts";

/** An answer that a step does not give to a question about its behaviour. */
export interface OtherAnswer {
  readonly trait: TraitId;
  readonly answer: string;
}

/** A step in a bound tree. */
export type BoundStep = Bound & BoundOperation;

/** Each other answer to each of these questions. */
export const othersTo = ({ answers }: BoundOperation, traits: readonly TraitId[]): OtherAnswer[] =>
  traits.flatMap((trait) =>
    Object.keys(describeTrait(trait).answers)
      .filter((answer) => answer !== answers[trait])
      .map((answer) => ({ trait, answer })),
  );

/** The questions about how a step does what it does; what it is for is none. */
export const behavioursOf = ({ operation }: BoundOperation): TraitId[] =>
  operationOf(operation).traits.filter((trait) => !describeTrait(trait).isPurpose);

/** What changes where a step gives another answer. */
export const instead = (step: BoundStep, { trait, answer }: OtherAnswer): ReadonlyMap<Bound, Bound> =>
  new Map<Bound, Bound>([[step, { ...step, answers: { ...step.answers, [trait]: answer } }]]);
