import { type CsvOptions, readCsv } from "./csv.ts";
import { readJson } from "./json.ts";
import { decode } from "./encodings.ts";
import type { Table } from "./table.ts";

export { type CsvOptions, CsvReader, csvLines, readCsv, writeCsv } from "./csv.ts";
export { JsonReader, jsonItems, parseJson, parseLines, readJson, writeJson, writeNdjson } from "./json.ts";
export { readPieces } from "./pieces.ts";
export { DataError, type RandomAccess, type Table } from "./table.ts";
export { Decoder, decode, encodingNames } from "./encodings.ts";

export interface ReadOptions extends CsvOptions {
  /** A name of an encoding; a byte order mark or zero bytes decide, then UTF-8. */
  readonly encoding?: string;
  /** `csv` or `json`; found out from the content when left out. */
  readonly format?: "csv" | "json" | undefined;
}

/** Reads a table from bytes. @throws DataError with the place of what is wrong */
export function readTable(bytes: Uint8Array, options: ReadOptions = {}): Table {
  const text = decode(bytes, options.encoding);
  const format = options.format ?? formatOf(text);
  return format === "json" ? readJson(text) : readCsv(text, options);
}

/** The format that a text begins like. */
export const formatOf = (text: string): "csv" | "json" => (/^\s*[[{]/.test(text.slice(0, 1000)) ? "json" : "csv");
