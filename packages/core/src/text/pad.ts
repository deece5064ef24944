import { Failure, type Value, isFailure, rulers } from "../values/index.ts";
import { type SlotNumber, countBy, number, operation, optional, text, textLimit, tooLong } from "./operation.ts";

/** Repeats a text. */
export const repeat = operation({
  id: "repeat",
  family: "pad",
  summary: "repeats a text",
  slots: [text("text"), number("count")],
  traits: ["missing", "negativeCount", "fraction"],
  prepare({ negativeCount, fraction }) {
    const whole = countBy(fraction);
    return (value: string, count: SlotNumber): Value => {
      const times = whole(count);
      if (isFailure(times)) return times;
      if (times < 0 && negativeCount === "error") return new Failure("negative-count", { count: times });
      if (times < 0) return negativeCount === "empty" ? "" : null;
      if (value === "") return "";
      if (times * value.length > textLimit) return tooLong(times * value.length);
      return value.repeat(times);
    };
  },
});

/** Fills a text up to a length; a longer text is cut at its end. */
export const pad = operation({
  id: "pad",
  family: "pad",
  summary: "fills a text up to a length, or cuts it to that",
  slots: [text("text"), number("length"), optional(text("fill"))],
  traits: ["missing", "unit", "side", "negativeCount", "emptyFill"],
  prepare({ unit, side, negativeCount, emptyFill }) {
    const ruler = rulers[unit];
    return (value: string, given: SlotNumber, fill: string = " "): Value => {
      const length = Number(given);
      if (length < 0 && negativeCount === "error") return new Failure("negative-count", { count: length });
      if (length < 0 && negativeCount === "null") return null;
      if (length <= 0) return "";
      if (length > textLimit) return tooLong(length);
      const lacking = length - ruler.count(value);
      if (lacking <= 0) return value.slice(0, ruler.forward(value, length));
      const size = ruler.count(fill);
      if (size === 0) return emptyFill === "whole" ? value : emptyFill === "null" ? null : new Failure("empty-fill");
      const long = fill.repeat(Math.ceil(lacking / size));
      const filling = long.slice(0, ruler.forward(long, lacking));
      return side === "left" ? filling + value : value + filling;
    };
  },
});
