import type { Statements } from "../dialect.ts";

const names: Readonly<Record<string, string>> = { text: "VARCHAR(4000)", null: "VARCHAR(4000)", double: "DOUBLE PRECISION" };

/** Statements of SQL (11.4 <generation clause>, 11.32 <view definition>). */
export const statements: Statements = {
  quoted: (name) => `"${name.replaceAll('"', '""')}"`,
  names: { most: 128, unit: "characters", caseMinded: true },
  typeName: ({ name }) => names[name] ?? name.toUpperCase(),
  generated: (table, column, type, expression) =>
    `ALTER TABLE ${table} ADD COLUMN ${column} ${type} GENERATED ALWAYS AS ${expression}`,
  unsteady: new Set(),
};
