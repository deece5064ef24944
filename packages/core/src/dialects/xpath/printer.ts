import {
  type Apply,
  type Binding,
  type Cast,
  type Choice,
  type Doc,
  type Expression,
  type Filter,
  type Form,
  type FunctionReference,
  type Lambda,
  type ListExpression,
  type Literal,
  type Name,
  type Printed,
  type Printer,
  bracketed,
  form,
  group,
  line,
  nest,
  printWith,
  printed,
} from "../../syntax/index.ts";
import { lookup } from "../../values/index.ts";
import { numberText } from "../shared/sql-printer.ts";
import { ncName, power, symbols, words } from "./operators.ts";

export const textLiteral = (text: string): string => `'${text.replaceAll("'", "''")}'`;

const key = new RegExp(`^${ncName}$`, "u");

/** base ? key: a name, a whole number, or an expression in brackets. */
const lookUp: Form = {
  print: (printer, [base, at]) => {
    const isPlain = at.kind === "literal" && (at.type === "text" ? key.test(String(at.value)) : at.type === "integer");
    const written = isPlain ? String(at.value) : group("(", printer.operand(at, 0), ")");
    return printed([printer.operand(base, power.postfix - 0.5), "?", written], power.postfix);
  },
};

/** An operator with a type to its right. */
const typed = (words: string, strength: number): Form => form(strength, `$1> ${words} $2w`);

/** A function of what is left open: the parameters that a partial application made stand as `?`. */
const isOpen = (name: string): boolean => name.startsWith("$#");

const kinds = {
  list: (printer: Printer, { form: kind, items }: ListExpression): Printed => {
    if (kind === "array") return printed(printer.list("[", items, "]"));
    if (kind === "map") {
      const entries = items.flatMap((item, i): Doc[] =>
        i % 2 === 0 ? [[printer.argument(item), ": ", printer.argument(items[i + 1])]] : [],
      );
      return printed(["map ", bracketed("{", entries, [",", line], "}")]);
    }
    if (items.length === 0) return printed("()");
    return printed(group(...items.flatMap((item, i): Doc[] => [i === 0 ? "" : [",", line], printer.argument(item)])), power[","]);
  },
  choice: (printer: Printer, { branches: [{ condition, result }], otherwise }: Choice): Printed =>
    printed(
      group(
        group("if (", nest(printer.operand(condition, 0)), ")"),
        nest(line, "then ", printer.argument(result), line, "else ", printer.argument(otherwise!)),
      ),
      power.single,
    ),
  binding: (printer: Printer, { form: word, variable, source, body }: Binding): Printed => {
    if (word === "each")
      return printed(group(printer.operand(source, power["!"] - 0.5), " ! ", printer.operand(body, power["!"])), power["!"]);
    const link = word === "let" ? " := " : " in ";
    const then = word === "some" || word === "every" ? "satisfies " : "return ";
    return printed(
      group(word, " ", variable, link, printer.argument(source), nest(line, then, printer.argument(body))),
      power.single,
    );
  },
  lambda: (printer: Printer, { parameters, body }: Lambda): Printed =>
    parameters.length > 0 && parameters.every(isOpen)
      ? printer.node(body)
      : printed(group("function(", parameters.join(", "), ") {", nest(line, printer.operand(body, 0)), line, "}")),
  filter: (printer: Printer, { base, predicate }: Filter): Printed =>
    printed(
      [printer.operand(base, power.postfix - 0.5), bracketed("[", [printer.operand(predicate, 0)], "", "]")],
      power.postfix,
    ),
  apply: (printer: Printer, { callee, args }: Apply): Printed =>
    printed([printer.operand(callee, power.postfix - 0.5), printer.list("(", args, ")")], power.postfix),
  "function-reference": (_: Printer, { name, arity }: FunctionReference): Printed => printed(`${name}#${arity}`),
  cast: (printer: Printer, { operand, type }: Cast): Printed =>
    /^xs:\w+\?$/.test(type)
      ? printed([type.slice(0, -1), printer.list("(", [operand], ")")])
      : printed([printer.operand(operand, power.cast), " cast as ", type], power.cast),
};

const table = {
  separator: "," as const,
  argumentPower: power[","],
  infix: lookup({ ...symbols, ...words }),
  unchained: power.comparison,
  prefix: lookup({ "-": power.sign, "+": power.sign }),
  literal: ({ value }: Literal) => printed(typeof value === "string" ? textLiteral(value) : numberText(value)),
  name: ({ name }: Name) => (isOpen(name) ? "?" : name),
  forms: lookup<Form>({
    "instance of": typed("instance of", power["instance of"]),
    "treat as": typed("treat as", power["instance of"]),
    "castable as": typed("castable as", power.castable),
    "array of": {
      print: (printer, items) =>
        printed(group("array {", nest(line, ...items.map((item) => printer.operand(item, 0))), line, "}")),
    },
    "look up": lookUp,
    "look up all": form(power.postfix, "$1<?*"),
  }),
  calls: lookup<Form>({}),
  kinds,
};

export const print = (tree: Expression, width?: number): string => printWith(table, tree, width);
