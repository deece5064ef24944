import { onlyText, plainTest } from "./literal.ts";
import { type ParsedPattern, type PatternNode, PatternError, partsOfPattern } from "./ast.ts";
import { firstMatch, isVerdict } from "./first-match.ts";
import { FirstMatcher } from "./linear.ts";
import { LongestMatcher, preference } from "./longest-match.ts";
import { type NativePlan, type Rule, planNative } from "./native.ts";
import { pcre, re2 } from "./perl-rules.ts";
import { parsePerl } from "./perl.ts";
import { parsePosix } from "./posix.ts";
import { type Budget, type Program, compileProgram, programSize, sizeOf } from "./program.ts";
import { parseGlob, parseLike, parseSimilar, parseWildcards } from "./sql-patterns.ts";
import { parseXPath } from "./xpath.ts";

/** The pattern languages; see the trait `pattern`. */
export type Flavour =
  | "posix"
  | "xpath"
  | "open"
  | "like"
  | "like, escape strict"
  | "like, escape open"
  | "like, escape literal"
  | "glob"
  | "glob with escapes"
  | "similar"
  | "wildcards"
  | "pcre"
  | "re2";

/** Whether the letters of a pattern language are its escape character. */
export const hasEscape = (flavour: Flavour): boolean => flavour.startsWith("like") || flavour === "similar";

/** The escape character that a pattern language has where none is given; none in some, and where letters are no escape. */
export const usualEscape = (flavour: Flavour): string =>
  flavour === "like" || flavour === "like, escape literal" || flavour === "similar" ? "\\" : "";

/** The steps that all matches on one text may take together before they are given up with the failure `pattern-budget`. */
export const patternSteps = 1_000_000;

/** The steps that the host's engine, which is about a hundred times as fast, may be given. */
const nativeSteps = 100 * patternSteps;

/** A budget for the matches on one text. */
export const newBudget = (): Budget => ({ left: patternSteps });

/** A match: its text, then the text of each group (undefined where unset), and where it starts (UTF-16, 0-based). */
export interface Match extends ReadonlyArray<string | undefined> {
  readonly 0: string;
  readonly index: number;
}

/** A compiled pattern. Each match counts down the budget and throws OverBudget when that is used up. */
export interface Pattern {
  readonly groups: number;
  /** Whether a match is always the whole text. */
  readonly isWhole: boolean;
  /** The first match that starts at or after `from`; undefined when there is none. */
  find(text: string, from: number, budget: Budget): Match | undefined;
  /** UTF-16 offsets of the same match and its groups, start and end of each (−1 where unset). */
  offsets(text: string, from: number, budget: Budget): readonly number[] | undefined;
  /** The one text that it fits, where there is no more to it. */
  readonly literal?: string;
  /**
   * Every match replaced by what `hostTemplate` gives, where the host can; left out for patterns that fit empty text, undefined
   * for long texts.
   */
  readonly replaceAll?: (text: string, put: string) => string | undefined;
  /** Why a text that fits is an error. */
  readonly refusal?: PatternError;
  /** Whether there is a match anywhere. */
  test(text: string, budget: Budget): boolean;
}

export { type Budget, OverBudget } from "./program.ts";

/** The tree of a pattern. @throws PatternError where the flavour does not allow it */
export function parsePattern(flavour: Flavour, source: string, flags: string): ParsedPattern {
  switch (flavour) {
    case "posix":
    case "open":
      return parsePosix(source, flags);
    case "pcre":
      return parsePerl(source, flags, pcre);
    case "re2":
      return parsePerl(source, flags.replace("l", "q"), re2);
    case "xpath":
      return parseXPath(source, flags);
    case "like":
    case "like, escape strict":
    case "like, escape open":
    case "like, escape literal":
      return parseLike(source, flags.replace("~i", ""), flags.endsWith("~i"), flavour);
    case "glob":
    case "glob with escapes":
      return parseGlob(source, flavour === "glob with escapes");
    case "similar":
      return parseSimilar(source, flags);
    case "wildcards":
      return parseWildcards(source);
  }
}

