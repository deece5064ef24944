import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, readdirSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, test } from "@jest/globals";

const root = new URL("..", import.meta.url).pathname;
const node = (...args: string[]): string => execFileSync(process.execPath, args, { cwd: root, encoding: "utf8" });

test("the bench runs every task in its dialects against its loop, as text and as JSON", () => {
  // Without --expose-gc it does not wait for what was left before each run.
  const result = JSON.parse(node("bench/run.js", "--rows", "2000", "--json")) as {
    tasks: { id: string; dialect: string; ratio: number }[];
    geometricMean: number;
  };
  expect(new Set(result.tasks.map(({ id }) => id)).size).toBe(19);
  expect(new Set(result.tasks.map(({ dialect }) => dialect)).size).toBe(7);
  for (const { ratio } of result.tasks) expect(ratio).toBeGreaterThan(0);
  expect(node("bench/run.js", "--rows", "500", "--task", "surname")).toMatch(/geometric mean of the ratios: \d+\.\d\d/);
});

test("the audit counts each dialect's pure rows", () => {
  expect(node("scripts/audit.js").match(/^\w+: \d+ of \d+ functions/gm)).toHaveLength(7);
});

test("every function of the embedded engines is covered, or has a reason by its name", () => {
  const { stdout, status } = spawnSync(process.execPath, ["scripts/catalogue.js"], { cwd: root, encoding: "utf8" });
  expect(stdout.match(/^\w+: \d+ names, \d+ not covered$/gm)).toHaveLength(3);
  expect({ stdout, status }).toMatchObject({ status: 0 });
});

test("size prints code lines, test lines and the ratio", () => {
  expect(node("scripts/size.js")).toMatch(/^code lines \d+, test lines \d+, ratio 0\.\d{3}\n$/);
});

test("every file that the guide for contributors names is there", () => {
  const within = (folder: string) => readdirSync(join(root, folder), { recursive: true, encoding: "utf8" });
  const files = ["packages", "examples", "scripts", "docs", "demo", "bench", "test"].flatMap((folder) =>
    within(folder).map((file) => `${folder}/${file}`),
  );
  const named = [...readFileSync(join(root, "CONTRIBUTING.md"), "utf8").matchAll(/`([\w./-]+\/[\w./-]*|[\w-]+\.(?:ts|js))`/g)];
  const paths = named.map(([, path]) => path.replace("NAME", "xpath")).filter((path) => !path.startsWith("/"));
  const missing = paths.filter((path) => !files.some((file) => `/${file}/`.includes(`/${path}`)));
  expect(paths.length).toBeGreaterThan(30);
  expect(missing).toEqual([]);
});

describe("what the README shows works as printed", () => {
  const readme = readFileSync(join(root, "README.md"), "utf8");
  const lines = [...readme.matchAll(/npx (iquill [^`\n]*)/g)].map(([, line]) => line).filter((line) => !/ FILE/.test(line));
  // In the order in which they stand: some read what others wrote.
  const folder = mkdtempSync(join(tmpdir(), "iquill-"));
  symlinkSync(join(root, "demo"), join(folder, "demo"));
  afterAll(() => rmSync(folder, { recursive: true }));
  test.each(lines)("%s", (line) => {
    const path = `${join(root, "node_modules/.bin")}:${process.env.PATH ?? ""}`;
    const { status, stderr } = spawnSync("sh", ["-c", line], {
      cwd: folder,
      encoding: "utf8",
      env: { ...process.env, PATH: path },
    });
    expect({ line, status, stderr }).toMatchObject({
      status: /contrast|hunt|coverage/.test(line) ? 1 : /MID\(shelf,|&&|if find/.test(line) ? 2 : 0,
    });
  });

  test("its commands are all there", () => expect(lines.length).toBeGreaterThan(5));

  test("the example of the library prints what its comments say", () => {
    const [, source] = /```js\n([^]*?)```/.exec(readme)!;
    const file = join(root, "readme-example.mjs");
    writeFileSync(file, source);
    try {
      expect(node(file).trim().split("\n")).toEqual([...source.matchAll(/\/\/ (.*)$/gm)].map(([, comment]) => comment));
    } finally {
      rmSync(file);
    }
  });
});
