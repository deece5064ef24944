import { open, readFile, stat } from "node:fs/promises";
import type { Sample } from "indigo-quill";
import { type Applied, type Effect, type Entry, type Plan, RowRuns, changesOf } from "indigo-quill/folio";
import { UsageError } from "../streams.ts";
import { digestOf, writeWhole } from "./file.ts";
import type { Tally } from "./tally.ts";

export const ledgerPath = (path: string): string => `${path}.ledger`;

/**
 * The lines of a file's ledger. One that was being written when the command was killed is no line, and one whose step did not
 * come to the file does not count: a line is on the disk before the file changes.
 */
export async function readLedger(path: string): Promise<Entry[]> {
  const text = await readFile(ledgerPath(path), "utf8").catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return "";
    throw error;
  });
  const lines = text.split("\n");
  const torn = lines.pop();
  let entries: Entry[];
  try {
    entries = lines.map((line) => JSON.parse(line) as Entry);
  } catch {
    throw new UsageError(`${ledgerPath(path)}: this is no ledger; move it away to begin a new one`);
  }
  const last = entries.at(-1);
  const isThere = await stat(path).then(
    () => true,
    () => false,
  );
  const didNotHappen = last !== undefined && last.was !== last.is && isThere && (await digestOf(path)) === last.was;
  if (didNotHappen) entries.pop();
  if (torn !== "" || didNotHappen) {
    const whole = entries.map((entry) => `${JSON.stringify(entry)}\n`).join("");
    await writeWhole(ledgerPath(path), "in place", (output) => Promise.resolve(void output.write(whole)));
  }
  return entries;
}

/** Adds a line, which is on the disk when this ends. */
export async function appendEntry(path: string, entry: Entry): Promise<void> {
  const file = await open(ledgerPath(path), "a");
  try {
    await file.writeFile(`${JSON.stringify(entry)}\n`);
    await file.sync();
  } finally {
    await file.close();
  }
}

/** Notes which rows a step changes, and which row each was made from. */
export class StepNotes {
  readonly #changed = new Map<string, RowRuns>();
  readonly #from = new RowRuns();
  #given = 0;
  #isMoved = false;

  /** @param start the rows before the piece */
  add(plan: Plan, applied: Applied, piece: Sample, start: number): void {
    for (const { column, place } of changesOf(plan, applied, piece)) {
      let runs = this.#changed.get(column);
      if (!runs) this.#changed.set(column, (runs = new RowRuns()));
      runs.add(this.#given + place + 1);
    }
    for (const [place, row] of applied.rows.entries()) {
      this.#isMoved ||= start + row !== this.#given + place;
      this.#from.add(start + row + 1);
    }
    this.#given += applied.rows.length;
  }

  /** What became of each column, with the counts that were made meanwhile. */
  result({ given }: Plan, { columns, rows }: Tally) {
    const effects = [...columns].map(([name, { changed, failed, empty, nothing }]): [string, Effect] => [
      name,
      { isNew: !given.has(name), changed, failed: failed.count, empty, nothing, rows: String(this.#changed.get(name) ?? "") },
    ]);
    const isMoved = this.#isMoved || this.#given !== rows;
    return { rows: this.#given, effects: Object.fromEntries(effects), ...(isMoved && { from: String(this.#from) }) };
  }
}
