import type { Find } from "./compare.ts";

/** What an engine's error is about, as far as its words tell; the first that fits. */
const kinds: readonly (readonly [RegExp, string])[] = [
  [/syntax error|parser error|you have an error in your sql/i, "syntax"],
  [
    /no function matches|does not exist|no such function|wrong number of arguments|incorrect parameter count|binder error|operator does not exist|could not choose|ambiguous/i,
    "call",
  ],
  [/overflow|out of range|out-of-range|too large/i, "range"],
  [/division by zero|divide by zero/i, "division"],
  [/regular expression|regexp|invalid pattern|escape/i, "pattern"],
  [/conversion|invalid input syntax|could not convert|incorrect .* value|cannot cast/i, "conversion"],
];

/** The same for our codes. */
const ours: readonly (readonly [RegExp, string])[] = [
  [/^(?:expected|extra-text|unclosed|bad-literal|unexpected|wrong-separator|reserved)/, "syntax"],
  [/^(?:unknown-|argument-|ambiguous-|condition-type|branch-types|constant-wanted)/, "call"],
  [/^(?:number-out-of-range|text-too-long|beyond-memory)/, "range"],
  [/^division/, "division"],
  [/^(?:pattern|escape|replacement)/, "pattern"],
  [/^not-a-/, "conversion"],
];

const kindOf = (text: string, table: typeof kinds): string => table.find(([shape]) => shape.test(text))?.[1] ?? "other";

/** Whether two errors are of one class: that of the SQLSTATE for PostgreSQL, what they are about for the others. */
export function sameClass({ dialect, ours: own, theirs }: Find): boolean {
  if (!own || !("error" in own) || !("error" in theirs)) return false;
  if (dialect === "postgresql") return own.error.code.slice(0, 2) === theirs.error.code.slice(0, 2);
  return kindOf(own.error.kind ?? own.error.code, ours) === kindOf(theirs.error.message, kinds);
}
