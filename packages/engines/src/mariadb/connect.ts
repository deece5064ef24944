import { type FieldInfo, createConnection } from "mariadb";
import { type Cell, type Column, type Connection, type Settings, eachRow, readNumber, statementFor } from "../connection.ts";

/** How a column of parameters is made; a decimal has just the digits that its values are written with. */
function castOf({ name, type }: Column, values: readonly Cell[]): string {
  if (type === "text") return `cast(? as char(200)) as ${name}`;
  if (type === "double") return `cast(? as double) as ${name}`;
  if (type !== "decimal") return `cast(? as signed) as ${name}`;
  const scale = Math.max(...values.map((value) => (/\.(\d+)$/.exec(String(value ?? 0))?.[1] ?? "").length));
  return `cast(? as decimal(30, ${scale})) as ${name}`;
}

/** A time with the digits of the second's fraction that it has on the server; the driver gives six or none. */
const withScale = (text: string, scale: number): string => {
  const [whole, fraction = ""] = text.split(".");
  return scale > 0 && scale <= 6 ? `${whole}.${fraction.slice(0, scale).padEnd(scale, "0")}` : whole;
};

/** Opens a MariaDB server; every statement is read-only and has a time limit. */
export async function connect(url: string, { timeLimit, options }: Settings): Promise<Connection> {
  const { hostname, port, username, password, pathname } = new URL(url);
  const connection = await createConnection({
    host: hostname,
    port: port ? Number(port) : 3306,
    user: decodeURIComponent(username),
    password: decodeURIComponent(password),
    ...(pathname.length > 1 && { database: pathname.slice(1) }),
    connectTimeout: 5000,
    dateStrings: true,
    metaAsArray: true,
    rowsAsArray: true,
    checkDuplicate: false,
  });
  const collation = options.collation ?? "utf8mb4_general_ci";
  await connection.query(`set names utf8mb4 collate ${collation}`);
  await connection.query("set session transaction read only");
  await connection.query(`set session max_statement_time = ${timeLimit / 1000}`);
  return {
    options: {},
    version: `MariaDB ${connection.serverVersion()}`,
    run: (query) => {
      const source = query.columns
        .map((column, i) =>
          castOf(
            column,
            query.rows.map((row) => row[i]),
          ),
        )
        .join(", ");
      const text = statementFor(query, source);
      return eachRow(query, async (row) => {
        const [[[value]], [meta]] = (await connection.execute(text, [...row])) as unknown as [unknown[][], FieldInfo[]];
        if (value === null) return null;
        if (typeof value === "bigint" || typeof value === "number") return readNumber(value);
        if (Buffer.isBuffer(value)) return value.toString("utf8");
        if (/^(?:TIME|DATETIME|TIMESTAMP)/.test(meta.type)) return withScale(value as string, meta.scale);
        return /DECIMAL/.test(meta.type) ? Number(value) : value;
      });
    },
    close: () => connection.end(),
  };
}
