import { type TextRange, type Value, tick } from "../values/index.ts";

/**
 * What a stretch of a result was made from: the value of a column, by its name, or a literal, by its place in the
 * expression; and the stretch of it in UTF-16 units, which is left out where it is no text.
 */
export type Source =
  | { readonly column: string; readonly literal?: undefined; readonly range?: TextRange }
  | { readonly literal: TextRange; readonly column?: undefined; readonly range?: TextRange };

/** A stretch of a result with where it came from. */
export interface Origin {
  readonly text: string;
  /** UTF-16 units of the result, of a list in its item. */
  readonly range: TextRange;
  /** The item of a result that is a list, 0-based. */
  readonly item?: number;
  /** Where its characters stand; several where it was made from several, none where a function put it in by itself. */
  readonly from: readonly Source[];
  /** The sub-expression that made it; left out where it stands in its source as it is. */
  readonly by?: TextRange;
}

/** What of a column's text is in no stretch of a result. */
export interface Dropped {
  readonly column: string;
  /** UTF-16 units of its text. */
  readonly range: TextRange;
  readonly text: string;
}

/** Where a value on one row came from. */
export interface Origins {
  readonly value: Value;
  /** The stretches of a text in their order, or of the items of a list; of any other value one with how it is written. */
  readonly stretches: readonly Origin[];
  readonly dropped: readonly Dropped[];
}

/** A stretch before its place is known. */
export type Stretch = Omit<Origin, "range" | "item">;

const lengthOf = ({ start, end }: TextRange): number => end - start;

/** Stretches with their places, those that go on where the one before ended made one. */
export function placed(stretches: readonly Stretch[]): Origin[] {
  const result: Origin[] = [];
  let at = 0;
  for (const stretch of stretches) {
    if (stretch.text === "") continue;
    const end = at + stretch.text.length;
    const last = result.at(-1);
    const from = last && continued(last, stretch);
    if (from)
      result[result.length - 1] = { ...last, text: last.text + stretch.text, range: { start: last.range.start, end }, from };
    else result.push({ ...stretch, range: { start: at, end } });
    at = end;
  }
  return result;
}

/** The sources of two stretches as one, where they were made alike and of what stands together. */
function continued(last: Stretch, next: Stretch): readonly Source[] | undefined {
  if (last.by?.start !== next.by?.start || last.by?.end !== next.by?.end) return undefined;
  if (last.from.length === 0 && next.from.length === 0) return last.from;
  if (last.from.length !== 1 || next.from.length !== 1) return undefined;
  const [a, b] = [last.from[0], next.from[0]];
  if (a.column !== b.column || a.literal?.start !== b.literal?.start || !a.range || a.range.end !== b.range?.start)
    return undefined;
  return [{ ...a, range: { start: a.range.start, end: b.range.end } }];
}

/** The stretches of a column's text that stand in no stretch of a result; none where more of it was read than its characters. */
export function droppedOf(column: string, value: Value, stretches: readonly Origin[]): Dropped[] {
  if (typeof value !== "string") return [];
  const sources = stretches.flatMap(({ from }) => from.filter((source) => source.column === column));
  if (sources.some(({ range }) => !range)) return [];
  const ranges = sources.map(({ range }) => range!).sort((a, b) => a.start - b.start);
  const result: Dropped[] = [];
  let kept = 0;
  for (const { start, end } of [...ranges, { start: value.length, end: value.length }]) {
    if (start > kept) result.push({ column, range: { start: kept, end: start }, text: value.slice(kept, start) });
    kept = Math.max(kept, end);
  }
  return result;
}

/** The sources of several stretches, each once, with those that follow one another as one. */
export function sourcesOf(stretches: readonly Stretch[]): readonly Source[] {
  const result: Source[] = [];
  for (const source of stretches.flatMap(({ from }) => from)) {
    const at = result.findIndex((each) => each.column === source.column && each.literal?.start === source.literal?.start);
    const known = result[at] as Source | undefined;
    if (!known) result.push(source);
    else if (!known.range || !source.range) result[at] = { ...known, range: undefined };
    else {
      const [start, end] = [Math.min(known.range.start, source.range.start), Math.max(known.range.end, source.range.end)];
      result[at] = { ...known, range: { start, end } };
    }
  }
  return result;
}

/** Cuts the stretches that lie in a range out of those of a text. */
export function cutter(stretches: readonly Stretch[]): (range: TextRange) => Stretch[] {
  const starts: number[] = [];
  let length = 0;
  for (const { text } of stretches) {
    starts.push(length);
    length += text.length;
  }
  /** The last stretch that begins at an offset or before it. */
  function at(offset: number): number {
    let [low, high] = [0, starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (starts[middle] <= offset) low = middle;
      else high = middle - 1;
    }
    return low;
  }
  return ({ start, end }) => {
    const result: Stretch[] = [];
    for (let i = at(start); i < stretches.length && starts[i] < end; i++) {
      const stretch = stretches[i];
      const [from, to] = [Math.max(0, start - starts[i]), Math.min(stretch.text.length, end - starts[i])];
      if (to <= from) continue;
      const [source] = stretch.from;
      const isCopy = !stretch.by && source?.range && lengthOf(source.range) === stretch.text.length;
      const range = isCopy && { start: source.range.start + from, end: source.range.start + to };
      result.push({ ...stretch, text: stretch.text.slice(from, to), ...(range && { from: [{ ...source, range }] }) });
    }
    tick(result.length + 1);
    return result;
  };
}
