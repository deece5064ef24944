import { lookup } from "../../values/index.ts";
import {
  type Expression,
  type ParseLimits,
  type Parsed,
  type Parser,
  type Token,
  parseWith,
  ungrouped,
} from "../../syntax/index.ts";
import type { TextRange } from "../../values/index.ts";
import { rowForm } from "../shared/queries.ts";
import {
  type Special,
  castForm,
  castMark,
  closed,
  coalesceForm,
  constant,
  form,
  fromFor,
  literal,
  nullifForm,
  restOf,
  span,
  trimForm,
  typeSizes,
} from "../shared/sql-forms.ts";
import { normalForms, worded } from "../shared/sql-calls.ts";
import { between, listed, sqlGrammar } from "../shared/sql-grammar.ts";
import { calls } from "./calls.ts";
import { collations, columnText, postgresqlRules, reserved } from "./lexis.ts";
import { names } from "./coercions.ts";
import { numberLiteral } from "./numbers.ts";

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

/** A type before a text: `date '…'`; and what begins a literal that is not covered. */
function typedText(parser: Parser, token: Token): Expression | undefined {
  if (typeWords.has(token.value) && isTypedLiteral(parser)) {
    const { type, typeRange } = typeName(parser);
    const operand = text(parser);
    const fields = type === "interval" ? intervalFields(parser) : "";
    return { kind: "cast", operand, type: type + fields, typeRange, range: span(parser, token.range.start) };
  }
  return parser.ahead(1).kind === "text" && /^[bx]$/i.test(token.source) ? parser.uncovered("bit strings") : undefined;
}

/** Which fields an interval has (8.5.4): `day`, `day to hour`; the last one is what a number alone counts. */
function intervalFields(parser: Parser): string {
  const { start } = parser.token.range;
  const isField = () => parser.token.kind === "name" && /^(?:year|month|day|hour|minute|second)$/.test(parser.token.value);
  if (!isField()) return "";
  const first = parser.next().value;
  const last = parser.takeWords("to") && isField() ? parser.next().value : undefined;
  const order = ["year", "month", "day", "hour", "minute", "second"];
  const isRange = last === undefined || (order.indexOf(last) > order.indexOf(first) && (first === "year") === (last === "month"));
  if (!isRange) parser.expected(`a field that ${first} goes on to`);
  if (parser.at("(") || (first === "minute" && last)) parser.uncovered("intervals of such fields", start);
  return ` ${first}${last ? ` to ${last}` : ""}`;
}

/** A type as a function of one argument. */
const castCall: Special = (parser, token) =>
  isTypedLiteral(parser)
    ? undefined
    : form((p, open) => {
        const args = p.arguments(")", open);
        if (args.length !== 1) return p.call(token.value, token.range, args, "function");
        return { kind: "cast", operand: args[0], type: token.value, typeRange: token.range, range: span(p, token.range.start) };
      })(parser, token);

/** A function whose last argument is an array of those that it takes. */
const variadicCall: Special = (parser, token) =>
  isVariadic(parser)
    ? form((p, open) => p.call(`${token.value} variadic`, token.range, p.arguments(")", open), "function"))(parser, token)
    : undefined;

/** Types whose name before brackets casts: those that are no words of the grammar (4.2.9). */
const castNames = ["text", "bpchar", "name", "int2", "int4", "int8", "float8", "bool", "bytea", "date", "timestamptz"];

/** Functions that take the items of an array for their last arguments (38.5.6). */
export const variadic = new Set(["concat", "concat_ws", "format"]);

/** Whether VARIADIC stands before the last argument within the brackets that come next. */
function isVariadic(parser: Parser): boolean {
  let depth = 0;
  for (let at = 2; parser.ahead(at).kind !== "end"; at++) {
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
  type += type === "interval" ? intervalFields(parser) : typeSizes(parser);
  for (const zone of ["with", "without"]) if (parser.takeWords(zone, "time", "zone")) type += zone === "with" ? "tz" : "";
  // The size of an array type says nothing (8.15.1).
  while (parser.at("[") && (parser.ahead(1).value === "]" || parser.ahead(2).value === "]")) {
    parser.next();
    if (parser.token.kind === "number") parser.next();
    parser.expect("]");
    type += "[]";
  }
  if (
    /^(?:"char"|time|timetz|json|jsonb|xml|uuid|inet|cidr|macaddr|money|bit|varbit|oid|regclass|tsvector|tsquery|int2vector|oidvector|regproc|regtype|real|float4|point|box)(?:\(|\[|$)/i.test(
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
  ...Object.fromEntries(castNames.map((name) => [name, castCall])),
  ...Object.fromEntries([...variadic].map((name) => [name, variadicCall])),
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
    if (!given && !count) return parser.call(token.value, token.range, [operand, ...restOf(parser, open)], "function");
    const from = given ?? literal(1, "integer", span(parser, parser.lastEnd));
    const isPattern = from.kind === "literal" && typeof from.value === "string" && count !== undefined;
    return closed(parser, open, token, isPattern ? "substring similar" : "substring", [operand, from, ...(count ? [count] : [])]);
  }),
  position: worded(calls.position, { inner: power.like }),
  overlay: worded(calls.overlay, { plain: true }),
  trim: trimForm({ both: "btrim", leading: "ltrim", trailing: "rtrim" }, "loose"),
  normalize: worded(calls.normalize, { words: normalForms }),
  extract: worded(calls.extract),
  row: rowForm,
  coalesce: coalesceForm,
  nullif: nullifForm("unknown"),
});

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

const escaped = { then: "escape" } as const;
const operatorSign = (sign: string) => [sign, [sign, power.other]] as const;

/** The parser of a version. */
export function parserOf(version: string): (source: string, limits?: ParseLimits) => Parsed {
  const grammar = sqlGrammar({
    associative: { and: "always", or: "always", "||": "of plain operands" },
    rules: postgresqlRules(version),
    power: { ...power, predicate: power.like },
    infix: infixPower,
    renamed,
    negated,
    signs: {
      "-": ["-", power.sign],
      "+": ["+", power.sign],
      ...Object.fromEntries(["~", "@", "|/", "||/"].map(operatorSign)),
    },
    // The sign belongs to the number: 2147483648 has no room in an integer, the least integer has.
    signed(parser, { source, range }, operand) {
      const written = parser.source.slice(operand.range.start, operand.range.end);
      const isLeast = source === "-" && /^(?:2147483648|9223372036854775808)$/.test(written);
      return isLeast ? numbered(parser, `-${written}`, range.start) : undefined;
    },
    literals: { text, number: (parser, { range }) => numbered(parser, parser.next().source, range.start) },
    specials,
    word: typedText,
    reserved,
    columnText,
    qualifies: true,
    follows: {
      "::": castMark(typeName, power["::"]),
      "[": () => ({ power: power["["], read: readSubscript }),
    },
    nullTests: "one word",
    quantifies: power.other,
    predicates: {
      like: escaped,
      ilike: escaped,
      similar: { ...escaped, name: "similar to" },
      in: listed,
      between: between(power.like),
    },
    is: { missing: ["null"], tests: ["true", "false", "unknown"], distinct: true, normalized: true },
    collation(parser) {
      const { value, range } = parser.next();
      if (!collations.includes(value)) parser.report("not-covered", range, { what: `the collation "${value}"` });
      return value;
    },
  });
  return (source, limits) => parseWith(grammar, source, limits);
}
