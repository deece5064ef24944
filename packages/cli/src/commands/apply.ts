import { extname } from "node:path";
import type { Dialect, Sample } from "indigo-quill";
import {
  type Applied,
  type CalculatedColumn,
  type Deed,
  type Plan,
  type PlanOptions,
  planColumns,
  programsOf,
} from "indigo-quill/folio";
import { notesOf, visibleText } from "indigo-quill/authoring";
import { Replacer } from "indigo-quill/lists";
import { HazardTally, type KindReader, hazardText } from "indigo-quill/survey";
import { counted } from "../output/counted.ts";
import { reportAll } from "../output/diagnostics.ts";
import { writeWhole } from "../output/file.ts";
import { StepNotes, appendEntry, readLedger } from "../output/ledger.ts";
import { type RowFormat, rowFormats } from "../output/formats.ts";
import { progress } from "../output/progress.ts";
import { type PreviewOf, type RowWriter, previewOf, stepsWriter, writerOf } from "../output/rows.ts";
import { conflictText } from "../output/rules.ts";
import { type Style, styleFor } from "../output/style.ts";
import { Tally, sayIdle, sayKinds, summary } from "../output/tally.ts";
import { originsData, originsText } from "../output/origins.ts";
import { traceText } from "../output/trace.ts";
import { type Guarded, UsageError, exit, writeAll } from "../streams.ts";
import { following, together } from "../input.ts";
import { decisionsOf } from "./columns.ts";

/** The options that say what is shown or written of the rows. */
export interface OutputOptions {
  readonly trace?: number;
  readonly origin?: number;
  readonly format?: RowFormat;
  readonly preview?: PreviewOf;
  readonly steps?: boolean;
  readonly decided?: string;
  readonly to?: string;
  readonly over?: string;
  readonly all?: boolean;
  readonly spaces?: boolean;
}

/** Calculated columns over rows that come in pieces. */
export interface Job {
  readonly dialect: Dialect;
  readonly pieces: AsyncGenerator<Sample>;
  readonly kinds: KindReader;
  /** The columns that are calculated, over rows that begin like these. */
  columns(first: Sample): readonly CalculatedColumn[];
  readonly plan: PlanOptions;
  /** The options of the dialect that are set, as a step keeps them. */
  readonly options: Deed["options"];
  /** How the rows are read, where that was said. */
  readonly reading?: Deed["reading"];
  /** What it is called where the rows are written; the file, when left out. */
  readonly title?: string;
  /** Whether rows may bring columns of their own. */
  readonly isRagged: boolean;
}

