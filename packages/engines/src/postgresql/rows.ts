import { parse } from "postgres-array";
import { type Column, readNumber } from "../connection.ts";

const types: Readonly<Record<Column["type"], string>> = {
  text: "text",
  integer: "bigint",
  decimal: "numeric",
  double: "double precision",
  boolean: "boolean",
};

/** The columns as typed parameters; an integer is `integer` unless a row needs 64 bits. */
export const sourceOf = (columns: readonly Column[], rows: readonly (readonly unknown[])[]): string =>
  columns
    .map(({ name, type }, i) => {
      const isSmall = type === "integer" && rows.every((row) => Math.abs(Number(row[i] ?? 0)) <= 2147483647);
      return `$${i + 1}::${isSmall ? "integer" : types[type]} as ${name}`;
    })
    .join(", ");

const numberTypes = [20, 21, 23, 700, 701, 1700];
const numberLists = [1005, 1007, 1016, 1021, 1022, 1231];
const otherLists = [1000, 1002, 1009, 1014, 1015, 1115, 1182];
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
