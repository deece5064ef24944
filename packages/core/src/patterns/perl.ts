import { lookup } from "../values/index.ts";
import {
  type CharSet,
  type ParsedPattern,
  type PatternNode,
  PatternError,
  anyChar,
  caseForms,
  notChars,
  oneChar,
  sequence,
} from "./ast.ts";
import { type Bounds, Reader, patternDepth } from "./reader.ts";

/** What tells the two flavours apart that grew out of Perl's patterns. */
export interface PerlRules {
  /** The name, for messages. */
  readonly name: string;
  /** Whether \d, \w, \s and \b know letters beyond ASCII. */
  readonly unicode: boolean;
  /** Look-around, back references, atomic groups and the like. */
  readonly backtracks: boolean;
  /** The largest count of a repeat. */
  readonly bound: number;
  /** Whether $ also fits before a line feed that ends the text. */
  readonly dollarBeforeLast: boolean;
}

export const pcre: PerlRules = { name: "PCRE2", unicode: true, backtracks: true, bound: 65_535, dollarBeforeLast: true };
export const re2: PerlRules = { name: "RE2", unicode: false, backtracks: false, bound: 1000, dollarBeforeLast: false };

const posixClasses: Readonly<Record<string, readonly [ascii: string, unicode: string]>> = lookup({
  alpha: ["A-Za-z", "\\p{L}"],
  digit: ["0-9", "\\p{Nd}"],
  alnum: ["0-9A-Za-z", "\\p{L}\\p{N}"],
  upper: ["A-Z", "\\p{Lu}"],
  lower: ["a-z", "\\p{Ll}"],
  space: ["\\t-\\r ", "\\t-\\r \\x85\\p{Z}"],
  blank: ["\\t ", "\\t\\p{Zs}"],
  punct: ["!-\\/\\:-@\\[-`\\{-~", "\\p{P}$+<=>\\^`\\|~"],
  print: [" -~", "\\P{C}"],
  graph: ["!-~", "\\p{L}\\p{M}\\p{N}\\p{P}\\p{S}\\p{Cf}"],
  cntrl: ["\\0-\\x1f\\x7f", "\\p{Cc}"],
  xdigit: ["0-9A-Fa-f", "0-9A-Fa-f"],
  word: ["0-9A-Za-z_", "\\p{L}\\p{N}_"],
  ascii: ["\\0-\\x7f", "\\0-\\x7f"],
});

const dotless = 0x131;

/** A letter as it is where case is ignored (Unicode, CaseFolding.txt, status C and S, but for a few that have no case). */
function folded(code: number): number {
  // A dotless i is like no other letter but in Turkish.
  if (code === dotless) return code;
  const char = String.fromCodePoint(code);
  const upper = char.toUpperCase();
  const lower = (upper.length === char.length ? upper : char).toLowerCase();
  return lower.length === char.length ? lower.codePointAt(0)! : code;
}

/** Letters beyond ASCII that are like another one, by the letter that they fold to. */
let others: Map<number, number[]> | undefined;

/** Every letter that is like one where case is ignored; the Kelvin sign is like k, ẞ like ß. */
function alike(code: number): number[] {
  if (!others) {
    others = new Map();
    for (let each = 0x80; each < 0xffff; each++) {
      const fold = folded(each);
      if (fold !== each) others.set(fold, [...(others.get(fold) ?? []), each]);
    }
  }
  const fold = folded(code);
  if (code === dotless) return [code];
  return [...new Set([code, ...caseForms(code), fold, ...caseForms(fold), ...(others.get(fold) ?? [])])];
}

/** What the classes of cases are where case is ignored, in the flavour that minds it. */
const inAnyCase: Readonly<Record<string, string>> = lookup({
  "A-Z": "A-Za-z\\u017f\\u212a",
  "a-z": "A-Za-z\\u017f\\u212a",
  "\\p{Lu}": "\\p{Lu}\\p{Lt}[\\p{Ll}&&\\p{Changes_When_Uppercased}]",
  "\\p{Ll}": "\\p{Ll}\\p{Lu}\\p{Lt}",
});

const controls: Readonly<Record<string, number>> = lookup({ a: 7, f: 12, n: 10, r: 13, t: 9, v: 11, e: 27 });

interface Flags {
  readonly i: boolean;
  readonly m: boolean;
  readonly s: boolean;
  readonly x: boolean;
  readonly U: boolean;
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
  const names = new Map<string, number>();
  const start: Flags = { i: false, m: flags.includes("m"), s: flags.includes("s"), x: flags.includes("x"), U: false };
  const place = rules.unicode ? 1 : 0;

