import type { Phrases } from "../dialect.ts";
import { ofSql, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./lexis.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `regexp_replace(${text}, ${textLiteral(pattern)}, ${textLiteral(withGroups(put, "\\"))}, ${ignoresCase ? "'gi'" : "'g'"})`;

export const phrases: Phrases = {
  ...ofSql,
  replacePattern,
  wordEdges: ["(?<![[:alnum:]_])", "(?![[:alnum:]_])"],
  kinds: { letters: "[:alpha:]", digits: "[:digit:]", punctuation: "[:punct:]", spaces: "[:space:]", controls: "[:cntrl:]" },
  contains: (text, part) => `strpos(${text}, ${part}) > 0`,
  split: (text, pattern) => `regexp_split_to_array(${text}, ${textLiteral(pattern)})`,
  tidy: (text) => `btrim(${replacePattern(text, "\\s+", [" "])})`,
  withoutAccents: (text) => `normalize(${replacePattern(`normalize(${text}, NFD)`, "[\\u0300-\\u036f]+", [""])}, NFC)`,
};
