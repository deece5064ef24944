import { type Diagnostic, type Program, applyFix, drawCaret, message } from "indigo-quill";
import stringWidth from "string-width";
import type { Streams } from "../streams.ts";

const indented = (text: string) =>
  text
    .split("\n")
    .map((line) => `  ${line}`)
    .join("\n");

/** A problem with a caret under its place, and what each mend would make of the source. */
export function diagnosticText(diagnostic: Diagnostic, source: string): string {
  const mends = diagnostic.fixes.slice(0, 3).map((fix) => {
    const mended = applyFix(source, fix);
    // Where all of it is written anew the title says so already.
    const title = fix.title === `Write ${mended}` ? "Write" : fix.title;
    return `  ${title}: ${mended.length > 200 ? `${mended.slice(0, 200)}…` : mended}`;
  });
  return (
    [`${diagnostic.severity}: ${message(diagnostic)}`, indented(drawCaret(source, diagnostic.range, stringWidth)), ...mends].join(
      "\n",
    ) + "\n"
  );
}

/** Writes the first problems of an expression, and how many more there are. */
export function reportAll(
  dialect: string,
  source: string,
  diagnostics: readonly Diagnostic[],
  streams: Pick<Streams, "stderr">,
): void {
  const shown = diagnostics.slice(0, 5);
  for (const diagnostic of shown) streams.stderr.write(`${dialect}: ${diagnosticText(diagnostic, source)}`);
  if (diagnostics.length > shown.length) streams.stderr.write(`… and ${diagnostics.length - shown.length} more\n`);
}

/** Writes what is wrong with a program; true when it can run. */
export function report(program: Program, streams: Streams): boolean {
  reportAll(program.dialect.id, program.source, program.diagnostics, streams);
  if (program.ok && program.diagnostics.length > 0) streams.stderr.write("\n");
  return program.ok;
}
