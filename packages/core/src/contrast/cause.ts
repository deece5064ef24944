import type { Dialect } from "../dialects/dialect.ts";
import { type Bound, type BoundOperation, kernelOf } from "../evaluate/index.ts";
import { type OperationId, applyKernel, operationOf } from "../text/index.ts";
import { type TraitId, describeTrait } from "../traits/index.ts";
import { Decimal, Double, type TextRange, type Value, isFailure } from "../values/index.ts";
import { agree, asTruth } from "./equal.ts";

/** One operation as it was carried out on a row. */
export interface Step {
  readonly dialect: Dialect;
  readonly range: TextRange;
  /** The name or sign of a call as it is written; empty for what is no call. */
  readonly written: string;
  /** The place in the bound tree at which it stands. */
  readonly node: Bound;
  /** The operation there, or the idiom that it is. */
  readonly bound: BoundOperation;
  /** The values in the operation's slots; undefined where a slot was left out. */
  readonly slots: readonly (Value | undefined)[];
  readonly value: Value;
}

/** One side on a row: its value, its steps innermost first, and what it gives with other parts in the place of some. */
export interface Evaluated {
  readonly value: Value;
  readonly steps: readonly Step[];
  readonly runWith: (changes: ReadonlyMap<Bound, Bound>) => Value;
}

/** A trait that two dialects answer differently, with both answers. */
export interface Difference {
  readonly trait: TraitId;
  readonly answers: readonly [string, string];
}

/** The place where two evaluations part: the same operation on the same inputs, with other outputs. */
export interface Parting {
  readonly operation: OperationId;
  /** What the other side does, where that is not the same: both are asked one question, and answer it differently. */
  readonly otherOperation?: OperationId;
  readonly ranges: readonly [TextRange, TextRange];
  readonly functions: readonly [string, string];
  /** What both got, by slot name; only slots that both have. */
  readonly inputs: Readonly<Record<string, Value>>;
  readonly outputs: readonly [Value, Value];
  /** All smallest sets of traits that explain it; empty when no set of up to three does. */
  readonly causes: readonly (readonly Difference[])[];
  /** The side that gives the other's output with the other's answers, where only one does; both do where it is left out. */
  readonly oneWay?: 0 | 1;
  /** Whether it alone makes one result the other, or together with further partings. */
  readonly reaches: "whole" | "part";
  /** What parts, too, where it is not all of it. */
  readonly further?: readonly Parting[];
  /** The side, 0 or 1, on whose whole expression the causes were tried: it gives the other's result. */
  readonly side: 0 | 1;
  /** Carries out the experiment of a cause, 0-based, again: what the whole expression of `side` gives then. */
  readonly replay: (cause?: number) => Value;
}

/** The most traits that a cause may have. */
const causeSize = 3;

/** A number as any kernel takes it: another dialect has kinds of its own. */
const plainNumber = (value: Value | undefined): Value | undefined =>
  typeof value === "bigint"
    ? Number(value)
    : value instanceof Decimal
      ? value.toNumber()
      : value instanceof Double
        ? value.value
        : value;

/** What an operation gives with other answers: it is carried out again. */
export function withAnswers(bound: BoundOperation, slots: Step["slots"], answers: Readonly<Record<string, string>>): Value {
  const kinds = operationOf(bound.operation).slots;
  const plain = slots.map((slot, i) => (kinds[i].kind === "number" ? plainNumber(slot) : slot));
  return applyKernel(kernelOf(bound, answers), plain, kinds, answers.missing);
}

const subsets = <T>(items: readonly T[], size: number): T[][] =>
  size === 0 ? [[]] : items.flatMap((item, i) => subsets(items.slice(i + 1), size - 1).map((rest) => [item, ...rest]));

/** Whether two outputs are the same; what is only written in another way may count as another, too. */
type Alike = (a: Value, b: Value) => boolean;

/** The form of a truth value is no difference within an expression: true is like 1. */
const alike: Alike = (a, b) => agree(asTruth(a), asTruth(b));

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
  readonly isTold: (trait: TraitId) => boolean;
}

const isBehaviour = (trait: TraitId): boolean => !describeTrait(trait).isPurpose;

