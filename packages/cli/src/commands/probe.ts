import type { ReadOptions } from "@indigo-quill/data";
import { type Connection, type OwnOutcome, type Probe, Unreachable, open, probe } from "@indigo-quill/engines";
import type { Dialect, Sample } from "indigo-quill";
import { dialectOf, readSample } from "../input.ts";
import { report } from "../output/diagnostics.ts";
import { styleFor } from "../output/style.ts";
import { table } from "../output/table.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface ProbeOptions extends ReadOptions {
  readonly in: string;
  readonly rows?: string;
  readonly url?: string;
  readonly limit: number;
  readonly option?: readonly string[];
  readonly json?: boolean;
}

const noColumns: Sample = { columns: [], rows: 1 };

/** Runs an expression on a live engine and compares row by row with our evaluation. */
export async function probeCommand(expression: string, options: ProbeOptions, streams: Streams): Promise<number> {
  const given = dialectOf(options.in, options.option);
  const sample = options.rows === undefined ? noColumns : await readSample(options.rows, options, streams);
  const connection = await connected(given, options);
  try {
    // What is not said is as the engine has it: its version, say.
    const dialect = dialectOf(options.in, [...settings(connection.options), ...(options.option ?? [])]);
    const result = await probe(connection, dialect, expression, sample);
    if (!report(result.program, streams)) return exit.failed;
    streams.stdout.write(options.json ? asNdjson(result) : asText(result, dialect, sample, streams));
    return result.rows.every((row) => row.agree) ? exit.ok : exit.some;
  } finally {
    await connection.close();
  }
}

const settings = (options: Readonly<Record<string, string>>): string[] =>
  Object.entries(options).map(([name, value]) => `${name}=${value}`);

async function connected(dialect: Dialect, { url, limit }: ProbeOptions): Promise<Connection> {
  try {
    return await open(dialect.id, url, { timeLimit: limit, options: dialect.chosen });
  } catch (error) {
    throw error instanceof RangeError || error instanceof Unreachable ? new UsageError(error.message) : error;
  }
}

const shown = (outcome: OwnOutcome): string => {
  if (outcome === undefined) return "not covered yet";
  return "error" in outcome
    ? `error ${outcome.error.code}: ${outcome.error.message.split("\n")[0]}`
    : JSON.stringify(outcome.value);
};

function asText({ version, rows, program }: Probe, dialect: Dialect, sample: Sample, streams: Streams): string {
  const style = styleFor(streams);
  const differing = rows.filter((row) => !row.agree);
  const agreeing = rows.length - differing.length;
  const head = `${style.colour.bold(program.source)}\n${dialect.title} here, ${version} there: ${agreeing} of ${sample.rows} rows agree.\n`;
  if (differing.length === 0) return head;
  const lines = differing.map(({ row, ours, theirs }) => [String(row + 1), shown(theirs), shown(ours)]);
  return `${head}\n${table(["row", "the engine", "here"], lines, style, [0])}`;
}

/** One line for each row, then a summary. */
function asNdjson({ version, rows }: Probe): string {
  const plain = (outcome: OwnOutcome) => outcome ?? { error: { code: "not-covered", message: "not covered yet" } };
  const lines = rows.map(({ row, ours, theirs, agree }) => ({ row: row + 1, agree, ours: plain(ours), theirs }));
  const summary = { engine: version, agree: rows.filter((row) => row.agree).length, rows: rows.length };
  return [...lines, summary].map((line) => `${JSON.stringify(line)}\n`).join("");
}
