/**
 * The tasks: an expression in a dialect, and a hand-written loop that does the same work, the fastest
 * plain one that we know.
 */

const replacements = [
  ["flower", "fl."],
  ["sterile", "st."],
  ["leaf", "lf."],
  ["missing", "miss."],
  ["rock", "rk."],
  ["galls", "gl."],
  ["ripe", "rp."],
  ["photo", "ph."],
  ["duplicate", "dupl."],
  ["meadow", "mdw."],
  ["mill", "ml."],
  ["wet", "wt."],
  ["near", "nr."],
  ["edge", "e."],
  ["old", "o."],
  ["bark", "bk."],
  ["moss", "ms."],
  ["lichen", "li."],
  ["shore", "sh."],
  ["hybrid", "hyb."],
];

const terms = [
  "bark",
  "lichen",
  "hybrid",
  "cultivar",
  "epiphyte",
  "shore",
  "tundra",
  "garden",
  "fruit",
  "pollen",
  "catkins",
  "seed",
];

/** Cuts and joins, which beats the host's replaceAll; nothing is made where nothing is found. */
function replaceEvery(text, old, replacement) {
  let at = text.indexOf(old);
  if (at < 0) return text;
  let result = "";
  let kept = 0;
  for (; at >= 0; at = text.indexOf(old, kept)) {
    result += text.slice(kept, at) + replacement;
    kept = at + old.length;
  }
  return result + text.slice(kept);
}

const words = /(\p{L})([\p{L}\p{M}]*)/gu;
const isAscii = (text) => !/[^\0-\x7f]/.test(text);
const isAsciiLetter = (code) => (code >= 97 && code <= 122) || (code >= 65 && code <= 90);

/** Words capitalised by cutting the lower-cased text before each one. */
function capitalised(text) {
  if (!isAscii(text)) return text.replace(words, (_, first, rest) => first.toUpperCase() + rest.toLowerCase());
  const lower = text.toLowerCase();
  let result = "";
  let kept = 0;
  let inWord = false;
  for (let i = 0; i < lower.length; i++) {
    const letter = isAsciiLetter(lower.charCodeAt(i));
    if (letter && !inWord) {
      result += lower.slice(kept, i) + lower[i].toUpperCase();
      kept = i + 1;
    }
    inWord = letter;
  }
  return result + lower.slice(kept);
}

function properTrimmed(text) {
  const trimmed = text.trim();
  return capitalised(trimmed.includes("  ") ? trimmed.replace(/ +/g, " ") : trimmed);
}

/** One pass by the host's own pattern engine, more than three times as fast as a search for each term. */
const anyTerm = new RegExp(terms.join("|"), "i");

const countOf = (text, needle) => {
  let count = 0;
  for (let at = text.indexOf(needle); at >= 0; at = text.indexOf(needle, at + needle.length)) count++;
  return count;
};

/** What stands after the third delimiter; empty where there are fewer. */
function afterThird(text, delimiter) {
  let at = -1;
  for (let i = 0; i < 3; i++) {
    const next = text.indexOf(delimiter, at + 1);
    if (next < 0) return "";
    at = next;
  }
  return text.slice(at + 1);
}

