/** Where a command reads and writes; `process` is one. */
export interface Streams {
  readonly stdin: AsyncIterable<Uint8Array | string>;
  readonly stdout: Output;
  readonly stderr: Output;
  readonly env: Readonly<Record<string, string | undefined>>;
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
