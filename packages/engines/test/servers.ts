import { spawnSync } from "node:child_process";
import { afterAll, beforeAll, describe, expect, jest, test } from "@jest/globals";
import { sampleOf } from "indigo-quill";
import { type Connection, open, probe } from "@indigo-quill/engines";
import { findText, fuzz } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";
import { hostile } from "./hostile.ts";
import { expectLists } from "./lists.ts";
import { agrees, traitProbes } from "./traits.ts";

/** A comparison takes ten seconds alone, and some times that beside the other tests. */
jest.setTimeout(240_000);

const root = new URL("../../..", import.meta.url).pathname;

/** The servers that `npm run test:servers` has started. */
const urls: Readonly<Record<string, string>> = {
  postgresql: process.env.IQUILL_POSTGRESQL ?? "",
  mariadb: process.env.IQUILL_MARIADB ?? "",
};

/** Seeds whose cases all agree; what other seeds still find is in docs/dialects.md. */
const seeds: Readonly<Record<string, readonly number[]>> = { postgresql: [305, 913], mariadb: [811, 912] };

describe.each(Object.keys(urls))("%s server", (id) => {
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

  test("what lists do, said in the dialect, gives the same", async () => {
    expect(await expectLists(connection, dialects[id](connection.options))).toBeGreaterThan(10);
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

test("every function of the servers is covered, or has a reason by its name", () => {
  const args = ["scripts/catalogue.js", "--postgresql", process.env.IQUILL_POSTGRESQL!, "--mariadb", process.env.IQUILL_MARIADB!];
  const { stdout, status } = spawnSync(process.execPath, args, { cwd: root, encoding: "utf8" });
  expect({ stdout, status }).toMatchObject({ status: 0 });
});

test.each(["utf8mb4_bin", "utf8mb4_unicode_ci"])("mariadb with %s: 1,500 generated expressions", async (collation) => {
  let connection!: Connection;
  const reopen = async () => (connection = await open("mariadb", urls.mariadb, { options: { collation } }));
  const report = await fuzz(await reopen(), dialects.mariadb({ collation }), { count: 1500, seed: 811, reopen });
  await connection.close();
  expect(report.finds.map(findText)).toEqual([]);
});

/** Every character of the scripts that the tables of weights and cases hold, each beside the next. */
const characters = [
  [0x20, 0x587],
  [0x1e00, 0x2ac7],
  [0x3000, 0x303f],
  [0xfb00, 0xfb06],
  [0xff00, 0xffef],
].flatMap(([first, last]) => Array.from({ length: last - first + 1 }, (_, i) => String.fromCharCode(first + i)));

test.each(["utf8mb4_general_ci", "utf8mb4_unicode_ci", "utf8mb4_nopad_bin"])(
  "mariadb orders and recases every character in %s",
  async (collation) => {
    const connection = await open("mariadb", urls.mariadb, { options: { collation } });
    const sample = sampleOf(characters.map((label, i) => ({ label, remark: characters[(i * 7 + 1) % characters.length] })));
    const differing: string[] = [];
    for (const expression of ["concat(upper(label), lower(label))", "strcmp(label, remark)", "strcmp(label, upper(remark))"]) {
      const { rows } = await probe(connection, dialects.mariadb({ collation }), expression, sample);
      differing.push(...rows.filter(({ agree }) => !agree).map(({ row }) => `${expression} of ${characters[row]}`));
    }
    await connection.close();
    expect(differing).toEqual([]);
  },
);
