import { csvLines, jsonItems, writeNdjson } from "@indigo-quill/data";
import { type Column, type Dialect, type Sample, type Value, columnsUsed, isFailure } from "indigo-quill";
import { type Applied, type CalculatedColumn, type Plan, forEach, planColumns } from "indigo-quill/folio";
import type { KindReader } from "indigo-quill/survey";
import { type RowOptions, dialectOf, kindReader, readPieces, readSample } from "../input.ts";
import { reportAll } from "../output/diagnostics.ts";
import { type Style, cellText, headerText, styleFor } from "../output/style.ts";
import { TableLines } from "../output/table.ts";
import { traceText } from "../output/trace.ts";
import { type Guarded, UsageError, exit, writeAll } from "../streams.ts";

export interface EvalOptions extends Omit<RowOptions, "format"> {
  readonly in: string;
  readonly rows?: string;
  readonly name?: string;
  readonly replace?: string;
  readonly column?: readonly string[];
  readonly each?: string;
  readonly where?: string;
  readonly only?: string;
  readonly unfold?: string;
  readonly trace?: number;
  readonly format: "table" | "csv" | "json" | "ndjson";
  readonly all?: boolean;
  readonly spaces?: boolean;
  readonly option?: readonly string[];
}

/** A sample of one row without columns, for expressions that need none. */
const noColumns: Sample = { columns: [], rows: 1 };

/** Evaluates expressions on every row, and writes the rows as they are read. */
export async function evaluate(expression: string | undefined, options: EvalOptions, streams: Guarded): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  const style = styleFor(streams, options.spaces);
  const { format, ...reading } = options;
  const kinds = kindReader(reading);
  const pieces =
    options.rows === undefined
      ? once(noColumns)
      : options.trace === undefined
        ? readPieces(options.rows, reading, streams, kinds)
        : once(await readSample(options.rows, reading, streams));
  let { value: first } = (await pieces.next()) as { value: Sample };
  const columns = columnsWanted(dialect, expression, options, first);
  let plan = planColumns(dialect, columns, first, options);
  if (!reported(plan, streams)) return exit.failed;
  if (options.trace !== undefined) return traced(plan, first, options.trace, style, streams);
  // What counts over a column, and rows that may bring columns of their own, want all rows at once.
  if (plan.readsWholeColumns(first) || options.ragged) {
    first = await together(first, pieces);
    plan = planColumns(dialect, columns, first, options);
  }
  const tally = new Tally();
  const writer = writerOf(options, plan, first, style);
  const output = format === "table" ? streams.stdout : streams.data;
  await writeAll(output, written(first, pieces, plan, writer, tally));
  sayKinds(kinds, plan, first, streams);
  return summary(plan, first, tally, streams);
}

/** Writes what is wrong with the expressions of a plan; true when it can run. */
function reported(plan: Plan, streams: Guarded): boolean {
  for (const { of, source, diagnostics } of plan.problems) {
    const about = plan.steps.length + plan.conditions.length > 1 ? `${plan.dialect.id}, ${of}` : plan.dialect.id;
    reportAll(about, source, diagnostics, streams);
  }
  if (plan.ok && plan.problems.length > 0) streams.stderr.write("\n");
  return plan.ok;
}

/** Says which columns that are used are read as something else than text, and where that failed. */
function sayKinds({ kinds, asked, misfits }: KindReader, plan: Plan, { columns }: Sample, streams: Guarded): void {
  const used = placesUsed(plan);
  for (const kind of ["number", "truth value"] as const) {
    const names = columns.flatMap(({ name }, i) => (used.has(i) && kinds.get(name) === kind && !asked.has(name) ? [name] : []));
    if (names.length > 0) streams.stderr.write(`read as ${kind}s: ${names.join(", ")} (--text reads every column as text)\n`);
  }
  for (const [name, { count, text, row }] of misfits)
    streams.stderr.write(
      `${name}: ${counted(count, "cell")} ${count === 1 ? "is" : "are"} not what the first rows are, ${kinds.get(name)}s: "${text}" on row ${row + 1}; --types ${name}=text reads it as text\n`,
    );
}

/** The columns of the sample that a plan reads; what a step sees begins with them. */
const placesUsed = ({ steps, conditions }: Plan): Set<number> =>
  new Set([...steps.map(({ program }) => program), ...conditions].flatMap((each) => [...columnsUsed(each)]));

function traced(plan: Plan, sample: Sample, row: number, style: Style, streams: Guarded): number {
  if (row < 1 || row > sample.rows) throw new UsageError(`there is no row ${row}; the sample has rows 1 to ${sample.rows}`);
  let isFirst = true;
  for (const { step, sample: seen } of plan.stages(sample)) {
    if (plan.steps.length > 1) streams.stdout.write(`${isFirst ? "" : "\n"}${style.colour.bold(step.column.names.join(", "))}\n`);
    streams.stdout.write(traceText(step.program, seen, row - 1, style));
    isFirst = false;
  }
  return exit.ok;
}

