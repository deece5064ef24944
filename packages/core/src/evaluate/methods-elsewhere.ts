import type { Dialect } from "../dialects/dialect.ts";
import { type TaskId, filled, isClosed, isSetOff, templateOf } from "../dialects/tasks/index.ts";
import { done, splitting } from "./calls-elsewhere.ts";
import { type Rule, habit } from "./habit.ts";
import { closingOf, isWhole, masked, mostChanges, operandStart, plus, splitOutside } from "./outside.ts";

/** What a task makes of operands, each in brackets where it needs them. */
function said({ id }: Dialect, task: TaskId, operands: Readonly<Record<string, string>>): string | undefined {
  const template = templateOf(task, id);
  const parts = Object.entries(operands).map(([slot, text]) => [slot, { text, isOpen: /\s[-+*/]\s/.test(text) }] as const);
  return template && filled(template, Object.fromEntries(parts));
}

/** A part of a text, where the first character has the place 0: up to an end that is not taken, or of so many characters. */
function part(dialect: Dialect, text: string, start: string, { end, count }: { end?: string; count?: string }) {
  const taken = count ?? (end !== undefined && isWhole(end) && isWhole(start) ? String(Number(end) - Number(start)) : undefined);
  if ([end, taken].some((each) => each !== undefined && isWhole(each) && Number(each) < 0)) return undefined;
  if (isWhole(start) && Number(start) < 0)
    return end === undefined && taken === undefined ? said(dialect, "last", { text, count: start.slice(1) }) : undefined;
  if (start === "0" && (taken ?? end) !== undefined) return said(dialect, "first", { text, count: (taken ?? end)! });
  if (end === undefined && taken === undefined) return said(dialect, "from", { text, start: plus(start, 1) });
  return said(dialect, "slice", { text, start: plus(start, 1), count: taken ?? `${end!} - (${start})` });
}

/** Methods that count places from 0, and what they are here; undefined where languages do not agree on what they mean. */
function placed(dialect: Dialect, name: string, text: string, args: readonly string[]): string | undefined {
  const [start, second] = args;
  if (args.length > 2 || start === undefined) return undefined;
  switch (name.toLowerCase()) {
    case "at":
      return second === undefined ? part(dialect, text, start, start === "-1" ? {} : { count: "1" }) : undefined;
    case "charat":
    case "char_at":
      return second === undefined && !start.startsWith("-") ? part(dialect, text, start, { count: "1" }) : undefined;
    case "substring":
      if (start.startsWith("-")) return undefined;
      // With a capital it is that of languages in which the second is a length.
      return part(dialect, text, start, second === undefined ? {} : name === "Substring" ? { count: second } : { end: second });
    case "slice":
      return part(dialect, text, start, second === undefined ? {} : { end: second });
    case "substr":
      // Some count from 1; what begins at 0 or behind the end does not.
      if (start !== "0" && !start.startsWith("-")) return undefined;
      return part(dialect, text, start, second === undefined ? {} : { count: second });
    case "indexof":
    case "index_of": {
      const place = second === undefined ? said(dialect, "position", { text, needle: start }) : undefined;
      return place && plus(isClosed(place) ? place : `(${place})`, -1);
    }
  }
  return undefined;
}

/** The nth piece of a text where the first is the 0th, and the last the one before it; undefined for others from the end. */
function piece(dialect: Dialect, text: string, delimiter: string, place: number): string | undefined {
  if (place < 0) return place === -1 ? done(dialect, "lastPiece", { text, delimiter }) : undefined;
  return place === 0
    ? done(dialect, "firstPiece", { text, delimiter })
    : done(dialect, "piece", { text, delimiter, n: String(place + 1) });
}

/** Methods that count places, and mean what `placed` says or nothing that is known. */
const counting: ReadonlySet<string> = new Set(
  "substring substr slice mid charat char_at at indexof index_of lastindexof codepointat codeunitat insert remove".split(" "),
);

