import { type OperationId, operationOf } from "../text/index.ts";
import { type Bound, type BoundOperation, unconverted } from "./bound.ts";

/**
 * Combinations of operations that are one operation: `LEFT(x; FIND(d; x) - 1)` is the segment
 * before a delimiter. Naming them lets them run in one step, and lets two dialects be compared
 * where they do the same job by other means.
 */
export function idiomOf(bound: Bound): (Bound & BoundOperation) | undefined {
  if (bound.kind !== "operation") return undefined;
  if (!known.has(bound)) known.set(bound, beforeDelimiter(bound) ?? oneJoin(bound));
  return known.get(bound);
}

const known = new WeakMap<Bound, (Bound & BoundOperation) | undefined>();

/** The same bound tree with its top in its idiom, where that gives the very same values and failures. */
export function faster(bound: Bound): Bound {
  return idiomOf(bound) ?? bound;
}

function inputsOf(bound: Bound | readonly Bound[] | undefined, id: OperationId): Readonly<Record<string, Bound>> | undefined {
  if (!bound || !("kind" in bound)) return undefined;
  const call = unconverted(bound);
  if (call.kind !== "operation" || call.operation !== id) return undefined;
  return Object.fromEntries(operationOf(id).slots.map((slot, i) => [slot.name, call.inputs[i] as Bound]));
}

const isConstant = (bound: Bound | undefined, value: unknown): boolean => bound?.kind === "constant" && bound.value === value;

const isSameColumn = (a: Bound | undefined, b: Bound | undefined): boolean =>
  a?.kind === "column" && b?.kind === "column" && a.column === b.column;

/** slice(x, 1, locate(x, d) − 1), where a delimiter that is not there is an error. */
function beforeDelimiter(bound: Bound & BoundOperation): (Bound & BoundOperation) | undefined {
  const sliced = inputsOf(bound, "slice");
  if (!sliced || bound.answers.from !== "start" || bound.answers.first !== "1" || !isConstant(sliced.start, 1)) return undefined;
  const length = inputsOf(sliced.length, "calculate");
  if (!length || !isConstant(length.sign, "-") || !isConstant(length.b, 1)) return undefined;
  const located = inputsOf(length.a, "locate");
  const call = unconverted(length.a);
  if (!located || located.start || call.kind !== "operation" || !isSameColumn(sliced.text, located.text)) return undefined;
  const { answers } = call;
  if (
    answers.absent !== "error" ||
    answers.pattern !== "literal" ||
    answers.case !== "minded" ||
    answers.unit !== bound.answers.unit
  )
    return undefined;
  return {
    ...bound,
    operation: "segment",
    answers: {
      missing: answers.missing,
      part: "before",
      zeroPiece: "empty",
      noPiece: "empty",
      absent: "error",
      emptyNeedle: "at the start",
      case: "minded",
    },
    fixed: {},
    inputs: [sliced.text, located.needle, undefined],
  };
}

/** join(join(a, b), c) with the same answers and no separator is join(a, b, c). */
function oneJoin(bound: Bound & BoundOperation): (Bound & BoundOperation) | undefined {
  const [items, ...rest] = bound.inputs;
  if (bound.operation !== "join" || !Array.isArray(items) || rest.some((input) => input !== undefined)) return undefined;
  const flat: Bound[] = [];
  const open = (item: Bound): void => {
    if (item.kind === "operation" && item.operation === "join" && item.row === bound.row && Array.isArray(item.inputs[0])) {
      (item.inputs[0] as readonly Bound[]).forEach(open);
    } else flat.push(item);
  };
  (items as readonly Bound[]).forEach(open);
  return flat.length > items.length ? { ...bound, inputs: [flat, ...rest] } : undefined;
}
