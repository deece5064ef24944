import { type Bound, allPartsOf, writtenPattern } from "../evaluate/index.ts";
import { OverBudget, PatternError, cachedPattern, newBudget, textsToTry } from "../patterns/index.ts";
import type { TraitId } from "../traits/index.ts";
import { Failure, type Value, isFailure } from "../values/index.ts";
import { type Parting, alike } from "./parting.ts";
import type { Evaluated } from "./swap.ts";
import { askedOf, isEqual, isOfRow, textsIn, wholeParting } from "./whole.ts";

/** What a side gives for other values in a column, and a text that both sides search for. */
interface Asked {
  readonly on: (value: Value) => Value;
  readonly mark: string | undefined;
}

/** A result that stands for a value; undefined where it stands for no such value. */
type Result = (value: Value, asked: Asked) => Value | undefined;

const isHalf = (number: number): boolean => /5$/.test(String(number));

/** The number whose last digit is one more (`by` 1), or less (−1): a column that holds the one can hold it, too. */
function besides(value: number, by: 1 | -1): number {
  const digits = /\.(\d+)$/.exec(String(value))?.[1].length ?? 0;
  return Number((value + by * Math.sign(value) * 10 ** -digits).toFixed(digits));
}

/** What comes of a number beside one. */
const beside =
  (by: 1 | -1): Result =>
  (value, { on }) =>
    typeof value === "number" && isHalf(value) ? on(besides(value, by)) : undefined;

/** What comes of a short number, with what is made of the digits of this one in the place of its digits and the zeros before them. */
const inPlace =
  (digits: (digits: string, room: number) => string): Result =>
  (value, { on }) => {
    if (typeof value !== "number" || !Number.isInteger(value)) return undefined;
    for (const digit of [7, 3, 8]) {
      const short = on(digit);
      if (typeof short !== "string") return undefined;
      // One that stands in the text anyway does not tell its place.
      if (short.split(String(digit)).length === 2)
        return short.replace(new RegExp(`0*${digit}`), (room) => digits(String(BigInt(value)), room.length));
    }
    return undefined;
  };

/** How the text of a number is changed where it is negative: `digits` are those of the number, with the zeros before them. */
const signed =
  (change: (digits: string) => string): Result =>
  (value, asked) => {
    if (typeof value !== "number" || value >= 0) return undefined;
    const placed = inPlace((digits, room) => change(digits.slice(1).padStart(room, "0")))(value, asked);
    const plain = placed === undefined ? asked.on(-value) : null;
    const written = new RegExp(`0*${-value}`);
    return typeof plain === "string" && written.test(plain) ? plain.replace(written, change) : placed;
  };

/** The digits to base 16 of so many bits, in which a negative number is counted from their end. */
const ofBits =
  (bits: number): Result =>
  (value, { on }) => {
    if (typeof value !== "number" || !Number.isInteger(value)) return undefined;
    const digits = BigInt.asUintN(bits, BigInt(value)).toString(16);
    return on(10) === "A" ? digits.toUpperCase() : digits;
  };

/** A number with a fraction made whole. */
const whole =
  (make: (value: number) => number): Result =>
  (value) =>
    typeof value === "number" && !Number.isInteger(value) ? make(value) + 0 : undefined;

/** What is given, with a comma between groups of three digits. */
const thousandsApart: Result = (value, { on }) => {
  const given = typeof value === "number" ? on(value) : null;
  const bare = typeof given === "string" ? given.replaceAll(/(?<=\d),(?=\d{3})/g, "") : "";
  return /\d{4}/.test(bare) ? bare.replace(/\d{4,}/, (digits) => digits.replaceAll(/\B(?=(\d{3})+$)/g, ",")) : undefined;
};

const withMark =
  (place: (text: string, mark: string) => string): Result =>
  (value, { on, mark }) =>
    typeof value === "string" && mark !== undefined ? on(place(value, mark)) : undefined;

/** What comes of a number in the middle between two, by what comes of the ones beside it. */
const rounded: readonly (readonly [answer: string, result: Result])[] = [
  ["rounded up", beside(1)],
  ["rounded down", beside(-1)],
];

