import { Decimal, type Value } from "indigo-quill";
import { integer } from "indigo-quill/values";
import {
  type FileMetaData,
  type SchemaElement,
  type SchemaTree,
  parquetMetadataAsync,
  parquetScan,
  parquetSchema,
} from "hyparquet";
import { compressors } from "hyparquet-compressors";
import { ByteWriter, ParquetWriter, schemaFromColumnData } from "hyparquet-writer";
import { NestedRows } from "./cells.ts";
import { type ColumnKind, asKind, kindOfColumn } from "./kinds.ts";
import { dateText, momentText } from "./moments.ts";
import { DataError, type RandomAccess, type Table, sampleFrom, usableNames } from "./table.ts";

/** Rows that are read at a time. */
const pieceRows = 16_384;

const decoder = new TextDecoder("utf-8", { fatal: true });

/** Bytes as the text that they are the UTF-8 form of, or else in hexadecimal. */
function textOfBytes(bytes: Uint8Array): string {
  try {
    return decoder.decode(bytes);
  } catch {
    return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  }
}

const parsers = {
  timestampFromMilliseconds: (millis: bigint) => momentText(millis * 1000n),
  timestampFromMicroseconds: (micros: bigint) => momentText(micros),
  timestampFromNanoseconds: (nanos: bigint) => momentText(nanos / 1000n),
  dateFromDays: (days: number) => dateText(days),
};

/** Digits behind the point of decimals, by their place in the schema. */
type Scales = ReadonlyMap<SchemaElement, number>;

/** Whole numbers of decimals are read as they are stored: as doubles they would lose digits. */
function withoutDecimals(metadata: FileMetaData): { metadata: FileMetaData; scales: Scales } {
  const scales = new Map<SchemaElement, number>();
  const schema = metadata.schema.map((element): SchemaElement => {
    if (element.converted_type !== "DECIMAL" && element.logical_type?.type !== "DECIMAL") return element;
    const { converted_type: _, logical_type: __, ...plain } = element;
    scales.set(plain, element.scale ?? 0);
    return plain;
  });
  return { metadata: { ...metadata, schema }, scales };
}

function decimalOf(value: unknown, scale: number): Value {
  const coefficient =
    value instanceof Uint8Array
      ? BigInt.asIntN(
          value.length * 8,
          value.reduce((sum, byte) => (sum << 8n) + BigInt(byte), 0n),
        )
      : BigInt(value as number | bigint);
  const decimal = new Decimal(coefficient, scale);
  const double = Number(String(decimal));
  return scale === 0 ? integer(coefficient) : Decimal.parse(String(double))?.compare(decimal) === 0 ? double : decimal;
}

/** Whether the fields of a group are columns: it is no list and no map. */
const isRecord = ({
  element: { converted_type: type, logical_type: logical, repetition_type: repetition },
  children,
}: SchemaTree) => children.length > 0 && type === undefined && logical === undefined && repetition !== "REPEATED";

/** What the items of a list, or the values of a map, are in the schema: within a group that repeats. */
function heldBy(tree: SchemaTree): SchemaTree {
  const [repeated = tree] = tree.children;
  return repeated.children.at(-1) ?? repeated;
}

/** What a stored value is as a cell, with what it holds; of a group each field, also where there is none. */
function plain(value: unknown, tree: SchemaTree, scales: Scales): unknown {
  if (isRecord(tree)) return fieldsOf(value as Record<string, unknown> | null | undefined, tree, scales);
  if (value === null || value === undefined) return null;
  const scale = scales.get(tree.element);
  if (scale !== undefined) return decimalOf(value, scale);
  if (typeof value === "bigint") return integer(value);
  if (value instanceof Uint8Array) return textOfBytes(value);
  if (value instanceof Date) return momentText(BigInt(value.getTime()) * 1000n);
  const held = heldBy(tree);
  if (Array.isArray(value) || ArrayBuffer.isView(value))
    return Array.from(value as unknown[], (item) => plain(item, held, scales));
  if (typeof value === "object")
    return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, plain(item, held, scales)]));
  return value;
}

const fieldsOf = (value: Record<string, unknown> | null | undefined, { children }: SchemaTree, scales: Scales) =>
  Object.fromEntries(children.map((child) => [child.element.name, plain(value?.[child.element.name], child, scales)] as const));

