import type { AnswerOf } from "../../traits/index.ts";
import { step } from "../step.ts";

const missing = "null" as const;

/** A text cut after so many characters, as a cast to VARCHAR of a length does. */
export const cutTo = (length: number) =>
  step(
    "slice",
    {
      missing,
      unit: "code point",
      first: "1",
      from: "start",
      third: "length",
      startBelow: "window",
      negativeLength: "empty",
      startBeyond: "empty",
      fraction: "truncated",
    },
    { start: 1, length },
  );

/** A text cut, or filled up with spaces, to so many characters, as a cast to CHARACTER of a length does. */
export const filledTo = (length: number) =>
  step(
    "pad",
    { missing, unit: "code point", side: "right", negativeCount: "empty", longer: "cut", emptyFill: "whole", tooLong: "error" },
    { length, fill: " " },
  );

/** A number with so many digits, `scale` of them after the point; of any number of digits without `size`. */
export const fitted = (tooLarge: AnswerOf<"tooLarge">, scale: number, size?: number) =>
  step("fit", { missing, tooLarge, digitsLeft: "rounded" }, { scale, ...(size !== undefined && { size }) });

/** A decimal as it is shown where it keeps more digits than so many after the point. */
export const shownWith = (scale: number) => step("fit", { missing, tooLarge: "error", digitsLeft: "not shown" }, { scale });

/** A decimal with at least so many digits after the point. */
export const extended = (scale: number) => step("fit", { missing, tooLarge: "error", digitsLeft: "kept" }, { scale });
