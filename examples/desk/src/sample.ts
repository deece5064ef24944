import { type Column, type Sample, type Value, isFailure } from "indigo-quill";
import { type TextKind, readAs } from "indigo-quill/survey";

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
