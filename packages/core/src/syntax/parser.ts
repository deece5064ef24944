import type { Diagnostic, Fix } from "../diagnostics/index.ts";
import type { TextRange } from "../values/index.ts";
import type { Token, TokenKind, TokenRule } from "./lexer.ts";
import { tokenize } from "./lexer.ts";
import { type Expression, type Literal, ungrouped } from "./tree.ts";

/** Named bounds on what is read; each has a default and an error that names it. */
export interface ParseLimits {
  /** Levels that an expression may be nested. */
  readonly nestingDepth: number;
  /** UTF-16 code units of an expression. */
  readonly expressionLength: number;
  /** Problems after which the rest of an expression is not read. */
  readonly problems: number;
}

export const parseLimits: ParseLimits = { nestingDepth: 600, expressionLength: 4 << 20, problems: 100 };

/** A tree for the whole source, and what is wrong with it. There is always a tree. */
export interface Parsed {
  readonly source: string;
  readonly tree: Expression;
  /** Where comments stand, which the tree does not hold. */
  readonly comments: readonly TextRange[];
  readonly diagnostics: readonly Diagnostic[];
}

/** What follows an operand: how tightly it binds to its left, and how to read on. */
export interface Infix {
  readonly power: number;
  readonly read: (parser: Parser, left: Expression) => Expression;
  /** The operator, where a long chain of it may be grouped in another way than from the left. */
  readonly chain?: string;
}

/** The two tables of a Pratt parser. */
export interface Grammar {
  readonly rules: readonly TokenRule[];
  /** How tightly the separator binds where it is an operator too; arguments bind more tightly. */
  readonly separatorPower?: number;
  /** The separator between arguments. */
  readonly separator: "," | ";";
  /** What an argument is that is left empty between separators; undefined where it may not be. */
  readonly emptyArgument?: Literal;
  /**
   * Operators whose chains mean the same however they are grouped: always, or where all operands are columns and literals
   * (others might be lists, which are joined to in another way).
   */
  readonly associative?: Readonly<Record<string, "always" | "of plain operands">>;
  readonly prefix: (parser: Parser) => Expression;
  readonly infix: (parser: Parser) => Infix | undefined;
}

/** An operand of a chain, and where the operator before it stands; the first has none. */
interface Link {
  readonly sign?: TextRange;
  readonly operand: Expression;
}

/** Operands beyond which a chain is grouped in halves, so that it is no deep tree. */
const longChain = 200;

/** A chain grouped from the left, or in halves down to parts of `longChain` operands. */
function joined(name: string, links: readonly Link[], inHalves: boolean): Expression {
  const join = (left: Expression, right: Expression, nameRange: TextRange): Expression => ({
    kind: "call",
    name,
    nameRange,
    args: [left, right],
    notation: "operator",
    range: { start: left.range.start, end: right.range.end },
  });
  if (!inHalves || links.length <= longChain)
    return links.slice(1).reduce((left, { sign, operand }) => join(left, operand, sign!), links[0].operand);
  const middle = links.length >> 1;
  const [first, second] = [links.slice(0, middle), links.slice(middle)];
  return join(joined(name, first, true), joined(name, second, true), second[0].sign!);
}

/** Reads one expression from tokens by precedence; after an error it goes on as well as it can. */
export class Parser {
  readonly tokens: readonly Token[];
  readonly comments: readonly TextRange[];
  readonly diagnostics: Diagnostic[];
  #position = 0;
  #depth = 0;
  /** The height of the tallest tree read since it was last set to 0. */
  #height = 0;

  constructor(
    readonly source: string,
    readonly grammar: Grammar,
    readonly limits: ParseLimits,
  ) {
    ({ tokens: this.tokens, comments: this.comments, diagnostics: this.diagnostics } = tokenize(source, grammar.rules));
    if (this.diagnostics.length > limits.problems) this.diagnostics.length = limits.problems;
  }

