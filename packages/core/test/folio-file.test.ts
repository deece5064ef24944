import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { dialects } from "indigo-quill/dialects";
import { checkClaims, folioSchema, readFolio, withSnippets } from "indigo-quill/folio";

const least = { folio: 1, dialect: "postgresql", columns: [{ name: "x", expression: "upper(label)" }] };

// prettier-ignore
test.each([
  [{ ...least, dialekt: "sql" }, 'dialekt: a folio has no "dialekt"; did you mean "dialect"?'],
  [{ ...least, colour: 1 }, 'colour: a folio has no "colour"; it has folio, title, notes, sample, dialect, options, types, columns, lists, where, only, unfold, snippets, claims'],
  [{ ...least, folio: 2 }, 'folio: "folio" must be 1, not 2'],
  [{ folio: 1, dialect: "sql" }, ': a folio lacks "columns"'],
  [{ ...least, columns: [] }, 'columns: "columns" must have at least 1'],
  [{ ...least, columns: [{ name: "x", expresion: "1" }] }, 'columns.0.expresion: "0" has no "expresion"; did you mean "expression"?'],
  [{ ...least, columns: [{ name: ["a", 1], expression: "1" }] }, 'columns.0.name.1: "1" must be a text'],
  [{ ...least, columns: [{ name: "x", expression: "1", helper: "yes" }] }, 'columns.0.helper: "helper" must be true or false'],
  [{ ...least, types: { qty: "nr" } }, 'types.qty: "qty" must be text or number or truth or date, not "nr"'],
  [{ ...least, claims: [{ column: "x", row: {}, expect: { valu: 1 } }] }, 'claims.0.expect.valu: "expect" has no "valu"; did you mean "value"?'],
  [{ ...least, claims: {} }, 'claims: "claims" must be a list'],
  [{ ...least, lists: { l: { rule: [] } } }, 'lists.l.rule: "l" has no "rule"; did you mean "rules"?'],
  [{ ...least, lists: { l: {} } }, 'lists.l: "l": one of file, values and rules is wanted'],
  [{ ...least, lists: { l: { rules: [{ old: "(", new: "", as: "pattern" }] } } }, 'lists.l: "l": rule 1: the pattern "(" cannot be read'],
  [{ ...least, lists: { l: { file: "gone.csv" } } }, 'lists.l: "l": its file "gone.csv" was not read'],
  [{ ...least, columns: [{ name: "x", expression: "label", then: [{ replace: "l" }] }] }, 'columns.0.then.0: "then": there is no list "l"'],
  [{ ...least, columns: [{ name: "x", expression: "label", then: [{ drop: "vowels" }] }] }, 'columns.0.then.0.drop: "drop" must be letters or digits'],
  [{ ...least, columns: [{ name: "x" }] }, 'columns.0: "columns": one of "expression" and "snippet" is wanted'],
  [{ ...least, columns: [{ name: "x", snippet: "s", of: "label" }] }, 'columns.0: "columns": there is no snippet "s"'],
  [{ ...least, snippets: { s: { expression: "it" } }, columns: [{ name: "x", snippet: "s" }] }, '"of" says for which column the snippet is'],
  ["x", ": a folio must have folio, title, notes, sample, dialect, options, types, columns, lists, where, only, unfold, snippets, claims"],
])("%j is refused", (data, expected) => {
  const { folio, problems } = readFolio(data);
  expect(folio).toBeUndefined();
  expect(problems.map(({ path, message }) => `${path.join(".")}: ${message}`).join("\n")).toContain(expected);
});

test("the published schema is that of the reader", () => {
  const file = new URL("../folio.schema.json", import.meta.url);
  expect(JSON.parse(readFileSync(file, "utf8"))).toEqual(JSON.parse(JSON.stringify(folioSchema)));
});

test("lists are in the place of their names", () => {
  const { folio } = readFolio(
    {
      ...least,
      columns: [{ name: "x", expression: "label", then: [{ replace: "r" }, { keep: "v" }, { keep: { from: 1, to: 2 } }] }],
      lists: {
        r: {
          where: "word",
          rules: [
            { old: "a", new: "b" },
            { old: "c", new: "d", where: "part" },
          ],
        },
        v: { file: "v.csv" },
      },
    },
    new Map([["v.csv", { columns: [{ name: "value", values: ["b"] }], rows: 1 }]]),
  );
  expect(folio?.columns[0].then).toEqual([
    {
      replace: [
        { old: "a", new: "b", where: "word" },
        { old: "c", new: "d" },
      ],
    },
    { keep: { values: ["b"] } },
    { keep: { from: 1, to: 2 } },
  ]);
});

test("a snippet is pointed to other columns, with its claims", () => {
  const { folio } = readFolio({
    folio: 1,
    dialect: "postgresql",
    where: "altitude > 3",
    columns: [
      { name: "collector", expression: "upper(collector)" },
      { name: "surname", snippet: "before the comma", of: "collector" },
      { name: "piece", snippet: "before", of: { text: "taxon", mark: "collector" } },
    ],
    snippets: {
      "before the comma": { expression: "split_part(it, ',', 1)", claims: [{ row: { it: "a, b" }, expect: { value: "a" } }] },
      unused: { expression: "upper(it)", claims: [{ row: { it: "a" }, expect: { value: "A" } }] },
      before: { expression: "split_part(text, mark, 1)", claims: [{ row: { text: "a-b", mark: "-" }, expect: { value: "b" } }] },
    },
  });
  const pointed = withSnippets(dialects.postgresql(), folio!);
  expect(pointed.columns.map(({ expression }) => expression)).toEqual([
    "upper(collector)",
    "split_part(collector, ',', 1)",
    "split_part(taxon, collector, 1)",
  ]);
  expect(checkClaims(dialects.postgresql(), pointed)).toMatchObject([
    { claim: { id: "before the comma, claim 1", column: "surname", row: { collector: "a, b" } }, holds: true, got: "a" },
    { claim: { id: "before, claim 1", column: "piece", row: { taxon: "a-b", collector: "-" } }, holds: false, got: "a" },
    { claim: { id: "unused, claim 1", column: "the snippet unused", row: { it: "a" } }, holds: true, got: "A" },
  ]);
});

describe("claims", () => {
  const folio = (claims: readonly unknown[]) =>
    readFolio({
      folio: 1,
      dialect: "postgresql",
      columns: [
        { name: "surname", expression: "case when comma > 0 then left(collector, comma - 1) else collector end" },
        { name: "comma", expression: "strpos(collector, ',')", helper: true },
        { name: "n", expression: "cast(collector as int)" },
      ],
      claims,
    }).folio!;

  test.each([
    ["surname", "Meunier, Luc", { value: "Meunier" }, true],
    ["surname", "Meunier", { value: "Luc" }, false],
    ["comma", "Meunier, Luc", { value: 8 }, true],
    ["surname", null, { value: null }, true],
    ["n", "x", { error: true }, true],
    ["n", "x", { error: "22P02" }, true],
    ["n", "12", { error: true }, false],
    ["nosuch", "x", { value: 1 }, false],
  ])("%s of %j: %j", (column, collector, expected, holds) => {
    const [result] = checkClaims(dialects.postgresql(), folio([{ column, row: { collector }, expect: expected }]));
    expect([result.claim.id, result.holds]).toEqual(["claim 1", holds]);
  });

  test("on a row without the columns do not hold", () => {
    const claim = { column: "surname", row: { label: "x" }, expect: { value: "x" } };
    expect(checkClaims(dialects.postgresql(), folio([claim]))[0]).toMatchObject({ holds: false, got: undefined });
  });
});
