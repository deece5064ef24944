import { type TokenRule, undoubled } from "../../syntax/index.ts";

const escapes: Readonly<Record<string, string>> = {
  "0": "\0",
  b: "\b",
  n: "\n",
  r: "\r",
  t: "\t",
  Z: "\x1a",
  "%": "\\%",
  _: "\\_",
};

/** A text between quotes, which may be doubled, with escapes (MariaDB documentation, "String Literals"). */
const readText = (source: string): string => {
  const quote = source[0];
  return source
    .slice(1, -1)
    .replace(/\\([\s\S])|(['"])\2/g, (part, char: string | undefined, doubled: string | undefined) =>
      char !== undefined ? (escapes[char] ?? char) : doubled === quote ? quote : part,
    );
};

/** Base-16 or base-2 digits as base-16 digits of whole bytes. */
const readHex = (source: string): string | { problem: string } => {
  const digits = source.startsWith("0x") ? source.slice(2) : source.slice(2, -1);
  if (!source.startsWith("0x") && digits.length % 2 === 1) return { problem: "base-16 digits come in pairs here" };
  return digits.length % 2 === 1 ? `0${digits}` : digits;
};
const readBits = (source: string): string => {
  const digits = source.startsWith("0b") ? source.slice(2) : source.slice(2, -1);
  const size = Math.ceil(digits.length / 8) * 8;
  return digits.padStart(size, "0").replace(/[01]{8}/g, (byte) => parseInt(byte, 2).toString(16).padStart(2, "0"));
};

/** The tokens of MariaDB with its default sql_mode. */
export const mariadbRules: readonly TokenRule[] = [
  { kind: "blank", shape: /\s+|--(?=[\s\0-\x1f]|$)[^\n]*|#[^\n]*/y },
  { kind: "unknown", shape: /\/\*M?!/y, read: () => ({ problem: "a comment that is executed" }) },
  { kind: "blank", shape: /\/\*[\s\S]*?\*\//y },
  { kind: "unknown", shape: /\/\*[\s\S]*$/y, unclosed: "*/" },
  { kind: "variable", shape: /[xX]'[0-9a-fA-F]*'|0x[0-9a-fA-F]+(?![\w$])/y, read: readHex },
  { kind: "variable", shape: /[bB]'[01]*'|0b[01]+(?![\w$])/y, read: readBits },
  { kind: "text", shape: /'(?:[^'\\]|''|\\[\s\S])*'|"(?:[^"\\]|""|\\[\s\S])*"/y, read: readText },
  { kind: "text", shape: /'(?:[^'\\]|''|\\[\s\S])*\\?$/y, read: readText, unclosed: "'" },
  { kind: "text", shape: /"(?:[^"\\]|""|\\[\s\S])*\\?$/y, read: readText, unclosed: '"' },
  { kind: "quoted name", shape: /`(?:[^`]|``)+`/y, read: undoubled },
  { kind: "quoted name", shape: /`(?:[^`]|``)*$/y, read: undoubled, unclosed: "`" },
  { kind: "number", shape: /(?:\d+(?:\.\d*)?|\.\d+)[eE][+-]?\d+|\d+\.\d*|\.\d+|\d+(?![A-Za-z_$\u0080-\uffff])/y },
  { kind: "name", shape: /[\w$\u0080-\uffff]+/y },
  // A null of older files.
  { kind: "name", shape: /\\N(?![\w$])/y, read: () => "null" },
  { kind: "symbol", shape: /<=>|:=|\|\||&&|<<|>>|<=|>=|<>|!=|[-+*/%^<>=~(),;.|&!@?{}]/y },
];
