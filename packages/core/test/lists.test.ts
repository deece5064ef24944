import { describe, expect, test } from "@jest/globals";
import { Failure, sampleOf } from "indigo-quill";
import { dialects } from "indigo-quill/dialects";
import { saidJobs } from "indigo-quill/folio";
import { type Job, ListProblem, Replacer, type Rule, jobFrom, listFromTable, tableOfList, treatment } from "indigo-quill/lists";

const rule = (old: string, put: string, more: Partial<Rule> = {}): Rule => ({ old, new: put, ...more });
const word = { where: "word" } as const;
const whole = { where: "whole" } as const;
const ignored = { case: "ignored" } as const;
const pattern = { as: "pattern" } as const;

// prettier-ignore
const replacements: readonly (readonly [text: string, rules: readonly Rule[], expected: string, hits: readonly number[]])[] = [
  ["a.b.c", [rule(".", "")], "abc", [2]],
  ["aaaa", [rule("aa", "a")], "aa", [2]],
  ["cat scatter Cat", [rule("cat", "dog", word)], "dog scatter Cat", [1]],
  ["Cat cat", [rule("cat", "dog", { ...word, ...ignored })], "dog dog", [2]],
  ["é cafe cafés café", [rule("caf", "x", word), rule("café", "tea", word)], "é cafe cafés tea", [0, 1]],
  ["_a a_ a a1 ä", [rule("a", "b", word)], "_a a_ b a1 ä", [1]],
  ["a𝒜a", [rule("a", "b", word)], "a𝒜a", [0]],
  ["yes", [rule("yes", "1", whole), rule("ye", "2")], "1", [1, 0]],
  ["YES!", [rule("yes", "1", { ...whole, ...ignored })], "YES!", [0]],
  ["ΟΔΟΣ οδος", [rule("οδοσ", "x", ignored)], "x x", [2]],
  ["a-b-c-d", [rule("-", "+", { which: 2 })], "a-b+c-d", [1]],
  ["a-b", [rule("-", "+", { which: 2 })], "a-b", [0]],
  // One after another, each on what the ones before have made.
  ["ab", [rule("a", "b"), rule("b", "a")], "aa", [1, 2]],
  ["ab", [rule("b", "a"), rule("a", "b")], "bb", [1, 2]],
  ["xay", [rule("a", ""), rule("xy", "z")], "z", [1, 1]],
  ["one", [rule("one", "two", whole), rule("two", "three", whole)], "three", [1, 1]],
  // Patterns, their groups, and what they leave.
  ["Lindqvist, Åsa", [rule("(\\w+), (\\p{L}+)", "$2 $1", pattern)], "Åsa Lindqvist", [1]],
  ["a1b22", [rule("[0-9]+", "<$0>$$", pattern)], "a<1>$b<22>$", [2]],
  ["abc", [rule("x*", "-", pattern)], "-a-b-c-", [4]],
  ["AB ab", [rule("b", "x", { ...pattern, ...ignored })], "Ax ax", [2]],
  ["12", [rule("\\d", "x", { ...pattern, ...whole })], "12", [0]],
  ["p. pp p", [rule("p\\.?", "page", { ...pattern, ...word })], "page pp page", [2]],
  ["", [rule("a", "b")], "", [0]],
];

