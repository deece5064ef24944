import { type TokenRule, undoubled } from "../../syntax/index.ts";

/** `x'53'`: pairs of base-16 digits. */
const readBytes = (source: string): string | { problem: string } => {
  const digits = source.slice(2, -1);
  return /^(?:[0-9a-fA-F]{2})*$/.test(digits) ? digits : { problem: "a blob is written as pairs of base-16 digits" };
};

/** The tokens of SQLite (documentation, "SQL As Understood By SQLite", literal values and names). */
export const sqliteRules: readonly TokenRule[] = [
  { kind: "blank", shape: /[ \t\n\f\r]+/y },
  { kind: "comment", shape: /--[^\n]*|\/\*[\s\S]*?\*\//y },
  { kind: "unknown", shape: /\/\*[\s\S]*$/y, unclosed: "*/" },
  { kind: "variable", shape: /[xX]'[^']*'/y, read: readBytes },
  { kind: "text", shape: /'(?:[^']|'')*'/y, read: undoubled },
  { kind: "text", shape: /'(?:[^']|'')*$/y, read: undoubled, unclosed: "'" },
  { kind: "quoted name", shape: /"(?:[^"]|"")*"|`(?:[^`]|``)*`/y, read: undoubled },
  { kind: "quoted name", shape: /\[[^\]]*\]/y, read: (source) => source.slice(1, -1) },
  { kind: "quoted name", shape: /"(?:[^"]|"")*$/y, read: undoubled, unclosed: '"' },
  {
    kind: "number",
    shape:
      /0[xX][0-9a-fA-F]+(?:_[0-9a-fA-F]+)*|(?:\d+(?:_\d+)*(?:\.(?:\d+(?:_\d+)*)?)?|\.\d+(?:_\d+)*)(?:[eE][+-]?\d+(?:_\d+)*)?/y,
  },
  { kind: "name", shape: /[A-Za-z_\u0080-\uffff][\w$\u0080-\uffff]*/y },
  { kind: "symbol", shape: /->>|->|\|\||<<|>>|<=|>=|<>|!=|==|[-+*/%<>=~(),;.|&?:@$]/y },
];

/** Words that are no columns unless they are quoted, as version 3.54 takes them. */
export const reserved: ReadonlySet<string> = new Set(
  "add all alter and as autoincrement between case cast check collate commit constraint create current_date current_time current_timestamp default deferrable delete distinct drop else escape except exists false foreign from group having in index insert intersect into is isnull join limit not nothing notnull null on or order primary raise references returning select set table then to transaction true union unique update using values when where".split(
    " ",
  ),
);

/** How a column is written: as it is where it reads back so. */
export const columnText = (name: string, quote: '"' | "`" = '"'): string =>
  /^[A-Za-z_][A-Za-z0-9_]*$/.test(name) && !reserved.has(name.toLowerCase())
    ? name
    : quote + name.replaceAll(quote, quote + quote) + quote;

export const textLiteral = (text: string): string => `'${text.replaceAll("'", "''")}'`;
