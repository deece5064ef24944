import { listLimit, listTooLong } from "../../text/index.ts";
import { worked } from "../step.ts";
import { Decimal, Double, Failure, FunctionItem, type Value, integer, isFailure, isList, lookup } from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { bad, strict } from "../shared/code.ts";
import { areAllIn, distinctOf, holderOf, isAnyIn } from "../shared/lists.ts";
import { typeRules } from "./coercions.ts";
import { type List, converted, isNumber, order, same, together } from "./compare.ts";
import { statistics } from "./statistics.ts";
import { toText, toDouble } from "./steps.ts";

/** The first and last position of a slice as indexes: the end is left out. */
function sliceBounds(first: Value, last: Value, length: number): [number, number] {
  const from = first === null ? 0 : Number(first);
  const to = last === null ? length : Number(last);
  const begin = from < 0 ? Math.max(0, length + from) : Math.max(0, from - 1);
  const end = to < 0 ? length + to + 1 : to;
  return [begin, Math.min(length, Math.max(begin, end))];
}

const itemsBetween: Code = {
  run: ([list, first, last, step], { types, args }) => {
    const isOpen = (i: number) => args[i]?.kind === "literal" && types[i] === "open end";
    if (list === null || (first === null && !isOpen(1)) || (last === null && !isOpen(2))) return null;
    if (step === null && args.length > 3 && !isOpen(3)) return null;
    const items = list as List;
    const by = Number(step ?? 1);
    if (by < 0) return new Failure("not-covered", { what: "slices with a negative step" });
    const [begin, end] = sliceBounds(first, last, items.length);
    const taken = items.slice(begin, end);
    if (by === 0) return taken.length === 0 ? [] : bad("the step of a slice must not be 0");
    return by === 1 ? taken : taken.filter((_, i) => i % by === 0);
  },
};

const charactersBetween: Code = {
  run: ([text, first, last], { types, args }) => {
    const isOpen = (i: number) => args[i]?.kind === "literal" && types[i] === "open end";
    if (text === null || (first === null && !isOpen(1)) || (last === null && !isOpen(2))) return null;
    const characters = [...(text as string)];
    return characters.slice(...sliceBounds(first, last, characters.length)).join("");
  },
};

/** A value as an item of a list of the type, so that it can be compared with others. */
const itemLike = (item: Value, from: string, listType: string): Value => converted(item, from, listType.slice(0, -2));

/** A value cast to the type of a list's items. */
const castLike = (item: Value, from: string, listType: string): Value =>
  worked(typeRules.cast(from, listType.slice(0, -2).replace("text", "varchar"))?.convert)(item);

/** Sorted, null last unless said otherwise. */
function sorted(list: List, descending: boolean, nullsFirst: boolean): List {
  const present = list.filter((item) => item !== null);
  const missing = list.filter((item) => item === null);
  present.sort((a, b) => (descending ? order(b, a) : order(a, b)));
  return nullsFirst ? [...missing, ...present] : [...present, ...missing];
}

/** The list with its missing items where they are asked for: last unless first. */
const withNulls = (nulls: Value, sort: (first: boolean) => Value): Value =>
  nulls !== null && !/^(?:nulls[_ ])?(?:first|last)$|^default$/i.test(nulls as string)
    ? bad(`"${String(nulls)}" is no place for null`)
    : sort(/first/i.test(String(nulls ?? "")));

const isDirection = (direction: Value): boolean => /^(?:asc|desc|ascending|descending|default)$/i.test(String(direction));
const isDescending = (direction: Value): boolean => /^desc/i.test(String(direction ?? "asc"));

const known = (list: List): Value[] => list.filter((item) => item !== null);

const distinct = (list: List): Value[] => distinctOf(list, same);

