import type { Phrases } from "../dialect.ts";
import { byCategories, everySpace, ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `regexp_replace(${text}, ${textLiteral(`${ignoresCase ? "(?i)" : "(?-i)"}${pattern}`)}, ${textLiteral(withGroups(put, "\\"))})`;

export const phrases: Phrases = {
  ...ofSql,
  replacePattern,
  wordEdges: ["(?<![\\p{L}\\p{M}\\p{N}_])", "(?![\\p{L}\\p{M}\\p{N}_])"],
  lettersAndNumbers: "\\p{L}\\p{N}",
  firstMatch: (text, pattern) => `nullif(regexp_substr(${text}, ${textLiteral(pattern)}), '')`,
  among: (text, values) => `${text} in (${values.map((value) => `binary ${value}`).join(", ")})`,
  kinds: { ...byCategories, spaces: everySpace },
  same: (text, other) => `${text} = binary ${other}`,
  contains: (text, part) => `locate(binary ${part}, ${text}) > 0`,
  tidy: (text) => `trim(${replacePattern(text, `[${everySpace}]+`, [" "])})`,
};
