import { alwaysFailing } from "./failing.ts";
import { agree, kindOfOutcome, showValue } from "../contrast/index.ts";
import { filled, joinedAs, templateOf } from "../dialects/tasks/index.ts";
import { type Diagnostic, type Fix, message, nearest } from "../diagnostics/index.ts";
import {
  type Bound,
  type BoundOperation,
  type Program,
  type Sample,
  allPartsOf,
  columnsUsed,
  unconverted,
} from "../evaluate/index.ts";
import { type Expression, ungrouped, walk } from "../syntax/index.ts";
import { operationOf } from "../text/index.ts";
import type { Facts, MessageCode, TextRange, Value } from "../values/index.ts";
import { isFailure } from "../values/index.ts";

/** What a note is made from: the program, and what it gives on each row of the sample. */
interface Asked {
  readonly program: Program;
  readonly sample: Sample;
  readonly values: readonly Value[];
}

type Operation = Bound & BoundOperation;

const note = (code: MessageCode, range: TextRange, facts: Facts = {}, fixes: readonly Fix[] = []): Diagnostic => ({
  code,
  severity: "warning",
  range,
  facts,
  fixes,
});

const writing = (range: TextRange, text: string): Fix => ({ title: `Write ${text}`, edits: [{ range, text }] });

/** The value of a part that is the same on every row, and the part itself. */
function constantOf(input: Operation["inputs"][number]): { value: Value; part: Bound } | undefined {
  if (!input || !("kind" in input)) return undefined;
  const part = unconverted(input);
  return part.kind === "constant" ? { value: part.value, part } : undefined;
}

/** What stands in a slot of an operation, by the slot's name. */
const slotOf = (operation: Operation, name: string): Operation["inputs"][number] =>
  operation.inputs[operationOf(operation.operation).slots.findIndex((slot) => slot.name === name)];

const textOf = (program: Program, { range }: Expression): string => program.source.slice(range.start, range.end);

/** `= null`, which is true of nothing. */
function comparedWithNull({ program }: Asked): Diagnostic[] {
  return [...walk(program.tree)].flatMap((node) => {
    const sign = signOf(node, program.source);
    if (node.kind !== "call" || sign === undefined || !["=", "==", "<>", "!="].includes(sign)) return [];
    const at = node.args.map(ungrouped).findIndex((arg) => arg.kind === "literal" && arg.value === null);
    if (at < 0) return [];
    const text = `${textOf(program, node.args[1 - at])} is ${sign.startsWith("=") ? "" : "not "}null`;
    return [note("null-compared", node.range, { name: sign }, [writing(node.range, text)])];
  });
}

/** A text where a condition belongs: `a = 'x' or 'y'`. */
function textAsCondition(operation: Operation): Diagnostic[] {
  if (operation.operation !== "connect") return [];
  return operation.inputs.flat().flatMap((input) => {
    const found = constantOf(input);
    const isText = found?.part.source.kind === "literal" && typeof found.part.source.value === "string";
    return found && isText ? [note("text-as-condition", found.part.source.range, {})] : [];
  });
}

/** The slots that hold a position or an ordinal, by operation. */
const positions: Readonly<Partial<Record<string, string>>> = { slice: "start", locate: "start", segment: "n", item: "position" };

/** A 0 that is written as a position, which starts at 1. */
function zeroIn(position: Operation["inputs"][number]): Diagnostic[] {
  const found = constantOf(position);
  if (found?.part.source.kind !== "literal" || kindOfOutcome(found.value) !== "number" || Number(found.value) !== 0) return [];
  const { range } = found.part.source;
  return [note("counts-from-one", range, {}, [writing(range, "1")])];
}

/** A position of 0 where counting starts at 1. */
function startingAtZero(operation: Operation): Diagnostic[] {
  const slot = positions[operation.operation];
  return slot === undefined || operation.answers.first === "0" ? [] : zeroIn(slotOf(operation, slot));
}

/** The item 0 of a list, by a filter. */
const itemZero = ({ program }: Asked): Diagnostic[] =>
  allPartsOf(program.bound).flatMap((part) =>
    part.kind === "control" && part.control.form === "filter" ? zeroIn(part.children[1]) : [],
  );

