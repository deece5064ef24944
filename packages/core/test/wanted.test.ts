import { expect, test } from "@jest/globals";
import { compile, sampleOf } from "indigo-quill";
import { expressionsFor } from "indigo-quill/authoring";
import { agree } from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";

const sample = sampleOf([
  { name: "Lindqvist, Åsa", taxon: "Alnus glutinosa", shelf: "HB#0412#A", date: "1903-06-05", n: 12 },
  { name: "Okafor, Chidi", taxon: "salix caprea", shelf: "HB#0413#B", date: "1911-11-23", n: 7 },
  { name: "Meunier, Luc", taxon: "Betula pendula", shelf: "XB#17#C", date: "1899-01-30", n: 310 },
  { name: "van der Berg, Jan", taxon: "Quercus robur", shelf: "HB#0415#C", date: "1920-12-01", n: 5 },
]);

/** What is wanted on the first two rows, and what is meant by it on the others. */
// prettier-ignore
const wanted: readonly (readonly [string, string, string, string])[] = [
  ["Lindqvist", "Okafor", "Meunier", "van der Berg"], ["Åsa", "Chidi", "Luc", "Jan"], ["Åsa Lindqvist", "Chidi Okafor", "Luc Meunier", "Jan van der Berg"],
  ["Å. Lindqvist", "C. Okafor", "L. Meunier", "J. van der Berg"], ["LINDQVIST", "OKAFOR", "MEUNIER", "VAN DER BERG"], ["Lindqvist 12", "Okafor 7", "Meunier 310", "van der Berg 5"],
  ["Alnus", "salix", "Betula", "Quercus"], ["Alnus", "Salix", "Betula", "Quercus"], ["A. glutinosa", "s. caprea", "B. pendula", "Q. robur"], ["glutinosa", "caprea", "pendula", "robur"],
  ["Alnus glutinosa (1903)", "salix caprea (1911)", "Betula pendula (1899)", "Quercus robur (1920)"], ["0412", "0413", "17", "0415"], ["A", "B", "C", "C"], ["HB-0412-A", "HB-0413-B", "XB-17-C", "HB-0415-C"],
  ["1903", "1911", "1899", "1920"], ["05.06.1903", "23.11.1911", "30.01.1899", "01.12.1920"], ["06/1903", "11/1911", "01/1899", "12/1920"], ["12 m", "7 m", "310 m", "5 m"], ["alnus_glutinosa", "salix_caprea", "betula_pendula", "quercus_robur"],
  ["lindqvist_1903", "okafor_1911", "meunier_1899", "van der berg_1920"], ["Al", "sa", "Be", "Qu"], ["asonitulg sunlA", "aerpac xilas", "aludnep aluteB", "rubor sucreuQ"], ["0012", "0007", "0310", "0005"], ["A-12", "B-7", "C-310", "C-5"],
];

/** Rows with brackets, spaces, numbers, lists and addresses. */
// prettier-ignore
const others = sampleOf([
  { who: "Dr. Ida Holm (Uppsala)", day: "2019-04-03", sheet: "Sheet 12 of 30", taxon: "  quercus   robur  ", height: "12.5 m", at: "x=3;y=14", n: 1234567, share: 0.256, list: "red,green,blue", url: "https://herbarium.example/items/BR-0012.jpg" },
  { who: "Dr. Bo Ek (Lund)", day: "2018-11-23", sheet: "Sheet 2 of 8", taxon: "salix  alba", height: "7 m", at: "x=10;y=2", n: 98, share: 0.5, list: "black,white", url: "https://herbarium.example/items/BR-0099.png" },
  { who: "Dr. Anna Ny (Bergen)", day: "1999-01-30", sheet: "Sheet 7 of 7", taxon: "Acer campestre", height: "310.25 m", at: "x=0;y=0", n: 4500, share: 0.333, list: "one", url: "https://herbarium.example/items/XB-17.jpeg" },
  { who: "Dr. Lars Ås (Oslo)", day: "2020-12-01", sheet: "Sheet 100 of 250", taxon: " alnus incana", height: "0.5 m", at: "x=77;y=8", n: 12, share: 0.1, list: "a,b,c,d", url: "https://herbarium.example/items/A-1.gif" },
]);

