import { describe, expect, test } from "@jest/globals";
import { Decimal, Double, Failure, type Value, compile, sampleOf } from "indigo-quill";
import { type Switch, agree, agreeBy, agreements, contrast, explainParting, paste } from "indigo-quill/contrast";
import { type Dialect, dialects, isPure } from "indigo-quill/dialects";

type SideText = readonly [dialect: string, expression: string];

const run = (sides: readonly SideText[], rows: readonly Record<string, Value>[]) =>
  contrast(
    sides.map(([dialect, expression]) => ({ dialect: dialects[dialect](), expression })),
    sampleOf(rows),
  );

const asTruth = (value: Value): Value => (typeof value === "boolean" ? Number(value) : value);

/** Two sides, a row, the operation at which they part, and the traits of each cause. */
// prettier-ignore
const partings: readonly (readonly [SideText, SideText, Record<string, Value>, string, readonly (readonly string[])[]])[] = [
  [["openformula", "PROPER(label)"], ["postgresql", "initcap(label)"], { label: "2nd visit" }, "recase", [["words"]]],
  [["openformula", "UPPER(label)"], ["postgresql", "upper(label)"], { label: "straße" }, "recase", [["mapping"]]],
  [["openformula", "TRIM(label)"], ["postgresql", "btrim(label)"], { label: "a  b" }, "trim", [["inner"]]],
  [["openformula", "TRIM(label)"], ["xpath", "normalize-space($label)"], { label: "a\tb" }, "trim", [["characters"]]],
  [["openformula", "LEFT(label;n)"], ["postgresql", "left(label, n)"], { label: "Alnus", n: -2 }, "slice", [["negativeLength"]]],
  [["xpath", "string-join(for $p in tokenize($label, ' ') return upper-case($p), '-')"], ["duckdb", "array_to_string(list_transform(string_split(label, ' '), lambda x: upper(x)), '-')"], { label: "straße ab" }, "recase", [["mapping"]]],
  [["openformula", "MID(label;0;3)"], ["postgresql", "substring(label, 0, 3)"], { label: "Alnus" }, "slice", [["startBelow"]]],
  [["postgresql", "substring(label, 1, -1)"], ["xpath", "substring($label, 1, -1)"], { label: "Alnus" }, "slice", [["negativeLength"]]],
  [["openformula", "MID(label;1.5;2)"], ["xpath", "substring($label, 1.5, 2)"], { label: "Alnus" }, "slice", [["fraction"]]],
  [["openformula", 'FIND("x";label)'], ["postgresql", "strpos(label, 'x')"], { label: "Alnus" }, "locate", [["absent"]]],
  [["openformula", 'SEARCH("L";label)'], ["postgresql", "strpos(label, 'L')"], { label: "Alnus" }, "locate", [["case"]]],
  [["postgresql", "regexp_replace(label, 'a', '-')"], ["xpath", "replace($label, 'a', '-')"], { label: "aaa" }, "substitute", [["occurrences"]]],
  [["postgresql", "regexp_replace(label, '(a)(b)', '\\2\\1', 'g')"], ["xpath", "replace($label, '(a)(b)', '$2$1')"], { label: null }, "substitute", [["missing"]]],
  [["postgresql", "split_part(label, ',', 1)"], ["xpath", "substring-before($label, ',')"], { label: "Alnus" }, "segment", [["absent"]]],
  [["openformula", 'LEFT(label;FIND(",";label)-1)'], ["xpath", "substring-before($label, ',')"], { label: "Alnus" }, "segment", [["absent"]]],
  [["openformula", "LEN(label)"], ["postgresql", "length(label)"], { label: null }, "measure", [["missing"]]],
  [["openformula", 'label&"x"'], ["postgresql", "label || 'x'"], { label: null }, "join", [["missingItem"]]],
  [["postgresql", "concat(label, 'x')"], ["postgresql", "label || 'x'"], { label: null }, "join", [["missingItem"]]],
  [["postgresql", "7 / 2 + 0"], ["xpath", "7 div 2 + 0"], { label: "" }, "calculate", [["quotient"]]],
  [["openformula", "REPT(label;-1)"], ["postgresql", "repeat(label, -1)"], { label: "a" }, "repeat", [["negativeCount"]]],
  [["openformula", 'CODE(label)'], ["postgresql", "ascii(label)"], { label: "" }, "code-of", [["ofEmpty"]]],
  [["openformula", "MID(UPPER(label);2;2)"], ["postgresql", "substring(upper(label), 2, 2)"], { label: "aß" }, "recase", [["mapping"]]],
  [["postgresql", "length(label)"], ["postgresql", "octet_length(label)"], { label: "é" }, "measure", [["counted"]]],
  [["mariadb", "concat(label, n / 2)"], ["postgresql", "label || n / 2"], { label: "x", n: 7 }, "calculate", [["quotient"]]],
  [["mariadb", "concat(label, n / 2)"], ["postgresql", "label || n / 2"], { label: "x", n: 2 }, "calculate", [["quotient"]]],
  [["mariadb", "label + 1"], ["duckdb", "cast(label as integer) + 1"], { label: "12abc" }, "number-of", [["reads"]]],
  [["sqlite", "label || 1e20"], ["duckdb", "label || 1e20"], { label: "x" }, "text-of", [["power"]]],
  [["openformula", 'label&x'], ["xpath", "concat($label, $x)"], { label: "x", x: 12000000.5 }, "text-of", [["powerFrom"]]],
  [["mariadb", "case when label then 1 else 2 end"], ["duckdb", "case when label then 1 else 2 end"], { label: "yes" }, "truth-of", [["textTruth"]]],
  [["sqlite", "sqrt(n)"], ["postgresql", "sqrt(n)"], { label: "", n: -1 }, "math", [["outside"]]],
  [["mariadb", "cast(label as signed)"], ["postgresql", "cast(label as bigint)"], { label: "abc" }, "number-of", [["notNumber"]]],
  [["postgresql", "label like 'a%'"], ["postgresql", "label ilike 'a%'"], { label: "Alnus" }, "test", [["case"]]],
];

