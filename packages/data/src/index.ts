import { type CsvOptions, readCsv } from "./csv.ts";
import { readJson } from "./json.ts";
import { DataError, type Table } from "./table.ts";

export { type CsvOptions, readCsv, writeCsv } from "./csv.ts";
export { parseJson, parseLines, readJson, writeJson, writeNdjson } from "./json.ts";
export { DataError, type Table } from "./table.ts";

/** The encodings that are read. */
export const encodings = ["utf-8", "utf-16le", "utf-16be", "windows-1252", "iso-8859-15"] as const;

/** Windows-1252 from 0x80 to 0x9F: some hosts decode this range as ISO 8859-1. */
const upperPage = "€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ";

export interface ReadOptions extends CsvOptions {
  /** One of `encodings`; a byte order mark decides, then UTF-8. */
  readonly encoding?: string;
  /** `csv` or `json`; found out from the content when left out. */
  readonly format?: "csv" | "json" | undefined;
}

/**
 * Decodes bytes to text.
 * @throws DataError for an encoding that is not known, and for bytes that are not of it
 */
export function decode(bytes: Uint8Array, encoding?: string): string {
  const marked =
    bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : "utf-8";
  const name = (encoding ?? marked).toLowerCase();
  if (!(encodings as readonly string[]).includes(name))
    throw new DataError(`the encoding "${name}" is not known; use one of ${encodings.join(", ")}`);
  try {
    const text = new TextDecoder(name, { fatal: true }).decode(bytes);
    return name === "windows-1252" ? text.replace(/[\x80-\x9f]/g, (char) => upperPage[char.charCodeAt(0) - 0x80]) : text;
  } catch {
    throw new DataError(`the file is not ${name.toUpperCase()}; give its encoding, one of ${encodings.join(", ")}`);
  }
}

/** Reads a table from bytes. @throws DataError with the place of what is wrong */
export function readTable(bytes: Uint8Array, options: ReadOptions = {}): Table {
  const text = decode(bytes, options.encoding);
  const format = options.format ?? (/^\s*[[{]/.test(text.slice(0, 1000)) ? "json" : "csv");
  return format === "json" ? readJson(text) : readCsv(text, options);
}
