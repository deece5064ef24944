import { type CsvOptions, csvLines, jsonItems, writeNdjson } from "@indigo-quill/data";
import { type Dialect, type Program, type Sample, type Value, columnsUsed, compile, isFailure } from "indigo-quill";
import { dialectOf, readPieces, readSample } from "../input.ts";
import { report } from "../output/diagnostics.ts";
import { type Style, cellText, headerText, styleFor } from "../output/style.ts";
import { TableLines } from "../output/table.ts";
import { traceText } from "../output/trace.ts";
import { type Guarded, UsageError, exit, writeAll } from "../streams.ts";

export interface EvalOptions extends CsvOptions {
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
}

/** A sample of one row without columns, for expressions that need none. */
const noColumns: Sample = { columns: [], rows: 1 };

/** Evaluates an expression on every row, and writes the rows as they are read. */
export async function evaluate(expression: string, options: EvalOptions, streams: Guarded): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  const style = styleFor(streams, options.spaces);
  const reading = { ...options, format: undefined };
  if (options.trace !== undefined) {
    const sample = options.rows === undefined ? noColumns : await readSample(options.rows, reading, streams);
    const program = compile(dialect, expression, sample);
    if (!report(program, streams)) return exit.failed;
    if (options.trace < 1 || options.trace > sample.rows)
      throw new UsageError(`there is no row ${options.trace}; the sample has rows 1 to ${sample.rows}`);
    streams.stdout.write(traceText(program, sample, options.trace - 1, style));
    return exit.ok;
  }
  const pieces = options.rows === undefined ? once(noColumns) : readPieces(options.rows, reading, streams);
  let { value: first } = (await pieces.next()) as { value: Sample };
  const compiled = () => ({
    program: compile(dialect, expression, first),
    condition: options.where === undefined ? undefined : compile(dialect, options.where, first),
  });
  let programs = compiled();
  for (const program of [programs.program, programs.condition]) if (program && !report(program, streams)) return exit.failed;
  // What counts over a column, and rows that may bring columns of their own, want all rows at once.
  const readsAll = [programs.program, programs.condition].some((each) => each && (each.runRow(first, 0), each.readsWholeColumns));
  if (readsAll || options.ragged) {
    first = await together(first, pieces);
    programs = compiled();
  }
  const target = targetOf(options, first);
  const tally: Tally = { rows: 0, kept: 0, failed: new RowList(), unknown: new RowList() };
  const writer = writerOf(options, programs.program, first, target, style);
  const output = options.format === "table" ? streams.stdout : streams.data;
  await writeAll(output, written(first, pieces, programs, writer, tally));
  return summary(dialect, tally, streams);
}

async function* once(sample: Sample): AsyncGenerator<Sample> {
  yield await Promise.resolve(sample);
}

/** All pieces as one sample; a column that a piece lacks is missing there. */
async function together(first: Sample, others: AsyncGenerator<Sample>): Promise<Sample> {
  const pieces = [first];
  for await (const piece of others) pieces.push(piece);
  const { columns: widest } = pieces[pieces.length - 1];
  const columns = widest.map(({ name }, i) => ({
    name,
    values: pieces.flatMap((piece) => piece.columns[i]?.values ?? new Array<Value>(piece.rows).fill(null)),
  }));
  return { columns, rows: pieces.reduce((sum, { rows }) => sum + rows, 0) };
}

/** Where the values go: a column in place of which they stand (its place, 0-based), or a new one (−1). */
interface Target {
  readonly name: string;
  readonly place: number;
}

function targetOf({ name, replace }: EvalOptions, { columns }: Sample): Target {
  const names = columns.map((column) => column.name);
  if (replace === undefined) {
    const target = name ?? freeName(names);
    if (names.includes(target))
      throw new UsageError(`there is a column "${target}" already; --replace "${target}" puts the values in its place`);
    return { name: target, place: -1 };
  }
  if (name !== undefined) throw new UsageError("--name is for a new column, --replace for one that is there; give one of them");
  const place = names.indexOf(replace);
  if (place < 0) throw new UsageError(`there is no column "${replace}" to replace; the columns are ${names.join(", ")}`);
  return { name: replace, place };
}

/** "value", or what comes after it where there is a column of that name. */
function freeName(names: readonly string[]): string {
  let name = "value";
  for (let n = 2; names.includes(name); n++) name = `value ${n}`;
  return name;
}

/** Numbers of rows, 0-based: how many, and the first few. */
class RowList {
  count = 0;
  readonly first: number[] = [];

  add(row: number): void {
    if (this.count++ < 8) this.first.push(row);
  }

  toString(): string {
    return this.first.map((row) => row + 1).join(", ") + (this.count > this.first.length ? ", …" : "");
  }
}

interface Tally {
  rows: number;
  kept: number;
  /** Rows whose value is an error, and rows on which the condition is one. */
  readonly failed: RowList;
  readonly unknown: RowList;
}

