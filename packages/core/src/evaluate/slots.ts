import type { Dialect } from "../dialects/dialect.ts";
import { type FunctionRow, type Parameter, namesOf, parameterAt } from "../dialects/row.ts";
import type { Step } from "../dialects/step.ts";
import type { Expression } from "../syntax/index.ts";
import { type OperationId, type Slot, isOfMany, operationOf } from "../text/index.ts";
import type { Value } from "../values/index.ts";
import type { Bound, BoundOperation } from "./bound.ts";
import { type Type, typeOf } from "../dialects/types.ts";

/** Stands for what the source does not say: the fixed slots and the defaults of a function row. */
const implied: Expression = { kind: "missing", range: { start: 0, end: 0 } };

const impliedBound = (value: Value, type: Type): Bound => ({ kind: "constant", value, type, source: implied });

const defaultOf = (parameter: Parameter): Bound | undefined =>
  parameter.default === undefined ? undefined : impliedBound(parameter.default, typeOf(parameter.type));

/** The arguments, and after them the defaults of the parameters that are left out. */
export function withDefaults(row: FunctionRow, args: readonly Bound[]): readonly Bound[] {
  const rest = row.parameters.slice(args.length).flatMap((parameter) => defaultOf(parameter) ?? []);
  return [...args, ...rest];
}

/** Puts arguments into the operation's slots. */
export function boundOperation(row: FunctionRow & { operation: OperationId }, args: readonly Bound[]): BoundOperation {
  const operation = operationOf(row.operation);
  const { answers, fixed = {} } = row as { answers: Record<string, string>; fixed?: Record<string, Value> };
  const inputOf = (slot: Slot): Bound | readonly Bound[] | undefined => {
    const index = row.parameters.findIndex((p) => p.slot === slot.name);
    if (slot.name in fixed) return impliedBound(fixed[slot.name], typeOf(slot.kind));
    if (index < 0) return undefined;
    const parameter = row.parameters[index];
    const several = row.parameters.filter((p) => p.slot === slot.name).length > 1;
    if (several || (isOfMany(slot) && parameter.repeats)) {
      return args.filter((_, i) => parameterAt(row, i).slot === slot.name);
    }
    return args[index] ?? defaultOf(parameter);
  };
  return { kind: "operation", row, operation: row.operation, answers, fixed, inputs: operation.slots.map(inputOf) };
}

/** A value in the first slot of a step, and what is set once for all in the others. */
export function boundStep({ operation, answers, fixed = {} }: Step, value: Bound): BoundOperation {
  const [, ...others] = operationOf(operation).slots;
  const inputs = others.map(({ name, kind }) => (name in fixed ? impliedBound(fixed[name], typeOf(kind)) : undefined));
  return { kind: "operation", operation, answers, fixed, inputs: [value, ...inputs] };
}

const byName = new WeakMap<Dialect, ReadonlyMap<string, readonly FunctionRow[]>>();

/** The rows of each name and alias; in lower case where the dialect does not tell cases apart. */
export function rowsByName(dialect: Dialect): ReadonlyMap<string, readonly FunctionRow[]> {
  const known = byName.get(dialect);
  if (known) return known;
  const table = new Map<string, FunctionRow[]>();
  for (const row of dialect.rows) {
    for (const name of namesOf(row)) {
      const key = dialect.functionCase === "ignored" ? name.toLowerCase() : name;
      table.set(key, [...(table.get(key) ?? []), row]);
    }
  }
  byName.set(dialect, table);
  return table;
}
