import { describe, expect, test } from "@jest/globals";
import { type Flavour, OverBudget, PatternError, compilePattern, newBudget } from "indigo-quill/patterns";
import { hostTemplate } from "../src/patterns/compile.ts";
import { planNative } from "../src/patterns/native.ts";
import { parsePosix } from "../src/patterns/posix.ts";
import { parseXPath } from "../src/patterns/xpath.ts";
import { random } from "./random.ts";

/** The match of a pattern with its groups, undefined where there is none. */
function matched(flavour: Flavour, source: string, text: string, flags = ""): (string | undefined)[] | undefined {
  const found = compilePattern(flavour, source, flags).find(text, 0, newBudget());
  return found && [...found];
}

// prettier-ignore
describe("the longest match of POSIX patterns (recorded with regexp_match on PostgreSQL 15.18)", () => {
  test.each([
    ["a|ab", "ab", ["ab"]],
    ["(a|ab)(c|bcd)?", "abcd", ["abcd", "a", "bcd"]],
    ["(a*)(a*)", "aaa", ["aaa", "aaa", ""]],
    ["(a*?)(a*)", "aaa", ["", "", ""]],
    ["x*?", "xx", [""]],
    ["(ab)*", "abab", ["abab", "ab"]],
    ["(a)|b", "b", ["b", undefined]],
    ["(b*)*", "bbb", ["bbb", "bbb"]],
    ["(b*)+", "bbb", ["bbb", ""]],
    ["(b*?)*", "bbb", ["bbb", "b"]],
    ["(b*)?", "abc", ["", ""]],
    ["(b+)?", "abc", ["", undefined]],
    ["x|(a)+", "aaa", ["aaa", "a"]],
    ["(.)\\1", "abb", ["bb", "b"]],
    ["^(.*), (.*)$", "a, b, c", ["a, b, c", "a, b", "c"]],
  ])("%s on %s", (source, text, expected) => {
    expect(matched("posix", source, text)).toEqual(expected);
  });
});

// prettier-ignore
describe("the first match of XPath patterns", () => {
  test.each([
    ["a|ab", "ab", ["a"]],
    ["(a|ab)(c|bcd)?", "abcd", ["abcd", "a", "bcd"]],
    ["(a*?)(a*)", "aaa", ["aaa", "", "aaa"]],
    ["(a+)+$", "aaa", ["aaa", "aaa"]],
    ["(.)\\1", "abb", ["bb", "b"]],
    ["[\\i][\\c]*", "1abc-d ", ["abc-d"]],
    ["\\p{Lu}", "aB", ["B"]],
  ])("%s on %s", (source, text, expected) => {
    expect(matched("xpath", source, text)).toEqual(expected);
  });
});

// prettier-ignore
describe("what a flavour does not allow is an error with its place", () => {
  test.each<[Flavour, string, number]>([
    ["posix", "(a", 0],
    ["posix", "a)", 1],
    ["posix", "[a", 0],
    ["posix", "*a", 0],
    ["posix", "a**", 2],
    ["posix", "a{300}", 2],
    ["posix", "a{2,1}", 2],
    ["posix", "[[:nosuch:]]", 1],
    ["posix", "a\\", 1],
    ["posix", "\\1", 0],
    ["posix", "\\q", 0],
    ["xpath", "(?=a)", 0],
    ["xpath", "a}", 1],
    ["xpath", "\\p{Nosuch}", 0],
    ["xpath", "[b-a]", 4],
    ["xpath", "\\", 0],
  ])("%s %s", (flavour, source, offset) => {
    const compiled = () => compilePattern(flavour, source);
    expect(compiled).toThrow(PatternError);
    try {
      compiled();
    } catch (error) {
      expect((error as PatternError).offset).toBe(offset);
    }
  });
});

describe("nothing hangs", () => {
  const long = "a".repeat(20_000);
  test.each<[Flavour, string]>([
    ["xpath", "(a+)+$"],
    ["xpath", "(a|a)*$"],
    ["xpath", "(a*)*b"],
    ["posix", "(a+)+$"],
    ["posix", "(a|ab)*c"],
    ["xpath", ".*.*.*=.*"],
    ["posix", "(.*)(.*)(.*)x"],
  ])("%s %s on 20,000 characters ends in time", (flavour, source) => {
    const started = Date.now();
    try {
      compilePattern(flavour, source).find(`${long}!`, 0, newBudget());
    } catch (error) {
      expect(error).toBeInstanceOf(OverBudget);
    }
    expect(Date.now() - started).toBeLessThan(10_000);
  });

  // What a name refers to is found out when all groups are known, wherever the reference stands.
  test.each([
    ["(?<a>x)(?:\\k<a>)y", "xxy", ["xxy", "x"]],
    ["(?<a>x)(z|\\k<a>)y", "xxy", ["xxy", "x", "x"]],
    ["(?<a>x)(?:(?P=a))+y", "xxxy", ["xxxy", "x"]],
    ["(?<a>ab)(?:(?&a))c", "ababc", ["ababc", "ab"]],
    ["(?:\\g<a>|z)(?<a>x)", "xx", ["xx", "x"]],
  ])("the only part of a group refers by name: %s in %s", (source, text, expected) =>
    expect(matched("pcre", source, text)).toEqual(expected),
  );

  test("a back reference that explodes gives up with its own error", () => {
    expect(() => compilePattern("xpath", "^(a+)+\\1(a+)+\\2b$").find("a".repeat(60), 0, newBudget())).toThrow(OverBudget);
  });

  test("groups nested too deeply are refused", () => {
    expect(() => compilePattern("posix", "(".repeat(5000) + ")".repeat(5000))).toThrow(/nested deeper/);
  });
});

