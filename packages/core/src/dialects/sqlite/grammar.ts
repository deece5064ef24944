import {
  type Expression,
  type Grammar,
  type Infix,
  type ParseLimits,
  type Parsed,
  type Parser,
  type Token,
  isRow,
  parseWith,
  ungrouped,
} from "../../syntax/index.ts";
import { type TextRange, Bytes, Double, bytesOfHex, integer, lookup } from "../../values/index.ts";
import {
  type Special,
  castForm,
  constant,
  form,
  literal,
  not,
  readBetween,
  readCase,
  refusedWord,
  span,
  typeSizes,
} from "../shared/sql-forms.ts";
import { aggregated, distinctName, existsForm, readBracketed, readIn } from "../shared/queries.ts";
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
const renamed: Readonly<Record<string, string>> = lookup({ "==": "=", "!=": "<>" });

const grammar: Grammar = {
  separator: ",",
  associative: { and: "always", or: "always", "||": "always" },
  rules: sqliteRules,
  prefix,
  infix,
};

function prefix(parser: Parser): Expression {
  const { token } = parser;
  const { range } = token;
  if (parser.at("-") || parser.at("+") || parser.at("~")) {
    parser.next();
    if (token.value === "-" && /^9223372036854775808$/.test(parser.token.source)) {
      parser.next();
      return literal(-9223372036854775808n, "none", span(parser, range.start));
    }
    return parser.call(token.source, range, [parser.expression(power.sign)], "operator");
  }
  if (parser.at("(")) return readBracketed(parser);
  switch (token.kind) {
    case "number":
      parser.next();
      return numberLiteral(token.source, parser, token);
    case "text":
      parser.next();
      return literal(token.value, "none", range);
    case "variable":
      parser.next();
      return literal(new Bytes(bytesOfHex(token.value) ?? new Uint8Array()), "blob", range);
    case "quoted name": {
      parser.next();
      if (parser.at("(")) return called(parser, token);
      // A name in double quotes that is no column is a text (documentation, "Quirks", 8).
      const name = { kind: "name", name: token.value, range } as const;
      if (!token.source.startsWith('"')) return name;
      return { ...name, fallback: { kind: "literal", value: token.value, type: "none", range } };
    }
    case "name":
      return named(parser, token);
  }
  if (/^[?:@$]$/.test(token.value)) return parser.uncovered("parameters");
  return parser.missing();
}

function numberLiteral(source: string, parser: Parser, { range }: Token): Expression {
  const digits = source.replaceAll("_", "");
  if (/^0x/i.test(digits)) {
    if (digits.replace(/^0x0*/i, "").length > 16) parser.report("bad-number", range, { text: source });
    return literal(integer(BigInt.asIntN(64, BigInt(digits))), "none", range);
  }
  if (/^\d+$/.test(digits) && BigInt(digits) <= 9223372036854775807n) return literal(integer(BigInt(digits)), "none", range);
  return literal(new Double(Number(digits)), "none", range);
}

function named(parser: Parser, token: Token): Expression {
  const word = token.value.toLowerCase();
  const read = specials[word]?.(parser, token);
  if (read) return read;
  const refused = refusedWord(parser, token, reserved, columnText);
  if (refused) return refused;
  parser.next();
  if (parser.at("(")) return called(parser, token);
  if (parser.at(".")) return parser.uncovered("qualified names; name a column by itself", token.range.start);
  return { kind: "name", name: token.value, range: token.range };
}

function called(parser: Parser, token: Token): Expression {
  const open = parser.next();
  const word = distinctName(parser, token.value.toLowerCase());
  const args = parser.arguments(")", open);
  const call = parser.call(word, token.range, args, "function");
  if (word === "likelihood" && args.length === 2 && !isChance(args[1]))
    parser.report("bad-literal", args[1].range, {
      problem: "a likelihood is written as a number between 0.0 and 1.0, with its point",
    });
  return aggregated(parser, call);
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
  not: (parser, { range }) => {
    parser.next();
    return parser.call("not", range, [parser.expression(power.not)], "operator");
  },
  exists: existsForm,
  case: readCase,
  cast: castForm(typeName),
  raise: form((parser) => parser.uncovered("RAISE")),
});

function infix(parser: Parser): Infix | undefined {
  const { token } = parser;
  if (token.kind === "symbol") {
    const found = infixPower[token.value];
    if (token.value === "->" || token.value === "->>") return { power: power.joined, read: (p) => p.uncovered("JSON") };
    return found === undefined ? undefined : parser.binary(renamed[token.value] ?? token.value, found);
  }
  if (token.kind !== "name") return undefined;
  const word = token.value.toLowerCase();
  switch (word) {
    case "and":
    case "or":
      return parser.binary(word, power[word]);
    case "is":
      return { power: power.equality, read: readIs };
    case "isnull":
    case "notnull":
      return { power: power.equality, read: (p, left) => nullTest(p, left, p.next(), word === "isnull") };
    case "collate":
      return {
        power: power.collate,
        read: (p, left) => {
          const { range } = p.next();
          const { value } = p.next();
          return p.call(`collate ${value.toLowerCase()}`, range, [left], "operator", left.range.start);
        },
      };
    case "not": {
      const next = parser.ahead(1).source.toLowerCase();
      if (next === "null") {
        return { power: power.equality, read: (p, left) => (p.next(), nullTest(p, left, p.next(), false)) };
      }
      return predicates.has(next)
        ? {
            power: power.equality,
            read: (p, left) => {
              const { range } = p.next();
              return not(p, readPredicate(p, left), range);
            },
          }
        : undefined;
    }
  }
  return predicates.has(word) ? { power: power.equality, read: readPredicate } : undefined;
}

const predicates = new Set(["like", "glob", "regexp", "match", "in", "between"]);

const nullTest = (parser: Parser, left: Expression, { range }: Token, positive: boolean): Expression =>
  parser.call(positive ? "is null" : "is not null", range, [left], "operator", left.range.start);

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

/** x LIKE y [ESCAPE e], GLOB, IN (…), BETWEEN a AND b; an item of IN is compared without its affinity. */
function readPredicate(parser: Parser, left: Expression): Expression {
  const { range, value } = parser.next();
  const word = value.toLowerCase();
  if (word === "in" && parser.at("(") && parser.ahead(1).value === ")") {
    parser.next();
    parser.next();
    return { ...literal(0, "none", span(parser, range.start)), written: { form: "in", parts: [left] } };
  }
  if (word === "in")
    return readIn(parser, left, range, (item) =>
      isRow(item) ? item : parser.call("+", item.range, [item], "operator", item.range.start),
    );
  if (word === "between") return readBetween(parser, left, range, power.equality);
  const args = [left, parser.expression(power.equality)];
  if (parser.takeWords("escape")) args.push(parser.expression(power.bits));
  return parser.call(word, range, args, "operator", left.range.start);
}

export const parseSqlite = (source: string, limits?: ParseLimits): Parsed => parseWith(grammar, source, limits);
