import { exactNumber } from "indigo-quill/survey";
import { parse } from "lossless-json";
import { NestedRows, isRecord } from "./cells.ts";
import { DataError, type Table, placeOf, sampleFrom, usableNames } from "./table.ts";
import { exactJson } from "indigo-quill/values";

/** Parses JSON, numbers as they are written; @throws DataError with the place of what is wrong, a name given twice too */
export function parseJson(text: string, firstLine = 1): unknown {
  try {
    return parse(text, undefined, { parseNumber: exactNumber });
  } catch (error) {
    const { message } = error as Error;
    const position = /position (\d+)/.exec(message);
    const { line, column } = placeOf(text, position ? Number(position[1]) : text.length);
    const problem = message.replace(/(?: encountered)?(?: at| in JSON at)? position.*$/s, "");
    throw new DataError(
      /^Duplicate key/.test(message)
        ? `${problem.replace("Duplicate key", "the name")} is given twice`
        : `this is not JSON: ${problem}`,
      line + firstLine - 1,
      column,
    );
  }
}

/** The values of the lines of NDJSON, with their line numbers (1-based, after those `before`); empty lines are skipped. */
export function* parseLines(text: string, before = 0): Generator<{ value: unknown; line: number }> {
  let line = before;
  for (const source of text.split(/\r?\n/)) {
    line++;
    if (source.trim() !== "") yield { value: parseJson(source, line), line };
  }
}

/** Rows of JSON as a table. */
function tableOf(rows: Iterable<{ value: unknown; where: string }>): Table {
  const nested = new NestedRows();
  for (const { value, where } of rows) {
    if (!isRecord(value)) throw new DataError(`${where} is not an object with the columns as names`);
    try {
      nested.add(value);
    } catch (error) {
      throw error instanceof DataError ? new DataError(`${where}: ${error.message}`) : error;
    }
  }
  const { names, warnings } = usableNames([...nested.columns.keys()]);
  const all = [...nested.columns.values()];
  return {
    sample: sampleFrom(
      names.map((name, i) => ({ name, values: all[i] })),
      nested.rows,
    ),
    warnings: [...warnings, ...nested.warnings()],
  };
}

/**
 * Reads rows from a JSON array of objects, or from NDJSON with an object a line. A name that a row
 * lacks is null there; the columns are in the order in which they first occur. Objects within a row are columns of their own
 * (`place.country`), a list with objects is JSON text, with a warning.
 * @throws DataError where it is not JSON, or a row is not an object
 */
export function readJson(text: string): Table {
  if (!/^\s*\[/.test(text)) return tableOf(inLines(text, 0));
  const rows = parseJson(text) as unknown[];
  return tableOf(rows.map((value, i) => ({ value, where: `row ${i + 1}` })));
}

function* inLines(text: string, before: number): Generator<{ value: unknown; where: string }> {
  for (const { value, line } of parseLines(text, before)) yield { value, where: `line ${line}` };
}

/** Reads JSON in pieces, an array of objects or NDJSON: each gives the rows that are whole by then. */
export class JsonReader {
  #rest = "";
  #isArray: boolean | undefined;
  #rows = 0;
  /** Lines before what is left over. */
  #lines = 0;
  #isClosed = false;

  /** The rows that end within `text`, and all that are left where it is the last piece. */
  read(text: string, isLast: boolean): Table {
    const all = this.#rest + text;
    this.#isArray ??= /^\s*\[/.test(all);
    return this.#isArray ? this.#items(all, isLast) : this.#inLines(all, isLast);
  }

  #inLines(all: string, isLast: boolean): Table {
    const end = isLast ? all.length : all.lastIndexOf("\n") + 1;
    this.#rest = all.slice(end);
    const whole = all.slice(0, end);
    const table = tableOf(inLines(whole, this.#lines));
    this.#lines += whole.split("\n").length - 1;
    return table;
  }

  #items(all: string, isLast: boolean): Table {
    const from = this.#rows === 0 && !this.#isClosed ? all.indexOf("[") + 1 : 0;
    const { end, isClosed } = this.#isClosed ? { end: 0, isClosed: true } : lastItemEnd(all, from);
    const isFirst = from > 0;
    if (isLast && !isClosed) {
      // The parser says what is wrong, and where.
      parseJson(isFirst ? all : `[${all}`, this.#lines + 1);
    }
    if (end === from && !isClosed) {
      this.#rest = all;
      return tableOf([]);
    }
    const source = `${" ".repeat(from > 0 ? from - 1 : 0)}[${all.slice(from, end)}]`;
    const values = parseJson(source, this.#lines + 1) as unknown[];
    const before = this.#rows;
    this.#rows += values.length;
    const after = isClosed && !this.#isClosed ? all.slice(end + 1) : all.slice(end);
    this.#isClosed ||= isClosed;
    if (this.#isClosed && after.trim() !== "")
      throw new DataError("this is not JSON: something stands behind the end of the list");
    this.#rest = this.#isClosed ? "" : after.replace(/^,/, "");
    this.#lines += all.slice(0, all.length - after.length).split("\n").length - 1;
    return tableOf(values.map((value, i) => ({ value, where: `row ${before + i + 1}` })));
  }
}

/** Where the last item of a list ends that is whole, before a comma or the bracket that closes the list. */
function lastItemEnd(text: string, from: number): { end: number; isClosed: boolean } {
  let [depth, end] = [0, from];
  const marks = /"[^"\\]*(?:\\[^][^"\\]*)*"|["[\]{},]/g;
  marks.lastIndex = from;
  for (let found = marks.exec(text); found; found = marks.exec(text)) {
    const [mark] = found;
    // A text that is not whole yet.
    if (mark === '"') break;
    if (mark === "[" || mark === "{") depth++;
    else if (mark === "]" || mark === "}") {
      if (depth === 0) return { end: found.index, isClosed: true };
      depth--;
    } else if (mark === "," && depth === 0) end = found.index;
  }
  return { end, isClosed: false };
}

const rowText = (names: readonly string[], row: readonly unknown[], between = ""): string =>
  `{${names.map((name, i) => `${between}${JSON.stringify(name)}:${between && " "}${exactJson(row[i])}`).join(",")}${between.slice(0, -2)}}`;

/** Rows as items of a JSON array, without its brackets. */
export const jsonItems = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  rows.map((row) => `  ${rowText(names, row, "\n    ")}`).join(",\n");

export const writeJson = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  rows.length === 0 ? "[]\n" : `[\n${jsonItems(names, rows)}\n]\n`;

export const writeNdjson = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  rows.map((row) => `${rowText(names, row)}\n`).join("");
