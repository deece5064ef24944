import type { Sample } from "../evaluate/index.ts";
import { type Job, jobNames } from "./jobs.ts";
import { type CharacterKind, type Findable, characterKinds, findable } from "./kinds.ts";
import { Replacer, type Rule } from "./rules.ts";
import type { NumberRange, Terms } from "./terms.ts";

/** A list by its name: rules, or values. */
export type NamedList = { readonly rules: readonly Rule[] } | { readonly terms: Terms };

/** How jobs are written: one key each, lists by their names. */
export interface WrittenJob {
  readonly replace?: string;
  readonly has?: string;
  readonly which?: string;
  readonly terms?: string;
  readonly split?: string | readonly string[];
  readonly keep?: string | NumberRange;
  readonly places?: string | NumberRange;
  readonly drop?: CharacterKind | readonly CharacterKind[];
  readonly only?: CharacterKind | readonly CharacterKind[];
  readonly plain?: boolean;
  readonly tidy?: boolean;
  readonly find?: string | { readonly shape: string };
  readonly item?: number;
  readonly join?: string;
}

/** What is wrong with a job or a list, in a sentence. */
export class ListProblem extends Error {}

const several = <T>(value: T | readonly T[]): readonly T[] => (Array.isArray(value) ? (value as readonly T[]) : [value as T]);

const oneOf = <T extends string>(value: string, known: Readonly<Record<T, unknown>>, what: string): T => {
  if (!Object.hasOwn(known, value)) throw new ListProblem(`"${value}" is no ${what}; there are ${Object.keys(known).join(", ")}`);
  return value as T;
};

/**
 * A job from how it is written, with its list in the place of the list's name.
 * @throws ListProblem where there is no such list or kind, or a rule cannot run
 */
export function jobFrom(written: WrittenJob, listOf: (name: string) => NamedList | undefined): Job {
  const keys = Object.keys(written);
  if (keys.length !== 1) throw new ListProblem(`one of ${jobNames.join(", ")} is wanted, not ${keys.join(" and ") || "nothing"}`);
  const named = (name: string): NamedList => {
    const list = listOf(name);
    if (!list) throw new ListProblem(`there is no list "${name}"`);
    return list;
  };
  const terms = (name: string): Terms => {
    const list = named(name);
    if ("terms" in list) return list.terms;
    throw new ListProblem(`"${name}" is a list of replacements; a list of values is wanted`);
  };
  const range = (value: string | NumberRange) => (typeof value === "string" ? terms(value) : value);
  const { replace, has, which, split, keep, places, drop, only, find, item, join } = written;
  if (replace !== undefined) {
    const list = named(replace);
    if (!("rules" in list)) throw new ListProblem(`"${replace}" is a list of values; one of replacements is wanted`);
    return { replace: list.rules };
  }
  if (has !== undefined) return { has: terms(has) };
  if (which !== undefined) return { which: terms(which) };
  if (written.terms !== undefined) return { terms: terms(written.terms) };
  if (split !== undefined) {
    const marks = several(split);
    if (marks.length === 0 || marks.includes(""))
      throw new ListProblem("between which marks to split is wanted; a mark is not empty");
    return { split: marks };
  }
  if (keep !== undefined) return { keep: range(keep) };
  if (places !== undefined) return { places: range(places) };
  if (drop !== undefined) return { drop: several(drop).map((kind) => oneOf(kind, characterKinds, "kind of characters")) };
  if (only !== undefined) return { only: several(only).map((kind) => oneOf(kind, characterKinds, "kind of characters")) };
  if (find !== undefined)
    return { find: typeof find === "string" ? oneOf<Findable>(find, findable, "kind of thing; a shape is also found") : find };
  if (item !== undefined) {
    if (!Number.isInteger(item) || item === 0) throw new ListProblem("a piece is numbered from 1, or from the end with -1");
    return { item };
  }
  if (join !== undefined) return { join };
  if (written.plain === true) return { plain: true };
  if (written.tidy === true) return { tidy: true };
  throw new ListProblem(`there is no job "${keys[0]}"; there are ${jobNames.join(", ")}`);
}

/** What holds for a whole list where its lines do not say otherwise. */
export type ListDefaults = Pick<Rule, "as" | "where" | "case">;

