import { agree } from "../contrast/equal.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { message } from "../diagnostics/index.ts";
import { type Column, type Sample, compile } from "../evaluate/index.ts";
import { type Job, Unsaid, jobsSaid, trapTextsOf, treatment } from "../lists/index.ts";
import type { Value } from "../values/index.ts";
import { treated } from "./treated.ts";

const trapTexts = ["", " ", "a", "Ab c, d; e", " x  y ", "ß", "12", "-1.5", "2019-04-03", "%_\\'\"", "İÉ𝒜"];
const trapNumbers = [0, 1, -1, 2.5, 1000000, 3];

/** Rows in which every column goes through the classic traps and more texts, each at its own pace. */
export function trapRows({ columns }: Sample, more: readonly string[]): Sample {
  const texts = [...trapTexts, ...more];
  const rows = 3 * texts.length + 12;
  const isNumeric = ({ values }: Column) => values.every((value) => value === null || typeof value === "number");
  return {
    columns: columns.map((column, place) => {
      const pool: readonly Value[] = [null, ...(isNumeric(column) ? trapNumbers : texts)];
      return {
        name: column.name,
        values: Array.from({ length: rows }, (_, row) => pool[(row * (place + 1) + Math.floor(row / pool.length)) % pool.length]),
      };
    }),
    rows,
  };
}

/** What came of trying an expression: where it gives another value, or whether it gives an empty text, or false, for nothing. */
interface Trial {
  readonly apart?: string;
  readonly emptyForNothing: boolean;
}

/** Tries whether an expression gives the values that are wanted, on the sample and on rows of traps. */
export function tried(
  dialect: Dialect,
  expression: string,
  sample: Sample,
  wanted: (rows: Sample) => readonly Value[],
  more: readonly string[] = [],
): Trial {
  const program = compile(dialect, expression, sample);
  if (!program.ok) return { apart: `as one expression it is refused: ${expression}`, emptyForNothing: false };
  let emptyForNothing = false;
  for (const [rows, what] of [
    [sample, "row"],
    [trapRows(sample, more), "a row of traps,"],
  ] as const) {
    const values = program.run(rows);
    const expected = wanted(rows);
    const isEmptied = (row: number) => (values[row] === "" || values[row] === false) && expected[row] === null;
    const at = values.findIndex((value, row) => !agree(value, expected[row]) && !isEmptied(row));
    if (at >= 0)
      return { apart: `as one expression it gives something else on ${what} ${at + 1}: ${expression}`, emptyForNothing };
    emptyForNothing ||= values.some((_, row) => isEmptied(row));
  }
  return { emptyForNothing };
}

/** An expression, and whether it gives an empty text, or false, where there is nothing; or why there is none. */
export type Said = { readonly expression: string; readonly emptyForNothing: boolean } | { readonly refused: string };

/** The expression that does jobs with what a source gives; shown only where it gives the same on the sample and on rows of traps. */
export function saidJobs(dialect: Dialect, source: string, jobs: readonly Job[], sample: Sample): Said {
  try {
    const parsed = dialect.parse(jobsSaid(dialect, `(${source})`, jobs));
    const problem = parsed.diagnostics.find(({ severity }) => severity === "error");
    if (problem) return { refused: `as one expression it cannot be read: ${message(problem)}` };
    const expression = dialect.print(parsed.tree);
    const program = compile(dialect, source, sample);
    const made = treatment(jobs, (value) => dialect.plain(value));
    const wanted = (rows: Sample) => program.run(rows).map((value) => treated(dialect, made, value));
    const { apart, emptyForNothing } = tried(dialect, expression, sample, wanted, trapTextsOf(jobs));
    return apart === undefined ? { expression, emptyForNothing } : { refused: apart };
  } catch (error) {
    if (error instanceof Unsaid) return { refused: error.message };
    throw error;
  }
}
