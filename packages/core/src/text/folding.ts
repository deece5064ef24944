import type { AnswerOf } from "../traits/index.ts";
import { generalGroups } from "./collations/general.ts";
import { unicodeExpansions, unicodeIgnored, unicodeOrder } from "./collations/unicode.ts";

const inAscii = (text: string): string =>
  isInAscii(text) ? text.toLowerCase() : text.replace(/[A-Z]/g, (letter) => letter.toLowerCase());

/** A text in lower case letter by letter, so that places are kept. */
function lowered(text: string): string {
  if (!/[^\0-\x7f]/.test(text)) return text.toLowerCase();
  let result = "";
  for (const char of text) result += char === "İ" ? "i" : char.toLowerCase();
  return result;
}

/** Letters without what their canonical decomposition adds to them. */
export const withoutAccents = (text: string): string =>
  text
    .normalize("NFD")
    .replace(/\p{Mn}+/gu, "")
    .normalize("NFC");

/** Makes something when it is first asked for. */
function later<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** What was made of the last text: the same one is often asked about several times in a row. */
function remembered<T>(make: (text: string) => T): (text: string) => T {
  let last: string | undefined;
  let made: T;
  return (text) => {
    if (text !== last) [last, made] = [text, make(text)];
    return made;
  };
}

/** Whether a text has no character beyond U+007F. */
export const isInAscii = remembered((text) => !/[^\0-\x7f]/.test(text));

/** Each character of a text by a table; a character beyond U+FFFF by `beyond`, which takes two units as well. */
function eachBy(table: () => ReadonlyMap<string, string>, beyond: (char: string) => string) {
  // In ASCII a table may say what the host does for a whole text at once.
  const asHost = later(() => {
    const map = table();
    const ascii = String.fromCharCode(...Array.from({ length: 128 }, (_, code) => code));
    const folded = [...ascii].map((char) => map.get(char) ?? char).join("");
    return folded === ascii.toUpperCase() ? "toUpperCase" : folded === ascii.toLowerCase() ? "toLowerCase" : undefined;
  });
  return (text: string): string => {
    const host = isInAscii(text) ? asHost() : undefined;
    if (host) return text[host]();
    const map = table();
    let result = "";
    for (const char of text) result += char.length > 1 ? beyond(char) : (map.get(char) ?? char);
    return result;
  };
}

const generalTable = later(() => {
  const table = new Map<string, string>();
  for (const group of generalGroups.trimEnd().split(" ")) for (const char of group.slice(1)) table.set(char, group[0]);
  return table;
});

const unicodeGroups = later(() => unicodeOrder.split("\0").filter((group) => group !== ""));

const unicodeTable = later(() => {
  const table = new Map<string, string>();
  for (const group of unicodeGroups()) for (const char of group) table.set(char, group[0]);
  return table;
});

/** The weights of each character as UTF-16 units: its place in the order, from 1. */
const unicodeWeights = later(() => {
  const table = new Map<string, string>();
  unicodeGroups().forEach((group, i) => {
    for (const char of group) table.set(char, String.fromCharCode(i + 1));
  });
  for (const char of unicodeIgnored) table.set(char, "");
  for (const entry of unicodeExpansions.split("\0")) {
    const [char, ...others] = entry;
    if (char) table.set(char, others.map((other) => table.get(other) ?? "").join(""));
  }
  return table;
});

/** A text as its weights; what the order does not list weighs by its code point, after all others. */
function weigh(text: string): string {
  const table = unicodeWeights();
  let result = "";
  for (const char of text) {
    const code = char.codePointAt(0)!;
    result +=
      table.get(char) ?? (code > 0xffff ? "\ufffd" : String.fromCharCode(0xfbc0 + (code >> 15), (code & 0x7fff) | 0x8000));
  }
  return result;
}

/** How the answers to `case` make texts alike. */
interface Folding {
  /** One character for each character, of as many units, so that places are kept. */
  readonly fold: (text: string) => string;
  /** What two texts are compared by, where that is more than their folded forms. */
  readonly key?: (text: string) => string;
}

const foldings: Readonly<Record<AnswerOf<"case">, Folding>> = {
  minded: { fold: (text) => text },
  ignored: { fold: (text) => text.toLowerCase() },
  lowered: { fold: lowered },
  "ignored in ascii": { fold: remembered(inAscii) },
  "accents ignored": { fold: withoutAccents },
  "both ignored": { fold: (text) => withoutAccents(text.toLowerCase()) },
  general: { fold: remembered(eachBy(generalTable, () => "\u{10fffd}")) },
  unicode: { fold: remembered(eachBy(unicodeTable, () => "\u{10fffd}")), key: remembered(weigh) },
};

/** What makes letters alike that the trait `case` does not tell apart. */
export const foldingOf = (letterCase: AnswerOf<"case">): ((text: string) => string) => foldings[letterCase].fold;

/** What texts are compared and ordered by under the trait `case`. */
export const keyOf = (letterCase: AnswerOf<"case">): ((text: string) => string) =>
  foldings[letterCase].key ?? foldings[letterCase].fold;
