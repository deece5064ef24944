/** Notes on what is searched for: where it is found nowhere, searched the wrong way round, or taken with the result. */
import { filled, templateOf } from "../../dialects/tasks/index.ts";
import { type Diagnostic, type Fix, applyFix } from "../../diagnostics/index.ts";
import { type Bound, allPartsOf, plus } from "../../evaluate/index.ts";
import { withAnswers } from "../../contrast/index.ts";
import { operationOf } from "../../text/index.ts";
import { type Value, isFailure } from "../../values/index.ts";
import {
  type Asked,
  type Operation,
  constantOf,
  inner,
  note,
  signOf,
  slotOf,
  textOf,
  valuesOf,
  valuesOn,
  writing,
} from "./asked.ts";

/** The fewest rows of which it is said that something holds on none, or on all. */
const fewestRows = 4;

const isText = (value: Value | undefined): value is string => typeof value === "string";
const isFound = (value: Value): boolean => value !== null && value !== false && !isFailure(value) && Number(value) !== 0;

/** What a condition that does not hold gives: an error is another matter. */
const isNone = (value: Value): boolean => !isFound(value) && !isFailure(value);

/** On how many of some rows a search finds something. */
const found = (values: readonly Value[]): number => values.filter(isFound).length;

/** How many different texts there are. */
const variety = (values: readonly Value[]): number => new Set(values.filter(isText)).size;

/** A text that is written in a slot. */
function writtenIn(operation: Operation, slot: string): { readonly text: string; readonly part: Bound } | undefined {
  const constant = constantOf(slotOf(operation, slot));
  return isText(constant?.value) && constant.part.source.kind === "literal"
    ? { text: constant.value, part: constant.part }
    : undefined;
}

/** The same parts in another order. */
function reordered({ program }: Asked, parts: readonly Bound[], order: readonly Bound[]): Fix {
  const edits = parts.map(({ source }, i) => ({ range: source.range, text: textOf(program, order[i].source) }));
  return { title: `Write ${edits.map(({ text }) => text).join(`${program.dialect.separator} `)}`, edits };
}

/** The slots that hold what is searched for, or taken away, by operation. */
const sought: Readonly<Record<string, string>> = {
  locate: "needle",
  test: "needle",
  trim: "characters",
  segment: "delimiter",
};

/** A search within a text that is written for a column, where the other way round it is found. */
export function searchedInText(operation: Operation, asked: Asked): Diagnostic[] {
  const slot = sought[operation.operation];
  const written = slot && writtenIn(operation, "text");
  const column = slot && inner(slotOf(operation, slot));
  if (!written || !column || column.kind !== "column") return [];
  const fix = reordered(asked, [written.part, column], [column, written.part]);
  // Empty text is found in any.
  const given = asked.sample.columns[column.column].values;
  const [now, then] = [undefined, fix].map((each) => valuesOf(asked, operation, each).filter((_, row) => given[row] !== ""));
  // A text without its delimiter may be given whole.
  const [before, after] = operation.operation === "segment" ? [variety(now) - 1, variety(then)] : [found(now), found(then)];
  if (10 * before > now.length || after <= before + 1) return [];
  const facts = { text: written.text, column: textOf(asked.program, column.source), rows: found(then) };
  return [note("searched-in-text", operation.source.range, facts, [fix])];
}

/** A replacement within a text that is written, with a column in another place. */
export function replacedInText(operation: Operation, asked: Asked): Diagnostic[] {
  const written = operation.operation === "substitute" ? writtenIn(operation, "text") : undefined;
  const [old, by] = ["old", "new"].map((slot) => inner(slotOf(operation, slot)));
  if (!written || !old || !by || (old.kind === "column") === (by.kind === "column")) return [];
  const [column, other] = old.kind === "column" ? [old, by] : [by, old];
  const fix = reordered(asked, [written.part, old, by], [column, written.part, other]);
  const facts = { text: written.text, column: textOf(asked.program, column.source) };
  return [note("replaced-in-text", operation.source.range, facts, [fix])];
}

/** A text as LIKE has it, open where it does not begin or end the whole. */
const likeOf = (begins: boolean, inner: string, ends: boolean): string =>
  `${begins ? "" : "%"}${inner}${ends ? "" : "%"}`.replace(/%%+/g, "%");

