import { intervals } from "./intervals.ts";
import { lists } from "./lists.ts";
import { numbers } from "./numbers.ts";
import { texts } from "./texts.ts";
import type { Trait } from "./trait.ts";
import { values } from "./values.ts";
import { wholes } from "./wholes.ts";

export type { Trait };

/** Every trait, by its identifier. */
export const traits = { ...texts, ...lists, ...numbers, ...values, ...intervals, ...wholes } as const;

export type TraitId = keyof typeof traits;

/** A trait that a step may answer, and no question about whole expressions or columns. */
export type StepTraitId = Exclude<TraitId, keyof typeof wholes>;

export type AnswerOf<T extends TraitId> = keyof (typeof traits)[T]["answers"] & string;

/** An answer to each of the traits `T`. */
export type Answers<T extends TraitId = TraitId> = { readonly [K in T]: AnswerOf<K> };

/** The question of a trait with its answers, for showing. */
export const describeTrait = (id: TraitId): Trait => traits[id];
