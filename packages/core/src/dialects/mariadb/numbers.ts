import type { Double, Value } from "../../values/index.ts";
import { marked } from "../../text/index.ts";
import { toDouble } from "./steps.ts";

export const int64 = 9223372036854775807n;
export const uint64 = 18446744073709551615n;

/** Whether a number is too large for a time HHMMSS, so that it is read as a date. */
export const isBeyondTimes = (value: Value): boolean =>
  value !== null && typeof value !== "string" && (toDouble(value) as Double).value > marked.largestTime;