describe("causes, found by experiment", () => {
  test.each(partings)("%j and %j on %j part at %s by %j", (a, b, row, operation, causes) => {
    const result = run([a, b], [row]);
    const { parting } = result.rows[0].differences[0];
    expect(parting?.operation).toBe(operation);
    expect(parting?.causes.map((cause) => cause.map(({ trait }) => trait))).toEqual(causes);
    // The experiment on the whole expression gives the other's result.
    const wanted = result.rows[0].values[1 - parting!.side];
    expect(causes.map((_, cause) => agree(asTruth(parting!.replay(cause)), asTruth(wanted)))).toEqual(causes.map(() => true));
  });

  /** Turning a dialect's row into the other's by the answers named must remove the difference. */
  test("a cause is true: with the other's answers the first side gives the other's value", () => {
    const [sideA, sideB, row] = partings[0];
    const result = run([sideA, sideB], [row]);
    const [{ trait, answers }] = result.rows[0].differences[0].parting!.causes[0];
    const own = dialects[sideA[0]]();
    const changed: Dialect = {
      ...own,
      rows: own.rows.map((r) =>
        isPure(r) && r.name === "PROPER" ? ({ ...r, answers: { ...r.answers, [trait]: answers[1] } } as typeof r) : r,
      ),
    };
    const sample = sampleOf([row]);
    expect(compile(changed, sideA[1], sample).run(sample)).toEqual([result.rows[0].values[1]]);
  });
});

test("the first parting is the innermost: what follows from it is not blamed", () => {
  const result = run(
    [
      ["openformula", 'LEN(LEFT(label;FIND("x";label)))'],
      ["postgresql", "length(left(label, strpos(label, 'x')))"],
    ],
    [{ label: "Alnus" }],
  );
  expect(result.rows[0].differences[0].parting).toMatchObject({
    operation: "locate",
    functions: ["FIND", "strpos"],
    inputs: { text: ["Alnus", "Alnus"], needle: ["x", "x"] },
  });
});

test("rows are grouped by cause, the commonest first", () => {
  const rows = [{ label: "a, b" }, { label: "c" }, { label: "d" }, { label: null }];
  const { groups, rows: found } = run(
    [
      ["openformula", 'LEFT(label;FIND(",";label)-1)'],
      ["postgresql", "split_part(label, ',', 1)"],
    ],
    rows,
  );
  expect(found.map((row) => row.agree)).toEqual([true, false, false, false]);
  expect(groups.map((group) => group.rows)).toEqual([[1, 2], [3]]);
});

test("sides without a common operation are said to have none", () => {
  const { groups } = run(
    [
      ["openformula", "LEN(label)"],
      ["postgresql", "upper(label)"],
    ],
    [{ label: "a" }],
  );
  expect(groups).toMatchObject([
    { rows: [0], difference: { sides: [0, 1], parting: undefined, effect: { of: "values", left: "1", right: '"A"' } } },
  ]);
});

test("the words name both functions, the inputs, the outputs and both answers", () => {
  const { groups } = run(
    [
      ["openformula", "PROPER(label)"],
      ["postgresql", "initcap(label)"],
    ],
    [{ label: "2nd" }],
  );
  expect(explainParting(groups[0].difference.parting!, ["OpenFormula", "PostgreSQL"])).toEqual({
    happened: 'On text "2nd": PROPER (OpenFormula) gives "2Nd", initcap (PostgreSQL) "2nd".',
    does: "Each changes the case or the width of letters.",
    tried: "Tried: with the other's answer each gives what the other gave.",
    causes: [
      [
        {
          question: "What ends a word?",
          sides: [
            "OpenFormula: Anything but a letter with its accents: 2nd becomes 2Nd.",
            "PostgreSQL: Anything but a letter or digit, a combining accent too: 2nd stays 2nd.",
          ],
        },
      ],
    ],
  });
});

// prettier-ignore
test.each<[Value, Value, boolean]>([
  ["a", "a", true], ["a", "A", false], ["", null, false], [null, null, true], [1, "1", false], [1, new Double(1), true], [1.5, Decimal.parse("1.50")!, true],
  [1, true, false], [new Failure("not-found"), new Failure("empty-text"), true], [new Failure("not-found"), null, false], [["not-found"], ["not-found"], true], [["not-found"], ["empty-text"], false], [["not-found"], "not-found", false],
  [0.1 + 0.2, Decimal.parse("0.3")!, true], [1, 1.0000001, false], [new Double(NaN), new Double(NaN), true], [1, Infinity, false], [-Infinity, Infinity, false], [new Double(Infinity), Infinity, true],
  [4006381333931, 4006381333932, false], [9007199254740993n, Decimal.parse("9007199254740993.0")!, true], [9007199254740993n, 9007199254740992, true], [9007199254740993n, 9007199254740994n, false],
])("%p and %p agree: %p", (a, b, expected) => {
  expect(agree(a, b)).toBe(expected);
});

test("one text given to every dialect: who accepts it, who does not and why, and where they differ", () => {
  const { pasted, contrast: result } = paste(
    "trim(label)",
    Object.values(dialects).map((make) => make()),
    sampleOf([{ label: "a  b" }, { label: "c" }]),
  );
  expect(pasted.map(({ dialect, refused }) => [dialect.id, refused.map(({ code }) => code)])).toEqual([
    ["duckdb", []],
    ["mariadb", []],
    ["openformula", []],
    ["postgresql", []],
    ["sql", []],
    ["sqlite", []],
    ["xpath", ["habit"]],
  ]);
  expect(result?.rows.map((row) => row.agree)).toEqual([false, true]);
});

