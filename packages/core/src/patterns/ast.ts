import { type TextRange, simpleLower, simpleUpper } from "../values/index.ts";

/** The tree of a pattern, shared by all flavours. */
export type PatternNode =
  | { readonly kind: "set"; readonly set: CharSet }
  | { readonly kind: "sequence"; readonly items: readonly PatternNode[] }
  | { readonly kind: "choice"; readonly options: readonly PatternNode[] }
  | {
      readonly kind: "repeat";
      readonly item: PatternNode;
      readonly min: number;
      readonly max: number;
      readonly greedy: boolean;
      /** Written `{m}`, which prefers what its item prefers. */
      readonly exact?: boolean;
    }
  | { readonly kind: "group"; readonly item: PatternNode; readonly index: number }
  | { readonly kind: "assertion"; readonly at: AssertionPlace }
  | { readonly kind: "look"; readonly item: PatternNode; readonly ahead: boolean; readonly negated: boolean }
  /** What is matched is not matched another way when what follows does not fit. */
  | { readonly kind: "atomic"; readonly item: PatternNode }
  /** `others` are groups of the same name; the first that is set is meant. */
  | {
      readonly kind: "backreference";
      readonly index: number;
      readonly others?: readonly number[];
      readonly ignoreCase?: boolean;
      /** Whether a group that is not set fits nothing, and not empty text. */
      readonly isStrict?: true;
    }
  /** The pattern of a group again, or with 0 the whole pattern. */
  | { readonly kind: "call"; readonly index: number }
  | { readonly kind: "condition"; readonly test: ConditionTest; readonly yes: PatternNode; readonly no: PatternNode }
  /** Where the match begins that is given, whatever stood before. */
  | { readonly kind: "keep" }
  /** What happens when the match has to go back behind this place; `accept` ends it at once, `open` being the groups around. */
  | { readonly kind: "verb"; readonly verb: "commit" | "prune" | "skip" | "then" }
  | { readonly kind: "accept"; readonly open: readonly number[] };

/** Whether one of the groups is set, whether the pattern is called by itself, or whether what is looked at is there. */
export type ConditionTest =
  | { readonly groups: readonly number[] }
  | { readonly called: true | number }
  | { readonly look: PatternNode & { readonly kind: "look" } };

export type AssertionPlace =
  | "search start"
  | "text start"
  | "text end"
  | "line start"
  /** Not behind a line feed that ends the text. */
  | "inner line start"
  | "line end"
  | "last line end"
  | "word start"
  | "word end"
  | "word edge"
  | "not word edge"
  | "ascii word edge"
  | "not ascii word edge";

/**
 * A set of code points: the union of inclusive `ranges` and Unicode `classes` (each the source of
 * a native character class such as `\p{L}`), turned round when `negated`, then less `minus`.
 */
export interface CharSet {
  readonly ranges: readonly (readonly [number, number])[];
  readonly classes: readonly string[];
  readonly negated: boolean;
  readonly minus?: CharSet;
}

/** A pattern that its flavour does not allow; `offset` is 0-based in UTF-16 code units of the pattern. */
export class PatternError extends Error {
  constructor(
    readonly problem: string,
    readonly offset: number,
    /** Whether the flavour allows it and only we do not run it yet. */
    readonly isUncovered = false,
    /** Whether it is the escape character of a LIKE pattern that stands where it must not. */
    readonly isOfEscape = false,
  ) {
    super(problem);
  }
}

/** What every flavour's parser gives. */
export interface ParsedPattern {
  readonly node: PatternNode;
  readonly groups: number;
  readonly ignoreCase: boolean;
  /** Where each part stands in the source, where it does: not of a tree that was changed after it was read. */
  readonly places?: ReadonlyMap<PatternNode, TextRange>;
  /** What is wrong with the pattern, where that is found out only on a text that it fits. */
  readonly refusal?: PatternError;
}

export const oneChar = (codePoint: number): PatternNode => ({
  kind: "set",
  set: { ranges: [[codePoint, codePoint]], classes: [], negated: false },
});

export const charClass = (source: string, negated = false): CharSet => ({ ranges: [], classes: [source], negated });

export const anyChar: CharSet = { ranges: [[0, 0x10ffff]], classes: [], negated: false };

export const notChars = (...codePoints: number[]): CharSet => ({
  ranges: codePoints.map((c) => [c, c] as const),
  classes: [],
  negated: true,
});

export const sequence = (items: readonly PatternNode[]): PatternNode =>
  items.length === 1 ? items[0] : { kind: "sequence", items };

