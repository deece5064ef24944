import { expect, test } from "@jest/globals";
import { compile, isFailure, sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";

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
