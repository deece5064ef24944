import {
  type Job,
  type JobName,
  type ListDefaults,
  ListProblem,
  type NamedList,
  type WrittenJob,
  characterKinds,
  findable,
  jobFrom,
  listFromTable,
  runnable,
  termsOf,
} from "../lists/index.ts";
import type { Sample } from "../evaluate/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import type { TextKind } from "../survey/kinds.ts";
import type { Value } from "../values/index.ts";
import type { CalculatedColumn, PlanOptions } from "./columns.ts";
import { repointed } from "./names.ts";
import { type Shape, type ShapeProblem, list, number, oneOf, problemsOf, record, schemaOf, text } from "../diagnostics/shape.ts";

/** What a column must give on a row. */
export interface Claim {
  readonly id: string;
  readonly column: string;
  readonly row: Readonly<Record<string, Value>>;
  /** As in the verify contract: plain data, any error, or one by its code. */
  readonly expect: { readonly value: unknown } | { readonly error: true | string };
  /** Whether it is about the column by itself, whatever the others do; a snippet's is. */
  readonly alone?: true;
}

/** An expression that is kept with its claims and put to use for other columns. */
export interface Snippet {
  readonly expression: string;
  readonly claims: readonly Pick<Claim, "row" | "expect">[];
}

/** A column of a folio: a calculated one, or a snippet with the columns that stand for the names in it. */
export type FolioColumn = CalculatedColumn & {
  readonly snippet?: { readonly name: string; readonly of: ReadonlyMap<string, string> };
};

/** Calculated columns with what they were tried on, kept together. */
export interface Folio {
  readonly title?: string;
  /** A file of rows, from where the folio lies; `demo` is the demo register. */
  readonly sample?: string;
  readonly dialect: string;
  readonly options: Readonly<Record<string, string>>;
  readonly kinds: ReadonlyMap<string, TextKind>;
  readonly columns: readonly FolioColumn[];
  readonly snippets: ReadonlyMap<string, Snippet>;
  readonly lists: ReadonlyMap<string, NamedList>;
  readonly plan: PlanOptions;
  readonly claims: readonly Claim[];
}

const name = text("The name of a column.");
const row: Shape = { kind: "map", about: "The row, by column names.", of: { kind: "any", about: "A value." } };
const oneOrMore = (of: Shape): Shape => ({ kind: "either", about: of.about, of: [of, list(of.about, of, 1)] });
const listName = text("The name of a list.");
const range: Shape = {
  kind: "either",
  about: "A list of values, or a range of numbers.",
  of: [
    listName,
    record("Numbers from one to another.", ["from", "to"], { from: number("The least."), to: number("The greatest.") }),
  ],
};
const expect: Shape = {
  kind: "either",
  about: "A value, or an error.",
  of: [
    record("A value.", ["value"], { value: { kind: "any", about: "The value as plain data." } }),
    record("An error.", ["error"], {
      error: {
        kind: "either",
        about: "true for any, or its code.",
        of: [{ kind: "one of", about: "Any.", values: [true] }, text("A code.")],
      },
    }),
  ],
};
const kinds = oneOrMore(oneOf("A kind of characters.", ...Object.keys(characterKinds)));
const ofJobs: Readonly<Record<JobName, Shape>> = {
  replace: text("Carries a list of replacements out, one after another."),
  has: text("Whether any value of a list stands in the text."),
  which: text("The first value of a list that stands in the text."),
  terms: text("All values of a list that stand in the text."),
  split: oneOrMore(text("A mark between pieces.")),
  keep: range,
  places: range,
  drop: kinds,
  only: kinds,
  plain: { kind: "one of", about: "Plain Latin letters.", values: [true] },
  tidy: { kind: "one of", about: "No white space at the ends, single spaces within, no empty pieces.", values: [true] },
  find: {
    kind: "either",
    about: "All things of a kind.",
    of: [
      oneOf("A kind of thing.", ...Object.keys(findable)),
      record("A shape.", ["shape"], { shape: text("A shape in the notation of a survey.") }),
    ],
  },
  item: number("The piece with this number from 1, or from the end with -1."),
  join: text("What stands between the pieces of one text."),
};
const ofLists = {
  case: oneOf("Whether upper and lower case are the same.", "minded", "ignored"),
  where: oneOf("What is meant: any part, the whole value, or whole words.", "part", "whole", "word"),
};
const as = oneOf("How it is written.", "text", "pattern");

