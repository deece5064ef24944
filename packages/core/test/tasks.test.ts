import { describe, expect, test } from "@jest/globals";
import { type Value, applyFix, compile, isFailure, sampleOf } from "indigo-quill";
import { agree } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";
import { filled, templateOf, tasks } from "../src/dialects/tasks/index.ts";

const all = Object.values(dialects).map((make) => make());
const asTruth = (value: Value): Value => (typeof value === "boolean" ? Number(value) : value);

const lists: Readonly<Record<string, readonly [string, string]>> = {
  postgresql: ["array[", "]"],
  duckdb: ["[", "]"],
  xpath: ["(", ")"],
};

/** A task on its own example, over columns; what a dialect wants written, as DuckDB the digits of round, is written, and so are lists. */
function said(id: keyof typeof tasks, dialect: (typeof all)[number]): Value {
  const takes = tasks[id].takes as Readonly<Record<string, Value>>;
  const textOf = (name: string, value: Value) => {
    if (Array.isArray(value))
      return lists[dialect.id].join(value.map((item: Value) => dialect.textLiteral(String(item))).join(", "));
    if (name === "separator" && Array.isArray(takes.list)) return dialect.textLiteral(String(value));
    return name === "digits" ? String(value) : dialect.columnText(name);
  };
  const parts = Object.entries(takes).map(([name, value]) => [name, { text: textOf(name, value), isOpen: false }] as const);
  const program = compile(dialect, filled(templateOf(id, dialect.id)!, Object.fromEntries(parts)), sampleOf([takes]));
  expect(program.diagnostics).toEqual([]);
  return program.runRow(sampleOf([takes]), 0);
}

describe("every dialect says a task so that it gives the same", () => {
  test.each(Object.keys(tasks) as (keyof typeof tasks)[])("%s", (id) => {
    const saying = all.filter((dialect) => templateOf(id, dialect.id) !== undefined);
    const values = saying.map((dialect) => asTruth(said(id, dialect)));
    expect(values.map(isFailure)).toEqual(values.map(() => false));
    expect(values.map((value) => agree(value, values[0]))).toEqual(values.map(() => true));
  });
});

/** Calls as they are written in one dialect, which others say otherwise; in all, the mend gives on these rows what it gives there. */
// prettier-ignore
const foreign: readonly (readonly [string, string])[] = [
  ["postgresql", "left(label, 3)"], ["postgresql", "right(label, n)"], ["mariadb", "mid(label, 2, 3)"], ["postgresql", "substr(label, 3)"], ["postgresql", "strpos(label, 'u')"], ["mariadb", "locate('u', label)"],
  ["postgresql", "split_part(label, ' ', 1)"], ["postgresql", "split_part(label, ' ', 2)"], ["mariadb", "substring_index(label, ' ', 1)"], ["mariadb", "substring_index(label, ' ', -1)"], ["mariadb", "substring_index(label, 'u', 2)"],
  ["postgresql", "initcap(label)"], ["postgresql", "lpad(label, 20, '.')"], ["postgresql", "rpad(label, 20, '.')"], ["postgresql", "repeat(label, 2)"], ["mariadb", "ucase(label)"],
  ["postgresql", "length(label)"], ["postgresql", "concat(label, 'x')"], ["postgresql", "concat_ws('-', label, 'x', 'y')"], ["postgresql", "btrim(label)"], ["mariadb", "if(n > 1, label, 'x')"], ["mariadb", "ifnull(label, 'x')"],
  ["postgresql", "coalesce(label, 'x', 'y')"], ["postgresql", "nullif(label, 'x')"], ["duckdb", "contains(label, 'us')"], ["postgresql", "starts_with(label, 'A')"], ["duckdb", "ends_with(label, 's')"],
  ["postgresql", "ascii(label)"], ["postgresql", "greatest(n, 2)"], ["postgresql", "mod(n, 2)"], ["sqlite", "iif(n > 1, 'a', 'b')"], ["sqlite", "instr(label, 'u')"],
  ["mariadb", "hour(at)"], ["mariadb", "minute(at)"], ["mariadb", "second(at)"], ["mariadb", "dayofyear(day)"], ["postgresql", "make_date(2020, n, 5)"], ["mariadb", "truncate(x, 1)"], ["postgresql", "trunc(x)"],
  ["postgresql", "sign(x)"], ["openformula", "ISODD(n)"], ["openformula", "ISEVEN(n)"], ["mariadb", "space(n)"], ["openformula", "DEC2HEX(n)"], ["mariadb", "conv(n, 10, 16)"], ["mariadb", "conv(n, 10, 2)"],
  ["postgresql", "regexp_count(label, '[aeiou]')"], ["duckdb", "regexp_full_match(label, '[A-Z][a-z]+ .*')"], ["openformula", "CLEAN(label)"], ["postgresql", "sqrt(n)"], 
  ["duckdb", "list_contains(string_split(label, ' '), 'robur')"], ["postgresql", "cardinality(string_to_array(label, ' '))"], ["duckdb", "list_position(string_split(label, ' '), 'robur')"],
  ["duckdb", "list_prepend('x', string_split(label, ' '))"], ["duckdb", "list_append(string_split(label, ' '), 'x')"],
  ["postgresql", "array_to_string(string_to_array(label, ' '), '-')"], ["mariadb", "field(label, 'Betula pendula', 'Quercus robur')"], ["postgresql", "translate(label, 'aub', 'xy')"],
];

