import { describe, expect, test } from "@jest/globals";
import { open } from "@indigo-quill/engines";
import { argued, findText, fuzz } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";

const sum = (counts: ReadonlyMap<string, number>) => [...counts.values()].reduce((total, count) => total + count, 0);

describe.each(["postgresql", "sqlite", "duckdb"])("%s: generated expressions give what the embedded engine gives", (id) => {
  test.each([101, 202])("seed %i, 2,000 cases", async (seed) => {
    const connection = await open(id);
    const report = await fuzz(connection, dialects[id](connection.options), { count: 2000, seed });
    await connection.close();
    expect(report.finds.map(findText)).toEqual([]);
    expect(report.values).toBeGreaterThan(report.cases / 2);
    expect(sum(report.notCovered) + sum(report.argued)).toBeLessThan(report.cases / 20);
  });
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
