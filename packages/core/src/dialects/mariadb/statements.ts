import type { Statements } from "../dialect.ts";

const names: Readonly<Record<string, string>> = {
  text: "text",
  binary: "blob",
  hextext: "blob",
  hybrid: "blob",
  integer: "bigint",
  unsigned: "bigint unsigned",
  decimal: "decimal(65,30)",
  double: "double",
  date: "date",
  datetime: "datetime(6)",
  time: "time(6)",
  null: "text",
};

/** Statements of MariaDB (documentation, "Generated Columns"); names of days and months depend on the session. */
export const statements: Statements = {
  quoted: (name) => `\`${name.replaceAll("`", "``")}\``,
  names: { most: 64, unit: "characters", caseMinded: false },
  typeName: ({ name }) => names[name] ?? "text",
  generated: (table, column, type, expression) =>
    `ALTER TABLE ${table} ADD COLUMN ${column} ${type} GENERATED ALWAYS AS ${expression} STORED`,
  unsteady: new Set(["dayname", "monthname", "date_format"]),
};
