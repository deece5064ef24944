import {
  type Expression,
  type ListExpression,
  type Literal,
  type Name,
  type Printer,
  form,
  printWith,
  printed,
} from "../../syntax/index.ts";
import { Failure, lookup } from "../../values/index.ts";
import { infixPower, power } from "./grammar.ts";

/** How a column is written: as a label, quoted where it would not be read as one. */
export const columnText = (name: string): string =>
  /^[\p{L}_][\p{L}\p{N}\p{M}_]*$/u.test(name) && !/^(?:true|false)$/i.test(name) ? name : `'${name.replaceAll("'", "''")}'`;

export const textLiteral = (text: string): string => `"${text.replaceAll('"', '""')}"`;

function literalText({ value }: Literal): string {
  if (typeof value === "string") return textLiteral(value);
  if (value instanceof Failure) return String(value.facts.kind);
  if (value === Infinity) return "9E999";
  // An argument that is left empty.
  return value === null ? "" : String(value).toUpperCase();
}

const table = {
  separator: ";" as const,
  infix: infixPower,
  prefix: lookup({ "-": power.prefix, "+": power.prefix }),
  literal: (node: Literal) => printed(literalText(node)),
  name: ({ name }: Name) => columnText(name),
  forms: lookup({ "%": form(power["%"], "$1<%") }),
  calls: {},
  kinds: {
    list: (printer: Printer, { items }: ListExpression) => printed(printer.list("{", items, "}")),
  },
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
