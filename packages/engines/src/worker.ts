import type { Connection, Query, Settings } from "./connection.ts";
import { connect as duckdb } from "./duckdb/connect.ts";
import { connect as pglite } from "./pglite/connect.ts";
import { connect as sqljs } from "./sqljs/connect.ts";

/** The engines that run within a process of ours. */
const engines: Readonly<Record<string, (settings: Settings) => Promise<Connection>>> = { pglite, sqljs, duckdb };

const [, , name, settings] = process.argv;

/** A process that holds one embedded engine: it says its version, then answers queries, and can be killed. */
const connection = await engines[name](JSON.parse(settings) as Settings);
process.on("message", (query: Query) => void connection.run(query).then((outcomes) => process.send!({ outcomes })));
process.send!({ version: connection.version, options: connection.options });
