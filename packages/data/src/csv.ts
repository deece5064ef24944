import { Decimal, type Value } from "indigo-quill";
import Papa from "papaparse";
import { DataError, type Table, placeOf, sampleFrom, usableNames } from "./table.ts";
import { exactJson } from "indigo-quill/values";

export interface CsvOptions {
  /** What separates fields, one character; found out from the first lines when left out. */
  readonly separator?: string;
  /** A field that is just this text is missing (null); none by default, so an empty field is empty text. */
  readonly missing?: string;
  /** Take a row of another length than the header with a warning: what it lacks is missing, what it has more gets columns. */
  readonly ragged?: boolean;
}

/**
 * Reads CSV (RFC 4180) with a header line. Every value is text.
 * @throws DataError for an unclosed or misplaced quote, and for a row of the wrong length
 */
export function readCsv(text: string, options: CsvOptions = {}): Table {
  const reader = new CsvReader(options);
  return reader.read(text, true);
}

/** Rows of a ragged file that are told one by one. */
const toldRows = 5;

/**
 * Reads CSV in pieces: each gives the rows that are whole by then. Names are those of the header, so all pieces have the
 * same columns, unless a ragged row of a later piece has more.
 */
export class CsvReader {
  #names: string[] | undefined;
  #rest = "";
  /** Lines before what is left over. */
  #line = 0;
  #separator: string | undefined;
  #raggedRows = 0;

  constructor(readonly options: CsvOptions) {
    const { separator } = options;
    if (separator !== undefined && !/^[^"\r\n\ufeff]$/.test(separator))
      throw new DataError(`"${separator}" separates nothing; a separator is one character that is no quote and no line break`);
  }

  /** The rows that end within `text`, and all that are left where it is the last piece. */
  read(text: string, isLast: boolean): Table {
    const all = this.#rest + text;
    const end = isLast ? all.length : lastRowEnd(all);
    const whole = all.slice(0, end);
    this.#rest = all.slice(end);
    if (isLast && this.#names === undefined && whole.trim() === "")
      throw new DataError("the file is empty; a line with column names is needed", 1, 1);
    return this.#parse(whole, isLast);
  }

  #parse(given: string, isLast: boolean): Table {
    const blank = this.#names === undefined ? (/^(?:[ \t]*(?:\r\n?|\n))*/.exec(given)?.[0] ?? "") : "";
    const text = blank + unifiedLines(given.slice(blank.length));
    const from = blank.length;
    this.#separator ??= this.options.separator ?? separatorOf(text.slice(from));
    const warnings: string[] = [];
    const columns: Value[][] = (this.#names ?? []).map(() => []);
    let [rows, rowStart] = [0, from];
    let failure: DataError | undefined;
    const fail = (message: string, offset: number) => {
      const { line, column } = placeOf(text, offset);
      failure = new DataError(message, line + this.#line, column);
    };
    Papa.parse<string[]>(text.slice(from), {
      delimiter: this.#separator,
      newline: "\n",
      step: ({ data, errors, meta }, parser) => {
        const [error] = errors.filter((e) => e.type === "Quotes");
        const isAtEnd = meta.cursor + from >= text.length;
        const isBlank = data.length === 1 && data[0] === "" && ((this.#names?.length ?? 2) > 1 || isAtEnd);
        if (error)
          fail(
            error.code === "MissingQuotes"
              ? "the quote that opens here is not closed"
              : "a quote stands inside a quoted field; write it twice",
            quotePlace(text, rowStart, from + (error.index ?? 0), error.code),
          );
        else if (this.#names === undefined) {
          const usable = usableNames(data);
          this.#names = usable.names;
          warnings.push(...usable.warnings);
          for (const _ of this.#names) columns.push([]);
        } else if (!isBlank) {
          if (data.length !== this.#names.length && !this.options.ragged)
            fail(
              `this row has ${data.length} ${data.length === 1 ? "field" : "fields"}, the header has ${this.#names.length}; ragged rows can be asked for`,
              rowStart,
            );
          else {
            if (data.length !== this.#names.length) this.#fit(data, columns, rows, placeOf(text, rowStart).line, warnings);
            columns.forEach((column, i) => {
              const value = i < data.length ? data[i] : null;
              column.push(value === this.options.missing ? null : value);
            });
            rows++;
          }
        }
        rowStart = from + meta.cursor;
        if (failure) parser.abort();
      },
    });
    this.#line += countLines(text);
    if (failure) throw failure;
    if (isLast && this.#raggedRows > toldRows) warnings.push(`… and ${this.#raggedRows - toldRows} more rows of another length`);
    return {
      sample: sampleFrom(
        (this.#names ?? []).map((name, i) => ({ name, values: columns[i] })),
        rows,
      ),
      warnings,
      isText: true,
    };
  }

  /** Makes room for a row that is longer than the header, and says that a row is of another length. */
  #fit(data: readonly string[], columns: Value[][], rows: number, line: number, warnings: string[]): void {
    const names = this.#names!;
    if (++this.#raggedRows <= toldRows)
      warnings.push(`line ${line + this.#line}: this row has ${data.length} of ${names.length} fields`);
    while (names.length < data.length) {
      names.push(usableNames([...names, ""]).names[names.length]);
      columns.push(new Array<Value>(rows).fill(null));
    }
  }
}

/** Where the last row ends that is whole: the last line break outside quotes. */
function lastRowEnd(text: string): number {
  let end = 0;
  let isQuoted = false;
  for (let from = 0; from <= text.length;) {
    const quote = text.indexOf('"', from);
    const stop = quote < 0 ? text.length : quote;
    if (!isQuoted) {
      const last = text.lastIndexOf("\n", stop - 1);
      if (last >= from) end = last + 1;
    }
    if (quote < 0) break;
    isQuoted = !isQuoted;
    from = quote + 1;
  }
  return end;
}

/** Line breaks outside quotes as line feeds, whichever they are and however they are mixed. */
function unifiedLines(text: string): string {
  if (!text.includes("\r")) return text;
  return text
    .split('"')
    .map((part, i) => (i % 2 === 0 ? part.replace(/\r\n?/g, "\n") : part))
    .join('"');
}

function countLines(text: string): number {
  let count = 0;
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) count++;
  return count;
}

/** The separator that the header has most of; a comma when it has none. */
function separatorOf(text: string): string {
  const header = text
    .slice(0, 10_000)
    .split("\n", 1)[0]
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

export type Separator = "," | "\t";

/** What must stand between quotes: a separator, a quote, a line break, a mark of byte order, a space at the ends. */
const special: Readonly<Record<Separator, RegExp>> = { ",": /[",\r\n\ufeff]|^ | $/, "\t": /["\t\r\n\ufeff]|^ | $/ };

function csvCell(value: unknown, separator: Separator): string {
  if (value === null || value === undefined) return "";
  const isData = typeof value === "object" && !(value instanceof Decimal);
  const text = typeof value === "string" ? value : isData ? exactJson(value) : String(value);
  return text === "" || special[separator].test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** Rows as lines of CSV (RFC 4180), or with tabs between the fields; null is an empty field, empty text is `""`. */
export const csvLines = (rows: readonly (readonly unknown[])[], separator: Separator = ","): string =>
  rows.map((row) => `${row.map((value) => csvCell(value, separator)).join(separator)}\n`).join("");

/** Writes columns as CSV with a header line; null is an empty field, empty text is `""`. */
export const writeCsv = (names: readonly string[], rows: readonly (readonly unknown[])[]): string => csvLines([names, ...rows]);
