import { type Connection, probe } from "@indigo-quill/engines";
import { dialects, isPure } from "indigo-quill/dialects";

/** The traits that the functions of each SQL dialect with an engine answer, sorted. */
export const sqlDialects: Readonly<Record<string, readonly string[]>> = Object.fromEntries(
  ["postgresql", "sqlite", "mariadb", "duckdb"].map((id) => {
    const answered = dialects[id]().rows.flatMap((row) => (isPure(row) ? Object.keys(row.answers) : []));
    return [id, [...new Set(answered)].sort()];
  }),
);

/** Expressions whose value tells the answers to a trait apart; each is asked of the engine and of us. */
const shared = {
  missing: "upper(cast(null as char(1))) is null",
  unit: "substr('a😀b', 2, 1)",
  counted: "length('é😀')",
  first: "substr('abc', 1, 1)",
  from: "substr('abc', 2)",
  third: "substr('abcdef', 2, 4)",
  startBelow: "substr('abcdef', -2, 3)",
  negativeLength: "substr('abcdef', 3, -2)",
  fraction: "substr('abc', 2)",
  absent: "replace('abc', 'x', 'y')",
  emptyNeedle: "replace('abc', '', 'y')",
  case: "'a' = 'A'",
  padding: "'a ' = 'a'",
  pattern: "'a.c' like 'a.c'",
  where: "'abc' like 'b'",
  truth: "'a' = 'a'",
  occurrences: "replace('aaa', 'a', 'b')",
  replacement: "replace('ab', 'b', '\\\\1&$0')",
  emptyMatch: "replace('ab', '', '-')",
  form: "upper('aB')",
  mapping: "upper('ßé')",
  words: "lower('O''NEIL-SMITH 2ND')",
  ends: "ltrim('  a  ')",
  inner: "trim('a  b')",
  characters: "length(trim(' \t a'))",
  removed: "trim('  a')",
  ofEmpty: "ascii('')",
  alphabet: "ascii('é')",
  missingItem: "coalesce(concat('a', null, 'b'), 'nothing')",
  emptyItem: "concat_ws('-', 'a', '', 'b')",
  mixed: "'a' < 'b'",
  notANumber: "'nan'::float8 = 'nan'::float8",
  numbers: "0.1 + 0.2",
  quotient: "7 / 2",
  byZero: "1 % 0",
  overflow: "1e308 * 10",
  remainder: "5.5 % 2",
  negativeCount: "repeat('ab', -1)",
  side: "lpad('a', 3, '*')",
  emptyFill: "lpad('a', 3, '')",
  part: "split_part('a,b', ',', 2)",
  report: "regexp_replace('ab', 'b', 'x')",
  group: "regexp_replace('ab', '(b)', 'x')",
  negativeSpan: "replace('abc', 'b', 'x')",
  missingDelimiter: "string_to_array('ab', null)",
  emptyDelimiter: "string_to_array('ab', '')",
  emptyText: "string_to_array('', ',')",
  edges: "string_to_array(',a,', ',')",
  scheme: "quote_literal('it''s')",
  asked: "upper('a')",
  farEnd: "substr('abc', 2, 2147483647)",
  measure: "levenshtein('ab', 'ba') + 10 * damerau_levenshtein('ab', 'ba')",
};
type Probes = Partial<Record<keyof typeof shared, string>>;

