import { type Bound, type DeclaredType, allPartsOf, writtenPattern } from "../evaluate/index.ts";
import { textsToTry } from "../patterns/index.ts";
import { Decimal, Double, type Value } from "../values/index.ts";

/** Texts on which languages differ, and which authors forget. */
const trapTexts = [
  ..."a A ab Ab AB abc 1 12 012 -1 +1 1.5 1e3 0x10 1,000 12abc true no null NaN inf é É ß ss İ ı Σς ﬁ ł 😀 a😀b".split(" "),
  ..."2020-02-29 2020-02-30 03/04/2019 12:30:00 % _ a_b \\ ' \" a'b ( a.b a-b x,y , ,, a,b,c a;b a/b/c 9999999999999999999".split(
    " ",
  ),
  ..."o'neil-SMITH,2nd|Ab cd ef|a\tb|a\nb|e\u0301|\u00a0a|a\u00a0|👨‍👩‍👧b| |  |a | a| a |a b|a  b".split("|"),
  "the quick brown fox jumps over the lazy dog",
  "",
];

const trapNumbers = [0, 1, -1, 2, 3, -2, 4, 5, 7, -7, 10, 100, 1000, 255, 256, 2147483647, -2147483648];
const trapDecimals = [0.5, -0.5, 1.5, 2.5, -2.5, 0.1, 0.25, 1.005, 2.675, 1e-7, 1e15, 1e21, 123456.789];
const trapDates = ["2020-02-29", "2019-04-03", "1999-12-31", "2000-01-01", "2024-12-30"];

/** Numbers of this size or less may stand for lengths of texts. */
const mostLength = 400;

/** What two expressions write: the texts and numbers from which rows are made that they may differ on. */
export interface Written {
  readonly texts: readonly string[];
  readonly numbers: readonly number[];
  /** Texts that the patterns among them are likely to fit, and some that they nearly do. */
  readonly fitting: readonly string[];
}

export const nothingWritten: Written = { texts: [], numbers: [], fitting: [] };

/** Texts of all patterns together, of which each has its share. */
const mostFitting = 240;

const numberOf = (value: Value): number | undefined =>
  typeof value === "number" || typeof value === "bigint"
    ? Number(value)
    : value instanceof Decimal
      ? value.toNumber()
      : value instanceof Double
        ? value.value
        : undefined;

export function writtenIn(roots: readonly Bound[]): Written {
  const parts = roots.flatMap((root) => allPartsOf(root));
  // What a conversion is set to is not written.
  const settings = new Set(parts.flatMap((part) => (part.kind === "operation" && part.implicit ? part.inputs.slice(1) : [])));
  const values = parts.flatMap((part) => (part.kind === "constant" && !settings.has(part) ? [part.value] : []));
  const texts = values.filter((value) => typeof value === "string" && value !== "") as string[];
  const numbers = values.flatMap((value) => numberOf(value) ?? []).filter((value) => Number.isFinite(value));
  const patterns = new Map(parts.flatMap((part) => writtenPattern(part) ?? []).map((each) => [JSON.stringify(each), each]));
  const share = Math.floor(mostFitting / patterns.size);
  const fitting = [...patterns.values()].flatMap(({ flavour, source, flags }) =>
    textsToTry(flavour, source, flags).slice(0, share),
  );
  return {
    texts: [...new Set(texts)].slice(0, 12),
    numbers: [...new Set(numbers)].slice(0, 12),
    fitting: [...new Set(fitting)],
  };
}

/** Letters, a digit, a space and a capital one, as long as is wanted. */
const ofLength = (length: number): string => "ab1 Cd".repeat(Math.ceil(length / 6)).slice(0, length);

/** The first vowel with an accent, which some comparisons do not heed. */
const accented = (text: string): string => text.replace(/[aeiou]/i, (vowel) => `${vowel}\u0301`.normalize("NFC"));

const swapped = (text: string): string => (text === text.toUpperCase() ? text.toLowerCase() : text.toUpperCase());

