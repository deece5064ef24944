import { type TokenRule, undoubled } from "../../syntax/index.ts";

const controls: Readonly<Record<string, string>> = { b: "\b", f: "\f", n: "\n", r: "\r", t: "\t" };

/** `E'…'` (PostgreSQL documentation, 4.1.2.2). */
function readEscapes(source: string): string | { problem: string } {
  let problem = "";
  const value = source
    .slice(2, -1)
    .replace(
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
  const [, quoted, mark = "\\"] = /^..(['"][^]*?['"])(?:\s*uescape\s*'([^])')?$/i.exec(source)!;
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
  { kind: "blank", shape: /\s+|--[^\n]*/y },
  { kind: "blank", shape: /\/\*/y, closing: "*/" },
  { kind: "text", shape: /[eE]'(?:[^'\\]|''|\\[\s\S])*'/y, read: readEscapes },
  { kind: "text", shape: /[uU]&'(?:[^']|'')*'(?:\s*[uU][eE][sS][cC][aA][pP][eE]\s*'[\x21-\x7e]')?/y, read: readUnicode },
  { kind: "quoted name", shape: /[uU]&"(?:[^"]|"")+"(?:\s*[uU][eE][sS][cC][aA][pP][eE]\s*'[\x21-\x7e]')?/y, read: readUnicode },
  { kind: "text", shape: /'(?:[^']|'')*'/y, read: undoubled },
  { kind: "text", shape: /[nN]'(?:[^']|'')*'/y, read: (source) => undoubled(source.slice(1)) },
  { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
  { kind: "text", shape: /\$([A-Za-z_\u0080-\uffff][\w\u0080-\uffff]*)?\$[\s\S]*?\$\1\$/y, read: dollarQuoted },
  { kind: "text", shape: /\$(?:[A-Za-z_\u0080-\uffff][\w\u0080-\uffff]*)?\$[\s\S]*$/y, read: dollarQuoted, unclosed: dollarMark },
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
