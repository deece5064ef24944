import type { Expression, Infix, Parser, Token } from "../../syntax/index.ts";
import type { TextRange, Value } from "../../values/index.ts";

/** Special forms of SQL (ISO 9075-2) that several dialects read alike; each dialect lists those that it has. */

/** Reads what begins with a word; undefined when the word turns out to be an ordinary name. */
export type Special = (parser: Parser, token: Token) => Expression | undefined;

/** From `start` to the last token taken. */
export const span = (parser: Parser, start: number): TextRange => ({ start, end: parser.lastEnd });

export const literal = (value: Value, type: string, range: TextRange): Expression => ({ kind: "literal", value, type, range });

export const constant =
  (value: Value, type: string, form?: string): Special =>
  (parser, { range }) => {
    parser.next();
    return { ...literal(value, type, range), ...(form && { written: { form, parts: [] } }) };
  };

/** A special form that looks like a function; read only when a bracket follows. */
export const form =
  (read: (parser: Parser, open: Token, token: Token) => Expression): Special =>
  (parser, token) => {
    if (parser.ahead(1).value !== "(" || parser.ahead(1).kind !== "symbol") return undefined;
    parser.next();
    return read(parser, parser.next(), token);
  };

/** The call of a form whose closing bracket comes next. */
export function closed(parser: Parser, open: Token, token: Token, name: string, args: readonly Expression[]): Expression {
  parser.close(")", open);
  return parser.call(name, token.range, args, "function");
}

/** `not x`, written where an operator with NOT in it stands. */
export const not = (parser: Parser, inner: Expression, nameRange: TextRange): Expression => ({
  ...parser.call("not", nameRange, [inner], "operator", inner.range.start),
  range: inner.range,
});

/** The arguments between commas after what has been read, up to the closing bracket. */
export const restOf = (parser: Parser, open: Token): Expression[] =>
  parser.take(",") ? parser.arguments(")", open) : (parser.close(")", open), []);

/** CASE [subject] (WHEN condition THEN result)+ [ELSE result] END */
export function readCase(parser: Parser, { range }: Token): Expression {
  parser.next();
  const subject = parser.atWords("when") ? undefined : parser.expression();
  const branches: { condition: Expression; result: Expression }[] = [];
  const parts = subject ? [subject] : [];
  while (parser.takeWords("when")) {
    const given = parser.expression();
    const condition: Expression = subject
      ? { kind: "call", name: "=", nameRange: given.range, args: [subject, given], notation: "operator", range: given.range }
      : given;
    parser.expect("then");
    const result = parser.expression();
    branches.push({ condition, result });
    parts.push(given, result);
  }
  if (branches.length === 0) parser.expect("when");
  const otherwise = parser.takeWords("else") ? parser.expression() : undefined;
  parser.expect("end");
  const whole = { start: range.start, end: parser.lastEnd };
  const written = subject && { form: "case", parts: [...parts, ...(otherwise ? [otherwise] : [])] };
  return { kind: "choice", branches, ...(otherwise && { otherwise }), range: whole, ...(written && { written }) };
}

export type TypeName = (parser: Parser) => { type: string; typeRange: TextRange };

/** CAST(x AS type) */
export const castForm = (typeName: TypeName): Special =>
  form((parser, open, token) => {
    const operand = parser.expression();
    parser.expect("as");
    const { type, typeRange } = typeName(parser);
    parser.close(")", open);
    return { kind: "cast", operand, type, typeRange, range: span(parser, token.range.start) };
  });

/** x::type */
export const castMark = (typeName: TypeName, power: number) => (): Infix => ({
  power,
  read(parser, left) {
    parser.next();
    return { kind: "cast", operand: left, ...typeName(parser), range: span(parser, left.range.start) };
  },
});

/** TypeName : word+ ['(' number [',' number] ')'] , the words of one type joined by a space. */
export function plainTypeName(parser: Parser): { type: string; typeRange: TextRange } {
  const { start } = parser.token.range;
  const words: string[] = [];
  while (parser.token.kind === "name") words.push(parser.next().value.toLowerCase());
  const type = words.join(" ");
  if (words.length === 0) parser.expected("a type");
  return { type: type + typeSizes(parser), typeRange: span(parser, start) };
}

/** The sizes of a type between brackets, written without blanks; nothing where there are none. */
export function typeSizes(parser: Parser): string {
  if (!parser.take("(")) return "";
  const sizes: string[] = [];
  do {
    const sign = parser.at("-") || parser.at("+") ? parser.next().source : "";
    if (parser.token.kind !== "number") parser.expected("a number");
    sizes.push(sign + parser.next().source);
  } while (parser.take(","));
  parser.expect(")");
  return `(${sizes.join(",")})`;
}

/** COALESCE(a, b) is CASE WHEN a IS NOT NULL THEN a ELSE b END. */
export const coalesceForm: Special = form((parser, open, token) => {
  const args = parser.arguments(")", open);
  const [last] = args.slice(-1);
  if (!last) return parser.call("coalesce", token.range, args, "function");
  const branches = args.slice(0, -1).map((result) => ({
    condition: { ...parser.call("is not null", token.range, [result], "operator"), range: result.range },
    result,
  }));
  const written = { form: "coalesce", parts: args };
  return { kind: "choice", form: "coalesce", branches, otherwise: last, range: span(parser, token.range.start), written };
});