const labels = [
  ["flower", "flowering"],
  ["fruit", "fruiting"],
  ["sterile", "sterile"],
  ["leaf", "leaves"],
  ["rock", "on rock"],
];
const labelled = (text, fold) => labels.find(([term]) => (fold ? text.toLowerCase() : text).includes(term))?.[1] ?? "other";
const labelCase = `case ${labels.map(([term, label]) => `when remarks like '%${term}%' then '${label}'`).join(" ")} else 'other' end`;
const marks = /[0-9;#-]/g;
const number = /[0-9]+/;

const swap = /^([^,]+),\s*(.+)$/;

const map = (column, row) => {
  const result = new Array(column.length);
  for (let i = 0; i < column.length; i++) result[i] = row(column[i]);
  return result;
};

export const tasks = [
  {
    id: "surname",
    what: "surname before the comma, trimmed",
    dialect: "openformula",
    expression: 'TRIM(LEFT(collector;FIND(",";collector)-1))',
    loop: (c) => map(c.collector, (text) => text.slice(0, text.indexOf(",")).trim()),
  },
  {
    id: "segment",
    what: "what stands between the first and the second #",
    dialect: "postgresql",
    expression: "split_part(shelf, '#', 2)",
    loop: (c) =>
      map(c.shelf, (text) => {
        const start = text.indexOf("#") + 1;
        return text.slice(start, text.indexOf("#", start));
      }),
  },
  {
    id: "proper",
    what: "words capitalised, spaces collapsed",
    dialect: "openformula",
    expression: "PROPER(TRIM(taxon))",
    loop: (c) => map(c.taxon, properTrimmed),
  },
  {
    id: "replacements",
    what: "20 replacements in order",
    dialect: "postgresql",
    expression: replacements.reduce((inner, [old, to]) => `replace(${inner}, '${old}', '${to}')`, "remarks"),
    loop: (c) =>
      map(c.remarks, (text) => {
        let result = text;
        for (const [old, to] of replacements) result = replaceEvery(result, old, to);
        return result;
      }),
  },
  {
    id: "contains-any",
    what: "contains any of 12 terms, ignoring case",
    dialect: "postgresql",
    expression: `remarks ~* '${terms.join("|")}'`,
    loop: (c) => map(c.remarks, (text) => anyTerm.test(text)),
  },
  {
    id: "date",
    what: "date rebuilt from its parts",
    dialect: "xpath",
    expression: "substring($collected, 9, 2) || '.' || substring($collected, 6, 2) || '.' || substring($collected, 1, 4)",
    loop: (c) => map(c.collected, (text) => `${text.slice(8, 10)}.${text.slice(5, 7)}.${text.slice(0, 4)}`),
  },
  {
    id: "swap",
    what: "Surname, Given swapped by a pattern",
    dialect: "postgresql",
    expression: "regexp_replace(collector, '^([^,]+),\\s*(.+)$', '\\2 \\1')",
    loop: (c) =>
      map(c.collector, (text) => {
        const match = swap.exec(text);
        return match ? `${match[2]} ${match[1]}` : text;
      }),
  },
];

/** Tasks that nobody tuned for, in every dialect that can say them. */
const inDialects = [
  {
    id: "second-to-last",
    what: "the last segment but one",
    loop: (c) =>
      map(c.shelf, (text) => {
        const end = text.lastIndexOf("#");
        return text.slice(text.lastIndexOf("#", end - 1) + 1, end);
      }),
    expressions: {
      postgresql: "split_part(shelf, '#', -2)",
      mariadb: "substring_index(substring_index(shelf, '#', -2), '#', 1)",
      duckdb: "split_part(shelf, '#', -2)",
      xpath: "tokenize($shelf, '#')[last() - 1]",
    },
  },
  {
    id: "drop-marks",
    what: "without digits and punctuation",
    loop: (c) => map(c.shelf, (text) => text.replace(marks, "")),
    expressions: {
      sql: "translate_regex('[0-9;#\\-]' in shelf with '' occurrence all)",
      postgresql: "regexp_replace(shelf, '[0-9;#-]', '', 'g')",
      mariadb: "regexp_replace(shelf, '[0-9;#-]', '')",
      duckdb: "regexp_replace(shelf, '[0-9;#-]', '', 'g')",
      xpath: "translate($shelf, '0123456789;#-', '')",
    },
  },
  {
    id: "pad-code",
    what: "a code filled up to 12 with zeros",
    loop: (c) => map(c.shelf, (text) => text.padStart(12, "0")),
    expressions: {
      openformula: 'RIGHT("000000000000"&shelf;12)',
      sql: "lpad(shelf, 12, '0')",
      postgresql: "lpad(shelf, 12, '0')",
      sqlite: "substr('000000000000' || shelf, -12)",
      mariadb: "lpad(shelf, 12, '0')",
      duckdb: "lpad(shelf, 12, '0')",
      xpath: "substring('000000000000', 1, 12 - string-length($shelf)) || $shelf",
    },
  },
  {
    id: "last-word",
    what: "the last word",
    loop: (c) => map(c.taxon, (text) => text.slice(text.lastIndexOf(" ") + 1)),
    expressions: {
      postgresql: "split_part(taxon, ' ', -1)",
      mariadb: "substring_index(taxon, ' ', -1)",
      duckdb: "split_part(taxon, ' ', -1)",
      xpath: "tokenize($taxon, ' ')[last()]",
    },
  },
  {
    id: "title-hyphens",
    what: "title case, also after hyphens",
    loop: (c) => map(c.collector, capitalised),
    expressions: { openformula: "PROPER(collector)", postgresql: "initcap(collector)" },
  },
  {
    id: "count",
    what: "how often a text occurs",
    loop: (c) => map(c.remarks, (text) => countOf(text, "ea")),
    expressions: {
      openformula: '(LEN(remarks)-LEN(SUBSTITUTE(remarks;"ea";"")))/2',
      sqlite: "(length(remarks) - length(replace(remarks, 'ea', ''))) / 2",
      postgresql: "(length(remarks) - length(replace(remarks, 'ea', ''))) / 2",
      mariadb: "(char_length(remarks) - char_length(replace(remarks, 'ea', ''))) div 2",
      duckdb: "(length(remarks) - length(replace(remarks, 'ea', ''))) // 2",
      xpath: "count(tokenize($remarks, 'ea')) - 1",
    },
  },
  {
    id: "first-number",
    what: "the first number",
    loop: (c) => map(c.shelf, (text) => number.exec(text)?.[0] ?? ""),
    expressions: {
      sql: "substring_regex('[0-9]+' in shelf)",
      postgresql: "substring(shelf from '[0-9]+')",
      mariadb: "regexp_substr(shelf, '[0-9]+')",
      duckdb: "regexp_extract(shelf, '[0-9]+')",
      xpath: "replace($shelf, '^[^0-9]*([0-9]+).*$', '$1')",
    },
  },
  {
    id: "join-three",
    what: "three columns joined, empty ones left out",
    loop: (c) =>
      c.shelf.map((shelf, i) => {
        let result = "";
        for (const text of [shelf, c.taxon[i], c.collected[i]]) if (text !== "") result += (result && "; ") + text;
        return result;
      }),
    expressions: {
      openformula: 'TEXTJOIN("; ";TRUE();shelf;taxon;collected)',
      sqlite: "concat_ws('; ', nullif(shelf, ''), nullif(taxon, ''), nullif(collected, ''))",
      postgresql: "concat_ws('; ', nullif(shelf, ''), nullif(taxon, ''), nullif(collected, ''))",
      mariadb: "concat_ws('; ', nullif(shelf, ''), nullif(taxon, ''), nullif(collected, ''))",
      duckdb: "concat_ws('; ', nullif(shelf, ''), nullif(taxon, ''), nullif(collected, ''))",
      xpath: "string-join(($shelf, $taxon, $collected)[. != ''], '; ')",
    },
  },
  {
    id: "label-case",
    what: "a label of five branches, case minded",
    loop: (c) => map(c.remarks, (text) => labelled(text, false)),
    expressions: {
      sql: labelCase,
      postgresql: labelCase,
      duckdb: labelCase,
      xpath: `${labels.map(([term, label]) => `if (contains($remarks, '${term}')) then '${label}' else `).join("")}'other'`,
    },
  },
  {
    id: "label-nocase",
    what: "a label of five branches, ignoring case",
    loop: (c) => map(c.remarks, (text) => labelled(text, true)),
    expressions: { sqlite: labelCase, mariadb: labelCase },
  },
  {
    id: "equal-nocase",
    what: "equality ignoring case",
    loop: (c) => map(c.taxon, (text) => text.toLowerCase() === "salix caprea"),
    expressions: {
      openformula: 'LOWER(taxon)="salix caprea"',
      sql: "lower(taxon) = 'salix caprea'",
      postgresql: "lower(taxon) = 'salix caprea'",
      duckdb: "lower(taxon) = 'salix caprea'",
      xpath: "lower-case($taxon) = 'salix caprea'",
    },
  },
  {
    id: "four-searches",
    what: "what stands after the third delimiter, by searches with calculated starts",
    loop: (c) => map(c.remarks, (text) => afterThird(text, ";")),
    expressions: {
      openformula: 'IFERROR(MID(remarks;FIND(";";remarks;FIND(";";remarks;FIND(";";remarks)+1)+1)+1;LEN(remarks));"")',
      postgresql:
        "case when split_part(remarks, ';', 4) = '' then '' else substr(remarks, strpos(remarks, ';') + strpos(substr(remarks, strpos(remarks, ';') + 1), ';') + strpos(substr(remarks, strpos(remarks, ';') + strpos(substr(remarks, strpos(remarks, ';') + 1), ';') + 1), ';') + 1) end",
      mariadb:
        "case when char_length(remarks) - char_length(replace(remarks, ';', '')) < 3 then '' else substring(remarks, locate(';', remarks, locate(';', remarks, locate(';', remarks) + 1) + 1) + 1) end",
    },
  },
].flatMap(({ expressions, ...task }) =>
  Object.entries(expressions).map(([dialect, expression]) => ({ ...task, dialect, expression })),
);
tasks.push(...inDialects);

/** Other expressions that go through the same code first, as they would in use. */
export const others = {
  openformula: [
    "LEFT(taxon;3)",
    "RIGHT(taxon;3)",
    "MID(taxon;2;4)",
    "LEN(taxon)",
    "UPPER(taxon)",
    "LOWER(taxon)",
    "PROPER(collector)",
    "TRIM(remarks)",
    'FIND("a";taxon)',
    'IFERROR(FIND("x";taxon);0)',
    'SEARCH("[aeiou]";taxon)',
    'SUBSTITUTE(taxon;"a";"b")',
    'SUBSTITUTE(taxon;"a";"b";2)',
    'REPLACE(taxon;1;2;"zz")',
    'taxon&" "&collector',
    "LEN(taxon)+1",
    'IF(LEN(taxon)>10;"long";"short")',
    "EXACT(taxon;collector)",
    "REPT(taxon;2)",
    'TEXTJOIN("-";TRUE();taxon;collector)',
  ],
  postgresql: [
    "left(taxon, 3)",
    "right(taxon, -2)",
    "substring(taxon from 2 for 4)",
    "length(taxon)",
    "upper(taxon)",
    "lower(taxon)",
    "initcap(collector)",
    "btrim(remarks)",
    "position('a' in taxon)",
    "strpos(taxon, 'x')",
    "regexp_replace(taxon, '[aeiou]', '', 'g')",
    "replace(taxon, 'a', 'b')",
    "overlay(taxon placing 'zz' from 1 for 2)",
    "taxon || ' ' || collector",
    "length(taxon) + 1",
    "case when length(taxon) > 10 then 'long' else 'short' end",
    "taxon = collector",
    "repeat(taxon, 2)",
    "concat_ws('-', taxon, collector)",
    "string_to_array(remarks, '; ')",
  ],
  xpath: [
    "substring($taxon, 1, 3)",
    "string-length($taxon)",
    "upper-case($taxon)",
    "lower-case($taxon)",
    "normalize-space($remarks)",
    "substring-before($collector, ',')",
    "substring-after($collector, ', ')",
    "contains($taxon, 'x')",
    "starts-with($taxon, 'A')",
    "matches($taxon, '[aeiou]')",
    "replace($taxon, '[aeiou]', '')",
    "translate($taxon, 'abc', 'xyz')",
    "concat($taxon, ' ', $collector)",
    "string-length($taxon) + 1",
    "if (string-length($taxon) gt 10) then 'long' else 'short'",
    "$taxon = $collector",
    "tokenize($remarks, '; ')",
    "count(tokenize($remarks, ';'))",
    "string-join(tokenize($remarks, '; '), '|')",
    "for $r in tokenize($remarks, '; ') return upper-case($r)",
  ],
};