/** Behaviour first, in the value and then in its form; what a function is for only where that does not say it. */
const ways: readonly Way[] = [
  { same: alike, isTold: isBehaviour },
  { same: sameForm, isTold: isBehaviour },
  { same: alike, isTold: () => true },
];

/** The traits that two steps of one operation answer differently. */
const differing = (a: Step, b: Step): readonly TraitId[] =>
  operationOf(a.bound.operation).traits.filter((trait) => a.bound.answers[trait] !== b.bound.answers[trait]);

/** What a side answers, with the other's answers to some traits. */
const swapped = (own: Step, other: Step, traits: readonly TraitId[]): Readonly<Record<string, string>> => ({
  ...own.bound.answers,
  ...Object.fromEntries(traits.map((trait) => [trait, other.bound.answers[trait]])),
});

/** A step's slots, those that are written in a language as the other has them where that is among the traits. */
function slotsWith(own: Step, other: Step, traits: readonly string[]): Step["slots"] {
  const { slots } = operationOf(own.bound.operation);
  return own.slots.map((slot, i) => {
    const { writtenBy } = slots[i];
    return writtenBy && traits.includes(writtenBy) ? other.slots[i] : slot;
  });
}

const isSameFailure = (a: Value, b: Value): boolean => !isFailure(a) || (isFailure(b) && a.code === b.code);

/** Whether one side's whole result is the other's, with the other's answers to some traits in a step. */
type Holds = (side: 0 | 1, traits: readonly TraitId[]) => boolean;

/**
 * The smallest sets of traits such that one side with the other's answers to them gives the
 * other's output, and the other way round; where none of a size does, those for which it holds one
 * way. Found by carrying the operation out again.
 */
function causesOf(a: Step, b: Step, { same, isTold }: Way, holds: Holds): Pick<Parting, "causes" | "oneWay"> {
  const sides = [a, b] as const;
  const asked = differing(a, b).filter(isTold);
  /** Whether a side gives the other's output with the other's answers to these, and what is written in their language. */
  const follows = (side: 0 | 1, set: readonly TraitId[]): boolean => {
    const [own, other] = [sides[side], sides[1 - side]];
    return same(withAnswers(own.bound, slotsWith(own, other, set), swapped(own, other, set)), other.value) && holds(side, set);
  };
  const told = (set: readonly TraitId[]) =>
    set.map((trait): Difference => ({ trait, answers: [a.bound.answers[trait], b.bound.answers[trait]] }));
  for (let size = 1; size <= Math.min(causeSize, asked.length); size++) {
    const sets = subsets(asked, size).map((set) => ({ set, ways: ([0, 1] as const).filter((side) => follows(side, set)) }));
    const both = sets.filter(({ ways }) => ways.length === 2);
    if (both.length > 0) return { causes: both.map(({ set }) => told(set)) };
    for (const side of [0, 1] as const) {
      const single = sets.filter(({ ways }) => ways[0] === side);
      if (single.length > 0) return { causes: single.map(({ set }) => told(set)), oneWay: side };
    }
  }
  return { causes: [] };
}

/**
 * Whether two steps do the same operation on inputs that agree, in every slot that both have. A pattern or a
 * replacement that each side writes in its own language may read differently.
 */
function sameInputs(a: Step, b: Step): boolean {
  const shared = sharedSlots(a, b);
  const isOwn = (trait: string | undefined) => trait !== undefined && a.bound.answers[trait] !== b.bound.answers[trait];
  return (
    a.bound.operation === b.bound.operation &&
    shared.length > 0 &&
    shared.every(({ own, other, writtenBy }) => alike(own, other) || isOwn(writtenBy))
  );
}

/** What a step is called: the function's name, or that it is done without one. */
function nameOf({ bound, node }: Step): string {
  const row = bound.row ?? (node.kind === "operation" ? node.row : undefined);
  return row?.name ?? (node.kind === "control" ? "a filter" : bound.implicit ? "a conversion" : "a cast");
}

function sharedSlots(a: Step, b: Step) {
  return operationOf(a.bound.operation).slots.flatMap(({ name, writtenBy }, i) => {
    const [own, other] = [a.slots[i], b.slots[i]];
    return own === undefined || other === undefined ? [] : [{ name, own, other, writtenBy }];
  });
}

