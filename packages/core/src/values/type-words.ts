/** Names of types that only the tables of a dialect use, in the words of its authors. */
const words: Readonly<Record<string, string>> = {
  literal: "text",
  unknown: "text",
  string: "text",
  stringify: "text",
  strings: "texts",
  none: "any value",
  any: "any value",
  atomic: "any value",
  condition: "true or false",
  shownarray: "array",
  shownlist: "list",
};

/**
 * A type as an author names it: without its collation or its digits, a list by what it holds; `text[]` is "list of text".
 *
 * @param type the dialect's name for it, as in its tables
 */
export function typeWords(type: string): string {
  const bare = type.replace(/[?!]+$/, "");
  if (/(?:\[\]|\*)$/.test(bare)) return `list of ${typeWords(bare.replace(/(?:\[\]|\*)$/, ""))}`;
  const [name] = bare.split(" ");
  return words[name] ?? name;
}