const cell = (table: Sample, name: string): ((row: number) => string) | undefined => {
  const column = table.columns.find((each) => each.name.trim().toLowerCase() === name);
  return column && ((row) => (column.values[row] === null ? "" : String(column.values[row])));
};

/** A list of values, with what holds for it. */
export const termsOf = (values: readonly string[], { case: letters, where }: ListDefaults): Terms => ({
  values,
  ...(letters && { case: letters }),
  ...(where === "word" && { where }),
});

const cases = { minded: undefined, ignored: "ignored" } as const;

/**
 * A list from a table of texts: one column (or one called `value`, `case` and `where` beside it) makes a list of values; others, `old` and `new` by
 * name or the first two, make replacements, with `as`, `where`, `case` and `which` where there are such columns.
 * @throws ListProblem naming the row, 1-based, that cannot be read
 */
export function listFromTable(table: Sample, defaults: ListDefaults = {}): NamedList {
  const texts = (place: number) => (row: number) => String(table.columns[place].values[row] ?? "");
  const rows = Array.from({ length: table.rows }, (_, row) => row);
  const setting = <T extends string>(
    name: string,
    row: number,
    known: Readonly<Record<string, T | undefined>>,
  ): T | undefined => {
    const text = cell(table, name)?.(row).trim() ?? "";
    if (text !== "" && !Object.hasOwn(known, text))
      throw new ListProblem(`row ${row + 1}: "${name}" is one of ${Object.keys(known).join(", ")}, not "${text}"`);
    return text === "" ? (defaults[name as keyof ListDefaults] as T | undefined) : known[text];
  };
  const values = cell(table, "value") ?? (table.columns.length === 1 ? texts(0) : undefined);
  if (values) {
    // What the first line says of case and words holds for the list.
    const letters = setting("case", 0, cases);
    const where = setting("where", 0, { part: undefined, whole: undefined, word: "word" });
    return {
      terms: termsOf(
        rows.map(values).filter((text) => text !== ""),
        { case: letters, where },
      ),
    };
  }
  const [old, put] = [cell(table, "old") ?? texts(0), cell(table, "new") ?? texts(1)];
  const rules = rows.map((row): Rule => {
    const which = cell(table, "which")?.(row).trim() ?? "";
    if (!/^(?:|all|first|[1-9]\d*)$/.test(which))
      throw new ListProblem(`row ${row + 1}: "which" is all, first or a number from 1, not "${which}"`);
    return ruleOf({
      old: old(row),
      new: put(row),
      as: setting("as", row, { text: undefined, pattern: "pattern" }),
      where: setting("where", row, { part: undefined, whole: "whole", word: "word" }),
      case: setting("case", row, cases),
      which: which === "first" ? 1 : which === "" || which === "all" ? undefined : Number(which),
    });
  });
  return { rules: runnable(rules) };
}

/** A rule without what is left out. */
const ruleOf = (rule: Rule): Rule =>
  Object.fromEntries(Object.entries(rule).filter(([, value]) => value !== undefined)) as unknown as Rule;

/**
 * Rules that can all run.
 * @throws ListProblem where one is empty or its pattern cannot be read
 */
export function runnable(rules: readonly Rule[]): readonly Rule[] {
  const [problem] = new Replacer(rules).problems;
  if (!problem) return rules;
  const place = `rule ${problem.rule + 1}`;
  if (problem.kind === "empty") throw new ListProblem(`${place}: what is to be replaced is empty`);
  throw new ListProblem(
    `${place}: the pattern "${rules[problem.rule].old}" cannot be read, at character ${problem.at + 1}: ${problem.problem}`,
  );
}

/** A list as the rows of a table, a header first, from which it is read again. */
export function tableOfList(list: NamedList): string[][] {
  if ("terms" in list) {
    const { values, case: letters, where } = list.terms;
    const said = Object.entries({ case: letters, where }).filter(
      (entry): entry is [string, NonNullable<typeof letters>] => entry[1] !== undefined,
    );
    const names = said.map(([name]) => name);
    return [["value", ...names], ...values.map((value, i) => [value, ...said.map(([, own]) => (i === 0 ? own : ""))])];
  }
  const names = (["as", "where", "case", "which"] as const).filter((name) => list.rules.some((rule) => rule[name] !== undefined));
  return [
    ["old", "new", ...names],
    ...list.rules.map((rule) => [rule.old, rule.new, ...names.map((name) => String(rule[name] ?? ""))]),
  ];
}