describe("the host's engine is used only where it gives the same match", () => {
  test.each([
    ["posix", "a|ab", false],
    ["posix", "(a|b)c", false],
    ["posix", "[^,]+", true],
    ["posix", "^([^,]+),\\s*(.+)$", true],
    ["posix", "a*ab", false],
    ["posix", "(a+)+", false],
  ] as const)("%s %s: %p", (_flavour, source, native) => {
    expect(planNative(parsePosix(source, "").node, false, "longest") !== undefined).toBe(native);
  });

  /** Both engines on random patterns without nested repeats: they must find the same text. */
  test("it agrees with our own engine on random patterns (seed 11)", () => {
    const next = random(11);
    const pick = (list: readonly string[]) => list[Math.floor(next() * list.length)];
    let compared = 0;
    for (let i = 0; i < 3000; i++) {
      const source = Array.from(
        { length: 1 + Math.floor(next() * 4) },
        () => pick(["a", "b", "[ab]", ".", "(a)", "(b|c)", "[^a]", "\\d"]) + pick(["", "", "*", "+", "?", "{1,2}"]),
      ).join("");
      const text = Array.from({ length: Math.floor(next() * 8) }, () => pick(["a", "b", "c", "1"])).join("");
      for (const [rule, parsed] of [
        ["first", parseXPath(source, "")],
        ["longest", parsePosix(source, "")],
      ] as const) {
        const plan = planNative(parsed.node, false, rule);
        if (!plan) continue;
        compared++;
        const pattern = compilePattern(rule === "first" ? "xpath" : "posix", source);
        const careful = pattern.offsets(text, 0, newBudget());
        const native = new RegExp(plan.source, plan.flags).exec(text);
        expect({ source, text, rule, found: native && [native.index, native[0]] }).toEqual({
          source,
          text,
          rule,
          found: careful ? [careful[0], text.slice(careful[0], careful[1])] : null,
        });
      }
    }
    expect(compared).toBeGreaterThan(1000);
  });
});

describe("what needs no engine gives what an engine gives", () => {
  test.each([
    ["xpath", "#", "", "#"],
    ["posix", "a\\.b", "", "a.b"],
    ["re2", "[;]", "", ";"],
    ["posix", "a", "i", undefined],
    ["xpath", "a.", "", undefined],
    ["xpath", "(a)", "", undefined],
    ["pcre", "a|b", "", undefined],
    ["like", "a", "", undefined],
  ] as const)("%s %s with flags '%s' fits only the text %s", (flavour, source, flags, text) => {
    expect(compilePattern(flavour, source, flags).literal).toBe(text);
  });

  test("a LIKE on random texts (seed 12)", () => {
    const next = random(12);
    const pick = (list: readonly string[]) => list[Math.floor(next() * list.length)];
    let held = 0;
    for (let i = 0; i < 5000; i++) {
      const parts = Array.from({ length: Math.floor(next() * 5) }, () => pick(["a", "b", "😀", "%", "%", "_", "."]));
      const text = Array.from({ length: Math.floor(next() * 6) }, () => pick(["a", "b", "😀", ".", "\n"])).join("");
      const regex = parts.map((part) => ({ "%": "[^]*", _: "[^]", ".": "\\." })[part] ?? part).join("");
      const expected = new RegExp(`^(?:${regex})$`, "u").test(text);
      if (expected) held++;
      const source = parts.join("");
      expect({ source, text, holds: compilePattern("like", source).test(text, newBudget()) }).toEqual({
        source,
        text,
        holds: expected,
      });
    }
    expect(held).toBeGreaterThan(300);
  });

  test("a LIKE of 300,000 characters", () => {
    const long = "ab".repeat(150_000);
    expect(compilePattern("like", `%${long}%`).test(`x${long}`, newBudget())).toBe(true);
    expect(compilePattern("like", `%${long}`).test(`${long}x`, newBudget())).toBe(false);
  });

  const replaced = ["a", "[ab]+", "^a", "a$", "a{2}", "\\d", "b|a", "(a)|(b)", "(a(b)?)1?"];
  test.each(replaced)("every match of %s replaced at once by texts and groups", (source) => {
    const pattern = compilePattern("xpath", source);
    const parts = ["$&", 1, "0", 0, "$1", 2];
    for (const text of ["", "a", "aa1b", "b1aab", "😀a😀", "$a&"]) {
      let [expected, kept] = ["", 0];
      for (let at = 0; at <= text.length;) {
        const found = pattern.find(text, at, newBudget());
        if (!found) break;
        expected += text.slice(kept, found.index);
        for (const part of parts) expected += typeof part === "string" ? part : (found[part] ?? "");
        at = kept = found.index + found[0].length;
      }
      expect(pattern.replaceAll!(text, hostTemplate(parts, pattern.groups)!)).toBe(expected + text.slice(kept));
    }
    expect(compilePattern("xpath", `(${source})?`).replaceAll).toBeUndefined();
  });
});
