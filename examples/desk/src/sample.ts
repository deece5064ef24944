import { readJson } from "@indigo-quill/data";
import demoRows from "@indigo-quill/demo/register.json?raw";
import type { Sample, Value } from "indigo-quill";

/** Rows beyond which the page shows only the first ones, and says so. */
export const rowLimit = 20_000;

export const demoSample: Sample = readJson(demoRows).sample;

/** The first rows of a sample. */
export const limited = (sample: Sample): Sample =>
  sample.rows <= rowLimit
    ? sample
    : { rows: rowLimit, columns: sample.columns.map(({ name, values }) => ({ name, values: values.slice(0, rowLimit) })) };

/** A row that the user types beside the sample: a text for each column, by name, or null as long as nothing is typed. */
export type Scratch = Readonly<Record<string, string | null>>;

/** The sample with scratch rows put before it; a scratch cell is read as the column's kind of value. */
export function withScratch(sample: Sample, scratch: readonly Scratch[]): Sample {
  if (scratch.length === 0) return sample;
  const columns = sample.columns.map(({ name, values }) => {
    const isNumeric = values.every((value) => value === null || typeof value === "number");
    const typed = scratch.map((row): Value => cellOf(row[name] ?? null, isNumeric));
    return { name, values: [...typed, ...values] };
  });
  return { rows: sample.rows + scratch.length, columns };
}

function cellOf(text: string | null, isNumeric: boolean): Value {
  if (!isNumeric || text === null) return text;
  return text.trim() === "" || Number.isNaN(Number(text)) ? null : Number(text);
}
