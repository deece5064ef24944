import { ArrayItem, type Facts, FunctionItem, MapItem, type MessageCode, type Value, isList } from "../../values/index.ts";
import type { Dialect } from "../dialect.ts";
import { chooseOptions } from "../shared/options.ts";
import { plainItem } from "../shared/plain.ts";
import { dialectTitles } from "../titles.ts";
import { xpathCode } from "./code.ts";
import { typeRules } from "./coercions.ts";
import { xpathRows } from "./functions.ts";
import { parseXPathExpression } from "./grammar.ts";
import { stringOf, steps } from "./steps.ts";
import { phrases } from "./phrases.ts";
import { print, textLiteral } from "./printer.ts";
import { xpathUncovered } from "./uncovered.ts";

/** The error code for a failure (XPath 3.1, appendix F; F&O 3.1, appendix C). */
const codes: Readonly<Partial<Record<MessageCode, string>>> = {
  "division-by-zero": "err:FOAR0001",
  "number-out-of-range": "err:FOAR0002",
  "not-a-number": "err:FORG0001",
  "not-a-boolean": "err:FORG0001",
  "wrong-kind": "err:XPTY0004",
  "not-a-date": "err:FORG0001",
  "no-atomic-value": "err:FOTY0013",
  "no-truth-value": "err:FORG0006",
  "not-finite": "err:FOCA0002",
  "too-many-items": "err:XPTY0004",
  "kinds-do-not-compare": "err:XPTY0004",
  "values-do-not-compare": "err:FORG0006",
  "pattern-syntax": "err:FORX0002",
  "pattern-flags": "err:FORX0001",
  "pattern-matches-empty": "err:FORX0003",
  "replacement-syntax": "err:FORX0004",
  "bad-index": "err:FOAY0001",
  "negative-length": "err:FOAY0002",
  "no-such-character": "err:FOCH0001",
  "normal-form": "err:FOCH0003",
  "unknown-function": "err:XPST0017",
  "argument-count": "err:XPST0017",
  "unknown-column": "err:XPST0008",
  "unknown-type": "err:XPST0051",
  expected: "err:XPST0003",
};

/** The error of zero-or-one, one-or-more and exactly-one (F&O 3.1, 14.3). */
const countCode = ({ least, most }: Facts): string =>
  least === 0 ? "err:FORG0003" : most === undefined ? "err:FORG0004" : "err:FORG0005";

/** A column's name as a variable: what a name may not hold becomes `_`. */
const variableName = (name: string): string => {
  const safe = name.replace(/[^\p{L}\p{N}\p{M}_.-]/gu, "_");
  return /^[\p{L}_]/u.test(safe) ? safe : `_${safe}`;
};

/** XPath 3.1 with Functions and Operators 3.1; columns are variables. */
export function xpath(given: Readonly<Record<string, string>> = {}): Dialect {
  return {
    id: "xpath",
    title: dialectTitles.xpath,
    family: "query",
    source: "W3C XPath 3.1 with Functions and Operators 3.1",
    options: [],
    chosen: chooseOptions("xpath", [], given),
    parse: parseXPathExpression,
    rows: xpathRows,
    code: xpathCode,
    steps,
    uncovered: xpathUncovered,
    types: typeRules,
    functionCase: "minded",
    separator: ",",
    calls: {},
    columnText: (name) => `$${variableName(name.replace(/^\$/, ""))}`,
    namesColumn: (written, column) => written === `$${variableName(column)}`,
    textLiteral,
    phrases,
    numberOfText: { write: (source) => `number(${source})`, compared: "the two do not compare, which is an error" },
    print,
    standardCode: (code, facts) => (code === "wrong-count" ? countCode(facts) : codes[code]),
    errorScope: "query",
    plain,
  };
}

function plain(value: Value): unknown {
  if (value instanceof ArrayItem) return value.members.map(plain);
  if (value instanceof MapItem)
    return Object.fromEntries([...value.entries.values()].map(([key, entry]) => [stringOf(key), plain(entry)]));
  if (value instanceof FunctionItem) return `function#${value.arity}`;
  return isList(value) ? value.map(plain) : plainItem(value);
}