/** Pattern languages that are taken for each other: their own wildcards, and those of the other with what is meant. */
const wildcards: readonly { pattern: string; own: RegExp; foreign: RegExp; meant: Readonly<Record<string, string>> }[] = [
  { pattern: "like", own: /[%_]/, foreign: /[*?]/g, meant: { "*": "%", "?": "_" } },
  { pattern: "glob", own: /[*?[]/, foreign: /%/g, meant: { "%": "*" } },
];

/** Wildcards of another pattern language. */
function foreignWildcards(operation: Operation, { program }: Asked): Diagnostic[] {
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
function foreignGroups(operation: Operation, { program }: Asked): Diagnostic[] {
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
function quotedColumns({ program, sample }: Asked): Diagnostic[] {
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
function namesAsTexts({ program, sample }: Asked): Diagnostic[] {
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
        near.map((text) => writing(range, text)),
      ),
    ];
  });
}

/** A pattern where a text is searched for as it is. */
function patternAsText(operation: Operation): Diagnostic[] {
  if (operation.answers.pattern !== "literal" && operation.operation !== "segment") return [];
  return ["old", "needle", "delimiter"].flatMap((slot) => {
    const found = constantOf(slotOf(operation, slot));
    if (typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
    const isPattern = /\\[dswDSWb]|\[[^\]]{2,}\]|\.[*+]|[^|]\|[^|]/.test(found.value);
    return isPattern ? [note("pattern-as-text", found.part.source.range, { text: found.value })] : [];
  });
}

