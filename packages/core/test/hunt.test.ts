import { describe, expect, test } from "@jest/globals";
import { type DeclaredType, compile, isFailure, sampleOf } from "indigo-quill";
import { type HuntOptions, agree, coverage, hunt } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";

const side = (dialect: string, expression: string) => ({ dialect: dialects[dialect](), expression });
const columns: Record<string, DeclaredType> = { label: "text", other: "text", n: "integer", x: "decimal" };

/** Expressions with places in which a mistake is planted: what stands in the first of the brackets, and in the others instead. */
const planted: Readonly<Record<string, readonly string[]>> = {
  "postgresql duckdb mariadb sqlite": [
    "substr(label, [2|1|3], [3|2|4|30])",
    "[upper|lower](label) || '[x|X|]'",
    "[trim|ltrim|rtrim](label)",
    "replace(label, '[abc|ab|abcd|ABC]', '[-|--|]')",
    "case when n > [10|11|1000] then '[many|more]' when n [>=|>] 3 then 'some' else 'few' end",
    "coalesce([label|other], [other|''|label], 'none')",
    "length(label) [>|>=|<] [20|21|200]",
    "label like '[a%z|a%|%z|a_z]'",
    "n [+|-|*] [7|8] = [12|13]",
    "round(x, [1|2|0])",
    "case when label = '[Betula nana|Betula pendula|Betula  nana]' then 1 else 0 end",
    "nullif(label, '[n/a|na|n/a.]')",
  ],
  postgresql: [
    "left(label, [5|4|6|50])",
    "split_part(label, '[,|;|, ]', [2|1|3|-1])",
    "regexp_replace(label, '[[0-9]+|[0-9]|[0-9]*]', '#', '[g|]')",
    "lpad(label, [6|7|60], '[0| |a]')",
    "strpos(label, '[needle|needl|needles|Needle]')",
    "repeat(label, [2|3]) || right(other, [4|5|3])",
    "position('[#|##]' in label) [+|-] 1",
    "label ~ '^[[A-Z]|[a-z]|[A-Z0-9]]'",
    "initcap([label|other]) || [x|n]",
  ],
  openformula: [
    'LEFT(label;FIND("[,|;]";label)[-1||-2])',
    "MID(label;[3|2|4];[5|6|500])",
    'IF(LEN(label)[>|>=][12|13|120];"long";label)',
    'SUBSTITUTE(label;"[-|--|_]";"[ |  |]";[1|2])',
    'IFERROR([FIND|SEARCH]("q";label);[0|1])',
    'TRIM(label)&"[!|.|]"&[UPPER|PROPER|LOWER](other)',
  ],
  "postgresql duckdb": [
    "case when label like 'Carex%' and n [>|<] 120 and other = '[x-17|x-18]' then 'a' else 'b' end",
    "case when left(label, 2) = 'HB' then substr(label, [4|5], [4|40]) else label end",
    "length(label) = [33|34]",
  ],
  mariadb: ["label regexp '^[A-Z]-[[0-9]{3}$|[0-9]{3}|[0-9]{4}$]'", "label like '[sa_ix|sa_i_]'"],
  xpath: [
    "substring-[before|after]($label, '[:|::]')",
    "tokenize($label, '[;\\s*|;|\\s+]')[[2|1|3]]",
    "if (contains($label, '[det.|det|Det.]')) then upper-case($label) else $label",
    "normalize-space([$label|$other])",
  ],
};

/** An expression as it was meant, and with each mistake alone. */
function variantsOf(pattern: string): [string, string][] {
  const places = [...pattern.matchAll(/\[((?:\[[^[\]]*\][*+]?|[^[\]])*\|(?:\[[^[\]]*\][*+]?|[^[\]])*)\]/g)];
  const made = (wrong: number, choice: number) =>
    places.reduceRight((text, { index, 0: { length }, 1: inner }, i) => {
      const choices = inner.split("|");
      return text.slice(0, index) + choices[i === wrong ? choice : 0] + text.slice(index + length);
    }, pattern);
  return places.flatMap(({ 1: inner }, i) =>
    inner.split("|").flatMap((_, choice): [string, string][] => (choice > 0 ? [[made(-1, 0), made(i, choice)]] : [])),
  );
}

const cases = Object.entries(planted).flatMap(([ids, patterns]) =>
  ids
    .split(" ")
    .flatMap((id) => patterns.flatMap((pattern) => variantsOf(pattern).map(([meant, wrong]) => [id, meant, wrong] as const)))
    // Two texts are added as numbers there.
    .filter(([id, meant]) => id !== "mariadb" || !meant.includes("||")),
);

describe("planted differences are found", () => {
  test("there are enough of them", () => expect(cases.length).toBeGreaterThanOrEqual(200));

  test.each(cases)("%s: %s and %s", (dialect, meant, wrong) => {
    const { programs, caught } = hunt([side(dialect, meant), side(dialect, wrong)], { columns, milliseconds: 400, most: 1 });
    expect(programs.flatMap(({ diagnostics }) => diagnostics.filter(({ severity }) => severity === "error"))).toEqual([]);
    const [{ row, values, difference }] = caught;
    expect(agree(values[0], values[1])).toBe(false);
    expect(difference?.effect).toBeDefined();
    expect(difference?.parting?.causes.length).toBeGreaterThan(0);
    // It is a row: both give there what is said.
    const sample = sampleOf([row], Object.fromEntries(Object.keys(row).map((name) => [name, columns[name]])));
    expect([meant, wrong].map((text) => compile(dialects[dialect](), text, sample).run(sample)[0])).toEqual(values);
  });
});

