import { marked } from "../../text/index.ts";
import { Decimal, type Value } from "../../values/index.ts";
import type { CodeContext } from "../dialect.ts";
import { type Type, typeOf } from "../types.ts";

/** How many digits of the second's fraction an argument brings with it; a text that is not the same for every row, six. */
export function fractionDigits(place: number, { types, constant, steady }: CodeContext, value?: Value): number {
  const { name: type, scale } = types[place] ?? typeOf("date");
  if (type === "double") return 6;
  if (type === "decimal") {
    const number = value instanceof Decimal ? value : constant(place);
    return number instanceof Decimal ? Math.min(6, scale ?? number.scale) : 6;
  }
  if (type !== "text") return typeof value === "string" ? fractionOf(value).length : 0;
  const text = constant(place) ?? (steady(place) ? value : undefined);
  return typeof text === "string" ? fractionOf(text).length : 6;
}

export const fractionOf = (text: string): string => /\.(\d{1,6})/.exec(text)?.[1] ?? "";

/** A time or moment with so many digits of the second's fraction; a date stays. */
export const withDigits = (text: string, digits: number): string =>
  text.includes(":") ? marked.withSecondDigits(text, digits) : text;

/** A number that counts for its decimals: all six where it is a text or a double. */
export const numericDigits = (value: Value, type: Type): number =>
  ["text", "double"].includes(type.name) ? 6 : value instanceof Decimal ? Math.min(6, type.scale ?? value.scale) : 0;

/** Millionths of a second in a number of seconds, cut. */
export const microIn = (seconds: Decimal): number => Number(cutTo(seconds.times(Decimal.of(1_000_000)), 0).coefficient);
export const cutTo = ({ coefficient, scale }: Decimal, digits: number): Decimal =>
  scale <= digits ? new Decimal(coefficient, scale) : new Decimal(coefficient / 10n ** BigInt(scale - digits), digits);
