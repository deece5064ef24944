import type { AnswerOf } from "../traits/index.ts";
import type { Value } from "../values/index.ts";
import { GrowingText } from "./growing.ts";
import { operation, optional, text } from "./operation.ts";
import { taken, turned } from "./pieces.ts";

const defaults: Readonly<Record<AnswerOf<"characters">, string>> = {
  space: " ",
  "xml space": " \t\r\n",
  separator: " \u00a0\u1680\u2000\u2001\u2002\u2003\u2004\u2005\u2006\u2007\u2008\u2009\u200a\u202f\u205f\u3000",
  control: String.fromCharCode(...Array(32).keys()),
};

/** Removes characters at the ends, and collapses or removes them within. */
export const trim = operation({
  id: "trim",
  result: "part",
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
    function chosen(source: string): CharSet {
      if (source !== lastSource) [lastSource, lastSet] = [source, setOf(source)];
      return lastSet;
    }

    /** Rewrites the stretches between runs of what begins at an offset; without a longer or foreign run it comes back as it is. */
    function collapse(value: string, from: number, { has }: CharSet): string {
      let result = "";
      let kept = 0;
      for (let at = 0; at < value.length; at++) {
        if (!has(value.charCodeAt(at))) continue;
        let end = at + 1;
        while (end < value.length && has(value.charCodeAt(end))) end++;
        if (end - at > 1 || value.charCodeAt(at) !== 32) {
          result += taken(from + kept, value.slice(kept, at)) + turned(from + at, from + end, " ");
          kept = end;
        }
        at = end;
      }
      return kept === 0 ? taken(from, value) : result + taken(from + kept, value.slice(kept));
    }

    function strip(value: string, set: CharSet): Value {
      const result = new GrowingText();
      let kept = 0;
      for (let at = 0; at < value.length; at++) {
        const size = sizeAt(value, at, set);
        if (size === 0) continue;
        result.add(taken(kept, value.slice(kept, at)));
        kept = at + size;
        at = kept - 1;
      }
      if (kept === 0) return taken(0, value);
      result.add(taken(kept, value.slice(kept)));
      return result.finish();
    }

    /** Without a text at the ends, as often as it stands there. */
    function stripWhole(value: string, part: string): string {
      let start = 0;
      let end = value.length;
      if (part === "") return taken(0, value);
      if (atStart) while (end - start >= part.length && value.startsWith(part, start)) start += part.length;
      if (atEnd) while (end - start >= part.length && value.endsWith(part, end)) end -= part.length;
      return taken(start, value.slice(start, end));
    }

    return (value: string, source?: string) => {
      if (removed === "whole" && source !== undefined) return stripWhole(value, source);
      const set = source === undefined ? usual : chosen(source);
      if (ends === "everywhere") return strip(value, set);
      let start = 0;
      let end = value.length;
      if (atStart) for (let size = 1; start < end && size > 0; start += size) size = sizeAt(value, start, set);
      if (atEnd) for (let size = 1; end > start && size > 0; end -= size) size = sizeBefore(value, end, set);
      const cut = start > 0 || end < value.length ? value.slice(start, end) : value;
      // Most texts have no run of spaces, and the host finds one much faster.
      const isSingle = set === usual && characters === "space" && !cut.includes("  ");
      return inner === "kept" || isSingle ? taken(start, cut) : collapse(cut, start, set);
    };
  },
});

/** A set of characters: those of one UTF-16 unit by a test, those of two by their text. */
interface CharSet {
  readonly has: (unit: number) => boolean;
  readonly wide: readonly string[];
}

/** The units of the character at an offset, where it is in the set; 0 where it is not. */
function sizeAt(value: string, at: number, { has, wide }: CharSet): number {
  if (has(value.charCodeAt(at))) return 1;
  return wide.length > 0 && wide.some((char) => value.startsWith(char, at)) ? 2 : 0;
}

/** The units of the character before an offset, where it is in the set; 0 where it is not. */
function sizeBefore(value: string, end: number, { has, wide }: CharSet): number {
  if (has(value.charCodeAt(end - 1))) return 1;
  return wide.length > 0 && wide.some((char) => value.startsWith(char, end - 2)) ? 2 : 0;
}

/** The set of the characters of a text; half a character counts as one. */
function setOf(characters: string): CharSet {
  const wide = [...characters].filter((char) => char.length > 1);
  const single = wide.length === 0 ? characters : [...characters].filter((char) => char.length === 1).join("");
  if (single.length === 1) {
    const only = single.charCodeAt(0);
    return { has: (unit) => unit === only, wide };
  }
  if (single.length <= shortSet) {
    return {
      has: (unit) => {
        for (let i = 0; i < single.length; i++) if (single.charCodeAt(i) === unit) return true;
        return false;
      },
      wide,
    };
  }
  const units = new Set<number>();
  for (let i = 0; i < single.length; i++) units.add(single.charCodeAt(i));
  return { has: (unit) => units.has(unit), wide };
}

/** Sets of no more characters are looked through; making a table for each row costs more. */
const shortSet = 24;
