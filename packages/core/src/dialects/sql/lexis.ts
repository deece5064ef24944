import { type TokenRule, undoubled } from "../../syntax/index.ts";

/** `U&'…'` with `\XXXX` and `\+XXXXXX` (5.3 <Unicode character string literal>). */
function readUnicode(source: string): string | { problem: string } {
  let problem = "";
  const value = source
    .slice(3, -1)
    .replaceAll("''", "'")
    .replace(/\\(?:([0-9a-fA-F]{4})|\+([0-9a-fA-F]{6})|(\\)|)/g, (_part, short, long, backslash) => {
      if (backslash) return "\\";
      const code = parseInt((short ?? long ?? "") as string, 16);
      if (Number.isNaN(code) || code > 0x10ffff) problem = "a Unicode escape is \\XXXX or \\+XXXXXX";
      return problem ? "" : String.fromCodePoint(code);
    });
  return problem || !value.isWellFormed() ? { problem: problem || "half of a surrogate pair" } : value;
}

const afterMark = (source: string): string => undoubled(source.slice(1));

/** The tokens of SQL (ISO/IEC 9075-2:2023, 5.2 and 5.3). */
export const sqlRules: readonly TokenRule[] = [
  { kind: "blank", shape: /\s+|--[^\n]*/y },
  { kind: "blank", shape: /\/\*/y, closing: "*/" },
  { kind: "text", shape: /[uU]&'(?:[^']|'')*'/y, read: readUnicode },
  { kind: "text", shape: /[nN]'(?:[^']|'')*'/y, read: afterMark },
  { kind: "text", shape: /'(?:[^']|'')*'/y, read: undoubled },
  { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
  { kind: "quoted name", shape: /"(?:[^"]|"")+"/y, read: undoubled },
  { kind: "quoted name", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
  {
    kind: "number",
    shape:
      /0[xX](?:_?[0-9a-fA-F])+|0[oO](?:_?[0-7])+|0[bB](?:_?[01])+|(?:\d+(?:_\d+)*(?:\.(?:\d+(?:_\d+)*)?)?|\.\d+(?:_\d+)*)(?:[eE][+-]?\d+)?/y,
  },
  // An identifier that is not quoted is equivalent to itself in upper case (5.2, syntax rule 27).
  { kind: "name", shape: /[\p{L}\p{Nl}_][\p{L}\p{Nl}\p{Nd}\p{Mn}\p{Pc}$]*/uy, read: (source) => source.toUpperCase() },
  { kind: "symbol", shape: /\|\||<=|>=|<>|[-+*/<>=(),;.[\]?:]/y },
];
