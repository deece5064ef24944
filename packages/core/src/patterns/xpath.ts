import { lookup } from "../values/index.ts";
import { type CharSet, type ParsedPattern, type PatternNode, anyChar, charClass, notChars, oneChar, sequence } from "./ast.ts";
import { Reader, patternDepth, readBounds, repeatBound } from "./reader.ts";

const nameStart =
  ":A-Z_a-z\\u00C0-\\u00D6\\u00D8-\\u00F6\\u00F8-\\u02FF\\u0370-\\u037D\\u037F-\\u1FFF\\u200C\\u200D\\u2070-\\u218F\\u2C00-\\u2FEF\\u3001-\\uD7FF\\uF900-\\uFDCF\\uFDF0-\\uFFFD";

const escapes: Readonly<Record<string, string>> = {
  d: "\\p{Nd}",
  s: " \\t\\n\\r",
  w: "\\p{L}\\p{M}\\p{N}\\p{S}",
  i: nameStart,
  c: nameStart + "\\-.0-9\\u00B7\\u0300-\\u036F\\u203F\\u2040",
};

const categories = /^(?:L[ultmo]?|M[nce]?|N[dlo]?|P[cdseifo]?|Z[slp]?|S[mcko]?|C[cfon]?)$/;

/** Unicode blocks by their XML Schema names, first and last code point. */
const blocks: Readonly<Record<string, readonly [number, number]>> = lookup({
  BasicLatin: [0, 0x7f],
  "Latin-1Supplement": [0x80, 0xff],
  "LatinExtended-A": [0x100, 0x17f],
  "LatinExtended-B": [0x180, 0x24f],
  IPAExtensions: [0x250, 0x2af],
  CombiningDiacriticalMarks: [0x300, 0x36f],
  Greek: [0x370, 0x3ff],
  GreekandCoptic: [0x370, 0x3ff],
  Cyrillic: [0x400, 0x4ff],
  Hebrew: [0x590, 0x5ff],
  Arabic: [0x600, 0x6ff],
  LatinExtendedAdditional: [0x1e00, 0x1eff],
  GeneralPunctuation: [0x2000, 0x206f],
  CurrencySymbols: [0x20a0, 0x20cf],
  Hiragana: [0x3040, 0x309f],
  Katakana: [0x30a0, 0x30ff],
  CJKUnifiedIdeographs: [0x4e00, 0x9fff],
});

/**
 * Reads an XPath regular expression (F&O 3.1, 5.6.1, on XML Schema part 2, appendix G).
 * `flags` are `s m i x q`.
 */