  const uncovered = (what: string, offset: number): never => {
    throw new PatternError(what, offset, true);
  };

  // Verbs that say nothing that is not so here: texts are UTF-8, and lines end with a line feed.
  if (rules.backtracks) reader.match(/(?:\(\*(?:UTF8?|UCP|LF|NO_AUTO_POSSESS|NO_START_OPT|NO_DOTSTAR_ANCHOR|NO_JIT)\))+/y);
  const ends = rules.backtracks ? reader.match(/\(\*(CR|CRLF|ANYCRLF|ANY|NUL)\)/y) : undefined;
  if (ends && ends[1] !== "ANYCRLF" && ends[1] !== "CR") uncovered(`lines that end as (*${ends[1]}) says`, 0);
  const lineEnds = ends?.[1] === "CR" ? [13] : ends ? [10, 13] : [10];

  /** Options that the pattern starts with hold for all of it. */
  const leading = reader.match(/(?:\(\?[imsxU]+\))+/y)?.[0] ?? "";
  const outer: Flags = {
    i: flags.includes("i") || leading.includes("i"),
    m: start.m || leading.includes("m"),
    s: start.s || leading.includes("s"),
    x: start.x || leading.includes("x"),
    U: leading.includes("U"),
  };

  function choice(depth: number, given: Flags): PatternNode {
    if (depth > patternDepth) reader.fail(`groups are nested deeper than ${patternDepth}`);
    let current = given;
    const options: PatternNode[] = [];
    let items: PatternNode[] = [];
    for (;;) {
      if (current.x) reader.match(/(?:\s+|#[^\n]*)+/y);
      if (reader.done || (reader.peek() === ")" && depth > 0)) break;
      const at = reader.offset;
      if (reader.take("|")) {
        options.push(sequence(items));
        items = [];
        continue;
      }
      if (reader.take("\\Q")) {
        const end = reader.source.indexOf("\\E", reader.offset);
        const quoted = reader.source.slice(reader.offset, end < 0 ? undefined : end);
        reader.offset += quoted.length + (end < 0 ? 0 : 2);
        items.push(...[...quoted].map((char) => literal(char.codePointAt(0)!, current)));
        continue;
      }
      if (reader.take("\\E") || reader.match(/\(\?#[^)]*\)/y)) continue;
      const switched = reader.match(/\(\?([imsxnJU]*)(?:-([imsxnJU]*))?\)/y);
      if (switched) {
        current = withFlags(current, switched[1], switched[2] ?? "");
        continue;
      }
      items.push(quantified(atom(depth, current, at), at, current));
    }
    options.push(sequence(items));
    return options.length === 1 ? options[0] : { kind: "choice", options };
  }

  const withFlags = (given: Flags, on: string, off: string): Flags => ({
    i: (given.i || on.includes("i")) && !off.includes("i"),
    m: (given.m || on.includes("m")) && !off.includes("m"),
    s: (given.s || on.includes("s")) && !off.includes("s"),
    x: (given.x || on.includes("x")) && !off.includes("x"),
    U: (given.U || on.includes("U")) && !off.includes("U"),
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
      if (node.kind === "assertion" && rules.backtracks) reader.fail("a quantifier needs something to repeat", at);
      if (node.kind === "assertion" || node.kind === "look") {
        if (bounds.min === 0) return sequence([]);
        continue;
      }
      node = { kind: "repeat", item: node, min: bounds.min, max: bounds.max, greedy: isLazy === given.U };
      if (isPossessive) node = { kind: "atomic", item: node };
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
    return { kind: "set", set: { ranges: alike(code).map((each) => [each, each] as const), classes: [], negated: false } };
  }

  function atom(depth: number, given: Flags, at: number): PatternNode {
    const char = reader.next();
    switch (char) {
      case "(":
        return group(depth, given, at);
      case "[":
        return bracket(given, at);
      case ".":
        return { kind: "set", set: given.s ? anyChar : notChars(...lineEnds) };
      case "^":
        return { kind: "assertion", at: given.m ? "line start" : "text start" };
      case "$":
        return { kind: "assertion", at: given.m ? "line end" : rules.dollarBeforeLast ? "last line end" : "text end" };
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
    const inner = (flags = given) => choice(depth + 1, flags);
    if (!reader.take("?")) {
      if (rules.backtracks && reader.peek() === "*") uncovered("verbs", at);
      const index = ++groups;
      return close({ kind: "group", item: inner(), index });
    }
    for (const [opening, ahead, negated] of [
      ["=", true, false],
      ["!", true, true],
      ["<=", false, false],
      ["<!", false, true],
    ] as const) {
      if (!reader.take(opening)) continue;
      if (!rules.backtracks) reader.fail("there is no looking ahead or behind", at);
      return close({ kind: "look", item: inner(), ahead, negated });
    }
    if (rules.backtracks && reader.take(">")) return close({ kind: "atomic", item: inner() });
    if (reader.take(">") || reader.take("|"))
      return rules.backtracks
        ? uncovered("groups with numbers of their own", at)
        : reader.fail("a group starts in an unknown way", at);
    const again = rules.backtracks && reader.match(/P=(\w+)/y);
    if (again) {
      const index = names.get(again[1]) ?? reader.fail(`there is no group "${again[1]}"`, at);
      return close({ kind: "backreference", index });
    }
    const named = reader.match(/(?:P?<(\w+)>|'(\w+)')/y);
    if (named) {
      const name = named[1] ?? named[2];
      if (names.has(name)) reader.fail(`the group name "${name}" stands twice`, at);
      const index = ++groups;
      names.set(name, index);
      return close({ kind: "group", item: inner(), index });
    }
    const options = reader.match(/([imsxnJU]*)(?:-([imsxnJU]*))?:/y);
    if (options) return close(inner(withFlags(given, options[1], options[2] ?? "")));
    return rules.backtracks && /[RP&(\d+]/.test(reader.peek())
      ? uncovered("recursion and conditions", at)
      : reader.fail("a group starts in an unknown way", at);
  }

  function shorthand(letter: string): CharSet | undefined {
    const name = ({ d: "digit", s: "space", w: "word", h: "blank" } as Record<string, string>)[letter.toLowerCase()];
    if (!name || (name === "blank" && !rules.backtracks)) return undefined;
    // \s in RE2 has no vertical tab.
    const set = name === "space" && !rules.unicode ? "\\t\\n\\f\\r " : posixClasses[name][place];
    return { ranges: [], classes: [set], negated: letter < "a" };
  }

  /** A class in any case, where `flags` ignore it. */
  const cased = (source: string, { i }: Flags): string => (i && !rules.backtracks ? (inAnyCase[source] ?? source) : source);

  function property(letter: string, at: number, flags: Flags): CharSet {
    const found = reader.match(/\{(\^?)([A-Za-z_&]+)\}|([A-Z])/y) ?? reader.fail("a property is not complete", at);
    const name = found[2] ?? found[3];
    const negated = (letter === "P") !== (found[1] === "^");
    if (name === "Any") return { ...anyChar, negated };
    const source = name === "L&" ? "\\p{Lu}\\p{Ll}\\p{Lt}" : name.length <= 2 ? `\\p{${name}}` : `\\p{Script=${name}}`;
    try {
      new RegExp(`[${source}]`, "v");
    } catch {
      reader.fail(`there is no property "${name}"`, at);
    }
    return { ranges: [], classes: [cased(source, flags)], negated };
  }

  function escape(given: Flags, at: number): PatternNode {
    if (reader.done) reader.fail("a backslash ends the pattern", at);
    const letter = reader.next();
    const set = shorthand(letter);
    if (set) return { kind: "set", set };
    if (letter === "p" || letter === "P") return { kind: "set", set: property(letter, at, given) };
    const edge = rules.unicode ? "word edge" : "ascii word edge";
    if (letter === "b") return { kind: "assertion", at: edge };
    if (letter === "B") return { kind: "assertion", at: rules.unicode ? "not word edge" : "not ascii word edge" };
    if (letter === "A") return { kind: "assertion", at: "text start" };
    if (letter === "z") return { kind: "assertion", at: "text end" };
    if (letter === "C" && !rules.backtracks) uncovered("single bytes", at);
    if (rules.backtracks) {
      if (letter === "Z") return { kind: "assertion", at: "last line end" };
      if (letter === "N") return { kind: "set", set: notChars(10) };
      if (letter === "R")
        return {
          kind: "choice",
          options: [
            sequence([oneChar(13), oneChar(10)]),
            {
              kind: "set",
              set: {
                ranges: [
                  [10, 13],
                  [0x85, 0x85],
                  [0x2028, 0x2029],
                ],
                classes: [],
                negated: false,
              },
            },
          ],
        };
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
      if (/[GKX]/.test(letter)) uncovered(`\\${letter}`, at);
      if (letter === "k" || letter === "g") return named(letter, at);
      if (/[1-9]/.test(letter)) {
        const index = Number(letter + (reader.match(/\d*/y)?.[0] ?? ""));
        return backreference(index, at);
      }
    }
    return literal(escapedChar(letter, at), given);
  }

  function named(letter: string, at: number): PatternNode {
    const found = reader.match(/\{(\w+)\}|<(\w+)>|'(\w+)'|(\d+)/y) ?? reader.fail(`\\${letter} is not complete`, at);
    const name = found.slice(1).find((part) => part !== undefined)!;
    return backreference(
      /^\d+$/.test(name) ? Number(name) : (names.get(name) ?? reader.fail(`there is no group "${name}"`, at)),
      at,
    );
  }

  function backreference(index: number, at: number): PatternNode {
    const all = source.match(/\\[\s\S]|\((?!\?)|\(\?(?:P?<(?![=!])|')/g)?.filter((part) => part.startsWith("(")).length ?? 0;
    if (index > all) reader.fail(`there is no group ${index}`, at);
    return { kind: "backreference", index };
  }

  function escapedChar(letter: string, at: number): number {
    if (Object.hasOwn(controls, letter) || letter in controls) {
      if (letter !== "e" || rules.backtracks) return controls[letter];
    }
    if (letter === "x") {
      const found = reader.match(/\{([0-9a-fA-F]+)\}|([0-9a-fA-F]{1,2})/y);
      if (!found || (!rules.backtracks && found[2]?.length === 1))
        return rules.backtracks && !found ? 0 : reader.fail("an escape is not complete", at);
      const code = parseInt(found[1] ?? found[2], 16);
      return code <= 0x10ffff ? code : reader.fail("an escape names no character", at);
    }
    if (/[0-7]/.test(letter) && (letter === "0" || rules.backtracks))
      return parseInt(letter + (reader.match(/[0-7]{0,2}/y)?.[0] ?? ""), 8);
    if (letter === "c" && rules.backtracks) return reader.next().toUpperCase().codePointAt(0)! ^ 64;
    if (/[A-Za-z0-9]/.test(letter)) reader.fail(`\\${letter} means nothing here`, at);
    return letter.codePointAt(0)!;
  }

  function bracket(given: Flags, at: number): PatternNode {
    if (rules.backtracks && reader.take("[:<:]]")) return { kind: "assertion", at: "word start" };
    if (rules.backtracks && reader.take("[:>:]]")) return { kind: "assertion", at: "word end" };
    const negated = reader.take("^");
    const ranges: (readonly [number, number])[] = [];
    const classes: string[] = [];
    for (let first = true; first || reader.peek() !== "]"; first = false) {
      if (reader.done) reader.fail("a bracket is not closed", at);
      const low = bracketItem(at, given);
      if (typeof low === "string") {
        classes.push(low);
        continue;
      }
      const next = reader.source[reader.offset + 1];
      if (reader.peek() === "-" && next !== undefined && next !== "]") {
        reader.next();
        const high = bracketItem(at, given);
        if (typeof high === "string") {
          if (!rules.backtracks) reader.fail("a range in a bracket is not in order", at);
          ranges.push([low, low], [45, 45]);
          classes.push(high);
        } else if (high < low) reader.fail("a range in a bracket is not in order", at);
        else ranges.push([low, high]);
      } else ranges.push([low, low]);
    }
    reader.next();
    const forms = given.i
      ? ranges.flatMap(([low, high]) => {
          const size = Math.min(high - low, 2048);
          return Array.from({ length: size + 1 }, (_, k) => alike(low + k)).flatMap((each) =>
            each.map((code) => [code, code] as const),
          );
        })
      : [];
    return { kind: "set", set: { ranges: [...ranges, ...forms], classes, negated } };
  }

  /** A class source, or one code point. */
  function bracketItem(at: number, flags: Flags): string | number {
    const posix = reader.match(/\[:(\^?)(\w+):\]/y);
    if (posix) {
      const source = posixClasses[posix[2]]?.[place] ?? reader.fail(`there is no character class "${posix[2]}"`, at);
      return posix[1] ? `[^${cased(source, flags)}]` : cased(source, flags);
    }
    const char = reader.next();
    if (char !== "\\") return char.codePointAt(0)!;
    const letter = reader.next();
    const set = shorthand(letter) ?? (letter === "p" || letter === "P" ? property(letter, at, flags) : undefined);
    if (set) return set.negated ? `[^${set.classes.join("")}]` : set.classes.join("");
    if (letter === "b") return rules.backtracks ? 8 : reader.fail("\\b means nothing in brackets", at);
    return escapedChar(letter, at);
  }

  const node = choice(0, outer);
  return { node, groups, ignoreCase: false };
}
