import { describe, expect, test } from "@jest/globals";
import { type Value, isFailure, sampleOf } from "indigo-quill";
import { KindReader, Survey, commonKind, factsOf, hazardOf, kindOfText, readAs, shapeOf } from "indigo-quill/survey";
import { pick, random } from "./random.ts";

test.each([
  ["number", ["0", "-3", "12.50", "999999999999999"]],
  ["truth value", ["true", "FALSE", "True"]],
  ["date", ["2019-04-03", "2020-02-29"]],
  ["text", ["007", "1E5", "+1", " 1", "1.", ".5", "1234567890123456", "1,5", "2019-02-29", "03/04/2019", "yes", ""]],
])("%s: %j", (kind, texts) => {
  for (const text of texts) expect([text, kindOfText(text)]).toEqual([text, kind]);
});

test.each([
  [["1", "", null, "2.5"], "number"],
  [["1", "x"], "text"],
  [["1", "007"], "text"],
  [["1", "true"], "text"],
  [["", null], "text"],
  [["2019-04-03", ""], "date"],
])("%j are together %s", (values, kind) => expect(commonKind(values)).toBe(kind));

test("kinds are decided by the first rows, what does not fit is an error and noted, what was asked for is not", () => {
  const reader = new KindReader(new Map([["b", "number"]]));
  const rows = (...given: string[]) => sampleOf(given.map((a) => ({ a, b: "x", c: "007" })));
  const shown = ({ columns }: ReturnType<typeof reader.read>) =>
    columns.map(({ values }) => values.map((value) => (isFailure(value) ? value.code : value)));
  expect(shown(reader.read(rows("1", "", "2.50")))).toEqual([
    [1, null, 2.5],
    Array(3).fill("not-a-number"),
    ["007", "007", "007"],
  ]);
  const later = reader.read(rows("4", "none"));
  expect(shown(later)[0]).toEqual([4, "not-a-number"]);
  expect(later.columns[0].written).toEqual(["4", "none"]);
  expect([...reader.misfits]).toEqual([["a", { count: 1, text: "none", row: 4 }]]);
  expect(readAs("number", "007")).toBe(7);
});

test.each([
  ["HB#0412#A", "A#0⁴#A"],
  ["Lindqvist, Åsa", "Aa, Aa"],
  ["McDonald", "AaAa"],
  ["in flower on wet rock; sterile", "a+; a"],
  [" a  b\u00a0c ", "·a··a·a·"],
  ["1 22", "0 0²"],
  ["東京 Zürich", "x Aa"],
  ["a".repeat(300), "a…"],
  ["e\u0301te\u0301", "a"],
  ["", ""],
])("the shape of %j is %s", (text, shape) => expect(shapeOf(text)).toBe(shape));

test.each([
  ["Alnus glutinosa", "first capital"],
  ["O'Neil-Smith, Mary", "capitalised"],
  ["van der Berg", "mixed"],
  ["ÅSA", "upper"],
  ["straße", "lower"],
  ["12 #", "no letters"],
  ["Alnus", "capitalised"],
])("the letters of %j: %s", (text, letterCase) => expect(factsOf(text).letterCase).toBe(letterCase));

