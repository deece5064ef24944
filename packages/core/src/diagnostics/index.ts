import { type Facts, type Failure, type MessageCode, type TextRange, messageFor } from "../values/index.ts";

export type { MessageCode } from "../values/index.ts";

/** A change to the source that mends a problem. */
export interface Fix {
  readonly title: string;
  readonly edits: readonly { readonly range: TextRange; readonly text: string }[];
}

/** A problem in an expression: a code, its place, the facts behind the sentence, and mends. */
export interface Diagnostic {
  readonly code: MessageCode;
  readonly severity: "error" | "warning";
  readonly range: TextRange;
  readonly facts: Facts;
  readonly fixes: readonly Fix[];
}

/**
 * The sentence for a diagnostic or a failure.
 *
 * @example
 * const { diagnostics } = compile(openformula(), "LEFT(label,3)", sampleOf([{ label: "Alnus" }]));
 * message(diagnostics[0]); // 'Arguments are separated by ";" here, not by ",".'
 */
export function message(problem: Diagnostic | Failure): string {
  return messageFor(problem.code, problem.facts);
}

/**
 * The source with a fix applied.
 *
 * @example
 * const { diagnostics } = compile(openformula(), "LEFT(label,3)", sampleOf([{ label: "Alnus" }]));
 * applyFix("LEFT(label,3)", diagnostics[0].fixes[0]); // "LEFT(label;3)"
 */
export function applyFix(source: string, fix: Fix): string {
  const edits = [...fix.edits].sort((a, b) => b.range.start - a.range.start);
  return edits.reduce((text, { range, text: insert }) => text.slice(0, range.start) + insert + text.slice(range.end), source);
}

/**
 * A line of the source around `range` and, under it, a caret line that marks the range.
 * `range` counts UTF-16 units from 0. `width` gives the columns that a text takes; long lines are cut around the range.
 *
 * @example
 * drawCaret("upper(lable)", { start: 6, end: 11 }); // "upper(lable)\n      ^^^^^"
 */
export function drawCaret(source: string, range: TextRange, width: (text: string) => number = (text) => text.length): string {
  const lineStart = source.lastIndexOf("\n", range.start - 1) + 1;
  const lineEnd = source.indexOf("\n", lineStart);
  const from = Math.max(lineStart, range.start - 60);
  const to = Math.min(lineEnd < 0 ? source.length : lineEnd, Math.max(range.start + 60, Math.min(range.end, range.start + 100)));
  const shown = source.slice(from, to).replace(/[\t\r\n]/g, " ");
  const before = width(source.slice(from, range.start));
  const under = Math.max(1, width(source.slice(range.start, Math.min(range.end, to))));
  return `${shown}\n${" ".repeat(before)}${"^".repeat(under)}`;
}

/**
 * The one character at `offset` in a text that is written at a range of a source; the whole range where it is not written as it is.
 * Offsets are 0-based, in UTF-16 units.
 */
export function placeWithin(source: string, range: TextRange, text: string, offset: number): TextRange {
  const inner = source.slice(range.start, range.end).indexOf(text);
  if (inner < 0 || text === "") return range;
  const start = range.start + inner + Math.min(offset, text.length - 1);
  return { start, end: start + 1 };
}

/** The candidates nearest to `name` by edit distance, at most `most`, nearest first. */
export function nearest(name: string, candidates: Iterable<string>, most = 3): string[] {
  const wanted = name.toLowerCase();
  const limit = Math.min(3, Math.max(1, Math.floor(wanted.length / 3)));
  const scored: { candidate: string; distance: number }[] = [];
  for (const candidate of candidates) {
    const own = candidate.toLowerCase();
    const distance = editDistance(wanted, own, limit);
    if (distance <= limit && isWordByWord(wanted, own)) scored.push({ candidate, distance });
  }
  scored.sort((a, b) => a.distance - b.distance || (a.candidate < b.candidate ? -1 : 1));
  return scored.slice(0, most).map(({ candidate }) => candidate);
}

/** Whether of names of as many words each word is near the other's: `regexp_split` is not near `regexp_like`. */
function isWordByWord(a: string, b: string): boolean {
  const [words, others] = [a.split(/[_-]/), b.split(/[_-]/)];
  if (words.length !== others.length || words.length === 1) return true;
  return words.every((word, i) => {
    const limit = Math.max(1, Math.floor(word.length / 3));
    return editDistance(word, others[i], limit) <= limit;
  });
}

/** Insertions, deletions, changes and swaps of neighbours that turn `a` into `b`; more than `limit` may be any larger number. */
function editDistance(a: string, b: string, limit: number): number {
  if (Math.abs(a.length - b.length) > limit) return limit + 1;
  let beforeLast: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const cost = a[i - 1] === b[j - 1] ? 0 : 1;
      row[j] = Math.min(last[j] + 1, row[j - 1] + 1, last[j - 1] + cost);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) row[j] = Math.min(row[j], beforeLast[j - 2] + 1);
    }
    [beforeLast, last] = [last, row];
  }
  return last[b.length];
}
