import { describe, expect, test } from "@jest/globals";
import { compile, sampleOf } from "indigo-quill";
import { type Dialect, Type, dialects, duckdb, isOneOf, mariadb, postgresql, sql, typeOf } from "indigo-quill/dialects";

const all = Object.values(dialects).map((make) => make());

/** What may stand for a type in a program of a dialect: what columns, calls and literals have. */
const typesOf = ({ rows, types }: Dialect): Type[] => [
  ...new Set([
    ...[["a"], [1], [1.5], [true], [null]].map((values) => types.columnType(values)),
    ...rows.map((row) => typeOf(row.result)),
    ...types.conversions.flatMap(([from]) => from.split("|")).map(typeOf),
  ]),
];

describe.each(all.map((dialect) => [dialect.id, dialect] as const))("%s", (_, { rows, types }) => {
  const given = typesOf({ rows, types } as Dialect);

  test("every parameter has a type that something becomes", () => {
    const wanted = new Set(rows.flatMap((row) => row.parameters.map(({ type }) => type)));
    const takesItems = (type: string) => type.startsWith("item.");
    const holes = [...wanted].filter(
      (type) => !takesItems(type) && !given.some((from) => types.conversion(from, typeOf(type)) !== undefined),
    );
    expect(holes).toEqual([]);
    expect(types.conversion(types.columnType(["a"]), typeOf("no-such-type"))).toBeUndefined();
  });

  test("every line is the first for some types", () => {
    const targets = types.conversions.flatMap(([, to]) => to.split("|"));
    const idle = types.conversions.filter((line) =>
      [...given, ...["other", "other[]"].map(typeOf)].every((from) =>
        targets.every(
          (to) =>
            types.conversions.find(
              ([a, b]) => isOneOf(typeOf(to), b) && (a === "=" ? from === typeOf(to) : a.startsWith("> ") || isOneOf(from, a)),
            ) !== line,
        ),
      ),
    );
    expect(idle.map(([from, to]) => `${from} to ${to}`)).toEqual([]);
  });
});

test.each([
  ["text", "text", true],
  ["text nocase", "text", true],
  ["text nocase", "text …", true],
  ["text", "text …", false],
  ["decimal 3[]", "decimal[]", true],
  ["integer[][]", "…[][]", true],
  ["integer[]", "…[][]", false],
  ["date", "text|date", true],
  ["date", "!text|date", false],
  ["time", "!text|date", true],
  ["anything", "*", true],
])("%s is one of %s: %s", (type, names, holds) => expect(isOneOf(typeOf(type), names)).toBe(holds));

// prettier-ignore
test.each([
  ["decimal 3", { name: "decimal", scale: 3 }],
  ["decimal 3 12", { name: "decimal", scale: 3, width: 12 }],
  ["text nocase.noaccent", { name: "text", collation: "nocase.noaccent" }],
  ["none nocase!", { name: "none", collation: "nocase", isSaid: true }],
  ["text from literal", { name: "text", from: "literal" }],
  ["decimal 3[][]", { name: "decimal[][]", item: typeOf("decimal 3[]") }],
])("%s is the type %o, and the only one that is written so", (written, details) => {
  expect(typeOf(written)).toMatchObject(details);
  expect(String(typeOf(written))).toBe(written);
  const { item, ...known } = typeOf(written);
  expect(item ? Type.list(item) : Type.of(known.name, known)).toBe(typeOf(written));
  expect(typeOf(written).plain).toBe(typeOf(details.name));
});

const sample = sampleOf([{ label: "Alnus", n: 2 }]);

// prettier-ignore
test.each([
  [postgresql(), "to_hex('10')", "ambiguous-call"],
  [postgresql(), "'7' + '1'", "ambiguous-call"],
  [postgresql(), "to_hex(10) || date_trunc('day', date '2019-04-03')::text", undefined],
  [duckdb(), "abs('7')", "ambiguous-call"],
  [duckdb(), "label < n", "argument-type"],
  [duckdb(), "label = n", undefined],
  [duckdb(), "contains(label collate nocase, 'a')", "not-covered"],
  [duckdb(), "list_append([1], 'x')", "argument-type"],
  [duckdb(), "flatten([1])", "argument-type"],
  [duckdb(), "last_day('2019-04-03')", "ambiguous-call"],
  [mariadb(), "(binary label) collate utf8mb4_bin", "argument-type"],
  [sql(), "label = n", "argument-type"],
] as const)("%#: what a row refuses is told", (dialect, expression, code) => {
  expect(compile(dialect, expression, sample).diagnostics.find(({ severity }) => severity === "error")?.code).toBe(code);
});
