import { Failure, type Program, type Sample, type Value, columnsUsed, compile, message } from "indigo-quill";
import { sameNumber } from "indigo-quill/contrast";
import type { Dialect } from "indigo-quill/dialects";
import { type Cell, type Column, type ColumnType, type Connection, EngineLost, type Outcome } from "./connection.ts";

/** What we make of one row; undefined where it is not covered yet. */
export type OwnOutcome = Outcome | undefined;

/** One row on both sides. */
export interface ProbeRow {
  /** 0-based. */
  readonly row: number;
  readonly ours: OwnOutcome;
  /** With the row as parameters of the statement. */
  readonly theirs: Outcome;
  /** With the row in a table; left out where the engine let us make none. */
  readonly stored?: Outcome;
  /** Whether all are the same. */
  readonly agree: boolean;
}

export interface Probe {
  readonly program: Program;
  /** The engine's name and version. */
  readonly version: string;
  readonly rows: readonly ProbeRow[];
  /** Why nothing was asked over stored rows, where it was not. */
  readonly unstored?: string;
}

/** A failure's code and message, or the plain value; undefined for what is not covered. */
export function outcomeOf(dialect: Dialect, value: Value): OwnOutcome {
  if (!(value instanceof Failure)) return { value: dialect.plain(value) };
  return value.code === "not-covered"
    ? undefined
    : { error: { code: value.standard ?? value.code, kind: value.code, message: message(value) } };
}

/**
 * Whether two outcomes are the same: errors whatever they say, numbers by value (relative tolerance
 * 1e-12), a truth value like 1 or 0, lists item by item, everything else exactly.
 */
export function sameOutcome(a: OwnOutcome, b: Outcome): boolean {
  if (a === undefined) return false;
  if ("error" in a || "error" in b) return "error" in a && "error" in b;
  return samePlain(a.value, b.value);
}

function samePlain(a: unknown, b: unknown): boolean {
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, i) => samePlain(item, b[i]));
  if (typeof a === "boolean" && typeof b === "number") return Number(a) === b;
  return typeof a === "number" && typeof b === "number" ? sameNumber(a, b) : a === b;
}

/** The type of a column by its values, as the `verify` contract has it; `fraction` is what a number with one is. */
function columnType(values: readonly Value[], fraction: "decimal" | "double"): ColumnType {
  const present = values.filter((value) => value !== null);
  if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
  if (present.every((value) => typeof value === "boolean")) return "boolean";
  return present.every((value) => Number.isInteger(value)) ? "integer" : fraction;
}

/** The columns of a sample that a program reads, as an engine needs them. */
function columnsFor(program: Program, sample: Sample): { columns: Column[]; rows: Cell[][] } {
  const { dialect } = program;
  const used = sample.columns.filter((_, i) => columnsUsed(program).has(i));
  const columns = used.map(({ name, values }) => ({ name: dialect.columnText(name), type: columnType(values, "decimal") }));
  const rows = Array.from({ length: sample.rows }, (_, row) =>
    used.map(({ values }, i): Cell => {
      const value = values[row] as Cell;
      return columns[i].type === "text" && value !== null ? String(value) : value;
    }),
  );
  return { columns, rows };
}

/**
 * Runs an expression with the rows of a sample on a live engine, and on ours. A program that is not
 * `ok` never reaches the engine: its rows are our error against nothing.
 */
export async function probe(connection: Connection, dialect: Dialect, expression: string, sample: Sample): Promise<Probe> {
  const program = compile(dialect, expression, sample);
  const { version } = connection;
  if (!program.ok) return { program, version, rows: [] };
  const query = { expression: dialect.print(program.tree), ...columnsFor(program, sample) };
  const theirs = await connection.run(query);
  const stored = await connection.run({ ...query, over: "stored" }).catch((error: unknown) => {
    if (error instanceof EngineLost) throw error;
    return (error as Error).message.split("\n")[0];
  });
  const rows = program.run(sample).map((value, row): ProbeRow => {
    const own = outcomeOf(dialect, value);
    const asked = typeof stored === "string" ? [theirs[row]] : [theirs[row], stored[row]];
    const agree = asked.every((outcome) => sameOutcome(own, outcome));
    return { row, ours: own, theirs: asked[0], ...(asked[1] && { stored: asked[1] }), agree };
  });
  return { program, version, rows, ...(typeof stored === "string" && { unstored: stored }) };
}
