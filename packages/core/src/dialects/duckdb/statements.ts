import type { Statements } from "../dialect.ts";
import { itemOf, listOf, nameOf } from "../types.ts";

const typeName = (type: string): string => {
  const base = nameOf(type);
  const item = itemOf(base);
  if (item !== undefined) return listOf(typeName(item));
  return ["text", "literal", "null", "any"].includes(base)
    ? "VARCHAR"
    : base === "decimal"
      ? "DECIMAL(38, 10)"
      : base.toUpperCase();
};

/** Statements of DuckDB; a generated column stands in CREATE TABLE only, so the table is made anew. */
export const statements: Statements = {
  quoted: (name) => `"${name.replaceAll('"', '""')}"`,
  names: { caseMinded: false },
  typeName,
  generated: (table, column, type, expression) =>
    `CREATE OR REPLACE TABLE ${table} AS SELECT *, ${expression}::${type} AS ${column} FROM ${table}`,
  unsteady: new Set(),
};