/** Results that stand for a value, each with the answer that it is told by; an error is told by itself. */
const results: readonly (readonly [answer: string, result: Result])[] = [
  ["null", () => null],
  ["empty", () => ""],
  ["whole", (value) => value],
  ["true", () => true],
  ["false", () => false],
  ["zero", () => 0],
  ["one", () => 1],
  ["minus one", () => -1],
  ["infinite", () => Infinity],
  ["digits", (value) => (typeof value === "number" ? String(value) : undefined)],
  ["minus in front", signed((digits) => `-${digits}`)],
  ["minus for a zero", signed((digits) => digits.replace(/^0/, "-"))],
  ["minus among zeros", signed((digits) => digits.replace(/0(?=[^0])/, "-"))],
  ["digits in place", inPlace((digits) => digits)],
  ["digits cut", inPlace((digits, room) => digits.slice(0, room))],
  ["of 32 bits", ofBits(32)],
  ["of 40 bits", ofBits(40)],
  ["of 64 bits", ofBits(64)],
  ["whole before the point", whole(Math.trunc)],
  ["whole below", whole(Math.floor)],
  ["whole above", whole(Math.ceil)],
  ["nearest whole", whole((value) => Math.sign(value) * Math.round(Math.abs(value)))],
  ...rounded,
  ["thousands apart", thousandsApart],
  ["as at the end", withMark((text, mark) => text + mark)],
  ["as at the start", withMark((text, mark) => mark + text)],
];

/** The answer that holds for some values, and for what is given for them; how such as lie in the middle are rounded comes first. */
function answerOf(values: readonly Value[], asked: Asked, trait: TraitId): string | undefined {
  // What does not hold for the first of them is not asked of the others.
  if (values.every((value) => isFailure(asked.on(value)))) return "error";
  return (trait === "ofHalf" ? [...rounded, ...results] : results).find(([, result]) =>
    values.every((value) => {
      const wanted = result(value, asked);
      if (wanted === undefined) return false;
      const given = asked.on(value);
      return alike(given, wanted) && (typeof wanted !== "boolean" || typeof given === "boolean");
    }),
  )?.[0];
}

/** Values that are special in one way, the one of the row first, and others, which are not, on which two sides are to agree. */
interface Special {
  readonly trait: TraitId;
  readonly special: readonly Value[];
  /** Made where they are asked for: mostly the special ones are told otherwise. */
  readonly usual: () => readonly Value[];
  readonly mark?: string;
}

/** Texts that are nothing special: short ones, such as are long enough for what takes letters from far on, and letters only. */
const usualTexts = [
  ["ab", "Cd e", "7x"],
  ["abcdefghijklm", "Cd efg hij klmn op", "7x 8yz abcd efgh 9"],
  ["ab", "Cd", "Efgh ij"],
];
/** Texts that are something else, whatever they are searched for: dates, and numbers. */
const otherTexts = [
  ["2019-04-03", "2020-12-30", "1999-08-15"],
  ["12", "7", "305"],
];
const usualNumbers = [1, 2, 3, 7, 12, 100];

/** The most often that something may have to stand in a text. */
const mostTimes = 3;

const joinedBy = (mark: string, times: number, pieces: readonly string[]): string[] =>
  pieces.map((piece) => Array.from({ length: times + 1 }, (_, i) => `${piece}${i}`).join(mark));

/** Kinds of characters, each with one that is nothing special, and other texts of them. */
const kinds: readonly (readonly [trait: TraitId, kind: RegExp, plain: string, others: readonly string[]])[] = [
  ["ofForeignLetters", /[^\x00-\x7f]/gu, "a", []],
  ["ofDigits", /\d/g, "a", ["4", "81"]],
  ["ofMarks", /[^\p{L}\p{N}\s]/gu, "a", []],
];

/** A pattern that is written: whether it fits somewhere in a text, and texts in which it does. */
interface Searched {
  readonly fits: (text: string) => boolean;
  readonly fitting: () => readonly string[];
}

const searched = new WeakMap<Bound, readonly Searched[]>();

/** How many texts that a pattern fits are usual ones. */
const mostFitting = 6;

