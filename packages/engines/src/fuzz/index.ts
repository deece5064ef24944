import { type Value, compile, isFailure, message, sampleOf } from "indigo-quill";
import { type Dialect, isPure } from "indigo-quill/dialects";
import { sameTree } from "indigo-quill/syntax";
import { type Connection, EngineLost } from "../connection.ts";
import { type OwnOutcome, sameOutcome } from "../probe.ts";
import { Comparison, type Find, type FuzzRow, isArgued, isLimit } from "./compare.ts";
import { generator, rowFor } from "./generate.ts";
import { stepsAgain } from "./again.ts";
import { random } from "./random.ts";
import { sameClass } from "./error-class.ts";
import { shrink } from "./shrink.ts";
import { styles } from "./styles/index.ts";

export interface FuzzReport {
  readonly cases: number;
  /** Cases on which both gave the same value. */
  readonly values: number;
  /** Cases on which both gave an error, and those of them whose errors are of one class. */
  readonly errors: number;
  readonly errorsOfOneClass: number;
  /** Cases that we say are not covered yet, and expressions that were not sent since we do not read them: how many for each reason. */
  readonly notCovered: ReadonlyMap<string, number>;
  readonly unread: ReadonlyMap<string, number>;
  /** How many cases differ for each reason in the list of argued differences. */
  readonly argued: ReadonlyMap<string, number>;
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
  /** Opens the engine again where an expression made it stop answering; without it, that ends the comparison. */
  readonly reopen?: () => Promise<Connection>;
}

/** Rows that stand in one table while they last. */
const tableSize = 40;

const count = (counts: Map<string, number>, key: string): void => void counts.set(key, (counts.get(key) ?? 0) + 1);

/** Generates expressions, each function of the table in turn, and compares what we give with the engine. */
export async function fuzz(
  connection: Connection,
  dialect: Dialect,
  { count: wanted, seed, most = 20, reopen }: FuzzOptions,
): Promise<FuzzReport> {
  const next = random(seed);
  const make = generator(dialect, styles[dialect.id], seed + 1);
  const tableRows = dialect.rows.filter((row) => !styles[dialect.id].skip?.includes(row.name));
  const comparison = new Comparison(connection, dialect);
  const report = { cases: 0, values: 0, errors: 0, errorsOfOneClass: 0, finds: [] as Find[] };
  const [notCovered, unread, arguedFor] = [new Map<string, number>(), new Map<string, number>(), new Map<string, number>()];
  const byFunction = new Map<string, { cases: number; values: number }>();
  const answers = new Set<string>();
  // Functions with many overloads get as many cases as those with one: names in turn, then rows of a name.
  const byName = [...new Set(tableRows.map((row) => row.name))].map((name) => tableRows.filter((row) => row.name === name));
  /** Both outcomes; an engine that is lost is opened again, and the expression counts as not sent. */
  const attempt: Comparison["both"] = (expression, ...where) =>
    comparison.both(expression, ...where).catch(async (error: unknown) => {
      if (!(error instanceof EngineLost)) throw error;
      if (!reopen) throw new EngineLost(`${error.message}: ${expression}`);
      comparison.connection = await reopen();
      return "the engine stopped answering";
    });
  let rows: FuzzRow[] = [];
  for (let i = 0; i < wanted && report.finds.length < most; i++) {
    if (i % 5000 === 0) rows = Array.from({ length: tableSize }, () => ({ ...rowFor(next) }));
    const group = byName[i % byName.length];
    const row = group[Math.floor(i / byName.length) % group.length];
    const over = i % 2 === 0 ? "stored" : "parameters";
    const expression = make(row);
    const found = await attempt(expression, rows, Math.floor(next() * tableSize), over);
    if (typeof found === "string") {
      count(unread, found);
      continue;
    }
    report.cases++;
    const tally = byFunction.get(row.name) ?? { cases: 0, values: 0 };
    byFunction.set(row.name, tally);
    tally.cases++;
    if (isPure(row)) for (const [trait, answer] of Object.entries(row.answers)) answers.add(`${trait}: ${answer}`);
    if (found.ours === undefined || isLimit(found.ours)) {
      count(notCovered, found.ours ? `limits: ${row.name}` : row.name);
      continue;
    }
    if (sameOutcome(found.ours, found.theirs)) {
      if ("error" in found.theirs) {
        report.errors++;
        if (sameClass(found)) report.errorsOfOneClass++;
      } else {
        report.values++;
        tally.values++;
      }
      continue;
    }
    const again = async (expression: string, cells: FuzzRow) => {
      // The other rows stay, so that the columns keep their types.
      const tried = await attempt(expression, [cells, ...rows.slice(1)], 0, over);
      return typeof tried === "string" ? undefined : tried;
    };
    const small = isArgued(found) ? found : await shrink(found, again, dialect);
    const reason = isArgued(small);
    if (reason) count(arguedFor, reason.why);
    else report.finds.push(small);
  }
  return { ...report, notCovered, unread, argued: arguedFor, byFunction, answers };
}

