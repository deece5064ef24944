import { spawn } from "node:child_process";
import { afterEach, expect, test } from "@jest/globals";
import {
  type CodeAction,
  type CompletionItem,
  type Diagnostic,
  type Hover,
  type SignatureHelp,
  StreamMessageReader,
  StreamMessageWriter,
  type TextEdit,
  createMessageConnection,
} from "vscode-languageserver-protocol/node.js";
import { TextDocument } from "vscode-languageserver-textdocument";

const root = new URL("../../..", import.meta.url).pathname;
const rows = `${root}demo/register.json`;

/** A client of the server as it is installed. */
class Client {
  readonly process = spawn(process.execPath, [`${root}packages/language-server/bin/server.js`], {
    stdio: ["pipe", "pipe", "inherit"],
  });
  readonly connection = createMessageConnection(
    new StreamMessageReader(this.process.stdout),
    new StreamMessageWriter(this.process.stdin),
  );
  readonly told: string[] = [];
  readonly exited = new Promise<number | null>((resolve) => this.process.on("exit", resolve));
  #published: { uri: string; version?: number; diagnostics: Diagnostic[] }[] = [];
  #waiting: (() => void)[] = [];

  constructor() {
    this.connection.onNotification(
      "textDocument/publishDiagnostics",
      (found: { uri: string; version?: number; diagnostics: Diagnostic[] }) => {
        this.#published.push(found);
        for (const resolve of this.#waiting.splice(0)) resolve();
      },
    );
    this.connection.onRequest("window/showMessageRequest", ({ message }: { message: string }) => {
      this.told.push(message);
      return null;
    });
    this.connection.listen();
  }

  async start(initializationOptions: unknown, workspaceEdit: object = {}): Promise<void> {
    await this.connection.sendRequest("initialize", {
      processId: process.pid,
      rootUri: null,
      capabilities: { workspace: { workspaceEdit } },
      initializationOptions,
    });
    await this.connection.sendNotification("initialized", {});
  }

  async open(text: string, uri = "file:///genus.postgresql", version = 1): Promise<TextDocument> {
    await this.connection.sendNotification("textDocument/didOpen", {
      textDocument: { uri, languageId: "iquill", version, text },
    });
    return TextDocument.create(uri, "iquill", version, text);
  }

  async change(document: TextDocument, version: number, text: string): Promise<TextDocument> {
    const { uri } = document;
    await this.connection.sendNotification("textDocument/didChange", {
      textDocument: { uri, version },
      contentChanges: [{ text }],
    });
    return TextDocument.create(uri, "iquill", version, text);
  }

  ask<T>(method: string, { uri }: TextDocument, rest: object): Promise<T> {
    return this.connection.sendRequest(`textDocument/${method}`, { textDocument: { uri }, ...rest });
  }

  /** What is told of a text first, or of what the rows never tell after a while. */
  async diagnosticsOf({ uri, version }: TextDocument, code?: string): Promise<Diagnostic[]> {
    for (;;) {
      const isWanted = (each: Diagnostic) => code === undefined || each.code === code;
      const found = this.#published.find(
        (each) => each.uri === uri && each.version === version && (code === undefined || each.diagnostics.some(isWanted)),
      );
      if (found) return found.diagnostics;
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    }
  }
}

let client: Client;
afterEach(() => void client.process.kill());

