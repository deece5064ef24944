import { Decimal, Double, Failure, isWholeNumber } from "../../values/index.ts";
import { marked } from "../../text/index.ts";
import type { TypeRules } from "../dialect.ts";
import { mostDecimals } from "../shared/code.ts";
import { parameterAt, relations } from "../row.ts";
import { type Step, type Work, step } from "../step.ts";
import { toText, toDecimal } from "./steps.ts";
import { type Collation, castBytes, castText, collationFor, isBinary, isCollated, isDivided, results, unify } from "./types.ts";
import { asShown, conversion, conversions, ofCharacters, shown } from "./conversions.ts";
import { castNames, castWork, literals } from "./casts.ts";
import { Type, decimalOf, typeOf } from "../types.ts";

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

function fits({ name: kind, scale: decimals }: Type, isPart = false): Work | undefined {
  if (kind === "double" && decimals !== undefined) return [isFinite, shown(decimals)];
  return kind === "text" && isPart ? undefined : sizes[kind];
}

/** The rules of values in MariaDB, for texts of a collation. */
export const typeRules = (collation: Collation): TypeRules => ({
  dynamic: true,
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return typeOf("text");
    return present.every((value) => typeof value === "boolean" || isWholeNumber(value))
      ? typeOf("integer")
      : decimalOf(mostDecimals(present));
  },
  readColumn({ name, scale }, value) {
    if (name === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? new Double(value) : value);
    return name === "decimal" && value !== null && typeof value !== "boolean"
      ? (toDecimal(value) as Decimal).rounded(scale!)
      : typeof value === "boolean"
        ? Number(value)
        : value;
  },
  conversions,
  conversion,
  collationOf: (types) => collationFor(types, collation),
  // Beside one other value a quotient is compared as it is shown, beside several and in a CASE with all its digits.
  togetherType(types, form) {
    const kinds = types.map(({ name }) => name);
    const isExact = kinds.every((kind) => ["integer", "unsigned", "decimal", "null"].includes(kind));
    if (isExact) return (types.length > 2 || form === "case") && types.some(isDivided) ? typeOf("exact") : undefined;
    if (form !== "between") return undefined;
    // Of BETWEEN all parts are compared as dates where one is a date, and as numbers where one is a number.
    if (!types.some((type) => type.name === "text" || isBinary(type))) return undefined;
    const isMoment = (kind: string) => kind === "date" || kind === "datetime";
    if (kinds.some(isMoment)) return kinds.every((kind) => isMoment(kind) || kind === "text") ? typeOf("moment") : undefined;
    if (kinds.includes("time")) return kinds.every((kind) => kind === "time" || kind === "text") ? typeOf("clock") : undefined;
    return kinds.some((kind) => /^(?:integer|unsigned|decimal|double)$/.test(kind)) ? typeOf("floating") : undefined;
  },
  resultType(row, types, constant) {
    const result = results[row.result];
    if (result) return result(types, constant);
    if (row.result !== "text") return typeOf(row.result);
    // What a text is made of gives it its collation; a count, a place or bytes that it is made with does not.
    return (
      types.find((type, i) => isCollated(type) && /^(?:text|pattern|any)$/.test(parameterAt(row, i).type)) ?? typeOf(row.result)
    );
  },
  dates: "date",
  cast(from, to) {
    const literal = literals[to];
    if (literal) {
      const type = typeOf(to.split(" ")[0]);
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
    const kinds: Readonly<Record<string, Type>> = {
      text: castText,
      binary: castBytes,
      float: typeOf("double"),
      narrow: typeOf("text"),
      ascii: typeOf("text"),
      decimal: decimalOf(sizes[1] ?? 0),
      double: Type.of("double", { scale: sizes[1] }),
    };
    return { type: kinds[type] ?? typeOf(type), convert: castWork(type, sizes, from) };
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
  shown: asShown,
  fits,
});
