import type { Bound } from "../evaluate/index.ts";
import { operationOf } from "../text/index.ts";
import type { TraitId } from "../traits/index.ts";
import type { Value } from "../values/index.ts";
import { type Parting, alike, experimentAt, isBehaviour, isSameFailure, partingAt, reachOf } from "./parting.ts";
import { type Difference, type Evaluated, type Step, answering, differing, nameOfAnswering } from "./swap.ts";

/** A trait in which two steps that stand for each other differ. */
interface Swap {
  readonly a: Step;
  readonly b: Step;
  readonly trait: TraitId;
}

/** The most traits of all steps together that are tried as a chain. */
const mostSwaps = 40;

/**
 * Steps of both sides that stand for each other: of one operation on the same, and otherwise in the order in which they stand.
 * Purposes are no behaviour.
 */
function swapsOf(left: Evaluated, right: Evaluated): Swap[] {
  const own = (steps: readonly Step[]) => steps.filter(({ node, bound }) => node === bound || bound.operation === "column");
  const others = own(right.steps);
  const pairs = new Map<Step, Step>();
  const pair = (isLike: (a: Step, b: Step) => boolean) => {
    const free = others.filter((b) => ![...pairs.values()].includes(b));
    for (const a of own(left.steps)) {
      const at = pairs.has(a) ? -1 : free.findIndex((b) => b.bound.operation === a.bound.operation && isLike(a, b));
      if (at >= 0) pairs.set(a, free.splice(at, 1)[0]);
    }
  };
  pair(({ slots: [x] }, { slots: [y] }) => x !== undefined && y !== undefined && alike(x, y));
  pair(() => true);
  return own(left.steps).flatMap((a): Swap[] => {
    const b = pairs.get(a);
    return b ? differing(a, b).flatMap((trait) => (isBehaviour(trait, a, b) ? [{ a, b, trait }] : [])) : [];
  });
}

/** The fewest answers of several steps that make one result the other, found by taking out one after the other. */
export function chainOf(left: Evaluated, right: Evaluated): Parting | undefined {
  const swaps = swapsOf(left, right);
  if (swaps.length === 0 || swaps.length > mostSwaps) return undefined;
  const runOf = (side: 0 | 1, kept: readonly Swap[]): Value => {
    const own = side === 0 ? left : right;
    const changes = new Map<Bound, Bound>();
    const names: string[] = [];
    for (const { a, b } of kept) {
      const [from, to] = side === 0 ? [a, b] : [b, a];
      const traits = kept.filter((swap) => swap.a === a).map(({ trait }) => trait);
      if (!changes.has(from.node)) names.push(nameOfAnswering(from, to, traits));
      changes.set(from.node, answering(from, to, traits));
    }
    return own.runWith(changes, names.join());
  };
  const works = (side: 0 | 1, kept: readonly Swap[]): boolean => {
    const [came, wanted] = [runOf(side, kept), side === 0 ? right.value : left.value];
    return alike(came, wanted) && isSameFailure(came, wanted);
  };
  const oneWay = ([0, 1] as const).find((side) => works(side, swaps));
  if (oneWay === undefined) return undefined;
  const kept = swaps.reduce((rest, swap) => {
    const fewer = rest.filter((other) => other !== swap);
    return works(oneWay, fewer) ? fewer : rest;
  }, swaps);
  const places = [...new Set(kept.map(({ a }) => a))].map((a): Parting => {
    const own = kept.filter((swap) => swap.a === a);
    const cause = own.map(({ trait, b }): Difference => ({ trait, answers: [a.bound.answers[trait], b.bound.answers[trait]] }));
    const replay = () => runOf(oneWay, kept);
    return { ...partingAt(a, own[0].b), causes: [cause], oneWay, reaches: "part", side: oneWay, replay };
  });
  const [first, ...further] = places;
  if (places.length === 0) return undefined;
  return further.length === 0 ? { ...first, reaches: "whole" } : { ...first, further };
}

/**
 * Where two different operations on the same value are asked one question, and the answer of one in the other makes one result
 * the other: what a missing value gives, say.
 */
export function questionOf(left: Evaluated, right: Evaluated): Parting | undefined {
  const own = (steps: readonly Step[]) => steps.filter(({ node, bound }) => node === bound);
  for (const a of own(left.steps)) {
    for (const b of own(right.steps)) {
      const [x, y] = [a.slots[0], b.slots[0]];
      if (a.bound.operation === b.bound.operation || x === undefined || y === undefined || !alike(x, y)) continue;
      // What is done without being written has questions of its own, but for what is missing.
      const isWritten = !a.bound.implicit && !b.bound.implicit;
      const asked = differing(a, b).filter(
        (trait) => b.bound.answers[trait] !== undefined && isBehaviour(trait, a, b) && (isWritten || trait === "missing"),
      );
      const { holds, told } = experimentAt(left, right, a, b);
      for (const trait of asked) {
        const [first, second] = [holds(0, [trait]), holds(1, [trait])];
        if (!first && !second) continue;
        const cause: Difference = { trait, answers: [a.bound.answers[trait], b.bound.answers[trait]] };
        const oneWay = first && second ? {} : { oneWay: first ? (0 as const) : (1 as const) };
        return {
          ...told({ causes: [[cause]], ...oneWay }),
          inputs: { [operationOf(a.bound.operation).slots[0].name]: [x, y] },
          otherOperation: b.bound.operation,
        };
      }
    }
  }
  return undefined;
}

/** Two results that are one truth in two forms part where the outermost step says in which. */
export function truthParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const telling = ({ steps }: Evaluated) => steps.filter(({ bound }) => "truth" in bound.answers).at(-1);
  const [a, b] = [telling(left), telling(right)];
  if (!a || !b || a.bound.answers.truth === b.bound.answers.truth) return undefined;
  const cause: Difference = { trait: "truth", answers: [a.bound.answers.truth, b.bound.answers.truth] };
  const told = experimentAt(left, right, a, b).told({ causes: [[cause]] });
  if (a.bound.operation === b.bound.operation) return told;
  // What each side does last is another thing: only their results are compared.
  const ranges = [left.root.source.range, right.root.source.range] as const;
  const outputs = [left.value, right.value] as const;
  return { ...told, operation: "whole", ranges, functions: ["the whole", "the whole"], inputs: {}, outputs };
}

/** Where both sides call something by one name that is another operation on each, and that makes up the difference: what it is. */
export function anotherOf(left: Evaluated, right: Evaluated): string | undefined {
  const called = ({ steps }: Evaluated) =>
    steps.filter(({ node, bound, written }) => written !== "" && node === bound && !bound.implicit);
  for (const a of called(left)) {
    for (const b of called(right)) {
      if (a.written !== b.written || a.bound.operation === b.bound.operation) continue;
      if (!reachOf(left, right, a, b)) continue;
      const does = ({ bound, dialect }: Step) => `${operationOf(bound.operation).summary} in ${dialect.title}`;
      return `${a.written} ${does(a)} and ${does(b)}`;
    }
  }
  return undefined;
}
