import {
  type Cast,
  type Expression,
  type Form,
  type Lambda,
  type ListExpression,
  type Name,
  type Printer,
  form,
  group,
  line,
  nest,
  printWith,
  printed,
} from "../../syntax/index.ts";
import { lookup } from "../../values/index.ts";
import { castText, rowText, sqlForms, sqlKinds, sqlLiteral, wordedCalls } from "../shared/sql-printer.ts";
import { aggregates } from "./aggregates.ts";
import { calls } from "./calls.ts";
import { infixPower, power } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";

/** x[i], x[a:b] and x[a:b:step]; an end that is left out before a step stands as `-`. */
const subscript: Form = {
  print: (printer, [base, ...bounds]) => {
    const written = bounds.map((bound, i) =>
      bound.kind === "literal" && bound.type === "open from end"
        ? i === 1 && bounds.length === 3
          ? "-"
          : ""
        : printer.argument(bound),
    );
    const between = written.flatMap((bound, i) => (i === 0 ? [bound] : [":", bound]));
    return printed([printer.operand(base, power["::"]), "[", ...between, "]"], power["["]);
  },
};

/** COLLATE stands in brackets wherever it is an operand: POSITION takes no other. */
const asOperand = 1;

const table = {
  separator: "," as const,
  infix: lookup({ ...infixPower, and: power.and, or: power.or }),
  unchained: power.comparison,
  prefix: lookup({ "-": power.sign, "+": power.sign, "~": power.other, not: power.not }),
  literal: sqlLiteral(textLiteral, power.sign),
  name: ({ name }: Name) => columnText(name),
  forms: lookup<Form>({
    ...sqlForms({ is: power.is, predicate: power.like, comparison: power.comparison }),
    glob: form(power.like, "$1> glob $2>"),
    ...Object.fromEntries(
      ["binary", "c", "posix", "nocase", "noaccent", "nocase.noaccent"].map((name) => [
        `collate ${name}`,
        form(asOperand, `$1> collate ${name}`, power.collate - 0.5),
      ]),
    ),
  }),
  calls: lookup<Form>({
    ...wordedCalls(calls, power.like, aggregates),
    array_extract: subscript,
    array_slice: subscript,
  }),
  kinds: {
    ...sqlKinds,
    cast: (printer: Printer, node: Cast) =>
      node.type.startsWith("try ")
        ? castText(printer, "try_cast", node, node.type.slice(4))
        : printed([printer.operand(node.operand, power["::"] - 0.5), "::", node.type], power["::"]),
    list: (printer: Printer, node: ListExpression) =>
      node.form === "row" ? rowText(printer, node.items) : printed(printer.list("[", node.items, "]")),
    lambda: (printer: Printer, { parameters, body }: Lambda) =>
      printed(
        group(
          "lambda ",
          parameters.map((name) => columnText(name)).join(", "),
          ":",
          nest(line, printer.operand(body, power.lambda)),
        ),
        power.lambda,
      ),
  },
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
