/** Notes on the branches of choices. */
import { showValue } from "../../contrast/index.ts";
import { templateOf } from "../../dialects/tasks/index.ts";
import { type Diagnostic, message } from "../../diagnostics/index.ts";
import { type Bound, notAvailable, unconverted } from "../../evaluate/index.ts";
import { type Expression, ungrouped, walk } from "../../syntax/index.ts";
import { type Value, isFailure } from "../../values/index.ts";
import { type Asked, note, textOf, valuesOn, writing } from "./asked.ts";

const isTrue = (value: Value): boolean => value === true || value === 1 || value === 1n;

/** The conditions of a choice, and of one that stands where none of them holds. */
function conditionsOf(part: Bound): readonly Bound[] {
  if (part.kind !== "control" || part.control.form !== "choice") return [];
  const { tests } = part.control;
  const otherwise = part.children.length > 2 * tests ? unconverted(part.children[2 * tests]) : undefined;
  return [...part.children.slice(0, tests), ...(otherwise ? conditionsOf(otherwise) : [])];
}

/** A branch that no row reaches, as an earlier condition holds wherever its own does. */
export function neverReached(part: Bound, asked: Asked): Diagnostic[] {
  if (part.kind !== "control" || part.control.form !== "choice") return [];
  const { program } = asked;
  const conditions = conditionsOf(part).map(({ source }) => source);
  // Of CASE x WHEN y the conditions are not written as such.
  const isWritten = ({ range }: Expression) =>
    part.source.kind === "call" || /\b(?:when|if\s*\()\s*$/i.test(program.source.slice(0, range.start));
  if (!conditions.every(isWritten)) return [];
  const held = conditions.map((condition) => valuesOn(asked, textOf(program, condition)).map(isTrue));
  return conditions.flatMap((condition, i) => {
    const rows = held[i].flatMap((holds, row) => (holds ? [row] : []));
    const isTaken = rows.every((row) => held.slice(0, i).some((earlier) => earlier[row]));
    return i > 0 && rows.length > 0 && isTaken ? [note("never-reached", condition.range, { rows: rows.length })] : [];
  });
}

/** A choice that gives false where its condition does not hold, beside a text where it does. */
export function falseOtherwise(part: Bound, asked: Asked): Diagnostic[] {
  const { source } = part;
  const { dialect } = asked.program;
  if (part.kind !== "control" || part.control.form !== "choice" || source.kind !== "call" || source.args.length !== 2) return [];
  const otherwise = part.children[2] && unconverted(part.children[2]);
  if (otherwise?.kind !== "constant" || otherwise.value !== false) return [];
  const values = valuesOn(asked, textOf(asked.program, source.args[1]));
  if (!values.some((value) => typeof value === "string")) return [];
  const { end } = source.args[1].range;
  const text = `${dialect.separator}${dialect.textLiteral("")}`;
  const fix = { title: `Add ${text}`, edits: [{ range: { start: end, end }, text }] };
  return [note("false-otherwise", source.range, {}, [fix])];
}

/** A choice all of whose branches give one literal. */
export function sameBranches(part: Bound): Diagnostic[] {
  if (part.kind !== "control" || part.control.form !== "choice") return [];
  const results = part.children.slice(part.control.tests).map(unconverted);
  const [first] = results;
  const isSame = results.every((each) => each.kind === "constant" && first.kind === "constant" && each.value === first.value);
  const hasOtherwise = results.length > part.control.tests;
  if (!isSame || !hasOtherwise || first.kind !== "constant") return [];
  return [note("same-branches", part.source.range, { result: showValue(first.value) })];
}

/** What is tried in turn until one is there, as it is written. */
function triedInTurn({ control, source }: Bound & { kind: "control" }): readonly Expression[] {
  if (source.kind === "choice") return source.form === "coalesce" ? (source.written?.parts ?? []) : [];
  return control.form === "first-present" && source.kind === "call" ? source.args : [];
}

/** One value where several are tried in turn. */
export function aloneInTurn(part: Bound, { program }: Asked): Diagnostic[] {
  const args = part.kind === "control" ? triedInTurn(part) : [];
  if (args.length !== 1) return [];
  const [name] = /^\w+/.exec(textOf(program, part.source)) ?? [];
  return name === undefined
    ? []
    : [note("alone", part.source.range, { name }, [writing(part.source.range, textOf(program, args[0]))])];
}

/** A literal before the last of what is tried until one is there: what stands behind it is never asked for. */
export function neverMissing(part: Bound, { program }: Asked): Diagnostic[] {
  const args = part.kind === "control" ? triedInTurn(part) : [];
  const at = args.slice(0, -1).findIndex((arg) => {
    const literal = ungrouped(arg);
    return literal.kind === "literal" && literal.value !== null;
  });
  if (at < 0) return [];
  const texts = args.map((arg) => textOf(program, arg));
  const range = { start: args[0].range.start, end: args.at(-1)!.range.end };
  const ordered = [...texts.toSpliced(at, 1), texts[at]].join(`${program.dialect.separator} `);
  return [note("never-missing", args[at].range, { text: texts[at] }, [writing(range, ordered)])];
}

/** A true beside OR, or a false beside AND: what else is asked does not matter. */
export const decided = ({ program }: Asked): Diagnostic[] =>
  [...walk(program.tree)].flatMap((node) => {
    const decisive = node.kind === "call" ? { and: false, or: true }[node.name.toLowerCase()] : undefined;
    if (node.kind !== "call" || decisive === undefined) return [];
    const arg = node.args.map(ungrouped).find((each) => each.kind === "literal" && each.value === decisive);
    return arg ? [note("decided", arg.range, { text: textOf(program, arg) })] : [];
  });

/** What catches one kind of errors only, where all that come are of others. */
export function catchesOthers(part: Bound, asked: Asked): Diagnostic[] {
  const { source } = part;
  if (part.kind !== "control" || part.control.form !== "recover" || part.control.caught !== "not available") return [];
  if (source.kind !== "call") return [];
  const failures = valuesOn(asked, textOf(asked.program, source.args[0])).filter(isFailure);
  const others = failures.filter(({ standard }) => standard !== notAvailable);
  if (others.length === 0 || others.length < failures.length) return [];
  const name = asked.program.source.slice(source.nameRange.start, source.nameRange.end);
  const [all] = /^\w+/.exec(templateOf("onError", asked.program.dialect.id) ?? "") ?? [];
  const fixes = all === undefined ? [] : [writing(source.nameRange, all)];
  return [note("catches-others", source.nameRange, { name, problem: message(others[0]), rows: others.length }, fixes)];
}