/** Plans the columns, and shows or writes the rows as they come. */
export async function apply(job: Job, options: OutputOptions, streams: Guarded): Promise<number> {
  const style = styleFor(streams, options.spaces);
  const format = formatOf(options);
  let { value: first } = (await job.pieces.next()) as { value: Sample };
  const row = options.trace ?? options.origin;
  if (row !== undefined) first = await together(first, job.pieces);
  const columns = job.columns(first);
  const decided = options.decided === undefined ? undefined : await decisionsOf(options.decided, columns, first, streams);
  const planned = { ...job.plan, decided: decided ?? job.plan.decided };
  let plan = planColumns(job.dialect, columns, first, planned);
  if (!reported(plan, streams)) return exit.failed;
  sayConflicts(columns, streams);
  if (row !== undefined) return ofOneRow(plan, first, row, options, style, streams);
  // What counts over a column, and rows that may bring columns of their own, want all rows at once.
  if (plan.readsWholeColumns(first) || job.isRagged) {
    first = await together(first, job.pieces);
    plan = planColumns(job.dialect, columns, first, planned);
  }
  if ((format === "parquet" || format === "arrow") && (options.over ?? options.to) === undefined && streams.stdout.isTTY)
    throw new UsageError(`${format} is not for a terminal; --to writes it into a file`);
  const tally = new Tally();
  const writer = options.steps
    ? stepsWriter(format, plan, first, style)
    : options.preview === undefined
      ? await writerOf(format, plan, first, options.all === true, style)
      : previewOf(options.preview, format, plan, first, style);
  const notes = new StepNotes();
  const path = options.over ?? options.to;
  const say = path === undefined && streams.stdout.isTTY ? () => undefined : progress(streams);
  const hazards = path !== undefined && (format === "csv" || format === "tsv") ? new HazardTally() : undefined;
  const told = (applied: Applied, piece: Sample) => {
    if (tally.rows === 0) {
      sayIdle(plan, piece, applied, streams);
      sayNotes(plan, piece, streams);
    }
    if (options.over !== undefined) notes.add(plan, applied, piece, tally.rows);
    say(tally.rows + piece.rows);
    for (const { name, values } of hazards ? applied.sample.columns : [])
      values.forEach((value, i) => hazards!.add(name, value, tally.kept + i));
  };
  const texts = written(first, job.pieces, plan, writer, tally, told);
  if (path === undefined) await writeAll(format === "table" ? streams.stdout : streams.data, texts);
  else {
    const entries = options.over === undefined ? [] : await readLedger(path);
    const did = deedOf(job, columns, planned.decided);
    const kept = await writeWhole(
      path,
      options.over === undefined ? "new" : "over",
      (output) => writeAll(output, texts),
      async (passage) => {
        const step = entries.filter((entry) => "step" in entry).length + 1;
        await appendEntry(path, { step, at: new Date().toISOString(), ...passage, did, ...notes.result(plan, tally) });
      },
    );
    streams.stderr.write(
      `${job.title ?? path}: ${counted(tally.kept, "row")} written${kept === undefined ? "" : `; the old file is kept as ${kept}`}\n`,
    );
  }
  for (const { column, hazard, count, row, text } of hazards?.list() ?? [])
    streams.stderr.write(
      `${column}: ${counted(count, "text")} that a spreadsheet may not keep, ${hazardText[hazard]}: "${visibleText(text.slice(0, 40), true)}" on row ${row + 1}\n`,
    );
  sayKinds(job.kinds, plan, first, streams);
  return summary(plan, first, tally, streams);
}

/** What a step keeps of a job, to do it again. */
function deedOf(
  { dialect, options, kinds, plan, reading }: Job,
  columns: readonly CalculatedColumn[],
  decided: PlanOptions["decided"],
): Deed {
  const { where, only, unfold } = plan;
  const texts = decided && Object.fromEntries([...decided].map(([name, found]) => [name, Object.fromEntries(found)]));
  return {
    dialect: dialect.id,
    options,
    columns,
    ...(reading && { reading }),
    kinds: Object.fromEntries(kinds.asked),
    ...(kinds.others && { others: kinds.others }),
    where,
    only,
    unfold,
    ...(texts && { decided: texts }),
  };
}

/** The format that is asked for, or that the name of a file says. */
function formatOf({ format, to, over, steps, preview }: OutputOptions): RowFormat {
  if (steps && preview !== undefined) throw new UsageError("--steps and --preview show different things; give one of them");
  if (over !== undefined && (steps || preview !== undefined))
    throw new UsageError("--over replaces the rows of a file; what --preview and --steps show goes into a new one, by --to");
  if (to !== undefined && over !== undefined) throw new UsageError("--to makes a file, --over replaces one; give one of them");
  const path = over ?? to;
  if (format !== undefined || path === undefined) return format ?? "table";
  const ending = extname(path).slice(1).toLowerCase();
  if (ending !== "table" && (rowFormats as readonly string[]).includes(ending)) return ending as RowFormat;
  throw new UsageError(`${path}: the name does not say in which format; --format says it`);
}

