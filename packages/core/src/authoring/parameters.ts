import { type FunctionRow, type Parameter, isPure } from "../dialects/row.ts";
import type { Answers } from "../traits/index.ts";

/** What is given, by the name of the parameter; a name that says it all is not here. */
const said: Readonly<Record<string, string>> = {
  text: "the text that is worked on",
  value: "the value that is worked on",
  number: "the number that is worked on",
  date: "the date that is worked on",
  list: "the list that is worked on",
  array: "the list that is worked on",
  needle: "what is searched for",
  pattern: "the pattern, in the dialect's pattern language",
  flags: "letters that say how the pattern is read, such as i to ignore case",
  options: "letters that say how the pattern is read, such as i to ignore case",
  escape: "the sign before a wildcard that stands for itself",
  old: "what is replaced",
  new: "what is put in its place",
  replacement: "what is put in the place of each match; groups are referred to by their numbers",
  which: "which of them is replaced, counted from 1; all when left out",
  delimiter: "what stands between the pieces, as a whole",
  separator: "what is put between the values",
  n: "which one, counted from 1",
  count: "how many",
  length: "how many characters",
  start: "where it begins",
  end: "where it ends",
  position: "which place",
  index: "which item",
  characters: "the characters that are removed, each of them",
  removed: "the characters that are removed",
  fill: "what it is filled up with",
  from: "the characters that are replaced, one by one",
  to: "the characters in their places",
  digits: "how many digits after the point",
  decimals: "how many digits after the point",
  format: "how it is written, by signs such as those for year and month",
  picture: "how it is written, by a picture of it",
  field: "the part of the date: year, month, day, …",
  unit: "the unit: year, month, day, …",
  part: "the part of the date: year, month, day, …",
  amount: "how many of the unit",
  condition: "what has to be true",
  conditions: "what has to be true",
  then: "what is given where the condition is true",
  otherwise: "what is given where there is nothing, or the condition is not true",
  values: "the values, one after another",
  items: "the values, one after another",
  texts: "the texts, one after another",
  skipEmpty: "whether empty texts are left out",
  group: "which group of the pattern, counted from 1; 0 is the whole match",
  form: "the normal form: NFC, NFD, NFKC or NFKD",
  lambda: "what is done with each item",
  action: "what is done with each item",
  left: "the value on the left",
  right: "the value on the right",
  base: "the base of the number, such as 16",
  exponent: "the power",
  divisor: "what it is divided by",
  multiple: "what it becomes a multiple of",
  bytes: "the bytes that are worked on",
  item: "the value that is looked for",
  initial: "what it begins with",
  direction: "whether the smallest or the largest comes first",
  nulls: "whether what is missing comes first or last",
  criterion: "what a value has to be, or a text with a comparison before it",
  probability: "a hint for the engine, which changes no value",
};

/** What the answers of a function say of a parameter beyond its name. */
function answered({ answers }: { readonly answers: Partial<Answers> }, { slot }: Parameter): string[] {
  const isPlace = slot === "start" || slot === "position" || slot === "n";
  const first = isPlace && answers.first !== undefined ? [`counted from ${answers.first}`] : [];
  const ends = { length: [], end: ["the position before which to stop"], last: ["the position of the last character"] };
  return slot === "length" && answers.third !== undefined ? ends[answers.third] : first;
}

/**
 * What a parameter of a function is for, in a line: what is given there, from where it is counted, and what it is when left out.
 */
export function aboutParameter(row: FunctionRow, parameter: Parameter): string {
  const { name, type, default: usual, optional, repeats } = parameter;
  const own = isPure(row) ? answered(row, parameter) : [];
  const what = name === "length" && own.length > 0 ? [] : [said[name] ?? `${name}, of type ${type}`];
  const left =
    usual !== undefined
      ? [`${JSON.stringify(usual)} when left out`]
      : optional && !repeats && !said[name]?.includes("when left out")
        ? ["may be left out"]
        : [];
  return [...what, ...own, ...left].join(", ");
}
