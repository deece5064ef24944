import type { AnswerOf } from "../traits/index.ts";
import type { Value } from "../values/index.ts";
import { GrowingText } from "./growing.ts";
import { operation, optional, text } from "./operation.ts";

const defaults: Readonly<Record<AnswerOf<"characters">, string>> = {
  space: " ",
  "xml space": " \t\r\n",
  control: String.fromCharCode(...Array(32).keys()),
};

/** Removes characters at the ends, and collapses or removes them within. */
export const trim = operation({
  id: "trim",
  family: "trim",
  summary: "removes spaces or other characters at the ends, and perhaps within",
  slots: [text("text"), optional(text("characters"))],
  traits: ["missing", "ends", "inner", "characters", "removed"],
  prepare({ ends, inner, characters, removed }) {
    const usual = setOf(defaults[characters]);
    const atStart = ends !== "end";
    const atEnd = ends !== "start";

    let lastSource: string | undefined;
    let lastSet = usual;
    function chosen(source: string): CharTest {
      if (source !== lastSource) [lastSource, lastSet] = [source, setOf(source)];
      return lastSet;
    }

    /** Rewrites the stretches between runs; a text without a longer or foreign run comes back as it is. */
    function collapse(value: string, has: CharTest): string {
      let result = "";
      let kept = 0;
      for (let at = 0; at < value.length; at++) {
        if (!has(value.charCodeAt(at))) continue;
        let end = at + 1;
        while (end < value.length && has(value.charCodeAt(end))) end++;
        if (end - at > 1 || value.charCodeAt(at) !== 32) {
          result += value.slice(kept, at) + " ";
          kept = end;
        }
        at = end;
      }
      return kept === 0 ? value : result + value.slice(kept);
    }

    function strip(value: string, has: CharTest): Value {
      const result = new GrowingText();
      let kept = 0;
      for (let at = 0; at < value.length; at++) {
        if (!has(value.charCodeAt(at))) continue;
        result.add(value.slice(kept, at));
        kept = at + 1;
      }
      if (kept === 0) return value;
      result.add(value.slice(kept));
      return result.finish();
    }

    /** Without a text at the ends, as often as it stands there. */
    function stripWhole(value: string, part: string): string {
      let start = 0;
      let end = value.length;
      if (part === "") return value;
      if (atStart) while (end - start >= part.length && value.startsWith(part, start)) start += part.length;
      if (atEnd) while (end - start >= part.length && value.endsWith(part, end)) end -= part.length;
      return value.slice(start, end);
    }

    return (value: string, source?: string) => {
      if (removed === "whole" && source !== undefined) return stripWhole(value, source);
      const has = source === undefined ? usual : chosen(source);
      if (ends === "everywhere") return strip(value, has);
      let start = 0;
      let end = value.length;
      if (atStart) while (start < end && has(value.charCodeAt(start))) start++;
      if (atEnd) while (end > start && has(value.charCodeAt(end - 1))) end--;
      const cut = start > 0 || end < value.length ? value.slice(start, end) : value;
      // Most texts have no run of spaces, and the host finds one much faster.
      const isSingle = has === usual && characters === "space" && !cut.includes("  ");
      return inner === "kept" || isSingle ? cut : collapse(cut, has);
    };
  },
});

type CharTest = (unit: number) => boolean;

/** Tests UTF-16 units; a set with characters beyond U+FFFF is tested by both halves. */
function setOf(characters: string): CharTest {
  if (characters.length === 1) {
    const only = characters.charCodeAt(0);
    return (unit) => unit === only;
  }
  const units = new Set<number>();
  for (let i = 0; i < characters.length; i++) units.add(characters.charCodeAt(i));
  return (unit) => units.has(unit);
}