describe("trace", () => {
  const trace = (dialect: string, expression: string, row: Record<string, Value>) => {
    const sample = sampleOf([row]);
    return compile(dialects[dialect](), expression, sample).trace(sample, 0);
  };

  test("every sub-expression with its value and depth, and the stretch that was taken", () => {
    const steps = trace("postgresql", "upper(substring(label from 2 for 3))", { label: "a😀bcd" });
    expect(steps.map(({ text, values, depth }) => [depth, text, values[0]])).toEqual([
      [0, "upper(substring(label from 2 for 3))", "😀BC"],
      [1, "substring(label from 2 for 3)", "😀bc"],
      [2, "label", "a😀bcd"],
      [2, "2", 2],
      [2, "3", 3],
    ]);
    expect(steps[1].taken).toEqual({ text: "a😀bcd", range: { start: 1, end: 5 } });
  });

  test("an error is born in one place, and what was not needed has no value", () => {
    const steps = trace("openformula", 'IF(TRUE();LEFT(label;FIND("x";label)-1);LEN(label))', { label: "Alnus" });
    expect(steps.filter(({ born }) => born).map(({ text }) => text)).toEqual(['FIND("x";label)']);
    expect(steps.find(({ text }) => text === "LEN(label)")?.values).toEqual([]);
  });

  // What the engines make of them is in the tables of recorded cases; here that it is told, and only where it changes something.
  test.each<[dialect: string, expression: string, told: readonly [text: string, how: string, value: Value][]]>([
    ["mariadb", "code + 1", [["code", "read", new Double(12)]]],
    ["mariadb", "'012abc' + 1", [["'012abc'", "read", new Double(12)]]],
    ["mariadb", "concat(n, '/', 7)", []],
    ["mariadb", "concat(x * 1.0)", [["x * 1.0", "written", "2.50"]]],
    ["sqlite", "(n * 1.0) || ''", [["n * 1.0", "written", "3.0"]]],
    ["postgresql", "code || 1.50", [["1.50", "written", "1.50"]]],
    ["postgresql", "n + 1.5", []],
    ["postgresql", "upper(code)", []],
    ["postgresql", "date '2019-04-03' - '2019-4-1'", [["'2019-4-1'", "taken", "2019-04-01"]]],
    ["openformula", "code+n", [["code", "read", 12]]],
    ["duckdb", "code || (n / 3)", [["n / 3", "written", "1.0"]]],
  ])("%s, %s: what was converted unasked", (dialect, expression, told) => {
    const steps = trace(dialect, expression, { code: "012", n: 3, x: 2.5 });
    expect(steps.flatMap(({ text, became }) => (became ? [[text, became.how, became.value]] : []))).toEqual(told);
  });

  test("a loop shows the value of every turn", () => {
    const steps = trace("xpath", "for $w in tokenize($label, ',') return upper-case($w)", { label: "a,b" });
    expect(steps.find(({ text }) => text === "upper-case($w)")?.values).toEqual(["A", "B"]);
  });
});

/** Extractions from "Alnus, x, glutinosa 😀é" with the offset at which what they take begins; undefined for no stretch of it. */
const takings: readonly (readonly [dialect: string, expression: string, start: number | undefined])[] = [
  ["sqlite", "substr(label, -3, 2)", 19],
  ["mariadb", "substring(label, -4, 2)", 18],
  ["mariadb", "substring_index(label, ', ', -2)", 7],
  ["mariadb", "regexp_substr(label, 'n')", 2],
  ["openformula", "RIGHT(label;3)", 19],
  ["openformula", "MID(label;2;3)", 1],
  ["postgresql", "right(label, 3)", 19],
  ["postgresql", "substring(label from 'l(n)u')", 2],
  ["postgresql", "split_part(label, ', ', -1)", 10],
  ["postgresql", "split_part(label, ';', 2)", undefined],
  ["postgresql", "regexp_substr(label, 'n', 1, 2)", 15],
  ["duckdb", "regexp_extract(label, ', (g)', 1)", 10],
  ["xpath", "substring-after($label, ', ')", 7],
  ["xpath", "substring($label, -1, 4)", 0],
];

test.each(takings)("%s marks what %s takes", (dialect, expression, start) => {
  const sample = sampleOf([{ label: "Alnus, x, glutinosa 😀é" }]);
  const [{ taken, values }] = compile(dialects[dialect](), expression, sample).trace(sample, 0);
  expect(taken?.range.start).toBe(start);
  if (taken) expect(taken.text.slice(taken.range.start, taken.range.end)).toBe(values[0]);
});

/** Sides whose difference several operations make up that come to one, the row, the operation, and the traits. */
// prettier-ignore
const jobs: readonly (readonly [SideText, SideText, Record<string, Value>, string, readonly string[]])[] = [
  [["sqlite", "substr(label, 1, instr(label, ',') - 1)"], ["postgresql", "split_part(label, ',', 1)"], { label: "Alnus" }, "segment", ["absent"]],
  [["mariadb", "substring(label, locate(', ', label) + 2)"], ["xpath", "substring-after($label, ', ')"], { label: null }, "segment", ["missing"]],
  [["openformula", 'MID(label;FIND(",";label)+1;99)'], ["xpath", "substring-after($label, ',')"], { label: "Alnus" }, "segment", ["absent"]],
  [["duckdb", "upper(substr(label, 1, 1)) || lower(substr(label, 2))"], ["postgresql", "initcap(label)"], { label: "ab cd" }, "recase", ["words"]],
  [["openformula", 'REPT("0";3-LEN(label))&label'], ["postgresql", "lpad(label, 3, '0')"], { label: "Alnus" }, "pad", ["longer"]],
  [["sqlite", "substr('000' || label, -3)"], ["duckdb", "lpad(label, 3, '0')"], { label: "Alnus" }, "pad", ["longer"]],
  [["xpath", "concat(string-join((1 to 3 - string-length($label)) ! '0', ''), $label)"], ["mariadb", "lpad(label, 3, '0')"], { label: "Alnus" }, "pad", ["longer"]],
  [["xpath", "string-length(substring-before($label, 'x')) + 1"], ["postgresql", "strpos(label, 'x')"], { label: "Alnus" }, "locate", ["absent"]],
  [["xpath", "tokenize($label, ' ')[2]"], ["postgresql", "split_part(label, ' ', 2)"], { label: "Alnus" }, "segment", ["noPiece"]],
  [["mariadb", "substring_index(substring_index(label, ' ', 2), ' ', -1)"], ["duckdb", "split_part(label, ' ', 2)"], { label: "Alnus" }, "segment", ["noPiece"]],
  [["openformula", 'ISNUMBER(SEARCH("a";label))'], ["duckdb", "contains(label, 'a')"], { label: "Alnus" }, "test", ["case"]],
  [["openformula", 'LEFT(label;1)="a"'], ["sqlite", "label like 'a%'"], { label: "Alnus" }, "test", ["case"]],
  [["openformula", 'RIGHT(label;1)="s"'], ["postgresql", "label like '%s'"], { label: null }, "test", ["missing"]],
  [["openformula", 'SUBSTITUTE(label;"a";"b";1)'], ["xpath", "replace($label, 'a', 'b')"], { label: "aa" }, "substitute", ["occurrences"]],
  [["openformula", 'TEXTJOIN("; ";TRUE();label;other)'], ["postgresql", "concat_ws('; ', label, other)"], { label: "", other: "x" }, "join", ["emptyItem"]],
];

