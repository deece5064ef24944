import type { Diagnostic } from "../../diagnostics/index.ts";
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
  walk,
} from "../../syntax/index.ts";
import {
  type TextRange,
  Bytes,
  Decimal,
  Double,
  Failure,
  bytesOfHex,
  integer,
  lookup,
  textOfBytes,
  textOfUtf8,
} from "../../values/index.ts";
import {
  type Special,
  castForm,
  closed,
  constant,
  extractForm,
  form,
  ifForm,
  literal,
  not,
  nullifForm,
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
import { collations, textLiteral } from "./types.ts";
import { columnText, mariadbRules, reserved } from "./lexis.ts";
import { isUnit } from "./moments.ts";
import { int64, uint64 } from "./numbers.ts";

/** How tightly operators bind (MariaDB documentation, "Operator Precedence"). */
export const power = {
  or: 5,
  xor: 8,
  and: 10,
  not: 15,
  comparison: 20,
  predicate: 25,
  "|": 30,
  "&": 35,
  shift: 40,
  sum: 45,
  product: 50,
  "^": 55,
  sign: 60,
  bang: 65,
  collate: 70,
};

export const infixPower: Readonly<Record<string, number>> = lookup({
  "||": power.or,
  "&&": power.and,
  "=": power.comparison,
  "<=>": power.comparison,
  "<>": power.comparison,
  "!=": power.comparison,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "|": power["|"],
  "&": power["&"],
  "<<": power.shift,
  ">>": power.shift,
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
  "/": power.product,
  "%": power.product,
  "^": power["^"],
});
const renamed: Readonly<Record<string, string>> = lookup({ "!=": "<>", "||": "or", "&&": "and" });
export const words: Readonly<Record<string, readonly [name: string, power: number]>> = lookup({
  or: ["or", power.or],
  xor: ["xor", power.xor],
  and: ["and", power.and],
  div: ["div", power.product],
  mod: ["%", power.product],
});

const grammar: Grammar = {
  separator: ",",
  associative: { and: "always", or: "always" },
  rules: mariadbRules,
  prefix,
  infix,
};

function prefix(parser: Parser): Expression {
  const { token } = parser;
  const { range } = token;
  if (parser.at("-") || parser.at("+") || parser.at("~")) {
    parser.next();
    const operand = parser.expression(power.sign);
    const isLiteral =
      operand.kind === "literal" &&
      token.value === "-" &&
      /^\d+$/.test(parser.source.slice(operand.range.start, operand.range.end));
    const digits = isLiteral ? BigInt(parser.source.slice(operand.range.start, operand.range.end)) : 0n;
    if (digits === int64 + 1n) return literal(integer(-int64 - 1n), "integer", span(parser, range.start));
    if (digits > int64) return literal(new Decimal(-digits, 0), "decimal 0", span(parser, range.start));
    return parser.call(token.source, range, [operand], "operator");
  }
  if (parser.take("!")) return parser.call("not", range, [parser.expression(power.bang)], "operator");
  if (parser.at("(")) return readBracketed(parser);
  switch (token.kind) {
    case "number":
      parser.next();
      return numberLiteral(token);
    case "text":
      return text(parser);
    case "variable":
      parser.next();
      return literal(
        new Bytes(bytesOfHex(token.value) ?? new Uint8Array()),
        /^x/i.test(token.source) ? "hextext char" : "hybrid",
        range,
      );
    case "quoted name":
      parser.next();
      return { kind: "name", name: token.value, range };
    case "name":
      return named(parser, token);
  }
  if (parser.at("@")) return parser.uncovered("variables");
  if (parser.at("{")) return parser.uncovered("literals between braces; write DATE, TIME or TIMESTAMP before the text");
  return parser.missing();
}

function numberLiteral({ source, range }: Token): Expression {
  if (/[eE]/.test(source)) {
    const value = Number(source);
    return literal(Number.isFinite(value) ? new Double(value) : new Failure("number-out-of-range", {}, range), "double", range);
  }
  if (!/^\d+$/.test(source)) {
    const value = Decimal.parse(source.replace(/\.$/, ""))!;
    return literal(value, `decimal ${value.scale}`, range);
  }
  const value = BigInt(source);
  if (value <= int64) return literal(integer(value), "integer", range);
  return value <= uint64 ? literal(value, "unsigned", range) : literal(new Decimal(value, 0), "decimal", range);
}

/** Text literals side by side are one. */
function text(parser: Parser): Expression {
  const first = parser.next();
  let { value } = first;
  while (parser.token.kind === "text") value += parser.next().value;
  return literal(value, textLiteral, span(parser, first.range.start));
}

function named(parser: Parser, token: Token): Expression {
  const word = token.value.toLowerCase();
  const read = specials[word]?.(parser, token);
  if (read) return read;
  if (parser.ahead(1).kind === "variable" && /^_[a-z]/.test(word)) {
    if (!/^_(?:utf8mb4|utf8mb3|utf8|binary)$/.test(word)) return parser.uncovered(`the character set ${word.slice(1)}`);
    parser.next();
    const bytes = new Bytes(bytesOfHex(parser.token.value) ?? new Uint8Array());
    const { range } = parser.next();
    if (word !== "_binary" && textOfUtf8(bytes.bytes) === undefined)
      parser.report("bad-literal", range, { problem: `the bytes are no text in ${word.slice(1)}` });
    return word === "_binary" ? literal(bytes, "binary", range) : literal(textOfBytes(bytes.bytes), textLiteral, range);
  }
  if (parser.ahead(1).kind === "text" && (word.startsWith("_") || word === "n")) {
    if (!/^(?:_utf8mb4|_utf8mb3|_utf8|_latin1|_ascii|_binary|n)$/.test(word))
      return parser.uncovered(`the character set ${word.slice(1)}`);
    parser.next();
    const value = text(parser);
    if (/^_(?:latin1|ascii)$/.test(word) && /[^\0-\x7f]/.test(String((value as { value?: unknown }).value)))
      return parser.uncovered(`other than ASCII in the character set ${word.slice(1)}`);
    return word === "_binary"
      ? { kind: "cast", operand: value, type: "binary", typeRange: token.range, range: span(parser, token.range.start) }
      : value;
  }
  const isCall = parser.ahead(1).value === "(" && word === "mod";
  const refused = isCall ? undefined : refusedWord(parser, token, reserved, columnText);
  if (refused) return refused;
  parser.next();
  if (parser.at("(")) return called(parser, token, word);
  if (parser.at(".")) return parser.uncovered("qualified names; name a column by itself", token.range.start);
  return { kind: "name", name: token.value, range: token.range };
}

function called(parser: Parser, token: Token, word: string): Expression {
  const open = parser.next();
  const name = distinctName(parser, word);
  return aggregated(parser, parser.call(name, token.range, parser.arguments(")", open), "function"));
}

/** INTERVAL n unit: the amount and the unit as two arguments. */
function interval(parser: Parser): Expression[] {
  parser.expect("interval");
  const amount = parser.expression();
  if (!isUnit(parser.token.value.toLowerCase())) parser.expected("a unit of time");
  const { value, range } = parser.next();
  return [amount, literal(value.toLowerCase(), "text", range)];
}

/** DATE_ADD(d, INTERVAL n unit) and its kin; a plain number is days where that is allowed. */
const dateForm = (name: string, plainDays: boolean): Special =>
  form((parser, open, token) => {
    const operand = parser.expression();
    parser.expect(",");
    if (parser.atWords("interval")) return closed(parser, open, token, name, [operand, ...interval(parser)]);
    if (!plainDays) parser.expected('"interval"');
    return closed(parser, open, token, name, [operand, parser.expression(), literal("day", "text", token.range)]);
  });

const typedText =
  (type: string): Special =>
  (parser, token) => {
    if (parser.ahead(1).kind !== "text") return undefined;
    parser.next();
    const operand = text(parser);
    return { kind: "cast", operand, type: `${type} literal`, typeRange: token.range, range: span(parser, token.range.start) };
  };

/** The type of a cast, with the character set of a text. */
function typeName(parser: Parser): { type: string; typeRange: TextRange } {
  const { start } = parser.token.range;
  const words: string[] = [];
  while (parser.token.kind === "name" || parser.at("(")) {
    if (parser.at("(") && words.length > 0) words[words.length - 1] += typeSizes(parser);
    else if (parser.at("(")) break;
    else words.push(parser.next().value.toLowerCase());
  }
  if (words.length === 0) parser.expected("a type");
  const type = words.join(" ");
  const isPlain =
    !/^n?char|^varchar/.test(type) ||
    /^\w+(?:\(\d+\))?(?: (?:character set|charset) (?:utf8mb4|utf8mb3|utf8|ascii))?$/.test(type);
  if (!isPlain) parser.uncovered(`the type ${type}`, start);
  return { type, typeRange: span(parser, start) };
}

const specials: Readonly<Record<string, Special>> = lookup({
  true: constant(1, "integer"),
  false: constant(0, "integer"),
  null: constant(null, "null"),
  date: typedText("date"),
  time: typedText("time"),
  timestamp: typedText("datetime"),
  not: (parser, { range }) => {
    parser.next();
    return parser.call("not", range, [parser.expression(power.not)], "operator");
  },
  exists: existsForm,
  case: (parser, token) => ofSingles(parser, readCase(parser, token)),
  cast: castForm(typeName),
  convert: form((parser, open, token) => {
    const operand = parser.expression();
    if (parser.takeWords("using")) {
      const { value } = parser.next();
      parser.close(")", open);
      if (!/^(?:utf8mb4|utf8mb3|utf8|ascii|binary)$/i.test(value)) return parser.uncovered(`the character set ${value}`);
      const type = value.toLowerCase() === "binary" ? "binary" : `char character set ${value.toLowerCase()}`;
      return { kind: "cast", operand, type, typeRange: token.range, range: span(parser, token.range.start) };
    }
    parser.expect(",");
    const { type, typeRange } = typeName(parser);
    parser.close(")", open);
    return { kind: "cast", operand, type, typeRange, range: span(parser, token.range.start) };
  }),
  binary: (parser, token) => {
    parser.next();
    const operand = parser.expression(power.bang);
    return { kind: "cast", operand, type: "binary", typeRange: token.range, range: span(parser, token.range.start) };
  },
  substring: substringForm(() => "substring"),
  substr: substringForm(() => "substring"),
  mid: substringForm(() => "substring"),
  position: positionForm("position", power.predicate),
  trim: trimForm("trim", "trim leading", "trim trailing"),
  extract: extractForm,
  nullif: nullifForm("null"),
  if: ifForm,
  char: form((parser, open, token) => {
    const args: Expression[] = [];
    do args.push(parser.expression());
    while (parser.take(","));
    if (!parser.takeWords("using")) return closed(parser, open, token, "char", args);
    const { value } = parser.next();
    if (!/^(?:utf8mb4|utf8mb3|utf8)$/i.test(value)) return parser.uncovered(`the character set ${value}`);
    return closed(parser, open, token, "char using", args);
  }),
  get_format: form((parser, open, token) => {
    const { value, range } = parser.next();
    const kind = value.toLowerCase();
    if (!/^(?:date|time|datetime|timestamp)$/.test(kind)) parser.expected('"date", "time" or "datetime"');
    parser.expect(",");
    const place = parser.expression();
    return closed(parser, open, token, "get_format", [literal(kind === "timestamp" ? "datetime" : kind, "text", range), place]);
  }),
  weight_string: form((parser, _open, token) => parser.uncovered("weight_string()", token.range.start)),
  row: rowForm,
  add_months: form((parser, open, token) => {
    const date = parser.expression();
    parser.expect(",");
    return closed(parser, open, token, "date_add", [date, parser.expression(), literal("month", "text", token.range)]);
  }),
  date_add: dateForm("date_add", false),
  adddate: dateForm("date_add", true),
  date_sub: dateForm("date_sub", false),
  subdate: dateForm("date_sub", true),
  timestampdiff: form((parser, open, token) => withUnit(parser, open, token, "timestampdiff")),
  timestampadd: form((parser, open, token) => withUnit(parser, open, token, "timestampadd")),
  interval: (parser, token) => {
    if (parser.ahead(1).value === "(") return undefined;
    const [amount, unit] = interval(parser);
    parser.expect("+");
    return parser.call("date_add", token.range, [parser.expression(power.sum), amount, unit], "function");
  },
});

/** TIMESTAMPDIFF(unit, a, b) and TIMESTAMPADD */
function withUnit(parser: Parser, open: Token, token: Token, name: string): Expression {
  const unitName = parser.token.value.toLowerCase().replace(/^sql_tsi_/, "");
  if (!isUnit(unitName) || unitName.includes("_")) parser.expected("a unit of time");
  const { range } = parser.next();
  parser.expect(",");
  const unit = literal(unitName, "text", range);
  return parser.call(name, token.range, [unit, ...parser.arguments(")", open)], "function");
}

function infix(parser: Parser): Infix | undefined {
  const { token } = parser;
  if (token.kind === "symbol") {
    const found = infixPower[token.value];
    if (found === undefined) return undefined;
    if (
      (token.value === "+" || token.value === "-") &&
      parser.ahead(1).source.toLowerCase() === "interval" &&
      parser.ahead(2).value !== "("
    )
      return { power: found, read: readInterval };
    const name = renamed[token.value] ?? token.value;
    const plain = parser.binary(name, found);
    return found === power.comparison ? comparison(parser, name, plain) : plain;
  }
  if (token.kind !== "name") return undefined;
  const word = token.value.toLowerCase();
  if (words[word]) return parser.binary(...words[word]);
  switch (word) {
    case "is":
      return { power: power.comparison, read: readIs };
    case "collate":
      return {
        power: power.collate,
        read: (p, left) => {
          const { range } = p.next();
          const { value } = p.next();
          if (ofCharacterSet.test(value) && !Object.hasOwn(collations, value.toLowerCase()))
            return p.uncovered(`the collation ${value}`, range.start);
          return p.call(`collate ${value.toLowerCase()}`, range, [left], "operator", left.range.start);
        },
      };
    case "sounds":
      return {
        power: power.predicate,
        read: (p, left) => {
          const { range } = p.next();
          p.expect("like");
          const sound = (of: Expression) => p.call("soundex", range, [of], "function", of.range.start);
          return p.call("=", range, [sound(left), sound(p.expression(power.predicate))], "operator", left.range.start);
        },
      };
    case "not":
      return predicates.has(parser.ahead(1).source.toLowerCase())
        ? {
            power: power.predicate,
            read: (p, left) => {
              const { range } = p.next();
              return not(p, readPredicate(p, left), range);
            },
          }
        : undefined;
  }
  return predicates.has(word) ? { power: power.predicate, read: readPredicate } : undefined;
}

/** Collations, whatever is covered of them. */
const ofCharacterSet =
  /^(?:big5|dec8|cp\d+|hp8|koi8[ru]|latin[1257]|swe7|ascii|ujis|sjis|hebrew|tis620|euckr|gb2312|greek|gbk|armscii8|utf8|utf8mb[34]|ucs2|keybcs2|macce|macroman|utf16|utf16le|utf32|geostd8|eucjpms)_|^binary$/i;

const predicates = new Set(["like", "regexp", "rlike", "in", "between"]);

function readInterval(parser: Parser, left: Expression): Expression {
  const sign = parser.next();
  return parser.call(
    sign.value === "+" ? "date_add" : "date_sub",
    sign.range,
    [left, ...interval(parser)],
    "function",
    left.range.start,
  );
}

/** x IS [NOT] NULL | TRUE | FALSE | UNKNOWN */
function readIs(parser: Parser, left: Expression): Expression {
  const { range } = parser.next();
  const negative = parser.takeWords("not");
  const call = (name: string) => parser.call(name, range, [left], "operator", left.range.start);
  if (parser.takeWords("null") || parser.takeWords("unknown")) return call(negative ? "is not null" : "is null");
  for (const word of ["true", "false"]) {
    if (!parser.takeWords(word)) continue;
    return negative ? not(parser, call(`is ${word}`), range) : call(`is ${word}`);
  }
  return parser.missing('"null", "true", "false" or "unknown"');
}

/** A form whose parts may not be rows, though it is read as comparisons, which rows have. */
function ofSingles(parser: Parser, node: Expression): Expression {
  const row = node.written?.parts.find((part) => isRow(ungrouped(part)));
  if (row) parser.report("row-alone", row.range);
  return node;
}

/** x LIKE y [ESCAPE e], REGEXP, IN (…), BETWEEN a AND b */
function readPredicate(parser: Parser, left: Expression): Expression {
  const { range, value } = parser.next();
  const word = value.toLowerCase();
  if (word === "in") return readIn(parser, left, range);
  if (word === "between") return ofSingles(parser, readBetween(parser, left, range, power.predicate));
  const args = [left, parser.expression(power.predicate)];
  if (word === "like" && parser.takeWords("escape")) args.push(parser.expression(power.predicate));
  return parser.call(word === "rlike" ? "regexp" : word, range, args, "operator", left.range.start);
}

export function parseMariadb(source: string, limits?: ParseLimits): Parsed {
  const parsed = parseWith(grammar, source, limits);
  const lists = [...walk(parsed.tree)].filter((node) => node.kind === "query" && node.form === "values");
  const names = lists.flatMap((list) => [...walk(list)].filter(({ kind }) => kind === "name"));
  const refused = names.map(({ range }): Diagnostic => ({
    code: "constant-wanted",
    severity: "error",
    range,
    facts: { name: "VALUES", parameter: "row" },
    fixes: [],
  }));
  return { ...parsed, diagnostics: [...parsed.diagnostics, ...refused] };
}
