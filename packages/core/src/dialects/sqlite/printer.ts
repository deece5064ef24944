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
  printWith,
  printed,
} from "../../syntax/index.ts";
import { lookup } from "../../values/index.ts";
import { aggregateCalls, castText, sqlForms, sqlKinds, sqlLiteral } from "../shared/sql-printer.ts";
import { aggregates } from "./aggregates.ts";
import { infixPower, power } from "./grammar.ts";
import { columnText, reserved, textLiteral } from "./lexis.ts";

const plainLiteral = sqlLiteral(textLiteral, power.sign);

/** An integer below zero is written in base 16: with a sign it would be the negative of a number. */
function literal(node: Literal): Printed {
  const { value } = node;
  if ((typeof value !== "number" && typeof value !== "bigint") || value >= 0) return plainLiteral(node);
  if (value === least) return printed(String(value), power.sign);
  return printed(`0x${BigInt.asUintN(64, BigInt(value)).toString(16)}`);
}

const least = -9223372036854775808n;

const table = {
  separator: "," as const,
  infix: lookup({ ...infixPower, and: power.and, or: power.or }),
  prefix: lookup({ "-": power.sign, "+": power.sign, "~": power.sign, not: power.not }),
  literal,
  name: ({ name, fallback }: Name) => (fallback ? `"${name.replaceAll('"', '""')}"` : columnText(name, "`")),
  forms: lookup<Form>({
    ...sqlForms({ is: power.equality, predicate: power.equality, comparison: power.comparison }),
    true: { print: () => printed("true") },
    false: { print: () => printed("false") },
    like: form(power.equality, "$1> [not ]like $2>{ escape $3>}", power.bits),
    "is null": form(power.equality, "$1> isnull"),
    "is not null": form(power.equality, "$1> notnull"),
    regexp: form(power.equality, "$1> [not ]regexp $2>"),
    match: form(power.equality, "$1> [not ]match $2>"),
    glob: form(power.equality, "$1> [not ]glob $2>"),
    is: form(power.equality, "$1> is [not ]$2>"),
    ...Object.fromEntries(
      ["binary", "nocase", "rtrim"].map((name) => [`collate ${name}`, form(power.collate, `$1< collate ${name}`)]),
    ),
  }),
  calls: lookup<Form>({ ...aggregateCalls(aggregates), exists: form(atom, "exists $1") }),
  kinds: {
    ...sqlKinds,
    cast: (printer: Printer, node: Cast) => {
      const [, name, sizes] = /^(.*?)(\([-+0-9., ]*\))?$/s.exec(node.type)!;
      const isPlain = /^[a-z_]\w*(?: [a-z_]\w*)*$/.test(name) && !name.split(" ").some((word) => reserved.has(word));
      return castText(printer, "cast", node, (isPlain ? name : `"${name.replaceAll('"', '""')}"`) + (sizes ?? ""));
    },
  },
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
