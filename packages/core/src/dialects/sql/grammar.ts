import type { Diagnostic } from "../../diagnostics/index.ts";
import { type Expression, type ParseLimits, type Parsed, type Parser, type Token, parseWith, walk } from "../../syntax/index.ts";
import { Decimal, Double, integer, lookup } from "../../values/index.ts";
import {
  type Special,
  castForm,
  closed,
  coalesceForm,
  constant,
  form,
  fromFor,
  literal,
  nullifForm,
  plainTypeName,
  span,
  trimForm,
} from "../shared/sql-forms.ts";
import { normalForms, worded } from "../shared/sql-calls.ts";
import { between, listed, sqlGrammar } from "../shared/sql-grammar.ts";
import { calls } from "./calls.ts";
import { columnText, reserved, sqlRules } from "./lexis.ts";

/** How tightly operators bind: by the productions of clause 6. */
export const power = { or: 5, and: 10, not: 15, is: 20, comparison: 25, sum: 40, product: 45, joined: 40, sign: 60, collate: 70 };

export const infixPower: Readonly<Record<string, number>> = lookup({
  "=": power.comparison,
  "<>": power.comparison,
  "<": power.comparison,
  "<=": power.comparison,
  ">": power.comparison,
  ">=": power.comparison,
  "||": power.joined,
  "+": power.sum,
  "-": power.sum,
  "*": power.product,
  "/": power.product,
});

/** <exact numeric literal> and <approximate numeric literal> (5.3) */
function numberLiteral({ source, range }: Token): Expression {
  const digits = source.replaceAll("_", "");
  if (/^0[xob]/i.test(digits)) return literal(integer(BigInt(digits.toLowerCase())), "integer", range);
  if (/[eE]/.test(digits)) return literal(new Double(Number(digits)), "double", range);
  return /^\d+$/.test(digits)
    ? literal(integer(BigInt(digits)), "integer", range)
    : literal(Decimal.parse(digits.replace(/\.$/, ""))!, "decimal", range);
}

/** Text literals with a line break between them are one (5.3, syntax rule 1). */
function text(parser: Parser): Expression {
  const first = parser.next();
  let { value } = first;
  while (parser.token.kind === "text" && parser.source.slice(parser.lastEnd, parser.token.range.start).includes("\n"))
    value += parser.next().value;
  return literal(value, "text", span(parser, first.range.start));
}

/** USING CHARACTERS or USING OCTETS after the arguments of a form; characters unless said otherwise. */
function inOctets(parser: Parser): boolean {
  if (!parser.takeWords("using")) return false;
  if (parser.takeWords("octets")) return true;
  parser.expect("characters");
  return false;
}

/** The arguments of a regular expression function: pattern [FLAG f] IN text, and what may follow in any order. */
function regexForm(name: string, follows: readonly string[]): Special {
  return form((parser, open, token) => {
    const after = name === "position_regex" && (parser.takeWords("after") || (parser.takeWords("start"), false));
    const pattern = parser.expression(power.comparison);
    const flags = parser.takeWords("flag") ? parser.expression(power.comparison) : literal("", "text", token.range);
    parser.expect("in");
    const subject = parser.expression(power.comparison);
    const found: Record<string, Expression> = {};
    let isAll = false;
    for (let more = true; more;) {
      more = false;
      for (const word of follows) {
        if (found[word] || !parser.takeWords(word)) continue;
        isAll = word === "occurrence" && parser.takeWords("all");
        found[word] = isAll ? literal(1, "integer", token.range) : parser.expression(power.comparison);
        more = true;
      }
      if (inOctets(parser)) return parser.uncovered("positions in octets");
    }
    const number = (word: string, value: number) => found[word] ?? literal(value, "integer", token.range);
    const start = number("from", 1);
    const args: Readonly<Record<string, Expression[]>> = {
      occurrences_regex: [subject, pattern, flags, start],
      substring_regex: [subject, pattern, flags, start, number("occurrence", 1), number("group", 0)],
      position_regex: [
        subject,
        pattern,
        flags,
        start,
        number("occurrence", 1),
        number("group", 0),
        literal(after ? 1 : 0, "integer", token.range),
      ],
      translate_regex: [
        subject,
        pattern,
        found.with ?? literal("", "text", token.range),
        flags,
        start,
        ...(found.occurrence && !isAll ? [found.occurrence] : []),
      ],
    };
    return closed(parser, open, token, name, args[name]);
  });
}