  get token(): Token {
    return this.tokens[this.#position];
  }

  ahead(count: number): Token {
    return this.tokens[Math.min(this.#position + count, this.tokens.length - 1)];
  }

  /** Where the last token that was taken ends; 0 at the start. */
  get lastEnd(): number {
    return this.#position === 0 ? 0 : this.tokens[this.#position - 1].range.end;
  }

  next(): Token {
    const token = this.token;
    if (token.kind !== "end") this.#position++;
    return token;
  }

  /** Whether the current token is this symbol. */
  at(symbol: string): boolean {
    return this.token.kind === "symbol" && this.token.value === symbol;
  }

  /** Whether the current tokens are these words, whatever their case. */
  atWords(...words: string[]): boolean {
    return words.every((word, i) => {
      const token = this.ahead(i);
      return token.kind === "name" && token.source.toLowerCase() === word;
    });
  }

  take(symbol: string): boolean {
    if (!this.at(symbol)) return false;
    this.next();
    return true;
  }

  takeWords(...words: string[]): boolean {
    if (!this.atWords(...words)) return false;
    for (const _ of words) this.next();
    return true;
  }

  /** Takes the symbol or word, or reports that it is missing. */
  expect(what: string): boolean {
    if (this.take(what) || this.takeWords(what)) return true;
    this.expected(`"${what}"`);
    return false;
  }

  report(
    code: Diagnostic["code"],
    range: TextRange,
    facts: Record<string, unknown> = {},
    fixes: readonly Fix[] = [],
    severity: "error" | "warning" = "error",
  ): void {
    if (this.diagnostics.length < this.limits.problems) this.diagnostics.push({ code, severity, range, facts, fixes });
    else this.#skipRest();
  }

  expected(expected: string): void {
    if (this.#gaveUp) return;
    const { kind, source, range } = this.token;
    const found = kind === "end" ? "the end of the expression" : `"${source}"`;
    const at = kind === "end" ? { start: this.lastEnd, end: this.lastEnd } : range;
    if (!this.diagnostics.some((d) => d.range.start === at.start && d.severity === "error"))
      this.report("expected", at, { expected, found });
  }

  /** Reports that the dialect has what begins at `start` and we do not read it yet, and skips the rest. */
  uncovered(what: string, start = this.token.range.start): Expression {
    return this.#giveUp("not-covered", start, { what });
  }

  missing(expected = "a value"): Expression {
    this.expected(expected);
    return { kind: "missing", range: { start: this.lastEnd, end: this.lastEnd } };
  }

  /** Reads an expression whose operators bind more tightly than `power`. */
  expression(power = 0): Expression {
    const outside = this.#height;
    if (this.#depth >= this.limits.nestingDepth) return this.#tooDeep();
    this.#depth++;
    this.#height = 0;
    let left = this.grammar.prefix(this);
    let height = this.#height + 1;
    for (;;) {
      const infix = this.grammar.infix(this);
      if (!infix || infix.power <= power) break;
      if (height >= this.limits.nestingDepth) {
        left = this.#tooDeep();
        break;
      }
      this.#height = 0;
      if (infix.chain === undefined) {
        left = infix.read(this, left);
        height = Math.max(height, this.#height) + 1;
        continue;
      }
      const links = this.#chain(infix.chain, infix.power, left);
      const isHalved = links.length > longChain && this.#mayRegroup(infix.chain, links);
      height = Math.max(height, this.#height) + (isHalved ? longChain + Math.ceil(Math.log2(links.length)) : links.length - 1);
      left = height <= this.limits.nestingDepth ? joined(infix.chain, links, isHalved) : this.#tooDeep();
    }
    this.#depth--;
    this.#height = Math.max(outside, height);
    return left;
  }

  /** The operands of a chain of one operator, and before each but the first where the operator stands. */
  #chain(name: string, power: number, first: Expression): Link[] {
    const links: Link[] = [{ operand: first }];
    for (let infix = this.grammar.infix(this); infix?.chain === name && infix.power === power; infix = this.grammar.infix(this)) {
      const { range } = this.next();
      links.push({ sign: range, operand: this.expression(power) });
    }
    return links;
  }

  #mayRegroup(name: string, links: readonly Link[]): boolean {
    const isPlain = ({ operand }: Link) => ["literal", "name"].includes(ungrouped(operand).kind);
    return this.grammar.associative?.[name] === "always" || links.every(isPlain);
  }

  #tooDeep(): Expression {
    return this.#giveUp("too-deep", this.token.range.start, { limit: this.limits.nestingDepth });
  }

  /** Reports once, and skips the rest. */
  #giveUp(code: "too-deep" | "not-covered", start: number, facts: Record<string, unknown>): Expression {
    const range = { start, end: this.source.length };
    if (!this.#gaveUp) this.report(code, range, facts);
    this.#skipRest();
    return { kind: "missing", range };
  }

  #skipRest(): void {
    this.#position = this.tokens.length - 1;
    this.#gaveUp = true;
  }

  /** Whether the rest has been skipped, so that nothing about its end is worth a word. */
  #gaveUp = false;

  /**
   * Reads arguments up to `closing`, the opening bracket having been taken at `open`.
   * A separator of another dialect is read as ours, reported, and mended.
   */
  arguments(closing: string, open: Token): Expression[] {
    const args: Expression[] = [];
    if (this.take(closing)) return args;
    const { separator } = this.grammar;
    const foreign = separator === "," ? ";" : ",";
    for (;;) {
      args.push(this.#emptyArgument(closing) ?? this.expression(this.grammar.separatorPower));
      if (this.take(separator)) continue;
      if (this.at(foreign)) {
        const { range } = this.next();
        this.report("wrong-separator", range, { expected: separator, found: foreign }, [
          { title: `Write "${separator}"`, edits: [{ range, text: separator }] },
        ]);
        continue;
      }
      this.close(closing, open);
      return args;
    }
  }

  #emptyArgument(closing: string): Expression | undefined {
    const { emptyArgument, separator } = this.grammar;
    if (!emptyArgument || !(this.at(separator) || this.at(closing))) return undefined;
    return { ...emptyArgument, range: { start: this.lastEnd, end: this.lastEnd } };
  }

  /** Takes a closing bracket, or reports that the one opened at `open` is not closed. */
  close(closing: string, open: Token): void {
    if (this.take(closing)) return;
    if (this.token.kind !== "end") {
      this.expected(`"${closing}"`);
      return;
    }
    // What is read wrong before may have taken the bracket.
    if (this.#gaveUp || this.#isClosed(closing, open)) return;
    const end = { start: this.source.length, end: this.source.length };
    this.report("unclosed-bracket", open.range, { bracket: open.source, expected: `"${closing}"` }, [
      { title: `Close it with ${closing}`, edits: [{ range: end, text: closing }] },
    ]);
  }

  /** Whether as many brackets are closed behind one as are opened. */
  #isClosed(closing: string, open: Token): boolean {
    let depth = 0;
    for (const { source } of this.tokens.slice(this.tokens.indexOf(open))) {
      depth += source === open.source ? 1 : source === closing ? -1 : 0;
      if (depth === 0) return true;
    }
    return false;
  }

  /** A call node that spans from `start` to the last token taken. */
  call(
    name: string,
    nameRange: TextRange,
    args: readonly Expression[],
    notation: "function" | "operator",
    start = nameRange.start,
  ): Expression {
    return { kind: "call", name, nameRange, args, notation, range: { start, end: this.lastEnd } };
  }

  /** An infix operator that cannot follow another of its kind without brackets: `a = b = c` is refused. */
  unchained(name: string, power: number): Infix {
    const plain = this.binary(name, power);
    return {
      power,
      read: (parser, left) => {
        if (this.isComparison(left)) parser.expected("brackets around one of the comparisons");
        const result = plain.read(parser, left);
        this.#unchained.add(result);
        return result;
      },
    };
  }

  readonly #unchained = new Set<Expression>();

  /** Whether a node was read by an `unchained` operator. */
  isComparison(node: Expression): boolean {
    return this.#unchained.has(node);
  }

  /** An infix operator that takes one operand to its right. */
  binary(name: string, power: number, rightPower = power): Infix {
    const isChain = rightPower === power && Object.hasOwn(this.grammar.associative ?? {}, name);
    return {
      power,
      ...(isChain && { chain: name }),
      read: (parser, left) => {
        const { range } = parser.next();
        const right = parser.expression(rightPower);
        return parser.call(name, range, [left, right], "operator", left.range.start);
      },
    };
  }
}

/** Reads a whole source as one expression. */
export function parseWith(grammar: Grammar, source: string, limits: ParseLimits = parseLimits): Parsed {
  const whole = { start: 0, end: source.length };
  const nothing = (code: Diagnostic["code"], facts: Record<string, unknown>): Parsed => ({
    source,
    tree: { kind: "missing", range: whole },
    comments: [],
    diagnostics: [{ code, severity: "error", range: whole, facts, fixes: [] }],
  });
  if (source.length > limits.expressionLength)
    return nothing("too-long", { length: source.length, limit: limits.expressionLength });
  const parser = new Parser(source, grammar, limits);
  if (parser.token.kind === "end" && parser.diagnostics.length === 0) return nothing("empty-expression", {});
  const tree = parser.expression();
  const { token } = parser;
  if (token.kind !== "end" && !parser.diagnostics.some((d) => d.severity === "error" && d.range.start >= token.range.start)) {
    parser.report("extra-text", { start: token.range.start, end: source.length }, { found: token.source });
  }
  return { source, tree, comments: parser.comments, diagnostics: parser.diagnostics };
}

export const isKind = (token: Token, ...kinds: TokenKind[]): boolean => kinds.includes(token.kind);
