import { CsvReader } from "./csv.ts";
import { Decoder } from "./encodings.ts";
import { type ReadOptions, formatOf } from "./index.ts";
import { JsonReader } from "./json.ts";
import { type Table, fitter } from "./table.ts";

/** Characters of JSON that are one piece: rows of a piece may bring columns that those before had not. */
const jsonPiece = 1 << 23;

/**
 * A file's rows in pieces, as its bytes come; the last piece may have no rows. All pieces have the columns of the first.
 * @throws DataError with the place of what is wrong, or where JSON brings a column that the first piece has not
 */
export async function* readPieces(bytes: AsyncIterable<Uint8Array>, options: ReadOptions = {}): AsyncGenerator<Table> {
  const decoder = new Decoder(options.encoding);
  let reader: CsvReader | JsonReader | undefined;
  const fit = fitter(`which the first ${jsonPiece >> 20} million characters have not; give it in the first row, as null`);
  let begun = "";
  const read = (isLast: boolean): Table => {
    reader ??= (options.format ?? formatOf(begun)) === "json" ? new JsonReader() : new CsvReader(options);
    const table = reader.read(begun, isLast);
    begun = "";
    return reader instanceof CsvReader ? table : fit(table);
  };
  for await (const some of bytes) {
    begun += decoder.decode(some, false);
    const isJson = reader instanceof JsonReader || (!reader && (options.format ?? formatOf(begun)) === "json");
    if ((!reader && begun.trim() === "") || (isJson && begun.length < jsonPiece)) continue;
    const piece = read(false);
    if (piece.sample.rows > 0) yield piece;
  }
  begun += decoder.decode(new Uint8Array(), true);
  yield read(true);
}
