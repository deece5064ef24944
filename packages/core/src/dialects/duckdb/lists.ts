import { listLimit, listTooLong } from "../../text/index.ts";
import { worked } from "../step.ts";
import {
  Decimal,
  Double,
  Failure,
  FunctionItem,
  type Value,
  bad,
  integer,
  isFailure,
  isList,
  lookup,
} from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { strict } from "../shared/code.ts";
import { typeRules } from "./coercions.ts";
import { type List, isNumber, order } from "./compare.ts";
import { statistics } from "./statistics.ts";
import { toText, toDouble } from "./steps.ts";
import { type Type, conditionType, typeOf } from "../types.ts";

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
    const isOpen = (i: number) => args[i]?.kind === "literal" && types[i].from === "end";
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
    const isOpen = (i: number) => args[i]?.kind === "literal" && types[i].from === "end";
    if (text === null || (first === null && !isOpen(1)) || (last === null && !isOpen(2))) return null;
    const characters = [...(text as string)];
    return characters.slice(...sliceBounds(first, last, characters.length)).join("");
  },
};

/** A value cast to the type of a list's items. */
const castLike = (item: Value, from: Type, listType: Type): Value =>
  worked(typeRules.cast(from, String(listType.item).replace("text", "varchar"))?.convert)(item);

const known = (list: List): Value[] => list.filter((item) => item !== null);

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
const conditionOf = (value: Value): Value =>
  worked(typeRules.conversion(typeOf(typeof value === "string" ? "text" : "double"), conditionType)?.convert)(value);

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
    // The position is that in the list, to which a start does not belong.
    const first = initial === undefined ? 1 : 0;
    let result = items[0];
    for (let i = 1; i < items.length; i++) {
      result = called(lambda as FunctionItem, [result, items[i], i + first], context);
      if (isFailure(result)) return result;
    }
    return result;
  },
};

function concatenated(lists: List): Value {
  const present = lists.filter((list) => list !== null);
  return present.length === 0 ? null : present.flatMap((list) => list as List);
}

/** The functions of lists. */
export const listCode: Readonly<Record<string, Code>> = lookup({
  "characters between": charactersBetween,
  "items between": itemsBetween,
  list_concat: { run: concatenated },
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
  list_aggregate: {
    run: ([list, name, ...more]) => (list === null || name === null ? null : aggregate(list as List, name as string, more)),
  },
  ...Object.fromEntries(
    ["string_agg", "any_value", "sum", "avg", "count", ...Object.keys(statistics)].map((name) => [
      `list_${name}`,
      aggregated(name),
    ]),
  ),
  flatten: strict((list: List) => list.flatMap((each) => (isList(each) ? each : []))),
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
