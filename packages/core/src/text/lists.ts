import { Failure, type Value, bad, isFailure } from "../values/index.ts";
import {
  type SlotNumber,
  any,
  kept,
  list,
  listLimit,
  listTooLong,
  number,
  operation,
  optional,
  settled,
  wholeBy,
} from "./operation.ts";
import { isWatched, passed } from "./pieces.ts";

type List = readonly Value[];

/** Tells that the items of a list from one index on stand in the result as they are. */
function passedAll(items: List, slot = 0, from = 0): void {
  if (isWatched()) items.forEach((item, i) => passed(item, slot, from + i));
}

/** Takes one item. */
export const item = operation({
  id: "item",
  family: "list",
  summary: "takes the item of a list at a position",
  slots: [list("list"), number("position")],
  traits: ["missing", "first", "negativePosition", "noItem"],
  prepare({ first, negativePosition, noItem }) {
    const isFromEnd = negativePosition === "from the end";
    return (items: List, position: SlotNumber): Value => {
      const at = Number(position);
      const index = at < 0 && isFromEnd ? items.length + at : at - Number(first);
      if (Number.isInteger(index) && index >= 0 && index < items.length) return passed(items[index], 0, index);
      return noItem === "null" ? null : new Failure("bad-index", { index: position });
    };
  },
});

/** Counts items. */
export const size = operation({
  id: "size",
  family: "list",
  result: "small",
  summary: "counts the items of a list",
  slots: [list("list")],
  traits: ["missing"],
  prepare: () => (items: List) => items.length,
});

/** Leaves out items at one end. */
export const dropItems = operation({
  id: "drop-items",
  family: "list",
  summary: "leaves out a number of items at the start or the end of a list",
  slots: [list("list"), number("count"), settled("end", ["start", "end"])],
  traits: ["missing", "tooMany"],
  prepare({ tooMany }, { end }) {
    return (items: List, count: SlotNumber): Value => {
      const dropped = Math.trunc(Number(count));
      if (tooMany === "error" && !(dropped >= 0 && dropped <= items.length))
        return bad("the number of items to leave out must be between 0 and the length");
      const from = end === "start" ? Math.max(0, dropped) : 0;
      const rest = end === "start" ? items.slice(from) : items.slice(0, Math.max(0, items.length - Math.max(0, dropped)));
      passedAll(rest, 0, from);
      return rest;
    };
  },
});

/** Puts items in reverse order. */
export const reverseItems = operation({
  id: "reverse-items",
  family: "list",
  summary: "puts the items of a list in reverse order",
  slots: [list("list")],
  traits: ["missing"],
  prepare: () => (items: List) => {
    if (isWatched()) items.forEach((_, i) => passed(items[items.length - 1 - i], 0, items.length - 1 - i));
    return [...items].reverse();
  },
});

/** Puts two lists together. */
export const joinLists = operation({
  id: "join-lists",
  family: "list",
  summary: "puts the items of two lists together",
  slots: [kept(list("a")), kept(list("b"))],
  traits: ["missingList"],
  prepare({ missingList }) {
    return (a: List | null = null, b: List | null = null): Value => {
      if ((a === null || b === null) && missingList === "null") return null;
      if (a === null && b === null) return null;
      const [before, after] = [a ?? [], b ?? []];
      if (before.length + after.length > listLimit) return listTooLong(before.length + after.length);
      passedAll(before, 0);
      passedAll(after, 1);
      return [...before, ...after];
    };
  },
});

/** Puts one item before a list or after it; a missing list has no items, a missing item is one. */
export const addItem = operation({
  id: "add-item",
  family: "list",
  summary: "puts an item before or after those of a list",
  slots: [kept(list("list")), kept(any("item")), settled("end", ["start", "end"])],
  traits: ["missingList"],
  prepare({ missingList }, { end }) {
    return (given: List | null = null, added: Value = null): Value => {
      if (given === null && missingList === "null") return null;
      const items = given ?? [];
      if (items.length >= listLimit) return listTooLong(items.length + 1);
      if (end === "start") passed(added, 1);
      passedAll(items, 0);
      if (end === "end") passed(added, 1);
      return end === "start" ? [added, ...items] : [...items, added];
    };
  },
});

