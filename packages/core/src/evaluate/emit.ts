import type { Answers } from "../traits/index.ts";
import type { Cell, CodeContext, Dialect } from "../dialects/dialect.ts";
import type { Expression } from "../syntax/index.ts";
import { type Kernel, type Slot, applyKernel, operationOf, textLimit } from "../text/index.ts";
import { Failure, type Value, isFailure } from "../values/index.ts";
import { type Bound, type BoundCode, type BoundOperation, dependsOnRow, isShared, settle } from "./bound.ts";
import { controlCell } from "./control.ts";
import { type Frame, spend } from "./frame.ts";
import { faster } from "./faster.ts";

/**
 * Is told the value of every sub-expression, and for operations the values in their slots; after it, what a conversion
 * made of it.
 */
export type Observer = (source: Expression, value: Value, bound: Bound, slots?: readonly (Value | undefined)[]) => void;

/** Makes the cell of a bound tree. Without an observer, known combinations are done in one step, and what is written twice once. */
export function emit(bound: Bound, frame: Frame, dialect: Dialect, observe?: Observer): Cell {
  const first = observe ? undefined : frame.common?.get(bound);
  if (!first && !isShared(bound)) return emitOnce(bound, frame, dialect, observe);
  const whole = first ?? bound;
  const cells = frame.cells[observe ? 0 : 1];
  const known = cells.get(whole) ?? remembered(emitOnce(whole, frame, dialect, observe), frame);
  cells.set(whole, known);
  return whole === bound ? known : elsewhere(bound, known, frame, dialect);
}

/** A part that has been evaluated in another place; a failure has its own. */
function elsewhere(bound: Bound, known: Cell, frame: Frame, dialect: Dialect): Cell {
  let own: Cell | undefined;
  return (row) => {
    const value = known(row);
    if (!isFailure(value)) return value;
    own ??= emitOnce(bound, frame, dialect);
    return own(row);
  };
}

/** A cell that is evaluated once for each row, however often it is asked. */
function remembered(cell: Cell, frame: Frame): Cell {
  let [turn, place] = [-1, -1];
  let value: Value = null;
  return (row) => {
    if (turn !== frame.turn || place !== row) {
      value = cell(row);
      [turn, place] = [frame.turn, row];
    }
    return value;
  };
}

/** A cell of what is the same on every row; a failure may come of what else the row did. */
function steady(cell: Cell): Cell {
  let known: Value = null;
  let isKnown = false;
  return (row) => {
    if (isKnown) return known;
    known = cell(row);
    isKnown = !isFailure(known);
    return known;
  };
}

function emitOnce(bound: Bound, frame: Frame, dialect: Dialect, observe?: Observer): Cell {
  const cell = emitPlain(observe ? bound : faster(bound), frame, dialect, observe);
  if (!observe && bound.kind !== "constant" && !dependsOnRow(bound)) return steady(cell);
  if (!observe || bound.kind === "operation" || (bound.kind === "constant" && bound.by)) return cell;
  return (row) => {
    const value = cell(row);
    observe(bound.source, value, bound);
    return value;
  };
}

function emitPlain(bound: Bound, frame: Frame, dialect: Dialect, observe?: Observer): Cell {
  switch (bound.kind) {
    case "constant": {
      if (observe && bound.by) return emit(bound.by, frame, dialect, observe);
      const { value } = bound;
      return () => value;
    }
    case "column": {
      const { columns } = frame;
      const { column } = bound;
      return (row) => columns[column][row];
    }
    case "variable": {
      const { variable } = bound;
      return () => variable.value;
    }
    case "control": {
      const cells = bound.children.map((child) => emit(child, frame, dialect, observe));
      return controlCell(bound.control, cells, bound.source.range, frame, dialect);
    }
    case "code": {
      const cells = bound.children.map((child) => emit(child, frame, dialect, observe));
      return codeCell(bound, cells, frame, dialect);
    }
    case "operation":
      return observe ? emitObserved(bound, frame, dialect, observe) : emitOperation(bound, frame, dialect);
  }
}

