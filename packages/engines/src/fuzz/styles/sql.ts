import type { Style } from "../generate.ts";
import { columns, kinds, sqlChoices, sqlConditions } from "./common.ts";

/** SELECT has a table in the standard. */
const isStandard = (form: string): boolean => !form.includes("(select ");

/** Standard SQL, which no engine is asked about. */
export const sql: Style = {
  columns,
  kindOf: kinds({
    text: "text",
    integer: "integer",
    count: "integer",
    decimal: "decimal",
    double: "decimal",
    boolean: "boolean",
    condition: "boolean",
    any: "any",
  }),
  atoms: { date: ["date '2019-04-03'", "cast('2020-02-29' as date)"] },
  forms: {
    "similar to": ([a, b, c]) => `(${a} similar to ${b}${c ? ` escape ${c}` : ""})`,
    like_regex: ([a, b, c]) => `(${a} like_regex ${b}${c ? ` flag ${c}` : ""})`,
    "is normalized": ([a]) => `(${a} is nfd normalized)`,
    "is distinct from": ([a, b]) => `(${a} is distinct from ${b})`,
  },
  calls: {
    substring: ([a, b, c]) => `substring(${a} from ${b}${c ? ` for ${c}` : ""})`,
    "substring octets": ([a, b, c]) => `substring(${a} from ${b}${c ? ` for ${c}` : ""} using octets)`,
    "substring similar": ([a, b, c]) => `substring(${a} similar ${b} escape ${c})`,
    position: ([a, b]) => `position(${b} in ${a})`,
    overlay: ([a, b, c, d]) => `overlay(${a} placing ${b} from ${c}${d ? ` for ${d}` : ""})`,
    trim: ([a, b]) => (b ? `trim(${b} from ${a})` : `trim(${a})`),
    "trim leading": ([a, b]) => `trim(leading ${b ?? ""} from ${a})`,
    "trim trailing": ([a, b]) => `trim(trailing ${b ?? ""} from ${a})`,
    extract: ([, b]) => `extract(year from ${b})`,
    normalize: ([a]) => `normalize(${a}, nfd)`,
    occurrences_regex: ([a, b, c, d]) => `occurrences_regex(${b} flag ${c} in ${a} from ${d})`,
    substring_regex: ([a, b, c, d, e, f]) => `substring_regex(${b} flag ${c} in ${a} from ${d} occurrence ${e} group ${f})`,
    position_regex: ([a, b, c, d, e, f]) => `position_regex(after ${b} flag ${c} in ${a} from ${d} occurrence ${e} group ${f})`,
    translate_regex: ([a, b, c, d, e, f]) =>
      `translate_regex(${b} flag ${d} in ${a} with ${c} from ${e}${f ? ` occurrence ${f}` : ""})`,
  },
  casts: {
    text: ["cast($ as varchar(9))", "cast($ as char(3))"],
    integer: ["cast($ as integer)"],
    decimal: ["cast($ as decimal(8,2))", "cast($ as double precision)"],
    boolean: ["cast($ as boolean)"],
  },
  syntax: {
    text: ["({t} || {t})"],
    integer: ["({i} + {i})", "char_length({t})"],
    decimal: ["({d} * {i})"],
    boolean: [
      ...sqlConditions.filter(isStandard),
      "({t} similar to {like})",
      "({b} is not unknown)",
      "({t} between symmetric {t} and {t})",
    ],
  },
  choices: sqlChoices.filter(isStandard),
  flavour: "none",
};
