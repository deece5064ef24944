import type { Dialect } from "../dialects/dialect.ts";
import { type FunctionRow, namesOf, signature } from "../dialects/row.ts";
import { type Part, type Task, type TaskId, filled, foreignTasks, tasks, templateOf } from "../dialects/tasks/index.ts";
import { compile, sampleOf } from "../evaluate/index.ts";
import type { Value } from "../values/index.ts";

/** Something that an author may have looked for. */
export interface Found {
  /** What it gives, in a line. */
  readonly does: string;
  /** How it is written, what it takes by name: an expression, or the signature of a function. */
  readonly written: string;
  /** What authors do that this is; left out for a single function. */
  readonly task?: TaskId;
  /** What it gives for values, which are the columns of the expression; left out for a single function. */
  readonly example?: { readonly given: Readonly<Record<string, Value>>; readonly expression: string; readonly value: Value };
}

/** What is looked through: how much each of its words says of it. */
interface Entry {
  readonly words: ReadonlyMap<string, number>;
  readonly task?: TaskId;
  readonly row?: FunctionRow;
}

/** Words that say nothing of what is looked for. */
const empty = new Set(
  "a an and any are as at be but by can do does for from get give gives how i in into is it its me my of on one or some that the their them then there this to up use want what when where which with would cell column field function formula".split(
    " ",
  ),
);

/** A word without its ending, so that "letters" is "letter", "spaces" is "space", "splitting" is "split". */
function stemOf(word: string): string {
  if (word.length <= 3) return word;
  const bare = word.replace(/(?:ies)$/, "y").replace(/(?:ing|ed|es|s)$/, "");
  return bare.replace(/([^aeiouls])\1$/, "$1").replace(/e$/, "");
}

/** Words that authors use for each other. */
const synonyms: readonly string[] = [
  "big large capital upper uppercase caps majuscule",
  "small lower lowercase minuscule",
  "digit number numeral numeric",
  "null nothing missing blank empty nil none absent",
  "remove delete strip drop erase eliminate rid without discard clear",
  "split divide separate break chop tokenize",
  "join combine merge concatenate glue stick append",
  "piece part segment item element token chunk",
  "replace substitute change exchange turn swap",
  "begin start prefix front head",
  "end suffix tail back last final trailing",
  "first initial leading",
  "larger bigger greater max maximum largest biggest greatest highest most",
  "smaller less lesser min minimum smallest least lowest",
  "character char letter sign symbol mark",
  "space whitespace blank",
  "find search locate look where",
  "test check whether verify valid",
  "all every everything each entire",
  "only just except keep solely",
  "between inside within around enclosed surrounding",
  "count many much often",
  "shorten truncate cut crop trim abbreviate",
  "middle mid second",
  "missing lost gone dropped disappeared vanished",
  "text string",
  "error fail failure wrong",
  "add plus insert put",
  "date day",
  "repeat duplicate multiply times",
  "reverse backwards mirror flip",
  "accent diacritic umlaut",
  "case if condition when ternary switch choose",
  "default fallback instead otherwise",
  "list array several multiple",
  "round nearest",
  "year month day",
  "compare equal same match identical",
  "convert cast parse transform turn",
  "bracket parenthesis parentheses parenthese",
];

/** How much a word tells for which another is meant. */
const alike = 0.55;

const synonymsOf = new Map<string, Set<string>>();

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}_]+(?:[-:][\p{L}_]+)*/gu) ?? [];
const stemsOf = (text: string): string[] =>
  wordsOf(text)
    .flatMap((word) => (word.includes("-") ? [word, ...word.split("-")] : [word]))
    .filter((word) => !empty.has(word))
    .map(stemOf);

for (const group of synonyms) {
  const stems = stemsOf(group);
  for (const stem of stems) synonymsOf.set(stem, new Set([...(synonymsOf.get(stem) ?? []), ...stems]));
}

/** Weighs words: what something does says more of it than the words by which it may be looked for. */
function weighed(...texts: readonly (readonly [text: string, weight: number])[]): ReadonlyMap<string, number> {
  const words = new Map<string, number>();
  for (const [text, weight] of texts) for (const stem of stemsOf(text)) words.set(stem, Math.max(weight, words.get(stem) ?? 0));
  return words;
}

/** The name of a task in words: `startsWith` is "starts With". */
const nameOf = (task: TaskId): string => task.replace(/[A-Z]/g, " $&");

const known = new WeakMap<Dialect, { readonly entries: readonly Entry[]; readonly weightOf: (stem: string) => number }>();

