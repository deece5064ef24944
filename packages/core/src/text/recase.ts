import { lowerOnly, upperOnly, upperPairs } from "./collations/early-case.ts";
import { simpleLower, simpleUpper, stretches, tick } from "../values/index.ts";
import { isWatched, mapped } from "./pieces.ts";
import { operation, text } from "./operation.ts";
import { widths } from "./width.ts";

/** The case mappings by name: one text to another. */
const mappings = {
  full: { upper: (value: string) => value.toUpperCase(), lower: (value: string) => value.toLowerCase() },
  simple: { upper: eachWhereNeeded(simpleUpper, "toUpperCase"), lower: eachWhereNeeded(simpleLower, "toLowerCase") },
  "simple, capital ß": {
    upper: eachWhereNeeded((char) => (char === "ß" ? "ẞ" : simpleUpper(char)), "toUpperCase"),
    lower: eachWhereNeeded(simpleLower, "toLowerCase"),
  },
  "early simple": { upper: earlyCase("upper"), lower: earlyCase("lower") },
  ascii: {
    upper: (value: string) => value.replace(/[a-z]+/g, (run) => run.toUpperCase()),
    lower: (value: string) => value.replace(/[A-Z]+/g, (run) => run.toLowerCase()),
  },
} as const;

const beyondAscii = /[^\0-\x7f]/;

/** The host's mapping is one to one but for a few letters; only a text that may hold one is mapped letter by letter. */
function eachWhereNeeded(map: (char: string) => string, host: "toUpperCase" | "toLowerCase") {
  let others: RegExp | undefined;
  return (value: string) => {
    if (!beyondAscii.test(value)) return value[host]();
    // A sigma at the end of a word depends on what stands before it.
    others ??= new RegExp(`[${charsWhere((char) => char === "Σ" || map(char) !== char[host]())}]`, "gu");
    if (value.search(others) < 0) return value[host]();
    let [result, kept] = ["", 0];
    for (const { 0: char, index } of value.matchAll(others)) {
      tick(64);
      result += value.slice(kept, index)[host]() + map(char);
      kept = index + char.length;
    }
    return result + value.slice(kept)[host]();
  };
}

/** The characters of the scripts with case for which something holds. */
function charsWhere(holds: (char: string) => boolean): string {
  let found = "";
  for (let code = 0x80; code < 0x1ffff; code++) {
    const char = String.fromCodePoint(code);
    if ((code < 0xd800 || code > 0xdfff) && holds(char)) found += char;
  }
  return found;
}

function earlyCase(form: "upper" | "lower"): (value: string) => string {
  let table: Map<string, string> | undefined;
  return (value) => {
    if (!beyondAscii.test(value)) return form === "upper" ? value.toUpperCase() : value.toLowerCase();
    table ??= earlyTable(form);
    let result = "";
    for (const part of stretches(value)) {
      tick(part.length);
      for (const char of part) result += table.get(char) ?? char;
    }
    return result;
  };
}

function earlyTable(form: "upper" | "lower"): Map<string, string> {
  const table = new Map<string, string>();
  const add = (pairs: string, from: 0 | 1) => {
    const chars = [...pairs];
    for (let i = 0; i < chars.length; i += 2) table.set(chars[i + from], chars[i + 1 - from]);
  };
  const pairs = [...upperPairs];
  const own = form === "upper" ? pairs : pairs.filter((_, i) => !upperOnly.includes(pairs[i - (i % 2)]));
  add(own.join(""), form === "upper" ? 0 : 1);
  if (form === "lower") add(lowerOnly, 0);
  return table;
}

/** Each character without the marks of its canonical decomposition; combining marks by themselves go too. */
function stripped(value: string): string {
  let result = "";
  for (const part of stretches(value)) {
    tick(part.length);
    for (const char of part) {
      const parts = char.normalize("NFD");
      result += parts === char ? (/\p{Mn}/u.test(char) ? "" : char) : parts.replace(/\p{Mn}+/gu, "");
    }
  }
  return result;
}

/** What belongs to a word, with the answers for the first 128 code points worked out. */
const wordShape = (shape: RegExp) => ({
  shape,
  ascii: Array.from({ length: 128 }, (_, code) => shape.test(String.fromCharCode(code))),
});

const wordChars = {
  "not a letter": wordShape(/\p{L}|\p{M}/u),
  "not ascii alphanumeric": wordShape(/[A-Za-z0-9]/),
  "not alphanumeric": wordShape(/[\p{Alphabetic}\p{Nd}]/u),
  space: wordShape(/\S/u),
  nothing: wordShape(/[^]/u),
} as const;

/** A text of ASCII, whose letters are the same in all mappings, with each word's first character large; `rest` has the others. */
function titled(value: string, rest: string, isWordChar: readonly boolean[]): string {
  let [result, start, inWord] = ["", 0, false];
  for (let at = 0; at < value.length; at++) {
    const isWord = isWordChar[value.charCodeAt(at)];
    if (isWord && !inWord) {
      result += rest.slice(start, at) + value.charAt(at).toUpperCase();
      start = at + 1;
    }
    inWord = isWord;
  }
  return result + rest.slice(start);
}

/** Changes the case of letters. */
export const recase = operation({
  id: "recase",
  family: "recase",
  summary: "changes the case or the width of letters",
  slots: [text("text")],
  traits: ["missing", "form", "mapping", "words", "restOfWord"],
  prepare({ form, mapping, words, restOfWord }) {
    const { upper, lower } = mappings[mapping];
    const told = (map: (value: string) => string) => (value: string) => mapped(value, map(value), map);
    if (form === "unaccented") return told(stripped);
    if (form === "half width" || form === "full width") return told(widths[form]);
    if (form !== "title") return told(mappings[mapping][form]);
    const { shape, ascii } = wordChars[words];
    const rest = restOfWord === "kept" ? (value: string) => value : lower;
    return (value: string) => {
      if (!beyondAscii.test(value) && !isWatched())
        return titled(value, restOfWord === "kept" ? value : value.toLowerCase(), ascii);
      let result = "";
      let start = 0;
      let inWord = false;
      // Cuts the text before and after the first letter of each word; the stretches are mapped whole.
      for (let at = 0; at < value.length;) {
        const code = value.charCodeAt(at);
        const char = code < 128 ? "" : String.fromCodePoint(value.codePointAt(at)!);
        const size = char.length || 1;
        const isWord = code < 128 ? ascii[code] : shape.test(char);
        if (isWord && !inWord) {
          if (at > start) result += rest(value.slice(start, at));
          result += upper(value.slice(at, at + size));
          start = at + size;
        }
        inWord = isWord;
        at += size;
      }
      if (start < value.length) result += rest(value.slice(start));
      return mapped(value, result, upper);
    };
  },
});
