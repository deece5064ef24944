import {
  Bytes,
  Decimal,
  Double,
  Failure,
  Moment,
  type Value,
  compareMoments,
  countBytes,
  countCodePoints,
  isFailure,
  rulers,
  textOfBytes,
} from "../values/index.ts";
import type { Answers } from "../traits/index.ts";
import { keyOf } from "./folding.ts";
import { any, kept, type SlotNumber, number, operation, settled, text, truthBy, wholeBy } from "./operation.ts";

const characterCounts: Readonly<Record<string, ((value: string) => number) | undefined>> = {
  "code point": (value) => countCodePoints(value),
  "utf-16 unit": (value) => value.length,
  grapheme: (value) => rulers.grapheme.count(value),
};

/** Measures the length of a text. */
export const measure = operation({
  id: "measure",
  result: "small",
  family: "measure-test",
  summary: "measures the length of a text",
  slots: [text("text")],
  traits: ["missing", "counted"],
  prepare({ counted }) {
    const count = characterCounts[counted];
    if (count) return (value: string | Bytes) => count(typeof value === "string" ? value : textOfBytes(value.bytes));
    const bits = counted === "utf-8 bit" ? 8 : 1;
    return (value: string | Bytes) => bits * (value instanceof Bytes ? value.bytes.length : countBytes(value));
  },
});

/** The characters that Windows-1252 has at 128 to 159; a space where it has none. */
const upperPage = "€ ‚ƒ„…†‡ˆ‰Š‹Œ Ž  ‘’“”•–—˜™š›œ žŸ";

/** The first byte of a code point in UTF-8. */
function firstByte(code: number): number {
  if (code < 0x80) return code;
  if (code < 0x800) return 0xc0 | (code >> 6);
  return code < 0x10000 ? 0xe0 | (code >> 12) : 0xf0 | (code >> 18);
}

/** The number of a text's first character. */
export const codeOf = operation({
  id: "code-of",
  result: "small",
  family: "measure-test",
  summary: "gives the number of a text's first character",
  slots: [text("text")],
  traits: ["missing", "alphabet", "ofEmpty"],
  prepare({ alphabet, ofEmpty }) {
    return (value: string): Value => {
      const code = value.codePointAt(0);
      if (code === undefined)
        return ofEmpty === "zero" ? 0 : ofEmpty === "null" ? null : ofEmpty === "minus one" ? -1 : new Failure("empty-text");
      if (alphabet === "utf-8 byte") return firstByte(code);
      if (alphabet.startsWith("unicode") || code < 128 || (code >= 160 && code < 256)) return code;
      const place = upperPage.indexOf(String.fromCodePoint(code));
      return place < 0 ? 63 : 128 + place;
    };
  },
});

/** The character of a number. */
export const charOf = operation({
  id: "char-of",
  family: "measure-test",
  summary: "gives the character that has a number",
  slots: [number("number")],
  traits: ["missing", "alphabet", "fraction"],
  prepare({ alphabet, fraction }) {
    const whole = wholeBy(fraction);
    const last = alphabet.startsWith("unicode") ? 0x10ffff : 255;
    return (value: SlotNumber): Value => {
      const code = whole(value);
      if (isFailure(code)) return code;
      if (!(code >= (alphabet === "unicode and nul" ? 0 : 1) && code <= last) || (code >= 0xd800 && code <= 0xdfff))
        return new Failure("no-such-character", { code });
      return alphabet === "windows-1252" && code >= 128 && code < 160 ? upperPage[code - 128] : String.fromCodePoint(code);
    };
  },
});

const kinds = ["number", "text", "boolean", "bytes"];

function kindOf(value: Value): string {
  if (typeof value === "string") return "text";
  if (value instanceof Bytes) return "bytes";
  return typeof value === "boolean" ? "boolean" : value instanceof Moment ? value.type : "number";
}

/** A number as text that compares exactly, or as a double where it is one. */
function compareNumbers(a: Value, b: Value): number {
  if (typeof a === "number" && typeof b === "number") return a < b ? -1 : a > b ? 1 : a === b ? 0 : NaN;
  if (isInexact(a) || isInexact(b)) return compareNumbers(asDouble(a), asDouble(b));
  return asDecimal(a).compare(asDecimal(b));
}

