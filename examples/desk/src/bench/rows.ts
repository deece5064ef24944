import { readJson, readPieces } from "@indigo-quill/data";
import demoRows from "@indigo-quill/demo/register.json?raw";
import type { Column, Sample, Value } from "indigo-quill";
import { type Applied, type Plan, changesOf } from "indigo-quill/folio";
import { KindReader } from "indigo-quill/survey";

/** Rows beyond which the page takes no more of a file, and says so. */
export const mostRows = 250_000;

/** Rows that are worked on before anything else may have its turn. */
export const pieceRows = 4096;

const joinedColumn = (pieces: readonly Sample[], i: number): Value[] => {
  const values: Value[] = [];
  for (const { columns, rows } of pieces) {
    const own = columns[i]?.values;
    for (let row = 0; row < rows; row++) values.push(own ? own[row] : null);
  }
  return values;
};

/** Rows that were read, and what there is to say about that. */
export interface Rows {
  readonly sample: Sample;
  readonly notices: readonly string[];
  /** Whether there are more than were taken. */
  readonly isCut?: boolean;
}

/** The rows of a file, or of the demo register; no more is read than what is taken. @throws DataError */
export async function readRows(file: File | undefined, most: number): Promise<Rows> {
  if (!file) return { sample: readJson(demoRows).sample, notices: [] };
  const pieces: Sample[] = [];
  const notices: string[] = [];
  let rows = 0;
  let isText = false;
  for await (const { sample, warnings, isText: hasTexts } of tablesOf(file)) {
    pieces.push(sample);
    notices.push(...warnings);
    isText ||= hasTexts === true;
    rows += sample.rows;
    if (rows > most) break;
  }
  if (rows > most) notices.unshift(`${file.name}: the first ${most} rows are shown here. The iquill command takes them all.`);
  const taken = Math.min(rows, most);
  const columns = pieces[pieces.length - 1].columns.map(({ name }, i): Column => {
    const values = joinedColumn(pieces, i);
    values.length = taken;
    return { name, values };
  });
  const sample = { columns, rows: taken };
  const cut = rows > most && { isCut: true };
  if (!isText) return { sample, notices, ...cut };
  const read = withKinds(sample);
  return { sample: read.sample, notices: [...notices, ...read.notices], ...cut };
}

async function* tablesOf(file: File) {
  const mark = await file.slice(0, 6).text();
  const access = { byteLength: file.size, slice: (start: number, end?: number) => file.slice(start, end).arrayBuffer() };
  if (mark.startsWith("PAR1")) yield* (await import("@indigo-quill/data/parquet")).readParquet(access);
  else if (mark === "ARROW1") yield* (await import("@indigo-quill/data/arrow")).readArrow(access);
  else yield* readPieces(chunksOf(file));
}

async function* chunksOf(file: File): AsyncGenerator<Uint8Array> {
  const reader = (file.stream() as ReadableStream<Uint8Array>).getReader();
  for (let { done, value } = await reader.read(); !done; { done, value } = await reader.read()) yield value!;
}

/** Rows with the columns that are all numbers, or all true and false, read as such. */
export function withKinds(sample: Sample): Rows {
  const reader = new KindReader();
  const read = reader.read(sample);
  const notices = (["number", "truth value"] as const).flatMap((kind) => {
    const names = [...reader.kinds].filter(([, found]) => found === kind).map(([name]) => name);
    return names.length > 0 ? [`Read as ${kind}s: ${names.join(", ")}.`] : [];
  });
  return { sample: read, notices };
}

/** A part of the rows. */
export const sliceOf = ({ columns, rows }: Sample, from: number, to: number): Sample => ({
  columns: columns.map(({ name, values, written, type }) => ({
    name,
    values: values.slice(from, to),
    ...(written && { written: written.slice(from, to) }),
    ...(type !== undefined && { type }),
  })),
  rows: Math.min(to, rows) - from,
});

/** What a plan makes of all rows, with which cells it changes. */
export interface Worked {
  readonly plan: Plan;
  readonly names: readonly string[];
  readonly columns: Map<string, Value[]>;
  /** For each row that is given the one that it was made from. */
  readonly from: number[];
  readonly pieces: { readonly applied: Applied; readonly piece: Sample; readonly start: number }[];
  /** The places of rows with a cell that changes, and for each column which rows change. */
  readonly changedPlaces: number[];
  readonly changed: Map<string, Set<number>>;
}

/** A plan before its first row. */
export const unworked = (plan: Plan): Worked => ({
  plan,
  names: plan.names,
  columns: new Map(plan.names.map((name) => [name, []])),
  from: [],
  pieces: [],
  changedPlaces: [],
  changed: new Map(),
});

/** Takes what a plan made of a piece of the rows. */
export function take(worked: Worked, applied: Applied, piece: Sample, start: number): void {
  const before = worked.from.length;
  for (const { name, values } of applied.sample.columns) {
    const own = worked.columns.get(name)!;
    for (const value of values) own.push(value);
  }
  for (const row of applied.rows) worked.from.push(start + row);
  let last = -1;
  for (const { place, column } of changesOf(worked.plan, applied, piece)) {
    const at = before + place;
    if (at !== last) worked.changedPlaces.push(at);
    last = at;
    const rows = worked.changed.get(column);
    if (rows) rows.add(at);
    else worked.changed.set(column, new Set([at]));
  }
  worked.pieces.push({ applied, piece, start });
}

/** The rows after a step: what it left alone keeps how it was read. */
export function rowsAfter({ plan, names, columns, from }: Worked, before: Sample, helpers: ReadonlySet<string>): Sample {
  const isSame = from.length === before.rows && from.every((row, place) => row === place);
  const kept = names.filter((name) => !helpers.has(name));
  return {
    columns: kept.map((name): Column => {
      const own = before.columns.find((column) => column.name === name);
      if (!own || plan.calculated.has(name)) return { name, values: columns.get(name)! };
      if (isSame) return own;
      const { values, written, type } = own;
      return {
        name,
        values: from.map((row) => values[row]),
        ...(written && { written: from.map((row) => written[row]) }),
        ...(type !== undefined && { type }),
      };
    }),
    rows: from.length,
  };
}
