import type { Cell, Dialect, Variable } from "../dialects/dialect.ts";
import { ofItems, worked } from "../dialects/step.ts";
import type { Binding } from "../syntax/index.ts";
import { Failure, FunctionItem, type TextRange, type Value, isFailure, isList, limitCodes, sameRange } from "../values/index.ts";
import { type Control, settle } from "./bound.ts";
import { type Frame, spend } from "./frame.ts";
import { anyType, conditionType } from "../dialects/types.ts";

/** Calls of function items that may be under way at once. */
const callDepth = 200;

/** Runs `body` with the variables set, and sets them back; so a function may be called within itself. */
export function within<T>(variables: readonly Variable[], values: readonly Value[], body: () => T): T {
  const before: Value[] = [];
  for (let i = 0; i < variables.length; i++) {
    before.push(variables[i].value);
    variables[i].value = values[i];
  }
  const result = body();
  for (let i = 0; i < variables.length; i++) variables[i].value = before[i];
  return result;
}

/** The item of each list at an index, for a body that is done once for each; what is no list is the same for all. */
export const itemsAt = (lists: readonly Value[], index: number): Value[] =>
  lists.map((list) => (Array.isArray(list) ? ((list as readonly Value[])[index] ?? null) : list));

/** How often a body is done for lists. */
export const longestOf = (lists: readonly Value[]): number =>
  Math.max(...lists.map((list) => (Array.isArray(list) ? list.length : 1)));

/** Which failures are caught; what is not covered and our own limits are no errors of the dialect's. */
export function caughtBy(caught: "own" | "not available" | "all", range: TextRange): (failure: Failure) => boolean {
  return (failure) => {
    if (failure.code === "not-covered" || limitCodes.has(failure.code)) return false;
    return caught === "all" || (caught === "own" ? sameRange(failure.range, range) : failure.standard === notAvailable);
  };
}

/** The place of the child that a number chooses among so many, itself the first; beyond them where there is none. */
export function placeOf(number: Value, size: number): number {
  const place = Math.trunc(Number(number));
  return place >= 1 ? place : size;
}

/** What OpenDocument calls a value that is not there. */
export const notAvailable = "#N/A";

/** Makes the cell of control from those of its children. */
export function controlCell(control: Control, cells: readonly Cell[], range: TextRange, frame: Frame, dialect: Dialect): Cell {
  const { types } = dialect;
  const [first, second] = cells;
  switch (control.form) {
    case "choice":
      return choiceCell(cells.slice(0, control.tests), cells.slice(control.tests));
    case "list":
      return (row) => {
        const values = cells.map((cell) => cell(row));
        // Where functions of arrays see each item, errors are items too.
        const failure = types.liftsArrays ? undefined : values.find(isFailure);
        return failure ?? types.list(control.written, values);
      };
    case "let":
      return (row) => {
        const value = first(row);
        return isFailure(value) ? value : within(control.variables, [value], () => second(row));
      };
    case "for":
    case "each":
      return loopCell(control.variables, first, second, frame, dialect);
    case "some":
    case "every":
      return quantifiedCell(control.form, control.variables, first, second, frame, dialect);
    case "filter":
      return filterCell(control.variables, control.isAlike, first, second, frame, dialect);
    case "lift":
      return (row) => {
        const lists = cells.slice(1).map((list) => list(row));
        const bodyOf = (i: number) => within(control.variables, itemsAt(lists, i), () => first(row));
        return Array.from({ length: longestOf(lists) }, (_, i) => bodyOf(i));
      };
    case "items":
      return (row) => {
        const list = first(row);
        return isList(list) ? ofItems(list, (item) => within(control.variables, [item], () => second(row))) : list;
      };
    case "function":
      return functionCell(control, first, frame);
    case "apply":
      return (row) => {
        const item = first(row);
        if (isFailure(item)) return item;
        const values = cells.slice(1).map((cell) => cell(row));
        return settle(values.find(isFailure) ?? spend(frame, 1) ?? types.apply!(item, values), range, dialect);
      };
    case "recover": {
      const isCaught = caughtBy(control.caught, range);
      return (row) => {
        const value = first(row);
        if (!isFailure(value) || !isCaught(value)) return value;
        return second ? second(row) : null;
      };
    }
    case "first-present":
      return (row) => {
        for (const cell of cells) {
          const value = cell(row);
          if (value !== null) return value;
        }
        return null;
      };
    case "nth":
      return (row) => {
        const n = first(row);
        if (isFailure(n)) return n;
        const chosen = cells.at(placeOf(n, cells.length));
        if (chosen) return chosen(row);
        return control.none === "null" ? null : settle(new Failure("bad-index", { index: n }), range, dialect);
      };
    case "unless-failing":
      return (row) => {
        const others = cells.slice(1).map((cell) => cell(row));
        return others.find(isFailure) ?? first(row);
      };
    case "unless-null": {
      const last = cells[cells.length - 1];
      const others = cells.slice(0, -1);
      return (row) => (others.some((cell) => cell(row) === null) ? null : last(row));
    }
    case "overload": {
      const open = cells.slice(2);
      return (row) => (open.every((cell) => types.onRow!.holds(cell(row))) ? second(row) : first(row));
    }
    case "query":
      return first;
  }
}

