import { visibleText } from "indigo-quill/authoring";
import { showValue } from "indigo-quill/contrast";
import type { PatternPart } from "indigo-quill/patterns";
import type { Style } from "./style.ts";

/** Columns that a part of a pattern, and what it says, take at most. */
const widest = { written: 40, says: 60 };

/** A pattern part by part: what is written, what it fits, and what it fitted. */
export function partsText(parts: readonly PatternPart[], { colour }: Style): string[] {
  const written = parts.map(({ text = "", depth }) => "  ".repeat(depth) + visibleText(text, false));
  const width = (texts: readonly string[], most: number) => Math.min(most, Math.max(0, ...texts.map(({ length }) => length)));
  const [first, second] = [
    width(written, widest.written),
    width(
      parts.map(({ says }) => says),
      widest.says,
    ),
  ];
  return parts.map(({ says, matched }, i) =>
    `  ${colour.bold(written[i].padEnd(first))}  ${matched === undefined ? says : `${says.padEnd(second)}  ${showValue(matched)}`}`.trimEnd(),
  );
}