const own: Readonly<Record<string, Probes>> = {
  postgresql: {
    startBelow: "substring('abcdef' from -1 for 3)",
    negativeLength: "left('abcdef', -2)",
    absent: "strpos('abc', 'x')",
    emptyNeedle: "strpos('abc', '')",
    pattern: "'a.c' ~ 'a.c' and 'abc' ~ 'a.c'",
    occurrences: "regexp_replace('aaa', 'a', 'b')",
    replacement: "regexp_replace('ab', '(b)', '[\\1\\&]')",
    emptyMatch: "regexp_replace('ab', 'x*', '-', 'g')",
    words: "initcap('o''neil-smith 2nd')",
    report: "regexp_match('abc', '(b)(c)')",
    group: "substring('abc' from '(b)c')",
    negativeSpan: "overlay('abcdef' placing 'X' from 3 for -1)",
    removed: "btrim('xyaxy', 'yx')",
    asked: "normalize('é', nfd) is nfc normalized",
    farEnd: "overlay('abc' placing 'x' from 2 for 2147483647)",
    overflow: "cast(1e308 as float8) * 10",
    fraction: "left('abc', 2.5)",
    from: "right('abc', 2)",
    remainder: "5.5 % 2",
  },
  sqlite: {
    absent: "instr('abc', 'x')",
    emptyNeedle: "instr('abc', '')",
    fraction: "substr('abc', 2.9)",
    pattern: "'abc' glob 'a*' and 'a%c' like 'a%'",
    case: "('a' = 'A') || ('a' like 'A') || ('é' like 'É')",
    padding: "('a ' = 'a') || ('a ' = 'a' collate rtrim)",
    removed: "trim('xyaxy', 'yx')",
    ofEmpty: "unicode('') is null",
    alphabet: "unicode('é')",
    mixed: "5 < 'a'",
    notANumber: "1e999 - 1e999 is null",
    overflow: "1e308 * 10",
    missing: "upper(null) is null",
  },
  mariadb: {
    absent: "locate('x', 'abc')",
    emptyNeedle: "locate('', 'abc')",
    fraction: "left('abc', 1.5)",
    pattern: "'abc' regexp 'a.c'",
    occurrences: "regexp_replace('aaa', 'a', 'b')",
    replacement: "regexp_replace('ab', '(b)', '[\\\\1]')",
    emptyMatch: "regexp_replace('ab', 'x*', '-')",
    report: "regexp_instr('abc', 'b')",
    group: "regexp_substr('abc', '(b)c')",
    negativeSpan: "insert('abcdef', 3, -1, 'X')",
    farEnd: "insert('abcdef', 3, 9223372036854775807, 'X')",
    startBelow: "substring('abcdef', -9, 3)",
    removed: "trim(both 'xy' from 'xyaxyy')",
    part: "substring_index('a,b,c', ',', -2)",
    case: "('a' = 'Á') + 2 * ('ß' = 's')",
    from: "right('abc', 2)",
    mixed: "5 = '5x'",
    notANumber: "0e0 / 0e0 is null",
    overflow: "1e308 * 10",
  },
  duckdb: {
    absent: "strpos('abc', 'x')",
    emptyNeedle: "strpos('abc', '')",
    negativeLength: "left('abcdef', -2)",
    pattern: "'abc' similar to 'a.c' and 'abc' glob 'a*'",
    occurrences: "regexp_replace('aaa', 'a', 'b')",
    replacement: "regexp_replace('ab', '(b)', '[\\1]')",
    emptyMatch: "regexp_replace('ab', 'x*', '-', 'g')",
    report: "regexp_extract_all('abab', 'a(b)', 1)",
    group: "regexp_extract('abc', '(b)c', 1)",
    unit: "substring_grapheme('a👨‍👩‍👧b', 2, 1)",
    counted: "length_grapheme('e' || chr(769)) + 10 * strlen('é')",
    case: "('a' = 'A' collate nocase) and not ('a' = 'A')",
    removed: "trim('xyaxy', 'yx')",
    ofEmpty: "unicode('') + 10 * ascii('')",
    from: "right('abc', 2)",
    fraction: "left('abc', 2.5)",
    asked: "nfc_normalize('e' || chr(769))",
    missing: "upper(null) is null",
    missingDelimiter: "string_split('ab', null)",
    emptyDelimiter: "string_split('ab', '')",
    emptyText: "string_split('', ',')",
    edges: "string_split(',a,', ',')",
    mixed: "'a' < 'b'",
  },
};

export const traitProbes: Readonly<Record<string, Readonly<Record<string, string>>>> = Object.fromEntries(
  Object.entries(own).map(([id, probes]) => [
    id,
    Object.fromEntries(
      sqlDialects[id].map((trait) => [trait, probes[trait as keyof typeof shared] ?? shared[trait as keyof typeof shared]]),
    ),
  ]),
);

/** Whether an expression without columns gives the same there and here; one that we refuse has to be refused there. */
export async function agrees(connection: Connection, id: string, expression: string): Promise<boolean> {
  const { program, rows } = await probe(connection, dialects[id](connection.options), expression, { columns: [], rows: 1 });
  if (program.ok) return rows[0].agree;
  const [outcome] = await connection.run({ expression, columns: [], rows: [[]] });
  return "error" in outcome;
}
