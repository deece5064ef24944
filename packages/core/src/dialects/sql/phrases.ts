import type { Phrases } from "../dialect.ts";
import { byXmlCategories, ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const { same, lower, among, any, choose, nothing } = ofSql;

/** ISO/IEC 9075-2:2023 has no REPLACE; TRANSLATE_REGEX does what it would. */
const replacePattern: Phrases["replacePattern"] = (text, pattern, put, ignoresCase) =>
  `translate_regex(${textLiteral(pattern)}${ignoresCase ? " flag 'i'" : ""} in ${text} with ${textLiteral(withGroups(put, "$", "\\$"))} occurrence all)`;

export const phrases: Phrases = {
  replacePattern,
  kinds: byXmlCategories,
  same,
  lower,
  among,
  any,
  choose,
  nothing,
  contains: (text, part) => `position(${part} in ${text}) > 0`,
  tidy: (text) => `btrim(${replacePattern(text, `[${byXmlCategories.spaces}]+`, [" "], false)})`,
};
