import type { Column, Sample } from "indigo-quill";

/** A problem in a file, with its place; `line` and `column` are 1-based, in characters. */
export class DataError extends Error {
  override readonly name = "DataError";

  constructor(
    message: string,
    readonly line?: number,
    readonly column?: number,
  ) {
    super(line === undefined ? message : `line ${line}${column === undefined ? "" : `, column ${column}`}: ${message}`);
  }
}

/** A sample as it was read, and what had to be changed to read it. */
export interface Table {
  readonly sample: Sample;
  readonly warnings: readonly string[];
  /** Whether the format has texts only, as CSV has. */
  readonly isText?: true;
}

/** Bytes that can be read from any place. */
export interface RandomAccess {
  readonly byteLength: number;
  slice(start: number, end?: number): ArrayBuffer | Promise<ArrayBuffer>;
}

/** Changed names that are told one by one. */
const toldNames = 20;

/**
 * Column names that are usable: an empty one becomes `column 3` after its place, one that is there
 * already becomes `label (2)`. Nothing is dropped; each change is a warning.
 */
export function usableNames(given: readonly string[]): { names: string[]; warnings: string[] } {
  const names: string[] = [];
  const warnings: string[] = [];
  const taken = new Set<string>();
  const counts = new Map<string, number>();
  let changed = 0;
  given.forEach((name, i) => {
    const base = name.trim() === "" ? `column ${i + 1}` : name;
    let usable = base;
    let n = counts.get(base) ?? 1;
    while (taken.has(usable)) usable = `${base} (${++n})`;
    counts.set(base, n);
    taken.add(usable);
    if (usable !== name && ++changed <= toldNames)
      warnings.push(
        name.trim() === ""
          ? `column ${i + 1} has no name; it is called "${usable}"`
          : `there are several columns "${name}"; number ${i + 1} is called "${usable}"`,
      );
    names.push(usable);
  });
  if (changed > toldNames) warnings.push(`… and ${changed - toldNames} more columns`);
  return { names, warnings };
}

/** Line and column (1-based, in characters) of an offset (0-based, UTF-16). */
export function placeOf(text: string, offset: number): { line: number; column: number } {
  let line = 1;
  let start = 0;
  for (let at = text.indexOf("\n"); at >= 0 && at < offset; at = text.indexOf("\n", at + 1)) {
    line++;
    start = at + 1;
  }
  return { line, column: [...text.slice(start, Math.min(offset, start + 1_000_000))].length + 1 };
}

export const sampleFrom = (columns: readonly Column[], rows: number): Sample => ({ columns, rows });

/**
 * Gives tables, one after another, the columns of the first that has rows; what is missing is null.
 * @param reason what is said of a column that comes later and holds anything; that throws a DataError
 */
export function fitter(reason: string): (table: Table) => Table {
  let names: readonly string[] | undefined;
  return (table) => {
    const { sample, ...rest } = table;
    if (!names) {
      if (sample.rows > 0) names = sample.columns.map(({ name }) => name);
      return table;
    }
    const known = names;
    const other = sample.columns.find(({ name, values }) => !known.includes(name) && values.some((value) => value !== null));
    if (other) throw new DataError(`a row far down has a column "${other.name}", ${reason}`);
    const own = new Map(sample.columns.map((column) => [column.name, column]));
    const columns = known.map((name) => own.get(name) ?? { name, values: new Array<null>(sample.rows).fill(null) });
    return { sample: { columns, rows: sample.rows }, ...rest };
  };
}
