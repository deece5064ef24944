import type { TextRange, Value } from "../values/index.ts";

/** A stretch of a result, and what the operation made it from. */
export interface Piece {
  readonly text: string;
  /** The slot by its place (0-based), and in a slot of many the item; left out for what the operation put in by itself. */
  readonly slot?: number;
  readonly item?: number;
  /** The stretch of that text, in UTF-16 units; left out where it is the whole value, of any kind. */
  readonly range?: TextRange;
  /** Whether it is another text than that stretch. */
  readonly changed?: true;
}

/** Pieces beyond which no more are told. */
export const pieceLimit = 100_000;

/** Where kernels tell the pieces of what they make, while someone watches. */
let told: Piece[] | undefined;

/** Whether a kernel is to tell its pieces, and not take a shorter way. */
export const isWatched = (): boolean => told !== undefined;

function tell(piece: Piece): void {
  if (told && told.length <= pieceLimit && (piece.text !== "" || piece.range)) told.push(piece);
}

/** Gives on what a kernel takes as it stands at an offset of a slot's text. */
export function taken(start: number, text: string, slot = 0, item?: number): string {
  if (told) tell({ text, slot, ...(item !== undefined && { item }), range: { start, end: start + text.length } });
  return text;
}

/** Gives on what a kernel puts in place of a stretch of a slot's text. */
export function turned(start: number, end: number, text: string, slot = 0): string {
  if (told) tell({ text, slot, range: { start, end }, changed: true });
  return text;
}

/** Gives on a value that is that of a slot, or of an item of it, as it is. */
export function passed(value: Value, slot: number, item?: number): Value {
  if (told && told.length <= pieceLimit)
    told.push({ text: typeof value === "string" ? value : "", slot, ...(item !== undefined && { item }) });
  return value;
}

/** Gives on what a kernel puts in by itself. */
export function made(text: string): string {
  if (told) tell({ text });
  return text;
}

/** Takes back what was told of a piece at one end of a list. */
export function dropped(end: "first" | "last"): void {
  if (end === "first") told?.shift();
  else told?.pop();
}

const codePoints = (text: string): readonly string[] => [...text];

/**
 * Gives on a text that `each` makes character by character, or nearly so: where its characters do not add up to `result`,
 * but there are as many, they stand for each other; else it stands for the whole.
 */
export function mapped(value: string, result: string, each: (char: string) => string, charsOf = codePoints): string {
  if (!told) return result;
  if (result === value) return taken(0, result);
  const chars = value.length <= pieceLimit ? charsOf(value) : [];
  const alone = chars.map(each);
  const parts = alone.join("") === result ? alone : codePoints(result);
  if (parts.length !== chars.length) return turned(0, value.length, result);
  let at = 0;
  for (const [i, char] of chars.entries()) {
    if (parts[i] === char) taken(at, char);
    else if (parts[i] !== "") turned(at, at + char.length, parts[i]);
    at += char.length;
  }
  return result;
}

/** Runs a kernel; its value with the pieces that it is made of, of a list one for each item, or undefined where it did not tell all. */
export function watched(run: () => Value): { readonly value: Value; readonly pieces: readonly Piece[] | undefined } {
  const before = told;
  const pieces: Piece[] = (told = []);
  try {
    const value = run();
    return { value, pieces: isWhole(value, pieces) ? pieces : undefined };
  } finally {
    told = before;
  }
}

function isWhole(value: Value, pieces: readonly Piece[]): boolean {
  const [first] = pieces;
  if (pieces.length === 1 && first.slot !== undefined && !first.range && !Array.isArray(value)) return true;
  if (typeof value === "string") return pieces.reduce((sum, { text }) => sum + text, "") === value;
  if (!Array.isArray(value) || value.length !== pieces.length) return false;
  return (value as readonly Value[]).every((item, i) => item === null || !pieces[i].range || item === pieces[i].text);
}
