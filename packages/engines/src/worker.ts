import { Worker } from "node:worker_threads";
import type { Connection, Query, Settings } from "./connection.ts";

/** The engines that run within a process of ours; only one is loaded. */
const engines: Readonly<Record<string, () => Promise<{ connect(settings: Settings): Promise<Connection> }>>> = {
  pglite: () => import("./pglite/connect.ts"),
  sqljs: () => import("./sqljs/connect.ts"),
  duckdb: () => import("./duckdb/connect.ts"),
};

const [, , name, settings] = process.argv;

// An engine at work hears nothing, not even that the command is gone; a thread beside it does.
new Worker(
  `const parent = process.ppid;
   setInterval(() => process.ppid === parent || process.kill(process.pid, "SIGKILL"), 250);`,
  { eval: true },
).unref();

/** A process that holds one embedded engine: it says its version, then answers queries, and can be killed. */
const connection = await (await engines[name]()).connect(JSON.parse(settings) as Settings);
process.on("message", (query: Query) => {
  const run = connection.run(query, (place, outcome) => process.send!({ place, outcome }));
  void run.then(
    () => process.send!({ done: true }),
    (error: unknown) => process.send!({ failed: (error as Error).message }),
  );
});
process.send!({ version: connection.version, options: connection.options });
