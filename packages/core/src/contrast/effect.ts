import type { Origin, Program, Sample } from "../evaluate/index.ts";
import { walk } from "../syntax/index.ts";
import { type TextRange, type Value, isFailure, isList } from "../values/index.ts";
import { agree } from "./equal.ts";
import { showValue } from "./shown.ts";

/** The first place where two results differ, what stands there on each side, and which part of each expression it came from. */
export interface Effect {
  /** What differs: two texts, two lists, or values that are no two of these. */
  readonly of: "texts" | "lists" | "values";
  /** UTF-16 units of a text, items of a list, 0-based; 0 where the results are no texts and no lists. */
  readonly at: number;
  readonly left: string;
  readonly right: string;
  readonly from: readonly [TextRange, TextRange];
}

/** A program with its value on a row. */
export interface Outcome {
  readonly program: Program;
  readonly value: Value;
}

/** Where a stretch of a result stands in its expression: what made it, or the literal or column that it is. */
function placeOf({ by, from }: Origin, { tree, dialect }: Program): TextRange {
  if (by) return by;
  const [source] = from;
  if (source?.literal) return source.literal;
  const column = source?.column;
  const named = [...walk(tree)].find(
    (node) => node.kind === "name" && column !== undefined && dialect.namesColumn(node.name, column),
  );
  return (named ?? tree).range;
}

/** UTF-16 units of a text whose stretches are followed; of a longer one a piece of so many is shown, and all of the expression. */
const followed = { most: 20_000, shown: 40 };

/** The stretch of a text in which a place lies, or the last one, and where the place stands in the expression. */
interface Stretch {
  readonly start: number;
  readonly text: string;
  readonly from: TextRange;
  /** Whether a step made it, and not a column or a literal that stands there as it is: it counts as one. */
  readonly isMade: boolean;
}

function stretchAt({ program, value }: Outcome, sample: Sample, row: number, at: number): Stretch {
  const whole = value as string;
  const from = program.tree.range;
  if (whole.length > followed.most) return { start: at, text: whole.slice(at, at + followed.shown), from, isMade: false };
  const { stretches } = program.origins(sample, row);
  const found = stretches.find(({ range }) => at < range.end) ?? stretches.at(-1);
  if (!found) return { start: 0, text: "", from, isMade: true };
  return { start: found.range.start, text: found.text, from: placeOf(found, program), isMade: found.by !== undefined };
}

function firstDifference(left: string, right: string): number {
  let at = 0;
  while (at < left.length && left[at] === right[at]) at++;
  // A character of two units differs as a whole.
  return at > 0 && /[\udc00-\udfff]/.test((left[at] ?? "") + (right[at] ?? "")) ? at - 1 : at;
}

/** How many units two texts end with alike. */
function commonEnd(left: string, right: string): number {
  let size = 0;
  while (size < Math.min(left.length, right.length) && left.at(-1 - size) === right.at(-1 - size)) size++;
  return size > 0 && /[\udc00-\udfff]/.test(left[left.length - size]) ? size - 1 : size;
}

/** Where two texts differ: the stretch of each, UTF-16 units, between what they begin and what they end with alike. */
export function stretchesApart(left: string, right: string): readonly [TextRange, TextRange] {
  const start = firstDifference(left, right);
  const tail = commonEnd(left.slice(start), right.slice(start));
  return [
    { start, end: left.length - tail },
    { start, end: right.length - tail },
  ];
}

/** The place in the expression of a result that is no text: where a failure arose, or all of it. */
const wholeOf = ({ program, value }: Outcome): TextRange => (isFailure(value) && value.range ? value.range : program.tree.range);

/**
 * The first place where two results on a row differ.
 *
 * @param row 0-based
 */
export function effectOf(left: Outcome, right: Outcome, sample: Sample, row: number): Effect {
  const [a, b] = [left.value, right.value];
  if (typeof a === "string" && typeof b === "string") {
    const at = firstDifference(a, b);
    const [x, y] = [left, right].map((side) => stretchAt(side, sample, row, at));
    const start = x.start === y.start && x.start <= at && (x.isMade || y.isMade) ? x.start : at;
    // What is the same again at the end is no part of it.
    const tail = commonEnd(a.slice(at), b.slice(at));
    const shown = ({ start: begin, text }: typeof x, whole: string) =>
      whole.slice(start, Math.max(start, Math.min(begin + text.length, whole.length - tail)));
    return { of: "texts", at: start, left: shown(x, a), right: shown(y, b), from: [x.from, y.from] };
  }
  const from = [wholeOf(left), wholeOf(right)] as const;
  if (!isList(a) || !isList(b)) return { of: "values", at: 0, left: showValue(a), right: showValue(b), from };
  const at = Array.from({ length: Math.max(a.length, b.length) }, (_, i) => i).findIndex(
    (i) => a[i] === undefined || b[i] === undefined || !agree(a[i], b[i]),
  );
  const item = (list: readonly Value[]) => (at < list.length ? showValue(list[at]) : "no item");
  return { of: "lists", at, left: item(a), right: item(b), from };
}
