import {
  ArrayItem,
  Double,
  Failure,
  FunctionItem,
  MapItem,
  type Value,
  asDouble,
  atomOf,
  durationTypes,
  integer,
  isFailure,
  isNumeric,
  isWholeNumber,
  itemType,
  itemsOf,
  momentTypes,
  sequenceOf,
  wrongKind,
} from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { ConversionLine, TypeRules } from "../dialect.ts";
import { type Work, partsOfWork, step, worked } from "../step.ts";
import { castAtom } from "./casts.ts";
import { mapKey } from "./items.ts";
import { steps, stringOf } from "./steps.ts";
import { anyType, typeOf } from "../types.ts";

/** The effective boolean value (XPath 3.1, 2.4.3). */
const truthOf = worked(steps.truth);

/** One atomic item, or none (F&O 3.1, 2.4). */
const one = step("one-item", { several: "error" });
const itemsIn = (wanted: string) => step("items-in", {}, { wanted });
const ofKind = (kind: string, type: string) => step("check-kind", {}, { kind, type });
const integers = ofKind("whole number", "xs:integer");

/** The function conversion rules for a parameter type (XPath 3.1, 3.1.5.2). */
const converting: Readonly<Record<string, Work>> = {
  "string?": [one, ofKind("text", "xs:string?")],
  string: [one, ofKind("text", "xs:string")],
  // What concat and || do: any atomic item as text.
  "stringify?": [one, steps.text],
  "strings*": [itemsIn("atoms"), steps["text of each"]],
  "string*": [itemsIn("atoms"), ofKind("text", "xs:string*")],
  numeric: [one, ofKind("number", "xs:numeric")],
  double: [one, ofKind("number", "xs:double"), steps["plain double"]],
  "numeric?": [one, ofKind("number", "xs:numeric?")],
  integer: [one, integers],
  "integer?": [one, ofKind("whole number", "xs:integer?")],
  // The effective boolean value (2.4.3).
  condition: steps.truth,
  "atomic?": one,
  atomic: [one, ofKind("atomic value", "one atomic value")],
  atoms: itemsIn("atoms"),
  "date?": [one, ofKind("date", "xs:date?")],
  "time?": [one, ofKind("time", "xs:time?")],
  "dateTime?": [one, ofKind("dateTime", "xs:dateTime?")],
  "duration?": [one, ofKind("duration", "xs:duration?")],
  "atomic*": itemsIn("atomic sequence"),
  function: ofKind("function", "a function"),
  map: ofKind("map", "a map"),
  items: itemsIn("items"),
  members: [ofKind("array", "an array"), itemsIn("members")],
  array: ofKind("array", "an array"),
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

/** A date, a time or both, of which type is known on the row only. */
const openMoment: ConversionLine = ["any", "moment", 3, [one, ofKind("moment", "a date or time")]];

const timed = [...momentTypes, ...durationTypes];

const conversions: readonly ConversionLine[] = [
  [timed.join("|"), "numeric|numeric?|double|integer|integer?", "never"],
  ...Object.entries(unchanged).map(([from, to]): ConversionLine => [from, to, 0]),
  // What has such a type for certain has operators of its own.
  ...timed.map((type): ConversionLine => [type, `${type}!|${type}?|atomic?|atomic*`, 0]),
  openMoment,
  ...Object.entries(converting).map(([to, work]): ConversionLine => ["*", to, 1, work]),
  ["*", "any", 0],
];

export const typeRules: TypeRules = {
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length > 0 && present.every((value) => typeof value === "string")) return typeOf("text?");
    if (present.length > 0 && present.every((value) => typeof value === "number" || typeof value === "bigint"))
      return typeOf(present.every(isWholeNumber) ? "integer?" : "double?");
    return anyType;
  },
  readColumn: ({ name }, value) =>
    typeof value !== "number"
      ? value
      : name === "double?" || !Number.isInteger(value)
        ? new Double(value)
        : integer(BigInt(value)),
  conversions,
  conversion: conversionTable(conversions),
  resultType: (row) => typeOf(row.result),
  dates: "xs:date",
  cast(_from, written) {
    const isOptional = written.endsWith("?");
    const convert = castAtom(isOptional ? written.slice(0, -1) : written);
    const name = written.replace(/^xs:|\?$/g, "");
    const type = timed.includes(name) ? typeOf(name) : anyType;
    return convert && { type, convert: [one, ofKind("atomic value", written), ...partsOfWork(convert)] };
  },
  unify: (types) => (types.length > 0 && types.every((type) => type === types[0]) ? types[0] : anyType),
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
  fits: ({ name }) => (name.endsWith("*") ? itemsIn("sequence") : name === "array" ? itemsIn("array") : undefined),
  filter(predicate, position) {
    return isNumeric(predicate) ? asDouble(predicate) === position : (truthOf(predicate) as boolean | Failure);
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
  if (typeof key !== "number") return new Failure("wrong-kind", { expected: "a position", given: itemType(key) });
  return from.members[key - 1] ?? (key >= 1 && key <= from.members.length ? null : new Failure("bad-index", { index: key }));
}
