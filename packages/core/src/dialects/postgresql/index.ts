import { Bytes, type MessageCode, type Value, isList } from "../../values/index.ts";
import type { Dialect, DialectOption } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { postgresqlCode } from "./code.ts";
import { calls } from "./calls.ts";
import { laterTypeRules, typeRules } from "./coercions.ts";
import { postgresqlRows } from "./functions.ts";
import { parserOf } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";
import { phrases } from "./phrases.ts";
import { print } from "./printer.ts";
import { laterSteps, steps, toText } from "./steps.ts";
import { statements } from "./statements.ts";
import { postgresqlUncovered } from "./uncovered.ts";

const options: readonly DialectOption[] = [
  {
    name: "version",
    values: ["15", "17"],
    default: "15",
    summary: "The version: 17 also reads 0x1F and 1_000, and has to_bin and to_oct.",
  },
  {
    name: "library",
    values: ["glibc", "musl"],
    default: "glibc",
    summary: "The C library that maps letters: with musl, as in the embedded engine, ß becomes ẞ.",
  },
];

/** The SQLSTATE for a failure (documentation, appendix A). */
const states: Readonly<Partial<Record<MessageCode, string>>> = {
  "division-by-zero": "22012",
  "negative-length": "22011",
  "start-below-first": "22011",
  "number-out-of-range": "22003",
  "not-a-number": "22P02",
  "not-a-boolean": "22P02",
  "not-a-date": "22007",
  "pattern-syntax": "2201B",
  "escape-sequence": "22025",
  "pattern-flags": "22023",
  "escape-length": "22025",
  "logarithm-argument": "2201E",
  "power-argument": "2201F",
  "normal-form": "22023",
  "zero-ordinal": "22023",
  "ordinal-below-one": "22023",
  "no-such-character": "54000",
  "text-too-long": "54000",
  "unknown-function": "42883",
  "argument-type": "42883",
  "argument-count": "42883",
  "unknown-column": "42703",
  "unknown-type": "42704",
  "ambiguous-call": "42725",
  "mixed-collations": "42P21",
  expected: "42601",
  "extra-text": "42601",
  "empty-expression": "42601",
  "unclosed-quote": "42601",
  "unclosed-bracket": "42601",
  "unclosed-comment": "42601",
  "unexpected-character": "42601",
  "wrong-separator": "42601",
};

/** PostgreSQL 15 with UTF-8 and the collation C.UTF-8. */
export function postgresql(given: Readonly<Record<string, string>> = {}): Dialect {
  const chosen = chooseOptions("postgresql", options, given);
  return {
    id: "postgresql",
    title: dialectTitles.postgresql,
    family: "sql",
    source: `PostgreSQL ${chosen.version}, UTF-8, collation C.UTF-8`,
    options,
    chosen,
    parse: parserOf(chosen.version),
    rows: postgresqlRows(chosen.version, chosen.library),
    code: postgresqlCode(chosen.version),
    steps: chosen.version === "15" ? steps : laterSteps,
    uncovered: postgresqlUncovered,
    types: chosen.version === "15" ? typeRules : laterTypeRules,
    functionCase: "minded",
    separator: ",",
    calls,
    columnText,
    namesColumn: (written, column) =>
      written === column || (/^[A-Za-z_][\w$]*$/.test(column) && written === column.toLowerCase()),
    textLiteral,
    phrases,
    numberOfText: { write: (source) => `cast(${source} as numeric)` },
    print,
    standardCode: (code) => states[code],
    statements,
    errorScope: "query",
    plain,
  };
}

const plain = (value: Value): unknown =>
  isList(value) ? value.map(plain) : value instanceof Bytes ? toText(value) : plainItem(value);
