import type { AnswerOf } from "../../traits/index.ts";
import { type FunctionRow, params } from "../row.ts";

/**
 * Aggregates of SQL (ISO 9075-2, 10.9). An expression is evaluated on one row, and so are they: what they give is the
 * aggregate of a table of that row alone, and the binder warns of it.
 */

/** What an aggregate gives over one row: an answer, or the name of code. */
type Given = AnswerOf<"ofOne"> | "joined" | `code ${string}`;

/** Name, parameters (or the type of the one value), the type of the result and, where that is not the value itself, what it gives. */
export type Aggregate = readonly [name: string, parameters: string, result: string, gives?: Given];

const summaries: Readonly<Record<string, string>> = {
  "the value": "The value of the one row",
  "1 or 0": "1, or 0 where the value is null",
  "a list": "A list of the one value",
  nothing: "Null, which one value gives",
  zero: "0, or null where the value is null",
  joined: "The values of the one row, joined",
  "code sum": "The number that the one row has",
  "code total": "The number that the one row has, 0 for null",
  "code mean": "The value of the one row as a mean",
  "code spread": "0, or null where the value is null, or no number where it is infinite",
};

/** The rows of aggregates; with DISTINCT, which says nothing on one row, as a second name. */
export const aggregateRows = (list: readonly Aggregate[], evidence: string): FunctionRow[] =>
  list.map(([name, form, result, gives = "the value"]) => {
    const row = {
      name,
      aliases: [`${name} distinct`],
      family: "list",
      summary: `${summaries[gives] ?? summaries["the value"]}; an aggregate.`,
      parameters: params(form.includes(" ") || form === "" ? form : `value ${form}`),
      result,
      evidence,
      aggregate: true,
    } as const;
    if (gives.startsWith("code ")) return { ...row, code: `aggregate ${gives.slice(5)}` };
    // Several values of a row are joined without anything between them.
    if (gives === "joined")
      return { ...row, operation: "join", answers: { missing: "null", missingItem: "null", emptyItem: "kept" } };
    return { ...row, operation: "of-one", answers: { ofOne: gives as AnswerOf<"ofOne"> } };
  });
