import type { Fix } from "../diagnostics/index.ts";
import {
  type FunctionRow,
  decisionText,
  functionsNamed,
  isPure,
  namesOf,
  signature,
  signatureWithPlaces,
} from "../dialects/row.ts";
import type { Dialect } from "../dialects/dialect.ts";
import type { Sample, TraceStep } from "../evaluate/index.ts";
import { type Family, families } from "../text/index.ts";
import { type TraitId, describeTrait } from "../traits/index.ts";
import type { TextRange } from "../values/index.ts";
import { freeNames, templateParts, wordsIn } from "../syntax/index.ts";
import { tasksOf } from "./find.ts";
import { aboutParameter } from "./parameters.ts";

/** A way in which the call around the caret may be written. */
export interface CallHelp {
  readonly signature: string;
  readonly summary: string;
  /** The parameters, what each is for, and where each stands in the signature, 0-based. */
  readonly parameters: readonly {
    readonly name: string;
    readonly type: string;
    readonly about: string;
    readonly range: TextRange;
  }[];
  /** The parameter that the caret stands at, 0-based; undefined beyond the last. */
  readonly current: number | undefined;
}

/** Something that may be written at the caret. */
export interface Completion {
  readonly text: string;
  readonly kind: "column" | "function" | "task" | "value";
  /** What it is, in a line. */
  readonly about: string;
  /** Of a function: what it is browsed under. */
  readonly family?: Family;
  /** What it takes the place of, 0-based, in UTF-16 units. */
  readonly range: TextRange;
}

/** What is known of a word. */
export interface Hover {
  readonly range: TextRange;
  readonly lines: readonly string[];
}

/** A call that is open at the caret: its name, and the words and separators between its arguments up to there. */
interface OpenCall {
  readonly name: string;
  readonly between: string[];
}

/** Where the caret stands in a text that may be half written. */
interface Place {
  /** The calls that are open there, the innermost last. */
  readonly calls: readonly OpenCall[];
  /** Where the literal that is open there begins, after its quote. */
  readonly literal: number | undefined;
}

const nameChars = "[\\p{L}\\p{N}_.:$-]";
const wordBefore = new RegExp(`${nameChars}*$`, "u");
const wordAfter = new RegExp(`^${nameChars}*`, "u");

/** Reads up to the caret: brackets, separators, quotes; a name before an opening bracket is a call's. */
function placeAt(text: string, offset: number): Place {
  const calls: OpenCall[] = [];
  let quote: { readonly sign: string; readonly start: number } | undefined;
  for (let i = 0; i < offset; i++) {
    const char = text[i];
    if (quote) {
      if (char === quote.sign) quote = undefined;
    } else if (char === "'" || char === '"' || char === "`") quote = { sign: char, start: i + 1 };
    else if (char === "(" || char === "[" || char === "{")
      calls.push({ name: char === "(" ? wordBefore.exec(text.slice(Math.max(0, i - 60), i).trimEnd())![0] : "", between: [] });
    else if (char === ")" || char === "]" || char === "}") calls.pop();
    else if (char === "," || char === ";") calls.at(-1)?.between.push(",");
    else if (/[a-z]/i.test(char) && calls.length > 0) {
      const [word] = /^[\w$]+/.exec(text.slice(i, Math.min(offset, i + 60)))!;
      calls.at(-1)!.between.push(word.toLowerCase());
      i += word.length - 1;
    }
  }
  return { calls, literal: quote?.start };
}

const clamped = (text: string, offset: number): number => Math.min(Math.max(0, Math.trunc(offset) || 0), text.length);

function helpOf(found: FunctionRow, { name: written, between }: OpenCall, dialect: Dialect): CallHelp {
  const name = namesOf(found).find((own) => own.toLowerCase() === written.toLowerCase()) ?? found.name;
  const row = { ...found, name };
  const { text, places } = signatureWithPlaces(row, dialect);
  const parameters = row.parameters.flatMap((parameter, i) => {
    const { name, type } = parameter;
    return places[i] ? [{ name, type, about: aboutParameter(row, parameter), range: places[i] }] : [];
  });
  const last = parameters.length - 1;
  const template = Object.hasOwn(dialect.calls, row.name) ? dialect.calls[row.name] : undefined;
  const argument = template === undefined ? between.filter((sign) => sign === ",").length : argumentAfter(between, template);
  const current = argument <= last ? argument : row.parameters[last]?.repeats ? last : undefined;
  return { signature: text, summary: row.summary, parameters, current };
}