test.each(foreign)("%s %s is mended into what gives the same", (of, source) => {
  const rows = [
    { label: "Alnus glutinosa", n: 3, x: -2.57, at: "1903-06-05 22:30:15", day: "1903-06-05" },
    { label: "Betula pendula", n: 1, x: 12.35, at: "1999-12-31 00:07:09", day: "1999-12-31" },
    { label: "Quercus robur", n: 2, x: 0.5, at: "2024-02-29 12:00:00", day: "2024-02-29" },
  ];
  const sample = sampleOf(rows);
  const run = (dialect: (typeof all)[number], text: string) => {
    const program = compile(dialect, text, sample);
    return program.ok ? rows.map((_, row) => asTruth(program.runRow(sample, row))) : undefined;
  };
  const wanted = run(dialects[of](), source)!;
  const mended = all.flatMap((dialect) => {
    const here = dialect.id === "xpath" ? source.replace(/\b(label|n|x|at|day)\b(?!')/g, "$$$1") : source;
    const text = dialect.separator === ";" ? here.replaceAll("'", '"').replace(/,\s*/g, ";") : here;
    const [problem] = compile(dialect, text, sample).diagnostics;
    if (!["unknown-function", "habit"].includes(problem?.code) || problem.fixes.length === 0) return [];
    return [{ dialect: dialect.id, given: run(dialect, applyFix(text, problem.fixes[0])) }];
  });
  expect(mended.length).toBeGreaterThan(0);
  for (const { dialect, given } of mended)
    expect([dialect, given, given?.map((value, i) => agree(value, wanted[i]))]).toEqual([dialect, given, wanted.map(() => true)]);
});

const moments = sampleOf(["1903-06-05 00:07:09", "1999-12-31 23:59:58", "2024-02-29 12:00:00"].map((moment) => ({ moment })));
const days = sampleOf(["1903-06-05", "1999-12-31", "2024-02-29"].map((moment) => ({ moment })));
/** How the dialects write a moment by a format, as each takes it. */
const writers: Readonly<Record<string, (format: string) => string>> = {
  postgresql: (format) => `to_char(cast(moment as timestamp), '${format}')`,
  mariadb: (format) => `date_format(moment, '${format}')`,
  duckdb: (format) => `strftime(cast(moment as timestamp), '${format}')`,
  sqlite: (format) => `strftime('${format}', moment)`,
};

/** A format that a dialect has, and the function with which it is written in the others. */
// prettier-ignore
test.each([
  ["duckdb", "%Y/%m/%d %H:%M:%S"], ["duckdb", "%y %j"], ["duckdb", "%B %d, %Y"], ["duckdb", "%b %a"], ["duckdb", "%A"], ["duckdb", "%I:%M %p"], ["sqlite", "%F %T"],
  ["mariadb", "%Y-%m-%d %H:%i:%s"], ["mariadb", "%M %d"], ["mariadb", "%b %W %a"], ["mariadb", "%h:%i %p"], ["mariadb", "%j %y %T"],
  ["postgresql", "FMMonth YYYY"], ["postgresql", "YYYY-MM-DD HH24:MI:SS"], ["postgresql", "DD.MM.YY"], ["postgresql", "DD Mon YYYY"],
])("%s: a date by %s is the same in the dialects that have such a format", (own, format) => {
  const written = writers[own](format).replace(/cast\((\w+) as timestamp\)/, "$1");
  const sample = /%[HhIST]|HH/.test(format) ? moments : days;
  const values = [...compile(dialects[own](), writers[own](format), sample).run(sample)];
  const others = all.flatMap((dialect) => {
    const here = dialect.id === "xpath" ? written.replace("moment", "$moment") : written;
    const text = dialect.separator === ";" ? here.replaceAll("'", '"').replace(/(?<=moment), |(?<="), (?=moment)/, ";") : here;
    const [problem] = compile(dialect, text, sample).diagnostics;
    const fix = dialect.id === own || problem?.code !== "unknown-function" ? undefined : problem.fixes.at(0);
    return fix ? [[...compile(dialect, applyFix(text, fix), sample).run(sample)]] : [];
  });
  expect(others.length).toBeGreaterThan(0);
  for (const other of others) expect(other).toEqual(values);
});
