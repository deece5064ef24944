import { type Dialect, type Statements, isUnsteadyCall } from "../dialects/dialect.ts";
import { allPartsOf, partsOf } from "../evaluate/bound.ts";
import type { Bound, Program } from "../evaluate/index.ts";
import { walk } from "../syntax/index.ts";
import { countBytes, countCodePoints } from "../values/units.ts";

/** What is written: a plain query, a view, or a column that the engine keeps up to date. */
export type StatementKind = "select" | "view" | "generated";
export const statementKinds: readonly StatementKind[] = ["select", "view", "generated"];

export interface Statement {
  readonly text: string;
  /** What the engine refuses in such a column: aggregates; in a generated one also queries, and what is not immutable. */
  readonly refused: readonly string[];
}

export interface StatementNames {
  readonly table: string;
  readonly column: string;
  /** The name of the view; `TABLE_with_COLUMN` when left out. */
  readonly view?: string;
}

/**
 * The statement that gives a table a calculated column, names quoted as the engine wants them.
 * @throws RangeError where the dialect has no statements
 */
export function statementOf(program: Program, kind: StatementKind, { table, column, view }: StatementNames): Statement {
  const { statements, title } = program.dialect;
  if (!statements) throw new RangeError(`${title} has no statements`);
  const [from, name] = [statements.quoted(table), statements.quoted(column)];
  const expression = `(${program.dialect.print(program.tree)})`;
  const query = `SELECT *, ${expression} AS ${name} FROM ${from}`;
  const type = statements.typeName(program.type);
  const text = {
    select: () => query,
    view: () => `CREATE VIEW ${statements.quoted(view ?? `${table}_with_${column}`)} AS ${query}`,
    generated: () => statements.generated(from, name, type, expression),
  }[kind]();
  return {
    text: `${text};`,
    refused: [...manyRowed(program, kind), ...(kind === "generated" ? unsteadyParts(program, statements) : [])],
  };
}

/** Aggregates, which are no column of a row, and queries, which no generated column may hold. */
function manyRowed({ tree, diagnostics }: Program, kind: StatementKind): string[] {
  const aggregates = diagnostics
    .filter(({ code }) => code === "aggregate-of-row")
    .map(({ facts }) => `the aggregate ${String(facts.name)}`);
  const hasQuery = kind === "generated" && [...walk(tree)].some((node) => node.kind === "query");
  return [...new Set(aggregates), ...(hasQuery ? ["a query"] : [])];
}

function unsteadyParts({ bound, dialect }: Program, statements: Statements): string[] {
  const found = new Set<string>();
  const { unsteady } = statements;
  const has = (name: string) => unsteady.has(name) || unsteady.has(`${name.split(" ").slice(0, -1).join(" ")} *`);
  for (const next of allPartsOf(bound)) {
    const { source } = next;
    const parts = partsOf(next);
    const name = source.kind === "call" ? source.name : source.kind === "cast" ? castName(parts[0], next, dialect) : undefined;
    const types = parts.map(({ type }) => type);
    if (name !== undefined && (has(name) || (source.kind === "call" && isUnsteadyCall(name, types, statements)))) found.add(name);
  }
  return [...found];
}

const castName = (operand: Bound | undefined, cast: Bound, { title }: Dialect): string =>
  operand ? `cast ${String(operand.type)} to ${String(cast.type)}` : title;

/** What the engine makes of names that it does not take as they are, in a sentence each. */
export function nameTroubles({ statements, title }: Dialect, names: readonly string[]): string[] {
  if (!statements) return [];
  const { most = Infinity, unit, caseMinded } = statements.names;
  const size = (name: string) => (unit === "bytes" ? countBytes(name) : countCodePoints(name));
  const long = names
    .filter((name) => size(name) > most)
    .map((name) => `"${name}" is longer than the ${most} ${unit} of a name in ${title}`);
  const seen = new Map<string, string>();
  const alike = names.flatMap((name) => {
    const key = caseMinded ? name : name.toLowerCase();
    const first = seen.get(key);
    if (first === undefined) seen.set(key, name);
    return first === undefined ? [] : [`"${first}" and "${name}" are one name in ${title}`];
  });
  return [...long, ...alike];
}