/** The first result whose condition holds; the last result beyond the conditions is the fallback. */
function choiceCell(conditions: readonly Cell[], results: readonly Cell[]): Cell {
  return (row) => {
    for (let i = 0; i < conditions.length; i++) {
      const truth = conditions[i](row);
      if (truth === true) return results[i](row);
      if (isFailure(truth)) return truth;
    }
    return results.length > conditions.length ? results[results.length - 1](row) : null;
  };
}

/**
 * Does a body for the items in turn, with the variables set to the item, its position and how many there are, until it gives
 * a value; sets the variables back.
 */
function untilFound(
  variables: readonly Variable[],
  items: readonly Value[],
  body: (item: Value, index: number) => Value | undefined,
): Value | undefined {
  const [item, position, size] = variables;
  const before = variables.map(({ value }) => value);
  let found: Value | undefined;
  for (let i = 0; i < items.length && found === undefined; i++) {
    item.value = items[i];
    if (position) position.value = i + 1;
    if (size) size.value = items.length;
    found = body(items[i], i);
  }
  for (let i = 0; i < variables.length; i++) variables[i].value = before[i];
  return found;
}

/** A body for each item of a value. */
function loopCell(variables: readonly Variable[], from: Cell, inner: Cell, frame: Frame, { types }: Dialect): Cell {
  return (row) => {
    const value = from(row);
    if (isFailure(value)) return value;
    const items = types.items!(value);
    const results = new Array<Value>(items.length);
    const failure = untilFound(variables, items, (_, i) => {
      const result = (results[i] = spend(frame, 1) ?? inner(row));
      return isFailure(result) ? result : undefined;
    });
    return failure ?? types.sequence!(results);
  };
}

/** Whether a body is true for some item of a value, or for every one. */
function quantifiedCell(
  form: Binding["form"],
  variables: readonly Variable[],
  from: Cell,
  inner: Cell,
  frame: Frame,
  { types }: Dialect,
): Cell {
  const isTrue = worked(types.conversion(anyType, conditionType)?.convert);
  const settling = form === "some";
  return (row) => {
    const value = from(row);
    if (isFailure(value)) return value;
    const settled = untilFound(variables, types.items!(value), () => {
      const result = spend(frame, 1) ?? inner(row);
      const truth = isFailure(result) ? result : isTrue(result);
      return isFailure(truth) ? truth : (truth === true) === settling ? settling : undefined;
    });
    return settled ?? !settling;
  };
}

/** The items for which a predicate holds, which is evaluated once where it `isAlike` for all of them. */
function filterCell(
  variables: readonly Variable[],
  isAlike: boolean,
  from: Cell,
  inner: Cell,
  frame: Frame,
  { types }: Dialect,
): Cell {
  return (row) => {
    const value = from(row);
    if (isFailure(value)) return value;
    // Mostly one item is kept, which needs no list.
    let [first, count]: [Value, number] = [null, 0];
    let kept: Value[] | undefined;
    let answer: Value = null;
    const failure = untilFound(variables, types.items!(value), (item, i) => {
      if (i === 0 || !isAlike) answer = spend(frame, 1) ?? inner(row);
      const keep = isFailure(answer) ? answer : types.filter!(answer, i + 1);
      if (typeof keep !== "boolean") return keep;
      if (keep && count++ === 0) first = item;
      else if (keep) (kept ??= [first]).push(item);
      return undefined;
    });
    return failure ?? (kept ? types.sequence!(kept) : first);
  };
}

function functionCell(
  { name, variables, outer }: Extract<Control, { readonly form: "function" }>,
  inner: Cell,
  frame: Frame,
): Cell {
  return (row) => {
    const captured = outer.map((variable) => variable.value);
    return new FunctionItem(name, variables.length, (args) => {
      const spent = spend(frame, 1);
      if (spent) return spent;
      if (frame.depth >= callDepth) return new Failure("calls-too-deep", { limit: callDepth });
      frame.depth++;
      const result = within([...outer, ...variables], [...captured, ...args], () => inner(row));
      frame.depth--;
      return result;
    });
  };
}
