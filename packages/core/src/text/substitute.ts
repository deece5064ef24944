import { type Budget, type Match, type Pattern, type Template, hostTemplate, stepOver } from "../patterns/index.ts";
import type { AnswerOf } from "../traits/index.ts";
import { Failure, type Value, isFailure, rulers } from "../values/index.ts";
import { GrowingText } from "./growing.ts";
import { type SlotNumber, countBy, number, operation, keptBy, optional, text, textLimit, tooLong, written } from "./operation.ts";
import { isWatched, taken, turned } from "./pieces.ts";
import { patternReader, withinBudget } from "./patterned.ts";

/** Replaces a stretch given by its position. */
export const replaceSpan = operation({
  id: "replace-span",
  family: "substitute",
  summary: "replaces a stretch given by its position",
  slots: [text("text"), number("start"), optional(number("length")), text("new")],
  traits: ["missing", "unit", "first", "startBelow", "spanBeyond", "negativeSpan", "farEnd", "fraction"],
  prepare(answers) {
    const ruler = rulers[answers.unit];
    const first = Number(answers.first);
    const whole = countBy(answers.fraction);
    return (value: string, start: SlotNumber, length: SlotNumber | undefined, replacement: string): Value => {
      const at = whole(start);
      const size = length === undefined ? ruler.count(replacement) : whole(length);
      if (typeof at !== "number") return at;
      if (typeof size !== "number") return size;
      let begin = at - first;
      if (begin < 0 && answers.startBelow === "unchanged") return taken(0, value);
      if (answers.spanBeyond === "unchanged" && begin >= ruler.count(value)) return taken(0, value);
      if (begin < 0 && answers.startBelow === "error") return new Failure("start-below-first", { start: at, first });
      if (begin < 0 && answers.startBelow === "from the end") begin += ruler.count(value) + first;
      if (answers.farEnd === "error" && at + size > 2147483647) return new Failure("number-out-of-range");
      if (size < 0 && answers.negativeSpan === "error") return new Failure("negative-length", { length: size });
      const end =
        size >= 0
          ? begin + size
          : { empty: begin, "to the end": Infinity, repeated: begin + size }[answers.negativeSpan as "empty"];
      if (value.length + replacement.length > textLimit) return tooLong(value.length + replacement.length);
      const from = answers.startBelow === "clamp" && begin < 0 ? end - begin : end;
      const head = value.slice(0, ruler.forward(value, Math.max(0, begin)));
      const rest = ruler.forward(value, Math.max(0, from));
      return taken(0, head) + taken(0, replacement, 3) + taken(rest, value.slice(rest));
    };
  },
});

/** A text with the stretch between two UTF-16 offsets replaced. */
function spliced(value: string, start: number, end: number, replacement: string): string | Failure {
  const length = value.length + replacement.length;
  return length > textLimit ? tooLong(length) : value.slice(0, start) + replacement + value.slice(end);
}

/** UTF-16 units up to which a text is made without looking at the clock. */
const shortText = 1 << 16;

/** Every occurrence replaced, in a text of which not much can become; `first` is the offset of the first one. */
function everywhere(value: string, old: string, replacement: string, first: number): string {
  let [result, kept] = ["", 0];
  for (let at = first; at >= 0; at = value.indexOf(old, kept)) {
    result += value.slice(kept, at) + replacement;
    kept = at + old.length;
  }
  return result + value.slice(kept);
}

/** `\\1`; with `digits` also `\\0`, and any other character after a backslash for itself. */
function readBackslash(replacement: string, digits: boolean): Template {
  const parts: (string | number)[] = [];
  for (const part of replacement.split(/(\\[\s\S])/)) {
    if (part.length !== 2 || part[0] !== "\\") parts.push(part);
    else if (digits) parts.push(/\d/.test(part[1]) ? Number(part[1]) : part[1]);
    else if (part[1] === "&") parts.push(0);
    else if (/[1-9]/.test(part[1])) parts.push(Number(part[1]));
    else parts.push(part[1] === "\\" ? "\\" : part);
  }
  return parts.filter((part) => part !== "");
}

