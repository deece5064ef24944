import { expect } from "@jest/globals";
import { type Connection, probe } from "@indigo-quill/engines";
import { type Dialect, sampleOf } from "indigo-quill";
import { tasksOf } from "indigo-quill/authoring";
import { saidJobs } from "indigo-quill/folio";
import { type Job, trapTextsOf, treatment } from "indigo-quill/lists";

const jobs: readonly (readonly Job[])[] = [
  [
    {
      replace: [
        { old: "it's", new: "its" },
        { old: "b", new: "$1\\" },
      ],
    },
  ],
  [
    {
      replace: [
        { old: "fire", new: "Fire", where: "whole" },
        { old: "frost", new: "", where: "whole" },
      ],
    },
  ],
  [{ replace: [{ old: "([a-z]+)-([0-9]+)", new: "$2 \\1 $1", as: "pattern" }] }],
  [{ replace: [{ old: "FIRE", new: "x", case: "ignored" }] }],
  [{ replace: [{ old: "fire", new: "x", where: "word" }] }],
  [{ has: { values: ["fire", "%_"] } }],
  [{ which: { values: ["fire", "frost"], case: "ignored" } }],
  [{ keep: { values: ["fire", "x y"] } }],
  [{ split: [";", ", "] }, { tidy: true }, { keep: { values: ["a", "fire"] } }, { join: "+" }],
  [{ split: [";", "."] }, { item: 2 }],
  [{ tidy: true }],
  [{ plain: true }],
  [{ find: "number" }, { item: 1 }],
  [{ find: "mail" }, { item: 1 }],
  [{ find: "telephone" }, { item: 1 }],
  [{ find: "date" }, { item: 1 }],
];

/** Holds each task, as the dialect says it, to the engine on its example and on rows with traps; gives how many there are. */
export async function expectTasks(connection: Connection, dialect: Dialect): Promise<number> {
  const tasks = tasksOf(dialect);
  for (const { example } of tasks) {
    const { given, expression } = example!;
    const traps = Object.entries(given).flatMap(([name, value]) =>
      [null, ...(typeof value === "string" && name === "text" ? ["", "é, (x) ab"] : [])].map((trap) => ({
        ...given,
        [name]: trap,
      })),
    );
    const { rows, program } = await probe(connection, dialect, expression, sampleOf([given, ...traps]));
    const apart = rows.filter(({ agree }) => !agree).map(({ row, ours, theirs }) => ({ row, ours, theirs }));
    expect({ expression, ok: program.ok, apart }).toEqual({ expression, ok: true, apart: [] });
  }
  return tasks.length;
}

/** Holds what lists do, as far as the dialect can say it, to the engine, on the traps of each list; gives how many it can. */
export async function expectLists(connection: Connection, dialect: Dialect): Promise<number> {
  let said = 0;
  for (const list of jobs) {
    const texts = trapTextsOf(list);
    const found = saidJobs(dialect, "label", list, sampleOf(texts.map((label) => ({ label }))));
    if ("refused" in found) continue;
    said++;
    const outcomes = await connection.run({
      expression: found.expression,
      columns: [{ name: dialect.columnText("label"), type: "text" }],
      rows: texts.map((text) => [text]),
    });
    const made = treatment(list, (value) => value);
    const isCounted = dialect.types.columnType([true]).startsWith("integer");
    const wanted = texts.map((text) => {
      const value = made.run(text);
      return [text, typeof value === "boolean" && isCounted ? Number(value) : value];
    });
    expect([list, outcomes.map((outcome, i) => [texts[i], "value" in outcome ? outcome.value : outcome.error])]).toEqual([
      list,
      wanted,
    ]);
  }
  return said;
}
