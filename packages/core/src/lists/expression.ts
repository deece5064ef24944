import type { Dialect } from "../dialects/dialect.ts";
import { foldSimple } from "./finder.ts";
import { type Job, jobName } from "./jobs.ts";
import { type Findable, escapePattern, plainLetters, thingPatterns } from "./kinds.ts";
import type { Rule } from "./rules.ts";
import type { NumberRange, Terms } from "./terms.ts";

/** Why jobs cannot be said in a dialect. */
export class Unsaid extends Error {}

const needed = <T>(phrase: T | undefined, what: string, { title }: Dialect): T => {
  if (phrase === undefined) throw new Unsaid(`${title} has no way to ${what} that is known here`);
  return phrase;
};

/** A replacement as texts and the numbers of groups. */
const partsOf = (put: string): (string | number)[] =>
  put
    .split(/(\$[\d$])/)
    .filter((part) => part !== "")
    .map((part) => (part === "$$" ? "$" : /^\$\d$/.test(part) ? Number(part[1]) : part));

function ruleApplied(dialect: Dialect, text: string, rule: Rule): string {
  const { phrases } = dialect;
  const literal = (given: string) => dialect.textLiteral(given);
  if (rule.where === "whole" && !rule.as && !rule.case)
    return phrases.choose([[phrases.same(text, literal(rule.old)), literal(rule.new)]], text);
  const isPlain = !rule.as && !rule.case && rule.where === undefined;
  if (rule.which !== undefined) {
    if (!isPlain) throw new Unsaid("one place of a pattern, of whole words or without case is not said as an expression here");
    return needed(phrases.replaceOne, "replace one place of several", dialect)(
      text,
      literal(rule.old),
      literal(rule.new),
      rule.which,
    );
  }
  if (isPlain && phrases.replace) return phrases.replace(text, literal(rule.old), literal(rule.new));
  const replace = needed(
    phrases.replacePattern,
    rule.as ? "replace by a pattern" : "replace whole words or without case",
    dialect,
  );
  const pattern = rule.as ? rule.old : escapePattern(rule.old);
  const put = rule.as ? partsOf(rule.new) : [rule.new];
  if (rule.where === "whole") return replace(text, `^(?:${pattern})$`, put, rule.case !== undefined);
  if (rule.where === undefined) return replace(text, pattern, put, rule.case !== undefined);
  const [before, after] = needed(phrases.wordEdges, "look for whole words in a pattern", dialect);
  return replace(text, `${before}${rule.as ? `(?:${pattern})` : pattern}${after}`, put, rule.case !== undefined);
}

/** Rules for whole values that follow one another, none of which meets what another writes, as one choice. */
function replaced(dialect: Dialect, text: string, rules: readonly Rule[]): string {
  const isWhole = (rule: Rule) => rule.where === "whole" && !rule.as && !rule.case;
  const olds = new Set(rules.map((rule) => rule.old));
  if (rules.length > 1 && rules.every((rule) => isWhole(rule) && !olds.has(rule.new)) && olds.size === rules.length)
    return dialect.phrases.choose(
      rules.map((rule) => [dialect.phrases.same(text, dialect.textLiteral(rule.old)), dialect.textLiteral(rule.new)]),
      text,
    );
  return rules.reduce((made, rule) => ruleApplied(dialect, made, rule), text);
}

function jobApplied(dialect: Dialect, text: string, job: Job): string {
  const { phrases } = dialect;
  const literal = (given: string) => dialect.textLiteral(given);
  const holds = (term: string, list: Terms) => {
    if (list.where) throw new Unsaid("values that are found as whole words are not said as an expression here");
    return list.case ? phrases.contains(phrases.lower(text), literal(foldSimple(term))) : phrases.contains(text, literal(term));
  };
  if ("replace" in job) return replaced(dialect, text, job.replace);
  if ("has" in job) return phrases.any(job.has.values.map((term) => holds(term, job.has)));
  if ("which" in job)
    return phrases.choose(
      job.which.values.map((term) => [holds(term, job.which), literal(term)]),
      phrases.nothing,
    );
  if ("split" in job) {
    const marks = [...job.split].sort((a, b) => b.length - a.length).map(escapePattern);
    return needed(phrases.split, "split by any of several marks", dialect)(text, marks.join("|"));
  }
  if ("drop" in job || "only" in job) {
    const kinds = "drop" in job ? job.drop : job.only;
    const known = needed(phrases.kinds, "tell kinds of characters", dialect);
    const replace = needed(phrases.replacePattern, "tell kinds of characters", dialect);
    const within = kinds.map((kind) => needed(known[kind], `tell ${kind}`, dialect)).join("");
    return replace(text, `[${"only" in job ? "^" : ""}${within}]+`, [""], false);
  }
  if ("tidy" in job) return needed(phrases.tidy, "tidy white space", dialect)(text);
  if ("keep" in job) return phrases.choose([[isIn(dialect, text, job.keep), text]], phrases.nothing);
  if ("plain" in job) {
    const bare = needed(phrases.withoutAccents, "take accents away", dialect)(text);
    const replace = needed(phrases.replace, "replace letters", dialect);
    return Object.entries(plainLetters)
      .filter(([letter]) => letter >= "¡" && letter <= "ſ")
      .reduce((made, [letter, plain]) => replace(made, literal(letter), literal(plain)), bare);
  }
  throw new Unsaid(`"${jobName(job)}" is not said as an expression here`);
}

