import type { Value } from "indigo-quill";
import Papa from "papaparse";
import { DataError, type Table, placeOf, sampleFrom, usableNames } from "./table.ts";

export interface CsvOptions {
  /** What separates fields; found out from the first lines when left out. */
  readonly separator?: string;
  /** A field that is just this text is missing (null); none by default, so an empty field is empty text. */
  readonly missing?: string;
}

/**
 * Reads CSV (RFC 4180) with a header line. Every value is text.
 * @throws DataError for an unclosed or misplaced quote, and for a row of the wrong length
 */
export function readCsv(text: string, options: CsvOptions = {}): Table {
  if (text === "") throw new DataError("the file is empty; a line with column names is needed", 1, 1);
  let header: string[] | undefined;
  let warnings: string[] = [];
  const columns: Value[][] = [];
  let rows = 0;
  let rowStart = 0;
  let failure: DataError | undefined;
  Papa.parse<string[]>(text, {
    delimiter: options.separator ?? separatorOf(text),
    step({ data, errors, meta }, parser) {
      const [error] = errors.filter((e) => e.type === "Quotes");
      if (error) {
        const { line, column } = placeOf(text, quotePlace(text, rowStart, error.index ?? rowStart, error.code));
        failure = new DataError(
          error.code === "MissingQuotes"
            ? "the quote that opens here is not closed"
            : "a quote stands inside a quoted field; write it twice",
          line,
          column,
        );
      } else if (!header) {
        const usable = usableNames(data);
        header = usable.names;
        warnings = usable.warnings;
        for (const _ of header) columns.push([]);
      } else if (!(data.length === 1 && data[0] === "" && (header.length > 1 || meta.cursor >= text.length))) {
        if (data.length !== header.length) {
          const { line } = placeOf(text, rowStart);
          failure = new DataError(`this row has ${data.length} fields, the header has ${header.length}`, line, 1);
        } else {
          data.forEach((value, i) => columns[i].push(value === options.missing ? null : value));
          rows++;
        }
      }
      rowStart = meta.cursor;
      if (failure) parser.abort();
    },
  });
  if (failure) throw failure;
  return {
    sample: sampleFrom(
      header!.map((name, i) => ({ name, values: columns[i] })),
      rows,
    ),
    warnings,
  };
}

/** The separator that the header has most of; a comma when it has none. */
function separatorOf(text: string): string {
  const header = text
    .slice(0, 10_000)
    .split(/\r?\n/, 1)[0]
    .replace(/"[^"]*"/g, "");
  return [",", ";", "\t", "|"].reduce((best, mark) => (header.split(mark).length > header.split(best).length ? mark : best), ",");
}

/** Where the quote stands that a problem is about: the one that opens the field, or the one after which text goes on. */
function quotePlace(text: string, rowStart: number, index: number, code: string): number {
  if (code !== "MissingQuotes") return Math.max(rowStart, index);
  let open = -1;
  for (let at = text.indexOf('"', rowStart); at >= 0; at = text.indexOf('"', at + 1)) {
    if (open < 0) open = at;
    else if (text[at + 1] === '"') at++;
    else open = -1;
  }
  return open < 0 ? index : open;
}

/** Writes columns as CSV with a header line; null is an empty field, empty text is `""`. */
export function writeCsv(names: readonly string[], rows: readonly (readonly unknown[])[]): string {
  const shown = rows.map((row) =>
    row.map((value) => (typeof value === "object" && value !== null ? JSON.stringify(value) : value)),
  );
  return `${Papa.unparse([[...names], ...shown], { newline: "\n", quotes: (value: unknown) => value === "" })}\n`;
}
