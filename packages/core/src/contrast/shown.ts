import { Failure, Moment, type Value, isList } from "../values/index.ts";
import { kindOfOutcome } from "./equal.ts";

/** UTF-16 units of a text that a sentence shows. */
const mostShown = 160;

/** White space that looks like a space, and what is not seen at all, unless it holds an emoji together. */
const unseen = /(?<!\p{Extended_Pictographic}\ufe0f?)[\p{Cf}\p{Zl}\p{Zp}]|(?! )\p{Zs}/gu;

const inQuotes = (text: string): string =>
  JSON.stringify(text).replace(unseen, (char) => {
    const digits = char.codePointAt(0)!.toString(16).padStart(4, "0");
    return digits.length > 4 ? `\\u{${digits}}` : `\\u${digits}`;
  });

/** A text in quotes; of a long one its beginning, and how long it is. */
export const quoted = (text: string): string =>
  text.length <= mostShown ? inQuotes(text) : `${inQuotes(text.slice(0, mostShown))}… (${text.length} in all)`;

/** A value in a sentence: texts in quotes, errors and nothing by name. */
export function showValue(value: Value): string {
  if (value === null) return "nothing";
  if (value instanceof Failure) return "an error";
  if (typeof value === "string") return quoted(value);
  if (value instanceof Moment) return value.text;
  if (isList(value)) return `(${value.map(showValue).join(", ")})`;
  return kindOfOutcome(value) === "number" && typeof value === "object" && "value" in value ? String(value.value) : String(value);
}