describe("replacement lists", () => {
  test.each(replacements)("%j with %j", (text, rules, expected, hits) => {
    const counts = new Uint32Array(rules.length);
    expect(new Replacer(rules).run(text, counts)).toBe(expected);
    expect([...counts]).toEqual(hits);
  });

  test("300 lists of texts give what replacing one after another gives", () => {
    let seed = 811;
    const next = (below: number) => (seed = (seed * 48271) % 2147483647) % below;
    const some = (least: number) => Array.from({ length: least + next(4) }, () => "abAÉé ."[next(7)]).join("");
    for (let list = 0; list < 300; list++) {
      const rules = Array.from({ length: 1 + next(8) }, () => rule(some(1), some(0), next(4) === 0 ? whole : {}));
      const replacer = new Replacer(rules);
      for (let i = 0; i < 20; i++) {
        const text = some(2) + some(2) + some(2);
        const slowly = rules.reduce(
          (now, { old, new: put, where }) => (where ? (now === old ? put : now) : now.replaceAll(old, () => put)),
          text,
        );
        expect([text, rules, replacer.run(text)]).toEqual([text, rules, slowly]);
      }
    }
  });

  test("100,000 rules over 20,000 texts take seconds", () => {
    const rules = Array.from({ length: 100_000 }, (_, i) => rule(`name ${i};`, `n${i}`));
    const replacer = new Replacer(rules);
    const start = Date.now();
    const numbers = Array.from({ length: 20_000 }, (_, i) => i * 5);
    expect(numbers.filter((n) => replacer.run(`see name ${n}; and name 7;`) !== `see n${n} and n7`)).toEqual([]);
    expect(Date.now() - start).toBeLessThan(20_000);
  });

  // prettier-ignore
  test.each<[readonly Rule[], unknown[]]>([
    [[rule("a", "b"), rule("c", "d")], []],
    [[rule("a", "b"), rule("a", "c")], [{ kind: "duplicate", rule: 1, by: 0 }]],
    [[rule("a", "b", { which: 1 }), rule("a", "c")], []],
    [[rule("A", "b", ignored), rule("a", "c", ignored)], [{ kind: "duplicate", rule: 1, by: 0 }]],
    [[rule("Mt", "Mount"), rule("Mt.", "Mount")], [{ kind: "unreachable", rule: 1, by: 0 }]],
    [[rule("Mt.", "Mount"), rule("Mt", "Mount")], [{ kind: "feeding", rule: 0, by: 1 }].slice(1)],
    [[rule("Mt", "Mt."), rule("Mt.", "Mount")], [{ kind: "feeding", rule: 0, by: 1 }]],
    [[rule("a", "b", word), rule("a b", "c")], []],
    [[rule("a", "b"), rule("b", "a")], [{ kind: "feeding", rule: 0, by: 1 }]],
    [[rule("a", "7"), rule("\\d", "x", pattern)], [{ kind: "feeding", rule: 0, by: 1 }]],
    [[rule("one", "two", whole), rule("two", "three", whole)], [{ kind: "feeding", rule: 0, by: 1 }]],
  ])("conflicts of %j", (rules, expected) => {
    expect(new Replacer(rules).conflicts()).toEqual(expected);
    expect(new Replacer(rules).problems).toEqual([]);
  });
});

test("a rule that cannot run is a problem with its place", () => {
  expect(new Replacer([rule("a", "b"), rule("", "x"), rule("(a", "x", pattern)]).problems).toEqual([
    { kind: "empty", rule: 1 },
    { kind: "unreadable", rule: 2, at: 0, problem: "a group is not closed" },
  ]);
});

const terms = (...values: string[]) => ({ values });

