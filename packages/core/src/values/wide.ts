import { Decimal } from "./decimal.ts";
import { type Value, isList } from "./value.ts";

/**
 * A number of which one of JavaScript's own would lose digits: a whole number beyond 2^53, such as 9007199254740993, a decimal with
 * many digits; undefined of any other value.
 */
function wideNumber(value: Value): bigint | Decimal | undefined {
  if (typeof value === "bigint") return Number.isSafeInteger(Number(value)) ? undefined : value;
  if (!(value instanceof Decimal)) return undefined;
  const number = value.toNumber();
  const isKept = Number.isInteger(number) ? Number.isSafeInteger(number) : Number.isFinite(number);
  return isKept && Decimal.of(number).compare(value) === 0 ? undefined : value;
}

/** A value as plain data, by `plain`; numbers of which that would lose digits stay as they are, in lists, too. */
export function exactData(value: Value, plain: (value: Value) => unknown): unknown {
  if (isList(value) && value.some((item) => isList(item) || wideNumber(item) !== undefined))
    return value.map((item) => exactData(item, plain));
  return wideNumber(value) ?? plain(value);
}

/** Plain data as JSON; numbers of any size with all their digits. */
export function exactJson(data: unknown): string {
  if (typeof data === "bigint" || data instanceof Decimal) return String(data);
  if (Array.isArray(data)) return `[${data.map(exactJson).join(",")}]`;
  if (typeof data !== "object" || data === null) return JSON.stringify(data ?? null);
  return `{${Object.entries(data)
    .map(([name, item]) => `${JSON.stringify(name)}:${exactJson(item)}`)
    .join(",")}}`;
}
