import { type CharSet, PatternError, type PatternNode, membership } from "./ast.ts";
import { type Flavour, parsePattern } from "./compile.ts";

/** UTF-16 units beyond which no text is tried. */
const longestText = 400;

/** Characters that sets are tried with, plain ones first. */
const candidates: readonly number[] = [..."aB3 -,._bZ7/é٣Å\n\tßǅ中€"].map((char) => char.codePointAt(0)!);

function charsOf(set: CharSet): number[] {
  const has = membership(set, false);
  const own = set.negated ? [] : set.ranges.flatMap(([low, high]) => [low, high]);
  return [...new Set([...candidates, ...own])].filter(
    (code) => code <= 0x10ffff && (code < 0xd800 || code > 0xdfff) && has(code),
  );
}

/** Texts that a part is likely to fit, few of each. */
function textsFor(node: PatternNode, groups: Map<number, string>): string[] {
  switch (node.kind) {
    case "set":
      return charsOf(node.set)
        .slice(0, 14)
        .map((code) => String.fromCodePoint(code));
    case "sequence": {
      const parts = node.items.map((item) => textsFor(item, groups));
      const most = Math.min(24, Math.max(1, ...parts.map(({ length }) => length)));
      return Array.from({ length: most }, (_, i) =>
        parts.map((texts, k) => texts[(i + (i > 0 ? k : 0)) % Math.max(1, texts.length)] ?? "").join(""),
      );
    }
    case "choice":
      return node.options.flatMap((option) => textsFor(option, groups).slice(0, 6));
    case "repeat": {
      const texts = textsFor(node.item, groups);
      const longest = Math.max(1, ...texts.map(({ length }) => length));
      const counts = [...new Set([Math.max(1, node.min), node.min, Math.min(node.max, node.min + 2)])].filter(
        (count) => count * longest < longestText,
      );
      return counts.flatMap((count) =>
        texts
          .slice(0, 12)
          .map((text, i) => Array.from({ length: count }, (_, k) => (k === 0 ? text : texts[(i + k) % texts.length])).join("")),
      );
    }
    case "group": {
      const texts = textsFor(node.item, groups);
      groups.set(node.index, texts[0] ?? "");
      return texts;
    }
    case "atomic":
      return textsFor(node.item, groups);
    case "look":
      return node.negated || !node.ahead ? [""] : ["", ...textsFor(node.item, groups).slice(0, 3)];
    case "backreference":
      return [groups.get(node.index) ?? ""];
    case "condition":
      return [...textsFor(node.yes, groups), ...textsFor(node.no, groups)];
    default:
      return [""];
  }
}

/** Texts to try a pattern on: what it is likely to fit, the same changed a little, and what often goes wrong. */
export function likelyTexts(root: PatternNode): string[] {
  const fitting = textsFor(root, new Map()).slice(0, 60);
  const changed = fitting
    .slice(0, 20)
    .flatMap((text) => [
      `${text}\n`,
      `\n${text}`,
      `x ${text}`,
      `${text} y`,
      text.slice(1),
      text.slice(0, -1),
      text.toUpperCase(),
      text.toLowerCase(),
      `${text}${text}`,
      `é${text}`,
      `${text}_`,
    ]);
  return [...new Set([...fitting, ...changed, "", "a\nb", "é", "٣", "Ångström 12"])].filter((text) => text.length < longestText);
}

/** Texts to try a written pattern on; none where its flavour does not allow it. */
export function textsToTry(flavour: Flavour, source: string, flags: string): string[] {
  try {
    return likelyTexts(parsePattern(flavour, source, flags).node);
  } catch (error) {
    if (error instanceof PatternError) return [];
    throw error;
  }
}