describe("a survey", () => {
  const pool = [
    "Alnus",
    "alnus",
    "ALNUS ",
    "Åsa",
    "A\u030asa",
    "x\u00a0y",
    "a  b",
    "7",
    "12.5",
    "2019-04-03",
    "true",
    "",
    null,
    "\u200bz",
  ];

  test("of pieces is what counting everything gives", () => {
    const next = random(11);
    const values: Value[] = Array.from({ length: 3000 }, () => pick(next, pool));
    const survey = new Survey();
    for (let at = 0; at < values.length; at += 700)
      survey.add({ columns: [{ name: "a", values: values.slice(at, at + 700) }], rows: Math.min(700, values.length - at) });
    const [column] = survey.result();
    const count = (holds: (text: string) => boolean) =>
      values.filter((value) => typeof value === "string" && value !== "" && holds(value)).length;
    expect(column).toMatchObject({
      rows: 3000,
      nothing: values.filter((value) => value === null).length,
      empty: values.filter((value) => value === "").length,
      distinct: pool.length - 2,
      isEstimated: false,
      kind: "text",
      outerSpace: { count: count((text) => text !== text.trim()), row: values.indexOf("ALNUS ") },
      innerSpace: { count: count((text) => text === "x\u00a0y" || text === "a  b") },
      uncomposed: { count: count((text) => text === "A\u030asa"), example: "A\u030asa" },
      lengths: { least: 1, most: 10 },
    });
    expect(Object.fromEntries(column.kinds.map((found) => [found.what, found.count]))).toEqual({
      text: count((text) => kindOfText(text) === "text"),
      number: count((text) => kindOfText(text) === "number"),
      date: count((text) => text === "2019-04-03"),
      "truth value": count((text) => text === "true"),
    });
    expect(column.top.map(({ count: many }) => many)).toEqual([...column.top].map(({ what }) => count((text) => text === what)));
    expect(column.near.map((group) => group.map(({ what }) => what).sort())).toEqual(
      expect.arrayContaining([["ALNUS ", "Alnus", "alnus"], ["A\u030asa", "Åsa"].sort()]),
    );
    expect(column.unseen.map(({ what }) => what).sort()).toEqual(["\u00a0", "\u200b"]);
  });

  test("names the few that are of another kind, or of another shape", () => {
    const values = [...Array.from({ length: 95 }, (_, i) => String(i)), "n/a", "12 cm"];
    const codes = [...Array.from({ length: 95 }, (_, i) => `HB#${String(i).padStart(4, "0")}`), "HB-0001", "hb#0002"];
    const survey = new Survey();
    survey.add({
      columns: [
        { name: "n", values },
        { name: "code", values: codes },
      ],
      rows: values.length,
    });
    const [numbers, shelf] = survey.result();
    expect(numbers.kind).toBe("number");
    expect(numbers.exceptions.map(({ what, row }) => [what, row])).toEqual([
      ["n/a", 95],
      ["12 cm", 96],
    ]);
    expect(shelf.odd.map(({ example, row }) => [example, row])).toEqual([
      ["HB-0001", 95],
      ["hb#0002", 96],
    ]);
  });

  test("keeps a bounded room, and then estimates", () => {
    const survey = new Survey();
    const columns = 400;
    for (let piece = 0; piece < 5; piece++)
      survey.add({
        columns: Array.from({ length: columns }, (_, c) => ({
          name: `c${c}`,
          values: Array.from({ length: 800 }, (_, i) => `value ${c === 0 ? piece * 800 + i : i % 5}`),
        })),
        rows: 800,
      });
    const [many, few] = survey.result();
    expect([few.distinct, few.isEstimated, few.top[0].count]).toEqual([5, false, 800]);
    expect(many.isEstimated).toBe(true);
    expect(Math.abs(many.distinct - 4000)).toBeLessThan(250);
    expect(many.shapes.reduce((sum, { count }) => sum + count, 0)).toBe(4000);
  });
});

test.each([
  ["leading zero", ["007", "00"]],
  ["many digits", ["1234567890123456"]],
  ["exponent", ["12E5", "1e10"]],
  ["formula", ["=1+1", "@x", "-a", "+cmd|x", "-1+2", "\t=1"]],
  ["like a date", ["3-4", "1/2", "12/31"]],
  ["day or month", ["03/04/2019", "3.4.19"]],
  ["too long", ["x".repeat(32_768)]],
  ["control", ["a\u0000b", "\u001b[1m", "\ud83d", "x\uffff"]],
  [
    undefined,
    ["", "0", "-1", "+1.5", "-.5", "1.5", "2019-04-03", "13/04/2019", "04/04/2019", "40/50", "Alnus", "1-2-3-4", "0.5", "A-1"],
  ],
])("%s: %j", (hazard, texts) => {
  for (const text of texts) expect([text, hazardOf(text)]).toEqual([text, hazard]);
});
