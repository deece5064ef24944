import type { Sample } from "indigo-quill";
import { type Applied, type Plan, type PlanStep, idleCleanups, placesUsed } from "indigo-quill/folio";
import type { KindReader } from "indigo-quill/survey";
import { type Guarded, exit } from "../streams.ts";
import { counted } from "./counted.ts";
import { ruleText } from "./rules.ts";

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
export class Tally {
  rows = 0;
  kept = 0;
  /** Rows on which a condition is an error. */
  readonly unknown = new RowList();
  readonly columns = new Map<
    string,
    { changed: number; failed: RowList; empty: number; nothing: number; overflowing: RowList }
  >();
  /** For each column, its jobs that have rules: how many places each replaced. */
  readonly hits = new Map<string, (Uint32Array | undefined)[]>();

  add({ rows, unknown, changes }: Applied, given: number): void {
    for (const row of unknown) this.unknown.add(this.rows + row);
    for (const { name, changed, failed, empty, nothing, overflowing, hits } of changes) {
      if (hits) this.#addHits(name, hits);
      let column = this.columns.get(name);
      if (!column)
        this.columns.set(
          name,
          (column = { changed: 0, failed: new RowList(), empty: 0, nothing: 0, overflowing: new RowList() }),
        );
      column.changed += changed.length;
      column.empty += empty;
      column.nothing += nothing;
      for (const row of failed) column.failed.add(this.rows + row);
      for (const row of overflowing) column.overflowing.add(this.rows + row);
    }
    this.rows += given;
    this.kept += new Set(rows).size;
  }

  #addHits(name: string, hits: readonly (Uint32Array | undefined)[]): void {
    const sums = this.hits.get(name);
    if (!sums) this.hits.set(name, [...hits]);
    else hits.forEach((counts, i) => counts?.forEach((count, rule) => (sums[i]![rule] += count)));
  }
}

/** Says on standard error what became of each column, which rows are errors, and what the engine would do then. */
export function summary({ dialect, calculated, steps }: Plan, { columns }: Sample, tally: Tally, streams: Guarded): number {
  const { rows, kept, unknown } = tally;
  const scope =
    dialect.errorScope === "query"
      ? ` Here each row is shown; in ${dialect.title} one such row makes the whole expression fail.`
      : "";
  const say = (text: string) => streams.stderr.write(`${text}\n`);
  if (kept < rows) say(`${kept} of ${counted(rows, "row")} shown`);
  if (unknown.count > 0) say(`on ${counted(unknown.count, "row")} the condition is an error: ${String(unknown)}.${scope}`);
  const given = new Set(columns.map(({ name }) => name));
  sayHits(steps, tally.hits, say);
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

/** Rules that are told one by one. */
const told = 12;

/** Says how often each rule of a list was used. */
function sayHits(steps: readonly PlanStep[], hits: Tally["hits"], say: (text: string) => void): void {
  for (const { column } of steps)
    column.then?.forEach((job, i) => {
      const counts = hits.get(column.names[0])?.[i];
      if (!counts || !("replace" in job)) return;
      const used = [...counts.entries()].filter(([, count]) => count > 0).sort((a, b) => b[1] - a[1]);
      const places = used.reduce((sum, [, count]) => sum + count, 0);
      const unused = counts.length - used.length;
      say(
        `${column.names[0]}: ${counted(places, "place")} replaced by ${counted(used.length, "rule")}, ${counted(unused, "rule")} found nothing`,
      );
      for (const [rule, count] of used.slice(0, told)) say(`  ${String(count).padStart(6)}  ${ruleText(job.replace[rule])}`);
      if (used.length > told) say(`          and ${counted(used.length - told, "other rule")}`);
    });
}

/** Says which columns clean another one up and are not used, although the raw one is. */
export function sayIdle(plan: Plan, sample: Sample, applied: Applied, { stderr }: Guarded): void {
  for (const { name, raw, users } of idleCleanups(plan, sample, applied))
    stderr.write(
      `${name} is ${raw} cleaned up, and nothing uses it; ${users.join(", ")} ${users.length === 1 ? "uses" : "use"} ${raw} as it was\n`,
    );
}

/** Says which columns that are used are read as something else than text, and where that failed. */
export function sayKinds({ kinds, asked, misfits }: KindReader, plan: Plan, { columns }: Sample, streams: Guarded): void {
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
