import type { Cell } from "../dialects/dialect.ts";
import { isFailure } from "../values/index.ts";

/** The first result whose condition holds; the last result beyond the conditions is the fallback. */
export function lazyChoice(conditions: readonly Cell[], results: readonly Cell[]): Cell {
  return (row) => {
    for (let i = 0; i < conditions.length; i++) {
      const truth = conditions[i](row);
      if (truth === true) return results[i](row);
      if (isFailure(truth)) return truth;
    }
    return results.length > conditions.length ? results[results.length - 1](row) : null;
  };
}
