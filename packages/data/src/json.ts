import { Decimal, Failure, type Value } from "indigo-quill";
import { exactNumber } from "indigo-quill/survey";
import { parse } from "lossless-json";
import { DataError, type Table, placeOf, sampleFrom, usableNames } from "./table.ts";

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

/** The values of the lines of NDJSON, with their line numbers (1-based); empty lines are skipped. */
export function* parseLines(text: string): Generator<{ value: unknown; line: number }> {
  let line = 0;
  for (const source of text.split(/\r?\n/)) {
    line++;
    if (source.trim() !== "") yield { value: parseJson(source, line), line };
  }
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value) && !(value instanceof Decimal);
}

/** A cell: a simple value, a list of cells, or an error as it is written here. */
function cellOf(value: unknown, where: string): Value {
  if (value === null || value === undefined) return null;
  if (Array.isArray(value)) return value.map((item) => cellOf(item, where));
  if (!isRecord(value)) return value as Value;
  const names = Object.keys(value);
  if (names.length === 1 && typeof value.error === "string")
    return new Failure("error-value", { kind: value.error }, undefined, value.error);
  throw new DataError(`${where} is an object; a cell is a text, a number, true, false, null, a list of these, or {"error": …}`);
}

/**
 * Reads rows from a JSON array of objects, or from NDJSON with an object a line. A name that a row
 * lacks is null there; the columns are in the order in which they first occur.
 * @throws DataError where it is not JSON, or a row is not an object of simple values
 */
export function readJson(text: string): Table {
  const isArray = /^\s*\[/.test(text);
  const rows = isArray
    ? (parseJson(text) as unknown[]).map((value, i) => ({ value, where: `row ${i + 1}` }))
    : [...parseLines(text)].map(({ value, line }) => ({ value, where: `line ${line}` }));
  const columns = new Map<string, Value[]>();
  let halves = 0;
  rows.forEach(({ value, where }, i) => {
    if (!isRecord(value)) throw new DataError(`${where} is not an object with the columns as names`);
    for (const [name, cell] of Object.entries(value)) {
      let values = columns.get(name);
      if (!values) columns.set(name, (values = new Array<Value>(rows.length).fill(null)));
      values[i] = cellOf(cell, `${where}, "${name}"`);
      if (typeof cell === "string" && !cell.isWellFormed()) halves++;
    }
  });
  const { names, warnings } = usableNames([...columns.keys()]);
  if (halves > 0)
    warnings.push(`${halves} ${halves === 1 ? "text holds" : "texts hold"} half a character, which no file can be given back`);
  const all = [...columns.values()];
  return {
    sample: sampleFrom(
      names.map((name, i) => ({ name, values: all[i] })),
      rows.length,
    ),
    warnings,
  };
}

/** A value as JSON; numbers of any size with all their digits. */
function jsonText(value: unknown): string {
  if (typeof value === "bigint" || value instanceof Decimal) return String(value);
  if (Array.isArray(value)) return `[${value.map(jsonText).join(",")}]`;
  return JSON.stringify(value ?? null);
}

const rowText = (names: readonly string[], row: readonly unknown[], between = ""): string =>
  `{${names.map((name, i) => `${between}${JSON.stringify(name)}:${between && " "}${jsonText(row[i])}`).join(",")}${between.slice(0, -2)}}`;

/** Rows as items of a JSON array, without its brackets. */
export const jsonItems = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  rows.map((row) => `  ${rowText(names, row, "\n    ")}`).join(",\n");

export const writeJson = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  rows.length === 0 ? "[]\n" : `[\n${jsonItems(names, rows)}\n]\n`;

export const writeNdjson = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  rows.map((row) => `${rowText(names, row)}\n`).join("");
