/** Notes on comparisons and conditions. */
import { filled, templateOf } from "../../dialects/tasks/index.ts";
import type { Diagnostic } from "../../diagnostics/index.ts";
import { showValue } from "../../contrast/index.ts";
import { alternatives, moved, unconverted } from "../../evaluate/index.ts";
import { type Expression, ungrouped, walk } from "../../syntax/index.ts";
import { type TextRange, isFailure } from "../../values/index.ts";
import {
  type Asked,
  type Operation,
  constantOf,
  inner,
  isNumberText,
  note,
  signOf,
  slotOf,
  textBesideColumn,
  textOf,
  valuesOn,
  writing,
} from "./asked.ts";

/** `= null`, which is true of nothing. */
export function comparedWithNull({ program }: Asked): Diagnostic[] {
  return [...walk(program.tree)].flatMap((node) => {
    if (node.kind === "choice")
      return node.branches.flatMap(({ condition, result }) => comparedInCase(condition, result.range, program));
    const sign = signOf(node, program.source);
    if (node.kind !== "call" || sign === undefined || !["=", "==", "<>", "!="].includes(sign)) return [];
    const at = node.args.map(ungrouped).findIndex((arg) => arg.kind === "literal" && arg.value === null);
    if (at < 0) return [];
    const text = `${textOf(program, node.args[1 - at])} is ${sign.startsWith("=") ? "" : "not "}null`;
    return [note("null-compared", node.range, { name: sign }, [writing(node.range, text)])];
  });
}

/** CASE x WHEN NULL, which holds of nothing. */
function comparedInCase(condition: Expression, result: TextRange, { source }: Asked["program"]): Diagnostic[] {
  const [, written] = condition.kind === "call" ? condition.args.map(ungrouped) : [];
  const isSimple =
    written?.kind === "literal" && written.value === null && /\bwhen\s*$/i.test(source.slice(0, written.range.start));
  return isSimple && written.range.end <= result.start ? [note("null-compared", written.range, { name: "when" })] : [];
}

/** A null among those of which a value is asked to be one. */
export function nullAmong({ program }: Asked): Diagnostic[] {
  return [...walk(program.tree)].flatMap(({ written }) => {
    const [, ...among] = written?.form === "in" ? written.parts : [];
    return among.flatMap((part, i) => {
      const one = ungrouped(part);
      if (one.kind !== "literal" || one.value !== null) return [];
      // The separator before it goes, too, or that behind the first.
      const range =
        i > 0 ? { start: among[i - 1].range.end, end: part.range.end } : { start: part.range.start, end: among[1]?.range.start };
      const fixes = among.length > 1 ? [{ title: "Leave it out", edits: [{ range, text: "" }] }] : [];
      return [note("null-among", part.range, {}, fixes)];
    });
  });
}

/** A text where a condition belongs: `a = 'x' or 'y'`. */
export function textAsCondition(operation: Operation, { program }: Asked): Diagnostic[] {
  if (operation.operation !== "connect") return [];
  return operation.inputs.flat().flatMap((input) => {
    const found = constantOf(input);
    const isText = found?.part.source.kind === "literal" && typeof found.part.source.value === "string";
    if (!found || !isText) return [];
    const fixes = alternatives(program.source, program.dialect, []).map(({ text }) => writing(program.tree.range, text));
    return [note("text-as-condition", found.part.source.range, {}, fixes)];
  });
}

/** A column of texts where a condition belongs, none of which is a number: only the digits at the beginning of a text count. */
export function columnAsCondition(operation: Operation, asked: Asked): Diagnostic[] {
  const isRead = operation.operation === "truth-of" && operation.answers.textTruth === "the number it begins with";
  const found = isRead ? textPart(operation, "value", asked) : undefined;
  return found?.part.kind === "column"
    ? [note("text-column-as-condition", found.part.source.range, { column: textOf(asked.program, found.part.source) })]
    : [];
}

/** A literal among the conditions of OR as a function: `OR(x = "a"; "b")`. */
export const literalAmongConditions = ({ program }: Asked): Diagnostic[] =>
  [...walk(program.tree)].flatMap((node) => {
    if (node.kind !== "call" || node.notation !== "function" || !/^(?:and|or)$/i.test(node.name)) return [];
    const stray = node.args.find((arg) => {
      const inner = ungrouped(arg);
      return inner.kind === "literal" && inner.value !== null && typeof inner.value !== "boolean";
    });
    const fixes = alternatives(program.source, program.dialect, []).map(({ text }) => writing(program.tree.range, text));
    return stray ? [note("text-as-condition", stray.range, {}, fixes)] : [];
  });

/** Texts, none of which is a number, that are calculated with as the digits at the beginning of each. */
export function textCalculated(operation: Operation, asked: Asked): Diagnostic[] {
  const { program } = asked;
  const inputs = operation.operation === "calculate" ? operation.inputs.flat() : [];
  return inputs.flatMap((input) => {
    const isRead = input?.kind === "operation" && input.operation === "number-of" && input.implicit;
    const column = isRead ? textPart(input, "value", asked) : undefined;
    // Two texts are told otherwise: a sign that does not join.
    const isBeside = inputs.some((other) => other && other !== input && !/^text/.test(unconverted(other).type.name));
    if (!column || !isBeside) return [];
    const name = textOf(program, column.part.source);
    const number = valuesOn(asked, `${name} + 0`)[column.row] ?? null;
    const shown = number === null || isFailure(number) ? undefined : showValue(number);
    // A date may be read as the number of its day.
    if (shown === undefined || (shown !== "0" && !column.text.trim().startsWith(shown))) return [];
    const later = /^\d{4}-\d\d-\d\d/.test(column.text) ? laterThan(operation, name, program) : undefined;
    const fixes = later === undefined ? [] : [writing(operation.source.range, later)];
    return [note("text-calculated", column.part.source.range, { text: column.text, number: shown }, fixes)];
  });
}

