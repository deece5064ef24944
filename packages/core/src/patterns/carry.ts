import { type AssertionPlace, type CharSet, type PatternNode, PatternError, membership } from "./ast.ts";
import { isLiteral, literalOf } from "./classes.ts";
import {
  type Flavour,
  type Match,
  OverBudget,
  compilePattern,
  newBudget,
  parsePattern,
  hasEscape,
  usualEscape,
} from "./compile.ts";
import { likelyTexts } from "./samples.ts";
import { type Writing, writings, xpath } from "./writings.ts";

/** A match and its groups as texts; undefined where a group took no part. */
export type Groups = readonly (string | undefined)[];

/** A text on which two patterns do not do the same, with what each matches there; undefined where it matches nothing. */
export interface PatternDifference {
  readonly text: string;
  readonly matches: readonly [Groups | undefined, Groups | undefined];
}

/** A pattern in another flavour, or why there is none. */
export type CarriedPattern =
  | {
      readonly pattern: string;
      /** Letters that have to go with it: `i` where case is ignored. */
      readonly flags: string;
      /** Texts that were tried on which it does not do the same, at most two, plain ones first. */
      readonly differences: readonly PatternDifference[];
    }
  | { readonly refused: string };

/** UTF-16 units beyond which a pattern is not tried. */
const longest = 5000;

/** What a flavour has no way to write. */
class Refused extends Error {}

/** Characters by which classes are compared: those that patterns are written for, and some of each kind beyond them. */
const compared: readonly number[] = [
  ...Array.from({ length: 0x530 }, (_, code) => code),
  ...[..."\u0660\u0966\u2160\u2028\u2029\u3000\u4e00\u3042\uff11\u1680\u200b\u200d\u20ac\u2013\u2122\ufb01\u1e9e😀"].map((char) =>
    char.codePointAt(0)!,
  ),
];

/** Which of the compared characters a set holds, as a text. */
function printOf(set: CharSet): string {
  const has = membership(set, false);
  return compared.map((code) => (has(code) ? "1" : "0")).join("");
}

const known = new Map<string, readonly { readonly written: string; readonly print: string }[]>();

/** The classes of a flavour with the characters that they hold. */
function classesOf(flavour: Flavour, { classes }: Writing) {
  const found = known.get(flavour);
  if (found) return found;
  const made = classes.flatMap((written) => {
    const { node } = parsePattern(flavour, `[${written}]`, "");
    return node.kind === "set" ? [{ written, print: printOf(node.set) }] : [];
  });
  known.set(flavour, made);
  return made;
}

/** What patterns are mostly written for counts most. */
const weightOf = (code: number): number => (code < 0x80 ? 40 : 1);

/** A class in brackets; the nearest one where there is none that holds the same. */
function classWritten(source: string, flavour: Flavour, writing: Writing): string {
  const plain = /^(?:[0-9A-Za-z](?:-[0-9A-Za-z])?|_)+$/.test(source);
  const print = printOf({ ranges: [], classes: [source], negated: false });
  const apart = (other: string) => [...other].reduce((sum, bit, i) => sum + (bit === print[i] ? 0 : weightOf(compared[i])), 0);
  const [nearest] = classesOf(flavour, writing)
    .map(({ written, print: own }) => ({ written, distance: apart(own) }))
    .sort((a, b) => a.distance - b.distance);
  return nearest.distance === 0 ? nearest.written : plain ? source : nearest.written;
}

const controls: Readonly<Record<string, string>> = { "\n": "\\n", "\t": "\\t", "\r": "\\r" };
const escaped = (char: string, special: RegExp): string => controls[char] ?? (special.test(char) ? `\\${char}` : char);
const outside = (char: string): string => escaped(char, /[\\.[\](){}*+?^$|]/);
const within = (code: number): string => escaped(String.fromCodePoint(code), /[\\\][^-]/);

function bracket(set: CharSet, flavour: Flavour, writing: Writing): string {
  const { ranges, classes, negated, minus } = set;
  const inner = [
    ...ranges.map(([low, high]) => (low === high ? within(low) : `${within(low)}-${within(high)}`)),
    ...classes.map((source) => classWritten(source, flavour, writing)),
  ].join("");
  if (!minus) return `[${negated ? "^" : ""}${inner}]`;
  if (writing.subtracts) return `[${negated ? "^" : ""}${inner}-${bracket(minus, flavour, writing)}]`;
  if (writing.looks) return `(?!${bracket(minus, flavour, writing)})[${negated ? "^" : ""}${inner}]`;
  throw new Refused(`${writing.name} has no class of characters less others`);
}

