import type { Expression, Parser } from "../../syntax/index.ts";
import { isQuantified, quantified, readIn } from "../shared/queries.ts";
import { not, readBetween } from "../shared/sql-forms.ts";

/** How tightly operators bind (PostgreSQL documentation, 4.1.6). */
export const power = {
  or: 5,
  and: 10,
  not: 15,
  is: 20,
  comparison: 25,
  like: 30,
  other: 35,
  sum: 40,
  product: 45,
  "^": 50,
  collate: 55,
  sign: 60,
  "[": 70,
  "::": 80,
} as const;

/** x LIKE p [ESCAPE e], ILIKE, SIMILAR TO, IN (…), BETWEEN a AND b */
export function readLike(parser: Parser, left: Expression, negation: "" | "not " = ""): Expression {
  const word = parser.next();
  const { range } = word;
  const call = (name: string, args: Expression[]) => parser.call(name, range, args, "operator", left.range.start);
  if (word.value === "in") return readIn(parser, left, range);
  if (word.value === "between") return readBetween(parser, left, range, power.like);
  if (word.value === "similar") parser.expect("to");
  if (isQuantified(parser, -1)) return quantified(parser, left, negation + word.value, range);
  const args = [left, parser.expression(power.like)];
  if (parser.takeWords("escape")) args.push(parser.expression(power.like));
  return call(word.value === "similar" ? "similar to" : word.value, args);
}

/** x IS [NOT] NULL | TRUE | FALSE | UNKNOWN | DISTINCT FROM y | [form] NORMALIZED */
export function readIs(parser: Parser, left: Expression): Expression {
  const { range } = parser.next();
  const negative = parser.takeWords("not");
  const call = (name: string, args: Expression[]) => parser.call(name, range, args, "operator", left.range.start);
  const finish = (name: string, ...args: Expression[]) => {
    const result = call(name, [left, ...args]);
    return negative ? not(parser, result, range) : result;
  };
  if (parser.takeWords("null")) return call(negative ? "is not null" : "is null", [left]);
  for (const word of ["true", "false", "unknown"]) if (parser.takeWords(word)) return finish(`is ${word}`);
  if (parser.takeWords("distinct")) {
    parser.expect("from");
    const result = finish("is distinct from", parser.expression(power.is));
    if (parser.atWords("is")) parser.expected("brackets around one of the comparisons");
    return result;
  }
  const form = /^nfk?[cd]$/i.test(parser.token.source) ? parser.next().value : "nfc";
  if (parser.takeWords("normalized")) return finish("is normalized", { kind: "literal", value: form, type: "text", range });
  return parser.missing('"null", "true", "false", "unknown", "distinct from" or "normalized"');
}
