import { expect, jest, test } from "@jest/globals";
import { sampleOf } from "indigo-quill";
import { type Connection, open, probe } from "@indigo-quill/engines";
import { findText, fuzz } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";
import { urls } from "./server.ts";

jest.setTimeout(240_000);

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

test.concurrent.each(["utf8mb4_general_ci", "utf8mb4_unicode_ci", "utf8mb4_nopad_bin"])(
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
