import type { Find } from "./index.ts";

/** A difference from an engine that is known and argued. */
export interface Argued {
  readonly why: string;
  readonly holds: (dialect: string, found: Find) => boolean;
}

/** Every known difference, with its reason; reviewed, and kept under ten. Whatever else differs is a find. */
export const argued: readonly Argued[] = [
  {
    why: "SQLite and MariaDB give back a text whose empty part is replaced before they look at the replacement, which may be null",
    holds: (dialect, { expression }) => ["sqlite", "mariadb"].includes(dialect) && /replace\([^]*,\s*'',/.test(expression),
  },
  {
    why: "DuckDB wants a constant for some arguments (a separator, the options of a pattern) that could as well come from a column",
    holds: (dialect, { theirs }) => dialect === "duckdb" && "error" in theirs && /must be a constant/.test(theirs.error.message),
  },
  {
    why: "DuckDB gives the values of list_distinct and list_intersect in the order of a hash table, which it does not promise",
    holds: (dialect, { expression }) => dialect === "duckdb" && /(?:list|array)_(?:distinct|intersect)/.test(expression),
  },
  {
    why: "PostgreSQL folds a strict function of a null that it knows beforehand to null, and never evaluates its other arguments, which fail",
    holds: (dialect, { ours, theirs }) =>
      dialect === "postgresql" && ours !== undefined && "error" in ours && "value" in theirs && theirs.value === null,
  },
];
