import { describe, expect, test } from "@jest/globals";
import { Decimal, Double, compile, sampleOf } from "indigo-quill";
import { dialects, openformula, postgresql, worked, xpath } from "indigo-quill/dialects";
import { countBytes, countCodePoints, dateFromDays, daysFromDate, forward, isDate, rulers } from "indigo-quill/values";

const decimal = (text: string): Decimal => Decimal.parse(text)!;

// prettier-ignore
describe("decimals", () => {
  test.each([
    ["1.50", "2", "3.50", "-0.50", "3.00"],
    ["-0.1", "0.2", "0.1", "-0.3", "-0.02"],
    ["99999999999999999999", "1", "100000000000000000000", "99999999999999999998", "99999999999999999999"],
  ])("%s and %s", (a, b, sum, difference, product) => {
    expect([decimal(a).plus(decimal(b)), decimal(a).minus(decimal(b)), decimal(a).times(decimal(b))].map(String)).toEqual([sum, difference, product]);
  });

  test.each([
    ["2.5", 0, "3"], ["-2.5", 0, "-3"], ["1.005", 2, "1.01"], ["1234.5", -2, "1200"], ["0.004", 2, "0.00"], ["1250", -2, "1300"],
  ])("%s rounded to %i", (text, scale, expected) => {
    expect(String(decimal(text).rounded(scale))).toBe(expected);
  });

  test.each([["1e3", "1000"], ["1.5e-3", "0.0015"], [".5", "0.5"], ["-7.", "-7"], ["abc", undefined], ["", undefined], [".", undefined], ["1e", undefined]])("parse %s", (text, expected) => {
    expect(Decimal.parse(text)?.toString()).toBe(expected);
  });

  test.each([["7", "2", 0, "4"], ["1", "3", 5, "0.33333"], ["-1", "3", 2, "-0.33"], ["10", "4", 1, "2.5"]])("%s over %s to %i digits", (a, b, scale, expected) => {
    expect(String(decimal(a).over(decimal(b), scale))).toBe(expected);
  });

  test.each([["1.0", "1", 0], ["-1", "1", -1], ["0.10", "0.09", 1]])("%s compared with %s", (a, b, expected) => {
    expect(decimal(a).compare(decimal(b))).toBe(expected);
  });

  test.each([["-1.5", -2n], ["1.5", 1n], ["-2", -2n]])("the floor of %s", (text, expected) => {
    expect(decimal(text).floor()).toBe(expected);
  });
});

// prettier-ignore
describe("numbers as text, each dialect by its answers", () => {
  const [general, sql, xs] = [openformula(), postgresql(), xpath()].map(({ steps }) => worked(steps.text));
  test.each([
    [0, "0", "0", "0"],
    [1, "1", "1", "1"],
    [0.1 + 0.2, "0.3", "0.30000000000000004", "0.30000000000000004"],
    [1e6, "1000000", "1000000", "1.0E6"],
    [123456, "123456", "123456", "123456"],
    [1e15, "1000000000000000", "1e+15", "1.0E15"],
    [1e21, "1E+21", "1e+21", "1.0E21"],
    [-2.5, "-2.5", "-2.5", "-2.5"],
    [0.0001, "0.0001", "0.0001", "0.0001"],
    [0.00001, "0.00001", "1e-05", "0.00001"],
    [1.5e-7, "0.00000015", "1.5e-07", "1.5E-7"],
    [1e-20, "1E-20", "1e-20", "1.0E-20"],
  ])("%d", (value, ...expected) => {
    expect([general(value), sql(new Double(value)), xs(new Double(value))]).toEqual(expected);
  });

  test.each([[NaN, "NaN", "NaN"], [Infinity, "Infinity", "INF"], [-Infinity, "-Infinity", "-INF"], [-0, "-0", "-0"]])("%d", (value, ...expected) => {
    expect([sql(new Double(value)), xs(new Double(value))]).toEqual(expected);
  });
});

// prettier-ignore
describe("units of text", () => {
  test.each([
    ["", 0, 0], ["abc", 3, 3], ["é", 1, 2], ["e\u0301", 2, 3], ["a😀b", 3, 6], ["\ud83d", 1, 3], ["\ude00\ud83d", 2, 6], ["€", 1, 3],
  ])("%j has %i code points and %i bytes", (text, points, bytes) => {
    expect([countCodePoints(text), countBytes(text)]).toEqual([points, bytes]);
  });

  test.each([["a😀b", 0, 2, 3], ["a😀b", 1, 1, 3], ["abc", 1, 9, 3], ["\ud83da", 0, 1, 1]])("%j forward from %i by %i is %i", (text, offset, count, expected) => {
    expect(forward(text, offset, count)).toBe(expected);
  });

  test.each([["code point", 1, 3], ["utf-16 unit", 2, 2], ["utf-8 byte", 5, 3]] as const)("the first units of a😀b, counted by %s", (unit, count, expected) => {
    expect(rulers[unit].forward("a😀b", count === 1 ? 2 : count)).toBe(expected);
  });
});

test.each([
  [2019, 4, 3, true],
  [2019, 2, 29, false],
  [2020, 2, 29, true],
  [1900, 2, 29, false],
  [2019, 13, 1, false],
])("%i-%i-%i is a date: %p", (year, month, day, expected) => {
  expect(isDate(year, month, day)).toBe(expected);
  if (expected) expect(dateFromDays(daysFromDate(year, month, day))).toMatchObject({ year, month, day });
});

describe("what is read takes time in proportion to the text, however much white space it has", () => {
  const space = " ".repeat(200_000);
  test.each([
    ["openformula", "label + 0", `x${space}%`],
    ["postgresql", "cast(label as integer)", `1${space}x`],
    ["postgresql", "cast(label as text[])", `{a${space}b,"c"${space}d}`],
    ["duckdb", "cast(label as text[])", `[a${space}b,'c'${space}d]`],
    ["duckdb", "cast(label as date)", `2019-01-01${space}x`],
    ["sqlite", "cast(label as numeric)", `${space}1${space}x`],
  ])("%s: %s", (id, expression, label) => {
    const sample = sampleOf([{ label }]);
    const started = performance.now();
    compile(dialects[id](), expression, sample).run(sample);
    expect(performance.now() - started).toBeLessThan(2000);
  });
});