/** Whether something holds, or costs too much to be found out. */
function isWithin(holds: () => boolean): boolean {
  try {
    return holds();
  } catch (error) {
    if (error instanceof OverBudget) return true;
    throw error;
  }
}

/** The patterns that an expression writes. */
function searchedIn(root: Bound): readonly Searched[] {
  const known = searched.get(root);
  if (known) return known;
  const made = allPartsOf(root).flatMap((part): Searched[] => {
    const written = writtenPattern(part);
    const pattern = written && cachedPattern(written.flavour, written.source, written.flags);
    if (!written || !pattern || pattern instanceof PatternError) return [];
    const fits = (text: string) => isWithin(() => pattern.test(text, newBudget()));
    const texts = () => textsToTry(written.flavour, written.source, written.flags);
    const fitting = () =>
      texts()
        .filter((text) => !text.includes("\n") && fits(text))
        .slice(0, mostFitting);
    return [{ fits, fitting }];
  });
  searched.set(root, made);
  return made;
}

/** In which ways a value is special to expressions that search for these texts and patterns. */
function specialsOf(value: Value, marks: readonly string[], patterns: readonly Searched[]): Special[] {
  if (typeof value === "number") return specialNumbers(value);
  const among = (trait: TraitId, special: readonly Value[]): Special[] => [
    ...usualTexts.map((texts) => {
      const usual = () => (marks.length === 0 ? texts : marks.flatMap((mark) => joinedBy(mark, 2, texts)));
      return { trait, special, usual };
    }),
    ...otherTexts.map((texts) => ({ trait, special, usual: () => texts })),
  ];
  if (value === null) return among("ofMissing", [null]);
  if (typeof value !== "string") return [];
  // Of a text that is empty or blank others are asked for, too: what holds for them is not due to its being so.
  const isBlank = value.trim() === "";
  return [
    ...(marks.includes(value)
      ? usualTexts.map((usual): Special => ({ trait: "ofWritten", special: [value], usual: () => usual }))
      : []),
    ...(isBlank ? marks.flatMap((mark) => tooFewOf(mark, value, false)) : []),
    ...patterns
      .filter(({ fits }) => !fits(value))
      .map(({ fits, fitting }): Special => {
        const others = usualTexts[0].filter((text) => !fits(text));
        return { trait: "noMatch", special: [value, ...others], usual: fitting };
      }),
    ...(isBlank ? [tooShort(value, 1)] : []),
    ...(value === "" ? among("ofEmptyText", [""]) : isBlank ? among("ofBlank", [value, " ", "   "]) : []),
    ...(isBlank ? [] : marks.flatMap((mark) => tooFewOf(mark, value))),
    ...(isBlank ? [] : [tooShort(value, value.length)]),
    ...kinds.flatMap(([trait, kind, plain, others]) =>
      value.search(kind) >= 0
        ? [
            {
              trait,
              special: [value, onlyOf(kind, value), ...others],
              usual: () => [value.replace(kind, plain), ...usualTexts[2]],
            },
          ]
        : [],
    ),
  ];
}

/** A text that is shorter than others, and such of a length. */
const tooShort = (value: string, length: number): Special => ({
  trait: "tooShort",
  special: [value, ...usualTexts[1].map((text) => text.slice(0, length))],
  usual: () => usualTexts[1],
});

/** The characters of a kind in a text, and nothing else. */
const onlyOf = (kind: RegExp, text: string): string => (text.match(kind) ?? []).join("");

/** A text in which what is searched for stands less often than in others: such texts, or only this one where it may be `alone`. */
function tooFewOf(mark: string, value: string, alone = true): Special[] {
  const there = value.split(mark).length - 1;
  const bare = (texts: readonly string[]) => texts.filter((text) => !text.includes(mark));
  const few = bare(["kl m", "Z9", "klm"]).map((text) => Array.from({ length: there + 1 }, () => text).join(mark));
  return [[value, ...few], ...(alone ? [[value]] : [])].flatMap((special) =>
    Array.from({ length: Math.max(0, mostTimes - there) }, (_, i): Special => {
      const usual = () => joinedBy(mark, there + 1 + i, bare([...usualTexts[0], "Cde"]));
      return { trait: "tooFew", special, usual, mark };
    }),
  );
}

