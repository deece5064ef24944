import { withoutAccents } from "../text/folding.ts";
import { countCodePoints } from "../values/units.ts";
import { type TextKind, kindOfText } from "./kinds.ts";

/** How the letters of a text are written: `first capital` is the first word with one, `capitalised` each word. */
export type LetterCase = "upper" | "lower" | "first capital" | "capitalised" | "mixed" | "no letters";

/** What can be seen of one text. */
export interface TextFacts {
  readonly kind: TextKind;
  /** In code points. */
  readonly length: number;
  readonly letterCase: LetterCase;
  /** Its form: words, digits and marks, see `shapeOf`. */
  readonly shape: string;
  /** White space at the start or the end. */
  readonly hasOuterSpace: boolean;
  /** White space within that is not one plain space. */
  readonly hasInnerSpace: boolean;
  /** Each white space but a plain one, and each character that nothing is seen of. */
  readonly unseen: readonly string[];
  /** Whether it is in normal form C. */
  readonly isComposed: boolean;
}

const unseen = /[^\S ]|\p{C}|[\u200b-\u200f\u2060]/gu;

export function factsOf(text: string): TextFacts {
  const trimmed = text.trim();
  return {
    kind: kindOfText(text),
    length: countCodePoints(text),
    letterCase: caseOf(text),
    shape: shapeOf(text),
    hasOuterSpace: trimmed.length < text.length,
    hasInnerSpace: /\s\s|[^\S ]/.test(trimmed),
    unseen: [...new Set(text.match(unseen))],
    isComposed: /^[\0-\u02ff]*$/.test(text) || text === text.normalize("NFC"),
  };
}

function caseOf(text: string): LetterCase {
  const hasUpper = /\p{Lu}/u.test(text);
  const hasLower = /\p{Ll}/u.test(text);
  if (!hasUpper) return hasLower ? "lower" : "no letters";
  if (!hasLower) return "upper";
  if (/^\P{L}*\p{Lu}[^\p{Lu}]*$/u.test(text) && /\p{L}[^\p{L}\p{M}'’]+\p{Ll}/u.test(text)) return "first capital";
  return /(?<![\p{L}\p{M}])\p{Ll}|[\p{L}\p{M}]\p{Lu}/u.test(text) ? "mixed" : "capitalised";
}

/** Characters of a text that its shape is made from, and of a shape. */
const [readLength, shapeLength] = [200, 60];
const superscripts = "⁰¹²³⁴⁵⁶⁷⁸⁹";
const parts = /(?:\p{Lu}\p{M}*)+|(?:\p{Ll}\p{M}*)+|(?:\p{L}\p{M}*)+|\p{Nd}+|\s+/gu;

/**
 * The form of a text: `A` for capitals, `a` for small letters, `x` for letters without case, `0` with their number for
 * digits; `+` after several words alike; a space where it is one between others, `·` for each of any others. Marks stand for
 * themselves: `HB#0412#A` is `A#0⁴#A`, `Lindqvist, Åsa` is `Aa, Aa`.
 */
export function shapeOf(text: string): string {
  const read = text.slice(0, readLength);
  const shape = read
    .replace(parts, (part, at: number) => {
      if (/^\p{Lu}/u.test(part)) return "A";
      if (/^\p{Ll}/u.test(part)) return "a";
      if (/^\p{L}/u.test(part)) return "x";
      if (/^\p{Nd}/u.test(part))
        return part.length === 1 ? "0" : `0${[...String(part.length)].map((digit) => superscripts[Number(digit)]).join("")}`;
      return part === " " && at > 0 && at + 1 < read.length ? " " : "·".repeat(part.length);
    })
    .replace(/(?<![\p{L}])(A|a|Aa|x)(?: \1(?![\p{L}]))+/gu, "$1+");
  return shape.length > shapeLength || text.length > readLength ? `${shape.slice(0, shapeLength)}…` : shape;
}

/** What texts have in common that differ only in case, white space, accents. */
export const nearKey = (text: string): string =>
  withoutAccents(text.normalize("NFKC"))
    .toLowerCase()
    .replace(/[\s\u200b-\u200f\u2060]+/gu, " ")
    .trim();
