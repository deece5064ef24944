import type { Bound, BoundOperation } from "./bound.ts";
import { recognised } from "./idiom.ts";
import { idioms } from "./idioms.ts";

const known = new WeakMap<Bound, Bound>();

/**
 * The same bound tree with its top done in one step, where several operations are one that gives the very same values and
 * failures: `LEFT(x; FIND(d; x) - 1)` is the segment before a delimiter.
 */
export function faster(bound: Bound): Bound {
  if (bound.kind !== "operation") return bound;
  const found = known.get(bound) ?? ofColumns(bound) ?? oneJoin(bound) ?? bound;
  known.set(bound, found);
  return found;
}

const exact = idioms.filter((idiom) => idiom.exact).map(recognised);

/** An idiom of texts that stand in columns: what is worked out is not worked out twice. */
function ofColumns(bound: Bound): Bound | undefined {
  for (const recognise of exact) {
    const found = recognise(bound, () => []);
    if (found && found.inputs.flat()[0]?.kind === "column") return found;
  }
  return undefined;
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
