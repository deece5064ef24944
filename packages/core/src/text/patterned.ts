import {
  type Budget,
  type Flavour,
  type Pattern,
  OverBudget,
  PatternError,
  asMatch,
  cachedPattern,
  hasEscape,
  newBudget,
  usualEscape,
} from "../patterns/index.ts";
import type { AnswerOf } from "../traits/index.ts";
import { Failure, type Value, isFailure } from "../values/index.ts";
import { foldingOf } from "./folding.ts";

/** The pattern languages that are not `literal`. */
export type { Flavour };

const flagLetters: Readonly<Record<Flavour, RegExp>> = {
  posix: /^[icnpwsmxqteb]*$/,
  open: /^i?$/,
  xpath: /^[smixq]*$/,
  like: /^/,
  "like, escape strict": /^/,
  "like, escape open": /^/,
  "like, escape literal": /^/,
  glob: /^/,
  "glob with escapes": /^/,
  pcre: /^[imsx]*$/,
  re2: /^[cimnpsl\s]*$/,
  similar: /^/,
  wildcards: /^/,
};

/**
 * Gives the compiled pattern for a source text, or the failure that it is. The last one is kept
 * at hand, since a column's rows mostly share it. A literal is a POSIX pattern with option `q`.
 *
 * @param emptyMatch `error` refuses a pattern that fits empty text
 */
export function patternReader(
  language: AnswerOf<"pattern">,
  letterCase: AnswerOf<"case">,
  emptyMatch?: AnswerOf<"emptyMatch">,
): (source: string, flags?: string, whole?: boolean) => Pattern | Failure {
  const flavour: Flavour = language === "literal" ? "posix" : language;
  let lastSource: string | undefined;
  let lastFlags: string | undefined;
  let last: Pattern | Failure;
  const isEscape = hasEscape(flavour);
  const usual = usualEscape(flavour);
  return (source, given, whole = false) => {
    const flags = given ?? usual;
    if (source === lastSource && flags === lastFlags) return last;
    [lastSource, lastFlags] = [source, flags];
    const found = read(source, flags, whole);
    const fitsEmpty =
      emptyMatch === "error" && !isFailure(found) ? withinBudget(source, (budget) => found.test("", budget)) : false;
    if (isFailure(fitsEmpty)) return (last = fitsEmpty);
    return (last = fitsEmpty ? new Failure("pattern-matches-empty", { pattern: source }) : found);
  };

  function read(source: string, flags: string, whole: boolean): Pattern | Failure {
    if (!flagLetters[flavour].test(flags)) return new Failure("pattern-flags", { flags });
    if (isEscape && [...flags].length > 1) return new Failure("escape-length", { escape: flags });
    let letters = flags;
    if (letterCase === "ignored")
      letters = flavour.startsWith("like")
        ? `${letters}~i`
        : ["posix", "open", "pcre", "re2"].includes(flavour)
          ? `i${letters}`
          : letters;
    if (language === "literal") letters += "q";
    if (whole && (flavour === "re2" || flavour === "pcre")) letters += "W";
    const fold = foldingOf(letterCase);
    const isFolded = letterCase !== "minded" && letterCase !== "ignored";
    const [written, options] = !isFolded
      ? [source, letters]
      : isEscape
        ? foldedBetween(source, letters, fold, flavour === "like, escape literal")
        : [fold(source), letters];
    const found = cachedPattern(flavour, written, options);
    if (found instanceof PatternError && found.isUncovered)
      return new Failure("not-covered", { what: `${found.problem} in the pattern "${source}"` });
    return found instanceof PatternError ? refused(source, found) : isFolded ? folded(found, fold) : found;
  }
}

/** A pattern that is folded but for its escape character, and a character that no text has as its escape. */
function foldedBetween(source: string, escape: string, fold: (text: string) => string, endsLiteral: boolean): [string, string] {
  const chars = [...source];
  let result = "";
  for (let i = 0; i < chars.length; i++) {
    const isLast = i + 1 === chars.length;
    if (chars[i] !== escape || (isLast && endsLiteral)) result += fold(chars[i]);
    else result += isLast ? "\uffff" : `\uffff${fold(chars[++i])}`;
  }
  return [result, "\uffff"];
}

export const refused = (pattern: string, { problem, offset, isOfEscape }: PatternError): Failure =>
  new Failure(isOfEscape ? "escape-sequence" : "pattern-syntax", { pattern, problem, offset });

/** A pattern that was folded, on texts that are folded when they are matched; folding keeps every place. */
function folded(pattern: Pattern, fold: (text: string) => string): Pattern {
  const offsets: Pattern["offsets"] = (text, from, budget) => pattern.offsets(fold(text), from, budget);
  return {
    groups: pattern.groups,
    isWhole: pattern.isWhole,
    ...(pattern.refusal && { refusal: pattern.refusal }),
    offsets,
    test: (text, budget) => pattern.test(fold(text), budget),
    find: (text, from, budget) => {
      const found = offsets(text, from, budget);
      return found && asMatch(text, found);
    },
  };
}

/** Runs the matches on one text, which may use up their budget; then it gives the failure that says so. */
export function withinBudget<T extends Value>(source: string, run: (budget: Budget) => T): T | Failure {
  try {
    return run(newBudget());
  } catch (error) {
    if (!(error instanceof OverBudget)) throw error;
    return new Failure("pattern-budget", { pattern: source });
  }
}
