import {
  type Cast,
  type Expression,
  type Form,
  type Literal,
  type Name,
  type Printed,
  type Printer,
  atom,
  form,
  group,
  printWith,
  printed,
} from "../../syntax/index.ts";
import { Bytes, Decimal, hexOf, isFailure, lookup } from "../../values/index.ts";
import { castText, sqlForms, sqlKinds, sqlLiteral, wordedCalls } from "../shared/sql-printer.ts";
import { collations } from "./types.ts";
import { aggregates } from "./aggregates.ts";
import { calls } from "./calls.ts";
import { infixPower, power, words } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";
import { int64 } from "./numbers.ts";

const plainLiteral = sqlLiteral(textLiteral, power.sign);

/** Whether a decimal is one that is written without a point: what goes beyond 64 bits. */
const isWhole = ({ coefficient, scale }: Decimal): boolean => scale === 0 && coefficient >= 2n ** 64n;

/** Bytes keep the kind of their literal; a whole number beyond 64 bits is a decimal without a point. */
function literal(node: Literal): Printed {
  const { value, type } = node;
  if (value instanceof Bytes && type === "hybrid") return printed(`0x${hexOf(value.bytes)}`);
  if (value instanceof Bytes && type === "binary") return printed(`_binary x'${hexOf(value.bytes)}'`);
  if (value instanceof Decimal && (isWhole(value) || value.coefficient < 0n))
    return printed(String(value), value.coefficient < 0n ? power.sign : atom);
  return plainLiteral(node);
}

const named = Object.fromEntries(Object.entries(words).map(([, [name, strength]]) => [name, strength]));

const table = {
  separator: "," as const,
  infix: lookup({ ...infixPower, ...named }),
  prefix: lookup({ "-": power.sign, "+": power.sign, "~": power.sign, not: power.not }),
  foldsSign: ({ value }: Literal) =>
    !isFailure(value) &&
    (typeof value === "bigint" || value instanceof Decimal) &&
    /^\d+$/.test(String(value)) &&
    BigInt(String(value)) > int64,
  literal,
  name: ({ name }: Name) => columnText(name),
  forms: lookup<Form>({
    ...sqlForms({ is: power.comparison, predicate: power.predicate, comparison: power.comparison }),
    regexp: form(power.predicate, "$1> [not ]regexp $2>"),
    ...Object.fromEntries(Object.keys(collations).map((name) => [`collate ${name}`, form(power.collate, `$1< collate ${name}`)])),
  }),
  calls: lookup<Form>({
    ...wordedCalls(calls, power.predicate, aggregates),
    "char using": form(atom, "char($* using utf8mb4)"),
  }),
  kinds: {
    ...sqlKinds,
    cast: (printer: Printer, node: Cast) =>
      node.type.endsWith(" literal")
        ? printed(
            group(node.type === "datetime literal" ? "timestamp" : node.type.split(" ")[0], " ", printer.argument(node.operand)),
          )
        : castText(printer, "cast", node, node.type),
  },
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
