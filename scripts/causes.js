/**
 * npm run causes — of all rows on which two dialects differ, over everyday jobs and pasted texts, the share for which
 * `contrast` finds a cause; what is only a truth value in two forms is left out. The mean is that over tasks and pairs.
 *
 * --missing  lists the pairs for which none is found, with a row each
 */
import { parseArgs } from "node:util";
import { compile, sampleOf } from "indigo-quill";
import { agree, contrast } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { pasted, rows, tasks } from "./cause-tasks.js";

const { values } = parseArgs({ options: { missing: { type: "boolean", default: false } } });
const types = { label: "text", other: "text", n: "integer", x: "decimal", day: "text" };
const sample = sampleOf(rows, types);
const made = Object.fromEntries(Object.entries(dialects).map(([id, make]) => [id, make()]));

const accepted = (text) =>
  Object.fromEntries(Object.values(made).flatMap((dialect) => (compile(dialect, text, sample).ok ? [[dialect.id, text]] : [])));
const jobs = [...Object.entries(tasks), ...pasted.map((text) => [`pasted ${text}`, accepted(text)])];

const asTruth = (value) => (typeof value === "boolean" ? Number(value) : value);
const cells = [];
const counts = { rows: 0, explained: 0, replayed: 0, effects: 0 };
const started = process.cpuUsage().user;
for (const [task, texts] of jobs) {
  const ids = Object.keys(texts);
  for (const [i, a] of ids.entries()) {
    for (const b of ids.slice(i + 1)) {
      const sides = [a, b].map((id) => ({ dialect: made[id], expression: texts[id] }));
      const result = contrast(sides, sample);
      const broken = result.programs.find((program) => !program.ok);
      if (broken) {
        console.error(`${task}, ${broken.dialect.id}: ${JSON.stringify(broken.diagnostics[0])}`);
        continue;
      }
      const differing = result.rows.filter(
        ({ values: [left, right], agree: same }) => !same && !agree(asTruth(left), asTruth(right)),
      );
      if (differing.length === 0) continue;
      const found = differing.filter(
        ({ differences: [{ parting, another }] }) => another !== undefined || (parting && parting.causes.length > 0),
      );
      counts.rows += differing.length;
      counts.explained += found.length;
      // A cause is replayed on the whole expression: it must give the other's value.
      counts.replayed += found.filter(({ values: both, differences: [{ parting }] }) => {
        if (!parting || parting.causes.length === 0) return true;
        const wanted = both[1 - parting.side];
        return parting.causes.every((_, cause) => agree(asTruth(parting.replay(cause)), asTruth(wanted)));
      }).length;
      counts.effects += differing.filter(({ differences: [{ effect }] }) => effect).length;
      cells.push(found.length / differing.length);
      const lost = differing.find((row) => !found.includes(row));
      if (values.missing && lost) {
        const [left, right] = lost.values.map((value, side) => JSON.stringify(result.programs[side].dialect.plain(value)));
        console.log(`${task}: ${a} ${texts[a]} ~ ${b} ${texts[b]} on ${JSON.stringify(rows[lost.row])}: ${left} / ${right}`);
      }
    }
  }
}
const percent = (share) => `${(100 * share).toFixed(1)} %`;
const mean = cells.reduce((sum, share) => sum + share, 0) / cells.length;
const spent = (process.cpuUsage().user - started) / 1000 / counts.rows;
console.log(
  `${counts.rows} divergences in ${cells.length} pairs of tasks and dialects: ${percent(counts.explained / counts.rows)} with a cause, ${percent(mean)} by pair; ${percent(counts.replayed / counts.explained)} of the causes replay on the whole; ${percent(counts.effects / counts.rows)} with an effect; ${spent.toFixed(2)} ms each`,
);