const shape = record("An Indigo Quill folio: calculated columns with what they were tried on.", ["folio", "dialect", "columns"], {
  folio: { kind: "one of", about: "The version of the format.", values: [1] },
  title: text("What it is for."),
  notes: text("Anything worth keeping."),
  sample: text("A file of rows, from where the folio lies; demo is the demo register."),
  dialect: text("The dialect of all expressions."),
  options: { kind: "map", about: "Options of the dialect by their names.", of: text("The value of the option.") },
  types: {
    kind: "map",
    about: "How columns of CSV are read, by their names.",
    of: { kind: "one of", about: "The kind.", values: ["text", "number", "truth", "date"] },
  },
  columns: list(
    "The calculated columns, in any order.",
    record("A calculated column, by an expression or a snippet.", ["name"], {
      name: {
        kind: "either",
        about: "The column, new or in place of one that is there; several take the items of a list.",
        of: [name, list("Several names.", name, 1)],
      },
      expression: text("What gives its values; it sees the other columns as they are calculated here."),
      snippet: text("A snippet in the place of an expression."),
      of: {
        kind: "either",
        about: "The column that a snippet is for, or those for each of the names in it.",
        of: [name, { kind: "map", about: "Columns by the names in the snippet.", of: name }],
      },
      then: list("What is done with the values, one after another.", record("A job: one of these.", [], ofJobs), 1),
      helper: { kind: "truth", about: "Whether it only helps others and is not given." },
      note: text("Anything worth keeping."),
    }),
    1,
  ),
  lists: {
    kind: "map",
    about: "Lists of replacements and of values, by their names.",
    of: record("A list: values, rules, or a file with one of them.", [], {
      file: text("A file of rows, from where the folio lies: one column of values, or old and new."),
      values: list("The values.", text("A value.")),
      rules: list(
        "The replacements, in order.",
        record("A replacement.", ["old", "new"], {
          old: text("What is looked for."),
          new: text("What stands there afterwards; with a pattern $1 to $9 are its groups."),
          as,
          ...ofLists,
          which: number("Which of the places, from 1; all when left out."),
        }),
      ),
      as,
      ...ofLists,
      note: text("Anything worth keeping."),
    }),
  },
  where: text("A condition: other rows stay as they are."),
  only: text("A condition: other rows are left out."),
  unfold: text("A column whose lists become rows."),
  snippets: {
    kind: "map",
    about: "Expressions that are used again, by their names.",
    of: record("An expression for any column, with what it must give.", ["expression"], {
      about: text("What it is good for."),
      expression: text("The expression; it stands for the column, unless the claims name others."),
      claims: list(
        "What it must give on rows.",
        record("What it must give on a row.", ["row", "expect"], { row, expect, note: text("Anything worth keeping.") }),
      ),
      note: text("Anything worth keeping."),
    }),
  },
  claims: list(
    "What columns must give on rows.",
    record("What a column must give on a row.", ["column", "row", "expect"], {
      id: text("A name for the claim."),
      column: name,
      row,
      expect,
      note: text("Anything worth keeping."),
    }),
  ),
});

/** The JSON Schema of a folio. */
export const folioSchema = {
  $schema: "https://json-schema.org/draft/2020-12/schema",
  title: "Indigo Quill folio, version 1",
  ...schemaOf(shape),
};

