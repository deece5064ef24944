import { typeOf } from "../dialects/types.ts";
import { type Diagnostic, type Fix, applyFix } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { namesOf } from "../dialects/row.ts";
import { type TaskId, filled, isClosed, templateOf } from "../dialects/tasks/index.ts";
import { type Call, type Choice, type Expression, resultsOf, ungrouped, walk } from "../syntax/index.ts";
import { Double, type TextRange, type Value, isFailure, sameRange } from "../values/index.ts";
import { editTo } from "./habits.ts";

/** What a text comes to that may be meant: whether it can run, what is wrong with it, and its values on the first rows of the sample. */
export interface Attempt {
  readonly ok: boolean;
  readonly tree: Expression;
  readonly diagnostics: readonly Diagnostic[];
  readonly values: () => readonly Value[];
}

/** Whether most of some values are such: neither errors nor nothing, nor what is no number. */
function areMostlyValues(values: readonly Value[]): boolean {
  const isNone = (value: Value) =>
    value === null || isFailure(value) || Number.isNaN(value instanceof Double ? value.value : value);
  return 2 * values.filter((value) => !isNone(value)).length >= values.length;
}

type Try = (text: string) => Attempt;

const errorsOf = ({ diagnostics }: Pick<Attempt, "diagnostics">): readonly Diagnostic[] =>
  diagnostics.filter(({ severity }) => severity === "error");

/** Mends that are made one after the other, and problems whose mends are tried, at most. */
const most = 6;

/** What a value is read as where a call takes no such: the task, and what it takes. */
const readings: readonly (readonly [TaskId, slot: string])[] = [
  ["toText", "number"],
  ["toNumber", "text"],
  ["toMoment", "text"],
  ["toDate", "text"],
  ["toWhole", "text"],
];

/** Whether there is a time of day in most texts, which a date would not keep. */
function haveTimes({ ok, values }: Attempt): boolean {
  const texts = ok ? values().filter((value) => typeof value === "string") : [];
  return 2 * texts.filter((text) => /\d:\d\d/.test(text)).length > texts.length;
}

/** How a dialect says a task; a whole number is one that counts places where there is such a type. */
const readingOf = (task: TaskId, { id, types }: Dialect): string | undefined =>
  task === "toWhole" && types.cast(typeOf("bigint"), "integer") ? "cast({text} as integer)" : templateOf(task, id);

/** Some arguments of a call written otherwise. */
const rewritten = (args: readonly Expression[], texts: ReadonlyMap<number, string>, title: string): Fix => ({
  title,
  edits: [...texts].map(([i, text]) => ({ range: args[i].range, text })),
});

/** Arguments beyond which other ways to write them are not tried. */
const mostArguments = 6;

/** A call with a truth value put before one of its arguments, where its row takes one there. */
function* withTruth({ name, nameRange, args, range }: Call, dialect: Dialect, source: string): Generator<Fix> {
  const rows = dialect.rows.filter((row) => namesOf(row).some((each) => each.toLowerCase() === name.toLowerCase()));
  const places = new Set(rows.map((row) => row.parameters.findIndex(({ type }) => type === "boolean")));
  const truth = dialect.rows.some((row) => namesOf(row).includes("TRUE")) ? "TRUE()" : "true";
  for (const at of places) {
    if (at < 1 || at >= args.length) continue;
    const all = args.map((arg) => source.slice(arg.range.start, arg.range.end)).toSpliced(at, 0, truth);
    const text = `${source.slice(nameRange.start, nameRange.end)}(${all.join(dialect.separator)})`;
    yield { title: `Write ${text}`, edits: [{ range, text }] };
  }
}

const swapping = "Swap them";

