import { readJson, readPieces } from "@indigo-quill/data";
import demoRows from "@indigo-quill/demo/register.json?raw";
import { type Column, type Sample, type Value, isFailure } from "indigo-quill";
import { KindReader, type TextKind, readAs } from "indigo-quill/survey";

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
  let isText = false;
  for await (const { sample, warnings, isText: hasTexts } of readPieces(chunksOf(file))) {
    pieces.push(sample);
    notices.push(...warnings);
    isText ||= hasTexts === true;
    rows += sample.rows;
    if (rows > rowLimit) break;
  }
  if (rows > rowLimit)
    notices.unshift(`${file.name}: the first ${rowLimit} rows are shown here. The iquill command takes them all.`);
  const sample = joined(pieces, Math.min(rows, rowLimit));
  if (!isText) return { sample, notices };
  const reader = new KindReader();
  const read = reader.read(sample);
  for (const kind of ["number", "truth value"] as const) {
    const names = [...reader.kinds].filter(([, found]) => found === kind).map(([name]) => name);
    if (names.length > 0) notices.push(`Read as ${kind}s: ${names.join(", ")}.`);
  }
  return { sample: read, notices };
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
  const columns = sample.columns.map(({ name, values, written }): Column => {
    const kind = kindOf(values);
    const texts = scratch.map((row) => row[name] ?? null);
    const typed = texts.map((text): Value => (text === null ? null : cellOf(text.trim(), kind, text)));
    return { name, values: [...typed, ...values], ...(written && { written: [...texts, ...written] }) };
  });
  return { rows: sample.rows + scratch.length, columns };
}

function kindOf(values: readonly Value[]): TextKind {
  const present = values.filter((value) => value !== null);
  const all = (type: string) => present.length > 0 && present.every((value) => typeof value === type);
  return all("number") ? "number" : all("boolean") ? "truth value" : "text";
}

/** What is typed, as a value of the column's kind; nothing as long as it is none. */
function cellOf(trimmed: string, kind: TextKind, text: string): Value {
  if (kind === "text") return text;
  const value = readAs(kind, trimmed);
  return isFailure(value) ? null : value;
}
