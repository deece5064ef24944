import {
  type Expression,
  type Grammar,
  type Infix,
  type ParseLimits,
  type Parsed,
  type Parser,
  parseWith,
  undoubled,
} from "../../syntax/index.ts";
import { Failure } from "../../values/index.ts";

/** How tightly operators bind (OpenDocument 1.3 part 4, 5.5); prefix signs bind more tightly than `^`. */
export const power = { comparison: 10, "&": 20, sum: 30, product: 40, "^": 50, "%": 60, prefix: 70 } as const;

export const infixPower: Readonly<Record<string, number>> = {
  "=": power.comparison,
  "<>": power.comparison,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "&": power["&"],
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
  "/": power.product,
  "^": power["^"],
};

const grammar: Grammar = {
  separator: ";",
  associative: { "&": "always" },
  // 5.6: an argument left empty is like a blank cell.
  emptyArgument: { kind: "literal", value: null, type: "empty", range: { start: 0, end: 0 } },
  rules: [
    { kind: "blank", shape: /[ \t\r\n]+|(?<=^[ \t\r\n]*)(?:of:)?=/y },
    { kind: "text", shape: /"(?:[^"]|"")*"/y, read: undoubled },
    { kind: "text", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
    { kind: "quoted name", shape: /'(?:[^']|'')*'/y, read: undoubled },
    { kind: "quoted name", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
    { kind: "number", shape: /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y },
    { kind: "name", shape: /[\p{L}_][\p{L}\p{N}\p{M}_.]*/uy },
    { kind: "unknown", shape: /#(?:DIV\/0!|N\/A|NAME\?|NULL!|NUM!|REF!|VALUE!)/y },
    { kind: "symbol", shape: /<=|>=|<>|[-+*/^&=<>%();,{}|[\]!~:.$]/y },
  ],
  prefix,
  infix,
};

/** Expression : Number | Text | Label | Call | Array | '(' Expression ')' | ('+' | '-') Expression */
function prefix(parser: Parser): Expression {
  const { token } = parser;
  const { range } = token;
  if (parser.at("-") || parser.at("+")) {
    parser.next();
    const operand = parser.expression(power.prefix);
    return parser.call(token.source, range, [operand], "operator");
  }
  if (parser.take("(")) {
    const inner = parser.expression();
    parser.close(")", token);
    return { kind: "group", inner, range: { start: range.start, end: parser.lastEnd } };
  }
  if (parser.take("{")) return array(parser, range.start, token);
  if (parser.at("[")) {
    while (parser.token.kind !== "end" && !parser.at("]")) parser.next();
    parser.next();
    const whole = { start: range.start, end: parser.lastEnd };
    parser.report("not-covered", whole, { what: "cell references; name a column of the sample instead" });
    return { kind: "missing", range: whole };
  }
  switch (token.kind) {
    case "number":
      parser.next();
      return { kind: "literal", value: Number(token.source), type: "number", range };
    case "text":
      parser.next();
      return { kind: "literal", value: token.value, type: "text", range };
    case "quoted name":
      parser.next();
      return { kind: "name", name: token.value, range };
    case "unknown":
      if (!token.source.startsWith("#")) break;
      parser.next();
      return {
        kind: "literal",
        value: new Failure("error-value", { kind: token.source }, range, token.source),
        type: "any",
        range,
      };
    case "name": {
      parser.next();
      const open = parser.token;
      if (parser.take("(")) return parser.call(token.source, range, parser.arguments(")", open), "function");
      if (/^(?:true|false)$/i.test(token.source)) {
        return { kind: "literal", value: token.source.toLowerCase() === "true", type: "boolean", range };
      }
      return { kind: "name", name: token.source, range };
    }
  }
  return parser.missing();
}

/** Array : '{' Expression ((';' | '|') Expression)* '}' — rows and columns are read as one list. */
function array(
  parser: Parser,
  start: number,
  open: { range: { start: number; end: number }; source: string } & Parser["token"],
): Expression {
  const items: Expression[] = [];
  if (!parser.take("}")) {
    do items.push(parser.expression());
    while (parser.take(";") || parser.take("|"));
    parser.close("}", open);
  }
  return { kind: "list", form: "list", items, range: { start, end: parser.lastEnd } };
}

function infix(parser: Parser): Infix | undefined {
  const { token } = parser;
  if (token.kind !== "symbol") return undefined;
  if (["!", "~", ":"].includes(token.value)) {
    return { power: power.prefix, read: (p) => p.uncovered("reference operators; name a column of the sample instead") };
  }
  if (token.value === "%") {
    return { power: power["%"], read: (p, left) => p.call("%", p.next().range, [left], "operator", left.range.start) };
  }
  const found = infixPower[token.value];
  return found === undefined ? undefined : parser.binary(token.value, found);
}

export const parseOpenFormula = (source: string, limits?: ParseLimits): Parsed => parseWith(grammar, source, limits);
