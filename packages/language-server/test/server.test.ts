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

  async start(initializationOptions: unknown): Promise<void> {
    await this.connection.sendRequest("initialize", {
      processId: process.pid,
      rootUri: null,
      capabilities: {},
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

  async diagnosticsOf({ uri, version }: TextDocument): Promise<Diagnostic[]> {
    for (;;) {
      const found = this.#published.find((each) => each.uri === uri && each.version === version);
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

  const wrong = await client.change(call, 3, "find(' ', taxon) == 6");
  const [problem] = await client.diagnosticsOf(wrong);
  expect(problem).toMatchObject({ code: "habit", source: "iquill", severity: 1 });
  const [action] = await client.ask<CodeAction[]>("codeAction", wrong, {
    range: problem.range,
    context: { diagnostics: [problem] },
  });
  const mended = TextDocument.applyEdits(wrong, action.edit!.changes![wrong.uri]);
  expect(mended).toBe("strpos(taxon, ' ') = 6");

  const noted = await client.change(wrong, 4, "taxon like 'A*'");
  expect((await client.diagnosticsOf(noted)).map(({ code, severity }) => [code, severity])).toEqual([["foreign-wildcard", 2]]);
  const wide = await client.change(noted, 5, "(upper( taxon ))");
  expect(await client.ask<TextEdit[]>("formatting", wide, { options: { tabSize: 2, insertSpaces: true } })).toMatchObject([
    { newText: "upper(taxon)" },
  ]);
  expect(await client.diagnosticsOf(wide)).toEqual([]);
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