interface WrittenRule {
  readonly old: string;
  readonly new: string;
  readonly as?: string;
  readonly where?: string;
  readonly case?: string;
  readonly which?: number;
}

interface WrittenList extends Pick<WrittenRule, "as" | "where" | "case"> {
  readonly file?: string;
  readonly values?: readonly string[];
  readonly rules?: readonly WrittenRule[];
}

interface Written {
  readonly title?: string;
  readonly sample?: string;
  readonly dialect: string;
  readonly options?: Readonly<Record<string, string>>;
  readonly types?: Readonly<Record<string, string>>;
  readonly columns: readonly {
    name: string | readonly string[];
    expression?: string;
    snippet?: string;
    of?: string | Readonly<Record<string, string>>;
    then?: readonly WrittenJob[];
    helper?: boolean;
  }[];
  readonly lists?: Readonly<Record<string, WrittenList>>;
  readonly where?: string;
  readonly only?: string;
  readonly unfold?: string;
  readonly snippets?: Readonly<Record<string, { expression: string; claims?: Snippet["claims"] }>>;
  readonly claims?: readonly { id?: string; column: string; row: Claim["row"]; expect: Claim["expect"] }[];
}

/** Settings of a rule or list, without those that are as they are when left out. */
function settingsOf({ as, where, case: letters }: Pick<WrittenRule, "as" | "where" | "case">): ListDefaults {
  return {
    ...(as === "pattern" && { as }),
    ...((where === "whole" || where === "word") && { where }),
    ...(letters === "ignored" && { case: letters }),
  };
}

function listOf(written: WrittenList, files: ReadonlyMap<string, Sample>): NamedList {
  const { file, values, rules } = written;
  if ([file, values, rules].filter((each) => each !== undefined).length !== 1)
    throw new ListProblem("one of file, values and rules is wanted");
  const own = settingsOf(written);
  if (values) return { terms: termsOf(values, own) };
  if (rules)
    return {
      rules: runnable(
        rules.map(({ old, new: put, which, ...said }) => ({
          old,
          new: put,
          ...settingsOf({ ...own, ...said }),
          ...(which !== undefined && { which }),
        })),
      ),
    };
  const table = files.get(file!);
  if (!table) throw new ListProblem(`its file "${file}" was not read`);
  return listFromTable(table, own);
}

/** The expression of a column, or the snippet that is in its place. */
function sourceOf(
  { expression, snippet, of }: Pick<Written["columns"][number], "expression" | "snippet" | "of">,
  snippets: NonNullable<Written["snippets"]>,
): Pick<FolioColumn, "expression" | "snippet"> {
  if ((expression === undefined) === (snippet === undefined))
    throw new ListProblem('one of "expression" and "snippet" is wanted');
  if (expression !== undefined) {
    if (of !== undefined) throw new ListProblem('"of" is about a snippet');
    return { expression };
  }
  if (!Object.hasOwn(snippets, snippet!)) throw new ListProblem(`there is no snippet "${snippet}"`);
  if (of === undefined) throw new ListProblem('"of" says for which column the snippet is');
  return {
    expression: snippets[snippet!].expression,
    snippet: { name: snippet!, of: new Map(typeof of === "string" ? [["it", of]] : Object.entries(of)) },
  };
}

/**
 * A folio in which every snippet stands with the columns that it is for, and its claims are made about each of them, or about
 * itself where no column uses it.
 * @throws RangeError where a variable of a snippet would hide a column
 */
