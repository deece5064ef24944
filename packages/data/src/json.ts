import type { Value } from "indigo-quill";
import { DataError, type Table, placeOf, sampleFrom, usableNames } from "./table.ts";

/** Parses JSON, with the place of what is wrong. */
export function parseJson(text: string, firstLine = 1): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    const message = (error as Error).message;
    const position = /position (\d+)/.exec(message);
    const { line, column } = placeOf(text, position ? Number(position[1]) : text.length);
    throw new DataError(
      `this is not JSON: ${message.replace(/ in JSON at position.*$| \(line.*$/, "")}`,
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
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function cellOf(value: unknown, where: string): Value {
  if (
    value === null ||
    value === undefined ||
    typeof value === "string" ||
    typeof value === "number" ||
    typeof value === "boolean"
  )
    return value ?? null;
  throw new DataError(
    `${where} is ${Array.isArray(value) ? "a list" : "an object"}; a cell is a text, a number, true, false or null`,
  );
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
  rows.forEach(({ value, where }, i) => {
    if (!isRecord(value)) throw new DataError(`${where} is not an object with the columns as names`);
    for (const [name, cell] of Object.entries(value)) {
      let values = columns.get(name);
      if (!values) columns.set(name, (values = new Array<Value>(rows.length).fill(null)));
      values[i] = cellOf(cell, `${where}, "${name}"`);
    }
  });
  const { names, warnings } = usableNames([...columns.keys()]);
  const all = [...columns.values()];
  return {
    sample: sampleFrom(
      names.map((name, i) => ({ name, values: all[i] })),
      rows.length,
    ),
    warnings,
  };
}

export const writeJson = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  `${JSON.stringify(asObjects(names, rows), null, 2)}\n`;

export const writeNdjson = (names: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  asObjects(names, rows)
    .map((row) => `${JSON.stringify(row)}\n`)
    .join("");

const asObjects = (names: readonly string[], rows: readonly (readonly unknown[])[]) =>
  rows.map((row) => Object.fromEntries(names.map((name, i) => [name, row[i]])));