/** Makes a list of values. */
export const listOf = operation({
  id: "list-of",
  family: "list",
  summary: "makes a list of values",
  slots: [{ name: "values", kind: "values" }],
  traits: [],
  prepare: () => (values: List) => values.map((value, i) => passed(value, 0, i)),
});

/** Takes the items from one position on, counted from 1: a number of them, or up to another position. */
export const sliceItems = operation({
  id: "slice-items",
  family: "list",
  summary: "takes the items of a list from a position on",
  slots: [list("list"), number("start"), optional(number("until"))],
  traits: ["missing", "until", "outsideList", "fraction"],
  prepare({ until, outsideList, fraction }) {
    const whole = wholeBy(fraction);
    return (items: List, start: SlotNumber, given?: SlotNumber): Value => {
      const first = whole(start);
      const other = given === undefined ? items.length : whole(given);
      if (isFailure(first) || isFailure(other)) return isFailure(first) ? first : other;
      const end = given === undefined || until === "position" ? other : first + other - 1;
      if (outsideList === "error" && given !== undefined && until === "number of items" && other < 0)
        return new Failure("negative-length", { length: given });
      const isOutside = first < 1 || end < first - 1 || end > items.length;
      if (outsideList === "error" && isOutside) return new Failure("bad-index", { index: start });
      if (Number.isNaN(first) || Number.isNaN(end)) return [];
      const from = Math.max(0, first - 1);
      const taken = items.slice(from, Math.max(0, end));
      passedAll(taken, 0, from);
      return taken;
    };
  },
});

/** Takes out a number of items from a position on, counted from 1, and puts others there. */
export const spliceItems = operation({
  id: "splice-items",
  family: "list",
  summary: "takes out items of a list at a position, and puts others there",
  slots: [list("list"), number("position"), number("count"), optional(list("others"))],
  traits: ["missing", "outsideList"],
  prepare({ outsideList }) {
    return (items: List, position: SlotNumber, count: SlotNumber, others: List = []): Value => {
      const at = Number(position) - 1;
      const taken = Number(count);
      const isOutside = at < 0 || at + taken > items.length;
      if (isOutside && outsideList === "error") return new Failure("bad-index", { index: position });
      const from = Math.min(items.length, Math.max(0, at));
      const to = Math.max(from, Math.min(items.length, at + taken));
      passedAll(items.slice(0, from));
      passedAll(others, 3);
      passedAll(items.slice(to), 0, to);
      return [...items.slice(0, from), ...others, ...items.slice(to)];
    };
  },
});

/** Gives whole numbers from one to another by a step. */
export const series = operation({
  id: "series",
  family: "list",
  summary: "gives the numbers from one to another",
  slots: [number("first"), number("last"), optional(number("step"))],
  traits: ["missing", "lastNumber"],
  prepare({ lastNumber }) {
    return (first: SlotNumber, last: SlotNumber, step: SlotNumber = 1): Value => {
      const [from, to, by] = [Number(first), Number(last), Number(step)];
      const steps = by === 0 ? -1 : (to - from) / by;
      const length = Math.max(0, lastNumber === "left out" ? Math.ceil(steps) : Math.floor(steps) + 1);
      return length > listLimit ? listTooLong(length) : Array.from({ length }, (_, i) => from + i * by);
    };
  },
});

/** Gives a list on that has as many items as it should. */
export const checkSize = operation({
  id: "check-size",
  family: "list",
  summary: "gives a list on, unless it has too few or too many items",
  slots: [list("list"), number("least"), optional(number("most"))],
  traits: ["missing"],
  prepare:
    () =>
    (items: List, least: SlotNumber, most: SlotNumber = Infinity): Value => {
      if (items.length < least || items.length > most)
        return new Failure("wrong-count", { given: items.length, least, ...(most !== Infinity && { most }) });
      passedAll(items);
      return items;
    },
});