describe("several operations that come to one", () => {
  test.each(jobs)("%j and %j on %j part at %s by %j", (a, b, row, operation, traits) => {
    const [{ values, differences }] = run([a, b], [row]).rows;
    const { parting } = differences[0];
    expect(parting).toMatchObject({ operation, reaches: "whole" });
    expect(agree(asTruth(parting!.replay()), asTruth(values[1 - parting!.side]))).toBe(true);
    expect(parting?.causes[0].map(({ trait }) => trait)).toEqual(traits);
  });
});

test("what does not reach the result is not blamed", () => {
  const sides = [
    ["openformula", 'IFERROR(FIND(",";label);0)+CODE(label)'],
    ["postgresql", "strpos(label, ',') + ascii(label)"],
  ] as const;
  const { parting } = run(sides, [{ label: "€uro" }]).rows[0].differences[0];
  expect(parting).toMatchObject({ operation: "code-of", causes: [[{ trait: "alphabet" }]] });
});

test("several steps that differ together are told together", () => {
  const sides = [
    ["postgresql", "left(label, -1) || ascii(label)"],
    ["mariadb", "concat(left(label, -1), ascii(label))"],
  ] as const;
  expect(run(sides, [{ label: "éa" }]).rows[0].differences[0].parting).toMatchObject({
    operation: "slice",
    reaches: "part",
    causes: [[{ trait: "negativeLength" }]],
    further: [{ operation: "code-of", causes: [[{ trait: "alphabet" }]] }],
  });
});

