import {
  type Expression,
  type Grammar,
  type Infix,
  type ParseLimits,
  type Parsed,
  type Parser,
  type Token,
  parseWith,
  walk,
} from "../../syntax/index.ts";
import { type TextRange, lookup } from "../../values/index.ts";
import {
  type Special,
  castForm,
  constant,
  extractForm,
  form,
  ifForm,
  literal,
  not,
  nullifForm,
  overlayForm,
  positionForm,
  readBetween,
  readCase,
  refusedWord,
  span,
  substringForm,
  trimForm,
  typeSizes,
} from "../shared/sql-forms.ts";
import { aggregated, comparison, distinctName, existsForm, readBracketed, readIn, rowForm } from "../shared/queries.ts";
import { aggregates } from "./aggregates.ts";
import { columnText, reserved, duckdbRules } from "./lexis.ts";
import { unitNamed } from "./intervals.ts";
import { numberLiteral } from "./numbers.ts";

/** How tightly operators bind. */
export const power = {
  lambda: 2,
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
  postfix: 65,
  "[": 70,
  "::": 80,
};

export const infixPower: Readonly<Record<string, number>> = lookup({
  "=": power.comparison,
  "==": power.comparison,
  "<>": power.comparison,
  "!=": power.comparison,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "||": power.other,
  "~": power.other,
  "!~": power.other,
  "~~": power.other,
  "~~*": power.other,
  "!~~": power.other,
  "!~~*": power.other,
  "~~~": power.other,
  "^@": power.other,
  "@>": power.other,
  "<@": power.other,
  "&&": power.other,
  "&": power.other,
  "|": power.other,
  "<<": power.other,
  ">>": power.other,
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
  "/": power.product,
  "//": power.product,
  "%": power.product,
  "^": power["^"],
  "**": power["^"],
});

/** Operators that are the opposite of another, and operators with a second name. */
const ofList = (parser: Parser): void => void parser.uncovered("ANY and ALL of a list");

const negated: Readonly<Record<string, string>> = lookup({ "!~": "similar to", "!~~": "like", "!~~*": "ilike" });
const renamed: Readonly<Record<string, string>> = lookup({
  "==": "=",
  "!=": "<>",
  "~": "similar to",
  "~~": "like",
  "~~*": "ilike",
  "~~~": "glob",
  "**": "^",
});

const grammar: Grammar = {
  separator: ",",
  associative: { and: "always", or: "always", "||": "of plain operands" },
  rules: duckdbRules,
  prefix,
  infix,
};

function prefix(parser: Parser): Expression {
  const { token } = parser;
  const { range } = token;
  if (parser.at("-") || parser.at("+")) {
    parser.next();
    return parser.call(token.source, range, [parser.expression(power.sign)], "operator");
  }
  // Signs that are no plus or minus bind like any operator of marks.
  if (parser.take("~")) return parser.call("~", range, [parser.expression(power.other)], "operator");
  if (parser.take("@")) return parser.call("abs", range, [parser.expression(power.other)], "function");
  if (parser.at("(")) return readBracketed(parser);
  if (parser.at("[")) return listLiteral(parser, range.start);
  if (parser.at("{")) return parser.uncovered("structs and maps");
  switch (token.kind) {
    case "number": {
      parser.next();
      const { value, type } = numberLiteral(token.source);
      return literal(value, type, range);
    }
    case "text":
      parser.next();
      return literal(token.value, "literal", range);
    case "quoted name":
      parser.next();
      return parser.at("(") ? called(parser, token) : { kind: "name", name: token.value, range };
    case "name":
      return named(parser, token);
  }
  return parser.missing();
}

/** [a, b, …] and [expression FOR variable IN list IF condition] */
function listLiteral(parser: Parser, start: number): Expression {
  const open = parser.next();
  if (parser.take("]")) return { kind: "list", form: "list", items: [], range: span(parser, start) };
  const first = parser.expression();
  if (!parser.takeWords("for")) {
    const items = parser.take(",") ? [first, ...parser.arguments("]", open)] : (parser.close("]", open), [first]);
    return { kind: "list", form: "list", items, range: span(parser, start) };
  }
  const variable = parser.next();
  parser.expect("in");
  const list = parser.expression(power.comparison);
  const condition = parser.takeWords("if") ? parser.expression() : undefined;
  parser.close("]", open);
  const lambda = (body: Expression): Expression => ({ kind: "lambda", parameters: [variable.value], body, range: body.range });
  const kept = condition ? parser.call("list_filter", condition.range, [list, lambda(condition)], "function") : list;
  return parser.call("list_transform", { start, end: start + 1 }, [kept, lambda(first)], "function", start);
}