// prettier-ignore
const further: readonly (readonly [string, string, string, string])[] = [
  ["Uppsala", "Lund", "Bergen", "Oslo"], ["Ida Holm", "Bo Ek", "Anna Ny", "Lars Ås"], ["IH", "BE", "AN", "LÅ"], ["Holm, Ida", "Ek, Bo", "Ny, Anna", "Ås, Lars"], ["12/30", "2/8", "7/7", "100/250"], ["012", "002", "007", "100"],
  ["quercus robur", "salix alba", "Acer campestre", "alnus incana"], ["Quercus robur", "Salix alba", "Acer campestre", "Alnus incana"], ["Q. robur", "S. alba", "A. campestre", "A. incana"], ["12.5", "7", "310.25", "0.5"],
  ["14", "2", "0", "8"], ["(3, 14)", "(10, 2)", "(0, 0)", "(77, 8)"], ["25.6%", "50.0%", "33.3%", "10.0%"], ["26%", "50%", "33%", "10%"], ["0.26", "0.50", "0.33", "0.10"], ["blue", "white", "one", "d"], ["3", "2", "1", "4"],
  ["red / green / blue", "black / white", "one", "a / b / c / d"], ["BR-0012", "BR-0099", "XB-17", "A-1"], ["jpg", "png", "jpeg", "gif"], ["BR", "BR", "XB", "A"], ["3 April 2019", "23 November 2018", "30 January 1999", "1 December 2020"],
  ["April", "November", "January", "December"], ["03/04/19", "23/11/18", "30/01/99", "01/12/20"], ["2019-BR-0012", "2018-BR-0099", "1999-XB-17", "2020-A-1"], ["UPPSALA", "LUND", "BERGEN", "OSLO"], ["upp", "lun", "ber", "osl"],
  ["x: 3, y: 14", "x: 10, y: 2", "x: 0, y: 0", "x: 77, y: 8"], ["Sheet 012", "Sheet 002", "Sheet 007", "Sheet 100"], ["12 of 30 sheets", "2 of 8 sheets", "7 of 7 sheets", "100 of 250 sheets"],
];

test.each(["postgresql", "openformula", "mariadb", "duckdb", "xpath", "sqlite"])(
  "%s: nine in ten are among the first three",
  (id) => {
    const dialect = dialects[id]();
    for (const [rows, list] of [
      [sample, wanted],
      [others, further],
    ] as const) {
      // prettier-ignore
      const missed = list.filter(([first, second, ...rest]) => {
        const { candidates } = expressionsFor(dialect, rows, new Map([[0, first], [1, second]]), 3); // prettier-ignore
        return !candidates.some(({ values }) => rest.every((text, i) => String(values[i + 2]) === text));
      });
      expect(missed.length / list.length).toBeLessThanOrEqual(0.1);
    }
  },
);

test("a division by one is left out of what is written, not of a text", () => {
  const found = (...texts: readonly string[]) =>
    expressionsFor(dialects.sqlite(), others, new Map(texts.map((text, row) => [row, text]))).candidates[0];
  expect(found("3", "2").expression).toBe("(length(list) - length(replace(list, ',', ''))) + 1");
  expect(found("red,green,blue/1", "black,white/1").values[2]).toBe("one/1");
});

test("two texts of two examples are not learnt by heart", () => {
  const { candidates } = expressionsFor(dialects.postgresql(), sample, new Map([[0, "oak"], [1, "elm"]])); // prettier-ignore
  expect(candidates).toEqual([]);
});

const shapes = sampleOf([
  { name: "Lindqvist, Åsa", code: "BR-0012" },
  { name: "Meunier", code: "0013" },
  { name: "Okafor, Chidi", code: "P-7" },
  { name: "Weiß", code: "99" },
]);

/** What is wanted on the first rows, of two shapes, and on the others. */
// prettier-ignore
test.each([
  ["Åsa Lindqvist | Meunier", "Chidi Okafor | Weiß"], ["BR | 0013", "P | 99"], ["Åsa | none", "Chidi | none"], ["BR-0012 | ?-0013", "P-7 | ?-99"],
  ["yes | no | yes", "no"], ["Å. Lindqvist | Meunier | C. Okafor", "Weiß"],
])("rows of two shapes: %s, then %s", (first, then) => {
  const [given, others] = [first, then].map((text) => text.split(" | "));
  const missed = ["postgresql", "openformula", "mariadb", "xpath", "sqlite", "sql"].filter((id) => {
    const { candidates } = expressionsFor(dialects[id](), shapes, new Map(given.map((text, row) => [row, text])), 3);
    return !candidates.some(({ values }) => others.every((text, i) => values[given.length + i] === text));
  });
  expect(missed).toEqual([]);
});

const labels = sampleOf([
  {
    code: "BR-417/a",
    tags: "red;green;blue",
    mail: "Åsa <asa@herb.se>",
    n: 1250,
    size: "12x30 cm",
    at: "1903-06-05 07:30:00",
    dry: "y",
  },
  {
    code: "P-12/b",
    tags: "red;yellow",
    mail: "Luc <luc@bota.fr>",
    n: 31000,
    size: "7x9 cm",
    at: "1911-11-23 18:05:00",
    dry: "n",
  },
  { code: "XB-5/c", tags: "blue", mail: "Ida <ida@flora.org>", n: 7, size: "310x2 cm", at: "1899-01-30 00:00:00", dry: "n" },
]);