function textsWith(text: string): string[] {
  return [
    text,
    text + text,
    text.repeat(3),
    `a${text}`,
    `${text}a`,
    `a${text}b`,
    `a${text}b${text}c`,
    `${text}a${text}`,
    ` ${text} `,
    `${text} `,
    ` ${text}`,
    swapped(text),
    `a${swapped(text)}b`,
    accented(text),
    text.slice(1),
    text.slice(0, -1),
    `Ab 1${text}2 cd`,
    `${text}-1234 Ab cd`,
    `é${text}é`,
  ];
}

/** Values for a column of a kind that are made from what is written. */
export function madeOf(kind: DeclaredType, { texts, numbers, fitting }: Written): Value[] {
  const whole = numbers.filter(Number.isInteger);
  const near = whole.flatMap((number) => [number, number + 1, number - 1, -number, 2 * number]);
  switch (kind) {
    case "text": {
      const lengths = whole.filter((number) => Math.abs(number) <= mostLength).map(Math.abs);
      const sized = lengths.flatMap((length) => [length, length + 1, length - 1].filter((size) => size > 0).map(ofLength));
      const both = texts.slice(0, 5).flatMap((a) => texts.slice(0, 5).map((b) => `x${a}y${b}z`));
      return [...texts.flatMap(textsWith), ...sized, ...both, ...near.map(String), ...fitting];
    }
    case "integer":
      return near;
    case "decimal":
      return [...numbers, ...near, ...numbers.map((number) => number + 0.5)];
    case "boolean":
      return [];
    case "date":
      return texts.filter((text) => /^\d{4}-\d\d-\d\d$/.test(text));
  }
}

const traps: Readonly<Record<DeclaredType, readonly Value[]>> = {
  text: trapTexts,
  integer: trapNumbers,
  decimal: [...trapNumbers, ...trapDecimals],
  boolean: [true, false],
  date: trapDates,
};

/** Values for a column of a kind, the simplest first. */
export function poolOf(kind: DeclaredType, written: Written): Value[] {
  const made = madeOf(kind, written);
  const isText = kind === "text" || kind === "date";
  return [...new Set<Value>(isText ? [...made, ...traps[kind]] : [...traps[kind], ...made]), null];
}

/** The letters that matter: those of what is written, and one of each kind. */
export function lettersOf({ texts }: Written): string[] {
  const own = [...new Set(texts.flatMap((text) => [...text]))].slice(0, 4);
  return [...new Set([...own, "a", "B", " ", "1", "é"])].slice(0, 6);
}

/** Every text over some letters, the short ones first, as long as they are no more than so many. */
export function textsOver(
  letters: readonly string[],
  most: number,
): { readonly texts: readonly string[]; readonly length: number } {
  const texts = [""];
  let last = [""];
  let length = 0;
  while (texts.length + last.length * letters.length <= most) {
    last = last.flatMap((text) => letters.map((letter) => text + letter));
    texts.push(...last);
    length++;
  }
  return { texts, length };
}

/** How large a value is, for finding the smallest: the characters that it is written with, plain ones counting a little less. */
export function sizeOf(value: Value): number {
  if (value === null) return 2.5;
  if (typeof value === "string") return [...value].length + 0.1 * [...value].filter((char) => !/[a-z]/.test(char)).length;
  return String(value).length + (typeof value === "number" && value < 0 ? 0.5 : 0);
}

/** Values that are smaller than one in one step. */
export function smaller(value: Value): Value[] {
  if (typeof value === "number") {
    const made = [0, 1, 2, Math.trunc(value), Math.trunc(value / 2), value - Math.sign(value), Number(value.toPrecision(2))];
    return made.filter((each) => each !== value && sizeOf(each) <= sizeOf(value));
  }
  if (typeof value !== "string" || value === "") return [];
  const chars = [...value];
  const without = (from: number, count: number) => [...chars.slice(0, from), ...chars.slice(from + count)].join("");
  const half = Math.ceil(chars.length / 2);
  const cut = chars.length > 3 ? [without(0, half), without(half, half), without(Math.floor(half / 2), half)] : [];
  const one = chars.map((_, i) => without(i, 1));
  const plain = chars.flatMap((char, i) =>
    /[a-z]/.test(char) ? [] : [[...chars.slice(0, i), "a", ...chars.slice(i + 1)].join("")],
  );
  return ["", ...cut, ...one, ...plain];
}
