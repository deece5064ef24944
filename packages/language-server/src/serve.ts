import type { Readable, Writable } from "node:stream";
import { type Diagnostic as Problem, type Dialect, type Sample, compile, message } from "indigo-quill";
import { type Completion, callAt, completionsAt, format, hoverAt, notesOf, stepAt } from "indigo-quill/authoring";
import { coverage, showValue, untoldText } from "indigo-quill/contrast";
import {
  type CodeAction,
  CodeActionKind,
  CodeActionTriggerKind,
  CompletionItemKind,
  type Connection,
  type Diagnostic,
  DiagnosticSeverity,
  StreamMessageReader,
  StreamMessageWriter,
  TextDocumentSyncKind,
  TextDocuments,
  createConnection,
} from "vscode-languageserver/node.js";
import { TextDocument } from "vscode-languageserver-textdocument";
import { besides, forget, seenBy } from "./beside.ts";
import { rangeIn } from "./ranges.ts";
import { type Asked, inlineAction, liftAction, renameEdit } from "./refactor.ts";
import { type Settings, dialectOf, rowsOf, settingsOf } from "./settings.ts";

/** Rows on which notes are made from what an expression gives, and milliseconds that they may take. */
const limits = { rows: 500, milliseconds: 300 };

/** What no row tells: how many of it are told, on how many rows it is tried, and how long; and how long a text must stay for that. */
const untold = { most: 3, rows: 100, milliseconds: 150, pause: 400 };

const kinds: Readonly<Record<Completion["kind"], CompletionItemKind>> = {
  column: CompletionItemKind.Field,
  function: CompletionItemKind.Function,
  task: CompletionItemKind.Snippet,
  value: CompletionItemKind.Value,
};

/**
 * Serves editors over a pair of streams until the input ends. Each document is one expression, the column of its name; documents in
 * one folder and dialect see each other.
 */
export function serve(input: Readable, output: Writable): void {
  const connection = createConnection(new StreamMessageReader(input), new StreamMessageWriter(output));
  const documents = new TextDocuments(TextDocument);
  let settings: Settings = {};
  let sample: Promise<Sample> = rowsOf({}).then((found) => found.sample);
  let takesFiles = false;

  connection.onInitialize(({ initializationOptions, capabilities: { workspace } }) => {
    const { documentChanges, resourceOperations = [] } = workspace?.workspaceEdit ?? {};
    takesFiles = documentChanges === true && resourceOperations.includes("create") && resourceOperations.includes("rename");
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
        renameProvider: true,
        codeActionProvider: {
          codeActionKinds: [CodeActionKind.QuickFix, CodeActionKind.RefactorExtract, CodeActionKind.RefactorInline],
        },
      },
    };
  });

  const asked = async (uri: string): Promise<Asked | undefined> => {
    const document = documents.get(uri);
    const dialect = document && (await dialectOf(uri, settings));
    return dialect && { document, all: documents.all(), dialect, rows: await sample, takesFiles };
  };

  const read = async ({ uri }: TextDocument): Promise<readonly Problem[] | undefined> => {
    const known = await asked(uri);
    if (!known) return undefined;
    const { document, dialect } = known;
    const rows = seenBy(document, known.all, dialect, known.rows);
    const program = compile(dialect, document.getText(), rows);
    const values = program.ok ? program.run(rows, { milliseconds: limits.milliseconds }) : [];
    return [...program.diagnostics, ...notesOf(program, rows, values)];
  };

  /** Tells what is to be said of a document; gives that where it is an expression without errors, and has not changed since. */
  const tell = async (document: TextDocument): Promise<Diagnostic[] | undefined> => {
    const { version } = document;
    const found = document.getText().trim() === "" ? undefined : await read(document);
    // What is told of a text that has changed since would stand at wrong places.
    if (documents.get(document.uri)?.version !== version) return undefined;
    const diagnostics = (found ?? []).map((problem) => diagnosticOf(document, problem));
    void connection.sendDiagnostics({ uri: document.uri, version, diagnostics });
    return found?.every(({ severity }) => severity !== "error") ? diagnostics : undefined;
  };

  /** Tells what no row tells, too, once a text has stayed for a while: that takes longer. */
  const tellUntold = async (document: TextDocument, diagnostics: readonly Diagnostic[]): Promise<void> => {
    const { uri, version } = document;
    await new Promise((done) => setTimeout(done, untold.pause));
    const known = documents.get(uri)?.version === version ? await asked(uri) : undefined;
    if (!known) return;
    const hints = untoldIn(document, known.dialect, seenBy(document, known.all, known.dialect, known.rows));
    if (hints.length > 0) void connection.sendDiagnostics({ uri, version, diagnostics: [...diagnostics, ...hints] });
  };

  // What a document is changes what is right beside it.
  documents.onDidChangeContent(async ({ document }) => {
    const diagnostics = await tell(document);
    for (const each of besides(document, documents.all())) await tell(each);
    if (diagnostics) await tellUntold(document, diagnostics);
  });
  documents.onDidClose(({ document }) => {
    forget(document);
    void connection.sendDiagnostics({ uri: document.uri, diagnostics: [] });
  });

  answersInText(connection, asked);
  answersActions(connection, asked, read);
  documents.listen(connection);
  connection.listen();
}

