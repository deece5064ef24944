import initSqlJs, { type SqlValue, type Statement } from "sql.js";
import { type Cell, type Column, type Connection, type Settings, readNumber, runnerOf, table } from "../connection.ts";

const types: Readonly<Record<Column["type"], string>> = {
  text: "text",
  integer: "integer",
  decimal: "real",
  double: "real",
  boolean: "integer",
};

/** A text as its bytes say: the package's own reading drops a mark at the start, and ends at U+0000. */
const utf8 = new TextDecoder("utf-8", { ignoreBOM: true });

const read = (value: SqlValue | bigint): unknown =>
  typeof value === "number" || typeof value === "bigint"
    ? readNumber(value)
    : value instanceof Uint8Array
      ? utf8.decode(value)
      : value;

/** The reader of a row with integers of 64 bits, which the package's types do not tell of. */
const wide = (statement: Statement) =>
  statement as unknown as { get(parameters: null, how: { useBigInt: true }): (SqlValue | bigint)[] };

const plain = (values: readonly Cell[]) => values.map((value) => (typeof value === "boolean" ? Number(value) : value));

/** Opens SQLite compiled to WebAssembly, in memory. The option `collation` is the one that the text columns have. */
export async function connect(settings: Settings): Promise<Connection> {
  const engine = await initSqlJs({ useOldExtensionFunctions: false } as never);
  const database = new engine.Database();
  database.run("pragma query_only = 1");
  const collation = settings.options.collation ?? "BINARY";
  const run = runnerOf(
    {
      mark: (place) => `?${place + 1}`,
      drop: `drop table if exists temp.${table}`,
      castType: ({ type }) => types[type],
      storedType: ({ type }) => types[type] + (type === "text" ? ` collate ${collation}` : ""),
      define(statement, values = []) {
        database.run("pragma query_only = 0");
        database.run(statement, plain(values));
        database.run("pragma query_only = 1");
        return Promise.resolve();
      },
      ask(text, values) {
        const statement = database.prepare(
          `select case typeof(value) when 'text' then cast(value as blob) else value end from (${text} limit 1)`,
        );
        try {
          statement.bind(plain(values));
          statement.step();
          return read(wide(statement).get(null, { useBigInt: true })[0]);
        } finally {
          statement.free();
        }
      },
    },
    settings,
  );
  return {
    options: {},
    version: `SQLite ${String(database.exec("select sqlite_version()")[0].values[0][0])}`,
    run,
    close: () => {
      database.close();
      return Promise.resolve();
    },
  };
}
