import { lifted } from "indigo-quill/folio";
import { type RowOptions, dialectOf, readSample } from "../input.ts";
import { reportAll } from "../output/diagnostics.ts";
import { type Guarded, exit } from "../streams.ts";
import { compile } from "indigo-quill";

export interface LiftOptions extends RowOptions {
  readonly in: string;
  readonly rows: string;
  readonly name: string;
  readonly option?: readonly string[];
}

/** Prints columns that give together what one expression gives, helpers first, as --column and a folio take them. */
export async function liftCommand(expression: string, options: LiftOptions, streams: Guarded): Promise<number> {
  const { in: id, rows, name, option, ...reading } = options;
  const dialect = await dialectOf(id, option);
  const sample = await readSample(rows, reading, streams);
  const program = compile(dialect, expression, sample);
  if (!program.ok) {
    reportAll(dialect.id, expression, program.diagnostics, streams);
    return exit.failed;
  }
  const result = lifted(dialect, name, expression, sample);
  if ("refused" in result) {
    streams.stderr.write(`${result.refused}\n`);
    return exit.some;
  }
  for (const column of result.columns) streams.stdout.write(`${column.names[0]} = ${column.expression}\n`);
  return exit.ok;
}