/** F&O 3.1, 5.6.4: `$n` takes as many digits as make a group that exists; `\` only before `\` and `$`. */
function readDollar(replacement: string, groups: number): Template | Failure {
  const parts: (string | number)[] = [];
  for (let at = 0; at < replacement.length;) {
    const char = replacement[at];
    if (char === "\\") {
      const next = replacement[at + 1];
      if (next !== "\\" && next !== "$") return new Failure("replacement-syntax", { replacement, offset: at });
      parts.push(next);
      at += 2;
    } else if (char === "$") {
      let digits = /^\d+/.exec(replacement.slice(at + 1))?.[0];
      if (!digits) return new Failure("replacement-syntax", { replacement, offset: at });
      while (digits.length > 1 && Number(digits) > groups) digits = digits.slice(0, -1);
      parts.push(Number(digits) <= groups ? Number(digits) : "");
      at += 1 + digits.length;
    } else {
      parts.push(char);
      at++;
    }
  }
  return parts;
}

/**
 * RE2's rewrite: `\\0` to `\\9` and `\\\\`; undefined where it names a group that is not there, or, unless all matches
 * are replaced, anything else. Where all are, what stands before that is written.
 */
function readNumbers(replacement: string, groups: number, isAll: boolean): Template | undefined {
  const written = replacement.split(/(\\[\s\S]?)/);
  if (written.some((part) => /^\\\d$/.test(part) && Number(part[1]) > groups)) return undefined;
  const parts: (string | number)[] = [];
  for (const part of written) {
    if (part[0] !== "\\") parts.push(part);
    else if (part[1] === "\\") parts.push("\\");
    else if (/^\d$/.test(part[1] ?? "")) parts.push(Number(part[1]));
    else return isAll ? parts : undefined;
  }
  return parts;
}

/** What a replacement puts in, for a pattern that it was read for. */
interface Filling {
  readonly replacement: string;
  readonly pattern: Pattern;
  readonly isAll: boolean;
  readonly parts: Template;
  /** The parts as the host writes them, where it can. */
  readonly host: string | undefined;
}

/** A replacement text that names groups, read; undefined where it names one that is not there. */
function readTemplate(
  replacement: string,
  naming: Exclude<AnswerOf<"replacement">, "literal">,
  groups: number,
  isAll: boolean,
): Template | Failure | undefined {
  if (naming === "backslash" || naming === "backslash digits") return readBackslash(replacement, naming === "backslash digits");
  return naming === "backslash numbers" ? readNumbers(replacement, groups, isAll) : readDollar(replacement, groups);
}

