import { Bytes, Double, type Value } from "../../values/index.ts";
import { toDouble } from "./steps.ts";

export const int64 = 9223372036854775807n;
export const uint64 = 18446744073709551615n;

/** Bytes written in base 16 or 2 as the number that they make. */
export const ofBytes = ({ bytes }: Bytes): bigint => bytes.reduce((sum, byte) => ((sum << 8n) | BigInt(byte)) & uint64, 0n);

/** Whether a number is too large for a time HHMMSS, so that it is read as a date. */
export const isBeyondTimes = (value: Value): boolean =>
  value !== null && typeof value !== "string" && (toDouble(value) as Double).value > 8_385_959;
