import { Failure, type Value } from "../values/index.ts";
import { type Slot, type SlotNumber, any, kept, listLimit, listTooLong, number, operation, settled } from "./operation.ts";
import { isWatched, passed } from "./pieces.ts";

type List = readonly Value[];

const list = (name: string): Slot => ({ name, kind: "list" });

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
        return new Failure("invalid-value", { problem: "the number of items to leave out must be between 0 and the length" });
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