function setWritten(set: CharSet, flavour: Flavour, writing: Writing): string {
  const { ranges, classes, negated, minus } = set;
  const isPlain = classes.length === 0 && !minus;
  if (isPlain && !negated && ranges.some(([low, high]) => low === 0 && high >= 0x10ffff)) return writing.dot.any;
  if (isPlain && !negated && ranges.length === 0) throw new Refused("it never fits anything");
  const isButLineFeed = isPlain && negated && ranges.length === 1 && ranges[0][0] === 10 && ranges[0][1] === 10;
  if (isButLineFeed) return writing.dot.butLineFeed;
  const isButLineEnds = isPlain && negated && ranges.map(([low]) => low).join() === "10,13" && writing === xpath;
  if (isButLineEnds) return ".";
  const written = bracket(set, flavour, writing);
  // A shorthand needs no brackets around it.
  const [, alone] = /^\[(\\[A-Za-z](?:\{\w+\})?)\]$/.exec(written) ?? [];
  return alone ?? written;
}

function quantifier({ min, max, greedy }: PatternNode & { kind: "repeat" }): string {
  const count =
    min === 0 && max === Infinity
      ? "*"
      : min === 1 && max === Infinity
        ? "+"
        : min === 0 && max === 1
          ? "?"
          : `{${min}${max === min ? "" : `,${max === Infinity ? "" : max}`}}`;
  return count + (greedy || min === max ? "" : "?");
}

/** Whether a part may be repeated as it is written. */
const isOne = (node: PatternNode, text: string): boolean =>
  node.kind === "set" ? !text.startsWith("(?!") : node.kind === "group" || node.kind === "backreference";

/** A tree as a flavour writes it. @throws Refused where it has no way to */
function written(node: PatternNode, flavour: Flavour, writing: Writing): string {
  const { name } = writing;
  const inner = (each: PatternNode): string => written(each, flavour, writing);
  const refuse = (what: string): never => {
    throw new Refused(`${name} has no ${what}`);
  };
  switch (node.kind) {
    case "set":
      return isLiteral(node) ? outside(literalOf(node)) : setWritten(node.set, flavour, writing);
    case "sequence":
      return node.items.map((item) => (item.kind === "choice" ? `(?:${inner(item)})` : inner(item))).join("");
    case "choice":
      return node.options.map(inner).join("|");
    case "repeat": {
      const text = inner(node.item);
      return (isOne(node.item, text) ? text : `(?:${text})`) + quantifier(node);
    }
    case "group":
      return `(${inner(node.item)})`;
    case "assertion":
      return writing.places[node.at] ?? refuse(`sign for ${placeWords[node.at] ?? `the place "${node.at}"`}`);
    case "look":
      if (!writing.looks) return refuse("looking ahead or behind");
      return `(?${node.ahead ? "" : "<"}${node.negated ? "!" : "="}${inner(node.item)})`;
    case "backreference":
      return writing.references ? `\\${node.index}` : refuse("back reference to a group");
    case "atomic":
      return writing.atomic ? `(?>${inner(node.item)})` : refuse("group that keeps what it took, and no possessive repeat");
    case "call":
      return refuse("call of a group");
    case "condition":
      return refuse("condition");
    case "keep":
      return refuse("\\K");
    case "verb":
    case "accept":
      return refuse("verbs");
  }
}

const placeWords: Readonly<Partial<Record<AssertionPlace, string>>> = {
  "word start": "the start of a word",
  "word end": "the end of a word",
  "word edge": "the edge of a word",
  "not word edge": "a place that is no edge of a word",
  "ascii word edge": "the edge of a word",
  "not ascii word edge": "a place that is no edge of a word",
  "line start": "the start of a line; where the flag m says so, it is ^",
  "inner line start": "the start of a line; where the flag m says so, it is ^",
  "line end": "the end of a line; where the flag m says so, it is $",
  "search start": "the place where the search begins",
};

/** How patterns are written that fit the whole text, and have no repeats but that of any character. */
interface Wildcards {
  readonly name: string;
  readonly run: string;
  readonly one: string;
  /** A character that stands for itself though it means something; undefined where it cannot. */
  readonly escaped: (char: string) => string | undefined;
  /** Whether it has classes in brackets, and the sign that negates them. */
  readonly negation?: string;
}

const special = (signs: string, escaping: Wildcards["escaped"]) => (char: string) =>
  signs.includes(char) ? escaping(char) : char;
const likeOf = (flavour: Flavour): Wildcards => {
  const escape = usualEscape(flavour);
  return {
    name: "LIKE",
    run: "%",
    one: "_",
    escaped: special(`%_${escape}`, (char) => (escape === "" ? undefined : escape + char)),
  };
};
const wildcards: Readonly<Partial<Record<Flavour, Wildcards>>> = {
  like: likeOf("like"),
  "like, escape literal": likeOf("like, escape literal"),
  "like, escape open": likeOf("like, escape open"),
  "like, escape strict": likeOf("like, escape strict"),
  glob: { name: "GLOB", run: "*", one: "?", escaped: special("*?[", (char) => `[${char}]`), negation: "^" },
  "glob with escapes": { name: "GLOB", run: "*", one: "?", escaped: special("*?[\\", (char) => `\\${char}`), negation: "!" },
};

