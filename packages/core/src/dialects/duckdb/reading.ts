import { Failure, type Value, asciiTrimmed, isFailure } from "../../values/index.ts";

/** Reads the text form of a list; `read` makes an item of a text. */
export function readList(text: string, read: (item: Value) => Value): Value {
  const inner = /^\[([\s\S]*)\]$/.exec(asciiTrimmed(text))?.[1];
  const bad = new Failure("invalid-value", { problem: `"${text}" is not a list` });
  if (inner === undefined) return bad;
  if (/[[{]/.test(inner)) return new Failure("not-covered", { what: "lists of lists as text" });
  if (asciiTrimmed(inner) === "") return [];
  const items: Value[] = [];
  const shape =
    /(?:[ \t\n\v\f\r]*'((?:[^'\\]|\\[\s\S]|'')*)'[ \t\n\v\f\r]*|[ \t\n\v\f\r]*"((?:[^"\\]|\\[\s\S])*)"[ \t\n\v\f\r]*|((?:[^,'"\\]|\\[\s\S])*))(,|$)/y;
  for (let more = true; more;) {
    const match = shape.exec(inner);
    if (!match) return bad;
    const quoted = match[1] ?? match[2];
    const value = quoted !== undefined ? quoted.replace(/\\([\s\S])/g, "$1") : asciiTrimmed(match[3]);
    items.push(quoted === undefined && /^null$/i.test(value) ? null : read(value));
    more = match[4] === ",";
  }
  return items.find(isFailure) ?? items;
}
