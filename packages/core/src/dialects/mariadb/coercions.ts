import { Bytes, Decimal, Double, Failure, type Value, bytesOfLatin, isWholeNumber, FixedDouble } from "../../values/index.ts";
import type { TypeRules } from "../dialect.ts";
import { isComparison } from "../shared/comparisons.ts";
import { mostDecimals } from "../shared/code.ts";
import { isPure, parameterAt, relations } from "../row.ts";
import { unlessMissing } from "../step.ts";
import { hasZeroPart } from "./moments.ts";
import { int64, uint64 } from "./numbers.ts";
import { toText, toDecimal, toInteger } from "./steps.ts";
import {
  baseType,
  isBinary,
  castText,
  collations,
  type Collation,
  isCollated,
  mindsCollation,
  byBytes,
  collationFor,
  extremeType,
  numberType,
  unify,
} from "./types.ts";
import { conversion } from "./conversions.ts";
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
  switch (type) {
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
  conversion,
  // Of the rows of a function that minds the collation, the one with the answers of this call's collation is meant.
  preference(row, types) {
    if (!isPure(row) || !mindsCollation.has(row.name)) return 0;
    const wanted = collationFor(types, collation);
    const answers = row.answers as Readonly<Record<string, string>>;
    const { case: letterCase, padding } = wanted === "binary" ? byBytes : collations[wanted];
    if (isComparison(row)) {
      const [{ type }] = row.parameters;
      if (type !== "string" && type !== "bytes") return 0;
      return (type === "bytes") === (wanted === "binary") &&
        (type === "bytes" || (answers.case === letterCase && answers.padding === padding))
        ? 0
        : 100;
    }
    const isAlike = answers.case === letterCase || (answers.case === "ignored" && letterCase !== "minded");
    return isAlike ? 0 : 100;
  },
  // Its three parts are compared as dates where one is a date, and as numbers where one is a number.
  betweenType(types) {
    const kinds = types.map(baseType);
    if (!kinds.some((kind) => kind === "text" || isBinary(kind))) return undefined;
    const isMoment = (kind: string) => kind === "date" || kind === "datetime";
    if (kinds.some(isMoment)) return kinds.every((kind) => isMoment(kind) || kind === "text") ? "moment" : undefined;
    if (kinds.includes("time")) return kinds.every((kind) => kind === "time" || kind === "text") ? "clock" : undefined;
    return kinds.some((kind) => /^(?:integer|unsigned|decimal|double)$/.test(kind)) ? "floating" : undefined;
  },
  // Bytes have no collation of texts.
  refuses: (row, types) => (row.name.startsWith("collate utf8") && isBinary(baseType(types[0])) ? "argument-type" : undefined),
  resultType(row, types, constant) {
    if (row.name === "-" && types.length === 1 && types[0] === "unsigned") return "decimal 0";
    if (row.result === "decimal" && /^(?:-|abs)$/.test(row.name) && types.length === 1) return types[0];
    // Bytes of a column stay its own; others are like a literal's.
    if (row.result === "bytes beside") return types.some((type) => baseType(type) === "binary") ? "binary" : "hextext";
    if (row.result === "collated") return `text ${row.name.replace("collate ", "")}`;
    const signed = row.name === "%" ? types[0] : types.find((type) => type === "unsigned");
    if (row.result === "integer" && types.length === 2 && /^(?:[-+*%]|div)$/.test(row.name) && signed === "unsigned")
      return "unsigned";
    if (row.result === "shifted") return ["datetime", "time"].includes(baseType(types[0])) ? baseType(types[0]) : "date";
    if (row.result === "clocked") {
      const kind = baseType(types[0]);
      return kind === "date" ? "datetime" : ["datetime", "text"].includes(kind) || isBinary(kind) ? kind : "time";
    }
    if (row.result === "extreme") return extremeType(types);
    if (row.result === "own text") return "text";
    // Where the bits are none that there are, the result has no character set.
    if (row.result === "digest") {
      const bits = constant(1);
      return bits === undefined || [0, 224, 256, 384, 512].includes(Number(toInteger(bits))) ? "text" : "binary";
    }
    // What a text is made of gives it its collation; a count, a place or bytes that it is made with does not.
    if (row.result === "text")
      return types.find((type, i) => isCollated(type) && /^(?:text|pattern|any)$/.test(parameterAt(row, i).type)) ?? "text";
    if (row.result === "decimal" || row.result === "double") return numberType(row.result, row.name, types, constant);
    if (row.result === "integer" && types[0] === "unsigned" && /^(?:abs|ceil|ceiling|floor|round|truncate)$/.test(row.name))
      return "unsigned";
    if (row.result === "unified") return unify(types.slice(row.name === "nvl2" ? 1 : 0)) ?? "text";
    return row.result === "same" ? (baseType(types[0]) === "null" ? "double" : types[0]) : row.result;
  },
  dates: "date",
  cast(from, to) {
    const literal = literals[to];
    if (literal) {
      const type = baseType(to);
      const unread = (text: string) =>
        hasZeroPart(text) ? new Failure("not-covered", { what: `dates like ${text}` }) : new Failure("not-a-date", { text });
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
    const result = type === "text" ? castText : (kinds[type] ?? type);
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
