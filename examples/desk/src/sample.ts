import { readJson, readPieces } from "@indigo-quill/data";
import demoRows from "@indigo-quill/demo/register.json?raw";
import type { Sample, Value } from "indigo-quill";

/** Rows beyond which the page takes no more of a file, and says so. */
export const rowLimit = 20_000;

/** Rows to work on, and what there is to say about reading them. */
export interface Rows {
  readonly sample: Sample;
  readonly notices: readonly string[];
}

/** The rows of a file, or of the demo register; no more is read than what is taken. @throws DataError */
export async function readRows(file: File | undefined): Promise<Rows> {
  if (!file) return { sample: readJson(demoRows).sample, notices: [] };
  const pieces: Sample[] = [];
  const notices: string[] = [];
  let rows = 0;
  for await (const { sample, warnings } of readPieces(chunksOf(file))) {
    pieces.push(sample);
    notices.push(...warnings);
    rows += sample.rows;
    if (rows > rowLimit) break;
  }
  if (rows > rowLimit)
    notices.unshift(`${file.name}: the first ${rowLimit} rows are shown here. The iquill command takes them all.`);
  return { sample: joined(pieces, Math.min(rows, rowLimit)), notices };
}

async function* chunksOf(file: File): AsyncGenerator<Uint8Array> {
  const reader = (file.stream() as ReadableStream<Uint8Array>).getReader();
  for (let { done, value } = await reader.read(); !done; { done, value } = await reader.read()) yield value!;
}

/** Pieces of a file one below the other; the last one has all columns. */
function joined(pieces: readonly Sample[], rows: number): Sample {
  const columns = pieces[pieces.length - 1].columns.map(({ name }, i) => {
    const values = pieces.flatMap((piece) => piece.columns[i]?.values ?? new Array<Value>(piece.rows).fill(null));
    return { name, values: values.slice(0, rows) };
  });
  return { rows, columns };
}

/** A row that the user types beside the sample: a text for each column, by name, or null as long as nothing is typed. */
export type Scratch = Readonly<Record<string, string | null>>;

/** The sample with scratch rows put before it; a scratch cell is read as the column's kind of value. */
export function withScratch(sample: Sample, scratch: readonly Scratch[]): Sample {
  if (scratch.length === 0) return sample;
  const columns = sample.columns.map(({ name, values }) => {
    const isNumeric = values.length > 0 && values.every((value) => value === null || typeof value === "number");
    const typed = scratch.map((row): Value => cellOf(row[name] ?? null, isNumeric));
    return { name, values: [...typed, ...values] };
  });
  return { rows: sample.rows + scratch.length, columns };
}

function cellOf(text: string | null, isNumeric: boolean): Value {
  if (!isNumeric || text === null) return text;
  return text.trim() === "" || Number.isNaN(Number(text)) ? null : Number(text);
}