/** CHAR_LENGTH(s USING OCTETS) */
const lengthForm = form((parser, open, token) => {
  const operand = parser.expression();
  return closed(parser, open, token, inOctets(parser) ? "octet_length" : "char_length", [operand]);
});

const typedText =
  (type: string): Special =>
  (parser, token) => {
    if (parser.ahead(1).kind !== "text") return undefined;
    parser.next();
    const { value, range } = parser.next();
    const operand = literal(value, "text", range);
    return { kind: "cast", operand, type, typeRange: token.range, range: span(parser, token.range.start) };
  };

const specials: Readonly<Record<string, Special>> = lookup({
  true: constant(true, "boolean"),
  false: constant(false, "boolean"),
  unknown: constant(null, "boolean", "unknown"),
  null: constant(null, "null"),
  date: typedText("date"),
  cast: castForm(plainTypeName),
  coalesce: coalesceForm,
  nullif: nullifForm("null"),
  char_length: lengthForm,
  character_length: lengthForm,
  substring: form((parser, open, token) => {
    const operand = parser.expression();
    if (parser.takeWords("similar")) {
      const pattern = parser.expression();
      parser.expect("escape");
      return closed(parser, open, token, "substring similar", [operand, pattern, parser.expression()]);
    }
    const { from, count } = fromFor(parser);
    if (!from) parser.expected('"from"');
    const name = inOctets(parser) ? "substring octets" : "substring";
    return closed(parser, open, token, name, [operand, from ?? parser.missing(), ...(count ? [count] : [])]);
  }),
  position: worded(calls.position, { inner: power.comparison }),
  overlay: worded(calls.overlay),
  trim: trimForm({ both: "trim", leading: "trim leading", trailing: "trim trailing" }),
  extract: worded(calls.extract),
  normalize: worded(calls.normalize, { words: normalForms }),
  substring_regex: regexForm("substring_regex", ["from", "occurrence", "group"]),
  occurrences_regex: regexForm("occurrences_regex", ["from"]),
  position_regex: regexForm("position_regex", ["from", "occurrence", "group"]),
  translate_regex: regexForm("translate_regex", ["with", "from", "occurrence"]),
});

const escaped = { then: "escape" } as const;

const grammar = sqlGrammar({
  associative: { and: "always", or: "always", "||": "always" },
  rules: sqlRules,
  power: { ...power, predicate: power.comparison },
  infix: infixPower,
  signs: { "-": ["-", power.sign], "+": ["+", power.sign] },
  literals: {
    number(parser, token) {
      parser.next();
      return numberLiteral(token);
    },
    text,
  },
  specials,
  reserved,
  columnText,
  qualifies: true,
  quantifies: "queries",
  predicates: {
    like: escaped,
    similar: { ...escaped, name: "similar to" },
    like_regex: { then: "flag" },
    in: listed,
    between: between(power.comparison),
  },
  is: { missing: ["null"], tests: ["true", "false", "unknown"], distinct: true, normalized: true },
  collation: (parser) => parser.uncovered("COLLATE; the collation is an option of the dialect"),
});

/** A <query specification> has a FROM clause (7.4 and 7.16); without a table there is only VALUES. */
export function parseSql(source: string, limits?: ParseLimits): Parsed {
  const parsed = parseWith(grammar, source, limits);
  const refused = [...walk(parsed.tree)]
    .filter((node) => node.kind === "query" && node.form === "select")
    .map(({ range }): Diagnostic => ({
      code: "expected",
      severity: "error",
      range,
      facts: { expected: "values (…), the query without a table", found: "select without from" },
      fixes: [],
    }));
  return { ...parsed, diagnostics: [...parsed.diagnostics, ...refused] };
}
