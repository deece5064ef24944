import { describe, expect, test } from "@jest/globals";
import {
  CsvReader,
  DataError,
  csvLines,
  decode,
  readCsv,
  readJson,
  readTable,
  writeCsv,
  writeJson,
  writeNdjson,
} from "@indigo-quill/data";
import { Failure, type Sample } from "indigo-quill";

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** A sample as names and rows, for comparing. */
const plain = ({ columns, rows }: Sample) => [
  columns.map(({ name }) => name),
  ...Array.from({ length: rows }, (_, row) => columns.map(({ values }) => values[row])),
];

function problem(read: () => unknown): DataError {
  try {
    read();
  } catch (error) {
    if (error instanceof DataError) return error;
    throw error;
  }
  throw new Error("nothing was wrong");
}

// prettier-ignore
describe("CSV is read", () => {
  test.each([
    ["a,b\n1,2\n", [["a", "b"], ["1", "2"]]],
    ["a,b\r\n1,2", [["a", "b"], ["1", "2"]]],
    ["a;b\n1;2", [["a", "b"], ["1", "2"]]],
    ["a\tb\n1\t2", [["a", "b"], ["1", "2"]]],
    ['a,b\n"x, ""y""","two\nlines"\n', [["a", "b"], ['x, "y"', "two\nlines"]]],
    ["code\n007\n 7 \n", [["code"], ["007"], [" 7 "]]],
    ["a,b\n,\n", [["a", "b"], ["", ""]]],
    ["a\nx\n\ny\n", [["a"], ["x"], [""], ["y"]]],
    ["a,b\n1,2\n\n3,4\n", [["a", "b"], ["1", "2"], ["3", "4"]]],
    ["a,b\n", [["a", "b"]]],
    ["\n  \n\na,b\n1,2\n", [["a", "b"], ["1", "2"]]],
    ["a,b\r\n1,2\n3,4\r5,\"x\r\ny\"\r\n", [["a", "b"], ["1", "2"], ["3", "4"], ["5", "x\r\ny"]]],
    ["a\n\ud800x\n", [["a"], ["\ud800x"]]],
  ])("%j", (text, expected) => {
    expect(plain(readCsv(text).sample)).toEqual(expected);
  });

  test("in pieces cut anywhere the rows are the same, and places count from the start", () => {
    const text = 'a,b\n1,"x\n""y"\n,\n2,é\n';
    for (let cut = 1; cut < text.length; cut++) {
      const reader = new CsvReader({});
      const pieces = [reader.read(text.slice(0, cut), false), reader.read(text.slice(cut), true)];
      const rows = pieces.flatMap(({ sample }) => plain(sample).slice(1));
      expect([cut, rows]).toEqual([cut, [["1", 'x\n"y'], ["", ""], ["2", "é"]]]);
    }
    const reader = new CsvReader({});
    reader.read("a,b\n1,2\n", false);
    expect(problem(() => reader.read("1,2,3\n", true)).line).toBe(3);
  });

  test("ragged rows can be taken, with a warning and nothing lost", () => {
    const { sample, warnings } = readCsv("a,b\n1\n1,2,3\n", { ragged: true });
    expect(plain(sample)).toEqual([["a", "b", "column 3"], ["1", null, null], ["1", "2", "3"]]);
    expect(warnings).toEqual(["line 2: this row has 1 of 2 fields", "line 3: this row has 3 of 2 fields"]);
  });

  test("a separator is one character that is no quote and no line break", () => {
    for (const separator of ['"', "\n", "", ";;", "\ufeff"]) expect(problem(() => readCsv("a", { separator })).message).toMatch(/separates nothing/);
  });

  test("many columns of one name are read at once, and not told one by one", () => {
    const { sample, warnings } = readCsv(`${Array(20_000).fill("a").join(",")}\n`);
    expect([sample.columns[19_999].name, warnings.length]).toEqual(["a (20000)", 21]);
  });

  test("a field can stand for a missing value", () => {
    expect(plain(readCsv("a,b\nNULL,x\n", { missing: "NULL" }).sample)).toEqual([["a", "b"], [null, "x"]]);
  });

  test("names that are empty or there twice are made usable, and said", () => {
    const { sample, warnings } = readCsv("label,,label\n1,2,3\n");
    expect(plain(sample)[0]).toEqual(["label", "column 2", "label (2)"]);
    expect(warnings).toEqual(['column 2 has no name; it is called "column 2"', 'there are several columns "label"; number 3 is called "label (2)"']);
  });
});

// prettier-ignore
describe("what is wrong in CSV is said with its place", () => {
  test.each([
    ["", 1, 1, /empty/],
    ['a,b\n1,"x\n', 2, 3, /not closed/],
    ['a,b\n1,"x"y\n', 2, undefined, /quote/],
    ["a,b\n1,2\n1,2,3\n", 3, 1, /3 fields, the header has 2/],
    ['a,b\n"1\n2",3\n4\n', 4, 1, /1 field, the header has 2/],
  ])("%j", (text, line, column, message) => {
    const error = problem(() => readCsv(text));
    expect(error.message).toMatch(message);
    expect(error.line).toBe(line);
    if (column !== undefined) expect(error.column).toBe(column);
  });
});

