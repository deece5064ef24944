import type { Budget, Pattern } from "../patterns/index.ts";
import { Failure, type Value, countBytes, countCodePoints, forward, isFailure, rulers, tick } from "../values/index.ts";
import { isInAscii, keyOf } from "./folding.ts";
import {
  type SlotNumber,
  countBy,
  listLimit,
  listTooLong,
  number,
  operation,
  optional,
  text,
  truthBy,
  written,
} from "./operation.ts";
import { stepOver } from "../patterns/index.ts";
import { patternReader, refused, withinBudget } from "./patterned.ts";
import { taken } from "./pieces.ts";

/** Finds the position of a text or pattern. */
export const locate = operation({
  id: "locate",
  result: "small",
  family: "locate",
  summary: "finds the position of one text in another",
  slots: [text("text"), written(text("needle"), "pattern"), optional(number("start"))],
  traits: ["missing", "unit", "first", "pattern", "case", "absent", "startBelow", "emptyNeedle", "fraction"],
  prepare(answers) {
    const ruler = rulers[answers.unit];
    const first = Number(answers.first);
    const whole = countBy(answers.fraction);
    const read = patternReader(answers.pattern, answers.case);
    const plain = answers.pattern === "literal" && answers.case === "minded";
    const byCodePoint = answers.unit === "code point";

    function whenAbsent(): Value {
      if (answers.absent === "zero") return first - 1;
      if (answers.absent === "first") return first;
      if (answers.absent === "error") return new Failure("not-found");
      return answers.absent === "null" ? null : "";
    }

    const isCollated = answers.pattern === "literal" && (answers.case === "general" || answers.case === "unicode");
    const key = keyOf(answers.case);
    let lastNeedle = "";
    let wanted = "";
    let isAscii = true;

    /**
     * The first stretch of as many bytes as the needle that is alike; a character of another size is not found.
     * A text's key is that of its characters, one after the other.
     */
    function alike(value: string, needle: string, from: number): number {
      if (needle !== lastNeedle) [lastNeedle, wanted, isAscii] = [needle, key(needle), isInAscii(needle)];
      if (isAscii && isInAscii(value)) {
        const all = key(value);
        // Every character has one byte and, where none is ignored, one unit of the key.
        if (all.length === value.length && wanted.length === needle.length) return all.indexOf(wanted, from);
      }
      const size = countBytes(needle);
      for (let start = from; start <= value.length; start = start === value.length ? start + 1 : forward(value, start, 1)) {
        let [end, bytes, at] = [start, 0, 0];
        while (at >= 0 && end < value.length && bytes < size) {
          const next = forward(value, end, 1);
          const char = value.slice(end, next);
          const part = key(char);
          at = wanted.startsWith(part, at) ? at + part.length : -1;
          bytes += countBytes(char);
          end = next;
        }
        tick(end - start + 1);
        if (bytes === size && at === wanted.length) return start;
      }
      return -1;
    }

    function offsetOf(value: string, needle: string, from: number): number | Failure {
      if (plain) return value.indexOf(needle, from);
      if (isCollated) return alike(value, needle, from);
      const pattern = read(needle);
      if (isFailure(pattern)) return pattern;
      return withinBudget(needle, (budget) => pattern.find(value, from, budget)?.index ?? -1);
    }

    return (value: string, needle: string, start?: SlotNumber): Value => {
      let from = 0;
      if (start !== undefined) {
        const at = whole(start);
        if (typeof at !== "number") return at;
        if (at < first && answers.startBelow === "nowhere") return whenAbsent();
        if (at < first && answers.startBelow === "error") return new Failure("start-below-first", { start: at, first });
        if (at - first > ruler.count(value)) return whenAbsent();
        from = ruler.forward(value, Math.max(0, at - first));
        if (answers.emptyNeedle === "before a character" && needle === "")
          return at - first < countBytes(value) ? countBytes(value.slice(0, from)) + first : whenAbsent();
      }
      if (needle === "" && answers.emptyNeedle === "nowhere") return whenAbsent();
      const found = offsetOf(value, needle, from);
      if (typeof found !== "number") return found;
      if (found < 0) return whenAbsent();
      return (byCodePoint ? countCodePoints(value, found) : ruler.count(value, found)) + first;
    };
  },
});

/** Tells whether a text or pattern stands in a text. */
export const test = operation({
  id: "test",
  family: "locate",
  summary: "tells whether a text stands in another, or fits a pattern",
  slots: [text("text"), written(text("needle"), "pattern"), optional(text("flags"))],
  traits: ["missing", "pattern", "where", "case", "truth"],
  prepare({ pattern: language, where, case: letterCase, truth }) {
    const given = truthBy(truth);
    const read = patternReader(language, letterCase);
    const plain = language === "literal" && letterCase === "minded";
    if (plain && where === "anywhere") return (value: string, needle: string) => given(value.includes(needle));
    if (plain && where === "start") return (value: string, needle: string) => given(value.startsWith(needle));
    if (plain && where === "end") return (value: string, needle: string) => given(value.endsWith(needle));
    if (plain) return (value: string, needle: string) => given(value === needle);

    function stands(pattern: Pattern, value: string, budget: Budget): boolean {
      if (where === "anywhere" || (where === "whole" && pattern.isWhole)) return pattern.test(value, budget);
      for (let from = 0; from <= value.length;) {
        const found = pattern.find(value, from, budget);
        if (!found) return false;
        const end = found.index + found[0].length;
        if ((where === "end" || found.index === 0) && (where === "start" || end === value.length)) return true;
        if (where !== "end") return false;
        // A match asked for from within a character begins before it.
        from = Math.max(from, found.index) + 1;
      }
      return false;
    }

    return (value: string, needle: string, flags?: string): Value => {
      const pattern = read(needle, flags, where === "whole");
      if (isFailure(pattern)) return pattern;
      return withinBudget(needle, (budget): Value => {
        const found = stands(pattern, value, budget);
        return found && pattern.refusal ? refused(needle, pattern.refusal) : given(found);
      });
    };
  },
});

