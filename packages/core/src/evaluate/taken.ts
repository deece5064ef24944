import { type TextRange, type Value, rulers } from "../values/index.ts";
import type { BoundOperation } from "./bind.ts";

/** The stretch of its text that an extraction took, for marking it; undefined when the step took none. */
export interface Taken {
  readonly text: string;
  /** UTF-16 offsets in `text`. */
  readonly range: TextRange;
}

/** Where in its text the value of an extraction stands. */
export function takenBy(bound: BoundOperation, slots: readonly Value[], value: Value): Taken | undefined {
  const [text, second, third] = slots;
  if (typeof text !== "string" || typeof value !== "string" || !["slice", "segment", "find"].includes(bound.operation))
    return undefined;
  const start = startOf(bound, text, value, second, third);
  return text.startsWith(value, start) ? { text, range: { start, end: start + value.length } } : undefined;
}

function startOf(bound: BoundOperation, text: string, value: string, second: Value, third: Value): number {
  const { answers } = bound;
  if (bound.operation === "slice") {
    if (answers.from === "end") return text.length - value.length;
    const first = Number(answers.first);
    const start = typeof second === "number" ? second : first;
    return rulers[answers.unit as keyof typeof rulers].forward(
      text,
      Math.max(0, Math.floor(start + (answers.fraction === "rounded" ? 0.5 : 0)) - first),
    );
  }
  if (bound.operation === "segment" && typeof second === "string") {
    if (answers.part === "before") return 0;
    if (answers.part === "after") return text.length - value.length;
    const pieces = second === "" ? [text] : text.split(second);
    const n = typeof third === "number" ? third : 1;
    const index = n < 0 ? pieces.length + n : n - 1;
    return pieces.slice(0, Math.max(0, index)).reduce((offset, piece) => offset + piece.length + second.length, 0);
  }
  return Math.max(0, text.indexOf(value));
}
