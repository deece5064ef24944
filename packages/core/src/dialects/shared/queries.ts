import { type Expression, type Infix, type Parser, type Query, type Token, halved } from "../../syntax/index.ts";
import type { TextRange } from "../../values/index.ts";
import { type Special, form, span } from "./sql-forms.ts";

/** Row values and queries without a table (ISO 9075-2, 7.1 and 7.3), as the dialects of SQL read them. */

/** What stands between brackets: one expression, the values of a row, or a query. */
export function readBracketed(parser: Parser): Expression {
  const open = parser.next();
  const { start } = open.range;
  if (atQuery(parser)) return readQuery(parser, open);
  const inner = parser.expression();
  if (parser.take(",")) {
    const items = [inner, ...parser.arguments(")", open)];
    return { kind: "list", form: "row", items, range: span(parser, start) };
  }
  parser.close(")", open);
  return { kind: "group", inner, range: span(parser, start) };
}

/** ROW(a, b) */
export const rowForm: Special = form((parser, open, token) => {
  const items = parser.arguments(")", open);
  if (items.length === 0) return parser.uncovered("rows without a value", token.range.start);
  return { kind: "list", form: "row", items, range: span(parser, token.range.start) };
});

/** EXISTS (query) */
export const existsForm: Special = form((parser, open, token) => {
  if (!atQuery(parser)) parser.expected('"select" or "values"');
  return parser.call("exists", token.range, [readQuery(parser, open)], "function");
});

/** Whether a query begins here, or so many tokens ahead. */
export const atQuery = (parser: Parser, ahead = 0): boolean => {
  const { kind, source } = parser.ahead(ahead);
  return kind === "name" && ["select", "values", "with", "from"].includes(source.toLowerCase());
};

/** SELECT a, b [WHERE condition] or VALUES (a, b), …, the bracket having been taken at `open`. */
export function readQuery(parser: Parser, open: Token): Expression {
  const { start } = open.range;
  const query = parser.takeWords("values") ? readValues(parser) : parser.takeWords("select") ? readSelect(parser) : undefined;
  if (!query || (!parser.at(")") && parser.token.kind !== "end"))
    return parser.uncovered("queries with more than SELECT … WHERE … or VALUES …", start);
  parser.close(")", open);
  return { kind: "query", ...query, range: span(parser, start) };
}

type Read = Pick<Query, "form" | "rows" | "condition">;

function readSelect(parser: Parser): Read {
  const { start } = parser.token.range;
  const items: Expression[] = [];
  do {
    items.push(parser.expression());
    if (parser.takeWords("as")) parser.next();
  } while (parser.take(","));
  const condition = parser.takeWords("where") ? parser.expression() : undefined;
  return { form: "select", rows: [rowOf(parser, items, start)], ...(condition && { condition }) };
}

function readValues(parser: Parser): Read {
  const rows: Expression[] = [];
  do {
    const open = parser.token;
    if (!parser.expect("(")) break;
    rows.push(rowOf(parser, parser.arguments(")", open), open.range.start));
  } while (parser.take(","));
  return { form: "values", rows };
}

/** One value by itself, several as a row. */
const rowOf = (parser: Parser, items: readonly Expression[], start: number): Expression =>
  items.length === 1 ? items[0] : { kind: "list", form: "row", items, range: span(parser, start) };

/** Whether ANY, SOME or ALL and a bracket follow the token so many places ahead. */
export const isQuantified = (parser: Parser, ahead: number): boolean =>
  ["any", "some", "all"].includes(parser.ahead(ahead + 1).value.toLowerCase()) && parser.ahead(ahead + 2).value === "(";

/** x = ANY (list or query), x < ALL (…), the relation having been taken (ISO 9075-2, 8.9). */
export function quantified(parser: Parser, left: Expression, relation: string, range: TextRange): Expression {
  const quantifier = parser.next().value.toLowerCase() === "all" ? "all" : "any";
  const open = parser.next();
  const [list] = atQuery(parser) ? [readQuery(parser, open)] : parser.arguments(")", open);
  const named: Expression = { kind: "literal", value: relation, type: "text", range };
  return parser.call(`compare ${quantifier}`, range, [left, list ?? parser.missing(), named], "operator", left.range.start);
}

/** A comparison where ANY or ALL of a query may stand on its right side; `refuse` says what a list in its place is. */
export function comparison(parser: Parser, name: string, plain: Infix, refuse = wantsQuery): Infix {
  if (!isQuantified(parser, 0)) return plain;
  const read = (p: Parser, left: Expression): Expression => {
    const { range } = p.next();
    if (!atQuery(p, 2)) refuse(p);
    return quantified(p, left, name, range);
  };
  return { ...plain, read };
}

const wantsQuery = (parser: Parser): void => parser.expected('a query with "select" or "values" after it');

/** The name of a call whose arguments come next: with DISTINCT where that stands first; COUNT(*) has no arguments. */
export function distinctName(parser: Parser, name: string): string {
  if (name === "count") parser.take("*");
  return parser.takeWords("distinct") ? `${name} distinct` : name;
}

/** A call that nothing follows but what is covered. */
export const aggregated = (parser: Parser, call: Expression): Expression =>
  ["over", "filter", "within"].some((word) => parser.atWords(word))
    ? parser.uncovered("window functions, and aggregates with FILTER or WITHIN GROUP", call.range.start)
    : call;

/** x IN (a, b, …) or IN (query), the word having been taken; `item` may change how an item of a list is compared. */
export function readIn(
  parser: Parser,
  left: Expression,
  range: TextRange,
  item: (expression: Expression) => Expression = (expression) => expression,
): Expression {
  const call = (name: string, args: Expression[]) => parser.call(name, range, args, "operator", left.range.start);
  const open = parser.token;
  if (!parser.expect("(")) return call("=", [left, parser.missing()]);
  if (atQuery(parser)) return call("in query", [left, readQuery(parser, open)]);
  const items = parser.arguments(")", open);
  const tests = items.map((each): Expression => ({
    kind: "call",
    name: "=",
    nameRange: range,
    args: [left, item(each)],
    notation: "operator",
    range: each.range,
  }));
  if (tests.length === 0) return parser.missing("a value in the list");
  return { ...halved(tests, (a, b) => call("or", [a, b])), written: { form: "in", parts: [left, ...items] } };
}
