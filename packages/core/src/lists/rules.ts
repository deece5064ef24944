import { OverBudget, type Pattern, PatternError, compilePattern, newBudget } from "../patterns/index.ts";
import { Failure, isFailure } from "../values/index.ts";
import { Finder, foldSimple, isWordAt } from "./finder.ts";

/** One line of a replacement list. Of a text that holds it, each place is replaced unless `which` says otherwise. */
export interface Rule {
  /** What is looked for: a text, never empty, or with `as` a pattern of RE2's syntax, which is matched in linear time. */
  readonly old: string;
  /** What stands there afterwards; with a pattern `$1` to `$9` are its groups, `$0` the whole match, `$$` a dollar. */
  readonly new: string;
  readonly as?: "pattern" | undefined;
  /** Only where it is the whole value, or stands between word edges: beside no letter, digit, mark or `_`. */
  readonly where?: "whole" | "word" | undefined;
  /** Whether upper and lower case are the same; they are not when left out. */
  readonly case?: "ignored" | undefined;
  /** Which of the places, from 1; all when left out. */
  readonly which?: number | undefined;
}

/** Why a rule cannot run: what it looks for is empty, or its pattern cannot be read; `rule` is its 0-based place in the list. */
export type Problem = { readonly rule: number } & (
  { readonly kind: "empty" } | { readonly kind: "unreadable"; readonly problem: string; readonly at: number }
);

/** Something about a rule that its author should know before it runs; `rule` and `by` are 0-based places in the list. */
export type Conflict = { readonly rule: number } &
  /** An earlier rule looks for the same. */
  (
    | { readonly kind: "duplicate"; readonly by: number }
    /** An earlier rule has replaced a part of it everywhere, so that it is never found. */
    | { readonly kind: "unreachable"; readonly by: number }
    /** What the rule writes is replaced again by a later one. */
    | { readonly kind: "feeding"; readonly by: number }
  );

/** What a rule makes of a text, and how many places it replaced. */
interface Outcome {
  readonly text: string;
  readonly count: number;
}

/** The places of a rule in a text, from left to right, those that count replaced. */
class Places {
  #made = "";
  #kept = 0;
  #seen = 0;
  #count = 0;

  constructor(
    readonly text: string,
    readonly rule: Rule,
  ) {}

