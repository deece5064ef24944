import { type Expression, type Parser, templateParts, wordsIn } from "../../syntax/index.ts";
import { type Special, closed, form, literal, restOf } from "./sql-forms.ts";

/**
 * Calls with words between the arguments that all dialects of SQL write alike (ISO 9075-2, 6.30 and 6.32). Each dialect has a
 * table of such; by it they are read, written and shown.
 */
export const sqlCalls = {
  extract: "extract($1w from $2)",
  position: "position($2> in $1>)",
  "substring similar": "substring($1 similar $2 escape $3)",
} as const;

/** The words that may stand for an argument: what is made of one, undefined of any other; and how they are told. */
export interface Words {
  readonly read: (word: string) => string | undefined;
  readonly expected: string;
}

/** The Unicode normal forms. */
export const normalForms: Words = {
  read: (word) => (/^nfk?[cd]$/i.test(word) ? word.toLowerCase() : undefined),
  expected: "nfc, nfd, nfkc or nfkd",
};

/**
 * Reads a call as its template has it. `inner` is how tightly a part marked `>` must bind; any word may stand for an argument
 * without `words`; with `plain`, arguments may stand between commas, too.
 */
export const worded = (
  template: string,
  { inner = 0, words, plain }: { inner?: number; words?: Words; plain?: true } = {},
): Special => {
  const { parts } = templateParts(template);
  const steps = parts.map(({ before, ...part }) => ({ ...part, signs: wordsIn(before) }));
  return form((parser, open, token) => {
    const args: Expression[] = [];
    for (const { place, mark, signs, isOptional } of steps) {
      const [first] = signs;
      if (plain && args.length === 1 && !parser.atWords(first))
        return parser.call(token.value, token.range, [...args, ...restOf(parser, open)], "function");
      if (isOptional && !(first === "," ? parser.at(first) : parser.atWords(first))) continue;
      for (const sign of signs) parser.expect(sign);
      args[place - 1] = mark === "w" ? readWord(parser, words) : parser.expression(mark === ">" ? inner : 0);
    }
    return closed(parser, open, token, token.value.toLowerCase(), args);
  });
};

/** A word as an argument. */
export function readWord(parser: Parser, words?: Words): Expression {
  const word = words ? words.read(parser.token.value) : parser.token.value;
  if (word === undefined) parser.expected(words!.expected);
  const { range } = parser.next();
  return literal(word ?? "", "text", range);
}
