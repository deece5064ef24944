import type { Phrases } from "../dialect.ts";
import { byCategories, ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `regexp_replace(${text}, ${textLiteral(pattern)}, ${textLiteral(withGroups(put, "\\"))}, ${ignoresCase ? "'gi'" : "'g'"})`;

/** White space of every kind; RE2's \\s is that of ASCII. */
const spaces = "\\s\\x0b\\p{Z}\\x{feff}";

export const phrases: Phrases = {
  ...ofSql,
  replacePattern,
  kinds: { ...byCategories, spaces },
  each: (list, change) => `list_transform(${list}, lambda piece: ${change("piece")})`,
  only: (list, condition) => `list_filter(${list}, lambda piece: ${condition("piece")})`,
  item: (list, place) => `(${list})[${place}]`,
  join: (list, between) => `array_to_string(${list}, ${between})`,
  contains: (text, part) => `contains(${text}, ${part})`,
  split: (text, pattern) => `string_split_regex(${text}, ${textLiteral(pattern)})`,
  tidy: (text) => `trim(${replacePattern(text, `[${spaces}]+`, [" "])})`,
  withoutAccents: (text) => `strip_accents(${text})`,
};
