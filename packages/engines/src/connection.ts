/** The kinds of column that a probe makes, as the `verify` contract has them. */
export type ColumnType = "text" | "integer" | "decimal" | "double" | "boolean";

/** What a cell of a sample may be for an engine. */
export type Cell = string | number | boolean | null;

export interface Column {
  /** As the dialect writes it: quoted where it must be. */
  readonly name: string;
  readonly type: ColumnType;
}

/** One expression over rows. Only what our parser and binder accepted may stand here. */
export interface Query {
  readonly expression: string;
  readonly columns: readonly Column[];
  readonly rows: readonly (readonly Cell[])[];
}

/** What an engine gave for one row: a value in the form of the `verify` contract, or its error. */
export type Outcome = { readonly value: unknown } | { readonly error: { readonly code: string; readonly message: string } };

/** An open engine. */
export interface Connection {
  /** The engine's own name and version. */
  readonly version: string;
  /** The options of the dialect that this engine is like (its version, say). */
  readonly options: Readonly<Record<string, string>>;
  /** One outcome for each row; rejects only where the engine cannot be reached any more. */
  run(query: Query): Promise<Outcome[]>;
  close(): Promise<void>;
}

/** What an engine is told when it is opened. */
export interface Settings {
  /** Milliseconds that one expression may take. */
  readonly timeLimit: number;
  /** The options of the dialect that the engine has to be set to (a collation, say). */
  readonly options: Readonly<Record<string, string>>;
}

/**
 * The statement that evaluates an expression on one row of parameters. The expression stands on
 * lines of its own between brackets, so that a comment at its end closes nothing else. `source` is
 * the list of columns; `rest` keeps an engine from merging the row into the expression.
 */
export const statementFor = ({ expression }: Query, source: string, rest = ""): string =>
  source === ""
    ? `select (\n${expression}\n) as value`
    : `select (\n${expression}\n) as value from (select ${source}${rest}) as sample`;

/** A number of a result; those that JSON lacks by name. */
export function readNumber(text: string | number | bigint): number | string {
  const value = Number(text);
  if (Number.isFinite(value)) return value;
  return Number.isNaN(value) ? "NaN" : value > 0 ? "INF" : "-INF";
}

/** Runs each row by itself; what it throws is that row's error. */
export async function eachRow(query: Query, one: (row: readonly Cell[]) => unknown): Promise<Outcome[]> {
  const outcomes: Outcome[] = [];
  for (const row of query.rows) {
    try {
      outcomes.push({ value: await one(row) });
    } catch (error) {
      outcomes.push({ error: describeError(error) });
    }
  }
  return outcomes;
}

function describeError(error: unknown): { code: string; message: string } {
  const { code, sqlState, message } = error as { code?: string; sqlState?: string; message?: string };
  return { code: sqlState ?? code ?? "error", message: String(message ?? error) };
}
