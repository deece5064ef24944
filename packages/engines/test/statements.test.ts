import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { PGlite } from "@electric-sql/pglite";
import { DuckDBInstance } from "@duckdb/node-api";
import { compile, sampleOf } from "indigo-quill";
import { type StatementKind, nameTroubles, statementKinds, statementOf } from "indigo-quill/authoring";
import { dialects } from "indigo-quill/dialects";
import initSqlJs from "sql.js";

/** Runs SQL and gives the rows of the last statement as lists. */
type Run = (sql: string) => Promise<unknown[][]>;

const sample = sampleOf([
  { "Collector Notes": "a;b", taxon: "Alnus glutinosa" },
  { "Collector Notes": "it's", taxon: null },
]);
const setUp = `create table "specimen's" ("Collector Notes" varchar(40), taxon varchar(40));
  insert into "specimen's" values ('a;b', 'Alnus glutinosa'), ('it''s', null);`;

const engines: Readonly<Record<string, () => Promise<Run>>> = {
  async postgresql() {
    const database = await PGlite.create();
    return async (sql) => (await database.exec(sql, { rowMode: "array" })).at(-1)!.rows as unknown as unknown[][];
  },
  async sqlite() {
    const database = new (await initSqlJs()).Database();
    return (sql) => Promise.resolve(database.exec(sql).at(-1)?.values ?? []);
  },
  async duckdb() {
    const connection = await (await DuckDBInstance.create(":memory:")).connect();
    return async (sql) => (await connection.runAndReadAll(sql)).getRows();
  },
};

describe.each(Object.keys(engines))("%s runs the statements of a calculated column", (id) => {
  let run: Run;
  beforeAll(async () => void (run = await engines[id]()));
  afterAll(() => run("select 1"));
  const program = (expression: string) => compile(dialects[id](), expression, sample);

  test.each([...statementKinds])("%s", async (kind: StatementKind) => {
    await run(`drop view if exists "marked ""view"""; drop table if exists "specimen's"; ${setUp}`);
    const names = { table: "specimen's", column: 'short "name"', view: 'marked "view"' };
    const { text, refused } = statementOf(program(`upper(taxon) || '!' -- loud`), kind, names);
    expect(refused).toEqual([]);
    const rows =
      kind === "select"
        ? await run(text)
        : await run(`${text} select * from ${kind === "view" ? '"marked ""view"""' : `"specimen's"`}`);
    expect(rows.map((row) => row[2])).toEqual(["ALNUS GLUTINOSA!", null]);
  });
});

test.each([
  ["concat(taxon, '!')", ["concat"]],
  ["upper(to_char(1.5, '9.9'))", ["to_char"]],
  ["cast(cast(taxon as date) as text)", ["cast date to text", "cast text to date"]],
])("postgresql refuses %s in a generated column, as we say", async (expression, parts) => {
  const run = await engines.postgresql();
  await run(setUp);
  const names = { table: "specimen's", column: "value" };
  const { text, refused } = statementOf(compile(dialects.postgresql(), expression, sample), "generated", names);
  expect(refused).toEqual(parts);
  await expect(run(text)).rejects.toThrow(/not immutable/);
});

// prettier-ignore
test.each([
  ["postgresql", ["a".repeat(63), "é".repeat(32), "Label", "label"], [`"${"é".repeat(32)}" is longer than the 63 bytes of a name in PostgreSQL`]],
  ["mariadb", ["é".repeat(64), "é".repeat(65)], [`"${"é".repeat(65)}" is longer than the 64 characters of a name in MariaDB`]],
  ["sqlite", ["x".repeat(500), "Label", "label"], ['"Label" and "label" are one name in SQLite']],
  ["openformula", ["Label", "label"], []],
])("names in %s", (id, names, expected) => {
  expect(nameTroubles(dialects[id](), names)).toEqual(expected);
});

// What is said of names is what the engine does with two that differ in case.
test.each(Object.keys(engines))("names that differ only in case, on %s", async (id) => {
  const run = await engines[id]();
  const { caseMinded } = dialects[id]().statements!.names;
  const [[found]] = await run('select "label" from (select 1 as "Label", 2 as "label") as r');
  expect(Number(found)).toBe(caseMinded ? 2 : 1);
  expect(nameTroubles(dialects[id](), ["Label", "label"])).toHaveLength(caseMinded ? 0 : 1);
});

test("a name of more than 63 bytes is cut by PostgreSQL", async () => {
  const database = await PGlite.create();
  const cut = async (name: string) => (await database.query(`select 1 as "${name}"`)).fields[0].name !== name;
  for (const name of ["a".repeat(63), "a".repeat(64), "é".repeat(31), "é".repeat(32)])
    expect([name, await cut(name)]).toEqual([name, nameTroubles(dialects.postgresql(), [name]).length > 0]);
  await database.close();
});