/** Sides that do the same in other ways: two sides, a row, what parts, the trait with both answers, and what was tried. */
// prettier-ignore
const otherWays: readonly (readonly [SideText, SideText, Record<string, Value>, string, readonly string[], string | undefined])[] = [
  [["postgresql", "reverse(label)"], ["xpath", "codepoints-to-string(reverse(string-to-codepoints($label)))"], { label: null }, "whole", ["ofMissing", "null", "empty"], "usual"],
  [["openformula", 'label=""'], ["sql", "label is null"], { label: "" }, "whole", ["heedsMissing", "not heeded", "heeded"], "changed"],
  [["duckdb", "regexp_replace(label, '\\s+', ' ', 'g')"], ["xpath", "normalize-space($label)"], { label: " a  b" }, "whole", ["heedsEnds", "heeded", "not heeded"], "changed"],
  [["postgresql", "split_part(split_part(label, '(', 2), ')', 1)"], ["mariadb", "substring_index(substring_index(label, '(', -1), ')', 1)"], { label: "abc" }, "whole", ["tooFew", "empty", "whole"], "usual"],
  [["sqlite", "length(label) - length(replace(label, ',', ''))"], ["xpath", "count(tokenize($label, ',')) - 1"], { label: "" }, "whole", ["ofEmptyText", "zero", "minus one"], "usual"],
  [["duckdb", "label < other"], ["xpath", "$label < $other"], { label: null, other: "x" }, "whole", ["ofMissing", "null", "false"], "usual"],
  [["openformula", "TRIM(MID(label;3;9))"], ["sqlite", "substr(label, 3)"], { label: "ab c " }, "trim", ["isDone", "done", "not done"], "without"],
  [["mariadb", "lpad(n, 2, '0')"], ["sqlite", "printf('%02d', n)"], { label: "", n: 1000 }, "pad", ["longer", "cut", "kept"], "as if"],
  [["duckdb", "label = n"], ["postgresql", "label = cast(n as text)"], { label: "x", n: 1 }, "number-of", ["isDone", "done", "not done"], "converted"],
  [["mariadb", "right(label, length(label) - 4)"], ["sqlite", "substr(label, 5)"], { label: "straße" }, "measure", ["counted", "utf-8 byte", "code point"], "as if"],
  [["duckdb", "reverse(label)"], ["xpath", "codepoints-to-string(reverse(string-to-codepoints($label)))"], { label: "e\u0301a" }, "reverse", ["unit", "grapheme", "code point"], "as if"],
  [["postgresql", "regexp_replace(label, '^([^,]*), *(.*)$', '\\2 \\1')"], ["openformula", 'MID(label;FIND(", ";label)+2;99)&" "&LEFT(label;FIND(", ";label)-1)'], { label: "Meunier" }, "whole", ["tooFew", "whole", "error"], "usual"],
  [["openformula", 'IF(label="-";"";label)'], ["sql", "nullif(label, '-')"], { label: "-" }, "whole", ["ofWritten", "empty", "null"], "usual"],
  [["mariadb", "char_length(trim(label)) - char_length(replace(trim(label), ' ', '')) + 1"], ["xpath", "count(tokenize($label))"], { label: "  " }, "whole", ["ofBlank", "one", "zero"], "usual"],
  [["openformula", "LEFT(label;LEN(label)-2)"], ["duckdb", "label[:-3]"], { label: "x" }, "whole", ["tooShort", "error", "empty"], "usual"],
  [["postgresql", "left(label, 1) || '.' || substring(label from position(' ' in label))"], ["xpath", "substring($label, 1, 1) || '. ' || substring-after($label, ' ')"], { label: "Alnus" }, "whole", ["tooFew", "own", "as at the end"], "usual"],
  [["postgresql", "label ~ '^[A-Z]'"], ["openformula", "EXACT(LEFT(label;1);UPPER(LEFT(label;1)))"], { label: "2nd" }, "whole", ["ofDigits", "false", "true"], "usual"],
  [["postgresql", "label ~ '^[A-Z]'"], ["openformula", "EXACT(LEFT(label;1);UPPER(LEFT(label;1)))"], { label: "Ωmega" }, "whole", ["ofForeignLetters", "false", "true"], "usual"],
  [["mariadb", "concat('B', lpad(n, 4, '0'))"], ["duckdb", "format('B{:04d}', n)"], { n: -7, label: "" }, "whole", ["ofNegative", "minus among zeros", "minus for a zero"], "usual"],
  [["mariadb", "if(n > 0, concat('+', n), n)"], ["sqlite", "printf('%+d', n)"], { n: 0, label: "" }, "whole", ["ofZero", "digits", "digits in place"], "usual"],
  [["postgresql", "substring(label from '[0-9]{4}')"], ["xpath", "replace($label, '^.*?([0-9]{4}).*$', '$1')"], { label: "Umeå 19" }, "whole", ["noMatch", "null", "whole"], "usual"],
  [["postgresql", "upper(to_hex(n))"], ["mariadb", "hex(n)"], { n: -3, label: "" }, "whole", ["ofNegative", "of 32 bits", "of 64 bits"], "usual"],
  [["postgresql", "label || to_char(n, 'FM000')"], ["sqlite", "label || printf('%03d', n)"], { n: 1200, label: "e7" }, "whole", ["ofLargeNumber", "own", "digits in place"], "usual"],
  [["openformula", 'label&TEXT(n;"000")'], ["sqlite", "label || printf('%03d', n)"], { n: -5, label: "-5" }, "whole", ["ofNegative", "minus in front", "minus for a zero"], "usual"],
  [["openformula", 'YEAR(label)&"-Q"&ROUNDUP(MONTH(label)/3;0)'], ["mariadb", "concat(year(label), '-Q', quarter(label))"], { label: null }, "whole", ["ofMissing", "own", "null"], "usual"],
  [["sqlite", "cast(x as integer)"], ["openformula", "INT(x)"], { x: -2.25, label: "" }, "whole", ["ofNegative", "whole before the point", "whole below"], "usual"],
  [["duckdb", "cast(label as date) + 7"], ["openformula", "DATEVALUE(label)+7"], { label: "2019-04-03" }, "whole", ["resultKind", "a date", "its days"], "as"],
  [["mariadb", "format(x, 1)"], ["duckdb", "format('{:.1f}', x)"], { x: 1.25, label: "" }, "whole", ["ofHalf", "rounded up", "rounded down"], "usual"],
  [["mariadb", "format(x, 1)"], ["duckdb", "format('{:.1f}', x)"], { x: 12344.2, label: "" }, "whole", ["ofLargeNumber", "thousands apart", "digits"], "usual"],
  [["openformula", "MAX(n;x)"], ["postgresql", "greatest(n, x)"], { n: 2, x: 1.5, label: "" }, "whole", ["heedsOtherRows", "heeded", "not heeded"], "alone"],
  [["sqlite", "case when n < 0 then '-' else n end"], ["xpath", "if ($n < 0) then '-' else string($n)"], { n: 2, label: "" }, "text-of", ["isDone", "not done", "done"], "converted"],
  [["postgresql", "to_char(cast(label as date), 'DD Month YYYY')"], ["mariadb", "date_format(label, '%d %M %Y')"], { label: "2019-04-03" }, "text-from-date", ["datePart", "filled up", "in full"], "parts"],
  [["mariadb", "date_format(label, '%M')"], ["postgresql", "to_char(cast(label as date), 'Month')"], { label: "2019-05-03" }, "text-from-date", ["datePart", "in full", "filled up"], "parts"],
  [["mariadb", "date_format(label, '%b')"], ["postgresql", "to_char(cast(label as date), 'FMMonth')"], { label: "2019-04-03" }, "text-from-date", ["datePart", "three letters", "in full"], "parts"],
  [["duckdb", "strftime(cast(label as date), '%-d.%m.%Y')"], ["sqlite", "strftime('%d.%m.%Y', label)"], { label: "2019-04-03" }, "text-from-date", ["datePart", "in full", "filled up"], "parts"],
  [["postgresql", "to_char(n, '9999.00')"], ["openformula", 'TEXT(n;"0.00")'], { n: 35 }, "format-number", ["numberFormats", "nines", "sections"], undefined],
  [["postgresql", "date_trunc('century', cast(label as timestamp))"], ["duckdb", "date_trunc('century', cast(label as timestamp))"], { label: "2000-04-03" }, "start-of-unit", ["centuriesFrom", "the year 1", "the year 0"], undefined],
  [["postgresql", "to_char(cast(label as date), 'Mm/YYYY')"], ["mariadb", "to_char(label, 'Mm/YYYY')"], { label: "2019-04-03" }, "text-from-date", ["formatLanguage", "words", "words in any case"], undefined],
  [["postgresql", "to_char(cast(label as date), 'DDth')"], ["duckdb", "strftime(cast(label as date), '%d')"], { label: "2019-04-03" }, "text-from-date", ["datePart", "with its ending", "in full"], "parts"],
  [["postgresql", "to_char(cast(label as date), 'FMDay')"], ["mariadb", "date_format(label, '%b')"], { label: "2019-04-03" }, "text-from-date", ["datePart", "in full", "something else"], "parts"],
  [["postgresql", "left(label, 5)"], ["mariadb", "left(label, 4)"], { label: "Alnus" }, "slice", ["isGiven", "one", "another"], "given"],
  [["duckdb", "case when n >= 3 then 'a' else 'b' end"], ["postgresql", "case when n > 3 then 'a' else 'b' end"], { n: 3, label: "" }, "compare", ["isGiven", "one", "another"], "given"],
  [["postgresql", "n > 1 and n < 5"], ["postgresql", "n > 1 or n < 5"], { n: 1, label: "" }, "connect", ["isGiven", "one", "another"], "given"],
  [["postgresql", "substr(label, n)"], ["sqlite", "substr(label, n + 1)"], { n: 2, label: "Alnus" }, "slice", ["isGiven", "one", "another"], "given"],
  [["postgresql", "concat(label, other)"], ["duckdb", "concat(other, label)"], { label: "a", other: "b" }, "join", ["isGiven", "one", "another"], "given"],
  [["xpath", "if ($n > 2) then 'many' else 'few'"], ["xpath", "if ($n > 2) then 'more' else 'few'"], { n: 3, label: "" }, "whole", ["isGiven", "one", "another"], "given"],
  [["openformula", 'LEFT(label;FIND(",";label)-1)'], ["openformula", 'LEFT(label;FIND(",";label))'], { label: "a,b" }, "calculate", ["isDone", "done", "not done"], "without"],
  [["postgresql", "not (n > 2)"], ["mariadb", "n > 2"], { n: 1, label: "" }, "not", ["isDone", "done", "not done"], "without"],
  [["openformula", "AND(n>=1;n<=3)"], ["mariadb", "n between 1 and 3"], { n: 25, label: "" }, "whole", ["truth", "true or false", "1 or 0"], undefined],
  [["openformula", "INT(n/2)"], ["sqlite", "n / 2"], { n: -7, label: "" }, "whole-quotient", ["wholeQuotient", "down", "toward zero"], undefined],
  [["xpath", "$n idiv 2"], ["mariadb", "floor(n / 2)"], { n: -7, label: "" }, "whole-quotient", ["wholeQuotient", "toward zero", "down"], undefined],
  [["mariadb", "round(x + 0e0, 2)"], ["sqlite", "round(x, 2)"], { x: 2.675, label: "" }, "round", ["roundedDigits", "scaled", "exact"], undefined],
  [["sqlite", "round(x, 2)"], ["postgresql", "round(x, 2)"], { x: 1.005, label: "" }, "round", ["roundedDigits", "exact", "shortest"], undefined],
  [["postgresql", "(label::date + interval '1 month')::date"], ["sqlite", "date(label, '+1 month')"], { label: "2019-01-31" }, "add-to-date", ["dayBeyond", "the last day", "days of the next month"], undefined],
  [["mariadb", "label - interval 1 year"], ["sqlite", "date(label, '-1 year')"], { label: "2020-02-29" }, "add-to-date", ["dayBeyond", "the last day", "days of the next month"], undefined],
  [["duckdb", "label::date + interval 1 month"], ["mariadb", "date_add(label, interval 1 month)"], { label: "2019-04-03" }, "add-to-date", ["timeAdded", "a date and time", "a date, with hours a time"], undefined],
  [["duckdb", "label::date + to_months(n)"], ["xpath", "xs:date($label) + $n * xs:yearMonthDuration('P1M')"], { label: "2019-04-03", n: 1 }, "add-to-date", ["timeAdded", "a date and time", "a date"], undefined],
  [["mariadb", "label + interval 36 hour"], ["sqlite", "datetime(label, '+36 hours')"], { label: "2019-04-03" }, "add-to-date", ["clockDigits", "six", "as many as it has"], undefined],
  [["mariadb", "timestampdiff(month, label, '2019-02-28')"], ["duckdb", "date_diff('month', label::date, date '2019-02-28')"], { label: "2019-01-31" }, "units-between", ["unitsBetween", "whole ones", "borders"], undefined],
  [["postgresql", "extract(year from age(date '2019-05-01', label::date))"], ["duckdb", "year(date '2019-05-01') - year(label::date)"], { label: "2018-06-01" }, "units-between", ["unitsBetween", "whole ones", "borders"], undefined],
  [["postgresql", "extract(week from label::date)"], ["mariadb", "week(label)"], { label: "2019-04-03" }, "week-of-year", ["weeks", "ISO 8601", "Sundays from 0"], undefined],
  [["openformula", "WEEKNUM(DATEVALUE(label);2)"], ["duckdb", "week(label::date)"], { label: "2016-01-03" }, "week-of-year", ["weeks", "Mondays from 1", "ISO 8601"], undefined],
  [["postgresql", "extract(dow from label::date)"], ["openformula", "WEEKDAY(DATEVALUE(label);2)"], { label: "2019-04-07" }, "weekday", ["weekdays", "Sunday 0", "Monday 1"], undefined],
  [["sqlite", "date(label, '+1 day')"], ["mariadb", "adddate(label, 1)"], { label: "2019-4-3" }, "moment-of", ["dateForms", "ISO 8601, 31 days a month", "any marks"], undefined],
  [["sqlite", "date(label, '+1 day')"], ["mariadb", "adddate(label, 1)"], { label: "2019-04-03 10:30:00" }, "moment-of", ["clockOfDate", "left out", "kept"], undefined],
  [["openformula", "DATEVALUE(label)"], ["mariadb", "datediff(label, '1899-12-30')"], { label: "x" }, "moment-of", ["notADate", "error", "null"], undefined],
  [["duckdb", "dayofyear(label::date)"], ["sqlite", "strftime('%j', label)"], { label: "2019-12-03" }, "whole", ["resultKind", "a number", "its text"], "as"],
  [["duckdb", "date_trunc('month', label::date)"], ["sqlite", "date(label, 'start of month')"], { label: "2019-04-03" }, "whole", ["resultKind", "a date and time", "a date"], "as"],
  [["postgresql", "to_char(label::date, 'Day')"], ["duckdb", "dayname(label::date)"], { label: "2019-04-05" }, "whole", ["resultKind", "a text filled up", "a text"], "as"],
  [["postgresql", "label::date < date '2020-01-01'"], ["sqlite", "label < '2020-01-01'"], { label: "3 Apr 2019" }, "moment-of", ["isDone", "done", "not done"], "converted"],
  [["postgresql", "cast(x as text)"], ["duckdb", "cast(x as text)"], { x: 2.5, label: "" }, "column", ["columnNumbers", "as written", "of one scale"], undefined],
  [["openformula", 'LEFT(label;FIND(",";label;FIND(",";label)+1)-1)'], ["xpath", "string-join(tokenize($label, ',')[position() <= 2], ',')"], { label: "  " }, "whole", ["tooFew", "error", "whole"], "usual"],
  [["openformula", "RIGHT(label;LEN(label)-4)"], ["sql", "substring(label from 5)"], { label: "" }, "whole", ["tooShort", "error", "empty"], "usual"],
  [["duckdb", "regexp_extract(label, '[0-9]{4}')"], ["xpath", "replace($label, '^.*?([0-9]{4}).*$', '$1')"], { label: "  " }, "whole", ["noMatch", "empty", "whole"], "usual"],
  [["postgresql", "array_length(string_to_array(label, ' '), 1)"], ["sqlite", "length(label) - length(replace(label, ' ', '')) + 1"], { label: "" }, "whole", ["ofEmptyText", "null", "one"], "usual"],
  [["sqlite", "instr(label, ',') + instr(substr(label, instr(label, ',') + 1), ',')"], ["mariadb", "locate(',', label, locate(',', label) + 1)"], { label: "Alnus, L." }, "whole", ["tooFew", "own", "zero"], "usual"],
  [["postgresql", "(n / 100 * 100) || '-' || (n / 100 * 100 + 99)"], ["openformula", 'INT(n/100)*100&"-"&INT(n/100)*100+99'], { label: "x", n: 2147483647 }, "whole", ["ofLargeNumber", "error", "own"], "usual"],
];