/** Finds matches of a pattern and reports them. */
export const find = operation({
  id: "find",
  result: "small",
  family: "locate",
  summary: "finds a match of a pattern and reports its text, place or groups, or counts the matches",
  slots: [
    text("text"),
    written(text("needle"), "pattern"),
    optional(number("start")),
    optional(number("n")),
    optional(text("flags")),
    optional(number("group")),
    optional(number("side")),
  ],
  traits: ["missing", "pattern", "case", "report", "group", "absent"],
  prepare({ pattern: language, case: letterCase, report, group: grouping, absent }) {
    const read = patternReader(language, letterCase);

    function whenAbsent(): Value {
      if (absent === "error") return new Failure("not-found");
      if (absent === "zero") return 0;
      return absent === "empty" ? "" : null;
    }

    /** Offsets of every match from `from` on, at most `limit`. */
    function* matches(pattern: Pattern, value: string, from: number, budget: Budget): Generator<readonly number[]> {
      for (let at = from; at <= value.length;) {
        const found = pattern.offsets(value, at, budget);
        if (!found) return;
        yield found;
        at = found[1] > found[0] ? found[1] : stepOver(value, found[1]);
      }
    }

    /** What a group took; nothing where it took no part. */
    const partOf = (value: string, start: number, end: number): string =>
      start < 0 ? taken(0, "") : taken(start, value.slice(start, end));

    function describe(value: string, found: readonly number[], group: number | undefined, side: number): Value {
      const wanted = group ?? (grouping === "first group" && found.length > 2 ? 1 : 0);
      const [start, end] = [found[2 * wanted], found[2 * wanted + 1]];
      if (report === "groups") {
        const texts: (string | null)[] = [];
        for (let i = found.length > 2 ? 2 : 0; i < found.length; i += 2) {
          const part = partOf(value, found[i], found[i + 1]);
          texts.push(found[i] < 0 ? null : part);
        }
        return texts;
      }
      if (start === undefined || start < 0) return whenAbsent();
      return report === "text" ? taken(start, value.slice(start, end)) : countCodePoints(value, side ? end : start) + 1;
    }

    return (
      value: string,
      needle: string,
      givenStart: SlotNumber = 1,
      givenN: SlotNumber = 1,
      flags?: string,
      givenGroup?: SlotNumber,
      givenSide: SlotNumber = 0,
    ): Value => {
      const [start, n, side] = [Number(givenStart), Number(givenN), Number(givenSide)];
      const group = givenGroup === undefined ? undefined : Math.trunc(Number(givenGroup));
      const pattern = read(needle, flags);
      if (isFailure(pattern)) return pattern;
      if (!(start >= 1)) return new Failure("start-below-first", { start, first: 1 });
      if (!(n >= 1)) return new Failure("ordinal-below-one", { n });
      if (group !== undefined && group < 0 && report === "texts") return [];
      if (group !== undefined && group < 0) return new Failure("group-below-zero", { group });
      if (side !== 0 && side !== 1) return new Failure("side-not-known", { side });
      const from = rulers["code point"].forward(value, start - 1);
      return withinBudget<Value>(needle, (budget) => {
        let seen = 0;
        if (report === "texts") {
          const texts: string[] = [];
          for (const found of matches(pattern, value, from, budget)) {
            const wanted = group ?? 0;
            if (!(wanted <= pattern.groups)) return new Failure("no-such-group", { group: wanted });
            const [from, to] = [found[2 * wanted], found[2 * wanted + 1]];
            texts.push(partOf(value, from, to));
            if (texts.length > listLimit) return listTooLong(texts.length);
          }
          return texts;
        }
        if (start === 1 && n === 1 && report === "text" && (group ?? (grouping === "first group" ? pattern.groups : 0)) === 0) {
          const match = pattern.find(value, 0, budget);
          return match ? taken(match.index, match[0]) : whenAbsent();
        }
        if (start === 1 && n === 1 && report !== "count") {
          const found = pattern.offsets(value, 0, budget);
          return found ? describe(value, found, group, side) : whenAbsent();
        }
        if (start - 1 <= countCodePoints(value)) {
          for (const found of matches(pattern, value, from, budget)) {
            if (++seen === n && report !== "count") return describe(value, found, group, side);
          }
        }
        return report === "count" && seen > 0 ? seen : whenAbsent();
      });
    };
  },
});
