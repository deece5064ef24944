import { readFileSync, readdirSync } from "node:fs";
import { runInNewContext } from "node:vm";
import { describe, expect, test } from "@jest/globals";
import * as root from "indigo-quill";
import * as contrasts from "indigo-quill/contrast";
import { dialects } from "indigo-quill/dialects";

const folder = new URL("../src/", import.meta.url);

/** The examples in doc comments, by the name that each comment documents. */
const examples = new Map(
  readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter((name) => name.endsWith(".ts"))
    .flatMap((name) => [
      ...readFileSync(new URL(name, folder), "utf8").matchAll(/@example\n((?: \*.*\n)+?) \*\/\nexport \w+ (?:class )?(\w+)/g),
    ])
    .map(([, body, name]) => [name, body.replace(/^ \* ?/gm, "")]),
);

describe("the examples of the documentation give what they say", () => {
  test("every name of the main entry point has one", () =>
    expect([...examples.keys()].sort()).toEqual([...Object.keys(root), "contrast", "coverage", "hunt", "untoldText"].sort()));

  test.each([...examples])("%s", (_, body) => {
    const told: unknown[] = [];
    const tell = (got: unknown, said: unknown) => told.push([got, said]);
    // `value; // what it is`
    const code = body.replace(/^(.*); \/\/ (.*)$/gm, (line, value: string, said: string) => {
      const [, name, rest] = /^const (\w+) = (.*)$/.exec(value) ?? [];
      return name ? `${line}\ntell(${rest}, ${said});` : `tell(${value}, ${said});`;
    });
    runInNewContext(code, { ...root, ...contrasts, ...dialects, tell, Uint8Array, NaN });
    expect(told.length).toBeGreaterThan(0);
    for (const [got, said] of told as [unknown, unknown][]) expect(structuredClone(got)).toEqual(structuredClone(said));
  });
});