/** Whether the pattern has to fit the whole text: always in some flavours, with the letter `W` in others. */
const isWhole = (flavour: Flavour, flags: string) =>
  flavour.startsWith("like") || flavour.startsWith("glob") || (["pcre", "re2"].includes(flavour) && flags.includes("W"));

/**
 * Compiles a pattern in its own flavour. `flags` are the flavour's letters; for `like` and
 * `similar` they are the escape character (`~i` after it ignores case).
 * @throws PatternError where the flavour does not allow the pattern
 */
export function compilePattern(flavour: Flavour, source: string, flags = ""): Pattern {
  return compileParsed(parsePattern(flavour, source, flags), flavour, source, flags);
}

/** Which of several matches counts. */
export const ruleOf = (flavour: Flavour): Rule => (flavour === "posix" || flavour === "similar" ? "longest" : "first");

/** Compiles a tree that was read from a source, or one that fits the same and has more groups. */
export function compileParsed(parsed: ParsedPattern, flavour: Flavour, source: string, flags: string): Pattern {
  const node: PatternNode = isWhole(flavour, flags)
    ? {
        kind: "sequence",
        items: [{ kind: "assertion", at: "text start" }, parsed.node, { kind: "assertion", at: "text end" }],
      }
    : parsed.node;
  const { groups, ignoreCase, refusal } = parsed;
  // A compiled pattern of PCRE2 has room for 64 KiB, in which a character takes two bytes; here what is written has room.
  const room = flavour === "pcre" ? 32_767 : Math.max(programSize, 4 * source.length);
  if (sizeOf(node) > room) throw new PatternError(`the pattern needs more than ${room} steps`, 0);
  const rule = ruleOf(flavour);
  if (rule === "longest" && !hasPlainReferences(node))
    throw new PatternError("a back reference beside alternatives, mixed greediness or a repeated group", 0, true);
  const careful = carefulMatcher(node, groups, ignoreCase, rule);
  const literal = ignoreCase || groups > 0 || isWhole(flavour, flags) ? undefined : onlyText(node);
  return {
    groups,
    isWhole: isWhole(flavour, flags),
    ...(literal !== undefined && { literal }),
    ...finders(node, groups, ignoreCase, rule, careful),
    test: tester(node, ignoreCase, careful),
    ...(refusal && { refusal }),
  };
}

/**
 * Whether the first match in the order of preference is also the longest one: back references only to groups
 * that always take part, no alternatives, and repeats that are all greedy or all not.
 */
function hasPlainReferences(root: PatternNode): boolean {
  const found = { reference: false, choice: false, lazy: false, greedy: false, optional: false };
  const visit = (node: PatternNode, inRepeat: boolean): void => {
    if (node.kind === "backreference") found.reference = true;
    if (node.kind === "choice") found.choice = true;
    if (node.kind === "group" && inRepeat) found.optional = true;
    if (node.kind === "repeat" && !node.exact) found[node.greedy ? "greedy" : "lazy"] = true;
    for (const item of partsOfPattern(node)) visit(item, inRepeat || node.kind === "repeat");
  };
  visit(root, false);
  return !found.reference || !(found.choice || found.optional || (found.lazy && found.greedy));
}

type OffsetFinder = ReturnType<typeof carefulMatcher>;

function finders(
  node: PatternNode,
  groups: number,
  ignoreCase: boolean,
  rule: Rule,
  careful: OffsetFinder,
): Pick<Pattern, "find" | "offsets" | "replaceAll"> {
  const carefully: Pattern["find"] = (text, from, budget) => {
    const found = careful(text, from, budget);
    return found && asMatch(text, found);
  };
  const plan = planNative(node, ignoreCase, rule);
  if (!plan) return { offsets: careful, find: carefully };
  const longest = nativeLength(plan);
  const engine = new RegExp(plan.source, `${plan.flags}g`);
  // The offsets of groups take the host more time than the match, and are made where they are asked for.
  const placing = groups > 0 ? new RegExp(plan.source, `${plan.flags}dg`) : engine;
  const exec = (by: RegExp, text: string, from: number) => {
    by.lastIndex = from;
    return by.exec(text) ?? undefined;
  };
  return {
    // Without assertions about what stands around, what fits nothing fits empty text.
    ...(!new RegExp(plan.source, plan.flags).test("") && {
      replaceAll: (text, put) => (text.length > longest ? undefined : text.replace(engine, put)),
    }),
    find: (text, from, budget) => (text.length > longest ? carefully(text, from, budget) : exec(engine, text, from)),
    offsets(text, from, budget) {
      if (text.length > longest) return careful(text, from, budget);
      const found = exec(placing, text, from);
      if (!found || groups === 0) return found && [found.index, found.index + found[0].length];
      return (found.indices as readonly ([number, number] | undefined)[]).flatMap((pair) => pair ?? [-1, -1]);
    },
  };
}

