/**
 * npm run audit — for each dialect, how many functions of the text families are rows of data only.
 *
 * A function is pure when each of its rows is an operation with answers, the same after a round
 * trip through JSON, and its operation serves more than one function. `npm test` runs the cases of
 * every dialect on rows that went through JSON. Fails below 90 %.
 */
import { dialects, isPure } from "indigo-quill/dialects";
import { textFamilies } from "indigo-quill/text";

const least = 0.9;
const all = Object.values(dialects).map((make) => make());
const users = new Map();
for (const dialect of all) {
  for (const row of dialect.rows.filter(isPure))
    users.set(row.operation, (users.get(row.operation) ?? new Set()).add(`${dialect.id} ${row.name}`));
}

let failed = false;
for (const dialect of all) {
  const rows = dialect.rows.filter((row) => textFamilies.includes(row.family));
  const byName = new Map(rows.map((row) => [row.name, rows.filter((other) => other.name === row.name)]));
  const reasons = [...byName].flatMap(([name, own]) => {
    const coded = own.filter((row) => !isPure(row));
    if (coded.length > 0) return [[name, `code of its own: ${coded.map((row) => row.code).join(", ")}`]];
    if (own.some((row) => JSON.stringify(JSON.parse(JSON.stringify(row))) !== JSON.stringify(row)))
      return [[name, "changes on its way through JSON"]];
    const alone = own.find((row) => users.get(row.operation).size < 2);
    return alone ? [[name, `the operation ${alone.operation} serves no other function`]] : [];
  });
  const pure = byName.size - reasons.length;
  const share = pure / byName.size;
  failed ||= share < least;
  console.log(
    `${dialect.id}: ${pure} of ${byName.size} functions of the text families are pure rows (${(100 * share).toFixed(1)} %)`,
  );
  for (const [name, reason] of reasons) console.log(`  ${name}: ${reason}`);
}
process.exitCode = failed ? 1 : 0;