/** Writes rows in one of the formats; `start` counts the rows before the sample's. */
interface RowWriter {
  readonly begin?: string;
  rows(sample: Sample, kept: readonly number[], values: readonly Value[], start: number): string;
  readonly end?: () => string;
}

/** The texts of the output, piece by piece. */
async function* written(
  first: Sample,
  others: AsyncGenerator<Sample>,
  { program, condition }: { program: Program; condition: Program | undefined },
  writer: RowWriter,
  tally: Tally,
): AsyncGenerator<string> {
  if (writer.begin) yield writer.begin;
  for await (const sample of following(first, others)) {
    const values = program.run(sample);
    const truths = condition?.run(sample).map((value) => program.dialect.types.truth(value));
    const kept: number[] = [];
    for (let row = 0; row < sample.rows; row++) {
      if (truths && isFailure(truths[row])) tally.unknown.add(tally.rows + row);
      if (truths && truths[row] !== true) continue;
      kept.push(row);
      if (isFailure(values[row])) tally.failed.add(tally.rows + row);
    }
    yield writer.rows(sample, kept, values, tally.rows);
    tally.rows += sample.rows;
    tally.kept += kept.length;
  }
  if (writer.end) yield writer.end();
}

async function* following(first: Sample, others: AsyncGenerator<Sample>): AsyncGenerator<Sample> {
  yield first;
  yield* others;
}

function writerOf(options: EvalOptions, program: Program, sample: Sample, target: Target, style: Style): RowWriter {
  const { format, all } = options;
  if (format === "table") return tableWriter(program, sample, target, all === true, style);
  const names = sample.columns.map(({ name }) => name);
  if (target.place < 0) names.push(target.name);
  const cell = (value: Value) => {
    if (!isFailure(value)) return program.dialect.plain(value);
    const code = value.standard ?? value.code;
    return format === "csv" ? `#ERROR ${code}` : { error: code };
  };
  const cells = (piece: Sample, kept: readonly number[], values: readonly Value[]) =>
    kept.map((row) => {
      const found: unknown[] = piece.columns.map((column) => passedOn(column.values[row], format));
      if (target.place < 0) found.push(cell(values[row]));
      else found[target.place] = cell(values[row]);
      return found;
    });
  if (format === "csv") return { begin: csvLines([names]), rows: (piece, kept, values) => csvLines(cells(piece, kept, values)) };
  if (format === "ndjson") return { rows: (piece, kept, values) => writeNdjson(names, cells(piece, kept, values)) };
  let hasRows = false;
  return {
    rows(piece, kept, values) {
      const items = jsonItems(names, cells(piece, kept, values));
      if (items === "") return "";
      const text = (hasRows ? ",\n" : "[\n") + items;
      hasRows = true;
      return text;
    },
    end: () => (hasRows ? "\n]\n" : "[]\n"),
  };
}

/** A cell that is only passed on: errors that were read as they were. */
const passedOn = (value: Value, format: EvalOptions["format"]): unknown =>
  isFailure(value) ? (format === "csv" ? `#ERROR ${value.standard}` : { error: value.standard }) : value;

function tableWriter(program: Program, sample: Sample, target: Target, all: boolean, style: Style): RowWriter {
  const used = columnsUsed(program);
  const shown = sample.columns.map((_, i) => i).filter((i) => all || used.has(i));
  const header = [
    "row",
    ...shown.map((i) => headerText(sample.columns[i].name)),
    target.place < 0 ? target.name : `${target.name} (new)`,
  ];
  const lines = new TableLines(header, style, [0]);
  return {
    rows: (piece, kept, values, start) =>
      lines.lines(
        kept.map((row) => [
          String(start + row + 1),
          ...shown.map((i) => cellText(piece.columns[i].values[row], program.dialect, style)),
          cellText(values[row], program.dialect, style),
        ]),
      ),
  };
}

/** Says on standard error what rows are errors, and what the engine would do then. */
function summary(dialect: Dialect, { rows, kept, failed, unknown }: Tally, streams: Guarded): number {
  const scope =
    dialect.errorScope === "query"
      ? ` Here each row is shown; in ${dialect.title} one such row makes the whole expression fail.`
      : "";
  if (kept < rows) streams.stderr.write(`${kept} of ${rows} rows shown\n`);
  if (unknown.count > 0)
    streams.stderr.write(
      `on ${unknown.count} ${unknown.count === 1 ? "row" : "rows"} the condition is an error: ${String(unknown)}.${scope}\n`,
    );
  if (failed.count > 0)
    streams.stderr.write(
      `${failed.count} of ${kept} rows are errors: ${String(failed)}.${scope} --trace ${failed.first[0] + 1} shows where it begins.\n`,
    );
  return failed.count + unknown.count > 0 ? exit.some : exit.ok;
}
