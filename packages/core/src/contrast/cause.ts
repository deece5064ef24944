import type { TraitId } from "../traits/index.ts";
import { Decimal, Double, type Value } from "../values/index.ts";
import { chainOf, questionOf } from "./chain.ts";
import {
  type KnownInstead,
  asIfAgain,
  asIfParting,
  convertedParting,
  withoutParting,
  withoutTurning,
  withoutTurningWhole,
} from "./alone.ts";
import { datePartsParting } from "./date-parts.ts";
import { columnsParting, leafParting, writtenParting } from "./given.ts";
import { fewParting, missingParting, ownParting } from "./special.ts";
import { heedParting, kindParting, rowsParting } from "./whole.ts";
import {
  type Alike,
  type Holds,
  type Parting,
  alike,
  experimentAt,
  isBehaviour,
  isGivenTheSame,
  reachOf,
  sameInputs,
} from "./parting.ts";
import { type Difference, type Evaluated, type Step, differing, outputWith } from "./swap.ts";

/** The most traits that a cause may have. */
const causeSize = 3;

const subsets = <T>(items: readonly T[], size: number): T[][] =>
  size === 0 ? [[]] : items.flatMap((item, i) => subsets(items.slice(i + 1), size - 1).map((rest) => [item, ...rest]));

/** The kind and the digits of a number, which a text that is made of it shows. */
const formOf = (value: Value): string =>
  value instanceof Decimal
    ? `decimal ${String(value)}`
    : value instanceof Double
      ? "double"
      : typeof value === "bigint"
        ? "number"
        : typeof value;

const sameForm: Alike = (a, b) => alike(a, b) && formOf(a) === formOf(b);

/** How outputs are compared, and which traits may be told. */
interface Way {
  readonly same: Alike;
  readonly isTold: (trait: TraitId, a: Step, b: Step) => boolean;
  readonly isOfPurpose?: true;
}

/** Behaviour first, in the value and then in its form; what a function is for only where that does not say it. */
const ways: readonly Way[] = [
  { same: alike, isTold: isBehaviour },
  { same: sameForm, isTold: isBehaviour },
  { same: alike, isTold: () => true, isOfPurpose: true },
];

/** Whether a side gives the other's output with the other's answers to these, and its whole result with them. */
const follows = (sides: readonly [Step, Step], side: 0 | 1, set: readonly TraitId[], same: Alike, holds: Holds): boolean => {
  const [own, other] = [sides[side], sides[1 - side]];
  return same(outputWith(own, other, set), other.value) && holds(side, set);
};

type Tried = Pick<ReturnType<typeof experimentAt>, "holds" | "takesApart">;

type Found = Pick<Parting, "causes" | "oneWay">;

/**
 * Of sets of traits those such that one side with the other's answers to them gives the other's output, and the other way
 * round; where none does, those for which it holds one way, and takes apart no rows that agree. Found by carrying the operation out again.
 */
function causesAmong(
  sets: readonly (readonly TraitId[])[],
  sides: readonly [Step, Step],
  same: Alike,
  { holds, takesApart }: Tried,
): Found {
  const [a, b] = sides;
  /** What the whole needs of a set: what else a step gives otherwise may not reach it. */
  const needed = (set: readonly TraitId[], on: readonly (0 | 1)[]) =>
    set.reduce((kept, trait) => {
      const rest = kept.filter((each) => each !== trait);
      return rest.length > 0 && on.every((side) => holds(side, rest)) ? rest : kept;
    }, set);
  const told = (found: readonly { set: readonly TraitId[]; ways: readonly (0 | 1)[] }[], on?: 0 | 1) =>
    found.map(({ set, ways }) =>
      needed(set, on === undefined ? ways : [on]).map((trait): Difference => ({
        trait,
        answers: [a.bound.answers[trait], b.bound.answers[trait]],
      })),
    );
  const tried = sets.map((set) => ({ set, ways: ([0, 1] as const).filter((side) => follows(sides, side, set, same, holds)) }));
  const both = tried.filter(({ ways }) => ways.length === 2);
  if (both.length > 0) return { causes: told(both) };
  for (const side of [0, 1] as const) {
    const single = tried.filter(({ set, ways }) => ways[0] === side && !takesApart(side, set));
    if (single.length > 0) return { causes: told(single, side), oneWay: side };
  }
  return { causes: [] };
}

/** The smallest sets of traits that are a cause. */
function causesOf(sides: readonly [Step, Step], { same, isTold }: Way, experiment: Tried): Found {
  const asked = differing(...sides).filter((trait) => isTold(trait, ...sides));
  for (let size = 1; size <= Math.min(causeSize, asked.length); size++) {
    const found = causesAmong(subsets(asked, size), sides, same, experiment);
    if (found.causes.length > 0) return found;
  }
  return { causes: [] };
}

/** What else may be a cause where no step alone makes up the difference, the nearest to what is written first. */
const others = [
  writtenParting,
  datePartsParting,
  chainOf,
  questionOf,
  withoutParting,
  missingParting,
  convertedParting,
  heedParting,
  fewParting,
  rowsParting,
  withoutTurningWhole,
  columnsParting,
  kindParting,
];

/** In one dialect it is what is written that makes the difference, before anything else. */
const othersOfOne = [...new Set([withoutTurning, columnsParting, leafParting, ...others])];

