import type { Sample } from "../evaluate/index.ts";
import { type Value, Decimal, isFailure, isList } from "../values/index.ts";
import { DistinctCount } from "./distinct.ts";
import type { TextKind } from "./kinds.ts";
import { type LetterCase, type TextFacts, factsOf, nearKey } from "./texts.ts";

/** How often something is found, and where first; rows are 0-based. */
export interface Found {
  readonly what: string;
  readonly count: number;
  readonly row: number;
  /** The first text that has it. */
  readonly example: string;
}

/** What a column holds. Lengths are in code points; texts that are longer than `textLength` are shown cut. */
export interface ColumnSurvey {
  readonly name: string;
  readonly rows: number;
  /** Null, and errors that were read as they were written. */
  readonly nothing: number;
  readonly failed: number;
  readonly empty: number;
  readonly distinct: number;
  /** Whether there are so many that `distinct` is an estimate, and `top` and `near` know only the first of them. */
  readonly isEstimated: boolean;
  /** How many are of each kind: a text, a number, a truth value, a date, a list. */
  readonly kinds: readonly Found[];
  /** What nearly all values are (nine of ten), and the others. */
  readonly kind: TextKind | "list";
  readonly exceptions: readonly Found[];
  readonly lengths: { readonly least: number; readonly most: number; readonly mean: number } | undefined;
  readonly cases: readonly Found[];
  readonly shapes: readonly Found[];
  /** White space at the ends, other than one plain space within, characters that nothing is seen of, other normal forms. */
  readonly outerSpace: Found | undefined;
  readonly innerSpace: Found | undefined;
  readonly unseen: readonly Found[];
  readonly uncomposed: Found | undefined;
  readonly top: readonly Found[];
  /** Texts that differ only in case, white space or accents, the most frequent first. */
  readonly near: readonly (readonly Found[])[];
  /** Where most values have one shape, those that have another; of texts only. */
  readonly odd: readonly Found[];
}

/** Texts that are kept apart in all columns together, and in one column at least. */
const [keptTexts, leastTexts] = [400_000, 500];
const keptShapes = 2000;
const textLength = 200;

interface Tally {
  count: number;
  readonly row: number;
  readonly example: string;
}

class Tallies {
  readonly found = new Map<string, Tally>();

  constructor(readonly most = Infinity) {}

  add(what: string, count: number, row: number, example: string): void {
    const known = this.found.get(what);
    if (known) known.count += count;
    else if (this.found.size < this.most) this.found.set(what, { count, row, example });
  }

  /** Most frequent first, then as they occur. */
  list(): Found[] {
    return [...this.found]
      .map(([what, { count, row, example }]) => ({ what, count, row, example }))
      .sort((a, b) => b.count - a.count || a.row - b.row);
  }

  get(what: string): Found | undefined {
    const known = this.found.get(what);
    return known && { what, ...known };
  }
}

/** What is known of a column so far, in a bounded room. */
class ColumnTally {
  rows = 0;
  nothing = 0;
  failed = 0;
  empty = 0;
  readonly texts = new Map<string, { count: number; row: number }>();
  /** Those that found no more room among the texts. */
  readonly kinds = new Tallies();
  readonly cases = new Tallies();
  readonly shapes = new Tallies(keptShapes);
  readonly marks = new Tallies();
  readonly unseen = new Tallies();
  readonly distinct = new DistinctCount();
  isFull = false;
  length = { least: Infinity, most: 0, sum: 0, count: 0 };

  constructor(readonly most: number) {}

  add(value: Value, row: number): void {
    this.rows++;
    if (value === null) this.nothing++;
    else if (isFailure(value)) this.failed++;
    else if (value === "") this.empty++;
    else {
      const text = typeof value === "string" ? value : textOf(value);
      const known = this.texts.get(text);
      if (known) known.count++;
      else if (this.texts.size < this.most && text.length <= textLength && !isList(value))
        this.texts.set(text, { count: 1, row });
      else {
        this.isFull ||= this.texts.size >= this.most;
        this.distinct.add(text);
        this.note(factsOf(text), 1, row, text, isList(value) ? "list" : undefined);
      }
    }
  }

  note(facts: TextFacts, count: number, row: number, text: string, kind: string = facts.kind): void {
    const example = text.slice(0, textLength);
    this.kinds.add(kind, count, row, example);
    this.cases.add(facts.letterCase, count, row, example);
    this.shapes.add(facts.shape, count, row, example);
    if (facts.hasOuterSpace) this.marks.add("outer", count, row, example);
    if (facts.hasInnerSpace) this.marks.add("inner", count, row, example);
    if (!facts.isComposed) this.marks.add("uncomposed", count, row, example);
    for (const char of facts.unseen) this.unseen.add(char, count, row, example);
    const { length } = this;
    length.least = Math.min(length.least, facts.length);
    length.most = Math.max(length.most, facts.length);
    length.sum += facts.length * count;
    length.count += count;
  }
}

