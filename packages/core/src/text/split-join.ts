import type { Budget, Pattern } from "../patterns/index.ts";
import { Failure, type Value, isFailure } from "../values/index.ts";
import {
  type Slot,
  charactersOf,
  kept,
  listLimit,
  listTooLong,
  nullable,
  operation,
  optional,
  text,
  textLimit,
  tooLong,
  written,
} from "./operation.ts";
import { dropped, isWatched, taken } from "./pieces.ts";
import { stepOver } from "../patterns/index.ts";
import { patternReader, withinBudget } from "./patterned.ts";

const items: Slot = { name: "items", kind: "texts" };

/** Tells of an item, by its place or put in for one that is missing, and of the separator before it; a whole number is written as it is. */
function tellItem(item: string | number | bigint, place: number | undefined, separator: string): void {
  taken(0, separator, 1);
  taken(0, String(item), place === undefined ? 3 : 0, place);
}

/** Joins texts. */
export const join = operation({
  id: "join",
  family: "split-join",
  summary: "joins texts, perhaps with a separator between them",
  slots: [items, optional(text("separator")), optional({ name: "skipEmpty", kind: "boolean" }), nullable(text("forMissing"))],
  traits: ["missing", "missingItem", "emptyItem"],
  prepare({ missingItem, emptyItem }) {
    return (
      texts: readonly (string | null)[],
      separator: string = "",
      skipEmpty: boolean = emptyItem === "skipped",
      forMissing?: string,
    ): Value => {
      let result = "";
      let started = false;
      const watched = isWatched();
      for (let i = 0; i < texts.length; i++) {
        let item = texts[i];
        if (item === null) {
          if (forMissing !== undefined) item = forMissing;
          else if (missingItem === "null") return null;
          else if (missingItem === "skipped") continue;
          else item = "";
        }
        if (skipEmpty && item === "") continue;
        if (result.length + separator.length + item.length > textLimit) return tooLong(result.length + item.length);
        if (watched) tellItem(item, texts[i] === null ? undefined : i, started ? separator : "");
        result += started && separator !== "" ? separator + item : item;
        started = true;
      }
      return result;
    };
  },
});

/** Splits a text into a list. */
export const split = operation({
  id: "split",
  family: "split-join",
  summary: "splits a text into a list of pieces",
  slots: [text("text"), written(kept(text("delimiter")), "pattern"), optional(text("flags")), nullable(text("missingPiece"))],
  traits: ["missing", "pattern", "case", "missingDelimiter", "delimiterIs", "emptyDelimiter", "emptyText", "edges", "emptyMatch"],
  prepare({ pattern: language, case: letterCase, missingDelimiter, delimiterIs, emptyDelimiter, emptyText, edges, emptyMatch }) {
    const read = patternReader(language, letterCase, emptyMatch);

    function byPattern(value: string, source: string, flags?: string): string[] | Failure {
      const pattern = read(source, flags);
      if (isFailure(pattern)) return pattern;
      if (pattern.literal !== undefined && emptyMatch !== "one character") return between(value, pattern.literal);
      return withinBudget<string[] | Failure>(source, (budget) => {
        const pieces: string[] = [];
        if (emptyMatch === "one character") return cutOff(value, pattern, budget);
        let kept = 0;
        for (let at = 0; at <= value.length;) {
          const match = pattern.find(value, at, budget);
          if (!match) break;
          const end = match.index + match[0].length;
          // An empty match right after the last one, or at either end, cuts nothing.
          if (end > match.index || (match.index > kept && match.index < value.length)) {
            pieces.push(taken(kept, value.slice(kept, match.index)));
            kept = end;
          }
          if (pieces.length > listLimit) break;
          at = end > match.index ? end : stepOver(value, end);
        }
        pieces.push(taken(kept, value.slice(kept)));
        return pieces;
      });
    }

    /** Pieces one after the other: up to a match, or one character where the match is empty. */
    function cutOff(value: string, pattern: Pattern, budget: Budget): string[] {
      const pieces: string[] = [];
      let rest = value;
      const piece = (start: number, end?: number) =>
        pieces.push(taken(value.length - rest.length + start, rest.slice(start, end)));
      while (pieces.length <= listLimit) {
        const match = pattern.find(rest, 0, budget);
        const end = match && match[0] === "" ? stepOver(rest, match.index) : match?.index;
        if (!match || end === undefined || end >= rest.length) {
          piece(0, match && match[0] !== "" ? match.index : undefined);
          if (match && match[0] !== "") piece(match.index + match[0].length);
          break;
        }
        piece(0, end);
        rest = rest.slice(match[0] === "" ? end : match.index + match[0].length);
      }
      return pieces;
    }

    /** Pieces that stand one after the other, so many units apart. */
    function placed(pieces: string[], apart: number): string[] {
      let at = 0;
      if (isWatched()) for (const piece of pieces) at += taken(at, piece).length + apart;
      return pieces;
    }

    const between = (value: string, delimiter: string): string[] =>
      placed(value.split(delimiter, listLimit + 1), delimiter.length);

    /** Pieces between characters that are any of some. */
    function atAny(value: string, marks: ReadonlySet<string>): string[] {
      const pieces: string[] = [];
      let [kept, at] = [0, 0];
      for (const char of value) {
        if (marks.has(char) && pieces.length <= listLimit) {
          pieces.push(taken(kept, value.slice(kept, at)));
          kept = at + char.length;
        }
        at += char.length;
      }
      pieces.push(taken(kept, value.slice(kept)));
      return pieces;
    }

    function characters(value: string): string[] | Failure {
      const found = charactersOf(value);
      return isFailure(found) ? found : placed(found, 0);
    }

    function pieces(value: string, delimiter: string, flags?: string): string[] | Failure {
      if (language === "literal" && letterCase === "minded") {
        if (delimiter !== "" && delimiterIs === "any of its characters") return atAny(value, new Set(delimiter));
        if (delimiter !== "") return between(value, delimiter);
        return emptyDelimiter === "whole" ? [taken(0, value)] : characters(value);
      }
      return byPattern(value, delimiter, flags);
    }

    return (value: string, delimiter?: string | null, flags?: string, missingPiece?: string): Value => {
      if (delimiter === null && missingDelimiter === "null") return null;
      if (delimiter === null && missingDelimiter === "whole") return [taken(0, value)];
      const found = typeof delimiter === "string" ? pieces(value, delimiter, flags) : characters(value);
      if (isFailure(found)) return found;
      if (found.length > listLimit) return listTooLong(found.length);
      if (value === "") return emptyText === "nothing" ? [] : found.length > 0 ? found : [taken(0, "")];
      if (edges === "trimmed") {
        while (found.length > 0 && found[0] === "") {
          found.shift();
          dropped("first");
        }
        while (found.length > 0 && found[found.length - 1] === "") {
          found.pop();
          dropped("last");
        }
      }
      return missingPiece === undefined ? found : found.map((piece) => (piece === missingPiece ? null : piece));
    };
  },
});
