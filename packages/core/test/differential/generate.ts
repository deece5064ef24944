import { type FunctionRow, arity } from "indigo-quill/dialects";

/** A small generator of random numbers with a seed (mulberry32), so that a failure can be run again. */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export const pick = <T>(next: () => number, items: readonly T[]): T => items[Math.floor(next() * items.length)];

/** Texts that hold the classic traps. */
export const trapTexts = [
  "",
  " ",
  "Alnus",
  "Alnus glutinosa",
  "  Alnus  glutinosa ",
  "a,b,,c",
  "Lindqvist, Åsa",
  "#12#x#",
  "o'neil-smith 2nd",
  "ABC",
  "abc",
  "aXbXc",
  "x",
  "2019-04-03",
  "007",
  "12.50",
  "-3",
  "ﬁr",
  "İstanbul",
  "e\u0301te\u0301",
  "a😀b",
  "a\u00a0b",
  "tab\there",
  "line\nbreak",
  "100%",
  "a_b",
  "a\\b",
  "(x)",
  "[y]",
  "aaa",
  "foobarbequebaz",
  "×hybrid",
];

const patterns = [
  "a",
  "b+",
  "[a-z]+",
  "(a)(l)?",
  "^A",
  "x$",
  "\\s+",
  "\\d{2}",
  "a|b",
  "(ab|a)(c|bcd)?",
  ".",
  "[^,]+",
  "(\\w+), (\\w+)",
  "[[:upper:]]",
  "o(.)b",
  "a*?",
  "(a*)(b*)",
  "\\mx",
  "(?i)alnus",
  "(",
  "b*",
  "\\w+?",
  "(b|c)+",
];
const likes = ["%", "A%", "%a", "_lnus", "%_%", "a\\%b", "%.%", "", "%l%n%", "\\"];

const quote = (text: string): string => `'${text.replaceAll("'", "''")}'`;

/** Makes a PostgreSQL expression for an argument of a type; columns are `label`, `remark`, `n`, `m`, `d`, `flag`, `gap`. */
function argument(
  next: () => number,
  type: string,
  slot: string,
  depth: number,
  make: (type: string, depth: number) => string | undefined,
): string {
  if (depth > 0 && next() < 0.35) {
    const nested = make(type, depth - 1);
    if (nested) return nested;
  }
  switch (type) {
    case "text":
    case "output":
    case "nonarray":
      if (slot === "needle" && next() < 0.7) return quote(pick(next, [...patterns, ...likes]));
      if (slot === "flags") return quote(pick(next, ["i", "", "n", "g", "x"]));
      if (slot === "delimiter" && next() < 0.8) return quote(pick(next, [",", " ", "#", "X", "", "a", ", "]));
      if (slot === "new" && next() < 0.6) return quote(pick(next, ["-", "", "\\1", "[\\&]", "\\2 \\1", "é"]));
      if (slot === "form") return pick(next, ["nfc", "nfd"]);
      return next() < 0.6 ? pick(next, ["label", "remark", "label", "gap"]) : quote(pick(next, trapTexts));
    case "integer":
    case "bigint":
      return next() < 0.3 ? "n" : String(pick(next, [0, 1, 2, 3, 5, -1, -2, 7, 20]));
    case "decimal":
      return next() < 0.3 ? "d" : pick(next, ["1.5", "2.50", "-0.5", "0.0", "7", "1234.567"]);
    case "double":
      return `${pick(next, ["1.5", "-2.5", "0", "7", "0.1", "1e20"])}::float8`;
    case "boolean":
    case "condition":
      return pick(next, ["flag", "true", "false", "n > 2", "label = remark", "gap is null"]);
    case "anyarray":
    case "text[]":
      return pick(next, [
        "string_to_array(label, ',')",
        "array['a','b',null]",
        "string_to_array(label, ' ')",
        "array[label, remark]",
      ]);
    case "integer[]":
      return pick(next, ["array[1,2,3]", "array[n, 2]"]);
    case "date":
      return pick(next, ["date '2019-04-03'", "date '2020-02-29'"]);
    case "timestamp":
      return pick(next, ["timestamp '2019-04-03 07:08:09'", "date '2020-02-29'"]);
    default:
      return "null";
  }
}

/** How calls that are not plain functions are written. */
const special: Readonly<Record<string, (args: string[]) => string>> = {
  "substring similar": ([a, b, c]) => `substring(${a} similar ${b} escape ${c})`,
  "similar to": ([a, b, c]) => `(${a} similar to ${b}${c ? ` escape ${c}` : ""})`,
  like: ([a, b, c]) => `(${a} like ${b}${c ? ` escape ${c}` : ""})`,
  ilike: ([a, b, c]) => `(${a} ilike ${b}${c ? ` escape ${c}` : ""})`,
  position: ([a, b]) => `position(${b} in ${a})`,
  "is normalized": ([a, b]) => `(${a} is ${b} normalized)`,
  "item of list": ([a, b]) => `(${a})[${b}]`,
  "slice of list": ([a, b, c]) => `(${a})[${b}:${c}]`,
  extract: ([, b]) => `extract(year from ${b})`,
  date_part: ([, b]) => `date_part('month', ${b})`,
  "compare any": ([a, b]) => `(${a} = any(${b}))`,
  "compare all": ([a, b]) => `(${a} <> all(${b}))`,
  overlay: ([a, b, c, d]) => `overlay(${a} placing ${b} from ${c}${d ? ` for ${d}` : ""})`,
  normalize: ([a]) => `normalize(${a}, nfd)`,
  not: ([a]) => `(not ${a})`,
};

/** Makes expressions from the rows of a table. */
export function generator(rows: readonly FunctionRow[], seed: number): (row?: FunctionRow) => string {
  const next = random(seed);
  const make = (type: string, depth: number): string | undefined => {
    const fitting = rows.filter((row) => row.result === type || (type === "output" && row.result === "text"));
    return fitting.length > 0 ? call(pick(next, fitting), depth) : undefined;
  };
  function call(row: FunctionRow, depth: number): string {
    const { least, most } = arity(row);
    const count = least + Math.floor(next() * (Math.min(most, least + 2) - least + 1));
    const args = Array.from({ length: count }, (_, i) => {
      const { type, slot } = row.parameters[Math.min(i, row.parameters.length - 1)];
      return argument(next, type, slot, depth, make);
    });
    if (special[row.name]) return special[row.name](args);
    if (/^is /.test(row.name)) return args.length === 2 ? `(${args[0]} ${row.name} ${args[1]})` : `(${args[0]} ${row.name})`;
    if (row.notation === "operator" && !/^[a-z_]+$/.test(row.name))
      return args.length === 1 ? `(${row.name} ${args[0]})` : `(${args[0]} ${row.name} ${args[1]})`;
    if (row.name === "and" || row.name === "or") return `(${args[0]} ${row.name} ${args[1]})`;
    return `${row.name}(${args.join(", ")})`;
  }
  return (row = pick(next, rows)) => call(row, 2);
}
