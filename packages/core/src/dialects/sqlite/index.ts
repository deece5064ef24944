import { Bytes, type Value, textOfBytes } from "../../values/index.ts";
import type { Dialect, DialectOption } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { sqliteCode } from "./code.ts";
import { typeRules } from "./coercions.ts";
import { sqliteRows } from "./functions.ts";
import { parseSqlite } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";
import { phrases } from "./phrases.ts";
import { print } from "./printer.ts";
import { steps } from "./steps.ts";
import { statements } from "./statements.ts";
import { sqliteUncovered } from "./uncovered.ts";

const options: readonly DialectOption[] = [
  {
    name: "collation",
    values: ["BINARY", "NOCASE", "RTRIM"],
    default: "BINARY",
    summary: "The collation of text columns: what = , <, IN and MIN find alike.",
  },
  {
    name: "version",
    values: ["3.54", "3.40"],
    default: "3.54",
    summary: "The version: 3.40 lacks concat, concat_ws, octet_length, unhex, unistr, timediff and if.",
  },
];

/** Functions that came after 3.40. */
const since340: ReadonlySet<string> = new Set([
  "concat",
  "concat_ws",
  "if",
  "octet_length",
  "timediff",
  "unhex",
  "unistr",
  "unistr_quote",
]);

/** SQLite 3.54 without ICU; integers stand for truth values. */
export function sqlite(given: Readonly<Record<string, string>> = {}): Dialect {
  const chosen = chooseOptions("sqlite", options, given);
  return {
    id: "sqlite",
    title: dialectTitles.sqlite,
    family: "sql",
    source: `SQLite ${chosen.version}`,
    options,
    chosen,
    parse: parseSqlite,
    rows: chosen.version === "3.40" ? sqliteRows.filter((row) => !since340.has(row.name)) : sqliteRows,
    code: sqliteCode,
    steps,
    uncovered: sqliteUncovered,
    types: typeRules(chosen.collation.toLowerCase()),
    functionCase: "ignored",
    separator: ",",
    calls: {},
    columnText,
    namesColumn: (written, column) => written.toLowerCase() === column.toLowerCase(),
    textLiteral,
    phrases,
    numberOfText: {
      write: (source) => `cast(${source} as numeric)`,
      compared: "the number is compared as a text, so that '10' comes before '3'",
    },
    print,
    standardCode: () => undefined,
    statements,
    errorScope: "query",
    plain,
  };
}

/** Truth values are 1 and 0; bytes are shown as the text that they are the UTF-8 form of. */
function plain(value: Value): unknown {
  if (typeof value === "boolean") return Number(value);
  if (value instanceof Bytes) return textOfBytes(value.bytes);
  return plainItem(value);
}