/** NULLIF(a, b) is CASE WHEN a = b THEN NULL ELSE a END; `nullType` is the dialect's type of NULL. */
export const nullifForm = (nullType: string): Special =>
  form((parser, open, token) => {
    const args = parser.arguments(")", open);
    const range = span(parser, token.range.start);
    if (args.length !== 2) return parser.call("nullif", token.range, args, "function");
    const condition: Expression = { kind: "call", name: "=", nameRange: token.range, args, notation: "operator", range };
    const branches = [{ condition, result: literal(null, nullType, token.range) }];
    return { kind: "choice", form: "nullif", branches, otherwise: args[0], range, written: { form: "nullif", parts: args } };
  });

/** IF(condition, then, else) is CASE WHEN condition THEN then ELSE else END. */
export const ifForm: Special = form((parser, open, token) => {
  const args = parser.arguments(")", open);
  if (args.length !== 3) return parser.call("if", token.range, args, "function");
  const [condition, result, otherwise] = args;
  const range = span(parser, token.range.start);
  return { kind: "choice", branches: [{ condition, result }], otherwise, range, written: { form: "if", parts: args } };
});

/** `first` FROM p FOR n in either order, or plain arguments: the call of `name`. */
export const substringForm = (name: (token: Token) => string): Special =>
  form((parser, open, token) => {
    const operand = parser.expression();
    const { from, count } = fromFor(parser);
    if (!from && !count) return parser.call(name(token), token.range, [operand, ...restOf(parser, open)], "function");
    const start = from ?? literal(1, "integer", span(parser, parser.lastEnd));
    return closed(parser, open, token, name(token), [operand, start, ...(count ? [count] : [])]);
  });

/** FROM x and FOR y, in either order. */
export function fromFor(parser: Parser): { from?: Expression; count?: Expression } {
  let from: Expression | undefined;
  let count: Expression | undefined;
  while (!(from && count)) {
    if (!from && parser.takeWords("from")) from = parser.expression();
    else if (!count && parser.takeWords("for")) count = parser.expression();
    else break;
  }
  return { ...(from && { from }), ...(count && { count }) };
}

/**
 * TRIM([[LEADING | TRAILING | BOTH] [characters] FROM] s): the call of one of three names. Where it is `loose`, FROM may be left out
 * after one of the words, and the characters may stand behind a comma.
 */
export const trimForm = (names: Readonly<Record<"both" | "leading" | "trailing", string>>, loose?: "loose"): Special =>
  form((parser, open, token) => {
    const end = (["leading", "trailing", "both"] as const).find((word) => parser.takeWords(word));
    const name = names[end ?? "both"];
    let characters = parser.atWords("from") ? undefined : parser.expression();
    let operand: Expression | undefined;
    if (end && !loose) parser.expect("from");
    if ((end && !loose) || parser.takeWords("from")) operand = parser.expression();
    else [operand, characters] = [characters, undefined];
    if (loose && parser.take(",")) characters = parser.expression();
    return closed(parser, open, token, name, [operand ?? parser.missing(), ...(characters ? [characters] : [])]);
  });

/** x [NOT] BETWEEN [SYMMETRIC] a AND b, the word having been taken. */
export function readBetween(parser: Parser, left: Expression, range: TextRange, power: number): Expression {
  const call = (name: string, args: Expression[]) => parser.call(name, range, args, "operator", left.range.start);
  const symmetric = parser.takeWords("symmetric");
  if (!symmetric) parser.takeWords("asymmetric");
  const low = parser.expression(power);
  parser.expect("and");
  const high = parser.expression(power);
  const within = (a: Expression, b: Expression) => call("and", [call(">=", [left, a]), call("<=", [left, b])]);
  const tests = symmetric ? call("or", [within(low, high), within(high, low)]) : within(low, high);
  return { ...tests, written: { form: symmetric ? "between symmetric" : "between", parts: [left, low, high] } };
}

/** Words between the parts of an expression: where a value is wanted, something is missing before them. */
const structural: ReadonlySet<string> = new Set(
  "and as asc between both by collate desc distinct div else end escape for from having ilike in into is isnull leading like limit not notnull offset on or order placing regexp rlike similar then to trailing using when where xor".split(
    " ",
  ),
);

/**
 * What a word gives that the dialect does not take for a column: nothing, with what is missing or how a column of that
 * name is written. Undefined where the word is a name like any other, or that of a function.
 */
export function refusedWord(
  parser: Parser,
  { value, range }: Token,
  reserved: ReadonlySet<string>,
  columnText: (name: string) => string,
): Expression | undefined {
  const word = value.toLowerCase();
  if (!reserved.has(word)) return undefined;
  if (structural.has(word)) return parser.missing();
  if (parser.ahead(1).value === "(" && parser.ahead(1).kind === "symbol") return undefined;
  const text = columnText(value);
  parser.report("reserved-word", range, { word: value, column: text }, [{ title: `Write ${text}`, edits: [{ range, text }] }]);
  parser.next();
  return { kind: "missing", range };
}
