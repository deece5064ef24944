import type { Dialect } from "../dialects/dialect.ts";
import { applyKernel, kernelOf } from "../evaluate/index.ts";
import type { BoundOperation } from "../evaluate/index.ts";
import { type OperationId, operationOf } from "../text/index.ts";
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

/**
 * The smallest sets of traits such that one side with the other's answers to them gives the
 * other's output, and the other way round. Found by carrying the operation out again.
 */
export function causesOf(a: Step, b: Step): (readonly Difference[])[] {
  const own = a.bound.answers;
  const other = b.bound.answers;
  const differing = operationOf(a.bound.operation).traits.filter((trait) => own[trait] !== other[trait]);
  for (let size = 1; size <= Math.min(causeSize, differing.length); size++) {
    const found = subsets(differing, size).filter((set) => {
      const swap = (from: typeof own, to: typeof own) => ({
        ...from,
        ...Object.fromEntries(set.map((trait) => [trait, to[trait]])),
      });
      return (
        agree(withAnswers(a.bound, a.slots, swap(own, other)), b.value) &&
        agree(withAnswers(b.bound, b.slots, swap(other, own)), a.value)
      );
    });
    if (found.length > 0) {
      return found.map((set) => set.map((trait): Difference => ({ trait, answers: [own[trait], other[trait]] })));
    }
  }
  return [];
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

/** The first steps, innermost first, at which two evaluations part. */
export function partingOf(left: readonly Step[], right: readonly Step[]): Parting | undefined {
  let unexplained: Parting | undefined;
  for (const a of left) {
    for (const b of right) {
      if (agree(a.value, b.value) || !sameInputs(a, b)) continue;
      const parting: Parting = {
        operation: a.bound.operation,
        ranges: [a.range, b.range],
        functions: [nameOf(a), nameOf(b)],
        inputs: Object.fromEntries(sharedSlots(a, b).map(({ name, own }) => [name, own])),
        outputs: [a.value, b.value],
        causes: causesOf(a, b),
      };
      if (parting.causes.length > 0) return parting;
      unexplained ??= parting;
    }
  }
  return unexplained;
}
