import { type DatePart, datePartsBy } from "../text/index.ts";
import type { AnswerOf } from "../traits/index.ts";
import { type Value, Moment, calendarParts } from "../values/index.ts";
import { type Parting, isSameFailure, alike, partingAt } from "./parting.ts";
import { type Evaluated, type Step, standing } from "./swap.ts";

/** A step that writes a date by a format, with the parts that it writes. */
interface Dated {
  readonly step: Step;
  readonly parts: readonly DatePart[];
}

/** The steps of a side that write a date, with its parts. */
function datedIn({ steps }: Evaluated): Dated[] {
  return steps.flatMap((step): Dated[] => {
    const { operation, answers, fixed } = step.bound;
    const [date, format] = step.slots;
    if (operation !== "text-from-date" || typeof format !== "string") return [];
    const found = typeof date === "string" || date instanceof Moment ? calendarParts(date) : undefined;
    const language = answers.formatLanguage as AnswerOf<"formatLanguage">;
    const parts = found && language !== "components" && datePartsBy(found, format, String(fixed.tokens), language);
    // What is written otherwise than by its parts is not explained by them.
    return parts && parts.map(({ text }) => text).join("") === step.value ? [{ step, parts }] : [];
  });
}

type Pair = readonly [DatePart, DatePart];

const isLike = (a: DatePart | undefined, b: DatePart | undefined): boolean => a !== undefined && a.text === b?.text;

/** Several parts as one. */
const together = (parts: readonly DatePart[]): DatePart => ({
  written: parts.map(({ written }) => written).join(""),
  text: parts.map(({ text }) => text).join(""),
  ...(parts.length === 1 && parts[0].field !== undefined && { field: parts[0].field }),
});

/** The parts of two formats that stand for each other and are not alike: between those at both ends that are, one by one where that can be. */
function pairsOf(left: readonly DatePart[], right: readonly DatePart[]): readonly Pair[] {
  let first = 0;
  while (isLike(left[first], right[first])) first++;
  const most = Math.min(left.length, right.length) - first;
  let behind = 0;
  while (behind < most && isLike(left.at(-1 - behind), right.at(-1 - behind))) behind++;
  const [a, b] = [left.slice(first, left.length - behind), right.slice(first, right.length - behind)];
  const pairs = a.map((part, i): Pair => [part, b[i]]);
  const isEach = a.length === b.length && pairs.every(([own, other]) => isLike(own, other) || (own.field && other.field));
  if (isEach) return pairs.filter(([own, other]) => !isLike(own, other));
  return a.length > 0 && b.length > 0 ? [[together(a), together(b)]] : [];
}

/** How a part is written, beside the other's way to write it. */
function wayOf({ text, field }: DatePart, other: DatePart): AnswerOf<"datePart"> {
  if (field === undefined) return "as it stands";
  if (other.field === undefined) return "in full";
  if (/^\D/.test(text)) {
    if (field !== other.field) return "something else";
    const name = text.trimEnd();
    if (name.length < text.length) return "filled up";
    if (name !== other.text && name.toLowerCase() === other.text.trimEnd().toLowerCase()) {
      if (name === name.toUpperCase()) return "in capitals";
      if (name === name.toLowerCase()) return "in small letters";
    }
    return name.length === 3 && name.length < other.text.trimEnd().length ? "three letters" : "in full";
  }
  if (/^\d+[a-z]{2}$/i.test(text)) return "with its ending";
  if (Number(text) === parseInt(other.text, 10)) return text.length > other.text.length ? "filled up" : "in full";
  if (text.length < other.text.length && other.text.endsWith(text)) return "last digits";
  return other.text.length < text.length && text.endsWith(other.text) ? "in full" : "something else";
}

/** What one part is and the other, where they differ in that. */
function waysOf([a, b]: Pair): [AnswerOf<"datePart">, AnswerOf<"datePart">] {
  const ways: [AnswerOf<"datePart">, AnswerOf<"datePart">] = [wayOf(a, b), wayOf(b, a)];
  if (ways[0] !== ways[1] && !ways.includes("something else")) return ways;
  return [a.field === undefined ? "as it stands" : "in full", "something else"];
}

/** Where both write one date by formats, and each writes a part of it in its own way. */
export function datePartsParting(left: Evaluated, right: Evaluated): Parting | undefined {
  const others = datedIn(right);
  for (const { step: a, parts } of datedIn(left)) {
    for (const { step: b, parts: otherParts } of others) {
      if (alike(a.value, b.value) || !isSameDate(a.slots[0], b.slots[0])) continue;
      const pairs = pairsOf(parts, otherParts);
      const date = momentText(a.slots[0]!);
      const replay = () => left.put(a.node, standing(a, b.value));
      const came = replay();
      if (pairs.length === 0 || !alike(came, right.value) || !isSameFailure(came, right.value)) continue;
      const [first, ...further] = pairs.map((pair): Parting => ({
        ...partingAt(a, b),
        inputs: { date: [date, date] },
        functions: [pair[0].written, pair[1].written],
        outputs: [pair[0].text, pair[1].text],
        causes: [[{ trait: "datePart", answers: waysOf(pair) }]],
        reaches: pairs.length > 1 ? "part" : "whole",
        side: 0,
        experiment: { is: "parts" },
        replay,
      }));
      return further.length > 0 ? { ...first, further } : first;
    }
  }
  return undefined;
}

const isSameDate = (a: Value | undefined, b: Value | undefined): boolean =>
  a !== undefined && b !== undefined && momentText(a) === momentText(b);

/** A date, the time of day after it unless it is the first. */
const momentText = (value: Value): string =>
  (value instanceof Moment ? value.text : String(value))
    .replace("T", " ")
    .replace(/(?:\.0*|(\.\d*[1-9])0*)?(?:\+00)?$/, "$1")
    .replace(/ 00:00(?::00)?$/, "");