test.each(otherWays)("%j and %j on %j part at %s by %j", (a, b, row, operation, [trait, ...answers], tried) => {
  const sample = sampleOf([row, { label: "ab", other: "c", x: 0.125, n: 5 }], {
    label: "text",
    other: "text",
    n: "integer",
    x: "decimal",
  });
  const { rows } = contrast(
    [a, b].map(([dialect, expression]) => ({ dialect: dialects[dialect](), expression })),
    sample,
  );
  const { parting } = rows[0].differences[0];
  expect(parting).toMatchObject({ operation, causes: [[{ trait, answers }]] });
  expect(parting?.experiment?.is).toBe(tried);
  expect(agree(asTruth(parting!.replay()), asTruth(rows[0].values[1 - parting!.side]))).toBe(true);
});

/** An expression behind a condition that does not hold, and in which the languages part, too; the number of characters before it. */
function guarded([dialect, expression]: SideText): readonly [SideText, number] {
  const size = dialect === "sql" ? "char_length" : "length";
  const [before, after] = {
    openformula: ["IF(LEN(other)/2>500;0/0;", ")"],
    xpath: ["if (string-length($other) div 2 > 500) then error() else (", ")"],
  }[dialect] ?? [`case when ${size}(other) / 2 > 500 then null else (`, ") end"];
  return [[dialect, before + expression + after], before.length];
}

