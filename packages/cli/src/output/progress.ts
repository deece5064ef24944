import type { Streams } from "../streams.ts";

/** Milliseconds between two lines of progress. */
const pace = 2000;

/** Says on a terminal, from time to time, how many rows have been read. */
export function progress({ stderr }: Streams): (rows: number) => void {
  let last = Date.now();
  return (rows) => {
    if (!stderr.isTTY || Date.now() - last < pace) return;
    last = Date.now();
    stderr.write(`${rows} rows read\n`);
  };
}
