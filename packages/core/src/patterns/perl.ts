import { lookup } from "../values/index.ts";
import { type ParsedPattern, type PatternNode, PatternError, type ConditionTest, anyChar, oneChar, sequence } from "./ast.ts";
import { afterLineFeeds, anyEnds, lineBreak, lineEndsOf, startedApart } from "./line-ends.ts";
import { hasFixedLengths } from "./fixed-lengths.ts";
import type { PerlRules } from "./perl-rules.ts";
import { SetReader, likeLetters } from "./perl-sets.ts";
import { type Bounds, Reader, patternDepth } from "./reader.ts";

const leadingVerbs =
  /(?:\(\*(?:UTF8?|UCP|LF|CR|CRLF|ANYCRLF|ANY|NUL|BSR_ANYCRLF|BSR_UNICODE|NOTEMPTY_ATSTART|NO_AUTO_POSSESS|NO_START_OPT|NO_DOTSTAR_ANCHOR|NO_JIT)\))+/y;

/** Assertions that are written as words: whether they look ahead, and whether they want nothing there. */
const spelledLooks: Readonly<Record<string, readonly [ahead: boolean, negated: boolean]>> = lookup({
  positive_lookahead: [true, false],
  pla: [true, false],
  negative_lookahead: [true, true],
  nla: [true, true],
  positive_lookbehind: [false, false],
  plb: [false, false],
  negative_lookbehind: [false, true],
  nlb: [false, true],
  non_atomic_positive_lookahead: [true, false],
  napla: [true, false],
  non_atomic_positive_lookbehind: [false, false],
  naplb: [false, false],
});

interface Flags {
  readonly i: boolean;
  readonly m: boolean;
  readonly s: boolean;
  readonly x: boolean;
  readonly U: boolean;
  /** Whether plain brackets take no group. */
  readonly n: boolean;
}

/**
 * Reads a pattern as PCRE2 or RE2 have it. `flags` are `i` (ignore case), `m` (^ and $ at line
 * ends), `s` (a dot fits a line feed), `x` (blanks and comments), `q` (every character for itself).
 */
