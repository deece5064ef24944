import { type Diagnostic, type Dialect, Failure, type Value, applyFix, message } from "indigo-quill";
import { visibleText } from "indigo-quill/authoring";
import { exactData, exactJson } from "indigo-quill/values";
import type { Problem, Shown } from "./findings.ts";

/** UTF-16 units of a text that a cell shows. */
const mostText = 300;

/** A value as a cell shows it. */
export function shown(value: Value, dialect?: Dialect): Shown {
  if (value === null) return { kind: "nothing" };
  if (value instanceof Failure) return { kind: "failure", code: value.standard ?? value.code, sentence: message(value) };
  if (typeof value === "string") return { kind: "text", text: value.slice(0, mostText), length: value.length };
  const data = exactData(value, (each) => (dialect ? dialect.plain(each) : each));
  return { kind: "plain", text: typeof data === "object" ? exactJson(data) : String(data) };
}

/** A value that is shown, in words. */
export function wordsFor(value: Shown): string {
  if (value.kind === "nothing") return "nothing";
  if (value.kind === "failure") return value.code;
  if (value.kind === "plain") return value.text;
  return `"${visibleText(value.text, false)}"${value.length > value.text.length ? " …" : ""}`;
}

/** What is wrong with a source, with its mends. */
export const problemsShown = (diagnostics: readonly Diagnostic[], source: string): Problem[] =>
  diagnostics.slice(0, 20).map((problem) => ({
    severity: problem.severity,
    range: problem.range,
    sentence: message(problem),
    mends: problem.fixes.slice(0, 3).map((fix) => ({ title: fix.title, text: applyFix(source, fix) })),
  }));
