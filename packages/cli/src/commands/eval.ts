import { writeCsv, writeJson, writeNdjson } from "@indigo-quill/data";
import { type Dialect, type Program, type Sample, type Value, columnsUsed, compile, isFailure } from "indigo-quill";
import { dialectOf, readSample } from "../input.ts";
import { report } from "../output/diagnostics.ts";
import { type Style, cellText, styleFor } from "../output/style.ts";
import { table } from "../output/table.ts";
import { traceText } from "../output/trace.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface EvalOptions {
  readonly in: string;
  readonly rows?: string;
  readonly name?: string;
  readonly replace?: string;
  readonly where?: string;
  readonly trace?: number;
  readonly format: "table" | "csv" | "json" | "ndjson";
  readonly all?: boolean;
  readonly spaces?: boolean;
  readonly option?: readonly string[];
  readonly encoding?: string;
  readonly separator?: string;
  readonly missing?: string;
}

/** A sample of one row without columns, for expressions that need none. */
const noColumns: Sample = { columns: [], rows: 1 };

/** Evaluates an expression on every row. */
export async function evaluate(expression: string, options: EvalOptions, streams: Streams): Promise<number> {
  const dialect = dialectOf(options.in, options.option);
  const sample =
    options.rows === undefined ? noColumns : await readSample(options.rows, { ...options, format: undefined }, streams);
  const program = compile(dialect, expression, sample);
  if (!report(program, streams)) return exit.failed;
  const style = styleFor(streams, options.spaces);
  if (options.trace !== undefined) {
    if (options.trace < 1 || options.trace > sample.rows)
      throw new UsageError(`there is no row ${options.trace}; the sample has rows 1 to ${sample.rows}`);
    streams.stdout.write(traceText(program, sample, options.trace - 1, style));
    return exit.ok;
  }
  const kept = keptRows(options.where, dialect, sample, streams);
  if (!kept) return exit.failed;
  const values = program.run(sample);
  const target = options.replace ?? options.name ?? "value";
  const place = sample.columns.findIndex(({ name }) => name === options.replace);
  if (options.replace !== undefined && place < 0)
    throw new UsageError(
      `there is no column "${options.replace}" to replace; the columns are ${sample.columns.map((c) => c.name).join(", ")}`,
    );
  if (options.format === "table")
    streams.stdout.write(asTable(program, sample, kept.rows, values, target, place, options.all === true, style));
  else streams.stdout.write(asData(options.format, dialect, sample, kept.rows, values, target, place));
  return summary(dialect, kept, values, sample.rows, streams);
}

/** The rows, 0-based, on which a condition holds, and those on which it is an error. */
interface Kept {
  readonly rows: readonly number[];
  readonly failed: readonly number[];
}

function keptRows(where: string | undefined, dialect: Dialect, sample: Sample, streams: Streams): Kept | undefined {
  const all = Array.from({ length: sample.rows }, (_, row) => row);
  if (where === undefined) return { rows: all, failed: [] };
  const condition = compile(dialect, where, sample);
  if (!report(condition, streams)) return undefined;
  const truths = condition.run(sample).map((value) => dialect.types.truth(value));
  return { rows: all.filter((row) => truths[row] === true), failed: all.filter((row) => isFailure(truths[row])) };
}

/** Row numbers from 1, the first few of them. */
const listed = (rows: readonly number[]): string =>
  rows
    .slice(0, 8)
    .map((row) => row + 1)
    .join(", ") + (rows.length > 8 ? ", …" : "");

function asTable(
  program: Program,
  sample: Sample,
  kept: readonly number[],
  values: readonly Value[],
  target: string,
  place: number,
  all: boolean,
  style: Style,
): string {
  const used = columnsUsed(program);
  const shown = sample.columns.map((_, i) => i).filter((i) => all || used.has(i));
  const header = ["row", ...shown.map((i) => sample.columns[i].name), place < 0 ? target : `${target} (new)`];
  const rows = kept.map((row) => [
    String(row + 1),
    ...shown.map((i) => cellText(sample.columns[i].values[row], program.dialect, style)),
    cellText(values[row], program.dialect, style),
  ]);
  return table(header, rows, style, [0]);
}

function asData(
  format: "csv" | "json" | "ndjson",
  dialect: Dialect,
  sample: Sample,
  kept: readonly number[],
  values: readonly Value[],
  target: string,
  place: number,
): string {
  const names = sample.columns.map(({ name }) => name);
  if (place < 0) names.push(target);
  const cell = (value: Value) =>
    isFailure(value)
      ? format === "csv"
        ? `#ERROR ${value.standard ?? value.code}`
        : { error: value.standard ?? value.code }
      : dialect.plain(value);
  const rows = kept.map((row) => {
    const cells: unknown[] = sample.columns.map((column) => column.values[row]);
    if (place < 0) cells.push(cell(values[row]));
    else cells[place] = cell(values[row]);
    return cells;
  });
  return { csv: writeCsv, json: writeJson, ndjson: writeNdjson }[format](names, rows);
}

/** Says on standard error what rows are errors, and what the engine would do then. */
function summary(dialect: Dialect, kept: Kept, values: readonly Value[], rows: number, streams: Streams): number {
  const failed = kept.rows.filter((row) => isFailure(values[row]));
  const scope =
    dialect.errorScope === "query"
      ? ` Here each row is shown; in ${dialect.title} one such row makes the whole expression fail.`
      : "";
  if (kept.rows.length < rows) streams.stderr.write(`${kept.rows.length} of ${rows} rows shown\n`);
  if (kept.failed.length > 0)
    streams.stderr.write(
      `on ${kept.failed.length} ${kept.failed.length === 1 ? "row" : "rows"} the condition is an error: ${listed(kept.failed)}.${scope}\n`,
    );
  if (failed.length > 0)
    streams.stderr.write(
      `${failed.length} of ${kept.rows.length} rows are errors: ${listed(failed)}.${scope} --trace ${failed[0] + 1} shows where it begins.\n`,
    );
  return failed.length + kept.failed.length > 0 ? exit.some : exit.ok;
}
