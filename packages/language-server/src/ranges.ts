import type { TextRange } from "indigo-quill";
import type { Range } from "vscode-languageserver/node.js";
import type { TextDocument } from "vscode-languageserver-textdocument";

/** A range of offsets as lines and characters. */
export const rangeIn = (document: TextDocument, { start, end }: TextRange): Range => ({
  start: document.positionAt(start),
  end: document.positionAt(end),
});
