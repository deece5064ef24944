import type { Likeness } from "../dialects/dialect.ts";
import { type Step, step } from "../dialects/step.ts";
import { type OperationId, isOfMany, operationOf } from "../text/index.ts";
import type { Value } from "../values/index.ts";
import { type Bound, type BoundOperation, unconverted } from "./bound.ts";
import { typeOf } from "../dialects/types.ts";

/**
 * How one operation is written by others. Each line recognises a shape and says which operation with which answers it comes
 * to; it may do so on some rows only, and whoever uses one compares its value with that of what is written.
 */
export type Job = (bound: Bound) => (Bound & BoundOperation) | undefined;
export type Answered = Readonly<Record<string, string>>;

/** The value of a part that is written: a literal, perhaps with a sign. */
export const constantOf = (bound: Bound | undefined): Value | undefined => {
  const inner = bound && unconverted(bound);
  if (inner?.kind !== "operation") return inner?.kind === "constant" ? inner.value : undefined;
  const value = constantOf(inner.inputs[0] as Bound | undefined);
  if (inner.operation === "itself") return value;
  if (inner.operation === "calculate") return calculated(value, inner);
  return inner.operation === "signed" && inner.fixed.wanted === "opposite" && typeof value === "number" ? -value : undefined;
};
/** A sum, difference or product of whole numbers that are written. */
function calculated(a: Value | undefined, { inputs, fixed }: BoundOperation): Value | undefined {
  const b = constantOf(inputs[1] as Bound | undefined);
  if (!Number.isSafeInteger(a) || !Number.isSafeInteger(b)) return undefined;
  const [x, y] = [a as number, b as number];
  return fixed.sign === "+" ? x + y : fixed.sign === "-" ? x - y : fixed.sign === "*" ? x * y : undefined;
}

/** Whether a part is a number that is written. */
export const isNumber = (bound: Bound | undefined, wanted: number): boolean => {
  const value = constantOf(bound);
  return (typeof value === "number" || typeof value === "bigint") && Number(value) === wanted;
};

/** Whether two parts are the same: columns, variables, constants, and what is made of the same parts in the same way. */
export function isSame(left: Bound | undefined, right: Bound | undefined): boolean {
  if (!left || !right) return false;
  const [a, b] = [unconverted(left), unconverted(right)];
  if (a.kind === "column" && b.kind === "column") return a.column === b.column;
  if (a.kind === "variable" && b.kind === "variable") return a.variable === b.variable;
  if (a.kind === "constant" && b.kind === "constant") return a.value === b.value;
  if (a.kind !== "operation" || b.kind !== "operation" || a.operation !== b.operation || a.row !== b.row) return false;
  const [x, y] = [a.inputs.flat(), b.inputs.flat()];
  return x.length === y.length && x.every((part, i) => (part === undefined ? y[i] === undefined : isSame(part, y[i])));
}

/** A value that a shape implies, where it stands. */
export const implied = (value: Value, type: string, { source }: Bound): Bound => ({
  kind: "constant",
  value,
  type: typeOf(type),
  source,
});

/** What a shape comes to, at the place where it stands. */
export function comesTo(
  at: Bound,
  operation: OperationId,
  answers: Answered,
  given: Readonly<Record<string, Bound | readonly Bound[]>>,
) {
  const inputs = operationOf(operation).slots.map(({ name }) => given[name] as Bound | undefined);
  return { type: at.type, source: at.source, kind: "operation", operation, answers, fixed: {}, inputs } satisfies Bound;
}

/** A step at a place, with what is in its slots; those that it sets itself have constants. */
export function stepAt(
  at: Bound,
  { operation, answers, fixed = {} }: Step,
  given: Readonly<Record<string, Bound | readonly Bound[]>>,
): Bound & BoundOperation {
  const set = operationOf(operation).slots.flatMap(({ name, settled }) =>
    settled || fixed[name] === undefined ? [] : [[name, implied(fixed[name], "any", at)] as const],
  );
  return { ...comesTo(at, operation, answers, { ...given, ...Object.fromEntries(set) }), fixed };
}

/** How many arguments it takes to be like something. */
const argumentsOf = ({ slots }: Likeness): number =>
  slots.reduce((sum, slot) => sum + (slot === null || typeof slot === "string" ? 1 : argumentsOf(slot)), 0);

/** What an operation makes of arguments, the next ones in their order. */
function likened(at: Bound, like: Likeness, args: Bound[]): Bound & BoundOperation {
  const given = like.slots.flatMap((slot): [string, Bound | readonly Bound[]][] => {
    if (slot !== null && typeof slot !== "string") return [[slot.slot, likened(at, slot, args)]];
    const filled = operationOf(like.operation).slots.find((each) => each.name === slot);
    const next = filled && isOfMany(filled) ? args.splice(0) : args.shift()!;
    return slot === null ? [] : [[slot, next]];
  });
  return stepAt(at, like, Object.fromEntries(given));
}

/** Code of a dialect's own, by the operation that it comes to on most rows. */
export const ofCode: Job = (bound) => {
  if (bound.kind !== "code" || !bound.code.like) return undefined;
  const args = [...bound.children];
  const { like } = bound.code;
  const known = typeof like === "function" ? like((i) => constantOf(bound.children.at(i))) : like;
  return !known || args.length < argumentsOf(known) ? undefined : likened(bound, known, args);
};

/** As much the other way. */
const opposite = step(
  "scale-interval",
  { missing: "null", partsOfMonths: "rounded", byZero: "error" },
  { does: "times", factor: -1 },
);

/** What is moved earlier is moved later by as much the other way. */
export const movedLater: Job = (bound) => {
  if (bound.kind !== "operation" || bound.operation !== "add-to-date" || bound.fixed.direction !== "earlier") return undefined;
  const [date, interval] = bound.inputs;
  if (!date || !interval || !("kind" in date && "kind" in interval)) return undefined;
  const later = { ...comesTo(bound, "add-to-date", bound.answers, {}), fixed: { direction: "later" } };
  return { ...later, inputs: [date, stepAt(interval, opposite, { interval }), undefined] };
};