/** A tree as wildcards write it. @throws Refused where they cannot */
function asWildcards(root: PatternNode, { name, run, one, escaped: escape, negation }: Wildcards): string {
  const items = root.kind === "sequence" ? root.items : [root];
  const isAt = (node: PatternNode | undefined, ...at: readonly AssertionPlace[]) =>
    node?.kind === "assertion" && at.includes(node.at);
  const isAny = ({ set }: PatternNode & { kind: "set" }) =>
    set.classes.length === 0 &&
    !set.minus &&
    set.ranges.some(([low, high]) => (set.negated ? low === 10 : low === 0 && high > 0xffff));
  const isFirst = isAt(items[0], "text start");
  const isLast = isAt(items.at(-1), "text end", "last line end");
  const refuse = (): never => {
    throw new Refused(
      `${name} knows only any characters, any one character, texts${negation ? ", and one character of several" : ""}`,
    );
  };
  const ofSet = (set: CharSet): string => {
    if (negation === undefined || set.minus) return refuse();
    const spans = [...set.ranges, ...set.classes.flatMap((source) => (source === "0-9" ? [[48, 57] as const] : refuse()))];
    const inner = spans
      .map(([low, high]) => [...new Set([low, high])].map((code) => String.fromCodePoint(code)).join("-"))
      .join("");
    return /[\]^!\\]/.test(inner) ? refuse() : `[${set.negated ? negation : ""}${inner}]`;
  };
  const body = items.slice(isFirst ? 1 : 0, isLast ? -1 : undefined).map((item) => {
    if (item.kind === "set" && isLiteral(item)) return [escape(literalOf(item)) ?? refuse()];
    if (item.kind === "set") return [isAny(item) ? one : ofSet(item.set)];
    const isRun = item.kind === "repeat" && item.item.kind === "set" && item.max === Infinity && isAny(item.item);
    return isRun ? [...Array<string>(item.min).fill(one), run] : refuse();
  });
  const pieces = [isFirst ? [] : [run], ...body, isLast ? [] : [run]].flat();
  return pieces.filter((piece, i) => piece !== run || pieces[i - 1] !== run).join("");
}

/** How far a text is from what one mostly sees. */
const strangeness = ({ text }: PatternDifference): number =>
  text.length + [...text].filter((char) => char < " " || char > "~").length * 40;

/** A pattern's match in a text; null where it takes too many steps to be known. */
function matcher(flavour: Flavour, source: string, flags: string): (text: string) => Match | undefined | null {
  const pattern = compilePattern(flavour, source, flags);
  return (text) => {
    try {
      return pattern.find(text, 0, newBudget());
    } catch (error) {
      if (error instanceof OverBudget) return null;
      throw error;
    }
  };
}

/** Whether two matches are the same stretch with the same groups. */
const isSameMatch = (a: Match | undefined, b: Match | undefined): boolean =>
  a && b ? a.index === b.index && a.length === b.length && a.every((group, i) => group === b[i]) : a === b;

/**
 * A pattern as another flavour writes it, tried on texts that are made for it; or what that flavour has no way to write.
 *
 * @throws PatternError where its own flavour does not allow it
 */
export function carryPattern(from: Flavour, source: string, flags: string, to: Flavour): CarriedPattern {
  if (source.length > longest) return { refused: `it has more than ${longest} characters` };
  const ownFlags = hasEscape(from) ? flags : flags.replaceAll("i", "");
  const { node } = parsePattern(from, source, ownFlags);
  const isWhole = from.startsWith("like") || from.startsWith("glob");
  const ends: readonly PatternNode[] = isWhole ? [{ kind: "assertion", at: "text end" }] : [];
  const whole: PatternNode = isWhole
    ? {
        kind: "sequence",
        items: [{ kind: "assertion", at: "text start" }, ...(node.kind === "sequence" ? node.items : [node]), ...ends],
      }
    : node;
  const ignoring = !hasEscape(from) && flags.includes("i") ? "i" : "";
  try {
    const writing = writings[to];
    const fixed = wildcards[to];
    if (!writing && !fixed) return { refused: `patterns are not written in the flavour "${to}" here` };
    if (fixed && ignoring) return { refused: `${fixed.name} has no option that ignores case` };
    const pattern = writing ? written(whole, to, writing) : asWildcards(whole, fixed!);
    const toFlags = fixed ? usualEscape(to) : ignoring;
    const [own, other] = [matcher(from, source, flags), matcher(to, pattern, toFlags)];
    const differences = likelyTexts(whole).flatMap((text): PatternDifference[] => {
      const [here, there] = [own(text), other(text)];
      if (here === null || there === null || (fixed ? !here === !there : isSameMatch(here, there))) return [];
      return [{ text, matches: [here && [...here], there && [...there]] }];
    });
    return { pattern, flags: ignoring, differences: differences.sort((a, b) => strangeness(a) - strangeness(b)).slice(0, 2) };
  } catch (error) {
    if (error instanceof Refused) return { refused: error.message };
    if (error instanceof PatternError) return { refused: `${writings[to]?.name ?? to} does not allow it: ${error.problem}` };
    throw error;
  }
}