/**
 * The rows of a Parquet file in pieces. Dates and times are ISO texts, whole numbers and decimals keep all their digits, bytes
 * are texts; the fields of a group are columns of their own.
 * @throws DataError where it is no Parquet, or holds what is not read here
 */
export async function* readParquet(file: RandomAccess): AsyncGenerator<Table> {
  const told = (error: unknown) => new DataError(`this is not Parquet that can be read: ${(error as Error).message}`);
  let scan: Awaited<ReturnType<typeof parquetScan>>;
  let found: ReturnType<typeof withoutDecimals>;
  try {
    found = withoutDecimals(await parquetMetadataAsync(file));
    scan = await parquetScan({ file, metadata: found.metadata, compressors, parsers, utf8: false });
  } catch (error) {
    throw told(error);
  }
  const { metadata, scales } = found;
  const trees = parquetSchema(metadata).children;
  const names = trees.map(({ element }) => element.name);
  const usable = usableNames(names);
  for (const { rowStart, rowEnd } of scan.ranges)
    for (let start = rowStart; start < rowEnd; start += pieceRows) {
      const end = Math.min(rowEnd, start + pieceRows);
      const rows = new NestedRows();
      let columns: unknown[][];
      try {
        columns = await Promise.all(
          names.map(async (column) => Array.from<unknown>(await scan.readColumn({ column, rowStart: start, rowEnd: end }))),
        );
      } catch (error) {
        throw told(error);
      }
      for (let row = 0; row < end - start; row++)
        rows.add(Object.fromEntries(usable.names.map((name, i) => [name, plain(columns[i][row], trees[i], scales)])));
      const sample = sampleFrom(
        [...rows.columns].map(([name, values]) => ({ name, values })),
        end - start,
      );
      yield { sample, warnings: start === 0 ? [...usable.warnings, ...rows.warnings()] : [] };
    }
  if (metadata.num_rows === 0n)
    yield {
      sample: sampleFrom(
        usable.names.map((name) => ({ name, values: [] })),
        0,
      ),
      warnings: usable.warnings,
    };
}

const types: Readonly<Record<ColumnKind, "STRING" | "INT64" | "DOUBLE" | "BOOLEAN" | "JSON">> = {
  text: "STRING",
  "whole number": "INT64",
  number: "DOUBLE",
  "truth value": "BOOLEAN",
  list: "JSON",
};

/** Rows of a group, which is the least that is written at a time. */
const groupRows = 32_768;

/** Writes rows as Parquet, group by group; the kinds of the columns are those of the first group. Lists are JSON, errors nothing. */
export class ParquetRows {
  readonly #bytes = new ByteWriter();
  #writer: ParquetWriter | undefined;
  #kinds: readonly ColumnKind[] = [];
  #waiting: Value[][];
  #written = 0;

  constructor(readonly names: readonly string[]) {
    this.#waiting = names.map(() => []);
  }

  /** Takes columns of values; gives the bytes that are ready. */
  add(columns: readonly (readonly Value[])[]): Uint8Array {
    columns.forEach((values, i) => {
      for (const value of values) this.#waiting[i].push(value);
    });
    if ((this.#waiting[0]?.length ?? 0) >= groupRows) this.#write();
    return this.#taken();
  }

  end(): Uint8Array {
    if (!this.#writer || (this.#waiting[0]?.length ?? 0) > 0) this.#write();
    void this.#writer!.finish();
    return this.#taken();
  }

  #write(): void {
    const waiting = this.#waiting;
    if (!this.#writer) this.#kinds = waiting.map(kindOfColumn);
    const columnData = this.names.map((name, i) => ({
      name,
      type: types[this.#kinds[i]],
      nullable: true,
      // Where each page begins is kept until the end, for every group.
      offsetIndex: false,
      data: waiting[i].map((value, row) => asKind(value, this.#kinds[i], name, this.#written + row)),
    }));
    this.#writer ??= new ParquetWriter({
      writer: this.#bytes,
      schema: schemaFromColumnData({ columnData }),
      createdBy: "Indigo Quill",
    });
    void this.#writer.write({ columnData, rowGroupSize: groupRows * 2 });
    this.#written += waiting[0]?.length ?? 0;
    this.#waiting = this.names.map(() => []);
  }

  /** What was written since the last time. */
  #taken(): Uint8Array {
    const bytes = this.#bytes.getBytes().slice();
    this.#bytes.index = 0;
    return bytes;
  }
}
