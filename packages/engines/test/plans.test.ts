import { DuckDBInstance } from "@duckdb/node-api";
import { PGlite } from "@electric-sql/pglite";
import { expect, test } from "@jest/globals";
import { sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import { open } from "@indigo-quill/engines";
import { type CalculatedColumn, type PlanOptions, planColumns, planStatement } from "indigo-quill/folio";
import load from "sql.js";
import { expectLists, expectPatterns, expectTasks, expectUnits } from "./lists.ts";

const rows = [
  { label: " alnus", "Collector Notes": "a, b", n: 1 },
  { label: "SALIX", "Collector Notes": null, n: 2 },
  { label: null, "Collector Notes": "c", n: null },
  { label: "", "Collector Notes": "d, e", n: 3 },
];
const create = `create table "the rows" (label text, "Collector Notes" text, n integer)`;
const literal = (value: unknown) => (value === null ? "null" : typeof value === "number" ? String(value) : `'${String(value)}'`);
const insert = `insert into "the rows" values ${rows.map((row) => `(${Object.values(row).map(literal).join(", ")})`).join(", ")}`;

/** What each engine gives for a query over the table, row by row. */
const engines: Readonly<Record<string, (query: string) => Promise<unknown[][]>>> = {
  async sqlite(query) {
    const database = new (await load()).Database();
    database.run(`${create}; ${insert}`);
    return database.exec(query)[0].values;
  },
  async postgresql(query) {
    const database = await PGlite.create();
    await database.exec(`${create}; ${insert}`);
    const { rows: found } = await database.query<unknown[]>(query, [], { rowMode: "array" });
    await database.close();
    return found;
  },
  async duckdb(query) {
    const connection = await (await DuckDBInstance.create(":memory:")).connect();
    await connection.run(create);
    await connection.run(insert);
    const found = (await connection.runAndReadAll(query)).getRows();
    connection.closeSync();
    return found.map((row) => row.map((value) => (typeof value === "bigint" ? Number(value) : value)));
  },
};

const column = (name: string, expression: string, isHelper?: true): CalculatedColumn => ({
  names: [name],
  expression,
  ...(isHelper && { isHelper }),
});
const columns: readonly CalculatedColumn[] = [
  column("k", "length(label)"),
  column("label", "upper(trim(label))"),
  column("first", "substr(label, 1, comma)", true),
  column("comma", `length("Collector Notes") - 2`, true),
  column("is changed", "first || '!'"),
  column("n", "n + 1"),
  // What lists do is said in the dialect.
  {
    ...column("notes", `"Collector Notes"`),
    then: [
      {
        replace: [
          { old: "a", new: "it's" },
          { old: "c", new: "", where: "whole" },
        ],
      },
    ],
  },
  { ...column("which", "lower(label)"), then: [{ which: { values: ["alnus", "salix"] } }] },
];
const options: readonly PlanOptions[] = [
  {},
  { where: "n > 1" },
  { only: "n < 3" },
  { where: "n = 1", only: `"Collector Notes" like '%,%'` },
];

// The printed query must give on the engine what the plan gives here.
test.each(Object.keys(engines).flatMap((id) => options.map((option) => [id, option] as const)))("%s %j", async (id, option) => {
  const sample = sampleOf(rows);
  const plan = planColumns(dialects[id](), columns, sample, option);
  expect(plan.ok).toBe(true);
  const { sample: given } = plan.run(sample);
  const expected = Array.from({ length: given.rows }, (_, row) => given.columns.map(({ values }) => values[row]));
  expect(await engines[id](planStatement(plan, "the rows", sample))).toEqual(expected);
});

test("what has no query is refused", () => {
  const sample = sampleOf(rows);
  const several = planColumns(dialects.duckdb(), [{ names: ["a", "b"], expression: "string_split(label, ',')" }], sample);
  expect(() => planStatement(several, "t", sample)).toThrow("a list that becomes columns (a, b) has no statement here");
  const formula = planColumns(dialects.openformula(), [column("a", "1")], sample);
  expect(() => planStatement(formula, "t", sample)).toThrow("has no statements");
});

// What lists do, said in a dialect, must give on the engine what it gives here.
test.each(["sqlite", "postgresql", "duckdb"])("what lists and tasks do, and carried patterns, on %s", async (id) => {
  const connection = await open(id);
  expect(await expectLists(connection, dialects[id](connection.options))).toBeGreaterThan(id === "sqlite" ? 3 : 9);
  expect(await expectTasks(connection, dialects[id](connection.options))).toBeGreaterThan(60);
  if (id !== "sqlite") expect(await expectPatterns(connection, dialects[id](connection.options))).toBeGreaterThan(8);
  await connection.close();
});

test.each(["postgresql", "duckdb"])("units of dates on %s", async (id) => {
  const connection = await open(id);
  await expectUnits(connection, dialects[id](connection.options));
  await connection.close();
});
