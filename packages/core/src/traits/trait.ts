/** A question about how an operation behaves, with a closed set of answers. */
export interface Trait<A extends string = string> {
  readonly question: string;
  /** Each answer with its consequence in one sentence. */
  readonly answers: Readonly<Record<A, string>>;
  /** Whether the answer is what a function is for, not how it does it: whether letters become small or capital, say. */
  readonly isPurpose?: true;
}

export const trait = <A extends string>(question: string, answers: Record<A, string>): Trait<A> => ({ question, answers });

/** A question whose answer is what a function is for. */
export const purpose = <A extends string>(question: string, answers: Record<A, string>): Trait<A> => ({
  ...trait(question, answers),
  isPurpose: true,
});