/** Replaces occurrences of a text or of what a pattern matches. */
export const substitute = operation({
  id: "substitute",
  family: "substitute",
  summary: "replaces occurrences of a text, or of what a pattern matches, by another",
  slots: [
    text("text"),
    written(text("old"), "pattern"),
    keptBy(written(text("new"), "replacement"), "emptyOld"),
    optional(number("which")),
    optional(text("flags")),
    optional(number("start")),
  ],
  traits: ["missing", "pattern", "case", "occurrences", "replacement", "emptyMatch", "emptyOld"],
  prepare({ missing, pattern: language, case: letterCase, occurrences, replacement: naming, emptyMatch, emptyOld }) {
    const read = patternReader(language, letterCase, emptyMatch);
    const plain = language === "literal" && letterCase === "minded";

    /** Cuts and joins; much faster than a host replacement where nothing is found. */
    function plainly(value: string, old: string, replacement: string, which: number): string | Failure {
      let at = old === "" ? -1 : value.indexOf(old);
      if (at < 0) return taken(0, value);
      const isShort = value.length * (replacement.length + 1) <= shortText;
      if (which === 1 && !isWatched()) return spliced(value, at, at + old.length, replacement);
      if (which === 0 && isShort && !isWatched()) return everywhere(value, old, replacement, at);
      const result = new GrowingText();
      let kept = 0;
      for (let seen = 1; at >= 0 && !result.isTooLong; seen++) {
        if (which === 0 || seen === which) {
          result.add(taken(kept, value.slice(kept, at)) + taken(0, replacement, 2));
          kept = at + old.length;
          if (seen === which) break;
        }
        at = value.indexOf(old, at + old.length);
      }
      result.add(taken(kept, value.slice(kept)));
      return result.finish();
    }

    /** A replacement that can be put in is kept: a column's rows mostly share it. */
    let last: Filling | undefined;
    function filling(replacement: string, pattern: Pattern, isAll: boolean, isLiteral: boolean): Filling | Failure | undefined {
      if (last?.replacement === replacement && last.pattern === pattern && last.isAll === isAll) return last;
      const parts = isLiteral || naming === "literal" ? [replacement] : readTemplate(replacement, naming, pattern.groups, isAll);
      if (parts === undefined || isFailure(parts)) return parts;
      return (last = { replacement, pattern, isAll, parts, host: hostTemplate(parts, pattern.groups) });
    }

    function fill(parts: Template, match: Match): string {
      if (parts.length === 1 && typeof parts[0] === "string") return parts[0];
      let result = "";
      for (const part of parts) result += typeof part === "string" ? part : (match[part] ?? "");
      return result;
    }

    /** The same, telling where each part of it stands, in the text or in the replacement. */
    function fillTold(parts: Template, replacement: string, value: string, offsets: readonly number[]): string {
      const put = (part: string) => (part === replacement ? taken(0, part, 2) : turned(0, replacement.length, part, 2));
      const group = (from: number | undefined, to: number) =>
        from === undefined || from < 0 ? "" : taken(from, value.slice(from, to));
      return parts
        .map((part) => (typeof part === "string" ? put(part) : group(offsets[2 * part], offsets[2 * part + 1])))
        .join("");
    }

    /** Whether there is a match, and one that does not end it all. */
    const counts = (match: Match | undefined): match is Match =>
      match !== undefined && !(emptyMatch === "ends" && match[0] === "");

    /** What needs no match after the first, or what the host does at once; undefined for anything else. */
    function atOnce(value: string, { pattern, parts, host }: Filling, which: number, from: number, budget: Budget) {
      if (which === 1) {
        const match = pattern.find(value, from, budget);
        return counts(match) ? spliced(value, match.index, match.index + match[0].length, fill(parts, match)) : value;
      }
      // A match is never empty here, and a group no longer than its match.
      const isShort = host !== undefined && value.length * (host.length + parts.length + 1) <= textLimit;
      return which === 0 && from === 0 && isShort ? pattern.replaceAll?.(value, host) : undefined;
    }

    function byPattern(value: string, put: Filling, which: number, from: number, budget: Budget): string | Failure {
      const { pattern, parts, replacement } = put;
      const watched = isWatched();
      const early = watched ? undefined : atOnce(value, put, which, from, budget);
      if (early !== undefined) return early;
      const result = new GrowingText();
      let kept = 0;
      let lastEnd = -1;
      let match = pattern.find(value, from, budget);
      for (let seen = 1; counts(match) && !result.isTooLong; seen++) {
        const end = match.index + match[0].length;
        const isRepeated = emptyMatch === "not after a match" && match[0] === "" && match.index === lastEnd;
        lastEnd = end;
        if (!isRepeated && (which === 0 || seen === which)) {
          const before = taken(kept, value.slice(kept, match.index));
          result.add(
            before +
              (watched ? fillTold(parts, replacement, value, pattern.offsets(value, match.index, budget)!) : fill(parts, match)),
          );
          kept = end;
          if (seen === which) break;
        }
        const next: number = match[0] === "" ? stepOver(value, end) : end;
        match = next <= value.length ? pattern.find(value, next, budget) : undefined;
      }
      result.add(taken(kept, value.slice(kept)));
      return result.finish();
    }

    /** What a missing replacement counts as. */
    const whenMissing = missing === "blank" ? "" : null;
    const withoutNew = (value: string, old: string): Value => {
      const isKept = old === "" ? emptyOld !== "null" : emptyOld === "whole if not found" && !value.includes(old);
      return isKept ? taken(0, value) : null;
    };

    const usual = occurrences === "all" ? 0 : 1;
    /** Which occurrence is replaced; 0 for every one. */
    const ordinal = (which: SlotNumber): number | Failure =>
      which >= 1 - usual ? Math.trunc(Number(which)) : new Failure("ordinal-below-one", { n: which });

    if (plain && naming === "literal") {
      return (value: string, old: string, given: string | null, which?: SlotNumber): Value => {
        const replacement = given ?? whenMissing;
        if (replacement === null) return withoutNew(value, old);
        if (which === undefined) return plainly(value, old, replacement, usual);
        const nth = ordinal(which);
        return isFailure(nth) ? nth : plainly(value, old, replacement, nth);
      };
    }

    return (
      value: string,
      old: string,
      given: string | null,
      which?: SlotNumber,
      flags?: string,
      first: SlotNumber = 1,
    ): Value => {
      const replacement = given ?? whenMissing;
      if (replacement === null) return withoutNew(value, old);
      const start = Number(first);
      const nth = which === undefined ? (flags?.includes("g") ? 0 : usual) : ordinal(which);
      if (isFailure(nth)) return nth;
      const pattern = read(old, occurrences === "first" ? flags?.replaceAll("g", "") : flags);
      if (isFailure(pattern)) return pattern;
      const put = filling(replacement, pattern, nth === 0, flags?.includes("q") === true);
      if (put instanceof Failure) return put;
      if (put === undefined) return taken(0, value);
      if (!(start >= 1)) return new Failure("start-below-first", { start, first: 1 });
      if (start > 1 && start - 1 > rulers["code point"].count(value)) return taken(0, value);
      return withinBudget(old, (budget) => {
        const from = start > 1 ? rulers["code point"].forward(value, start - 1) : 0;
        return byPattern(value, put, nth, from, budget);
      });
    };
  },
});

