import { escapedBytes } from "../../text/index.ts";
import { Bytes, type MessageCode, type Value, isList } from "../../values/index.ts";
import type { Dialect } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { duckdbCode } from "./code.ts";
import { calls } from "./calls.ts";
import { typeRules } from "./coercions.ts";
import { duckdbRows } from "./functions.ts";
import { parseDuckdb } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";
import { phrases } from "./phrases.ts";
import { print } from "./printer.ts";
import { steps } from "./steps.ts";
import { statements } from "./statements.ts";
import { duckdbUncovered } from "./uncovered.ts";

/** The engine's class of error for a failure. */
const classes: Readonly<Partial<Record<MessageCode, string>>> = {
  "number-out-of-range": "Out of Range Error",
  "not-a-number": "Conversion Error",
  "not-a-boolean": "Conversion Error",
  "not-a-date": "Conversion Error",
  "pattern-syntax": "Invalid Input Error",
  "escape-sequence": "Syntax Error",
  "pattern-flags": "Invalid Input Error",
  "escape-length": "Syntax Error",
  "empty-fill": "Invalid Input Error",
  "no-such-character": "Invalid Input Error",
  "unknown-function": "Catalog Error",
  "argument-type": "Binder Error",
  "argument-count": "Binder Error",
  "branch-types": "Binder Error",
  "unknown-column": "Binder Error",
  "unknown-type": "Catalog Error",
  expected: "Parser Error",
  "extra-text": "Parser Error",
  "unclosed-quote": "Parser Error",
  "unclosed-bracket": "Parser Error",
};

/** DuckDB 1.5 without extensions. */
export function duckdb(given: Readonly<Record<string, string>> = {}): Dialect {
  return {
    id: "duckdb",
    title: dialectTitles.duckdb,
    family: "sql",
    source: "DuckDB 1.5.6, no extensions",
    options: [],
    chosen: chooseOptions("duckdb", [], given),
    parse: parseDuckdb,
    rows: duckdbRows,
    code: duckdbCode,
    steps,
    uncovered: duckdbUncovered,
    types: typeRules,
    functionCase: "ignored",
    separator: ",",
    calls,
    columnText,
    namesColumn: (written, column) => written.toLowerCase() === column.toLowerCase(),
    textLiteral,
    phrases,
    numberOfText: { write: (source) => `cast(${source} as double)` },
    print,
    standardCode: (code, { format }) => (code === "not-a-date" && format !== undefined ? "Invalid Input Error" : classes[code]),
    statements,
    errorScope: "query",
    plain,
  };
}

/** Bytes in the engine's text form. */
function plain(value: Value): unknown {
  if (isList(value)) return value.map(plain);
  return value instanceof Bytes ? escapedBytes(value) : plainItem(value);
}
