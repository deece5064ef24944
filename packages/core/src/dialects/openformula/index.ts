import { type MessageCode, type Value, isList } from "../../values/index.ts";
import type { Dialect, DialectOption } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { openFormulaCode } from "./code.ts";
import { typeRules } from "./coercions.ts";
import { type TableOptions, openFormulaRows } from "./functions.ts";
import { parseOpenFormula } from "./grammar.ts";
import { phrases } from "./phrases.ts";
import { stepsBy } from "./steps.ts";
import { columnText, print, textLiteral } from "./printer.ts";
import { openFormulaUncovered } from "./uncovered.ts";

const options: readonly DialectOption[] = [
  {
    name: "unit",
    values: ["code point", "utf-16 unit"],
    default: "code point",
    summary: "What LEN and positions count; the standard says characters.",
  },
  {
    name: "searchPattern",
    values: ["open", "wildcards", "literal"],
    default: "open",
    summary: "The patterns of SEARCH and of criteria: regular expressions unless the document says otherwise.",
  },
  { name: "textCase", values: ["minded", "ignored"], default: "minded", summary: "Whether = between texts minds case." },
  {
    name: "textAsNumber",
    values: ["convert", "zero", "error"],
    default: "convert",
    summary: "What a text gives where a number is wanted.",
  },
];

/** The spreadsheet error kind for a failure; what is not listed is #VALUE!. */
const kinds: Readonly<Partial<Record<MessageCode, string>>> = {
  "division-by-zero": "#DIV/0!",
  "number-out-of-range": "#NUM!",
  "unknown-function": "#NAME?",
  "unknown-column": "#NAME?",
};

/** OpenFormula, with its host-dependent settings as options. */
export function openformula(given: Readonly<Record<string, string>> = {}): Dialect {
  const chosen = chooseOptions("openformula", options, given);
  const tables = chosen as unknown as TableOptions;
  return {
    id: "openformula",
    title: dialectTitles.openformula,
    family: "spreadsheet",
    source: "OASIS OpenDocument 1.3 part 4 (ISO/IEC 26300)",
    options,
    chosen,
    parse: parseOpenFormula,
    rows: openFormulaRows(tables),
    code: openFormulaCode(tables.searchPattern),
    steps: stepsBy(chosen.textAsNumber),
    uncovered: openFormulaUncovered,
    types: typeRules(chosen.textAsNumber),
    functionCase: "ignored",
    separator: ";",
    calls: {},
    columnText,
    namesColumn: (written, column) => written.toLowerCase() === column.toLowerCase(),
    textLiteral,
    phrases,
    numberOfText: { write: (source) => `VALUE(${source})`, compared: "a text comes after every number, whatever it says" },
    print,
    standardCode: (code, facts) => (code === "error-value" ? String(facts.kind) : (kinds[code] ?? "#VALUE!")),
    errorScope: "value",
    plain,
  };
}

const plain = (value: Value): unknown => (isList(value) ? value.map(plain) : plainItem(value));
