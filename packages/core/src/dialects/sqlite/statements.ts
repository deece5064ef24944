import type { Statements } from "../dialect.ts";

/** Statements of SQLite (documentation, "Generated Columns"): a column that is added can only be virtual. */
export const statements: Statements = {
  quoted: (name) => `"${name.replaceAll('"', '""')}"`,
  names: { caseMinded: false },
  typeName: ({ name }) => (name === "none" ? "" : name.toUpperCase()),
  generated: (table, column, type, expression) =>
    `ALTER TABLE ${table} ADD COLUMN ${column}${type && ` ${type}`} GENERATED ALWAYS AS ${expression} VIRTUAL`,
  unsteady: new Set(),
};
