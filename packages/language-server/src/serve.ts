import type { Readable, Writable } from "node:stream";
import { type Diagnostic as Problem, type Dialect, type Sample, compile, message } from "indigo-quill";
import { type Completion, callAt, completionsAt, format, hoverAt, notesOf } from "indigo-quill/authoring";
import {
  type CodeAction,
  CodeActionKind,
  CompletionItemKind,
  type Connection,
  type Diagnostic,
  DiagnosticSeverity,
  type Range,
  StreamMessageReader,
  StreamMessageWriter,
  TextDocumentSyncKind,
  TextDocuments,
  createConnection,
} from "vscode-languageserver/node.js";
import { TextDocument } from "vscode-languageserver-textdocument";
import { type Settings, dialectOf, rowsOf, settingsOf } from "./settings.ts";

/** Rows on which notes are made from what an expression gives, and milliseconds that they may take. */
const limits = { rows: 500, milliseconds: 300 };

const kinds: Readonly<Record<Completion["kind"], CompletionItemKind>> = {
  column: CompletionItemKind.Field,
  function: CompletionItemKind.Function,
  task: CompletionItemKind.Snippet,
  value: CompletionItemKind.Value,
};

const rangeIn = (document: TextDocument, { start, end }: { start: number; end: number }): Range => ({
  start: document.positionAt(start),
  end: document.positionAt(end),
});

/** Serves editors over a pair of streams until the input ends; each document is one expression. */
export function serve(input: Readable, output: Writable): void {
  const connection = createConnection(new StreamMessageReader(input), new StreamMessageWriter(output));
  const documents = new TextDocuments(TextDocument);
  let settings: Settings = {};
  let sample: Promise<Sample> = rowsOf({}).then((found) => found.sample);

  connection.onInitialize(({ initializationOptions }) => {
    const { settings: given, problem } = settingsOf(initializationOptions);
    settings = given;
    sample = rowsOf(settings).then(({ sample: rows, problem: unread }) => {
      const told = problem ?? unread;
      if (told !== undefined) connection.window.showErrorMessage(told);
      const columns = rows.columns.map((column) => ({ ...column, values: column.values.slice(0, limits.rows) }));
      return { columns, rows: Math.min(rows.rows, limits.rows) };
    });
    return {
      capabilities: {
        textDocumentSync: TextDocumentSyncKind.Incremental,
        completionProvider: { triggerCharacters: ["$", "'", '"'] },
        signatureHelpProvider: { triggerCharacters: ["(", ",", ";"] },
        hoverProvider: true,
        documentFormattingProvider: true,
        codeActionProvider: { codeActionKinds: [CodeActionKind.QuickFix] },
      },
    };
  });

  const read = async (document: TextDocument): Promise<readonly Problem[] | undefined> => {
    const dialect = await dialectOf(document.uri, settings);
    if (!dialect) return undefined;
    const rows = await sample;
    const program = compile(dialect, document.getText(), rows);
    const values = program.ok ? program.run(rows, { milliseconds: limits.milliseconds }) : [];
    return [...program.diagnostics, ...notesOf(program, rows, values)];
  };

  documents.onDidChangeContent(async ({ document }) => {
    const { version } = document;
    const found = document.getText().trim() === "" ? undefined : await read(document);
    // What is told of a text that has changed since would stand at wrong places.
    if (documents.get(document.uri)?.version !== version) return;
    const diagnostics = (found ?? []).map((problem) => diagnosticOf(document, problem));
    void connection.sendDiagnostics({ uri: document.uri, version, diagnostics });
  });
  documents.onDidClose(({ document }) => void connection.sendDiagnostics({ uri: document.uri, diagnostics: [] }));

  const dialectFor = ({ uri }: TextDocument) => dialectOf(uri, settings);
  answersInText(connection, documents, dialectFor, () => sample);
  answersProblems(connection, documents, read);
  documents.listen(connection);
  connection.listen();
}

/** What is asked about a text and a place in it, whatever it gives. */
function answersInText(
  connection: Connection,
  documents: TextDocuments<TextDocument>,
  dialectFor: (document: TextDocument) => Promise<Dialect | undefined>,
  rows: () => Promise<Sample>,
): void {
  connection.onCompletion(async ({ textDocument, position }) => {
    const document = documents.get(textDocument.uri);
    const dialect = document && (await dialectFor(document));
    if (!dialect) return [];
    const items = completionsAt(document.getText(), document.offsetAt(position), dialect, await rows());
    return items.map(({ text, kind, about, family, range }, i) => ({
      label: text,
      kind: kinds[kind],
      detail: about,
      ...(family && { labelDetails: { description: family } }),
      sortText: String(i).padStart(4, "0"),
      filterText: document.getText().slice(range.start, range.end),
      textEdit: { range: rangeIn(document, range), newText: text },
    }));
  });

  connection.onSignatureHelp(async ({ textDocument, position }) => {
    const document = documents.get(textDocument.uri);
    const dialect = document && (await dialectFor(document));
    const calls = dialect ? callAt(document.getText(), document.offsetAt(position), dialect) : [];
    if (calls.length === 0) return null;
    const signatures = calls.map(({ signature, summary, parameters, current }) => ({
      label: signature,
      documentation: summary,
      parameters: parameters.map(({ range, about }) => ({
        label: [range.start, range.end] as [number, number],
        documentation: about,
      })),
      activeParameter: current ?? parameters.length,
    }));
    return { signatures, activeSignature: 0, activeParameter: signatures[0].activeParameter };
  });

  connection.onHover(async ({ textDocument, position }) => {
    const document = documents.get(textDocument.uri);
    const dialect = document && (await dialectFor(document));
    const hover = dialect && hoverAt(document.getText(), document.offsetAt(position), dialect, await rows());
    if (!hover) return null;
    return { contents: { kind: "plaintext", value: hover.lines.join("\n") }, range: rangeIn(document, hover.range) };
  });

  connection.onDocumentFormatting(async ({ textDocument }) => {
    const document = documents.get(textDocument.uri);
    const dialect = document && (await dialectFor(document));
    const laidOut = dialect && format(dialect, document.getText());
    // A layout that would lose a comment is none.
    if (!laidOut?.ok || laidOut.comments.length > 0) return [];
    return [{ range: rangeIn(document!, { start: 0, end: document!.getText().length }), newText: laidOut.text }];
  });
}

/** What is asked about what is wrong with a document. */
function answersProblems(
  connection: Connection,
  documents: TextDocuments<TextDocument>,
  read: (document: TextDocument) => Promise<readonly Problem[] | undefined>,
): void {
  connection.onCodeAction(async ({ textDocument, range }) => {
    const document = documents.get(textDocument.uri);
    const found = document && (await read(document));
    if (!found) return [];
    const [from, to] = [document.offsetAt(range.start), document.offsetAt(range.end)];
    return found
      .filter((problem) => problem.range.start <= to && problem.range.end >= from)
      .flatMap((problem) =>
        problem.fixes.map(({ title, edits }): CodeAction => ({
          title,
          kind: CodeActionKind.QuickFix,
          diagnostics: [diagnosticOf(document, problem)],
          edit: {
            changes: { [document.uri]: edits.map((edit) => ({ range: rangeIn(document, edit.range), newText: edit.text })) },
          },
        })),
      );
  });
}

const diagnosticOf = (document: TextDocument, problem: Problem): Diagnostic => ({
  range: rangeIn(document, problem.range),
  severity: problem.severity === "error" ? DiagnosticSeverity.Error : DiagnosticSeverity.Warning,
  code: problem.code,
  source: "iquill",
  message: message(problem),
});
