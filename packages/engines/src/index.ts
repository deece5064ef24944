import type { Connection, Settings } from "./connection.ts";
import { connect as embedded } from "./embedded.ts";
import { connect as mariadb } from "./mariadb/connect.ts";
import { connect as postgresql } from "./postgresql/connect.ts";

export type { Cell, Column, ColumnType, Connection, Outcome, Query, Settings } from "./connection.ts";

/** The engine that runs with nothing to set up, for each dialect that has one. */
const embeddedEngines: Readonly<Record<string, string>> = { postgresql: "pglite", sqlite: "sqljs", duckdb: "duckdb" };
const servers: Readonly<Record<string, typeof mariadb>> = { postgresql, mariadb };

const defaults: Settings = { timeLimit: 5000, options: {} };

/**
 * Opens the engine of a dialect: the server at `url`, or without one the engine that is embedded.
 * @throws RangeError where the dialect has no such engine; what the driver throws where a server cannot be reached
 */
export async function open(dialect: string, url?: string, settings: Partial<Settings> = {}): Promise<Connection> {
  const chosen = { ...defaults, ...settings };
  if (url !== undefined) {
    if (!Object.hasOwn(servers, dialect)) throw new RangeError(`${dialect} has no server engine`);
    return servers[dialect](url, chosen);
  }
  if (!Object.hasOwn(embeddedEngines, dialect)) throw new RangeError(`${dialect} has no embedded engine`);
  return embedded(embeddedEngines[dialect], chosen);
}

export { type OwnOutcome, type Probe, type ProbeRow, probe, sameOutcome } from "./probe.ts";
