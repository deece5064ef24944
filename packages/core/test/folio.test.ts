import { describe, expect, test } from "@jest/globals";
import { type Value, isFailure, message, sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import {
  type CalculatedColumn,
  type PlanOptions,
  forEach,
  idleCleanups,
  inlined,
  lifted,
  needsOf,
  planColumns,
  renamings,
} from "indigo-quill/folio";

const sample = sampleOf([
  { collector: " Meunier, Luc", taxon: "salix alba", code: "3", n: 3 },
  { collector: "Tanaka", taxon: "", code: "x", n: null },
  { collector: null, taxon: "alnus; salix", code: "10", n: 2 },
]);

const columnsOf = (given: Readonly<Record<string, string>>): CalculatedColumn[] =>
  Object.entries(given).map(([names, expression]) => ({ names: names.split(","), expression }));

const shown = (value: Value) => (isFailure(value) ? "error" : value);

type Case = readonly [
  dialect: string,
  columns: Readonly<Record<string, string>>,
  options: PlanOptions,
  expected: Readonly<Record<string, readonly Value[]>>,
];

// prettier-ignore
const cases: readonly Case[] = [
  // Each sees the new values of the others, in whatever order they are given, and its own old one.
  ["sqlite", { k: "length(s)", s: "trim(collector)", collector: "upper(collector)" }, {}, { collector: [" MEUNIER, LUC", "TANAKA", null], k: [12, 6, null], s: ["MEUNIER, LUC", "TANAKA", null] }],
  ["sql", { s: "collector || '!'", collector: "trim(collector)" }, {}, { s: ["Meunier, Luc!", "Tanaka!", null] }],
  // The type of a calculated column is that of what gives it, with its affinity.
  ["sqlite", { x: "cast(code as integer)", y: "x > '2'", z: "code > 2" }, {}, { x: [3, 0, 10], y: [1, 0, 1], z: [1, 1, 0] }],
  ["postgresql", { q: "code::int", r: "q + 1", w: "r::text || '!'" }, {}, { q: [3, "error", 10], r: [4, "error", 11], w: ["4!", "error", "11!"] }],
  ["duckdb", { l: "string_split(taxon, '; ')", first: "l[1]", size: "len(l)" }, {}, { first: ["salix alba", "", "alnus"], size: [1, 1, 2] }],
  ["mariadb", { d: "'2019-04-03' + interval 1 day", y: "year(d)", t: "1.50", u: "t + 1" }, {}, { y: [2019, 2019, 2019], u: [2.5, 2.5, 2.5] }],
  ["openformula", { v: "VALUE(code)", safe: "IFERROR(v;0)" }, {}, { v: [3, "error", 10], safe: [3, 0, 10] }],
  ["xpath", { parts: "tokenize($taxon, '; ')", count: "count($parts)" }, {}, { parts: ["salix alba", null, ["alnus", "salix"]], count: [1, 0, 2] }],
  // Where the condition does not hold a column stays as it was, for the others too, and a new one has nothing.
  ["postgresql", { taxon: "upper(taxon)", g: "left(taxon, 3)" }, { where: "n = 3" }, { taxon: ["SALIX ALBA", "", "alnus; salix"], g: ["SAL", null, null] }],
  ["postgresql", { n: "n * 2.5", m: "n + 1" }, { where: "n > 2" }, { n: [7.5, null, 2], m: [8.5, null, null] }],
  ["xpath", { taxon: "'x'" }, { where: "$n = 2", only: "$n" }, { taxon: ["salix alba", "x"] }],
  ["openformula", { taxon: "UPPER(taxon)" }, { only: "n>=3" }, { taxon: ["SALIX ALBA"] }],
  // The items of a list become columns, or rows.
  ["postgresql", { "s,g": "string_to_array(collector, ', ')", u: "s || '!'" }, {}, { s: [" Meunier", "Tanaka", null], g: ["Luc", null, null], u: [" Meunier!", "Tanaka!", null] }],
  ["xpath", { p: "tokenize($taxon, '; ')" }, { unfold: "p" }, { p: ["salix alba", null, "alnus", "salix"], n: [3, null, 2, 2] }],
];

describe("calculated columns", () => {
  test.each(cases)("%s %j %j", (id, given, options, expected) => {
    const plan = planColumns(dialects[id](), columnsOf(given), sample, options);
    expect(plan.ok).toBe(true);
    const { columns } = plan.run(sample).sample;
    const found = columns.filter(({ name }) => name in expected).map(({ name, values }) => [name, values.map(shown)]);
    expect(Object.fromEntries(found)).toEqual(expected);
    // What was not asked for stays as it was.
    const others = columns.filter(
      ({ name }) => name !== "taxon" && name !== "collector" && name !== "n" && !plan.calculated.has(name),
    );
    if (!options.only && !options.unfold)
      for (const { name, values } of others)
        expect(values).toEqual(sample.columns.find((column) => column.name === name)?.values);
  });

  test("what became of each column is counted, errors apart", () => {
    const columns = columnsOf({ taxon: "nullif(trim(taxon), '')", q: "code::int" });
    const { changes, unknown } = planColumns(dialects.postgresql(), columns, sample, { where: "10 / (n - 2) > 0" }).run(sample);
    expect(unknown).toEqual([2]);
    expect(changes).toEqual([
      { name: "taxon", changed: [], failed: [], empty: 0, nothing: 0, overflowing: [] },
      { name: "q", changed: [0], failed: [], empty: 0, nothing: 0, overflowing: [] },
    ]);
  });

  // prettier-ignore
  test.each([
    ["openformula", "TRIM(it)&it", ["collector"], ["TRIM(collector)&collector"]],
    ["xpath", "for $x in $it return $x || 'it'", ["taxon"], ["for $x in $taxon return $x || 'it'"]],
    ["mariadb", "trim(it)", ["Collector Notes", "n"], ["trim(`Collector Notes`)", "trim(n)"]],
  ])("%s: %s for each column", (id, expression, names, expected) => {
    expect(forEach(dialects[id](), names, expression).map((column) => column.expression)).toEqual(expected);
  });

  test("problems have the column and a place", () => {
    const plan = planColumns(dialects.postgresql(), columnsOf({ a: "b || 'x'", b: "lower(a)", c: "nosuch" }), sample, {
      only: "taxon",
    });
    expect(plan.ok).toBe(false);
    expect(plan.problems.map(({ of, diagnostics: [first] }) => `${of} ${first.range.start}: ${message(first)}`)).toEqual([
      "only 0: A condition must be true or false here, not text.",
      "b 6: These columns need one another: a → b → a.",
      "c 0: There is no column nosuch. The columns are: collector, taxon, code, n, b, a.",
    ]);
  });
});

describe("columns put into one expression", () => {
  const inline = (id: string, given: Readonly<Record<string, string>>, name: string, options: PlanOptions = {}) =>
    inlined(planColumns(dialects[id](), columnsOf(given), sample, options), name, sample);

  // prettier-ignore
  test.each([
    ["openformula", { p: 'FIND(",";collector&",")', s: "LEFT(collector;p-1)", k: "LEN(s)*2" }, "k", 'LEN(LEFT(collector; FIND(","; collector & ",") - 1)) * 2'],
    ["openformula", { a: "n+1", b: "a*2-a" }, "b", "(n + 1) * 2 - (n + 1)"],
    ["postgresql", { collector: "btrim(collector)", s: "split_part(collector, ',', 1)", t: "s || '!' = collector" }, "t", "split_part(btrim(collector), ',', 1) || '!' = btrim(collector)"],
    ["postgresql", { a: "n > 1 or taxon is null", b: "not a and n < 5" }, "b", "not (n > 1 or taxon is null) and n < 5"],
    ["sqlite", { a: "n - 1", b: "10 - a - -a" }, "b", "10 - (n - 1) - -(n - 1)"],
    ["mariadb", { a: "n between 1 and 2", b: "if(a, taxon, 'x')" }, "b", "if(n between 1 and 2, taxon, 'x')"],
    ["duckdb", { l: "string_split(taxon, '; ')", b: "list_transform(l, lambda x: x || n)" }, "b", "list_transform(string_split(taxon, '; '), lambda x: x || n)"],
    ["sql", { a: "trim(both ' ' from taxon)", b: "char_length(a)" }, "b", "char_length(trim(both ' ' from taxon))"],
    ["xpath", { a: "tokenize($taxon, '; ')", b: "for $x in $a return concat($x, $code)" }, "b", "for $x in tokenize($taxon, '; ') return concat($x, $code)"],
  ])("%s: %j", (id, given, name, expected) => {
    expect(inline(id, given, name)).toEqual({ name, expression: expected, emptyForNothing: false });
  });

  // prettier-ignore
  test.each([
    ["xpath", { a: "upper-case($taxon)", b: "for $taxon in ('x', 'y') return concat($taxon, $a)" }, "b", {}, /a variable is called like the column \$taxon/],
    ["postgresql", { a: "'x'", b: "a || n" }, "b", { where: "n > 1" }, /a condition says where it holds/],
    ["postgresql", { "a,b": "string_to_array(taxon, ';')" }, "a", {}, /it is an item of a list/],
    ["postgresql", { a: "1" }, "c", {}, /there is no such calculated column/],
    ["postgresql", Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`c${i}`, i === 0 ? "taxon" : `c${i - 1} || c${i - 1}`])), "c19", {}, /it would have more than 50000 characters/],
  ])("%s: %j is refused", (id, given, name, options, reason) => {
    const found = inline(id, given, name, options);
    expect("refused" in found ? found.refused : found.expression).toMatch(reason);
  });
});

