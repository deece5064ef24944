import { describe, expect, test } from "@jest/globals";
import { type Value, compile, sampleOf } from "../src/index.ts";
import { agree, asTruth } from "../src/contrast/equal.ts";
import { withAnswers } from "../src/contrast/swap.ts";
import { dialects } from "../src/dialects/index.ts";
import { allPartsOf } from "../src/evaluate/bound.ts";
import { type Idiom, recognised } from "../src/evaluate/idiom.ts";
import { idioms } from "../src/evaluate/idioms.ts";
import { jobsOf } from "../src/evaluate/jobs.ts";
import { inputValues } from "../src/evaluate/program.ts";
import { trapTexts } from "./random.ts";

/** Idioms as they are written, by what they do: the dialect and the expression; each on the usual rows gives what it comes to. */
// prettier-ignore
const written: Readonly<Record<string, readonly (readonly [dialect: string, source: string])[]>> = {
  "before a delimiter, by a search and a cut, where one that is not there is an error": [["openformula", 'LEFT(label;FIND(",";label)-1)'], ["openformula", 'MID(label;1;FIND("x";label)-1)']],
  "before a delimiter, by a search and a cut": [["sqlite", "substr(label, 1, instr(label, ',') - 1)"], ["postgresql", "substr(label, 1, strpos(label, ',') - 1)"], ["mariadb", "left(label, locate(',', label) - 1)"], ["sql", "substring(label from 1 for position(',' in label) - 1)"]],
  "after a delimiter, by a search and a cut": [["mariadb", "substring(label, locate(', ', label) + 2)"], ["openformula", 'MID(label;FIND(", ";label)+LEN(", ");LEN(label))'], ["sql", "substring(label from position(',' in label) + 1)"]],
  "between two delimiters, by searches and a cut": [["openformula", 'MID(label;FIND("(";label)+1;FIND(")";label;FIND("(";label))-FIND("(";label)-1)'], ["sqlite", "substr(label, instr(label, '(') + 1, instr(label, ')') - instr(label, '(') - 1)"]],
  "after the last delimiter, by marking it and a search": [["openformula", 'MID(label;FIND("|";SUBSTITUTE(label;"-";"|";LEN(label)-LEN(SUBSTITUTE(label;"-";""))))+1;99)']],
  "after the last delimiter, by what is left of the text without what ends it": [["sqlite", "replace(label, rtrim(label, replace(label, '/', '')), '')"]],
  "after the last delimiter, by the text from its end": [["postgresql", "reverse(split_part(reverse(label), '/', 1))"], ["mariadb", "reverse(substring_index(reverse(label), '/', 1))"]],
  "after the last delimiter, by a pattern": [["postgresql", "regexp_replace(label, '^.*/', '')"], ["duckdb", "regexp_replace(label, '^.*/', '')"]],
  "before the first delimiter, by a pattern": [["postgresql", "regexp_replace(label, ',.*$', '')"], ["xpath", "replace($label, ',.*', '')"]],
  "the second delimiter, by a search behind the first": [["openformula", 'FIND("-";label;FIND("-";label)+1)'], ["mariadb", "locate('-', label, locate('-', label) + 1)"]],
  "the nth delimiter, by a search behind the one before": [["openformula", 'FIND("-";label;FIND("-";label;FIND("-";label)+1)+1)']],
  "the nth piece, by widening what is between": [["openformula", 'TRIM(MID(SUBSTITUTE(label;"-";REPT(" ";LEN(label)));(2-1)*LEN(label)+1;LEN(label)))']],
  "the nth piece, by widening what is between to a number of blanks": [["openformula", 'TRIM(MID(SUBSTITUTE(label;"-";REPT(" ";99));100;99))']],
  "the last piece, by widening what is between": [["openformula", 'TRIM(RIGHT(SUBSTITUTE(label;"-";REPT(" ";99));99))']],
  "the nth piece, by splitting": [["xpath", "tokenize($label, '-')[2]"], ["postgresql", "(string_to_array(label, '-'))[2]"], ["duckdb", "string_split(label, '-')[2]"]],
  "the nth piece, by splitting at a text": [["postgresql", "(string_to_array(label, '(' ))[2]"], ["duckdb", "string_split(label, '(')[2]"]],
  "the nth piece, the last of the first n": [["mariadb", "substring_index(substring_index(label, '-', 2), '-', -1)"]],
  "the first or the last piece, by a pattern": [["mariadb", "regexp_substr(label, '^[^-]+')"], ["duckdb", "regexp_extract(label, '[^-]+$')"], ["postgresql", "regexp_substr(label, '[^-]+')"]],
  "the nth piece, by a pattern": [["postgresql", "regexp_substr(label, '[^-]+', 1, 2)"]],
  "first letter in upper case and the rest in lower case": [["duckdb", "upper(substr(label, 1, 1)) || lower(substr(label, 2))"], ["openformula", "UPPER(LEFT(label;1))&LOWER(MID(label;2;99))"], ["xpath", "concat(upper-case(substring($label, 1, 1)), lower-case(substring($label, 2)))"]],
  "title case, word by word": [["xpath", "string-join(for $w in tokenize($label, ' ') return concat(upper-case(substring($w, 1, 1)), lower-case(substring($w, 2))), ' ')"], ["xpath", "string-join(tokenize($label, ' ') ! concat(upper-case(substring(., 1, 1)), lower-case(substring(., 2))), ' ')"]],
  "filled up at the start, by repeating": [["openformula", 'REPT("0";30-LEN(label))&label'], ["postgresql", "repeat('0', 30 - length(label)) || label"], ["xpath", "concat(string-join((1 to 30 - string-length($label)) ! '0', ''), $label)"]],
  "filled up at the end, by repeating": [["openformula", 'label&REPT(".";30-LEN(label))'], ["mariadb", "concat(label, repeat('.', 30 - char_length(label)))"]],
  "filled up at the start, by a cut from the end": [["postgresql", "right('00000000' || label, 8)"], ["openformula", 'RIGHT("00000000"&label;8)']],
  "filled up at the start, by a cut at a negative place": [["sqlite", "substr('00000000' || label, -8)"]],
  "swapped at a delimiter, by groups": [["postgresql", "regexp_replace(label, '^([^,]*), (.*)$', '\\2 \\1')"], ["xpath", "replace($label, '^(.*), (.*)$', '$2 $1')"]],
"day, month and year turned to year, month and day, by its places": [["sqlite", "substr(day, 7, 4) || '-' || substr(day, 4, 2) || '-' || substr(day, 1, 2)"], ["openformula", 'MID(day;7;4)&"-"&MID(day;4;2)&"-"&LEFT(day;2)'], ["xpath", "concat(substring($day, 7, 4), '-', substring($day, 4, 2), '-', substring($day, 1, 2))"]],
  "day, month and year turned to year, month and day, by its pieces": [["postgresql", "split_part(day, '.', 3) || '-' || split_part(day, '.', 2) || '-' || split_part(day, '.', 1)"]],
  "day, month and year turned to year, month and day, by groups": [["postgresql", "regexp_replace(day, '^(..)\\.(..)\\.(....)$', '\\3-\\2-\\1')"], ["xpath", "replace($day, '(\\d{2})\\.(\\d{2})\\.(\\d{4})', '$3-$2-$1')"]],
  "one character removed": [["postgresql", "replace(label, '-', '')"]],
  "several characters removed, one after the other": [["mariadb", "replace(replace(label, '-', ''), '#', '')"], ["openformula", 'SUBSTITUTE(SUBSTITUTE(SUBSTITUTE(label;"-";"");"#";"");"/";"")']],
  "several characters removed, by a pattern": [["postgresql", "regexp_replace(label, '[#/]', '', 'g')"], ["xpath", "replace($label, '[#,]+', '')"]],
  "a search in small letters": [["postgresql", "strpos(lower(label), 'a')"], ["openformula", 'FIND("a";LOWER(label))']],
  "a search, both in small letters": [["duckdb", "strpos(lower(label), lower('A'))"], ["openformula", 'FIND(UPPER("a");UPPER(label))']],
  "whether a text stands there, in small letters": [["duckdb", "contains(lower(label), 'al')"], ["xpath", "starts-with(lower-case($label), 'al')"]],
  "whether a text stands there, both in small letters": [["xpath", "contains(lower-case($label), lower-case('AL'))"]],
  "a position, by the size of what stands before": [["xpath", "string-length(substring-before($label, '-')) + 1"]],
  "whether a text stands in another, by its position": [["openformula", 'ISNUMBER(FIND("a";label))'], ["postgresql", "strpos(label, 'a') > 0"], ["sqlite", "instr(label, 'a') >= 1"], ["mariadb", "locate('a', label) <> 0"]],
  "whether a text stands anywhere, by LIKE": [["postgresql", "label like '%nus%'"], ["sqlite", "label like '%nus%'"]],
  "whether a text stands start, by LIKE": [["duckdb", "label like 'Al%'"]],
  "whether a text stands end, by LIKE": [["sql", "label like '%a'"]],
  "whether a text stands whole, by LIKE": [["mariadb", "label like 'Alnus'"]],
  "whether a text stands at an end, by a cut": [["openformula", 'LEFT(label;2)="Al"'], ["postgresql", "right(label, 1) = 'a'"]],
  "the first place replaced, by its number": [["openformula", 'SUBSTITUTE(label;"a";"b";1)']],
  "joined without what is empty, by a truth value": [["openformula", 'TEXTJOIN("; ";TRUE();label;other)']],
  "how often a text stands in another, by what it is shorter without it": [["sqlite", "length(label) - length(replace(label, '-', ''))"], ["openformula", '(LEN(label)-LEN(SUBSTITUTE(label;"al";"")))/LEN("al")']],
  "how often a text stands in another, by the pieces between": [["xpath", "count(tokenize($label, '-')) - 1"], ["postgresql", "cardinality(string_to_array(label, '-')) - 1"]],
  "how often a pattern fits, by a list of what it takes": [["duckdb", "length(regexp_extract_all(label, '[a-c]'))"]],
  "another in the place of what is missing": [["duckdb", "coalesce(label, other)"], ["sql", "case when label is null then other else label end"], ["mariadb", "case when label is not null then label else other end"]],
  "whether a text can be read as a number": [["duckdb", "try_cast(label as double) is not null"]],
  "how often one number goes into another, by rounding": [["mariadb", "floor(n / 3)"], ["mariadb", "ceil(n / 3)"], ["xpath", "floor($n div 3)"], ["duckdb", "trunc(n / 3)"]],
  "how often one number goes into another, by a sign of its own": [["xpath", "$n idiv 3"]],
  "how often one number goes into another, where whole numbers stay such": [["postgresql", "n / 3"]],
  "whether one of two texts stands in another, by a pattern": [["postgresql", "label ~ 'lnu|etu'"], ["duckdb", "regexp_matches(label, '(lnu|etu)')"]],
  "whether one of two texts stands in another, by a list": [["xpath", "some $w in ('lnu', 'etu') satisfies contains($label, $w)"]],
};

