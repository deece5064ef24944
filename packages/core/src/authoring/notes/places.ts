/** Notes on positions, and on what stands in the place of something else. */
import type { Diagnostic } from "../../diagnostics/index.ts";
import { type TaskId, filled, templateOf } from "../../dialects/tasks/index.ts";
import { type Bound, type Program, allPartsOf, unconverted } from "../../evaluate/index.ts";
import { kindOfOutcome } from "../../contrast/index.ts";
import { type Asked, type Operation, constantOf, inner, note, slotOf, textOf, writing } from "./asked.ts";

/** The slots that hold a position or an ordinal, by operation. */
const positions: Readonly<Partial<Record<string, string>>> = { slice: "start", locate: "start", segment: "n", item: "position" };

/** A 0 that is written as a position, which starts at 1. */
function zeroIn(position: Operation["inputs"][number]): Diagnostic[] {
  const found = constantOf(position);
  if (found?.part.source.kind !== "literal" || kindOfOutcome(found.value) !== "number" || Number(found.value) !== 0) return [];
  const { range, value } = found.part.source;
  // A text that is read as 0 is something else in the wrong place.
  if (typeof value === "string" && !/^\s*[-+]?0+(?:\.0*)?\s*$/.test(value)) return [];
  return [note("counts-from-one", range, {}, [writing(range, "1")])];
}

/** A position of 0 where counting starts at 1. */
export function startingAtZero(operation: Operation): Diagnostic[] {
  const slot = positions[operation.operation];
  return slot === undefined || operation.answers.first === "0" ? [] : zeroIn(slotOf(operation, slot));
}

/** The item 0 of a list, by a filter. */
export const itemZero = ({ program }: Asked): Diagnostic[] =>
  allPartsOf(program.bound).flatMap((part) =>
    part.kind === "control" && part.control.form === "filter" ? zeroIn(part.children[1]) : [],
  );

/** An item by its number of a column, which holds one value: no character of it. */
export function itemOfOne(part: Bound, { program }: Asked): Diagnostic[] {
  const [column, place] = part.kind === "control" && part.control.form === "filter" ? part.children.map(unconverted) : [];
  if (column?.kind !== "column" || place?.kind !== "constant" || place.source.kind !== "literal") return [];
  if (!(Number(place.value) >= 1)) return [];
  const text = textOf(program, column.source);
  const template = templateOf("slice", program.dialect.id);
  const parts = { text, start: textOf(program, place.source), count: "1" };
  const said =
    template &&
    filled(template, Object.fromEntries(Object.entries(parts).map(([slot, each]) => [slot, { text: each, isOpen: false }])));
  return [note("item-of-one", part.source.range, { column: text }, said ? [writing(part.source.range, said)] : [])];
}

/** A separator among what is joined, with a column in its place: it comes first, and the column is joined. */
export function separatorLast(operation: Operation, { program }: Asked): Diagnostic[] {
  const [separator, items] = [slotOf(operation, "separator"), slotOf(operation, "items")];
  const { row, source } = operation;
  if (operation.operation !== "join" || !separator || !("kind" in separator) || !items || "kind" in items) return [];
  const marks = items.map(constantOf);
  const isMark = (each: (typeof marks)[number]) => typeof each?.value === "string" && /^[^\p{L}\p{N}]+$/u.test(each.value);
  const mark = marks.find(isMark);
  if (!mark || marks.filter(isMark).length > 1 || unconverted(separator).kind !== "column" || source.kind !== "call") return [];
  const [start, end] = ["separator", "items"].map((slot) => row?.parameters.findIndex((each) => each.slot === slot) ?? -1);
  if (start < 0 || end <= start) return [];
  const texts = source.args.map((arg) => textOf(program, arg));
  const at = end + marks.indexOf(mark);
  const ordered = [...texts.slice(0, end).with(start, texts[at]), texts[start], ...texts.slice(end).toSpliced(at - end, 1)];
  const range = { start: source.args[0].range.start, end: source.args.at(-1)!.range.end };
  const fix = writing(range, ordered.join(`${program.dialect.separator} `));
  return [note("separator-first", mark.part.source.range, { text: String(mark.value) }, [fix])];
}

/** What is searched for in a text, where a part is the place of that, with a number more or less. */
function placeIn(part: Bound | undefined, text: string, program: Program): Operation | undefined {
  const isSum = part?.kind === "operation" && part.operation === "calculate" && constantOf(slotOf(part, "b"));
  const found = isSum ? inner(slotOf(part, "a")) : part;
  const isPlace = found?.kind === "operation" && found.operation === "locate";
  const within = isPlace ? inner(slotOf(found, "text")) : undefined;
  return isPlace && within && textOf(program, within.source) === text ? found : undefined;
}

/** The length of a text less the place of something in it: how many characters stand behind that. */
function placeOfRest(part: Bound | undefined, text: string, program: Program): Operation | undefined {
  if (part?.kind !== "operation" || part.operation !== "calculate" || part.fixed.sign !== "-") return undefined;
  const [whole, place] = [inner(slotOf(part, "a")), inner(slotOf(part, "b"))];
  const measured = whole?.kind === "operation" && whole.operation === "measure" ? inner(slotOf(whole, "text")) : undefined;
  return measured && textOf(program, measured.source) === text ? placeIn(place, text, program) : undefined;
}

/** RIGHT(x; FIND(" "; x)), and LEFT(x; LEN(x) - FIND(" "; x)): counted from one end, and taken from the other. */
export function countedFromOtherEnd(operation: Operation, { program }: Asked): Diagnostic[] {
  const { dialect } = program;
  const [given, length] = [inner(slotOf(operation, "text")), inner(slotOf(operation, "length"))];
  if (operation.operation !== "slice" || !given || !length) return [];
  const text = textOf(program, given.source);
  const part = (source: Bound["source"] | string) =>
    typeof source === "string"
      ? { text: source, isOpen: true }
      : { text: textOf(program, source), isOpen: source.kind === "call" };
  const said = (task: TaskId, parts: Parameters<typeof filled>[1]) => {
    const template = templateOf(task, dialect.id);
    return template && filled(template, parts);
  };
  if (operation.answers.from === "end") {
    const place = placeIn(length, text, program);
    const whole = place && said("length", { text: part(given.source) });
    const fix = place && writing(length.source.range, `${whole} - ${textOf(program, place.source)}`);
    return fix ? [note("counts-from-the-start", length.source.range, {}, [fix])] : [];
  }
  const start = constantOf(slotOf(operation, "start"));
  const place = start && Number(start.value) === 1 ? placeOfRest(length, text, program) : undefined;
  const rest = place && said("last", { text: part(given.source), count: part(textOf(program, length.source)) });
  return rest === undefined
    ? []
    : [note("counts-what-follows", length.source.range, {}, [writing(operation.source.range, rest)])];
}