function aggregate(list: List, name: string, more: List): Value {
  const present = known(list);
  const statistic = statistics[name.toLowerCase()];
  if (statistic) return statistic(present);
  const asNumbers = () => present.map((item) => (toDouble(item) as Double).value);
  switch (name.toLowerCase()) {
    case "string_agg":
    case "group_concat":
    case "listagg":
      return present.length === 0
        ? null
        : present.map((item) => toText(item) as string).join((more[0] as string | undefined) ?? ",");
    case "count":
      return present.length;
    case "min":
      return present.reduce<Value>((best, item) => (best === null || order(item, best) < 0 ? item : best), null);
    case "max":
      return present.reduce<Value>((best, item) => (best === null || order(item, best) > 0 ? item : best), null);
    case "first":
      return list[0] ?? null;
    case "last":
      return list[list.length - 1] ?? null;
    case "any_value":
      return present[0] ?? null;
    case "sum": {
      if (present.length === 0) return null;
      if (present.every(isNumber)) return integer(present.reduce<bigint>((sum, item) => sum + BigInt(item as number), 0n));
      if (present.every((item) => item instanceof Decimal))
        return present.reduce<Decimal>((sum, item) => sum.plus(item), Decimal.of(0));
      return new Double(asNumbers().reduce((sum, item) => sum + item, 0));
    }
    case "avg":
    case "mean":
      return present.length === 0 ? null : new Double(asNumbers().reduce((sum, item) => sum + item, 0) / present.length);
  }
  return new Failure("not-covered", { what: `the aggregate ${name}` });
}

const aggregated = (name: string): Code => strict((list: List) => aggregate(list, name, []));

/** Calls the function of a list, with the position where it takes two. */
function called(item: FunctionItem, values: List, context: CodeContext): Value {
  return context.spend(1) ?? item.call(values.slice(0, item.arity));
}

const transform: Code = {
  run: ([list, lambda], context) => {
    if (list === null) return null;
    const results: Value[] = [];
    for (const [i, each] of (list as List).entries()) {
      const result = called(lambda as FunctionItem, [each, i + 1], context);
      if (isFailure(result)) return result;
      results.push(result);
    }
    return results;
  },
};

/** What a function of a filter gives as a condition. */
const conditionOf = (value: Value): Value => converted(value, typeof value === "string" ? "text" : "double", "condition");

const filter: Code = {
  run: ([list, lambda], context) => {
    if (list === null) return null;
    const kept: Value[] = [];
    for (const [i, each] of (list as List).entries()) {
      const result = called(lambda as FunctionItem, [each, i + 1], context);
      const holds = result === null || isFailure(result) ? result : conditionOf(result);
      if (isFailure(holds)) return holds;
      if (holds === true) kept.push(each);
    }
    return kept;
  },
};

const reduce: Code = {
  run: ([list, lambda, initial], context) => {
    if (list === null) return null;
    if ((lambda as FunctionItem).arity < 2) return bad("the function of list_reduce takes two or three arguments");
    const items = initial === undefined ? (list as List) : [initial, ...(list as List)];
    if (items.length === 0) return bad("an empty list has nothing to reduce");
    let result = items[0];
    for (let i = 1; i < items.length; i++) {
      result = called(lambda as FunctionItem, [result, items[i], i], context);
      if (isFailure(result)) return result;
    }
    return result;
  },
};

function series(first: number, last: number | undefined, step: number = 1, withEnd: boolean): Value {
  const [from, to] = last === undefined ? [0, first] : [first, last];
  if (step === 0) return [];
  const length = Math.floor((to - from) / step) + 1;
  if (length > listLimit) return listTooLong(length);
  const result: number[] = [];
  for (let value = from; step > 0 ? (withEnd ? value <= to : value < to) : withEnd ? value >= to : value > to; value += step)
    result.push(value);
  return result;
}

function concatenated(lists: List): Value {
  const present = lists.filter((list) => list !== null);
  return present.length === 0 ? null : present.flatMap((list) => list as List);
}

function appended(list: Value, item: Value): Value {
  return isFailure(item) ? item : [...((list as List | null) ?? []), item];
}