/** What code of a dialect's own may ask about the call that it carries out. */
function contextOf({ source, given, isCondition }: Bound & BoundCode, frame: Frame): CodeContext {
  return {
    types: given.map(({ type }) => type),
    args: given.map((arg) => arg.source),
    range: source.range,
    constant: (i) => (given[i]?.kind === "constant" ? given[i].value : undefined),
    steady: (i) => given[i] !== undefined && !dependsOnRow(given[i]),
    isCondition,
    column: (i) => {
      const arg = given[i];
      if (arg?.kind !== "column") return undefined;
      return () => {
        frame.readsWholeColumns = true;
        return frame.columns[arg.column];
      };
    },
    spend: (count) => spend(frame, count),
  };
}

function codeCell(bound: Bound & BoundCode, cells: readonly Cell[], frame: Frame, dialect: Dialect): Cell {
  const { code } = bound;
  const { range } = bound.source;
  const context = contextOf(bound, frame);
  if ("lazy" in code) {
    const cell = code.lazy(cells, context);
    return (row) => settle(cell(row), range, dialect);
  }
  if ("one" in code) {
    const [cell] = cells;
    return (row) => {
      const value = cell(row);
      return value === null ? null : settle(isFailure(value) ? value : code.one(value), range, dialect);
    };
  }
  return (row) => {
    const values: Value[] = [];
    let missing = false;
    for (const cell of cells) {
      const value = cell(row);
      if (isFailure(value)) return settle(value, range, dialect);
      missing ||= value === null;
      values.push(value);
    }
    return missing && code.strict ? null : settle(code.run(values, context), range, dialect);
  };
}

/** What the first value of an operation comes to by itself, where it may. */
const settlerOf = ({ operation, answers, fixed }: BoundOperation) => operationOf(operation).settles?.(answers as Answers, fixed);

/** The kernel of a bound operation, perhaps with other answers. */
export function kernelOf(bound: BoundOperation, answers = bound.answers): Kernel {
  return operationOf(bound.operation).prepare(answers as Answers, bound.fixed);
}

/** The kernel for what the types of the first two slots are known to hold, where both hold the same and there is such a one. */
function narrowedKernelOf(bound: BoundOperation, { types: { kinds } }: Dialect): Kernel | undefined {
  const [first, second] = bound.inputs;
  if (!kinds || !first || !second || isMany(first) || isMany(second)) return undefined;
  const kind = kinds[first.type.name];
  return kind && kind === kinds[second.type.name]
    ? operationOf(bound.operation).narrowed?.(bound.answers as Answers, bound.fixed, kind)
    : undefined;
}

function emitObserved(bound: Bound & BoundOperation, frame: Frame, dialect: Dialect, observe: Observer): Cell {
  const { slots: kinds } = operationOf(bound.operation);
  const kernel = kernelOf(bound);
  const inputs = bound.inputs.map((input, i) => input && inputCell(input, kinds[i], frame, dialect, observe));
  const stops = stopsAtNull(bound, dialect);
  const settledBy = settlerOf(bound);
  return (row) => {
    const first = inputs[0]?.(row);
    const early = first === undefined ? undefined : settledBy?.(first);
    const slots = [first, ...inputs.slice(1).map((cell) => (early === undefined ? cell?.(row) : undefined))];
    const known = stops && first === null ? null : early;
    const result = known === undefined ? applyKernel(kernel, slots, kinds, bound.answers.missing) : known;
    const value = settle(result, bound.source.range, dialect);
    observe(bound.source, value, bound, slots);
    return value;
  };
}

const stopsAtNull = ({ operation }: BoundOperation, { types }: Dialect): boolean =>
  types.nullStops === true && operation === "compare";

function isMany(input: Bound | readonly Bound[]): input is readonly Bound[] {
  return Array.isArray(input);
}

/** The cell of one slot. */
function inputCell(input: Bound | readonly Bound[], { kind }: Slot, frame: Frame, dialect: Dialect, observe?: Observer): Cell {
  if (!isMany(input)) return emit(input, frame, dialect, observe);
  return listed(
    input.map((item) => emit(item, frame, dialect, observe)),
    kind === "texts",
    observe !== undefined,
  );
}

/** The values of a slot of many as a list, lists among them opened where `isFlat`; used again on the next row unless it is `kept`. */
function listed(cells: readonly Cell[], isFlat: boolean, kept: boolean): Cell {
  const list: Value[] = new Array<Value>(cells.length).fill(null);
  return (row) => {
    let failure: Failure | undefined;
    let hasLists = false;
    for (let i = 0; i < cells.length; i++) {
      const value = cells[i](row);
      if (typeof value === "object" && value !== null) {
        if (value instanceof Failure) failure ??= value;
        else if (Array.isArray(value)) {
          hasLists = isFlat;
          failure ??= (value as readonly Value[]).find(isFailure);
        }
      }
      list[i] = value;
    }
    return failure ?? (hasLists ? list.flat() : kept ? list.slice() : list);
  };
}

