import { type TokenRule, undoubled } from "../../syntax/index.ts";

const controls: Readonly<Record<string, string>> = { b: "\b", f: "\f", n: "\n", r: "\r", t: "\t" };

/** What stands between the parts of a text that goes on after a line break: comments to the end of the line count as white space. */
const goesOn = String.raw`[ \t\f\v]*(?:--[^\n\r]*)?[\n\r](?:[ \t\n\r\f\v]|--[^\n\r]*)*`;

/** A text between single quotes, and what it goes on with (4.1.2.1). */
const continued = (mark: string, character: string): RegExp =>
  new RegExp(`${mark}'(?:${character})*'(?:${goesOn}'(?:${character})*')*`, "y");

/** What such a text holds between its quotes. */
function innerOf(source: string, character: string): string {
  const part = new RegExp(`'((?:${character})*)'(?:${goesOn})?`, "y");
  part.lastIndex = source.indexOf("'");
  let inner = "";
  for (let found = part.exec(source); found; found = part.exec(source)) inner += found[1];
  return inner;
}

const plainCharacter = "[^']|''";
const escapedCharacter = String.raw`[^'\\]|''|\\[\s\S]`;

const readText = (source: string): string => innerOf(source, plainCharacter).replaceAll("''", "'");

/** `E'…'` (PostgreSQL documentation, 4.1.2.2). */
function readEscapes(source: string): string | { problem: string } {
  let problem = "";
  const value = innerOf(source, escapedCharacter).replace(
    /''|\\(?:([0-7]{1,3})|x([0-9a-fA-F]{1,2})|u([0-9a-fA-F]{4})|U([0-9a-fA-F]{8})|([uU])|([\s\S]))/g,
    (part, octal, hex, short, long, broken, char: string) => {
      if (part === "''") return "'";
      if (broken) problem = "a Unicode escape needs 4 digits after \\u, 8 after \\U";
      if (char !== undefined) return controls[char] ?? char;
      const code = octal ? parseInt(octal as string, 8) : parseInt((hex ?? short ?? long) as string, 16);
      if (code === 0 || code > 0x10ffff) problem = "an escape names no character";
      return code <= 0x10ffff ? String.fromCodePoint(code) : "";
    },
  );
  return problem ? { problem } : joinSurrogates(value);
}

