import { type CharSet, type PatternNode, membership } from "./ast.ts";

/** Characters by which classes are told apart. */
const probes = "aAgG5_ \t\n.,-+éÉßǅª٣Ⅷ\u0301中\u00a0€\u200d";

/** Classes in words, by the probes that they hold. */
const named: readonly (readonly [holds: string, one: string, many: string])[] = [
  ["5", "a digit from 0 to 9", "digits from 0 to 9"],
  ["5٣", "a digit of any script", "digits of any script"],
  ["5٣Ⅷ", "a digit or number of any script", "digits or numbers of any script"],
  ["aAgG", "a letter from a to z", "letters from a to z"],
  ["aAgGéÉßǅª中", "a letter", "letters"],
  ["aAgG5", "a letter from a to z or a digit", "letters from a to z or digits"],
  ["aA5", "a hexadecimal digit", "hexadecimal digits"],
  ["ag", "a small letter from a to z", "small letters from a to z"],
  ["AG", "a capital letter from A to Z", "capital letters from A to Z"],
  ["aAgG5_", "a letter from a to z, digit or _", "letters from a to z, digits or _"],
  [" ", "a space", "spaces"],
  [" \t", "a space or tab", "spaces or tabs"],
  [" \t\u00a0", "a space or tab", "spaces or tabs"],
  [" \t\n", "a white space character", "white space characters"],
  [" \t\n\u00a0", "a white space character", "white space characters"],
];

/** Which probes a set holds. */
const heldBy = (set: CharSet): string => {
  const has = membership(set, false);
  return [...probes].filter((char) => has(char.codePointAt(0)!)).join("");
};

const hasOf = (held: string, chars: string): boolean => [...chars].every((char) => held.includes(char));
const hasNone = (held: string, chars: string): boolean => [...chars].every((char) => !held.includes(char));

/** A class of characters, in words for one and for several; undefined where there are none. */
function classWords(set: CharSet): readonly [string, string] | undefined {
  const held = heldBy(set);
  const found = named.find(([holds]) => holds === held);
  if (found) return [found[1], found[2]];
  const isWord = hasOf(held, "aAgG5éÉ中");
  if (isWord && held.includes("_") && hasNone(held, " .,-+")) return ["a letter, digit or _", "letters, digits or _"];
  if (isWord && hasNone(held, " .,-_") && held.includes("+")) return ["a letter, digit or symbol", "letters, digits or symbols"];
  if (isWord && hasNone(held, " .,-+_")) return ["a letter or digit", "letters or digits"];
  if (hasOf(held, "aAgGéÉ中") && hasNone(held, " .,-+_5")) return ["a letter", "letters"];
  if (hasOf(held, "agé") && hasNone(held, "AÉ5_ .,-")) return ["a small letter", "small letters"];
  if (hasOf(held, "AGÉ") && hasNone(held, "aé5_ .,-")) return ["a capital letter", "capital letters"];
  if (hasOf(held, ".,-") && hasNone(held, "aA5 é")) return ["a punctuation mark", "punctuation marks"];
  return undefined;
}

const signs: Readonly<Record<string, string>> = {
  " ": "a space",
  "\t": "a tab",
  "\n": "a line feed",
  "\r": "a carriage return",
  "\u00a0": "a no-break space",
};

/** A character as it is shown. */
export const charWords = (code: number): string => {
  const char = String.fromCodePoint(code);
  if (signs[char]) return signs[char];
  return /^[\p{C}\p{Z}\p{M}]$/u.test(char) ? `U+${code.toString(16).toUpperCase().padStart(4, "0")}` : `"${char}"`;
};

const orList = (items: readonly string[]): string =>
  items.length < 2 ? items.join("") : `${items.slice(0, -1).join(", ")} or ${items.at(-1)}`;

const alone = (set: Partial<CharSet>): CharSet => ({ ranges: [], classes: [], negated: false, ...set });

/** The characters of a set, one by one, in words. */
function itemsOf({ ranges, classes }: CharSet): string[] {
  // Of a letter whose case is ignored both cases are there.
  const chars = [...new Set(ranges.filter(([low, high]) => low === high).map(([low]) => low))];
  const spans = ranges.filter(([low, high]) => low < high);
  return [
    ...chars.map(charWords),
    ...spans.map(
      ([low, high]) =>
        classWords(alone({ ranges: [[low, high]] }))?.[0] ?? `a character from ${charWords(low)} to ${charWords(high)}`,
    ),
    ...classes.map((source) => classWords(alone({ classes: [source] }))?.[0] ?? "a character of this class"),
  ];
}

/**
 * What a set of characters fits, in words.
 *
 * @param isMany whether it is of several characters
 */
export function setWords(set: CharSet, isMany: boolean): string {
  const { ranges, classes, negated, minus } = set;
  if (minus) return `${setWords({ ...alone(set), minus: undefined }, isMany)}, but not ${setWords(minus, false)}`;
  const isAny = !negated && ranges.some(([low, high]) => low === 0 && high >= 0x10ffff);
  if (isAny) return isMany ? "characters" : "any character";
  if (ranges.length + classes.length === 0) return negated ? "any character" : "nothing, so that it never fits";
  if (negated) {
    const except = orList(itemsOf(set));
    const isLineEnd = classes.length === 0 && ranges.every(([low, high]) => low === high && (low === 10 || low === 13));
    if (isLineEnd) return isMany ? "characters other than line ends" : "any character but a line end";
    return `${isMany ? "characters" : "a character"} other than ${except}`;
  }
  const whole = classes.length + ranges.length > 1 || classes.length === 1 ? classWords(set) : undefined;
  if (whole) return whole[isMany ? 1 : 0];
  const items = itemsOf(set);
  if (ranges.length === 1 && classes.length === 0 && ranges[0][0] < ranges[0][1]) {
    const span = classWords(set);
    if (span) return span[isMany ? 1 : 0];
  }
  return isMany && items.length > 1 ? `characters of these: ${orList(items)}` : orList(items);
}

/** Whether a part is one character that stands for itself. */
export const isLiteral = (node: PatternNode): node is PatternNode & { kind: "set" } =>
  node.kind === "set" &&
  !node.set.negated &&
  !node.set.minus &&
  node.set.classes.length === 0 &&
  node.set.ranges.length === 1 &&
  node.set.ranges[0][0] === node.set.ranges[0][1];

/** The character that a part stands for. */
export const literalOf = (node: PatternNode & { kind: "set" }): string => String.fromCodePoint(node.set.ranges[0][0]);
