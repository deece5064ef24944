import type { Connection, Settings } from "./connection.ts";
import { type Driver, needDriver } from "./drivers.ts";
import { connect as embedded } from "./embedded.ts";

export {
  type Cell,
  type Column,
  type ColumnType,
  type Connection,
  EngineLost,
  type Outcome,
  type Query,
  type Settings,
} from "./connection.ts";
export { DriverMissing } from "./drivers.ts";

/** The engine that runs with nothing to set up, for each dialect that has one. */
const embeddedEngines: Readonly<Record<string, Driver>> = { postgresql: "pglite", sqlite: "sqljs", duckdb: "duckdb" };
/** The drivers of servers, loaded when one is asked for. */
const servers: Readonly<Record<string, () => Promise<{ connect(url: string, settings: Settings): Promise<Connection> }>>> = {
  postgresql: () => import("./postgresql/connect.ts"),
  mariadb: () => import("./mariadb/connect.ts"),
};

const defaults: Settings = { timeLimit: 5000, totalLimit: 300_000, options: {} };

/**
 * Opens the engine of a dialect: the server at `url`, or without one the engine that is embedded.
 * @throws RangeError where the dialect has no such engine; DriverMissing where its package is not installed;
 *   Unreachable where a server cannot be reached
 */
export async function open(dialect: string, url?: string, settings: Partial<Settings> = {}): Promise<Connection> {
  const chosen = { ...defaults, ...settings };
  if (url === undefined) {
    if (!Object.hasOwn(embeddedEngines, dialect))
      throw new RangeError(
        Object.hasOwn(servers, dialect)
          ? `${dialect} has no embedded engine; give the URL of a server, like ${dialect}://user:password@localhost/database`
          : `there is no engine to ask about ${dialect}; there is one for ${Object.keys({ ...embeddedEngines, ...servers }).join(", ")}`,
      );
    needDriver(embeddedEngines[dialect]);
    return embedded(embeddedEngines[dialect], chosen);
  }
  if (!Object.hasOwn(servers, dialect)) throw new RangeError(`${dialect} has no server; leave the URL out`);
  const { host, username, password } = addressOf(dialect, url);
  needDriver(dialect as Driver);
  try {
    const driver = await servers[dialect]();
    return await driver.connect(url, chosen);
  } catch (error) {
    const who = /^[\w.-]*$/.test(username) ? username || "nobody" : "a user";
    throw new Unreachable(
      `${who} at ${host}`,
      without(password, reasonOf(error)),
      adviceFor(error),
      password === "" &&
        /password|28P01|1045|Access denied/i.test(`${(error as { code?: string }).code ?? ""} ${reasonOf(error)}`),
    );
  }
}

/** A server that could not be reached: who was to connect where, why it failed, and what to try. */
export class Unreachable extends Error {
  constructor(
    readonly address: string,
    readonly reason: string,
    readonly advice: string,
    /** Whether a password was wanted and none was given. */
    readonly wantsPassword = false,
  ) {
    super(`could not connect as ${address}: ${reason}; ${advice}`);
  }
}

interface Address {
  readonly host: string;
  readonly username: string;
  readonly password: string;
}

/** A message without the password, however it is written in the URL. */
const without = (password: string, message: string): string =>
  password === "" ? message : message.replaceAll(password, "…").replaceAll(encodeURIComponent(password), "…");

function addressOf(dialect: string, url: string): Address {
  try {
    const { host, username, password, pathname, search, hash } = new URL(url);
    // An @ behind the host means that the password holds a mark that ends one.
    if (host !== "" && !`${pathname}${search}${hash}`.includes("@"))
      return { host, username: decodeURIComponent(username), password: decodeURIComponent(password) };
  } catch {
    // Told below.
  }
  // The URL is not shown: a password may stand anywhere in one that cannot be read.
  throw new RangeError(
    `the URL cannot be read; a server's is like ${dialect}://user:password@localhost/database, with %2F for /, %3F for ?, %23 for # and %40 for @ in a password`,
  );
}

const reasonOf = (error: unknown): string => {
  const { message, code, errors } = error as { message?: string; code?: string; errors?: readonly Error[] };
  return (message || errors?.[0]?.message || code || "it failed").split("\n")[0];
};

function adviceFor(error: unknown): string {
  const text = `${(error as { code?: string }).code ?? ""} ${reasonOf(error)}`;
  if (/ECONNREFUSED/.test(text)) return "is the server running, and does it listen on that port?";
  if (/ENOTFOUND|EAI_AGAIN/.test(text)) return "is the name of the host right?";
  if (/timeout|ETIMEDOUT/i.test(text)) return "is the host right, and is a firewall in the way?";
  if (/password|28P01|28000|1045|Access denied/i.test(text)) return "are the user name and the password right?";
  if (/3D000|1049|does not exist|Unknown database/i.test(text)) return "is the name of the database right?";
  return "check the URL";
}

export { type OwnOutcome, type Probe, type ProbeRow, probe, sameOutcome } from "./probe.ts";
