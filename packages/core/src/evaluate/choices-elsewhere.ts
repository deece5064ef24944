import type { Dialect } from "../dialects/dialect.ts";
import { templateOf, filled } from "../dialects/tasks/index.ts";
import { type Rule, habit } from "./habit.ts";
import { bare, closingOf, halves, inParts, masked, rewrittenCalls, splitOutside } from "./outside.ts";

/** A choice, as a dialect writes it. */
function chosen({ id }: Dialect, condition: string, then: string, otherwise: string | undefined): string | undefined {
  const template = templateOf("choose", id);
  const used = otherwise === undefined ? template?.replace(" else {else}", "") : template;
  const parts = { condition, then, else: otherwise ?? "" };
  if (used === undefined) return undefined;
  // A call takes what comes otherwise, too; CASE gives null.
  if (otherwise === undefined && used.includes("{else}")) return `case when ${condition} then ${then} end`;
  return filled(used, Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, { text, isOpen: false }])));
}

/** condition ? a : b */
function fromMarks(text: string, dialect: Dialect): string {
  const [condition, rest] = halves(text, "\\?");
  if (rest === undefined) return text;
  const [then, otherwise] = halves(rest, ":");
  if (otherwise === undefined) return text;
  return chosen(dialect, condition, then, fromMarks(otherwise, dialect)) ?? text;
}

/** IF condition THEN a ELSE b [END], or with the condition in brackets and without THEN. */
function fromWords(text: string, dialect: Dialect): string {
  const [, rest] = /^if\b\s*([^]+)$/i.exec(text) ?? [];
  if (rest === undefined) return text;
  const whole = rest.replace(/\bel(?:se)?if\b/gi, "else if");
  let [condition, then] = halves(whole, "\\bthen\\b");
  if (then === undefined) {
    const close = whole.startsWith("(") ? closingOf(masked(whole), 0) : undefined;
    if (close === undefined) return text;
    [condition, then] = [whole.slice(1, close), whole.slice(close + 1).trim()];
    if (!/^['"$\w]/.test(then)) return text;
  }
  const [first, otherwise] = halves(then.replace(/\s+end(?:\s*if)?$/i, ""), "\\belse\\b");
  return chosen(dialect, condition, first, otherwise === undefined ? undefined : fromWords(otherwise, dialect)) ?? text;
}

/** CASE [subject] WHEN … THEN … [WHEN …] [ELSE …] END */
function fromCase(text: string, dialect: Dialect): string {
  if (templateOf("choose", dialect.id)?.startsWith("case")) return text;
  const [, inner] = /^case\b\s*([^]+?)\s*(?:\bend)?$/i.exec(text) ?? [];
  if (inner === undefined) return text;
  const [branches, otherwise] = halves(inner, "\\belse\\b");
  const [subject, ...whens] = splitOutside(branches, /\bwhen\b/).map((part) => part.trim());
  const pairs = whens.map((when) => halves(when, "\\bthen\\b"));
  const isWhole = (pair: readonly [string, string | undefined]): pair is readonly [string, string] => pair[1] !== undefined;
  if (!pairs.every(isWhole)) return text;
  const equals = subject === "" ? "" : `${subject} = `;
  return (
    pairs.reduceRight<string | undefined>(
      (rest, [condition, then]) => chosen(dialect, equals + condition, then, rest),
      otherwise,
    ) ?? text
  );
}

const choices =
  (said: string, read: (text: string, dialect: Dialect) => string): Rule =>
  (source, dialect) =>
    habit(
      source,
      inParts(source, (part) => {
        const { inner, put } = bare(part);
        return put(read(inner, dialect));
      }),
      said,
    );

/** IF(condition, a, b), where that is no function. */
const calledIf: Rule = (source, dialect) =>
  habit(
    source,
    rewrittenCalls(source, "if|iif", (_, inside) => {
      const [condition, then, otherwise, more] = splitOutside(inside, /[,;]/).map((part) => part.trim());
      return then === undefined || more !== undefined ? undefined : chosen(dialect, condition, then, otherwise);
    }),
    "a choice with if is written otherwise here",
  );

/** Choices as other languages write them. */
export const choicesElsewhere: readonly Rule[] = [
  choices("a choice between two is written otherwise here", fromMarks),
  choices("a choice with if is written otherwise here", fromWords),
  choices("there is no CASE here", fromCase),
  calledIf,
];
