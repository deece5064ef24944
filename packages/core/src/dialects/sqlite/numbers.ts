import { Double, type Value, integer } from "../../values/index.ts";

const int64 = 9223372036854775807n;

/** An integer of 64 bits, or the double that it becomes beyond. */
export function fitInteger(value: bigint): Value {
  return value > int64 || value < -int64 - 1n ? new Double(Number(value)) : integer(value);
}
