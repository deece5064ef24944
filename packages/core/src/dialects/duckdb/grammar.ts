import { type Expression, type ParseLimits, type Parsed, type Parser, type Token, parseWith, walk } from "../../syntax/index.ts";
import { type TextRange, lookup } from "../../values/index.ts";
import { readIn, rowForm } from "../shared/queries.ts";
import {
  type Special,
  castForm,
  castMark,
  constant,
  form,
  ifForm,
  literal,
  not,
  nullifForm,
  span,
  substringForm,
  trimForm,
  typeSizes,
} from "../shared/sql-forms.ts";
import { worded } from "../shared/sql-calls.ts";
import { between, sqlGrammar } from "../shared/sql-grammar.ts";
import { aggregates } from "./aggregates.ts";
import { calls } from "./calls.ts";
import { columnText, reserved, duckdbRules } from "./lexis.ts";
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

/** A type before a text: `date '…'`; and what begins a literal that is not covered. */
function typedText(parser: Parser, token: Token): Expression | undefined {
  const next = parser.ahead(1);
  if (next.kind !== "text") return undefined;
  const word = token.value.toLowerCase();
  if (typeWords.has(word)) {
    const { type, typeRange } = typeName(parser);
    const { value, range } = parser.next();
    return { kind: "cast", operand: literal(value, "literal", range), type, typeRange, range: span(parser, token.range.start) };
  }
  return next.range.start === token.range.end && /^[xb]$/.test(word)
    ? parser.uncovered("literals of bits and bytes", token.range.start)
    : undefined;
}

function lambdaBody(parser: Parser, parameters: string[], start: number): Expression {
  parser.next();
  const body = parser.expression(power.lambda);
  return { kind: "lambda", parameters, body, range: span(parser, start) };
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
  position: worded(calls.position, { inner: power.like }),
  overlay: worded(calls.overlay, { plain: true }),
  trim: trimForm({ both: "trim", leading: "ltrim", trailing: "rtrim" }, "loose"),
  extract: worded(calls.extract),
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
    return parser.call("interval", token.range, [amount, literal(value, "literal", range)], "function");
  },
  struct_pack: form((parser) => parser.uncovered("structs and maps")),
  row: rowForm,
  map: (parser) => (["{", "("].includes(parser.ahead(1).value) ? parser.uncovered("structs and maps") : undefined),
});

/** x IN (…), or x IN list */
function readItems(parser: Parser, left: Expression, range: TextRange): Expression {
  if (parser.at("(")) return readIn(parser, left, range);
  return parser.call("list_contains", range, [parser.expression(power.like), left], "function", left.range.start);
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
    return literal(null, "open from end", span(parser, parser.lastEnd));
  };
  const args = [left, bound()];
  while (parser.take(":")) args.push(bound());
  parser.close("]", open);
  return parser.call(args.length > 2 ? "array_slice" : "array_extract", open.range, args, "function", left.range.start);
}

/** (a, b) -> body; other arrows take a field out of JSON. */
function readArrow(parser: Parser, left: Expression): Expression {
  const names = left.kind === "list" && left.form === "row" ? left.items : left.kind === "group" ? [left.inner] : [];
  if (names.length === 0 || !names.every((item) => item.kind === "name")) return json.read(parser);
  return lambdaBody(
    parser,
    names.map(({ name }) => name),
    left.range.start,
  );
}

const json = { power: power.other, read: (parser: Parser) => parser.uncovered("JSON") };
const escaped = { then: "escape" } as const;

const grammar = sqlGrammar({
  associative: { and: "always", or: "always", "||": "of plain operands" },
  rules: duckdbRules,
  power: { ...power, predicate: power.like },
  infix: infixPower,
  renamed,
  negated,
  // Signs that are no plus or minus bind like any operator of marks.
  signs: { "-": ["-", power.sign], "+": ["+", power.sign], "~": ["~", power.other] },
  marks: {
    "@"(parser, { range }) {
      parser.next();
      return parser.call("abs", range, [parser.expression(power.other)], "function");
    },
    "[": (parser, { range }) => listLiteral(parser, range.start),
    "{": (parser) => parser.uncovered("structs and maps"),
  },
  literals: {
    number(parser, { source, range }) {
      parser.next();
      const { value, type } = numberLiteral(source);
      return literal(value, type, range);
    },
    text(parser, { value, range }) {
      parser.next();
      return literal(value, "literal", range);
    },
  },
  specials,
  word: typedText,
  reserved,
  columnText,
  callsQuoted: true,
  afterName: (parser, { value, range }) =>
    parser.at("->") && parser.ahead(1).kind !== "end" ? lambdaBody(parser, [value], range.start) : undefined,
  follows: {
    "::": castMark(typeName, power["::"]),
    "[": () => ({ power: power["["], read: readSubscript }),
    ".": (parser) => (parser.ahead(1).kind === "name" ? { power: power["["], read: readMethod } : undefined),
    "!": (parser) =>
      parser.ahead(1).value === "~"
        ? undefined
        : {
            power: power.postfix,
            read: (p, left) => p.call("factorial", p.next().range, [left], "function", left.range.start),
          },
    "->": () => ({ power: power.other, read: readArrow }),
    "->>": () => json,
  },
  nullTests: "not null",
  quantifies: "queries",
  refuseList: (parser) => void parser.uncovered("ANY and ALL of a list"),
  predicates: {
    like: escaped,
    ilike: escaped,
    glob: escaped,
    similar: { ...escaped, name: "similar to" },
    in: readItems,
    between: between(power.like),
  },
  is: { missing: ["null", "unknown"], tests: ["true", "false"], distinct: true },
  collation(parser) {
    let name = parser.next().value.toLowerCase();
    while (parser.take(".")) name += `.${parser.next().value.toLowerCase()}`;
    return name;
  },
});

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