/** Whether a text, white space at its ends aside, is one of the values. */
function isIn(dialect: Dialect, text: string, list: Terms | NumberRange): string {
  const { phrases } = dialect;
  if ("from" in list) throw new Unsaid("a range of numbers is not said as an expression here");
  if (list.case) throw new Unsaid("values found without case are not said as an expression here");
  const replace = needed(phrases.replacePattern, "leave out white space of every kind at the ends", dialect);
  const space = `[${needed(phrases.kinds, "tell white space", dialect).spaces}]+`;
  const trimmed = replace(text, `^${space}|${space}$`, [""], false);
  return needed(
    phrases.among,
    "find a text among others",
    dialect,
  )(
    trimmed,
    list.values.map((value) => dialect.textLiteral(value)),
  );
}

/** A job on a list. */
function jobOnList(dialect: Dialect, list: string, job: Job): string {
  const { phrases } = dialect;
  const ofLists = `do this with each piece of a list`;
  if ("keep" in job) return needed(phrases.only, ofLists, dialect)(list, (piece) => isIn(dialect, piece, job.keep));
  if ("item" in job) {
    const found = needed(phrases.item, "take one piece of a list", dialect)(list, job.item);
    return needed(found, "count pieces from the end", dialect);
  }
  if ("join" in job) return needed(phrases.join, "join the pieces of a list", dialect)(list, dialect.textLiteral(job.join));
  if ("split" in job || "has" in job || "which" in job)
    throw new Unsaid(`"${jobName(job)}" of the pieces of a list is not said as an expression here`);
  const each = needed(phrases.each, ofLists, dialect)(list, (piece) => jobApplied(dialect, piece, job));
  if (!("tidy" in job)) return each;
  const none = dialect.textLiteral("");
  return needed(phrases.only, ofLists, dialect)(each, (piece) => `not(${phrases.same(piece, none)})`);
}

/** The first thing of a kind. */
function firstFound(dialect: Dialect, text: string, kind: Findable | { readonly shape: string }): string {
  const { phrases } = dialect;
  if (typeof kind !== "string") throw new Unsaid("finding a shape is not said as an expression here");
  const word = needed(phrases.lettersAndNumbers, "look around a match of a pattern", dialect);
  return needed(phrases.firstMatch, "give the first match of a pattern", dialect)(text, thingPatterns[kind](word));
}

/**
 * The expression that does jobs with what a source gives; whether it gives the same on rows is for the caller to try.
 * @throws Unsaid where the dialect has no way
 */
export function jobsSaid(dialect: Dialect, source: string, jobs: readonly Job[]): string {
  let [made, isList] = [source, false];
  for (let i = 0; i < jobs.length; i++) {
    const [job, next] = [jobs[i], jobs.at(i + 1)];
    if ("find" in job && next && "item" in next && next.item === 1 && !isList) {
      made = firstFound(dialect, made, job.find);
      i++;
    } else {
      made = isList ? jobOnList(dialect, made, job) : jobApplied(dialect, made, job);
      isList = "split" in job || (isList && !("item" in job || "join" in job));
    }
  }
  return made;
}

/** Texts that show where an expression for jobs does something else than they do. */
export function trapTextsOf(jobs: readonly Job[]): string[] {
  const texts = jobs.flatMap((job) => {
    if ("replace" in job) return job.replace.flatMap((rule) => [rule.old, rule.new]);
    const list = "has" in job ? job.has : "which" in job ? job.which : "keep" in job ? job.keep : undefined;
    if (list && "values" in list) return list.values;
    return "split" in job ? job.split : [];
  });
  const around = texts
    .slice(0, 200)
    .flatMap((text) => [
      text,
      ` ${text}\u00a0`,
      text.replaceAll(" ", "  "),
      `x${text}`,
      `${text}é`,
      `_${text}1`,
      ` ${text} ${text}. `,
      text.toUpperCase(),
      text.toLowerCase(),
    ]);
  const marks = jobs.flatMap((job) => ("split" in job ? job.split : []));
  const pieces = marks.flatMap((mark) => [
    texts.slice(0, 9).join(mark),
    `${mark}a${mark}${mark} b `,
    `a${mark} a,1.5e3 x-2 b3${mark}`,
  ]);
  return [
    ...around,
    ...pieces,
    "a1 12,5 -3e2 x@y.org",
    "é@ö.org, b",
    "Łódź, Ærø 12½",
    "١٢ ﬁn",
    "a\u00a0b\tc",
    "\u1680a\u0085b\u2007\u202fc\u2028\u3000d\ufeff",
    "e\u0301\u0327 §€",
    "q\u0001\u200bx\n",
  ];
}
