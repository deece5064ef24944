import { expect, test } from "@jest/globals";
import { type Origin, type Value, compile, sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";

const row: Record<string, Value> = { label: "Lindqvist, Åsa", note: " ½ a\tb ", n: 7, nothing: null, list: ["x", "yz"] };
const sample = sampleOf([row]);

/** A stretch as `text < source places`, with an asterisk where it was made and does not stand there so. */
function told({ text, from, by, item }: Origin, source: string): string {
  const sources = from.map(({ column, literal, range }) => {
    const name = column ?? source.slice(literal.start, literal.end);
    return range ? `${name} ${range.start}-${range.end}` : name;
  });
  return `${item === undefined ? "" : `${item}: `}${text} <${by ? "*" : ""} ${sources.join(" + ")}`.trimEnd();
}

// prettier-ignore
test.each<[dialect: string, expression: string, stretches: readonly string[], dropped: readonly string[]]>([
  ["openformula", 'LEFT(label;FIND(",";label)-1)', ["Lindqvist < label 0-9"], ["label 9-14"]],
  ["openformula", 'UPPER(RIGHT(label;3))&" "&n', ["Å < label 11-12", "SA <* label 12-14", "  < \" \" 0-1", "7 <* n"], ["label 0-11"]],
  ["openformula", 'IF(LEN(label)>3;SUBSTITUTE(label;", ";"|");"short")', ["Lindqvist < label 0-9", "| < \"|\" 0-1", "Åsa < label 11-14"], ["label 9-11"]],
  ["openformula", 'IFERROR(FIND("x";label);MID(label;2;3))', ["ind < label 1-4"], ["label 0-1", "label 4-14"]],
  ["postgresql", "regexp_replace(label, '(\\w+), (\\w+)', '\\2 \\1')", ["Åsa < label 11-14", "  <* '\\2 \\1' 0-5", "Lindqvist < label 0-9"], ["label 9-11"]],
  ["postgresql", "lpad(split_part(label, ',', 1), 11, '*')", ["* < '*' 0-1", "* < '*' 0-1", "Lindqvist < label 0-9"], ["label 9-14"]],
  ["postgresql", "coalesce(nothing, nullif(n, 8)::text, label)", ["7 <* n"], ["label 0-14"]],
  ["postgresql", "overlay(label placing 'x' from 2 for 8)", ["L < label 0-1", "x < 'x' 0-1", ", Åsa < label 9-14"], ["label 1-9"]],
  ["postgresql", "string_to_array(label, ', ')", ["0: Lindqvist < label 0-9", "1: Åsa < label 11-14"], ["label 9-11"]],
  ["postgresql", "translate(label, 'Å,', 'A')", ["Lindqvist < label 0-9", "  < label 10-11", "A <* label 11-12", "sa < label 12-14"], ["label 9-10"]],
  ["sqlite", "coalesce(nullif(label, label), trim(label, 'La'))", ["indqvist, Ås < label 1-13"], ["label 0-1", "label 13-14"]],
  ["sqlite", "iif(n > 5, substr(label, -3), label)", ["Åsa < label 11-14"], ["label 0-11"]],
  ["mariadb", "ifnull(nothing, reverse(left(label, 2)))", ["i < label 1-2", "L < label 0-1"], ["label 2-14"]],
  ["mariadb", "concat_ws('-', substring_index(label, ',', 1), nothing, n)", ["Lindqvist < label 0-9", "- < '-' 0-1", "7 <* n"], ["label 9-14"]],
  ["duckdb", "case when n > 5 then repeat(left(label, 2), 2) end", ["Li < label 0-2", "Li < label 0-2"], ["label 2-14"]],
  ["xpath", "string-join(for $p in tokenize($label, ', ') return substring($p, 1, 1), '.')", ["L < label 0-1", ". < '.' 0-1", "Å < label 11-12"], ["label 1-11", "label 12-14"]],
  ["postgresql", "(string_to_array(label, ', ') || 'x'::text)[2]", ["Åsa < label 11-14"], ["label 0-11"]],
  ["duckdb", "list_reverse(string_split(label, ', '))[1]", ["Åsa < label 11-14"], ["label 0-11"]],
  ["xpath", "string-join((reverse(tokenize($label, ', ')), tail($list)), '')", ["Åsa < label 11-14", "Lindqvist < label 0-9", "yz < list"], ["label 9-11"]],
  ["openformula", 'CHOOSE(2;"a";IFNA(label;n))', ["Lindqvist, Åsa < label 0-14"], []],
  ["xpath", "normalize-space($note)", ["½ a < note 1-4", "  <* note 4-5", "b < note 5-6"], ["note 0-1", "note 6-7"]],
  ["xpath", "let $a := tokenize($label, ', ') return $a[2] || $a[1][. = 'Lindqvist']", ["Åsa < label 11-14", "Lindqvist < label 0-9"], ["label 9-11"]],
])("%s: %s", (id, expression, stretches, dropped) => {
  const program = compile(dialects[id](), expression, sample);
  expect(program.diagnostics.filter(({ severity }) => severity === "error")).toEqual([]);
  const found = program.origins(sample, 0);
  expect(found.stretches.map((origin) => told(origin, expression))).toEqual(stretches);
  expect(found.dropped.map(({ column, range }) => `${column} ${range.start}-${range.end}`)).toEqual(dropped);
});