/** Texts of the traps on which an idiom is something else, by what it does; whoever uses it looks at the value. */
const apart: Readonly<Record<string, (text: string) => boolean>> = {
  "after a delimiter, by a search and a cut": (text) => !text.includes(", "),
  "the last piece, by widening what is between": (text) => text.trim() !== text,
  "the first or the last piece, by a pattern": (text) => text === "" || text.startsWith("-"),
  "the nth piece, by a pattern": (text) => text.startsWith("-"),
  "title case, word by word": (text) => /[^\S ]/.test(text),
  "swapped at a delimiter, by groups": (text) => !text.includes(", "),
  "a search in small letters": (text) => text.includes("İ"),
  "how often a text stands in another, by the pieces between": (text) => text === "",
};

const usual = sampleOf([
  { label: "Lindqvist, asa (Berg) al-nus-12/a/b", other: "x", n: 7, day: "03.04.2019" },
  { label: "Alnus, glut (Mill.) x-y-z-w/#c", other: "y", n: 30, day: "31.12.1899" },
  { label: "Betula, nana (L.) 12-b-7a/12", other: "z", n: 12, day: "29.02.2020" },
]);
const days = ["01.01.0001", "31.12.9999", "29.02.2000", "03.04.2019"];
const traps = sampleOf([...trapTexts, null].map((label, i) => ({ label, other: "x", n: i - 3, day: days[i % days.length] })));

