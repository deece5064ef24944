import type { Statements } from "../dialect.ts";
import type { Type } from "../types.ts";

function typeName({ name, item }: Type): string {
  if (item) return `${typeName(item)}[]`;
  if (["text", "literal", "null", "any"].includes(name)) return "VARCHAR";
  return name === "decimal" ? "DECIMAL(38, 10)" : name.toUpperCase();
}

/** Statements of DuckDB; a generated column stands in CREATE TABLE only, so the table is made anew. */
export const statements: Statements = {
  quoted: (name) => `"${name.replaceAll('"', '""')}"`,
  names: { caseMinded: false },
  typeName,
  generated: (table, column, type, expression) =>
    `CREATE OR REPLACE TABLE ${table} AS SELECT *, ${expression}::${type} AS ${column} FROM ${table}`,
  unsteady: new Set(),
};