/** A text that is found on no row, and on some in other letters. */
function otherCase(operation: Operation, { sample }: Asked): Diagnostic[] {
  if (operation.answers.case !== "minded" || operation.answers.pattern !== "literal") return [];
  const text = slotOf(operation, "text");
  const inner = text && "kind" in text ? unconverted(text) : undefined;
  const found = constantOf(slotOf(operation, "needle") ?? slotOf(operation, "old"));
  if (inner?.kind !== "column" || typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
  const texts = sample.columns[inner.column].values.filter((value) => typeof value === "string");
  const wanted = found.value;
  if (wanted === "" || texts.some((value) => value.includes(wanted))) return [];
  const there = texts.find((value) => value.toLowerCase().includes(wanted.toLowerCase()));
  return there === undefined ? [] : [note("other-case", found.part.source.range, { text: wanted, there })];
}

/** A text beside an equals sign that no row has, and one has in other letters or with spaces around it. */
function otherText(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const { source } = operation;
  if (source.kind !== "call" || signOf(source, program.source) !== "=") return [];
  const sides = ["a", "b"].map((name) => slotOf(operation, name));
  const found = sides.map(constantOf).find((side) => typeof side?.value === "string");
  const column = sides
    .flatMap((side) => (side && "kind" in side ? [unconverted(side)] : []))
    .find(({ kind }) => kind === "column");
  if (column?.kind !== "column" || typeof found?.value !== "string" || found.part.source.kind !== "literal") return [];
  const wanted = found.value;
  const bare = (text: string) => text.trim().toLowerCase();
  const texts = sample.columns[column.column].values.filter((value) => typeof value === "string");
  const isTrue = (text: string) => text === wanted || (operation.answers.case !== "minded" && bare(text) === bare(wanted));
  const there = texts.find((text) => bare(text) === bare(wanted));
  return there === undefined || texts.some(isTrue) ? [] : [note("other-case", found.part.source.range, { text: wanted, there })];
}

/** Which part of a text wildcards at its ends leave open, by the task that is meant. */
const openEnds = { "01": "startsWith", "10": "endsWith", "11": "contains" } as const;

/** A text with wildcards at its ends beside an equals sign, for which they are characters; one that a row holds is meant so. */
function wildcardsCompared(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const { source } = operation;
  if (signOf(source, program.source) !== "=" || source.kind !== "call") return [];
  const sides = ["a", "b"].map((name) => slotOf(operation, name));
  const found = sides.map(constantOf).find((side) => typeof side?.value === "string");
  const column = sides
    .flatMap((side) => (side && "kind" in side ? [unconverted(side)] : []))
    .find(({ kind }) => kind === "column");
  if (column?.kind !== "column" || typeof found?.value !== "string") return [];
  const [, before, inner, after] = /^([*%]?)([^*%?]+)([*%]?)$/.exec(found.value) ?? [];
  const task = openEnds[`${before ? 1 : 0}${after ? 1 : 0}` as keyof typeof openEnds];
  const isThere = sample.columns[column.column].values.some((value) => typeof value === "string" && /[*%]/.test(value));
  if (inner === undefined || !task || isThere) return [];
  const { dialect } = program;
  const template = templateOf(task, dialect.id);
  const parts = {
    text: { text: textOf(program, column.source), isOpen: false },
    needle: { text: dialect.textLiteral(inner), isOpen: false },
  };
  const fixes = template === undefined ? [] : [writing(source.range, filled(template, parts))];
  return [note("wildcard-compared", source.range, { text: found.value }, fixes)];
}

/** A separator that stands last, with a column in its place: it comes first, and the column is joined. */
function separatorLast(operation: Operation, { program }: Asked): Diagnostic[] {
  const [separator, items] = [slotOf(operation, "separator"), slotOf(operation, "items")];
  const { row, source } = operation;
  if (operation.operation !== "join" || !separator || !("kind" in separator) || !items || "kind" in items) return [];
  const last = constantOf(items.at(-1));
  const isMark = typeof last?.value === "string" && /^[^\p{L}\p{N}]+$/u.test(last.value);
  if (!isMark || unconverted(separator).kind !== "column" || source.kind !== "call") return [];
  const [start, end] = ["separator", "items"].map((slot) => row?.parameters.findIndex((each) => each.slot === slot) ?? -1);
  if (start < 0 || end <= start) return [];
  const texts = source.args.map((arg) => textOf(program, arg));
  const ordered = [...texts.slice(0, end).with(start, texts.at(-1)!), texts[start], ...texts.slice(end, -1)];
  const range = { start: source.args[0].range.start, end: source.args.at(-1)!.range.end };
  const fix = writing(range, ordered.join(`${program.dialect.separator} `));
  return [note("separator-first", last.part.source.range, { text: last.value }, [fix])];
}

/** Texts that are ordered beside a number that is written as a text. */
function orderedAsTexts(operation: Operation, { program, sample }: Asked): Diagnostic[] {
  const { source } = operation;
  if (!operation.operation.startsWith("compare") || source.kind !== "call" || !/^(?:[<>]=?|[lg][te])$/.test(source.name))
    return [];
  const sides = ["a", "b"].map((name) => slotOf(operation, name));
  const written = sides.map(constantOf).find((side) => typeof side?.value === "string" && isNumberText(side.value));
  const column = sides
    .flatMap((side) => (side && "kind" in side ? [unconverted(side)] : []))
    .find(({ kind }) => kind === "column");
  if (!written || column?.kind !== "column") return [];
  const isText = sample.columns[column.column].values.every((value) => value === null || typeof value === "string");
  const name = program.dialect.columnText(sample.columns[column.column].name);
  return isText ? [note("ordered-as-texts", source.range, { column: name })] : [];
}

/** A backslash that the text literal takes away from the pattern. */
function lostEscapes({ program }: Asked): Diagnostic[] {
  return allPartsOf(program.bound).flatMap((part) => {
    if (part.kind !== "constant" || part.source.kind !== "literal" || typeof part.value !== "string") return [];
    const written = textOf(program, part.source);
    const lost = /(?<!\\)\\[dDwWsSpP.$^*+?()[\]{}|1-9]/.exec(written);
    if (!lost || part.value.includes("\\")) return [];
    const text = written.replace(/(?<!\\)\\(?!\\)/g, "\\\\");
    return [note("lost-escape", part.source.range, { sign: lost[0] }, [writing(part.source.range, text)])];
  });
}

const isNumberText = (text: string): boolean => text.trim() !== "" && Number.isFinite(Number(text));

/** Signs that join texts elsewhere, and do something else to numbers or truths here. */
const joining = new Set(["+", "||", "&"]);

/** Operations that such a sign is taken for. */
const notJoining = new Set(["calculate", "connect", "bits"]);

/** The sign of a call of two parts, as it is written. */
function signOf(node: Expression, source: string): string | undefined {
  if (node.kind !== "call" || node.notation !== "operator" || node.args.length !== 2) return undefined;
  return source.slice(node.args[0].range.end, node.args[1].range.start).trim();
}

/** The parts that are joined by one sign, from left to right. */
function chainOf(node: Expression, sign: string, source: string): Expression[] {
  const inner = ungrouped(node);
  return inner.kind === "call" && signOf(inner, source) === sign
    ? inner.args.flatMap((arg) => chainOf(arg, sign, source))
    : [node];
}

/** Texts beside a sign that does not join here. */
function joinedOtherwise({ program }: Asked): Diagnostic[] {
  const template = templateOf("join", program.dialect.id);
  for (const part of allPartsOf(program.bound)) {
    const sign = signOf(part.source, program.source);
    const isWrong =
      sign !== undefined &&
      joining.has(sign) &&
      (part.kind === "operation" ? notJoining.has(part.operation) : part.kind === "constant" && isFailure(part.value));
    if (template === undefined || !isWrong) continue;
    const parts = chainOf(part.source, sign, program.source);
    const literals = parts
      .map(ungrouped)
      .flatMap((each) => (each.kind === "literal" && typeof each.value === "string" ? [each.value] : []));
    if (!literals.some((text) => !isNumberText(text))) continue;
    const text = joinedAs(
      template,
      parts.map((each) => ({ text: textOf(program, each), isOpen: false })),
    );
    return [note("joins-not", part.source.range, { name: sign }, [writing(part.source.range, text)])];
  }
  return [];
}

/** The fewest rows of which it says something that all give the same. */
const fewestRows = 3;

/** Operations that give true or false, in whatever form. */
const conditions: ReadonlySet<string> = new Set(["is", "distinct", "not", "connect", "truth-of", "test", "compare"]);

/** One result on all rows, though what is read differs; what is only true or false, and what is made of all rows, may be so. */
function sameEverywhere({ program, sample, values }: Asked): Diagnostic[] {
  const read = [...columnsUsed(program)];
  const [first] = values;
  // What a choice gives depends on which rows there are.
  if (read.length === 0 || program.readsWholeColumns || program.bound.kind === "control" || values.length < fewestRows) return [];
  const isFirst = (value: Value) => agree(value, first) && !(isFailure(value) && isFailure(first) && value.code !== first.code);
  if (!values.every(isFirst)) return [];
  const inputs = new Set(values.map((_, row) => JSON.stringify(read.map((i) => String(sample.columns[i].values[row])))));
  const { bound } = program;
  const made = bound.kind === "convert" ? bound.inner : bound;
  const isTruth =
    typeof first === "boolean" || (made.kind === "operation" && ("truth" in made.answers || conditions.has(made.operation)));
  const missing = values.filter((_, row) => read.some((i) => sample.columns[i].values[row] === null)).length;
  if (inputs.size < fewestRows || (first === null && missing > 0) || (isTruth && !isFailure(first))) return [];
  const columns = read.map((i) => program.dialect.columnText(sample.columns[i].name));
  const result = isFailure(first) ? `an error (${message(first).replace(/\.$/, "")})` : showValue(first);
  return [note("same-everywhere", program.tree.range, { result, rows: values.length, columns })];
}

/** Operations that put something in the place of what they find. */
const replacing: ReadonlySet<string> = new Set(["substitute", "translate"]);

/** A replacement that changes no row, as what it looks for stands in none. */
function nothingReplaced({ program: { bound }, sample, values }: Asked): Diagnostic[] {
  const part = unconverted(bound);
  if (part.kind !== "operation" || !replacing.has(part.operation) || values.length < fewestRows) return [];
  const text = slotOf(part, "text");
  const column = text && "kind" in text ? unconverted(text) : undefined;
  const place = ["old", "from", "pattern"].map((name) => constantOf(slotOf(part, name))).find((each) => each !== undefined);
  if (column?.kind !== "column" || typeof place?.value !== "string" || place.part.source.kind !== "literal") return [];
  const given = sample.columns[column.column].values;
  const isTouched = given.some((value, row) => value !== values[row]);
  return isTouched || given.every((value) => typeof value !== "string")
    ? []
    : [note("no-row-changed", place.part.source.range, { text: place.value, rows: values.length })];
}

const ofOperations = [
  textAsCondition,
  startingAtZero,
  foreignWildcards,
  foreignGroups,
  patternAsText,
  otherCase,
  separatorLast,
  orderedAsTexts,
  wildcardsCompared,
  otherText,
];
const ofWholes = [comparedWithNull, itemZero, quotedColumns, namesAsTexts, lostEscapes, joinedOtherwise];

/**
 * What an expression that is accepted may not mean, each with its place and, where what was meant is known, the mend: a text that is a
 * column's name, another language's wildcard, group or escape, `= null`, a position of 0, what is an error wherever it is reached, a sign that does not join here, a text
 * that is found nowhere, a replacement that changes no row, one result on every row. `values` are what it gives on the rows of the sample, `program.run(sample)`.
 *
 * @returns warnings, in the order of their places; none for a program that cannot run
 */
export function notesOf(program: Program, sample: Sample, values: readonly Value[]): Diagnostic[] {
  if (!program.ok) return [];
  const asked: Asked = { program, sample, values };
  const operations = allPartsOf(program.bound).flatMap((part) => (part.kind === "operation" ? [part] : []));
  const found = [
    ...alwaysFailing(program, values),
    ...ofWholes.flatMap((ask) => ask(asked)),
    ...operations.flatMap((operation) => ofOperations.flatMap((ask) => ask(operation, asked))),
  ];
  const places = new Map(found.map((each) => [`${each.code} ${each.range.start}`, each]));
  const told = [...places.values()].sort((a, b) => a.range.start - b.range.start);
  return told.length > 0 ? told : [...nothingReplaced(asked), ...sameEverywhere(asked)];
}
