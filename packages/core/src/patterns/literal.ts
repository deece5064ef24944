import { type PatternNode, anyChar, partsOfPattern } from "./ast.ts";

/** Whether a part takes any run of characters. */
const isAnyRun = (node: PatternNode | undefined): boolean =>
  node?.kind === "repeat" && node.min === 0 && node.max === Infinity && node.item.kind === "set" && node.item.set === anyChar;

/** The one code point that a part fits; undefined where there are more, or half a character. */
function onlyCodePoint(node: PatternNode): number | undefined {
  if (node.kind !== "set" || node.set.negated || node.set.classes.length > 0 || node.set.minus) return undefined;
  const [[first, last] = [-1, 0], ...others] = node.set.ranges;
  return others.length === 0 && first === last && !(first >= 0xd800 && first <= 0xdfff) ? first : undefined;
}

const opened = (node: PatternNode): readonly PatternNode[] =>
  node.kind === "sequence" ? partsOfPattern(node).flatMap(opened) : [node];

/** The text of parts that fit one code point each; undefined where one fits others, or there are none. */
function textOf(parts: readonly PatternNode[]): string | undefined {
  const codes = parts.map(onlyCodePoint);
  if (codes.length === 0 || codes.includes(undefined)) return undefined;
  return (codes as number[]).map((code) => String.fromCodePoint(code)).join("");
}

/** The one text that a pattern fits, case minded; undefined for any other. */
export const onlyText = (node: PatternNode): string | undefined => textOf(opened(node));

/** How a pattern that is a text between any runs, case minded, is looked for without an engine; undefined for any other. */
export function plainTest(node: PatternNode): ((text: string) => boolean) | undefined {
  const items = [...opened(node)];
  const take = (at: 0 | -1, place: "text start" | "text end"): boolean => {
    const item = items.at(at);
    if (item?.kind !== "assertion" || item.at !== place) return true;
    items.splice(at, 1);
    if (!isAnyRun(items.at(at))) return false;
    items.splice(at, 1);
    return true;
  };
  const isOpen = [take(0, "text start"), take(-1, "text end")];
  const wanted = textOf(items);
  if (wanted === undefined) return undefined;
  if (isOpen[0]) return isOpen[1] ? (text) => text.includes(wanted) : (text) => text.endsWith(wanted);
  return isOpen[1] ? (text) => text.startsWith(wanted) : (text) => text === wanted;
}