/** What is wrong with a dialect's own handling of one generated expression, without an engine. */
export interface Fault {
  readonly expression: string;
  readonly what: string;
}

/** Generates expressions and asks no engine: nothing throws or takes long, errors are told with a place, its steps can be contrasted, and what is printed reads back. */
export function selfCheck(dialect: Dialect, { count: wanted, seed, most = 20 }: FuzzOptions): { cases: number; faults: Fault[] } {
  const next = random(seed);
  const make = generator(dialect, styles[dialect.id], seed + 1);
  const faults: Fault[] = [];
  for (let i = 0; i < wanted && faults.length < most; i++) {
    const expression = make(dialect.rows[i % dialect.rows.length]);
    const row = { ...rowFor(next) };
    const timed = () => {
      const started = performance.now();
      return { what: faultOf(dialect, expression, row, next), took: performance.now() - started };
    };
    let { what, took } = timed();
    // What other programs held up is not slow twice.
    if (took > 1000) ({ what, took } = timed());
    if (what !== undefined) faults.push({ expression, what });
    else if (took > 1000) faults.push({ expression, what: `it took ${Math.round(took)} ms` });
  }
  return { cases: wanted, faults };
}

/** A value in a line; a failure with its place. */
function toldText(dialect: Dialect, value: Value): string {
  if (isFailure(value)) return `error ${value.code} at ${value.range?.start} to ${value.range?.end}`;
  const plain: unknown = dialect.plain(value);
  return JSON.stringify(plain, (_key, part: unknown) => (typeof part === "bigint" ? String(part) : part)) ?? String(plain);
}

function faultOf(dialect: Dialect, expression: string, row: FuzzRow, next: () => number): string | undefined {
  try {
    const sample = { ...sampleOf([row]), rows: 1 };
    const program = compile(dialect, expression, sample);
    for (const diagnostic of program.diagnostics) {
      const { start, end } = diagnostic.range;
      if (start < 0 || end > expression.length || start > end) return `the place of ${diagnostic.code} is ${start} to ${end}`;
      if (/undefined|\[object/.test(message(diagnostic))) return `a sentence says "${message(diagnostic)}"`;
    }
    const [value] = program.run(sample);
    if (isFailure(value) && /undefined|\[object/.test(message(value))) return `a sentence says "${message(value)}"`;
    program.trace(sample, 0);
    const watched = program.runRow(sample, 0);
    if (toldText(dialect, value) !== toldText(dialect, watched))
      return `it gives ${toldText(dialect, value)}, and step by step ${toldText(dialect, watched)}`;
    if (program.ok) stepsAgain(program, sample, next);
    if (dialect.parse(expression).diagnostics.some(({ severity }) => severity === "error")) return undefined;
    for (const width of [undefined, 30]) {
      const printed = dialect.print(program.tree, width);
      const again = dialect.parse(printed);
      if (!sameTree(program.tree, again.tree)) return `printed as ${printed} it reads otherwise`;
    }
    return undefined;
  } catch (error) {
    return `it throws ${String((error as Error).stack ?? error).slice(0, 200)}`;
  }
}

/** An outcome in a line. */
export const outcomeText = (outcome: OwnOutcome): string =>
  outcome === undefined
    ? "not covered"
    : "error" in outcome
      ? `error ${outcome.error.code}: ${outcome.error.message.split("\n")[0]}`
      : JSON.stringify(outcome.value);

/** A find in a few lines: the expression, the cells that it reads, and both outcomes. */
export function findText({ expression, row, over, ours, theirs }: Find): string {
  const used = Object.fromEntries(Object.entries(row).filter(([name]) => new RegExp(`\\b${name}\\b`).test(expression)));
  return `${expression}\n  row    ${JSON.stringify(used)}, ${over}\n  engine ${outcomeText(theirs)}\n  ours   ${outcomeText(ours)}`;
}

export { argued } from "./argued.ts";
export type { Find, FuzzRow } from "./compare.ts";
export { sweep } from "./sweep.ts";
