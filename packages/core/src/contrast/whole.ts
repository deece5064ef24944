import { type Bound, allPartsOf } from "../evaluate/index.ts";
import { operationOf } from "../text/index.ts";
import type { TraitId } from "../traits/index.ts";
import { type TextRange, type Value, dateFromDays, daysFromDate, isoDate } from "../values/index.ts";
import { kindOfOutcome } from "./equal.ts";
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

/** The formats by which dates are read and written, which do not stand in texts. */
const formatsIn = (parts: readonly Bound[]): ReadonlySet<unknown> =>
  new Set(
    parts.flatMap((part) =>
      part.kind === "operation" ? part.inputs.filter((_, i) => operationOf(part.operation).slots[i]?.name === "format") : [],
    ),
  );

/** What an expression holds, whatever the row. */
interface Held {
  readonly texts: readonly string[];
  readonly columns: readonly number[];
}

const held = new WeakMap<Bound, Held>();

function heldIn(root: Bound): Held {
  const known = held.get(root);
  if (known) return known;
  const parts = allPartsOf(root);
  const formats = formatsIn(parts);
  const isText = (part: Bound) => part.kind === "constant" && part.source.kind === "literal" && typeof part.value === "string";
  const made = {
    texts: parts.flatMap((part) => (isText(part) && !formats.has(part) ? [(part as { value: string }).value] : [])),
    columns: parts.flatMap((part) => (part.kind === "column" ? [part.column] : [])),
  };
  held.set(root, made);
  return made;
}

/** The texts that are written and may stand in others. */
export const textsIn = (root: Bound): readonly string[] => heldIn(root).texts;

export function askedOf(left: Evaluated, right: Evaluated): Asked {
  const columns = new Map<number, Value>();
  for (const { root, valueOf } of [left, right]) for (const column of heldIn(root).columns) columns.set(column, valueOf(column));
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
  if (!sides.every(isOfRow)) return undefined;
  for (const [column, value] of asked.columns) {
    for (const heed of heeds) {
      const bare = heed.without(value);
      if (bare === value) continue;
      for (const side of [0, 1] as const) {
        const [own, other] = [sides[side], sides[1 - side]];
        // What is nothing for a missing value, as with most, does not say that another is one.
        if (heed.trait === "heedsMissing" && other.value === null) continue;
        // A text of which nothing is left has ends only where the sides agree on others.
        const isAlike = (text: string) => isEqual(own.on(new Map([[column, text]])), other.on(new Map([[column, text]])));
        if (heed.trait === "heedsEnds" && bare === "" && !isAlike("ab")) continue;
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

const isText = (value: Value): value is string => typeof value === "string";

/** Whether a number may be a date, as the days since the end of 1899: later than 1900, before the year 10000. */
const isSerial = (value: Value): value is number =>
  typeof value === "number" && Number.isInteger(value) && value > 366 && value < 2_958_466;
const dateOfSerial = (days: number): string => {
  const { year, month, day } = dateFromDays(days + daysFromDate(1899, 12, 30));
  return isoDate(year, month, day);
};

/** What a result may be, and what it is beside one of another kind that stands for the same. */
const kinds: readonly (readonly [own: string, other: string, as: (value: Value) => Value | undefined])[] = [
  ["its text", "a number", (value) => (isText(value) && /^ *[+-]?\d+(?:\.\d+)? *$/.test(value) ? Number(value) : undefined)],
  ["a date and time", "a date", (value) => (isText(value) ? /^(\d{4,}-\d\d-\d\d)[ T]00:00:00$/.exec(value)?.[1] : undefined)],
  ["its days", "a date", (value) => (isSerial(value) ? dateOfSerial(value) : undefined)],
  ["a text filled up", "a text", (value) => (isText(value) && value.endsWith(" ") ? value.replace(/ +$/, "") : undefined)],
];
/** Where both results stand for the same, and are of two kinds: what one is as a value of the other's. */
export function kindParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const sides = [left, right] as const;
  for (const side of [0, 1] as const) {
    const [own, other] = [sides[side], sides[1 - side]];
    for (const [given, wanted, as] of kinds) {
      const made = as(own.value);
      if (made === undefined || kindOfOutcome(made) !== kindOfOutcome(other.value) || !isEqual(made, other.value)) continue;
      const answers = side === 0 ? ([given, wanted] as const) : ([wanted, given] as const);
      return wholeParting(left, right, {}, "resultKind", answers, side, { is: "as", kind: wanted }, () => made);
    }
  }
  return undefined;
}

/** Whether what a side gives is made of its row alone: other values in it show nothing of an aggregate. */
export const isOfRow = (side: Evaluated): boolean => isEqual(side.alone(), side.value);

/** Where other rows count for one side, as they do for an aggregate: on the row alone it gives what the other gives. */
export function rowsParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const sides = [left, right] as const;
  const side = ([0, 1] as const).find((each) => !isOfRow(sides[each]));
  if (side === undefined || !isOfRow(sides[1 - side]) || !isEqual(sides[side].alone(), sides[1 - side].value)) return undefined;
  const answers = side === 0 ? (["heeded", "not heeded"] as const) : (["not heeded", "heeded"] as const);
  return wholeParting(left, right, {}, "heedsOtherRows", answers, side, { is: "alone" }, sides[side].alone);
}

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
