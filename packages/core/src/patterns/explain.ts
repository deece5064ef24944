import { type Flavour, OverBudget, compileParsed, hasEscape, newBudget, parsePattern, ruleOf } from "./compile.ts";
import type { Rule } from "./native.ts";
import type { TextRange } from "../values/index.ts";
import { type AssertionPlace, type ParsedPattern, type PatternNode, PatternError } from "./ast.ts";
import { isLiteral, literalOf, setWords } from "./classes.ts";

/** A part of a pattern, with what it fits. */
export interface PatternPart {
  /** What is written; left out where the pattern is read in another form. */
  readonly text?: string;
  /** Where it stands in the pattern, 0-based, in UTF-16 units. */
  readonly range?: TextRange;
  readonly says: string;
  /** How deep it is nested, 0 for the outermost. */
  readonly depth: number;
  /** What it fitted last; undefined where it took no part, or no text was given. */
  readonly matched?: string;
}

/** A pattern part by part. */
export interface ExplainedPattern {
  readonly parts: readonly PatternPart[];
  /** The first match in the text that was given; left out where there is none. */
  readonly match?: { readonly start: number; readonly text: string };
}

const places: Readonly<Record<AssertionPlace, string>> = {
  "search start": "where the search begins",
  "text start": "the start of the text",
  "text end": "the end of the text",
  "line start": "the start of a line",
  "inner line start": "the start of a line",
  "line end": "the end of a line",
  "last line end": "the end of the text, or before a line feed that ends it",
  "word start": "the start of a word",
  "word end": "the end of a word",
  "word edge": "the start or the end of a word",
  "not word edge": "no start or end of a word",
  "ascii word edge": "the start or the end of a word of letters from a to z, digits and _",
  "not ascii word edge": "no start or end of a word of letters from a to z, digits and _",
};

/** How often, in words. */
function times(min: number, max: number): string {
  if (min === max) return min === 1 ? "once" : `${min} times`;
  if (max === Infinity)
    return min === 0 ? "any number of times, also not at all" : min === 1 ? "once or more" : `${min} times or more`;
  if (min === 0 && max === 1) return "or not at all";
  return min === 0 ? `up to ${max} times, also not at all` : `${min} to ${max} times`;
}

const many = (min: number, max: number): string => {
  if (min === max) return String(min);
  if (max === Infinity) return min === 0 ? "any number of" : min === 1 ? "one or more" : `${min} or more`;
  return min === 0 ? `up to ${max}` : `${min} to ${max}`;
};

function repeatWords({ item, min, max, greedy }: PatternNode & { kind: "repeat" }, rule: Rule): string {
  const few = greedy || min === max ? "" : ", as few as will do";
  if (item.kind === "set" && !isLiteral(item) && max > 1) return `${many(min, max)} ${setWords(item.set, true)}${few}`;
  return `${wordsOf(item, rule)}, ${times(min, max)}${few}`;
}

/** What a part fits, in words; of one with parts of its own only what it does with them. */
function wordsOf(node: PatternNode, rule: Rule): string {
  switch (node.kind) {
    case "set":
      return setWords(node.set, false);
    case "repeat":
      return repeatWords(node, rule);
    case "group":
      return `group ${node.index}${onlyPart(node, rule)}`;
    case "assertion":
      return places[node.at];
    case "sequence":
      return node.items.length === 0
        ? "nothing at all"
        : node.items.every(isLiteral)
          ? `"${node.items.map((item) => literalOf(item)).join("")}"`
          : "one after another";
    case "choice":
      return rule === "longest" ? "one of these, the longest that fits" : "one of these, the first that fits";
    case "look":
      return `${node.ahead ? "followed" : "preceded"} by${node.negated ? " none of" : ""} this, which is not taken${onlyPart(node, rule)}`;
    case "atomic":
      return `not given up again when the rest does not fit${onlyPart(node, rule)}`;
    case "backreference":
      return `what group ${node.index} matched, again`;
    case "call":
      return node.index === 0 ? "the whole pattern again" : `the pattern of group ${node.index} again`;
    case "condition":
      return "one of two, by a condition";
    case "keep":
      return "here begins what is given as the match";
    case "verb":
    case "accept":
      return `a verb: ${node.kind === "verb" ? node.verb : "accept"}`;
  }
}

/** What stands in brackets, where it is one part without parts of its own. */
function onlyPart({ item }: PatternNode & { readonly item: PatternNode }, rule: Rule): string {
  return isLeaf(item) ? `: ${wordsOf(item, rule)}` : "";
}

const isLeaf = (node: PatternNode): boolean => innerOf(node).length === 0;

/** The parts that a part is explained by: those of a repeat, a group, or a choice, and runs of characters together. */
function innerOf(node: PatternNode): readonly PatternNode[] {
  switch (node.kind) {
    case "sequence":
      return node.items.every(isLiteral) ? [] : runsOf(node.items);
    case "choice":
      return node.options;
    case "group":
    case "look":
    case "atomic":
      return isLeaf(node.item) ? [] : node.item.kind === "sequence" ? innerOf(node.item) : [node.item];
    case "repeat":
      return innerOf(node.item);
    case "condition":
      return [node.yes, node.no];
    default:
      return [];
  }
}

