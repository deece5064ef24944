import { type Bound, allPartsOf } from "../evaluate/index.ts";
import type { TraitId } from "../traits/index.ts";
import { Failure, type TextRange, type Value, isFailure } from "../values/index.ts";
import { type Experiment, type Parting, alike, isSameFailure } from "./parting.ts";
import type { Evaluated } from "./swap.ts";

/** Something about a value that an expression may heed or not: how a value is without it, and how one is given it. */
interface Heed {
  readonly trait: TraitId;
  readonly without: (value: Value) => Value;
  readonly given: (value: Value) => Value;
  /** Values on which one that does not heed it must give the same, too. */
  readonly probes: readonly Value[];
  /** Whether that must hold with the probes in the other columns, too. */
  readonly isOfAll?: true;
}

const ofText = (change: (text: string) => string) => (value: Value) => (typeof value === "string" ? change(value) : value);
const ofNumber = (change: (number: number) => number) => (value: Value) =>
  typeof value === "number" || typeof value === "bigint" ? change(Number(value)) : value;

/** Long enough for what takes letters from far on, with digits and marks. */
const longText = "Abc de fgh, ij-kl 27 mnop. Qrst (uvw) xyz";

const heeds: readonly Heed[] = [
  {
    trait: "heedsMissing",
    without: (value) => (value === null ? "" : value === "" ? null : value),
    given: (value) => (value === "" ? null : value),
    probes: ["", longText],
    isOfAll: true,
  },
  {
    trait: "heedsEnds",
    without: ofText((text) => text.replace(/^ +| +$/g, "")),
    given: ofText((text) => ` ${text} `),
    probes: ["a", " ", "b c", longText],
  },
  {
    trait: "heedsInner",
    without: ofText((text) => text.replace(/ +/g, " ")),
    given: ofText((text) => text.replaceAll(" ", "  ")),
    probes: ["a b", longText],
  },
  {
    trait: "heedsSpaceKinds",
    without: ofText((text) => text.replace(/\s/gu, " ")),
    given: ofText((text) => text.replaceAll(" ", "\t")),
    probes: ["a b", longText],
  },
  {
    trait: "heedsCase",
    without: ofText((text) => text.toLowerCase()),
    given: ofText((text) => text.toUpperCase()),
    probes: ["a", longText],
  },
  {
    trait: "heedsCase",
    without: ofText((text) => text.toUpperCase()),
    given: ofText((text) => text.toLowerCase()),
    probes: ["a", longText],
  },
  {
    trait: "heedsAccents",
    without: ofText((text) => text.normalize("NFD").replace(/\p{M}/gu, "")),
    given: ofText((text) => text.replace(/[aeiou]/gi, "$&\u0301").normalize("NFC")),
    probes: ["a", longText],
  },
  { trait: "heedsFraction", without: ofNumber(Math.trunc), given: ofNumber((number) => number + 0.5), probes: [1, 2.25, -2.5] },
  {
    trait: "heedsNegative",
    without: ofNumber((number) => Math.max(0, number)),
    given: (value) => value,
    probes: [-1, -2, -7, -100],
  },
];

/** What the two sides of a row are asked of: the columns that either reads, with their values, and the texts that both write. */
export interface Asked {
  readonly columns: ReadonlyMap<number, Value>;
  readonly literals: readonly string[];
}

const textsIn = (root: Bound): string[] =>
  allPartsOf(root).flatMap((part) => (part.kind === "constant" && typeof part.value === "string" ? [part.value] : []));

export function askedOf(left: Evaluated, right: Evaluated): Asked {
  const columns = new Map<number, Value>();
  for (const { root, valueOf } of [left, right])
    for (const part of allPartsOf(root)) if (part.kind === "column") columns.set(part.column, valueOf(part.column));
  return { columns, literals: [...new Set([...textsIn(left.root), ...textsIn(right.root)])].slice(0, 8) };
}

export const isEqual = (a: Value, b: Value): boolean => alike(a, b) && isSameFailure(a, b);

/** Whether it changes nothing in a column: for its value, for the texts that are written, and for others. */
function isBlind(side: Evaluated, column: number, value: Value, heed: Heed, { columns, literals }: Asked): boolean {
  const { without, given, probes, isOfAll } = heed;
  const rest = [...columns.keys()].filter((each) => each !== column && isOfAll);
  const beside = [
    new Map<number, Value>(),
    ...(rest.length > 0 ? ["", null].map((all) => new Map(rest.map((each) => [each, all]))) : []),
  ];
  return [value, ...(typeof probes[0] === "string" ? literals : []), ...probes].every((probe) => {
    const bare = without(probe);
    const dressed = given(bare);
    return beside.every((others) => {
      const on = (own: Value) => side.on(new Map<number, Value>([...others, [column, own]]));
      const came = on(bare);
      return isEqual(on(probe), came) && (dressed === bare || isEqual(on(dressed), came));
    });
  });
}

/**
 * Where one side heeds something about a value that the other does not: without it the one gives what the other gives, with it
 * and without. The other is tried on the texts that are written, too.
 */
