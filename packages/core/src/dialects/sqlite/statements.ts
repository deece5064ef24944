import type { Statements } from "../dialect.ts";
import { nameOf } from "../types.ts";

/** Statements of SQLite (documentation, "Generated Columns"): a column that is added can only be virtual. */
export const statements: Statements = {
  quoted: (name) => `"${name.replaceAll('"', '""')}"`,
  names: { caseMinded: false },
  typeName: (type) => {
    const affinity = nameOf(type);
    return affinity === "none" ? "" : affinity.toUpperCase();
  },
  generated: (table, column, type, expression) =>
    `ALTER TABLE ${table} ADD COLUMN ${column}${type && ` ${type}`} GENERATED ALWAYS AS ${expression} VIRTUAL`,
  unsteady: new Set(),
};
