import pg from "pg";
import { type Connection, type Settings, eachRow, statementFor } from "../connection.ts";
import { readerFor, sourceOf, versionOption } from "./rows.ts";

/** Connects to a server of PostgreSQL; every statement is a read-only transaction with a time limit. */
export async function connect(url: string, { timeLimit }: Settings): Promise<Connection> {
  const client = new pg.Client({
    connectionString: url,
    connectionTimeoutMillis: 5000,
    statement_timeout: timeLimit,
    options: "-c default_transaction_read_only=on -c datestyle=ISO",
    types: { getTypeParser: ((type: number) => readerFor(type)) as never },
  });
  client.on("error", () => undefined);
  await client.connect();
  const { rows } = await client.query<{ server_version: string }>("show server_version");
  return {
    version: `PostgreSQL ${rows[0].server_version}`,
    options: versionOption(rows[0].server_version),
    run: (query) => {
      const text = statementFor(query, sourceOf(query.columns, query.rows), " offset 0");
      return eachRow(query, async (row) => (await client.query<{ value: unknown }>(text, [...row])).rows[0].value);
    },
    close: () => client.end(),
  };
}
