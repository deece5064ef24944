import { lookup } from "../../values/index.ts";
import {
  type Expression,
  type Grammar,
  type Infix,
  type ParseLimits,
  type Parsed,
  type Parser,
  type Token,
  parseWith,
  ungrouped,
} from "../../syntax/index.ts";
import type { TextRange } from "../../values/index.ts";
import {
  type Special,
  castForm,
  closed,
  coalesceForm,
  constant,
  extractForm,
  form,
  fromFor,
  literal,
  not,
  nullifForm,
  overlayForm,
  positionForm,
  readCase,
  refusedWord,
  span,
  trimForm,
  typeSizes,
} from "../shared/sql-forms.ts";
import { aggregated, distinctName, existsForm, isQuantified, quantified, readBracketed, rowForm } from "../shared/queries.ts";
import { collations, columnText, postgresqlRules, reserved } from "./lexis.ts";
import { names } from "./coercions.ts";
import { numberLiteral } from "./numbers.ts";
import { power, readIs, readLike } from "./predicates.ts";

export const infixPower: Readonly<Record<string, number>> = {
  "=": power.comparison,
  "<>": power.comparison,
  "!=": power.comparison,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "||": power.other,
  "~": power.other,
  "~*": power.other,
  "!~": power.other,
  "!~*": power.other,
  "~~": power.other,
  "~~*": power.other,
  "!~~": power.other,
  "!~~*": power.other,
  "^@": power.other,
  "@>": power.other,
  "<@": power.other,
  "&&": power.other,
  "&": power.other,
  "|": power.other,
  "#": power.other,
  "<<": power.other,
  ">>": power.other,
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
  "/": power.product,
  "%": power.product,
  "^": power["^"],
};

/** Operators that are the opposite of another, and operators with a second name. */
export const negated: Readonly<Record<string, string>> = { "!~": "~", "!~*": "~*", "!~~": "like", "!~~*": "ilike" };
const renamed: Readonly<Record<string, string>> = { "!=": "<>", "~~": "like", "~~*": "ilike" };

const associative = { and: "always", or: "always", "||": "of plain operands" } as const;
const grammarOf = (version: string): Grammar => ({ separator: ",", associative, rules: postgresqlRules(version), prefix, infix });

function prefix(parser: Parser): Expression {
  const { token } = parser;
  const { range } = token;
  if (parser.at("-") || parser.at("+")) {
    parser.next();
    const operand = parser.expression(power.sign);
    // The sign belongs to the number: 2147483648 has no room in an integer, the least integer has.
    const written = parser.source.slice(operand.range.start, operand.range.end);
    const least = /^(?:2147483648|9223372036854775808)$/.exec(written);
    if (token.source === "-" && least) return numbered(parser, `-${written}`, range.start);
    return parser.call(token.source, range, [operand], "operator");
  }
  for (const sign of ["~", "@", "|/", "||/"])
    if (parser.take(sign)) return parser.call(sign, range, [parser.expression(power.other)], "operator");
  if (parser.at("(")) return readBracketed(parser);
  switch (token.kind) {
    case "number":
      parser.next();
      return numbered(parser, token.source, range.start);
    case "text":
      return text(parser);
    case "quoted name":
      parser.next();
      return { kind: "name", name: token.value, range };
    case "name":
      return named(parser, token);
  }
  return parser.missing();
}

function numbered(parser: Parser, source: string, start: number): Expression {
  const number = numberLiteral(source);
  return number
    ? { kind: "literal", ...number, range: span(parser, start) }
    : parser.uncovered("numbers of so many digits", start);
}

function text(parser: Parser): Expression {
  const { value, range } = parser.next();
  return { kind: "literal", value, type: "unknown", range };
}

function named(parser: Parser, token: Token): Expression {
  const { range } = token;
  const special = specials[token.value];
  if (special) {
    const read = special(parser, token);
    if (read) return read;
  }
  if (typeWords.has(token.value) && isTypedLiteral(parser)) {
    const { type, typeRange } = typeName(parser);
    const operand = text(parser);
    return { kind: "cast", operand, type, typeRange, range: span(parser, range.start) };
  }
  const refused = refusedWord(parser, token, reserved, columnText);
  if (refused) return refused;
  if (parser.ahead(1).kind === "text" && /^[bx]$/i.test(token.source)) return parser.uncovered("bit strings");
  parser.next();
  if (parser.at(".")) return parser.uncovered("qualified names; name a column by itself", range.start);
  const open = parser.token;
  if (!parser.take("(")) return { kind: "name", name: token.value, range };
  if (castNames.has(token.value) && !parser.at(")")) {
    const args = parser.arguments(")", open);
    if (args.length === 1)
      return { kind: "cast", operand: args[0], type: token.value, typeRange: range, range: span(parser, range.start) };
    return parser.call(token.value, range, args, "function");
  }
  const name = variadic.has(token.value) && isVariadic(parser) ? `${token.value} variadic` : distinctName(parser, token.value);
  return aggregated(parser, parser.call(name, range, parser.arguments(")", open), "function"));
}

