import { lookup } from "../values/index.ts";
import { type CharSet, type ParsedPattern, type PatternNode, anyChar, inBothCases, notChars, oneChar, sequence } from "./ast.ts";
import { type Bounds, Reader, patternDepth, readBounds } from "./reader.ts";

/** The classes of a UTF-8 locale of the C library, beyond ASCII too: digits of other scripts count as letters. */
const named: Readonly<Record<string, string>> = lookup({
  alpha: "\\p{Alphabetic}[\\p{Nd}--[0-9]]",
  digit: "0-9",
  alnum: "\\p{Alphabetic}\\p{Nd}",
  upper: "\\p{Uppercase}\\p{Lt}",
  lower: "\\p{Lowercase}\\u01c5\\u01c8\\u01cb\\u01f2\\u0295",
  space: "\\t-\\r \\u1680\\u2000-\\u2006\\u2008-\\u200a\\u2028\\u2029\\u205f\\u3000",
  blank: "\\t ",
  punct: "[[\\p{P}\\p{S}\\p{N}\\p{M}\\p{Cf}\\p{Co}\\u00a0\\u2007\\u202f]--[\\p{Alphabetic}\\p{Nd}]]",
  print: "[^\\p{Cn}\\p{Cc}\\p{Cs}\\p{Zl}\\p{Zp}]",
  graph: "\\p{L}\\p{M}\\p{N}\\p{P}\\p{S}\\p{Cf}\\p{Co}\\u00a0\\u2007\\u202f",
  cntrl: "\\p{Cc}",
  xdigit: "0-9A-Fa-f",
  word: "\\p{Alphabetic}\\p{Nd}_",
});

const shorthand: Readonly<Record<string, string>> = { d: named.digit, s: named.space, w: named.word };

/** Where case is ignored, a class of letters of one case is that of all letters. */
const anyLetters: ReadonlyMap<string, string> = new Map([
  [named.upper, named.alpha],
  [named.lower, named.alpha],
]);

const controls: Readonly<Record<string, number>> = { a: 7, b: 8, e: 27, f: 12, n: 10, r: 13, t: 9, v: 11 };

/**
 * Reads a POSIX advanced regular expression (PostgreSQL documentation, 9.7.3). `flags` are the
 * letters of the pattern functions: `i c n p w s m x q t e b`.
 */
