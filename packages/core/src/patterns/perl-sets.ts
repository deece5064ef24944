import { lookup } from "../values/index.ts";
import { type CharSet, type PatternNode, anyChar, caseForms } from "./ast.ts";
import type { PerlRules } from "./perl-rules.ts";
import type { Reader } from "./reader.ts";

const posixClasses: Readonly<Record<string, readonly [ascii: string, unicode: string]>> = lookup({
  alpha: ["A-Za-z", "\\p{L}"],
  digit: ["0-9", "\\p{Nd}"],
  alnum: ["0-9A-Za-z", "\\p{L}\\p{N}"],
  upper: ["A-Z", "\\p{Lu}"],
  lower: ["a-z", "\\p{Ll}"],
  space: ["\\t-\\r ", "\\t-\\r \\x85\\p{Z}"],
  blank: ["\\t ", "\\t\\p{Zs}"],
  punct: ["!-\\/\\:-@\\[-`\\{-~", "\\p{P}$+<=>\\^`\\|~"],
  print: [" -~", "\\P{C}"],
  graph: ["!-~", "\\p{L}\\p{M}\\p{N}\\p{P}\\p{S}\\p{Cf}"],
  cntrl: ["\\0-\\x1f\\x7f", "\\p{Cc}"],
  xdigit: ["0-9A-Fa-f", "0-9A-Fa-f"],
  word: ["0-9A-Za-z_", "\\p{L}\\p{N}_"],
  ascii: ["\\0-\\x7f", "\\0-\\x7f"],
});

const dotless = 0x131;

/** A letter as it is where case is ignored (Unicode, CaseFolding.txt, status C and S, but for a few that have no case). */
function folded(code: number): number {
  // A dotless i is like no other letter but in Turkish.
  if (code === dotless) return code;
  const char = String.fromCodePoint(code);
  const upper = char.toUpperCase();
  const lower = (upper.length === char.length ? upper : char).toLowerCase();
  return lower.length === char.length ? lower.codePointAt(0)! : code;
}

/** Letters beyond ASCII that are like another one, by the letter that they fold to. */
let others: Map<number, number[]> | undefined;

/** Every letter that is like one where case is ignored; the Kelvin sign is like k, ẞ like ß. */
export function likeLetters(code: number): number[] {
  if (!others) {
    others = new Map();
    for (let each = 0x80; each < 0xffff; each++) {
      const fold = folded(each);
      if (fold !== each) others.set(fold, [...(others.get(fold) ?? []), each]);
    }
  }
  const fold = folded(code);
  if (code === dotless) return [code];
  return [...new Set([code, ...caseForms(code), fold, ...caseForms(fold), ...(others.get(fold) ?? [])])];
}

/** What the classes of cases are where case is ignored, in the flavour that minds it. */
const inAnyCase: Readonly<Record<string, string>> = lookup({
  "A-Z": "A-Za-z\\u017f\\u212a",
  "a-z": "A-Za-z\\u017f\\u212a",
  "\\p{Lu}": "\\p{Lu}\\p{Lt}[\\p{Ll}&&\\p{Changes_When_Uppercased}]",
  "\\p{Ll}": "\\p{Ll}\\p{Lu}\\p{Lt}",
});

const controls: Readonly<Record<string, number>> = lookup({ a: 7, f: 12, n: 10, r: 13, t: 9, v: 11, e: 27 });

/** Properties of PCRE2's own. */
const ownProperties: Readonly<Record<string, string>> = lookup({
  Lc: "\\p{Lu}\\p{Ll}\\p{Lt}",
  Xan: "\\p{L}\\p{N}",
  Xwd: "\\p{L}\\p{N}_",
  Xsp: "\\t-\\r \\x85\\p{Z}",
  Xps: "\\t-\\r \\x85\\p{Z}",
});

/** Whether case is ignored. */
interface Case {
  readonly i: boolean;
}

/** Reads the sets of PCRE2 and RE2: classes, properties, brackets, and single characters after a backslash. */
export class SetReader {
  readonly #place: 0 | 1;

  constructor(
    readonly reader: Reader,
    readonly rules: PerlRules,
  ) {
    this.#place = rules.unicode ? 1 : 0;
  }

  /** The set of a letter after a backslash that stands for one. */
  shorthand(letter: string): CharSet | undefined {
    const name = ({ d: "digit", s: "space", w: "word", h: "blank" } as Record<string, string>)[letter.toLowerCase()];
    if (!name || (name === "blank" && !this.rules.backtracks)) return undefined;
    // \s in RE2 has no vertical tab.
    const set = name === "space" && !this.rules.unicode ? "\\t\\n\\f\\r " : posixClasses[name][this.#place];
    return { ranges: [], classes: [set], negated: letter < "a" };
  }

  /** A class in any case, where `flags` ignore it. */
  #cased(source: string, { i }: Case): string {
    return i && !this.rules.backtracks ? (inAnyCase[source] ?? source) : source;
  }

