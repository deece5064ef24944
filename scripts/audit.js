/**
 * npm run audit — for each dialect, how many functions of the text families are rows of data only.
 *
 * A function is pure when each of its rows is an operation with answers or a decision, the same after a round
 * trip through JSON, and its operation serves more than one function. `npm test` runs the cases of
 * every dialect on rows that went through JSON. Of the table of conversions, how many lines do nothing but steps, and how many
 * lines of code a dialect's folder has beside its grammar, its rows and other tables. Fails below 90 %, below 60 % of the
 * functions of all families, and above 5,500 lines; with `--all` the families stand one by one, with the functions whose row names
 * code.
 */
import { readFileSync, readdirSync } from "node:fs";
import { parseArgs } from "node:util";
import { dialects, isData, isPure, partsOfWork } from "indigo-quill/dialects";
import { families, textFamilies } from "indigo-quill/text";

import ts from "typescript";

const { values } = parseArgs({ options: { all: { type: "boolean", default: false } } });
const least = { text: 0.9, all: 0.6 };
const mostLines = 5_500;
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

const grammarAndRows =
  /^(?:grammar|lexis|printer|phrases|calls|statements|(?:\w+-)?functions|operators|aggregates|refused|uncovered|evidence|steps|index)\.ts$/;

const holdsCode = (node) => ts.isFunctionLike(node) || ts.isClassLike(node) || ts.forEachChild(node, holdsCode) === true;

/** The lines of a file's statements that hold code, with what is said before each; tables have none. */
function handWrittenLines(path) {
  const source = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  const lineOf = (at) => source.getLineAndCharacterOfPosition(at).line;
  const isTable = (statement) => ts.isVariableStatement(statement) && !holdsCode(statement);
  return source.statements
    .filter((statement) => !isTable(statement))
    .reduce((sum, statement) => sum + lineOf(statement.end) - lineOf(statement.pos) + Number(statement.pos === 0), 0);
}

function handWritten(id) {
  const folder = `packages/core/src/dialects/${id}`;
  const files = readdirSync(folder).filter((name) => !grammarAndRows.test(name));
  return files.reduce((sum, name) => sum + handWrittenLines(`${folder}/${name}`), 0);
}

let failed = false;
let lines = 0;
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
  const own = handWritten(dialect.id);
  lines += own;
  console.log(`  lines of code beside grammar, rows and tables: ${own}`);
  for (const family of values.all ? families : []) {
    const own = shareOf(dialect.rows.filter((row) => row.family === family));
    if (own.coded.length > 0)
      console.log(`  ${family}: ${own.count - own.coded.length} of ${own.count}; code: ${own.coded.join(", ")}`);
  }
}
console.log(`lines of code of all dialects: ${lines}, of ${mostLines} at most`);
failed ||= lines > mostLines;
process.exitCode = failed ? 1 : 0;
