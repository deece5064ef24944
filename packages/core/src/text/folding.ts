import type { AnswerOf } from "../traits/index.ts";

const inAscii = (text: string): string => text.replace(/[A-Z]/g, (letter) => letter.toLowerCase());

const foldings: Readonly<Record<AnswerOf<"case">, (text: string) => string>> = {
  minded: (text) => text,
  ignored: (text) => text.toLowerCase(),
  "ignored in ascii": inAscii,
};

/** What makes letters alike that the trait `case` does not tell apart. */
export const foldingOf = (letterCase: AnswerOf<"case">): ((text: string) => string) => foldings[letterCase];