/** The set as the source of a native character class (flag `v`). */
export function classSource(set: CharSet): string {
  const hex = (codePoint: number) => `\\u{${codePoint.toString(16)}}`;
  const parts = set.ranges.map(([low, high]) => (low === high ? hex(low) : `${hex(low)}-${hex(high)}`));
  const source = `[${set.negated ? "^" : ""}${parts.join("")}${set.classes.join("")}]`;
  return set.minus ? `[${source}--${classSource(set.minus)}]` : source;
}

/** A membership test for one code point. */
export function membership(set: CharSet, ignoreCase: boolean): (codePoint: number) => boolean {
  const classes = set.classes.length ? new RegExp(`^[${set.classes.join("")}]$`, "v") : undefined;
  const plainly = (codePoint: number) => {
    for (const [low, high] of set.ranges) if (codePoint >= low && codePoint <= high) return true;
    return classes !== undefined && classes.test(String.fromCodePoint(codePoint));
  };
  const minus = set.minus && membership(set.minus, ignoreCase);
  const inEitherCase = ignoreCase ? (codePoint: number) => caseForms(codePoint).some(plainly) : plainly;
  if (!minus) return set.negated ? (codePoint) => !inEitherCase(codePoint) : inEitherCase;
  return (codePoint) => inEitherCase(codePoint) !== set.negated && !minus(codePoint);
}

/** Ranges of more characters than this are not spelt out in both cases. */
const spelledOut = 2000;

/**
 * A tree that fits both cases of each of its characters: of a range, of each character in it; of the classes of upper and
 * lower case letters, all letters. What is written in one case fits the text in another, and not the other way round where
 * the mapping has no way back (`ς` fits `Σ`, `Σ` does not fit `ς`).
 */
export function inBothCases(node: PatternNode, letters: ReadonlyMap<string, string>): PatternNode {
  const inner = (each: PatternNode) => inBothCases(each, letters);
  switch (node.kind) {
    case "set":
      return { kind: "set", set: setInBothCases(node.set, letters) };
    case "sequence":
      return { ...node, items: node.items.map(inner) };
    case "choice":
      return { ...node, options: node.options.map(inner) };
    case "repeat":
    case "group":
    case "look":
    case "atomic":
      return { ...node, item: inner(node.item) };
    case "backreference":
      return { ...node, ignoreCase: true };
    default:
      return node;
  }
}

/** The parts of a node, in source order. */
export function partsOfPattern(node: PatternNode): readonly PatternNode[] {
  switch (node.kind) {
    case "sequence":
      return node.items;
    case "choice":
      return node.options;
    case "condition":
      return ["look" in node.test ? node.test.look : [], node.yes, node.no].flat();
    default:
      return "item" in node ? [node.item] : [];
  }
}

function setInBothCases({ ranges, classes, minus, ...rest }: CharSet, letters: ReadonlyMap<string, string>): CharSet {
  const forms = ranges.flatMap(([low, high]) =>
    high - low > spelledOut ? [] : Array.from({ length: high - low + 1 }, (_, i) => casesOf(low + i)).flat(),
  );
  // A range holds its characters beside their cases; a character alone is its cases only.
  const spelt = ranges.filter(([low, high]) => low < high);
  return {
    ...rest,
    ranges: [...spelt, ...forms.map((each) => [each, each] as const)],
    classes: classes.map((each) => letters.get(each) ?? each),
    ...(minus && { minus: setInBothCases(minus, letters) }),
  };
}

/** A tree that fits the same stretches read from their end. */
export function reversedNode(node: PatternNode): PatternNode {
  switch (node.kind) {
    case "sequence":
      return { ...node, items: node.items.map(reversedNode).reverse() };
    case "choice":
      return { ...node, options: node.options.map(reversedNode) };
    case "repeat":
    case "group":
    case "atomic":
      return { ...node, item: reversedNode(node.item) };
    default:
      return node;
  }
}

/** A code point with its one-to-one lower and upper case forms. */
export function caseForms(codePoint: number): number[] {
  const cases = casesOf(codePoint).filter((form) => form !== codePoint);
  return [codePoint, ...cases];
}

/** The one-to-one lower and upper case forms of a code point, which a letter in title case is neither of. */
function casesOf(codePoint: number): number[] {
  const char = String.fromCodePoint(codePoint);
  return [simpleLower(char), simpleUpper(char)].map((form) => form.codePointAt(0)!);
}