/** Types whose name before brackets casts: those that are no words of the grammar (4.2.9). */
const castNames = new Set(["text", "bpchar", "name", "int2", "int4", "int8", "float8", "bool", "bytea", "date", "timestamptz"]);

/** Functions that take the items of an array for their last arguments (38.5.6). */
export const variadic = new Set(["concat", "concat_ws", "format"]);

/** Whether VARIADIC stands before the last argument up to the closing bracket. */
function isVariadic(parser: Parser): boolean {
  let depth = 0;
  for (let at = 0; parser.ahead(at).kind !== "end"; at++) {
    const { value, kind } = parser.ahead(at);
    if (kind === "symbol" && /^[([]$/.test(value)) depth++;
    if (kind === "symbol" && /^[)\]]$/.test(value) && --depth < 0) return false;
    if (depth === 0 && kind === "name" && value === "variadic") return true;
  }
  return false;
}

/** Whether a type's name is followed by a literal: `date '…'`, `char(3) '…'`, `double precision '…'`. */
function isTypedLiteral(parser: Parser): boolean {
  let at = 1;
  while (/^(?:precision|varying|with|without|time|zone)$/.test(parser.ahead(at).value)) at++;
  if (parser.ahead(at).value === "(") {
    do at += 2;
    while (parser.ahead(at - 1).kind === "number" && parser.ahead(at).value === ",");
    if (parser.ahead(at++).value !== ")") return false;
  }
  return parser.ahead(at).kind === "text";
}

const typeWords = new Set([
  ...Object.keys(names),
  "double",
  "real",
  "float4",
  "interval",
  "time",
  "timetz",
  "json",
  "jsonb",
  "uuid",
  "xml",
  "inet",
  "point",
]);

