import {
  type Cast,
  type Expression,
  type Form,
  type ListExpression,
  type Literal,
  type Printed,
  type Printer,
  type Query,
  atom,
  bracketed,
  form,
  group,
  isRow,
  line,
  nest,
  printed,
  soft,
} from "../../syntax/index.ts";
import type { FunctionRow } from "../row.ts";
import { Bytes, Decimal, Double, type Value, hexOf, isFailure } from "../../values/index.ts";

/** Forms of SQL that several dialects write alike; `power` is how tightly IS and the predicates bind. */
export const sqlForms = (power: {
  readonly is: number;
  readonly predicate: number;
  readonly comparison: number;
}): Readonly<Record<string, Form>> => ({
  "compare any": form(power.comparison, "$1> $3w any $2"),
  "compare all": form(power.comparison, "$1> $3w all $2"),
  case: { print: (printer, parts) => printed(caseText(printer, parts)) },
  coalesce: form(atom, "coalesce($*)"),
  nullif: form(atom, "nullif($*)"),
  if: form(atom, "if($*)"),
  between: form(power.predicate, "$1> [not ]between $2> and $3>"),
  "between symmetric": form(power.predicate, "$1> [not ]between symmetric $2> and $3>"),
  in: form(power.predicate, "$1> [not ]in ($*)"),
  like: form(power.predicate, "$1> [not ]like $2>{ escape $3>}"),
  ilike: form(power.predicate, "$1> [not ]ilike $2>{ escape $3>}"),
  "similar to": form(power.predicate, "$1> [not ]similar to $2>{ escape $3>}"),
  "in query": form(power.predicate, "$1> [not ]in $2>"),
  "is null": form(power.is, "$1> is null"),
  "is not null": form(power.is, "$1> is not null"),
  "is true": form(power.is, "$1> is [not ]true"),
  "is false": form(power.is, "$1> is [not ]false"),
  "is unknown": form(power.is, "$1> is [not ]unknown"),
  "is distinct from": form(power.is, "$1> is [not ]distinct from $2>"),
});

/** COUNT(*), and a dialect's aggregates with DISTINCT. */
export const aggregateCalls = (aggregates: readonly FunctionRow[]): Readonly<Record<string, Form>> => ({
  count: { print: (printer, args) => printed(args.length === 0 ? "count(*)" : ["count", printer.list("(", args, ")")]) },
  ...Object.fromEntries(aggregates.map(({ name }) => [`${name} distinct`, form(atom, `${name}(distinct $*)`)])),
});

/** The calls of a dialect that are not written in the plain way; `inner` is how tightly what stands before IN binds. */
export const wordedCalls = (
  calls: Readonly<Record<string, string>>,
  inner: number,
  aggregates: readonly FunctionRow[],
): Readonly<Record<string, Form>> => ({
  ...aggregateCalls(aggregates),
  exists: form(atom, "exists $1"),
  ...Object.fromEntries(Object.entries(calls).map(([name, template]) => [name, form(atom, template, inner)])),
});

/** CASE from what follows it: a subject where the number of parts says that there is one, pairs, and what ELSE gives. */
function caseText(printer: Printer, [subject, ...rest]: readonly Expression[]) {
  return branches(printer, rest, printer.argument(subject));
}

function branches(printer: Printer, parts: readonly Expression[], subject?: Printed["doc"]) {
  const lines = [];
  for (let i = 0; i + 1 < parts.length; i += 2)
    lines.push([line, group("when ", printer.argument(parts[i]), nest(line, "then ", printer.argument(parts[i + 1])))]);
  if (parts.length % 2 === 1) lines.push([line, "else ", printer.argument(parts[parts.length - 1])]);
  return group("case", subject === undefined ? "" : [" ", subject], nest(...lines), line, "end");
}

/** The kinds of node that SQL dialects write alike. */
export const sqlKinds = {
  choice: (printer: Printer, node: Extract<Expression, { kind: "choice" }>): Printed =>
    printed(
      branches(
        printer,
        node.branches.flatMap(({ condition, result }) => [condition, result]).concat(node.otherwise ? [node.otherwise] : []),
      ),
    ),
  cast: (printer: Printer, node: Cast): Printed => castText(printer, "cast", node, node.type),
  list: (printer: Printer, { items }: ListExpression): Printed => rowText(printer, items),
  query: (printer: Printer, { form, rows, condition }: Query): Printed => {
    const items = (row: Expression) => (isRow(row) ? row.items : [row]);
    const written =
      form === "select"
        ? items(rows[0]).map((item) => printer.argument(item))
        : rows.map((row) => printer.list("(", items(row), ")"));
    const filter = condition ? [line, group("where ", printer.argument(condition))] : "";
    return printed(group("(", nest(soft, form, " ", bracketed("", written, [",", line], ""), filter), soft, ")"));
  },
};

/** The values of a row between brackets; with a word before them where there is only one. */
export const rowText = (printer: Printer, items: readonly Expression[]): Printed =>
  printed([items.length === 1 ? "row" : "", printer.list("(", items, ")")]);

/** CAST(x AS type), or another word for it. */
export const castText = (printer: Printer, word: string, { operand }: Cast, type: string): Printed =>
  printed(group(word, "(", nest(printer.argument(operand), line, "as ", type), ")"));

/** Literals of SQL: numbers as `numberText` has them, bytes as x'…', texts as the dialect quotes them. */
export const sqlLiteral =
  (quoted: (text: string) => string, signPower: number) =>
  ({ value }: Literal): Printed => {
    if (value === null) return printed("null");
    if (typeof value === "boolean") return printed(String(value));
    if (typeof value === "string") return printed(quoted(value));
    if (value instanceof Bytes) return printed(`x'${hexOf(value.bytes)}'`);
    const text = numberText(value);
    return printed(text, text.startsWith("-") ? signPower : atom);
  };

/** A number so that it reads back as one of its kind: a decimal has a point, a double an exponent. */
export function numberText(value: Value): string {
  if (value instanceof Double) return Number.isFinite(value.value) ? value.value.toExponential() : beyond;
  // A number beyond the dialect's range stands for the error that it is.
  if (isFailure(value)) return beyond;
  return value instanceof Decimal && value.scale === 0 ? `${String(value)}.` : String(value);
}

const beyond = "9e999";
