import { Bytes, type MessageCode, type Value, textOfBytes, FixedDouble } from "../../values/index.ts";
import type { Dialect, DialectOption } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { mariadbCode } from "./code.ts";
import { calls } from "./calls.ts";
import { type Collation, collations } from "./types.ts";
import { typeRules } from "./coercions.ts";
import { mariadbRows } from "./functions.ts";
import { parseMariadb } from "./grammar.ts";
import { columnText, textLiteral } from "./lexis.ts";
import { phrases } from "./phrases.ts";
import { print } from "./printer.ts";
import { steps, toText } from "./steps.ts";
import { statements } from "./statements.ts";
import { mariadbUncovered } from "./uncovered.ts";

const options: readonly DialectOption[] = [
  {
    name: "collation",
    values: Object.keys(collations),
    default: "utf8mb4_general_ci",
    summary: "The collation of columns and literals: which letters =, LIKE, LOCATE and REGEXP find alike.",
  },
];

/** The SQLSTATE for a failure (documentation, "MariaDB Error Codes"). */
const states: Readonly<Partial<Record<MessageCode, string>>> = {
  "number-out-of-range": "22003",
  "unknown-function": "42000",
  "argument-count": "42000",
  "unknown-column": "42S22",
  "pattern-syntax": "42000",
  "escape-length": "HY000",
  expected: "42000",
  "extra-text": "42000",
  "unclosed-quote": "42000",
  "unclosed-bracket": "42000",
};

/** MariaDB 10.11 with utf8mb4 and its default sql_mode. */
export function mariadb(given: Readonly<Record<string, string>> = {}): Dialect {
  const chosen = chooseOptions("mariadb", options, given);
  const collation = chosen.collation as Collation;
  return {
    id: "mariadb",
    title: dialectTitles.mariadb,
    family: "sql",
    source: "MariaDB 10.11.19, utf8mb4, default sql_mode",
    options,
    chosen,
    parse: parseMariadb,
    rows: mariadbRows,
    code: mariadbCode(collation),
    steps,
    uncovered: mariadbUncovered,
    types: typeRules(collation),
    functionCase: "ignored",
    separator: ",",
    calls,
    columnText,
    namesColumn: (written, column) => written.toLowerCase() === column.toLowerCase(),
    textLiteral,
    phrases,
    print,
    standardCode: (code) => states[code],
    statements,
    errorScope: "query",
    plain,
  };
}

/** Bytes are shown as the text that they are the UTF-8 form of, and doubles with their decimals where those are fixed. */
function plain(value: Value): unknown {
  if (value instanceof Bytes) return textOfBytes(value.bytes);
  return value instanceof FixedDouble ? Number(toText(value)) : plainItem(value);
}
