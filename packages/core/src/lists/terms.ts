import { Finder, foldSimple, isWordAt } from "./finder.ts";

/** A list of values: those that are valid, or those that are looked for. */
export interface Terms {
  readonly values: readonly string[];
  readonly case?: "ignored" | undefined;
  /** Whether in a longer text only whole words count. */
  readonly where?: "word" | undefined;
}

/** Numbers from one to another, both included. */
export interface NumberRange {
  readonly from: number;
  readonly to: number;
}

/** Whether a text, white space at its ends aside, is one of the values or a number of the range. */
export function membership(list: Terms | NumberRange): (text: string) => boolean {
  if ("from" in list)
    return (text) => {
      const number = /^\s*[-+]?\d+(?:\.\d+)?\s*$/.test(text) ? Number(text) : NaN;
      return number >= list.from && number <= list.to;
    };
  const key = (text: string) => (list.case ? foldSimple(text) : text).trim();
  const values = new Set(list.values.map(key));
  return (text) => values.has(key(text));
}

/** Which of the terms stand in a text, as 0-based places in the list, in the list's order. */
export function termFinder({ values, case: letterCase, where }: Terms): (text: string) => number[] {
  const finder = new Finder();
  const folded = (text: string) => (letterCase ? foldSimple(text) : text);
  values.forEach((value, id) => {
    if (value !== "") finder.add(folded(value), id);
  });
  return (text) => {
    const found = new Set<number>();
    for (const { id, at, length } of finder.all(folded(text)))
      if (where !== "word" || isWordAt(text, at, at + length)) found.add(id);
    return [...found].sort((a, b) => a - b);
  };
}