export function withSnippets(dialect: Dialect, folio: Folio): Folio {
  const claims: Claim[] = [];
  const columns = folio.columns.map((column): FolioColumn => {
    if (!column.snippet) return column;
    const { name: key, of } = column.snippet;
    const expression = repointed(dialect, column.expression, of);
    if (typeof expression !== "string") throw new RangeError(`${column.names.join(", ")}: ${expression.refused}`);
    folio.snippets.get(key)!.claims.forEach(({ row, expect }, i) => {
      const renamed = Object.entries(row).map(([name, value]) => [of.get(name) ?? name, value]);
      const id = `${key}, claim ${i + 1}`;
      // With jobs behind it a snippet gives something else.
      if (!column.then)
        claims.push({ id, column: column.names[0], row: Object.fromEntries(renamed) as Claim["row"], expect, alone: true });
    });
    return { ...column, expression };
  });
  const used = new Set(folio.columns.map(({ snippet }) => snippet?.name));
  for (const [key, { claims: own }] of folio.snippets)
    if (!used.has(key))
      own.forEach((claim, i) => claims.push({ id: `${key}, claim ${i + 1}`, column: snippetColumn(key), ...claim, alone: true }));
  return { ...folio, columns, claims: [...folio.claims, ...claims] };
}

/** What a snippet that no column uses is called where its claims are checked. */
export const snippetColumn = (name: string): string => `the snippet ${name}`;

/** The files of lists that a folio names, from where it lies; none where it is no folio. */
export function listFiles(data: unknown): readonly string[] {
  if (problemsOf(data, shape, "a folio").length > 0) return [];
  return Object.values((data as Written).lists ?? {}).flatMap(({ file }) => (file === undefined ? [] : [file]));
}

/**
 * Reads a folio from plain data, as JSON or YAML give it; what is wrong is told with its place, all of it.
 * @param files the rows, as texts, of the files that `listFiles` names
 */
export function readFolio(
  data: unknown,
  files: ReadonlyMap<string, Sample> = new Map(),
): { readonly folio?: Folio; readonly problems: readonly ShapeProblem[] } {
  const problems: ShapeProblem[] = problemsOf(data, shape, "a folio");
  if (problems.length > 0) return { problems };
  /** What is made of a part; what is wrong with it is told at its place. */
  const tried = <T>(path: readonly (string | number)[], make: () => T): T | undefined => {
    try {
      return make();
    } catch (error) {
      if (!(error instanceof ListProblem)) throw error;
      problems.push({ path, message: `"${path.filter((part) => typeof part === "string").at(-1)!}": ${error.message}` });
      return undefined;
    }
  };
  const {
    title,
    sample,
    dialect,
    options = {},
    types = {},
    columns,
    where,
    only,
    unfold,
    lists = {},
    snippets = {},
    claims = [],
  } = data as Written;
  // What is wrong with a list is told where it stands; what uses it sees an empty one of either kind.
  const named = new Map(
    Object.entries(lists).map(([key, each]): [string, NamedList] => [
      key,
      tried(["lists", key], () => listOf(each, files)) ?? { rules: [], terms: { values: [] } },
    ]),
  );
  const folio: Folio = {
    ...(title !== undefined && { title }),
    ...(sample !== undefined && { sample }),
    dialect,
    options,
    kinds: new Map(
      Object.entries(types).map(([column, kind]) => [column, (kind === "truth" ? "truth value" : kind) as TextKind]),
    ),
    columns: columns.map(({ name: names, then, helper, ...given }, i) => ({
      names: typeof names === "string" ? [names] : names,
      ...(tried(["columns", i], () => sourceOf(given, snippets)) ?? { expression: "" }),
      ...(then && {
        then: then.flatMap((job, n): Job[] => {
          const made = tried(["columns", i, "then", n], () => jobFrom(job, (key) => named.get(key)));
          return made ? [made] : [];
        }),
      }),
      ...(helper && { isHelper: true as const }),
    })),
    snippets: new Map(Object.entries(snippets).map(([key, each]) => [key, { claims: [], ...each }])),
    lists: named,
    plan: { where, only, unfold },
    claims: claims.map(({ id, ...claim }, i) => ({ id: id ?? `claim ${i + 1}`, ...claim })),
  };
  return problems.length > 0 ? { problems } : { problems, folio };
}
