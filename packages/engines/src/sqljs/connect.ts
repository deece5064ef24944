import initSqlJs, { type SqlValue, type Statement } from "sql.js";
import { type Column, type Connection, type Settings, eachRow, readNumber, statementFor } from "../connection.ts";

const types: Readonly<Record<Column["type"], string>> = {
  text: "text",
  integer: "integer",
  decimal: "real",
  double: "real",
  boolean: "integer",
};

function read(value: SqlValue | bigint): unknown {
  if (typeof value === "number" || typeof value === "bigint") return readNumber(value);
  return value instanceof Uint8Array ? new TextDecoder().decode(value) : value;
}

/** The reader of a row with integers of 64 bits, which the package's types do not tell of. */
const wide = (statement: Statement) =>
  statement as unknown as { get(parameters: null, how: { useBigInt: true }): (SqlValue | bigint)[] };

/** Opens SQLite compiled to WebAssembly, in memory. The option `collation` is the one that the text columns have. */
export async function connect({ options }: Settings): Promise<Connection> {
  const engine = await initSqlJs({ useOldExtensionFunctions: false } as never);
  const database = new engine.Database();
  database.run("pragma query_only = 1");
  const collation = options.collation ?? "BINARY";
  return {
    options: {},
    version: `SQLite ${String(database.exec("select sqlite_version()")[0].values[0][0])}`,
    run: (query) => {
      const source = query.columns
        .map(
          ({ name, type }, i) => `cast(?${i + 1} as ${types[type]})${type === "text" ? ` collate ${collation}` : ""} as ${name}`,
        )
        .join(", ");
      return eachRow(query, (row) => {
        const statement = database.prepare(statementFor(query, source));
        try {
          statement.bind(row.map((value) => (typeof value === "boolean" ? Number(value) : value)));
          statement.step();
          return read(wide(statement).get(null, { useBigInt: true })[0]);
        } finally {
          statement.free();
        }
      });
    },
    close: () => {
      database.close();
      return Promise.resolve();
    },
  };
}
