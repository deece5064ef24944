import { Bytes, Decimal, Double, Failure, type Value, bytesOfLatin, isWholeNumber, FixedDouble } from "../../values/index.ts";
import type { TypeRules } from "../dialect.ts";
import { mostDecimals } from "../shared/code.ts";
import { parameterAt, relations } from "../row.ts";
import { unlessMissing } from "../step.ts";
import { marked } from "../../text/index.ts";

import { int64, uint64 } from "./numbers.ts";
import { toText, toDecimal } from "./steps.ts";
import { type Collation, baseType, castBytes, castText, collationFor, isBinary, isCollated, results, unify } from "./types.ts";
import { conversion, conversions } from "./conversions.ts";
import { castNames, castWork, literals } from "./casts.ts";

/** The longest text that the server makes (`max_allowed_packet`), in bytes; here counted in UTF-16 units. */
const packet = 16 * 1024 * 1024;

function fits(type: string, isPart = false): ((value: Value) => Value) | undefined {
  const decimals = /^double (\d+)$/.exec(type)?.[1];
  if (decimals !== undefined) {
    const plain = fits("double")!;
    return (value) => {
      const kept = plain(value);
      return kept instanceof Double ? new FixedDouble(kept.value, Number(decimals)) : kept;
    };
  }
  const tooLarge = () => new Failure("number-out-of-range");
  switch (baseType(type)) {
    case "integer":
      return (value) =>
        (typeof value === "bigint" || typeof value === "number") && (value > int64 || value < -int64 - 1n) ? tooLarge() : value;
    case "unsigned":
      return (value) =>
        (typeof value === "bigint" || typeof value === "number") && (value > uint64 || value < 0) ? tooLarge() : value;
    case "double":
      return (value) => (value instanceof Double && !Number.isFinite(value.value) ? tooLarge() : value);
    case "text":
      return isPart ? undefined : (value) => (typeof value === "string" && value.length > packet ? null : value);
    case "binary":
    case "hextext":
      return (value) => (typeof value === "string" ? new Bytes(bytesOfLatin(value)) : value);
  }
  return undefined;
}

/** The rules of values in MariaDB, for texts of a collation. */
export const typeRules = (collation: Collation): TypeRules => ({
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    return present.every((value) => typeof value === "boolean" || isWholeNumber(value))
      ? "integer"
      : `decimal ${mostDecimals(present)}`;
  },
  readColumn(type, value) {
    if (type === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? new Double(value) : value);
    return baseType(type) === "decimal" && value !== null && typeof value !== "boolean"
      ? (toDecimal(value) as Decimal).rounded(Number(type.slice(8)))
      : typeof value === "boolean"
        ? Number(value)
        : value;
  },
  conversions,
  conversion,
  collationOf: (types) => collationFor(types, collation),
  // Its three parts are compared as dates where one is a date, and as numbers where one is a number.
  betweenType(types) {
    const kinds = types.map(baseType);
    if (!kinds.some((kind) => kind === "text" || isBinary(kind))) return undefined;
    const isMoment = (kind: string) => kind === "date" || kind === "datetime";
    if (kinds.some(isMoment)) return kinds.every((kind) => isMoment(kind) || kind === "text") ? "moment" : undefined;
    if (kinds.includes("time")) return kinds.every((kind) => kind === "time" || kind === "text") ? "clock" : undefined;
    return kinds.some((kind) => /^(?:integer|unsigned|decimal|double)$/.test(kind)) ? "floating" : undefined;
  },
  resultType(row, types, constant) {
    const result = results[row.result];
    if (result) return result(types, constant);
    if (row.result !== "text") return row.result;
    // What a text is made of gives it its collation; a count, a place or bytes that it is made with does not.
    return types.find((type, i) => isCollated(type) && /^(?:text|pattern|any)$/.test(parameterAt(row, i).type)) ?? row.result;
  },
  dates: "date",
  cast(from, to) {
    const literal = literals[to];
    if (literal) {
      const type = baseType(to);
      const unread = (text: string) =>
        marked.hasZeroPart(text)
          ? new Failure("not-covered", { what: `dates like ${text}` })
          : new Failure("not-a-date", { text });
      return { type, convert: unlessMissing((value) => literal(value as string) ?? unread(value as string)) };
    }
    const match = /^([a-z ]+?)(?: ?\(([\d,]+)\))?(?: (?:character set|charset) (\w+))?$/.exec(to);
    const set = match?.[3];
    const type = match && castNames[set === undefined ? match[1] : `${match[1]} character set ${set}`];
    if (!type) return undefined;
    const sizes = match[2]?.split(",").map(Number) ?? [];
    if ((type === "decimal" || type === "double") && (sizes[0] > 65 || sizes[1] > 38 || sizes[1] > sizes[0])) return undefined;
    const kinds: Readonly<Record<string, string>> = {
      float: "double",
      narrow: "text",
      ascii: "text",
      decimal: `decimal ${sizes[1] ?? 0}`,
      ...(type === "double" && sizes[1] !== undefined && { double: `double ${sizes[1]}` }),
    };
    const result = type === "text" ? castText : type === "binary" ? castBytes : (kinds[type] ?? type);
    return { type: result, convert: castWork(type, sizes, from) };
  },
  unify,
  nullStops: true,
  rows: {
    compares: new Set([...relations, "<=>"]),
    nested: true,
    queries: true,
    checksConditions: true,
    truth: (value, range) => ({ kind: "literal", value: Number(value), type: "integer", range }),
  },
  list: (_form, values) => values,
  fits,
});
