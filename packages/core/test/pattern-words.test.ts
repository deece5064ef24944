import { expect, test } from "@jest/globals";
import { compile, sampleOf } from "indigo-quill";
import { flavoursOf, patternsIn, patternsOn } from "indigo-quill/authoring";
import { dialects } from "indigo-quill/dialects";
import {
  type Flavour,
  PatternError,
  carryPattern,
  compilePattern,
  explainPattern,
  newBudget,
  patternFromWords,
} from "indigo-quill/patterns";
import { likelyTexts } from "../src/patterns/samples.ts";
import { parsePattern } from "../src/patterns/compile.ts";
import { random } from "./random.ts";

/** A flavour, a pattern, its flags, a text, and for each part what is written, what it says, and what it fits there. */
// prettier-ignore
const explained: readonly (readonly [Flavour, string, string, string, readonly (readonly [string?, string?, string?])[]])[] = [
  ["posix", "^([[:alpha:]]+)-(\\d{3,})[a-z]?$", "", "BR-0012a", [
    ["^", "the start of the text", ""], ["([[:alpha:]]+)", "group 1: one or more letters", "BR"], ["-", '"-"', "-"],
    ["(\\d{3,})", "group 2: 3 or more digits from 0 to 9", "0012"], ["[a-z]?", "a small letter from a to z, or not at all", "a"], ["$", "the end of the text", ""]]],
  ["pcre", "(?<name>\\w+), (?:Jr|Sr)\\.?", "i", "Meunier, JR.", [
    ["(?<name>\\w+)", "group 1: one or more letters, digits or _", "Meunier"], [", ", '", "', ", "], ["(?:Jr|Sr)", "one of these, the first that fits", "JR"],
    ["Jr", '"Jr"', "JR"], ["Sr", '"Sr"'], ["\\.?", '".", or not at all', "."]]],
  ["re2", "[^,;]*?(ab|cd)+", "", "xx,ababcd", [
    ["[^,;]*?", 'any number of characters other than "," or ";", as few as will do', ""], ["(ab|cd)+", "group 1, once or more", "ababcd"],
    ["ab|cd", "one of these, the first that fits", "cd"], ["ab", '"ab"', "ab"], ["cd", '"cd"', "cd"]]],
  ["posix", "ab|a.", "", "ac", [["ab|a.", "one of these, the longest that fits", "ac"], ["ab", '"ab"'], ["a.", "one after another", "ac"], ["a", '"a"', "a"], [".", "any character", "c"]]],
  ["xpath", "\\p{Lu}\\s(.*)", "", "Q. A b", [["\\p{Lu}", "a capital letter", "A"], ["\\s", "a white space character", " "], ["(.*)", "group 1: any number of characters other than line ends", "b"]]],
  ["pcre", "(?<=-)\\d+(?!x)", "", "B-12", [["(?<=-)", 'preceded by this, which is not taken: "-"', ""], ["\\d+", "one or more digits of any script", "12"], ["(?!x)", 'followed by none of this, which is not taken: "x"', ""]]],
  ["posix", "(\\d)\\1", "", "x55", [["(\\d)", "group 1: a digit from 0 to 9", "5"], ["\\1", "what group 1 matched, again", "5"]]],
  ["like", "A_%x", "\\", "Alnusx", [["A", '"A"', "A"], ["_", "any character", "l"], ["%", "any number of characters", "nus"], ["x", '"x"', "x"]]],
  ["glob", "[A-Z]*", "", "Ab1", [["[A-Z]", "a capital letter from A to Z", "A"], ["*", "any number of characters", "b1"]]],
  ["pcre", "\\x{41}\\t[\\d_]", "", "none", [["\\x{41}\\t", '"A\t"'], ["[\\d_]", '"_" or a digit of any script']]],
];

test.each(explained)("%s %s (%s) in %j is told part by part", (flavour, pattern, flags, text, expected) => {
  const { parts } = explainPattern(flavour, pattern, flags, text);
  expect(parts.map(({ text: written, says, matched }) => [written, says, ...(matched === undefined ? [] : [matched])])).toEqual(
    expected,
  );
  for (const { range, text: written } of parts) if (range) expect(pattern.slice(range.start, range.end)).toBe(written);
});

const flavours: readonly Flavour[] = ["posix", "pcre", "re2", "xpath"];

