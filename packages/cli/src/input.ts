import { createReadStream } from "node:fs";
import { readFile, stat } from "node:fs/promises";
import { createRequire } from "node:module";
import { DataError, type ReadOptions, readPieces as piecesOf, readJson, readTable } from "@indigo-quill/data";
import type { Dialect, Sample } from "indigo-quill";
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
  const kinds = kindReader(options);
  try {
    const { sample, warnings, isText } =
      path === "demo" ? readJson(await demoFile("register.json")) : readTable(await readBytes(path, streams), reading(options));
    for (const warning of warnings) streams.stderr.write(`${path}: ${warning}\n`);
    return isText ? withKinds(kinds, sample) : sample;
  } catch (error) {
    throw inFile(path, error);
  }
}

/** A file's rows in pieces, as they are read. */
export async function* readPieces(
  path: string,
  options: RowOptions,
  streams: Streams,
  kinds = kindReader(options),
): AsyncGenerator<Sample> {
  if (path === "demo") {
    yield await readSample(path, options, streams);
    return;
  }
  try {
    for await (const { sample, warnings, isText } of piecesOf(bytesOf(path, streams), reading(options))) {
      for (const warning of warnings) streams.stderr.write(`${path}: ${warning}\n`);
      yield isText ? withKinds(kinds, sample) : sample;
    }
  } catch (error) {
    throw inFile(path, error);
  }
}

const reading = ({ types: _, text: __, ...options }: RowOptions): ReadOptions => ({ ...options, format: undefined });

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
const pieceSize = 1 << 20;

async function* bytesOf(path: string, streams: Streams): AsyncGenerator<Uint8Array> {
  const state = async () => {
    const found = path === "-" ? undefined : await stat(path);
    return found?.isFile() ? `${found.size} ${found.mtimeMs}` : "";
  };
  try {
    const before = await state();
    const source = path === "-" ? streams.stdin : createReadStream(path, { highWaterMark: pieceSize });
    for await (const chunk of source) yield typeof chunk === "string" ? Buffer.from(chunk) : chunk;
    if ((await state()) === before) return;
  } catch (error) {
    throw unreadable(path, error);
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

/** A dialect by its id, with options given as `name=value`. */
export async function dialectOf(id: string, settings: readonly string[] = []): Promise<Dialect> {
  const options = settings.map((setting): [string, string] => {
    const at = setting.indexOf("=");
    if (at < 1) throw new UsageError(`an option is written name=value, not "${setting}"`);
    return [setting.slice(0, at), setting.slice(at + 1)];
  });
  return dialectWith(id, Object.fromEntries(options));
}

/** A dialect by its id, with options by their names. */
export async function dialectWith(id: string, options: Readonly<Record<string, string>>): Promise<Dialect> {
  const load = dialectLoaders[id];
  if (!load) throw new UsageError(`there is no dialect "${id}"; use one of ${Object.keys(dialectLoaders).join(", ")}`);
  const make = await load();
  try {
    return make(options);
  } catch (error) {
    throw error instanceof RangeError ? new UsageError(error.message) : error;
  }
}