const pairs = [
  ...partings.map(([a, b, row]) => [a, b, row] as const),
  ...jobs.map(([a, b, row]) => [a, b, row] as const),
  ...otherWays.map(([a, b, row]) => [a, b, row] as const),
];

test.each(pairs)("a condition in front is not blamed: %j and %j on %j", (a, b, row) => {
  const sample = sampleOf(
    [
      { other: "é", ...row },
      { label: "ab", other: "c", x: 0.125, n: 5 },
    ],
    {
      label: "text",
      other: "text",
      n: "integer",
      x: "decimal",
    },
  );
  const told = (sides: readonly SideText[], shifts: readonly number[]) => {
    const [{ differences, values }] = contrast(
      sides.map(([dialect, expression]) => ({ dialect: dialects[dialect](), expression })),
      sample,
    ).rows;
    const { parting } = differences[0];
    expect(agree(asTruth(parting!.replay()), asTruth(values[1 - parting!.side]))).toBe(true);
    const { operation, causes, ranges, alone } = parting!;
    // Where one side alone has a step, the other's place is all of it.
    const places = ranges.map(({ start }, i) => (alone === undefined || alone === i ? start - shifts[i] : "all"));
    return { operation, causes, places: operation === "whole" ? [] : places };
  };
  const [[left, before], [right, other]] = [guarded(a), guarded(b)];
  const plain = told([a, b], [0, 0]);
  const behind = told([left, right], [before, other]);
  expect(behind).toEqual(plain);
});

test("what brings a row together by chance, and takes apart those that agree, is no cause", () => {
  const sides = [
    ["openformula", "MID(label;4;4)"],
    ["postgresql", "split_part(label, '#', 2)"],
  ] as const;
  const { groups } = run(
    sides,
    ["HB#0412#A", "HB#0413#A", "HB-0419-A", "HB#0500#C"].map((label) => ({ label })),
  );
  expect(groups.map(({ rows, difference }) => [rows, difference.parting])).toEqual([[[2], undefined]]);
});

