import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { type ReadOptions, readJson, readTable } from "@indigo-quill/data";
import type { Dialect, Sample } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
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
      const reason = (error as NodeJS.ErrnoException).code === "ENOENT" ? "there is no such file" : (error as Error).message;
      throw new UsageError(`${path}: ${reason}`);
    }
  }
  const chunks: Uint8Array[] = [];
  for await (const chunk of streams.stdin) chunks.push(typeof chunk === "string" ? Buffer.from(chunk) : chunk);
  return Buffer.concat(chunks);
}

/** Reads a sample from a file, from standard input (`-`), or the demo register (`demo`). */
export async function readSample(path: string, options: ReadOptions, streams: Streams): Promise<Sample> {
  const { sample, warnings } =
    path === "demo" ? readJson(await demoFile("register.json")) : readTable(await readBytes(path, streams), options);
  for (const warning of warnings) streams.stderr.write(`${path}: ${warning}\n`);
  return sample;
}

/** A dialect by its id, with options given as `name=value`. */
export function dialectOf(id: string, settings: readonly string[] = []): Dialect {
  const make = dialects[id];
  if (!make) throw new UsageError(`there is no dialect "${id}"; use one of ${Object.keys(dialects).join(", ")}`);
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