export function heedParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const asked = askedOf(left, right);
  const sides = [left, right] as const;
  for (const [column, value] of asked.columns) {
    for (const heed of heeds) {
      const bare = heed.without(value);
      if (bare === value) continue;
      for (const side of [0, 1] as const) {
        const [own, other] = [sides[side], sides[1 - side]];
        if (!isEqual(own.on(new Map([[column, bare]])), other.value) || !isBlind(other, column, value, heed, asked)) continue;
        const answers = side === 0 ? (["heeded", "not heeded"] as const) : (["not heeded", "heeded"] as const);
        const name = own.nameOf(column);
        const experiment = { is: "changed", column: name, value: bare } as const;
        return wholeParting(left, right, { [name]: value }, heed.trait, answers, side, experiment, () =>
          own.on(new Map([[column, bare]])),
        );
      }
    }
  }
  return undefined;
}

/** Results that stand for a value that is special, each with how it is told; an error is told by itself. */
const results: readonly (readonly [answer: string, value: (text: Value) => Value])[] = [
  ["null", () => null],
  ["empty", () => ""],
  ["whole", (text) => text],
  ["zero", () => 0],
  ["one", () => 1],
  ["minus one", () => -1],
  ["true", () => true],
  ["false", () => false],
];

/** The answer that holds for some values, and for what is given for them. */
function answerOf(values: readonly Value[], given: readonly Value[]): string | undefined {
  if (given.every(isFailure)) return "error";
  return results.find(([, result]) => values.every((value, i) => given[i] === result(value)))?.[0];
}

/** The most often that something may have to stand in a text. */
const mostTimes = 3;

/** Values that are special in one way, and others, which are not, on which two sides are to agree. */
interface Special {
  readonly trait: TraitId;
  readonly special: readonly Value[];
  readonly usual: readonly Value[];
  readonly about?: Readonly<Record<string, Value>>;
}

/** In which ways a value is special to expressions that search for these texts. */
function specialsOf(value: Value, marks: readonly string[]): Special[] {
  const joined = (pieces: readonly string[], mark: string, times: number) =>
    pieces.map((piece) => Array.from({ length: times + 1 }, (_, i) => `${piece}${i}`).join(mark));
  const pieces = ["ab", "Cd e", "7x"];
  if (value === null || value === "") {
    const usual = marks.length === 0 ? pieces : marks.flatMap((mark) => joined(pieces, mark, 2));
    return [{ trait: value === null ? "ofMissing" : "ofEmptyText", special: [value], usual }];
  }
  if (typeof value !== "string") return [];
  return marks.flatMap((mark) => {
    const there = value.split(mark).length - 1;
    const bare = (texts: readonly string[]) => texts.filter((text) => !text.includes(mark));
    const few = bare(["kl m", "Z9", "klm"]).map((text) => Array.from({ length: there + 1 }, () => text).join(mark));
    return Array.from({ length: Math.max(0, mostTimes - there) }, (_, i): Special => {
      const usual = joined(bare([...pieces, "Cde"]), mark, there + 1 + i);
      const special = [value, ...few];
      return { trait: "tooFew", special, usual, about: { "searched for": mark } };
    });
  });
}

/**
 * Where the sides agree on usual values of a column and not on such as this: a missing one, empty text, one in which what both
 * search for does not stand often enough. What each gives then is said by an answer that holds for other such values, too.
 */
const specialParting =
  (isAsked: (trait: TraitId) => boolean) =>
  (left: Evaluated, right: Evaluated): Parting | undefined => {
    const sides = [left, right] as const;
    const [own, other] = sides.map(({ root }) => [...new Set(textsIn(root))].filter((text) => text !== ""));
    // What one side writes and stands in what the other does: a pattern holds more than the mark.
    const within = (some: readonly string[], all: readonly string[]) =>
      some.filter((mark) => all.some((text) => text.includes(mark)));
    const marks = [...new Set([...within(own, other), ...within(other, own)])];
    for (const [column, value] of askedOf(left, right).columns) {
      for (const { trait, special, usual, about } of specialsOf(value, marks)) {
        if (!isAsked(trait)) continue;
        if (!usual.every((text) => isEqual(left.on(new Map([[column, text]])), right.on(new Map([[column, text]]))))) continue;
        const answers = sides.map((side) =>
          answerOf(
            special,
            special.map((text) => side.on(new Map([[column, text]]))),
          ),
        );
        const [a, b] = answers;
        if (a === undefined || b === undefined || a === b) continue;
        const result = results.find(([answer]) => answer === b)?.[1];
        const replay = () => (result ? result(value) : new Failure("not-found"));
        const name = left.nameOf(column);
        const experiment = { is: "usual", column: name, values: usual } as const;
        return wholeParting(left, right, { [name]: value, ...about }, trait, [a, b], 0, experiment, replay);
      }
    }
    return undefined;
  };

export const missingParting = specialParting((trait) => trait === "ofMissing");
export const fewParting = specialParting((trait) => trait !== "ofMissing");

export function wholeParting(
  left: Evaluated,
  right: Evaluated,
  inputs: Readonly<Record<string, Value>>,
  trait: TraitId,
  answers: readonly [string, string],
  side: 0 | 1,
  experiment: Experiment,
  replay: () => Value,
): Parting {
  const rangeOf = ({ root }: Evaluated): TextRange => root.source.range;
  return {
    operation: "whole",
    ranges: [rangeOf(left), rangeOf(right)],
    functions: ["the whole", "the whole"],
    inputs: Object.fromEntries(Object.entries(inputs).map(([name, value]) => [name, [value, value] as const])),
    outputs: [left.value, right.value],
    causes: [[{ trait, answers }]],
    oneWay: side,
    reaches: "whole",
    side,
    experiment,
    replay,
  };
}
