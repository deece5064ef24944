import { compile, sampleOf } from "indigo-quill";
import { type Dialect, isPure } from "indigo-quill/dialects";
import type { Cell, Connection, Outcome } from "../connection.ts";
import { type OwnOutcome, outcomeOf, sameOutcome } from "../probe.ts";
import { generator, rowFor } from "./generate.ts";
import { argued } from "./argued.ts";
import { random } from "./random.ts";
import { shrink } from "./shrink.ts";
import { styles } from "./styles/index.ts";

export type FuzzRow = Readonly<Record<string, Cell>>;

/** A case on which we and the engine do not agree, made as small as it gets. */
export interface Find {
  readonly expression: string;
  readonly row: FuzzRow;
  readonly ours: OwnOutcome;
  readonly theirs: Outcome;
  /** The engine's name and version. */
  readonly version: string;
}

export interface FuzzReport {
  readonly cases: number;
  /** Cases on which both gave the same value, and the same error. */
  readonly values: number;
  readonly errors: number;
  /** Cases that we say are not covered yet. */
  readonly notCovered: number;
  /** Cases that differ for a reason in the list of argued differences. */
  readonly argued: number;
  readonly finds: readonly Find[];
  /** For each function how many cases it had, and on how many of them no error came out. */
  readonly byFunction: ReadonlyMap<string, { readonly cases: number; readonly values: number }>;
  /** Every answer of a trait that a case used: `trait: answer`. */
  readonly answers: ReadonlySet<string>;
}

export interface FuzzOptions {
  readonly count: number;
  readonly seed: number;
  /** Finds after which it stops. */
  readonly most?: number;
}

const names = ["label", "remark", "n", "d", "gap"];

/** What we make of an expression on a row. */
function own(dialect: Dialect, expression: string, row: FuzzRow): { outcome: OwnOutcome; safe: boolean } {
  const sample = { ...sampleOf([row]), rows: 1 };
  const program = compile(dialect, expression, sample);
  const safe = !program.diagnostics.some((d) =>
    ["expected", "extra-text", "unclosed-quote", "unclosed-bracket", "unclosed-comment"].includes(d.code),
  );
  return { outcome: outcomeOf(dialect, program.run(sample)[0]), safe };
}

async function both(connection: Connection, dialect: Dialect, expression: string, row: FuzzRow): Promise<Find | undefined> {
  const { outcome, safe } = own(dialect, expression, row);
  if (!safe) return undefined;
  const columns = names.map((name) => ({
    name,
    type: name === "n" ? ("integer" as const) : name === "d" ? ("decimal" as const) : ("text" as const),
  }));
  const [theirs] = await connection.run({ expression, columns, rows: [names.map((name) => row[name])] });
  return { expression, row, ours: outcome, theirs, version: connection.version };
}

/** Generates expressions, each function of the table in turn, and compares what we give with the engine. */
export async function fuzz(
  connection: Connection,
  dialect: Dialect,
  { count, seed, most = 20 }: FuzzOptions,
): Promise<FuzzReport> {
  const next = random(seed);
  const make = generator(dialect, styles[dialect.id], seed + 1);
  const rows = dialect.rows.filter((row) => !styles[dialect.id].skip?.includes(row.name));
  const report = { cases: 0, values: 0, errors: 0, notCovered: 0, argued: 0, finds: [] as Find[] };
  const byFunction = new Map<string, { cases: number; values: number }>();
  const answers = new Set<string>();
  // Functions with many overloads get as many cases as those with one: names in turn, then rows of a name.
  const byName = [...new Set(rows.map((row) => row.name))].map((name) => rows.filter((row) => row.name === name));
  for (let i = 0; i < count && report.finds.length < most; i++) {
    const group = byName[i % byName.length];
    const row = group[Math.floor(i / byName.length) % group.length];
    const expression = make(row);
    const found = await both(connection, dialect, expression, rowFor(next));
    if (!found) continue;
    report.cases++;
    const tally = byFunction.get(row.name) ?? { cases: 0, values: 0 };
    byFunction.set(row.name, tally);
    tally.cases++;
    if (isPure(row)) for (const [trait, answer] of Object.entries(row.answers)) answers.add(`${trait}: ${answer}`);
    if (found.ours === undefined) {
      report.notCovered++;
      continue;
    }
    if (sameOutcome(found.ours, found.theirs)) {
      const isError = "error" in found.theirs;
      report[isError ? "errors" : "values"]++;
      if (!isError) tally.values++;
      continue;
    }
    const isArgued = (find: Find) => argued.some(({ holds }) => holds(dialect.id, find));
    const small = isArgued(found)
      ? found
      : await shrink(found, (smaller, row) => both(connection, dialect, smaller, row), dialect);
    if (isArgued(small)) report.argued++;
    else report.finds.push(small);
  }
  return { ...report, byFunction, answers };
}

/** An outcome in a line. */
export const outcomeText = (outcome: OwnOutcome): string =>
  outcome === undefined
    ? "not covered"
    : "error" in outcome
      ? `error ${outcome.error.code}: ${outcome.error.message.split("\n")[0]}`
      : JSON.stringify(outcome.value);

/** A find in a few lines: the expression, the cells that it reads, and both outcomes. */
export function findText({ expression, row, ours, theirs }: Find): string {
  const used = Object.fromEntries(Object.entries(row).filter(([name]) => expression.includes(name)));
  return `${expression}\n  row    ${JSON.stringify(used)}\n  engine ${outcomeText(theirs)}\n  ours   ${outcomeText(ours)}`;
}

export { argued } from "./argued.ts";
