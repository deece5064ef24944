import { Decimal, Failure, type Value, integer } from "../../values/index.ts";

const int4 = 2147483647;
const int8 = 9223372036854775807n;

/** A number as written: integer, bigint where it needs 64 bits, otherwise numeric (4.1.2.6). */
export function numberLiteral(source: string): { value: Value; type: string } | undefined {
  const digits = source.replaceAll("_", "").toLowerCase();
  if (/^(?:-?\d+|0[xob].+)$/.test(digits)) {
    const exact = BigInt(digits);
    const value = integer(exact);
    if (typeof value === "number" && value <= int4) return { value, type: "integer" };
    return exact <= int8 ? { value, type: "bigint" } : { value: Decimal.of(exact), type: "decimal" };
  }
  const value = Decimal.parse(digits);
  return value && { value, type: "decimal" };
}

/** The value, or a failure where it is outside the type's range. */
export function inRange(type: string, value: Value): Value {
  if (typeof value !== "number" && typeof value !== "bigint") return value;
  if (type === "integer" && (value > int4 || value < -int4 - 1)) return new Failure("number-out-of-range");
  if (type === "smallint" && (value > 32767 || value < -32768)) return new Failure("number-out-of-range");
  return typeof value === "bigint" && (value > int8 || value < -int8 - 1n) ? new Failure("number-out-of-range") : value;
}