/** Other ways to write the arguments of a call: two of them the other way round, or read as values of another kind. */
function* otherwise(call: Call, dialect: Dialect, source: string, attempt: Try): Generator<Fix> {
  const { args, notation } = call;
  if (args.length > mostArguments) return;
  if (notation === "function") yield* withTruth(call, dialect, source);
  const written = args.map(({ range }) => source.slice(range.start, range.end));
  const isLiteral = args.map((arg) => ungrouped(arg).kind === "literal");
  for (let i = 0; i < args.length && notation === "function"; i++)
    for (let k = i + 1; k < args.length; k++)
      if (isLiteral[i] || isLiteral[k]) yield rewritten(args, new Map([[i, written[k]], [k, written[i]]]), swapping); // prettier-ignore
  // Beside a sign a text is rather meant as a number than a number as a text.
  const order = notation === "operator" ? [readings[1], readings[0], ...readings.slice(2)] : readings;
  for (const [task, slot] of order) {
    const template = readingOf(task, dialect);
    if (template === undefined) continue;
    const read = (i: number): string => {
      const arg = args[i];
      const inner = ungrouped(arg);
      if (task === "toText" && inner.kind === "literal" && typeof inner.value !== "string")
        return dialect.textLiteral(written[i]);
      const isOpen = arg.kind === "call" && arg.notation === "operator";
      const text = filled(template, { [slot]: { text: written[i], isOpen } });
      return notation === "operator" && !isClosed(template) ? `(${text})` : text;
    };
    // A list, or what is missing, is not meant as a text.
    const isNoText = args.map(ungrouped).map((arg) => arg.kind === "list" || (arg.kind === "literal" && arg.value === null));
    const isLeft = (i: number) =>
      (task === "toText" ? isNoText[i] : isLiteral[i]) || (task === "toMoment" && !haveTimes(attempt(written[i])));
    const places = args.flatMap((_, i) => (isLeft(i) ? [] : [i]));
    for (const i of places) yield rewritten(args, new Map([[i, read(i)]]), `Write ${read(i)}`);
    if (places.length > 1)
      yield rewritten(args, new Map(places.map((i) => [i, read(i)])), `Write ${places.map(read).join(", ")}`);
  }
}

/** Other ways to write what a choice gives: its numbers as texts, those that are written, and all. */
function* resultsOtherwise(choice: Choice, dialect: Dialect, source: string): Generator<Fix> {
  const template = templateOf("toText", dialect.id);
  if (template === undefined) return;
  const results = resultsOf(choice);
  const isLiteral = (node: Expression) => ungrouped(node).kind === "literal";
  const numbers = results.filter((node) => {
    const inner = ungrouped(node);
    return inner.kind === "literal" && inner.value !== null && typeof inner.value !== "string";
  });
  const written = ({ range }: Expression) => source.slice(range.start, range.end);
  const quoted = numbers.map((node) => [node, dialect.textLiteral(written(node))] as const);
  const cast = results
    .filter((node) => !isLiteral(node))
    .map((node) => [node, filled(template, { number: { text: written(node), isOpen: node.kind === "call" } })] as const);
  for (const texts of [quoted, [...quoted, ...cast]])
    if (texts.length > 0)
      yield {
        title: `Write ${texts.map(([, text]) => text).join(", ")}`,
        edits: texts.map(([{ range }, text]) => ({ range, text })),
      };
}

/**
 * The first of some mends, and of other ways to write the call or the choice at a place or around it, that gives values: as a whole, and what it
 * puts into it.
 */
export function readOtherwise(
  tree: Expression,
  range: TextRange,
  dialect: Dialect,
  source: string,
  attempt: Try,
  fixes: readonly Fix[] = [],
): Fix | undefined {
  const isThere = (node: Expression) => sameRange(node.range, range);
  const partsOf = (node: Expression) => (node.kind === "call" ? node.args : node.kind === "choice" ? resultsOf(node) : []);
  const around = [...walk(tree)].find((node) => partsOf(node).length > 0 && [node, ...partsOf(node)].some(isThere));
  if (around?.kind !== "call" && around?.kind !== "choice") return undefined;
  const ways = around.kind === "call" ? otherwise(around, dialect, source, attempt) : resultsOtherwise(around, dialect, source);
  const givesValues = (text: string): boolean => {
    const tried = attempt(text);
    return tried.ok && areMostlyValues(tried.values());
  };
  // What gives one of its arguments as it is takes nothing of the others: they are in no better order.
  const givesArgument = (fix: Fix): boolean => {
    const text = applyFix(source, fix);
    const values = attempt(text.slice(around.range.start, text.length - (source.length - around.range.end))).values();
    return partsOf(around).some(({ range: { start, end } }) => {
      const given = attempt(source.slice(start, end)).values();
      return given.length > 0 && given.every((value, row) => typeof value === "string" && value === values[row]);
    });
  };
  return [...fixes, ...ways].find(
    (fix) =>
      [applyFix(source, fix), ...fix.edits.map(({ text }) => text)].every(givesValues) &&
      !(fix.title === swapping && givesArgument(fix)),
  );
}

