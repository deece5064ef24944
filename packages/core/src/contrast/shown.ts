import { Failure, Moment, type Value, isList } from "../values/index.ts";
import { kindOfOutcome } from "./equal.ts";

/** A value in a sentence: texts in quotes, errors and nothing by name. */
export function showValue(value: Value): string {
  if (value === null) return "nothing";
  if (value instanceof Failure) return "an error";
  if (typeof value === "string") return JSON.stringify(value);
  if (value instanceof Moment) return value.text;
  if (isList(value)) return `(${value.map(showValue).join(", ")})`;
  return kindOfOutcome(value) === "number" && typeof value === "object" && "value" in value ? String(value.value) : String(value);
}
