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
  /** What the sample's table was made with, so that a new engine has it, too. */
  let defined: (readonly [string, readonly unknown[]])[] = [];
  async function write(statement: string, values: readonly unknown[]): Promise<void> {
    await database.exec("set default_transaction_read_only = off");
    await database.query(statement, texts(values), { serializers });
    await database.exec("set default_transaction_read_only = on");
  }
  const run = runnerOf(
    {
      ...driverTypes,
      async define(statement, values = []) {
        if (statement === driverTypes.drop) defined = [];
        defined.push([statement, values]);
        await write(statement, values);
      },
      async ask(text, values) {
        // The driver drops a byte order mark that a text begins with, so the engine is asked for it beside the text.
        const marked = `select value, ascii(value::text) = 65279 as "isMarked" from (${text}) as asked`;
        const ask = () =>
          database.query<{ value: unknown; isMarked: boolean }>(marked, texts(values), { parsers: readers, serializers });
        const result = await ask().catch(async (error: unknown) => {
          // Some failures leave a portal open, and every query after them fails; only a new engine is rid of it.
          if ((error as { code?: string }).code !== "24000") throw error;
          await database.close();
          database = await create();
          for (const [statement, cells] of defined) await write(statement, cells);
          return ask();
        });
        const { value, isMarked } = result.rows[0];
        return isMarked && typeof value === "string" ? `\ufeff${value}` : value;
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
