import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { type Connection, open } from "@indigo-quill/engines";
import { findText, fuzz } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";
import { agrees, traitProbes } from "./traits.ts";

/** The servers that `npm run test:servers` has started. */
const urls: Readonly<Record<string, string>> = {
  postgresql: process.env.IQUILL_POSTGRESQL ?? "",
  mariadb: process.env.IQUILL_MARIADB ?? "",
};

describe.each(Object.keys(urls))("%s server", (id) => {
  let connection: Connection;
  beforeAll(async () => void (connection = await open(id, urls[id])));
  afterAll(async () => connection.close());

  test.each([301, 302])("seed %i: 3,000 generated expressions give what it gives", async (seed) => {
    const report = await fuzz(connection, dialects[id](connection.options), { count: 3000, seed });
    expect(report.finds.map(findText)).toEqual([]);
    expect(report.values).toBeGreaterThan(report.cases / 2);
  });

  test("the answers to each trait are its own", async () => {
    for (const [trait, expression] of Object.entries(traitProbes[id])) {
      expect({ trait, expression, agrees: await agrees(connection, id, expression) }).toEqual({
        trait,
        expression,
        agrees: true,
      });
    }
  });

  test("nothing can be written", async () => {
    const [outcome] = await connection.run({
      expression: "1) as value; create table t (a int); select (1",
      columns: [],
      rows: [[]],
    });
    expect(outcome).toHaveProperty("error");
  });
});

test.each(["utf8mb4_bin", "utf8mb4_unicode_ci"])("mariadb with %s: 1,500 generated expressions", async (collation) => {
  const connection = await open("mariadb", urls.mariadb, { options: { collation } });
  const report = await fuzz(connection, dialects.mariadb({ collation }), { count: 1500, seed: 401 });
  await connection.close();
  expect(report.finds.map(findText)).toEqual([]);
});