// prettier-ignore
describe("JSON and NDJSON", () => {
  test.each([
    ['[{"a":1,"b":"x"},{"b":null,"c":true}]', [["a", "b", "c"], [1, "x", null], [null, null, true]]],
    ['{"a":1}\n\n{"a":2}\n', [["a"], [1], [2]]],
    ["[]", [[]]],
    ['[{"a":{}},{"a":null}]', [["a"], [null], [null]]],
    ['[{"a":{"b":1,"c":{"d":[1]}}},{"a":null,"x":[{"q":"y"}]}]', [["a.b", "a.c.d", "a", "x"], [1, [1], null, null], [null, null, null, '[{"q":"y"}]']]],
  ])("%j", (text, expected) => {
    expect(plain(readJson(text).sample)).toEqual(expected);
  });

  test.each([
    ['[{"a":1},\n {"a":}]', 2, /not JSON/],
    ['{"a":1}\n{"a":\n', 2, /not JSON/],
    ["[1]", undefined, /row 1 is not an object/],
    ['[{"a.b":1,"a":{"b":2}}]', undefined, /row 1: "a\.b" is given twice, by itself and as a field of an object/],
    ['[{"a":1,\n"a":2}]', 2, /the name 'a' is given twice/],
  ])("%j is refused", (text, line, message) => {
    const error = problem(() => readJson(text));
    expect(error.message).toMatch(message);
    expect(error.line).toBe(line);
  });
});

// prettier-ignore
describe("encodings", () => {
  test.each([
    [[0xef, 0xbb, 0xbf, 0x61], undefined, "a"],
    [[0xff, 0xfe, 0x61, 0x00], undefined, "a"],
    [[0xfe, 0xff, 0x00, 0x61], undefined, "a"],
    [[0x61, 0x00, 0x62, 0x00], undefined, "ab"],
    [[0x00, 0x61, 0x00, 0x62], undefined, "ab"],
    [[0xff, 0xfe, 0x00, 0x00, 0x61, 0x00, 0x00, 0x00], undefined, "a"],
    [[0x00, 0x01, 0xf3, 0x3f], "utf-32be", "🌿"],
    [[0xe9, 0x80], "windows-1252", "é€"],
    [[0xe9], "latin1", "é"],
  ])("%j as %s", (given, encoding, expected) => {
    expect(decode(new Uint8Array(given), encoding)).toBe(expected);
  });

  test("bytes that are not of the encoding, and an encoding that is not known", () => {
    expect(problem(() => decode(new Uint8Array([0x61, 0xe9]))).message).toMatch(/not UTF-8; give its encoding, one of utf-8/);
    expect(problem(() => decode(bytes("a"), "klingon")).message).toMatch(/"klingon" is not known; use one of/);
  });
});

test("the format is found out from the content, and can be given", () => {
  expect(plain(readTable(bytes('[{"a":1}]')).sample)).toEqual([["a"], [1]]);
  expect(plain(readTable(bytes("a\n1\n")).sample)).toEqual([["a"], ["1"]]);
  expect(plain(readTable(bytes("[a]\n1\n"), { format: "csv" }).sample)).toEqual([["[a]"], ["1"]]);
});

test("what is written can be read again", () => {
  const names = ["a", "b"];
  const rows = [
    ['x, "y"', "1"],
    ["two\nlines", ""],
    [" ", "é"],
  ];
  for (const [write, read] of [
    [writeCsv, readCsv],
    [writeJson, readJson],
    [writeNdjson, readJson],
  ] as const) {
    expect(plain(read(write(names, rows)).sample)).toEqual([names, ...rows]);
  }
});

test("numbers keep all their digits, and errors, nothing and lists come back as they were", () => {
  const lines =
    '{"a":12345678901234567890,"b":0.1000000000000000055511151231257827,"c":1e400,"d":null}\n{"a":1,"b":0.1,"c":["x",null],"d":{"error":"22012"}}\n';
  const { sample } = readJson(lines);
  const written = writeNdjson(
    sample.columns.map(({ name }) => name),
    plain(sample)
      .slice(1)
      .map((row) => row.map((cell) => (cell instanceof Failure ? { error: cell.standard } : cell))),
  );
  expect(written.replace(/1(0{400})/, "1e400")).toBe(lines);
});

test("CSV tells empty text from nothing", () => {
  expect(writeCsv(["a", "b"], [["", null]])).toBe('a,b\n"",\n');
  expect(csvLines([["a\tb", 'c"d', "", null, " e", "x,y"]], "\t")).toBe('"a\tb"\t"c""d"\t""\t\t" e"\tx,y\n');
});

test("a single cell of 100 MB is read whole", () => {
  const { sample } = readTable(bytes(`label,n\n"${"x".repeat(100_000_000)}",1\nshort,2\n`));
  expect(sample.rows).toBe(2);
  expect((sample.columns[0].values[0] as string).length).toBe(100_000_000);
});
