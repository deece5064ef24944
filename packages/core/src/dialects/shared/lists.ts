import { type Value, tick } from "../../values/index.ts";

type List = readonly Value[];
type Same = (a: Value, b: Value) => boolean;

const isText = (item: Value): boolean => typeof item === "string";

/** Whether a list has an item that is the same: for a list that is asked about many, texts at once and others one by one. */
export function holderOf(list: List, same: Same): (item: Value) => boolean {
  const texts = new Set(list.filter(isText));
  const others = list.filter((item) => item !== null && !isText(item));
  return (item) => {
    if (texts.has(item)) return true;
    tick(others.length);
    return others.some((each) => same(each, item));
  };
}

/** Each item that is not null once, the first of those that are the same. */
export function distinctOf(list: List, same: Same): Value[] {
  const texts = new Set<Value>();
  const others: Value[] = [];
  return list.filter((item) => {
    if (item === null || texts.has(item)) return false;
    if (isText(item)) texts.add(item);
    else {
      tick(others.length);
      if (others.some((each) => same(each, item))) return false;
      others.push(item);
    }
    return true;
  });
}

/** Whether all items, or any of them, that are not null are in another list. */
export const areAllIn = (items: List, list: List, same: Same): boolean => items.every(holderOf(list, same));
export const isAnyIn = (items: List, list: List, same: Same): boolean => {
  const holds = holderOf(list, same);
  return items.some((item) => item !== null && holds(item));
};
