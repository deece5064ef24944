import type { Dialect } from "../dialects/dialect.ts";
import { kernelOf } from "../evaluate/index.ts";
import type { BoundOperation } from "../evaluate/index.ts";
import { type OperationId, applyKernel, operationOf } from "../text/index.ts";
import type { TraitId } from "../traits/index.ts";
import { Decimal, Double, type TextRange, type Value } from "../values/index.ts";
import { agree } from "./equal.ts";

/** One operation as it was carried out on a row. */
export interface Step {
  readonly dialect: Dialect;
  readonly range: TextRange;
  readonly bound: BoundOperation;
  /** The values in the operation's slots; undefined where a slot was left out. */
  readonly slots: readonly (Value | undefined)[];
  readonly value: Value;
}

/** A trait that two dialects answer differently, with both answers. */
export interface Difference {
  readonly trait: TraitId;
  readonly answers: readonly [string, string];
}

/** The place where two evaluations part: the same operation on the same inputs, with other outputs. */
export interface Parting {
  readonly operation: OperationId;
  readonly ranges: readonly [TextRange, TextRange];
  readonly functions: readonly [string, string];
  /** What both got, by slot name; only slots that both have. */
  readonly inputs: Readonly<Record<string, Value>>;
  readonly outputs: readonly [Value, Value];
  /** All smallest sets of traits that explain it; empty when no set of up to three does. */
  readonly causes: readonly (readonly Difference[])[];
  /** The side that gives the other's output with the other's answers, where only one does; both do where it is left out. */
  readonly oneWay?: 0 | 1;
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

/** The kind and the digits of a number, which a text that is made of it shows. */
const formOf = (value: Value): string =>
  value instanceof Decimal
    ? `decimal ${String(value)}`
    : value instanceof Double
      ? "double"
      : typeof value === "bigint"
        ? "number"
        : typeof value;

const sameForm: Alike = (a, b) => agree(a, b) && formOf(a) === formOf(b);

/**
 * The smallest sets of traits such that one side with the other's answers to them gives the
 * other's output, and the other way round; where none of a size does, those for which it holds one
 * way. Found by carrying the operation out again.
 */
export function causesOf(a: Step, b: Step, alike: Alike): Pick<Parting, "causes" | "oneWay"> {
  const sides = [a, b] as const;
  const differing = operationOf(a.bound.operation).traits.filter((trait) => a.bound.answers[trait] !== b.bound.answers[trait]);
  /** Whether a side gives the other's output with the other's answers to these. */
  const follows = (side: 0 | 1, set: readonly TraitId[]): boolean => {
    const [own, other] = [sides[side], sides[1 - side]];
    const swapped = Object.fromEntries(set.map((trait) => [trait, other.bound.answers[trait]]));
    return alike(withAnswers(own.bound, own.slots, { ...own.bound.answers, ...swapped }), other.value);
  };
  const told = (set: readonly TraitId[]) =>
    set.map((trait): Difference => ({ trait, answers: [a.bound.answers[trait], b.bound.answers[trait]] }));
  for (let size = 1; size <= Math.min(causeSize, differing.length); size++) {
    const sets = subsets(differing, size).map((set) => ({ set, ways: ([0, 1] as const).filter((side) => follows(side, set)) }));
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
    shared.every(({ own, other, writtenBy }) => agree(own, other) || isOwn(writtenBy))
  );
}

/** What a step is called: the function's name, or that it is done without one. */
const nameOf = ({ bound: { row, implicit } }: Step): string => row?.name ?? (implicit ? "a conversion" : "a cast");

function sharedSlots(a: Step, b: Step) {
  return operationOf(a.bound.operation).slots.flatMap(({ name, writtenBy }, i) => {
    const [own, other] = [a.slots[i], b.slots[i]];
    return own === undefined || other === undefined ? [] : [{ name, own, other, writtenBy }];
  });
}

/** The first steps, innermost first, at which two evaluations part; by their values, or by how their numbers are written. */
export function partingOf(left: readonly Step[], right: readonly Step[]): Parting | undefined {
  const parting = partingBy(left, right, agree);
  if (parting && parting.causes.length > 0) return parting;
  const written = partingBy(left, right, sameForm);
  return written && written.causes.length > 0 ? written : parting;
}

function partingBy(left: readonly Step[], right: readonly Step[], alike: Alike): Parting | undefined {
  let unexplained: Parting | undefined;
  for (const a of left) {
    for (const b of right) {
      if (alike(a.value, b.value) || !sameInputs(a, b)) continue;
      const parting: Parting = {
        operation: a.bound.operation,
        ranges: [a.range, b.range],
        functions: [nameOf(a), nameOf(b)],
        inputs: Object.fromEntries(sharedSlots(a, b).map(({ name, own }) => [name, own])),
        outputs: [a.value, b.value],
        ...causesOf(a, b, alike),
      };
      if (parting.causes.length > 0) return parting;
      unexplained ??= parting;
    }
  }
  return unexplained;
}
