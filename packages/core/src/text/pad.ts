import { Failure, type Value, isFailure, rulers } from "../values/index.ts";
import { isWatched, made, pieceLimit, taken } from "./pieces.ts";
import { type SlotNumber, countBy, number, operation, optional, text, beyondLimit } from "./operation.ts";

const bytes = rulers["utf-8 byte"];

/** Repeats a text. */
export const repeat = operation({
  id: "repeat",
  family: "pad",
  summary: "repeats a text",
  slots: [text("text"), number("count")],
  traits: ["missing", "negativeCount", "fraction", "tooLong"],
  prepare({ negativeCount, fraction, tooLong }) {
    const whole = countBy(fraction);
    return (value: string, count: SlotNumber): Value => {
      const times = whole(count);
      if (isFailure(times)) return times;
      if (times < 0 && negativeCount === "error") return new Failure("negative-count", { count: times });
      if (times < 0) return negativeCount === "empty" ? "" : null;
      if (value === "") return "";
      const limited = beyondLimit(tooLong, times * value.length, () => times * bytes.count(value));
      if (limited !== undefined) return limited;
      if (isWatched()) for (let i = 0; i < Math.min(times, pieceLimit); i++) taken(0, value);
      return value.repeat(times);
    };
  },
});

/** Fills a text up to a length; what becomes of a longer text is an answer. */
export const pad = operation({
  id: "pad",
  family: "pad",
  summary: "fills a text up to a length, or cuts it to that",
  slots: [text("text"), number("length"), optional(text("fill"))],
  traits: ["missing", "unit", "side", "negativeCount", "longer", "emptyFill", "tooLong"],
  prepare({ unit, side, negativeCount, longer, emptyFill, tooLong }) {
    const ruler = rulers[unit];
    return (value: string, given: SlotNumber, chosen?: string): Value => {
      const fill = chosen ?? " ";
      const length = Number(given);
      if (length < 0 && negativeCount === "error") return new Failure("negative-count", { count: length });
      if (length < 0 && negativeCount === "null") return null;
      if (length <= 0) return "";
      const lacking = length - ruler.count(value);
      if (lacking <= 0 && (lacking === 0 || longer === "kept")) return taken(0, value);
      if (lacking < 0 && longer === "error") return new Failure("text-longer", { length });
      if (lacking < 0 && longer === "cut at the start") {
        const from = ruler.backward(value, length);
        return taken(from, value.slice(from));
      }
      if (lacking < 0) return taken(0, value.slice(0, ruler.forward(value, length)));
      // Each character may take four bytes.
      const limited = beyondLimit(tooLong, length, () => length * 4);
      if (limited !== undefined) return limited;
      const size = ruler.count(fill);
      if (size === 0) return emptyFill === "whole" ? taken(0, value) : emptyFill === "null" ? null : new Failure("empty-fill");
      const long = fill.repeat(Math.ceil(lacking / size));
      const filling = size === 1 ? long : long.slice(0, ruler.forward(long, lacking));
      if (isWatched()) {
        if (side === "right") taken(0, value);
        const put = (text: string) => (chosen === undefined ? made(text) : taken(0, text, 2));
        for (let at = 0; at < filling.length && at / fill.length < pieceLimit; at += fill.length)
          put(filling.slice(at, at + fill.length));
        if (side === "left") taken(0, value);
      }
      return side === "left" ? filling + value : value + filling;
    };
  },
});
