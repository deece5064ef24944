import type { Phrases } from "../dialect.ts";
import { byCategories, everySpace, ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `regexp_replace(${text}, ${textLiteral(pattern)}, ${textLiteral(withGroups(put, "\\"))}, ${ignoresCase ? "'gi'" : "'g'"})`;

export const phrases: Phrases = {
  ...ofSql,
  replacePattern,
  kinds: { ...byCategories, spaces: everySpace },
  each: (list, change) => `list_transform(${list}, lambda piece: ${change("piece")})`,
  only: (list, condition) => `list_filter(${list}, lambda piece: ${condition("piece")})`,
  item: (list, place) => `(${list})[${place}]`,
  join: (list, between) => `array_to_string(${list}, ${between})`,
  contains: (text, part) => `contains(${text}, ${part})`,
  split: (text, pattern) => `string_split_regex(${text}, ${textLiteral(pattern)})`,
  tidy: (text) => `trim(${replacePattern(text, `[${everySpace}]+`, [" "])})`,
  withoutAccents: (text) => `strip_accents(${text})`,
};