describe("an expression taken apart", () => {
  // prettier-ignore
  test.each([
    ["openformula", 'IFERROR(LEFT(collector;FIND(",";collector)-1);collector)', ['collector_position = FIND(",";collector)', "collector_part = LEFT(collector;collector_position-1)", "x = IFERROR(collector_part;collector)"]],
    ["postgresql", "btrim(substring(collector from position(',' in collector) + 1))", ["collector_position = position(',' in collector)", "collector_part = substring(collector from collector_position + 1)", "x = btrim(collector_part)"]],
    // What stands there twice is taken out once; what fails on rows that do not need it stays.
    ["postgresql", "case when n > 2 then cast(btrim(code) as int) + length(btrim(code)) end", ["code_trimmed = btrim(code)", "code_length = length(code_trimmed)", "x = case when n > 2 then cast(code_trimmed as int) + code_length end"]],
    ["sqlite", "substr(taxon, 1, instr(taxon, ';') - 1) || substr(code, 1, 1)", ["taxon_position = instr(taxon, ';')", "taxon_part = substr(taxon, 1, taxon_position - 1)", "code_part = substr(code, 1, 1)", "x = taxon_part || code_part"]],
    ["mariadb", "concat(substring_index(taxon, ';', 1), upper(trim(taxon)), trim(code))", ["taxon_piece = substring_index(taxon, ';', 1)", "taxon_trimmed = trim(taxon)", "taxon_recased = upper(taxon_trimmed)", "code_trimmed = trim(code)", "x = concat(taxon_piece, taxon_recased, code_trimmed)"]],
    ["xpath", "for $t in tokenize($taxon, '; ') return upper-case($t)", undefined],
    ["xpath", "count(for $t in tokenize($taxon, '; ') return upper-case($t)) + string-length(upper-case($code))", ["taxon_count = count(for $t in tokenize($taxon, '; ') return upper-case($t))", "code_recased = upper-case($code)", "code_length = string-length($code_recased)", "x = $taxon_count + $code_length"]],
    ["duckdb", "upper(taxon)", undefined],
    ["sql", "char_length(trim(both ' ' from taxon))", ["taxon_trimmed = trim(both ' ' from taxon)", "x = char_length(taxon_trimmed)"]],
  ])("%s: %s", (id, expression, expected) => {
    const found = lifted(dialects[id](), "x", expression, sample);
    expect("columns" in found ? found.columns.map((column) => `${column.names[0]} = ${column.expression}`) : undefined).toEqual(expected);
    if (!("columns" in found)) return;
    // Put together again it is the same expression.
    const together = inlined(planColumns(dialects[id](), found.columns, sample), "x", sample);
    const dialect = dialects[id]();
    expect(together).toMatchObject({ expression: dialect.print(dialect.parse(expression).tree) });
  });
});

