import { Double, type Value, integer } from "../../values/index.ts";

const int64 = 9223372036854775807n;

/** An integer of 64 bits, or the double that it becomes beyond. */
export function fitInteger(value: bigint): Value {
  return value > int64 || value < -int64 - 1n ? new Double(Number(value)) : integer(value);
}

/** A text up to its first NUL, where C takes it to end. */
export function untilNul(text: string): string {
  const end = text.indexOf("\0");
  return end < 0 ? text : text.slice(0, end);
}