/** TypeName : word+ ['(' number [',' number] ')'] ['[' ']'] */
function typeName(parser: Parser): { type: string; typeRange: TextRange } {
  const { start } = parser.token.range;
  if (parser.token.kind !== "name" && parser.token.kind !== "quoted name") parser.expected("a type");
  let type = parser.token.kind === "quoted name" ? `"${parser.token.value}"` : parser.token.value;
  parser.next();
  if (type === "double" && parser.takeWords("precision")) type = "double precision";
  if (type === "character" && parser.takeWords("varying")) type = "varchar";
  type += typeSizes(parser);
  for (const zone of ["with", "without"]) if (parser.takeWords(zone, "time", "zone")) type += zone === "with" ? "tz" : "";
  // The size of an array type says nothing (8.15.1).
  while (parser.at("[") && (parser.ahead(1).value === "]" || parser.ahead(2).value === "]")) {
    parser.next();
    if (parser.token.kind === "number") parser.next();
    parser.expect("]");
    type += "[]";
  }
  if (
    /^(?:"char"|time|timetz|interval|json|jsonb|xml|uuid|inet|cidr|macaddr|money|bit|varbit|oid|regclass|tsvector|tsquery|int2vector|oidvector|regproc|regtype|real|float4|point|box)(?:\(|\[|$)/i.test(
      type,
    )
  )
    parser.uncovered(`the type ${type}`, start);
  return { type, typeRange: span(parser, start) };
}

const specials: Readonly<Record<string, Special>> = lookup({
  // Before the last argument of a call that takes any number of them.
  variadic: (parser) => {
    parser.next();
    return parser.expression();
  },
  true: constant(true, "boolean"),
  false: constant(false, "boolean"),
  null: constant(null, "unknown"),
  not: (parser, { range }) => {
    parser.next();
    return parser.call("not", range, [parser.expression(power.not)], "operator");
  },
  case: readCase,
  cast: castForm(typeName),
  array: (parser, token) => {
    if (parser.ahead(1).value !== "[") return undefined;
    parser.next();
    const open = parser.next();
    const isNested = parser.at("[");
    const items = isNested ? [] : parser.arguments("]", open);
    if (isNested || items.some((item) => ungrouped(item).kind === "list"))
      return parser.uncovered("arrays of several dimensions", token.range.start);
    return { kind: "list", form: "list", items, range: span(parser, token.range.start) };
  },
  // substring(s from p for n), substring(s for n), substring(s similar p escape e), substring(s, p, n)
  substring: form((parser, open, token) => {
    const operand = parser.expression();
    if (parser.takeWords("similar")) {
      const pattern = parser.expression();
      parser.expect("escape");
      return closed(parser, open, token, "substring similar", [operand, pattern, parser.expression()]);
    }
    const { from: given, count } = fromFor(parser);
    if (!given && !count) {
      const rest = parser.take(",") ? parser.arguments(")", open) : (parser.close(")", open), []);
      return parser.call(token.value, token.range, [operand, ...rest], "function");
    }
    const from = given ?? literal(1, "integer", span(parser, parser.lastEnd));
    const isPattern = from.kind === "literal" && typeof from.value === "string" && count !== undefined;
    return closed(parser, open, token, isPattern ? "substring similar" : "substring", [operand, from, ...(count ? [count] : [])]);
  }),
  position: positionForm("position", power.like),
  overlay: overlayForm,
  trim: trimForm("btrim", "ltrim", "rtrim"),
  normalize: form((parser, open, token) => {
    const args = [parser.expression()];
    if (parser.take(",")) {
      if (!/^nfk?[cd]$/i.test(parser.token.source)) parser.expected("nfc, nfd, nfkc or nfkd");
      const { value, range } = parser.next();
      args.push({ kind: "literal", value, type: "text", range });
    }
    return closed(parser, open, token, "normalize", args);
  }),
  extract: extractForm,
  exists: existsForm,
  row: rowForm,
  coalesce: coalesceForm,
  nullif: nullifForm("unknown"),
});

function infix(parser: Parser): Infix | undefined {
  const { token } = parser;
  if (token.kind === "symbol") return symbolInfix(parser, token.value);
  if (token.kind !== "name") return undefined;
  switch (token.value) {
    case "and":
      return parser.binary("and", power.and);
    case "or":
      return parser.binary("or", power.or);
    case "is":
      return { power: power.is, read: readIs };
    case "isnull":
    case "notnull":
      return {
        power: power.is,
        read: (p, left) =>
          p.call(token.value === "isnull" ? "is null" : "is not null", p.next().range, [left], "operator", left.range.start),
      };
    case "collate":
      return {
        power: power.collate,
        read: (p, left) => {
          const { range } = p.next();
          const name = p.next();
          if (!collations.includes(name.value)) p.report("not-covered", name.range, { what: `the collation "${name.value}"` });
          return p.call(`collate ${name.value}`, range, [left], "operator", left.range.start);
        },
      };
    case "not": {
      const next = parser.ahead(1).source.toLowerCase();
      return ["like", "ilike", "similar", "in", "between"].includes(next)
        ? {
            power: power.like,
            read: (p, left) => {
              const { range } = p.next();
              return isQuantified(p, 0) ? readLike(p, left, "not ") : not(p, readLike(p, left), range);
            },
          }
        : undefined;
    }
    case "similar":
      return parser.atWords("similar", "to") ? { power: power.like, read: readLike } : undefined;
    case "like":
    case "ilike":
    case "in":
    case "between":
      return { power: power.like, read: readLike };
  }
  return undefined;
}

function symbolInfix(parser: Parser, symbol: string): Infix | undefined {
  if (symbol === "::") {
    return {
      power: power["::"],
      read: (p, left) => {
        p.next();
        const { type, typeRange } = typeName(p);
        return { kind: "cast", operand: left, type, typeRange, range: span(p, left.range.start) };
      },
    };
  }
  if (symbol === "[") return { power: power["["], read: readSubscript };
  const found = infixPower[symbol];
  if (found === undefined) return undefined;
  const positive = negated[symbol];
  const name = positive ?? renamed[symbol] ?? symbol;
  if (found <= power.other && isQuantified(parser, 0)) {
    return {
      power: found,
      read: (p, left) => {
        if (p.isComparison(left)) p.expected("brackets around one of the comparisons");
        return quantified(p, left, positive ? `not ${name}` : name, p.next().range);
      },
    };
  }
  if (positive) {
    const { read } = parser.binary(name, found);
    return { power: found, read: (p, left) => not(p, read(p, left), left.range) };
  }
  return found === power.comparison ? parser.unchained(name, found) : parser.binary(name, found);
}

/** a[i] or a[i:j], from 1 */
function readSubscript(parser: Parser, left: Expression): Expression {
  const isSubscripted = left.kind === "call" && parser.source[left.range.end - 1] === "]";
  if (left.kind !== "name" && left.kind !== "group" && !isSubscripted)
    parser.expected("brackets around what is not the name of a column");
  const open = parser.next();
  const bound = (leftOut: number): Expression =>
    parser.at(":") || parser.at("]")
      ? {
          kind: "literal",
          value: leftOut,
          type: "integer",
          range: span(parser, parser.lastEnd),
          written: { form: "omitted", parts: [] },
        }
      : parser.expression();
  const first = bound(1);
  const isSlice = parser.take(":");
  const args = isSlice ? [left, first, bound(2147483647)] : [left, first];
  parser.close("]", open);
  return parser.call(isSlice ? "slice of list" : "item of list", open.range, args, "operator", left.range.start);
}

/** The parser of a version. */
export function parserOf(version: string): (source: string, limits?: ParseLimits) => Parsed {
  const grammar = grammarOf(version);
  return (source, limits) => parseWith(grammar, source, limits);
}
