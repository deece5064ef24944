import { type OperationId, type TraitsOf, applyKernel, kernelFor, operationOf } from "../text/index.ts";
import type { Answers } from "../traits/index.ts";
import { type Value, isFailure } from "../values/index.ts";

/** An operation with its answers; `fixed` sets slots once for all. Plain data, the same after being written to JSON and read back. */
export type Step<O extends OperationId = OperationId> = {
  readonly [Id in O]: {
    readonly operation: Id;
    readonly answers: Answers<TraitsOf<Id>>;
    readonly fixed?: Readonly<Record<string, string | number | boolean>>;
  };
}[O];

/** What a dialect does to one value by itself; it never gets a failure. */
export type Own = (value: Value) => Value;

/** What a conversion does to a value: a step, work of the dialect's own, or several of them in turn. */
export type Work = Step | Own | readonly (Step | Own)[];

/** A step as data. */
export const step = <const O extends OperationId>(operation: O, answers: Answers<TraitsOf<O>>, fixed?: Step["fixed"]) =>
  ({ operation, answers, ...(fixed && { fixed }) }) as Step<O> & { readonly answers: Answers<TraitsOf<O>> };

/** What work is made of, in turn. */
export const partsOfWork = (work: Work): readonly (Step | Own)[] =>
  typeof work === "function" || "operation" in work ? [work] : work;

const prepared = new WeakMap<Step, Own>();

/** A step as a function, which failures go through, and null where it is missing there; made once. */
function ran(part: Step): Own {
  const known = prepared.get(part) ?? prepare(part);
  prepared.set(part, known);
  return known;
}

function prepare({ operation, answers, fixed = {} }: Step): Own {
  const kernel = kernelFor(operation, answers as Answers, fixed);
  const { slots } = operationOf(operation);
  const others = slots.slice(1).map(({ name }) => fixed[name]);
  const { missing = "null" } = answers as Partial<Answers>;
  const ofMissing = (): Value => applyKernel(kernel, [null, ...others], slots, missing);
  return others.length === 0
    ? (value) => (value === null ? ofMissing() : isFailure(value) ? value : kernel(value))
    : (value) => (value === null ? ofMissing() : isFailure(value) ? value : kernel(value, ...others));
}

/** Work as a function of the value; failures go through, and null as its steps have it. Without work the value stays. */
export function worked(work: Work = []): Own {
  if ("operation" in work) return ran(work);
  const parts = partsOfWork(work).map((part) => (typeof part === "function" ? part : ran(part)));
  return (value) => {
    let result = value;
    for (const run of parts) {
      if (isFailure(result)) return result;
      result = run(result);
    }
    return result;
  };
}

/** Work of a dialect's own that null goes through as it is. */
export const unlessMissing =
  (convert: Own): Own =>
  (value) =>
    value === null || isFailure(value) ? value : convert(value);
