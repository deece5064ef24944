import type { Value } from "../../values/index.ts";
import { step, worked } from "../step.ts";

const missing = "null" as const;

/** What XPath does to values without a function. */
export const steps = {
  text: step("text-of", {
    missing,
    numbers: "exact",
    digits: "shortest",
    powerFrom: "1e6",
    powerBelow: "1e-6",
    power: "1.0E20",
    wholeDouble: "bare",
    negativeZero: "kept",
    beyondNumbers: "NaN and INF",
    decimalZeros: "dropped",
    truthText: "true",
    bytesText: "utf-8",
    listText: "item by item",
  }),
};

/** fn:string of one atomic item (F&O 3.1, 19.1.2). */
export const stringOf = worked(steps.text) as (item: Value) => string;