test("what a column needs, and what needs it", () => {
  const plan = planColumns(
    dialects.postgresql(),
    columnsOf({ k: "length(s)", s: "btrim(collector)", taxon: "upper(taxon)" }),
    sample,
  );
  expect(needsOf(plan)).toEqual([
    { name: "collector", isCalculated: false, needs: [], neededBy: ["s"] },
    { name: "taxon", isCalculated: true, needs: ["taxon"], neededBy: [] },
    { name: "s", isCalculated: true, needs: ["collector"], neededBy: ["k"] },
    { name: "k", isCalculated: true, needs: ["s"], neededBy: [] },
  ]);
});

// prettier-ignore
test.each([
  [{ clean: "btrim(collector)", s: "left(collector, 3)" }, [{ name: "clean", raw: "collector", users: ["s"] }]],
  [{ clean: "btrim(collector)", s: "left(clean, 3)" }, []],
  [{ clean: "btrim(collector)" }, []],
  [{ start: "left(collector, 2)", s: "upper(collector)" }, [{ name: "s", raw: "collector", users: ["start"] }]],
  [{ collector: "btrim(collector)", s: "left(collector, 3)" }, []],
])("cleaned columns that nothing uses in %j", (given, expected) => {
  const plan = planColumns(dialects.postgresql(), columnsOf(given), sample);
  expect(idleCleanups(plan, sample, plan.run(sample))).toEqual(expected);
});

test("a column has another name everywhere in a folio", () => {
  const data = {
    types: { code: "text" },
    columns: [
      { name: ["code", "x"], expression: "for $c in 'x' return ($c, $code)" },
      { name: "y", snippet: "s", of: "code" },
      { name: "z", snippet: "s", of: { it: "code", other: "x" } },
    ],
    where: "$code = 'code'",
    unfold: "code",
    claims: [{ column: "code", row: { code: 1, x: 2 } }],
  };
  expect(renamings(data, dialects.xpath(), "code", "the code")).toEqual([
    { path: ["types", "code"], key: "the code" },
    { path: ["columns", 0, "name", 0], value: "the code" },
    { path: ["columns", 0, "expression"], value: "for $c in 'x' return ($c, $the_code)" },
    { path: ["columns", 1, "of"], value: "the code" },
    { path: ["columns", 2, "of", "it"], value: "the code" },
    { path: ["where"], value: "$the_code = 'code'" },
    { path: ["unfold"], value: "the code" },
    { path: ["claims", 0, "column"], value: "the code" },
    { path: ["claims", 0, "row", "code"], key: "the code" },
  ]);
  expect(() => renamings(data, dialects.xpath(), "code", "c")).toThrow("a variable is called like the column $c");
});