test("an editor's session: problems and mends, completion, signature, hover, layout", async () => {
  client = new Client();
  await client.start({ rows });
  const half = await client.open("split_part(tax");
  expect((await client.diagnosticsOf(half)).map(({ code }) => code)).toEqual(["unclosed-bracket"]);
  const items = await client.ask<CompletionItem[]>("completion", half, { position: { line: 0, character: 14 } });
  expect(items[0]).toMatchObject({
    label: "taxon",
    textEdit: { newText: "taxon", range: { start: { character: 11 }, end: { character: 14 } } },
  });

  const call = await client.change(half, 2, "split_part(taxon, ");
  const help = await client.ask<SignatureHelp>("signatureHelp", call, { position: { line: 0, character: 18 } });
  expect(help.signatures[0]).toMatchObject({ label: "split_part(text, delimiter, n)", activeParameter: 1 });
  const hover = await client.ask<Hover>("hover", call, { position: { line: 0, character: 13 } });
  expect(hover.contents).toMatchObject({ value: expect.stringContaining("the column taxon: Alnus glutinosa") as unknown });

  const done = await client.change(call, 3, "split_part(taxon, ' ', 1)");
  const value = await client.ask<Hover>("hover", done, { position: { line: 0, character: 3 } });
  expect(value.contents).toMatchObject({
    value: expect.stringContaining("On row 1, split_part(taxon, ' ', 1) gives \"Alnus\"") as unknown,
  });

  const wrong = await client.change(done, 4, "find(' ', taxon) == 6");
  const [problem] = await client.diagnosticsOf(wrong);
  expect(problem).toMatchObject({ code: "habit", source: "iquill", severity: 1 });
  const [action] = await client.ask<CodeAction[]>("codeAction", wrong, {
    range: problem.range,
    context: { diagnostics: [problem] },
  });
  const mended = TextDocument.applyEdits(wrong, action.edit!.changes![wrong.uri]);
  expect(mended).toBe("strpos(taxon, ' ') = 6");

  const noted = await client.change(wrong, 5, "taxon like 'A*'");
  expect((await client.diagnosticsOf(noted)).map(({ code, severity }) => [code, severity])).toEqual([["foreign-wildcard", 2]]);
  const wide = await client.change(noted, 6, "(upper( taxon ))");
  expect(await client.ask<TextEdit[]>("formatting", wide, { options: { tabSize: 2, insertSpaces: true } })).toMatchObject([
    { newText: "upper(taxon)" },
  ]);
  expect(await client.diagnosticsOf(wide)).toEqual([]);

  // What no row tells is a hint: there is none whose shelf is longer.
  const first = await client.change(wide, 7, "lpad(shelf, 20, '*')");
  expect(await client.diagnosticsOf(first)).toEqual([]);
  const [hint] = await client.diagnosticsOf(first, "untold");
  expect(hint).toMatchObject({ severity: 4, message: expect.stringMatching(/^No row tells: .* shelf = "/) as unknown });
});

/** The action of a kind that is offered for a document. */
const actionOf = async (document: TextDocument, kind: string): Promise<CodeAction | undefined> => {
  const range = { start: { line: 0, character: 0 }, end: { line: 0, character: 0 } };
  return (await client.ask<CodeAction[]>("codeAction", document, { range, context: { diagnostics: [], only: [kind] } }))[0];
};

test("columns beside each other: parts are taken out into documents, put in again, and renamed throughout", async () => {
  client = new Client();
  await client.start({ rows }, { documentChanges: true, resourceOperations: ["create", "rename", "delete"] });
  const whole = await client.open("upper(btrim(split_part(collector, ',', 2))) || ' ' || split_part(collector, ',', 1)");
  const { title, edit } = (await actionOf(whole, "refactor.extract"))!;
  expect(title).toMatch(/^Take its parts out into columns: collector_piece, /);
  const changes = edit!.documentChanges as ({ kind?: string; uri?: string } & {
    textDocument: { uri: string };
    edits: TextEdit[];
  })[];
  expect(changes[0]).toMatchObject({ kind: "create", uri: "file:///collector_piece.postgresql", options: { overwrite: false } });
  const texts = changes
    .filter(({ kind }) => kind === undefined)
    .map(({ textDocument, edits }) => [textDocument.uri, edits[0].newText]);
  for (const [uri, text] of texts.slice(0, -1)) await client.open(text, uri);
  const apart = await client.change(whole, 2, texts.at(-1)![1]);
  expect(apart.getText()).toContain("collector_piece");
  expect(await client.diagnosticsOf(apart)).toEqual([]);
  const back = (await actionOf(apart, "refactor.inline"))!;
  expect(back.title).toContain("collector_piece");
  expect(back.edit!.changes![whole.uri][0].newText).toBe(whole.getText());

  const at = { line: 0, character: apart.getText().indexOf("collector_piece") + 1 };
  const rename = (newName: string) => client.ask<{ documentChanges: unknown[] }>("rename", apart, { position: at, newName });
  await expect(rename("taxon")).rejects.toThrow("there is a column taxon already");
  const { documentChanges } = await rename("surname part");
  expect(JSON.stringify(documentChanges)).toContain('\\"surname part\\"');
  expect(documentChanges.at(-1)).toMatchObject({ kind: "rename", newUri: "file:///surname%20part.postgresql" });
  // A helper that reads what reads it is no column that can be calculated.
  const helper = await client.open("genus || 'x'", "file:///collector_piece.postgresql", 2);
  expect((await client.diagnosticsOf(helper)).map(({ code }) => code)).toEqual(["unknown-column"]);
});

test("what comes out of order, of other kinds, or from beyond the text is taken; it ends with its client", async () => {
  client = new Client();
  await client.start({ dialect: "nosuch", rows: 7 });
  const plain = await client.open("upper(", "file:///notes.txt");
  expect(await client.ask("completion", plain, { position: { line: 9, character: 99 } })).toEqual([]);
  const text = await client.open("concat('\ud800', ".repeat(200), "file:///long.duckdb", 7);
  const older = await client.change(text, 3, "lower('x'");
  expect((await client.diagnosticsOf(older)).map(({ code }) => code)).toEqual(["unclosed-bracket"]);
  expect(await client.ask("hover", older, { position: { line: 0, character: 4000 } })).toBeNull();
  await expect(client.connection.sendRequest("textDocument/nosuch", {})).rejects.toThrow();
  expect(client.told[0]).toMatch(/^"dialect" is one of /);
  client.process.stdin.end();
  await client.exited;
});
