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

/** How a token is recognised: the sticky `shape`, and what it stands for. `blank` tokens are dropped. */
export interface TokenRule {
  readonly kind: TokenKind | "blank";
  readonly shape: RegExp;
  /** What the token stands for; a string that starts with "!" reports the rest as a problem with the literal. */
  readonly read?: (source: string) => string;
  /** For a shape that has no end: the quote or mark that is missing. */
  readonly unclosed?: string;
}

/** Reads a name or text between quotes that are doubled within. */
export const undoubled = (source: string): string => source.slice(1, -1).replaceAll(source[0] + source[0], source[0]);

/** Splits a source into tokens by the first rule that fits at each place; never fails. */
export function tokenize(source: string, rules: readonly TokenRule[]): { tokens: Token[]; diagnostics: Diagnostic[] } {
  const tokens: Token[] = [];
  const diagnostics: Diagnostic[] = [];
  const report = (code: Diagnostic["code"], range: TextRange, facts: Record<string, unknown>, mend?: string) =>
    void diagnostics.push({
      code,
      severity: "error",
      range,
      facts,
      fixes: mend
        ? [{ title: `Close it with ${mend}`, edits: [{ range: { start: range.end, end: range.end }, text: mend }] }]
        : [],
    });
  for (let at = 0; at < source.length;) {
    const rule = rules.find(({ shape }) => {
      shape.lastIndex = at;
      return shape.test(source);
    });
    const end = rule ? rule.shape.lastIndex : at + String.fromCodePoint(source.codePointAt(at)!).length;
    const range = { start: at, end };
    const written = source.slice(at, end);
    at = end;
    if (!rule) report("unexpected-character", range, { character: written });
    else if (rule.unclosed) {
      if (rule.unclosed === "*/" || rule.unclosed === ":)") report("unclosed-comment", range, {}, rule.unclosed);
      else report("unclosed-quote", range, { quote: rule.unclosed }, rule.unclosed);
    }
    if (rule?.kind === "blank") continue;
    const value = rule?.read ? rule.read(rule.unclosed ? written + rule.unclosed : written) : written;
    if (value.startsWith("!bad ")) report("bad-literal", range, { problem: value.slice(5) });
    tokens.push({ kind: rule?.kind ?? "unknown", range, source: written, value });
  }
  tokens.push({ kind: "end", range: { start: source.length, end: source.length }, source: "", value: "" });
  return { tokens, diagnostics };
}
