import { PGlite } from "@electric-sql/pglite";
import { type Connection, type Settings, runnerOf } from "../connection.ts";
import { driverTypes, readers, sessionSettings, versionOption } from "../postgresql/rows.ts";

/** Opens PostgreSQL compiled to WebAssembly, in memory. */
export async function connect(settings: Settings): Promise<Connection> {
  const create = async () => {
    const created = await PGlite.create();
    await created.exec(sessionSettings.join(";"));
    return created;
  };
  let database = await create();
  const { rows } = await database.query<{ server_version: string }>("show server_version");
  const serializers = Object.fromEntries([16, 20, 23, 25, 701, 1700].map((type) => [type, String]));
  const run = runnerOf(
    {
      ...driverTypes,
      async define(statement, values = []) {
        await database.exec("set default_transaction_read_only = off");
        await database.query(statement, texts(values), { serializers });
        await database.exec("set default_transaction_read_only = on");
      },
      async ask(text, values) {
        const ask = () => database.query<{ value: unknown }>(text, texts(values), { parsers: readers, serializers });
        const result = await ask().catch(async (error: unknown) => {
          // Some failures leave a portal open, and every query after them fails; only a new engine is rid of it.
          if ((error as { code?: string }).code !== "24000") throw error;
          await database.close();
          database = await create();
          return ask();
        });
        return result.rows[0].value;
      },
    },
    settings,
  );
  return {
    version: `PGlite, PostgreSQL ${rows[0].server_version}`,
    options: { ...versionOption(rows[0].server_version), library: "musl" },
    run,
    close: () => database.close(),
  };
}

const texts = (values: readonly unknown[]) => values.map((value) => (value === null ? null : String(value)));