const asDouble = (value: Value): number =>
  value instanceof Double ? value.value : value instanceof Decimal ? value.toNumber() : Number(value);
/** A double, or what is no number that decimals have. */
const isInexact = (value: Value): boolean => value instanceof Double || (typeof value === "number" && !Number.isFinite(value));
export const isNotANumber = (value: Value): boolean => Number.isNaN(asDouble(value));
const asDecimal = (value: Value): Decimal => (value instanceof Decimal ? value : Decimal.of(value as number));

/** Texts by code points; the host compares UTF-16 units, which differs above U+FFFF. */
function compareTexts(a: string, b: string): number {
  if (a === b) return 0;
  const end = Math.min(a.length, b.length);
  for (let i = 0; i < end; i++) {
    const [x, y] = [a.charCodeAt(i), b.charCodeAt(i)];
    if (x === y) continue;
    const [high, low] = [x >= 0xd800 && x <= 0xdfff, y >= 0xd800 && y <= 0xdfff];
    return high === low ? (x < y ? -1 : 1) : high ? 1 : -1;
  }
  return a.length < b.length ? -1 : 1;
}

/** Whether a text begins with a letter or digit of ASCII, which stand after a space in every collation. */
const beginsAfterSpace = (text: string): boolean => /^[0-9A-Za-z]/.test(text);

/** Texts as though the shorter one were filled up with `space`, the key of one. */
function compareShorterPadded(a: string, b: string, space: string): number {
  if (a === b) return 0;
  const length = Math.max(a.length, b.length);
  return compareTexts(a.padEnd(length, space), b.padEnd(length, space));
}

const withoutEnd = (text: string): string => (text.endsWith(" ") ? text.replace(/ +$/, "") : text);

function compareBytes({ bytes: a }: Bytes, { bytes: b }: Bytes): number {
  const at = a.findIndex((byte, i) => byte !== b[i]);
  return Math.sign(at >= 0 && at < b.length ? a[at] - b[at] : a.length - b.length);
}

export const relations: Readonly<Record<string, (order: number) => Value>> = {
  "=": (order) => order === 0,
  "<>": (order) => order !== 0,
  "<": (order) => order < 0,
  "<=": (order) => order <= 0,
  ">": (order) => order > 0,
  ">=": (order) => order >= 0,
  order: (order) => order,
};

/** The relations of whole numbers, and of texts that are the same or not, as the host has them. */
const exactly: Readonly<Record<string, ((a: number | string, b: number | string) => Value) | undefined>> = {
  "=": (a, b) => a === b,
  "<>": (a, b) => a !== b,
  "<": (a, b) => a < b,
  "<=": (a, b) => a <= b,
  ">": (a, b) => a > b,
  ">=": (a, b) => a >= b,
};

type Order = (a: Value, b: Value) => number | Failure;