/** Characters that stand side by side as one part, and the items of a sequence within another one. */
function runsOf(items: readonly PatternNode[]): PatternNode[] {
  const runs: PatternNode[][] = [];
  for (const item of items) {
    const last = runs.at(-1);
    if (last && isLiteral(item) && isLiteral(last[0])) last.push(item);
    else runs.push([item]);
  }
  return runs.flatMap((run): readonly PatternNode[] => {
    if (run.length > 1) return [{ kind: "sequence", items: run }];
    const [only] = run;
    return only.kind === "sequence" && only.items.length > 0 ? runsOf(only.items) : [only];
  });
}

/** A place for each part: its own, or that of its first and last item. */
function placeOf(node: PatternNode, known: ParsedPattern["places"]): TextRange | undefined {
  const own = known?.get(node);
  const inner = node.kind === "sequence" ? node.items : node.kind === "choice" ? node.options : [];
  if (own || inner.length === 0) return own;
  const [first, last] = [placeOf(inner[0], known), placeOf(inner.at(-1)!, known)];
  return first && last && { start: first.start, end: last.end };
}

interface Listed {
  readonly node: PatternNode;
  readonly depth: number;
}

function listed(root: PatternNode): Listed[] {
  const found: Listed[] = [];
  const visit = (node: PatternNode, depth: number): void => {
    found.push({ node, depth });
    for (const inner of innerOf(node)) visit(inner, depth + 1);
  };
  const inner = root.kind === "sequence" ? innerOf(root) : [];
  for (const part of inner.length > 0 ? inner : [root]) visit(part, 0);
  return found;
}

/** The tree with a group more around each part, from the number after the last one. */
function marked(root: PatternNode, first: number, parts: readonly Listed[]): PatternNode {
  const numbers = new Map(parts.map(({ node }, i) => [node, first + i]));
  const around = (node: PatternNode, item: PatternNode): PatternNode => {
    const index = numbers.get(node);
    return index === undefined ? item : { kind: "group", item, index };
  };
  const inner = (node: PatternNode): PatternNode => around(node, within(node));
  const within = (node: PatternNode): PatternNode => {
    switch (node.kind) {
      case "sequence": {
        const runs = node.items.every(isLiteral) ? node.items : runsOf(node.items);
        return { ...node, items: runs.map((run) => inner(parts.find(({ node: own }) => isSameRun(own, run))?.node ?? run)) };
      }
      case "choice":
        return { ...node, options: node.options.map(inner) };
      case "repeat":
      case "group":
      case "atomic":
        return { ...node, item: inner(node.item) };
      default:
        return node;
    }
  };
  return inner(root);
}

/** Whether two runs of characters are made of the same parts of the tree. */
const isSameRun = (a: PatternNode, b: PatternNode): boolean =>
  a === b ||
  (a.kind === "sequence" &&
    b.kind === "sequence" &&
    a.items.length === b.items.length &&
    a.items.every((item, i) => item === b.items[i]));

/** Parts beyond which it is not told what each fits. */
const mostMarked = 200;

/** What each part fits in the first match of a text; none where the parts cannot be told apart in it. */
function matchOf(whole: ParsedPattern, { node, groups }: ParsedPattern, parts: readonly Listed[], of: Written, text: string) {
  const match = (parsed: ParsedPattern) => {
    try {
      return compileParsed(parsed, of.flavour, of.source, of.flags).offsets(text, 0, newBudget());
    } catch (error) {
      if (!(error instanceof PatternError || error instanceof OverBudget)) throw error;
      return undefined;
    }
  };
  const found = match(whole);
  if (!found) return undefined;
  const [start, end] = found;
  const ignoreCase = whole.ignoreCase || (!hasEscape(of.flavour) && of.flags.includes("i"));
  const told =
    parts.length > mostMarked
      ? undefined
      : match({ node: marked(node, groups + 1, parts), groups: groups + parts.length, ignoreCase });
  const isSame = told?.[0] === start && told[1] === end;
  const ofParts = parts.map((_, i) => {
    const [from, to] = isSame ? told.slice(2 * (groups + 1 + i)) : [-1, -1];
    return from < 0 ? undefined : text.slice(from, to);
  });
  return { match: { start, text: text.slice(start, end) }, ofParts };
}

/** A pattern as it is written. */
interface Written {
  readonly flavour: Flavour;
  readonly source: string;
  readonly flags: string;
}

/**
 * A pattern in words, part by part, with what each part fits in a text.
 *
 * @param flags the flavour's letters; that case is ignored is not said of each letter
 * @throws PatternError where the flavour does not allow the pattern
 */
export function explainPattern(flavour: Flavour, source: string, flags = "", text?: string): ExplainedPattern {
  const whole = parsePattern(flavour, source, flags);
  const plain = hasEscape(flavour) ? whole : parsePattern(flavour, source, flags.replaceAll("i", ""));
  const parts = listed(plain.node);
  const found = text === undefined ? undefined : matchOf(whole, plain, parts, { flavour, source, flags }, text);
  return {
    parts: parts.map(({ node, depth }, i) => {
      const range = placeOf(node, plain.places);
      const matched = found?.ofParts[i];
      return {
        ...(range && { range, text: source.slice(range.start, range.end) }),
        says: wordsOf(node, ruleOf(flavour)),
        depth,
        ...(matched !== undefined && { matched }),
      };
    }),
    ...(found && { match: found.match }),
  };
}
