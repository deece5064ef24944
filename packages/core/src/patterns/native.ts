import { type CharSet, type PatternNode, classSource, membership } from "./ast.ts";
import { sizeOf } from "./program.ts";

/**
 * When the host's own engine may run a pattern: it must give the flavour's match, and must not
 * take more than `length ** degree` time.
 */
export interface NativePlan {
  readonly source: string;
  readonly flags: string;
  /** The time on a text of n characters grows at most like n to this power. */
  readonly degree: number;
}

/** What a match is wanted for: `test` only asks whether there is one. */
export type Rule = "first" | "longest" | "test";

/** Steps beyond which a pattern is not given to the host's engine, which reads it by recursion. */
const nativeSize = 2000;

/** A plan for the host's engine, or undefined where it is not proven to be right and bounded. */
export function planNative(node: PatternNode, ignoreCase: boolean, rule: Rule): NativePlan | undefined {
  const facts = { choices: false, lazy: false, groups: 0, refused: sizeOf(node) > nativeSize };
  inspect(node, false, facts);
  if (facts.refused) return undefined;
  const items = flatten(node);
  const overlaps = items.filter((item, i) => item.kind === "repeat" && overlapsRest(item, items.slice(i + 1), ignoreCase));
  const last = items[items.length - 1];
  const endFixed = last?.kind === "assertion" && last.at === "text end";
  const groupedRepeat = items.some((item) => item.kind === "repeat" && item.item.kind !== "set");
  if (rule === "longest" && (facts.choices || facts.lazy || groupedRepeat || (overlaps.length > 0 && !endFixed))) {
    return undefined;
  }
  const anchored = items[0]?.kind === "assertion" && items[0].at === "text start";
  // A single item, repeated or not, never has to go back.
  const degree = items.length === 1 ? 1 : (anchored ? 1 : 2) + overlaps.length;
  return { source: nativeSource(node), flags: ignoreCase ? "iv" : "v", degree };
}

interface Facts {
  choices: boolean;
  lazy: boolean;
  groups: number;
  refused: boolean;
}

/** Notes what stands in the way; a repeat of anything but one character can explode, unless it is optional only. */
function inspect(node: PatternNode, inRepeat: boolean, facts: Facts): void {
  switch (node.kind) {
    case "set":
      return;
    case "sequence":
      for (const item of node.items) inspect(item, inRepeat, facts);
      return;
    case "choice":
      facts.choices = true;
      for (const option of node.options) inspect(option, inRepeat, facts);
      return;
    case "group":
      // The host counts its groups, where some may share a number.
      if (node.index !== ++facts.groups) facts.refused = true;
      inspect(node.item, inRepeat, facts);
      return;
    case "repeat":
      if (!node.greedy) facts.lazy = true;
      if (node.item.kind !== "set" && (inRepeat || node.max > 1)) facts.refused = true;
      if (inRepeat && node.max > 1) facts.refused = true;
      inspect(node.item, true, facts);
      return;
    case "assertion":
      if (node.at !== "text start" && node.at !== "text end") facts.refused = true;
      return;
    default:
      facts.refused = true;
  }
}

/** The items of a pattern in a row, groups opened. */
function flatten(node: PatternNode): PatternNode[] {
  if (node.kind === "sequence") return node.items.flatMap(flatten);
  if (node.kind === "group") return flatten(node.item);
  return [node];
}

/** Whether a character of `item` may also begin what follows it, so that there are several ways to match. */
function overlapsRest(item: PatternNode & { kind: "repeat" }, rest: readonly PatternNode[], ignoreCase: boolean): boolean {
  if (item.item.kind !== "set") return true;
  for (const next of rest) {
    const set = next.kind === "repeat" ? next.item : next;
    if (set.kind === "assertion") continue;
    if (set.kind !== "set" || !disjoint(item.item.set, set.set, ignoreCase)) return true;
    if (next.kind !== "repeat" || next.min > 0) return false;
  }
  return false;
}

function disjoint(a: CharSet, b: CharSet, ignoreCase: boolean): boolean {
  const isSmall = (set: CharSet) =>
    !set.negated && set.classes.length === 0 && !set.minus && set.ranges.every(([low, high]) => high - low < 128);
  const [small, other] = isSmall(a) ? [a, b] : isSmall(b) ? [b, a] : [undefined, undefined];
  if (!small) return false;
  const has = membership(other, ignoreCase);
  return small.ranges.every(([low, high]) => {
    for (let codePoint = low; codePoint <= high; codePoint++) if (has(codePoint)) return false;
    return true;
  });
}

function nativeSource(node: PatternNode): string {
  switch (node.kind) {
    case "set":
      return classSource(node.set);
    case "sequence":
      return node.items.map(nativeSource).join("");
    case "choice":
      return `(?:${node.options.map(nativeSource).join("|")})`;
    case "group":
      return `(${nativeSource(node.item)})`;
    case "assertion":
      return node.at === "text start" ? "^" : "$";
    case "repeat": {
      const item = node.item.kind === "set" ? nativeSource(node.item) : `(?:${nativeSource(node.item)})`;
      const bounds = node.max === Infinity ? `{${node.min},}` : `{${node.min},${node.max}}`;
      return item + bounds + (node.greedy ? "" : "?");
    }
    default:
      throw new Error(`a ${node.kind} has no native form here`);
  }
}