/** What may be meant by a pattern that fits nothing: by LIKE without a wildcard, by a regular expression there, by LIKE's wildcards in one. */
function patternsMeant(text: string, isLike: boolean): readonly string[] {
  if (!isLike) {
    const [, open, inner, close] = /^(%?)([\p{L}\p{N} ,;:#/_-]+)(%?)$/u.exec(text) ?? [];
    if (inner === undefined || open + close === "") return [];
    return [`${open ? "" : "^"}${inner}${close ? "" : "$"}`, text.replaceAll("%", ".*")];
  }
  if (/^[^%_\\^$.*+?()[\]{}|]+$/.test(text))
    return [likeOf(true, text, false), likeOf(false, text, true), likeOf(false, text, false)];
  const [, start, inner, end] = /^(\^?)((?:[^\\^$.*+?()[\]{}|%_]|\.\*)+)(\$?)$/.exec(text) ?? [];
  return inner === undefined ? [] : [likeOf(start !== "", inner.replaceAll(".*", "%"), end !== "")];
}

/** A condition that asks a text for another and holds on no row, with what would hold on some. */
export function neverHolds(operation: Operation, asked: Asked): Diagnostic[] {
  const { dialect } = asked.program;
  const written = operation.operation === "test" ? writtenIn(operation, "needle") : undefined;
  const subject = inner(slotOf(operation, "text"));
  if (!written || !subject || subject.kind === "constant") return [];
  const now = valuesOf(asked, operation);
  if (now.length < fewestRows || !now.every(isNone)) return [];
  const { range } = written.part.source;
  const pattern = operation.answers.pattern ?? "literal";
  const isLike = pattern.startsWith("like");
  // What stands for one of many characters may be asked of a whole text.
  const isOpen = !/^\^|\$$/.test(written.text) && /[\p{L}\p{N}]/u.test(written.text.replaceAll(/\\./g, ""));
  const within = isLike || !isOpen ? [] : [`.*${written.text}.*`];
  const meant = ["literal", "glob"].includes(pattern) ? [] : [...patternsMeant(written.text, isLike), ...within];
  const [better] = meant
    .map((text) => {
      const fix = writing(range, dialect.textLiteral(text));
      return { text, fix, rows: found(valuesOf(asked, operation, fix)) };
    })
    .filter(({ rows }) => rows > 0)
    .sort((a, b) => b.rows - a.rows);
  if (better) return [note("fits-nothing", range, { text: written.text, wanted: better.text, rows: better.rows }, [better.fix])];
  const small = inOtherLetters(operation, subject, written, asked);
  return small.length > 0 ? small : nowhere(operation, now.length);
}

/** Texts that have nothing in common. */
const unlike = ["", "\u0001", "a b", "7"];

/** A pattern that fits every text, as a part of it fits nothing at all. */
export function fitsEverything(operation: Operation): Diagnostic[] {
  const written = operation.operation === "test" ? writtenIn(operation, "needle") : undefined;
  if (!written || (operation.answers.pattern ?? "literal") === "literal") return [];
  const { slots } = operationOf("test");
  const others = operation.inputs.map((input, i) => (slots[i].name === "text" ? { value: "" } : input && constantOf(input)));
  if (operation.inputs.some((input, i) => input !== undefined && others[i] === undefined)) return [];
  const holds = (text: string) =>
    isFound(
      withAnswers(
        operation,
        others.map((each, i) => (slots[i].name === "text" ? text : each?.value)),
        operation.answers,
      ),
    );
  return unlike.every(holds) ? [note("fits-everything", written.part.source.range, { text: written.text })] : [];
}

/** The fewest rows of which it is said that they have not what is asked for, which may be rare. */
const fewestForNone = 20;

const nowhere = ({ source }: Operation, rows: number): Diagnostic[] =>
  rows < fewestForNone ? [] : [note("never-holds", source.range, { rows })];

/** An equality with a text that holds on no row. */
export function neverEqual(operation: Operation, asked: Asked): Diagnostic[] {
  if (signOf(operation.source, asked.program.source) !== "=") return [];
  const written = writtenIn(operation, "a") ?? writtenIn(operation, "b");
  const subject = ["a", "b"].map((slot) => inner(slotOf(operation, slot))).find((part) => part && part !== written?.part);
  if (!written || !subject || subject.kind === "constant") return [];
  const now = valuesOf(asked, operation);
  if (!now.every(isNone)) return [];
  const small = subject.source.kind === "call" ? inOtherLetters(operation, subject, written, asked) : [];
  return small.length > 0 ? small : nowhere(operation, now.length);
}

/** What holds if the text is written in other letters, or neither side minds upper and lower case. */
function inOtherLetters(
  operation: Operation,
  { source }: Bound,
  { text, part }: { readonly text: string; readonly part: Bound },
  asked: Asked,
): Diagnostic[] {
  const { program } = asked;
  const { dialect } = program;
  const write = (written: string) => writing(part.source.range, dialect.textLiteral(written));
  const lower = templateOf("lower", dialect.id);
  const subject = lower && filled(lower, { text: { text: textOf(program, source), isOpen: source.kind === "call" } });
  const small = write(text.toLowerCase());
  const both = subject && {
    title: `Write ${subject} and ${small.edits[0].text}`,
    edits: [{ range: source.range, text: subject }, ...small.edits],
  };
  for (const fix of [...(source.kind === "call" ? [small, write(text.toUpperCase())] : []), ...(both ? [both] : [])]) {
    const at = valuesOf(asked, operation, fix).findIndex(isFound);
    const there = at < 0 ? undefined : valuesOn(asked, textOf(program, source))[at];
    if (isText(there)) return [note("other-case", part.source.range, { text, there }, [fix])];
  }
  return [];
}

/** The share of the results that begin or end with it. */
const mostTaken = 0.8;

/** The longest text that is searched for of which it is asked whether it is taken. */
const longestSought = 3;

/** Results that begin or end with what is searched for: a place further, or a character less, leaves it out. */
export function delimiterTaken(asked: Asked): Diagnostic[] {
  const { program, values } = asked;
  const texts = values.filter((value) => value !== null && value !== "" && !isFailure(value));
  if (texts.length < fewestRows || !texts.every(isText) || new Set(texts).size < fewestRows) return [];
  const slices = allPartsOf(program.bound).flatMap((part) =>
    part.kind === "operation" && part.operation === "slice" ? [inner(slotOf(part, "start")), inner(slotOf(part, "length"))] : [],
  );
  return slices.flatMap((place): Diagnostic[] => {
    const sought = new Set(
      (place ? allPartsOf(place) : []).flatMap((part) =>
        part.kind === "operation" && part.operation === "locate" ? [writtenIn(part, "needle")?.text ?? ""] : [],
      ),
    );
    for (const text of sought) {
      const most = text.length > longestSought ? 0 : text.length;
      for (let size = 1; size <= most; size++) {
        for (const by of [size, -size]) {
          const fix = writing(place!.source.range, plus(textOf(program, place!.source), by));
          const [taken, verb] = takenLess(values, valuesOn(asked, applyFix(program.source, fix)), text, size) ?? [];
          if (taken !== undefined) return [note("delimiter-taken", place!.source.range, { text: taken, verb }, [fix])];
        }
      }
    }
    return [];
  });
}

/** What of the text that is searched for is left out at one end of most results by a mend that leaves them otherwise as they are. */
function takenLess(
  before: readonly Value[],
  after: readonly Value[],
  sought: string,
  size: number,
): [string, string] | undefined {
  const ends = [
    [sought.slice(-size), "begins", (text: string, taken: string) => `${taken}${text}`],
    [sought.slice(0, size), "ends", (text: string, taken: string) => `${text}${taken}`],
  ] as const;
  const rows = after.filter((value, row) => isText(value) && isText(before[row]) && before[row] !== "").length;
  const [end] = ends.filter(([taken, , whole]) => {
    const cut = after.filter((value, row) => isText(value) && before[row] === whole(value, taken)).length;
    return rows >= fewestRows && cut >= rows * mostTaken;
  });
  return end && [end[0], end[1]];
}
