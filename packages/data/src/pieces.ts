import { CsvReader } from "./csv.ts";
import { Decoder } from "./encodings.ts";
import { type ReadOptions, formatOf } from "./index.ts";
import { readJson } from "./json.ts";
import type { Table } from "./table.ts";

/**
 * A file's rows in pieces, as its bytes come. What is no CSV is one piece; the last piece may have no rows.
 * @throws DataError with the place of what is wrong
 */
export async function* readPieces(bytes: AsyncIterable<Uint8Array>, options: ReadOptions = {}): AsyncGenerator<Table> {
  const decoder = new Decoder(options.encoding);
  const isJson = () => (options.format ?? formatOf(begun)) === "json";
  let reader: CsvReader | undefined;
  let begun = "";
  for await (const some of bytes) {
    begun += decoder.decode(some, false);
    if (!reader && (begun.trim() === "" || isJson())) continue;
    reader ??= new CsvReader(options);
    const piece = reader.read(begun, false);
    begun = "";
    if (piece.sample.rows > 0) yield piece;
  }
  begun += decoder.decode(new Uint8Array(), true);
  yield !reader && isJson() ? readJson(begun) : (reader ?? new CsvReader(options)).read(begun, true);
}