/** All that can be found in a dialect, and how much a word tells: the rarer, the more. */
function indexOf(dialect: Dialect) {
  const found = known.get(dialect);
  if (found) return found;
  const rows = new Map(
    dialect.rows.filter(({ notation }) => notation !== "operator").map((row) => [row.name.toLowerCase(), row]),
  );
  const entries: Entry[] = [
    ...(Object.keys(tasks) as TaskId[]).flatMap((task) => {
      const { does, words }: Task = tasks[task];
      return templateOf(task, dialect.id) === undefined
        ? []
        : [{ task, words: weighed([nameOf(task), 2.6], [does, 2], [words, 1.6]) }];
    }),
    ...[...rows.values()].map((row) => {
      const names = namesOf(row).join(" ");
      return { row, words: weighed([names, 2.5], [names.replace(/[_:-]/g, " "), 1.5], [row.summary, 1]) };
    }),
  ];
  const counts = new Map<string, number>();
  for (const { words } of entries) for (const stem of words.keys()) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  const weightOf = (stem: string) => Math.log(1 + entries.length / (counts.get(stem) ?? entries.length));
  const index = { entries, weightOf };
  known.set(dialect, index);
  return index;
}

/** How well an entry answers a question; a word may be the beginning of another. */
function scoreOf({ words, task }: Entry, stems: readonly string[], weightOf: (stem: string) => number): number {
  let score = 0;
  for (const stem of stems) {
    const exact = words.get(stem);
    const part =
      exact ?? Math.max(0, ...[...words].map(([word, weight]) => (stem.length > 3 && word.startsWith(stem) ? weight / 2 : 0)));
    const others = [...(synonymsOf.get(stem) ?? [])].map((other) => (words.get(other) ?? 0) * alike * weightOf(other));
    score += Math.max(part * weightOf(stem), ...others);
  }
  // Of two that answer as well, the one of which less was left unsaid; what authors do is explained better than a name.
  return score === 0 ? 0 : (score * (task ? 1.3 : 1)) / Math.sqrt(8 + words.size);
}

/** A list, as columns hold none: the pieces of a text. */
function listOf(items: readonly Value[], dialect: Dialect): string {
  const part = (text: string) => ({ text: dialect.textLiteral(text), isOpen: false });
  return filled(templateOf("split", dialect.id)!, { text: part(items.join("|")), delimiter: part("|") });
}

/**
 * A task as a dialect says it, with its example, which is worked out where it is asked for. Numbers are written in the example where
 * they must be, as DuckDB wants the digits of round, and so are lists.
 */
function told(task: TaskId, dialect: Dialect): Found {
  const { does, takes }: Task = tasks[task];
  const template = templateOf(task, dialect.id)!;
  const saying = (textOf: (name: string, value: Value) => string) => {
    const parts = Object.entries(takes).map(([name, value]) => [name, { text: textOf(name, value), isOpen: false }]);
    return filled(template, Object.fromEntries(parts) as Record<string, Part>);
  };
  const written = saying((name) => dialect.columnText(name));
  return {
    does,
    written,
    task,
    get example() {
      const sample = sampleOf([takes]);
      const hasList = Object.values(takes).some(Array.isArray);
      let [expression, program] = [written, compile(dialect, written, sample)];
      if (hasList || !program.ok) {
        expression = saying((name, value) => {
          if (Array.isArray(value)) return listOf(value, dialect);
          if (typeof value === "number") return String(value);
          return hasList ? dialect.textLiteral(String(value)) : dialect.columnText(name);
        });
        program = compile(dialect, expression, sample);
      }
      return { given: takes, expression, value: program.runRow(sample, 0) };
    },
  };
}

/** All that authors do and the dialect can say, each with its example. */
export const tasksOf = (dialect: Dialect): Found[] =>
  (Object.keys(tasks) as TaskId[]).flatMap((task) => (templateOf(task, dialect.id) === undefined ? [] : [told(task, dialect)]));

/** A question with what its turns of phrase stand for. */
const plainly = (question: string): string =>
  question
    .replace(/\b(?:to the )?left of\b/i, "before")
    .replace(/\b(?:to the )?right of\b/i, "after")
    .replace(/^\s*(?:is|are|does|do|has|have|can)\b/i, "whether");

/**
 * What answers a question in words, the best first: what authors do, as the dialect says it, and its functions. Words may be those of
 * the author ("text after the last slash"), the name of a function elsewhere, or a symptom ("leading zeros gone").
 *
 * @param most how many are given, 8 when left out
 */
export function find(question: string, dialect: Dialect, most = 8): Found[] {
  const stems = [...new Set(stemsOf(plainly(question)))];
  const { entries, weightOf } = indexOf(dialect);
  const meant = new Set(wordsOf(question).flatMap((word) => foreignTasks(word)));
  const isOnlyName = wordsOf(question).length === 1;
  return entries
    .map((entry) => {
      const isMeant = entry.task !== undefined && meant.has(entry.task);
      return { entry, score: scoreOf(entry, stems, weightOf) + (isMeant ? (isOnlyName ? 5 : 0.4) : 0) };
    })
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, most)
    .map(({ entry: { task, row } }) => (task ? told(task, dialect) : { does: row!.summary, written: signature(row!, dialect) }));
}