/** Maps single characters to others. */
export const translate = operation({
  id: "translate",
  family: "substitute",
  summary: "maps each character of one list to the one at the same place of another, or drops it",
  slots: [text("text"), text("from"), text("to")],
  traits: ["missing", "unit"],
  prepare({ unit }) {
    const split = unit === "utf-16 unit" ? (value: string) => value.split("") : (value: string) => [...value];
    let last: { from: string; to: string; map: Map<string, string> } | undefined;
    function mapping(from: string, to: string): Map<string, string> {
      if (last?.from !== from || last.to !== to) {
        const map = new Map<string, string>();
        const targets = split(to);
        split(from).forEach((char, i) => map.has(char) || map.set(char, targets[i] ?? ""));
        last = { from, to, map };
      }
      return last.map;
    }
    return (value: string, from: string, to: string): Value => {
      const map = mapping(from, to);
      const watched = isWatched();
      const result = new GrowingText();
      let kept = 0;
      for (let at = 0; at < value.length;) {
        const char = unit === "utf-16 unit" ? value[at] : String.fromCodePoint(value.codePointAt(at)!);
        const target = map.get(char);
        if (target !== undefined) {
          result.add(value.slice(kept, at) + target);
          if (watched) {
            taken(kept, value.slice(kept, at));
            turned(at, at + char.length, target);
          }
          kept = at + char.length;
        }
        at += char.length;
      }
      if (kept === 0) return taken(0, value);
      result.add(taken(kept, value.slice(kept)));
      return result.finish();
    };
  },
});
