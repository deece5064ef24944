/** The name of each dialect in sentences and headings, by its id. */
export const dialectTitles = {
  openformula: "OpenFormula",
  sql: "Standard SQL",
  postgresql: "PostgreSQL",
  sqlite: "SQLite",
  mariadb: "MariaDB",
  duckdb: "DuckDB",
  xpath: "XPath",
} as const;
