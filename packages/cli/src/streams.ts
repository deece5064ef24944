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

interface Output {
  write(text: string): unknown;
  readonly isTTY?: boolean;
  readonly columns?: number;
}

/** What a command ends with: all held, some did not, could not run. */
export const exit = { ok: 0, some: 1, failed: 2 } as const;

/** A mistake in what was asked; it is printed, and the exit code is 2. */
export class UsageError extends Error {}

/** The streams of this process; where somebody types, a password can be asked for. */
export const ofProcess = (): Streams => ({
  stdin: process.stdin,
  stdout: process.stdout,
  stderr: process.stderr,
  env: process.env,
  ...(process.stdin.isTTY && { askHidden }),
});

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