/** What is asked about a text and a place in it, whatever it gives. */
function answersInText(connection: Connection, asked: (uri: string) => Promise<Asked | undefined>): void {
  connection.onCompletion(async ({ textDocument, position }) => {
    const known = await asked(textDocument.uri);
    if (!known) return [];
    const { document, all, dialect, rows } = known;
    const sample = seenBy(document, all, dialect, rows);
    const items = completionsAt(document.getText(), document.offsetAt(position), dialect, sample);
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
    const { document, dialect } = (await asked(textDocument.uri)) ?? {};
    const calls = dialect ? callAt(document!.getText(), document!.offsetAt(position), dialect) : [];
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
    const known = await asked(textDocument.uri);
    if (!known) return null;
    const { document, all, dialect, rows } = known;
    const sample = seenBy(document, all, dialect, rows);
    const hover = hoverAt(document.getText(), document.offsetAt(position), dialect, sample);
    if (!hover) return null;
    const program = compile(dialect, document.getText(), sample);
    const step = program.ok && sample.rows > 0 ? stepAt(program.trace(sample, 0), document.offsetAt(position)) : undefined;
    const value = step ? [`On row 1, ${step.text} gives ${step.values.map((each) => showValue(each)).join(", ")}`] : [];
    const lines = [...hover.lines, ...value].join("\n");
    return { contents: { kind: "plaintext", value: lines }, range: rangeIn(document, hover.range) };
  });

  connection.onDocumentFormatting(async ({ textDocument }) => {
    const { document, dialect } = (await asked(textDocument.uri)) ?? {};
    const laidOut = dialect && format(dialect, document!.getText());
    // A layout that would lose a comment is none.
    if (!laidOut?.ok || laidOut.comments.length > 0) return [];
    return [{ range: rangeIn(document!, { start: 0, end: document!.getText().length }), newText: laidOut.text }];
  });
}

/** What may be done with a document: mends of what is wrong, parts taken out or put in, another name. */
function answersActions(
  connection: Connection,
  asked: (uri: string) => Promise<Asked | undefined>,
  read: (document: TextDocument) => Promise<readonly Problem[] | undefined>,
): void {
  connection.onCodeAction(async ({ textDocument, range, context: { only, triggerKind } }) => {
    const known = await asked(textDocument.uri);
    const found = known && (await read(known.document));
    if (!found) return [];
    const { document } = known;
    // Taking apart is tried out, which is too much for each step of the caret.
    const isAsked = triggerKind !== CodeActionTriggerKind.Automatic;
    const isWanted = (kind: string) => only === undefined || only.some((each) => kind === each || kind.startsWith(`${each}.`));
    const others = [
      ...(isAsked && isWanted(CodeActionKind.RefactorExtract) ? liftAction(known) : []),
      ...(isAsked && isWanted(CodeActionKind.RefactorInline) ? inlineAction(known) : []),
    ];
    if (!isWanted(CodeActionKind.QuickFix)) return others;
    const [from, to] = [document.offsetAt(range.start), document.offsetAt(range.end)];
    const mends = found
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
    return [...mends, ...others];
  });

  connection.onRenameRequest(async ({ textDocument, position, newName }) => {
    const known = await asked(textDocument.uri);
    return known ? renameEdit(known, position, newName) : null;
  });
}

/** What no row tells about an expression, with the smallest row that would; that a value is missing is the least of surprises. */
function untoldIn(document: TextDocument, dialect: Dialect, sample: Sample): Diagnostic[] {
  const rows = Math.min(sample.rows, untold.rows);
  const first = { rows, columns: sample.columns.map((column) => ({ ...column, values: column.values.slice(0, rows) })) };
  return coverage({ dialect, expression: document.getText() }, first, untold.milliseconds)
    .untold.filter(({ trait }) => trait !== "missing")
    .slice(0, untold.most)
    .map((each) => ({
      range: rangeIn(document, each.range),
      severity: DiagnosticSeverity.Hint,
      code: "untold",
      source: "iquill",
      message: untoldText(each),
    }));
}

const diagnosticOf = (document: TextDocument, problem: Problem): Diagnostic => ({
  range: rangeIn(document, problem.range),
  severity: problem.severity === "error" ? DiagnosticSeverity.Error : DiagnosticSeverity.Warning,
  code: problem.code,
  source: "iquill",
  message: message(problem),
});
