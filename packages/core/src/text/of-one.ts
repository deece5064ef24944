import type { AnswerOf } from "../traits/index.ts";
import type { Value } from "../values/index.ts";
import { any, kept, operation } from "./operation.ts";

const made: Readonly<Record<AnswerOf<"ofOne">, (value: Value) => Value>> = {
  "the value": (value) => value,
  "1 or 0": (value) => (value === null ? 0 : 1),
  "a list": (value) => [value],
  nothing: () => null,
  zero: (value) => (value === null ? null : 0),
};

/** An aggregate over the one row that there is; `separator` would stand between several. */
export const ofOne = operation({
  id: "of-one",
  family: "list",
  result: "given",
  summary: "aggregates the one row that there is",
  slots: [kept(any("value")), kept(any("separator"))],
  traits: ["ofOne"],
  prepare({ ofOne: answer }) {
    const make = made[answer];
    // COUNT(*) has no value; it counts the row.
    return (value: Value = 1): Value => make(value);
  },
});