/** Writes what is wrong with the expressions of a plan; true when it can run. */
export function reported(plan: Plan, streams: Guarded): boolean {
  for (const { of, source, diagnostics } of plan.problems) {
    const about = programsOf(plan).length > 1 ? `${plan.dialect.id}, ${of}` : plan.dialect.id;
    reportAll(about, source, diagnostics, streams);
  }
  if (plan.ok && plan.problems.length > 0) streams.stderr.write("\n");
  return plan.ok;
}

/** Rows on which it is looked whether an expression may mean something else. */
const noteRows = 500;

/** Says what of the expressions may not be meant, by what they give on the first rows. */
function sayNotes(plan: Plan, piece: Sample, { stderr }: Guarded): void {
  const rows = Math.min(piece.rows, noteRows);
  const columns = piece.columns.map((column) => ({ ...column, values: column.values.slice(0, rows) }));
  const asked = { columns, rows };
  const conditions = [plan.where, plan.only].flatMap((program) =>
    program ? [{ program, sample: asked, values: program.run(asked) }] : [],
  );
  const steps = [...plan.stages(asked)].map(({ step, sample, values }) => ({ program: step.program, sample, values }));
  for (const { program, sample, values } of [...conditions, ...steps])
    reportAll(plan.dialect.id, program.source, notesOf(program, sample, values), { stderr });
}

/** Conflicts that are told before the rules of a column run. */
const conflictsTold = 3;

/** Says which rules of replacement lists are in each other's way. */
function sayConflicts(columns: readonly CalculatedColumn[], { stderr }: Guarded): void {
  for (const { names, then = [] } of columns)
    for (const job of then) {
      if (!("replace" in job)) continue;
      const conflicts = new Replacer(job.replace).conflicts();
      for (const conflict of conflicts.slice(0, conflictsTold))
        stderr.write(`${names.join(", ")}: ${conflictText(conflict, job.replace)}\n`);
      const more = conflicts.length - conflictsTold;
      if (more > 0) stderr.write(`${names.join(", ")}: and ${counted(more, "other conflict")}; iquill list tells them\n`);
    }
}

/** How the values on one row (from 1) come about, or where they came from. */
function ofOneRow(plan: Plan, sample: Sample, row: number, options: OutputOptions, style: Style, streams: Guarded): number {
  const { trace, origin, format } = options;
  if (trace !== undefined && origin !== undefined)
    throw new UsageError("--trace and --origin show different things; give one of them");
  if (row < 1 || row > sample.rows) throw new UsageError(`there is no row ${row}; the sample has rows 1 to ${sample.rows}`);
  const isData = origin !== undefined && (format === "json" || format === "ndjson");
  if (isData) {
    const found = [...plan.stages(sample)].map(({ step, sample: seen }) => originsData(step, seen, row - 1));
    const text = format === "json" ? JSON.stringify(found, undefined, 2) : found.map((each) => JSON.stringify(each)).join("\n");
    streams.stdout.write(`${text}\n`);
    return exit.ok;
  }
  let isFirst = true;
  for (const { step, sample: seen } of plan.stages(sample)) {
    if (plan.steps.length > 1) streams.stdout.write(`${isFirst ? "" : "\n"}${style.colour.bold(step.column.names.join(", "))}\n`);
    const { program } = step;
    if (trace !== undefined) streams.stdout.write(traceText(program, seen, row - 1, style, step));
    else streams.stdout.write(originsText(program, seen, row - 1, style));
    isFirst = false;
  }
  return exit.ok;
}

/** What is written, piece by piece. */
async function* written(
  first: Sample,
  others: AsyncGenerator<Sample>,
  plan: Plan,
  writer: RowWriter,
  tally: Tally,
  told: (applied: Applied, piece: Sample) => void,
): AsyncGenerator<string | Uint8Array> {
  if (writer.begin) yield writer.begin;
  for await (const piece of following(first, others)) {
    const applied = plan.run(piece);
    yield writer.rows(applied, piece, tally.rows);
    told(applied, piece);
    tally.add(applied, piece.rows);
  }
  if (writer.end) yield await writer.end();
}
