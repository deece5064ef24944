import type { TextRange } from "indigo-quill";
import { rulerOf } from "indigo-quill/authoring";
import stringWidth from "string-width";
import type { Style } from "./style.ts";

/**
 * A text with the number of every fifth character above it, counted in code points from 0 and
 * from 1, and a line under the stretch that was taken (UTF-16 offsets).
 */
export function ruler(text: string, taken: TextRange, style: Style, indent: string): string {
  const { cells, before, after } = rulerOf(text, taken);
  const sizes = cells.map(({ shown }) => Math.max(1, stringWidth(shown)));
  const lead = before > 0 ? "… " : "";
  const scale = (first: number) => {
    let line = " ".repeat(lead.length);
    let column = line.length;
    cells.forEach(({ position }, i) => {
      if ((position + first) % 5 === 0 || i === 0)
        line = line.padEnd(column) + (line.length <= column ? String(position + first) : "");
      column += sizes[i];
    });
    return line;
  };
  const chars = cells.map(({ shown }, i) => shown + " ".repeat(sizes[i] - stringWidth(shown))).join("");
  const marks = cells.map((cell, i) => (cell.taken ? "━" : " ").repeat(sizes[i])).join("");
  const lines = [
    style.colour.dim(`${indent}from 0  ${scale(0)}`),
    style.colour.dim(`${indent}from 1  ${scale(1)}`),
    `${indent}        ${lead}${chars}${after > 0 ? ` … ${after} more` : ""}`,
    `${indent}taken   ${" ".repeat(lead.length)}${style.colour.cyan(marks.trimEnd() || "(nothing)")}`,
  ];
  return `${lines.map((line) => line.trimEnd()).join("\n")}\n`;
}
