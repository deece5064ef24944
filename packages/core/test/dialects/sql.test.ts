import { describe, expect, test } from "@jest/globals";
import { compile, isFailure, sampleOf } from "indigo-quill";
import { sql } from "indigo-quill/dialects/sql";
import { type ExpressionCase, error, testCases } from "../cases.ts";

/** By the rules of ISO/IEC 9075-2:2023, the section in front. */
// prettier-ignore
const bySection: Readonly<Record<string, readonly ExpressionCase[]>> = {
  "5.3 literals": [
    ["'it''s'", "it's"],
    ["'a'\n'b'", "ab"],
    ["U&'\\00e9'", "é"],
    ["1_000", 1000],
    ["0x1F", 31],
    ["LABEL", "a", { label: "a" }],
    ["\"Collector Notes\"", "x", { "Collector Notes": "x" }],
  ],
  "6.30 numeric value functions": [
    ["CHAR_LENGTH('aé😀')", 3],
    ["CHARACTER_LENGTH('é' USING OCTETS)", 2],
    ["OCTET_LENGTH('é')", 2],
    ["POSITION('n' IN 'Alnus')", 3],
    ["POSITION('' IN 'Alnus')", 1],
    ["POSITION('x' IN 'Alnus')", 0],
    ["POSITION(CAST(NULL AS VARCHAR(1)) IN 'Alnus')", null],
    ["OCCURRENCES_REGEX('n|u' IN 'Alnus')", 2],
    ["POSITION_REGEX('n' IN 'Alnus')", 3],
    ["POSITION_REGEX(AFTER 'n' IN 'Alnus')", 4],
    ["POSITION_REGEX('x' IN 'Alnus')", 0],
    ["EXTRACT(YEAR FROM DATE '2019-04-03')", 2019],
    ["MOD(-7, 3)", -1],
    ["ABS(-2)", 2],
    ["FLOOR(-1.5)", -2],
    ["CEILING(1.2)", 2],
    ["LN(0)", error],
    ["POWER(2, 10)", 1024],
    ["SQRT(-1)", error],
  ],
  "6.32 concatenation": [
    ["'a' || 'b'", "ab"],
    ["'a' || NULL", null],
    ["'a' || 1", error],
  ],
  "6.34 character value functions": [
    ["SUBSTRING('abcdef' FROM 0 FOR 3)", "ab"],
    ["SUBSTRING('abcdef' FROM 2)", "bcdef"],
    ["SUBSTRING('abcdef' FROM 2 FOR 3)", "bcd"],
    ["SUBSTRING('abcdef' FROM -2 FOR 4)", "a"],
    ["SUBSTRING('abcdef' FROM 9)", ""],
    ["SUBSTRING('abcdef' FROM 2 FOR -1)", error],
    ["SUBSTRING('éa' FROM 3 USING OCTETS)", "a"],
    ["SUBSTRING('abcdef' SIMILAR 'a#\"bc#\"%' ESCAPE '#')", "bc"],
    ["SUBSTRING_REGEX('[a-z]+' IN '12ab34cd')", "ab"],
    ["SUBSTRING_REGEX('[a-z]+' IN '12ab34cd' OCCURRENCE 2)", "cd"],
    ["SUBSTRING_REGEX('(a)(b)' IN 'ab' GROUP 2)", "b"],
    ["SUBSTRING_REGEX('B' FLAG 'i' IN 'abc')", "b"],
    ["SUBSTRING_REGEX('x' IN 'abc')", null],
    ["TRANSLATE_REGEX('b' IN 'abab' WITH 'x')", "axax"],
    ["TRANSLATE_REGEX('b' IN 'abab' WITH 'x' OCCURRENCE 2)", "abax"],
    ["TRANSLATE_REGEX('(\\w+), (\\w+)' IN 'Lind, Eva' WITH '$2 $1')", "Eva Lind"],
    ["TRANSLATE_REGEX('b' IN 'abab')", "aa"],
    ["OVERLAY('abcdef' PLACING 'X' FROM 2 FOR 3)", "aXef"],
    ["OVERLAY('abcdef' PLACING 'XY' FROM 2)", "aXYdef"],
    ["TRIM('  a ')", "a"],
    ["TRIM(BOTH 'x' FROM 'xxaxbxx')", "axb"],
    ["TRIM(LEADING FROM '  a ')", "a "],
    ["TRIM(TRAILING 'b' FROM 'abb')", "a"],
    ["TRIM('xy' FROM 'xya')", error],
    ["BTRIM('xyaxy', 'yx')", "a"],
    ["LTRIM('aab', 'a')", "b"],
    ["RTRIM('a  ')", "a"],
    ["LPAD('a', 3, 'xy')", "xya"],
    ["RPAD('abc', 2)", "ab"],
    ["UPPER('straße')", "STRASSE"],
    ["LOWER('ÀB')", "àb"],
    ["NORMALIZE('e\u0301')", "é"],
    ["'e\u0301' IS NFC NORMALIZED", false],
  ],
  "8.2 to 8.8 predicates": [
    ["'a' = 'a '", false],
    ["'a' < 'B'", false],
    ["'a_b' LIKE 'a!_b' ESCAPE '!'", true],
    ["'axb' LIKE 'a!_b' ESCAPE '!'", false],
    ["'a\\b' LIKE 'a\\_'", true],
    ["'ab' LIKE 'a!b' ESCAPE '!'", error],
    ["'ab' LIKE 'ab!' ESCAPE '!'", error],
    ["'ab' LIKE 'ab' ESCAPE '!!'", error],
    ["'abc' SIMILAR TO '(a|b)%'", true],
    ["'abc' SIMILAR TO 'b'", false],
    ["'Alnus' LIKE_REGEX 'l.u'", true],
    ["'Alnus' LIKE_REGEX '^A' FLAG 'z'", error],
    ["2 BETWEEN 1 AND 3", true],
    ["2 BETWEEN SYMMETRIC 3 AND 1", true],
    ["'b' IN ('a', 'b')", true],
    ["'b' IN ('a', NULL)", null],
    ["CAST(NULL AS INTEGER) IS DISTINCT FROM 1", true],
    ["1 = '1'", error],
    ["(1 = 1) IS TRUE", true],
    ["UNKNOWN IS UNKNOWN", true],
    ["TRUE OR UNKNOWN", true],
    ["TRUE AND UNKNOWN", null],
  ],
  "6.12 and 6.13 case and cast": [
    ["CASE label WHEN 'a' THEN 1 ELSE 2 END", 1, { label: "a" }],
    ["CASE WHEN label = 'b' THEN 'x' END", null, { label: "a" }],
    ["COALESCE(label, 'none')", "none", { label: null }],
    ["NULLIF('a', 'a')", null],
    ["CAST(' 12 ' AS INTEGER)", 12],
    ["CAST('x' AS INTEGER)", error],
    ["CAST(70000 AS SMALLINT)", error],
    ["CAST(1.50 AS VARCHAR(10))", "1.50"],
    ["CAST(1E10 AS VARCHAR(10))", "1E10"],
    ["CAST(TRUE AS VARCHAR(5))", "TRUE"],
    ["CAST('ab' AS CHAR(4))", "ab  "],
    ["CAST('abc' AS VARCHAR(2))", "ab"],
    ["CAST('2019-02-30' AS DATE)", error],
    ["1 / 0", error],
    ["GREATEST(1, 2.5, 2)", 2.5],
    ["LEAST('b', NULL)", null],
  ],
};

for (const [section, cases] of Object.entries(bySection)) describe(`Standard SQL, ${section}`, () => testCases(sql(), cases));

describe("Standard SQL: PAD SPACE", () =>
  testCases(sql({ padding: "pad space" }), [
    ["'a' = 'a '", true],
    ["'a' < 'a b'", true],
  ]));

test.each([
  ["SUBSTRING('a' FROM 1 FOR -1)", "22011"],
  ["TRIM('xy' FROM 'a')", "22027"],
  ["'a' LIKE 'a' ESCAPE '!!'", "22019"],
  ["1 / 0", "22012"],
  ["CAST('x' AS INTEGER)", "22018"],
  ["LN(0)", "2201E"],
])("%s is SQLSTATE %s", (expression, state) => {
  const sample = { ...sampleOf([{}]), rows: 1 };
  const [value] = compile(sql(), expression, sample).run(sample);
  expect(isFailure(value) && value.standard).toBe(state);
});
