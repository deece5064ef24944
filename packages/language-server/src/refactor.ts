import { type Dialect, type Sample, columnsUsed, compile } from "indigo-quill";
import { renameAt, renamed } from "indigo-quill/authoring";
import { inlined, lifted } from "indigo-quill/folio";
import {
  type CodeAction,
  CodeActionKind,
  type CreateFile,
  type Position,
  type RenameFile,
  ResponseError,
  TextDocumentEdit,
  type WorkspaceEdit,
} from "vscode-languageserver/node.js";
import type { TextDocument } from "vscode-languageserver-textdocument";
import { addressOf, besides, columnOf, planWith, seenBy } from "./beside.ts";
import { rangeIn } from "./ranges.ts";

/** A document among those that are open, with what its expression is tried on. */
export interface Asked {
  readonly document: TextDocument;
  readonly all: readonly TextDocument[];
  readonly dialect: Dialect;
  readonly rows: Sample;
  /** Whether the editor can make and rename files. */
  readonly takesFiles: boolean;
}

const wholeOf = (document: TextDocument) => rangeIn(document, { start: 0, end: document.getText().length });

/** The parts of an expression in documents of their own beside it, where that gives the same and the editor can make them. */
export function liftAction({ document, all, dialect, rows, takesFiles }: Asked): CodeAction[] {
  if (!takesFiles) return [];
  const made = lifted(dialect, columnOf(document), document.getText(), seenBy(document, all, dialect, rows));
  if ("refused" in made) return [];
  const helpers = made.columns.slice(0, -1);
  const main = made.columns[made.columns.length - 1];
  const start = { line: 0, character: 0 };
  const edit: WorkspaceEdit = {
    documentChanges: [
      ...helpers.flatMap(({ names, expression }): (CreateFile | TextDocumentEdit)[] => {
        const uri = addressOf(names[0], document);
        return [
          { kind: "create", uri, options: { overwrite: false, ignoreIfExists: false } },
          TextDocumentEdit.create({ uri, version: null }, [{ range: { start, end: start }, newText: expression }]),
        ];
      }),
      TextDocumentEdit.create({ uri: document.uri, version: document.version }, [
        { range: wholeOf(document), newText: main.expression },
      ]),
    ],
  };
  const names = helpers.map((each) => each.names[0]).join(", ");
  return [{ title: `Take its parts out into columns: ${names}`, kind: CodeActionKind.RefactorExtract, edit }];
}

/** The columns beside an expression put into it, where it reads some and that gives the same. */
export function inlineAction({ document, all, dialect, rows }: Asked): CodeAction[] {
  const sample = seenBy(document, all, dialect, rows);
  const program = compile(dialect, document.getText(), sample);
  const beside = new Set(besides(document, all).map(columnOf));
  const read = program.ok ? [...columnsUsed(program)].map((i) => sample.columns[i].name).filter((name) => beside.has(name)) : [];
  if (read.length === 0) return [];
  const name = columnOf(document);
  const made = inlined(planWith(document, all, dialect, rows), name, rows);
  if ("refused" in made) return [];
  const changes = { [document.uri]: [{ range: wholeOf(document), newText: made.expression }] };
  return [
    {
      title: `Put the columns that it reads into it: ${read.join(", ")}`,
      kind: CodeActionKind.RefactorInline,
      edit: { changes },
    },
  ];
}

/** Another name for the column at a place, in all documents beside it, and for the document that it is. */
export function renameEdit(
  { document, all, dialect, rows, takesFiles }: Asked,
  position: Position,
  to: string,
): WorkspaceEdit | null {
  const found = renameAt(document.getText(), document.offsetAt(position), dialect, seenBy(document, all, dialect, rows), to);
  if (!found) return null;
  const refuse = (problem: string): never => {
    throw new ResponseError(-32803, problem);
  };
  if ("refused" in found) return refuse(found.refused);
  const { column } = found;
  const others = besides(document, all).map((each) => {
    const made = renamed(each.getText(), column, dialect, seenBy(each, all, dialect, rows), to);
    return { each, edits: "refused" in made ? refuse(`${columnOf(each)}: ${made.refused}`) : made.edits };
  });
  const edits = [{ each: document, edits: found.edits }, ...others].filter((one) => one.edits.length > 0);
  const own = besides(document, all).find((each) => columnOf(each) === column);
  const textEdits = ({ each, edits: changed }: (typeof edits)[number]) =>
    changed.map(({ range, text }) => ({ range: rangeIn(each, range), newText: text }));
  if (!own) return { changes: Object.fromEntries(edits.map((one) => [one.each.uri, textEdits(one)])) };
  if (!takesFiles) return refuse(`${column} is a document; this editor does not let documents be renamed`);
  const moved: RenameFile = { kind: "rename", oldUri: own.uri, newUri: addressOf(to, own), options: { overwrite: false } };
  return {
    documentChanges: [
      ...edits.map((one) => TextDocumentEdit.create({ uri: one.each.uri, version: one.each.version }, textEdits(one))),
      moved,
    ],
  };
}
