import { lookup } from "../../values/index.ts";
import type { OperationId } from "../../text/index.ts";
import { type FunctionRow, isPure } from "../row.ts";

/**
 * What functions of other languages do, by lower-case name: an operation, and answers that tell
 * it from others of the same operation. With it, an unknown name is answered by the name that does
 * the job here.
 */
const foreign: Readonly<Record<string, readonly [OperationId, Readonly<Record<string, string>>?]>> = lookup({
  len: ["measure"],
  length: ["measure"],
  strlen: ["measure"],
  char_length: ["measure"],
  "string-length": ["measure"],
  size: ["measure"],
  mid: ["slice"],
  substr: ["slice"],
  substring: ["slice"],
  left: ["slice"],
  right: ["slice"],
  find: ["locate"],
  search: ["locate"],
  strpos: ["locate"],
  position: ["locate"],
  instr: ["locate"],
  locate: ["locate"],
  indexof: ["locate"],
  substitute: ["substitute"],
  replace: ["substitute"],
  regexp_replace: ["substitute"],
  upper: ["recase", { form: "upper" }],
  "upper-case": ["recase", { form: "upper" }],
  ucase: ["recase", { form: "upper" }],
  toupper: ["recase", { form: "upper" }],
  upperascii: ["recase", { form: "upper" }],
  lower: ["recase", { form: "lower" }],
  "lower-case": ["recase", { form: "lower" }],
  lcase: ["recase", { form: "lower" }],
  tolower: ["recase", { form: "lower" }],
  lowerascii: ["recase", { form: "lower" }],
  proper: ["recase", { form: "title" }],
  initcap: ["recase", { form: "title" }],
  trim: ["trim"],
  btrim: ["trim"],
  "normalize-space": ["trim"],
  ltrim: ["trim"],
  rtrim: ["trim"],
  concat: ["join"],
  concatenate: ["join"],
  concat_ws: ["join"],
  textjoin: ["join"],
  "string-join": ["join"],
  join: ["join"],
  split: ["split"],
  tokenize: ["split"],
  string_to_array: ["split"],
  split_part: ["segment"],
  "substring-before": ["segment", { part: "before" }],
  "substring-after": ["segment", { part: "after" }],
  strbefore: ["segment", { part: "before" }],
  strafter: ["segment", { part: "after" }],
  contains: ["test"],
  startswith: ["test"],
  "starts-with": ["test"],
  starts_with: ["test"],
  matches: ["test"],
  regex: ["test"],
  regexp_like: ["test"],
  rept: ["repeat"],
  repeat: ["repeat"],
  lpad: ["pad", { side: "left" }],
  rpad: ["pad", { side: "right" }],
  unicode: ["code-of"],
  code: ["code-of"],
  ascii: ["code-of"],
  unichar: ["char-of"],
  chr: ["char-of"],
  char: ["char-of"],
});

/** The names, at most three, of rows that do what the function `name` does elsewhere. */
export function meantBy(name: string, rows: readonly FunctionRow[]): string[] {
  const [operation, answers = {}] = foreign[name.toLowerCase()] ?? [];
  if (!operation) return [];
  const fitting = rows.filter(
    (row) =>
      isPure(row) &&
      row.operation === operation &&
      row.notation !== "operator" &&
      Object.entries(answers).every(([trait, answer]) => (row.answers as Record<string, string>)[trait] === answer),
  );
  return [...new Set(fitting.map((row) => row.name))].slice(0, 3);
}
