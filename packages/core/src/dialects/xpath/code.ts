import { charactersOf, kernelFor } from "../../text/index.ts";
import { worked } from "../step.ts";
import {
  ArrayItem,
  Double,
  Failure,
  FunctionItem,
  Interval,
  MapItem,
  Moment,
  type Value,
  asDouble,
  atomOf,
  atoms,
  isFailure,
  isNumeric,
  itemsOf,
  itemType,
  sequenceOf,
  wrongKind,
} from "../../values/index.ts";
import type { Code, CodeContext } from "../dialect.ts";
import { strict } from "../shared/code.ts";
import { applyItem, lookUp, typeRules } from "./coercions.ts";
import { compareAtoms, isOfType, mapKey, sameAtom } from "./items.ts";
import { steps, stringOf } from "./steps.ts";
import { calculated } from "./functions.ts";
import { anyType } from "../types.ts";

const run = (compute: (args: readonly Value[], context: CodeContext) => Value): Code => ({ run: compute });

const invalid = (code: string, problem: string) => new Failure("invalid-value", { problem }).named(code);

/** Code on the items of the first argument. */
const onItems = (compute: (items: readonly Value[], rest: readonly Value[], context: CodeContext) => Value): Code =>
  run(([first, ...rest], context) => compute(itemsOf(first), rest, context));

const calculation = (sign: "+" | "/") => kernelFor("calculate", calculated, { sign });
const sumKernel = calculation("+");
const divideKernel = calculation("/");

const addDurations = kernelFor("add-intervals", { missing: "null" }, { direction: "later" });

const divideDuration = kernelFor(
  "scale-interval",
  { missing: "null", partsOfMonths: "rounded", byZero: "error" },
  { does: "by" },
);

function total(items: readonly Value[], zero: Value): Value {
  if (items.length === 0) return zero;
  const [first] = items;
  const isDuration = first instanceof Interval && first.type !== "duration";
  const other = items.find((item) => (isDuration ? itemType(item) !== itemType(first) : !isNumeric(item)));
  if (other !== undefined) return invalid("err:FORG0006", "only numbers, or durations of one type, can be added");
  return items.reduce((a, b) => (isFailure(a) ? a : isDuration ? addDurations(a, b) : sumKernel(a, b)));
}

/** Calls a function for each of several argument lists, until one fails. */
function each(lists: readonly (readonly Value[])[], action: Value): Value[] | Failure {
  const results: Value[] = [];
  for (const args of lists) {
    const result = applyItem(action, args);
    if (isFailure(result)) return result;
    results.push(result);
  }
  return results;
}

const gathered = (results: Value[] | Failure): Value => (isFailure(results) ? results : sequenceOf(results));

function kept(items: readonly Value[], test: Value): Value[] | Failure {
  const answers = each(
    items.map((item) => [item]),
    test,
  );
  if (isFailure(answers)) return answers;
  const wrong = answers.find((answer) => typeof answer !== "boolean");
  return wrong === undefined ? items.filter((_, i) => answers[i] === true) : wrongKind("xs:boolean", wrong);
}

function sorted(items: readonly Value[], key: Value): Value {
  const keys =
    key === null
      ? items.map((item) => atoms(item))
      : items.map((item) => {
          const k = applyItem(key, [item]);
          return isFailure(k) ? k : atoms(k);
        });
  const broken = keys.find(isFailure);
  if (broken) return broken;
  let failure: Failure | undefined;
  const compare = (a: readonly Value[], b: readonly Value[]): number => {
    for (let i = 0; i < Math.max(a.length, b.length); i++) {
      if (i >= a.length || i >= b.length) return a.length - b.length;
      const order = compareAtoms(a[i], b[i]);
      if (typeof order !== "number") failure ??= order;
      else if (order !== 0) return order || 0;
    }
    return 0;
  };
  const order = items.map((_, i) => i).sort((a, b) => compare(keys[a] as readonly Value[], keys[b] as readonly Value[]));
  return failure ?? sequenceOf(order.map((i) => items[i]));
}

