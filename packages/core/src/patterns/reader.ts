import type { TextRange } from "../values/index.ts";
import { type PatternNode, PatternError } from "./ast.ts";

/** Reads a pattern from left to right; offsets are in UTF-16 code units. */
export class Reader {
  offset = 0;
  /** Where each part of the tree was read. */
  readonly places = new Map<PatternNode, TextRange>();
  constructor(readonly source: string) {}

  /**
   * A part that was read from an offset up to here. One that stands for several, such as a dot, is told apart by its place; one that
   * was read with fewer brackets around it is the same, as what it refers to may be filled in later.
   */
  placed(node: PatternNode, start: number, end = this.offset): PatternNode {
    const before = this.places.get(node);
    const own = before && before.start < start ? { ...node } : node;
    this.places.set(own, { start, end });
    return own;
  }

  get done(): boolean {
    return this.offset >= this.source.length;
  }

  /** The character at the current offset, "" at the end. */
  peek(): string {
    const codePoint = this.source.codePointAt(this.offset);
    return codePoint === undefined ? "" : String.fromCodePoint(codePoint);
  }

  next(): string {
    const char = this.peek();
    this.offset += char.length;
    return char;
  }

  /** Steps over `text` if it stands here. */
  take(text: string): boolean {
    if (!this.source.startsWith(text, this.offset)) return false;
    this.offset += text.length;
    return true;
  }

  /** Steps over what the sticky pattern `shape` matches here. */
  match(shape: RegExp): RegExpExecArray | null {
    shape.lastIndex = this.offset;
    const found = shape.exec(this.source);
    if (found) this.offset += found[0].length;
    return found;
  }

  fail(problem: string, offset = this.offset): never {
    throw new PatternError(problem, offset);
  }
}

/** Nesting of groups beyond which a pattern is refused. */
export const patternDepth = 200;

/** The largest count that a `{m,n}` bound may have. */
export const repeatBound = 10_000;

/** How often something is repeated. */
export interface Bounds {
  readonly min: number;
  readonly max: number;
  readonly exact?: boolean;
}

/** Reads `{m}`, `{m,}` or `{m,n}` after the brace; undefined (and nothing read) when it is not one. */
export function readBounds(reader: Reader, limit: number): Bounds | undefined {
  const start = reader.offset;
  const found = reader.match(/(\d+)(?:(,)(\d*))?\}/y);
  if (!found) return undefined;
  const min = Number(found[1]);
  const max = !found[2] ? min : found[3] ? Number(found[3]) : Infinity;
  if (min > limit || (max !== Infinity && max > limit)) reader.fail(`a repeat count is larger than ${limit}`, start);
  if (min > max) reader.fail("the repeat counts are in the wrong order", start);
  return { min, max, exact: !found[2] };
}
