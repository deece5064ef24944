import type { AnswerOf } from "../traits/index.ts";
import { Double, Failure, type Value, tick, utf8Of } from "../values/index.ts";
import { number, operation, optional, text } from "./operation.ts";

/**
 * Changes of single bytes that make one text the other; with `swaps`, neighbours may also change places, with others put
 * between them (the distance of Damerau and Levenshtein).
 */
function editDistance(left: string, right: string, swaps: boolean): number {
  const [a, b] = [utf8Of(left), utf8Of(right)];
  /** For each byte its last place in `a` so far, counted from 1, and the distances before it. */
  const seen = new Map<number, { readonly at: number; readonly before: readonly number[] }>();
  let last = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    tick(b.length);
    const row = [i];
    let lastAlike = 0;
    for (let j = 1; j <= b.length; j++) {
      const isAlike = a[i - 1] === b[j - 1];
      row[j] = Math.min(last[j] + 1, row[j - 1] + 1, last[j - 1] + (isAlike ? 0 : 1));
      const partner = swaps && lastAlike > 0 ? seen.get(b[j - 1]) : undefined;
      if (partner) row[j] = Math.min(row[j], partner.before[lastAlike - 1] + (i - partner.at) + (j - lastAlike) - 1);
      if (isAlike) lastAlike = j;
    }
    if (swaps) seen.set(a[i - 1], { at: i, before: last });
    last = row;
  }
  return last[b.length];
}

/** The part of the bytes in one text or the other that are in both. */
function jaccard(left: string, right: string): number {
  const [a, b] = [new Set(utf8Of(left)), new Set(utf8Of(right))];
  const shared = [...a].filter((byte) => b.has(byte)).length;
  return shared / (a.size + b.size - shared);
}

function jaro(left: string, right: string): number {
  const [a, b] = [utf8Of(left), utf8Of(right)];
  const range = Math.max(0, Math.floor(Math.max(a.length, b.length) / 2) - 1);
  const taken = new Set<number>();
  const matched: number[] = [];
  a.forEach((byte, i) => {
    tick(range);
    for (let j = Math.max(0, i - range); j <= Math.min(b.length - 1, i + range); j++) {
      if (taken.has(j) || b[j] !== byte) continue;
      taken.add(j);
      matched.push(byte);
      return;
    }
  });
  const count = matched.length;
  if (count === 0) return 0;
  const other = [...taken].sort((x, y) => x - y).map((j) => b[j]);
  const turned = Math.floor(matched.filter((byte, i) => byte !== other[i]).length / 2);
  return (count / a.length + count / b.length + (count - turned) / count) / 3;
}

/** Jaro, raised by a tenth of what is missing for each of up to four first bytes that are the same. */
function jaroWinkler(left: string, right: string): number {
  const base = jaro(left, right);
  const [a, b] = [utf8Of(left), utf8Of(right)];
  let prefix = 0;
  while (prefix < 4 && prefix < a.length && prefix < b.length && a[prefix] === b[prefix]) prefix++;
  return base > 0.7 ? base + 0.1 * prefix * (1 - base) : base;
}

const differing = (a: string, b: string): Value => {
  const [x, y] = [utf8Of(a), utf8Of(b)];
  if (x.length !== y.length || x.length === 0) return new Failure("not-of-one-length");
  return x.filter((byte, i) => byte !== y[i]).length;
};

const measures: Readonly<Record<AnswerOf<"measure">, (a: string, b: string) => Value>> = {
  edits: (a, b) => editDistance(a, b, false),
  "edits and swaps": (a, b) => editDistance(a, b, true),
  "differing bytes": differing,
  "shared bytes": (a, b) => (a === "" || b === "" ? new Failure("empty-text") : new Double(jaccard(a, b))),
  jaro: (a, b) => new Double(jaro(a, b)),
  "jaro-winkler": (a, b) => new Double(jaroWinkler(a, b)),
};

/** Measures how alike two texts are; all measures count UTF-8 bytes. */
export const likeness = operation({
  id: "likeness",
  family: "measure-test",
  summary: "measures how alike two texts are",
  slots: [text("a"), text("b"), optional(number("cutoff"))],
  traits: ["missing", "measure"],
  prepare({ measure }) {
    const measured = measures[measure];
    return (a: string, b: string, cutoff: number | Double = 0): Value => {
      const result = measured(a, b);
      const least = cutoff instanceof Double ? cutoff.value : cutoff;
      return result instanceof Double && !(result.value >= least) ? new Double(0) : result;
    };
  },
});
