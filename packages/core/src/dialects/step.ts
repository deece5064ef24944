import { type OperationId, type TraitsOf, applyKernel, kernelFor, operationOf } from "../text/index.ts";
import type { Answers } from "../traits/index.ts";
import { type Value, isFailure, isList } from "../values/index.ts";

/** An operation with its answers; `fixed` sets slots once for all. Plain data, the same after being written to JSON and read back. */
export type Step<O extends OperationId = OperationId> = {
  readonly [Id in O]: {
    readonly operation: Id;
    readonly answers: Answers<TraitsOf<Id>>;
    readonly fixed?: Readonly<Record<string, string | number | boolean>>;
  };
}[O];

/** What a dialect does to one value by itself. */
export type Own = (value: Value) => Value;

/** What is done to each item of a list that is there; a failure of one is that of the list. */
export interface EachItem {
  readonly each: Work;
}

/** Code of a dialect's own on a value that is there, by its name: what no operation does. */
export interface Named {
  readonly named: string;
  readonly run: Own;
}

export type Part = Step | EachItem | Named;

/** What a conversion does to a value: a step, a change of each item, code by its name, or several of them in turn. */
export type Work = Part | readonly Part[];

/** Whether a part of some work is an operation with answers. */
export const isStep = (part: Part): part is Step => "operation" in part;

/** A step as data. */
export const step = <const O extends OperationId>(operation: O, answers: Answers<TraitsOf<O>>, fixed?: Step["fixed"]) =>
  ({ operation, answers, ...(fixed && { fixed }) }) as Step<O> & { readonly answers: Answers<TraitsOf<O>> };

/** What work is made of, in turn. */
export const partsOfWork = (work: Work): readonly Part[] => (Array.isArray(work) ? (work as readonly Part[]) : [work as Part]);

/** Every step of some work, those of items too. */
export const stepsIn = (work: Work): readonly Step[] =>
  partsOfWork(work).flatMap((part) => (isStep(part) ? [part] : "each" in part ? stepsIn(part.each) : []));

/** Some work with other steps in it. */
export const withSteps = (work: Work, change: (step: Step) => Step): Work =>
  partsOfWork(work).map((part) => (isStep(part) ? change(part) : "each" in part ? { each: withSteps(part.each, change) } : part));

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

function runOf(part: Part): Own {
  if (isStep(part)) return ran(part);
  if ("named" in part) return (value) => (value === null ? null : part.run(value));
  const change = worked(part.each);
  return (list) => (isList(list) ? ofItems(list, change) : list);
}

/** A list whose items that are there are changed; the first failure of one. */
export function ofItems(list: readonly Value[], change: Own): Value {
  const items = list.map((item) => (item === null ? null : change(item)));
  return items.find(isFailure) ?? items;
}

/** Work as a function of the value; failures go through, and null as its steps have it. Without work the value stays. */
export function worked(work: Work = []): Own {
  const parts = partsOfWork(work).map(runOf);
  if (parts.length === 1 && isStep(partsOfWork(work)[0])) return parts[0];
  return (value) => {
    let result = value;
    for (const run of parts) {
      if (isFailure(result)) return result;
      result = run(result);
    }
    return result;
  };
}
