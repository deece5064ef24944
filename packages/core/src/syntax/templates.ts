import type { TextRange } from "../values/index.ts";

/** A part of a call, and what stands around it. */
export interface TemplatePart {
  /** Which part it is, from 1. */
  readonly place: number;
  /** `w` for a word, `>` for what must bind more tightly than the words around it. */
  readonly mark: string;
  readonly before: string;
  /** What stands behind a part that may be left out, and is left out with it. */
  readonly after: string;
  readonly isOptional: boolean;
}

/** How a call with words between its parts is written, taken apart. */
export interface Template {
  readonly head: string;
  readonly parts: readonly TemplatePart[];
  readonly tail: string;
}

/** Takes apart how a call is written, as `form` has it: `overlay($1 placing $2 from $3{ for $4})`. */
export function templateParts(template: string): Template {
  const open = template.search(/[($]/);
  const begin = template[open] === "(" ? open + 1 : open;
  const parts: TemplatePart[] = [];
  let end = begin;
  for (const { 0: whole, 1: inside, 2: optional, 3: mark, 4: after, 5: place, 6: otherMark, index } of template.matchAll(
    /\{([^$}]*)\$(\d)([<>w]?)([^}]*)\}|\$(\d)([<>w]?)/g,
  )) {
    const between = template.slice(end, index);
    const isOptional = optional !== undefined;
    parts.push(
      isOptional
        ? { place: Number(optional), mark, before: between + inside, after, isOptional }
        : { place: Number(place), mark: otherMark, before: between, after: "", isOptional },
    );
    end = index + whole.length;
  }
  return { head: template.slice(0, begin), parts, tail: template.slice(end) };
}

/** The words and separators in what stands before a part. */
export const wordsIn = (between: string): string[] => between.match(/\w+|,/g) ?? [];

/** How a call is written with its parts by name, what may be left out between brackets; and where each name stands, by part. */
export function namedTemplate(template: string, names: readonly string[]): { text: string; places: readonly TextRange[] } {
  const { head, parts, tail } = templateParts(template);
  const places: TextRange[] = [];
  let text = head;
  for (const { place, before, after, isOptional } of parts) {
    if (isOptional && place > names.length) continue;
    text += isOptional ? before.replace(/^(,? *)/, "$1[") : before;
    const start = text.length;
    text += names[place - 1];
    places[place - 1] = { start, end: text.length };
    if (isOptional) text += after.replace(/ *$/, "]$&");
  }
  return { text: text + tail, places };
}
