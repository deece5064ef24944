import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { Ajv2020 } from "ajv/dist/2020.js";
import { type Dialect, compile, sampleOf } from "indigo-quill";
import { contrast } from "indigo-quill/contrast";
import { openformula } from "indigo-quill/dialects/openformula";
import { defineDialect, dialectSchema } from "indigo-quill/dialects/define";
import { stepsIn } from "../src/dialects/step.ts";
import { error, outcome } from "./cases.ts";

const press = JSON.parse(readFileSync(new URL("../../../demo/labelpress.json", import.meta.url), "utf8")) as {
  readonly functions: readonly object[];
};

function defined(json: unknown, options?: Readonly<Record<string, string>>): Dialect {
  const { dialect, problems } = defineDialect(json, options);
  expect(problems).toEqual([]);
  return dialect!;
}
const fits = new Ajv2020().compile(dialectSchema);

/** By the summaries and answers in the file: places counted from 0, the last one left out, and so on. */
test.each([
  ['BEFORE("a-b";"-")', "a"],
  ['BEFORE("ab";"-")', "ab"],
  ['after("a-b-c";"-")', "b-c"],
  ['AFTER("ab";"-")', ""],
  ['CUT("abcdef";1;3)', "bc"],
  ['CUT("abcdef";-2)', "ef"],
  ['PLACE("B";"abc")', 2],
  ['PLACE("x";"abc")', 0],
  ['SWAP("aXbx";"x";"-")', "a-bx"],
  ['BIG("straße")', "STRAßE"],
  ['NAMECASE("o\'neil-smith x")', "O'neil-smith X"],
  ['TIDY(" a \u00a0 b ")', "a b"],
  ['SIZE("e\u0301👍🏽")', 2],
  ['FILL("7";3)', "007"],
  ['FILLEND("7";3;"*")', "7**"],
  ['IF(HAS("Alnus";"AL");1;2)', 1],
  ['"12x"*2+"5"', 5],
])("the demo's label press: %s is %j", (expression, expected) => {
  expect(outcome(defined(press), expression)).toEqual(expected);
  expect(outcome(openformula(), expression)).not.toEqual(expected);
});

test("what it has not is unknown there, and a contrast with it finds causes", () => {
  const sample = sampleOf([{ label: "ab" }, { label: "a-b" }]);
  expect(compile(defined(press), "LEFT(label;1)", sample).diagnostics.map(({ code }) => code)).toEqual(["unknown-function"]);
  const sides = [
    { dialect: openformula(), expression: 'LEFT(label;FIND("-";label)-1)' },
    { dialect: defined(press), expression: 'BEFORE(label;"-")' },
  ];
  expect(contrast(sides, sample).groups.map(({ rows, difference: { parting } }) => [rows, parting?.causes])).toMatchObject([
    [[0], [[{ trait: "absent", answers: ["error", "whole"] }]]],
  ]);
});

const least = { dialect: 1, id: "own", title: "Own", source: "none", on: "postgresql" };
const size = {
  name: "size",
  summary: "Its size.",
  parameters: "text text",
  result: "integer",
  operation: "measure",
  answers: { missing: "null", counted: "grapheme" },
};

const stamp = {
  name: "stamp",
  summary: "A date in a format.",
  parameters: "date timestamp, format text",
  result: "text",
  operation: "text-from-date",
  answers: { missing: "null", formatLanguage: "percent", unknownToken: "itself", emptyFormat: "empty text" },
};