/** What is wanted on the first two rows, and on the last. */
// prettier-ignore
test.each([
  ["0417 | 0012", "0005"], ["red, green, blue | red, yellow", "blue"], ["red | red", "blue"], ["1,250 | 31,000", "7"], ["asa@herb.se | luc@bota.fr", "ida@flora.org"],
  ["12 × 30 | 7 × 9", "310 × 2"], ["5/6/1903 | 23/11/1911", "30/1/1899"], ["dried | fresh", "fresh"],
])("marks and digits: %s, then %s", (first, then) => {
  const missed = ["postgresql", "openformula", "mariadb", "xpath", "sqlite", "duckdb"].filter((id) => {
    const { candidates } = expressionsFor(dialects[id](), labels, new Map(first.split(" | ").map((text, row) => [row, text])), 3);
    return !candidates.some(({ values }) => values[2] === then);
  });
  expect(missed).toEqual([]);
});

test("each gives what is wanted, and they differ where it is said", () => {
  const dialect = dialects.postgresql();
  const { candidates, telling } = expressionsFor(dialect, sample, new Map([[1, "Chidi"]]));
  expect(candidates.length).toBeGreaterThan(1);
  for (const { expression, values } of candidates) {
    const program = compile(dialect, expression, sample);
    expect(values[1]).toBe("Chidi");
    expect(values.every((value, row) => agree(value, program.runRow(sample, row)))).toBe(true);
  }
  const [{ values: first }, ...others] = candidates;
  expect(telling).toEqual([0, 1, 2, 3].filter((row) => others.some(({ values }) => !agree(values[row], first[row]))));
});

test.each<[string, Map<number, string>]>([
  [
    "another text on every row",
    new Map([
      [0, "qqq"],
      [1, "zzz"],
    ]),
  ],
  ["no example", new Map()],
  ["a row that is not there", new Map([[9, "x"]])],
  ["empty text", new Map([[0, ""]])],
  ["a long text", new Map([[0, "x".repeat(100_000)]])],
  ["half a character", new Map([[0, "\ud800"]])],
])("%s: there is no candidate", (_, examples) => {
  expect(expressionsFor(dialects.postgresql(), sample, examples).candidates).toEqual([]);
});

const days = sampleOf(["1903-06-05", "1911-11-23", "1899-01-30", "1920-12-31"].map((day) => ({ day })));
/** What is wanted of two dates, and what is meant by it on the others; the dialects that have no such task. */
const moved: readonly (readonly [wanted: readonly string[], notSaid: readonly string[]])[] = [
  [["1903-07-05", "1911-12-23", "1899-02-28", "1921-01-31"], ["sql"]],
  [["1902-06-05", "1910-11-23", "1898-01-30", "1919-12-31"], ["sql"]],
  [["due 1903-06-19", "due 1911-12-07", "due 1899-02-13", "due 1921-01-14"], ["sql"]],
  [
    ["1903-06-30", "1911-11-30", "1899-01-31", "1920-12-31"],
    ["sql", "xpath"],
  ],
  [["1903-06-01", "1911-11-01", "1899-01-01", "1920-12-01"], []],
  [["1903-Q2", "1911-Q4", "1899-Q1", "1920-Q4"], ["sql"]],
  [
    ["23", "47", "5", "53"],
    ["sql", "xpath"],
  ],
];

test.each(moved)("dates that are moved: %j", ([first, second, ...others], notSaid) => {
  for (const [id, make] of Object.entries(dialects).filter(([name]) => !notSaid.includes(name))) {
    const { candidates } = expressionsFor(
      make(),
      days,
      new Map([
        [0, first],
        [1, second],
      ]),
      3,
    );
    const shown = candidates.map(({ values }) =>
      values
        .slice(2)
        .map((value) => make().plain(value))
        .map(String),
    );
    expect([id, shown]).toEqual([id, expect.arrayContaining([others])]);
  }
});

const counted = sampleOf([
  { qty: 12, price: 3.5, label: "a" },
  { qty: 3, price: 12.25, label: "b" },
  { qty: 150, price: 0.4, label: "c" },
  { qty: 40, price: 100, label: "d" },
]);

/** Wanted numbers on three rows, and the one on the last. */
test.each([
  [42, 36.75, 60, 4000],
  [15.5, 15.25, 150.4, 140],
  [8.5, -9.25, 149.6, -60],
  [17, 8, 155, 45],
  [4.2, 14.7, 0.48, 120],
  [24, 6, 300, 80],
])("numbers that are calculated: %j, %j, %j and then %j", (first, second, third, last) => {
  const values = [first, second, third].map((value, row) => [row, value] as const);
  for (const [id, make] of Object.entries(dialects)) {
    const { candidates } = expressionsFor(make(), counted, new Map(values), 3);
    expect([id, candidates.map((candidate) => Number(make().plain(candidate.values[3])))]).toEqual([
      id,
      expect.arrayContaining([expect.closeTo(last, 9)]),
    ]);
  }
});

test("one text that is wanted everywhere is written as it is, and numbers that nothing gives have no candidate", () => {
  const found = (...wanted: (string | number)[]) =>
    expressionsFor(dialects.postgresql(), counted, new Map(wanted.map((value, row) => [row, value])), 3).candidates;
  expect(found("yes", "yes", "yes")[0].expression).toBe("'yes'");
  expect(found(1, 5, 99)).toEqual([]);
});