/** A value of another dialect as one of the kind that stands in its place. */
function inKindOf(value: Value, like: Value): Value {
  if (typeof like === "boolean" && (value === 0 || value === 1)) return value === 1;
  if (typeof value === "boolean" && like !== null && typeof like !== "boolean" && typeof like !== "string") return Number(value);
  const plain = plainNumber(value);
  if (typeof plain !== "number" || plain === value) return value;
  if (like instanceof Decimal) return value instanceof Decimal ? value : Number.isFinite(plain) ? Decimal.of(plain) : value;
  return like instanceof Double ? new Double(plain) : value;
}

const constant = ({ node }: Step, value: Value): Bound => ({ kind: "constant", value, type: node.type, source: node.source });

const sameRange = (a: TextRange | undefined, b: TextRange | undefined): boolean => a?.start === b?.start && a?.end === b?.end;

/** Whether the other's output in the place of a step makes one result the other: a failure only where the other's result is that one. */
function makesOther(own: Evaluated, step: Step, other: Evaluated, put: Value): boolean {
  if (isFailure(put) && !(isFailure(other.value) && sameRange(put.range, other.value.range))) return false;
  const came = own.runWith(new Map([[step.node, constant(step, inKindOf(put, step.value))]]));
  return alike(came, other.value) && (isFailure(put) || isSameFailure(came, other.value));
}

/**
 * Where two evaluations part, innermost first: at steps that do the same with other outputs, of which the other's makes one
 * whole result the other. Told is the first with a cause; where there is none of any, that first step; where no step alone
 * makes up the difference, the answers of several that do together.
 */
export function partingOf(left: Evaluated, right: Evaluated): Parting | undefined {
  let unexplained: Parting | undefined;
  for (const way of ways) {
    for (const a of left.steps) {
      for (const b of right.steps) {
        if (way.same(a.value, b.value) || !sameInputs(a, b)) continue;
        if (!makesOther(left, a, right, b.value) && !makesOther(right, b, left, a.value)) continue;
        const { holds, told } = experimentAt(left, right, a, b);
        const parting = told(causesOf(a, b, way, holds));
        if (parting.causes.length > 0) return parting;
        unexplained ??= parting;
      }
    }
  }
  return chainOf(left, right) ?? questionOf(left, right) ?? unexplained;
}

/** A step of each side as an experiment: with the other's answers in its place, and the whole expression as it is. */
function experimentAt(left: Evaluated, right: Evaluated, a: Step, b: Step) {
  const run = (side: 0 | 1, traits: readonly TraitId[]): Value => {
    const [own, from, to] = side === 0 ? ([left, a, b] as const) : ([right, b, a] as const);
    return own.runWith(new Map([[from.node, otherwise(from, to, traits)]]));
  };
  const holds: Holds = (side, traits) => {
    const [came, wanted] = [run(side, traits), side === 0 ? right.value : left.value];
    return alike(came, wanted) && isSameFailure(came, wanted);
  };
  const told = ({ causes, oneWay }: Pick<Parting, "causes" | "oneWay">): Parting => ({
    ...partingAt(a, b),
    causes,
    ...(oneWay !== undefined && { oneWay }),
    reaches: "whole",
    side: oneWay ?? 0,
    replay(cause = 0) {
      const traits = (causes[cause] ?? []).map(({ trait }) => trait);
      return run(oneWay ?? 0, traits);
    },
  });
  return { holds, told };
}

/** What stands in the place of a step that answers as the other does: the operation itself, or for a job what it gives then. */
function otherwise(from: Step, to: Step, traits: readonly TraitId[]): Bound {
  if (from.node === from.bound) return answering(from, to, traits);
  return constant(from, inKindOf(withAnswers(from.bound, slotsWith(from, to, traits), swapped(from, to, traits)), from.value));
}

const partingAt = (a: Step, b: Step): Omit<Parting, "causes" | "reaches" | "side" | "replay"> => ({
  operation: a.bound.operation,
  ranges: [a.range, b.range],
  functions: [nameOf(a), nameOf(b)],
  inputs: Object.fromEntries(sharedSlots(a, b).map(({ name, own }) => [name, own])),
  outputs: [a.value, b.value],
});

