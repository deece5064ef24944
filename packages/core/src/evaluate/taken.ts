import { placeTaken } from "../text/index.ts";
import type { TextRange, Value } from "../values/index.ts";

/** The stretch of its text that an extraction took, for marking it; undefined when the step took none. */
export interface Taken {
  readonly text: string;
  /** UTF-16 offsets in `text`. */
  readonly range: TextRange;
}

/** Where in its text the value of the operation that has just run stands, as it said itself. */
export function takenBy([text]: readonly (Value | undefined)[], value: Value): Taken | undefined {
  const start = placeTaken();
  if (start < 0 || typeof text !== "string" || typeof value !== "string") return undefined;
  return { text, range: { start, end: start + value.length } };
}
