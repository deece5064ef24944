import type { Code, Dialect, Variable } from "../dialects/dialect.ts";
import type { FunctionRow } from "../dialects/row.ts";
import type { Binding, Expression, ListExpression } from "../syntax/index.ts";
import { type OperationId, operationOf } from "../text/index.ts";
import { Failure, type TextRange, type Value, isFailure } from "../values/index.ts";
import type { Type } from "../dialects/types.ts";

/** A sub-expression with its names and types resolved. */
export type Bound = {
  readonly source: Expression;
  readonly type: Type;
  /** What a comparison of rows, or with a query, comes to in single values. */
  readonly plain?: Expression;
  /** What is written in it and not needed: the arguments of a call that is null whatever they are, say. */
  readonly dropped?: readonly Bound[];
} & (
  | {
      readonly kind: "constant";
      readonly value: Value;
      /** What it was made by, which is carried out again only where someone watches. */
      readonly by?: Bound;
    }
  | { readonly kind: "column"; readonly column: number }
  | { readonly kind: "variable"; readonly variable: Variable }
  | BoundOperation
  | {
      /** What decides which of its parts are evaluated, how often, and what becomes of their values. */
      readonly kind: "control";
      readonly control: Control;
      readonly children: readonly Bound[];
      /** Done without being written: the items of a list converted. */
      readonly implicit?: true;
    }
  | BoundCode
);

/** An operation that is carried out; `inputs` has one entry for each slot, a list for a slot of many. */
export interface BoundOperation {
  readonly kind: "operation";
  /** The function that is called; left out for conversions. */
  readonly row?: FunctionRow;
  /** Done without being written: a conversion of what `source` is, or on the way to it. */
  readonly implicit?: true;
  /** What is done to the result of the function, whose result is what comes of it. */
  readonly afterwards?: true;
  readonly operation: OperationId;
  readonly answers: Readonly<Record<string, string>>;
  readonly fixed: Readonly<Record<string, Value>>;
  readonly inputs: readonly (Bound | readonly Bound[] | undefined)[];
}

/** A function that is carried out by code of the dialect's own. */
export interface BoundCode {
  readonly kind: "code";
  readonly code: Code;
  /** The arguments as they were given, before any conversion. */
  readonly given: readonly Bound[];
  readonly children: readonly Bound[];
  /** Done without being written. */
  readonly implicit?: true;
  /** Whether nothing is asked but which rows it holds for. */
  readonly isCondition: boolean;
}

/** The kinds of control, with what each needs beside its children. */
export type Control =
  /** So many tests, as many results, and perhaps what is taken otherwise: the result of the first test that is true. */
  | { readonly form: "choice"; readonly tests: number }
  /** Its children as a list. */
  | { readonly form: "list"; readonly written: Exclude<ListExpression["form"], "row"> }
  /** A value, and a body for it or for each of its items: the variables are the item, and perhaps its position and how many there are. */
  | { readonly form: Binding["form"]; readonly variables: readonly Variable[] }
  /** A value and a predicate, which decides which items are kept; it may be `isAlike` for all of them. */
  | { readonly form: "filter"; readonly variables: readonly Variable[]; readonly isAlike: boolean }
  /** A body, once for each item of the lists after it, which the variables are in turn. */
  | { readonly form: "lift"; readonly variables: readonly Variable[] }
  /** A body as a function of the variables; `outer` are those it sees from where it stands. */
  | {
      readonly form: "function";
      readonly name: string;
      readonly variables: readonly Variable[];
      readonly outer: readonly Variable[];
    }
  /** A list, and a body for each of its items that are there. */
  | { readonly form: "items"; readonly variables: readonly Variable[] }
  /** A function item and its arguments. */
  | { readonly form: "apply" }
  /** What is taken instead where a value fails: by itself and not by what is in it, by what is not available, or by anything. */
  | { readonly form: "recover"; readonly caught: "own" | "not available" | "all" }
  /** The first child that is not null. */
  | { readonly form: "first-present" }
  /** A number, counted from 1, and the values that it chooses among. */
  | { readonly form: "nth"; readonly none: "null" | "error" }
  /** The first child, unless one of the others fails. */
  | { readonly form: "unless-failing" }
  /** The last child, unless one of the others is null. */
  | { readonly form: "unless-null" }
  /** A call by two overloads: by the second where all further children are of the type that is known on the row. */
  | { readonly form: "overload" }
  /** The one value of a query. */
  | { readonly form: "query" };

