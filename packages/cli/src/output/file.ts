import { createHash } from "node:crypto";
import { constants, createReadStream, unlinkSync } from "node:fs";
import { type FileHandle, copyFile, link, open, rename, stat, unlink } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { type Output, UsageError } from "../streams.ts";

/** Where a file is filled, with texts or bytes. */
export interface Filling extends Output {
  write(data: string | Uint8Array): unknown;
  once(event: "drain", listener: () => void): unknown;
}

/** How a file stands that is to be written: a new one, one that is replaced and kept, or one of our own that is only replaced. */
export type Place = "new" | "over" | "in place";

/** The digests of the file that was there and of the one that is written, and where the former is kept. */
export interface Passage {
  readonly was: string;
  readonly is: string;
  readonly kept: string;
}

/**
 * Writes a file as a whole or not at all: beside it first, to the disk, then under its name. One that is replaced is kept
 * under the next free number (`rows.csv.1`), and `note` is told before it is. Gives where it is kept.
 * @throws UsageError where it cannot be written, or is there and may not be
 */
export async function writeWhole(
  path: string,
  place: Place,
  write: (output: Filling) => Promise<void>,
  note?: (passage: Passage) => Promise<void>,
): Promise<string | undefined> {
  const isThere = await stat(path).then(
    (found) => {
      if (!found.isFile()) throw new UsageError(`${path}: this is no file`);
      return true;
    },
    () => false,
  );
  if (isThere && place === "new")
    throw new UsageError(`${path}: there is such a file already; --over ${path} replaces it and keeps the old one`);
  if (!isThere && place === "over") throw new UsageError(`${path}: there is no such file to replace; --to ${path} makes it`);
  const beside = join(dirname(path), `.${basename(path)}.${process.pid}.part`);
  const remove = () => {
    try {
      unlinkSync(beside);
    } catch {
      // It was not there yet, or is not any more.
    }
  };
  const interrupted = () => {
    remove();
    process.exit(130);
  };
  process.on("SIGINT", interrupted).on("SIGTERM", interrupted);
  try {
    const is = await filled(beside, write);
    const kept = place === "over" ? await keep(path) : undefined;
    if (kept !== undefined) await note?.({ was: await digestOf(path), is, kept: basename(kept) });
    if (isThere) await rename(beside, path);
    else {
      await link(beside, path);
      await unlink(beside);
    }
    return kept;
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (code === undefined) throw error;
    const reasons: Readonly<Record<string, string>> = {
      ENOSPC: "no space is left",
      EACCES: "this may not be written",
      EROFS: "this may not be written",
      ENOENT: "there is no such folder",
      EEXIST: "there is such a file already",
    };
    throw new UsageError(`${path}: ${reasons[code] ?? message}; nothing was changed`);
  } finally {
    process.off("SIGINT", interrupted).off("SIGTERM", interrupted);
    remove();
  }
}

/** The digest of a file's bytes. */
export async function digestOf(path: string): Promise<string> {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  return hash.digest("hex");
}

/** Fills a new file, to the disk; gives the digest of its bytes. */
async function filled(path: string, write: (output: Filling) => Promise<void>): Promise<string> {
  const file = await open(path, "wx");
  try {
    const turns = inTurns(file);
    await write(turns);
    await turns.done();
    await file.sync();
    return turns.digest();
  } finally {
    await file.close();
  }
}

/** A file as a stream that is full until what was written is there. */
function inTurns(file: FileHandle): Filling & { done(): Promise<void>; digest(): string } {
  let last: Promise<unknown> = Promise.resolve();
  let failure: Error | undefined;
  const hash = createHash("sha256");
  return {
    digest: () => hash.digest("hex"),
    write(data) {
      if (failure) throw failure;
      hash.update(data);
      last = last.then(() => file.writeFile(data)).catch((error: unknown) => (failure = error as Error));
      return false;
    },
    once(_event, listener) {
      void last.then(listener);
    },
    async done() {
      await last;
      if (failure) throw failure;
    },
  };
}

/** Gives a file a second name with the first number that is free. */
async function keep(path: string): Promise<string> {
  for (let number = 1; ; number++) {
    const kept = `${path}.${number}`;
    try {
      await link(path, kept).catch((error: unknown) => {
        if ((error as NodeJS.ErrnoException).code === "EEXIST") throw error;
        // Some file systems have no second names.
        return copyFile(path, kept, constants.COPYFILE_EXCL);
      });
      return kept;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
    }
  }
}
