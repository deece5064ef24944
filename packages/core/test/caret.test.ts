import { expect, test } from "@jest/globals";
import { applyFix, sampleOf } from "indigo-quill";
import { callAt, completionsAt, hoverAt, renameAt } from "indigo-quill/authoring";
import { dialects } from "indigo-quill/dialects";
import { families as order } from "indigo-quill/text";

const sample = sampleOf([
  { label: "Alnus glutinosa", "Collector Notes": "x", n: 1 },
  { label: "Betula pendula", "Collector Notes": null, n: 2 },
  { label: "Alnus incana", "Collector Notes": "y", n: 3 },
]);

/** A dialect, a text with | at the caret, the signature that stands first, and the parameter that the caret stands at. */
// prettier-ignore
const calls: readonly (readonly [string, string, string | undefined, string?])[] = [
  ["postgresql", "split_part(|", "split_part(text, delimiter, n)", "text"],
  ["postgresql", "split_part(label, |", "split_part(text, delimiter, n)", "delimiter"],
  ["postgresql", "upper(split_part(label, ',', 1|)) || x", "split_part(text, delimiter, n)", "n"],
  ["postgresql", "split_part(label, ',', 1)|", undefined],
  ["postgresql", "left('a, (b', |", "left(text, count)", "count"],
  ["openformula", 'MID(label;FIND(" ";label)+1;|', "MID(text; start; length)", "length"],
  ["openformula", 'textjoin("; ";true();label;n;|', "TEXTJOIN(separator; skipEmpty; texts, …)", "texts"],
  ["duckdb", "upper(label[|", "upper(text)", "text"],
  ["xpath", "substring-before($label, |", "substring-before(text, delimiter)", "delimiter"],
  ["sqlite", "nosuch(|", undefined],
  ["sql", "position(|", "position(needle in text)", "needle"],
  ["sql", "position(lower('in (a') in |", "position(needle in text)", "text"],
  ["sql", "overlay(label placing upper('x from y') from |", "overlay(text placing new from start [for count])", "start"],
  ["sql", "trim(both |", "trim([both character from] text)", "character"],
  ["sql", "trim(both 'x' from |", "trim([both character from] text)", "text"],
  ["mariadb", "date_add(label, interval |", "date_add(date, interval amount unit)", "amount"],
  ["postgresql", "extract(year from |", "extract(field from date)", "date"],
  ["postgresql", "overlay(label, 'x', |", "overlay(text placing new from start [for count])", "start"],
  ["postgresql", "position('x' in |", "position(needle in text)", "text"],
];

const caret = (marked: string) => ({ text: marked.replace("|", ""), offset: marked.indexOf("|") });

test.each(calls.map(([dialect, marked, shown, parameter]) => ({ dialect, marked, shown, parameter })))(
  "$dialect $marked",
  ({ dialect, marked, shown, parameter }) => {
    // A bar of the text is none of the caret's.
    const { text, offset } = caret(marked);
    const [first] = callAt(text, offset, dialects[dialect]());
    expect(first?.signature).toBe(shown);
    if (!first) return;
    const { name, range } = first.parameters[first.current!];
    expect(name).toBe(parameter);
    expect(first.signature.slice(range.start, range.end)).toBe(name);
  },
);

/** A dialect, a text with | at the caret, completions that are offered, and what the first makes of the text. */
// prettier-ignore
const completions: readonly (readonly [string, string, readonly string[], string])[] = [
  ["postgresql", "upper(la|)", ["label"], "upper(label)"],
  ["postgresql", "coll|", ['"Collector Notes"'], '"Collector Notes"'],
  ["xpath", "upper-case($la|)", ["$label"], "upper-case($label)"],
  ["openformula", "SUBS|", ["SUBSTITUTE"], "SUBSTITUTE"],
  ["postgresql", "lastp|", ["split_part(text, delimiter, -1)"], "split_part(text, delimiter, -1)"],
  ["duckdb", "label = 'al|", ["Alnus glutinosa", "Alnus incana"], "label = 'Alnus glutinosa"],
  ["mariadb", "'a' + |", ["label", "`Collector Notes`", "n"], "'a' + label"],
];

test.each(completions)("%s %s is completed", (dialect, marked, offered, made) => {
  const { text, offset } = caret(marked);
  const found = completionsAt(text, offset, dialects[dialect](), sample);
  expect(found.map((each) => each.text)).toEqual(expect.arrayContaining([...offered]));
  const [{ range, text: put }] = found;
  expect(text.slice(0, range.start) + put + text.slice(range.end)).toBe(made);
});

test("what stands under the pointer is told", () => {
  const dialect = dialects.postgresql();
  const word = hoverAt("upper(label)", 2, dialect, sample);
  expect([word?.range, word?.lines.includes("upper(text)")]).toEqual([{ start: 0, end: 5 }, true]);
  expect(hoverAt("upper(label)", 8, dialect, sample)?.lines).toEqual([
    "the column label: Alnus glutinosa · Betula pendula · Alnus incana",
  ]);
  expect(hoverAt("upper('label')", 9, dialect, sample)).toBeUndefined();
});

test("what a parameter is for, forms of syntax, answers, and families are told", () => {
  const [mid] = callAt("MID(", 4, dialects.openformula());
  expect(mid.parameters.map(({ about }) => about)).toEqual([
    "the text that is worked on",
    "where it begins, counted from 1",
    "how many characters",
  ]);
  expect(callAt("cast(label", 6, dialects.postgresql())[0].signature).toMatch(/^cast\(text as /);
  const { lines } = hoverAt("split_part(label, ',', 1)", 2, dialects.postgresql(), sample)!;
  expect(lines).toContain("absent: whole. The whole text.");
  const families = completionsAt("re", 2, dialects.postgresql(), sample).flatMap(({ family = [] }) => family);
  expect(families).toEqual([...families].sort((a, b) => order.indexOf(a) - order.indexOf(b)));
});

/** A dialect, a text with | at the caret, another name, and the text with it; or why not. */
// prettier-ignore
test.each([
  ["postgresql", "upper(la|bel) + label", "Full Name", 'upper("Full Name") + "Full Name"'],
  ["xpath", "for $x in $label| return concat($x, $label)", "taxon", "for $x in $taxon return concat($x, $taxon)"],
  ["xpath", "for $x in $label| return concat($x, $label)", "x", "a variable of the expression is called x"],
  ["openformula", "LEFT('Collector Notes|';LEN(label", "note", "LEFT(note;LEN(label"],
  ["mariadb", "concat(|label", "n", "there is a column n already"],
  ["duckdb", "list_transform([1], x -> x + |label)", "y", "list_transform([1], x -> x + y)"],
  ["sqlite", "upper('label|')", "y", undefined],
])("%s %s: the column becomes %s", (dialect, marked, to, made) => {
  const { text, offset } = caret(marked);
  const found = renameAt(text, offset, dialects[dialect](), sample, to);
  expect(found && ("refused" in found ? found.refused : applyFix(text, { title: "", ...found }))).toBe(made);
});

test("any text and any offset are taken", () => {
  const dialect = dialects.duckdb();
  const long = "upper(concat(label, 'x', ".repeat(80);
  for (const text of ["", "\ud800", "(((", ")))", "'", long])
    for (const offset of [-5, 0, 1.5, NaN, text.length, 1e9])
      for (const ask of [
        () => callAt(text, offset, dialect),
        () => completionsAt(text, offset, dialect, sample),
        () => hoverAt(text, offset, dialect, sample),
        () => renameAt(text, offset, dialect, sample, "x"),
      ])
        expect(ask).not.toThrow();
});
