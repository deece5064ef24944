import { visibleText } from "indigo-quill/authoring";
import type { TextRange } from "indigo-quill";
import widthOf from "string-width";

/** UTF-16 units that are shown of a wide text before what is marked, and in all. */
const shown = { before: 12, all: 44 };

/** A text on one line, cut around a stretch of it, with its white space visible; and a line with ^ under that stretch. */
export function marked(text: string, { start, end }: TextRange): { readonly cell: string; readonly carets: string } {
  const isWide = text.length > shown.all;
  const from = isWide ? Math.max(0, Math.min(start - shown.before, text.length - shown.all)) : 0;
  const to = isWide ? Math.min(text.length, from + shown.all) : text.length;
  const part = (a: number, b: number) => visibleText(text.slice(a, Math.max(a, b)), true);
  const [before, within, after] = [part(from, start), part(start, Math.min(end, to)), part(Math.min(end, to), to)];
  const lead = from > 0 ? "…" : "";
  return {
    cell: text === "" ? '""' : `${lead}${before}${within}${after}${to < text.length ? "…" : ""}`,
    carets: " ".repeat(widthOf(lead + before)) + "^".repeat(Math.max(1, widthOf(within))),
  };
}
