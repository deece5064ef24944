import { execFileSync } from "node:child_process";
import { expect, test } from "@jest/globals";

const root = new URL("..", import.meta.url).pathname;
const node = (...args: string[]): string => execFileSync(process.execPath, args, { cwd: root, encoding: "utf8" });

test("the bench runs its seven tasks against their loops, as text and as JSON", () => {
  const result = JSON.parse(node("--expose-gc", "bench/run.js", "--rows", "2000", "--json")) as {
    tasks: { id: string; ratio: number }[];
    geometricMean: number;
  };
  expect(result.tasks.map(({ id }) => id)).toEqual([
    "surname",
    "segment",
    "proper",
    "replacements",
    "contains-any",
    "date",
    "swap",
  ]);
  for (const { ratio } of result.tasks) expect(ratio).toBeGreaterThan(0);
  expect(node("--expose-gc", "bench/run.js", "--rows", "500")).toMatch(/geometric mean of the ratios: \d+\.\d\d/);
});

test("the audit counts each dialect's pure rows", () => {
  expect(node("scripts/audit.js").match(/^\w+: \d+ of \d+ functions/gm)).toHaveLength(3);
});

test("size prints code lines, test lines and the ratio", () => {
  expect(node("scripts/size.js")).toMatch(/^code lines \d+, test lines \d+, ratio 0\.\d{3}\n$/);
});
