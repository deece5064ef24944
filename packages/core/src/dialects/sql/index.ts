import type { MessageCode } from "../../values/index.ts";
import type { Dialect, DialectOption } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { sqlCode } from "./code.ts";
import { calls } from "./calls.ts";
import { typeRules } from "./coercions.ts";
import { sqlRows } from "./functions.ts";
import { parseSql } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";
import { phrases } from "./phrases.ts";
import { print } from "./printer.ts";
import { steps } from "./steps.ts";
import { statements } from "./statements.ts";
import { sqlUncovered } from "./uncovered.ts";

const options: readonly DialectOption[] = [
  {
    name: "padding",
    values: ["no pad", "pad space"],
    default: "no pad",
    summary: "Whether the shorter text of a comparison counts as filled up with spaces (4.3.2); the order is by code points.",
  },
];

/** The SQLSTATE for a failure (clause 24). */
const states: Readonly<Partial<Record<MessageCode, string>>> = {
  "division-by-zero": "22012",
  "negative-length": "22011",
  "negative-count": "22011",
  "start-below-first": "22011",
  "number-out-of-range": "22003",
  "not-a-number": "22018",
  "not-a-boolean": "22018",
  "not-a-date": "22007",
  "pattern-syntax": "2201B",
  "escape-sequence": "22025",
  "pattern-flags": "2201T",
  "replacement-syntax": "2201V",
  "pattern-matches-empty": "2201U",
  "escape-length": "22019",
  "trim-character": "22027",
  "logarithm-argument": "2201E",
  "power-argument": "2201F",
  "unknown-function": "42000",
  "argument-type": "42000",
  "argument-count": "42000",
  "unknown-column": "42000",
  expected: "42000",
  "extra-text": "42000",
};

/** SQL by the standard, ISO/IEC 9075-2:2023. */
export function sql(given: Readonly<Record<string, string>> = {}): Dialect {
  const chosen = chooseOptions("sql", options, given);
  return {
    id: "sql",
    title: dialectTitles.sql,
    family: "sql",
    source: "ISO/IEC 9075-2:2023",
    options,
    chosen,
    parse: parseSql,
    rows: sqlRows(chosen.padding === "pad space" ? "padded" : "counted"),
    code: sqlCode,
    steps,
    uncovered: sqlUncovered,
    types: typeRules,
    functionCase: "ignored",
    separator: ",",
    calls,
    columnText,
    namesColumn: (written, column) =>
      written === column || (/^[A-Z_][A-Z0-9_]*$/i.test(column) && written === column.toUpperCase()),
    textLiteral,
    phrases,
    numberOfText: { write: (source) => `cast(${source} as double precision)` },
    print,
    standardCode: (code) => states[code],
    statements,
    errorScope: "query",
    plain: plainItem,
  };
}
