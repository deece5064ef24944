import type { Statements } from "../dialect.ts";
import type { Type } from "../types.ts";

const names: Readonly<Record<string, string>> = {
  bpchar: "character",
  decimal: "numeric",
  double: "double precision",
  unknown: "text",
};

const typeName = ({ name, item }: Type): string => (item ? `${typeName(item)}[]` : (names[name] ?? name));

/** Functions that `pg_proc` does not call immutable, and casts by way of text that depend on settings. */
const unsteady = new Set(
  [
    "concat",
    "concat_ws",
    "convert",
    "convert_from",
    "convert_to",
    "length of 2",
    "format",
    "concat variadic",
    "concat_ws variadic",
    "format variadic",
    "to_char",
    "to_date",
    "to_number",
    "array_to_string",
    "quote_literal",
    "quote_nullable",
    "to_timestamp of 2",
    "date_trunc over timestamptz",
    "date_part over timestamptz",
    "extract over timestamptz",
    "cast date to timestamptz",
    "cast timestamp to timestamptz",
    "cast timestamptz to timestamp",
    "cast timestamptz to date",
  ].concat(
    ["date", "timestamp", "timestamptz"].flatMap((type) => [
      `cast ${type} to text`,
      `cast ${type} to bpchar`,
      `cast ${type} to quotable`,
      `cast text to ${type}`,
    ]),
  ),
);

/** Statements of PostgreSQL (documentation, 5.3 and CREATE VIEW). */
export const statements: Statements = {
  quoted: (name) => `"${name.replaceAll('"', '""')}"`,
  names: { most: 63, unit: "bytes", caseMinded: true },
  typeName,
  generated: (table, column, type, expression) =>
    `ALTER TABLE ${table} ADD COLUMN ${column} ${type} GENERATED ALWAYS AS ${expression} STORED`,
  unsteady,
  inlined: new Set(["quote_literal", "quote_nullable"]),
};