export function parseXPath(source: string, flags: string): ParsedPattern {
  const has = (letter: string) => flags.includes(letter);
  const ignoreCase = has("i");
  if (has("q")) {
    return { node: sequence([...source].map((c) => oneChar(c.codePointAt(0)!))), groups: 0, ignoreCase };
  }
  const reader: Reader = new Reader(has("x") ? withoutBlanks(source) : source);
  let groups = 0;
  const closed = new Set<number>();

  function choice(depth: number): PatternNode {
    if (depth > patternDepth) reader.fail(`groups are nested deeper than ${patternDepth}`);
    const options = [branch()];
    while (reader.take("|")) options.push(branch());
    return options.length === 1 ? options[0] : { kind: "choice", options };

    function branch(): PatternNode {
      const items: PatternNode[] = [];
      const from = reader.offset;
      while (!reader.done && reader.peek() !== "|" && reader.peek() !== ")") {
        const start = reader.offset;
        items.push(quantified(reader.placed(atom(depth), start), start));
      }
      return reader.placed(sequence(items), from);
    }
  }

  function quantified(item: PatternNode, start: number): PatternNode {
    let bounds: { min: number; max: number };
    if (reader.take("*")) bounds = { min: 0, max: Infinity };
    else if (reader.take("+")) bounds = { min: 1, max: Infinity };
    else if (reader.take("?")) bounds = { min: 0, max: 1 };
    else if (reader.take("{")) bounds = readBounds(reader, repeatBound) ?? reader.fail("a repeat count is not complete");
    else return item;
    const greedy = !reader.take("?");
    return reader.placed({ kind: "repeat", item, ...bounds, greedy }, start);
  }

  function atom(depth: number): PatternNode {
    const start = reader.offset;
    const char = reader.next();
    switch (char) {
      case "(": {
        const capturing = !reader.take("?:");
        if (capturing && reader.peek() === "?") reader.fail("a group starts in an unknown way", start);
        const index = capturing ? ++groups : 0;
        const item = choice(depth + 1);
        if (!reader.take(")")) reader.fail("a group is not closed", start);
        closed.add(index);
        return capturing ? { kind: "group", item, index } : item;
      }
      case "[":
        return { kind: "set", set: bracket(start) };
      case ".":
        return { kind: "set", set: has("s") ? anyChar : notChars(10, 13) };
      case "^":
        return { kind: "assertion", at: has("m") ? "line start" : "text start" };
      case "$":
        return { kind: "assertion", at: has("m") ? "line end" : "text end" };
      case "\\":
        return escape(start);
      case "*":
      case "+":
      case "?":
      case "{":
        return reader.fail("a quantifier needs something to repeat", start);
      case "}":
      case "]":
        return reader.fail(`"${char}" must be written \\${char}`, start);
      default:
        return oneChar(char.codePointAt(0)!);
    }
  }

  function escape(start: number): PatternNode {
    const digit = reader.match(/[1-9]/y);
    if (digit) {
      let index = Number(digit[0]);
      for (let more; (more = /\d/.exec(reader.peek())) && closed.has(index * 10 + Number(more[0])); reader.next()) {
        index = index * 10 + Number(more[0]);
      }
      if (!closed.has(index)) reader.fail(`there is no group ${index} before this back reference`, start);
      return { kind: "backreference", index };
    }
    const item = escapedItem(start);
    return typeof item === "number" ? oneChar(item) : { kind: "set", set: item };
  }

  function escapedItem(start: number): CharSet | number {
    const letter = reader.next();
    if (letter === "p" || letter === "P") return property(letter === "P", start);
    const lower = letter.toLowerCase();
    if (lower in escapes) {
      const negated = letter !== lower;
      return lower === "w" ? charClass("\\p{P}\\p{Z}\\p{C}", !negated) : charClass(escapes[lower], negated);
    }
    if (letter === "n") return 10;
    if (letter === "r") return 13;
    if (letter === "t") return 9;
    if (/^[\\|.\-^?*+{}()[\]$]$/.test(letter)) return letter.codePointAt(0)!;
    return reader.fail(letter ? `\\${letter} means nothing here` : "a backslash ends the pattern", start);
  }

  function property(negated: boolean, start: number): CharSet {
    const name = reader.match(/\{([^}]*)\}/y)?.[1];
    if (name === undefined) reader.fail("a property needs its name in braces", start);
    if (name.startsWith("Is")) {
      const block = blocks[name.slice(2)];
      if (!block) reader.fail(`the block "${name}" is not covered yet`, start);
      return { ranges: [block], classes: [], negated };
    }
    if (!categories.test(name)) reader.fail(`there is no category "${name}"`, start);
    return charClass(`\\p{${name}}`, negated);
  }

  function bracket(start: number): CharSet {
    const negated = reader.take("^");
    const ranges: (readonly [number, number])[] = [];
    const classes: string[] = [];
    let minus: CharSet | undefined;
    for (let first = true; ; first = false) {
      if (reader.done) reader.fail("a bracket is not closed", start);
      if (reader.take("]")) {
        if (first) reader.fail("a bracket is empty", start);
        return { ranges, classes, negated, ...(minus && { minus }) };
      }
      if (!first && reader.take("-[")) {
        minus = bracket(reader.offset - 1);
        if (reader.peek() !== "]") reader.fail("a subtraction must end the bracket");
        continue;
      }
      const low = bracketItem(first);
      if (typeof low !== "number") {
        if (low.negated || low.ranges.length) classes.push(low.ranges.length ? rangeSource(low) : `[^${low.classes.join("")}]`);
        else classes.push(...low.classes);
        continue;
      }
      const rest = reader.source.slice(reader.offset, reader.offset + 2);
      if (rest[0] === "-" && rest[1] !== "]" && rest[1] !== "[" && rest.length === 2) {
        reader.next();
        const high = bracketItem(false);
        if (typeof high !== "number" || high < low) reader.fail("a range in a bracket is not in order");
        else ranges.push([low, high]);
      } else ranges.push([low, low]);
    }
  }

  function bracketItem(first: boolean): CharSet | number {
    const start = reader.offset;
    const char = reader.next();
    if (char === "\\") return escapedItem(start);
    if (char === "[") reader.fail('"[" must be written \\[ in a bracket', start);
    if (char === "-" && !first && reader.peek() !== "]") reader.fail('"-" must be written \\- here', start);
    return char.codePointAt(0)!;
  }

  const node = choice(0);
  if (!reader.done) reader.fail("a closing bracket has no opening one");
  return { node, groups, ignoreCase, ...(!has("x") && { places: reader.places }) };
}

const rangeSource = (set: CharSet) =>
  `[${set.negated ? "^" : ""}${set.ranges.map(([a, b]) => `\\u{${a.toString(16)}}-\\u{${b.toString(16)}}`).join("")}]`;

/** Flag `x`: white space outside brackets is no part of the pattern. */
function withoutBlanks(source: string): string {
  let depth = 0;
  return source.replace(/\\[^ \t\n\r]|\[|\]|[ \t\n\r]/g, (part) => {
    if (part === "[") depth++;
    if (part === "]") depth--;
    return depth === 0 && /^[ \t\n\r]$/.test(part) ? "" : part;
  });
}
