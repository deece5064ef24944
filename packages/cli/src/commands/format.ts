import { format } from "indigo-quill/authoring";
import { dialectOf } from "../input.ts";
import { reportAll } from "../output/diagnostics.ts";
import { type Streams, exit } from "../streams.ts";

export interface FormatOptions {
  readonly in: string;
  readonly width: number;
  readonly option?: readonly string[];
}

/** Prints an expression laid out in lines; it reads back as the same tree. */
export async function formatCommand(expression: string, options: FormatOptions, streams: Streams): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  const formatted = format(dialect, expression, options.width);
  if (!formatted.ok) {
    reportAll(dialect.id, expression, formatted.diagnostics, streams);
    return exit.failed;
  }
  streams.stdout.write(`${formatted.text}\n`);
  const left = formatted.comments.map(({ start, end }) => expression.slice(start, end).trim());
  if (left.length > 0) streams.stderr.write(`left out: ${left.join(" ")}\n`);
  return exit.ok;
}
