import type { Expression, Grammar, Infix, Parser, Token, TokenKind } from "../../syntax/index.ts";
import { type TextRange, lookup } from "../../values/index.ts";
import { aggregated, comparison, distinctName, existsForm, isQuantified, quantified, readBracketed, readIn } from "./queries.ts";
import { type Special, literal, not, readBetween, readCase, refusedWord } from "./sql-forms.ts";

/** What stands after an operand: how it is read on, the operand being on its left; undefined where it is none. */
type Follow = (parser: Parser, token: Token) => Infix | undefined;

/** A word between a value and what it is tested against; `name` where the test has another, and the word before a third part. */
interface Test {
  readonly name?: string;
  readonly then?: "escape" | "flag";
  /** How tightly operators of the third part bind, where that is not as in the second. */
  readonly thenPower?: number;
}

/** A predicate that is read by itself, its word having been taken. */
type ReadPredicate = (parser: Parser, left: Expression, range: TextRange) => Expression;

/** What may stand after IS [NOT]. */
interface IsForms {
  /** Words for null, and words for tests of their own. */
  readonly missing: readonly string[];
  readonly tests: readonly string[];
  readonly distinct?: true;
  readonly normalized?: true;
}

/** What a dialect says of its grammar; all else is the same in all dialects of SQL (ISO 9075-2, clauses 6 and 8). */
export interface SqlGrammar extends Pick<Grammar, "rules" | "associative"> {
  /** How tightly operators bind: NOT, IS, predicates like LIKE, and COLLATE. */
  readonly power: Readonly<Record<"or" | "and" | "not" | "is" | "comparison" | "predicate" | "collate", number>>;
  /** Marks between operands, by how tightly they bind. */
  readonly infix: Readonly<Record<string, number>>;
  /** Words that are operators like marks, besides AND and OR. */
  readonly words?: Readonly<Record<string, readonly [name: string, power: number]>>;
  /** Marks that are another operator, and marks that are the opposite of one. */
  readonly renamed?: Readonly<Record<string, string>>;
  readonly negated?: Readonly<Record<string, string>>;
  /** Whether a comparison may stand beside another without brackets. */
  readonly chains?: true;
  /** After what ANY and ALL may stand: after comparisons, of queries alone; or of lists, too, after operators that bind no more tightly than this. */
  readonly quantifies?: "queries" | number;
  /** What a list is told that stands there where only a query may. */
  readonly refuseList?: (parser: Parser) => void;
  /** Marks before an operand: the operator, and how tightly it binds. */
  readonly signs: Readonly<Record<string, readonly [name: string, power: number]>>;
  /** What a mark and its operand are together, where they are one literal. */
  readonly signed?: (parser: Parser, sign: Token, operand: Expression) => Expression | undefined;
  /** Other marks with which an expression begins. */
  readonly marks?: Readonly<Record<string, Special>>;
  /** Literals by the kind of their token. */
  readonly literals: Partial<Readonly<Record<TokenKind, (parser: Parser, token: Token) => Expression>>>;
  /** Forms that begin with a word, besides CASE, EXISTS and NOT. */
  readonly specials: Readonly<Record<string, Special>>;
  /** Other forms that begin with a word that is no operator: a type before a text, say. */
  readonly word?: Special;
  readonly reserved: ReadonlySet<string>;
  readonly columnText: (name: string) => string;
  /** Whether a function may be called by its name in quotes. */
  readonly callsQuoted?: true;
  /** What a name in quotes is that is not called. */
  readonly quoted?: (token: Token) => Expression;
  /** What a name is after which none of the usual comes. */
  readonly afterName?: (parser: Parser, token: Token) => Expression | undefined;
  /** Whether a name with a point after it is that of a table or schema. */
  readonly qualifies?: true;
  /** Marks and words after an operand that are read by themselves. */
  readonly follows?: Readonly<Record<string, Follow>>;
  /** Whether ISNULL, NOTNULL and NOT NULL stand after a value, the last only with `"not null"`. */
  readonly nullTests?: "one word" | "not null";
  readonly predicates: Readonly<Record<string, Test | ReadPredicate>>;
  readonly is: IsForms | ((parser: Parser, left: Expression) => Expression);
  /** The name after COLLATE, which comes next; or an expression for what is not covered. */
  readonly collation: (parser: Parser, range: TextRange) => string | Expression;
}