export const controlled = (control: Control, source: Expression, type: Type, children: readonly Bound[]): Bound => ({
  kind: "control",
  control,
  source,
  type,
  children,
});

/** What a sub-expression is made of. */
export function partsOf(bound: Bound): readonly Bound[] {
  switch (bound.kind) {
    case "constant":
      return bound.dropped ?? [];
    case "control":
    case "code":
      return bound.children;
    case "operation":
      return bound.inputs.flat().filter((input) => input !== undefined);
  }
  return [];
}

/** The same with other parts, as `partsOf` has them in turn. */
export function withParts(bound: Bound, parts: readonly Bound[]): Bound {
  switch (bound.kind) {
    case "control":
    case "code":
      return { ...bound, children: parts };
    case "operation": {
      let used = 0;
      const inputs = bound.inputs.map((input) => input && ("kind" in input ? parts[used++] : input.map(() => parts[used++])));
      return { ...bound, inputs };
    }
  }
  return bound;
}

/** A tree in which some parts have others in their place, and those their own parts so, too; what holds none of them stays the very same. */
export function replaced(root: Bound, changes: ReadonlyMap<Bound, Bound>): Bound {
  const made = new Map<Bound, Bound>();
  const visit = (given: Bound): Bound => {
    const known = made.get(given);
    if (known) return known;
    const bound = changes.get(given) ?? given;
    // What a constant was worked out from stands in its place where that has changed.
    const by = bound.kind === "constant" ? bound.by : undefined;
    const parts = bound.kind === "constant" ? [] : partsOf(bound);
    const changed = parts.map(visit);
    const other = by && visit(by);
    const isChanged = changed.some((part, i) => part !== parts[i]);
    const result = other && other !== by ? other : isChanged ? withParts(bound, changed) : bound;
    made.set(given, result);
    return result;
  };
  return visit(root);
}

/** Whether something is done without being written. */
export const isImplicit = (bound: Bound): boolean => "implicit" in bound && bound.implicit === true;

/** What a value was before it was converted without being asked. */
export function unconverted(bound: Bound): Bound {
  return isImplicit(bound) ? unconverted(partsOf(bound)[0]) : bound;
}

/** Sub-expressions that stand in more than one place: `x between a and b` compares x twice. */
const shared = new WeakSet<Bound>();
export const isShared = (bound: Bound): boolean => shared.has(bound);
export const share = (bound: Bound): void => void shared.add(bound);

/** A question about a sub-expression that is asked once of each, however many places it stands in. */
export function once<T>(ask: (bound: Bound) => T): (bound: Bound) => T {
  const known = new WeakMap<Bound, { readonly answer: T }>();
  return (bound) => {
    const found = known.get(bound) ?? { answer: ask(bound) };
    known.set(bound, found);
    return found.answer;
  };
}

/** Whether a part is worked out row by row, as queries are, too. */
export const dependsOnRow: (bound: Bound) => boolean = once(
  (bound) =>
    bound.kind === "column" || bound.kind === "variable" || bound.source.kind === "query" || partsOf(bound).some(dependsOnRow),
);

/** A part and all that it is made of, each once however many places it stands in; nothing of what `isOpened` says no to. */
export function allPartsOf(root: Bound, isOpened: (bound: Bound) => boolean = () => true): Bound[] {
  const found = new Set([root]);
  for (const part of found) if (isOpened(part)) for (const inner of partsOf(part)) found.add(inner);
  return [...found];
}

/** Whether a part may give what it is made of as it is. */
export const handsOn = (bound: Bound): boolean =>
  bound.kind === "control" ||
  bound.kind === "code" ||
  (bound.kind === "operation" && operationOf(bound.operation).result === "given");

/** Whether what a part gives may be of a type: where it has it, or hands on what does. */
export const mayBeOf = (type: Type, bound: Bound): boolean => allPartsOf(bound, handsOn).some((part) => part.type === type);

/** Whether what a part gives depends on a variable. */
export const dependsOn = (bound: Bound, variable: Variable): boolean =>
  allPartsOf(bound).some((part) => part.kind === "variable" && part.variable === variable);

/** Whether a part is a failure, whatever the row. */
export const isBroken = (bound: Bound): boolean => bound.kind === "constant" && isFailure(bound.value);

/** A failure gets the place where it was born and the code that the dialect gives it. */
export function settle(value: Value, range: TextRange, dialect: Dialect): Value {
  if (!(value instanceof Failure) || value.range) return value;
  const standard = dialect.standardCode(value.code, value.facts);
  return (standard ? value.named(standard) : value).at(range);
}