/** Where none of these finds any: what would come of another answer, and what only one side gives; each with what is tried again. */
const lastAsked = [
  { found: asIfParting, again: asIfAgain },
  { found: ownParting, again: ownParting },
] as const;

/** Where a cause was found on some row, and which: what explains one row often explains more. */
interface Known {
  readonly a: Step;
  readonly b: Step;
  readonly way: Way;
  readonly sets: readonly (readonly TraitId[])[];
}

/** What was found between two sides on the rows before. */
export interface KnownCauses extends KnownInstead {
  readonly found: Known[];
  /** Which of the others found something last; and of those that are asked where none of them does. */
  other?: (typeof others)[number];
  last?: (typeof lastAsked)[number];
  /** Rows on which no cause was found, since one was. */
  unexplained: number;
}

export const nothingKnown = (): KnownCauses => ({ found: [], instead: [], missed: 0, unexplained: 0 });

/** Turns of a step that are looked at. */
const mostTurns = 20;

/** Steps of loops that do the same with other outputs on some turn; what comes of that is tried on the whole only. */
function turnsApart(left: Evaluated, right: Evaluated, way: Way): { a: Step; b: Step; way: Way; reach: "turns" }[] {
  return left.repeated.flatMap((turns) =>
    right.repeated.flatMap((others) => {
      if (turns[0].bound.operation !== others[0].bound.operation) return [];
      for (const a of turns.slice(0, mostTurns))
        for (const b of others.slice(0, mostTurns))
          if (!way.same(a.value, b.value) && sameInputs(a, b)) return [{ a, b, way, reach: "turns" }];
      return [];
    }),
  );
}

/** Whether two steps part in a way that makes one whole result the other. */
const partBy = (left: Evaluated, right: Evaluated, a: Step, b: Step, { same }: Way) =>
  a.bound.operation === b.bound.operation && !same(a.value, b.value) && sameInputs(a, b) ? reachOf(left, right, a, b) : undefined;

/** A cause that was found on another row and is one here, too. */
function knownParting(left: Evaluated, right: Evaluated, known: KnownCauses): Parting | undefined {
  const sameStep = (side: Evaluated, { node, bound }: Step) =>
    (node === bound ? side.plainSteps : side.steps).find((step) => step.node === node && step.bound === bound);
  for (const { a: first, b: second, way, sets } of known.found) {
    const [a, b] = [sameStep(left, first), sameStep(right, second)];
    if (!a || !b || !partBy(left, right, a, b, way)) continue;
    const experiment = experimentAt(left, right, a, b);
    const found = causesAmong(sets, [a, b], way.same, experiment);
    if (found.causes.length > 0) return experiment.told(found);
  }
  return undefined;
}

/**
 * Where two evaluations part, innermost first: at steps that do the same with other outputs, of which the other's makes one
 * whole result the other. Told is the first with a cause; where there is none of any, that first step; where no step alone
 * makes up the difference, the answers of several that do together. What explained another row is tried before all else.
 */
export function partingOf(left: Evaluated, right: Evaluated, known: KnownCauses): Parting | undefined {
  const parting = partingAgain(left, right, known) ?? newParting(left, right, known);
  known.unexplained = parting && parting.causes.length > 0 ? 0 : known.unexplained + 1;
  return parting;
}

/** What explained another row, and explains this one, too. */
export const partingAgain = (left: Evaluated, right: Evaluated, known: KnownCauses): Parting | undefined =>
  knownParting(left, right, known) ?? known.other?.(left, right) ?? known.last?.again(left, right, known);

function newParting(left: Evaluated, right: Evaluated, known: KnownCauses): Parting | undefined {
  const isOne = left.dialect.id === right.dialect.id;
  const written = isOne ? writtenParting(left, right) : undefined;
  if (written) return written;
  const candidates = ways.flatMap((way) => [
    ...left.steps.flatMap((a) =>
      right.steps.flatMap((b) => {
        const reach = partBy(left, right, a, b, way);
        return reach ? [{ a, b, way, reach }] : [];
      }),
    ),
    ...turnsApart(left, right, way),
  ]);
  // What holds from both sides comes before what may do so by chance, the same text or pattern before one in another language; what
  // a function is for last of all.
  const rank = ({ a, b, way, reach }: (typeof candidates)[number]) =>
    (way.isOfPurpose ? 4 : reach === "both" ? 0 : 2) + (isGivenTheSame(a, b) ? 0 : 1);
  let unexplained: Parting | undefined;
  for (const { a, b, way, reach } of candidates.sort((x, y) => rank(x) - rank(y))) {
    const experiment = experimentAt(left, right, a, b);
    const parting = experiment.told(causesOf([a, b], way, experiment));
    if (parting.causes.length > 0) {
      if (reach !== "turns")
        known.found.push({ a, b, way, sets: parting.causes.map((cause) => cause.map(({ trait }) => trait)) });
      return parting;
    }
    if (reach !== "turns") unexplained ??= parting;
  }
  for (const found of isOne ? othersOfOne : others) {
    const parting = found(left, right);
    if (!parting) continue;
    known.other = found;
    return parting;
  }
  for (const asked of lastAsked) {
    const parting = asked.found(left, right, known);
    if (!parting) continue;
    known.last = asked;
    return parting;
  }
  return unexplained;
}
