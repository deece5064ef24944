import type { Sample } from "../evaluate/index.ts";
import type { Plan, PlanStep } from "./columns.ts";
import { saidJobs } from "./proof.ts";

/**
 * The query that gives a table the columns of a plan: each column that needs others stands around the query that gives
 * those, so that every expression is written once.
 * @param sample rows on which what lists do is proven to be said right
 * @throws RangeError where the dialect has no statements, a list becomes columns, or what lists do cannot be said
 */
export function planStatement(plan: Plan, table: string, sample: Sample): string {
  const { dialect, names, where, only } = plan;
  const { statements } = dialect;
  if (!statements) throw new RangeError(`${dialect.title} has no statements`);
  const several = plan.steps.find(({ column }) => column.names.length > 1);
  if (several) throw new RangeError(`a list that becomes columns (${several.column.names.join(", ")}) has no statement here`);
  const saidBy = ({ column, program }: PlanStep): string => {
    const printed = dialect.print(program.tree);
    if (!column.then) return printed;
    const said = saidJobs(dialect, printed, column.then, sample);
    if ("refused" in said) throw new RangeError(`what is done to ${column.names.join(", ")} has no statement: ${said.refused}`);
    return said.expression;
  };
  const quoted = (name: string) => statements.quoted(name);
  const given = names.filter((name) => !plan.calculated.has(name) || plan.given.has(name));
  const isChanged = freeName("is changed", [...names, ...plan.calculated]);
  let seen = [...given];
  let query = quoted(table);
  const around = (items: readonly string[], rest = "") =>
    (query = `(SELECT ${items.join(", ")}\nFROM ${query}${rest}) AS ${quoted("rows")}`);
  if (only) query += ` WHERE ${dialect.print(only.tree)}`;
  if (where) {
    around([...given.map(quoted), `(${dialect.print(where.tree)}) AS ${quoted(isChanged)}`]);
    seen = [...seen, isChanged];
  } else if (only) around(given.map(quoted));
  for (const level of levels(plan.steps)) {
    const made = new Map(level.map((step) => [step.column.names[0], saidBy(step)]));
    const value = (name: string) => {
      const expression = made.get(name);
      if (expression === undefined) return quoted(name);
      if (!where) return `${expression} AS ${quoted(name)}`;
      const old = plan.given.has(name) ? quoted(name) : "NULL";
      return `CASE WHEN ${quoted(isChanged)} THEN ${expression} ELSE ${old} END AS ${quoted(name)}`;
    };
    const all = [...seen, ...[...made.keys()].filter((name) => !seen.includes(name))];
    around(all.map(value));
    seen = all;
  }
  return `SELECT ${names.map(quoted).join(", ")}\nFROM ${query};`;
}

/** Steps in groups that do not need one another. */
function levels(steps: readonly PlanStep[]): PlanStep[][] {
  const result: PlanStep[][] = [];
  let made = new Set<string>();
  for (const step of steps) {
    const last = result.at(-1);
    if (last && step.uses.every((name) => !made.has(name))) last.push(step);
    else {
      result.push([step]);
      made = new Set();
    }
    for (const name of step.column.names) made.add(name);
  }
  return result;
}

/** A name, or what comes after it where there is one of that name: "value 2". */
export function freeName(name: string, taken: readonly string[]): string {
  let found = name;
  for (let n = 2; taken.includes(found); n++) found = `${name} ${n}`;
  return found;
}
