import type { Style } from "../generate.ts";
import { kinds } from "./common.ts";

/** XPath, which no engine is asked about. */
export const xpath: Style = {
  columns: {
    text: ["$label", "$remark", "$gap"],
    integer: ["$n"],
    decimal: ["$d"],
    boolean: ["($n > 1)", "true()", "($label = $remark)", "empty($gap)"],
  },
  kindOf: kinds(
    Object.fromEntries(
      Object.entries({
        string: "text",
        integer: "integer",
        double: "decimal",
        decimal: "decimal",
        numeric: "decimal",
        boolean: "boolean",
        item: "any",
        any: "any",
      } as const).flatMap(([name, kind]) => ["", "?", "*", "+"].map((mark) => [name + mark, kind])),
    ),
  ),
  atoms: {
    function: ["upper-case#1", "function($x) { $x }", "concat(?, '!')"],
    map: ["map { 'a': 1 }", "map { 'k': $label, 2: () }"],
    array: ["[1, 'a', ()]", "array { 1 to 3 }"],
  },
  forms: {
    "array of": ([a]) => `array { ${a ?? ""} }`,
    "instance of": ([a]) => `(${a} instance of xs:string?)`,
    "treat as": ([a]) => `(${a} treat as item()*)`,
    "castable as": ([a]) => `(${a} castable as xs:integer)`,
    "look up": ([a]) => `(${a})?a`,
    "look up all": ([a]) => `(${a})?*`,
  },
  casts: {
    text: ["xs:string($)", "string($)"],
    integer: ["xs:integer($)", "($ cast as xs:integer?)"],
    decimal: ["xs:decimal($)", "number($)"],
    boolean: ["xs:boolean($)", "boolean($)"],
  },
  syntax: {
    text: [
      "({t} || {a})",
      "tokenize({t}, ',')[{i}]",
      "string-join(for $p in tokenize({t}, ' ') return upper-case($p), '-')",
      "({t} ! substring(., {i}))",
      "({t} => replace('a', 'b') => upper-case())",
      "(let $x := {t} return concat($x, $x))",
      "map { 'a': {t} }?a",
    ],
    integer: ["({i} + {i})", "count(1 to 3)", "string-length({t})", "({i} idiv {i})"],
    decimal: ["({d} * {i})", "({d} div {i})"],
    boolean: [
      "({a} = {a})",
      "({i} lt {d})",
      "({b} and {b})",
      "(some $x in tokenize({t}, ' ') satisfies $x = {t})",
      "({a} instance of xs:string)",
      "({a} castable as xs:integer)",
    ],
  },
  choices: ["(if ({b}) then {x} else {x})", "({x}, {x})[1]"],
  flavour: "none",
};
