import { expect, test } from "@jest/globals";
import { compile, message } from "indigo-quill";
import { arity, dialects } from "indigo-quill/dialects";
import { pick, random, trapTexts } from "./random.ts";

/** Arguments that fit nothing in particular: blanks, lists, huge and tiny numbers, broken patterns, errors. */
const oddities: Readonly<Record<string, string>> = {
  openformula: `label n gap flag mix 1 0 -1 2.5 1E308 -1E308 1E-300 "" "a" "12" TRUE() 1/0 NA() {1;2;3} {"a";"b"} 99999999999 "([" "*"`,
  postgresql: `label n gap flag mix 1 0 -1 2.5 1e300 '' 'a' '12' true null 1/0 array['a',null] array[1,2] '([' '%' 9999999999 1.5::float8 date'2019-04-03' 'nfc'`,
  sql: `label n gap flag mix 1 0 -1 2.5 1e300 '' 'a' '12' true null 1/0 '([' '%' 9999999999 'nfc'`,
  sqlite: `label n gap flag mix 1 0 -1 2.5 1e300 '' 'a' '12' x'00ff' null 1/0 '([' '%' 9999999999 '%d' '2019-04-03'`,
  mariadb: `label n gap flag mix 1 0 -1 2.5 1e300 '' 'a' '12' x'00ff' null 1/0 '([' '%' 9999999999 '%d' date'2019-04-03'`,
  duckdb: `label n gap flag mix 1 0 -1 2.5 1e300 '' 'a' '12' true null 1/0 ['a',null] [1,2] '([' '%' 9999999999 'ab'::blob date'2019-04-03'`,
  xpath: `$label $n $gap $flag $mix 1 0 -1 2.5 1e308 -1e308 '' 'a' '12' true() () (1,2,3) ('a','b') [1,2] map{'a':1} function($x){$x} upper-case#1 99999999999999999999 '([' xs:date('2019-04-03')`,
};

const each = <T>(value: (text: string, i: number) => T): T[] => trapTexts.map(value);
const columns = [
  { name: "label", values: trapTexts },
  { name: "n", values: each((_, i) => (i % 5 ? i - 3 : null)) },
  { name: "gap", values: each((_, i) => (i % 2 ? null : "x")) },
  { name: "flag", values: each((_, i) => (i % 3 ? true : null)) },
  { name: "mix", values: each((text, i) => [i, text, null, true][i % 4]) },
];
const sample = { columns, rows: trapTexts.length };

test.each(Object.keys(oddities))(
  "%s: every function takes anything, and gives a value or an error that is told (seed 9)",
  (id) => {
    const next = random(9);
    const dialect = dialects[id]();
    const args = oddities[id].split(" ");
    const untold: string[] = [];
    for (const row of dialect.rows) {
      for (let i = 0; i < 8; i++) {
        const { least, most } = arity(row);
        const count = least + Math.floor(next() * (Math.min(most, least + 2) - least + 1));
        const given = Array.from({ length: count }, () => pick(next, args));
        const isInfix = row.notation === "operator" && count < 3;
        const source = isInfix
          ? `${given[1] === undefined ? "" : given[0]} ${row.name} ${given[1] ?? given[0]}`
          : `${row.name}(${given.join(dialect.separator)})`;
        const program = compile(dialect, source, sample);
        for (const value of program.run(sample)) {
          if (value === undefined || (typeof value === "number" && Number.isNaN(value))) untold.push(source);
          dialect.plain(value);
        }
        if (program.diagnostics.some((diagnostic) => message(diagnostic).includes("undefined"))) untold.push(source);
        program.trace(sample, 0);
      }
    }
    expect(untold).toEqual([]);
  },
);
