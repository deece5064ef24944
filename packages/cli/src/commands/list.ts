import type { Sample } from "indigo-quill";
import { saidJobs } from "indigo-quill/folio";
import { type Job, type NamedList, Replacer } from "indigo-quill/lists";
import { dialectOf, readSample } from "../input.ts";
import { counted } from "../output/counted.ts";
import { conflictText } from "../output/rules.ts";
import { type Guarded, UsageError, exit } from "../streams.ts";
import { readList } from "./columns.ts";

export interface ListOptions {
  readonly in?: string;
  readonly option?: readonly string[];
  readonly rows?: string;
  readonly column?: string;
}

/** What is said of an expression that gives an empty text where there is nothing. */
export const emptied = "where the cell is nothing it gives an empty text, or false\n";

/** Conflicts that are told one by one. */
const most = 20;

/** Says what is in a list and which of its rules are in each other's way; with a dialect, prints the expression that does what it does. */
export async function listCommand(path: string, options: ListOptions, streams: Guarded): Promise<number> {
  const list = await readList(path, streams);
  if (options.in !== undefined) return printed(list, { ...options, in: options.in }, streams);
  const { stdout } = streams;
  if ("terms" in list) {
    const { values } = list.terms;
    const seen = new Set<string>();
    const again = values.filter((value) => seen.size === seen.add(value).size);
    stdout.write(`${counted(values.length, "value")}\n`);
    if (again.length > 0) stdout.write(`given twice: ${[...new Set(again)].slice(0, most).join(", ")}\n`);
    return again.length > 0 ? exit.some : exit.ok;
  }
  const conflicts = new Replacer(list.rules).conflicts();
  stdout.write(`${counted(list.rules.length, "rule")}, ${counted(conflicts.length, "conflict")}\n`);
  for (const conflict of conflicts.slice(0, most)) stdout.write(`${conflictText(conflict, list.rules)}\n`);
  if (conflicts.length > most) stdout.write(`and ${counted(conflicts.length - most, "other")}\n`);
  return conflicts.length > 0 ? exit.some : exit.ok;
}

async function printed(
  list: NamedList,
  { in: id, option, rows, column }: ListOptions & { in: string },
  streams: Guarded,
): Promise<number> {
  if (rows === undefined || column === undefined)
    throw new UsageError("--in prints the expression for a column: --rows and --column say which, and it is tried on it");
  const dialect = await dialectOf(id, option);
  const sample: Sample = await readSample(rows, { text: true }, streams);
  if (!sample.columns.some(({ name }) => name === column))
    throw new UsageError(`there is no column "${column}"; the columns are ${sample.columns.map(({ name }) => name).join(", ")}`);
  const job: Job = "rules" in list ? { replace: list.rules } : { which: list.terms };
  const said = saidJobs(dialect, dialect.columnText(column), [job], sample);
  if ("refused" in said) {
    streams.stderr.write(`${said.refused}\n`);
    return exit.some;
  }
  streams.stdout.write(`${said.expression}\n`);
  if (said.emptyForNothing) streams.stderr.write(emptied);
  return exit.ok;
}
