import {
  type Expression,
  type Grammar,
  type Infix,
  type ParseLimits,
  type Parsed,
  type Parser,
  type Token,
  parseWith,
  undoubled,
} from "../../syntax/index.ts";
import { Decimal, Double, type TextRange, integer } from "../../values/index.ts";
import { ncName, power, symbols, words } from "./operators.ts";

const grammar: Grammar = {
  separator: ",",
  associative: { and: "always", or: "always", "||": "always" },
  separatorPower: power[","],
  rules: [
    { kind: "blank", shape: /[ \t\r\n]+/y },
    { kind: "comment", shape: /\(:/y, closing: ":)" },
    { kind: "text", shape: /"(?:[^"]|"")*"|'(?:[^']|'')*'/y, read: undoubled },
    { kind: "text", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
    { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
    { kind: "number", shape: /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y },
    {
      kind: "variable",
      shape: new RegExp(`\\$[ \\t\\r\\n]*${ncName}(?::${ncName})?`, "uy"),
      read: (source) => source.slice(1).trim(),
    },
    { kind: "name", shape: new RegExp(`${ncName}(?::${ncName})?`, "uy"), read: (source) => source.replace(/^fn:/, "") },
    { kind: "symbol", shape: /:=|=>|\|\||!=|<=|>=|<<|>>|\.\.|\/\/|[-+*/=<>!(),[\]{}?#.|@:;&]/y },
  ],
  prefix,
  infix,
};

const span = (parser: Parser, start: number): TextRange => ({ start, end: parser.lastEnd });

const single = (parser: Parser): Expression => parser.expression(power[","]);

const literal = (value: string | number | boolean, type: string, range: TextRange): Expression => ({
  kind: "literal",
  value,
  type,
  range,
});

function prefix(parser: Parser): Expression {
  const { token } = parser;
  const { range } = token;
  switch (token.kind) {
    case "number":
      parser.next();
      return { kind: "literal", ...numberLiteral(token.source), range };
    case "text":
      parser.next();
      return literal(token.value, "text", range);
    case "variable":
      parser.next();
      return { kind: "name", name: `$${token.value}`, range };
    case "name":
      return named(parser, token);
    case "symbol":
      break;
    default:
      return parser.missing();
  }
  if (parser.at("-") || parser.at("+")) {
    parser.next();
    return parser.call(token.source, range, [parser.expression(power.sign)], "operator");
  }
  if (parser.take("(")) {
    if (parser.take(")")) return { kind: "list", form: "sequence", items: [], range: span(parser, range.start) };
    const inner = parser.expression();
    parser.close(")", token);
    return { kind: "group", inner, range: span(parser, range.start) };
  }
  if (parser.take(".")) return { kind: "name", name: ".", range };
  if (parser.take("[")) {
    const items = parser.arguments("]", token);
    return { kind: "list", form: "array", items, range: span(parser, range.start) };
  }
  if (parser.at("/") || parser.at("//") || parser.at("@") || parser.at("..")) {
    parser.next();
    parser.report("not-covered", range, { what: "paths; a column is a variable, such as $label" });
    return { kind: "missing", range };
  }
  return parser.missing();
}

/** Integer, decimal with a point, double with an exponent (XPath 3.1, 3.1.1). */
function numberLiteral(source: string) {
  if (/e/i.test(source)) return { value: new Double(Number(source)), type: "double" };
  return source.includes(".")
    ? { value: Decimal.parse(source)!, type: "decimal" }
    : { value: integer(BigInt(source)), type: "integer" };
}

function named(parser: Parser, token: Token): Expression {
  const { range, value } = token;
  const next = parser.ahead(1);
  const follows = (symbol: string) => next.kind === "symbol" && next.value === symbol;
  if ((value === "for" || value === "let" || value === "some" || value === "every") && next.kind === "variable")
    return binding(parser, value);
  if (value === "if" && follows("(")) return conditional(parser);
  if (value === "function" && follows("(")) return inlineFunction(parser);
  if (value === "map" && follows("{")) return mapConstructor(parser);
  if (value === "array" && follows("{")) {
    parser.next();
    const open = parser.next();
    const inner = parser.at("}") ? undefined : parser.expression();
    parser.close("}", open);
    return parser.call("array of", range, inner ? [inner] : [], "operator");
  }
  parser.next();
  if (parser.take("#"))
    return { kind: "function-reference", name: value, arity: Number(parser.next().source), range: span(parser, range.start) };
  const open = parser.token;
  if (parser.take("(")) return functionCall(parser, token, callArguments(parser, open));
  const column = `$${value}`;
  parser.report(
    "expected",
    range,
    { expected: `a column as a variable (${column}), or a function with brackets`, found: `"${token.source}"` },
    [{ title: `Write ${column}`, edits: [{ range, text: column }] }],
  );
  return { kind: "missing", range };
}

/** Arguments, of which `?` may stand for those of a partial application. */
function callArguments(parser: Parser, open: Token): (Expression | "?")[] {
  const args: (Expression | "?")[] = [];
  if (parser.take(")")) return args;
  do {
    const next = parser.ahead(1).value;
    if (parser.at("?") && (next === "," || next === ")")) {
      parser.next();
      args.push("?");
    } else args.push(single(parser));
    if (parser.at(";")) {
      const { range } = parser.token;
      parser.report("wrong-separator", range, { expected: ",", found: ";" }, [
        { title: 'Write ","', edits: [{ range, text: "," }] },
      ]);
    }
  } while (parser.take(",") || parser.take(";"));
  parser.close(")", open);
  return args;
}

/** A call; a type's name makes a cast, and a `?` argument a function of what is left open. */
function functionCall(parser: Parser, name: Token, given: readonly (Expression | "?")[]): Expression {
  const range = span(parser, name.range.start);
  if ((name.value === "position" || name.value === "last") && given.length === 0)
    return { kind: "name", name: `${name.value}()`, range };
  const parameters: string[] = [];
  const args = given.map((arg): Expression => {
    if (arg !== "?") return arg;
    parameters.push(`$#${parameters.length}`);
    return { kind: "name", name: parameters[parameters.length - 1], range: name.range };
  });
  const call: Expression =
    name.value.startsWith("xs:") && args.length === 1
      ? { kind: "cast", operand: args[0], type: `${name.value}?`, typeRange: name.range, range }
      : { kind: "call", name: name.value, nameRange: name.range, args, notation: "function", range };
  return parameters.length > 0 ? { kind: "lambda", parameters, body: call, range } : call;
}

/** ('for' | 'let' | 'some' | 'every') $x (in | :=) e (, $y …)* (return | satisfies) e */
function binding(parser: Parser, form: "for" | "let" | "some" | "every"): Expression {
  const { start } = parser.next().range;
  const clauses: { variable: string; source: Expression }[] = [];
  do {
    const variable = parser.token.kind === "variable" ? `$${parser.next().value}` : (parser.expected("a variable"), "");
    if (form === "let") parser.expect(":=");
    else parser.expect("in");
    clauses.push({ variable, source: single(parser) });
  } while (parser.take(","));
  if (form === "for" && (parser.atWords("let") || parser.atWords("for")))
    return close(nested(parser, parser.token.value as "let"));
  if (form === "let" && (parser.atWords("let") || parser.atWords("for")))
    return close(nested(parser, parser.token.value as "let"));
  parser.expect(form === "some" || form === "every" ? "satisfies" : "return");
  return close(single(parser));

  function close(body: Expression): Expression {
    return clauses.reduceRight(
      (inner, { variable, source }): Expression => ({
        kind: "binding",
        form,
        variable,
        source,
        body: inner,
        range: span(parser, start),
      }),
      body,
    );
  }
}

const nested = (parser: Parser, form: "for" | "let"): Expression => binding(parser, form);

/** 'if' '(' e ')' 'then' e 'else' e */
function conditional(parser: Parser): Expression {
  const { start } = parser.next().range;
  const open = parser.next();
  const condition = parser.expression();
  parser.close(")", open);
  parser.expect("then");
  const result = single(parser);
  parser.expect("else");
  const otherwise = single(parser);
  return { kind: "choice", branches: [{ condition, result }], otherwise, range: span(parser, start) };
}

/** 'function' '(' $a ['as' type], … ')' ['as' type] '{' e '}' */
function inlineFunction(parser: Parser): Expression {
  const { start } = parser.next().range;
  const open = parser.next();
  const parameters: string[] = [];
  if (!parser.take(")")) {
    do {
      if (parser.token.kind !== "variable") {
        parser.expected("a parameter");
        break;
      }
      parameters.push(`$${parser.next().value}`);
      if (parser.takeWords("as")) sequenceType(parser);
    } while (parser.take(","));
    parser.close(")", open);
  }
  if (parser.takeWords("as")) sequenceType(parser);
  const brace = parser.token;
  parser.expect("{");
  const body: Expression = parser.at("}")
    ? { kind: "list", form: "sequence", items: [], range: span(parser, parser.lastEnd) }
    : parser.expression();
  parser.close("}", brace);
  return { kind: "lambda", parameters, body, range: span(parser, start) };
}

/** 'map' '{' (e ':' e) (, …)* '}' */
function mapConstructor(parser: Parser): Expression {
  const { start } = parser.next().range;
  const open = parser.next();
  const items: Expression[] = [];
  if (!parser.take("}")) {
    do {
      items.push(single(parser));
      parser.expect(":");
      items.push(single(parser));
    } while (parser.take(","));
    parser.close("}", open);
  }
  return { kind: "list", form: "map", items, range: span(parser, start) };
}

/** A sequence type, as its source text without blanks. */
function sequenceType(parser: Parser, marks: readonly string[] = ["?", "*", "+"]): string {
  let type = parser.next().source;
  if (parser.take("(")) {
    let depth = 1;
    type += "(";
    while (depth > 0 && parser.token.kind !== "end") {
      const { source } = parser.next();
      depth += source === "(" ? 1 : source === ")" ? -1 : 0;
      type += source;
    }
  }
  for (const mark of marks) if (parser.take(mark)) return type + mark;
  return type;
}

function infix(parser: Parser): Infix | undefined {
  const { token } = parser;
  if (token.kind === "name") return wordInfix(parser, token.value);
  if (token.kind !== "symbol") return undefined;
  switch (token.value) {
    case ",":
      return { power: power[","], read: readSequence };
    case "[":
      return {
        power: power.postfix,
        read: (p, base) => {
          const open = p.next();
          const predicate = p.expression();
          p.close("]", open);
          return { kind: "filter", base, predicate, range: span(p, base.range.start) };
        },
      };
    case "(":
      return {
        power: power.postfix,
        read: (p, callee) => {
          const args = callArguments(p, p.next()).filter((arg) => arg !== "?");
          return { kind: "apply", callee, args, range: span(p, callee.range.start) };
        },
      };
    case "?":
      return { power: power.postfix, read: readLookup };
    case "!":
      return {
        power: power["!"],
        read: (p, source) => {
          p.next();
          const body = p.expression(power["!"]);
          return { kind: "binding", form: "each", variable: ".", source, body, range: span(p, source.range.start) };
        },
      };
    case "=>":
      return { power: power["=>"], read: readArrow };
    case "/":
    case "//":
    case "|":
      parser.report("not-covered", token.range, { what: "paths and unions of nodes" });
      return undefined;
  }
  const found = symbols[token.value];
  return found === undefined ? undefined : operator(parser, token.value, found);
}

const operator = (parser: Parser, name: string, strength: number): Infix =>
  strength === power.comparison ? parser.unchained(name, strength) : parser.binary(name, strength);

function wordInfix(parser: Parser, word: string): Infix | undefined {
  const found = words[word];
  if (found !== undefined) return operator(parser, word, found);
  const typed = (first: string, second: string, strength: number, name: string): Infix | undefined =>
    parser.atWords(first, second)
      ? {
          power: strength,
          read: (p, left) => {
            const { range } = p.next();
            p.next();
            const from = p.token.range.start;
            // What is cast is one item at most; a * or + behind its type calculates (XPath 3.1, A.1, SingleType).
            const type = strength >= power.castable ? sequenceType(p, ["?"]) : sequenceType(p);
            const typeRange = span(p, from);
            if (name === "cast") return { kind: "cast", operand: left, type, typeRange, range: span(p, left.range.start) };
            return p.call(name, range, [left, literal(type, "text", typeRange)], "operator", left.range.start);
          },
        }
      : undefined;
  return (
    typed("instance", "of", power["instance of"], "instance of") ??
    typed("treat", "as", power["instance of"], "treat as") ??
    typed("castable", "as", power.castable, "castable as") ??
    typed("cast", "as", power.cast, "cast")
  );
}

/** e (, e)+ */
function readSequence(parser: Parser, first: Expression): Expression {
  const items = [first];
  while (parser.take(",")) items.push(single(parser));
  return { kind: "list", form: "sequence", items, range: span(parser, first.range.start) };
}

/** base ? (name | number | '*' | '(' e ')') */
function readLookup(parser: Parser, base: Expression): Expression {
  const { range } = parser.next();
  const { token } = parser;
  let key: Expression;
  if (parser.take("*")) return parser.call("look up all", range, [base], "operator", base.range.start);
  if (token.kind === "number") key = literal(Number(parser.next().source), "integer", token.range);
  else if (token.kind === "name") key = literal(parser.next().source, "text", token.range);
  else if (parser.at("(")) key = prefix(parser);
  else return parser.missing("a key");
  return parser.call("look up", range, [base, key], "operator", base.range.start);
}

/** e => f(args) is f(e, args) */
function readArrow(parser: Parser, first: Expression): Expression {
  parser.next();
  const callee = parser.next();
  const open = parser.token;
  if (!parser.expect("(")) return first;
  const args = callArguments(parser, open);
  if (callee.kind === "variable") {
    const target: Expression = { kind: "name", name: `$${callee.value}`, range: callee.range };
    return {
      kind: "apply",
      callee: target,
      args: [first, ...args.filter((arg) => arg !== "?")],
      range: span(parser, first.range.start),
    };
  }
  return { ...functionCall(parser, callee, [first, ...args]), range: span(parser, first.range.start) };
}

export const parseXPathExpression = (source: string, limits?: ParseLimits): Parsed => parseWith(grammar, source, limits);