test("sides are told in groups; those that cannot run, or met a limit, stand aside", () => {
  const { rows, groups, programs, unknown } = run(
    [
      ["postgresql", "split_part(label, ',', 1)"],
      ["mariadb", "substring_index(label, ',', 1)"],
      ["xpath", "substring-before($label, ',')"],
      ["sql", "nosuch(label)"],
      ["duckdb", "repeat(label, 300000000)"],
      ["openformula", 'LEFT(label;FIND(",";label)-1)'],
    ],
    [{ label: "ab" }],
  );
  expect(programs.map(({ ok }) => ok)).toEqual([true, true, true, false, true, true]);
  expect(rows[0].groups).toEqual([[0, 1], [2], [5]]);
  expect(unknown).toMatchObject([{ side: 4, rows: [0], failure: { code: "text-too-long" } }]);
  expect(groups.map(({ difference: { sides, parting } }) => [sides, parting?.causes[0][0].answers])).toEqual([
    [
      [0, 2],
      ["whole", "empty"],
    ],
    [
      [0, 5],
      ["whole", "error"],
    ],
    [
      [2, 5],
      ["empty", "error"],
    ],
  ]);
});

// prettier-ignore
test.each<[readonly Switch[], Value, Value]>([
  [["truth"], true, 1], [["nothing"], null, ""], [["ends"], "a  ", "a"], [["form"], "e\u0301", "é"], [["tolerance"], 1.0000000001, 1], [["numbers"], "3.50", 3.5], [agreements.texts, "1", true], [["ends"], ["a "], ["a"]],
])("%j: %p is like %p, which it is not otherwise", (on, a, b) => {
  expect([agree(a, b), agreeBy(new Set(on))(a, b)]).toEqual([false, true]);
});

test("an agreement by switches: what it leaves, and what each other switch would bring together", () => {
  const sides = [
    ["openformula", "label"],
    ["postgresql", "label"],
  ].map(([dialect, expression]) => ({ dialect: dialects[dialect](), expression }));
  const sample = sampleOf([{ label: null }, { label: "a" }]);
  const other = [{ ...sides[0], expression: 'label&""' }, sides[1]];
  expect(contrast(other, sample).nearly).toEqual({ nothing: 1 });
  const { rows, nearly } = contrast(other, sample, { agreement: ["nothing"] });
  expect([rows.map((row) => row.agree), nearly]).toEqual([[true, true], {}]);
});

test("no cause is looked for where the time for that is up, that is said, and one can go on", () => {
  const sides = [
    ["openformula", "LEN(label)"],
    ["postgresql", "length(label)"],
  ].map(([dialect, expression]) => ({ dialect: dialects[dialect](), expression }));
  const { groups, more } = contrast(sides, sampleOf([{ label: null }]), { milliseconds: -1 });
  expect(groups).toMatchObject([{ difference: { isUnsought: true, parting: undefined, effect: { of: "values" } } }]);
  const later = more!(1000);
  expect(later.groups).toMatchObject([{ rows: [0], difference: { parting: { causes: [[{ trait: "missing" }]] } } }]);
  expect([later.groups[0].difference.isUnsought, later.more]).toEqual([undefined, undefined]);
});

test("two operations that are asked one question part by their answers to it", () => {
  const { groups } = run(
    [
      ["openformula", "TRIM(label)"],
      ["postgresql", "regexp_replace(label, ' +', ' ', 'g')"],
    ],
    [{ label: null }],
  );
  expect(groups[0].difference.parting).toMatchObject({
    operation: "trim",
    otherOperation: "substitute",
    inputs: { text: [null, null] },
    causes: [[{ trait: "missing", answers: ["blank", "null"] }]],
  });
  expect(explainParting(groups[0].difference.parting!, ["OpenFormula", "PostgreSQL"]).does).toBe(
    "TRIM removes spaces or other characters at the ends, and perhaps within, regexp_replace replaces occurrences of a text, or of what a pattern matches, by another.",
  );
});

test("another function under one name is told as that", () => {
  const { another } = run(
    [
      ["mariadb", "label || other"],
      ["postgresql", "label || other"],
    ],
    [{ label: "a", other: "b" }],
  ).rows[0].differences[0];
  expect(another).toBe("|| joins two conditions in MariaDB and joins texts, perhaps with a separator between them in PostgreSQL");
});

// prettier-ignore
test.each([
  [["postgresql", "label || n / 2"], ["mariadb", "concat(label, n / 2)"], { label: "x", n: 7 }, { of: "texts", at: 1, left: "3", right: "3.5000" }, ["n / 2", "n / 2"]],
  [["postgresql", "upper(label) || 'x'"], ["openformula", 'UPPER(label)&"x"'], { label: "aß" }, { of: "texts", at: 1, left: "ß", right: "SS" }, ["label", "UPPER(label)"]],
  [["postgresql", "label || ', x'"], ["sqlite", "label || ',x'"], { label: "a" }, { of: "texts", at: 2, left: " ", right: "" }, ["', x'", "',x'"]],
  [["postgresql", "label || other"], ["sqlite", "label"], { label: "a", other: "b" }, { of: "texts", at: 1, left: "b", right: "" }, ["other", "label"]],
  [["openformula", 'LEN(label)+FIND("x";label)'], ["sqlite", "instr(label, 'x')"], { label: "a" }, { of: "values", at: 0, left: "an error", right: "0" }, ['FIND("x";label)', "instr(label, 'x')"]],
  [["postgresql", "string_to_array(label, ',')"], ["duckdb", "string_split(label, ', ')"], { label: "a, b" }, { of: "lists", at: 1, left: '" b"', right: '"b"' }, undefined],
] as const)("%j and %j on %j: the effect", (a, b, row, effect, from) => {
  const { effect: found } = run([a, b], [row]).rows[0].differences[0];
  expect(found).toMatchObject(effect);
  if (from) expect(found.from.map(({ start, end }, i) => [a, b][i][1].slice(start, end))).toEqual(from);
});
