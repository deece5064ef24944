import { type Dialect, type Variable, isUnsteadyCall } from "../dialects/dialect.ts";
import { Failure, OverTime, type Value, isFailure, limitCodes, startClock, stopClock } from "../values/index.ts";
import { type Bound, once, partsOf, settle, withParts, isImplicit } from "./bound.ts";
import { emit } from "./emit.ts";
import { newFrame } from "./frame.ts";

/** Limits of ours and what is not covered are no errors of the dialect's. */
const isOurs = ({ code }: Failure): boolean => code === "not-covered" || limitCodes.has(code);

/**
 * The failure of a part that depends on no row, in a dialect that evaluates such parts before it looks at a row; undefined
 * where there is none. Of a choice and of AND and OR only what constants leave to be done is evaluated.
 */
export function constantFailure(root: Bound, dialect: Dialect, milliseconds: number): Failure | undefined {
  const bornAt = ({ source }: Bound, failure: Failure) => settle(failure, source.range, dialect) as Failure;

  /** The value of what depends on no row, the failure of a part of it, or undefined. */
  const fold: (bound: Bound) => { readonly value: Value } | Failure | undefined = once((bound) => {
    // A call of constants was worked out when it was bound.
    const isCalled = bound.source.kind === "call" && !isUnsteady(bound, dialect);
    const dropped = (bound.dropped ?? []).map(fold).find((each) => each instanceof Failure);
    if (dropped) return dropped;
    if (bound.kind === "constant")
      return isCalled && isFailure(bound.value) && !isOurs(bound.value) ? bornAt(bound, bound.value) : { value: bound.value };
    if (bound.kind === "column" || bound.kind === "variable") return undefined;
    const { source } = bound;
    if (source.kind === "choice" && bound.kind === "control") return foldChoice(bound.children);
    // A query is worked out when rows are, and so is which of two rows comes first.
    const isLater = source.kind === "query" || (bound.plain && source.kind === "call" && /^[<>]=?$/.test(source.name));
    const said = bound.plain ?? source;
    const isJoined = !isImplicit(bound) && said.kind === "call" && !isLater;
    const decisive = isJoined ? { and: false, or: true }[said.name] : undefined;
    const values: Value[] = [];
    const parts = partsOf(bound);
    for (const part of parts) {
      const folded = fold(part);
      if (folded instanceof Failure) return folded;
      if (folded && decisive !== undefined && folded.value === decisive) return folded;
      if (folded) values.push(folded.value);
    }
    // A constant that did not convert is an error of the rows that need it, unless all is constant.
    if (isLater || values.length < parts.length || isUnsteady(bound, dialect)) return undefined;
    const broken = values.findIndex(isFailure);
    if (broken >= 0) return bornAt(parts[broken], values[broken] as Failure);
    const value = emit(withValues(bound, values), newFrame(), dialect)(0);
    if (!(value instanceof Failure)) return { value };
    return isOurs(value) ? undefined : value;
  });

  /** Of a choice: its tests, as many results, and what is taken otherwise. Branches that no row takes are not among them. */
  function foldChoice(parts: readonly Bound[]): ReturnType<typeof fold> {
    const branches = Math.floor(parts.length / 2);
    let isSettled = true;
    for (let i = 0; i < branches; i++) {
      const test = fold(parts[i]);
      if (test instanceof Failure) return test;
      if (test && test.value !== true) continue;
      const result = fold(parts[branches + i]);
      if (result instanceof Failure || (test && isSettled)) return result;
      isSettled = false;
      if (test) return undefined;
    }
    const otherwise = parts.at(2 * branches);
    const last = otherwise ? fold(otherwise) : { value: null };
    return last instanceof Failure || isSettled ? last : undefined;
  }

  startClock(milliseconds);
  try {
    const folded = fold(root);
    return folded instanceof Failure ? folded : undefined;
  } catch (error) {
    // What is too much for the constants alone is too much for each row, which says so.
    if (error instanceof OverTime || error instanceof RangeError) return undefined;
    throw error;
  } finally {
    stopClock();
  }
}

/** Milliseconds that a constant part may take while an expression is bound. */
const patience = 100;

/** Whether a part that depends on no row is null, in a dialect that works such parts out before it looks at a row. */
export function isKnownNull(bound: Bound, dialect: Dialect): boolean {
  if (bound.kind === "constant") return bound.value === null;
  return !mayChange(bound, dialect) && constantValue(bound, dialect) === null;
}

/** The value of a part that depends on no row; undefined where it takes too long. */
export function constantValue(bound: Bound, dialect: Dialect): Value | undefined {
  startClock(patience);
  try {
    return emit(bound, newFrame(), dialect)(0);
  } catch (error) {
    if (error instanceof OverTime || error instanceof RangeError) return undefined;
    throw error;
  } finally {
    stopClock();
  }
}

/** What is known of parts that were asked about: each stands within all that are made of it. */
const known = new WeakMap<Bound, "changing" | readonly Variable[]>();

/** The variables that a part takes from around it; "changing" where it depends on the row, or on what the engine takes for changeable. */
function freeIn(bound: Bound, dialect: Dialect): "changing" | readonly Variable[] {
  const found = known.get(bound) ?? findFree(bound, dialect);
  known.set(bound, found);
  return found;
}

function findFree(bound: Bound, dialect: Dialect): "changing" | readonly Variable[] {
  if (bound.kind === "column" || isUnsteady(bound, dialect)) return "changing";
  if (bound.kind === "variable") return [bound.variable];
  const own = bound.kind === "control" && "variables" in bound.control ? bound.control.variables : [];
  const free: Variable[] = [];
  for (const part of partsOf(bound)) {
    const found = freeIn(part, dialect);
    if (found === "changing") return found;
    free.push(...found.filter((variable) => !own.includes(variable)));
  }
  return free;
}

function mayChange(bound: Bound, dialect: Dialect): boolean {
  const free = freeIn(bound, dialect);
  return free === "changing" || free.length > 0;
}

/** A sub-expression whose parts are constants. */
const withValues = (bound: Bound, values: readonly Value[]): Bound =>
  withParts(
    bound,
    partsOf(bound).map(({ type, source }, i) => ({ kind: "constant", value: values[i], type, source })),
  );

/** Whether the engine takes a function for one whose value may change, and leaves it to the rows. */
function isUnsteady(bound: Bound, { statements }: Dialect): boolean {
  if (!statements) return false;
  const { source } = bound;
  const types = partsOf(bound).map(({ type }) => type);
  if (source.kind === "cast" || isImplicit(bound))
    return statements.unsteady.has(`cast ${String(types[0])} to ${String(bound.type)}`);
  if (source.kind !== "call" || statements.inlined?.has(source.name)) return false;
  return isUnsteadyCall(source.name, types, statements);
}