const method = /(?<=[\p{L}\p{N}_)\]\0])\s*\.\s*(?:(\p{L}[\p{L}\p{N}_-]*)\s*\(|(len|length|year|month|day)\b)/giu;

/** A method with what it takes: where it stands, and what stands in its brackets. */
interface Called {
  readonly name: string;
  readonly start: number;
  readonly dot: number;
  readonly end: number;
  readonly inside: string;
}

/** The first method in whose brackets there is no other. */
function firstCalled(text: string): Called | undefined {
  const mask = masked(text);
  for (const { index, 0: found, 1: name, 2: property } of mask.matchAll(method)) {
    const start = operandStart(mask, index);
    const open = index + found.length - 1;
    const close = name === undefined ? open : closingOf(mask, open);
    if (start === undefined || close === undefined) return undefined;
    const inside = name === undefined ? "" : text.slice(open + 1, close).trim();
    if (masked(inside).search(method) < 0) return { name: name ?? property, start, dot: index, end: close + 1, inside };
  }
  return undefined;
}

/** x.f(a) as f(x, a), or as what it is here where it counts places. */
const methods: Rule = (source, dialect) => {
  let text = source;
  let isCounted = false;
  for (let i = 0; i < mostChanges; i++) {
    const found = firstCalled(text);
    if (!found) break;
    const { name, start, dot, inside } = found;
    let { end } = found;
    const receiver = text.slice(start, dot);
    const args = inside === "" ? [] : splitOutside(inside, /[,;]/).map((each) => each.trim());
    const [item = "", index] = /^\s*\[\s*(-?\d+)\s*\]/.exec(text.slice(end)) ?? [];
    let written: string | undefined;
    if (index !== undefined && args.length === 1 && splitting.test(`${name}()`)) {
      written = piece(dialect, receiver, args[0], Number(index));
      end += item.length;
      isCounted = true;
    } else if (counting.has(name.toLowerCase())) {
      written = placed(dialect, name, receiver, args);
      isCounted = true;
    } else if (index === undefined) written = `${name}(${[receiver, ...args].join(`${dialect.separator} `)})`;
    if (written === undefined) break;
    const [ahead, rest] = [text.slice(0, start), text.slice(end)];
    const isOpen = /\s[-+*/]\s\d+$/.test(written) && !isSetOff(ahead, rest.replace(/^\s*[-+]\s*\d+/, ""));
    text = ahead + (isOpen ? `(${written})` : written) + rest;
  }
  const also = isCounted ? ", and places are counted from 1" : "";
  return habit(source, text, `a function is written before what it takes${also}`);
};

/** What x[from] or x[from:to] takes of a text, as far as all who write so agree what it is. */
function bracketedPart(dialect: Dialect, text: string, from: string, to: string | undefined): string | undefined {
  const isStart = from === "" || from === "0";
  if (to === undefined) {
    if (from === "0") return said(dialect, "first", { text, count: "1" });
    return from === "-1" ? said(dialect, "last", { text, count: "1" }) : undefined;
  }
  if (from.startsWith("-") && to === "") return said(dialect, "last", { text, count: from.slice(1) });
  if (!isStart || Number(to) === 0) return undefined;
  return to.startsWith("-")
    ? said(dialect, "withoutLast", { text, count: to.slice(1) })
    : said(dialect, "first", { text, count: to });
}

/** A character or the ends of a text in square brackets: x[0], x[:3], x[-3:] */
const bracketed: Rule = (source, dialect) => {
  const mask = masked(source);
  const found = /(?<=[\p{L}\p{N}_)])\s*\[\s*(-?\d*)\s*(?:(:)\s*(-?\d*)\s*)?\]/u.exec(mask);
  const start = found ? operandStart(mask, found.index) : undefined;
  if (!found || start === undefined || /\.\s*$/.test(mask.slice(0, start))) return [];
  const text = source.slice(start, found.index);
  if (splitting.test(text)) return [];
  const [, from, colon, to = ""] = found;
  const written = bracketedPart(dialect, text, from, colon === undefined ? undefined : to);
  const whole = source.slice(0, start) + String(written) + source.slice(found.index + found[0].length);
  return written === undefined ? [] : habit(source, whole, "a part of a text is taken by a function here");
};

/** Functions that stand behind what they take, and square brackets behind texts. */
export const methodsElsewhere: readonly Rule[] = [methods, bracketed];
