import { Decimal, Double, Moment, type Value, isFailure, isList } from "indigo-quill";
import { DataError } from "./table.ts";
import { exactJson } from "indigo-quill/values";

/** The kinds of columns that files with types can hold here. */
export type ColumnKind = "text" | "whole number" | "number" | "truth value" | "list";

const isWhole = (value: unknown): boolean =>
  Number.isSafeInteger(value) || (typeof value === "bigint" && BigInt.asIntN(64, value) === value);

const isNumber = (value: unknown): boolean =>
  typeof value === "number" || (value instanceof Decimal && Decimal.parse(String(Number(String(value))))?.compare(value) === 0);

/** The kind that all values of a column have; nothing and errors fit each. */
export function kindOfColumn(values: readonly Value[]): ColumnKind {
  const present = values.filter((value) => value !== null && !isFailure(value));
  if (present.length === 0) return "text";
  if (present.every((value) => typeof value === "boolean")) return "truth value";
  if (present.every(isWhole)) return "whole number";
  if (present.every((value) => isNumber(value) || isWhole(value))) return "number";
  return present.every((value) => isList(value)) ? "list" : "text";
}

const textOf = (value: Value): string =>
  typeof value === "string" ? value : value instanceof Moment ? value.text : isList(value) ? exactJson(value) : String(value);

/**
 * A value as a column of a kind holds it; an error is nothing.
 * @throws DataError where it does not fit
 */
export function asKind(
  value: Value,
  kind: ColumnKind,
  name: string,
  row: number,
): string | bigint | number | boolean | string[] | null {
  if (value === null || isFailure(value)) return null;
  if (kind === "text") return textOf(value);
  if (kind === "list" && isList(value)) return value.map((item) => (item === null ? "" : textOf(item)));
  if (kind === "truth value" && typeof value === "boolean") return value;
  if (kind === "whole number" && isWhole(value)) return BigInt(value as number);
  if (kind === "number" && (isNumber(value) || isWhole(value)))
    return Number(value instanceof Double ? value.value : String(value));
  throw new DataError(
    `"${name}" holds ${kind}s in the rows before, and on row ${row + 1} ${JSON.stringify(textOf(value))}; make texts of it, or write another format`,
  );
}