function tester(node: PatternNode, ignoreCase: boolean, offsets: OffsetFinder): Pattern["test"] {
  const plain = ignoreCase ? undefined : plainTest(node);
  if (plain) return plain;
  const plan = planNative(node, ignoreCase, "test");
  if (!plan) return (text, budget) => offsets(text, 0, budget) !== undefined;
  const longest = nativeLength(plan);
  const engine = new RegExp(plan.source, plan.flags);
  return (text, budget) => (text.length > longest ? offsets(text, 0, budget) !== undefined : engine.test(text));
}

/** A text with the groups of a match in it: texts, and numbers of groups with 0 for the whole. */
export type Template = readonly (string | number)[];

/** The same as the host writes it, for `replaceAll`; undefined where it cannot. */
export function hostTemplate(parts: Template, groups: number): string | undefined {
  if (groups > 99) return undefined;
  const written = (part: string | number): string => {
    if (typeof part === "string") return part.replaceAll("$", "$$$$");
    return part === 0 ? "$&" : part > groups ? "" : `$${String(part).padStart(2, "0")}`;
  };
  return parts.map(written).join("");
}

/** The match at UTF-16 offsets of it and its groups. */
export function asMatch(text: string, offsets: readonly number[]): Match {
  const parts: (string | undefined)[] = [];
  for (let i = 0; i < offsets.length; i += 2) {
    parts.push(offsets[i] < 0 || offsets[i + 1] < 0 ? undefined : text.slice(offsets[i], offsets[i + 1]));
  }
  return Object.assign(parts as [string, ...(string | undefined)[]], { index: offsets[0] });
}

/** The length of text up to which the host's engine stays within about the step budget. */
function nativeLength(plan: NativePlan): number {
  return Math.floor(nativeSteps ** (1 / plan.degree));
}

function carefulMatcher(node: PatternNode, groups: number, ignoreCase: boolean, rule: Rule) {
  let program: Program | undefined;
  let longest: LongestMatcher | undefined;
  let first: FirstMatcher | undefined;
  return (text: string, from: number, budget: Budget): readonly number[] | undefined => {
    program ??= compileProgram(node, ignoreCase);
    if (!program.hasBackreference && (rule !== "first" || preference(node) === undefined)) {
      longest ??= new LongestMatcher(node, groups, ignoreCase);
      return longest.exec(text, from, budget);
    }
    if (!program.hasBackreference) {
      first ??= new FirstMatcher(program, groups);
      return first.exec(text, from);
    }
    for (let start = from; start <= text.length;) {
      const found = firstMatch(program, groups, text, start, budget, { from });
      if (!isVerdict(found)) return found;
      start = Math.max(found.next, stepOver(text, start));
    }
    return undefined;
  };
}

const cache = new Map<string, Pattern | PatternError>();
const cacheSize = 500;

/** `compilePattern`, remembered; the error is given back, not thrown. */
export function cachedPattern(flavour: Flavour, source: string, flags = ""): Pattern | PatternError {
  const key = `${flavour} ${flags.length} ${flags} ${source}`;
  let found = cache.get(key);
  if (found === undefined) {
    try {
      found = compilePattern(flavour, source, flags);
    } catch (error) {
      if (!(error instanceof PatternError)) throw error;
      found = error;
    }
    if (cache.size >= cacheSize) cache.clear();
    cache.set(key, found);
  }
  return found;
}

/** The offset one code point on from `offset`, so that a search goes on after an empty match. */
export function stepOver(text: string, offset: number): number {
  const codePoint = text.codePointAt(offset);
  return offset + (codePoint !== undefined && codePoint > 0xffff ? 2 : 1);
}
