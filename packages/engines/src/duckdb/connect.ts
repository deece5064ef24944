import { DuckDBBlobValue, DuckDBInstance, type DuckDBType, DuckDBTypeId, type DuckDBValue } from "@duckdb/node-api";
import { type Column, type Connection, eachRow, readNumber, statementFor } from "../connection.ts";

const types: Readonly<Record<Exclude<Column["type"], "decimal">, string>> = {
  text: "varchar",
  integer: "bigint",
  double: "double",
  boolean: "boolean",
};

const numbers: readonly DuckDBTypeId[] = [
  DuckDBTypeId.TINYINT,
  DuckDBTypeId.SMALLINT,
  DuckDBTypeId.INTEGER,
  DuckDBTypeId.BIGINT,
  DuckDBTypeId.HUGEINT,
  DuckDBTypeId.UTINYINT,
  DuckDBTypeId.USMALLINT,
  DuckDBTypeId.UINTEGER,
  DuckDBTypeId.UBIGINT,
  DuckDBTypeId.UHUGEINT,
  DuckDBTypeId.FLOAT,
  DuckDBTypeId.DOUBLE,
];

function read(value: DuckDBValue, type: DuckDBType): unknown {
  if (value === null || typeof value === "boolean" || typeof value === "string") return value;
  if (numbers.includes(type.typeId)) return readNumber(value as number | bigint);
  if (type.typeId === DuckDBTypeId.DECIMAL) return Number(String(value));
  if (type.typeId === DuckDBTypeId.LIST || type.typeId === DuckDBTypeId.ARRAY) {
    const { valueType } = type as unknown as { valueType: DuckDBType };
    return (value as unknown as { items: DuckDBValue[] }).items.map((item) => read(item, valueType));
  }
  return value instanceof DuckDBBlobValue ? blobText(value.bytes) : String(value);
}

/** A blob as a cast to text writes it. */
const blobText = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) =>
    byte >= 32 && byte < 127 && ![34, 39, 92].includes(byte)
      ? String.fromCharCode(byte)
      : `\\x${byte.toString(16).toUpperCase().padStart(2, "0")}`,
  ).join("");

/** A decimal of just the digits that a number is written with. */
function decimalType(values: readonly unknown[]): string {
  const scale = Math.max(...values.map((value) => (/\.(\d+)$/.exec(String(value ?? 0))?.[1] ?? "").length));
  return `decimal(18, ${Math.min(scale, 17)})`;
}

/** Opens DuckDB in memory, without access to files or extensions. */
export async function connect(): Promise<Connection> {
  const instance = await DuckDBInstance.create(":memory:", {
    enable_external_access: "false",
    autoload_known_extensions: "false",
    autoinstall_known_extensions: "false",
    threads: "1",
  });
  const connection = await instance.connect();
  const version = (await connection.runAndReadAll("select version()")).getRows()[0][0];
  return {
    options: {},
    version: `DuckDB ${String(version).replace(/^v/, "")}`,
    run: (query) => {
      const source = query.columns
        .map(({ name, type }, i) => {
          const column = query.rows.map((row) => row[i]);
          const isSmall = type === "integer" && column.every((value) => Math.abs(Number(value ?? 0)) <= 2147483647);
          const cast = type === "decimal" ? decimalType(column) : isSmall ? "integer" : types[type];
          return `$${i + 1}::varchar::${cast} as ${name}`;
        })
        .join(", ");
      const text = statementFor(query, source);
      return eachRow(query, async (row) => {
        const values = row.map((value) => (value === null ? null : String(value)));
        const statements = await connection.extractStatements(text);
        if (statements.count !== 1) throw new Error("more than one statement");
        const result = await connection.runAndReadAll(text, values);
        return read(result.getRows()[0][0], result.columnType(0));
      });
    },
    close: () => {
      connection.closeSync();
      return Promise.resolve();
    },
  };
}
