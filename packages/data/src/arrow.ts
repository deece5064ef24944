import { Decimal, type Value } from "indigo-quill";
import { integer } from "indigo-quill/values";
import {
  Bool,
  DataType,
  DateUnit,
  Field,
  Float64,
  Int64,
  List,
  RecordBatch,
  RecordBatchFileWriter,
  RecordBatchReader,
  Schema,
  Struct,
  TimeUnit,
  Utf8,
  type Vector,
  makeData,
  vectorFromArray,
} from "apache-arrow";
import { NestedRows } from "./cells.ts";
import { type ColumnKind, asKind, kindOfColumn } from "./kinds.ts";
import { dateText, momentText } from "./moments.ts";
import { DataError, type RandomAccess, type Table, sampleFrom, usableNames } from "./table.ts";

/** Microseconds in each unit of a time; a nanosecond is less than one. */
const micros: Readonly<Record<number, bigint>> = {
  [TimeUnit.SECOND]: 1_000_000n,
  [TimeUnit.MILLISECOND]: 1000n,
  [TimeUnit.MICROSECOND]: 1n,
};

/** The whole number in four words of 32 bits. */
function bigOf(words: Uint32Array): bigint {
  const number = words.reduceRight((sum, word) => (sum << 32n) + BigInt(word), 0n);
  return BigInt.asIntN(words.length * 32, number);
}

/** What a stored value of a type is as a cell, with what it holds. */
function plain(value: unknown, type: DataType): unknown {
  // The fields of a struct are columns, also where there is none.
  if (DataType.isStruct(type))
    return Object.fromEntries(
      type.children.map((field) => [
        field.name,
        plain((value as Record<string, unknown> | null | undefined)?.[field.name], field.type as DataType),
      ]),
    );
  if (value === null || value === undefined) return null;
  if (DataType.isDictionary(type)) return plain(value, type.dictionary as DataType);
  if (typeof value === "bigint" && DataType.isInt(type)) return integer(value);
  if (DataType.isDecimal(type)) {
    const decimal = new Decimal(bigOf(value as Uint32Array), type.scale);
    const double = Number(String(decimal));
    return Decimal.parse(String(double))?.compare(decimal) === 0 ? double : decimal;
  }
  // The package gives dates and times as milliseconds, with a fraction where they are finer.
  if (DataType.isDate(type)) {
    const days = Number(value) / 86_400_000;
    return type.unit === DateUnit.DAY || Number.isInteger(days) ? dateText(days) : momentText(BigInt(Number(value)) * 1000n);
  }
  if (DataType.isTimestamp(type)) {
    if (typeof value === "bigint")
      return momentText(type.unit === TimeUnit.NANOSECOND ? value / 1000n : value * micros[type.unit]);
    return momentText(BigInt(Math.round(Number(value) * 1000)));
  }
  if (DataType.isList(type) || DataType.isFixedSizeList(type)) {
    const item = type.children[0].type as DataType;
    return Array.from(value as Iterable<unknown>, (each) => plain(each, item));
  }
  if (value instanceof Uint8Array) return new TextDecoder().decode(value);
  return typeof value === "object" ? String(value) : value;
}

/** Bytes that can be read from any place, as the package knows files. */
const asHandle = (file: RandomAccess) => ({
  fd: 0,
  stat: () => Promise.resolve({ size: file.byteLength }),
  async read(buffer: Uint8Array, offset: number, length: number, position: number) {
    const part = new Uint8Array(await file.slice(position, Math.min(file.byteLength, position + length)));
    buffer.set(part, offset);
    return { bytesRead: part.length, buffer };
  },
  close: () => Promise.resolve(),
});

/**
 * The rows of an Arrow file or stream in pieces, one for each record batch; values as those of Parquet. A file that comes as bytes
 * one after another is taken as a whole first, as what is in it stands at its end.
 * @throws DataError where it is no Arrow, or holds what is not read here
 */
export async function* readArrow(source: AsyncIterable<Uint8Array> | RandomAccess): AsyncGenerator<Table> {
  const told = (error: unknown) => new DataError(`this is not Arrow that can be read: ${(error as Error).message}`);
  let isFirst = true;
  try {
    const bytes = "slice" in source ? (asHandle(source) as unknown as AsyncIterable<Uint8Array>) : source;
    const reader = await RecordBatchReader.from(bytes);
    await reader.open();
    const usable = usableNames(reader.schema.fields.map(({ name }) => name));
    for await (const batch of reader) {
      if (batch.numRows === 0) continue;
      const rows = new NestedRows();
      const columns = batch.schema.fields.map((field, i) => ({
        type: field.type as DataType,
        vector: batch.getChildAt(i) as Vector,
      }));
      for (let row = 0; row < batch.numRows; row++)
        rows.add(Object.fromEntries(columns.map(({ type, vector }, i) => [usable.names[i], plain(vector.get(row), type)])));
      const sample = sampleFrom(
        [...rows.columns].map(([name, values]) => ({ name, values })),
        batch.numRows,
      );
      yield { sample, warnings: isFirst ? [...usable.warnings, ...rows.warnings()] : [] };
      isFirst = false;
    }
    const columns = usable.names.map((name) => ({ name, values: [] }));
    if (isFirst) yield { sample: sampleFrom(columns, 0), warnings: usable.warnings };
  } catch (error) {
    throw error instanceof DataError ? error : told(error);
  }
}

const types: Readonly<Record<ColumnKind, () => DataType>> = {
  text: () => new Utf8(),
  "whole number": () => new Int64(),
  number: () => new Float64(),
  "truth value": () => new Bool(),
  list: () => new List(new Field("item", new Utf8(), true)),
};

/** Writes rows as an Arrow file, a record batch for each piece; the kinds of the columns are those of the first. Errors are nothing. */
export class ArrowRows {
  readonly #writer = new RecordBatchFileWriter();
  #kinds: readonly ColumnKind[] | undefined;
  #ready: Uint8Array[] = [];
  readonly #drained: Promise<void>;
  #written = 0;

  constructor(readonly names: readonly string[]) {
    this.#drained = this.#drain();
  }

  async #drain(): Promise<void> {
    for await (const bytes of this.#writer as AsyncIterable<Uint8Array>) this.#ready.push(bytes);
  }

  /** Takes columns of values; gives the bytes that are ready by now. */
  add(columns: readonly (readonly Value[])[]): Uint8Array {
    this.#kinds ??= columns.map(kindOfColumn);
    const length = columns[0]?.length ?? 0;
    const fields = this.names.map((name, i) => new Field(name, types[this.#kinds![i]](), true));
    const children = columns.map((values, i) => {
      const own = values.map((value, row) => asKind(value, this.#kinds![i], this.names[i], this.#written + row));
      return vectorFromArray(own, fields[i].type).data[0];
    });
    const schema = new Schema(fields);
    this.#writer.write(new RecordBatch(schema, makeData({ type: new Struct(fields), length, nullCount: 0, children })));
    this.#written += length;
    return this.#taken();
  }

  async end(): Promise<Uint8Array> {
    if (!this.#kinds) this.add(this.names.map(() => []));
    this.#writer.close();
    await this.#drained;
    return this.#taken();
  }

  #taken(): Uint8Array {
    const all = new Uint8Array(this.#ready.reduce((sum, { length }) => sum + length, 0));
    let at = 0;
    for (const bytes of this.#ready) {
      all.set(bytes, at);
      at += bytes.length;
    }
    this.#ready = [];
    return all;
  }
}