function deepEqual(a: Value, b: Value): boolean {
  const [left, right] = [itemsOf(a), itemsOf(b)];
  if (left.length !== right.length) return false;
  return left.every((item, i) => {
    const other = right[i];
    if (item instanceof ArrayItem && other instanceof ArrayItem)
      return item.members.length === other.members.length && item.members.every((m, k) => deepEqual(m, other.members[k]));
    if (item instanceof MapItem && other instanceof MapItem) {
      return (
        item.entries.size === other.entries.size &&
        [...item.entries].every(([key, [, value]]) => deepEqual(value, other.entries.get(key)?.[1] ?? new Failure("bad-index")))
      );
    }
    return !(item instanceof FunctionItem) && sameAtom(item, other);
  });
}

function ofType(value: Value, type: string): boolean | Failure {
  const items = itemsOf(value);
  if (type === "empty-sequence()") return items.length === 0;
  const [, name, mark] = /^(.*?)([?*+]?)$/.exec(type)!;
  if (items.length === 0) return mark === "?" || mark === "*";
  if (items.length > 1 && mark !== "*" && mark !== "+") return false;
  for (const item of items) {
    const answer = isOfType(item, name);
    if (answer !== true) return answer;
  }
  return true;
}

const mapOf = (entries: Iterable<readonly [Value, Value]>): MapItem => {
  const map = new Map<string, readonly [Value, Value]>();
  for (const [key, value] of entries) if (!map.has(mapKey(key))) map.set(mapKey(key), [key, value]);
  return new MapItem(map);
};

/** Raises to a power as F&O 3.1, 4.8.8, where 1 stays 1 and -1 to an infinite power is 1; the host gives NaN. */
const power = (base: number, exponent: number): number =>
  base === 1 || (base === -1 && Math.abs(exponent) === Infinity) ? 1 : base ** exponent;

const members = (value: Value): readonly Value[] => (value as ArrayItem).members;

function flatten(value: Value): Value[] {
  return itemsOf(value).flatMap((item) => (item instanceof ArrayItem ? item.members.flatMap(flatten) : [item]));
}

function lookups(from: Value, key: Value): Value {
  const keys = atoms(key);
  if (isFailure(keys)) return keys;
  return sequenceOf(itemsOf(from).flatMap((item) => keys.map((k) => lookUp(item, k))));
}

/** fn:dateTime (F&O 3.1, 5.2): a date and a time put together. */
export function joinMoments(date: Moment, time: Moment): Value {
  const [dateZone, timeZone] = [date, time].map(({ text }) => /(?:Z|[+-]\d{2}:\d{2})$/.exec(text)?.[0]);
  if (dateZone && timeZone && dateZone !== timeZone)
    return new Failure("invalid-value", { problem: "the date and the time have different time zones" }).named("err:FORG0008");
  const bare = ({ text }: Moment, zone: string | undefined) => (zone ? text.slice(0, -zone.length) : text);
  return new Moment("dateTime", `${bare(date, dateZone)}T${bare(time, timeZone)}${dateZone ?? timeZone ?? ""}`);
}