/** The grammar of a dialect of SQL. */
export function sqlGrammar(sql: SqlGrammar): Grammar {
  const { power } = sql;
  const words: Readonly<Record<string, readonly [string, number]>> = lookup({
    and: ["and", power.and] as const,
    or: ["or", power.or] as const,
    ...sql.words,
  });
  const specials: Readonly<Record<string, Special>> = lookup({
    not: (parser: Parser, { range }: Token) => {
      parser.next();
      return parser.call("not", range, [parser.expression(power.not)], "operator");
    },
    exists: existsForm,
    case: readCase,
    ...sql.specials,
  });
  const ofLists = typeof sql.quantifies === "number" ? sql.quantifies : undefined;
  const follows = lookup(sql.follows ?? {});
  const predicates = lookup(sql.predicates);

  function prefix(parser: Parser): Expression {
    const { token } = parser;
    const { kind, value, range } = token;
    if (kind === "name") return named(parser, token);
    if (kind === "quoted name") {
      parser.next();
      if (sql.callsQuoted && parser.at("(")) return called(parser, token);
      return sql.quoted?.(token) ?? { kind: "name", name: value, range };
    }
    const read = sql.literals[kind];
    if (read) return read(parser, token);
    if (parser.at("(")) return readBracketed(parser);
    const sign = kind === "symbol" && Object.hasOwn(sql.signs, value) ? sql.signs[value] : undefined;
    if (!sign) return (kind === "symbol" && sql.marks?.[value]?.(parser, token)) || parser.missing();
    parser.next();
    const operand = parser.expression(sign[1]);
    return sql.signed?.(parser, token, operand) ?? parser.call(sign[0], range, [operand], "operator");
  }

  function named(parser: Parser, token: Token): Expression {
    const read =
      specials[token.value.toLowerCase()]?.(parser, token) ??
      sql.word?.(parser, token) ??
      refusedWord(parser, token, sql.reserved, sql.columnText);
    if (read) return read;
    parser.next();
    if (parser.at("(")) return called(parser, token);
    if (sql.qualifies && parser.at(".")) return qualified(parser, token);
    return sql.afterName?.(parser, token) ?? { kind: "name", name: token.value, range: token.range };
  }

  function qualified(parser: Parser, { source, range }: Token): Expression {
    const name = parser.ahead(1).source;
    const isMethod = parser.ahead(2).value === "(";
    return parser.uncovered(
      isMethod
        ? `methods; a function is written before what it takes: ${name}(${source}, …)`
        : "qualified names; name a column by itself",
      range.start,
    );
  }

  function called(parser: Parser, token: Token): Expression {
    const open = parser.next();
    const name = distinctName(parser, token.value.toLowerCase());
    return aggregated(parser, parser.call(name, token.range, parser.arguments(")", open), "function"));
  }

  function infix(parser: Parser): Infix | undefined {
    const { token } = parser;
    if (token.kind === "symbol") return follows[token.value]?.(parser, token) ?? marked(parser, token.value);
    if (token.kind !== "name") return undefined;
    const word = token.value.toLowerCase();
    if (words[word]) return parser.binary(...words[word]);
    if (word === "is") return { power: power.is, read: typeof sql.is === "function" ? sql.is : readIs };
    if (word === "collate") return { power: power.collate, read: readCollate };
    if (sql.nullTests && (word === "isnull" || word === "notnull")) return nullTest(word === "isnull", 1);
    if (word !== "not") return follows[word]?.(parser, token) ?? (isPredicate(parser, 0) ? tested : undefined);
    if (sql.nullTests === "not null" && parser.ahead(1).source.toLowerCase() === "null") return nullTest(false, 2);
    return isPredicate(parser, 1) ? { power: power.predicate, read: readNegated } : undefined;
  }

  const isPredicate = (parser: Parser, ahead: number): boolean => {
    const word = parser.ahead(ahead).source.toLowerCase();
    if (word === "similar" && parser.ahead(ahead + 1).source.toLowerCase() !== "to") return false;
    return predicates[word] !== undefined;
  };

  /** The operator that a mark is. */
  function marked(parser: Parser, mark: string): Infix | undefined {
    const found = Object.hasOwn(sql.infix, mark) ? sql.infix[mark] : undefined;
    if (found === undefined) return undefined;
    const positive = sql.negated?.[mark];
    const name = positive ?? sql.renamed?.[mark] ?? mark;
    if (ofLists !== undefined && found <= ofLists && isQuantified(parser, 0))
      return { power: found, read: (p, left) => ofAny(p, left, positive ? `not ${name}` : name) };
    if (positive) {
      const { read } = parser.binary(name, found);
      return { power: found, read: (p, left) => not(p, read(p, left), left.range) };
    }
    if (found !== power.comparison || !sql.quantifies) return parser.binary(name, found);
    const plain = sql.chains ? parser.binary(name, found) : parser.unchained(name, found);
    return sql.quantifies === "queries" ? comparison(parser, name, plain, sql.refuseList) : plain;
  }

  function ofAny(parser: Parser, left: Expression, relation: string): Expression {
    if (parser.isComparison(left)) parser.expected("brackets around one of the comparisons");
    return quantified(parser, left, relation, parser.next().range);
  }

  const nullTest = (isNull: boolean, tokens: number): Infix => ({
    power: power.is,
    read(parser, left) {
      if (tokens > 1) parser.next();
      return parser.call(isNull ? "is null" : "is not null", parser.next().range, [left], "operator", left.range.start);
    },
  });

  function readCollate(parser: Parser, left: Expression): Expression {
    const { range } = parser.next();
    const name = sql.collation(parser, range);
    return typeof name === "string" ? parser.call(`collate ${name}`, range, [left], "operator", left.range.start) : name;
  }

  const tested: Infix = { power: power.predicate, read: (parser, left) => readPredicate(parser, left) };

  function readNegated(parser: Parser, left: Expression): Expression {
    const { range } = parser.next();
    // Each of what is compared is not like it, rather than not any of them.
    if (ofLists !== undefined && isQuantified(parser, 0)) return readPredicate(parser, left, "not ");
    return not(parser, readPredicate(parser, left), range);
  }

  /** x LIKE y [ESCAPE e] and its kin, IN (…), BETWEEN a AND b */
  function readPredicate(parser: Parser, left: Expression, negation: "" | "not " = ""): Expression {
    const { range, value } = parser.next();
    const word = value.toLowerCase();
    const predicate = predicates[word];
    if (typeof predicate === "function") return predicate(parser, left, range);
    if (word === "similar") parser.next();
    if (ofLists !== undefined && isQuantified(parser, -1)) return quantified(parser, left, negation + word, range);
    const args = [left, parser.expression(power.predicate)];
    if (predicate.then && parser.takeWords(predicate.then)) args.push(parser.expression(predicate.thenPower ?? power.predicate));
    return parser.call(predicate.name ?? word, range, args, "operator", left.range.start);
  }

  /** x IS [NOT] NULL | TRUE | FALSE | UNKNOWN | DISTINCT FROM y | [form] NORMALIZED */
  function readIs(parser: Parser, left: Expression): Expression {
    const { missing, tests, distinct, normalized } = sql.is as IsForms;
    const { range } = parser.next();
    const negative = parser.takeWords("not");
    const finish = (name: string, ...args: Expression[]) => {
      const result = parser.call(name, range, [left, ...args], "operator", left.range.start);
      return negative ? not(parser, result, range) : result;
    };
    if (missing.some((word) => parser.takeWords(word)))
      return parser.call(negative ? "is not null" : "is null", range, [left], "operator", left.range.start);
    for (const word of tests) if (parser.takeWords(word)) return finish(`is ${word}`);
    if (distinct && parser.takeWords("distinct")) {
      parser.expect("from");
      const result = finish("is distinct from", parser.expression(power.is));
      if (parser.atWords("is")) parser.expected("brackets around one of the comparisons");
      return result;
    }
    if (normalized) {
      const form = /^nfk?[cd]$/i.test(parser.token.source) ? parser.next().value.toLowerCase() : "nfc";
      if (parser.takeWords("normalized")) return finish("is normalized", literal(form, "text", range));
    }
    const wanted = [...missing, ...tests, ...(distinct ? ["distinct from"] : []), ...(normalized ? ["normalized"] : [])];
    return parser.missing(
      `${wanted
        .slice(0, -1)
        .map((word) => `"${word}"`)
        .join(", ")} or "${wanted.at(-1)!}"`,
    );
  }

  return { separator: ",", associative: sql.associative, rules: sql.rules, prefix, infix };
}

/** x IN (…) and x BETWEEN a AND b, as all dialects have them. */
export const listed: ReadPredicate = (parser, left, range) => readIn(parser, left, range);
export const between =
  (power: number): ReadPredicate =>
  (parser, left, range) =>
    readBetween(parser, left, range, power);
