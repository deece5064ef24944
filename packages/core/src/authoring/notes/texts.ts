/** Notes on texts and names that mean something else elsewhere. */
import { filled, joinedAs, templateOf } from "../../dialects/tasks/index.ts";
import { type Diagnostic, nearest } from "../../diagnostics/index.ts";
import { type Bound, type Program, allPartsOf, columnsUsed, unconverted } from "../../evaluate/index.ts";
import { type Expression, ungrouped, walk } from "../../syntax/index.ts";
import { countCodePoints, isFailure } from "../../values/index.ts";
import {
  type Asked,
  type Operation,
  constantOf,
  inner,
  isNumberText,
  note,
  signOf,
  slotOf,
  textOf,
  valuesOn,
  writing,
} from "./asked.ts";

/** Pattern languages that are taken for each other: their own wildcards, and those of the other with what is meant. */
const wildcards: readonly { pattern: string; own: RegExp; foreign: RegExp; meant: Readonly<Record<string, string>> }[] = [
  { pattern: "like", own: /[%_]/, foreign: /(?<!\.)[*?]/g, meant: { "*": "%", "?": "_" } },
  { pattern: "glob", own: /[*?[]/, foreign: /%/g, meant: { "%": "*" } },
];

/** Wildcards of another pattern language. */
export function foreignWildcards(operation: Operation, { program }: Asked): Diagnostic[] {
  const found = operation.operation === "test" ? constantOf(slotOf(operation, "needle")) : undefined;
  const language = wildcards.find(({ pattern }) => operation.answers.pattern?.startsWith(pattern));
  if (!language || typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
  const { own, foreign, meant } = language;
  const used = [...new Set(found.value.match(foreign))];
  if (own.test(found.value) || used.length === 0) return [];
  const text = found.value.replace(foreign, (sign) => meant[sign]);
  const { range } = found.part.source;
  const facts = { used, wanted: used.map((sign) => meant[sign]) };
  return [note("foreign-wildcard", range, facts, [writing(range, program.dialect.textLiteral(text))])];
}

/** A group named as in another pattern language. */
export function foreignGroups(operation: Operation, { program }: Asked): Diagnostic[] {
  const found = operation.operation === "substitute" ? constantOf(slotOf(operation, "new")) : undefined;
  if (typeof found?.value !== "string" || found.part.source.kind !== "literal" || operation.answers.pattern === "literal")
    return [];
  const isDollar = operation.answers.replacement === "dollar";
  const foreign = isDollar ? /\\(\d)/g : /\$(\d)/g;
  const here = found.value.replace(foreign, isDollar ? "$$$1" : "\\$1");
  if (here === found.value || operation.answers.replacement === "literal") return [];
  const { range } = found.part.source;
  const facts = { used: found.value.match(foreign)![0], wanted: isDollar ? "$1" : "\\1" };
  return [note("foreign-group", range, facts, [writing(range, program.dialect.textLiteral(here))])];
}

/** What stands where something is done to it: the whole, or in the first slot of an operation. */
const subjects = (program: Program): Bound[] =>
  [
    program.bound,
    ...allPartsOf(program.bound).flatMap((part) => (part.kind === "operation" && part.row ? (part.inputs[0] ?? []) : [])),
  ]
    .flat()
    .map(unconverted);

/** A text that is the name of a column which is not read. */
export function quotedColumns({ program, sample }: Asked): Diagnostic[] {
  const read = columnsUsed(program);
  return subjects(program).flatMap((part) => {
    if (part.kind !== "constant" || part.source.kind !== "literal" || typeof part.value !== "string") return [];
    const name = part.value.replace(/^\$/, "").toLowerCase();
    const at = sample.columns.findIndex((column) => column.name.toLowerCase() === name);
    if (at < 0 || read.has(at)) return [];
    const text = program.dialect.columnText(sample.columns[at].name);
    return [note("column-in-quotes", part.source.range, { text: part.value, column: text }, [writing(part.source.range, text)])];
  });
}

/** A name in quotes that is no column, and is read as a text. */
export function namesAsTexts({ program, sample }: Asked): Diagnostic[] {
  const { dialect, source } = program;
  const names = sample.columns.map(({ name }) => dialect.columnText(name));
  const [quote] = dialect.columnText("a b");
  if (!/["`]/.test(quote) || dialect.textLiteral("").startsWith(quote)) return [];
  return allPartsOf(program.bound).flatMap((part) => {
    const { range } = part.source;
    if (part.kind !== "constant" || typeof part.value !== "string" || source[range.start] !== quote) return [];
    const near = nearest(dialect.columnText(part.value), names);
    return [
      note(
        "name-as-text",
        range,
        { name: part.value, nearest: near },
        (near.length > 0 ? near : [dialect.textLiteral(part.value)]).map((text) => writing(range, text)),
      ),
    ];
  });
}

/** A pattern where a text is searched for as it is. */
export function patternAsText(operation: Operation): Diagnostic[] {
  if (operation.answers.pattern !== "literal" && operation.operation !== "segment") return [];
  return ["old", "needle", "delimiter"].flatMap((slot) => {
    const found = constantOf(slotOf(operation, slot));
    if (typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
    const isPattern = /\\[dswDSWb]|\[[^\]]{2,}\]|\.[*+]|[^|]\|[^|]/.test(found.value);
    return isPattern ? [note("pattern-as-text", found.part.source.range, { text: found.value })] : [];
  });
}

/** A text that is found on no row, and on some in other letters. */
export function otherCase(operation: Operation, { sample }: Asked): Diagnostic[] {
  // Of a condition it is told with its mend where it holds nowhere.
  if (operation.answers.case !== "minded" || operation.answers.pattern !== "literal" || operation.operation === "test") return [];
  const subject = inner(slotOf(operation, "text"));
  const found = constantOf(slotOf(operation, "needle") ?? slotOf(operation, "old"));
  if (subject?.kind !== "column" || typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
  const texts = sample.columns[subject.column].values.filter((value) => typeof value === "string");
  const wanted = found.value;
  if (wanted === "" || texts.some((value) => value.includes(wanted))) return [];
  const there = texts.find((value) => value.toLowerCase().includes(wanted.toLowerCase()));
  return there === undefined ? [] : [note("other-case", found.part.source.range, { text: wanted, there })];
}

/** A backslash that the text literal takes away from the pattern. */
export function lostEscapes({ program }: Asked): Diagnostic[] {
  return allPartsOf(program.bound).flatMap((part) => {
    if (part.kind !== "constant" || part.source.kind !== "literal" || typeof part.value !== "string") return [];
    const written = textOf(program, part.source);
    const lost = /(?<!\\)\\[dDwWsSpP.$^*+?()[\]{}|1-9]/.exec(written);
    if (!lost || part.value.includes("\\")) return [];
    const text = written.replace(/(?<!\\)\\(?!\\)/g, "\\\\");
    return [note("lost-escape", part.source.range, { sign: lost[0] }, [writing(part.source.range, text)])];
  });
}

/** Signs that join texts elsewhere, and do something else to numbers or truths here. */
const joining = new Set(["+", "||", "&"]);

/** Operations that such a sign is taken for. */
const notJoining = new Set(["calculate", "connect", "bits"]);

/** The parts that are joined by one sign, from left to right. */
function chainOf(node: Expression, sign: string, source: string): Expression[] {
  const inner = ungrouped(node);
  return inner.kind === "call" && signOf(inner, source) === sign
    ? inner.args.flatMap((arg) => chainOf(arg, sign, source))
    : [node];
}

/** Texts beside a sign that does not join here. */
export function joinedOtherwise(asked: Asked): Diagnostic[] {
  const { program } = asked;
  // Texts, none of which is a number.
  const isTexts = ({ kind, range }: Expression): boolean => {
    const given = kind === "name" || kind === "call" ? valuesOn(asked, program.source.slice(range.start, range.end)) : [];
    const there = given.filter((value) => value !== null && value !== "");
    return there.length > 0 && there.every((value) => typeof value === "string" && !/^\s*[-+]?[\d.]/.test(value));
  };
  const template = templateOf("join", program.dialect.id);
  for (const part of allPartsOf(program.bound)) {
    const sign = signOf(part.source, program.source);
    const isWrong =
      sign !== undefined &&
      joining.has(sign) &&
      (part.kind === "operation" ? notJoining.has(part.operation) : part.kind === "constant" && isFailure(part.value));
    const isOfDates =
      part.kind === "operation" && part.inputs.flat().some((input) => /^(?:date|timestamp)/.test(input?.type.name ?? ""));
    if (template === undefined || !isWrong || isOfDates) continue;
    const parts = chainOf(part.source, sign, program.source);
    const literals = parts
      .map(ungrouped)
      .flatMap((each) => (each.kind === "literal" && typeof each.value === "string" ? [each.value] : []));
    // A day more is rather meant for a date.
    if (literals.some((text) => /^[+-]?\d+ *(?:year|month|week|day|hour)s?$/i.test(text))) continue;
    if (!literals.some((text) => !isNumberText(text)) && !parts.map(ungrouped).every(isTexts)) continue;
    const text = joinedAs(
      template,
      parts.map((each) => ({ text: textOf(program, each), isOpen: false })),
    );
    return [note("joins-not", part.source.range, { name: sign }, [writing(part.source.range, text)])];
  }
  return [];
}

/** Texts beside each other, which are one: `in ('a' 'b')`. */
export const textsBeside = ({ program }: Asked): Diagnostic[] =>
  [...walk(program.tree)].flatMap((node) => {
    if (node.kind !== "literal" || typeof node.value !== "string") return [];
    const parts = textOf(program, node).match(/'(?:[^']|'')*'/g) ?? [];
    const between = textOf(program, node).replace(/'(?:[^']|'')*'/g, "");
    // On several lines a long text is meant.
    if (parts.length < 2 || !/^[ \t]+$/.test(between)) return [];
    const text = parts.join(`${program.dialect.separator} `);
    return [note("texts-beside", node.range, { text: node.value }, [writing(node.range, text)])];
  });

/** A cast to a type of no texts, though its name says so: in SQLite `string` has the affinity of numbers. */
export const stringAsNumber = (asked: Asked): Diagnostic[] =>
  [...walk(asked.program.tree)].flatMap((node) => {
    if (node.kind !== "cast" || !/^str(?:ing)?$/i.test(node.type)) return [];
    const [seven] = valuesOn(asked, `cast('07' as ${node.type})`);
    return seven === undefined || seven === "07"
      ? []
      : [note("string-as-number", node.typeRange, {}, [writing(node.typeRange, "text")])];
  });

/** A separator among what is joined of all rows, where it stands behind a word. */
export const separatorOfRows = ({ program }: Asked): Diagnostic[] =>
  [...walk(program.tree)].flatMap((node) => {
    if (node.kind !== "call" || node.args.length !== 2) return [];
    const worded = `${node.name.toLowerCase()} separator`;
    if (!program.dialect.rows.some(({ name }) => name === worded)) return [];
    const [text, mark] = node.args;
    if (mark.kind !== "literal" || typeof mark.value !== "string" || !/^[^\p{L}\p{N}]+$/u.test(mark.value)) return [];
    const range = { start: text.range.end, end: mark.range.start };
    return [note("separator-of-rows", mark.range, { text: mark.value }, [writing(range, " separator ")])];
  });

/** A cast to a text of so many characters, where longer ones stay as they are. */
export const sizeNotHeeded = (asked: Asked): Diagnostic[] =>
  [...walk(asked.program.tree)].flatMap((node) => {
    const [, size] = (node.kind === "cast" && /char\w*\s*\(\s*(\d+)\s*\)$/i.exec(node.type)) || [];
    if (node.kind !== "cast" || size === undefined) return [];
    const longer = valuesOn(asked, textOf(asked.program, node)).filter(
      (value) => typeof value === "string" && countCodePoints(value) > Number(size),
    );
    if (longer.length === 0) return [];
    const cut = templateOf("first", asked.program.dialect.id);
    const text = textOf(asked.program, node);
    const fixes = cut
      ? [writing(node.range, filled(cut, { text: { text, isOpen: false }, count: { text: size, isOpen: false } }))]
      : [];
    return [note("size-not-heeded", node.range, { size: Number(size), rows: longer.length }, fixes)];
  });
