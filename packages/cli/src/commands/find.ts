import type { Dialect } from "indigo-quill";
import { type Found, find } from "indigo-quill/authoring";
import { showValue } from "indigo-quill/contrast";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { dialectOf } from "../input.ts";
import { type Style, styleFor } from "../output/style.ts";
import { wrapped } from "../output/table.ts";
import { type Streams, exit } from "../streams.ts";

export interface FindOptions {
  readonly in?: string;
  readonly most?: number;
  readonly json?: boolean;
}

/** How many are told of one dialect, and of all. */
const usual = { one: 5, all: 3 };

/** Finds how something is written, in words: in one dialect, or in all at once. */
export async function findCommand(words: readonly string[], options: FindOptions, streams: Streams): Promise<number> {
  const question = words.join(" ");
  const ids = options.in === undefined ? Object.keys(dialectLoaders) : [options.in];
  const most = options.most ?? (options.in === undefined ? usual.all : usual.one);
  const dialects = await Promise.all(ids.map((id) => dialectOf(id)));
  const told = dialects.map((dialect) => ({ dialect, found: find(question, dialect, most) }));
  const { stdout, stderr } = streams;
  if (options.json) for (const line of told.flatMap(jsonLines)) stdout.write(`${line}\n`);
  else stdout.write((told.length === 1 ? ofOne : ofAll)(told, styleFor(streams)));
  if (told.some(({ found }) => found.length > 0)) return exit.ok;
  stderr.write(`nothing answers "${question}"; other words may, or iquill functions --in ${ids[0]}\n`);
  return exit.some;
}

interface Told {
  readonly dialect: Dialect;
  readonly found: readonly Found[];
}

const jsonLines = ({ dialect, found }: Told): string[] =>
  found.map(({ does, written, task, example }) =>
    JSON.stringify({
      dialect: dialect.id,
      does,
      written,
      ...(task !== undefined && { task }),
      ...(example && { example: { ...example, value: dialect.plain(example.value) } }),
    }),
  );

/** The example of a task, by which one sees what it gives. */
function exampleText({ example }: Found, { colour }: Style): string {
  if (!example) return "";
  const given = Object.entries(example.given).map(([name, value]) => `${name} ${showValue(value)}`);
  return colour.dim(`  ${given.join(", ")} → ${showValue(example.value)}\n`);
}

const ofOne = ([{ found }]: readonly Told[], style: Style): string =>
  found
    .map(
      (each) =>
        `${style.colour.bold(each.does)}\n${wrapped(each.written, style.width ?? 100, "  ", "    ")}\n${exampleText(each, style)}`,
    )
    .join("\n");

/** What several dialects have in common is told once, with how each says it; the best is what most have first. */
function ofAll(told: readonly Told[], style: Style): string {
  const groups = new Map<string, { first: Found; score: number; said: [string, string][] }>();
  for (const { dialect, found } of told)
    for (const [rank, each] of found.entries()) {
      const key = each.task ?? each.does;
      const group = groups.get(key) ?? { first: each, score: 0, said: [] };
      groups.set(key, group);
      group.score += 1 / (rank + 1);
      group.said.push([dialect.title, each.written]);
    }
  const best = [...groups.values()].sort((a, b) => b.score - a.score).slice(0, usual.all);
  const indent = " ".repeat(17);
  return best
    .map(({ first, said }) => {
      const lines = said.map(([title, written]) => `${wrapped(written, style.width ?? 100, `  ${title.padEnd(15)}`, indent)}\n`);
      return `${style.colour.bold(first.does)}\n${lines.join("")}${exampleText(first, style)}`;
    })
    .join("\n");
}
