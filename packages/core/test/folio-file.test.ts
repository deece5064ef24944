import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { dialects } from "indigo-quill/dialects";
import { checkClaims, folioSchema, readFolio } from "indigo-quill/folio";

const least = { folio: 1, dialect: "postgresql", columns: [{ name: "x", expression: "upper(label)" }] };

// prettier-ignore
test.each([
  [{ ...least, dialekt: "sql" }, 'dialekt: a folio has no "dialekt"; did you mean "dialect"?'],
  [{ ...least, colour: 1 }, 'colour: a folio has no "colour"; it has folio, title, notes, sample, dialect, options, types, columns, where, only, unfold, claims'],
  [{ ...least, folio: 2 }, 'folio: "folio" must be 1, not 2'],
  [{ folio: 1, dialect: "sql" }, ': a folio lacks "columns"'],
  [{ ...least, columns: [] }, 'columns: "columns" must have at least 1'],
  [{ ...least, columns: [{ name: "x", expresion: "1" }] }, 'columns.0: "0" lacks "expression"\ncolumns.0.expresion: "0" has no "expresion"; did you mean "expression"?'],
  [{ ...least, columns: [{ name: ["a", 1], expression: "1" }] }, 'columns.0.name.1: "1" must be a text'],
  [{ ...least, columns: [{ name: "x", expression: "1", helper: "yes" }] }, 'columns.0.helper: "helper" must be true or false'],
  [{ ...least, types: { qty: "nr" } }, 'types.qty: "qty" must be text or number or truth or date, not "nr"'],
  [{ ...least, claims: [{ column: "x", row: {}, expect: { valu: 1 } }] }, 'claims.0.expect.valu: "expect" has no "valu"; did you mean "value"?'],
  [{ ...least, claims: {} }, 'claims: "claims" must be a list'],
  ["x", ": a folio must have folio, title, notes, sample, dialect, options, types, columns, where, only, unfold, claims"],
])("%j is refused", (data, expected) => {
  const { folio, problems } = readFolio(data);
  expect(folio).toBeUndefined();
  expect(problems.map(({ path, message }) => `${path.join(".")}: ${message}`).join("\n")).toContain(expected);
});

test("the published schema is that of the reader", () => {
  const file = new URL("../folio.schema.json", import.meta.url);
  expect(JSON.parse(readFileSync(file, "utf8"))).toEqual(JSON.parse(JSON.stringify(folioSchema)));
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
