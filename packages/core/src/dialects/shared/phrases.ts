import type { Phrases } from "../dialect.ts";

/** A choice as CASE. */
export const byCase: Phrases["choose"] = (cases, other) =>
  `case ${cases.map(([condition, value]) => `when ${condition} then ${value}`).join(" ")} else ${other} end`;

/** What the SQL dialects say alike. */
export const ofSql = {
  replace: (text, old, put) => `replace(${text}, ${old}, ${put})`,
  same: (text, other) => `${text} = ${other}`,
  lower: (text) => `lower(${text})`,
  among: (text, values) => `${text} in (${values.join(", ")})`,
  any: (conditions) => conditions.join(" or "),
  choose: byCase,
  nothing: "null",
} as const satisfies Partial<Phrases>;

/** What is put for a match: groups behind a mark, which is doubled where it stands for itself. */
export const withGroups = (put: readonly (string | number)[], mark: string, special = mark): string =>
  put
    .map((part) =>
      typeof part === "number"
        ? `${mark}${part}`
        : [...part].map((char) => (special.includes(char) ? `\\${char}` : char)).join(""),
    )
    .join("");

/** Kinds of characters by Unicode's categories, as most pattern languages write them. */
export const byCategories = {
  letters: "\\p{L}\\p{M}",
  digits: "\\p{Nd}",
  punctuation: "\\p{P}",
  symbols: "\\p{S}",
  accents: "\\p{Mn}",
  spaces: "\\s",
  controls: "\\p{Cc}",
} as const;

/** The same for the pattern language of XPath, whose \\s is the white space of XML. */
export const byXmlCategories = { ...byCategories, spaces: "\\s\\p{Z}\ufeff" } as const;

/** White space of every kind for PCRE2 and RE2, in which `\\s` is more or less than that. */
export const everySpace = "\\t\\n\\x0b\\f\\r\\p{Z}\\x{feff}";
