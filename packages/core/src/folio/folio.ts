import type { TextKind } from "../survey/kinds.ts";
import type { Value } from "../values/index.ts";
import type { CalculatedColumn, PlanOptions } from "./columns.ts";
import { type Shape, type ShapeProblem, problemsOf, schemaOf } from "./shape.ts";

/** What a column must give on a row. */
export interface Claim {
  readonly id: string;
  readonly column: string;
  readonly row: Readonly<Record<string, Value>>;
  /** As in the verify contract: plain data, any error, or one by its code. */
  readonly expect: { readonly value: unknown } | { readonly error: true | string };
}

/** Calculated columns with what they were tried on, kept together. */
export interface Folio {
  readonly title?: string;
  /** A file of rows, from where the folio lies; `demo` is the demo register. */
  readonly sample?: string;
  readonly dialect: string;
  readonly options: Readonly<Record<string, string>>;
  readonly kinds: ReadonlyMap<string, TextKind>;
  readonly columns: readonly CalculatedColumn[];
  readonly plan: PlanOptions;
  readonly claims: readonly Claim[];
}

const text = (about: string): Shape => ({ kind: "text", about });
const list = (about: string, of: Shape, least?: number): Shape => ({
  kind: "list",
  about,
  of,
  ...(least !== undefined && { least }),
});
const record = (about: string, wanted: readonly string[], fields: Readonly<Record<string, Shape>>): Shape => ({
  kind: "record",
  about,
  wanted,
  fields,
});
const name = text("The name of a column.");

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
    record("A calculated column.", ["name", "expression"], {
      name: {
        kind: "either",
        about: "The column, new or in place of one that is there; several take the items of a list.",
        of: [name, list("Several names.", name, 1)],
      },
      expression: text("What gives its values; it sees the other columns as they are calculated here."),
      helper: { kind: "truth", about: "Whether it only helps others and is not given." },
      note: text("Anything worth keeping."),
    }),
    1,
  ),
  where: text("A condition: other rows stay as they are."),
  only: text("A condition: other rows are left out."),
  unfold: text("A column whose lists become rows."),
  claims: list(
    "What columns must give on rows.",
    record("What a column must give on a row.", ["column", "row", "expect"], {
      id: text("A name for the claim."),
      column: name,
      row: { kind: "map", about: "The row, by column names.", of: { kind: "any", about: "A value." } },
      expect: {
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
      },
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

interface Written {
  readonly title?: string;
  readonly sample?: string;
  readonly dialect: string;
  readonly options?: Readonly<Record<string, string>>;
  readonly types?: Readonly<Record<string, string>>;
  readonly columns: readonly { name: string | readonly string[]; expression: string; helper?: boolean }[];
  readonly where?: string;
  readonly only?: string;
  readonly unfold?: string;
  readonly claims?: readonly { id?: string; column: string; row: Claim["row"]; expect: Claim["expect"] }[];
}

/** Reads a folio from plain data, as JSON or YAML give it; what is wrong is told with its place, all of it. */
export function readFolio(data: unknown): { readonly folio?: Folio; readonly problems: readonly ShapeProblem[] } {
  const problems = problemsOf(data, shape);
  if (problems.length > 0) return { problems };
  const { title, sample, dialect, options = {}, types = {}, columns, where, only, unfold, claims = [] } = data as Written;
  return {
    problems,
    folio: {
      ...(title !== undefined && { title }),
      ...(sample !== undefined && { sample }),
      dialect,
      options,
      kinds: new Map(
        Object.entries(types).map(([column, kind]) => [column, (kind === "truth" ? "truth value" : kind) as TextKind]),
      ),
      columns: columns.map(({ name: names, expression, helper }) => ({
        names: typeof names === "string" ? [names] : names,
        expression,
        ...(helper && { isHelper: true as const }),
      })),
      plan: { where, only, unfold },
      claims: claims.map(({ id, ...claim }, i) => ({ id: id ?? `claim ${i + 1}`, ...claim })),
    },
  };
}
