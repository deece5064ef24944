import { orderFor } from "../../text/index.ts";
import type { Value } from "../../values/index.ts";

/** Compares two present values of one type: −1, 0 or 1. */
export const order = orderFor({ case: "minded", padding: "counted", mixed: "by kind", notANumber: "above all" });

export type List = readonly Value[];

export const isNumber = (value: Value): boolean => typeof value === "number" || typeof value === "bigint";
