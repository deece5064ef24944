import { parse } from "postgres-array";
import { type Column, type Driver, isSmall, readNumber, table } from "../connection.ts";

const types: Readonly<Record<Column["type"], string>> = {
  text: "text",
  integer: "bigint",
  decimal: "numeric",
  double: "double precision",
  boolean: "boolean",
};

/** Parameters and types of PostgreSQL; an integer is `integer` unless a row needs 64 bits. */
export const driverTypes: Pick<Driver, "mark" | "drop" | "castType" | "rest"> = {
  mark: (place) => `$${place + 1}`,
  drop: `drop table if exists pg_temp.${table}`,
  castType: ({ type }, values) => (type === "integer" && isSmall(values) ? "integer" : types[type]),
  rest: " offset 0",
};

/** What a session is set to: nothing that changes how a text is read or a value written comes from the server. */
export const sessionSettings: readonly string[] = [
  "set search_path = pg_catalog",
  "set standard_conforming_strings = on",
  "set backslash_quote = safe_encoding",
  "set datestyle = 'ISO, MDY'",
  "set intervalstyle = 'postgres'",
  "set timezone = 'UTC'",
  "set bytea_output = 'hex'",
  "set extra_float_digits = 1",
  "set array_nulls = on",
  "set quote_all_identifiers = off",
  "set transform_null_equals = off",
  "set default_transaction_read_only = on",
];

const numberTypes = [20, 21, 23, 700, 701, 1700];
const numberLists = [1005, 1007, 1016, 1021, 1022, 1231];
const otherLists = [1000, 1002, 1009, 1014, 1015, 1115, 1182, 1185, 1187];
const same = (text: string): unknown => text;

/** Reads a value from its text form, by the type's number. */
export function readerFor(type: number): (text: string) => unknown {
  if (type === 16) return (text) => text === "t";
  if (numberTypes.includes(type)) return readNumber;
  if (numberLists.includes(type)) return (text) => parse(text.replace(/^\[.*?\]=/, ""), readNumber);
  if (type === 1000) return (text) => parse(text, (item) => item === "t");
  if (otherLists.includes(type)) return (text) => parse(text.replace(/^\[.*?\]=/, ""), same);
  return same;
}

/** A reader for every type whose values are not left as text; the engine's own readers give dates and objects. */
export const readers: Readonly<Record<number, (text: string) => unknown>> = Object.fromEntries(
  [16, ...numberTypes, ...numberLists, ...otherLists, 17, 25, 114, 1042, 1043, 1082, 1083, 1114, 1184, 1186, 3802].map((type) => [
    type,
    readerFor(type),
  ]),
);

/** The dialect's version option for a server's version: the newest one that is not newer than the server. */
export const versionOption = (version: string): Readonly<Record<string, string>> => ({
  version: parseInt(version, 10) >= 17 ? "17" : "15",
});
