import type { Bound } from "../evaluate/index.ts";
import { type OperationId, type Slot, operationOf } from "../text/index.ts";
import { type TraitId, describeTrait } from "../traits/index.ts";
import { Moment, type TextRange, type Value, isFailure } from "../values/index.ts";
import { agree, asTruth } from "./equal.ts";
import { type Difference, type Evaluated, type Step, answering, nameOfAnswering, outputWith, standing } from "./swap.ts";

/**
 * What was tried on a side, other than a step with the other's answers: the whole without the step, or with what the other's step
 * makes of a value; the step with an answer of its own kind, or with parts as the other writes them; the row alone, without the others of the sample; another value in a
 * column; other values, on which both agree; the step with what the other's is given.
 */
export type Experiment =
  | { readonly is: "without" | "converted" | "as if" | "alone" | "parts" }
  | { readonly is: "as"; readonly kind: string }
  | { readonly is: "changed"; readonly column: string; readonly value: Value }
  | { readonly is: "usual"; readonly column: string; readonly values: readonly Value[] }
  | { readonly is: "given"; readonly given: readonly Given[] };

/** What two steps are given in a slot; undefined where it is left out. */
export interface Given {
  readonly name: string;
  readonly place: number;
  readonly values: readonly [Value | undefined, Value | undefined];
}

/** The place where two evaluations part: the same operation on the same inputs, with other outputs. */
export interface Parting {
  /** `whole` where it is no single step. */
  readonly operation: OperationId | "whole";
  /** What the other side does, where that is not the same: both are asked one question, and answer it differently. */
  readonly otherOperation?: OperationId;
  readonly ranges: readonly [TextRange, TextRange];
  readonly functions: readonly [string, string];
  /** What each got, by slot name; only slots that both have. */
  readonly inputs: Readonly<Record<string, readonly [Value, Value]>>;
  readonly outputs: readonly [Value, Value];
  /** All smallest sets of traits that explain it; empty when no set of up to three does. */
  readonly causes: readonly (readonly Difference[])[];
  /** The side that gives the other's output with the other's answers, where only one does; both do where it is left out. */
  readonly oneWay?: 0 | 1;
  /** Whether it alone makes one result the other, or together with further partings. */
  readonly reaches: "whole" | "part";
  /** The side, 0 or 1, that alone has such a step; of the other only what it gives is known. */
  readonly alone?: 0 | 1;
  /** What was tried where it was not the other's answers: see `Experiment`. */
  readonly experiment?: Experiment;
  /** What parts, too, where it is not all of it. */
  readonly further?: readonly Parting[];
  /** The side, 0 or 1, on whose whole expression the causes were tried: it gives the other's result. */
  readonly side: 0 | 1;
  /** Carries out the experiment of a cause, 0-based, again: what the whole expression of `side` gives then. */
  readonly replay: (cause?: number) => Value;
}

/** Whether two outputs are the same; what is only written in another way may count as another, too. */
export type Alike = (a: Value, b: Value) => boolean;

/** The form of a truth value is no difference within an expression: true is like 1. */
export const alike: Alike = (a, b) => agree(asTruth(a), asTruth(b));

/** Whether a trait says how something is done, not what for. What is done without being written is all behaviour. */
export const isBehaviour = (trait: TraitId, a: Step, b: Step): boolean =>
  !describeTrait(trait).isPurpose || (a.bound.implicit === true && b.bound.implicit === true);

export const isSameFailure = (a: Value, b: Value): boolean => !isFailure(a) || (isFailure(b) && a.code === b.code);

/** Whether one side's whole result is the other's, with the other's answers to some traits in a step. */
export type Holds = (side: 0 | 1, traits: readonly TraitId[]) => boolean;

/**
 * Whether two steps do the same operation on inputs that agree, in every slot that both have. A pattern or a
 * replacement that each side writes in its own language may read differently.
 */
export function sameInputs(a: Step, b: Step): boolean {
  const shared = sharedSlots(a, b);
  const isOwn = (trait: string | undefined) => trait !== undefined && a.bound.answers[trait] !== b.bound.answers[trait];
  return (
    a.bound.operation === b.bound.operation &&
    shared.length > 0 &&
    shared.every(({ own, other, writtenBy, dated }) => alike(own, other) || isOwn(writtenBy) || isSameDate(dated, own, other))
  );
}

/** Whether two steps are given the same even where each side writes it in its own language. */
export const isGivenTheSame = (a: Step, b: Step): boolean => sharedSlots(a, b).every(({ own, other }) => alike(own, other));

