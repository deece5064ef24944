import { type PatternNode, anyChar, notChars, oneChar, sequence } from "./ast.ts";

/** What a dot and the anchors mean where lines end in some way. */
export interface LineEnds {
  /** Any character that ends no line. */
  readonly dot: PatternNode;
  readonly lineStart: PatternNode;
  readonly lineEnd: PatternNode;
  /** The end of the text, or before a line end that ends it. */
  readonly lastLineEnd: PatternNode;
}

/** Lines end with a line feed. After one that ends the text no line starts in PCRE2. */
export const afterLineFeeds = (isInner: boolean): LineEnds => ({
  dot: { kind: "set", set: notChars(10) },
  lineStart: { kind: "assertion", at: isInner ? "inner line start" : "line start" },
  lineEnd: { kind: "assertion", at: "line end" },
  lastLineEnd: { kind: "assertion", at: "last line end" },
});

const crLf = sequence([oneChar(13), oneChar(10)]);
/** The characters that end a line where any of Unicode's may. */
export const anyEnds: readonly number[] = [10, 11, 12, 13, 0x85, 0x2028, 0x2029];
const singles: Readonly<Record<string, readonly number[]>> = {
  CR: [13],
  CRLF: [],
  ANYCRLF: [13, 10],
  ANY: anyEnds,
  NUL: [0],
};

const oneOf = (codes: readonly number[]): PatternNode => ({
  kind: "set",
  set: { ranges: codes.map((code) => [code, code] as const), classes: [], negated: false },
});

/** \R: a carriage return with a line feed, or one of the characters. */
export const lineBreak = (codes: readonly number[]): PatternNode => ({
  kind: "atomic",
  item: { kind: "choice", options: [crLf, oneOf(codes)] },
});

/** Line ends as the verb (*CR), (*CRLF), (*ANYCRLF), (*ANY) or (*NUL) at the start of a pattern says. */
export function lineEndsOf(verb: string): LineEnds {
  const codes = singles[verb];
  const end: PatternNode = verb === "CRLF" ? crLf : oneOf(codes);
  const longest: PatternNode = codes.includes(10) ? { kind: "choice", options: [crLf, end] } : end;
  const textEnd: PatternNode = { kind: "assertion", at: "text end" };
  const look = (item: PatternNode, ahead: boolean, negated = false): PatternNode => ({ kind: "look", item, ahead, negated });
  const either = (...options: PatternNode[]): PatternNode => ({ kind: "choice", options });
  return {
    dot:
      verb === "CRLF"
        ? sequence([look(crLf, true, true), { kind: "set", set: anyChar }])
        : { kind: "set", set: notChars(...codes) },
    lineStart: either({ kind: "assertion", at: "text start" }, sequence([look(end, false), look(textEnd, true, true)])),
    lineEnd: either(textEnd, look(longest, true)),
    lastLineEnd: either(textEnd, look(sequence([longest, textEnd]), true)),
  };
}

/** A pattern that does not start between a carriage return and a line feed, unless the search does. */
export const startedApart = (node: PatternNode): PatternNode => {
  const behind: PatternNode = { kind: "look", item: oneChar(13), ahead: false, negated: false };
  const between: PatternNode = { kind: "look", item: sequence([behind, oneChar(10)]), ahead: true, negated: true };
  return sequence([{ kind: "choice", options: [{ kind: "assertion", at: "search start" }, between] }, node]);
};
