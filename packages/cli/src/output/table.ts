import widthOf from "string-width";
import type { Style } from "./style.ts";

/** The terminal columns of a text; of one in ASCII its length. */
const stringWidth = (text: string): number => (/^[ -~]*$/.test(text) ? text.length : widthOf(text));

/** Cuts a text to a number of terminal columns, with … at the end. */
function cut(text: string, width: number): string {
  if (stringWidth(text) <= width) return text;
  let result = "";
  for (const char of text) {
    if (stringWidth(result + char) > width - 1) break;
    result += char;
  }
  return `${result}…`;
}

/** The widths of columns; on a terminal the widest are narrowed until all fit, but not below 8. */
function widths(rows: readonly (readonly string[])[], style: Style): number[] {
  const found = rows[0].map((_, i) => rows.reduce((most, row) => Math.max(most, stringWidth(row[i])), 0));
  if (style.width === undefined) return found;
  const gaps = 2 * (found.length - 1);
  while (found.reduce((a, b) => a + b, gaps) > style.width) {
    const widest = found.indexOf(Math.max(...found));
    if (found[widest] <= 8) break;
    found[widest]--;
  }
  return found;
}

/** An aligned table in pieces: the first has the header, and its rows say how wide the columns are. */
export class TableLines {
  #sizes: readonly number[] | undefined;

  constructor(
    readonly header: readonly string[],
    readonly style: Style,
    /** Columns that are set flush right. */
    readonly right: readonly number[] = [],
  ) {}

  lines(rows: readonly (readonly string[])[]): string {
    const { header, style } = this;
    const sizes = this.#sizes ?? widths([header, ...rows], style);
    const line = (cells: readonly string[]) =>
      cells
        .map((cell, i) => {
          const shown = style.width === undefined ? cell : cut(cell, sizes[i]);
          const fill = " ".repeat(Math.max(0, sizes[i] - stringWidth(shown)));
          return this.right.includes(i) ? fill + shown : shown + fill;
        })
        .join("  ")
        .trimEnd();
    const rule = sizes.map((size) => "─".repeat(size)).join("  ");
    const head = this.#sizes ? [] : [style.colour.bold(line(header)), style.colour.dim(rule)];
    this.#sizes = sizes;
    return [...head, ...rows.map(line)].map((each) => `${each}\n`).join("");
  }
}

/** An aligned table with a header; columns in `right` are set flush right. */
export const table = (
  header: readonly string[],
  rows: readonly (readonly string[])[],
  style: Style,
  right: readonly number[] = [],
): string => new TableLines(header, style, right).lines(rows);

/** A text broken between words into lines of at most `width` terminal columns, the first after `lead`, the others after `indent`. */
export function wrapped(text: string, width: number, lead: string, indent: string): string {
  const lines: string[] = [];
  let line = lead;
  let isBare = true;
  for (const word of text.split(" ")) {
    if (!isBare && stringWidth(line) + 1 + stringWidth(word) > width) {
      lines.push(line);
      line = indent + word;
    } else line += (isBare ? "" : " ") + word;
    isBare = false;
  }
  return [...lines, line].join("\n");
}