/** Texts side by side need no list on the way; where one of them is no text, `otherwise` sees to the row. */
function concatenated(cells: readonly Cell[], otherwise: Cell): Cell {
  return (row) => {
    let result = "";
    for (const cell of cells) {
      const value = cell(row);
      if (typeof value !== "string") return otherwise(row);
      result += value;
    }
    return result.length > textLimit ? otherwise(row) : result;
  };
}

type Kernel1 = (a: Value) => Value;
type Kernel2 = (a: Value, b: Value) => Value;
type Kernel3 = (a: Value, b: Value, c: Value) => Value;

/** Whether a value goes no further than its slot, unless the answers say what it counts as: one that is missing or failed. */
const isOdd = (value: Value | undefined): boolean => typeof value === "object" && (value === null || value instanceof Failure);

/** The cell of an operation. What is missing or failed is looked at with care; all else goes straight to the kernel. */
function emitOperation(bound: Bound & BoundOperation, frame: Frame, dialect: Dialect): Cell {
  const { slots: kinds } = operationOf(bound.operation);
  const { missing } = bound.answers;
  const { range } = bound.source;
  const kernel = narrowedKernelOf(bound, dialect) ?? kernelOf(bound);
  const inputs = [...bound.inputs];
  while (inputs.length > 0 && (inputs[inputs.length - 1] === undefined || kinds[inputs.length - 1].settled)) inputs.pop();
  const [first] = inputs;
  // Texts side by side are made by one of two ways, of the same cells.
  const items =
    inputs.length === 1 && bound.operation === "join" && first && isMany(first)
      ? first.map((item) => emit(item, frame, dialect))
      : undefined;
  const cells = items ? [undefined] : inputs.map((input, i) => input && inputCell(input, kinds[i], frame, dialect));
  const constants = inputs.map((input) => (input && !isMany(input) && input.kind === "constant" ? input.value : undefined));
  const careful = (slots: readonly (Value | undefined)[]) => settle(applyKernel(kernel, slots, kinds, missing), range, dialect);
  const done = (value: Value) => (typeof value === "object" && value instanceof Failure ? settle(value, range, dialect) : value);
  const isKnown = (value: Value | undefined) => value !== undefined && !isOdd(value);
  const [a, b, c] = cells as Cell[];

  if (cells.length === 1) {
    const run = kernel as Kernel1;
    const one =
      (cell: Cell): Cell =>
      (row) => {
        const x = cell(row);
        return isOdd(x) ? careful([x]) : done(run(x));
      };
    return items ? concatenated(items, one(listed(items, true, false))) : one(a);
  }
  if (cells.length === 2 && a && b) {
    const run = kernel as Kernel2;
    const settledBy = settlerOf(bound);
    if (settledBy)
      return (row) => {
        const x = a(row);
        const early = settledBy(x);
        return done(early === undefined ? run(x, b(row)) : early);
      };
    const y = constants[1];
    if (isKnown(y)) {
      return (row) => {
        const x = a(row);
        return isOdd(x) ? careful([x, y]) : done(run(x, y!));
      };
    }
    const stops = stopsAtNull(bound, dialect);
    return (row) => {
      const x = a(row);
      if (x === null && stops) return null;
      const z = b(row);
      return isOdd(x) || isOdd(z) ? careful([x, z]) : done(run(x, z));
    };
  }
  if (cells.length === 3 && a && b && c) {
    const run = kernel as Kernel3;
    const [, y, z] = constants;
    if (isKnown(y) && isKnown(z)) {
      return (row) => {
        const x = a(row);
        return isOdd(x) ? careful([x, y, z]) : done(run(x, y!, z!));
      };
    }
    return (row) => {
      const x = a(row);
      const p = b(row);
      const q = c(row);
      return isOdd(x) || isOdd(p) || isOdd(q) ? careful([x, p, q]) : done(run(x, p, q));
    };
  }
  const run = kernel as (...slots: readonly (Value | undefined)[]) => Value;
  return (row) => {
    const slots = cells.map((cell) => cell?.(row));
    return slots.some(isOdd) ? careful(slots) : done(run(...slots));
  };
}
