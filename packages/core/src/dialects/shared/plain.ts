import { Decimal, Double, Failure, Moment, type Value } from "../../values/index.ts";

/** A value that is no list as plain data: decimals and large integers as numbers; NaN and infinities, which JSON lacks, by name. */
export function plainItem(value: Value): unknown {
  if (value instanceof Failure) return { error: value.standard ?? value.code };
  if (value instanceof Moment) return value.text;
  if (typeof value === "bigint") return Number(value);
  if (!(value instanceof Double || value instanceof Decimal)) return value;
  const number = value instanceof Double ? value.value : value.toNumber();
  if (Number.isFinite(number)) return number;
  return Number.isNaN(number) ? "NaN" : number > 0 ? "INF" : "-INF";
}