/** Compares two values; `relation` is `=`, `<>`, `<`, `<=`, `>`, `>=` or `order` (−1, 0, 1). */
export const compare = operation({
  id: "compare",
  family: "measure-test",
  summary: "compares two values",
  slots: [any("a"), any("b"), settled("relation", Object.keys(relations))],
  traits: ["missing", "case", "padding", "mixed", "notANumber", "truth"],
  prepare({ case: letterCase, padding, mixed, notANumber, truth, missing }, fixed) {
    const relation = relations[fixed.relation as string];
    const given = truthBy(truth);
    const answer = (order: number): Value => {
      const holds = relation(order);
      return typeof holds === "boolean" ? given(holds) : holds;
    };
    const key = keyOf(letterCase);
    const space = key(" ");
    const orderTexts: (a: string, b: string) => number = {
      counted: (a: string, b: string) => compareTexts(key(a), key(b)),
      stripped: (a: string, b: string) => compareTexts(withoutEnd(key(a)), withoutEnd(key(b))),
      padded: (a: string, b: string) => {
        if (b === "" && beginsAfterSpace(a)) return 1;
        return a === "" && beginsAfterSpace(b) ? -1 : compareShorterPadded(key(a), key(b), space);
      },
    }[padding];

    const isOfSame = fixed.relation === "=" || fixed.relation === "<>";
    /** What two texts come to at once, where only whether they are the same is asked. */
    const alike: ((a: string, b: string) => Value) | undefined =
      isOfSame && padding === "counted" ? (a, b) => given((key(a) === key(b)) === (fixed.relation === "=")) : undefined;

    /** Lists item by item, a missing item after all others, then by length. */
    function orderLists(a: readonly Value[], b: readonly Value[]): number | Failure {
      for (let i = 0; i < Math.min(a.length, b.length); i++) {
        const [x, y] = [a[i], b[i]];
        const found = x === null || y === null ? Number(x === null) - Number(y === null) : order(x, y);
        if (found !== 0) return found;
      }
      return Math.sign(a.length - b.length);
    }

    function order(a: Value, b: Value): number | Failure {
      if (Array.isArray(a) && Array.isArray(b)) return orderLists(a as readonly Value[], b as readonly Value[]);
      if (typeof a === "string" && typeof b === "string") return orderTexts(a, b);
      const [kindA, kindB] = [kindOf(a), kindOf(b)];
      if (a instanceof Moment && b instanceof Moment && kindA === kindB) return compareMoments(a, b)!;
      if (a instanceof Bytes && b instanceof Bytes) return compareBytes(a, b);
      if (kindA === kindB && kindA !== "number") return Number(a) - Number(b);
      if (kindA === kindB) {
        const found = compareNumbers(a, b);
        return Number.isNaN(found) && notANumber === "above all" ? Number(isNotANumber(a)) - Number(isNotANumber(b)) : found;
      }
      if (mixed === "error") return new Failure("kinds-do-not-compare", { a: kindA, b: kindB });
      return kinds.indexOf(kindA) - kinds.indexOf(kindB) || (kindA < kindB ? -1 : 1);
    }

    /** A blank beside a text counts as empty text, beside a number as 0, beside a truth value as false. */
    const filled = (value: Value, other: Value): Value =>
      value !== null ? value : typeof other === "string" ? "" : typeof other === "boolean" ? false : 0;

    return (a: Value, b: Value): Value => {
      if (alike && typeof a === "string" && typeof b === "string") return alike(a, b);
      const result = missing === "blank" ? order(filled(a, b), filled(b, a)) : order(a, b);
      return typeof result === "number" ? answer(result) : result;
    };
  },
  narrowed(answers, { relation }, kind) {
    if (answers.truth !== "true or false") return undefined;
    if (kind === "whole number") return exactly[relation as string];
    const isAsWritten = kind === "text" && answers.case === "minded" && answers.padding === "counted";
    return isAsWritten && (relation === "=" || relation === "<>") ? exactly[relation] : undefined;
  },
});

/** The traits by which two present values are put in order. */
export const ordering = ["case", "padding", "mixed", "notANumber"] as const;

/** How two present values stand to each other by the answers: −1, 0 or 1, NaN where they do not, or a failure. */
export const orderBy = (answers: Answers<(typeof ordering)[number]>) =>
  compare.prepare({ ...answers, missing: "null", truth: "true or false" }, { relation: "order" }) as Order;

/** The first value, or nothing where it is the same as the second. */
export const unlessSame = operation({
  id: "unless-same",
  family: "logic",
  result: "given",
  summary: "gives the first value, or nothing where it is the same as the second",
  slots: [kept(any("a")), kept(any("b"))],
  traits: ordering,
  prepare(answers) {
    const order = orderBy(answers);
    return (a: Value = null, b: Value = null): Value => {
      if (a === null || b === null) return a;
      const result = order(a, b);
      return isFailure(result) ? result : result === 0 ? null : a;
    };
  },
});

/** Tells whether two values `differ` or are the `same`; two that are missing are the same. */
export const distinct = operation({
  id: "distinct",
  family: "logic",
  summary: "tells whether two values differ, missing ones being alike",
  slots: [kept(any("a")), kept(any("b")), settled("told", ["differ", "same"])],
  traits: [...ordering, "truth"],
  prepare(answers, { told }) {
    const order = orderBy(answers);
    const given = truthBy(answers.truth);
    const tell = (isSame: boolean): Value => given(isSame === (told === "same"));
    return (a: Value = null, b: Value = null): Value => {
      if (a === null || b === null) return tell(a === b);
      const result = order(a, b);
      return isFailure(result) ? result : tell(result === 0);
    };
  },
});
