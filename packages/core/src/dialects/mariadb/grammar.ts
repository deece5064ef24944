import type { Diagnostic } from "../../diagnostics/index.ts";
import {
  type Expression,
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
import { aggregated, rowForm } from "../shared/queries.ts";
import {
  type Special,
  castForm,
  closed,
  constant,
  form,
  ifForm,
  literal,
  nullifForm,
  readCase,
  span,
  substringForm,
  trimForm,
  typeSizes,
} from "../shared/sql-forms.ts";
import { type Words, readWord, worded } from "../shared/sql-calls.ts";
import { between, listed, sqlGrammar } from "../shared/sql-grammar.ts";
import { calls } from "./calls.ts";
import { collations, textLiteral } from "./types.ts";
import { columnText, mariadbRules, reserved } from "./lexis.ts";
import { isUnit } from "./moments.ts";
import { int64, uint64 } from "./numbers.ts";
import { decimalOf } from "../types.ts";

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
export const words: Readonly<Record<string, readonly [name: string, power: number]>> = lookup({
  or: ["or", power.or],
  xor: ["xor", power.xor],
  and: ["and", power.and],
  div: ["div", power.product],
  mod: ["%", power.product],
});

function numberLiteral(parser: Parser, { source, range }: Token): Expression {
  parser.next();
  if (/[eE]/.test(source)) {
    const value = Number(source);
    return literal(Number.isFinite(value) ? new Double(value) : new Failure("number-out-of-range", {}, range), "double", range);
  }
  if (!/^\d+$/.test(source)) {
    const value = Decimal.parse(source.replace(/\.$/, ""))!;
    return literal(value, String(decimalOf(value.scale)), range);
  }
  const value = BigInt(source);
  if (value <= int64) return literal(integer(value), "integer", range);
  return value <= uint64 ? literal(value, "unsigned", range) : literal(new Decimal(value, 0), "decimal 0", range);
}

/** Text literals side by side are one. */
function text(parser: Parser): Expression {
  const first = parser.next();
  let { value } = first;
  while (parser.token.kind === "text") value += parser.next().value;
  return literal(value, String(textLiteral), span(parser, first.range.start));
}

/** A text or bytes with a character set before it. */
function inCharacterSet(parser: Parser, token: Token): Expression | undefined {
  const word = token.value.toLowerCase();
  if (parser.ahead(1).kind === "variable" && /^_[a-z]/.test(word)) {
    if (!/^_(?:utf8mb4|utf8mb3|utf8|binary)$/.test(word)) return parser.uncovered(`the character set ${word.slice(1)}`);
    parser.next();
    const bytes = new Bytes(bytesOfHex(parser.token.value) ?? new Uint8Array());
    const { range } = parser.next();
    if (word !== "_binary" && textOfUtf8(bytes.bytes) === undefined)
      parser.report("bad-literal", range, { problem: `the bytes are no text in ${word.slice(1)}` });
    return word === "_binary" ? literal(bytes, "binary", range) : literal(textOfBytes(bytes.bytes), String(textLiteral), range);
  }
  if (parser.ahead(1).kind !== "text" || !(word.startsWith("_") || word === "n")) return undefined;
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

const units: Words = {
  read: (word) => (isUnit(word.toLowerCase()) ? word.toLowerCase() : undefined),
  expected: "a unit of time",
};
/** Of one part each, perhaps with a word before it. */
const plainUnits: Words = {
  read: (word) => (/^[a-z]+_(?!tsi_)/i.test(word) ? undefined : units.read(word.replace(/^sql_tsi_/i, ""))),
  expected: units.expected,
};

const formatKinds: Words = {
  read: (word) => /^(?:date|time|datetime|timestamp)$/.exec(word.toLowerCase())?.[0].replace("timestamp", "datetime"),
  expected: '"date", "time" or "datetime"',
};

/** INTERVAL n unit: the amount and the unit as two arguments. */
function interval(parser: Parser): Expression[] {
  parser.expect("interval");
  return [parser.expression(), readWord(parser, units)];
}

/** ADDDATE(d, INTERVAL n unit) or ADDDATE(d, n), of days. */
const orDays = (name: string): Special =>
  form((parser, open, token) => {
    const operand = parser.expression();
    parser.expect(",");
    const shift = parser.atWords("interval") ? interval(parser) : [parser.expression(), literal("day", "text", token.range)];
    return closed(parser, open, token, name, [operand, ...shift]);
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
  position: worded(calls.position, { inner: power.predicate }),
  trim: trimForm({ both: "trim", leading: "trim leading", trailing: "trim trailing" }),
  extract: worded(calls.extract),
  group_concat: form((parser, open, token) => {
    const distinct = parser.takeWords("distinct") ? " distinct" : "";
    const args: Expression[] = [];
    do args.push(parser.expression());
    while (parser.take(","));
    if (parser.atWords("order")) parser.uncovered("an order within an aggregate");
    if (!parser.takeWords("separator")) return aggregated(parser, closed(parser, open, token, `group_concat${distinct}`, args));
    if (args.length > 1) parser.uncovered("a separator behind several values");
    const separator = parser.expression();
    if (separator.kind !== "literal" || typeof separator.value !== "string")
      parser.report("expected", separator.range, { expected: "a text", found: "another value" });
    return aggregated(parser, closed(parser, open, token, `group_concat separator${distinct}`, [args[0], separator]));
  }),
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
  get_format: worded(calls.get_format, { words: formatKinds }),
  weight_string: form((parser, _open, token) => parser.uncovered("weight_string()", token.range.start)),
  row: rowForm,
  add_months: form((parser, open, token) => {
    const date = parser.expression();
    parser.expect(",");
    return closed(parser, open, token, "date_add", [date, parser.expression(), literal("month", "text", token.range)]);
  }),
  date_add: worded(calls.date_add, { words: units }),
  adddate: orDays("date_add"),
  date_sub: worded(calls.date_sub, { words: units }),
  subdate: orDays("date_sub"),
  timestampdiff: worded(calls.timestampdiff, { words: plainUnits }),
  timestampadd: worded(calls.timestampadd, { words: plainUnits }),
  interval: (parser, token) => {
    if (parser.ahead(1).value === "(") return undefined;
    const [amount, unit] = interval(parser);
    parser.expect("+");
    return parser.call("date_add", token.range, [parser.expression(power.sum), amount, unit], "function");
  },
});

/** Collations, whatever is covered of them. */
const ofCharacterSet =
  /^(?:big5|dec8|cp\d+|hp8|koi8[ru]|latin[1257]|swe7|ascii|ujis|sjis|hebrew|tis620|euckr|gb2312|greek|gbk|armscii8|utf8|utf8mb[34]|ucs2|keybcs2|macce|macroman|utf16|utf16le|utf32|geostd8|eucjpms)_|^binary$/i;

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

/** A form whose parts may not be rows, though it is read as comparisons, which rows have. */
function ofSingles(parser: Parser, node: Expression): Expression {
  const row = node.written?.parts.find((part) => isRow(ungrouped(part)));
  if (row) parser.report("row-alone", row.range);
  return node;
}

/** x SOUNDS LIKE y */
function readSounds(parser: Parser, left: Expression): Expression {
  const { range } = parser.next();
  parser.expect("like");
  const sound = (of: Expression) => parser.call("soundex", range, [of], "function", of.range.start);
  return parser.call("=", range, [sound(left), sound(parser.expression(power.predicate))], "operator", left.range.start);
}

/** What is added or taken away is an interval where that word follows, and no function of that name. */
const beforeInterval = (parser: Parser): Infix | undefined =>
  parser.ahead(1).source.toLowerCase() === "interval" && parser.ahead(2).value !== "("
    ? { power: power.sum, read: readInterval }
    : undefined;

const inRange = between(power.predicate);

const grammar = sqlGrammar({
  associative: { and: "always", or: "always" },
  rules: mariadbRules,
  power: { ...power, is: power.comparison },
  infix: infixPower,
  words,
  renamed: { "!=": "<>", "||": "or", "&&": "and" },
  chains: true,
  quantifies: "queries",
  signs: { "-": ["-", power.sign], "+": ["+", power.sign], "~": ["~", power.sign], "!": ["not", power.bang] },
  signed(parser, sign, operand) {
    const written = parser.source.slice(operand.range.start, operand.range.end);
    const digits = sign.value === "-" && operand.kind === "literal" && /^\d+$/.test(written) ? BigInt(written) : 0n;
    const range = span(parser, sign.range.start);
    if (digits === int64 + 1n) return literal(integer(-int64 - 1n), "integer", range);
    return digits > int64 ? literal(new Decimal(-digits, 0), "decimal 0", range) : undefined;
  },
  marks: {
    "@": (parser) => parser.uncovered("variables"),
    "{": (parser) => parser.uncovered("literals between braces; write DATE, TIME or TIMESTAMP before the text"),
  },
  literals: {
    number: numberLiteral,
    text,
    variable(parser, { value, source, range }) {
      parser.next();
      const bytes = new Bytes(bytesOfHex(value) ?? new Uint8Array());
      return literal(bytes, /^x/i.test(source) ? "hextext from char" : "hybrid", range);
    },
  },
  specials,
  word: inCharacterSet,
  reserved,
  columnText,
  qualifies: true,
  follows: {
    "+": beforeInterval,
    "-": beforeInterval,
    sounds: () => ({ power: power.predicate, read: readSounds }),
  },
  predicates: {
    like: { then: "escape" },
    regexp: {},
    rlike: { name: "regexp" },
    in: listed,
    between: (parser, left, range) => ofSingles(parser, inRange(parser, left, range)),
  },
  is: { missing: ["null", "unknown"], tests: ["true", "false"] },
  collation(parser, range) {
    const { value } = parser.next();
    const isLeftOut = ofCharacterSet.test(value) && !Object.hasOwn(collations, value.toLowerCase());
    return isLeftOut ? parser.uncovered(`the collation ${value}`, range.start) : value.toLowerCase();
  },
});

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
