import type { Dialect } from "../dialects/dialect.ts";
import { isPure } from "../dialects/row.ts";
import { type Program, type TraceStep, type WrittenPattern, allPartsOf, writtenPattern } from "../evaluate/index.ts";
import { type ExplainedPattern, type Flavour, PatternError, explainPattern } from "../patterns/index.ts";
import type { Answers } from "../traits/index.ts";
import { type TextRange, sameRange } from "../values/index.ts";

/** What is shown first of several pattern languages that a dialect has. */
const order: readonly string[] = ["posix", "pcre", "re2", "xpath", "open", "similar", "like", "glob"];

const rankOf = (flavour: string): number => {
  const rank = order.findIndex((each) => flavour.startsWith(each));
  return rank < 0 ? order.length : rank;
};

/** A pattern language of a dialect. */
export interface DialectFlavour {
  readonly flavour: Flavour;
  /** Whether upper and lower case letters are told apart without being asked. */
  readonly letters: "apart" | "the same" | "by collation";
}

/**
 * The pattern languages of a dialect, regular expressions first.
 *
 * @returns none where it has no patterns
 */
export function flavoursOf({ rows }: Dialect): DialectFlavour[] {
  const found = new Map<Flavour, DialectFlavour["letters"]>();
  for (const row of rows) {
    const { pattern, case: letterCase } = isPure(row) ? (row.answers as Partial<Answers>) : {};
    if (pattern === undefined || pattern === "literal") continue;
    const letters = letterCase !== "minded" ? "the same" : isPure(row) && row.collations ? "by collation" : "apart";
    const known = found.get(pattern);
    if (known === undefined || letters === "apart" || (letters === "by collation" && known !== "apart"))
      found.set(pattern, letters);
  }
  return [...found].map(([flavour, letters]) => ({ flavour, letters })).sort((a, b) => rankOf(a.flavour) - rankOf(b.flavour));
}

/** The patterns that an expression writes as literals. */
export const patternsIn = (program: Program): WrittenPattern[] =>
  program.ok ? allPartsOf(program.bound).flatMap((part) => writtenPattern(part) ?? []) : [];

/** UTF-16 units beyond which a pattern is not told beside a trace. */
const longest = 2000;

/**
 * The patterns of a trace, each by the step that is its literal, with what its parts fit in the text that it was tried on.
 *
 * @param steps what `program.trace` gives for a row
 */
export function patternsOn(program: Program, steps: readonly TraceStep[]): ReadonlyMap<TraceStep, ExplainedPattern> {
  const stepAt = (range: TextRange | undefined) => range && steps.find((step) => sameRange(step.range, range));
  const found = new Map<TraceStep, ExplainedPattern>();
  for (const { range, flavour, source, flags, subject } of patternsIn(program)) {
    const step = stepAt(range);
    const text = stepAt(subject)?.values.at(-1);
    if (!step || found.has(step) || source.length > longest) continue;
    try {
      found.set(step, explainPattern(flavour, source, flags, typeof text === "string" ? text : undefined));
    } catch (error) {
      // What is wrong with it is told as the failure that it is.
      if (!(error instanceof PatternError)) throw error;
    }
  }
  return found;
}