// prettier-ignore
const jobs: readonly (readonly [value: unknown, jobs: readonly Job[], expected: unknown])[] = [
  ["fire; Grazing", [{ has: terms("fire", "flood") }], true],
  ["campfire", [{ has: { ...terms("fire"), ...word } }], false],
  ["Fire", [{ which: { ...terms("flood", "fire"), ...ignored } }], "fire"],
  ["flood after fire", [{ terms: terms("fire", "flood", "frost") }], ["fire", "flood"]],
  ["none", [{ which: terms("fire") }], null],
  ["a;b, c", [{ split: [";", ", ", ","] }], ["a", "b", "c"]],
  ["a - b-c", [{ split: [" - "] }], ["a", "b-c"]],
  ["a;; b ;", [{ split: [";"] }, { tidy: true }], ["a", "b"]],
  ["3; 14;07; x; 12.5", [{ split: [";"] }, { keep: { from: 1, to: 12 } }], ["3", "07"]],
  ["May; june;Juli", [{ split: [";"] }, { keep: { ...terms("may", "june"), ...ignored } }], ["May", " june"]],
  ["x;May;June", [{ split: [";"] }, { places: terms("May", "June") }], [2, 3]],
  ["May", [{ keep: terms("June") }], null],
  ["a1 b-2!", [{ drop: ["digits", "punctuation"] }], "a b"],
  ["a1 b-2!", [{ only: ["letters"] }], "ab"],
  ["Désiré e\u0301", [{ drop: ["accents"] }], "Desire e"],
  ["a\u200bb\u00adc\u0007", [{ drop: ["invisible", "controls"] }], "abc"],
  ["Łódź, Ærø, Đà Lạt, Straße, ﬁn, þorn, Gießen", [{ plain: true }], "Lodz, AEro, Da Lat, Strasse, fin, thorn, Giessen"],
  ["  a \u00a0 b\n", [{ tidy: true }], "a b"],
  ["tel. +46 90 785 12 34 or (0161) 496-0018; 2019-04-03, 12.05.2021", [{ find: "telephone" }], ["+46 90 785 12 34", "(0161) 496-0018"]],
  ["write to å.b+c@example.org, or x@y", [{ find: "mail" }], ["å.b+c@example.org"]],
  ["3 leaves, -1.5 cm, HB12, 1,250 and 2e3", [{ find: "number" }], ["3", "-1.5", "1,250", "2e3"]],
  ["2019-04-03, 12.05.2021 and 3 May 2020; 1.2", [{ find: "date" }], ["2019-04-03", "12.05.2021", "3 May 2020"]],
  ["see HB#0412#A and hb#12", [{ find: { shape: "A#0⁴#A" } }], ["HB#0412#A"]],
  ["by Åsa Lindqvist", [{ find: { shape: "Aa+" } }], ["Åsa Lindqvist"]],
  ["a;b;c", [{ split: [";"] }, { item: -1 }], "c"],
  ["a;b;c", [{ split: [";"] }, { item: 4 }], null],
  ["a;b", [{ split: [";"] }, { join: " + " }], "a + b"],
  [null, [{ split: [";"] }, { join: "" }], null],
  [12.5, [{ drop: ["punctuation"] }], "125"],
];

test.each(jobs)("%j then %j", (value, list, expected) => {
  const made = treatment(list, (each) => each);
  expect(made.run(value as string)).toEqual(expected);
  expect(made.trace(value as string).at(-1)).toEqual(expected);
});

test("an error stays what it is", () => {
  const error = new Failure("not-a-number");
  expect(treatment([{ plain: true }, { has: terms("a") }], (each) => each).run(error)).toBe(error);
});

const sample = sampleOf([{ label: "Mt. Ash, Côte 12" }, { label: "fire  and frost" }, { label: null }, { label: "" }]);
const plain = [rule("Mt.", "Mount"), rule("Côte", "Coast")];
const everywhere = { sql: true, postgresql: true, sqlite: true, mariadb: true, duckdb: true, openformula: true, xpath: true };
const withPatterns = { ...everywhere, sqlite: false, openformula: false };

