import { operationOf, textFamilies } from "../text/index.ts";
import type { Conversion, ConversionLine, Dialect, TypeRules } from "./dialect.ts";
import { type Step, partsOfWork, stepsIn } from "./step.ts";
import { isOneOf, typeOf } from "./types.ts";

/** What makes the conversions that no line can say: those of lists by their items, say. */
type Derived = TypeRules["conversion"];

/**
 * How types become others by the first line that is for both; by `derived` where there is none.
 *
 * @param lines the table, the more special lines before the others
 * @param derived what is asked where no line says anything
 */
export function conversionTable(lines: readonly ConversionLine[], derived?: Derived): TypeRules["conversion"] {
  const known = new Map<string, Conversion | undefined>();
  const find: TypeRules["conversion"] = (from, to) => {
    for (const [given, wanted, cost, convert, told] of lines) {
      if (!isOneOf(to, wanted)) continue;
      if (given.startsWith("> ")) {
        const first = conversion(from, typeOf(given.slice(2)));
        return (
          first && {
            ...told,
            cost: first.cost + Number(cost),
            convert: [...partsOfWork(first.convert ?? []), ...partsOfWork(convert ?? [])],
          }
        );
      }
      if (given === "=" ? !isOneOf(from, String(to)) : !isOneOf(from, given)) continue;
      return cost === "never" ? undefined : { ...told, cost, ...(convert && { convert }) };
    }
    return derived?.(from, to);
  };
  const conversion: TypeRules["conversion"] = (from, to) => {
    const key = `${String(from)}>${String(to)}`;
    if (!known.has(key)) known.set(key, find(from, to));
    return known.get(key);
  };
  return conversion;
}

/** What a dialect does to values without a function: the steps of its table, and those of its conversions. */
export function stepsOf({ steps, types }: Pick<Dialect, "steps" | "types">): readonly Step[] {
  return [...new Set([...Object.values(steps), ...types.conversions.flatMap(([, , , work = []]) => stepsIn(work))])];
}

/** Those of them that convert a value, and do not just cut or trim it. */
export const convertingSteps = (dialect: Pick<Dialect, "steps" | "types">): readonly Step[] =>
  stepsOf(dialect).filter(({ operation }) => !textFamilies.includes(operationOf(operation).family));
