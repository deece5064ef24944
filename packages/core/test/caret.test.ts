import { expect, test } from "@jest/globals";
import { sampleOf } from "indigo-quill";
import { callAt, completionsAt, hoverAt } from "indigo-quill/authoring";
import { dialects } from "indigo-quill/dialects";

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
    "the column label: Alnus glutinosa, Betula pendula, Alnus incana",
  ]);
  expect(hoverAt("upper('label')", 9, dialect, sample)).toBeUndefined();
});

test("any text and any offset are taken, quickly", () => {
  const dialect = dialects.duckdb();
  const long = "upper(concat(label, 'x', ".repeat(80);
  for (const text of ["", "\ud800", "(((", ")))", "'", long])
    for (const offset of [-5, 0, 1.5, NaN, text.length, 1e9])
      for (const ask of [
        () => callAt(text, offset, dialect),
        () => completionsAt(text, offset, dialect, sample),
        () => hoverAt(text, offset, dialect, sample),
      ])
        expect(ask).not.toThrow();
  const begun = `${long}la`;
  const asked = [callAt, completionsAt, hoverAt] as const;
  for (const ask of asked) {
    const started = performance.now();
    for (let i = 0; i < 40; i++) ask(begun, begun.length, dialect, sample);
    expect((performance.now() - started) / 40).toBeLessThan(5);
  }
});
