import type { TextRange } from "indigo-quill";
import type { Parting, RowDifference } from "indigo-quill/contrast";

const ends = ({ start, end }: TextRange) => [start, end];

/** Each smallest set of traits of a parting, and of those that it is told with. */
const causesOf = (parting: Parting): object[] =>
  [parting, ...(parting.further ?? [])].flatMap(({ operation, ranges, causes, reaches, oneWay }) =>
    causes.map((traits) => ({ operation, ranges: ranges.map(ends), traits, reaches, ways: oneWay === undefined ? 2 : 1 })),
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
