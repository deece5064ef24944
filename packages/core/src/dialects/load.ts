import { lookup } from "../values/lookup.ts";
import type { Dialect } from "./dialect.ts";

export { dialectTitles } from "./titles.ts";

type Make = (options?: Readonly<Record<string, string>>) => Dialect;

/** Every dialect by its id, loaded when it is asked for: the list of `index.ts`, for programs that need one or two. */
export const dialectLoaders: Readonly<Record<string, () => Promise<Make>>> = lookup({
  duckdb: async () => (await import("./duckdb/index.ts")).duckdb,
  mariadb: async () => (await import("./mariadb/index.ts")).mariadb,
  openformula: async () => (await import("./openformula/index.ts")).openformula,
  postgresql: async () => (await import("./postgresql/index.ts")).postgresql,
  sql: async () => (await import("./sql/index.ts")).sql,
  sqlite: async () => (await import("./sqlite/index.ts")).sqlite,
  xpath: async () => (await import("./xpath/index.ts")).xpath,
});
