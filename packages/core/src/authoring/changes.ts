import { graphemesOf } from "../values/units.ts";

/** A stretch of a text, and whether it is only in one of the two. */
export interface Part {
  readonly text: string;
  readonly isChanged: boolean;
}

/** Characters of what differs up to which it is compared one by one; beyond them it is one change. */
const comparedLength = 400;

/** What differs between two texts, in characters as a reader sees them: the parts of each, in order. */
export function changedParts(before: string, after: string): { before: readonly Part[]; after: readonly Part[] } {
  const [a, b] = [graphemesOf(before), graphemesOf(after)];
  let start = 0;
  while (start < Math.min(a.length, b.length) && a[start] === b[start]) start++;
  let end = 0;
  while (end < Math.min(a.length, b.length) - start && a[a.length - 1 - end] === b[b.length - 1 - end]) end++;
  const [left, right] = [a.slice(start, a.length - end), b.slice(start, b.length - end)];
  const kept = left.length <= comparedLength && right.length <= comparedLength ? commonPlaces(left, right) : [];
  const head = { text: a.slice(0, start).join(""), isChanged: false };
  const tail = { text: a.slice(a.length - end).join(""), isChanged: false };
  const partsOf = (items: readonly string[], places: readonly number[]) =>
    joined([head, ...items.map((text, i) => ({ text, isChanged: !places.includes(i) })), tail]);
  return {
    before: partsOf(
      left,
      kept.map(([place]) => place),
    ),
    after: partsOf(
      right,
      kept.map(([, place]) => place),
    ),
  };
}

/** The places of a longest common subsequence. */
function commonPlaces(a: readonly string[], b: readonly string[]): [number, number][] {
  const width = b.length + 1;
  const lengths = new Uint16Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      lengths[i * width + j] =
        a[i] === b[j] ? lengths[(i + 1) * width + j + 1] + 1 : Math.max(lengths[(i + 1) * width + j], lengths[i * width + j + 1]);
  const places: [number, number][] = [];
  for (let [i, j] = [0, 0]; i < a.length && j < b.length;) {
    if (a[i] === b[j]) places.push([i++, j++]);
    else if (lengths[(i + 1) * width + j] >= lengths[i * width + j + 1]) i++;
    else j++;
  }
  return places;
}

function joined(parts: readonly Part[]): Part[] {
  const result: Part[] = [];
  for (const part of parts) {
    const last = result.at(-1);
    if (part.text === "") continue;
    if (last?.isChanged === part.isChanged) result[result.length - 1] = { ...last, text: last.text + part.text };
    else result.push(part);
  }
  return result;
}