/** Whether a slot for a date holds one on one side, and its midnight on the other; any time of it where only the day counts. */
function isSameDate(dated: Slot["dated"], own: Value, other: Value): boolean {
  if (dated === undefined) return false;
  const [a, b] = [own, other].map((value) => (value instanceof Moment ? value.text : value));
  const clock = dated === "day" ? /^(\d{4,}-\d\d-\d\d)[ T].*$/ : /^(\d{4,}-\d\d-\d\d)[ T]00:00:00(?:\+00|Z)?$/;
  return typeof a === "string" && typeof b === "string" && a.replace(clock, "$1") === b.replace(clock, "$1");
}

/** What a step is called: the function's name, or that it is done without one. */
export function nameOf({ bound, node, written }: Step): string {
  const row = bound.row ?? (node.kind === "operation" ? node.row : undefined);
  if (row) return row.name;
  if (bound.operation === "column") return "the column";
  if (node.kind === "control") return "a filter";
  return bound.implicit ? "a conversion" : written || "a cast";
}

function sharedSlots(a: Step, b: Step) {
  return operationOf(a.bound.operation).slots.flatMap(({ name, writtenBy, settled, dated }, i) => {
    const [own, other] = [a.slots[i], b.slots[i]];
    return own === undefined || other === undefined ? [] : [{ name, own, other, writtenBy, settled, dated }];
  });
}

const sameRange = (a: TextRange | undefined, b: TextRange | undefined): boolean => a?.start === b?.start && a?.end === b?.end;

/**
 * Whether the other's output in the place of a step makes one result the other. A failure does so only where the other's result is
 * that one; undefined where it is another, which shows nothing.
 */
function makesOther(own: Evaluated, step: Step, other: Evaluated, put: Value): boolean | undefined {
  if (isFailure(put) && !(isFailure(other.value) && sameRange(put.range, other.value.range))) return undefined;
  const came = own.put(step.node, standing(step, put));
  return alike(came, other.value) && (isFailure(put) || isSameFailure(came, other.value));
}

/**
 * Whether the outputs of two steps, exchanged, make the results those of the other side: `both` where nothing speaks against it,
 * `one` where it holds from one side only, as it may by chance in a condition.
 */
export function reachOf(left: Evaluated, right: Evaluated, a: Step, b: Step): "both" | "one" | undefined {
  const ways = [makesOther(left, a, right, b.value), makesOther(right, b, left, a.value)];
  return ways.includes(true) ? (ways.includes(false) ? "one" : "both") : undefined;
}

/** Whether other parts in one side take apart rows that agree: what they bring together comes so by chance. */
export const isByChance = (own: Evaluated, other: Evaluated, changes: ReadonlyMap<Bound, Bound>, name: string): boolean =>
  own.asked(other, changes, `by chance with ${name}`, () =>
    own.around.some((cells) => {
      const given = other.on(cells);
      return alike(own.on(cells), given) && !alike(own.runWith(changes, name, cells), given);
    }),
  );

/** A step of each side as an experiment: with the other's answers in its place, and the whole expression as it is. */
export function experimentAt(left: Evaluated, right: Evaluated, a: Step, b: Step) {
  const run = (side: 0 | 1, traits: readonly TraitId[]): Value => {
    const [own, from, to] = side === 0 ? ([left, a, b] as const) : ([right, b, a] as const);
    // A job is no part of its own: what it gives then stands in the place of the parts that come to it.
    if (from.node !== from.bound) return own.put(from.node, standing(from, outputWith(from, to, traits)));
    return own.runWith(new Map([[from.node, answering(from, to, traits)]]), nameOfAnswering(from, to, traits));
  };
  const holds: Holds = (side, traits) => {
    const [came, wanted] = [run(side, traits), side === 0 ? right.value : left.value];
    return alike(came, wanted) && isSameFailure(came, wanted);
  };
  /** Whether what holds on this row does so by chance. */
  const takesApart: Holds = (side, traits) => {
    const [own, other, from, to] = side === 0 ? ([left, right, a, b] as const) : ([right, left, b, a] as const);
    const name = nameOfAnswering(from, to, traits);
    if (from.node !== from.bound) return false;
    return isByChance(own, other, new Map([[from.node, answering(from, to, traits)]]), name);
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
  return { holds, takesApart, told };
}

export const partingAt = (a: Step, b: Step): Omit<Parting, "causes" | "reaches" | "side" | "replay"> => ({
  operation: a.bound.operation,
  ranges: [a.range, b.range],
  functions: [nameOf(a), nameOf(b)],
  // What the function itself settles is said by its name.
  inputs: Object.fromEntries(
    sharedSlots(a, b).flatMap(({ name, own, other, settled }) => (settled ? [] : [[name, [own, other] as const]])),
  ),
  outputs: [a.value, b.value],
});