function named(parser: Parser, token: Token): Expression {
  const word = token.value.toLowerCase();
  const read = specials[word]?.(parser, token);
  if (read) return read;
  if (parser.ahead(1).kind === "text" && typeWords.has(word)) {
    const { type, typeRange } = typeName(parser);
    const { value, range } = parser.next();
    return { kind: "cast", operand: literal(value, "literal", range), type, typeRange, range: span(parser, token.range.start) };
  }
  const refused = refusedWord(parser, token, reserved, columnText);
  if (refused) return refused;
  if (parser.ahead(1).kind === "text" && parser.ahead(1).range.start === token.range.end && /^[xb]$/.test(word))
    return parser.uncovered("literals of bits and bytes", token.range.start);
  parser.next();
  if (parser.at("(")) return called(parser, token);
  if (parser.at("->") && parser.ahead(1).kind !== "end") return lambdaBody(parser, [token.value], token.range.start);
  return { kind: "name", name: token.value, range: token.range };
}

function lambdaBody(parser: Parser, parameters: string[], start: number): Expression {
  parser.next();
  const body = parser.expression(power.lambda);
  return { kind: "lambda", parameters, body, range: span(parser, start) };
}

function called(parser: Parser, token: Token): Expression {
  const open = parser.next();
  const name = distinctName(parser, token.value.toLowerCase());
  return aggregated(parser, parser.call(name, token.range, parser.arguments(")", open), "function"));
}

const typeWords = new Set(
  "date timestamp time interval integer int smallint tinyint bigint hugeint double float real boolean bool varchar text decimal numeric blob".split(
    " ",
  ),
);

