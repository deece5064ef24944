import { Decimal, Double, Failure, isWholeNumber } from "../../values/index.ts";
import { marked } from "../../text/index.ts";
import type { TypeRules } from "../dialect.ts";
import { mostDecimals } from "../shared/code.ts";
import { parameterAt, relations } from "../row.ts";
import { type Step, type Work, step } from "../step.ts";
import { toText, toDecimal } from "./steps.ts";
import { type Collation, castBytes, castText, collationFor, isBinary, isCollated, results, unify } from "./types.ts";
import { conversion, conversions, ofCharacters, shown } from "./conversions.ts";
import { castNames, castWork, literals } from "./casts.ts";
import { decimalOf, knownOf, nameOf, scaleOf, typed } from "../types.ts";

const isFinite = step("check-number", {}, { refused: "number-out-of-range" });

/** What the values of a type must be like. */
const sizes: Readonly<Record<string, Step | undefined>> = {
  integer: step("check-number", {}, { least: -(2 ** 63), below: 2 ** 63, refused: "number-out-of-range" }),
  unsigned: step("check-number", {}, { least: 0, below: 2 ** 64, refused: "number-out-of-range" }),
  double: isFinite,
  // The longest text that the server makes (`max_allowed_packet`).
  text: step("fit-text", { tooLong: "null beyond 16 MiB" }),
  binary: ofCharacters,
  hextext: ofCharacters,
};

function fits(type: string, isPart = false): Work | undefined {
  const [kind, decimals] = [nameOf(type), knownOf(type)];
  if (kind === "double" && decimals !== undefined) return [isFinite, shown(Number(decimals))];
  return kind === "text" && isPart ? undefined : sizes[kind];
}

/** The rules of values in MariaDB, for texts of a collation. */
export const typeRules = (collation: Collation): TypeRules => ({
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return "text";
    return present.every((value) => typeof value === "boolean" || isWholeNumber(value))
      ? "integer"
      : decimalOf(mostDecimals(present));
  },
  readColumn(type, value) {
    if (type === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? new Double(value) : value);
    return nameOf(type) === "decimal" && value !== null && typeof value !== "boolean"
      ? (toDecimal(value) as Decimal).rounded(scaleOf(type))
      : typeof value === "boolean"
        ? Number(value)
        : value;
  },
  conversions,
  conversion,
  collationOf: (types) => collationFor(types, collation),
  // Its three parts are compared as dates where one is a date, and as numbers where one is a number.
  betweenType(types) {
    const kinds = types.map(nameOf);
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
      const type = nameOf(to);
      const unread = (text: string) =>
        marked.hasZeroPart(text)
          ? new Failure("not-covered", { what: `dates like ${text}` })
          : new Failure("not-a-date", { text });
      return { type, convert: { named: to, run: (value) => literal(value as string) ?? unread(value as string) } };
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
      decimal: decimalOf(sizes[1] ?? 0),
      ...(type === "double" && sizes[1] !== undefined && { double: typed("double", sizes[1]) }),
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
