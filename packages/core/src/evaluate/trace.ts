import type { Dialect } from "../dialects/dialect.ts";
import { type Expression, childrenOf } from "../syntax/index.ts";
import { type Family, operationOf } from "../text/index.ts";
import { Decimal, Double, type TextRange, type Value, isFailure, sameRange } from "../values/index.ts";
import type { BoundOperation } from "./bound.ts";
import type { Observer } from "./emit.ts";
import { piecesOf } from "./origins.ts";

/** One sub-expression on one row. */
export interface TraceStep {
  readonly range: TextRange;
  readonly text: string;
  /** How deep it is nested; the whole expression has 0. */
  readonly depth: number;
  /** Its values: one, or one for each turn of a loop; none when it was not needed. */
  readonly values: readonly Value[];
  /** Whether its error value was born here, and not in one of its parts. */
  readonly born: boolean;
  /** What the value of its last turn was turned into before it was used, where that is another. */
  readonly became?: Change;
  /** For an extraction: the text that it took a part of, and which part (of its last turn in a loop). */
  readonly taken?: Taken;
}

/** The stretch of its text that an extraction took, for marking it. */
export interface Taken {
  readonly text: string;
  /** UTF-16 offsets in `text`. */
  readonly range: TextRange;
}

/** A value that was converted without being asked: a text read as a number or a date, a number written as a text, and others. */
export interface Change {
  readonly how: "read" | "written" | "taken";
  readonly value: Value;
}

/** Keeps the values of sub-expressions while a row is evaluated, and tells them as steps. */
export class Trace {
  readonly #dialect: Dialect;
  readonly #seen = new Map<Expression, Seen>();

  constructor(dialect: Dialect) {
    this.#dialect = dialect;
  }

  readonly observe: Observer = (node, value, step, slots) => {
    const known = this.#seen.get(node);
    if ("implicit" in step && step.implicit) {
      if (known) known.became = changeOf(known.values.at(-1)!, value, this.#dialect) ?? known.became;
      return;
    }
    if (known && "afterwards" in step && step.afterwards) {
      known.values[known.values.length - 1] = value;
      known.taken = undefined;
      return;
    }
    // Which stretch it took is found out only where it is asked for.
    const taken = step.kind === "operation" && slots ? () => stretchTaken(step, slots, value) : undefined;
    if (known) {
      known.values.push(value);
      known.taken = taken;
      known.became = undefined;
    } else this.#seen.set(node, { values: [value], taken, became: undefined });
  };

  steps(tree: Expression, source: string): TraceStep[] {
    return traceSteps(tree, source, this.#seen, this.#dialect);
  }
}

interface Seen {
  readonly values: Value[];
  /** Of the last turn. */
  taken: (() => Taken | undefined) | undefined;
  became: Change | undefined;
}

const isText = (value: Value): boolean => typeof value === "string";

const numberOf = (value: Value): number =>
  value instanceof Double ? value.value : value instanceof Decimal ? value.toNumber() : Number(value);

/** The change from one value to another; undefined where it is the same value, or a number written as it is shown. */
function changeOf(from: Value, to: Value, { plain }: Pick<Dialect, "plain">): Change | undefined {
  if (from === null || to === null || isFailure(to) || Array.isArray(to) || from === to) return undefined;
  if (isText(from)) return { how: isText(to) ? "taken" : "read", value: to };
  if (isText(to)) return String(plain(from)) === to ? undefined : { how: "written", value: to };
  return Object.is(numberOf(from), numberOf(to)) ? undefined : { how: "taken", value: to };
}

const extracting: ReadonlySet<Family> = new Set<Family>(["extract", "locate", "trim"]);

/** The one stretch of its text that an extraction gave, where it is one. */
function stretchTaken(step: BoundOperation, slots: readonly (Value | undefined)[], value: Value): Taken | undefined {
  const [text] = slots;
  const { family } = operationOf(step.operation);
  if (typeof text !== "string" || typeof value !== "string" || !extracting.has(family)) return undefined;
  // A trim that found nothing to remove is not worth a mark.
  if (family === "trim" && value === text) return undefined;
  const pieces = piecesOf(step, slots);
  const [piece] = pieces ?? [];
  return pieces?.length === 1 && piece.slot === 0 && piece.range && !piece.changed ? { text, range: piece.range } : undefined;
}

function traceSteps(root: Expression, source: string, seen: ReadonlyMap<Expression, Seen>, dialect: Dialect): TraceStep[] {
  const result: TraceStep[] = [];
  const told = new Set<Expression>();
  const visit = (node: Expression, depth: number): void => {
    // What is compared twice is told once.
    if (told.has(node)) return;
    told.add(node);
    if (node.kind === "group") {
      visit(node.inner, depth);
      return;
    }
    const { values: found = [], taken, became: made } = seen.get(node) ?? {};
    // A literal that another type is wanted for was converted before any row.
    const early = node.kind === "literal" && found.length > 0 ? changeOf(node.value, found[0], dialect) : undefined;
    const [values, became] = node.kind === "literal" && early ? [[node.value], early] : [found, made];
    result.push({
      range: node.range,
      text: source.slice(node.range.start, node.range.end),
      depth,
      values,
      born: values.some((value) => isFailure(value) && sameRange(value.range, node.range)),
      ...(became && { became }),
      get taken() {
        return taken?.();
      },
    });
    for (const child of childrenOf(node)) visit(child, depth + 1);
  };
  visit(root, 0);
  return result;
}
