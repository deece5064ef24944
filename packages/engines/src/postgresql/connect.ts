import pg from "pg";
import { type Connection, EngineLost, type Settings, runnerOf } from "../connection.ts";
import { driverTypes, readerFor, sessionSettings, versionOption } from "./rows.ts";

/** Connects to a server of PostgreSQL; every expression is a read-only transaction of its own with a time limit. */
export async function connect(url: string, settings: Settings): Promise<Connection> {
  const client = new pg.Client({
    connectionString: url,
    connectionTimeoutMillis: 5000,
    types: { getTypeParser: ((type: number) => readerFor(type)) as never },
  });
  let lost: EngineLost | undefined;
  client.on("error", ({ message }: Error) => (lost = new EngineLost(message)));
  await client.connect();
  for (const setting of [...sessionSettings, `set statement_timeout = ${settings.timeLimit}`, "set client_encoding = 'UTF8'"])
    await client.query(setting);
  const { rows } = await client.query<{ server_version: string }>("show server_version");

  /** The extended protocol takes one statement, whatever stands in it. */
  async function one<T extends pg.QueryResultRow>(text: string, values: readonly unknown[]): Promise<T[]> {
    if (lost) throw lost;
    const query = { text, values: [...values], queryMode: "extended" } as pg.QueryConfig;
    try {
      return (await client.query<T>(query)).rows;
    } catch (error) {
      // What the server says has a code; what the connection says has none of five characters.
      if (/^[0-9A-Z]{5}$/.test((error as { code?: string }).code ?? "") && !/^(?:57P0|08)/.test((error as { code: string }).code))
        throw error;
      throw (lost = new EngineLost((error as Error).message));
    }
  }

  return {
    version: `PostgreSQL ${rows[0].server_version}`,
    options: versionOption(rows[0].server_version),
    run: runnerOf(
      {
        ...driverTypes,
        async define(statement, values = []) {
          await client.query("begin read write");
          try {
            await one(statement, values);
            await client.query("commit");
          } catch (error) {
            await client.query("rollback");
            throw error;
          }
        },
        ask: async (text, values) => (await one<{ value: unknown }>(text, values))[0].value,
      },
      settings,
    ),
    close: () => client.end().catch(() => undefined),
  };
}
