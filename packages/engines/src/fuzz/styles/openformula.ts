import type { Style } from "../generate.ts";
import { columns, kinds } from "./common.ts";

/** OpenFormula, which no engine is asked about. */
export const openformula: Style = {
  columns: { ...columns, boolean: ["(n>1)", "TRUE()", "(label=remark)", "ISBLANK(gap)"] },
  kindOf: kinds({
    text: "text",
    number: "decimal",
    integer: "integer",
    position: "integer",
    boolean: "boolean",
    condition: "boolean",
    any: "any",
    scalar: "any",
  }),
  atoms: {
    date: ["DATE(2019;4;3)", 'DATEVALUE("2020-02-29")', "43558"],
    list: ['{"a";"b"}', "{1;2;3}", "label"],
    array: ['{"a";"b"}', "{1;2;3}", "label"],
  },
  casts: { text: ['($&"")', "T($)"], integer: ["INT($)"], decimal: ["VALUE($)", "N($)"], boolean: ["NOT($)"] },
  syntax: {
    text: ["({t}&{a})", "MID({t};{i};{i})", "SUBSTITUTE({t};{t};{t})"],
    integer: ["({i}+{i})", "-{i}^{i}", "LEN({t})", "FIND({t};{t})"],
    decimal: ["({d}*{i})", "{d}%", "({d}/{i})"],
    boolean: ["({a}={a})", "({a}<>{a})", "({i}>={d})", "AND({b};{b})", "ISERROR({a})"],
  },
  choices: ["IF({b};{x};{x})", "IF({b};{x})", "IFERROR({x};{x})", "CHOOSE({i};{x};{x})"],
  flavour: "none",
};
