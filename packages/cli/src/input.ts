import { createReadStream } from "node:fs";
import { open, readFile, stat } from "node:fs/promises";
import { createRequire } from "node:module";
import { DataError, type RandomAccess, type ReadOptions, type Table, readPieces as piecesOf, readJson } from "@indigo-quill/data";
import type { Column, Dialect, Sample, Value } from "indigo-quill";
import { KindReader, type TextKind, textKinds } from "indigo-quill/survey";
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

/** How a file of rows is read. */
export interface RowOptions extends ReadOptions {
  /** Kinds of columns of text, `name=kind`. */
  readonly types?: readonly string[];
  /** Whether all texts stay texts. */
  readonly text?: boolean;
}

/** Reads a sample from a file, from standard input (`-`), or the demo register (`demo`). */
export async function readSample(path: string, options: RowOptions, streams: Streams): Promise<Sample> {
  const pieces = readPieces(path, options, streams);
  const { value: first } = (await pieces.next()) as { value: Sample };
  return together(first, pieces);
}

/** All pieces as one sample; a column that a piece lacks is missing there. */
export async function together(first: Sample, others: AsyncGenerator<Sample>): Promise<Sample> {
  const pieces = [first];
  for await (const piece of others) pieces.push(piece);
  if (pieces.length === 1) return first;
  const { columns: widest } = pieces[pieces.length - 1];
  const joined = (i: number, cells: (column: Column) => readonly Value[]) =>
    pieces.flatMap(({ columns, rows }) => (columns[i] ? cells(columns[i]) : new Array<Value>(rows).fill(null)));
  const columns = widest.map(({ name, written }, i): Column => {
    const values = joined(i, (column) => column.values);
    return { name, values, ...(written && { written: joined(i, (column) => column.written ?? column.values) }) };
  });
  return { columns, rows: pieces.reduce((sum, { rows }) => sum + rows, 0) };
}

/** A file's rows in pieces, as they are read. */
export async function* readPieces(
  path: string,
  options: RowOptions,
  streams: Streams,
  kinds = kindReader(options),
): AsyncGenerator<Sample> {
  try {
    for await (const { sample, warnings, isText } of tablesOf(path, reading(options), streams)) {
      for (const warning of warnings) streams.stderr.write(`${path}: ${warning}\n`);
      yield isText ? withKinds(kinds, sample) : sample;
    }
  } catch (error) {
    throw inFile(path, error);
  }
}

/** The rows of several files as those of one; each has the columns of the first. */
export async function* readFiles(
  files: readonly string[],
  options: RowOptions,
  streams: Streams,
  kinds = kindReader(options),
): AsyncGenerator<Sample> {
  let names: readonly string[] | undefined;
  for (const file of files)
    for await (const piece of readPieces(file, options, streams, kinds)) {
      const own = piece.columns.map(({ name }) => name);
      names ??= own;
      const missing = names.find((name, i) => name !== own[i]) ?? (own.length > names.length ? own[names.length] : undefined);
      if (missing !== undefined && files.length > 1)
        throw new UsageError(
          `${file}: its columns are not those of ${files[0]}: ${own.join(", ")} here, ${names.join(", ")} there`,
        );
      yield piece;
    }
}

/** A file's rows in its own format, which its first bytes tell. */
async function* tablesOf(path: string, options: ReadOptions, streams: Streams): AsyncGenerator<Table> {
  if (path === "demo") {
    yield readJson(await demoFile("register.json"));
    return;
  }
  const bytes = bytesOf(path, streams);
  const { value: first = new Uint8Array() } = (await bytes.next()) as { value?: Uint8Array };
  const mark = String.fromCharCode(...first.subarray(0, 6));
  if (mark.startsWith("PAR1")) {
    const { readParquet } = await import("@indigo-quill/data/parquet");
    if (path === "-") yield* readParquet(await wholeOf(following(first, bytes)));
    else {
      await bytes.return(undefined);
      yield* unchanged(path, () => fromAnyPlace(path, readParquet));
    }
  } else if (mark === "ARROW1" || mark.startsWith("\xff\xff\xff\xff")) {
    const { readArrow } = await import("@indigo-quill/data/arrow");
    if (path === "-" || mark !== "ARROW1") yield* readArrow(following(first, bytes));
    else {
      await bytes.return(undefined);
      yield* unchanged(path, () => fromAnyPlace(path, readArrow));
    }
  } else yield* piecesOf(following(first, bytes), options);
}

/** One before others. */
export async function* following<T>(first: T, others: AsyncGenerator<T>): AsyncGenerator<T> {
  yield first;
  yield* others;
}

/** What is read from any place in a file. */
async function* fromAnyPlace<T>(path: string, read: (file: RandomAccess) => AsyncGenerator<T>): AsyncGenerator<T> {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    yield* read({
      byteLength: size,
      async slice(start, end = size) {
        const part = new Uint8Array(Math.max(0, end - start));
        await file.read(part, 0, part.length, start);
        return part.buffer;
      },
    });
  } finally {
    await file.close();
  }
}

/** Bytes that come one after another, all of them, as what is read from any place. */
async function wholeOf(bytes: AsyncIterable<Uint8Array>): Promise<RandomAccess> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of bytes) chunks.push(chunk);
  const whole = new Uint8Array(Buffer.concat(chunks));
  return { byteLength: whole.length, slice: (start, end = whole.length) => whole.slice(start, end).buffer };
}

