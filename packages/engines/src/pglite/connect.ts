import { PGlite } from "@electric-sql/pglite";
import { type Connection, eachRow, statementFor } from "../connection.ts";
import { readers, sourceOf, versionOption } from "../postgresql/rows.ts";

/** Opens PostgreSQL compiled to WebAssembly, in memory. */
export async function connect(): Promise<Connection> {
  const create = async () => {
    const created = await PGlite.create();
    await created.exec("set default_transaction_read_only = on");
    return created;
  };
  let database = await create();
  const { rows } = await database.query<{ server_version: string }>("show server_version");
  return {
    version: `PGlite, PostgreSQL ${rows[0].server_version}`,
    options: { ...versionOption(rows[0].server_version), library: "musl" },
    run: (query) => {
      const text = statementFor(query, sourceOf(query.columns, query.rows), " offset 0");
      return eachRow(query, async (row) => {
        const values = row.map((value) => (value === null ? null : String(value)));
        const serializers = Object.fromEntries([16, 20, 23, 25, 701, 1700].map((type) => [type, String]));
        const ask = () => database.query<{ value: unknown }>(text, values, { parsers: readers, serializers });
        const result = await ask().catch(async (error: unknown) => {
          // Some failures leave a portal open, and every query after them fails; only a new engine is rid of it.
          if ((error as { code?: string }).code !== "24000") throw error;
          await database.close();
          database = await create();
          return ask();
        });
        return result.rows[0].value;
      });
    },
    close: () => database.close(),
  };
}
