import {
  ArrayItem,
  Double,
  Failure,
  FunctionItem,
  MapItem,
  Moment,
  type Value,
  integer,
  isFailure,
  isWholeNumber,
} from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { ConversionLine, TypeRules } from "../dialect.ts";
import { type Work, partsOfWork, unlessMissing } from "../step.ts";
import {
  asDouble,
  atomOf,
  atoms,
  castAtom,
  isNumeric,
  itemsOf,
  mapKey,
  sequenceOf,
  truthOf,
  typeOf,
  wrongKind,
} from "./items.ts";
import { steps, stringOf } from "./steps.ts";

/** A moment of a type, or none. */
const momentOf =
  (type: string) =>
  (value: Value): Value => {
    const item = atomOf(value);
    if (item === null || isFailure(item)) return item;
    return item instanceof Moment && item.type === type ? item : wrongKind(`xs:${type}?`, item);
  };

/** The function conversion rules for a parameter type (XPath 3.1, 3.1.5.2). */
const converting: Readonly<Record<string, Work>> = {
  "string?": (value) => {
    const item = atomOf(value);
    return item === null || typeof item === "string" || isFailure(item) ? item : wrongKind("xs:string?", item);
  },
  string: (value) => {
    const item = atomOf(value);
    return typeof item === "string" || isFailure(item) ? item : wrongKind("xs:string", item);
  },
  // What concat and || do: any atomic item as text.
  "stringify?": [atomOf, steps.text],
  "strings*": (value) => {
    const items = atoms(value);
    return isFailure(items) ? items : items.map(stringOf);
  },
  "string*": (value) => {
    const items = atoms(value);
    if (isFailure(items)) return items;
    const other = items.find((item) => typeof item !== "string");
    return other === undefined ? items : wrongKind("xs:string*", other);
  },
  numeric: (value) => {
    const item = atomOf(value);
    return isFailure(item) || isNumeric(item) ? item : wrongKind("a number", item);
  },
  double: (value) => {
    const item = atomOf(value);
    return isFailure(item) ? item : isNumeric(item) ? asDouble(item) : wrongKind("xs:double", item);
  },
  "numeric?": (value) => {
    const item = atomOf(value);
    if (item instanceof Moment) return new Failure("not-covered", { what: "durations and arithmetic of dates" });
    return item === null || isFailure(item) || isNumeric(item) ? item : wrongKind("a number", item);
  },
  integer: (value) => {
    const item = atomOf(value);
    return isFailure(item) || typeof item === "number" || typeof item === "bigint" ? item : wrongKind("xs:integer", item);
  },
  "integer?": (value) => {
    const item = atomOf(value);
    return item === null || isFailure(item) || typeof item === "number" || typeof item === "bigint"
      ? item
      : wrongKind("xs:integer?", item);
  },
  // The effective boolean value (2.4.3).
  condition: truthOf,
  "atomic?": atomOf,
  atomic: (value) => atomOf(value) ?? wrongKind("one atomic value", null),
  atoms,
  "date?": momentOf("date"),
  "time?": momentOf("time"),
  "dateTime?": momentOf("dateTime"),
  "atomic*": (value) => {
    const items = atoms(value);
    return isFailure(items) ? items : sequenceOf(items);
  },
  function: (value) =>
    value instanceof FunctionItem || value instanceof MapItem || value instanceof ArrayItem || isFailure(value)
      ? value
      : wrongKind("a function", value),
  map: (value) => (value instanceof MapItem || isFailure(value) ? value : wrongKind("a map", value)),
  items: (value) => (isFailure(value) ? value : itemsOf(value)),
  members: (value) => (value instanceof ArrayItem ? value.members : isFailure(value) ? value : wrongKind("an array", value)),
  array: (value) => (value instanceof ArrayItem || isFailure(value) ? value : wrongKind("an array", value)),
};