const reading = ({ types: _, text: __, ...options }: RowOptions): ReadOptions => ({ ...options, format: undefined });

/** How a file is to be read, as far as that was said. */
export const said = ({ encoding, separator, missing }: { [K in "encoding" | "separator" | "missing"]: string | undefined }) => ({
  ...(encoding !== undefined && { encoding }),
  ...(separator !== undefined && { separator }),
  ...(missing !== undefined && { missing }),
});

/** Kinds as they are asked for: `name=kind`, or all texts. */
export function kindReader({ types = [], text }: RowOptions): KindReader {
  const asked = types.map((setting): [string, TextKind] => {
    const at = setting.lastIndexOf("=");
    const kind = textKinds.find((each) => each.replace(" value", "") === setting.slice(at + 1));
    if (at < 1 || !kind) throw new UsageError(`a kind is written name=text, number, truth or date, not "${setting}"`);
    return [setting.slice(0, at), kind];
  });
  return new KindReader(new Map(asked), text ? "text" : undefined);
}

function withKinds(kinds: KindReader, sample: Sample): Sample {
  const names = sample.columns.map(({ name }) => name);
  const unknown = [...kinds.asked.keys()].find((name) => !names.includes(name));
  if (unknown !== undefined)
    throw new DataError(`there is no column "${unknown}" to give a kind; the columns are ${names.join(", ")}`);
  return kinds.read(sample);
}

/** Bytes that are read at a time. */
const pieceSize = 1 << 18;

async function* bytesOf(path: string, streams: Streams): AsyncGenerator<Uint8Array> {
  const source = () => (path === "-" ? streams.stdin : createReadStream(path, { highWaterMark: pieceSize }));
  for await (const chunk of path === "-" ? source() : unchanged(path, source))
    yield typeof chunk === "string" ? Buffer.from(chunk) : (chunk as Uint8Array);
}

/** What is read of a file, which must be the same file at the end. */
async function* unchanged<T>(path: string, read: () => AsyncIterable<T>): AsyncGenerator<T> {
  const state = async () => {
    const found = await stat(path);
    return found.isFile() ? `${found.size} ${found.mtimeMs}` : "";
  };
  try {
    const before = await state();
    yield* read();
    if ((await state()) === before) return;
  } catch (error) {
    throw error instanceof DataError ? error : unreadable(path, error);
  }
  throw new UsageError(`${path}: it was changed while it was read; what was read of it is not whole`);
}

const unreadable = (path: string, error: unknown): UsageError => {
  const { code, message } = error as NodeJS.ErrnoException;
  return new UsageError(
    `${path}: ${code === "ENOENT" ? "there is no such file" : code === "EISDIR" ? "this is a folder" : message}`,
  );
};

/** What is wrong with a file is said with its name. */
const inFile = (path: string, error: unknown): unknown =>
  error instanceof DataError ? new UsageError(`${path}: ${error.message}`) : error;

/** Whether a dialect is named by a file that defines it. */
export const isDefinition = (id: string): boolean => /\.json$/i.test(id);

/** Whether there is such a dialect, or a file may define it. */
export const isDialect = (id: string): boolean => Object.hasOwn(dialectLoaders, id) || isDefinition(id);

/** The most problems of a definition that are told at once. */
const mostProblems = 20;

/** A dialect from a file that defines it; options are those of the dialect below. */
async function definedBy(path: string, options: Readonly<Record<string, string>>): Promise<Dialect> {
  const { defineDialect } = await import("indigo-quill/dialects/define");
  let json: unknown;
  try {
    json = JSON.parse(await readFile(path, "utf8"));
  } catch (error) {
    throw error instanceof SyntaxError ? new UsageError(`${path}: ${error.message}`) : unreadable(path, error);
  }
  const { dialect, problems } = defineDialect(json, options);
  if (dialect) return dialect;
  const told = problems
    .slice(0, mostProblems)
    .map(({ path: place, message }) => `${[path, place.join(".")].filter(Boolean).join(": ")}: ${message}`);
  const more = problems.length - told.length;
  throw new UsageError([...told, ...(more > 0 ? [`and ${more} more`] : [])].join("\n"));
}

/** A dialect by its id or the file that defines it, with options given as `name=value`. */
export async function dialectOf(id: string, settings: readonly string[] = []): Promise<Dialect> {
  const options = settings.map((setting): [string, string] => {
    const at = setting.indexOf("=");
    if (at < 1) throw new UsageError(`an option is written name=value, not "${setting}"`);
    return [setting.slice(0, at), setting.slice(at + 1)];
  });
  return dialectWith(id, Object.fromEntries(options));
}

/** A dialect by its id or the file that defines it, with options by their names. */
export async function dialectWith(id: string, options: Readonly<Record<string, string>>): Promise<Dialect> {
  if (isDefinition(id)) return definedBy(id, options);
  const load = dialectLoaders[id];
  if (!load)
    throw new UsageError(
      `there is no dialect "${id}"; use one of ${Object.keys(dialectLoaders).join(", ")}, or a .json file that defines one`,
    );
  const make = await load();
  try {
    return make(options);
  } catch (error) {
    throw error instanceof RangeError ? new UsageError(error.message) : error;
  }
}
