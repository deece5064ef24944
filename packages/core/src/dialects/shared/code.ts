import { Decimal, Failure, type Value, isFailure } from "../../values/index.ts";
import type { Cell, Code } from "../dialect.ts";

/** Code that several SQL dialects share. */

/** Code that gives null when an argument is null, written with its arguments side by side. */
export const strict = (run: (...args: never[]) => Value): Code => ({
  strict: true,
  run: (args) => (run as (...args: Value[]) => Value)(...args),
});

export const bad = (problem: string): Failure => new Failure("invalid-value", { problem });

/**
 * True, false or null from two conditions, which `truth` reads; `decisive` settles it whatever the
 * other is. `given` is how the dialect gives a truth value.
 */
export const logic = (
  decisive: boolean,
  truth: (value: Value) => boolean | null | Failure,
  given: (value: boolean) => Value,
): Code => ({
  lazy:
    ([left, right]: readonly Cell[]) =>
    (row) => {
      const a = left(row);
      const first = isFailure(a) ? a : truth(a);
      if (first === decisive) return given(decisive);
      if (isFailure(first)) return first;
      const b = right(row);
      const second = isFailure(b) ? b : truth(b);
      if (second === decisive) return given(decisive);
      if (isFailure(second)) return second;
      return first === null || second === null ? null : given(!decisive);
    },
});

/** The most digits after the point that a number of a column is written with: the scale of the column. */
export const mostDecimals = (values: readonly Value[]): number =>
  values.reduce<number>(
    (most, value) => Math.max(most, value instanceof Decimal ? value.scale : Decimal.of(value as number).scale),
    0,
  );
