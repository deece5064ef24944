import { type Connection as ServerConnection, type FieldInfo, createConnection } from "mariadb";
import { type Column, type Connection, EngineLost, type Settings, readNumber, runnerOf, scaleOf, table } from "../connection.ts";

const types: Readonly<Record<Column["type"], string>> = {
  text: "char",
  integer: "signed",
  decimal: "decimal",
  double: "double",
  boolean: "signed",
};
const storedTypes: Readonly<Record<Column["type"], string>> = {
  ...types,
  text: "varchar",
  integer: "bigint",
  boolean: "tinyint",
};

/** The type with the size that the values need: a decimal has just the digits that they are written with. */
const sized = (name: string, type: Column["type"], values: readonly unknown[]): string => {
  if (type === "decimal") return `${name}(30, ${scaleOf(values as never)})`;
  return type === "text" ? `${name}(${Math.max(200, ...values.map((value) => [...String(value ?? "")].length))})` : name;
};

/** A time with the digits of the second's fraction that it has on the server; the driver gives six or none. */
const withScale = (text: string, scale: number): string => {
  const [whole, fraction = ""] = text.split(".");
  return scale > 0 && scale <= 6 ? `${whole}.${fraction.slice(0, scale).padEnd(scale, "0")}` : whole;
};

function read(value: unknown, meta: FieldInfo): unknown {
  if (value === null) return null;
  if (typeof value === "bigint" || typeof value === "number") return readNumber(value);
  if (Buffer.isBuffer(value)) return value.toString("utf8");
  if (/^(?:TIME|DATETIME|TIMESTAMP)/.test(meta.type)) return withScale(value as string, meta.scale);
  return /DECIMAL/.test(meta.type) ? Number(value) : value;
}

/** The modes of a server as it is installed, in which a backslash escapes and double quotes make a text. */
const sqlMode = "STRICT_TRANS_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_AUTO_CREATE_USER,NO_ENGINE_SUBSTITUTION";

/** Milliseconds for the last word of a server; one that does not answer keeps nobody waiting. */
const farewell = 2000;

async function leave(connection: ServerConnection, last: Promise<unknown>): Promise<void> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise((resolve) => (timer = setTimeout(resolve, farewell)));
  await Promise.race([last.catch(() => undefined), late]);
  clearTimeout(timer);
  connection.destroy();
}

/** Opens a MariaDB server; every expression is a read-only statement of its own with a time limit. */
export async function connect(url: string, settings: Settings): Promise<Connection> {
  const { hostname, port, username, password, pathname } = new URL(url);
  const address = {
    host: hostname,
    port: port ? Number(port) : 3306,
    user: decodeURIComponent(username),
    password: decodeURIComponent(password),
    ...(pathname.length > 1 && { database: decodeURIComponent(pathname.slice(1)) }),
    connectTimeout: 5000,
    multipleStatements: false,
    dateStrings: true,
    metaAsArray: true,
    rowsAsArray: true,
    checkDuplicate: false,
  };
  const connection = await createConnection(address);
  let lost: EngineLost | undefined;
  /** The statement that is prepared in the session. */
  let prepared = "";
  connection.on("error", ({ message }: Error) => (lost = new EngineLost(message)));
  const collation = settings.options.collation ?? "utf8mb4_general_ci";
  for (const setting of [
    `set names utf8mb4 collate ${collation}`,
    `set session sql_mode = '${sqlMode}'`,
    "set session time_zone = '+00:00', lc_time_names = 'en_US', default_week_format = 0, group_concat_max_len = 1048576",
    "set session div_precision_increment = 4, max_statement_time = " + String(settings.timeLimit / 1000),
    "set session transaction read only",
  ])
    await connection.query(setting);

  /** A statement whose result, if it has one, comes by the protocol of texts: the other one shows some values otherwise. */
  async function one(statement: string, values: readonly unknown[]): Promise<unknown> {
    if (lost) throw lost;
    try {
      if (values.length === 0) return await connection.query(statement);
      const names = values.map((_, i) => `@iquill_${i}`);
      if (statement !== prepared) {
        prepared = "";
        await connection.execute("set @iquill = ?", [statement]);
        await connection.query("prepare iquill from @iquill");
        prepared = statement;
      }
      await connection.execute(`set ${names.map((name) => `${name} = ?`).join(", ")}`, [...values]);
      return await connection.query(`execute iquill using ${names.join(", ")}`);
    } catch (error) {
      if ((error as { fatal?: boolean }).fatal) throw (lost = new EngineLost((error as Error).message.split("\n")[0]));
      throw error;
    }
  }

  /** Ends the session at the server, which may go on beyond its limit without looking. */
  async function abandon(): Promise<void> {
    lost ??= new EngineLost("it was given up");
    connection.destroy();
    const other = await createConnection(address);
    await leave(other, other.query(`kill ${connection.threadId}`));
  }

  return {
    options: {},
    version: `MariaDB ${connection.serverVersion()}`,
    run: runnerOf(
      {
        mark: () => "?",
        drop: `drop temporary table if exists ${table}`,
        castType: ({ type }, values) => sized(types[type], type, values),
        storedType: ({ type }, values) =>
          sized(storedTypes[type], type, values) + (type === "text" ? ` character set utf8mb4 collate ${collation}` : ""),
        async define(statement, values = []) {
          await connection.query("set session transaction read write");
          try {
            await one(statement, values);
          } finally {
            await connection.query("set session transaction read only");
          }
        },
        abandon: () => void abandon().catch(() => undefined),
        async ask(text, values) {
          const [[[value]], [meta]] = (await one(text, values)) as [unknown[][], FieldInfo[]];
          return read(value, meta);
        },
      },
      settings,
    ),
    close: () => leave(connection, connection.end()),
  };
}
