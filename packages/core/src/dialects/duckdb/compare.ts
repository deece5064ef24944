import { orderFor } from "../../text/index.ts";
import { worked } from "../step.ts";
import { Failure, type Value } from "../../values/index.ts";
import type { CodeContext } from "../dialect.ts";
import { baseType, castAny, isNumeric, typeRules, unify } from "./coercions.ts";

/** Compares two present values of one type: −1, 0 or 1. */
export const order = orderFor({ case: "minded", padding: "counted", mixed: "by kind", notANumber: "above all" });

/** Equality of items; null is like null only where asked for. */
export const same = (a: Value, b: Value): boolean => (a === null || b === null ? a === b : order(a, b) === 0);

/** A value as the type that it has together with others. */
export function converted(value: Value, from: string, to: string): Value {
  if (value === null) return null;
  if (typeof value === "boolean" && isNumeric(baseType(to))) return castAny(baseType(to), Number(value));
  const type = to.startsWith("decimal ") ? to : baseType(to);
  return worked(typeRules.conversion(from, type)?.convert)(value);
}

/** The types of values that have to go together; a failure where they do not. */
export function together({ types, args }: Pick<CodeContext, "types" | "args">): string | Failure {
  return unify(types) ?? new Failure("branch-types", { given: types, count: args.length });
}

export type List = readonly Value[];

export const isNumber = (value: Value): boolean => typeof value === "number" || typeof value === "bigint";
