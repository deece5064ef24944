import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { DuckDBInstance } from "@duckdb/node-api";
import { afterAll, describe, expect, test } from "@jest/globals";
import { JsonReader, type Table, readPieces } from "@indigo-quill/data";
import { ArrowRows, readArrow } from "@indigo-quill/data/arrow";
import { ParquetRows, readParquet } from "@indigo-quill/data/parquet";
import { Decimal, Failure, type Value } from "indigo-quill";

const folder = mkdtempSync(join(tmpdir(), "iquill-"));
afterAll(() => rmSync(folder, { recursive: true }));

async function duckdb(query: string): Promise<unknown[][]> {
  const connection = await (await DuckDBInstance.create(":memory:")).connect();
  const found = (await connection.runAndReadAll(query)).getRowsJson();
  connection.closeSync();
  return found;
}

const access = (bytes: Uint8Array) => ({
  byteLength: bytes.length,
  // A copy: what Node.js reads stands in a larger buffer.
  slice: (from: number, to = bytes.length) => new Uint8Array(bytes.subarray(from, to)).buffer,
});

async function* inParts(bytes: Uint8Array, size = 1000): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield await Promise.resolve(bytes.subarray(at, at + size));
}

/** All rows of pieces, by columns. */
async function gathered(pieces: AsyncIterable<Table>) {
  const columns: Record<string, Value[]> = {};
  const warnings: string[] = [];
  for await (const { sample, warnings: own } of pieces) {
    warnings.push(...own);
    for (const { name, values } of sample.columns) (columns[name] ??= []).push(...values);
  }
  return { columns, warnings };
}

const columns: Readonly<Record<string, readonly Value[]>> = {
  text: ["a", "", null, 'é, "x"\n'],
  whole: [1, -2, null, 9007199254740993n],
  number: [1.5, 2, null, new Decimal(125n, 2)],
  truth: [true, false, null, true],
  mixed: [1, "x", true, null],
  error: ["a", new Failure("not-a-number"), null, "b"],
};
const names = Object.keys(columns);
const given = Object.values(columns);
const read = {
  ...columns,
  number: [1.5, 2, null, 1.25],
  mixed: ["1", "x", "true", null],
  error: ["a", null, null, "b"],
};

function parquetBytes(own: readonly (readonly Value[])[] = given, called = names): Uint8Array {
  const rows = new ParquetRows(called);
  return Buffer.concat([rows.add(own), rows.end()]);
}

async function arrowBytes(own: readonly (readonly Value[])[] = given, called = names): Promise<Uint8Array> {
  const rows = new ArrowRows(called);
  return Buffer.concat([rows.add(own), rows.add(own), await rows.end()]);
}

describe("Parquet", () => {
  test("what is written is read again, here and by another reader", async () => {
    const bytes = parquetBytes();
    expect((await gathered(readParquet(access(bytes)))).columns).toEqual(read);
    const path = join(folder, "a.parquet");
    writeFileSync(path, bytes);
    expect(await duckdb(`select text, whole, number, truth from '${path}'`)).toEqual([
      ["a", "1", 1.5, true],
      ["", "-2", 2, false],
      [null, null, null, null],
      ['é, "x"\n', "9007199254740993", 1.25, true],
    ]);
  });

  test.each(["snappy", "zstd", "gzip", "uncompressed", "lz4_raw", "brotli"])("of another writer is read: %s", async (codec) => {
    const path = join(folder, `${codec}.parquet`);
    const select = `select i::int as i, i::decimal(30, 3) / 8 as d, date '2019-04-03' + i::int as day, timestamp '1969-12-31 23:59:59.25' as at,
      'é' || i as t, [i::int, null] as l, case when i >= 4096 then {'a': i::int, 'b': {'c': 'x'}} when i < 10 then {'a': -1, 'b': null} end as s, [{'q': 1, 'd': i::bigint}] as ls, {'d': i::bigint, 'i': 2.5::decimal(9, 1)} as other, [1.25::decimal(9, 2)] as ds, 'ab'::blob as bytes, 12345678901234567890.5::decimal(38, 1) as big`;
    await duckdb(
      `copy (${select} from range(6000) r(i)) to '${path}' (format parquet, compression ${codec}, row_group_size 2048)`,
    );
    const { columns: found, warnings } = await gathered(readParquet(access(readFileSync(path))));
    const row = (at: number) => Object.fromEntries(Object.entries(found).map(([name, values]) => [name, values[at]]));
    expect(found.i.length).toBe(6000);
    expect(row(5999)).toEqual({
      i: 5999,
      d: 749.875,
      day: "2035-09-05",
      at: "1969-12-31 23:59:59.25",
      t: "é5999",
      l: [5999, null],
      "s.a": 5999,
      "s.b.c": "x",
      ls: '[{"q":1,"d":5999}]',
      // Fields of one name, of which one is a decimal.
      "other.d": 5999,
      "other.i": 2.5,
      ds: [1.25],
      bytes: "ab",
      big: new Decimal(123456789012345678905n, 1),
    });
    expect(warnings).toEqual(expect.arrayContaining([expect.stringContaining('"ls": ')]));
  });

  test("a value that does not fit the rows before is refused with its row", () => {
    const rows = new ParquetRows(["n"]);
    rows.add([Array.from({ length: 70_000 }, (_, i) => i)]);
    rows.add([[1, "x"]]);
    expect(() => rows.end()).toThrow('"n" holds whole numbers in the rows before, and on row 70002 "x"');
  });

  test.each([
    ["no more than a beginning", (bytes: Uint8Array) => bytes.subarray(0, 20)],
    ["a broken middle", (bytes: Uint8Array) => bytes.map((byte, i) => (i > 10 && i < 200 ? 255 : byte))],
  ])("%s is refused", async (_, broken) => {
    await expect(gathered(readParquet(access(broken(parquetBytes()))))).rejects.toThrow(/this is not Parquet that can be read: /);
  });

  test("no rows are a file, too", async () => {
    const bytes = parquetBytes([[], []], ["a", "b"]);
    const [table] = [await readParquet(access(bytes)).next()];
    expect((table.value as Table).sample.columns.map(({ name }) => name)).toEqual(["a", "b"]);
  });
});

