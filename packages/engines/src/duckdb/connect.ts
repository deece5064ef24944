import { DuckDBBlobValue, DuckDBInstance, type DuckDBType, DuckDBTypeId, type DuckDBValue } from "@duckdb/node-api";
import {
  type Cell,
  type Column,
  type Connection,
  type Settings,
  isSmall,
  readNumber,
  runnerOf,
  scaleOf,
  table,
} from "../connection.ts";

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

const isListOfTexts = (type: DuckDBType): boolean =>
  type.typeId === DuckDBTypeId.LIST && (type as unknown as { valueType: DuckDBType }).valueType.typeId === DuckDBTypeId.VARCHAR;

const utf8 = new TextDecoder("utf-8", { ignoreBOM: true });

/** A blob as a cast to text writes it. */
const blobText = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) =>
    byte >= 32 && byte < 127 && ![34, 39, 92].includes(byte)
      ? String.fromCharCode(byte)
      : `\\x${byte.toString(16).toUpperCase().padStart(2, "0")}`,
  ).join("");

/** The type of a column; a decimal has just the digits that its values are written with. */
function typeOf({ type }: Column, values: readonly Cell[]): string {
  if (type === "decimal") return `decimal(18, ${Math.min(scaleOf(values), 17)})`;
  return type === "integer" && isSmall(values) ? "integer" : types[type];
}

/** Opens DuckDB in memory, without access to files or extensions. */
export async function connect(settings: Settings): Promise<Connection> {
  const instance = await DuckDBInstance.create(":memory:", {
    enable_external_access: "false",
    autoload_known_extensions: "false",
    autoinstall_known_extensions: "false",
    threads: "1",
    lock_configuration: "true",
    disabled_optimizers: "statistics_propagation",
    // A list of more than that is a mistake, not a reason to fill the machine.
    memory_limit: "2GB",
  });
  const connection = await instance.connect();
  const version = (await connection.runAndReadAll("select version()")).getRows()[0][0];

  /** A prepared statement is one statement, whatever stands in it. */
  async function one(text: string, values: readonly Cell[]) {
    const statement = await connection.prepare(text);
    try {
      values.forEach((value, i) => (value === null ? statement.bindNull(i + 1) : statement.bindVarchar(i + 1, String(value))));
      return await statement.runAndReadAll();
    } finally {
      statement.destroySync();
    }
  }

  return {
    options: {},
    version: `DuckDB ${String(version).replace(/^v/, "")}`,
    run: runnerOf(
      {
        mark: (place) => `$${place + 1}::varchar`,
        drop: `drop table if exists temp.main.${table}`,
        castType: typeOf,
        define: (statement, values = []) => one(statement, values),
        async ask(text, values) {
          // A text comes as its bytes, too: the package's own reading drops a mark at its start.
          const result = await one(
            `select value, case typeof(value) when 'VARCHAR' then encode(value::varchar) end from (${text}) as answer`,
            values,
          );
          const [value, bytes] = result.getRows()[0];
          if (bytes instanceof DuckDBBlobValue) return utf8.decode(bytes.bytes);
          if (!isListOfTexts(result.columnType(0)) || value === null) return read(value, result.columnType(0));
          const encoded = await one(`select list_transform(value, lambda each: encode(each)) from (${text}) as answer`, values);
          const { items } = encoded.getRows()[0][0] as unknown as { items: (DuckDBBlobValue | null)[] };
          return items.map((item) => item && utf8.decode(item.bytes));
        },
      },
      settings,
    ),
    close: () => {
      connection.closeSync();
      return Promise.resolve();
    },
  };
}
