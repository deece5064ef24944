import { createReadStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { basename, dirname, join } from "node:path";
import { visibleText } from "indigo-quill/authoring";
import { type Deed, type LedgerState, type StepEntry, ledgerState, stepsOfCell } from "indigo-quill/folio";
import { KindReader } from "indigo-quill/survey";
import { type RowOptions, dialectWith, readPieces, readSample } from "../input.ts";
import { digestOf, writeWhole } from "../output/file.ts";
import { appendEntry, readLedger } from "../output/ledger.ts";
import { styleFor } from "../output/style.ts";
import { jobText } from "../output/rules.ts";
import { table } from "../output/table.ts";
import { type Guarded, UsageError, exit } from "../streams.ts";
import { apply } from "./apply.ts";

async function opened(path: string): Promise<LedgerState> {
  const entries = await readLedger(path);
  if (entries.length === 0) throw new UsageError(`${path}: nothing was done to this file by --over, so there is no ledger`);
  return ledgerState(entries);
}

/** A file that a ledger names stands beside the one that it is about. */
const beside = (path: string, name: string): string => join(dirname(path), name);

/** What gave a column its values: the expression, and what was done then. */
function expressionOf({ did }: StepEntry, name: string): string {
  const { expression, then = [] } = did.columns.find(({ names }) => names.includes(name))!;
  return [expression, ...then.map(jobText)].join(", then ");
}

/** Lists the steps that made a file what it is, or those that changed a cell, `row,column`. */
export async function ledgerCommand(path: string, { cell }: { cell?: string }, streams: Guarded): Promise<number> {
  const state = await opened(path);
  streams.stdout.write(cell === undefined ? listOf(state, streams) : await historyOf(path, cell, state, streams));
  return exit.ok;
}

function listOf({ steps, undone }: LedgerState, streams: Guarded): string {
  const lines = [...steps, ...[...undone].reverse()].flatMap((step) =>
    Object.entries(step.effects).map(([name, { isNew, changed, failed, empty, nothing, rows }], i) => [
      i === 0 ? String(step.step) : "",
      i === 0 ? `${step.at.slice(0, 16).replace("T", " ")}${undone.includes(step) ? ", undone" : ""}` : "",
      name + (isNew ? " (new)" : ""),
      String(changed),
      [
        [empty, "empty"],
        [nothing, "nothing"],
        [failed, "errors"],
      ]
        .flatMap(([count, what]) => (count === 0 ? [] : [`${count} ${what}`]))
        .join(", "),
      rows,
      expressionOf(step, name),
    ]),
  );
  return table(["step", "when (UTC)", "column", "changed", "", "rows", "by"], lines, styleFor(streams), [0, 3]);
}

async function historyOf(path: string, cell: string, state: LedgerState, streams: Guarded): Promise<string> {
  const [, row, column] = /^(\d+),(.+)$/s.exec(cell) ?? [];
  if (column === undefined) throw new UsageError(`a cell is written row,column, not "${cell}"`);
  const found = stepsOfCell(state, column, Number(row));
  if (found.length === 0) return `no step changed ${column} on row ${row}\n`;
  const valueIn = async (name: string, at: number, reading: Deed["reading"] = {}) => {
    const { columns } = await readSample(beside(path, name), { ...reading, text: true }, streams);
    const value = columns.find((each) => each.name === column)?.values[at - 1];
    return value === undefined ? "(no such column)" : `"${visibleText(String(value ?? ""), true)}"`;
  };
  const lines: string[][] = [];
  let after = await valueIn(basename(path), Number(row));
  for (const { step, before } of found) {
    const was = await valueIn(step.kept, before, step.did.reading);
    lines.unshift([String(step.step), was, after, expressionOf(step, column)]);
    after = was;
  }
  return table(["step", "before", "after", "by"], lines, styleFor(streams), [0]);
}

/** Takes the last step of a file back, or does the one that was taken back last again. */
export async function moveCommand(path: string, way: "undo" | "redo", streams: Guarded): Promise<number> {
  const { steps, undone, after } = await opened(path);
  const step = (way === "undo" ? steps : undone).at(-1);
  if (!step) throw new UsageError(`${path}: there is nothing to ${way}`);
  const isUndo = way === "undo";
  const [now, wanted] = isUndo ? [step.is, step.was] : [step.was, step.is];
  const digest = await digestOf(path).catch(() => undefined);
  if (digest === undefined)
    throw new UsageError(`${path}: this is not there any more, or cannot be read; what it was is kept beside it`);
  if (digest !== now) throw new UsageError(`${path}: it was changed since by something else than a step; ${way} would lose that`);
  const source = beside(path, isUndo ? step.kept : after.get(step.step)!);
  if ((await digestOf(source).catch(() => undefined)) !== wanted)
    throw new UsageError(`${source}: this is not any more what was kept, so that ${way} cannot go back to it`);
  const at = new Date().toISOString();
  const kept = await writeWhole(
    path,
    "over",
    async (output) => {
      for await (const chunk of createReadStream(source)) {
        output.write(chunk as Buffer);
        await new Promise<void>((resolve) => output.once("drain", resolve));
      }
    },
    (passage) => appendEntry(path, isUndo ? { undo: step.step, at, ...passage } : { redo: step.step, at, ...passage }),
  );
  streams.stderr.write(
    `${path}: step ${step.step} ${isUndo ? "taken back" : "done again"}; the file before that is kept as ${String(kept)}\n`,
  );
  return exit.ok;
}

export interface ReplayOptions extends RowOptions {
  readonly to: string;
}

/** Does all steps of a file, one after another, on other rows, into a new file. */
export async function replayCommand(
  path: string,
  rows: string,
  { to, format: _, ...reading }: ReplayOptions,
  streams: Guarded,
): Promise<number> {
  const { steps } = await opened(path);
  const folder = await mkdtemp(join(tmpdir(), "iquill-"));
  let source = rows;
  let code: number = exit.ok;
  try {
    for (const [i, { step, did }] of steps.entries()) {
      const { options, columns, others, decided, where, only, unfold } = did;
      const dialect = await dialectWith(did.dialect, options);
      const kinds = new KindReader(new Map(Object.entries(did.kinds)), others);
      const texts = decided && new Map(Object.entries(decided).map(([name, found]) => [name, new Map(Object.entries(found))]));
      const plan = { where, only, unfold, decided: texts };
      // How the rows are read was said of the given ones; those between steps are our own.
      const pieces = readPieces(source, i === 0 ? reading : {}, streams, kinds);
      const target = i === steps.length - 1 ? to : join(folder, `after step ${step}.csv`);
      const done = await apply(
        { dialect, kinds, pieces, columns: () => columns, plan, options, isRagged: false, title: `step ${step}` },
        { to: target },
        streams,
      );
      if (done === exit.failed) return done;
      code = Math.max(code, done);
      source = target;
    }
    return code;
  } finally {
    await rm(folder, { recursive: true });
  }
}
