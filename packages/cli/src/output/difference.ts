import type { TextRange, Value } from "indigo-quill";
import { type Parting, type RowDifference, showValue } from "indigo-quill/contrast";

const ends = ({ start, end }: TextRange) => [start, end];

const shown = (value: Value | undefined): string | null => (value === undefined ? null : showValue(value));

/** Each smallest set of traits of a parting, what each side is given where that is the cause, and of those that it is told with. */
const causesOf = (parting: Parting): object[] =>
  [parting, ...(parting.further ?? [])].flatMap(({ operation, ranges, causes, reaches, oneWay, experiment }) =>
    causes.map((traits) => ({
      operation,
      ranges: ranges.map(ends),
      traits,
      ...(experiment?.is === "given" && {
        given: experiment.given.map(({ name, values }) => ({ slot: name, values: values.map(shown) })),
      }),
      reaches,
      ways: oneWay === undefined ? 2 : 1,
    })),
  );

/** What is told of a difference, as data: the two sides, its causes, what one name is on each side, and the effect. */
export function differenceData({ sides, parting, another, effect }: RowDifference) {
  const { at, left, right, from } = effect;
  return {
    sides,
    causes: parting ? causesOf(parting) : [],
    ...(another !== undefined && { another }),
    effect: { at, left, right, from: from.map(ends) },
  };
}