/** The functions of lists. */
export const listCode: Readonly<Record<string, Code>> = lookup({
  "characters between": charactersBetween,
  "items between": itemsBetween,
  list_value: {
    run: (args, context) => {
      const type = together(context);
      if (isFailure(type)) return type;
      const items = args.map((arg, i) => converted(arg, context.types[i], type));
      return items.find(isFailure) ?? items;
    },
  },
  list_contains: {
    run: ([list, item], { types }) => {
      if (list === null || item === null) return null;
      const wanted = itemLike(item, types[1], types[0]);
      return isFailure(wanted) ? wanted : (list as List).some((each) => each !== null && same(each, wanted));
    },
  },
  list_position: {
    run: ([list, item], { types }) => {
      if (list === null) return null;
      const wanted = itemLike(item, types[1], types[0]);
      if (isFailure(wanted)) return wanted;
      const at = (list as List).findIndex((each) => same(each, wanted));
      return at < 0 ? null : at + 1;
    },
  },
  list_has_any: strict((a: List, b: List) => isAnyIn(a, b, same)),
  list_has_all: strict((a: List, b: List) => areAllIn(known(b), a, same)),
  "<@": strict((a: List, b: List) => areAllIn(known(a), b, same)),
  list_concat: { run: concatenated },
  list_append: { run: ([list, item], { types }) => appended(list, itemLike(item, types[1], types[0])) },
  list_prepend: {
    run: ([item, list], { types }) => {
      const first = itemLike(item, types[0], types[1]);
      return isFailure(first) ? first : [first, ...((list as List | null) ?? [])];
    },
  },
  array_push_front: {
    run: ([list, item], { types }) => {
      const first = itemLike(item, types[1], types[0]);
      return isFailure(first) ? first : [first, ...((list as List | null) ?? [])];
    },
  },
  // The engine gives the values as its table holds them, which for a few is the last one first.
  list_distinct: strict((list: List) => distinct(list).reverse()),
  list_unique: strict((list: List) => distinct(list).length),
  list_sort: {
    run: ([list, direction = null, nulls = null]) => {
      if (direction !== null && !isDirection(direction)) return bad(`"${direction as string}" is no order of a list`);
      return list === null ? null : withNulls(nulls, (first) => sorted(list as List, isDescending(direction), first));
    },
  },
  list_grade_up: {
    run: ([list, direction = null, nulls = null]) => {
      if (direction !== null && !isDirection(direction)) return bad(`"${direction as string}" is no order of a list`);
      if (list === null) return null;
      const places = (list as List).map((item, i): [Value, number] => [item, i + 1]);
      const turn = isDescending(direction) ? -1 : 1;
      return withNulls(nulls, (first) =>
        places
          .sort(([a, i], [b, j]) =>
            a === null || b === null
              ? (Number(b === null) - Number(a === null)) * (first ? 1 : -1) || i - j
              : turn * order(a, b) || i - j,
          )
          .map(([, place]) => place),
      );
    },
  },
  list_reverse_sort: strict((list: List, nulls: Value = null) => withNulls(nulls, (first) => sorted(list, true, first))),
  list_resize: {
    run: ([list, length, fill = null], { types }) => {
      if (list === null) return null;
      const size = Number(length ?? 0);
      if (size < 0) return bad("a list cannot be shorter than nothing");
      if (size > listLimit) return listTooLong(size);
      const filling = types.length > 2 ? castLike(fill, types[2], types[0]) : null;
      return isFailure(filling)
        ? filling
        : Array.from({ length: size }, (_, i) => (i < (list as List).length ? (list as List)[i] : filling));
    },
  },
  list_select: strict((list: List, positions: List) =>
    positions.map((at) => (at === null ? null : (list[Number(at) - 1] ?? null))),
  ),
  list_where: strict((list: List, mask: List) =>
    mask.includes(null)
      ? bad("a mask must not hold null")
      : mask.flatMap((isKept, i) => (isKept === true ? [list[i] ?? null] : [])),
  ),
  list_intersect: strict((a: List, b: List) => distinct(a).filter(holderOf(b, same))),
  list_aggregate: {
    run: ([list, name, ...more]) => (list === null || name === null ? null : aggregate(list as List, name as string, more)),
  },
  ...Object.fromEntries(
    ["string_agg", "min", "max", "first", "last", "any_value", "sum", "avg", "count", ...Object.keys(statistics)].map((name) => [
      `list_${name}`,
      aggregated(name),
    ]),
  ),
  flatten: strict((list: List) => list.flatMap((each) => (isList(each) ? each : []))),
  range: strict((first: number | bigint, last?: number | bigint, step?: number | bigint) =>
    series(Number(first), last === undefined ? undefined : Number(last), step === undefined ? 1 : Number(step), false),
  ),
  generate_series: strict((first: number | bigint, last?: number | bigint, step?: number | bigint) =>
    series(Number(first), last === undefined ? undefined : Number(last), step === undefined ? 1 : Number(step), true),
  ),
  list_transform: transform,
  list_filter: filter,
  list_reduce: reduce,
  array_length: strict((list: List, dimension: number = 1) =>
    dimension === 1 ? list.length : bad("only the first dimension has a length here"),
  ),
  repeat: strict((list: List, count: number) =>
    list.length * count > listLimit
      ? listTooLong(list.length * count)
      : Array.from({ length: Math.max(0, count) }, () => list).flat(),
  ),
});