const textOf = (value: Value): string =>
  typeof value === "bigint" || value instanceof Decimal || typeof value !== "object" ? String(value) : JSON.stringify(value);

/** Looks at the columns of rows that come in pieces, once, in a room that does not grow with them. */
export class Survey {
  #columns: { readonly name: string; readonly tally: ColumnTally }[] = [];
  #rows = 0;

  add({ columns, rows }: Sample): void {
    const most = Math.max(leastTexts, Math.floor(keptTexts / columns.length));
    columns.forEach(({ name, values, written }, i) => {
      const { tally } = (this.#columns[i] ??= { name, tally: new ColumnTally(most) });
      const cells = written ?? values;
      for (let row = 0; row < rows; row++) tally.add(cells[row], this.#rows + row);
    });
    this.#rows += rows;
  }

  get rows(): number {
    return this.#rows;
  }

  /** What has been seen; nothing can be added after it. */
  result(): readonly ColumnSurvey[] {
    return this.#columns.map(({ name, tally }) => surveyOf(name, tally, this.#rows));
  }
}

function surveyOf(name: string, tally: ColumnTally, rows: number): ColumnSurvey {
  const top: Found[] = [];
  const kindsOf = new Map<string, TextKind>();
  const near = new Map<string, Found[]>();
  for (const [text, { count, row }] of tally.texts) {
    const facts = factsOf(text);
    tally.note(facts, count, row, text);
    kindsOf.set(text, facts.kind);
    const found = { what: text, count, row, example: text };
    top.push(found);
    const key = nearKey(text);
    const alike = near.get(key);
    if (alike) alike.push(found);
    else near.set(key, [found]);
    if (tally.isFull) tally.distinct.add(text);
  }
  const { length, texts } = tally;
  const isOnlyTexts = length.count === top.reduce((sum, { count }) => sum + count, 0);
  const kinds = tally.kinds.list();
  const shapes = tally.shapes.list();
  const most = kinds[0];
  const kind = most && most.count >= 0.9 * length.count ? (most.what as TextKind | "list") : "text";
  const byCount = (a: Found, b: Found) => b.count - a.count || a.row - b.row;
  const total = (group: readonly Found[]) => group.reduce((sum, { count }) => sum + count, 0);
  return {
    name,
    // A column that only later rows have is missing in those before.
    rows,
    nothing: tally.nothing + rows - tally.rows,
    failed: tally.failed,
    empty: tally.empty,
    distinct: isOnlyTexts ? texts.size : estimated(tally),
    isEstimated: !isOnlyTexts,
    kinds,
    kind,
    exceptions: kind === "text" ? [] : exceptionsTo(kind, top, kindsOf, kinds),
    lengths: length.count === 0 ? undefined : { least: length.least, most: length.most, mean: length.sum / length.count },
    cases: tally.cases.list(),
    shapes,
    outerSpace: tally.marks.get("outer"),
    innerSpace: tally.marks.get("inner"),
    unseen: tally.unseen.list(),
    uncomposed: tally.marks.get("uncomposed"),
    top: top.sort(byCount).slice(0, 50),
    near: [...near.values()]
      .filter((group) => group.length > 1)
      .map((group) => group.sort(byCount))
      .sort((a, b) => total(b) - total(a))
      .slice(0, 50),
    odd: kind === "text" && shapes.length > 1 && shapes[0].count >= 0.8 * length.count ? shapes.slice(1, 51) : [],
  };
}

/** Texts that were not kept are counted by estimate, with those that were. */
function estimated(tally: ColumnTally): number {
  if (!tally.isFull) for (const text of tally.texts.keys()) tally.distinct.add(text);
  return tally.distinct.estimate();
}

/** The texts that are of another kind than the rest, one by one where they were kept. */
function exceptionsTo(
  kind: string,
  texts: readonly Found[],
  kindsOf: ReadonlyMap<string, TextKind>,
  kinds: readonly Found[],
): Found[] {
  const kept = texts.filter(({ what }) => kindsOf.get(what) !== kind);
  const others = kinds.filter(({ what }) => what !== kind).map((found) => ({ ...found, what: found.example }));
  return (kept.length > 0 ? kept : others).sort((a, b) => a.row - b.row).slice(0, 50);
}

export type { LetterCase };
