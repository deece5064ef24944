import { expect } from "@jest/globals";
import { type Connection, probe } from "@indigo-quill/engines";
import { type Dialect, sampleOf } from "indigo-quill";
import { flavoursOf, tasksOf } from "indigo-quill/authoring";
import { saidJobs } from "indigo-quill/folio";
import { carryPattern } from "indigo-quill/patterns";
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
    const { expression } = example!;
    // Lists stand in the expression.
    const given = Object.fromEntries(Object.entries(example!.given).filter(([, value]) => !Array.isArray(value)));
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

/** Patterns that are carried into each dialect: of classes, repeats, groups, places, and signs that stand for themselves. */
const carried = [
  "^[[:alpha:]]+$",
  "\\d{2,3}-?",
  "(a|b)+?c",
  "[^a-c_]",
  "x\\.y\\(z",
  "\\w+ \\w+$",
  "^.{3}$",
  "[[:upper:]][[:lower:]]*",
  "a*\\s",
  "^(?:ab|cd)?$",
];

const patternTexts = ["", "ab", "abc", "Alnus", "12-", "x.y(z", "é٣", "a b\n", "_-", "cd\nab", "ÅB 7", "bac"];

/** Holds patterns, carried into the dialect's own language, to the engine: it takes each, and fits what is fitted here; gives how many. */
export async function expectPatterns(connection: Connection, dialect: Dialect): Promise<number> {
  const to = flavoursOf(dialect)[0].flavour;
  const made = carried.map((source) => carryPattern("posix", source, "", to));
  const patterns = made.flatMap((each) => ("pattern" in each ? [each.pattern] : []));
  const find = tasksOf(dialect).find(({ task }) => task === "matches")!.written;
  for (const pattern of patterns) {
    const expression = find.replace("pattern", () => dialect.textLiteral(pattern));
    const { rows, program } = await probe(connection, dialect, expression, sampleOf(patternTexts.map((text) => ({ text }))));
    const apart = rows.filter(({ agree }) => !agree).map(({ row, ours, theirs }) => ({ row, ours, theirs }));
    expect({ expression, ok: program.ok, apart }).toEqual({ expression, ok: true, apart: [] });
  }
  return patterns.length;
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
    const isCounted = dialect.types.columnType([true]).name === "integer";
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

/** Names of units of dates, some of which an engine may not have. */
const unitWords =
  "year yr y years yrs YEAR isoyear quarter quarters qtr month mon months mons week w weeks weekofyear day d days dayofmonth dow " +
  "dayofweek weekday isodow doy dayofyear hour hr h hours hrs minute min m minutes mins second s sec secs seconds millisecond ms " +
  "milliseconds msec msecs mseconds microsecond us microseconds usec usecs useconds decade dec decades decs century c cent " +
  "centuries millennium mil mils millennia millenium epoch julian lustrum";

/** Holds the names of units to the engine, those that it has and those that it refuses. */
export async function expectUnits(connection: Connection, dialect: Dialect): Promise<void> {
  const dates = ["2000-05-07 13:14:15.126789", "0005-01-01 00:00:00"];
  const sample = sampleOf(dates.flatMap((at) => unitWords.split(" ").map((unit) => ({ unit, label: at }))));
  for (const name of ["date_part", "date_trunc"]) {
    const expression = `${name}(unit, cast(label as timestamp))`;
    const { rows, program } = await probe(connection, dialect, expression, sample);
    const apart = rows.filter(({ agree }) => !agree).map(({ row, ours, theirs }) => ({ row, ours, theirs }));
    expect({ expression, ok: program.ok, apart }).toEqual({ expression, ok: true, apart: [] });
  }
}
