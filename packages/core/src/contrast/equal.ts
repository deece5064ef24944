import { Decimal, Double, Moment, type Value, isFailure, isList } from "../values/index.ts";

/** The kinds that are told apart when values of two dialects are compared. */
export type OutcomeKind = "text" | "number" | "boolean" | "nothing" | "error" | "list" | "other";

export function kindOfOutcome(value: Value): OutcomeKind {
  if (value === null) return "nothing";
  if (isFailure(value)) return "error";
  if (typeof value === "string" || value instanceof Moment) return "text";
  if (typeof value === "boolean") return "boolean";
  if (typeof value === "number" || typeof value === "bigint" || value instanceof Decimal || value instanceof Double)
    return "number";
  return isList(value) ? "list" : "other";
}

function asNumber(value: Value): number {
  return value instanceof Double ? value.value : value instanceof Decimal ? value.toNumber() : Number(value);
}

const textOf = (value: Value): Value => (value instanceof Moment ? value.text : value);

/**
 * Whether two dialects gave the same. Texts, and dates by their ISO text, agree when they are the same code units; numbers when
 * they are the same value (relative tolerance 1e-12), whatever their type; truth values, and lists
 * item by item. Nothing (null, blank, the empty sequence) agrees with nothing only, not with empty
 * text; an error agrees with an error only, whatever its code. Values of two kinds never agree.
 */
export function agree(a: Value, b: Value): boolean {
  const kind = kindOfOutcome(a);
  if (kind !== kindOfOutcome(b)) return false;
  switch (kind) {
    case "nothing":
    case "error":
      return true;
    case "number": {
      const [x, y] = [asNumber(a), asNumber(b)];
      return x === y || (Number.isNaN(x) && Number.isNaN(y)) || Math.abs(x - y) <= 1e-12 * Math.max(Math.abs(x), Math.abs(y));
    }
    case "list": {
      const [left, right] = [a as readonly Value[], b as readonly Value[]];
      return left.length === right.length && left.every((item, i) => agree(item, right[i]));
    }
    case "text":
      return textOf(a) === textOf(b);
    default:
      return a === b;
  }
}

/** A truth value as the number that some dialects have for it. */
export const asTruth = (value: Value): Value => (typeof value === "boolean" ? Number(value) : value);
