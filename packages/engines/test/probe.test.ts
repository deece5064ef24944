import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { type Connection, Unreachable, open, probe } from "@indigo-quill/engines";
import { sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import { expectFormats } from "./formats.ts";
import { hostile } from "./hostile.ts";
import { agrees, sqlDialects, traitProbes } from "./traits.ts";

const sample = sampleOf([
  { label: "Alnus glutinosa", "Collector Notes": "a;b", n: 3, d: 1.5 },
  { label: "", "Collector Notes": "it's", n: null, d: -0.25 },
  { label: "ŠKODA ß", "Collector Notes": null, n: -1, d: 2 },
]);

describe.each(["postgresql", "sqlite", "duckdb"])("%s, embedded", (id) => {
  let connection: Connection;
  beforeAll(async () => void (connection = await open(id)));
  afterAll(async () => connection.close());
  const dialect = () => dialects[id](connection.options);

  test.each(["upper(label)", `"Collector Notes" || '!'`, "n + 1", "d * 2", "length(label)", "coalesce(n, 0) -- the end"])(
    "%s agrees on every row",
    async (expression) => {
      const result = await probe(connection, dialect(), expression, sample);
      expect(result.version).toMatch(/\d+\.\d+/);
      expect(result.rows.map(({ agree }) => agree)).toEqual([true, true, true]);
    },
  );

  test("a row that fails is that row's error, with the engine's words", async () => {
    const failing = id === "sqlite" ? "abs(-9223372036854775807 - (n is null))" : "cast(label as integer)";
    const { rows } = await probe(connection, dialect(), failing, sample);
    expect(rows.some(({ theirs }) => "error" in theirs)).toBe(true);
    expect(rows.every(({ agree }) => agree)).toBe(true);
  });

  test.each([
    "label); drop table x; --",
    "label; select 1",
    "(select 1 from t)",
    "(select 1); select 2",
    "'unclosed",
    "label /* open",
    "nosuch(label)",
    "1) or (1",
  ])("%s never reaches the engine", async (expression) => {
    const asked: string[] = [];
    const watched = {
      ...connection,
      run: (query: { expression: string }) => (asked.push(query.expression), connection.run(query as never)),
    };
    const { program, rows } = await probe(watched, dialect(), expression, sample);
    expect([program.ok, rows, asked]).toEqual([false, [], []]);
  });

  test("whatever a text holds, it is printed as that text, and does nothing else", async () => {
    const harm = "create table harm(a int)";
    const held = await hostile(connection, dialect(), harm);
    expect(held).toEqual([]);
    const [outcome] = await connection.run({ expression: "(select count(*) from harm)", columns: [], rows: [[]] });
    expect(outcome).toHaveProperty("error");
  });

  test("nothing can be written", async () => {
    await connection.run({ expression: "1) as value; create table t (a int); select (1", columns: [], rows: [[]] });
    const [outcome] = await connection.run({ expression: "(select count(*) from t)", columns: [], rows: [[]] });
    expect(outcome).toHaveProperty("error");
  });

  test("a disagreement is told", async () => {
    const claims = dialects[id]({ ...connection.options });
    const wrong = {
      ...claims,
      rows: claims.rows.map((row) =>
        row.name === "upper" && "answers" in row ? { ...row, answers: { ...row.answers, form: "lower" } } : row,
      ),
    };
    const { rows } = await probe(connection, wrong as never, "upper(label)", sample);
    expect(rows.map(({ agree }) => agree)).toEqual([false, true, false]);
  });
});

test("an engine that takes too long is stopped, and the next question is answered", async () => {
  const connection = await open("sqlite", undefined, { timeLimit: 1500 });
  const slow = "length(replace(hex(zeroblob(99999999)), '0', 'abcdefghij'))";
  const [outcome] = await connection.run({ expression: slow, columns: [], rows: [[]] });
  expect(outcome).toHaveProperty("error.code", "time-limit");
  expect(await connection.run({ expression: "1", columns: [], rows: [[]] })).toEqual([{ value: 1 }]);
  await connection.close();
});

test("a server that cannot be reached: who, where, why, and what to try", async () => {
  const failure = await open("mariadb", "mariadb://eva@localhost:1/").catch((error: unknown) => error);
  expect(failure).toBeInstanceOf(Unreachable);
  expect((failure as Error).message).toMatch(/^could not connect as eva at localhost:1: .*; is the server running/);
  await expect(open("postgresql", "not a url")).rejects.toThrow(/^the URL cannot be read; a server's is like postgresql:/);
  await expect(open("mariadb")).rejects.toThrow(/no embedded engine; give the URL/);
  await expect(open("xpath")).rejects.toThrow(/no engine to ask about xpath/);
});

describe("the SQL answers to each trait are the engines'", () => {
  const embedded = Object.keys(traitProbes).filter((id) => id !== "mariadb");
  test.each(embedded)("%s", async (id) => {
    const connection = await open(id);
    for (const [trait, expression] of Object.entries(traitProbes[id])) {
      expect({ trait, expression, agrees: await agrees(connection, id, expression) }).toEqual({
        trait,
        expression,
        agrees: true,
      });
    }
    await connection.close();
  });

  test("every trait that an SQL dialect answers is asked about", () => {
    for (const id of Object.keys(traitProbes))
      expect({ id, traits: Object.keys(traitProbes[id]).sort() }).toEqual({ id, traits: sqlDialects[id] });
  });
});

test("duckdb: dates are read by formats as it reads them", async () => {
  const connection = await open("duckdb");
  expect(await expectFormats(connection, dialects.duckdb(connection.options), 5)).toBeGreaterThan(100);
  await connection.close();
});
