import type { ReadOptions } from "@indigo-quill/data";
import {
  type Connection,
  DriverMissing,
  EngineLost,
  type OwnOutcome,
  type Probe,
  Unreachable,
  open,
  probe,
} from "@indigo-quill/engines";
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
  readonly limitAll: number;
  readonly option?: readonly string[];
  readonly json?: boolean;
}

const noColumns: Sample = { columns: [], rows: 1 };

/** Runs an expression on a live engine and compares row by row with our evaluation. */
export async function probeCommand(expression: string, options: ProbeOptions, streams: Streams): Promise<number> {
  const given = await dialectOf(options.in, options.option);
  const sample = options.rows === undefined ? noColumns : await readSample(options.rows, options, streams);
  const connection = await connected(given, options, streams);
  try {
    // What is not said is as the engine has it: its version, say.
    const dialect = await dialectOf(options.in, [...settings(connection.options), ...(options.option ?? [])]);
    const result = await probe(connection, dialect, expression, sample);
    if (!report(result.program, streams)) return exit.failed;
    streams.stdout.write(options.json ? asNdjson(result) : asText(result, dialect, sample, streams));
    return result.rows.every((row) => row.agree) ? exit.ok : exit.some;
  } catch (error) {
    if (error instanceof EngineLost) throw new UsageError(`the engine stopped answering: ${error.message}`);
    throw error;
  } finally {
    await connection.close();
  }
}

const settings = (options: Readonly<Record<string, string>>): string[] =>
  Object.entries(options).map(([name, value]) => `${name}=${value}`);

/** Opens the engine; a password stands in no list of processes for longer than it takes to read it. */
async function connected(dialect: Dialect, { url: given, limit, limitAll }: ProbeOptions, streams: Streams): Promise<Connection> {
  if (given !== undefined) process.title = "iquill probe";
  const kept = streams.env.IQUILL_URL;
  const url = given ?? (kept?.startsWith(dialect.id.slice(0, 7)) ? kept : undefined);
  const settings = { timeLimit: limit, totalLimit: limitAll, options: dialect.chosen };
  const tried = await open(dialect.id, url, settings).catch((error: unknown) => error as Error);
  if (!(tried instanceof Error)) return tried;
  if (tried instanceof Unreachable && tried.wantsPassword && streams.askHidden) {
    const asked = new URL(url!);
    asked.password = encodeURIComponent(await streams.askHidden(`password of ${tried.address}: `));
    return connected(dialect, { url: asked.href, limit, limitAll } as ProbeOptions, { ...streams, askHidden: undefined });
  }
  const told = [RangeError, DriverMissing, Unreachable, EngineLost];
  throw told.some((kind) => tried instanceof kind) ? new UsageError(tried.message) : tried;
}

const shown = (outcome: OwnOutcome): string => {
  if (outcome === undefined) return "not covered yet";
  return "error" in outcome
    ? `error ${outcome.error.code}: ${outcome.error.message.split("\n")[0]}`
    : JSON.stringify(outcome.value);
};

function asText({ version, rows, program, unstored }: Probe, dialect: Dialect, sample: Sample, streams: Streams): string {
  const style = styleFor(streams);
  const differing = rows.filter((row) => !row.agree);
  const agreeing = rows.length - differing.length;
  const over = unstored === undefined ? "as parameters and stored in a table" : "as parameters";
  const head = `${style.colour.bold(program.source)}\n${dialect.title} here, ${version} there: ${agreeing} of ${sample.rows} rows agree, ${over}.\n`;
  const note = unstored === undefined ? "" : `Not asked over stored rows: ${unstored}\n`;
  if (differing.length === 0) return head + note;
  const lines = differing.map(({ row, ours, theirs, stored }) => [
    String(row + 1),
    shown(theirs),
    ...(unstored === undefined ? [shown(stored)] : []),
    shown(ours),
  ]);
  const names = ["row", "the engine", ...(unstored === undefined ? ["stored there"] : []), "here"];
  return `${head}${note}\n${table(names, lines, style, [0])}`;
}

/** One line for each row, then a summary. */
function asNdjson({ version, rows }: Probe): string {
  const plain = (outcome: OwnOutcome) => outcome ?? { error: { code: "not-covered", message: "not covered yet" } };
  const lines = rows.map(({ row, ours, theirs, stored, agree }) => ({ row: row + 1, agree, ours: plain(ours), theirs, stored }));
  const summary = { engine: version, agree: rows.filter((row) => row.agree).length, rows: rows.length };
  return [...lines, summary].map((line) => `${JSON.stringify(line)}\n`).join("");
}
