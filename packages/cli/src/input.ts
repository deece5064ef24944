import { createReadStream } from "node:fs";
import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { CsvReader, DataError, Decoder, type ReadOptions, type Table, formatOf, readJson, readTable } from "@indigo-quill/data";
import type { Dialect, Sample } from "indigo-quill";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { type Streams, UsageError } from "./streams.ts";

const require = createRequire(import.meta.url);

/** The text of one of the demo's files. */
export const demoFile = async (name: string): Promise<string> => readFile(require.resolve(`@indigo-quill/demo/${name}`), "utf8");

/** Reads a file, or standard input for `-`. */
export async function readBytes(path: string, streams: Streams): Promise<Uint8Array> {
  if (path !== "-") {
    try {
      return await readFile(path);
    } catch (error) {
      throw unreadable(path, error);
    }
  }
  const chunks: Uint8Array[] = [];
  for await (const chunk of streams.stdin) chunks.push(typeof chunk === "string" ? Buffer.from(chunk) : chunk);
  return Buffer.concat(chunks);
}

/** Reads a sample from a file, from standard input (`-`), or the demo register (`demo`). */
export async function readSample(path: string, options: ReadOptions, streams: Streams): Promise<Sample> {
  return named(path, async () => {
    const { sample, warnings } =
      path === "demo" ? readJson(await demoFile("register.json")) : readTable(await readBytes(path, streams), options);
    for (const warning of warnings) streams.stderr.write(`${path}: ${warning}\n`);
    return sample;
  });
}

/** Bytes that are read at a time. */
const pieceSize = 1 << 20;

/** A file's rows in pieces, as they are read; the last one may have none. What is no CSV is one piece. */
export async function* readPieces(path: string, options: ReadOptions, streams: Streams): AsyncGenerator<Sample> {
  if (path === "demo") {
    yield await readSample(path, options, streams);
    return;
  }
  const told = ({ sample, warnings }: Table): Sample => {
    for (const warning of warnings) streams.stderr.write(`${path}: ${warning}\n`);
    return sample;
  };
  const decoder = await named(path, () => new Decoder(options.encoding));
  let reader: CsvReader | undefined;
  let begun = "";
  for await (const bytes of bytesOf(path, streams)) {
    begun += await named(path, () => decoder.decode(bytes, false));
    if (!reader && (begun.trim() === "" || formatOf(begun) === "json")) continue;
    reader ??= await named(path, () => new CsvReader(options));
    const [piece, csv] = [begun, reader];
    begun = "";
    const sample = await named(path, () => told(csv.read(piece, false)));
    if (sample.rows > 0) yield sample;
  }
  begun += await named(path, () => decoder.decode(new Uint8Array(), true));
  yield await named(path, () =>
    told(reader || formatOf(begun) === "csv" ? (reader ?? new CsvReader(options)).read(begun, true) : readJson(begun)),
  );
}

async function* bytesOf(path: string, streams: Streams): AsyncGenerator<Uint8Array> {
  const source = path === "-" ? streams.stdin : createReadStream(path, { highWaterMark: pieceSize });
  try {
    for await (const chunk of source) yield typeof chunk === "string" ? Buffer.from(chunk) : chunk;
  } catch (error) {
    throw unreadable(path, error);
  }
}

const unreadable = (path: string, error: unknown): UsageError => {
  const { code, message } = error as NodeJS.ErrnoException;
  return new UsageError(
    `${path}: ${code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "this is a folder" : message}`,
  );
};

/** Runs what reads a file; what is wrong with it is said with its name. */
async function named<T>(path: string, read: () => T | Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    throw error instanceof DataError ? new UsageError(`${path}: ${error.message}`) : error;
  }
}

/** A dialect by its id, with options given as `name=value`. */
export async function dialectOf(id: string, settings: readonly string[] = []): Promise<Dialect> {
  const load = dialectLoaders[id];
  if (!load) throw new UsageError(`there is no dialect "${id}"; use one of ${Object.keys(dialectLoaders).join(", ")}`);
  const make = await load();
  const options = settings.map((setting): [string, string] => {
    const at = setting.indexOf("=");
    if (at < 1) throw new UsageError(`an option is written name=value, not "${setting}"`);
    return [setting.slice(0, at), setting.slice(at + 1)];
  });
  try {
    return make(Object.fromEntries(options));
  } catch (error) {
    throw error instanceof RangeError ? new UsageError(error.message) : error;
  }
}
