import type { Phrases } from "../dialect.ts";
import { byCategories, ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `regexp_replace(${text}, ${textLiteral(pattern)}, ${textLiteral(withGroups(put, "\\"))}, ${ignoresCase ? "'gi'" : "'g'"})`;

export const phrases: Phrases = {
  ...ofSql,
  replacePattern,
  kinds: byCategories,
  contains: (text, part) => `contains(${text}, ${part})`,
  split: (text, pattern) => `string_split_regex(${text}, ${textLiteral(pattern)})`,
  tidy: (text) => `trim(${replacePattern(text, "\\s+", [" "])})`,
  withoutAccents: (text) => `strip_accents(${text})`,
};
