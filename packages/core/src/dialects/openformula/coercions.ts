import { Decimal, Failure, type Value, daysFromDate, generalNumber, isDate, isFailure, isList } from "../../values/index.ts";
import type { Conversion, TypeRules } from "../dialect.ts";

/** Days from the serial date 0 (1899-12-30) to 1970-01-01. */
export const epoch = -daysFromDate(1899, 12, 30);

/** The one value that an array stands for where one is wanted: its first (3.3). */
const single = (value: Value): Value => (isList(value) ? (value[0] ?? null) : value);

/** A value as text (OpenDocument 1.3 part 4, 6.3.14), an array item by item; a blank stays missing. */
export function toText(value: Value): Value {
  if (typeof value === "string" || value === null || isFailure(value)) return value;
  if (typeof value === "number") return generalNumber(value);
  if (typeof value === "boolean") return value ? "TRUE" : "FALSE";
  if (isList(value)) return value.map(toText);
  return new Failure("wrong-kind", { expected: "a text", given: "another kind of value" });
}

const isNumber = (value: Value): boolean => typeof value === "number" || typeof value === "bigint" || value instanceof Decimal;

/** A text as a number by the rules of VALUE (6.13.34); undefined when it is none. */
export function numberOfText(text: string): number | undefined {
  const trimmed = text.trim();
  const number = /^([+-]?)(?:(\d{1,3}(?:,\d{3})+|\d+)(\.\d*)?|(\.\d+))(?:[eE]([+-]?\d+))?\s*(%?)$/.exec(trimmed);
  if (number) {
    const value = Number(trimmed.replace(/[,%\s]/g, ""));
    return Number.isFinite(value) ? (number[6] ? value / 100 : value) : undefined;
  }
  const mixed = /^([+-]?)(\d+) (\d+)\/(\d+)$/.exec(trimmed);
  if (mixed && Number(mixed[4]) !== 0) {
    return (mixed[1] === "-" ? -1 : 1) * (Number(mixed[2]) + Number(mixed[3]) / Number(mixed[4]));
  }
  return serialOfText(trimmed);
}

/** An ISO date, time or both as a serial number of days since 1899-12-30. */
export function serialOfText(text: string): number | undefined {
  const match = /^(?:(\d{4})-(\d{2})-(\d{2}))?(?:(?:^|[T ])(\d{1,2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?)?$/.exec(text);
  if (!match || text === "") return undefined;
  const [, year, month, day, hours = "0", minutes = "0", seconds = "0"] = match;
  if (Number(minutes) > 59 || Number(seconds) >= 60) return undefined;
  const time = (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds)) / 86400;
  if (!year) return time;
  if (!isDate(Number(year), Number(month), Number(day))) return undefined;
  return daysFromDate(Number(year), Number(month), Number(day)) + epoch + time;
}

/** A value as a number where one is wanted; `textRule` is the option `textAsNumber`. */
export function toNumber(textRule: string) {
  return function number(value: Value): Value {
    if (typeof value === "number" || value === null || isFailure(value)) return value;
    if (typeof value === "boolean") return value ? 1 : 0;
    if (isList(value)) return number(single(value));
    if (typeof value !== "string" || textRule === "error") return new Failure("not-a-number", { text: String(value) });
    const found = numberOfText(value);
    if (found !== undefined) return found;
    return textRule === "zero" ? 0 : new Failure("not-a-number", { text: value });
  };
}

function toBoolean(value: Value): Value {
  if (typeof value === "boolean" || value === null || isFailure(value)) return value;
  if (typeof value === "number") return value !== 0;
  if (typeof value === "string" && /^(?:true|false)$/i.test(value)) return value.toLowerCase() === "true";
  return new Failure("not-a-boolean", { text: String(value) });
}

export function typeRules(textRule: string): TypeRules {
  const identity: Conversion = { cost: 0 };
  const targets: Readonly<Record<string, { readonly same: string; readonly convert: (value: Value) => Value }>> = {
    text: { same: "text", convert: (value) => toText(single(value)) },
    texts: { same: "text", convert: toText },
    single: { same: "single", convert: single },
    number: { same: "number", convert: toNumber(textRule) },
    boolean: { same: "boolean", convert: (value) => toBoolean(single(value)) },
  };
  return {
    dynamic: true,
    liftsArrays: true,
    columnType(values) {
      // A number beyond double precision counts as the nearest double.
      const kinds = new Set(values.filter((value) => value !== null).map((value) => (isNumber(value) ? "number" : typeof value)));
      if (kinds.size !== 1) return "any";
      const [kind] = kinds;
      return kind === "string" ? "text" : kind === "number" || kind === "boolean" ? kind : "any";
    },
    readColumn: (_type, value) => (isNumber(value) ? Number(value) : value),
    conversion(from, to) {
      const target = targets[to];
      const isSame = from === target?.same || (to === "single" && ["text", "number", "boolean"].includes(from));
      return !target || isSame ? identity : { cost: 1, convert: target.convert };
    },
    resultType: (row) => row.result,
    cast: () => undefined,
    truth(value) {
      const result = toBoolean(single(value));
      return typeof result === "boolean" || result === null || isFailure(result) ? result : false;
    },
    unify: (types) => (types.every((type) => type === types[0]) ? (types[0] ?? "any") : "any"),
    list: (_form, values) => values.flat(),
  };
}
