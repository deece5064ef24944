import type { Diagnostic } from "../diagnostics/index.ts";
import type { TextRange } from "../values/index.ts";

export type TokenKind = "text" | "number" | "name" | "quoted name" | "variable" | "symbol" | "unknown" | "end";

/** A stretch of source; `value` is what it stands for (quotes removed, escapes read). */
export interface Token {
  readonly kind: TokenKind;
  readonly range: TextRange;
  readonly source: string;
  readonly value: string;
}

/** How a token is recognised: the sticky `shape`, and what it stands for. `blank` tokens and comments are dropped. */
export interface TokenRule {
  readonly kind: TokenKind | "blank" | "comment";
  readonly shape: RegExp;
  /** What the token stands for, or what is wrong with it. */
  readonly read?: (source: string) => string | { readonly problem: string };
  /** For a shape that has no end: the quote that is missing, or how it follows from what is written. */
  readonly unclosed?: string | ((written: string) => string);
  /** For a comment: `shape` is its opening mark, and comments nest up to as many of this closing mark. */
  readonly closing?: string;
}

/** Reads a name or text between quotes that are doubled within. */
export const undoubled = (source: string): string => source.slice(1, -1).replaceAll(source[0] + source[0], source[0]);

export interface Tokens {
  readonly tokens: Token[];
  /** Comments, which no tree holds. */
  readonly comments: TextRange[];
  readonly diagnostics: Diagnostic[];
}

/** How many brackets at the end of a text close such as were opened before it. */
function closingBrackets(text: string, before: readonly Token[]): number {
  const count = (bracket: string) => before.filter(({ kind, source }) => kind === "symbol" && source === bracket).length;
  const open = count("(") - count(")");
  let found = 0;
  while (found < open && text.at(-1 - found) === ")") found++;
  return found;
}

/** Splits a source into tokens by the first rule that fits at each place; never fails. */
export function tokenize(source: string, rules: readonly TokenRule[]): Tokens {
  const tokens: Token[] = [];
  const comments: TextRange[] = [];
  const diagnostics: Diagnostic[] = [];
  const report = (
    code: Diagnostic["code"],
    range: TextRange,
    facts: Record<string, unknown>,
    mend?: { text: string; at: number },
  ) =>
    void diagnostics.push({
      code,
      severity: "error",
      range,
      facts,
      fixes: mend
        ? [{ title: `Close it with ${mend.text}`, edits: [{ range: { start: mend.at, end: mend.at }, text: mend.text }] }]
        : [],
    });
  for (let at = 0; at < source.length;) {
    const rule = rules.find(({ shape }) => {
      shape.lastIndex = at;
      return shape.test(source);
    });
    let end = rule ? rule.shape.lastIndex : at + String.fromCodePoint(source.codePointAt(at)!).length;
    if (rule?.closing) {
      const closed = commentEnd(source, source.slice(at, end), rule.closing, end);
      end = closed ?? source.length;
      if (closed === undefined) report("unclosed-comment", { start: at, end }, {}, { text: rule.closing, at: end });
    }
    const range = { start: at, end };
    const written = source.slice(at, end);
    at = end;
    if (!rule) report("unexpected-character", range, { character: written });
    const quote = typeof rule?.unclosed === "function" ? rule.unclosed(written) : rule?.unclosed;
    if (quote !== undefined)
      report("unclosed-quote", range, { quote }, { text: quote, at: end - closingBrackets(written, tokens) });
    if (rule?.kind === "comment") comments.push(range);
    if (rule?.kind === "blank" || rule?.kind === "comment") continue;
    const value = rule?.read ? rule.read(written + (quote ?? "")) : written;
    if (typeof value === "object") report("bad-literal", range, { ...value });
    tokens.push({ kind: rule?.kind ?? "unknown", range, source: written, value: typeof value === "object" ? "" : value });
  }
  tokens.push({ kind: "end", range: { start: source.length, end: source.length }, source: "", value: "" });
  // What no engine can be sent: a text ends at U+0000, and half a character has no UTF-8 form.
  for (const [character] of source.matchAll(/\0|\p{Cs}/gu)) {
    const start = source.indexOf(character);
    report("unexpected-character", { start, end: start + 1 }, { character: `U+${hex4(character)}` });
    break;
  }
  return { tokens, comments, diagnostics };
}

const hex4 = (unit: string): string => unit.charCodeAt(0).toString(16).toUpperCase().padStart(4, "0");

/** Where a comment ends whose text begins at `from`, comments within it counted; undefined when it is not closed. */
function commentEnd(source: string, opening: string, closing: string, from: number): number | undefined {
  let depth = 1;
  for (let at = from; at < source.length; at++) {
    if (source.startsWith(opening, at)) {
      depth++;
      at += opening.length - 1;
    } else if (source.startsWith(closing, at)) {
      at += closing.length - 1;
      if (--depth === 0) return at + 1;
    }
  }
  return undefined;
}
