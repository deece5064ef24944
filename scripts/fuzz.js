/**
 * Compares generated expressions with a live engine:
 * `npm run fuzz -- --dialect sqlite --count 10000 --seed 7 [--url postgres://…] [--option name=value]`.
 * Prints a shrunken case for every disagreement; exit 1 when there is one.
 */
import { parseArgs } from "node:util";
import { open } from "@indigo-quill/engines";
import { findText, fuzz } from "@indigo-quill/engines/fuzz";
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
  },
});
const options = Object.fromEntries(values.option.map((each) => each.split("=")));
const connection = await open(values.dialect, values.url, { options });
const dialect = dialects[values.dialect]({ ...connection.options, ...options });
const report = await fuzz(connection, dialect, {
  count: Number(values.count),
  seed: Number(values.seed),
  most: Number(values.most),
});
for (const find of report.finds) console.log(findText(find));
if (values.functions)
  for (const [name, { cases, values: good }] of report.byFunction) console.log(`${name}: ${cases} cases, ${good} without error`);
const { cases, values: same, errors, notCovered, argued, finds } = report;
console.log(
  `${connection.version}, seed ${values.seed}: ${cases} cases, ${same} values and ${errors} errors agree, ${notCovered} not covered, ${argued} argued, ${finds.length} disagree`,
);
await connection.close();
process.exitCode = finds.length > 0 ? 1 : 0;
