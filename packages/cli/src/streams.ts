import { createInterface } from "node:readline";
import { Writable } from "node:stream";

/** Where a command reads and writes; `process` is one. */
export interface Streams {
  readonly stdin: AsyncIterable<Uint8Array | string>;
  readonly stdout: Output;
  readonly stderr: Output;
  readonly env: Readonly<Record<string, string | undefined>>;
  /** Asks for a line that is not shown while it is typed; left out where nobody can be asked. */
  readonly askHidden?: ((question: string) => Promise<string>) | undefined;
}

/** Where text is written; a stream that is full says `false`, and `drain` when it has room again. */
export interface Output {
  write(data: string | Uint8Array): unknown;
  once?(event: "drain", listener: () => void): unknown;
  readonly isTTY?: boolean;
  readonly columns?: number;
}

/** What a command ends with: all held, some did not, could not run. */
export const exit = { ok: 0, some: 1, failed: 2 } as const;

/** A mistake in what was asked; it is printed, and the exit code is 2. */
export class UsageError extends Error {}

/** The size of a piece of output, in UTF-16 units. */
const pieceSize = 1 << 16;

/** Writes texts or bytes as they come, in pieces, and waits where the stream is full. */
export async function writeAll(output: Output, parts: AsyncIterable<string | Uint8Array>): Promise<void> {
  let piece = "";
  const write = async (data: string | Uint8Array) => {
    if (output.write(data) === false && output.once) await new Promise<void>((resolve) => output.once!("drain", resolve));
  };
  const flush = async () => {
    const text = piece;
    piece = "";
    await write(text);
  };
  for await (const part of parts) {
    if (typeof part !== "string") {
      if (part.length > 0) await write(part);
      continue;
    }
    piece += part;
    if (piece.length >= pieceSize) await flush();
  }
  if (piece !== "") await flush();
}

/** Control characters and marks of direction, but for line breaks and tabs. */
const control = /[\0-\x08\x0b-\x1f\x7f-\x9f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g;
const colour = /\x1b\[\d{1,2}m/y;

/** A text as a terminal may have it: control characters by their number; colours only where they are ours. */
export function shownText(text: string, hasColours: boolean): string {
  return text.replace(control, (char, at: number) => {
    colour.lastIndex = at;
    if (char === "\x1b" && hasColours && colour.test(text)) return char;
    return `‹${char.charCodeAt(0).toString(16).toUpperCase().padStart(4, "0")}›`;
  });
}

export interface Guarded extends Streams {
  /** Where rows go as data, which no terminal is meant to show. */
  readonly data: Output;
}

/** Streams on which nothing that stands in a name, an expression, or a message reaches the terminal raw. */
export function guarded(streams: Streams): Guarded {
  const shown = (output: Output): Output => ({
    ...(output.isTTY !== undefined && { isTTY: output.isTTY }),
    ...(output.columns !== undefined && { columns: output.columns }),
    ...(output.once && { once: (event, listener) => output.once!(event, listener) }),
    write: (data) => output.write(typeof data === "string" ? shownText(data, output.isTTY === true) : data),
  });
  return { ...streams, stdout: shown(streams.stdout), stderr: shown(streams.stderr), data: streams.stdout };
}

/** The streams of this process; where somebody types, a password can be asked for. A reader that goes away ends it, a full disk is told. */
export function ofProcess(): Streams {
  for (const stream of [process.stdout, process.stderr])
    stream.on("error", (error: NodeJS.ErrnoException) => {
      if (error.code === "EPIPE") process.exit(exit.ok);
      process.stderr.write(
        `iquill: the output could not be written: ${error.code === "ENOSPC" ? "no space is left" : error.message}\n`,
      );
      process.exit(exit.failed);
    });
  return {
    stdin: process.stdin,
    stdout: process.stdout,
    stderr: process.stderr,
    env: process.env,
    ...(process.stdin.isTTY && { askHidden }),
  };
}

function askHidden(question: string): Promise<string> {
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const reader = createInterface({ input: process.stdin, output: silent, terminal: true });
  process.stderr.write(question);
  return new Promise((resolve) =>
    reader.question("", (answer) => {
      reader.close();
      process.stderr.write("\n");
      resolve(answer);
    }),
  );
}
