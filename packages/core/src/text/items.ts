import type { Answers } from "../traits/index.ts";
import { Decimal, Double, Failure, type Value, bad, isFailure, tick } from "../values/index.ts";
import { keyOf } from "./folding.ts";
import { isNotANumber, orderBy, ordering, relations } from "./measure-test.ts";
import { type SlotNumber, any, kept, keptBy, list, number, operation, optional, settled, text, truthBy } from "./operation.ts";
import { passed } from "./pieces.ts";

type List = readonly Value[];

/** The traits by which two items are the same; kinds that do not compare never are. */
const sameness = ["case", "padding", "notANumber"] as const;

interface Holder {
  readonly has: (item: Value) => boolean;
  readonly add: (item: Value) => void;
}

interface Sameness {
  readonly same: (a: Value, b: Value) => boolean;
  /** A list that is asked about many items: items that are the same have one key, so that few are compared. */
  readonly holderOf: (list: List) => Holder;
}

function samenessBy(answers: Answers<(typeof sameness)[number]>): Sameness {
  const order = orderBy({ ...answers, mixed: "by kind" });
  const same = (a: Value, b: Value): boolean => (a === null || b === null ? a === b : order(a, b) === 0);
  const textKey = answers.padding === "counted" ? keyOf(answers.case) : () => "";
  const keyFor = (item: Value): unknown => {
    if (typeof item === "string") return textKey(item);
    if (typeof item === "number" || typeof item === "bigint") return Number(item);
    if (item instanceof Double) return item.value;
    return item instanceof Decimal ? item.toNumber() : undefined;
  };
  const holderOf = (items: List): Holder => {
    const known = new Map<unknown, Value[]>();
    const add = (item: Value): void => {
      const key = keyFor(item);
      const alike = known.get(key);
      if (alike) alike.push(item);
      else known.set(key, [item]);
    };
    items.forEach(add);
    const has = (item: Value): boolean => {
      const alike = known.get(keyFor(item)) ?? [];
      tick(alike.length);
      return alike.some((each) => same(each, item));
    };
    return { has, add };
  };
  return { same, holderOf };
}

/** Looks for an item: `wanted` is `whether` it is there, its `first place`, or `all places`, from 1. */
export const findItem = operation({
  id: "find-item",
  family: "list",
  summary: "looks for an item in a list",
  slots: [
    list("list"),
    keptBy(any("item"), "missingWanted"),
    kept(number("start")),
    settled("wanted", ["whether", "first place", "all places"]),
  ],
  traits: ["missing", "missingWanted", ...sameness],
  prepare({ missingWanted, ...answers }, { wanted }) {
    const { same } = samenessBy(answers);
    return (items: List, item: Value = null, start: SlotNumber | null = 1): Value => {
      if (item === null && missingWanted === "null") return null;
      if (wanted === "all places") return items.flatMap((each, i) => (same(each, item) ? [i + 1] : []));
      // What cannot be there is not looked for.
      const isNowhere = items.length === 0 || (item === null && !items.includes(null));
      if (start === null && !isNowhere) return bad("the position to start at is null");
      const at = isNowhere ? -1 : items.findIndex((each, i) => i + 1 >= (start as SlotNumber) && same(each, item));
      if (wanted === "whether") return at >= 0;
      return at < 0 ? null : at + 1;
    };
  },
});

/** Tells whether a list holds `any` or `all` items of another. */
export const holdsItems = operation({
  id: "holds-items",
  family: "list",
  result: "small",
  summary: "tells whether a list holds items of another",
  slots: [list("list"), list("others"), settled("how", ["any", "all"])],
  traits: ["missing", "missingShared", ...sameness],
  prepare({ missingShared, ...answers }, { how }) {
    const { holderOf } = samenessBy(answers);
    return (items: List, others: List): Value => {
      const { has } = holderOf(items);
      const isHeld = (item: Value): boolean => item !== null && has(item);
      if (how === "any") return others.some(isHeld);
      return others.every((item) => isHeld(item) || (item === null && missingShared === "left out"));
    };
  },
});

/** Keeps each item once, of those that are in another list where one is given; `wanted` may be their `number`. */
export const distinctItems = operation({
  id: "distinct-items",
  family: "list",
  summary: "keeps the first of the items that are the same",
  slots: [list("list"), { ...list("within"), optional: true }, settled("wanted", ["items", "number"])],
  traits: ["missing", "distinctOrder", ...sameness],
  prepare({ distinctOrder, ...answers }, { wanted }) {
    const { holderOf } = samenessBy(answers);
    return (items: List, within?: List): Value => {
      const isWithin = within ? holderOf(within).has : () => true;
      const met = holderOf([]);
      const places = items.flatMap((item, i) => {
        if (item === null || met.has(item)) return [];
        met.add(item);
        return isWithin(item) ? [i] : [];
      });
      if (wanted === "number") return places.length;
      if (distinctOrder === "last first") places.reverse();
      return places.map((i) => passed(items[i], 0, i));
    };
  },
});