describe("Arrow", () => {
  test("what is written is read again", async () => {
    const { columns: found } = await gathered(readArrow(inParts(await arrowBytes())));
    expect(found).toEqual(Object.fromEntries(Object.entries(read).map(([name, values]) => [name, [...values, ...values]])));
    expect((await gathered(readArrow(access(await arrowBytes())))).columns).toEqual(found);
  });

  test("lists are lists of texts", async () => {
    const { columns: found } = await gathered(readArrow(inParts(await arrowBytes([[["a", "b"], null]], ["l"]))));
    expect(found.l.slice(0, 2)).toEqual([["a", "b"], null]);
  });

  test("what is cut short is refused", async () => {
    const bytes = await arrowBytes();
    await expect(gathered(readArrow(inParts(bytes.subarray(0, bytes.length / 2))))).rejects.toThrow(
      /this is not Arrow that can be read/,
    );
  });
});

describe("JSON in pieces", () => {
  const rows = Array.from({ length: 50 }, (_, i) => ({ a: `x"[{,\\${i}`, b: { c: i, d: [1, { e: 2 }] } }));
  const expected = {
    a: rows.map(({ a }) => a),
    "b.c": rows.map(({ b }) => b.c),
    "b.d": rows.map(() => '[1,{"e":2}]'),
  };

  test.each([
    ["a list", JSON.stringify(rows)],
    ["a list in lines", JSON.stringify(rows, undefined, 2)],
    ["lines", rows.map((row) => JSON.stringify(row)).join("\n")],
  ])("%s, however it is cut", (_, text) => {
    for (const size of [1, 7, 64, 1000, text.length]) {
      const reader = new JsonReader();
      const found: Record<string, Value[]> = {};
      for (let at = 0; at < text.length; at += size)
        for (const { name, values } of reader.read(text.slice(at, at + size), at + size >= text.length).sample.columns)
          (found[name] ??= []).push(...values);
      expect(found).toEqual(expected);
    }
  });

  test.each([
    ["[", /line 1, column 2: this is not JSON/],
    ['[{"a":1},', /this is not JSON/],
    ['[{"a":1}\n{"a":2}]', /line 2, column 1: this is not JSON/],
    ['[{"a":1}] x', /something stands behind the end of the list/],
    ["[1]", /row 1 is not an object/],
    ['{"a":1}\n{"a":', /line 2, column 6: this is not JSON/],
  ])("%j is refused", (text, problem) => {
    for (const size of [3, text.length]) {
      const read = () => {
        const reader = new JsonReader();
        for (let at = 0; at < text.length; at += size) reader.read(text.slice(at, at + size), at + size >= text.length);
      };
      expect(read).toThrow(problem);
    }
  });

  test("a column that comes far down is refused, one that is missing is nothing", async () => {
    const line = `${JSON.stringify({ a: "x".repeat(1000) })}\n`;
    const bytes = Buffer.from(line.repeat(9000) + '{"b":1}\n');
    await expect(gathered(readPieces(inParts(bytes, 1 << 20)))).rejects.toThrow('a row far down has a column "b"');
    const { columns: found } = await gathered(readPieces(inParts(Buffer.from(line.repeat(9000) + "{}\n"), 1 << 20)));
    expect([found.a.length, found.a[9000]]).toEqual([9001, null]);
  });
});