/** The argument of a call with words between them, 0-based, behind those that have been written. */
function argumentAfter(between: readonly string[], template: string): number {
  const { parts } = templateParts(template);
  const marked = parts.map(({ before, place }, i) => ({ sign: wordsIn((parts[i - 1]?.after ?? "") + before)[0], place }));
  const first = parts.find(({ isOptional }) => !isOptional)!.place;
  // Some are called in the plain way, too.
  const after = (place: number, sign: string) =>
    marked.find((part) => part.sign === sign)?.place ?? (sign === "," ? place + 1 : place);
  return between.reduce(after, first) - 1;
}

/** Forms of syntax that are written like calls: `cast(text as integer)`. */
const formsNamed = (name: string, dialect: Dialect): CallHelp[] =>
  tasksOf(dialect)
    .filter(({ written }) => written.toLowerCase().startsWith(`${name.toLowerCase()}(`))
    .map(({ written, does }) => ({ signature: written, summary: `Gives ${does}.`, parameters: [], current: undefined }));

/**
 * How the call around the caret is written, with the argument that the caret stands in; ways that take so many arguments first.
 *
 * @param offset 0-based, in UTF-16 units; one beyond the text is at its end
 * @returns none where the caret stands in no call of a function of the dialect
 */
export function callAt(text: string, offset: number, dialect: Dialect): CallHelp[] {
  const call = placeAt(text, clamped(text, offset)).calls.findLast(({ name }) => name !== "");
  if (!call) return [];
  const ways = functionsNamed(dialect.rows, call.name).map((row) => helpOf(row, call, dialect));
  const all = ways.length > 0 ? ways : formsNamed(call.name, dialect);
  const unique = [...new Map(all.map((way) => [way.signature, way])).values()];
  return unique.sort((a, b) => Number(a.current === undefined) - Number(b.current === undefined));
}

/** The most completions of each kind. */
const most = 20;

/** Values that a column holds, each once, that begin as it is written. */
function valuesOf(sample: Sample, name: string, begun: string): string[] {
  const column = sample.columns.find((each) => each.name === name);
  const texts = (column?.values ?? []).filter((value): value is string => typeof value === "string");
  return [...new Set(texts)].filter((text) => text.toLowerCase().startsWith(begun.toLowerCase())).slice(0, most);
}

/**
 * What may be written at the caret: columns, functions with what they take, and what authors do as the dialect says it; within a text,
 * the values of the column that stands nearest before it.
 *
 * @param offset 0-based, in UTF-16 units; one beyond the text is at its end
 */
