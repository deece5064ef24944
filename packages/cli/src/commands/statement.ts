import type { ReadOptions } from "@indigo-quill/data";
import { compile } from "indigo-quill";
import { type StatementKind, nameTroubles, statementOf } from "indigo-quill/authoring";
import { dialectOf, readSample } from "../input.ts";
import { report } from "../output/diagnostics.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface StatementOptions extends ReadOptions {
  readonly in: string;
  readonly kind: StatementKind;
  readonly rows: string;
  readonly table: string;
  readonly name: string;
  readonly option?: readonly string[];
}

/** Prints a statement for a calculated column; warns where the engine will refuse it. */
export async function statementCommand(expression: string, options: StatementOptions, streams: Streams): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  if (!dialect.statements) throw new UsageError(`${dialect.title} has no statements; use an SQL dialect`);
  const sample = await readSample(options.rows, options, streams);
  const program = compile(dialect, expression, sample);
  if (!report(program, streams)) return exit.failed;
  const { text, refused } = statementOf(program, options.kind, { table: options.table, column: options.name });
  streams.stdout.write(`${text}\n`);
  const names = [...sample.columns.map(({ name }) => name), options.name];
  for (const trouble of nameTroubles(dialect, names)) streams.stderr.write(`${trouble}\n`);
  if (refused.length === 0) return exit.ok;
  streams.stderr.write(
    `${dialect.title} refuses this ${options.kind === "generated" ? "in a generated column, which must be immutable and of its row alone" : "as a column, which is of its row alone"}: ${refused.join(", ")}\n`,
  );
  return exit.some;
}
