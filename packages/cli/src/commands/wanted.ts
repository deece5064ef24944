import type { ReadOptions } from "@indigo-quill/data";
import type { Dialect, Sample } from "indigo-quill";
import { type Wanted, expressionsFor } from "indigo-quill/authoring";
import { showValue } from "indigo-quill/contrast";
import { dialectOf, readSample } from "../input.ts";
import { type Style, styleFor } from "../output/style.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface WantedOptions extends ReadOptions {
  readonly in: string;
  readonly rows: string;
  readonly option?: readonly string[];
  readonly most?: number;
  readonly json?: boolean;
}

/** Rows of which it is told what each expression gives. */
const rowsTold = 3;

/** Finds expressions that give what is wanted on some rows: `1=Lindqvist`. */
export async function wantedCommand(examples: readonly string[], options: WantedOptions, streams: Streams): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  const sample = await readSample(options.rows, options, streams);
  const wanted = wantedBy(examples, sample);
  const found = expressionsFor(dialect, sample, wanted, options.most);
  if (found.candidates.length === 0) {
    streams.stderr.write(
      "no expression that was tried gives this: parts of the columns, cut by marks or places, in other letters, joined with each other and with texts; another example may have a slip, or part of the job can be done first\n",
    );
    return exit.some;
  }
  streams.stdout.write(options.json ? jsonOf(found, dialect) : textOf(found, sample, wanted, styleFor(streams)));
  return exit.ok;
}

/** What is wanted by row, 0-based. */
function wantedBy(examples: readonly string[], sample: Sample): Map<number, string> {
  const wanted = new Map<number, string>();
  for (const example of examples) {
    const [, row, value] = /^(\d+)=([^]*)$/.exec(example) ?? [];
    if (row === undefined) throw new UsageError(`"${example}" is no example; one is ROW=VALUE, such as 1=Lindqvist`);
    const at = Number(row) - 1;
    if (!(at >= 0 && at < sample.rows)) throw new UsageError(`there is no row ${row}; the rows are 1 to ${sample.rows}`);
    if (wanted.has(at) && wanted.get(at) !== value)
      throw new UsageError(`row ${row} is wanted as "${wanted.get(at)}" and as "${value}"; it can be one only`);
    wanted.set(at, value);
  }
  return wanted;
}

function textOf({ candidates, telling }: Wanted, sample: Sample, wanted: ReadonlyMap<number, string>, { colour }: Style): string {
  const others = Array.from({ length: sample.rows }, (_, row) => row).filter((row) => !wanted.has(row));
  const told = [...telling, ...others.filter((row) => !telling.includes(row))].slice(0, rowsTold);
  const lines = candidates.map(({ expression, values }) => {
    const shown = told.map((row) => `row ${row + 1} ${showValue(values[row])}`).join(", ");
    return `${colour.bold(expression)}\n${shown === "" ? "" : `  ${shown}\n`}`;
  });
  const ask =
    candidates.length > 1 && telling.length > 0
      ? `\nThey differ on ${telling.length} of ${sample.rows} rows; what is wanted on row ${telling[0] + 1} tells most.\n`
      : "";
  return lines.join("") + ask;
}

const jsonOf = ({ candidates, telling }: Wanted, dialect: Dialect): string =>
  [
    ...candidates.map(({ expression, values }) => ({ expression, values: values.map((value) => dialect.plain(value)) })),
    { telling: telling.map((row) => row + 1) },
  ]
    .map((line) => `${JSON.stringify(line)}\n`)
    .join("");
