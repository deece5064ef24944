/**
 * npm run bench [-- --rows N] [--runs N] [--seed S] [--task ID] [--engines] [--json]
 *
 * Times each task and its hand-written loop in turn, in one process, after other expressions have
 * run through the same code. Prints the median and spread of each, and the ratio of the medians; with --engines also
 * the time that the engine of that name takes over a stored table.
 */
import { parseArgs } from "node:util";
import { compile } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import { engineOf } from "./engines.js";
import { register } from "./register.js";
import { others, tasks } from "./tasks.js";

const { values: options } = parseArgs({
  options: {
    rows: { type: "string", default: "250000" },
    runs: { type: "string", default: "7" },
    task: { type: "string" },
    seed: { type: "string", default: "1" },
    engines: { type: "boolean", default: false },
    json: { type: "boolean", default: false },
  },
});
const [rows, runs, seed] = [Number(options.rows), Math.max(7, Number(options.runs)), Number(options.seed)];
if (!Number.isInteger(rows) || rows < 1 || !Number.isInteger(runs) || !Number.isInteger(seed)) {
  console.error("--rows, --runs and --seed take whole numbers, --rows from 1");
  process.exit(2);
}

const sampleOf = (columns, count) => ({
  columns: Object.entries(columns).map(([name, values]) => ({ name, values })),
  rows: count,
});

const small = sampleOf(register(2000, seed + 1), 2000);
for (const [id, expressions] of Object.entries(others)) {
  for (const expression of expressions) {
    const program = compile(dialects[id](), expression, small);
    if (!program.ok) throw new Error(`${id}: ${expression} does not compile`);
    program.run(small);
  }
}

const columns = register(rows, seed);
const sample = sampleOf(columns, rows);

/** Milliseconds of processor time that one call takes, once what was left before is collected. */
function time(work) {
  globalThis.gc?.();
  globalThis.gc?.();
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}

const sorted = (values) => [...values].sort((a, b) => a - b);
const median = (values) => sorted(values)[Math.floor(values.length / 2)];

/** A value as a loop has it: numbers without their kind. */
const plain = (dialect, value) => (typeof value === "object" ? dialect.plain(value) : value);

const results = tasks
  .filter(({ id }) => options.task === undefined || id === options.task)
  .map(({ id, what, dialect, expression, loop }) => {
    const program = compile(dialects[dialect](), expression, sample);
    const [ours, theirs] = [program.run(sample), loop(columns)];
    const wrong = ours.findIndex((value, i) => plain(program.dialect, value) !== theirs[i]);
    if (wrong >= 0) throw new Error(`${id}: row ${wrong + 1} gives ${String(ours[wrong])}, the loop ${String(theirs[wrong])}`);
    const [own, other] = [[], []];
    for (let run = 0; run <= runs; run++) {
      const pair =
        run % 2 === 0
          ? [time(() => program.run(sample)), time(() => loop(columns))]
          : [time(() => loop(columns)), time(() => program.run(sample))].reverse();
      if (run > 0) {
        own.push(pair[0]);
        other.push(pair[1]);
      }
    }
    const spread = (values) => ({ median: median(values), min: Math.min(...values), max: Math.max(...values) });
    return { id, what, dialect, expression, ours: spread(own), loop: spread(other), ratio: median(own) / median(other) };
  });
if (options.engines) await timeEngines();
const mean = Math.exp(results.reduce((sum, { ratio }) => sum + Math.log(ratio), 0) / results.length);

/** Adds the median time of each dialect's engine, in turn, where there is one. */
async function timeEngines() {
  for (const dialect of new Set(results.map((result) => result.dialect))) {
    const engine = await engineOf(dialect, columns);
    if (!engine) continue;
    for (const result of results.filter((each) => each.dialect === dialect)) {
      const times = [];
      for (let run = 0; run <= runs; run++) times.push(await engine.time(result.expression));
      result.engine = median(times.slice(1));
    }
    await engine.close();
  }
}

if (options.json)
  console.log(JSON.stringify({ rows, runs, seed, node: process.version, tasks: results, geometricMean: mean }, null, 2));
else {
  const ms = ({ median: m, min, max }) => `${m.toFixed(0).padStart(5)} (${min.toFixed(0)}–${max.toFixed(0)})`.padEnd(18);
  console.log(`${rows} rows, median (spread) of ${runs} runs in ms of processor time, ${process.version}\n`);
  console.log(
    `${"task".padEnd(16)}${"dialect".padEnd(13)}${"ours".padEnd(18)}${"loop".padEnd(18)}ratio${options.engines ? "   engine" : ""}`,
  );
  for (const { id, dialect, ours, loop, ratio, engine } of results)
    console.log(
      `${id.padEnd(16)}${dialect.padEnd(13)}${ms(ours)}${ms(loop)}${ratio.toFixed(2).padStart(5)}${engine === undefined ? "" : engine.toFixed(0).padStart(9)}`,
    );
  console.log(`\ngeometric mean of the ratios: ${mean.toFixed(2)}`);
}