export function completionsAt(text: string, offset: number, dialect: Dialect, sample: Sample): Completion[] {
  const at = clamped(text, offset);
  const { literal } = placeAt(text, at);
  if (literal !== undefined) {
    const before = text.slice(Math.max(0, literal - 200), literal);
    const named = sample.columns
      .map(({ name }) => ({ name, place: before.lastIndexOf(dialect.columnText(name)) }))
      .filter(({ place }) => place >= 0)
      .sort((a, b) => b.place - a.place);
    const range = { start: literal, end: at };
    return named.slice(0, 1).flatMap(({ name }) =>
      valuesOf(sample, name, text.slice(literal, at)).map((value): Completion => ({
        text: value,
        kind: "value",
        about: `a value of ${name}`,
        range,
      })),
    );
  }
  const begun = wordBefore.exec(text.slice(0, at))![0];
  const range = { start: at - begun.length, end: at };
  const wanted = begun.toLowerCase().replace(/^\$/, "");
  const begins = (name: string) =>
    name
      .toLowerCase()
      .replace(/^["'`$]/, "")
      .startsWith(wanted);
  const columns = sample.columns.flatMap(({ name, values }): Completion[] => {
    const written = dialect.columnText(name);
    const example = values.find((value) => value !== null);
    return begins(name)
      ? [
          {
            text: written,
            kind: "column",
            about: `a column${example === undefined ? "" : `, such as ${String(example)}`}`,
            range,
          },
        ]
      : [];
  });
  const rows = new Map(
    dialect.rows.filter((row) => row.notation !== "operator" && begins(row.name)).map((row) => [row.name, row]),
  );
  const functions = [...rows.values()].map((row): Completion => ({
    text: row.name,
    kind: "function",
    about: `${signature(row, dialect)}: ${row.summary}`,
    family: row.family,
    range,
  }));
  functions.sort((a, b) => families.indexOf(a.family!) - families.indexOf(b.family!));
  const tasks =
    wanted.length < 2
      ? []
      : tasksOf(dialect)
          .filter(({ task }) => task!.toLowerCase().startsWith(wanted))
          .map(({ written, does }): Completion => ({ text: written, kind: "task", about: does, range }));
  return [columns, functions, tasks].flatMap((found) => found.slice(0, most));
}

/**
 * The innermost step of a trace around the caret, of those that were needed.
 *
 * @param steps what `program.trace` gives for a row, or what stands at ranges as its steps do
 * @param offset 0-based, in UTF-16 units
 */
export const stepAt = <T extends Pick<TraceStep, "range"> & { readonly values: readonly unknown[] }>(
  steps: readonly T[],
  offset: number,
): T | undefined =>
  steps
    .filter(({ range, values }) => range.start <= offset && offset <= range.end && values.length > 0)
    .sort((a, b) => a.range.end - a.range.start - (b.range.end - b.range.start))[0];

/** What a function does in particular: its answers, each with what follows. */
const answersOf = (answers: Readonly<Record<string, string>>): string[] =>
  Object.entries(answers).map(([id, answer]) => `${id}: ${answer}. ${describeTrait(id as TraitId).answers[answer] ?? ""}`.trim());

/** The edits that give a column another name throughout, or why it may not have it. */
export type Renaming = { readonly column: string; readonly edits: Fix["edits"] } | { readonly refused: string };

/** The names in a text that are no variables of its own, each with the variables that hold there. */
const freeNamesIn = (text: string, dialect: Dialect) => [...freeNames(dialect.parse(text).tree, [])];

/**
 * Another name for the column at the caret, wherever the expression reads it; also in a text that is half written.
 *
 * @param offset 0-based, in UTF-16 units; one beyond the text is at its end
 * @returns undefined where no column stands there
 */
export function renameAt(text: string, offset: number, dialect: Dialect, sample: Sample, to: string): Renaming | undefined {
  const at = clamped(text, offset);
  const named = freeNamesIn(text, dialect).find(({ node: { range } }) => range.start <= at && at <= range.end)?.node.name;
  const column = sample.columns.find(({ name }) => named !== undefined && dialect.namesColumn(named, name))?.name;
  return column === undefined ? undefined : renamed(text, column, dialect, sample, to);
}

/** Another name for a column, wherever an expression reads it; no edits where it does not. */
export function renamed(text: string, column: string, dialect: Dialect, sample: Sample, to: string): Renaming {
  if (to === "") return { refused: "a column needs a name" };
  const written = dialect.columnText(to);
  if (to !== column && sample.columns.some(({ name }) => dialect.namesColumn(name, to) || name === to))
    return { refused: `there is a column ${written} already` };
  const places = freeNamesIn(text, dialect).filter(({ node }) => dialect.namesColumn(node.name, column));
  if (places.some(({ scope }) => scope.some((variable) => dialect.namesColumn(variable, to))))
    return { refused: `a variable of the expression is called ${to}` };
  const ranges = new Map(places.map(({ node: { range } }) => [range.start, range]));
  return { column, edits: [...ranges.values()].map((range) => ({ range, text: written })) };
}

/**
 * What is known of the word at the caret: how a function is written and what it gives, or what a column holds.
 *
 * @param offset 0-based, in UTF-16 units; one beyond the text is at its end
 * @returns undefined where there is no such word
 */
export function hoverAt(text: string, offset: number, dialect: Dialect, sample: Sample): Hover | undefined {
  const at = clamped(text, offset);
  if (placeAt(text, at).literal !== undefined) return undefined;
  const [before, after] = [wordBefore.exec(text.slice(0, at))![0], wordAfter.exec(text.slice(at))![0]];
  const range = { start: at - before.length, end: at + after.length };
  const word = before + after;
  const column = sample.columns.find(({ name }) => word !== "" && dialect.namesColumn(word, name));
  if (column) {
    const all = new Set(column.values.filter((value) => value !== null).map(String));
    const values = [...all].slice(0, 3);
    const nothing = column.values.filter((value) => value === null).length;
    return {
      range,
      lines: [
        `the column ${column.name}: ${values.join(" · ")}${all.size > 3 ? " · …" : ""}`,
        ...(nothing > 0 ? [`nothing on ${nothing} of ${sample.rows} rows`] : []),
      ],
    };
  }
  const rows = functionsNamed(dialect.rows, word);
  const lines = rows.flatMap((row) => [
    signature(row, dialect),
    row.summary,
    ...(isPure(row) ? answersOf(row.answers) : [decisionText(row) ?? []].flat()),
  ]);
  return lines.length > 0 ? { range, lines: [...new Set(lines)] } : undefined;
}
