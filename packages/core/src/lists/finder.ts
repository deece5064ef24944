/** Characters by which texts are told apart first. */
const headLength = 4;

/** Where a text was found: its number, and its place in UTF-16 units. */
export interface Place {
  readonly id: number;
  readonly at: number;
  readonly length: number;
}

/** The texts that begin alike, with the lengths that they have. */
interface Bucket {
  readonly lengths: Set<number>;
  readonly ids: Map<string, number[]>;
}

/** Finds many texts at once: the time grows with the text that is searched, hardly with how many are looked for. */
export class Finder {
  /** For each length of a head, the texts that begin with it. */
  readonly #heads = Array.from({ length: headLength }, () => new Map<string, Bucket>());
  size = 0;

  add(text: string, id: number): void {
    const heads = this.#heads[Math.min(text.length, headLength) - 1];
    const head = text.slice(0, headLength);
    let bucket = heads.get(head);
    if (!bucket) heads.set(head, (bucket = { lengths: new Set(), ids: new Map() }));
    bucket.lengths.add(text.length);
    const ids = bucket.ids.get(text);
    if (ids) ids.push(id);
    else bucket.ids.set(text, [id]);
    this.size++;
  }

  /** Each place of each text, from left to right; places may overlap. */
  *all(text: string): Generator<Place> {
    for (let at = 0; at < text.length; at++)
      for (let head = 1; head <= headLength && at + head <= text.length; head++) {
        const heads = this.#heads[head - 1];
        if (heads.size === 0) continue;
        const bucket = heads.get(text.slice(at, at + head));
        for (const length of bucket?.lengths ?? [])
          for (const id of bucket!.ids.get(text.slice(at, at + length)) ?? []) yield { id, at, length };
      }
  }
}

const simple = (char: string): string => {
  const upper = char.toUpperCase();
  const lower = (upper.length === char.length ? upper : char).toLowerCase();
  return lower.length === char.length ? lower : char;
};

/** A text with upper and lower case made alike, character by character, so that places are kept. */
export const foldSimple = (text: string): string =>
  /[^\0-\x7f]/.test(text) ? [...text].map(simple).join("") : text.toLowerCase();

const inWord = /[\p{L}\p{M}\p{N}_]/u;

/** Whether a stretch of a text stands between word edges: neither side touches a letter, digit, mark or `_`. */
export function isWordAt(text: string, start: number, end: number): boolean {
  const before = text.slice(Math.max(0, start - 2), start);
  const after = text.slice(end, end + 2);
  return !inWord.test([...before].at(-1) ?? "") && !inWord.test([...after][0] ?? "");
}