/** The mend of a call that takes no arguments of these kinds: the first that gives values. */
function ofKinds(problem: Diagnostic, tree: Expression, dialect: Dialect, source: string, attempt: Try): Diagnostic {
  const fix = readOtherwise(tree, problem.range, dialect, source, attempt, problem.fixes);
  return { ...problem, fixes: fix ? [fix] : [] };
}

/** The names that a function may be meant by: such that less is wrong with them. */
function ofNames(problem: Diagnostic, errors: number, source: string, attempt: Try): Diagnostic {
  const { nearest } = problem.facts as { nearest: readonly string[] };
  if (nearest.length === 0) return problem;
  const apt = nearest.map((_, i) => errorsOf(attempt(applyFix(source, problem.fixes[i]))).length < errors);
  return {
    ...problem,
    facts: { ...problem.facts, nearest: nearest.filter((_, i) => apt[i]) },
    fixes: problem.fixes.filter((_, i) => apt[i]),
  };
}

/** Problems with what a value is. */
const kinds: ReadonlySet<string> = new Set(["argument-type", "ambiguous-call", "branch-types", "not-a-number"]);

/** Problems with the mends that were tried: names of functions with which less is wrong, arguments read as what a call takes. */
function tried(
  { tree, diagnostics }: Pick<Attempt, "tree" | "diagnostics">,
  dialect: Dialect,
  source: string,
  attempt: Try,
): readonly Diagnostic[] {
  const errors = errorsOf({ diagnostics }).length;
  if (errors > most) return diagnostics;
  return diagnostics.map((problem): Diagnostic => {
    const { code } = problem;
    if (code === "unknown-function") return ofNames(problem, errors, source, attempt);
    const isOfKinds = kinds.has(code);
    return isOfKinds && errors === 1 ? ofKinds(problem, tree, dialect, source, attempt) : problem;
  });
}

/**
 * What is wrong with a text, with the mends that were tried; where one is not enough, all that bring it to run come first, as one.
 *
 * @param attempt compiles another text
 */
export function withMends(
  found: Pick<Attempt, "tree" | "diagnostics">,
  dialect: Dialect,
  source: string,
  attempt: Try,
): readonly Diagnostic[] {
  if (errorsOf(found).length > most) return found.diagnostics;
  const own = tried(found, dialect, source, attempt);
  let text = source;
  let problems: readonly Diagnostic[] = own;
  const codes = new Set<string>();
  for (let count = 0; count < most; count++) {
    const next = errorsOf({ diagnostics: problems }).find(({ fixes }) => fixes.length > 0);
    if (!next) return own;
    codes.add(next.code);
    text = applyFix(text, next.fixes[0]);
    const now = attempt(text);
    // Names that are nowhere may be texts, where that is not all that is wrong.
    const isEnough = now.ok && count > 0 && (codes.size > 1 || !codes.has("unknown-column"));
    if (isEnough) {
      const whole = { title: `Write ${text}`, edits: [editTo(source, text)] };
      const first = own.findIndex(({ severity }) => severity === "error");
      return own.map((problem, i) => (i === first ? { ...problem, fixes: [whole, ...problem.fixes] } : problem));
    }
    if (now.ok) return own;
    problems = tried(now, dialect, text, attempt);
  }
  return own;
}