  /** Takes a stretch for a place of the rule; false where it is none. */
  take(start: number, end: number, written: string): boolean {
    const { where, which } = this.rule;
    if (where === "word" && !isWordAt(this.text, start, end)) return false;
    this.#seen++;
    if (which !== undefined && which !== this.#seen) return true;
    this.#made += this.text.slice(this.#kept, start) + written;
    this.#kept = end;
    this.#count++;
    return true;
  }

  outcome(): Outcome {
    return { text: this.#made + this.text.slice(this.#kept), count: this.#count };
  }
}

/** Rules made ready to run, one after another, each on what the ones before have made of the text. */
export class Replacer {
  /** Rules that cannot run. */
  readonly problems: readonly Problem[];
  readonly #rules: readonly Rule[];
  readonly #literal: { readonly minded: Finder; readonly ignored: Finder };
  readonly #whole: { readonly minded: Map<string, number[]>; readonly ignored: Map<string, number[]> };
  /** The pattern rules by their places, in order. */
  readonly #patterns: readonly { readonly place: number; readonly pattern: Pattern }[];

  constructor(rules: readonly Rule[]) {
    this.#rules = rules;
    this.#literal = { minded: new Finder(), ignored: new Finder() };
    this.#whole = { minded: new Map(), ignored: new Map() };
    const patterns: { place: number; pattern: Pattern }[] = [];
    const problems: Problem[] = [];
    rules.forEach((rule, place) => {
      const side = rule.case ?? "minded";
      if (rule.old === "") problems.push({ kind: "empty", rule: place });
      else if (rule.as === "pattern") {
        try {
          const flags = `${rule.case ? "i" : ""}${rule.where === "whole" ? "W" : ""}`;
          patterns.push({ place, pattern: compilePattern("re2", rule.old, flags) });
        } catch (error) {
          if (!(error instanceof PatternError)) throw error;
          problems.push({ kind: "unreadable", rule: place, problem: error.problem, at: error.offset });
        }
      } else if (rule.where === "whole") {
        const key = rule.case ? foldSimple(rule.old) : rule.old;
        const there = this.#whole[side].get(key);
        if (there) there.push(place);
        else this.#whole[side].set(key, [place]);
      } else this.#literal[side].add(rule.case ? foldSimple(rule.old) : rule.old, place);
    });
    this.#patterns = patterns;
    this.problems = problems;
  }

  /** The text with all rules carried out; `hits` counts for each rule the places that it replaced. */
  run(text: string, hits?: Uint32Array): string | Failure {
    let now = text;
    for (let from = 0; ;) {
      const next = this.#next(now, from);
      if (next === undefined) return now;
      if (isFailure(next)) return next;
      if (hits) hits[next.place] += next.count;
      now = next.text;
      from = next.place + 1;
    }
  }

  /** What the next rule makes of the text, at or behind a place in the list, that finds something in it. */
  #next(text: string, from: number): ({ readonly place: number } & Outcome) | Failure | undefined {
    const literal = this.#nextLiteral(text, from);
    for (const { place, pattern } of this.#patterns) {
      if (place >= literal) break;
      if (place < from) continue;
      const made = this.#byPattern(text, this.#rules[place], pattern);
      if (isFailure(made)) return made;
      if (made.count > 0) return { place, ...made };
    }
    return literal === Infinity ? undefined : { place: literal, ...this.#byText(text, this.#rules[literal]) };
  }

  /** The first rule for a text that finds it, at or behind a place in the list; Infinity where there is none. */
  #nextLiteral(text: string, from: number): number {
    let least = Infinity;
    for (const side of ["minded", "ignored"] as const) {
      const [whole, finder] = [this.#whole[side], this.#literal[side]];
      if (whole.size + finder.size === 0) continue;
      const seen = side === "ignored" ? foldSimple(text) : text;
      least = Math.min(least, whole.get(seen)?.find((place) => place >= from) ?? Infinity);
      for (const { id, at, length } of finder.all(seen))
        if (id >= from && id < least && (this.#rules[id].where !== "word" || isWordAt(text, at, at + length))) least = id;
    }
    return least;
  }

  #byPattern(text: string, rule: Rule, pattern: Pattern): Outcome | Failure {
    const places = new Places(text, rule);
    const budget = newBudget();
    try {
      for (let from = 0; from <= text.length;) {
        const found = pattern.find(text, from, budget);
        if (!found) break;
        const end = found.index + found[0].length;
        places.take(found.index, end, withGroups(rule.new, found));
        from = end > found.index ? end : end + (text.codePointAt(end)! > 0xffff ? 2 : 1);
      }
    } catch (error) {
      if (error instanceof OverBudget) return new Failure("pattern-budget", { pattern: rule.old });
      throw error;
    }
    return places.outcome();
  }

  #byText(text: string, rule: Rule): Outcome {
    if (rule.where === "whole") return { text: rule.new, count: 1 };
    const places = new Places(text, rule);
    const [where, old] = rule.case ? [foldSimple(text), foldSimple(rule.old)] : [text, rule.old];
    for (let at = where.indexOf(old); at >= 0;)
      at = where.indexOf(old, at + (places.take(at, at + old.length, rule.new) ? old.length : 1));
    return places.outcome();
  }

  /** Rules that are in each other's way, in their order. */
  conflicts(): Conflict[] {
    const conflicts: Conflict[] = [];
    const first = new Map<string, number>();
    for (const [place, rule] of this.#rules.entries()) {
      if (rule.old === "") continue;
      const key = JSON.stringify([rule.case ? foldSimple(rule.old) : rule.old, rule.as, rule.where, rule.case]);
      const before = first.get(key);
      if (before !== undefined && this.#rules[before].which === undefined) {
        conflicts.push({ kind: "duplicate", rule: place, by: before });
        continue;
      }
      first.set(key, place);
      const taker = rule.as ? undefined : this.#within(rule.old, (id) => id < place && this.#takes(id, rule));
      if (taker !== undefined) conflicts.push({ kind: "unreachable", rule: place, by: taker });
      const eater = this.#within(rule.new, (id) => id > place) ?? this.#eaten(rule, place);
      if (eater !== undefined) conflicts.push({ kind: "feeding", rule: place, by: eater });
    }
    return conflicts;
  }

  /** A rule for a part of a text, of those that are meant. */
  #within(text: string, meant: (id: number) => boolean): number | undefined {
    for (const side of ["minded", "ignored"] as const)
      for (const { id, at, length } of this.#literal[side].all(side === "ignored" ? foldSimple(text) : text))
        if (meant(id) && (this.#rules[id].where !== "word" || isWordAt(text, at, at + length))) return id;
    return undefined;
  }

  /** Whether an earlier rule leaves nothing that a rule, in whose text it finds itself, could find. */
  #takes(id: number, rule: Rule): boolean {
    const earlier = this.#rules[id];
    const isEverywhere = earlier.which === undefined && earlier.where === undefined && (earlier.case !== undefined || !rule.case);
    const folded = (text: string) => (earlier.case ? foldSimple(text) : text);
    return isEverywhere && !folded(earlier.new).includes(folded(earlier.old));
  }

  /** A later rule for whole values or a pattern that finds what a rule writes. */
  #eaten(rule: Rule, place: number): number | undefined {
    if (rule.where === "whole")
      for (const side of ["minded", "ignored"] as const) {
        const found = this.#whole[side].get(side === "ignored" ? foldSimple(rule.new) : rule.new)?.find((id) => id > place);
        if (found !== undefined) return found;
      }
    if (rule.as === "pattern" || rule.new === "") return undefined;
    return this.#patterns.find((each) => each.place > place && finds(each.pattern, rule.new))?.place;
  }
}

function finds(pattern: Pattern, text: string): boolean {
  try {
    return pattern.test(text, newBudget());
  } catch (error) {
    if (error instanceof OverBudget) return false;
    throw error;
  }
}

const withGroups = (text: string, match: readonly (string | undefined)[]): string =>
  text.replace(/\$(\d|\$)/g, (_, name: string) => (name === "$" ? "$" : (match[Number(name)] ?? "")));
