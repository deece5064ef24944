import { tick } from "./deadline.ts";

/** What counts as one character; see the trait `unit`. */
export type Unit = "grapheme" | "code point" | "utf-16 unit" | "utf-8 byte";

const surrogate = /[\ud800-\udfff]/;
const isHigh = (unit: number) => (unit & 0xfc00) === 0xd800;
const isLow = (unit: number) => (unit & 0xfc00) === 0xdc00;

/**
 * The UTF-16 offset that lies `count` code points after `offset`, at most the text's length.
 * A lone surrogate counts as one code point.
 */
export function forward(text: string, offset: number, count: number): number {
  const end = text.length;
  let at = offset;
  for (let left = count; left > 0 && at < end; left--) {
    at += isHigh(text.charCodeAt(at)) && at + 1 < end && isLow(text.charCodeAt(at + 1)) ? 2 : 1;
  }
  return at;
}

/** The UTF-16 offset that lies `count` code points before `offset`, at least 0. */
export function backward(text: string, offset: number, count: number): number {
  let at = offset;
  for (let left = count; left > 0 && at > 0; left--) {
    at -= isLow(text.charCodeAt(at - 1)) && at > 1 && isHigh(text.charCodeAt(at - 2)) ? 2 : 1;
  }
  return at;
}

/** The number of code points in `text` before the UTF-16 offset `end`. */
export function countCodePoints(text: string, end = text.length): number {
  // The host sees at once that a text of small units has no surrogates.
  if (end >= 32 && end * 2 >= text.length && !surrogate.test(text)) return end;
  let count = end;
  for (let at = 1; at < end; at++) {
    if (isLow(text.charCodeAt(at)) && isHigh(text.charCodeAt(at - 1))) count--;
  }
  return count;
}

/** The number of UTF-8 bytes in `text` before the UTF-16 offset `end`; a lone surrogate takes 3. */
export function countBytes(text: string, end = text.length): number {
  let count = 0;
  for (let at = 0; at < end; at++) {
    const unit = text.charCodeAt(at);
    if (unit < 0x80) count += 1;
    else if (unit < 0x800) count += 2;
    else if (isHigh(unit) && at + 1 < end && isLow(text.charCodeAt(at + 1))) {
      count += 4;
      at++;
    } else count += 3;
  }
  return count;
}

/** A text in stretches of about 64 Ki units that cut no code point in two, so that a long one is never held as a list of characters. */
export function* stretches(text: string): Generator<string> {
  const size = 1 << 16;
  for (let at = 0; at < text.length;) {
    let end = Math.min(text.length, at + size);
    if (end < text.length && isLow(text.charCodeAt(end)) && isHigh(text.charCodeAt(end - 1))) end--;
    yield text.slice(at, end);
    at = end;
  }
}

/** How the positions of one unit relate to UTF-16 offsets. */
export interface UnitRuler {
  /** How many units `text` has before the UTF-16 offset `end` (the whole text when left out). */
  count(text: string, end?: number): number;
  /** The UTF-16 offset `count` units after the start; a byte inside a character counts as its end. */
  forward(text: string, count: number): number;
  /** The UTF-16 offset `count` units before the end. */
  backward(text: string, count: number): number;
}

const segmenter = new Intl.Segmenter("und", { granularity: "grapheme" });

/** What may make one character with what stands beside it: marks, joiners, flags, skin tones, syllables in parts, a line break of two. */
const joining =
  /[\p{M}\p{Emoji_Modifier}\p{Regional_Indicator}\u200c\u200d\r\u0600-\u0605\u06dd\u070f\u0890\u0891\u08e2\u0e33\u0eb3\u0d4e\u1100-\u11ff\uac00-\ud7ff\ua960-\ua97f\uff9e\uff9f\u{11000}-\u{11fff}\u{16d40}-\u{16d7f}\u{e0020}-\u{e007f}]/u;

const notAlone = /[^\0-\x0c\x0e-\x7f]/;
/** Whether what a reader sees as characters are just the code points of a text. */
const isPlain = (text: string): boolean => !notAlone.test(text) || !joining.test(text);

/** What a reader sees as characters: extended grapheme clusters (Unicode Standard Annex 29). */
export function graphemesOf(text: string): string[] {
  if (isPlain(text)) return [...text];
  const found: string[] = [];
  for (const { segment } of segmenter.segment(text)) {
    tick(64);
    found.push(segment);
  }
  return found;
}

/** The units of a text in reverse order, in pieces, so that a long one is never held as a list of characters. */
export function reversed(text: string, unit: Unit): string {
  const isInParts = unit === "grapheme" && !isPlain(text);
  if (isInParts) return graphemesOf(text).reverse().join("");
  const pieces: string[] = [];
  for (const stretch of stretches(text)) {
    tick(stretch.length);
    const isOfUnits = unit === "utf-16 unit" || !surrogate.test(stretch);
    pieces.push((isOfUnits ? stretch.split("") : [...stretch]).reverse().join(""));
  }
  return pieces.reverse().join("");
}

const lengthOf = (parts: readonly string[]): number => parts.reduce((sum, part) => sum + part.length, 0);

export const rulers: Readonly<Record<Unit, UnitRuler>> = {
  grapheme: {
    count: (text, end = text.length) => (isPlain(text) ? countCodePoints(text, end) : graphemesOf(text.slice(0, end)).length),
    forward: (text, count) => (isPlain(text) ? forward(text, 0, count) : lengthOf(graphemesOf(text).slice(0, count))),
    backward: (text, count) =>
      isPlain(text)
        ? backward(text, text.length, count)
        : text.length - lengthOf(count === 0 ? [] : graphemesOf(text).slice(-count)),
  },
  "code point": {
    count: countCodePoints,
    forward: (text, count) => forward(text, 0, count),
    backward: (text, count) => backward(text, text.length, count),
  },
  "utf-16 unit": {
    count: (text, end = text.length) => end,
    forward: (text, count) => Math.min(count, text.length),
    backward: (text, count) => Math.max(0, text.length - count),
  },
  "utf-8 byte": {
    count: countBytes,
    forward: (text, count) => {
      let at = 0;
      for (let bytes = 0; at < text.length && bytes < count;) {
        const next = forward(text, at, 1);
        bytes += countBytes(text.slice(at, next));
        at = next;
      }
      return at;
    },
    backward: (text, count) => {
      let at = text.length;
      for (let bytes = 0; at > 0 && bytes < count;) {
        const next = backward(text, at, 1);
        bytes += countBytes(text.slice(next, at));
        at = next;
      }
      return at;
    },
  },
};

/** Whether a UTF-16 unit is white space as C knows it. */
const isAsciiBlank = (unit: number): boolean => unit === 32 || (unit >= 9 && unit <= 13);

/** A text without white space at its ends, as C knows it; a no-break space is none. */
export function asciiTrimmed(text: string): string {
  let [start, end] = [0, text.length];
  while (start < end && isAsciiBlank(text.charCodeAt(start))) start++;
  while (end > start && isAsciiBlank(text.charCodeAt(end - 1))) end--;
  return text.slice(start, end);
}