/** The columns that are asked for: by --column, or by the expression with --each, --name or --replace. */
function columnsWanted(
  dialect: Dialect,
  expression: string | undefined,
  { column = [], each, name, replace }: EvalOptions,
  { columns }: Sample,
): CalculatedColumn[] {
  const names = columns.map((column) => column.name);
  const there = (wanted: string): string => {
    if (!names.includes(wanted))
      throw new UsageError(`there is no column "${wanted}" to replace; the columns are ${names.join(", ")}`);
    return wanted;
  };
  const wanted = column.map(columnFrom);
  if (expression === undefined) {
    if (wanted.length === 0) throw new UsageError("an expression is wanted, or --column name=expression");
    for (const [option, value] of Object.entries({ each, name, replace }))
      if (value !== undefined) throw new UsageError(`--${option} is about an expression of its own, which is not given`);
    return wanted;
  }
  if ([each, name, replace].filter((value) => value !== undefined).length > 1)
    throw new UsageError("--name is for a new column, --replace for one that is there, --each for several; give one of them");
  if (each !== undefined) {
    if (names.includes("it"))
      throw new UsageError('with --each "it" stands for each column, and there is a column of that name; use --column');
    return [...wanted, ...forEach(dialect, each === "*" ? names : namesFrom(each).map(there), expression)];
  }
  if (replace !== undefined) return [...wanted, { names: [there(replace)], expression }];
  const target = name ?? freeName([...names, ...wanted.flatMap((given) => given.names)]);
  if (names.includes(target))
    throw new UsageError(`there is a column "${target}" already; --replace "${target}" puts the values in its place`);
  return [...wanted, { names: [target], expression }];
}

/** A name, which may stand in double quotes, before a comma or the end. */
const oneName = /\s*(?:"((?:[^"]|"")+)"|([^"=,][^=,]*?))\s*(,|=|$)/y;

/** Names between commas, up to `=` or the end; `rest` is what stands after that. */
function readNames(text: string): { names: string[]; rest: string | undefined } | undefined {
  const names: string[] = [];
  for (oneName.lastIndex = 0; ;) {
    const found = oneName.exec(text);
    if (!found) return undefined;
    names.push(found[1]?.replaceAll('""', '"') ?? found[2]);
    if (found[3] === "=") return { names, rest: text.slice(oneName.lastIndex) };
    if (found[3] === "") return { names, rest: undefined };
  }
}

function namesFrom(text: string): string[] {
  const read = readNames(text);
  if (read?.rest !== undefined || !read) throw new UsageError(`column names stand between commas, not "${text}"`);
  return read.names;
}

function columnFrom(text: string): CalculatedColumn {
  const read = readNames(text);
  if (!read?.rest?.trim())
    throw new UsageError(`a column is written name=expression, or name,name=expression for the items of a list, not "${text}"`);
  return { names: read.names, expression: read.rest.trim() };
}

async function* once(sample: Sample): AsyncGenerator<Sample> {
  yield await Promise.resolve(sample);
}

/** A cell as it was written. */
const rawCell = ({ values, written }: Column, row: number): Value => (written ?? values)[row];