/** `U&'…'`, with UESCAPE and another character than `\` after it (4.1.2.3). */
function readUnicode(source: string): string | { problem: string } {
  const [, quoted, mark = "\\"] = /^..(['"][^]*?['"])(?:[ \t\n\r\f]*uescape[ \t\n\r\f]*'([^])')?$/i.exec(source)!;
  if (/[0-9a-fA-F+'"\s]/.test(mark)) return { problem: `${mark} cannot be an escape character` };
  let problem = "";
  const escape = new RegExp(`\\${mark}(?:([0-9a-fA-F]{4})|\\+([0-9a-fA-F]{6})|(\\${mark})|)`, "g");
  const value = undoubled(quoted).replace(escape, (_part, short, long, doubled) => {
    if (doubled) return mark;
    const code = parseInt((short ?? long ?? "") as string, 16);
    if (Number.isNaN(code) || code > 0x10ffff) problem = `a Unicode escape is ${mark}XXXX or ${mark}+XXXXXX`;
    return problem ? "" : String.fromCodePoint(code);
  });
  return problem ? { problem } : joinSurrogates(value);
}

/** Two escapes may write the halves of one character; half a character alone is an error. */
function joinSurrogates(value: string): string | { problem: string } {
  return value.isWellFormed() ? value : { problem: "half of a surrogate pair" };
}

/** The mark that opens and closes `$tag$…$tag$` (4.1.2.4). */
const dollarMark = (source: string): string => /^\$[^$]*\$/.exec(source)![0];

const dollarQuoted = (source: string): string => {
  const { length } = dollarMark(source);
  return source.slice(length, -length);
};

/** The tokens of PostgreSQL (documentation, 4.1). */
export const postgresqlRules = (version: string): readonly TokenRule[] => [
  // A vertical tab is white space since version 16.
  { kind: "blank", shape: version === "15" ? /[ \t\n\r\f]+/y : /[ \t\n\r\f\v]+/y },
  { kind: "comment", shape: /--[^\n\r]*/y },
  { kind: "comment", shape: /\/\*/y, closing: "*/" },
  { kind: "text", shape: continued("[eE]", escapedCharacter), read: readEscapes },
  {
    kind: "text",
    shape: /[uU]&'(?:[^']|'')*'(?:[ \t\n\r\f]*[uU][eE][sS][cC][aA][pP][eE][ \t\n\r\f]*'[\x21-\x7e]')?/y,
    read: readUnicode,
  },
  {
    kind: "quoted name",
    shape: /[uU]&"(?:[^"]|"")+"(?:[ \t\n\r\f]*[uU][eE][sS][cC][aA][pP][eE][ \t\n\r\f]*'[\x21-\x7e]')?/y,
    read: readUnicode,
  },
  { kind: "text", shape: continued("[nN]?", plainCharacter), read: readText },
  { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
  { kind: "text", shape: /\$([A-Za-z_\u0080-\uffff][A-Za-z0-9_\u0080-\uffff]*)?\$[\s\S]*?\$\1\$/y, read: dollarQuoted },
  {
    kind: "text",
    shape: /\$(?:[A-Za-z_\u0080-\uffff][A-Za-z0-9_\u0080-\uffff]*)?\$[\s\S]*$/y,
    read: dollarQuoted,
    unclosed: dollarMark,
  },
  { kind: "quoted name", shape: /"(?:[^"]|"")+"/y, read: undoubled },
  { kind: "quoted name", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
  // Numbers in other bases and with underscores came with version 16.
  {
    kind: "number",
    shape:
      version === "15"
        ? /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y
        : /0[xX](?:_?[0-9a-fA-F])+|0[oO](?:_?[0-7])+|0[bB](?:_?[01])+|(?:\d+(?:_\d+)*(?:\.(?:\d+(?:_\d+)*)?)?|\.\d+(?:_\d+)*)(?:[eE][+-]?\d+)?/y,
  },
  {
    kind: "name",
    shape: /[A-Za-z_\u0080-\uffff][\w$\u0080-\uffff]*/y,
    read: (source) => source.replace(/[A-Z]/g, (c) => c.toLowerCase()),
  },
  { kind: "symbol", shape: /::|:=|[(),;[\]:.]/y },
  // The longest run of operator characters before a comment; it may end in + or - only after one that no number has (4.1.3).
  { kind: "symbol", shape: /(?:(?!--|\/\*)[-+*/<>=])*(?!--|\/\*)[~!@#%^&|`?](?:(?!--|\/\*)[-+*/<>=~!@#%^&|`?])*/y },
  { kind: "symbol", shape: /(?:(?!--|\/\*)[-+*/<>=])*(?!--|\/\*)[*/<>=]|[-+]/y },
];

/** Words that are no columns unless they are quoted, as the engine's 15 and 17 take them. */
export const reserved: ReadonlySet<string> = new Set(
  "all analyse analyze and any array as asc asymmetric authorization binary both case cast check collate collation column concurrently constraint create cross current_catalog current_date current_role current_schema current_time current_timestamp current_user default deferrable desc distinct do else end except false fetch for foreign freeze from full grant group having ilike in initially inner intersect into is isnull join lateral leading left like limit localtime localtimestamp natural not notnull null offset on only or order outer overlaps placing primary references returning right select session_user similar some symmetric table tablesample then to trailing true union unique user using variadic verbose when where window with".split(
    " ",
  ),
);

/** How a column is written: as it is where it reads back so. */
export const columnText = (name: string): string =>
  /^[a-z_][a-z0-9_$]*$/.test(name) && !reserved.has(name) ? name : `"${name.replaceAll('"', '""')}"`;

/** How a text is written: a backslash is one as `standard_conforming_strings` is on unless somebody turns it off. */
export const textLiteral = (text: string): string => `'${text.replaceAll("'", "''")}'`;

/** The collations that a build has whatever its libraries: all compare by code points (24.2.2). */
export const collations: readonly string[] = ["C", "POSIX", "ucs_basic", "default", "C.utf8"];