/** Patterns at random, of what the regular expressions share and of what some have. */
function randomPattern(next: () => number): string {
  const pick = <T>(items: readonly T[]): T => items[Math.floor(next() * items.length)];
  const atom = (depth: number): string =>
    pick([
      "a",
      "b",
      "é",
      ".",
      "\\d",
      "\\w",
      "[ab-]",
      "[^a]",
      "^",
      "$",
      "\\.",
      "\\s",
      ...(depth < 3 ? ["(", "(?:", "("] : []),
    ]).replace(/^\((?:\?:)?$/, (open) => `${open}${branch(depth + 1)})`);
  const branch = (depth: number): string =>
    Array.from({ length: 1 + Math.floor(next() * 3) }, () => atom(depth) + pick(["", "", "", "*", "+", "?", "{2}", "*?"])).join(
      pick(["", "", "|"]),
    );
  return branch(0);
}

test("explaining and carrying random patterns: the match is the pattern's own, every difference is one, and none is hidden (seed 31)", () => {
  const next = random(31);
  let [told, carried] = [0, 0];
  for (let i = 0; i < 400; i++) {
    const source = randomPattern(next);
    const [from, to] = [flavours[i % 4], flavours[Math.floor(next() * 4)]];
    let texts: string[];
    try {
      texts = likelyTexts(parsePattern(from, source, "").node);
      compilePattern(from, source);
    } catch (error) {
      expect(error).toBeInstanceOf(PatternError);
      continue;
    }
    const find = (flavour: Flavour, pattern: string, text: string) => compilePattern(flavour, pattern).find(text, 0, newBudget());
    const groups = (...of: Parameters<typeof find>) => [...(find(...of) ?? [])];
    for (const text of texts.slice(0, 6)) {
      const own = find(from, source, text);
      const { match, parts } = explainPattern(from, source, "", text);
      expect([source, text, match]).toEqual([source, text, own && { start: own.index, text: own[0] }]);
      told += parts.length;
    }
    const made = carryPattern(from, source, "", to);
    if ("refused" in made) continue;
    carried++;
    if (from === to) expect([source, made.pattern, made.differences]).toEqual([source, made.pattern, []]);
    for (const { text, matches } of made.differences) {
      const both = [find(from, source, text), find(to, made.pattern, text)].map((found) => found && [...found]);
      expect([...matches]).toEqual(both);
      expect(both[0]).not.toEqual(both[1]);
    }
    if (made.differences.length === 0)
      for (const text of texts.slice(0, 20))
        expect([source, text, groups(to, made.pattern, text)]).toEqual([source, text, groups(from, source, text)]);
  }
  expect([told > 1000, carried > 150]).toEqual([true, true]);
});

/** A flavour and a pattern, another flavour, and the pattern there, or why there is none. */
// prettier-ignore
test.each<readonly [Flavour, string, Flavour, string]>([
  ["pcre", "\\bAlnus\\b", "posix", "\\yAlnus\\y"], ["pcre", "\\bAlnus", "xpath", "XPath has no sign for the edge of a word"],
  ["pcre", "(?<=-)\\d+", "re2", "RE2 has no looking ahead or behind"], ["pcre", "(\\w)\\1", "re2", "RE2 has no back reference to a group"],
  ["pcre", "a.b$", "posix", "a[^\\n]b(?=\\n?$)"], ["posix", "\\w+", "re2", "[\\p{L}\\p{N}_]+"], ["xpath", "[a-z-[aeiou]]+", "pcre", "(?:(?![aeiou])[a-z])+"],
  ["like", "A_%", "posix", "^A..*$"], ["posix", "^A.*x$", "like", "A%x"], ["posix", "100%", "like", "%100\\%%"], ["posix", "100%", "like, escape open", "LIKE knows only any characters, any one character, texts"],
  ["posix", "^[A-Z]\\d$", "glob", "[A-Z][0-9]"], ["pcre", "a++b", "xpath", "XPath has no group that keeps what it took, and no possessive repeat"], ["posix", "a+", "similar", 'patterns are not written in the flavour "similar" here'],
])("%s %s as %s: %s", (from, pattern, to, expected) => {
  const made = carryPattern(from, pattern, from.startsWith("like") ? "\\" : "", to);
  expect("refused" in made ? made.refused : made.pattern).toBe(expected);
});

test("what is not the same is shown: the longest or the first, ASCII or not", () => {
  expect(carryPattern("posix", "a|ab", "", "pcre")).toMatchObject({
    differences: [{ text: "ab", matches: [["ab"], ["a"]] }, {}],
  });
  expect(carryPattern("pcre", "\\bAlnus", "", "re2")).toMatchObject({
    differences: [{ text: "éAlnus", matches: [undefined, ["Alnus"]] }],
  });
});

/** Words, a text that fits as a whole and one that does not. */
// prettier-ignore
test.each([
  ["3 letters, a dash, digits", "Bro-12", "Br-12"], ["start, two capital letters, then one or more digits, end", "BR12", "Br12"],
  ["(letters), a comma, perhaps a space, (anything)", "Okafor, Chidi", "12, x"], ['"BR." and then 4 digits', "BR.0012", "BRx0012"],
  ["2 to 4 letters or digits, at least 2 dots", "a1..", "a."], ["some spaces followed by a word", "  Alnus", "Alnus"], ["letter or \"_\", a hash", "_#", "-#"],
  ["up to 2 small letters, a slash, a number", "/7", "abc/7"], ['exactly three "ab"', "ababab", "abab"], ["any number of white space, a full stop, a backslash", " \t.\\", " x.\\"],
])("%s", (words, fits, fitsNot) => {
  for (const flavour of flavours) {
    const built = patternFromWords(words, flavour);
    if (!("pattern" in built)) throw new Error(`"${built.unknown}" is not known`);
    const whole = (text: string) => compilePattern(flavour, built.pattern).find(text, 0, newBudget())?.[0] === text;
    expect([flavour, built.pattern, whole(fits), whole(fitsNot)]).toEqual([flavour, built.pattern, true, false]);
  }
});

test("what takes long, or is long, is given up in time; case that is ignored is carried or refused", () => {
  const started = performance.now();
  for (const source of [
    "((((a{40}){40}){10})*)*b",
    "(a*)*\\1b",
    "x".repeat(5000),
    "(?:a|b|".concat("c|".repeat(2000), "d)*e"),
    `${"(".repeat(150)}a${")".repeat(150)}`,
  ])
    for (const to of flavours)
      try {
        explainPattern("pcre", source, "", "a".repeat(300));
        carryPattern("pcre", source, "", to);
      } catch (error) {
        expect(error).toBeInstanceOf(PatternError);
      }
  expect(performance.now() - started).toBeLessThan(20_000);
  expect(carryPattern("posix", "alnus", "i", "pcre")).toMatchObject({ pattern: "alnus", flags: "i", differences: [] });
  expect(carryPattern("posix", "x".repeat(1e6), "", "pcre")).toEqual({ refused: "it has more than 5000 characters" });
  expect(carryPattern("posix", "alnus", "i", "like")).toEqual({ refused: "LIKE has no option that ignores case" });
});

test("a word that is not known is told with its place; any text is taken", () => {
  expect(patternFromWords("3 letters, a splot", "posix")).toEqual({ unknown: "a splot", offset: 11 });
  for (const words of ["", ",,,", "((", "\ud800", '"', "then then", "0 to 99999999 letters", "x".repeat(100_000)])
    for (const flavour of flavours) expect(() => patternFromWords(words, flavour)).not.toThrow();
  for (const flavour of flavours) {
    expect(() => explainPattern(flavour, "(a", "", "a")).toThrow(PatternError);
    expect(() => explainPattern(flavour, "(a*)*b", "", "a".repeat(5000))).not.toThrow();
  }
});

test("the patterns of an expression, with what their parts fit on a row", () => {
  const sample = sampleOf([{ label: "B-12", n: 1 }]);
  const program = compile(dialects.mariadb(), "regexp_replace(upper(label), '\\\\d+', '')", sample);
  expect(patternsIn(program)).toMatchObject([{ flavour: "pcre", source: "\\d+", flags: "i" }]);
  const [[step, { parts }]] = [...patternsOn(program, program.trace(sample, 0))];
  expect([step.text, parts[0].matched]).toEqual(["'\\\\d+'", "12"]);
  expect(patternsIn(compile(dialects.postgresql(), "label like n::text", sample))).toEqual([]);
  const like = (id: string, source: string) => patternsIn(compile(dialects[id](), source, sample)).map(({ flags }) => flags);
  expect([
    like("postgresql", "label like 'B%'"),
    like("sqlite", "label like 'b%'"),
    like("postgresql", "label like 'B!%' escape '!'"),
  ]).toEqual([["\\"], ["~i"], ["!"]]);
  const onRow = compile(dialects.sqlite(), "label like 'b%'", sample);
  expect([...patternsOn(onRow, onRow.trace(sample, 0)).values()][0].parts.map((part) => part.matched)).toEqual(["B", "-12"]);
  expect(flavoursOf(dialects.sqlite())).toEqual([
    { flavour: "like, escape open", letters: "the same" },
    { flavour: "glob", letters: "apart" },
  ]);
});
