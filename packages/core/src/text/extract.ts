import { Failure, type Unit, type Value, backward, forward, graphemesOf, rulers, reversed } from "../values/index.ts";
import { type SlotNumber, number, operation, optional, text, wholeBy } from "./operation.ts";
import { isWatched, taken } from "./pieces.ts";

/** Takes a part of a text by position. */
export const slice = operation({
  id: "slice",
  result: "part",
  family: "extract",
  summary: "takes a part of a text by position",
  slots: [text("text"), number("start"), optional(number("length"))],
  traits: ["missing", "unit", "first", "from", "third", "startBelow", "startBeyond", "negativeLength", "fraction"],
  prepare(answers) {
    const ruler = rulers[answers.unit];
    const first = Number(answers.first);
    const whole = wholeBy(answers.fraction);
    const fromEnd = answers.from === "end";
    const byCodePoint = answers.unit === "code point" && answers.startBeyond === "empty" && !fromEnd;

    /** The general case: offsets `begin` and `end` count units from 0. */
    function careful(value: string, start: SlotNumber, length: SlotNumber): Value {
      const at = whole(start);
      const size = length === Infinity ? length : whole(length);
      if (typeof at !== "number") return at;
      if (typeof size !== "number") return size;
      if (Number.isNaN(at) || Number.isNaN(size) || Number.isNaN(at + size)) return "";
      let begin = at - first;
      if (answers.startBeyond !== "empty" && begin > ruler.count(value))
        return answers.startBeyond === "null" ? null : new Failure("start-beyond-end", { start: at });
      let end = answers.third === "length" ? begin + size : size - first + (answers.third === "last" ? 1 : 0);
      const span = end - begin;
      if (span < 0) {
        if (answers.negativeLength === "error") return new Failure("negative-length", { length: span });
        if (answers.negativeLength === "empty") return "";
        end = ruler.count(value) + size;
      }
      if (begin < 0) {
        if (answers.startBelow === "error") return new Failure("start-below-first", { start: at, first });
        if (answers.startBelow === "clamp") [begin, end] = [0, end - begin];
        if (answers.startBelow === "from the end, within") begin = Math.max(0, at < 0 ? ruler.count(value) + at : 0);
        if (answers.startBelow === "from the end, within") end = begin + span - (at < 0 ? 0 : 1);
        else if (answers.startBelow.startsWith("from the end")) {
          const isFirst = answers.startBelow === "from the end, 0 the first" && at >= 0;
          const counted = at < 0 ? ruler.count(value) + at : isFirst ? 0 : begin;
          if (answers.startBelow !== "from the end" && counted < 0) return "";
          begin = counted;
          end = begin + span;
        }
      }
      if (span < 0 && answers.startBelow === "from the end, within") begin = Math.min(begin, ruler.count(value));
      if (span < 0 && answers.negativeLength === "before") [begin, end] = [begin + span, begin];
      return cut(value, Math.max(0, begin), end);
    }

    function cut(value: string, begin: number, end: number): string {
      if (end <= begin) return "";
      const from = fromEnd ? ruler.backward(value, end) : ruler.forward(value, begin);
      const to = fromEnd ? ruler.backward(value, begin) : end === Infinity ? undefined : ruler.forward(value, end);
      return taken(from, value.slice(from, to));
    }

    const isFromEnd = byCodePoint && (answers.startBelow === "from the end" || answers.startBelow === "from the end, within");
    return (value: string, start: SlotNumber, length: SlotNumber = Infinity): Value => {
      if (isFromEnd && start < 0 && length === Infinity && Number.isInteger(start)) {
        const offset = backward(value, value.length, -Number(start));
        return taken(offset, value.slice(offset));
      }
      const begin = Number(start) - first;
      if (
        byCodePoint &&
        begin >= 0 &&
        typeof length === "number" &&
        length >= 0 &&
        Number.isInteger(begin) &&
        Number.isInteger(length) &&
        answers.third === "length"
      ) {
        const offset = forward(value, 0, begin);
        return taken(offset, value.slice(offset, forward(value, offset, length)));
      }
      return careful(value, start, length);
    };
  },
});

/** The last place of a unit before an offset; -1 where there is none. */
const lastBefore = (value: string, unit: string, end: number): number => (end === 0 ? -1 : value.lastIndexOf(unit, end - 1));

/** The place of the nth unit from the end. Longer texts than one unit may overlap, and are counted from the start. */
function placeFromEnd(value: string, unit: string, n: number): number {
  let at = value.length;
  for (let left = n; left > 0 && at >= 0; left--) at = lastBefore(value, unit, at);
  return at;
}

