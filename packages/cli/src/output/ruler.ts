import type { TextRange } from "indigo-quill";
import stringWidth from "string-width";
import type { Style } from "./style.ts";
import { visibleText } from "indigo-quill/authoring";

/**
 * A text with the number of every fifth character above it, counted in code points from 0 and
 * from 1, and a line under the stretch that was taken (UTF-16 offsets).
 */
export function ruler(text: string, taken: TextRange | undefined, style: Style, indent = ""): string {
  const chars = [...text];
  const cells = chars.map((char) => visibleText(char, true));
  const sizes = cells.map((cell) => Math.max(1, stringWidth(cell)));
  const scale = (first: number) => {
    let line = "";
    let column = 0;
    sizes.forEach((size, i) => {
      const number = i + first;
      if (number % 5 === 0 || i === 0) line = line.padEnd(column) + (line.length <= column ? String(number) : "");
      column += size;
    });
    return line;
  };
  let offset = 0;
  const marks = chars.map((char, i) => {
    const inside = taken !== undefined && offset >= taken.start && offset < taken.end;
    offset += char.length;
    return (inside ? "━" : " ").repeat(sizes[i]);
  });
  const pad = (i: number) => cells[i] + " ".repeat(sizes[i] - stringWidth(cells[i]));
  const lines = [
    style.colour.dim(`${indent}from 0  ${scale(0)}`),
    style.colour.dim(`${indent}from 1  ${scale(1)}`),
    `${indent}        ${cells.map((_, i) => pad(i)).join("")}`,
  ];
  if (taken) lines.push(`${indent}taken   ${style.colour.cyan(marks.join("").trimEnd() || "(nothing)")}`);
  return `${lines.map((line) => line.trimEnd()).join("\n")}\n`;
}
