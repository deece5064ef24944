import { type ParsedPattern, PatternError, type PatternNode, anyChar, oneChar, sequence } from "./ast.ts";
import { parsePosix } from "./posix.ts";
import { Reader } from "./reader.ts";

const anyRun: PatternNode = {
  kind: "repeat",
  item: { kind: "set", set: anyChar },
  min: 0,
  max: Infinity,
  greedy: true,
};

/** Fits no text. */
const never: PatternNode = { kind: "set", set: { ranges: [], classes: [], negated: false } };

/** Reads a `LIKE` pattern (ISO 9075-2, 8.5): `%` any run, `_` any one; `escape` is one character or "". */
export function parseLike(
  source: string,
  escape: string,
  ignoreCase: boolean,
  flavour: "like" | "like, escape strict" | "like, escape open" | "like, escape literal" = "like",
): ParsedPattern {
  const reader = new Reader(source);
  const items: PatternNode[] = [];
  let refusal: PatternError | undefined;
  const misplaced = (problem: string, offset: number) => new PatternError(problem, offset, false, true);
  while (!reader.done) {
    const start = reader.offset;
    const before = items.length;
    const char = reader.next();
    if (char === escape) {
      const isStrict = flavour === "like, escape strict";
      if (isStrict && !reader.done && !["%", "_", escape].includes(reader.peek()))
        throw misplaced("the escape character stands before a character that needs none", reader.offset);
      if (!reader.done) items.push(oneChar(reader.next().codePointAt(0)!));
      else if (isStrict) throw misplaced("the escape character ends the pattern", reader.offset);
      else if (flavour === "like") {
        // It is an error once there is text for it to stand before.
        items.push({ kind: "set", set: anyChar }, anyRun);
        refusal = misplaced("the escape character ends the pattern", reader.offset - char.length);
      } else items.push(flavour === "like, escape open" ? never : oneChar(char.codePointAt(0)!));
    } else if (char === "%") items.push(anyRun);
    else if (char === "_") items.push({ kind: "set", set: anyChar });
    else items.push(oneChar(char.codePointAt(0)!));
    if (items.length === before + 1) items[before] = reader.placed(items[before], start);
  }
  const { places } = reader;
  return { node: reader.placed(sequence(items), 0), groups: 0, ignoreCase, places, ...(refusal && { refusal }) };
}

/** Reads a pattern of shell-like wildcards: `*` any run, `?` any one, `~` takes the next literally. */
export function parseWildcards(source: string): ParsedPattern {
  const like = source.replace(/~[*?~]|[*?%_~]/g, (part) =>
    part === "*" ? "%" : part === "?" ? "_" : "~" + part[part.length - 1],
  );
  const { places, ...read } = parseLike(like, "~", true);
  return { ...read, ...(like.length === source.length && { places }) };
}

/** The POSIX pattern that a `SIMILAR TO` pattern (ISO 9075-2, 8.6) stands for; it matches the whole text. */
function similarAsPosix(source: string, escape: string): string {
  const reader = new Reader(source);
  let result = "^(?:";
  let bracket = false;
  for (let marks = 0; !reader.done;) {
    const char = reader.next();
    if (char === escape && !bracket) {
      const next = reader.next();
      if (next === "") break;
      if (next === '"' && marks === 2)
        reader.fail("an SQL regular expression has no more than two escaped quotes", reader.offset - 2);
      if (next === '"') result += marks++ === 0 ? "){1,1}?(" : "){1,1}(?:";
      else result += /\w/.test(next) && next !== "_" ? `\\${next}` : `[${next === "^" ? "\\^" : next === "\\" ? "\\\\" : next}]`;
    } else if (bracket) {
      if (char === "]") bracket = false;
      result += char === "\\" ? "\\\\" : char;
    } else if (char === "[") {
      bracket = true;
      result += "[";
      if (reader.take("^")) result += "^";
    } else if (char === "%") result += ".*";
    else if (char === "_") result += ".";
    else if (char === "(") result += "(?:";
    else if (".^$\\".includes(char)) result += `\\${char}`;
    else result += char;
  }
  return result + ")$";
}

export function parseSimilar(source: string, escape: string): ParsedPattern {
  // It stands elsewhere in the pattern that is read in its place.
  const { places: _, ...read } = parsePosix(similarAsPosix(source, escape), "");
  return read;
}

/** Reads a pattern of `*`, `?` and `[...]`, where `[^...]` is any other; a bracket that is not closed fits nothing. */
export function parseGlob(source: string, escapes: boolean): ParsedPattern {
  const reader = new Reader(source);
  const items: PatternNode[] = [];
  while (!reader.done) {
    const start = reader.offset;
    const char = reader.next();
    if (char === "*") items.push(anyRun);
    else if (char === "?") items.push({ kind: "set", set: anyChar });
    else if (char === "\\" && escapes) items.push(reader.done ? never : oneChar(reader.next().codePointAt(0)!));
    else items.push(char === "[" ? globSet(reader, escapes) : oneChar(char.codePointAt(0)!));
    items.push(reader.placed(items.pop()!, start));
  }
  return { node: reader.placed(sequence(items), 0), groups: 0, ignoreCase: false, places: reader.places };
}

/** A `]` that stands first is one of the characters, and so is a `-` that stands first or last. */
function globSet(reader: Reader, escapes: boolean): PatternNode {
  const negated = reader.take(escapes ? "!" : "^");
  const ranges: (readonly [number, number])[] = [];
  let low: number | undefined;
  for (let first = true; ; first = false) {
    const char = reader.next();
    if (char === "") return never;
    if (char === "]" && !first) return { kind: "set", set: { ranges, classes: [], negated } };
    const next = reader.peek();
    if (char === "-" && low !== undefined && next !== "]" && next !== "") {
      ranges.push([low, reader.next().codePointAt(0)!]);
      low = undefined;
    } else {
      low = char.codePointAt(0)!;
      ranges.push([low, low]);
    }
  }
}
