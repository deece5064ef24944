import type { Dialect } from "../dialects/dialect.ts";
import { type Bound, type BoundOperation, kernelOf } from "../evaluate/index.ts";
import { type Kernel, applyKernel, operationOf } from "../text/index.ts";
import type { TraitId } from "../traits/index.ts";
import { Decimal, Double, Interval, Moment, type TextRange, type Value, isMoment } from "../values/index.ts";

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

/** Values of columns, by their places in the sample, 0-based. */
export type Cells = ReadonlyMap<number, Value>;

/** One side on a row: its value, its steps innermost first, and what it gives otherwise. */
export interface Evaluated {
  readonly dialect: Dialect;
  readonly value: Value;
  readonly steps: readonly Step[];
  /** Those of them that are carried out as they stand, and no jobs that others come to: known without looking for such. */
  readonly plainSteps: readonly Step[];
  /** Those that are carried out several times on the row, as in a loop: the turns of each. */
  readonly repeated: readonly (readonly Step[])[];
  /** Every part that was worked out, with its value. */
  readonly parts: readonly { readonly node: Bound; readonly value: Value }[];
  /** What the whole was bound to. */
  readonly root: Bound;
  /** The value and the name of a column, by its place in the sample, 0-based. */
  readonly valueOf: (column: number) => Value;
  readonly nameOf: (column: number) => string;
  /** Some rows of the sample, by the places of their columns. */
  readonly around: readonly Cells[];
  /** What is found out of two sides and the rows around, with changes of this one: asked once, as it is the same on every row. */
  readonly asked: (other: Evaluated, changes: ReadonlyMap<Bound, Bound>, what: string, ask: () => boolean) => boolean;
  /** The whole on this row without the others of the sample. */
  readonly alone: () => Value;
  /** The whole with a value in the place of a part. */
  readonly put: (node: Bound, value: Value) => Value;
  /** The whole with other values in columns, by their places in the sample, 0-based. */
  readonly on: (values: Cells) => Value;
  /** The whole with other parts in the place of some; `name` says what was changed in each, where that is the same on every row. */
  readonly runWith: (changes: ReadonlyMap<Bound, Bound>, name: string | undefined, values?: Cells) => Value;
}

/** A trait that two dialects answer differently, with both answers. */
export interface Difference {
  readonly trait: TraitId;
  readonly answers: readonly [string, string];
}

/** A number as any kernel takes it: another dialect has kinds of its own. */
const plainNumber = (value: Value | undefined): Value | undefined =>
  typeof value === "bigint"
    ? Number(value)
    : value instanceof Decimal
      ? value.toNumber()
      : value instanceof Double
        ? value.value
        : value;

type Answers = Readonly<Record<string, string>>;

/** What an operation gives with other answers: it is carried out again. */
export const withAnswers = (bound: BoundOperation, slots: Step["slots"], answers: Answers): Value =>
  applied(bound, kernelOf(bound, answers), slots, answers);

function applied({ operation }: BoundOperation, kernel: Kernel, slots: Step["slots"], answers: Answers): Value {
  const kinds = operationOf(operation).slots;
  const plain = slots.map((slot, i) => (kinds[i].kind === "number" ? plainNumber(slot) : slot));
  return applyKernel(kernel, plain, kinds, answers.missing);
}

/** An operation with another's answers to some traits. */
interface Variant {
  readonly answers: Answers;
  readonly kernel: Kernel;
  /** The places of the slots that are written in a language which is among the traits. */
  readonly written: readonly number[];
  /** Tells it from other variants of the operation. */
  readonly name: string;
}

const variants = new WeakMap<BoundOperation, WeakMap<BoundOperation, Map<string, Variant>>>();

/** Prepared once: the same is tried on many rows. */
function variantOf({ bound }: Step, { bound: other }: Step, traits: readonly TraitId[]): Variant {
  let byOther = variants.get(bound);
  if (!byOther) variants.set(bound, (byOther = new WeakMap()));
  let known = byOther.get(other);
  if (!known) byOther.set(other, (known = new Map<string, Variant>()));
  const key = traits.join();
  const found = known.get(key) ?? newVariant(bound, other, traits);
  known.set(key, found);
  return found;
}

function newVariant(bound: BoundOperation, other: BoundOperation, traits: readonly string[]): Variant {
  const swapped = traits.map((trait): [string, string] => [trait, other.answers[trait]]);
  const answers = { ...bound.answers, ...Object.fromEntries(swapped) };
  const written = operationOf(bound.operation).slots.flatMap(({ writtenBy }, i) =>
    writtenBy !== undefined && traits.includes(writtenBy) ? [i] : [],
  );
  return { answers, kernel: kernelOf(bound, answers), written, name: swapped.join() };
}

/** What a step gives with the other's answers to some traits, and with what the other writes in their language. */
export function outputWith(own: Step, other: Step, traits: readonly TraitId[]): Value {
  const { answers, kernel, written } = variantOf(own, other, traits);
  const slots =
    written.length === 0 ? own.slots : own.slots.map((slot, i) => (written.includes(i) ? (other.slots[i] ?? slot) : slot));
  return applied(own.bound, kernel, slots, answers);
}

/**
 * A step as it stands in the bound tree, with the other's answers to some traits and what the other writes in their language; a
 * job, which is no part of its own, as what it gives then.
 */
export function answering(own: Step, other: Step, traits: readonly TraitId[]): Bound {
  if (own.node !== own.bound) return held(own, standing(own, outputWith(own, other, traits)));
  const { answers, written } = variantOf(own, other, traits);
  const inputs = [...own.bound.inputs];
  for (const i of written) if (other.slots[i] !== undefined) inputs[i] = constant(own, other.slots[i]);
  return { ...own.node, answers, inputs };
}

/** What tells it from other changes of the same step; a value that is put in its place is another on every row. */
export function nameOfAnswering(own: Step, other: Step, traits: readonly TraitId[]): string {
  if (own.node !== own.bound) return "put";
  const { name, written } = variantOf(own, other, traits);
  return written.length === 0 ? name : JSON.stringify([name, written.map((i) => String(other.slots[i]))]);
}

/** The traits that two steps of one operation answer differently. */
export const differing = (a: Step, b: Step): readonly TraitId[] =>
  operationOf(a.bound.operation).traits.filter((trait) => a.bound.answers[trait] !== b.bound.answers[trait]);

/** A value of another dialect as one of the kind that stands in its place. */
export function inKindOf(value: Value, like: Value): Value {
  if (typeof like === "boolean" && (value === 0 || value === 1)) return value === 1;
  if (typeof value === "boolean" && like !== null && typeof like !== "boolean" && typeof like !== "string") return Number(value);
  if (like instanceof Moment && !(like instanceof Interval) && typeof value === "string" && isMoment(like.type, value))
    return new Moment(like.type, value);
  const plain = plainNumber(value);
  if (typeof plain !== "number" || plain === value) return value;
  if (like instanceof Decimal) return value instanceof Decimal ? value : Number.isFinite(plain) ? Decimal.of(plain) : value;
  return like instanceof Double ? new Double(plain) : value;
}

/** What stands in the place of a step whose output would be another: of its own kind, but for a column, where the kind is what may differ. */
export const standing = (step: Step, value: Value): Value =>
  step.bound.operation === "column" ? value : inKindOf(value, step.value);

/** A value in the place of a step, as what is set on each row. */
const held = ({ node: { type, source } }: Step, value: Value): Bound => {
  const variable = { name: "", type, value };
  return { kind: "variable", variable, type, source };
};

const constant = ({ node }: Step, value: Value): Bound => ({ kind: "constant", value, type: node.type, source: node.source });
