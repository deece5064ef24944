import {
  type Expression,
  type Form,
  type ListExpression,
  type Literal,
  type Printer,
  bracketed,
  form,
  group,
  line,
  printWith,
  printed,
} from "../../syntax/index.ts";
import { lookup } from "../../values/index.ts";
import { rowText, sqlForms, sqlKinds, sqlLiteral, wordedCalls } from "../shared/sql-printer.ts";
import { aggregates } from "./aggregates.ts";
import { calls } from "./calls.ts";
import { infixPower, power, variadic } from "./grammar.ts";
import { collations, columnText, textLiteral } from "./lexis.ts";

/** x = any(list): the relation stands as a text behind the two. */
const quantified = (word: string): Form => ({
  print: (printer, [left, list, relation]) => {
    const named = String((relation as Literal).value);
    const written = named.replace(/^not (?=~)/, "!").replace("similar", "similar to");
    const strength = /^(?:[=<>]|<>|<=|>=)$/.test(named) ? power.comparison : /^\W/.test(written) ? power.other : power.like;
    const listText = list.kind === "query" ? printer.argument(list) : printer.list("(", [list], ")");
    return printed(group(printer.operand(left, strength), ` ${written} ${word}`, listText), strength);
  },
});

/** COLLATE stands in brackets wherever it is an operand: some forms take no other (4.2, b_expr). */
const asOperand = 1;

/** The base of a subscript: the name of a column and another subscript stand without brackets. */
const subscripted = (printer: Printer, base: Expression) =>
  base.kind === "name" || (base.kind === "call" && / of list$/.test(base.name))
    ? printer.node(base).doc
    : group("(", printer.argument(base), ")");

/** VARIADIC stands before the last argument. */
const variadicCall = (name: string): Form => ({
  print: (printer, args) =>
    printed([
      name,
      bracketed(
        "(",
        args.map((arg, i) => [i === args.length - 1 ? "variadic " : "", printer.argument(arg)]),
        [",", line],
        ")",
      ),
    ]),
});

const table = {
  separator: "," as const,
  infix: lookup({ ...infixPower, and: power.and, or: power.or }),
  unchained: power.comparison,
  prefix: lookup({
    "-": power.sign,
    "+": power.sign,
    not: power.not,
    "~": power.other,
    "@": power.other,
    "|/": power.other,
    "||/": power.other,
  }),
  foldsSign: ({ value }: Literal) => String(value) === "2147483648" || String(value) === "9223372036854775808",
  literal: sqlLiteral(textLiteral, power.sign),
  name: ({ name }: { name: string }) => columnText(name),
  forms: lookup({
    ...sqlForms({ is: power.is, predicate: power.like, comparison: power.comparison }),
    "~": form(power.other, "$1< [!]~ $2>"),
    "~*": form(power.other, "$1< [!]~* $2>"),
    "is normalized": form(power.is, "$1> is [not ]$2w normalized"),
    "compare any": quantified("any"),
    "compare all": quantified("all"),
    ...Object.fromEntries(
      collations.map((name) => [`collate ${name}`, form(asOperand, `$1> collate "${name}"`, power.collate - 0.5)]),
    ),
    omitted: { print: () => printed("") },
    "item of list": {
      print: (printer: Printer, [base, at]: readonly Expression[]) =>
        printed([subscripted(printer, base), "[", printer.argument(at), "]"], power["["]),
    },
    "slice of list": {
      print: (printer: Printer, [base, from, to]: readonly Expression[]) =>
        printed([subscripted(printer, base), "[", printer.argument(from), ":", printer.argument(to), "]"], power["["]),
    },
  } satisfies Record<string, Form>),
  calls: lookup({
    ...wordedCalls(calls, power.like, aggregates),
    ...Object.fromEntries([...variadic].map((name) => [`${name} variadic`, variadicCall(name)])),
  }),
  kinds: {
    ...sqlKinds,
    cast: (printer: Printer, { operand, type }: { operand: Expression; type: string }) =>
      printed([printer.operand(operand, power["::"] - 0.5), "::", type], power["::"]),
    list: (printer: Printer, node: ListExpression) =>
      node.form === "row" ? rowText(printer, node.items) : printed(["array", printer.list("[", node.items, "]")]),
  },
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
