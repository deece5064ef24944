import type { Value } from "../values/index.ts";
import { nearKey } from "../survey/texts.ts";
import type { Applied, Plan } from "./columns.ts";
import type { Sample } from "../evaluate/index.ts";

/** What a column needs, and what needs it; names of columns. */
export interface Needs {
  readonly name: string;
  readonly isCalculated: boolean;
  readonly needs: readonly string[];
  readonly neededBy: readonly string[];
}

/** The columns that a plan reads or calculates, those of the sample first. */
export function needsOf({ steps, given }: Plan): Needs[] {
  const readers = (name: string) =>
    steps.filter(({ uses, column }) => uses.includes(name) && !column.names.includes(name)).flatMap(({ column }) => column.names);
  const makers = new Map(steps.flatMap((step) => step.column.names.map((name) => [name, step] as const)));
  const names = [...new Set([...steps.flatMap(({ uses }) => uses).filter((name) => given.has(name)), ...makers.keys()])];
  return names.map((name) => ({
    name,
    isCalculated: makers.has(name),
    needs: makers.get(name)?.uses ?? [],
    neededBy: readers(name),
  }));
}

/** A column that cleans another one up and that nothing uses, beside those that use the raw one. */
export interface IdleCleanup {
  readonly name: string;
  readonly raw: string;
  readonly users: readonly string[];
}

/** Of ten values that are texts, how many must be the same but for case, white space and accents. */
const [same, of] = [8, 10];

/** New columns that hold the texts of one column cleaned up, and that no other uses while one uses the raw texts. */
export function idleCleanups(plan: Plan, { columns }: Sample, { sample, rows }: Applied): IdleCleanup[] {
  const needs = needsOf(plan);
  return needs.flatMap(({ name, isCalculated, needs: reads, neededBy }): IdleCleanup[] => {
    const [raw] = reads;
    if (!isCalculated || plan.given.has(name) || neededBy.length > 0 || reads.length !== 1 || !plan.given.has(raw)) return [];
    const users = needs.find((each) => each.name === raw)!.neededBy.filter((user) => user !== name);
    const after = sample.columns.find((column) => column.name === name)?.values;
    const before = columns.find((column) => column.name === raw)!.values;
    if (users.length === 0 || !after) return [];
    const pairs = rows.map((row, i): [Value, Value] => [before[row], after[i]]);
    const texts = pairs.filter((pair): pair is [string, string] => pair.every((each) => typeof each === "string"));
    const isSame = ([was, is]: [string, string]) => nearKey(was) === nearKey(is);
    const isCleaned = texts.some(([was, is]) => was !== is) && texts.filter(isSame).length * of >= texts.length * same;
    return isCleaned ? [{ name, raw, users }] : [];
  });
}