/** Puts another item in the place of those that are the same, or leaves them out where none is given. */
export const replaceItems = operation({
  id: "replace-items",
  family: "list",
  summary: "replaces items of a list, or leaves them out",
  slots: [list("list"), kept(any("item")), kept(any("replacement")), settled("how", ["replaced", "left out"])],
  traits: ["missing", ...sameness],
  prepare(answers, { how }) {
    const { same } = samenessBy(answers);
    return (items: List, item: Value = null, replacement: Value = null): Value =>
      items.flatMap((each, i) => {
        if (!same(each, item)) return [passed(each, 0, i)];
        return how === "left out" ? [] : [passed(replacement, 2)];
      });
  },
});

/** Puts items in order, or gives their `places` in it, from 1; missing ones come last unless they are to come first. */
export const sortItems = operation({
  id: "sort-items",
  family: "list",
  summary: "puts the items of a list in order",
  slots: [list("list"), optional(text("direction")), optional(text("missingAt")), settled("wanted", ["items", "places"])],
  traits: ["missing", ...ordering],
  prepare(answers, { wanted }) {
    const order = orderBy(answers);
    return (items: List, direction = "ascending", missingAt = "last"): Value => {
      const turn = /^desc/i.test(direction) ? -1 : 1;
      const missingTurn = /first$/i.test(missingAt) ? -1 : 1;
      let failure: Failure | undefined;
      const compared = (a: Value, b: Value): number => {
        if (a === null || b === null) return missingTurn * (Number(a === null) - Number(b === null));
        const found = order(a, b);
        if (typeof found === "number") return turn * found || 0;
        failure ??= found;
        return 0;
      };
      const places = items.map((_, i) => i).sort((i, j) => compared(items[i], items[j]));
      return failure ?? places.map((i) => (wanted === "places" ? i + 1 : passed(items[i], 0, i)));
    };
  },
});

/** Takes the `greatest` or the `least` of values. */
export const extreme = operation({
  id: "extreme",
  family: "list",
  result: "given",
  summary: "takes the greatest or the least of values",
  slots: [{ name: "values", kind: "values" }, settled("wanted", ["greatest", "least"])],
  traits: ["missingValue", "amongEqual", ...ordering],
  prepare({ missingValue, amongEqual, ...answers }, { wanted }) {
    const order = orderBy(answers);
    const turn = wanted === "greatest" ? 1 : -1;
    const isBetter = amongEqual === "last" ? (found: number) => found * turn >= 0 : (found: number) => found * turn > 0;
    return (values: List): Value => {
      let best = -1;
      for (let i = 0; i < values.length; i++) {
        if (values[i] === null) {
          if (missingValue === "null") return null;
          continue;
        }
        const found = best < 0 ? turn : order(values[i], values[best]);
        if (isFailure(found)) return new Failure("values-do-not-compare", found.facts);
        if (Number.isNaN(found) ? isNotANumber(values[i]) : isBetter(found)) best = i;
      }
      return best < 0 ? null : passed(values[best], 0, best);
    };
  },
});

const itemsOf = (value: Value): List => (Array.isArray(value) ? (value as List) : value === null ? [] : [value]);

/** Tells whether a relation holds for some item of one value and some item of another. */
export const compareItems = operation({
  id: "compare-items",
  family: "logic",
  summary: "tells whether a relation holds for some item of one value and some of another",
  slots: [
    kept(any("a")),
    kept(any("b")),
    settled(
      "relation",
      Object.keys(relations).filter((name) => name !== "order"),
    ),
  ],
  traits: [...ordering, "truth"],
  prepare({ truth, ...answers }, { relation }) {
    const order = orderBy(answers);
    const holds = relations[relation as string];
    const given = truthBy(truth);
    return (left: Value = null, right: Value = null): Value => {
      const others = itemsOf(right);
      for (const a of itemsOf(left)) {
        for (const b of others) {
          if (a === null || b === null) continue;
          const found = order(a, b);
          if (isFailure(found)) return found;
          if (holds(found) === true) return given(true);
        }
      }
      return given(false);
    };
  },
});
