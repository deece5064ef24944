import type { Phrases } from "../dialect.ts";
import { ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `regexp_replace(${text}, ${textLiteral(pattern)}, ${textLiteral(withGroups(put, "\\"))}, ${ignoresCase ? "'gi'" : "'g'"})`;

/** White space of every kind, one by one: what the class `[:space:]` holds depends on the locale. */
const spaces = "\t\n\v\f\r \u00a0\u1680\u2000-\u200a\u2028\u2029\u202f\u205f\u3000\ufeff";

/** Letters and digits, and other numbers: fractions, superscripts, Roman and circled ones. */
const lettersAndNumbers = "[:alnum:]\\u00b2\\u00b3\\u00b9\\u00bc-\\u00be\\u2070-\\u2089\\u2150-\\u218b\\u2460-\\u249b";

export const phrases: Phrases = {
  ...ofSql,
  replacePattern,
  wordEdges: ["(?<![[:alnum:]_])", "(?![[:alnum:]_])"],
  kinds: {
    letters: "[:alpha:]",
    digits: "[:digit:]",
    punctuation: "[:punct:]",
    spaces,
    controls: "[:cntrl:]",
  },
  lettersAndNumbers,
  firstMatch: (text, pattern) => `substring(${text} from ${textLiteral(pattern)})`,
  item: (list, place) => (place > 0 ? `(${list})[${place}]` : undefined),
  join: (list, between) => `array_to_string(${list}, ${between})`,
  contains: (text, part) => `strpos(${text}, ${part}) > 0`,
  split: (text, pattern) => `regexp_split_to_array(${text}, ${textLiteral(pattern)})`,
  tidy: (text) => `btrim(${replacePattern(text, `[${spaces}]+`, [" "])})`,
  withoutAccents: (text) => `normalize(${replacePattern(`normalize(${text}, NFD)`, "[\\u0300-\\u036f]+", [""])}, NFC)`,
};