/** A trait in which two steps that stand for each other differ. */
interface Swap {
  readonly a: Step;
  readonly b: Step;
  readonly trait: TraitId;
}

/** The most traits of all steps together that are tried as a chain. */
const mostSwaps = 40;

/** Steps of both sides that stand for each other: the nth of an operation with the nth. Purposes are no behaviour. */
function swapsOf(left: Evaluated, right: Evaluated): Swap[] {
  const own = (steps: readonly Step[]) => steps.filter(({ node, bound }) => node === bound);
  const others = own(right.steps);
  const met = new Map<OperationId, number>();
  return own(left.steps).flatMap((a): Swap[] => {
    const { operation } = a.bound;
    const nth = met.get(operation) ?? 0;
    met.set(operation, nth + 1);
    const b = others.filter(({ bound }) => bound.operation === operation).at(nth);
    return b ? differing(a, b).flatMap((trait) => (isBehaviour(trait) ? [{ a, b, trait }] : [])) : [];
  });
}

/** A step with the other's answers to some traits, and with what the other writes in their language. */
function answering(own: Step, other: Step, traits: readonly TraitId[]): Bound {
  const { slots } = operationOf(own.bound.operation);
  const inputs = own.bound.inputs.map((input, i) => {
    const { writtenBy } = slots[i];
    const isWritten = writtenBy !== undefined && (traits as readonly string[]).includes(writtenBy);
    return isWritten && other.slots[i] !== undefined ? constant(own, other.slots[i]) : input;
  });
  return { ...(own.node as Bound & BoundOperation), answers: swapped(own, other, traits), inputs };
}

/** The fewest answers of several steps that make one result the other, found by taking out one after the other. */
function chainOf(left: Evaluated, right: Evaluated): Parting | undefined {
  const swaps = swapsOf(left, right);
  if (swaps.length === 0 || swaps.length > mostSwaps) return undefined;
  const runOf = (side: 0 | 1, kept: readonly Swap[]): Value => {
    const own = side === 0 ? left : right;
    const changes = new Map<Bound, Bound>();
    for (const { a, b } of kept) {
      const [from, to] = side === 0 ? [a, b] : [b, a];
      const traits = kept.filter((swap) => swap.a === a).map(({ trait }) => trait);
      changes.set(from.node, answering(from, to, traits));
    }
    return own.runWith(changes);
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
function questionOf(left: Evaluated, right: Evaluated): Parting | undefined {
  const own = (steps: readonly Step[]) => steps.filter(({ node, bound }) => node === bound);
  for (const a of own(left.steps)) {
    for (const b of own(right.steps)) {
      const [x, y] = [a.slots[0], b.slots[0]];
      if (a.bound.operation === b.bound.operation || x === undefined || y === undefined || !alike(x, y)) continue;
      const asked = differing(a, b).filter((trait) => b.bound.answers[trait] !== undefined && isBehaviour(trait));
      const { holds, told } = experimentAt(left, right, a, b);
      for (const trait of asked) {
        const [first, second] = [holds(0, [trait]), holds(1, [trait])];
        if (!first && !second) continue;
        const cause: Difference = { trait, answers: [a.bound.answers[trait], b.bound.answers[trait]] };
        const oneWay = first && second ? {} : { oneWay: first ? (0 as const) : (1 as const) };
        return {
          ...told({ causes: [[cause]], ...oneWay }),
          inputs: { [operationOf(a.bound.operation).slots[0].name]: x },
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
  return experimentAt(left, right, a, b).told({ causes: [[cause]] });
}

/** Where both sides call something by one name that is another operation on each, and that makes up the difference: what it is. */
export function anotherOf(left: Evaluated, right: Evaluated): string | undefined {
  const called = ({ steps }: Evaluated) => steps.filter(({ node, bound, written }) => written !== "" && node === bound);
  for (const a of called(left)) {
    for (const b of called(right)) {
      if (a.written !== b.written || a.bound.operation === b.bound.operation) continue;
      if (!makesOther(left, a, right, b.value) && !makesOther(right, b, left, a.value)) continue;
      const does = ({ bound, dialect }: Step) => `${operationOf(bound.operation).summary} in ${dialect.title}`;
      return `${a.written} ${does(a)} and ${does(b)}`;
    }
  }
  return undefined;
}
