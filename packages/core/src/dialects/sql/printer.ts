import {
  type Expression,
  type Form,
  type Literal,
  type Name,
  type Printer,
  type Query,
  form,
  group,
  line,
  nest,
  printWith,
  printed,
  soft,
} from "../../syntax/index.ts";
import { lookup } from "../../values/index.ts";
import { sqlForms, sqlKinds, sqlLiteral, wordedCalls } from "../shared/sql-printer.ts";
import { aggregates } from "./aggregates.ts";
import { calls } from "./calls.ts";
import { infixPower, power } from "./grammar.ts";
import { reserved, textLiteral } from "./lexis.ts";

/** What is not quoted is read in upper case. */
const named = ({ name }: Name): string =>
  /^[A-Z_][A-Z0-9_]*$/.test(name) && !reserved.has(name.toLowerCase()) ? name.toLowerCase() : `"${name.replaceAll('"', '""')}"`;

/** A function of patterns: pattern IN text, and what is said of it unless it is what goes without saying. */
const regexCall = (name: string, words: readonly (readonly [word: string, slot: number, unsaid?: unknown])[]): Form => ({
  print: (printer, args) => {
    const operand = (slot: number) => printer.operand(args[slot], power.comparison);
    const said = ([, slot, unsaid]: readonly [string, number, unknown?]) => {
      const arg = args[slot];
      return arg !== undefined && !(arg.kind === "literal" && arg.value === unsaid);
    };
    const [flags, ...after] = words.map((each) => (said(each) ? [line, each[0], operand(each[1])] : ""));
    const turn = name === "position_regex" && (args[6] as Literal).value === 1 ? "after " : "";
    return printed(group(name, "(", nest(soft, turn, operand(1), flags, line, "in ", operand(0), ...after), soft, ")"));
  },
});

const table = {
  separator: "," as const,
  infix: lookup({ ...infixPower, and: power.and, or: power.or }),
  unchained: power.comparison,
  prefix: lookup({ "-": power.sign, "+": power.sign, not: power.not }),
  literal: sqlLiteral(textLiteral, power.sign),
  name: named,
  forms: lookup<Form>({
    ...sqlForms({ is: power.is, predicate: power.comparison, comparison: power.comparison }),
    unknown: { print: () => printed("unknown") },
    like_regex: form(power.comparison, "$1> [not ]like_regex $2>{ flag $3>}"),
    "is normalized": form(power.is, "$1> is [not ]$2w normalized"),
  }),
  calls: lookup<Form>({
    ...wordedCalls(calls, power.comparison, aggregates),
    occurrences_regex: regexCall("occurrences_regex", [
      ["flag ", 2, ""],
      ["from ", 3, 1],
    ]),
    substring_regex: regexCall("substring_regex", [
      ["flag ", 2, ""],
      ["from ", 3, 1],
      ["occurrence ", 4, 1],
      ["group ", 5, 0],
    ]),
    position_regex: regexCall("position_regex", [
      ["flag ", 2, ""],
      ["from ", 3, 1],
      ["occurrence ", 4, 1],
      ["group ", 5, 0],
    ]),
    translate_regex: regexCall("translate_regex", [
      ["flag ", 3, ""],
      ["with ", 2, ""],
      ["from ", 4, 1],
      ["occurrence ", 5],
    ]),
  }),
  kinds: {
    ...sqlKinds,
    query: (printer: Printer, query: Query) => sqlKinds.query(printer, query.condition ? query : { ...query, form: "values" }),
  },
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