function specialNumbers(value: number): Special[] {
  const whole = Math.trunc(value);
  const found: [TraitId, boolean, number[], number[]][] = [
    ["ofZero", value === 0, [0], []],
    ["ofNegative", value < 0, [value, value - 1, value * 2], []],
    ["ofFraction", value !== whole, [value, whole + 0.25, whole + 0.5], [whole]],
    ["ofLargeNumber", Math.abs(value) >= 1000, [value, value + Math.sign(value)], []],
  ];
  const specials = found.flatMap(([trait, is, special, plain]) =>
    is ? [{ trait, special, usual: () => [...plain, ...usualNumbers] }] : [],
  );
  // What holds of the numbers beside it, too, is not due to its being a half.
  return isHalf(value)
    ? [{ trait: "ofHalf", special: [value], usual: () => [besides(value, 1), besides(value, -1), ...usualNumbers] }, ...specials]
    : specials;
}

/** Which special values are asked for, and whether one side may give something for them that has no name. */
interface Asking {
  readonly isAsked: (trait: TraitId) => boolean;
  readonly mayBeOwn: boolean;
}

/**
 * Where the sides agree on usual values of a column and not on such as this: a missing one, empty text, one in which what both
 * search for does not stand often enough. What each gives then is said by an answer that holds for other such values, too; one
 * side, with the answer of the other, gives what the other gives.
 */
const specialParting =
  ({ isAsked, mayBeOwn }: Asking) =>
  (left: Evaluated, right: Evaluated): Parting | undefined => {
    const sides = [left, right] as const;
    if (!sides.every(isOfRow)) return undefined;
    const [own, other] = sides.map(({ root }) => [...new Set(textsIn(root))].filter((text) => text !== ""));
    // What one side writes and stands in what the other does: a pattern holds more than the mark.
    const within = (some: readonly string[], all: readonly string[]) =>
      some.filter((mark) => all.some((text) => text.includes(mark)));
    const marks = [...new Set([...within(own, other), ...within(other, own)])];
    const patterns = sides.flatMap(({ root }) => searchedIn(root));
    for (const [column, value] of askedOf(left, right).columns) {
      const on = sides.map((side) => (each: Value) => (Object.is(each, value) ? side.value : side.on(new Map([[column, each]]))));
      for (const { trait, special, usual, mark } of specialsOf(value, marks, patterns)) {
        if (!isAsked(trait)) continue;
        const named = on.map((run) => answerOf(special, { on: run, mark }, trait));
        if (named[0] === named[1] || (named.includes(undefined) && !mayBeOwn)) continue;
        // Of a truth that only one side always gives the number is hardly the reason: it is compared with something.
        if (
          typeof value === "number" &&
          named.includes(undefined) &&
          named.some((answer) => answer === "true" || answer === "false")
        )
          continue;
        const told = (side: 0 | 1): Value | undefined => {
          const answer = named[1 - side];
          if (answer === "error") return new Failure("not-found");
          return results.find(([each]) => each === answer)?.[1](value, { on: on[side], mark });
        };
        const side = ([0, 1] as const).find((each) => {
          const came = told(each);
          return came !== undefined && alike(came, sides[1 - each].value);
        });
        const others = side === undefined ? [] : usual();
        if (side === undefined || others.length === 0 || !others.every((each) => isEqual(on[0](each), on[1](each)))) continue;
        const replay = () => told(side) ?? null;
        const name = left.nameOf(column);
        const inputs = { [name]: value, ...(mark !== undefined && { "searched for": mark }) };
        const experiment = { is: "usual", column: name, values: others } as const;
        return wholeParting(left, right, inputs, trait, [named[0] ?? "own", named[1] ?? "own"], side, experiment, replay);
      }
    }
    return undefined;
  };

export const missingParting = specialParting({ isAsked: (trait) => trait === "ofMissing", mayBeOwn: false });
export const fewParting = specialParting({ isAsked: (trait) => trait !== "ofMissing", mayBeOwn: false });
/** The same where only one side gives something that can be said in a word: the last that is asked. */
export const ownParting = specialParting({ isAsked: () => true, mayBeOwn: true });
