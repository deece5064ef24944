import { Decimal, Double, type Value, integer } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { strict } from "./code.ts";

/** Code of whole numbers, exact decimals and binary floating-point numbers that several SQL dialects share. */

const negated = (value: Value): Value =>
  value instanceof Double
    ? new Double(-value.value)
    : value instanceof Decimal
      ? value.negated()
      : integer(-BigInt(value as number));

const isNegative = (value: Value): boolean =>
  value instanceof Double
    ? value.value < 0 || Object.is(value.value, -0)
    : value instanceof Decimal
      ? value.coefficient < 0n
      : (value as number) < 0;

export const negate: Code = strict(negated);

/** The size of a number, by the dialect's own negative of one. */
export const absolute = (negative: (value: Value) => Value = negated): Code =>
  strict((value: Value) => (isNegative(value) ? negative(value) : value));

/** Code that leaves whole numbers as they are; `given` makes a number of what `double` gives. */
export const onNumber = (
  decimal: (value: Decimal) => Value,
  double: (value: number) => number,
  given: (value: number) => Value = (value) => new Double(value),
): Code =>
  strict((value: Value) =>
    value instanceof Decimal ? decimal(value) : value instanceof Double ? given(double(value.value)) : value,
  );

export const ceiling = (value: Decimal): Decimal => new Decimal(-value.negated().floor(), 0);
export const floor = (value: Decimal): Decimal => new Decimal(value.floor(), 0);
