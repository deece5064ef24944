/**
 * Compares generated expressions with a live engine:
 * `npm run fuzz -- --dialect sqlite --count 10000 --seed 7 [--url postgres://…] [--option name=value]`.
 * With `--sweep` every function is called with each combination of few values, one of them null, instead.
 * With `--alone` it asks no engine, in any dialect: nothing may throw or take long, and what is printed must read back.
 * Prints a shrunken case for every disagreement; exit 1 when there is one.
 */
import { parseArgs } from "node:util";
import { open } from "@indigo-quill/engines";
import { findText, fuzz, selfCheck, sweep } from "@indigo-quill/engines/fuzz";
import { dialects } from "indigo-quill/dialects";

const { values } = parseArgs({
  options: {
    dialect: { type: "string", default: "sqlite" },
    count: { type: "string", default: "5000" },
    seed: { type: "string", default: "1" },
    most: { type: "string", default: "20" },
    url: { type: "string" },
    option: { type: "string", multiple: true, default: [] },
    functions: { type: "boolean", default: false },
    alone: { type: "boolean", default: false },
    sweep: { type: "boolean", default: false },
  },
});
const options = Object.fromEntries(values.option.map((each) => each.split("=")));
const bounds = { count: Number(values.count), seed: Number(values.seed), most: Number(values.most) };

if (values.alone) {
  const { cases, faults } = selfCheck(dialects[values.dialect](options), bounds);
  for (const { expression, what } of faults) console.log(`${expression}\n  ${what}`);
  console.log(`${values.dialect}, seed ${values.seed}: ${cases} cases, ${faults.length} faults`);
  process.exit(faults.length > 0 ? 1 : 0);
}

let connection;
const reopen = async () => (connection = await open(values.dialect, values.url, { options }));
await reopen();
if (values.sweep) {
  const { cases, finds } = await sweep(connection, dialects[values.dialect]({ ...connection.options, ...options }));
  for (const find of finds) console.log(findText(find));
  console.log(`${connection.version}: ${cases} calls, ${finds.length} disagree`);
  await connection.close();
  process.exit(finds.length > 0 ? 1 : 0);
}
const report = await fuzz(connection, dialects[values.dialect]({ ...connection.options, ...options }), {
  ...bounds,
  reopen,
});
const sum = (counts) => [...counts.values()].reduce((total, each) => total + each, 0);
const list = (name, counts) => {
  for (const [reason, each] of [...counts].sort((a, b) => b[1] - a[1])) console.log(`  ${name}, ${each}: ${reason}`);
};
for (const find of report.finds) console.log(findText(find));
if (values.functions)
  for (const [name, { cases, values: good }] of report.byFunction) console.log(`${name}: ${cases} cases, ${good} without error`);
list("argued", report.argued);
list("not sent", report.unread);
list("not covered", report.notCovered);
const { cases, values: same, errors, errorsOfOneClass, finds } = report;
const share = errors === 0 ? 100 : Math.round((1000 * errorsOfOneClass) / errors) / 10;
console.log(
  `${connection.version}, seed ${values.seed}: ${cases} cases; ${same} values agree, ${errors} errors (${share} % of one class); ` +
    `${sum(report.notCovered)} not covered, ${sum(report.unread)} not sent, ${sum(report.argued)} argued, ${finds.length} disagree`,
);
await connection.close();
process.exitCode = finds.length > 0 ? 1 : 0;
