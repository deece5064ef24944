import type { Phrases } from "../dialect.ts";
import { byXmlCategories, withGroups } from "../shared/phrases.ts";
import { textLiteral } from "./printer.ts";

const replacePattern = (text: string, pattern: string, put: readonly (string | number)[], ignoresCase = false): string =>
  `replace(${text}, ${textLiteral(pattern)}, ${textLiteral(withGroups(put, "$", "\\$"))}${ignoresCase ? ", 'i'" : ""})`;

export const phrases: Phrases = {
  replace: (text, old, put) => `replace(${text}, ${old}, ${put}, 'q')`,
  replacePattern,
  kinds: byXmlCategories,
  same: (text, other) => `${text} = ${other}`,
  among: (text, values) => `${text} = (${values.join(", ")})`,
  each: (list, change) => `(for $piece in ${list} return ${change("$piece")})`,
  only: (list, condition) => `(${list})[${condition(".")}]`,
  item: (list, place) => `(${list})[${place > 0 ? place : place === -1 ? "last()" : `last() - ${-place - 1}`}]`,
  join: (list, between) => `string-join(${list}, ${between})`,
  contains: (text, part) => `contains(${text}, ${part})`,
  lower: (text) => `lower-case(${text})`,
  any: (conditions) => conditions.join(" or "),
  choose: (cases, other) =>
    `(${cases.reduceRight((rest, [condition, value]) => `if (${condition}) then ${value} else ${rest}`, other)})`,
  nothing: "()",
  // Of an empty text tokenize() gives no piece.
  split: (text, pattern) => `(if (${text} = '') then '' else tokenize(${text}, ${textLiteral(pattern)}))`,
  tidy: (text) => `normalize-space(${replacePattern(text, `[${byXmlCategories.spaces}]+`, [" "])})`,
  withoutAccents: (text) => `normalize-unicode(replace(normalize-unicode(${text}, 'NFD'), '\\p{Mn}+', ''), 'NFC')`,
};
