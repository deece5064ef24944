import type { Value } from "../../values/index.ts";
import { readAsWhole, written } from "../shared/numbers.ts";
import { step, worked } from "../step.ts";

/** How a text is read as a number (F&O 3.1, 19.1.2), white space around it passed over. */
const read = {
  ...readAsWhole,
  exponent: "not read",
  decimalHalves: "cut off",
  doubleHalves: "cut off",
  beyondDouble: "infinity",
} as const;
const double = { ...read, exponent: "read", numberWords: "INF and NaN" } as const;

const text = {
  ...written,
  intervalText: "P1M",
  powerFrom: "1e6",
  powerBelow: "1e-6",
  power: "1.0E20",
  negativeZero: "kept",
  beyondNumbers: "NaN and INF",
  decimalZeros: "dropped",
  truthText: "true",
} as const;

/** What XPath does to values without a function. */
export const steps = {
  integer: step("number-of", { ...read, numberKind: "integer" }),
  decimal: step("number-of", { ...read, numberKind: "decimal" }),
  double: step("number-of", { ...double, numberKind: "double" }),
  float: step("number-of", { ...double, numberKind: "double of 32 bits", tooLarge: "infinity" }),
  /** What fn:number does (4.5.1). */
  number: step("number-of", { ...double, missing: "blank", numberKind: "double", notNumber: "not a number" }),
  text: step("text-of", text),
  "text of each": step("text-of", { ...text, listText: "item by item" }),
  "plain double": step("number-of", { ...double, numbers: "double", numberKind: "double" }),
  /** The effective boolean value (XPath 3.1, 2.4.3). */
  truth: step("truth-of", { missing: "blank", textTruth: "not empty", truthOfNaN: "false" }),
  boolean: step("truth-of", { missing: "null", textTruth: "true, false, 1 or 0", truthOfNaN: "false" }),
  "spaces collapsed": step("trim", {
    missing: "null",
    ends: "both",
    inner: "one space",
    characters: "xml space",
    removed: "each",
  }),
  "blanks as spaces": step("translate", { missing: "null", unit: "code point" }, { from: "\t\n\r", to: "   " }),
};

/** fn:string of one atomic item (F&O 3.1, 19.1.2). */
export const stringOf = worked(steps.text) as (item: Value) => string;
