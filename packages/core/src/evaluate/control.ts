import type { Cell, TypeRules, Variable } from "../dialects/dialect.ts";
import { worked } from "../dialects/step.ts";
import type { Binding } from "../syntax/index.ts";
import { type Failure, type Value, isFailure } from "../values/index.ts";

/** Counts steps against the limit; a failure when they are spent. */
type Spend = (count: number) => Failure | undefined;

/** Runs `body` with the variables set, and sets them back; so a function may be called within itself. */
export function within(variables: readonly Variable[], values: readonly Value[], body: () => Value): Value {
  const before: Value[] = [];
  for (let i = 0; i < variables.length; i++) {
    before.push(variables[i].value);
    variables[i].value = values[i];
  }
  const result = body();
  for (let i = 0; i < variables.length; i++) variables[i].value = before[i];
  return result;
}

/** A body for a value or for each item: `variables` are the item, and where they are named its position and how many there are. */
export function loopCell(
  form: Binding["form"],
  variables: readonly Variable[],
  from: Cell,
  inner: Cell,
  types: TypeRules,
  spend: Spend,
): Cell {
  const isTrue = worked(types.conversion("any", "condition")?.convert);
  return (row) => {
    const value = from(row);
    if (isFailure(value)) return value;
    if (form === "let") return within(variables, [value], () => inner(row));
    const results: Value[] = [];
    const items = types.items!(value);
    for (let i = 0; i < items.length; i++) {
      const spent = spend(1);
      if (spent) return spent;
      const result = within(variables, [items[i], i + 1, items.length], () => inner(row));
      if (isFailure(result)) return result;
      if (form === "for" || form === "each") results.push(result);
      else {
        const truth = isTrue(result);
        if (isFailure(truth)) return truth;
        if ((truth === true) === (form === "some")) return form === "some";
      }
    }
    return form === "for" || form === "each" ? types.sequence!(results) : form === "every";
  };
}

/** The items for which a predicate holds, which is evaluated once where it `isAlike` for all of them. */
export function filterCell(
  variables: readonly [item: Variable, position: Variable, last: Variable],
  isAlike: boolean,
  from: Cell,
  inner: Cell,
  types: TypeRules,
  spend: Spend,
): Cell {
  return (row) => {
    const value = from(row);
    if (isFailure(value)) return value;
    const items = types.items!(value);
    const kept: Value[] = [];
    let answer: Value = null;
    for (let i = 0; i < items.length; i++) {
      if (i === 0 || !isAlike) answer = spend(1) ?? within(variables, [items[i], i + 1, items.length], () => inner(row));
      const keep = isFailure(answer) ? answer : types.filter!(answer, i + 1);
      if (typeof keep !== "boolean") return keep;
      if (keep) kept.push(items[i]);
    }
    return types.sequence!(kept);
  };
}
