/** The engines beside the bench: the same expression over a stored table, all work done there. */
import { performance } from "node:perf_hooks";

const literal = (text) => `'${text.replaceAll("'", "''")}'`;

/** How an engine in memory, or the MariaDB that IQUILL_MARIADB names, takes a statement. */
const opens = {
  async sqlite() {
    const { default: load } = await import("sql.js");
    const database = new (await load()).Database();
    return { run: (statement) => database.exec(statement), close: () => database.close() };
  },
  async postgresql() {
    const { PGlite } = await import("@electric-sql/pglite");
    const database = await PGlite.create();
    return { run: (statement) => database.query(statement), close: () => database.close() };
  },
  async duckdb() {
    const { DuckDBInstance } = await import("@duckdb/node-api");
    const connection = await (await DuckDBInstance.create(":memory:", { threads: "1" })).connect();
    return { run: (statement) => connection.runAndReadAll(statement), close: () => connection.closeSync() };
  },
  async mariadb() {
    if (!process.env.IQUILL_MARIADB) return undefined;
    const { createConnection } = await import("mariadb");
    const connection = await createConnection(process.env.IQUILL_MARIADB);
    return { run: (statement) => connection.query(statement), close: () => connection.end() };
  },
};

/** @returns a timer of expressions over the columns, in milliseconds of the clock; undefined where there is no engine to ask */
export async function engineOf(dialect, columns) {
  const engine = await opens[dialect]?.();
  if (!engine) return undefined;
  const names = Object.keys(columns);
  const rows = columns[names[0]].length;
  await engine.run(`create temporary table register (${names.map((name) => `${name} varchar(500)`).join(", ")})`);
  for (let from = 0; from < rows; from += 1000) {
    const row = (_, i) => `(${names.map((name) => literal(columns[name][from + i])).join(", ")})`;
    const many = Array.from({ length: Math.min(1000, rows - from) }, row);
    await engine.run(`insert into register values ${many.join(", ")}`);
  }
  return {
    async time(expression) {
      const before = performance.now();
      await engine.run(`select count(given) from (select ${expression} as given from register) as rows_given`);
      return performance.now() - before;
    },
    close: engine.close,
  };
}
