import type { Dialect, Sample } from "indigo-quill";
import { type CalculatedColumn, forEach, freeName } from "indigo-quill/folio";
import {
  type CharacterKind,
  type Job,
  type JobName,
  ListProblem,
  type NamedList,
  type WrittenJob,
  jobFrom,
  jobNames,
  listFromTable,
} from "indigo-quill/lists";
import { readSample } from "../input.ts";
import { type Streams, UsageError } from "../streams.ts";

/** The options that say which columns are calculated. */
export interface ColumnOptions {
  readonly column?: readonly string[];
  readonly each?: string;
  readonly name?: string;
  readonly replace?: string;
  readonly then?: readonly string[];
}

/** The columns that are asked for: by --column, or by the expression with --each, --name or --replace. */
export function columnsWanted(
  dialect: Dialect,
  expression: string | undefined,
  { column = [], each, name, replace }: Omit<ColumnOptions, "then">,
  { columns }: Sample,
  jobs: readonly Job[] = [],
): CalculatedColumn[] {
  const names = columns.map((column) => column.name);
  const there = (wanted: string): string => {
    if (!names.includes(wanted))
      throw new UsageError(`there is no column "${wanted}" to replace; the columns are ${names.join(", ")}`);
    return wanted;
  };
  const wanted = column.map(columnFrom);
  const then = jobs.length > 0 && { then: jobs };
  if (expression === undefined) {
    if (wanted.length === 0) throw new UsageError("an expression is wanted, or --column name=expression");
    for (const [option, value] of Object.entries({ each, name, replace, ...then }))
      if (value !== undefined) throw new UsageError(`--${option} is about an expression of its own, which is not given`);
    return wanted;
  }
  if ([each, name, replace].filter((value) => value !== undefined).length > 1)
    throw new UsageError("--name is for a new column, --replace for one that is there, --each for several; give one of them");
  if (each !== undefined) {
    if (names.includes("it"))
      throw new UsageError('with --each "it" stands for each column, and there is a column of that name; use --column');
    return [
      ...wanted,
      ...forEach(dialect, each === "*" ? names : namesFrom(each).map(there), expression).map((one) => ({ ...one, ...then })),
    ];
  }
  if (replace !== undefined) return [...wanted, { names: [there(replace)], expression, ...then }];
  const target = name ?? freeName("value", [...names, ...wanted.flatMap((given) => given.names)]);
  if (names.includes(target))
    throw new UsageError(`there is a column "${target}" already; --replace "${target}" puts the values in its place`);
  return [...wanted, { names: [target], expression, ...then }];
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

/** A list from a file of rows: one column of values, or old and new. */
export async function readList(path: string, streams: Streams): Promise<NamedList> {
  const table = await readSample(path, { text: true }, streams);
  try {
    return listFromTable(table);
  } catch (error) {
    throw error instanceof ListProblem ? new UsageError(`${path}: ${error.message}`) : error;
  }
}

/** What is written behind --then, as in a folio. */
function writtenJob(text: string): WrittenJob {
  const [, name, value] = /^(\w+)(?:=([^]*))?$/.exec(text) ?? [];
  if (!jobNames.includes(name as JobName)) throw new UsageError(`--then takes ${jobNames.join(", ")}, not "${text}"`);
  if (name === "plain" || name === "tidy") {
    if (value !== undefined) throw new UsageError(`--then ${name} takes nothing behind it`);
    return { [name]: true };
  }
  if (value === undefined) throw new UsageError(`--then ${name} wants something: --then ${name}=…`);
  const numbers = /^(-?\d+(?:\.\d+)?)\.\.(-?\d+(?:\.\d+)?)$/.exec(value);
  if (numbers && (name === "keep" || name === "places")) return { [name]: { from: Number(numbers[1]), to: Number(numbers[2]) } };
  if (name === "split") return { split: value.trim() === "" ? value : value.trim().split(/\s+/) };
  if (name === "drop" || name === "only") return { [name]: value.split(/[,\s]+/) as CharacterKind[] };
  if (name === "item") return { item: value === "" ? NaN : Number(value) };
  if (name === "find" && value.startsWith("shape:")) return { find: { shape: value.slice(6) } };
  return { [name]: value };
}

/** The jobs that are asked for by --then. */
export async function jobsWanted(asked: readonly string[], streams: Streams): Promise<Job[]> {
  const written = asked.map(writtenJob);
  const lists = new Map<string, NamedList>();
  for (const job of written)
    for (const name of [job.replace, job.has, job.which, job.terms, job.keep, job.places])
      if (typeof name === "string") lists.set(name, await readList(name, streams));
  return written.map((job, i) => {
    try {
      return jobFrom(job, (name) => lists.get(name));
    } catch (error) {
      throw error instanceof ListProblem ? new UsageError(`--then ${asked[i]}: ${error.message}`) : error;
    }
  });
}

/** What was decided for single values: the file that a preview of values gives, with another text under `after` where wanted. */
export async function decisionsOf(
  path: string,
  columns: readonly CalculatedColumn[],
  sample: Sample,
  streams: Streams,
): Promise<ReadonlyMap<string, ReadonlyMap<string, string>>> {
  const { columns: cells, rows } = await readSample(path, { text: true }, streams);
  const [names, before, after] = ["column", "before", "after"].map((name) => {
    const found = cells.find((column) => column.name === name);
    if (!found)
      throw new UsageError(
        `${path}: the columns "column", "before" and "after" are wanted, as --preview values -f csv gives them`,
      );
    return found.values as readonly string[];
  });
  const replaced = columns.flatMap((column) => column.names).filter((name) => sample.columns.some((each) => each.name === name));
  const decided = new Map<string, Map<string, string>>();
  for (let row = 0; row < rows; row++) {
    const name = names[row];
    if (!replaced.includes(name))
      throw new UsageError(`${path}: row ${row + 1} decides about "${name}", which is not replaced here`);
    const texts = decided.get(name) ?? new Map<string, string>();
    if ((texts.get(before[row]) ?? after[row]) !== after[row])
      throw new UsageError(`${path}: row ${row + 1} decides otherwise about "${before[row]}" than a row before`);
    decided.set(name, texts.set(before[row], after[row]));
  }
  return decided;
}