/** What an idiom comes to on rows, beside what is written; undefined where it is not found in the expression. */
function beside(idiom: Idiom, dialect: string, source: string, sample = usual) {
  const program = compile(dialects[dialect](), source, sample);
  expect(program.diagnostics).toEqual([]);
  const recognise = recognised(idiom);
  for (const part of allPartsOf(program.bound)) {
    const found = recognise(part, jobsOf);
    if (!found) continue;
    return Array.from({ length: sample.rows }, (_, row): readonly [Value, Value] => {
      let plain: Value = null;
      program.runRow(sample, row, (_source, value, bound) => {
        if (bound === part) plain = value;
      });
      const slots = inputValues(program, found, row);
      return [plain, withAnswers(found, slots, found.answers)];
    });
  }
  return undefined;
}

const both = ([plain, made]: readonly [Value, Value]) => agree(asTruth(plain), asTruth(made));

describe("idioms give what is written out, on traps, too", () => {
  test.each(idioms)("$does: $shape", (idiom) => {
    const examples = written[idiom.does] ?? [];
    const found = examples.flatMap(([dialect, source]) => {
      const rows = beside(idiom, dialect, source);
      return rows ? [{ dialect, source, rows, traps: beside(idiom, dialect, source, traps)! }] : [];
    });
    expect(found.length).toBeGreaterThan(0);
    for (const { dialect, source, rows, traps: others } of found) {
      expect([dialect, source, rows, rows.map(both)]).toEqual([dialect, source, rows, rows.map(() => true)]);
      const isOther = idiom.exact ? undefined : apart[idiom.does];
      const texts = [...trapTexts, ""].map((text, i) => ({ text, values: others[i] }));
      expect([source, texts.filter(({ text, values }) => !isOther?.(text) && !both(values))]).toEqual([source, []]);
    }
  });

  // A pattern that is a text in its dialect, a replacement of the first place only, a cut from the other end.
  test.each([
    ["postgresql", "replace(label, '^.*/', '')"],
    ["mariadb", "replace(label, '[#/]', '')"],
    ["postgresql", "regexp_replace(label, '[#/]', '')"],
    ["duckdb", "contains(label, 'lnu|etu')"],
    ["sqlite", "replace(label, '^(.*), (.*)$', '$2 $1')"],
    ["openformula", 'TRIM(RIGHT(SUBSTITUTE(label;"-";REPT(" ";99));198))'],
    ["postgresql", "left(label, strpos(label, ',') - 1)"],
    ["openformula", 'REPT("0";30-LEN(other))&label'],
  ] as const)("%s %s is none", (dialect, source) => {
    const { bound } = compile(dialects[dialect](), source, usual);
    expect(jobsOf(bound).map(({ operation }) => operation)).toEqual([]);
  });

  test("every example is one of an idiom", () => {
    expect(Object.keys(written).filter((does) => !idioms.some((idiom) => idiom.does === does))).toEqual([]);
    const unfound = Object.entries(written).flatMap(([does, examples]) =>
      examples.filter(([dialect, source]) => !idioms.some((idiom) => idiom.does === does && beside(idiom, dialect, source))),
    );
    expect(unfound).toEqual([]);
  });
});
