import { type TokenRule, undoubled } from "../../syntax/index.ts";

const controls: Readonly<Record<string, string>> = { b: "\b", f: "\f", n: "\n", r: "\r", t: "\t" };

/** `E'…'` with backslash escapes. */
function readEscapes(source: string): string | { problem: string } {
  let problem = "";
  const value = source
    .slice(2, -1)
    .replace(
      /''|\\(?:([0-7]{1,3})|x([0-9a-fA-F]{1,2})|u([0-9a-fA-F]{4})|U([0-9a-fA-F]{8})|([\s\S]))/g,
      (part, octal, hex, short, long, char: string) => {
        if (part === "''") return "'";
        if (char !== undefined) return controls[char] ?? char;
        if (short ?? long) problem = "\\u and \\U are not read in texts here; use chr()";
        const code = octal ? parseInt(octal as string, 8) : parseInt((hex ?? short ?? long) as string, 16);
        if (code === 0 || code > 0x10ffff) problem = "an escape names no character";
        return problem ? "" : String.fromCodePoint(code);
      },
    );
  return problem || !value.isWellFormed() ? { problem: problem || "half of a surrogate pair" } : value;
}

const dollarMark = (source: string): string => /^\$[^$]*\$/.exec(source)![0];

const dollarQuoted = (source: string): string => {
  const { length } = dollarMark(source);
  return source.slice(length, -length);
};

/** The tokens of DuckDB (documentation, "Literal Types"). */
export const duckdbRules: readonly TokenRule[] = [
  { kind: "blank", shape: /[ \t\n\f\r\u00a0\u2000-\u200b\u202f\u205f\u2060\u3000\ufeff]+/y },
  { kind: "comment", shape: /--[^\n\r]*/y },
  { kind: "comment", shape: /\/\*/y, closing: "*/" },
  { kind: "text", shape: /[eE]'(?:[^'\\]|''|\\[\s\S])*'/y, read: readEscapes },
  { kind: "text", shape: /'(?:[^']|'')*'/y, read: undoubled },
  { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
  { kind: "text", shape: /\$([A-Za-z_]\w*)?\$[\s\S]*?\$\1\$/y, read: dollarQuoted },
  { kind: "text", shape: /\$(?:[A-Za-z_]\w*)?\$[\s\S]*$/y, read: dollarQuoted, unclosed: dollarMark },
  { kind: "quoted name", shape: /"(?:[^"]|"")*"/y, read: undoubled },
  { kind: "quoted name", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
  { kind: "number", shape: /(?:\d+(?:_\d+)*(?:\.(?:\d+(?:_\d+)*)?)?|\.\d+(?:_\d+)*)(?:[eE][+-]?\d+)?/y },
  { kind: "name", shape: /[A-Za-z_\u0080-\uffff][\w$\u0080-\uffff]*/y },
  {
    kind: "symbol",
    shape:
      /::|->>|->|=>|\|\||!~~\*|!~~|~~~|~~\*|~~|!~\*|!~|~\*|<=|>=|<>|!=|==|\^@|@>|<@|&&|:=|\*\*|\/\/|<<|>>|[-+*/%^<>=~(),;[\]{}:.|&#@!?]/y,
  },
];

/** Words that are no columns unless they are quoted, as version 1.5 takes them. */
export const reserved: ReadonlySet<string> = new Set(
  "all analyse analyze and anti any array as asc asof asymmetric at authorization binary both by case cast check collate collation column concurrently constraint create cross default deferrable desc describe distinct do else end except false fetch for foreign freeze from full glob group having ilike in initially inner intersect into is isnull join lambda lateral leading left like limit natural not notnull null offset on only or order outer overlaps pivot pivot_longer pivot_wider placing positional primary qualify references returning right select semi show similar some summarize symmetric table tablesample then to trailing true union unique unpack unpivot using variadic verbose when where window with".split(
    " ",
  ),
);

/** How a column is written: as it is where it reads back so. */
export const columnText = (name: string): string =>
  /^[A-Za-z_][A-Za-z0-9_]*$/.test(name) && !reserved.has(name.toLowerCase()) ? name : `"${name.replaceAll('"', '""')}"`;

export const textLiteral = (text: string): string => `'${text.replaceAll("'", "''")}'`;