/** TypeName : word+ ['(' number [',' number] ')'] ('[' ']')* */
function typeName(parser: Parser): { type: string; typeRange: TextRange } {
  const { start } = parser.token.range;
  if (parser.token.kind !== "name") parser.expected("a type");
  let type = parser.next().value.toLowerCase();
  if (type === "double" && parser.takeWords("precision")) type = "double";
  if (type === "character" && parser.takeWords("varying")) type = "varchar";
  type += typeSizes(parser);
  if (parser.takeWords("with", "time", "zone")) type += "tz";
  while (parser.at("[") && parser.ahead(1).value === "]") {
    parser.next();
    parser.next();
    type += "[]";
  }
  if (
    /^(?:timestamptz|timetz|json|uuid|bit|bitstring|struct|map|union|enum|uhugeint|bignum|varint|timestamp_(?:s|ms|ns))(?:\(|\[|$)/.test(
      type,
    )
  )
    parser.uncovered(`the type ${type}`, start);
  return { type, typeRange: span(parser, start) };
}

/** Whether a token names a unit in the long way, as the grammar has it. */
const isUnit = ({ kind, value }: Token): boolean =>
  kind === "name" &&
  /^(?:(?:year|month|day|hour|minute|second|millisecond|microsecond|week|quarter|decade)s?|centur(?:y|ies)|millenni(?:um|a))$/i.test(
    value,
  );

const aggregateNames: ReadonlySet<string> = new Set(aggregates.map(({ name }) => name));

const specials: Readonly<Record<string, Special>> = lookup({
  true: constant(true, "boolean"),
  false: constant(false, "boolean"),
  null: constant(null, "null"),
  ...Object.fromEntries(
    ["like_escape", "ilike_escape"].map((name) => [
      `not_${name}`,
      form((parser, open, token) =>
        not(parser, parser.call(name, token.range, parser.arguments(")", open), "function"), token.range),
      ),
    ]),
  ),
  not: (parser, { range }) => {
    parser.next();
    return parser.call("not", range, [parser.expression(power.not)], "operator");
  },
  exists: existsForm,
  case: readCase,
  cast: castForm(typeName),
  try_cast: form((parser, open, token) => {
    const operand = parser.expression();
    parser.expect("as");
    const { type, typeRange } = typeName(parser);
    parser.close(")", open);
    return { kind: "cast", operand, type: `try ${type}`, typeRange, range: span(parser, token.range.start) };
  }),
  try: form((parser, open, token) => {
    const args = parser.arguments(")", open);
    const inner = args.flatMap((arg) => [...walk(arg)]);
    const barred = inner.find((node) => node.kind === "query" || (node.kind === "call" && aggregateNames.has(node.name)));
    if (barred) parser.report("invalid-value", barred.range, { problem: "TRY takes neither a query nor an aggregate" });
    return parser.call("try", token.range, args, "function");
  }),
  array: (parser, token) => {
    if (parser.ahead(1).value !== "[") return undefined;
    parser.next();
    return listLiteral(parser, token.range.start);
  },
  lambda: (parser, token) => {
    if (parser.ahead(1).kind !== "name") return undefined;
    parser.next();
    const parameters: string[] = [];
    do parameters.push(parser.next().value);
    while (parser.take(","));
    if (!parser.at(":")) parser.expected('":"');
    return lambdaBody(parser, parameters, token.range.start);
  },
  substring: substringForm(() => "substring"),
  substr: substringForm(() => "substring"),
  position: positionForm("position", power.like),
  overlay: overlayForm,
  trim: trimForm("trim", "ltrim", "rtrim"),
  extract: extractForm,
  nullif: nullifForm("null"),
  if: ifForm,
  interval: (parser, token) => {
    const next = parser.ahead(1);
    const unit = next.kind === "text" || /^\d+$/.test(next.source) ? parser.ahead(2) : undefined;
    if (!unit && next.value !== "(") return undefined;
    if (unit && !isUnit(unit)) return undefined;
    parser.next();
    const amount = parser.expression(power["::"]);
    if (!isUnit(parser.token)) return parser.missing("a unit of time");
    const { value, range } = parser.next();
    return parser.call("interval", token.range, [amount, literal(unitNamed(value)!, "literal", range)], "function");
  },
  struct_pack: form((parser) => parser.uncovered("structs and maps")),
  row: rowForm,
  map: (parser) => (["{", "("].includes(parser.ahead(1).value) ? parser.uncovered("structs and maps") : undefined),
});

function infix(parser: Parser): Infix | undefined {
  const { token } = parser;
  if (token.kind === "symbol") return symbolInfix(parser, token.value);
  if (token.kind !== "name") return undefined;
  const word = token.value.toLowerCase();
  switch (word) {
    case "and":
    case "or":
      return parser.binary(word, power[word]);
    case "is":
      return { power: power.is, read: readIs };
    case "isnull":
    case "notnull":
      return {
        power: power.is,
        read: (p, left) =>
          p.call(word === "isnull" ? "is null" : "is not null", p.next().range, [left], "operator", left.range.start),
      };
    case "collate":
      return {
        power: power.collate,
        read: (p, left) => {
          const { range } = p.next();
          let name = p.next().value.toLowerCase();
          while (p.take(".")) name += `.${p.next().value.toLowerCase()}`;
          return p.call(`collate ${name}`, range, [left], "operator", left.range.start);
        },
      };
    case "not": {
      const next = parser.ahead(1).source.toLowerCase();
      if (next === "null")
        return {
          power: power.is,
          read: (p, left) => (p.next(), p.call("is not null", p.next().range, [left], "operator", left.range.start)),
        };
      return predicates.has(next)
        ? {
            power: power.like,
            read: (p, left) => {
              const { range } = p.next();
              return not(p, readPredicate(p, left), range);
            },
          }
        : undefined;
    }
  }
  return predicates.has(word) ? { power: power.like, read: readPredicate } : undefined;
}

const predicates = new Set(["like", "ilike", "glob", "similar", "in", "between"]);

/** x LIKE y [ESCAPE e], ILIKE, GLOB, SIMILAR TO, IN (…), x IN list, BETWEEN a AND b */
function readPredicate(parser: Parser, left: Expression): Expression {
  const { range, value } = parser.next();
  const word = value.toLowerCase();
  if (word === "in") {
    if (parser.at("(")) return readIn(parser, left, range);
    return parser.call("list_contains", range, [parser.expression(power.like), left], "function", left.range.start);
  }
  if (word === "between") return readBetween(parser, left, range, power.like);
  if (word === "similar") parser.expect("to");
  const args = [left, parser.expression(power.like)];
  if (parser.takeWords("escape")) args.push(parser.expression(power.like));
  return parser.call(word === "similar" ? "similar to" : word, range, args, "operator", left.range.start);
}

/** x IS [NOT] NULL | TRUE | FALSE | UNKNOWN | DISTINCT FROM y */
function readIs(parser: Parser, left: Expression): Expression {
  const { range } = parser.next();
  const negative = parser.takeWords("not");
  const call = (name: string, args: Expression[]) => parser.call(name, range, args, "operator", left.range.start);
  const finish = (name: string, ...args: Expression[]) => {
    const result = call(name, [left, ...args]);
    return negative ? not(parser, result, range) : result;
  };
  if (parser.takeWords("null") || parser.takeWords("unknown")) return call(negative ? "is not null" : "is null", [left]);
  for (const word of ["true", "false"]) if (parser.takeWords(word)) return finish(`is ${word}`);
  if (parser.takeWords("distinct")) {
    parser.expect("from");
    return finish("is distinct from", parser.expression(power.is));
  }
  return parser.missing('"null", "true", "false" or "distinct from"');
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
  if (symbol === "." && parser.ahead(1).kind === "name") return { power: power["["], read: readMethod };
  if (symbol === "!" && parser.ahead(1).value !== "~") {
    return { power: power.postfix, read: (p, left) => p.call("factorial", p.next().range, [left], "function", left.range.start) };
  }
  if (symbol === "->" || symbol === "->>") return { power: power.other, read: (p) => p.uncovered("JSON") };
  const found = infixPower[symbol];
  if (found === undefined) return undefined;
  const positive = negated[symbol];
  const name = positive ?? renamed[symbol] ?? symbol;
  if (!positive)
    return found === power.comparison
      ? comparison(parser, name, parser.unchained(name, found), ofList)
      : parser.binary(name, found);
  const { read } = parser.binary(name, found);
  return { power: found, read: (p, left) => not(p, read(p, left), left.range) };
}

/** x.f(…) is f(x, …). */
function readMethod(parser: Parser, left: Expression): Expression {
  if (left.kind === "literal") parser.expected("an operator (a literal has methods only in brackets)");
  parser.next();
  const name = parser.next();
  if (!parser.at("(")) return parser.uncovered("qualified names and fields of structs", left.range.start);
  const args = parser.arguments(")", parser.next());
  return parser.call(name.value.toLowerCase(), name.range, [left, ...args], "function", left.range.start);
}

/** a[i], a[i:j] or a[i:j:step], from 1; negative from the end */
function readSubscript(parser: Parser, left: Expression): Expression {
  const open = parser.next();
  const bound = (): Expression => {
    const isOpen = parser.at(":") || parser.at("]") || (parser.at("-") && [":", "]"].includes(parser.ahead(1).value));
    if (!isOpen) return parser.expression();
    parser.take("-");
    return literal(null, "open end", span(parser, parser.lastEnd));
  };
  const args = [left, bound()];
  while (parser.take(":")) args.push(bound());
  parser.close("]", open);
  return parser.call(args.length > 2 ? "array_slice" : "array_extract", open.range, args, "function", left.range.start);
}

export function parseDuckdb(source: string, limits?: ParseLimits): Parsed {
  const parsed = parseWith(grammar, source, limits);
  const nodes = [...walk(parsed.tree)];
  const isArgument = new Set(nodes.flatMap((node) => (node.kind === "call" ? node.args : [])));
  const stray = nodes.find((node) => node.kind === "lambda" && !isArgument.has(node));
  if (!stray) return parsed;
  const facts = { expected: "a value", found: "a function, which only list functions take" };
  return {
    ...parsed,
    diagnostics: [...parsed.diagnostics, { code: "expected", severity: "error", range: stray.range, facts, fixes: [] }],
  };
}
