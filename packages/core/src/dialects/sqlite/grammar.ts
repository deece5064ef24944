import {
  type Expression,
  type ParseLimits,
  type Parsed,
  type Parser,
  type Token,
  isRow,
  parseWith,
  ungrouped,
} from "../../syntax/index.ts";
import { type TextRange, Bytes, Double, bytesOfHex, integer, lookup } from "../../values/index.ts";
import { readIn } from "../shared/queries.ts";
import { type Special, castForm, constant, form, literal, not, span, typeSizes } from "../shared/sql-forms.ts";
import { between, sqlGrammar } from "../shared/sql-grammar.ts";
import { columnText, reserved, sqliteRules } from "./lexis.ts";

/** How tightly operators bind (SQLite documentation, "Operators"). */
export const power = {
  or: 5,
  and: 10,
  not: 15,
  equality: 20,
  comparison: 25,
  bits: 30,
  sum: 35,
  product: 40,
  joined: 45,
  collate: 50,
  sign: 55,
};

export const infixPower: Readonly<Record<string, number>> = lookup({
  "=": power.equality,
  "==": power.equality,
  "<>": power.equality,
  "!=": power.equality,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "&": power.bits,
  "|": power.bits,
  "<<": power.bits,
  ">>": power.bits,
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
  "/": power.product,
  "%": power.product,
  "||": power.joined,
});

function numberLiteral(parser: Parser, { source, range }: Token): Expression {
  parser.next();
  const digits = source.replaceAll("_", "");
  if (/^0x/i.test(digits)) {
    if (digits.replace(/^0x0*/i, "").length > 16) parser.report("bad-number", range, { text: source });
    return literal(integer(BigInt.asIntN(64, BigInt(digits))), "none", range);
  }
  if (/^\d+$/.test(digits) && BigInt(digits) <= 9223372036854775807n) return literal(integer(BigInt(digits)), "none", range);
  return literal(new Double(Number(digits)), "none", range);
}

const isChance = (node: Expression): boolean =>
  node.kind === "literal" && node.value instanceof Double && node.value.value >= 0 && node.value.value <= 1;

/** The words of a type, which may stand in quotes of any kind and be empty. */
function typeName(parser: Parser): { type: string; typeRange: TextRange } {
  const { start } = parser.token.range;
  const words: string[] = [];
  while (["name", "quoted name", "text"].includes(parser.token.kind)) words.push(parser.next().value.toLowerCase());
  if (words.length === 0) parser.expected("a type");
  const type = words.join(" ");
  return { type: type + typeSizes(parser), typeRange: span(parser, start) };
}

const specials: Readonly<Record<string, Special>> = lookup({
  true: constant(1, "none", "true"),
  false: constant(0, "none", "false"),
  null: constant(null, "none"),
  cast: castForm(typeName),
  raise: form((parser) => parser.uncovered("RAISE")),
  likelihood: form((parser, open, token) => {
    const args = parser.arguments(")", open);
    if (args.length === 2 && !isChance(args[1]))
      parser.report("bad-literal", args[1].range, {
        problem: "a likelihood is written as a number between 0.0 and 1.0, with its point",
      });
    return parser.call("likelihood", token.range, args, "function");
  }),
});

/** x IS [NOT] [DISTINCT FROM] y; for TRUE and FALSE it asks for the truth. */
function readIs(parser: Parser, left: Expression): Expression {
  const { range } = parser.next();
  let negative = parser.takeWords("not");
  if (parser.takeWords("distinct")) {
    parser.expect("from");
    negative = !negative;
  }
  const right = parser.expression(power.equality);
  // An empty list makes of IN the word FALSE, and after IS that word asks for the truth.
  const inner = ungrouped(right);
  const word = inner.written?.form;
  if (inner.kind === "literal" && word !== undefined) {
    const truth = parser.call(word === "true" ? "is true" : "is false", range, [left], "operator", left.range.start);
    return negative ? not(parser, truth, range) : truth;
  }
  const same = parser.call("is", range, [left, right], "operator", left.range.start);
  return negative ? not(parser, same, range) : same;
}

/** x IN (…), whose items are compared without their affinity, and which may have none. */
function readItems(parser: Parser, left: Expression, range: TextRange): Expression {
  if (parser.at("(") && parser.ahead(1).value === ")") {
    parser.next();
    parser.next();
    return { ...literal(0, "none", span(parser, range.start)), written: { form: "in", parts: [left] } };
  }
  return readIn(parser, left, range, (item) =>
    isRow(item) ? item : parser.call("+", item.range, [item], "operator", item.range.start),
  );
}

const json = { power: power.joined, read: (parser: Parser) => parser.uncovered("JSON") };
const parameter: Special = (parser) => parser.uncovered("parameters");
const escaped = { then: "escape", thenPower: power.bits } as const;

const grammar = sqlGrammar({
  associative: { and: "always", or: "always", "||": "always" },
  rules: sqliteRules,
  power: { ...power, is: power.equality, predicate: power.equality },
  infix: infixPower,
  renamed: { "==": "=", "!=": "<>" },
  signs: { "-": ["-", power.sign], "+": ["+", power.sign], "~": ["~", power.sign] },
  signed(parser, sign, { range }) {
    const isLeast = sign.value === "-" && parser.source.slice(range.start, range.end) === "9223372036854775808";
    return isLeast ? literal(-9223372036854775808n, "none", span(parser, sign.range.start)) : undefined;
  },
  marks: { "?": parameter, ":": parameter, "@": parameter, $: parameter },
  literals: {
    number: numberLiteral,
    text(parser, { value, range }) {
      parser.next();
      return literal(value, "none", range);
    },
    variable(parser, { value, range }) {
      parser.next();
      return literal(new Bytes(bytesOfHex(value) ?? new Uint8Array()), "blob", range);
    },
  },
  specials,
  reserved,
  columnText,
  qualifies: true,
  callsQuoted: true,
  // A name in double quotes that is no column is a text (documentation, "Quirks", 8).
  quoted: ({ value, source, range }) => ({
    kind: "name",
    name: value,
    range,
    ...(source.startsWith('"') && { fallback: { kind: "literal", value, type: "none", range } }),
  }),
  follows: { "->": () => json, "->>": () => json },
  nullTests: "not null",
  predicates: {
    like: escaped,
    glob: escaped,
    regexp: escaped,
    match: escaped,
    in: readItems,
    between: between(power.equality),
  },
  is: readIs,
  collation: (parser) => parser.next().value.toLowerCase(),
});

export const parseSqlite = (source: string, limits?: ParseLimits): Parsed => parseWith(grammar, source, limits);
