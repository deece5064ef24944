import { expect, test } from "@jest/globals";
import { compile, isFailure, sampleOf } from "indigo-quill";
import { contrast } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { pick, random, trapTexts } from "./random.ts";

const rows = sampleOf([
  { label: "a-b-c", n: 1 },
  { label: "", n: 2 },
  { label: null, n: null },
  { label: "-", n: 7 },
]);

/** The code and the place of each failure, and the values beside them. */
const told = (value: unknown) =>
  isFailure(value) ? [(value as { code: string }).code, (value as { range: object }).range] : value;

// prettier-ignore
test.each([
  ["postgresql", "case when n > 5 then 10 / (n - 2) else 1 end + 10 / (n - 2)"],
  ["postgresql", "substr(label, strpos(label, '-') + strpos(substr(label, strpos(label, '-') + 1), '-') + 1)"],
  ["openformula", 'MID(label;FIND("-";label)+1;FIND("-";label;FIND("-";label)+1)-FIND("-";label)-1)'],
  ["openformula", 'IFERROR(FIND("-";label);0)+FIND("-";label)'],
  ["sqlite", "upper(label) || upper(label) || n / (n - 2) || n / (n - 2)"],
  ["mariadb", "if(upper(label) = 'A-B-C', upper(label), concat(upper(label), n + '1x', n + '1x'))"],
  ["duckdb", "list_transform([1, 2], lambda x: x + length(label) + length(label)) || [length(label)]"],
  ["xpath", "for $x in (1, 2) return ($x + string-length($label), $x + string-length($label))"],
  ["sql", "UPPER(label) || UPPER(label) || CAST(CAST(label AS INTEGER) AS VARCHAR(9)) || CAST(CAST(label AS INTEGER) AS VARCHAR(9))"],
])("%s: what is written twice in %s is, evaluated once, the same, and fails in its own place", (id, expression) => {
  const program = compile(dialects[id](), expression, rows);
  expect(program.diagnostics.filter(({ severity }) => severity === "error")).toEqual([]);
  const values = program.run(rows);
  expect(values.map(told)).toEqual(Array.from({ length: rows.rows }, (_, row) => told(program.runRow(rows, row))));
});

test("a failure of the second of two places is told at the second", () => {
  const program = compile(dialects.postgresql(), "case when n > 5 then 10 / (n - 2) else 1 end + 10 / (n - 2)", rows);
  expect(told(program.run(rows)[1])).toEqual(["division-by-zero", { start: 47, end: 59 }]);
});

// prettier-ignore
test.each([
  ["openformula", "PROPER(label)"],
  ["openformula", 'SUBSTITUTE(label;"a";"bb")&RIGHT("00000"&label;4)'],
  ["postgresql", "initcap(label) || lpad(label, 9, '-') || lpad(label, 9, 'xy')"],
  ["postgresql", "array_to_string(regexp_split_to_array(label, 'a'), '#')"],
  ["postgresql", "regexp_replace(label, '([a ])(.?)', '[\\2$1\\1\\&]', 'g')"],
  ["postgresql", "case when lower(label) = lower('Alnus') then split_part(label, 'a', -1) else split_part('x-y', '-', -1) end"],
  ["xpath", "string-join(tokenize($label, ' '), '#')"],
  ["xpath", "(tokenize($label, 'a')[last()], tokenize($label, 'a')[. != ''], replace($label, '(l)|(n)', '<$1$2>'))"],
  ["xpath", "(some $x in tokenize($label, ' ') satisfies $x = 'Alnus', for $x in tokenize($label, ' ') return upper-case($x))"],
  ["duckdb", "concat_ws('; ', nullif(label, ''), nullif(lower(label), label)) || regexp_replace(label, '(a)', '\\1\\0\\1', 'g')"],
  ["mariadb", "concat(label <> 'Alnus', regexp_replace(label, '(a)(l)?', '<\\\\2>'), substring_index(label, ' ', -2))"],
  ["sqlite", "concat_ws('; ', nullif(label, ''), label = 'alnus', substr(label, -3))"],
])("%s: the shorter ways through %s give what the step by step ones do (seed 31)", (id, expression) => {
  const next = random(31);
  const words = ["a", "Al", "alnus", " ", "é", "ß", "😀", "-", "\n", "l"];
  const made = Array.from({ length: 60 }, () => Array.from({ length: 6 }, () => pick(next, words)).join(""));
  const texts = sampleOf([...trapTexts, ...made, null].map((label) => ({ label })));
  const program = compile(dialects[id](), expression, texts);
  expect(program.diagnostics.filter(({ severity }) => severity === "error")).toEqual([]);
  const values = program.run(texts);
  // While a row is watched, or asked where its value comes from, every step is carried out.
  const rowByRow = values.map((_, row) => [program.runRow(texts, row), program.origins(texts, row).value].map(told));
  expect(rowByRow).toEqual(values.map((value) => [told(value), told(value)]));
});

test("rows that read the same are explained once, and each for itself where an expression reads whole columns", () => {
  const repeated = sampleOf(["Alnus", "a,b", "Alnus", "Alnus"].map((label, n) => ({ label, n })));
  const partings = (...sides: readonly (readonly [string, string])[]) =>
    contrast(
      sides.map(([id, expression]) => ({ dialect: dialects[id](), expression })),
      repeated,
    ).rows.flatMap(({ differences }) => differences.map(({ parting }) => parting));
  const once = partings(["postgresql", "split_part(label, ',', 1)"], ["xpath", "substring-before($label, ',')"]);
  expect(once).toHaveLength(3);
  expect(new Set(once).size).toBe(1);
  const whole = 'LEFT(label;FIND(",";label)-1)&IF(COUNTIF(label;"x")=0;"";"z")';
  const each = partings(["postgresql", "split_part(label, ',', 1)"], ["openformula", whole]);
  expect(each.filter((parting) => parting !== undefined)).toHaveLength(3);
  expect(new Set(each).size).toBe(3);
});
