import type { Sample } from "indigo-quill";
import { type RowOptions, dialectOf, kindReader, readFiles, said } from "../input.ts";
import type { Guarded } from "../streams.ts";
import { type OutputOptions, apply } from "./apply.ts";
import { type ColumnOptions, columnsWanted, jobsWanted } from "./columns.ts";

export interface EvalOptions extends Omit<RowOptions, "format">, ColumnOptions, OutputOptions {
  readonly in: string;
  readonly rows?: readonly string[];
  readonly where?: string;
  readonly only?: string;
  readonly unfold?: string;
  readonly option?: readonly string[];
}

/** A sample of one row without columns, for expressions that need none. */
const noColumns: Sample = { columns: [], rows: 1 };

/** Evaluates expressions on every row, and writes the rows as they are read. */
export async function evaluate(expression: string | undefined, options: EvalOptions, streams: Guarded): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  const { rows, format: _, where, only, unfold, ...reading } = options;
  const kinds = kindReader(reading);
  const pieces = rows === undefined ? once(noColumns) : readFiles(rows, reading, streams, kinds);
  const jobs = await jobsWanted(options.then ?? [], streams);
  const columns = (first: Sample) => columnsWanted(dialect, expression, options, first, jobs);
  const isRagged = options.ragged === true;
  const { chosen } = dialect;
  const { encoding, separator, missing } = reading;
  return apply(
    {
      dialect,
      pieces,
      kinds,
      columns,
      plan: { where, only, unfold },
      options: chosen,
      reading: said({ encoding, separator, missing }),
      isRagged,
    },
    options,
    streams,
  );
}

async function* once(sample: Sample): AsyncGenerator<Sample> {
  yield await Promise.resolve(sample);
}
