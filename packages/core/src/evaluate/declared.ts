import type { Dialect } from "../dialects/dialect.ts";
import { worked } from "../dialects/step.ts";
import type { Value } from "../values/index.ts";
import type { Type } from "../dialects/types.ts";

/**
 * What a column can be said to hold, so that the values that happen to be there do not decide it.
 *
 * @example
 * const rows = [{ n: null }];
 * compile(postgresql(), "n / 2", sampleOf(rows, { n: "integer" })).type.name; // "integer"
 * declaredTypes; // ["text", "integer", "decimal", "boolean", "date"]
 */
export const declaredTypes = ["text", "integer", "decimal", "boolean", "date"] as const;
export type DeclaredType = (typeof declaredTypes)[number];

/** A value that tells a column's type beside any that it holds. */
const examples: Readonly<Record<Exclude<DeclaredType, "date">, Value>> = { text: "a", integer: 0, decimal: 0.5, boolean: true };

const castToDate = ({ types }: Dialect) =>
  types.dates === undefined ? undefined : types.cast(types.columnType([examples.text]), types.dates);

/** The dialect's name for what a column holds that is declared; dates are texts in a dialect that has no type for them. */
export function typeOfDeclared(dialect: Dialect, declared: DeclaredType, values: readonly Value[]): Type {
  const asDate = declared === "date" ? castToDate(dialect) : undefined;
  return asDate?.type ?? dialect.types.columnType([...values, declared === "date" ? examples.text : examples[declared]]);
}

/** The values of a declared column as the dialect has them. */
export function readDeclared(dialect: Dialect, declared: DeclaredType, type: Type, values: readonly Value[]): readonly Value[] {
  const asDate = declared === "date" ? castToDate(dialect) : undefined;
  const convert = asDate ? worked(asDate.convert) : (value: Value) => dialect.types.readColumn?.(type, value) ?? value;
  return values.map((value) => (value === null ? null : convert(value)));
}
