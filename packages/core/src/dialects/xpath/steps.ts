import type { Value } from "../../values/index.ts";
import { written } from "../shared/numbers.ts";
import { step, worked } from "../step.ts";

/** What XPath does to values without a function. */
export const steps = {
  text: step("text-of", {
    ...written,
    powerFrom: "1e6",
    powerBelow: "1e-6",
    power: "1.0E20",
    negativeZero: "kept",
    beyondNumbers: "NaN and INF",
    decimalZeros: "dropped",
    truthText: "true",
  }),
};

/** fn:string of one atomic item (F&O 3.1, 19.1.2). */
export const stringOf = worked(steps.text) as (item: Value) => string;