export function parsePosix(source: string, flags: string): ParsedPattern {
  const reader: Reader = new Reader(source);
  const options = { ignoreCase: false, dotAll: true, lines: false, expanded: false, literal: false };
  const apply = (letters: string, offset: number) => {
    for (const letter of letters) {
      if (letter === "i") options.ignoreCase = true;
      else if (letter === "c") options.ignoreCase = false;
      else if (letter === "n" || letter === "m") [options.dotAll, options.lines] = [false, true];
      else if (letter === "p") options.dotAll = false;
      else if (letter === "w") options.lines = true;
      else if (letter === "s") [options.dotAll, options.lines] = [true, false];
      else if (letter === "x") options.expanded = true;
      else if (letter === "t") options.expanded = false;
      else if (letter === "q") options.literal = true;
      else if (letter !== "e" && letter !== "b") reader.fail(`"${letter}" is no option here`, offset);
    }
  };
  apply(flags, 0);
  if (reader.take("***=")) options.literal = true;
  else if (!options.literal) {
    reader.take("***:");
    const embedded = reader.match(/\(\?([a-z]+)\)/y);
    if (embedded) apply(embedded[1], 0);
  }
  let groups = 0;
  const closed = new Set<number>();

  function choice(depth: number): PatternNode {
    if (depth > patternDepth) reader.fail(`groups are nested deeper than ${patternDepth}`);
    const options = [branch(depth)];
    while (reader.take("|")) options.push(branch(depth));
    return options.length === 1 ? options[0] : { kind: "choice", options };
  }

  function branch(depth: number): PatternNode {
    const items: PatternNode[] = [];
    const from = reader.offset;
    for (;;) {
      skipBlanks();
      if (reader.done || reader.peek() === "|" || (reader.peek() === ")" && depth > 0)) break;
      const start = reader.offset;
      const item = reader.placed(atom(depth), start);
      skipBlanks();
      items.push(quantified(item, start));
    }
    return reader.placed(sequence(items), from);
  }

  /** How many constraints that look ahead or behind are open. */
  let looks = 0;

  function skipBlanks(): void {
    if (options.expanded) reader.match(/(?:\s+|#[^\n]*)+/y);
  }

  function quantified(item: PatternNode, start: number): PatternNode {
    const bounds = quantifier();
    if (!bounds) return item;
    const isBare = !reader.source.startsWith("(?:", start);
    if (isBare && (item.kind === "assertion" || item.kind === "look"))
      reader.fail("a quantifier needs something to repeat", start);
    const greedy = !reader.take("?");
    const next = reader.offset;
    if (quantifier()) reader.fail("a quantifier cannot follow another", next);
    return reader.placed({ kind: "repeat", item, ...bounds, greedy }, start);
  }

  function quantifier(): Bounds | undefined {
    if (reader.take("*")) return { min: 0, max: Infinity };
    if (reader.take("+")) return { min: 1, max: Infinity };
    if (reader.take("?")) return { min: 0, max: 1 };
    if (/\{\d/y.test(reader.source.slice(reader.offset, reader.offset + 2))) {
      const start = reader.offset;
      reader.take("{");
      return readBounds(reader, 255) ?? reader.fail("a repeat count is not complete", start);
    }
    return undefined;
  }

  function atom(depth: number): PatternNode {
    const start = reader.offset;
    const char = reader.next();
    switch (char) {
      case "(":
        return group(depth, start);
      case "[":
        return bracket(start);
      case ".":
        return { kind: "set", set: options.dotAll ? anyChar : notChars(10) };
      case "^":
        return { kind: "assertion", at: options.lines ? "line start" : "text start" };
      case "$":
        return { kind: "assertion", at: options.lines ? "line end" : "text end" };
      case "\\":
        return escape(start);
      case "*":
      case "+":
      case "?":
        return reader.fail("a quantifier needs something to repeat", start);
      case ")":
        return reader.fail("a closing bracket has no opening one", start);
      case "{":
        if (/\d/.test(reader.peek())) reader.fail("a quantifier needs something to repeat", start);
        return oneChar(123);
      default:
        return oneChar(char.codePointAt(0)!);
    }
  }

  function group(depth: number, start: number): PatternNode {
    const close = () => reader.take(")") || reader.fail("a group is not closed", start);
    for (const [opening, ahead, negated] of [
      ["?=", true, false],
      ["?!", true, true],
      ["?<=", false, false],
      ["?<!", false, true],
    ] as const) {
      if (!reader.take(opening)) continue;
      looks++;
      const item = choice(depth + 1);
      looks--;
      close();
      return { kind: "look", item, ahead, negated };
    }
    if (reader.take("?:")) {
      const item = choice(depth + 1);
      close();
      return item;
    }
    if (reader.peek() === "?") reader.fail("a group starts in an unknown way", start);
    const index = ++groups;
    const item = choice(depth + 1);
    close();
    closed.add(index);
    return { kind: "group", item, index };
  }

  function escape(start: number): PatternNode {
    if (reader.done) reader.fail("a backslash ends the pattern", start);
    const letter = reader.next();
    if (/[dsw]/i.test(letter)) return { kind: "set", set: shorthandSet(letter) };
    const places = {
      A: "text start",
      Z: "text end",
      m: "word start",
      M: "word end",
      y: "word edge",
      Y: "not word edge",
    } as const;
    if (letter in places) return { kind: "assertion", at: places[letter as keyof typeof places] };
    if (/[1-9]/.test(letter)) {
      const more = reader.match(/\d*/y)![0];
      const index = Number(letter + more);
      // Several digits are a character's octal number where there are not so many groups.
      if (more !== "" && index > groups) {
        reader.offset -= more.length + 1;
        const octal = reader.match(/[0-7]{1,3}/y) ?? reader.fail("an escape is not complete", start);
        return oneChar(parseInt(octal[0], 8));
      }
      if (looks > 0) reader.fail("what looks ahead or behind has no back references", start);
      if (!closed.has(index)) reader.fail(`there is no group ${index} before this back reference`, start);
      return { kind: "backreference", index };
    }
    return oneChar(escapedChar(letter, start));
  }

  function escapedChar(letter: string, start: number): number {
    if (letter in controls) return controls[letter];
    if (letter === "0") return parseInt(reader.match(/[0-7]{0,2}/y)![0] || "0", 8);
    const size = { x: /[0-9a-fA-F]{1,255}/y, u: /[0-9a-fA-F]{4}/y, U: /[0-9a-fA-F]{8}/y }[letter];
    if (size) {
      const value = parseInt((reader.match(size) ?? reader.fail("an escape is not complete", start))[0], 16);
      return value <= 0x10ffff ? value : reader.fail("an escape names no character", start);
    }
    if (letter === "c") return reader.next().codePointAt(0)! & 31;
    if (letter === "B") return 92;
    if (/[A-Za-z]/.test(letter)) reader.fail(`\\${letter} means nothing here`, start);
    return letter.codePointAt(0)!;
  }

  function shorthandSet(letter: string): CharSet {
    return { ranges: [], classes: [shorthand[letter.toLowerCase()]], negated: /[A-Z]/.test(letter) };
  }

  function bracket(start: number): PatternNode {
    if (reader.take("[:<:]]")) return { kind: "assertion", at: "word start" };
    if (reader.take("[:>:]]")) return { kind: "assertion", at: "word end" };
    const negated = reader.take("^");
    const ranges: (readonly [number, number])[] = [];
    const classes: string[] = [];
    if (negated && !options.dotAll) ranges.push([10, 10]);
    for (let first = true; first || reader.peek() !== "]"; first = false) {
      if (reader.done) reader.fail("a bracket is not closed", start);
      const low = bracketItem();
      if (typeof low === "string") {
        classes.push(low);
        continue;
      }
      if (reader.peek() === "-" && reader.source[reader.offset + 1] !== "]" && reader.offset + 1 < reader.source.length) {
        reader.next();
        const high = bracketItem();
        if (typeof high === "string" || high < low) reader.fail("a range in a bracket is not in order");
        else ranges.push([low, high]);
      } else ranges.push([low, low]);
    }
    reader.next();
    return { kind: "set", set: { ranges, classes, negated } };
  }

  /** A class source, or one code point. */
  function bracketItem(): string | number {
    const start = reader.offset;
    const name = reader.match(/\[:(\w+):\]/y);
    if (name) return named[name[1]] ?? reader.fail(`there is no character class "${name[1]}"`, start);
    const collating = reader.match(/\[([.=])(.)\1\]/suy);
    if (collating) return collating[2].codePointAt(0)!;
    const char = reader.next();
    if (char !== "\\") return char.codePointAt(0)!;
    const letter = reader.next();
    if (/[dsw]/.test(letter)) return shorthand[letter];
    if (/[DSW]/.test(letter)) return `[^${shorthand[letter.toLowerCase()]}]`;
    return escapedChar(letter, start);
  }

  if (options.literal) {
    const chars = [...source.slice(reader.offset)].map((char) => oneChar(char.codePointAt(0)!));
    return finished(sequence(chars));
  }
  return finished(choice(0));

  function finished(node: PatternNode): ParsedPattern {
    if (options.ignoreCase) return { node: inBothCases(node, anyLetters), groups, ignoreCase: false };
    return { node, groups, ignoreCase: false, places: reader.places };
  }
}