/** All pieces as one sample; a column that a piece lacks is missing there. */
async function together(first: Sample, others: AsyncGenerator<Sample>): Promise<Sample> {
  const pieces = [first];
  for await (const piece of others) pieces.push(piece);
  const { columns: widest } = pieces[pieces.length - 1];
  const joined = (i: number, cells: (column: Column) => readonly Value[]) =>
    pieces.flatMap(({ columns, rows }) => (columns[i] ? cells(columns[i]) : new Array<Value>(rows).fill(null)));
  const columns = widest.map(({ name, written }, i): Column => {
    const values = joined(i, (column) => column.values);
    return { name, values, ...(written && { written: joined(i, (column) => column.written ?? column.values) }) };
  });
  return { columns, rows: pieces.reduce((sum, { rows }) => sum + rows, 0) };
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

/** What became of the rows, added up over the pieces. */
class Tally {
  rows = 0;
  kept = 0;
  /** Rows on which a condition is an error. */
  readonly unknown = new RowList();
  readonly columns = new Map<
    string,
    { changed: number; failed: RowList; empty: number; nothing: number; overflowing: RowList }
  >();

  add({ rows, unknown, changes }: Applied, given: number): void {
    for (const row of unknown) this.unknown.add(this.rows + row);
    for (const { name, changed, failed, empty, nothing, overflowing } of changes) {
      let column = this.columns.get(name);
      if (!column)
        this.columns.set(
          name,
          (column = { changed: 0, failed: new RowList(), empty: 0, nothing: 0, overflowing: new RowList() }),
        );
      column.changed += changed;
      column.empty += empty;
      column.nothing += nothing;
      for (const row of failed) column.failed.add(this.rows + row);
      for (const row of overflowing) column.overflowing.add(this.rows + row);
    }
    this.rows += given;
    this.kept += new Set(rows).size;
  }
}

/** Writes rows in one of the formats; `start` counts the rows before the piece that they were made from. */
interface RowWriter {
  readonly begin?: string;
  rows(applied: Applied, piece: Sample, start: number): string;
  readonly end?: () => string;
}

/** The texts of the output, piece by piece. */
async function* written(
  first: Sample,
  others: AsyncGenerator<Sample>,
  plan: Plan,
  writer: RowWriter,
  tally: Tally,
): AsyncGenerator<string> {
  if (writer.begin) yield writer.begin;
  for await (const piece of following(first, others)) {
    const applied = plan.run(piece);
    yield writer.rows(applied, piece, tally.rows);
    tally.add(applied, piece.rows);
  }
  if (writer.end) yield writer.end();
}

async function* following(first: Sample, others: AsyncGenerator<Sample>): AsyncGenerator<Sample> {
  yield first;
  yield* others;
}

function writerOf({ format, all }: EvalOptions, plan: Plan, sample: Sample, style: Style): RowWriter {
  if (format === "table") return tableWriter(plan, sample, all === true, style);
  const { names } = plan;
  const cell = (value: Value): unknown => {
    if (!isFailure(value)) return value;
    const code = value.standard ?? value.code;
    return format === "csv" ? `#ERROR ${code}` : { error: code };
  };
  const cells = ({ sample: { columns, rows } }: Applied) =>
    Array.from({ length: rows }, (_, row) => columns.map(({ values }) => cell(values[row])));
  if (format === "csv") return { begin: csvLines([names]), rows: (applied) => csvLines(cells(applied)) };
  if (format === "ndjson") return { rows: (applied) => writeNdjson(names, cells(applied)) };
  let hasRows = false;
  return {
    rows(applied) {
      const items = jsonItems(names, cells(applied));
      if (items === "") return "";
      const text = (hasRows ? ",\n" : "[\n") + items;
      hasRows = true;
      return text;
    },
    end: () => (hasRows ? "\n]\n" : "[]\n"),
  };
}

/** A table of the columns that are used, as they were, and those that are calculated. */
function tableWriter(plan: Plan, sample: Sample, all: boolean, style: Style): RowWriter {
  const given = new Set(sample.columns.map(({ name }) => name));
  // What a step sees begins with the columns of the sample.
  const used = new Set(
    [...plan.steps.map(({ program }) => program), ...plan.conditions].flatMap((each) => [...columnsUsed(each)]),
  );
  const shown = sample.columns.map((_, i) => i).filter((i) => all || used.has(i) || plan.calculated.has(sample.columns[i].name));
  const calculated = plan.names.map((_, i) => i).filter((i) => plan.calculated.has(plan.names[i]));
  const header = [
    "row",
    ...shown.map((i) => headerText(sample.columns[i].name)),
    ...calculated.map((i) => headerText(plan.names[i]) + (given.has(plan.names[i]) ? " (new)" : "")),
  ];
  const lines = new TableLines(header, style, [0]);
  return {
    rows: ({ sample: { columns }, rows }, piece, start) =>
      lines.lines(
        rows.map((row, i) => [
          String(start + row + 1),
          ...shown.map((place) => cellText(rawCell(piece.columns[place], row), plan.dialect, style)),
          ...calculated.map((place) => cellText(columns[place].values[i], plan.dialect, style)),
        ]),
      ),
  };
}

const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;

/** Says on standard error what became of each column, which rows are errors, and what the engine would do then. */
function summary({ dialect, calculated }: Plan, { columns }: Sample, tally: Tally, streams: Guarded): number {
  const { rows, kept, unknown } = tally;
  const scope =
    dialect.errorScope === "query"
      ? ` Here each row is shown; in ${dialect.title} one such row makes the whole expression fail.`
      : "";
  const say = (text: string) => streams.stderr.write(`${text}\n`);
  if (kept < rows) say(`${kept} of ${counted(rows, "row")} shown`);
  if (unknown.count > 0) say(`on ${counted(unknown.count, "row")} the condition is an error: ${String(unknown)}.${scope}`);
  const given = new Set(columns.map(({ name }) => name));
  let hasFailed = false;
  for (const [name, { changed, failed, empty, nothing, overflowing }] of tally.columns) {
    const isTold = calculated.size > 1 || given.has(name);
    if (isTold)
      say(
        [
          `${name}: ${given.has(name) ? `${changed} of ${counted(kept, "value")} changed` : counted(changed, "value")}`,
          ...(empty > 0 ? [`${empty} empty`] : []),
          ...(nothing > 0 ? [`${nothing} nothing`] : []),
          ...(failed.count > 0 ? [counted(failed.count, "error")] : []),
        ].join(", "),
      );
    if (overflowing.count > 0)
      say(
        `${name}: on ${counted(overflowing.count, "row")} the list has more items than there are names: ${String(overflowing)}`,
      );
    if (failed.count > 0)
      say(
        `${isTold ? `${name}: ` : ""}${failed.count} of ${kept} rows are errors: ${String(failed)}.${hasFailed ? "" : scope} --trace ${failed.first[0] + 1} shows where it begins.`,
      );
    hasFailed ||= failed.count > 0;
  }
  return hasFailed || unknown.count > 0 ? exit.some : exit.ok;
}
