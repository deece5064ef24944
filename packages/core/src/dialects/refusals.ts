import type { FunctionRow, Refusal } from "./row.ts";
import { type Type, isOneOf } from "./types.ts";

/** The names of functions with a space between them, the types of their arguments, and what such a call is told. */
export type Refused = readonly [names: string, types: string, as: Refusal["as"]];

/** Rows with what is refused by their names. */
export const refusing = (rows: readonly FunctionRow[], refused: readonly Refused[]): FunctionRow[] =>
  rows.map((row) => {
    const own = refused.filter(([names]) => names.split(" ").includes(row.name)).map(([, types, as]): Refusal => ({ types, as }));
    return own.length === 0 ? row : { ...row, refuses: [...(row.refuses ?? []), ...own] };
  });

function isRefused(wanted: readonly string[], types: readonly Type[]): boolean {
  const isOpen = wanted.at(-1) === "…";
  const told = isOpen ? wanted.slice(0, -1) : wanted;
  return (
    (isOpen ? types.length >= told.length : types.length === told.length) && told.every((names, i) => isOneOf(types[i], names))
  );
}

/** What a call of a row with arguments of these types is told, where it is refused. */
export const refusalOf = ({ refuses = [] }: FunctionRow, types: readonly Type[]): Refusal["as"] | undefined =>
  refuses.find((refusal) => isRefused(refusal.types.split(", "), types))?.as;
