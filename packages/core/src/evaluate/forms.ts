import type { Cell, TypeRules } from "../dialects/dialect.ts";
import type { Failure } from "../values/index.ts";

/** The first result whose condition holds; the last result beyond the conditions is the fallback. */
export function lazyChoice(conditions: readonly Cell[], results: readonly Cell[], types: TypeRules): Cell {
  return (row) => {
    for (let i = 0; i < conditions.length; i++) {
      const truth: boolean | null | Failure = types.truth(conditions[i](row));
      if (truth === true) return results[i](row);
      if (typeof truth === "object" && truth) return truth;
    }
    return results.length > conditions.length ? results[results.length - 1](row) : null;
  };
}
