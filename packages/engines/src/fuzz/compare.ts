import { compile, sampleOf } from "indigo-quill";
import type { Dialect } from "indigo-quill/dialects";
import { limitCodes } from "indigo-quill/values";
import type { Cell, Column, Connection, Outcome, Query } from "../connection.ts";
import { type OwnOutcome, outcomeOf } from "../probe.ts";
import { argued } from "./argued.ts";

export type FuzzRow = Readonly<Record<string, Cell>>;

/** A case on which we and the engine do not agree, made as small as it gets. */
export interface Find {
  readonly dialect: string;
  readonly expression: string;
  readonly row: FuzzRow;
  readonly over: NonNullable<Query["over"]>;
  readonly ours: OwnOutcome;
  readonly theirs: Outcome;
  /** The engine's name and version. */
  readonly version: string;
}

const columns: readonly Column[] = [
  { name: "label", type: "text" },
  { name: "remark", type: "text" },
  { name: "n", type: "integer" },
  { name: "d", type: "decimal" },
  { name: "gap", type: "text" },
];

/** Compares expressions with an engine, over rows of a table or as parameters. */
export class Comparison {
  constructor(
    public connection: Connection,
    readonly dialect: Dialect,
  ) {}

  /** Both outcomes on one of the rows; a text that says why an expression was not sent. */
  async both(expression: string, rows: readonly FuzzRow[], at: number, over: Find["over"]): Promise<Find | string> {
    const { dialect, connection } = this;
    const sample = sampleOf(rows);
    const program = compile(dialect, expression, sample);
    const unread = dialect.parse(expression).diagnostics.find(({ severity }) => severity === "error");
    if (unread) return unread.code === "not-covered" ? `not covered: ${String(unread.facts.what)}` : unread.code;
    const cells = rows.map((row) => columns.map(({ name }) => row[name]));
    const printed = dialect.print(program.tree);
    const [theirs] = await connection.run({ expression: printed, columns, rows: cells, over, at: [at] });
    return {
      dialect: dialect.id,
      expression,
      row: rows[at],
      over,
      ours: outcomeOf(dialect, program.runRow(sample, at)),
      theirs,
      version: connection.version,
    };
  }
}

/** Whether a limit of ours ended the evaluation, which an engine may have elsewhere. */
export const isLimit = (outcome: Outcome): boolean =>
  "error" in outcome && outcome.error.kind !== undefined && limitCodes.has(outcome.error.kind);

/** The argued difference that a find is, if it is one. */
export const isArgued = (find: Find) => argued.find(({ holds }) => holds(find));
