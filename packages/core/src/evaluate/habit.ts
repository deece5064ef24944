import type { Dialect } from "../dialects/dialect.ts";

/** A way of writing that belongs elsewhere: what is said of it, and the text with it written as it may be here. */
export interface Habit {
  readonly said: string;
  readonly text: string;
}

/** The ways of writing that a text may have taken from elsewhere. */
export type Rule = (source: string, dialect: Dialect, columns: readonly string[]) => readonly Habit[];

/** The text with a way of writing changed; none where there is nothing of the kind in it. */
export const habit = (source: string, text: string, said: string): readonly Habit[] => (text === source ? [] : [{ said, text }]);