/** Functions that are not rows of data, by name. */
export const xpathCode: Readonly<Record<string, Code>> = {
  string: {
    ...run(([item]) => {
      const atom = atomOf(item);
      return atom === null ? "" : isFailure(atom) ? atom : stringOf(atom);
    }),
    like: { ...steps.text, slots: ["value"] },
  },
  "string-to-codepoints": run(([text]) => {
    const chars = charactersOf((text as string | null) ?? "");
    return isFailure(chars) ? chars : sequenceOf(chars.map((char) => char.codePointAt(0)!));
  }),
  "codepoints-to-string": onItems((codes) => {
    let result = "";
    for (const code of codes) {
      const n = Number(code);
      const isXml =
        n === 9 ||
        n === 10 ||
        n === 13 ||
        (n >= 32 && n <= 0xd7ff) ||
        (n >= 0xe000 && n <= 0xfffd) ||
        (n >= 0x10000 && n <= 0x10ffff);
      if (typeof code !== "number" || !isXml) return new Failure("no-such-character", { code: stringOf(code) });
      result += String.fromCodePoint(n);
    }
    return result;
  }),
  "contains-token": run(([texts, token]) => {
    const wanted = (token as string).replace(/^[ \t\r\n]+|[ \t\r\n]+$/g, "");
    return wanted !== "" && (texts as readonly string[]).some((text) => text.split(/[ \t\r\n]+/).includes(wanted));
  }),
  dateTime: strict((date: Moment, time: Moment) => joinMoments(date, time)),
  "math:pow": run(([value, exponent]) => (value === null ? null : new Double(power(asDouble(value), asDouble(exponent))))),
  "instance of": run(([value, type]) => ofType(value, type as string)),
  "treat as": run(([value, type]) => {
    const fits = ofType(value, type as string);
    return fits === true ? value : isFailure(fits) ? fits : wrongKind(type as string, value).named("err:XPDY0050");
  }),
  "castable as": run(([value, type]) => {
    const cast = typeRules.cast(anyType, type as string);
    return cast ? !isFailure(worked(cast.convert)(value)) : new Failure("unknown-type", { name: type });
  }),
  "deep-equal": run(([a, b]) => deepEqual(a, b)),
  avg: onItems((items) => {
    if (items.length === 0) return null;
    const sum = total(items, 0);
    return isFailure(sum) ? sum : (sum instanceof Interval ? divideDuration : divideKernel)(sum, items.length);
  }),
  sum: onItems((items, [zero = 0]) => total(items, zero)),
  "for-each": onItems((items, [action]) =>
    gathered(
      each(
        items.map((item) => [item]),
        action,
      ),
    ),
  ),
  filter: onItems((items, [test]) => gathered(kept(items, test))),
  "fold-left": onItems((items, [zero, action]) =>
    items.reduce((result, item) => (isFailure(result) ? result : applyItem(action, [result, item])), zero),
  ),
  "fold-right": onItems((items, [zero, action]) =>
    items.reduceRight((result, item) => (isFailure(result) ? result : applyItem(action, [item, result])), zero),
  ),
  "for-each-pair": onItems((items, [others, action]) => {
    const right = itemsOf(others);
    return gathered(
      each(
        items.slice(0, right.length).map((item, i) => [item, right[i]]),
        action,
      ),
    );
  }),
  sort: onItems((items, [, key = null]) => sorted(items, key)),
  apply: run(([action, args]) => applyItem(action, members(args))),
  "function-arity": run(([action]) => (action instanceof FunctionItem ? action.arity : 1)),
  error: run(([code, description]) => {
    const told = atomOf(description ?? code);
    return isFailure(told) ? told : new Failure("raised", { text: told === null ? "" : stringOf(told) }).named("err:FOER0000");
  }),
  "array of": run(([items = null]) => new ArrayItem(itemsOf(items))),
  "look up": run(([from, key]) => lookups(from, key)),
  "look up all": run(([from]) =>
    sequenceOf(
      itemsOf(from).flatMap((item) =>
        item instanceof MapItem
          ? [...item.entries.values()].map(([, value]) => value)
          : item instanceof ArrayItem
            ? item.members
            : [wrongKind("a map or an array", item)],
      ),
    ),
  ),
  "map:get": run(([map, key]) => lookUp(map, key)),
  "map:contains": run(([map, key]) => (map as MapItem).entries.has(mapKey(key))),
  "map:keys": run(([map]) => sequenceOf([...(map as MapItem).entries.values()].map(([key]) => key))),
  "map:size": run(([map]) => (map as MapItem).entries.size),
  "map:put": run(([map, key, value]) => new MapItem(new Map([...(map as MapItem).entries, [mapKey(key), [key, value]]]))),
  "map:entry": run(([key, value]) => mapOf([[key, value]])),
  "map:remove": run(
    ([map, keys]) =>
      new MapItem(new Map([...(map as MapItem).entries].filter(([key]) => !itemsOf(keys).some((k) => mapKey(k) === key)))),
  ),
  "map:merge": onItems((maps) => {
    const wrong = maps.find((map) => !(map instanceof MapItem));
    return wrong === undefined ? mapOf(maps.flatMap((map) => [...(map as MapItem).entries.values()])) : wrongKind("a map", wrong);
  }),
  "map:for-each": run(([map, action]) => gathered(each([...(map as MapItem).entries.values()], action))),
  "array:join": onItems((arrays) => {
    const wrong = arrays.find((array) => !(array instanceof ArrayItem));
    return wrong === undefined ? new ArrayItem(arrays.flatMap(members)) : wrongKind("an array", wrong);
  }),
  "array:flatten": run(([items]) => sequenceOf(flatten(items))),
  "array:for-each": run(([array, action]) => {
    const results = each(
      members(array).map((member) => [member]),
      action,
    );
    return isFailure(results) ? results : new ArrayItem(results);
  }),
  "array:filter": run(([array, test]) => {
    const results = kept(members(array), test);
    return isFailure(results) ? results : new ArrayItem(results);
  }),
};
