import { type TextRange, backward, countCodePoints, forward } from "../values/index.ts";
import { visibleText } from "./white-space.ts";

/** One code point of a text on a ruler. */
export interface RulerCell {
  /** The code point, an invisible one by its sign. */
  readonly shown: string;
  /** 0-based, in code points. */
  readonly position: number;
  /** Whether it lies in the stretch that was taken. */
  readonly taken: boolean;
}

export interface Ruler {
  readonly cells: readonly RulerCell[];
  /** Code points of the text before and after the cells. */
  readonly before: number;
  readonly after: number;
}

/** Code points that stay before the stretch that was taken, where not all are shown. */
const margin = 20;

/**
 * The code points of a text with their positions, at most `most` of them: those around the start of
 * `taken` (UTF-16 offsets) where the text is longer.
 */
export function rulerOf(text: string, taken: TextRange | undefined, most = 200): Ruler {
  const isLong = forward(text, 0, most) < text.length;
  const start = isLong && taken ? backward(text, taken.start, margin) : 0;
  const end = forward(text, start, most);
  const before = countCodePoints(text, start);
  let offset = start;
  const cells = [...text.slice(start, end)].map((char, i): RulerCell => {
    const inside = taken !== undefined && offset >= taken.start && offset < taken.end;
    offset += char.length;
    return { shown: visibleText(char, true), position: before + i, taken: inside };
  });
  return { cells, before, after: countCodePoints(text) - before - cells.length };
}
