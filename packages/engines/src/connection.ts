import type { MessageCode } from "indigo-quill";

/** The kinds of column that a probe makes, as the `verify` contract has them. */
export type ColumnType = "text" | "integer" | "decimal" | "double" | "boolean";

/** What a cell of a sample may be for an engine. */
export type Cell = string | number | boolean | null;

export interface Column {
  /** As the dialect writes it: quoted where it must be. */
  readonly name: string;
  readonly type: ColumnType;
}

/**
 * One expression over rows. Only what a dialect printed from a tree that our parser and binder accepted
 * may stand here, never what somebody typed.
 */
export interface Query {
  readonly expression: string;
  readonly columns: readonly Column[];
  readonly rows: readonly (readonly Cell[])[];
  /**
   * Whether the rows are parameters of the statement (so unless said otherwise), or stand in a temporary
   * table: engines fold constants, and treat a parameter as one.
   */
  readonly over?: "parameters" | "stored";
  /** The rows that are asked for, 0-based; all unless said otherwise. */
  readonly at?: readonly number[];
}

/** What an engine gave for one row: a value in the form of the `verify` contract, or its error. */
export type Outcome = { readonly value: unknown } | { readonly error: EngineError };

export interface EngineError {
  readonly code: string;
  readonly message: string;
  /** Our own name for what went wrong, where the error is ours. */
  readonly kind?: MessageCode;
}

/** An open engine. */
export interface Connection {
  /** The engine's own name and version. */
  readonly version: string;
  /** The options of the dialect that this engine is like (its version, say). */
  readonly options: Readonly<Record<string, string>>;
  /**
   * One outcome for each row that is asked for, in that order; `told` hears of each as it comes.
   * @throws EngineLost where the engine cannot be reached any more
   */
  run(query: Query, told?: Told): Promise<Outcome[]>;
  close(): Promise<void>;
}

/** Is told the outcome of the query's row at this place in `at`, 0-based. */
export type Told = (place: number, outcome: Outcome) => void;

/** What an engine is told when it is opened. */
export interface Settings {
  /** Milliseconds that one row may take. */
  readonly timeLimit: number;
  /** Milliseconds that the rows of a query may take together. */
  readonly totalLimit: number;
  /** The options of the dialect that the engine has to be set to (a collation, say). */
  readonly options: Readonly<Record<string, string>>;
}

/** An engine that stopped answering. */
export class EngineLost extends Error {}

/** What an engine's package can do, as far as a connection needs it. */
export interface Driver {
  /** How the parameter at a place, 0-based, is written. */
  mark(place: number): string;
  /** The type of a column as a parameter is cast to it. */
  castType(column: Column, values: readonly Cell[]): string;
  /** The type of a column of a table; left out where it is the same. */
  storedType?(column: Column, values: readonly Cell[]): string;
  /** Takes the temporary table away where it is there, and never another of its name. */
  readonly drop: string;
  /** Keeps an engine from merging the row of parameters into the expression. */
  readonly rest?: string;
  /** Runs a statement of ours that may write to temporary tables; nothing of an expression stands in it. */
  define(statement: string, values?: readonly Cell[]): Promise<unknown>;
  /** The one value of a statement that may only read. */
  ask(statement: string, values: readonly Cell[]): unknown;
  /** Gives up a statement that goes on beyond its limit; the connection is lost. */
  abandon?(): void;
}

/** The temporary table of a sample. */
export const table = "iquill_sample";

/** Makes each call wait for those before it: a connection answers one query at a time. */
export function inTurn(run: Connection["run"]): Connection["run"] {
  let last: Promise<unknown> = Promise.resolve();
  return (query, told) => {
    const turn = last.then(() => run(query, told));
    last = turn.catch(() => undefined);
    return turn;
  };
}

/** Runs queries on a driver, row by row, so that a row that fails is that row's error. */
export function runnerOf(driver: Driver, { timeLimit, totalLimit }: Settings): Connection["run"] {
  let stored = "";

  /** Puts the rows into the temporary table, unless they stand there already. */
  async function store({ columns, rows }: Query): Promise<void> {
    const key = JSON.stringify([columns, rows]);
    if (key === stored) return;
    stored = "";
    await driver.define(driver.drop);
    const values = columns.map((_, i) => rows.map((row) => row[i]));
    const typeOf = (column: Column, own: readonly Cell[]) => driver.storedType?.(column, own) ?? driver.castType(column, own);
    const defined = columns.map((column, i) => `, ${column.name} ${typeOf(column, values[i])}`);
    await driver.define(`create temporary table ${table} (iquill_row integer${defined.join("")})`);
    const marks = columns.map((column, i) => `, cast(${driver.mark(i)} as ${driver.castType(column, values[i])})`);
    for (const [row, cells] of rows.entries())
      await driver.define(`insert into ${table} values (${row}${marks.join("")})`, cells);
    stored = key;
  }

  return inTurn(async (query, told) => {
    const { expression, columns, rows, over = "parameters" } = query;
    const at = query.at ?? rows.map((_, i) => i);
    const started = Date.now();
    if (over === "stored") await store(query);
    const source = columns.map((column, i) => {
      const values = rows.map((row) => row[i]);
      return `cast(${driver.mark(i)} as ${driver.castType(column, values)}) as ${column.name}`;
    });
    const from = columns.length === 0 ? "" : ` from (select ${source.join(", ")}${driver.rest ?? ""}) as sample`;
    const outcomes: Outcome[] = [];
    for (const [place, row] of at.entries()) {
      const ask = () =>
        over === "stored"
          ? driver.ask(`select (${expression}) as value from ${table} where iquill_row = ${row}`, [])
          : driver.ask(`select (${expression}) as value${from}`, rows[row]);
      const outcome =
        Date.now() - started > totalLimit ? spent(totalLimit) : await answered(ask, timeLimit, () => driver.abandon?.());
      outcomes.push(outcome);
      told?.(place, outcome);
    }
    return outcomes;
  });
}

/** What a row gives that there was no time left for. */
export const spent = (totalLimit: number): Outcome => ({
  error: { code: "time-limit", message: `the rows together took longer than ${totalLimit} ms` },
});

/** What a server gets beyond its own limit before it counts as lost. */
const grace = 2000;

async function answered(ask: () => unknown, timeLimit: number, abandon: () => void): Promise<Outcome> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      abandon();
      reject(new EngineLost(`it did not answer within ${timeLimit + grace} ms`));
    }, timeLimit + grace);
  });
  try {
    return { value: await Promise.race([ask(), late]) };
  } catch (error) {
    if (error instanceof EngineLost) throw error;
    return { error: describeError(error) };
  } finally {
    clearTimeout(timer);
  }
}

function describeError(error: unknown): { code: string; message: string } {
  const { code, sqlState, message } = error as { code?: string; sqlState?: string; message?: string };
  return { code: sqlState ?? code ?? "error", message: String(message ?? error) };
}

/** A number of a result; those that JSON lacks by name. */
export function readNumber(text: string | number | bigint): number | string {
  const value = Number(text);
  if (Number.isFinite(value)) return value;
  return Number.isNaN(value) ? "NaN" : value > 0 ? "INF" : "-INF";
}

/** The digits after the point that the numbers of a column are written with. */
export const scaleOf = (values: readonly Cell[]): number =>
  Math.max(0, ...values.map((value) => (/\.(\d+)$/.exec(String(value ?? 0))?.[1] ?? "").length));

/** Whether all integers of a column have room in 32 bits. */
export const isSmall = (values: readonly Cell[]): boolean => values.every((value) => Math.abs(Number(value ?? 0)) <= 2147483647);