  /** A property of Unicode, after `\p` or `\P`. */
  property(letter: string, at: number, flags: Case): CharSet {
    const found = this.reader.match(/\{(\^?)([A-Za-z_&]+)\}|([A-Z])/y) ?? this.reader.fail("a property is not complete", at);
    const name = found[2] ?? found[3];
    const negated = (letter === "P") !== (found[1] === "^");
    if (name === "Any") return { ...anyChar, negated };
    const own = this.rules.backtracks ? ownProperties[name] : undefined;
    if (own) return { ranges: [], classes: [own], negated };
    const source = name === "L&" ? "\\p{Lu}\\p{Ll}\\p{Lt}" : name.length <= 2 ? `\\p{${name}}` : `\\p{Script=${name}}`;
    try {
      new RegExp(`[${source}]`, "v");
    } catch {
      this.reader.fail(`there is no property "${name}"`, at);
    }
    return { ranges: [], classes: [this.#cased(source, flags)], negated };
  }

  /** The character that a letter after a backslash stands for. */
  escapedChar(letter: string, at: number): number {
    if (Object.hasOwn(controls, letter) || letter in controls) {
      if (letter !== "e" || this.rules.backtracks) return controls[letter];
    }
    if (this.rules.backtracks && (letter === "o" || letter === "N")) {
      const found = this.reader.match(/\{(?:U\+)?([0-9a-fA-F]+)\}/y) ?? this.reader.fail("an escape is not complete", at);
      const code = parseInt(found[1], letter === "o" ? 8 : 16);
      return code <= 0x10ffff ? code : this.reader.fail("an escape names no character", at);
    }
    if (letter === "x") {
      const found = this.reader.match(/\{([0-9a-fA-F]+)\}|([0-9a-fA-F]{1,2})/y);
      if (!found || (!this.rules.backtracks && found[2]?.length === 1))
        return this.rules.backtracks && !found ? 0 : this.reader.fail("an escape is not complete", at);
      const code = parseInt(found[1] ?? found[2], 16);
      return code <= 0x10ffff ? code : this.reader.fail("an escape names no character", at);
    }
    if (/[0-7]/.test(letter) && (letter === "0" || this.rules.backtracks))
      return parseInt(letter + (this.reader.match(/[0-7]{0,2}/y)?.[0] ?? ""), 8);
    if (letter === "c" && this.rules.backtracks) return this.reader.next().toUpperCase().codePointAt(0)! ^ 64;
    if (/[A-Za-z0-9]/.test(letter)) this.reader.fail(`\\${letter} means nothing here`, at);
    return letter.codePointAt(0)!;
  }

  /** A set in brackets, of which the first has been read, or what such a bracket stands for. */
  bracket(given: Case, at: number): PatternNode {
    if (this.rules.backtracks && this.reader.take("[:<:]]")) return { kind: "assertion", at: "word start" };
    if (this.rules.backtracks && this.reader.take("[:>:]]")) return { kind: "assertion", at: "word end" };
    const negated = this.reader.take("^");
    const ranges: (readonly [number, number])[] = [];
    const classes: string[] = [];
    for (let first = true; first || this.reader.peek() !== "]"; first = false) {
      if (this.reader.done) this.reader.fail("a bracket is not closed", at);
      const low = this.#item(at, given);
      if (typeof low === "string") {
        classes.push(low);
        continue;
      }
      const next = this.reader.source[this.reader.offset + 1];
      if (this.reader.peek() === "-" && next !== undefined && next !== "]") {
        this.reader.next();
        const high = this.#item(at, given);
        if (typeof high === "string") {
          if (!this.rules.backtracks) this.reader.fail("a range in a bracket is not in order", at);
          ranges.push([low, low], [45, 45]);
          classes.push(high);
        } else if (high < low) this.reader.fail("a range in a bracket is not in order", at);
        else ranges.push([low, high]);
      } else ranges.push([low, low]);
    }
    this.reader.next();
    const forms = given.i
      ? ranges.flatMap(([low, high]) => {
          const size = Math.min(high - low, 2048);
          return Array.from({ length: size + 1 }, (_, k) => likeLetters(low + k)).flatMap((each) =>
            each.map((code) => [code, code] as const),
          );
        })
      : [];
    return { kind: "set", set: { ranges: [...ranges, ...forms], classes, negated } };
  }

  /** A class source, or one code point. */
  #item(at: number, flags: Case): string | number {
    const posix = this.reader.match(/\[:(\^?)(\w+):\]/y);
    if (posix) {
      const source = posixClasses[posix[2]]?.[this.#place] ?? this.reader.fail(`there is no character class "${posix[2]}"`, at);
      return posix[1] ? `[^${this.#cased(source, flags)}]` : this.#cased(source, flags);
    }
    const char = this.reader.next();
    if (char !== "\\") return char.codePointAt(0)!;
    const letter = this.reader.next();
    const set = this.shorthand(letter) ?? (letter === "p" || letter === "P" ? this.property(letter, at, flags) : undefined);
    if (set) return set.negated ? `[^${set.classes.join("")}]` : set.classes.join("");
    if (letter === "b") return this.rules.backtracks ? 8 : this.reader.fail("\\b means nothing in brackets", at);
    return this.escapedChar(letter, at);
  }
}
