import { Decimal, type Value } from "../../values/index.ts";
import type { AnswerOf, Answers } from "../../traits/index.ts";
import type { Code } from "../dialect.ts";

/** Code that several SQL dialects share. */

/** Code that gives null when an argument is null, written with its arguments side by side. */
export const strict = (run: (...args: never[]) => Value): Code => ({
  strict: true,
  run: (args) => (run as (...args: Value[]) => Value)(...args),
});

/** Rounding by code of a dialect's own comes to this where the number and its digits are nothing special. */
export const roundingLike = (
  direction: AnswerOf<"direction">,
  own: Partial<Answers<"roundedDigits" | "digitsBelow">> = {},
): NonNullable<Code["like"]> => ({
  operation: "round",
  slots: ["number", "digits"],
  answers: {
    missing: "null",
    numbers: "exact",
    direction,
    moreDigits: "kept",
    fraction: "rounded",
    roundedDigits: "shortest",
    digitsBelow: "before the point",
    ...own,
  },
});

/** The most digits after the point that a number of a column is written with: the scale of the column. */
export const mostDecimals = (values: readonly Value[]): number =>
  values.reduce<number>(
    (most, value) => Math.max(most, value instanceof Decimal ? value.scale : Decimal.of(value as number).scale),
    0,
  );