/** Takes what stands before, after or between delimiters. */
export const segment = operation({
  id: "segment",
  result: "part",
  family: "extract",
  summary: "takes what stands before, after or between delimiters",
  slots: [text("text"), text("delimiter"), optional(number("n"))],
  traits: ["missing", "part", "absent", "zeroPiece", "noPiece", "emptyNeedle", "case"],
  prepare({ part, absent, zeroPiece, noPiece, emptyNeedle, case: letterCase }) {
    const fold = letterCase === "ignored" ? (value: string) => value.toLowerCase() : (value: string) => value;

    function whenAbsent(value: string): Value {
      if (absent === "whole") return taken(0, value);
      if (absent === "empty") return "";
      if (absent === "error") return new Failure("not-found");
      return absent === "zero" ? "" : null;
    }

    function whenFewer(value: string, delimiter: string): Value {
      if (noPiece === "last") return value === "" ? "" : nth(value, delimiter, -1);
      if (noPiece === "whole") return taken(0, value);
      if (noPiece === "error") return new Failure("not-found");
      return noPiece === "null" ? null : "";
    }

    const zeroth = (): Value => (zeroPiece === "error" ? new Failure("zero-ordinal") : "");

    function character(value: string, n: number): Value {
      const chars = [...value];
      const at = n > 0 ? Math.trunc(n - 1) : chars.length + Math.trunc(n);
      if (!(at >= 0 && at < chars.length)) return whenFewer(value, "");
      return taken(chars.slice(0, at).join("").length, chars[at]);
    }

    function nth(value: string, delimiter: string, n: number): Value {
      if (n === 0) return zeroth();
      if (delimiter === "" && emptyNeedle === "between characters") return character(value, n);
      if (delimiter === "" || !fold(value).includes(fold(delimiter))) {
        return n === 1 || n === -1 ? whenAbsent(value) : whenFewer(value, delimiter);
      }
      if (n < 0 && delimiter.length === 1 && letterCase === "minded") {
        const end = n === -1 ? value.length : placeFromEnd(value, delimiter, -n - 1);
        if (end < 0) return whenFewer(value, delimiter);
        const begin = lastBefore(value, delimiter, end) + 1;
        return taken(begin, value.slice(begin, end));
      }
      if (n < 0) {
        const pieces = letterCase === "ignored" ? splitFolded(value, delimiter) : value.split(delimiter);
        const at = pieces.length + n;
        const before = pieces.slice(0, Math.max(0, at)).reduce((sum, piece) => sum + piece.length + delimiter.length, 0);
        return at < 0 ? whenFewer(value, delimiter) : taken(before, pieces[at]);
      }
      let start = 0;
      const haystack = fold(value);
      const needle = fold(delimiter);
      for (let left = n; ; left--) {
        const end = haystack.indexOf(needle, start);
        if (left === 1) return taken(start, value.slice(start, end < 0 ? undefined : end));
        if (end < 0) return whenFewer(value, delimiter);
        start = end + delimiter.length;
      }
    }

    function splitFolded(value: string, delimiter: string): string[] {
      const pieces: string[] = [];
      for (let start = 0; ;) {
        const end = fold(value).indexOf(fold(delimiter), start);
        pieces.push(value.slice(start, end < 0 ? undefined : end));
        if (end < 0) return pieces;
        start = end + delimiter.length;
      }
    }

    /** What stands before the nth delimiter, or after the nth from the end; which they are is told from the left. */
    function through(value: string, delimiter: string, n: number): Value {
      if (n === 0) return zeroth();
      if (delimiter === "") return "";
      if (n > 0) {
        let at = -delimiter.length;
        for (let left = n; left > 0; left--) {
          at = value.indexOf(delimiter, at + delimiter.length);
          if (at < 0) return whenAbsent(value);
        }
        return taken(0, value.slice(0, at));
      }
      if (delimiter.length === 1) {
        const at = placeFromEnd(value, delimiter, -n);
        return at < 0 ? whenAbsent(value) : taken(at + 1, value.slice(at + 1));
      }
      const pieces = value.split(delimiter);
      if (-n >= pieces.length) return whenAbsent(value);
      const kept = pieces.slice(n).join(delimiter);
      return taken(value.length - kept.length, kept);
    }

    if (part === "through nth")
      return (value: string, delimiter: string, n: SlotNumber = 1) => through(value, delimiter, Number(n));
    if (part === "nth") return (value: string, delimiter: string, n: SlotNumber = 1) => nth(value, delimiter, Number(n));
    if (part === "before" && letterCase === "minded") {
      return (value: string, delimiter: string): Value => {
        const at = delimiter === "" && emptyNeedle === "nowhere" ? -1 : value.indexOf(delimiter);
        return at < 0 ? whenAbsent(value) : taken(0, value.slice(0, at));
      };
    }
    return (value: string, delimiter: string): Value => {
      if (delimiter === "" && emptyNeedle === "nowhere") return whenAbsent(value);
      const at = fold(value).indexOf(fold(delimiter));
      if (at < 0) return whenAbsent(value);
      const from = part === "before" ? 0 : at + delimiter.length;
      return taken(from, value.slice(from, part === "before" ? at : undefined));
    };
  },
});

function tellReversed(value: string, unit: Unit): void {
  const parts = unit === "grapheme" ? graphemesOf(value) : unit === "utf-16 unit" ? value.split("") : [...value];
  let end = value.length;
  for (const part of parts.reverse()) {
    end -= part.length;
    taken(end, part);
  }
}

/** The units of a text in reverse order. */
export const reverse = operation({
  id: "reverse",
  family: "extract",
  summary: "puts the characters of a text in reverse order",
  slots: [text("text")],
  traits: ["missing", "unit"],
  prepare:
    ({ unit }) =>
    (value: string) => {
      if (isWatched()) tellReversed(value, unit);
      return reversed(value, unit);
    },
});