export function parsePerl(source: string, flags: string, rules: PerlRules): ParsedPattern {
  if (flags.includes("q"))
    return {
      node: sequence([...source].map((char) => oneChar(char.codePointAt(0)!))),
      groups: 0,
      ignoreCase: flags.includes("i"),
    };
  const reader = new Reader(source);
  let groups = 0;
  const names = new Map<string, number[]>();
  /** The groups around the place that is read. */
  const open: number[] = [];
  const start: Flags = { i: false, m: flags.includes("m"), s: flags.includes("s"), x: flags.includes("x"), U: false, n: false };
  const mayRepeatNames = rules.backtracks && /\(\?[imsxnU]*J/.test(source);
  /** What is looked up when all groups are known. */
  const waiting: (() => unknown)[] = [];

  const sets = new SetReader(reader, rules);

  const uncovered = (what: string, offset: number): never => {
    throw new PatternError(what, offset, true);
  };

  // Verbs that say nothing that is not so here, and those about the ends of lines.
  const verbs = rules.backtracks ? (reader.match(leadingVerbs)?.[0] ?? "") : "";
  const ends = [...verbs.matchAll(/\((\*)(CR|LF|CRLF|ANYCRLF|ANY|NUL)\)/g)].at(-1)?.[2] ?? "LF";
  const lines = ends === "LF" ? afterLineFeeds(rules.backtracks) : lineEndsOf(ends);
  const breaks = verbs.includes("(*BSR_ANYCRLF)") ? [10, 13] : anyEnds;

  /** Options that the pattern starts with hold for all of it. */
  const leading = reader.match(/(?:\(\?[imsxUn]+\))+/y)?.[0] ?? "";
  const outer: Flags = {
    i: flags.includes("i") || leading.includes("i"),
    m: start.m || leading.includes("m"),
    s: start.s || leading.includes("s"),
    x: start.x || leading.includes("x"),
    U: leading.includes("U"),
    n: leading.includes("n"),
  };

  /** Options between `|`; with `resets` each counts its groups from the same number on. */
  function choice(depth: number, given: Flags, resets = false): PatternNode {
    if (depth > patternDepth) reader.fail(`groups are nested deeper than ${patternDepth}`);
    let current = given;
    const options: PatternNode[] = [];
    let items: PatternNode[] = [];
    let from = reader.offset;
    const firstGroup = groups;
    let lastGroup = groups;
    for (;;) {
      if (current.x) reader.match(/(?:\s+|#[^\n]*)+/y);
      if (reader.done || (reader.peek() === ")" && depth > 0)) break;
      const at = reader.offset;
      if (reader.take("|")) {
        options.push(reader.placed(sequence(items), from, at));
        items = [];
        from = reader.offset;
        lastGroup = Math.max(lastGroup, groups);
        if (resets) groups = firstGroup;
        continue;
      }
      if (reader.take("\\Q")) {
        const end = reader.source.indexOf("\\E", reader.offset);
        const quoted = reader.source.slice(reader.offset, end < 0 ? undefined : end);
        reader.offset += quoted.length + (end < 0 ? 0 : 2);
        items.push(reader.placed(sequence([...quoted].map((char) => literal(char.codePointAt(0)!, current))), at));
        continue;
      }
      if (reader.take("\\E") || reader.match(/\(\?#[^)]*\)/y)) continue;
      if (rules.backtracks && reader.match(/\(\?C\d*\)|\(\*(?:MARK)?:[^)]*\)/y)) continue;
      const switched = reader.match(/\(\?(\^?)([imsxnJU]*)(?:-([imsxnJU]*))?\)/y);
      if (switched && (rules.backtracks || !switched[1])) {
        current = withFlags(switched[1] ? { ...start, U: current.U } : current, switched[2], switched[3] ?? "");
        continue;
      }
      items.push(quantified(reader.placed(atom(depth, current, at), at), at, current));
    }
    options.push(reader.placed(sequence(items), from));
    groups = Math.max(lastGroup, groups);
    return options.length === 1 ? options[0] : { kind: "choice", options };
  }

  const withFlags = (given: Flags, on: string, off: string): Flags => ({
    i: (given.i || on.includes("i")) && !off.includes("i"),
    m: (given.m || on.includes("m")) && !off.includes("m"),
    s: (given.s || on.includes("s")) && !off.includes("s"),
    x: (given.x || on.includes("x")) && !off.includes("x"),
    U: (given.U || on.includes("U")) && !off.includes("U"),
    n: (given.n || on.includes("n")) && !off.includes("n"),
  });

  function quantified(item: PatternNode, at: number, given: Flags): PatternNode {
    let node = item;
    for (let times = 0; ; times++) {
      if (given.x) reader.match(/(?:\s+|#[^\n]*)+/y);
      const bounds = quantifier();
      if (!bounds) return node;
      if (times > 0) reader.fail("a quantifier cannot follow another", at);
      const isLazy = reader.take("?");
      const isPossessive = !isLazy && reader.take("+");
      if (isPossessive && !rules.backtracks) reader.fail("a quantifier cannot follow another", at);
      const isBare = ["assertion", "verb", "keep", "accept"].includes(node.kind) && !source.startsWith("(?:", at);
      const isNothing = isBare || source.startsWith("(*F", at);
      if (isNothing && rules.backtracks) reader.fail("a quantifier needs something to repeat", at);
      if (node.kind === "assertion" || node.kind === "look") {
        if (bounds.min === 0) return sequence([]);
        continue;
      }
      node = reader.placed({ kind: "repeat", item: node, min: bounds.min, max: bounds.max, greedy: isLazy === given.U }, at);
      if (isPossessive) node = reader.placed({ kind: "atomic", item: node }, at);
    }
  }

  function quantifier(): Bounds | undefined {
    if (reader.take("*")) return { min: 0, max: Infinity };
    if (reader.take("+")) return { min: 1, max: Infinity };
    if (reader.take("?")) return { min: 0, max: 1 };
    const at = reader.offset;
    const found = reader.match(/\{(\d+)(?:(,)(\d*))?\}/y);
    if (!found) return undefined;
    const min = Number(found[1]);
    const max = !found[2] ? min : found[3] ? Number(found[3]) : Infinity;
    if (min > rules.bound || (max !== Infinity && max > rules.bound))
      reader.fail(`a repeat count is larger than ${rules.bound}`, at);
    if (min > max) reader.fail("the repeat counts are in the wrong order", at);
    return { min, max };
  }

  /** A character, in both cases where the options of this place say so. */
  function literal(code: number, { i }: Flags): PatternNode {
    if (!i) return oneChar(code);
    return { kind: "set", set: { ranges: likeLetters(code).map((each) => [each, each] as const), classes: [], negated: false } };
  }

  function atom(depth: number, given: Flags, at: number): PatternNode {
    const char = reader.next();
    switch (char) {
      case "(":
        return group(depth, given, at);
      case "[":
        return sets.bracket(given, at);
      case ".":
        return given.s ? { kind: "set", set: anyChar } : lines.dot;
      case "^":
        return given.m ? lines.lineStart : { kind: "assertion", at: "text start" };
      case "$":
        return given.m ? lines.lineEnd : rules.dollarBeforeLast ? lines.lastLineEnd : { kind: "assertion", at: "text end" };
      case "\\":
        return escape(given, at);
      case "*":
      case "+":
      case "?":
        return reader.fail("a quantifier needs something to repeat", at);
      case ")":
        return reader.fail("a closing bracket has no opening one", at);
    }
    return literal(char.codePointAt(0)!, given);
  }

  function group(depth: number, given: Flags, at: number): PatternNode {
    const close = <T>(result: T): T => (reader.take(")") ? result : reader.fail("a group is not closed", at));
    const inner = (flags = given, resets = false) => choice(depth + 1, flags, resets);
    const looking = (ahead: boolean, negated: boolean): PatternNode => {
      const item = inner();
      if (!ahead && !hasFixedLengths(item)) reader.fail("what stands before must have a fixed length", at);
      return close({ kind: "look", item, ahead, negated });
    };
    const captured = (): PatternNode => {
      const index = ++groups;
      open.push(index);
      const item = inner();
      open.pop();
      return close({ kind: "group", item, index });
    };
    if (!reader.take("?")) {
      if (rules.backtracks && reader.peek() === "*") return verb(at, looking, () => close({ kind: "atomic", item: inner() }));
      return given.n ? close(inner()) : captured();
    }
    for (const [opening, ahead, negated] of [
      ["=", true, false],
      ["!", true, true],
      ["<=", false, false],
      ["<!", false, true],
    ] as const) {
      if (!reader.take(opening)) continue;
      if (!rules.backtracks) reader.fail("there is no looking ahead or behind", at);
      return looking(ahead, negated);
    }
    const named = reader.match(/(?:P?<(\w+)>|'(\w+)')/y);
    if (named) {
      const name = named[1] ?? named[2];
      const known = names.get(name) ?? [];
      if (known.length > 0 && !mayRepeatNames) reader.fail(`the group name "${name}" stands twice`, at);
      names.set(name, [...known, groups + 1]);
      return captured();
    }
    const options = reader.match(/(\^?)([imsxnJU]*)(?:-([imsxnJU]*))?:/y);
    if (options && (rules.backtracks || !options[1]))
      return close(inner(withFlags(options[1] ? { ...start, U: given.U } : given, options[2], options[3] ?? "")));
    return rules.backtracks ? special(at, close, inner) : reader.fail("a group starts in an unknown way", at);
  }

  /** What PCRE2 alone has after `(?`: atomic groups, groups that share numbers, references, calls and conditions. */
  function special(at: number, close: <T>(result: T) => T, inner: (flags?: Flags, resets?: boolean) => PatternNode): PatternNode {
    if (reader.take(">")) return close({ kind: "atomic", item: inner() });
    if (reader.take("|")) return close(inner(undefined, true));
    const again = reader.match(/P=(\w+)/y);
    if (again) return close(namedReference(again[1], at));
    const called = reader.match(/R|P>(\w+)|&(\w+)|([+-]?)(\d+)/y);
    if (called) return close(call(called[1] ?? called[2], called[3], called[4] ?? "0", at));
    if (!reader.take("(")) return reader.fail("a group starts in an unknown way", at);
    const test = condition(at);
    const item = inner();
    const [yes, no, third] = item.kind === "choice" ? item.options : [item, sequence([])];
    if (third) reader.fail("a condition has more than two branches", at);
    return close({ kind: "condition", test, yes, no });
  }

  /** The test of a condition up to its bracket; (DEFINE) never holds. */
  function condition(at: number): ConditionTest {
    const found = reader.match(/(DEFINE)\)|([+-]?)(\d+)\)|R(?:(\d+)|&(\w+))?\)|<(\w+)>\)|'(\w+)'\)|(?![?*])(\w+)\)/y);
    if (!found) {
      reader.offset--;
      const look = atom(0, start, at);
      return look.kind === "look" ? { look } : reader.fail("a condition has no test", at);
    }
    const [, define, sign, number, calledNumber, calledName, ...byName] = found;
    if (define) return { groups: [] };
    if (number) return { groups: [relative(sign, number, at)] };
    const name = byName.find((each) => each !== undefined);
    if (name !== undefined) return { groups: names.get(name) ?? reader.fail(`there is no group "${name}"`, at) };
    if (calledName) return { called: names.get(calledName)?.[0] ?? reader.fail(`there is no group "${calledName}"`, at) };
    return { called: calledNumber ? relative("", calledNumber, at) : true };
  }

  /** A verb after `(*`, or an assertion that is written as a word. */
  function verb(at: number, looking: (ahead: boolean, negated: boolean) => PatternNode, atomic: () => PatternNode): PatternNode {
    const spelled = reader.match(/\*([a-z_]+):/y);
    const look = spelled && spelledLooks[spelled[1]];
    if (look) return looking(...look);
    if (spelled?.[1] === "atomic") return atomic();
    const found = reader.match(/\*(ACCEPT|FAIL|F|COMMIT|PRUNE|SKIP|THEN)(:[^)]*)?\)/y);
    if (!found || (found[1] === "SKIP" && found[2])) return uncovered("this verb", at);
    const name = found[1].toLowerCase();
    if (name === "accept") return { kind: "accept", open: [...open] };
    if (name.startsWith("f")) return { kind: "set", set: { ranges: [], classes: [], negated: false } };
    return { kind: "verb", verb: name as "commit" | "prune" | "skip" | "then" };
  }

  /** The number of a group that may be counted from here. */
  function relative(sign: string, digits: string, at: number): number {
    const number = Number(digits);
    const index = sign === "-" ? groups + 1 - number : sign === "+" ? groups + number : number;
    return backreference(index < (sign ? 1 : 0) ? Infinity : index, at).index;
  }

  /** A call of a group by its name or number; a name may stand further on. */
  function call(name: string | undefined, sign: string | undefined, digits: string, at: number): PatternNode {
    if (name === undefined) return { kind: "call", index: relative(sign ?? "", digits, at) };
    const node = { kind: "call" as const, index: 0 };
    waiting.push(() => {
      node.index = names.get(name)?.[0] ?? reader.fail(`there is no group "${name}"`, at);
    });
    return node;
  }

  function namedReference(name: string, at: number): PatternNode {
    const node: { kind: "backreference"; index: number; others: readonly number[]; isStrict: true } = {
      kind: "backreference",
      index: 0,
      others: [],
      isStrict: true,
    };
    waiting.push(() => {
      [node.index, ...node.others] = (names.get(name) ?? reader.fail(`there is no group "${name}"`, at)) as [number, ...number[]];
    });
    return node;
  }

  function escape(given: Flags, at: number): PatternNode {
    if (reader.done) reader.fail("a backslash ends the pattern", at);
    const letter = reader.next();
    const set = sets.shorthand(letter);
    if (set) return { kind: "set", set };
    if (letter === "p" || letter === "P") return { kind: "set", set: sets.property(letter, at, given) };
    const edge = rules.unicode ? "word edge" : "ascii word edge";
    if (letter === "b") return { kind: "assertion", at: edge };
    if (letter === "B") return { kind: "assertion", at: rules.unicode ? "not word edge" : "not ascii word edge" };
    if (letter === "A") return { kind: "assertion", at: "text start" };
    if (letter === "z") return { kind: "assertion", at: "text end" };
    if (letter === "C" && !rules.backtracks) uncovered("single bytes", at);
    if (rules.backtracks) {
      if (letter === "Z") return { kind: "assertion", at: "last line end" };
      if (letter === "N" && !reader.match(/(?=\{U\+)/y)) return lines.dot;
      if (letter === "R") return lineBreak(breaks);
      if (letter === "G") return { kind: "assertion", at: "search start" };
      if (letter === "K") return { kind: "keep" };
      if (letter === "v" || letter === "V")
        return {
          kind: "set",
          set: {
            ranges: [
              [10, 13],
              [0x85, 0x85],
              [0x2028, 0x2029],
            ],
            classes: [],
            negated: letter === "V",
          },
        };
      if (letter === "X") uncovered("\\X", at);
      if (letter === "k" || letter === "g") return named(letter, at);
      if (/[1-9]/.test(letter)) {
        const index = Number(letter + (reader.match(/\d*/y)?.[0] ?? ""));
        return backreference(index, at);
      }
    }
    return literal(sets.escapedChar(letter, at), given);
  }

  /** \k{name}, \g{2}, \g{-1}, and the calls \g<name>, \g<2>. */
  function named(letter: string, at: number): PatternNode {
    const found =
      reader.match(/\{\s*([+-]?\w+)\s*\}|<([+-]?\w+)>|'([+-]?\w+)'|([+-]?\d+)/y) ??
      reader.fail(`\\${letter} is not complete`, at);
    const [, braced, angled, quoted, bare] = found;
    const name = braced ?? angled ?? quoted ?? bare;
    const [, sign, digits] = /^([+-]?)(\d+)$/.exec(name) ?? [];
    const isCall = letter === "g" && (angled ?? quoted) !== undefined;
    if (isCall) return call(digits === undefined ? name : undefined, sign, digits, at);
    if (digits === undefined) return namedReference(name, at);
    return letter === "k" ? reader.fail("\\k is not complete", at) : { kind: "backreference", index: relative(sign, digits, at) };
  }

  /** A reference to a group, which may stand further on. */
  function backreference(index: number, at: number): PatternNode & { kind: "backreference" } {
    waiting.push(() => index <= groups || reader.fail(`there is no group ${index}`, at));
    return { kind: "backreference", index, isStrict: true };
  }

  const node = choice(0, outer);
  for (const each of waiting) each();
  const pairs = ends.includes("CRLF") || ends === "ANY";
  const namesEnds = /[\r\n]|\\[rnvR]/.test(source);
  return { node: pairs && !namesEnds ? startedApart(node) : node, groups, ignoreCase: false, places: reader.places };
}
