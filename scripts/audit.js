/**
 * npm run audit — for each dialect, how many functions of the text families are rows of data only.
 *
 * A function is pure when each of its rows is an operation with answers or a decision, the same after a round
 * trip through JSON, and its operation serves more than one function. `npm test` runs the cases of
 * every dialect on rows that went through JSON. Of the table of conversions, how many lines do nothing but steps. Fails below 90 %, and below 60 % of the functions of all families; with
 * `--all` these stand family by family, with the functions whose row names code.
 */
import { parseArgs } from "node:util";
import { dialects, isData, isPure, partsOfWork } from "indigo-quill/dialects";
import { families, textFamilies } from "indigo-quill/text";

const { values } = parseArgs({ options: { all: { type: "boolean", default: false } } });
const least = { text: 0.9, all: 0.6 };
const all = Object.values(dialects).map((make) => make());
const users = new Map();
for (const dialect of all) {
  for (const row of dialect.rows.filter(isPure))
    users.set(row.operation, (users.get(row.operation) ?? new Set()).add(`${dialect.id} ${row.name}`));
}

const grouped = (rows) => new Map(rows.map((row) => [row.name, rows.filter((other) => other.name === row.name)]));
const percent = (part, whole) => `${((100 * part) / whole).toFixed(1)} %`;

/** How many functions have nothing but rows of data, and the names of the others. */
function shareOf(rows) {
  const coded = [...grouped(rows)].filter(([, own]) => !own.every(isData)).map(([name]) => name);
  return { count: grouped(rows).size, coded };
}

let failed = false;
for (const dialect of all) {
  const rows = dialect.rows.filter((row) => textFamilies.includes(row.family));
  const byName = grouped(rows);
  const reasons = [...byName].flatMap(([name, own]) => {
    const coded = own.filter((row) => !isData(row));
    if (coded.length > 0) return [[name, `code of its own: ${coded.map((row) => row.code).join(", ")}`]];
    if (own.some((row) => JSON.stringify(JSON.parse(JSON.stringify(row))) !== JSON.stringify(row)))
      return [[name, "changes on its way through JSON"]];
    const alone = own.find((row) => isPure(row) && users.get(row.operation).size < 2);
    return alone ? [[name, `the operation ${alone.operation} serves no other function`]] : [];
  });
  const pure = byName.size - reasons.length;
  const share = pure / byName.size;
  failed ||= share < least.text;
  console.log(
    `${dialect.id}: ${pure} of ${byName.size} functions of the text families are pure rows (${percent(pure, byName.size)})`,
  );
  for (const [name, reason] of reasons) console.log(`  ${name}: ${reason}`);
  const { count, coded } = shareOf(dialect.rows);
  failed ||= 1 - coded.length / count < least.all;
  console.log(`  of all families: ${count - coded.length} of ${count} (${percent(count - coded.length, count)})`);
  const { conversions } = dialect.types;
  const stepped = conversions.filter(([, , , work = []]) => partsOfWork(work).every((part) => !("named" in part)));
  console.log(
    `  conversions: ${stepped.length} of ${conversions.length} lines are steps (${percent(stepped.length, conversions.length)})`,
  );
  for (const family of values.all ? families : []) {
    const own = shareOf(dialect.rows.filter((row) => row.family === family));
    if (own.coded.length > 0)
      console.log(`  ${family}: ${own.count - own.coded.length} of ${own.count}; code: ${own.coded.join(", ")}`);
  }
}
process.exitCode = failed ? 1 : 0;
