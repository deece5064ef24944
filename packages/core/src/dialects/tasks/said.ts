import { lookup } from "../../values/index.ts";
import { type Task, type TaskId, tasks } from "./table.ts";

const bySaid = lookup(
  Object.fromEntries(
    Object.entries(tasks).map(([id, task]: [string, Task]) => [
      id,
      lookup(Object.fromEntries(Object.entries(task.said).flatMap(([ids, text]) => ids.split(" ").map((each) => [each, text])))),
    ]),
  ),
);

/** How a dialect says a task, what it takes in braces; undefined where it is not said there. */
export const templateOf = (task: TaskId, dialect: string): string | undefined => bySaid[task][dialect];

/** A part of an expression, and whether it needs brackets beside a sign. */
export interface Part {
  readonly text: string;
  readonly isOpen: boolean;
}

/** Whether what stands between two stretches of text is set off by brackets, separators or the words of a choice. */
export function isSetOff(ahead: string, rest: string): boolean {
  const isAfter = /(?:^|[(,;]|\b(?:when|then|else))\s*$/.test(ahead);
  return isAfter && /^\s*(?:$|[),;]|(?:then|else|end)\b)/.test(rest);
}

/** The text of a template with parts in their places: in brackets where they need them and stand beside a sign. */
export function filled(template: string, parts: Readonly<Record<string, Part>>): string {
  return template.replace(/\{(\w+)\}/g, (place, name: string, at: number) => {
    const part = parts[name];
    if (!part) return place;
    const needsNone = !part.isOpen || isSetOff(template.slice(0, at), template.slice(at + place.length));
    return needsNone ? part.text : `(${part.text})`;
  });
}

/** Texts joined as a template joins two: one call takes them all, a sign stands between each. */
export function joinedAs(template: string, parts: readonly Part[]): string {
  const call = /^([\w-]+)\(\{a\}, \{b\}\)$/.exec(template);
  if (call) return `${call[1]}(${parts.map(({ text }) => text).join(", ")})`;
  return parts.reduce((a, b) => ({ text: filled(template, { a, b }), isOpen: false })).text;
}

/** Whether a template is one call, and needs no brackets wherever it is put. */
export function isClosed(template: string): boolean {
  if (!/^[\w:-]+\(.*\)$/.test(template)) return false;
  let depth = 0;
  for (const [i, char] of [...template].entries()) {
    depth += char === "(" ? 1 : char === ")" ? -1 : 0;
    if (depth === 0 && char === ")" && i < template.length - 1) return false;
  }
  return true;
}