// What a dialect can say gives the same on the sample and on traps; what it cannot is refused with the reason.
// prettier-ignore
test.each<[Job | readonly Job[], Readonly<Record<string, boolean>>]>([
  [{ replace: plain }, { ...everywhere, sqlite: true }],
  [{ replace: [rule("a", "b"), rule("b", "c", { which: 2 })] }, { ...everywhere, sql: false, postgresql: false, sqlite: false, mariadb: false, duckdb: false, xpath: false }],
  [{ replace: [rule("fire", "x", whole), rule("frost", "y", whole)] }, everywhere],
  [{ replace: [rule("frost", "$1\\", word)] }, { ...withPatterns, sql: false, duckdb: false, xpath: false }],
  [{ replace: [rule("([a-z])\\.", "$1", pattern)] }, withPatterns],
  [{ replace: [rule("MT", "$", ignored)] }, withPatterns],
  [{ has: terms("fire", "it's") }, everywhere],
  [{ which: terms("fire", "frost") }, everywhere],
  [{ split: [";", ", "] }, { ...everywhere, sql: false, sqlite: false, mariadb: false, openformula: false }],
  [{ terms: terms("fire") }, {}],
  [{ keep: terms("fire", "x y") }, withPatterns],
  [[{ split: [";", ","] }, { keep: terms("a", "fire") }, { join: "+" }], { xpath: true, duckdb: true }],
  [[{ split: [";", ","] }, { tidy: true }, { item: -1 }], { xpath: true, duckdb: true }],
  [[{ split: [";", ","] }, { item: 2 }], { xpath: true, duckdb: true, postgresql: true }],
  [[{ split: [","] }, { join: " and " }], { xpath: true, duckdb: true, postgresql: true }],
  [[{ find: "number" }, { item: 1 }], { postgresql: true, mariadb: true }],
  [[{ find: "mail" }, { item: 1 }], { postgresql: true, mariadb: true }],
  [[{ find: "telephone" }, { item: 1 }], { postgresql: true, mariadb: true }],
  [[{ find: "date" }, { item: 1 }], { postgresql: true, mariadb: true }],
  [[{ find: "number" }, { item: 2 }], {}],
])("%j as an expression", (job, expected) => {
  for (const [id, make] of Object.entries(dialects)) {
    const dialect = make();
    const said = saidJobs(dialect, dialect.columnText("label"), [job].flat(), sample);
    expect([id, "expression" in said, said]).toEqual([id, expected[id] ?? false, said]);
  }
});

// prettier-ignore
test.each<[Record<string, readonly (string | null)[]>, unknown]>([
  [{ value: ["a", "", "b"] }, { terms: { values: ["a", "b"] } }],
  [{ anything: ["a"] }, { terms: { values: ["a"] } }],
  [{ value: ["a", "b"], case: ["ignored", ""], where: ["word", ""] }, { terms: { values: ["a", "b"], ...ignored, ...word } }],
  [{ from: ["a"], to: [null] }, { rules: [rule("a", "")] }],
  [{ new: ["x"], old: ["a"], which: ["2"], case: ["ignored"], where: ["word"], as: ["text"] }, { rules: [rule("a", "x", { ...word, ...ignored, which: 2 })] }],
  [{ old: ["a", ""], new: ["", "b"] }, "rule 2: what is to be replaced is empty"],
  [{ old: ["a["], new: [""], as: ["pattern"] }, 'rule 1: the pattern "a[" cannot be read, at character'],
  [{ old: ["a"], new: ["b"], where: ["words"] }, 'row 1: "where" is one of part, whole, word, not "words"'],
  [{ old: ["a"], new: ["b"], which: ["0"] }, 'row 1: "which" is all, first or a number from 1, not "0"'],
])("a list from the table %j", (columns, expected) => {
  const table = { columns: Object.entries(columns).map(([name, values]) => ({ name, values })), rows: Object.values(columns)[0].length };
  if (typeof expected === "string") expect(() => listFromTable(table)).toThrow(expected);
  else {
    const list = listFromTable(table);
    expect(list).toEqual(expected);
    // Written as a table it is the same list again.
    const [header, ...lines] = tableOfList(list);
    const again = { columns: header.map((name, i) => ({ name, values: lines.map((line) => line[i]) })), rows: lines.length };
    expect(listFromTable(again)).toEqual(expected);
  }
});

// prettier-ignore
test.each([
  [{ replace: "places", tidy: true }, "one of replace, has,"],
  [{}, "not nothing"],
  [{ replace: "nosuch" }, 'there is no list "nosuch"'],
  [{ has: "rules" }, '"rules" is a list of replacements; a list of values is wanted'],
  [{ replace: "values" }, '"values" is a list of values; one of replacements is wanted'],
  [{ split: "" }, "a mark is not empty"],
  [{ item: 0 }, "a piece is numbered from 1"],
  [{ drop: "vowels" as "letters" }, '"vowels" is no kind of characters; there are letters, digits'],
  [{ find: "colour" }, '"colour" is no kind of thing'],
])("the job %j is refused", (written, problem) => {
  const list = (name: string) => ({ rules: { rules: plain }, values: { terms: terms("a") } })[name];
  expect(() => jobFrom(written, list)).toThrow(ListProblem);
  expect(() => jobFrom(written, list)).toThrow(problem);
});