/** A date with so many days, or a stretch of time, more or less, as the dialect says that. */
function laterThan(operation: Operation, date: string, { dialect }: Asked["program"]): string | undefined {
  const amount = constantOf(slotOf(operation, "b"));
  const sign = { "+": 1, "-": -1 }[String(operation.fixed.sign)] as 1 | -1 | undefined;
  if (amount?.part.source.kind !== "literal" || sign === undefined) return undefined;
  const [, count = "", unit = "day"] = /^(\d+)(?: (day|week|month|year)s?)?$/i.exec(String(amount.part.source.value)) ?? [];
  return count === "" ? undefined : moved(dialect, date, { count, unit: unit.toLowerCase() }, sign);
}

/** A column in a slot, or a call, that gives texts, and the first of them, where none is a number. */
function textPart(operation: Operation, slot: string, asked: Asked) {
  const part = inner(slotOf(operation, slot));
  const isCalled = part?.source.kind === "call" && part.source.notation === "function";
  if (!part || (part.kind !== "column" && !isCalled)) return undefined;
  const values = valuesOn(asked, textOf(asked.program, part.source));
  const row = values.findIndex((value) => typeof value === "string" && value.trim() !== "");
  const text = values[row];
  const isNone = values.every((value) => value === null || (typeof value === "string" && !isNumberText(value)));
  return typeof text === "string" && isNone ? { part, row, text } : undefined;
}

/** BETWEEN with the larger of two literals first: nothing lies between them. */
export function emptyRange({ program }: Asked): Diagnostic[] {
  return [...walk(program.tree)].flatMap(({ written }) => {
    const [, low, high] = written?.form === "between" ? written.parts.map(ungrouped) : [];
    if (low?.kind !== "literal" || high?.kind !== "literal") return [];
    const [a, b] = [low, high].map((literal) => {
      const text = textOf(program, literal);
      return isNumberText(text) ? Number(text) : literal.value;
    });
    const isTurned =
      (typeof a === "number" && typeof b === "number" && a > b) || (typeof a === "string" && typeof b === "string" && a > b);
    const edits = [low, high].map(({ range }, i) => ({ range, text: textOf(program, [high, low][i]) }));
    return isTurned ? [note("empty-range", low.range, {}, [{ title: "Swap them", edits }])] : [];
  });
}

/** A text beside an equals sign that no row has, and one has in other letters or with spaces around it. */
export function otherText(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const found = signOf(operation.source, program.source) === "=" ? textBesideColumn(operation) : undefined;
  if (found?.part.source.kind !== "literal") return [];
  const { text: wanted, column, part } = found;
  const bare = (text: string) => text.trim().toLowerCase();
  const texts = sample.columns[column].values.filter((value) => typeof value === "string");
  const isTrue = (text: string) => text === wanted || (operation.answers.case !== "minded" && bare(text) === bare(wanted));
  const there = texts.find((text) => bare(text) === bare(wanted));
  return there === undefined || texts.some(isTrue) ? [] : [note("other-case", part.source.range, { text: wanted, there })];
}

/** Which part of a text wildcards at its ends leave open, by the task that is meant. */
const openEnds = { "01": "startsWith", "10": "endsWith", "11": "contains" } as const;

/** A text with wildcards at its ends beside an equals sign, for which they are characters; one that a row holds is meant so. */
export function wildcardsCompared(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const { source } = operation;
  const found = signOf(source, program.source) === "=" ? textBesideColumn(operation) : undefined;
  if (!found) return [];
  const [, before, inner, after] = /^([*%]?)([^*%?]+)([*%]?)$/.exec(found.text) ?? [];
  const task = openEnds[`${before ? 1 : 0}${after ? 1 : 0}` as keyof typeof openEnds];
  const isThere = sample.columns[found.column].values.some((value) => typeof value === "string" && /[*%]/.test(value));
  if (inner === undefined || !task || isThere) return [];
  const { dialect } = program;
  const template = templateOf(task, dialect.id);
  const parts = {
    text: { text: textOf(program, found.beside.source), isOpen: false },
    needle: { text: dialect.textLiteral(inner), isOpen: false },
  };
  const fixes = template === undefined ? [] : [writing(source.range, filled(template, parts))];
  return [note("wildcard-compared", source.range, { text: found.text }, fixes)];
}

/** Texts that are ordered beside a number that is written as a text. */
export function orderedAsTexts(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const { source } = operation;
  if (!operation.operation.startsWith("compare") || source.kind !== "call" || !/^(?:[<>]=?|[lg][te])$/.test(source.name))
    return [];
  const found = textBesideColumn(operation);
  if (!found || !isNumberText(found.text)) return [];
  const { name, values } = sample.columns[found.column];
  const isText = values.every((value) => value === null || typeof value === "string");
  return isText ? [note("ordered-as-texts", source.range, { column: program.dialect.columnText(name) })] : [];
}