// prettier-ignore
test.each<[string, string, HuntOptions["quarry"], string, readonly object[]]>([
  ["openformula", 'LEFT(label;FIND(",";label)-1)', "error", "not-found", [{ label: "" }]],
  ["postgresql", "cast(label as integer)", "error", "not-a-number", [{ label: "" }]],
  ["postgresql", "substring(label from '[0-9]+')", "nothing", "null", [{ label: "" }]],
  ["postgresql", "regexp_replace(label, '[a-z]', '', 'g')", "empty", '""', [{ label: "g" }]],
  ["sqlite", "substr(label, 1, 4)", "cut", '"aaaa"', [{ label: "aaaaa" }]],
  ["duckdb", "10 / n", "error", "", []],
])("one side alone, %s: %s is hunted for %s", (dialect, expression, quarry, given, rows) => {
  const { caught } = hunt([side(dialect, expression)], { columns, milliseconds: 200, most: 1, ...(quarry && { quarry }) });
  expect(caught.map(({ row }) => row)).toEqual(rows);
  for (const { values: [value] } of caught) expect(isFailure(value) ? value.code : JSON.stringify(value)).toBe(given);
});

test("a row for each cause, the smallest first; the sample's rows are tried, and keep their kinds", () => {
  const { caught, columns: used } = hunt([side("openformula", "PROPER(label)"), side("postgresql", "initcap(label)")]);
  expect(used).toEqual({ label: "text" });
  expect(caught.map(({ difference }) => difference?.parting?.causes[0][0].trait)).toEqual(
    expect.arrayContaining(["mapping", "words", "missing"]),
  );
  const rare = "Hypnum cupressiforme var. lacunosum";
  const sample = sampleOf([
    { label: rare, n: 1 },
    { label: "a", n: 2.5 },
  ]);
  const sides = [
    side("sqlite", "hex(label) = ''"),
    side("sqlite", "hex(label) = '' or label = trim('Hypnum cupressiforme ' || 'var. lacunosum')"),
  ];
  const found = hunt(sides, { sample });
  expect([found.caught[0].row, found.columns]).toEqual([{ label: rare }, { label: "text" }]);
});

test("where nothing is found it is said how far was searched, and proved where both do the same", () => {
  const [same, other] = ["left(label, 3)", "substr(label, 1, 3)"];
  expect(hunt([side("postgresql", same), side("postgresql", same)]).reach).toEqual({ rows: 0, unknown: 0, isProved: true });
  const { caught, reach } = hunt([side("postgresql", same), side("sqlite", other)], { milliseconds: 200 });
  expect(caught).toEqual([]);
  expect(reach).toMatchObject({ unknown: 0, isProved: false, exhausted: { column: "label", length: 5 } });
  const limited = hunt([side("duckdb", "repeat(label, 300000000)"), side("postgresql", "label")]);
  expect([limited.caught, limited.reach.unknown > limited.reach.rows / 2]).toEqual([[], true]);
  expect(reach.rows).toBeGreaterThan(3000);
  const broken = hunt([side("postgresql", "left("), side("sqlite", other)]);
  expect([broken.caught, broken.programs.map(({ ok }) => ok)]).toEqual([[], [false, true]]);
});

describe("coverage", () => {
  const shelves = ["HB#0412#A", "HB#0413#B", "HB#0414", "HB#0415#C"].map((shelf) => ({ shelf }));
  const of = (dialect: string, expression: string, rows: readonly Record<string, string>[] = shelves) =>
    coverage(side(dialect, expression), sampleOf(rows));

  // prettier-ignore
  test.each<[string, string, readonly Record<string, string>[], string, object]>([
    ["postgresql", "split_part(shelf, '#', 1)", shelves, "absent", { row: { shelf: "" } }],
    ["postgresql", "split_part(shelf, '#', 2)", shelves, "missing", { row: { shelf: null }, values: [null, ""] }],
    ["sqlite", "substr(shelf, 1, 5)", shelves, "third", { answers: ["length", "last"], hiddenBy: { slot: "start", written: 1, instead: 2 } }],
    ["postgresql", "upper(shelf)", shelves, "mapping", { row: { shelf: "ß" } }],
    ["openformula", 'FIND("#";shelf)', shelves, "absent", { row: { shelf: "" } }],
  ])("%s: %s over %j: %s is not told", (dialect, expression, rows, trait, wanted) => {
    const found = of(dialect, expression, rows).untold.find((each) => each.trait === trait);
    expect(found).toMatchObject(wanted);
  });

  test("an answer that a row tells is told; what is taken for granted is counted, with the rows that are otherwise", () => {
    const { untold, told, assumptions } = of("postgresql", "split_part(shelf, '#', 1)", [...shelves, { shelf: "HB-0416" }]);
    expect(untold.map(({ trait }) => trait)).not.toContain("absent");
    expect(told).toBeGreaterThan(0);
    // Three of five are no rule.
    expect(assumptions).toEqual([]);
    expect(of("postgresql", "split_part(shelf, '#', 2)").assumptions).toEqual([
      { column: "shelf", mark: "#", count: 2, rows: 3, others: [{ row: 2, count: 1 }] },
    ]);
    expect(of("sqlite", "substr(shelf, 4)", shelves.slice(0, 2)).assumptions).toEqual([
      { column: "shelf", count: 9, rows: 2, others: [] },
    ]);
    expect(of("sqlite", "substr(").untold).toEqual([]);
    // Code of a dialect's own does not bear every answer of the steps before it: that is no row that shows one.
    const powers = coverage(side("postgresql", "power(n / 2.5, 2.0)"), sampleOf([{ n: 5 }], { n: "integer" }));
    expect(powers.untold.map(({ trait }) => trait)).toContain("missing");
    expect(coverage(side("postgresql", "upper(shelf)"), sampleOf(shelves), -1)).toMatchObject({
      untold: [],
      told: 0,
      isCut: true,
    });
  });
});