/** Values of a known single type need not be converted for these. */
const unchanged: Readonly<Record<string, string>> = {
  "text|literal": "string?|string|stringify?|atomic?|atomic|atomic*",
  "text?|literal?": "string?|stringify?|atomic?|atomic*",
  integer: "numeric?|integer|integer?|atomic?|atomic|atomic*",
  "integer?": "numeric?|integer?|atomic?|atomic*",
  boolean: "condition|atomic?|atomic|atomic*",
  "boolean?": "atomic?|atomic*",
};

const conversions: readonly ConversionLine[] = [
  ...Object.entries(unchanged).map(([from, to]): ConversionLine => [from, to, 0]),
  ...Object.entries(converting).map(([to, work]): ConversionLine => ["*", to, 1, work]),
  ["*", "any", 0],
];

const asSequence = (value: Value): Value => (Array.isArray(value) ? sequenceOf(value as readonly Value[]) : value);
const asArray = (value: Value): Value => (Array.isArray(value) ? new ArrayItem(value as readonly Value[]) : value);

export const typeRules: TypeRules = {
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length > 0 && present.every((value) => typeof value === "string")) return "text?";
    if (present.length > 0 && present.every((value) => typeof value === "number" || typeof value === "bigint"))
      return present.every(isWholeNumber) ? "integer?" : "double?";
    return "any";
  },
  readColumn: (type, value) =>
    typeof value !== "number"
      ? value
      : type === "double?" || !Number.isInteger(value)
        ? new Double(value)
        : integer(BigInt(value)),
  conversions,
  conversion: conversionTable(conversions),
  resultType: (row) => row.result,
  dates: "xs:date",
  cast(_from, written) {
    const optional = written.endsWith("?");
    const name = optional ? written.slice(0, -1) : written;
    const convert = castAtom(name);
    if (!convert) return undefined;
    const one = (value: Value) => atomOf(value) ?? (optional ? null : wrongKind(written, null));
    const parts = partsOfWork(convert).map((part) => (typeof part === "function" ? unlessMissing(part) : part));
    return { type: "any", convert: [one, ...parts] };
  },
  unify: (types) => (types.length > 0 && types.every((type) => type === types[0]) ? types[0] : "any"),
  list(form, values) {
    if (form === "array") return new ArrayItem(values);
    if (form !== "map") return sequenceOf(values);
    const entries = new Map<string, readonly [Value, Value]>();
    for (let i = 0; i < values.length; i += 2) {
      const key = atomOf(values[i]);
      if (isFailure(key)) return key;
      if (key === null) return wrongKind("a key", null);
      if (entries.has(mapKey(key)))
        return new Failure("invalid-value", { problem: `the key ${stringOf(key)} stands twice in the map` }).named(
          "err:XQDY0137",
        );
      entries.set(mapKey(key), [key, values[i + 1]]);
    }
    return new MapItem(entries);
  },
  // What an operation gives as a list.
  fits: (type) => (type.endsWith("*") ? asSequence : type === "array" ? asArray : undefined),
  filter(predicate, position) {
    if (isNumeric(predicate)) return asDouble(predicate) === position;
    return truthOf(predicate);
  },
  items: itemsOf,
  sequence: sequenceOf,
  apply: applyItem,
};

/** Calls a function item; a map or an array is a function of its key or position (XPath 3.1, 3.11.3). */
export function applyItem(callee: Value, args: readonly Value[]): Value {
  if (callee instanceof MapItem || callee instanceof ArrayItem) {
    const key = atomOf(args[0] ?? null);
    return isFailure(key) ? key : lookUp(callee, key);
  }
  if (!(callee instanceof FunctionItem)) return wrongKind("a function", callee);
  if (callee.arity !== args.length)
    return new Failure("wrong-kind", { expected: `${callee.arity} arguments`, given: String(args.length) });
  return callee.call(args);
}

export function lookUp(from: Value, key: Value): Value {
  if (from instanceof MapItem) return from.entries.get(mapKey(key))?.[1] ?? null;
  if (!(from instanceof ArrayItem)) return wrongKind("a map or an array", from);
  if (typeof key !== "number") return new Failure("wrong-kind", { expected: "a position", given: typeOf(key) });
  return from.members[key - 1] ?? (key >= 1 && key <= from.members.length ? null : new Failure("bad-index", { index: key }));
}