describe("a definition", () => {
  test("may change every overload of a function, options and steps", () => {
    const own = {
      ...least,
      on: "mariadb",
      functions: [{ name: "fill", like: "lpad", answers: { emptyFill: "whole" } }, size],
      steps: { text: { truthText: "true" } },
    };
    expect(fits(own)).toBe(true);
    expect(outcome(defined(own), "fill('a', 3, '')")).toBe("a");
    expect(defined(own, { collation: "utf8mb4_bin" }).chosen).toEqual({ collation: "utf8mb4_bin" });
    expect(outcome(defined(own), "size('e\u0301')")).toBe(1);
  });

  test("may change what is done on the way to a type, and nowhere else", () => {
    // Two lines of one conversion count together.
    const conversions = ["textTruth not empty", "truthOfNaN false"].map((each) => {
      const [trait, ...answer] = each.split(" ");
      return { to: "condition", operation: "truth-of", answers: { [trait]: answer.join(" ") } };
    });
    const own = { ...least, on: "openformula", keeps: ["IF", "NOT"], functions: [{ ...size, result: "number" }], conversions };
    expect(fits(own)).toBe(true);
    const dialect = defined(own);
    expect(outcome(dialect, 'IF("x";1;0)')).toBe(1);
    expect(outcome(dialect, 'IF("";1;0)')).toBe(0);
    expect(outcome(openformula(), 'IF("x";1;0)')).toBe(error);
    const answers = dialect.types.conversions.flatMap(([, to, , work = []]) =>
      to === "condition" ? stepsIn(work).flatMap((step) => ("textTruth" in step.answers ? [step.answers.textTruth] : [])) : [],
    );
    expect(new Set(answers)).toEqual(new Set(["not empty"]));
  });

  test("may write dates by tokens of its own", () => {
    const tokens = `d day, D =%d. %M, M month name short, h "o'clock", H hour _2`;
    const own = { ...least, functions: [{ ...stamp, fixed: { tokens } }] };
    expect(outcome(defined(own), "stamp(timestamp '2019-04-03 09:30:00', '%D,%H %h %q%%')")).toBe("3. Apr, 9 o'clock q%");
  });

  // prettier-ignore
  test.each([
    [{ ...least, functions: [] }, "functions", '"functions" must have at least 1'],
    [{ ...least, on: "postgres", functions: [size] }, "on", 'did you mean "postgresql"?'],
    [{ ...least, id: "sql", functions: [size] }, "id", '"sql" must be small letters'],
    [{ ...least, options: { libary: "musl" }, functions: [size] }, "options", 'has no option "libary"'],
    [{ ...least, keeps: ["lefft"], functions: [size] }, "keeps.0", 'no function "lefft"; did you mean "left"?'],
    [{ ...least, functions: [5] }, "functions.0", "must be a record"],
    [{ ...least, functions: [{ ...size, answers: { ...size.answers, counted: "bananas" } }] }, "functions.0.answers.counted", 'not "bananas"'],
    [{ ...least, functions: [{ ...size, answers: { missing: "null" } }] }, "functions.0.answers", 'lacks "counted"'],
    [{ ...least, functions: [{ ...size, answers: { ...size.answers, countd: "grapheme" } }] }, "functions.0.answers.countd", 'did you mean "counted"?'],
    [{ ...least, functions: [{ ...size, operation: "mesure" }] }, "functions.0.operation", 'did you mean "measure"?'],
    [{ ...least, functions: [{ ...size, operation: "constructor" }] }, "functions.0.operation", 'no operation "constructor"'],
    [{ ...least, functions: [{ ...size, parameters: "text" }] }, "functions.0.parameters", 'write each as "name type"'],
    [{ ...least, functions: [{ ...size, parameters: "text tekst" }] }, "functions.0.parameters", 'no type "tekst"'],
    [{ ...least, functions: [{ ...size, parameters: "t text > txt" }] }, "functions.0.parameters", 'no slot "txt"; did you mean "text"?'],
    [{ ...least, functions: [{ ...size, parameters: "t text" }] }, "functions.0.parameters", 'nothing fills the slot "text"'],
    [{ ...least, functions: [{ ...size, parameters: "text text, more text > text" }] }, "functions.0.parameters", "filled twice"],
    [{ ...least, functions: [{ ...size, result: "integr" }] }, "functions.0.result", 'did you mean "integer"?'],
    [{ ...least, functions: [{ ...size, name: "no name" }] }, "functions.0.name", "cannot be called"],
    [{ ...least, functions: [size, { ...size, summary: "Again." }] }, "functions.1.name", "stands twice with the types text"],
    [{ ...least, functions: [{ name: "a", like: "b" }, { name: "b", like: "a" }] }, "functions.1.like", '"a" is like itself: a, b, a'],
    [{ ...least, functions: [{ name: "a", like: "uper" }] }, "functions.0.like", 'did you mean "upper"?'],
    [{ ...least, functions: [{ name: "a", like: "upper", answers: { unit: "grapheme" } }] }, "functions.0.answers.unit", 'nothing asks "unit" here'],
    [{ ...least, functions: [{ ...size, operation: "calculate", parameters: "a integer, b integer", answers: { missing: "null", numbers: "exact", quotient: "integer", quotientDigits: "twenty decimals", byZero: "error", doubleByZero: "error", overflow: "error", tooSmall: "zero", remainder: "of fractions", remainderSign: "of the divisor" }, fixed: { sign: "%" } }] }, "functions.0.fixed.sign", 'not "%"'],
    [{ ...least, functions: [{ ...stamp, fixed: { tokens: "d day 2, y yer" } }] }, "functions.0.fixed.tokens", 'no field "yer"'],
    [{ ...least, functions: [{ ...stamp, fixed: { tokens: "T =%T" } }] }, "functions.0.fixed.tokens", 'short for a format with "%T"'],
    [{ ...least, functions: [{ ...stamp, fixed: { tokens: "d" } }] }, "functions.0.fixed.tokens", '"d" is no token'],
    [{ ...least, functions: [size], steps: { txt: {} } }, "steps.txt", 'no step "txt"; did you mean "text"?'],
    [{ ...least, functions: [size], conversions: [{ to: "integr", operation: "number-of", answers: {} }] }, "conversions.0.to", 'nothing becomes "integr" in PostgreSQL; did you mean "integer"?'],
    [{ ...least, functions: [size], conversions: [{ to: "condition", operation: "trim", answers: {} }] }, "conversions.0.operation", '"trim" is not done on the way to condition'],
    [{ ...least, functions: [size], conversions: [{ to: "condition", operation: "truth-of", answers: { textTruth: "bananas" } }] }, "conversions.0.answers.textTruth", 'not "bananas"'],
    [{ ...least, functions: [size], steps: { text: { digits: "all" } } }, "steps.text.digits", 'not "all"'],
    [[], "", "a dialect must have $schema, dialect, id"],
  ])("with a fault is refused with its place: %#", (json, place, words) => {
    const { dialect, problems } = defineDialect(json);
    expect(dialect).toBeUndefined();
    expect(problems.map(({ path }) => path.join("."))).toContain(place);
    const told = problems.filter(({ path }) => path.join(".") === place).map(({ message }) => message);
    expect(told.join("\n")).toContain(words);
  });

  test("of ten thousand functions is read in seconds, a chain of them is refused", () => {
    const start = performance.now();
    const many = Array.from({ length: 10_000 }, (_, i) => ({ ...size, name: `size${i}` }));
    expect(outcome(defined({ ...least, functions: many }), "size9999('abc')")).toBe(3);
    const chain = Array.from({ length: 10_000 }, (_, i) => ({ name: `a${i}`, like: `a${i + 1}` }));
    expect(defineDialect({ ...least, functions: chain }).problems[0].message).toContain("over more than 50");
    expect(performance.now() - start).toBeLessThan(10_000);
  });

  test("has a schema: of what it takes, and of no answer that there is not", () => {
    expect(fits(press)).toBe(true);
    expect(fits({ ...press, functions: [{ ...press.functions[0], operation: "slice" }] })).toBe(false);
    expect(fits({ ...least, functions: [{ ...size, answers: { ...size.answers, counted: "bananas" } }] })).toBe(false);
  });
});
