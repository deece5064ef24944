import { Decimal, isWholeNumber, lookup } from "../../values/index.ts";
import { conversionTable } from "../conversions.ts";
import type { ConversionLine, TypeRules } from "../dialect.ts";
import { relations } from "../row.ts";
import { cutTo, filledTo, fitted } from "../shared/sizes.ts";
import { type Work, step } from "../step.ts";
import { steps, toText } from "./steps.ts";
import { typeOf } from "../types.ts";

const numeric = ["integer", "decimal", "double"];

/** Numbers go up the order of the types; null and a text of the same type stay; there is no other implicit conversion (4.4, 9.1). */
const conversions: readonly ConversionLine[] = [
  ["=", "*", 0],
  ["*", "any", 0],
  ["null", "text", 1],
  ["null", "*", 1.5],
  ["> text", "character", 0, step("check-text", {}, { shape: "^[^]$", refused: "trim-character", about: "" })],
  ["> text", "escape", 0, step("check-escape", { escapeSize: "one character" })],
  ["integer", "count", 0],
  ["boolean", "condition", 0],
  ["integer", "decimal", 1, steps.decimal],
  ["integer", "double", 2, steps.double],
  ["decimal", "double", 1, steps.double],
];

const names: Readonly<Record<string, string>> = lookup({
  char: "char",
  character: "char",
  varchar: "text",
  "char varying": "text",
  "character varying": "text",
  clob: "text",
  "character large object": "text",
  "national character": "char",
  "national character varying": "text",
  nchar: "char",
  integer: "integer",
  int: "integer",
  smallint: "integer",
  bigint: "integer",
  numeric: "decimal",
  decimal: "decimal",
  dec: "decimal",
  "double precision": "double",
  float: "double",
  real: "double",
  boolean: "boolean",
  date: "date",
});

/** What a cast to a type of this name and these sizes does. */
function castWork(type: string, word: string, [size, scale = 0]: readonly number[]): Work {
  switch (type) {
    case "text":
      return size === undefined ? steps.text : [steps.text, cutTo(size)];
    case "char":
      return [steps.text, filledTo(size ?? 1)];
    case "integer":
      return steps[word as "smallint" | "integer" | "bigint"] ?? steps.integer;
    case "decimal":
      return [steps.decimal, fitted("error", scale, size)];
    case "double":
      return steps.double;
  }
  return type === "boolean" ? steps.truth : steps.date;
}

/** The rules of values in SQL. */
export const typeRules: TypeRules = {
  dynamic: false,
  kinds: { text: "text", double: "double" },
  columnType(values) {
    const present = values.filter((value) => value !== null);
    if (present.length === 0 || present.some((value) => typeof value === "string")) return typeOf("text");
    if (present.every((value) => typeof value === "boolean")) return typeOf("boolean");
    return typeOf(present.every(isWholeNumber) ? "integer" : "decimal");
  },
  readColumn({ name }, value) {
    if (name === "text") return toText(typeof value === "number" && !Number.isInteger(value) ? Decimal.of(value) : value);
    return name === "decimal" && (typeof value === "number" || typeof value === "bigint") ? Decimal.of(value) : value;
  },
  conversions,
  conversion: conversionTable(conversions),
  resultType: (row, types) => (row.result === "same" ? types[0] : typeOf(row.result)),
  dates: "date",
  cast({ name: from }, to) {
    const match = /^([a-z ]+?)(?:\((\d+(?:,\d+)*)\))?$/.exec(to);
    const type = match && names[match[1]];
    if (!match || !type) return undefined;
    const sizes = match[2]?.split(",").map(Number) ?? [];
    const isText = type === "text" || type === "char";
    const isNumber = numeric.includes(type);
    const allowed = from === "null" || from === type || from === "text" || isText || (isNumber && numeric.includes(from));
    if (!allowed) return undefined;
    return { type: typeOf(isText ? "text" : type), convert: castWork(type, match[1], sizes) };
  },
  unify(types) {
    const known = types.map(({ name }) => name).filter((name) => name !== "null");
    if (known.every((name) => name === known[0])) return typeOf(known[0] ?? "null");
    return known.every((name) => numeric.includes(name))
      ? typeOf(numeric[Math.max(...known.map((name) => numeric.indexOf(name)))])
      : undefined;
  },
  groups: true,
  rows: {
    compares: new Set([...relations, "is null", "is not null", "is distinct from"]),
    nested: true,
    queries: true,
    truth: (value, range) => ({ kind: "literal", value: value, type: "boolean", range }),
  },
  list: (_form, values) => values,
};
