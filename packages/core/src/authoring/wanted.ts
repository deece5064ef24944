import type { Dialect } from "../dialects/dialect.ts";
import { type Task, type TaskId, tasks } from "../dialects/tasks/index.ts";
import { type Sample, compile } from "../evaluate/index.ts";
import { type Value, calendarParts, isFailure } from "../values/index.ts";
import { agree } from "../contrast/index.ts";
import { type Node, isSaid, written } from "./made.ts";
import {
  type NumericColumn,
  calculations,
  countings,
  dateMoves,
  dateParts,
  extractions,
  letterStyles,
  marks,
  numberForms,
  otherStyles,
} from "./ways.ts";

/** A part with what it gives on the rows of the examples. */
interface Fragment {
  readonly node: Node;
  readonly values: readonly string[];
  /** The more it is made of, the less likely it is meant. */
  readonly cost: number;
}

/** An expression that gives what is wanted. */
export interface Candidate {
  readonly expression: string;
  /** What it gives on each row of the sample. */
  readonly values: readonly Value[];
}

/** What is found for wanted values. */
export interface Wanted {
  /** The simplest first; of those that give the same on every row only the simplest. */
  readonly candidates: readonly Candidate[];
  /** Rows, 0-based, on which the candidates differ: where the next value tells most. */
  readonly telling: readonly number[];
}

/** How much is tried: parts that are joined, states and how often one is reached, fragments and those of them that give the same, expressions that are run, how much more one may cost than the simplest, marks by which rows are told apart, what is tried for each kind of row, and what it may cost where the test reads another column. */
const most = {
  parts: 7,
  states: 8000,
  visits: 20,
  fragments: 1000,
  alike: 6,
  run: 40,
  dearer: 2.5,
  marks: 8,
  branch: 2,
  unrelated: 4,
};

/** Tasks that are meant less often than others that give the same. */
const rarer: Readonly<Partial<Record<TaskId, number>>> = {
  swapNames: 1.5,
  firstPiece: 0.1,
  slice: 0.3,
  withoutFirst: 0.2,
  withoutLast: 0.2,
  between: 0.3,
  replace: 0.2,
  remove: 0.4,
  firstNumber: 0.4,
  keepDigits: 0.4,
  keepLetters: 0.4,
  removeDigits: 0.4,
  reverse: 0.5,
  length: 0.6,
  words: 0.8,
  pieceCount: 0.6,
  occurrences: 0.8,
};

/** A task on a fragment, with what else it takes; what it is made of is found out where it is asked for, as most are dropped. */
const doing = (task: TaskId, of: Fragment, values: readonly string[], ...rest: readonly (string | number)[]): Fragment => ({
  get node() {
    const [subject, ...names] = Object.keys((tasks[task] as Task).takes);
    const given = Object.fromEntries(names.map((name, i) => [name, { constant: rest[i] }]));
    return { task, given: { [subject]: of.node, ...given } };
  },
  values,
  cost: of.cost + 1 + (rarer[task] ?? 0) + rest.length * 0.1,
});

/** The wanted texts, and whether texts can be parts of them, as they are or in other letters. */
class Goal {
  readonly #lower: readonly string[];
  /** The lengths of stretches of digits that stand in each of the texts. */
  readonly digits: readonly number[];

  constructor(readonly texts: readonly string[]) {
    this.#lower = texts.map((text) => text.toLowerCase());
    const lengths = texts.map((text) => new Set((text.match(/[0-9]+/g) ?? []).map(({ length }) => length)));
    this.digits = [...(lengths.at(0) ?? [])].filter((length) => lengths.every((each) => each.has(length)));
  }

  has(values: readonly string[]): boolean {
    return values.every((value, i) => value !== "" && this.texts[i].includes(value));
  }

  hasInOtherLetters(values: readonly string[]): boolean {
    return values.every((value, i) => this.#lower[i].includes(value.toLowerCase()));
  }
}

/** Tasks that change a text throughout: what is cut out of that is rarely meant. */
const changing = new Set<TaskId>(["replace", "remove", "swapNames"]);

/** Everything that stands in the wanted texts, from a fragment that need not. */
function* fragmentsOf(of: Fragment, goal: Goal, depth: number): Generator<Fragment> {
  for (const { task, run, rest } of extractions(of.values)) {
    const values = of.values.map(run);
    if (values.some((value) => value === "") || values.every((value, i) => value === of.values[i])) continue;
    const made = doing(task, of, values, ...rest);
    if (goal.has(values)) yield made;
    yield* filledOf(made, goal);
    yield* styledOf(made, goal, depth > 1);
    const isCut = rest.length > 0 && typeof rest[0] === "string" && !changing.has(task);
    if (depth > 1 && isCut) yield* fragmentsOf(made, goal, depth - 1);
  }
}

/** Digits filled up with zeros to a length that digits have in all of the wanted texts. */
function* filledOf(of: Fragment, goal: Goal): Generator<Fragment> {
  if (!of.values.every((value) => /^[0-9]+$/.test(value))) return;
  for (const length of goal.digits) {
    const values = of.values.map((value) => value.padStart(length, "0"));
    if (goal.has(values) && values.some((value, i) => value !== of.values[i])) yield doing("padLeft", of, values, length, "0");
  }
}

/** A fragment in other letters, or without some of its characters. */
function* styledOf(of: Fragment, goal: Goal, areOthersTried: boolean): Generator<Fragment> {
  const tried = [...(goal.hasInOtherLetters(of.values) ? letterStyles : []), ...(areOthersTried ? otherStyles : [])];
  for (const [task, run] of tried) {
    const values = of.values.map(run);
    if (goal.has(values) && values.some((value, i) => value !== of.values[i])) yield doing(task, of, values);
  }
}

/** A number as it may be written. */
function* numbersOf(of: Fragment, goal: Goal, wanted: readonly string[]): Generator<Fragment> {
  for (const { task, run, rest } of numberForms(wanted)) {
    const values = of.values.map((value) => run(Number(value)));
    if (goal.has(values)) yield doing(task, of, values, ...rest);
  }
}

/** The dates of texts that are dates with times; any other texts as they are. */
function datesOf(of: Fragment): Fragment {
  const dates = of.values.map((text) => /^(\d{4}-\d\d-\d\d)[ T]\d\d:/.exec(text)?.[1] ?? "");
  return dates.includes("") ? of : doing("first", of, dates, 10);
}

/** Parts of dates that do not stand in the text as they are, and dates that are moved. */
function* datePartsOf(of: Fragment, goal: Goal): Generator<Fragment> {
  const parts = of.values.map((text) => (/^\d{4}-\d\d-\d\d$/.test(text) ? calendarParts(text) : undefined));
  for (const [task, run] of dateParts) {
    const values = parts.map((date) => (date ? run(date) : ""));
    if (goal.has(values)) yield doing(task, of, values);
  }
  const wanted = goal.texts.map((text) => /\d{4}-\d\d-\d\d/.exec(text)?.[0]);
  const dates = wanted.map((text) => (text === undefined ? undefined : calendarParts(text)));
  if (!parts.every((date) => date !== undefined) || !dates.every((date) => date !== undefined)) return;
  for (const [task, count] of dateMoves(parts, dates)) yield doing(task, of, wanted as string[], count);
}

/** How much there is in texts. */
function* countsOf(of: Fragment, goal: Goal): Generator<Fragment> {
  for (const { task, run, rest } of countings(of.values)) {
    const values = of.values.map(run);
    // What is the same in all examples shows no count.
    if (goal.has(values) && (values.length < 2 || new Set(values).size > 1)) yield doing(task, of, values, ...rest);
  }
}

/** The columns of numbers, with what they hold on some rows. */
const numericColumns = ({ columns }: Sample, rows: readonly number[]): NumericColumn[] =>
  columns.flatMap(({ name, values }) => {
    const cells = rows.map((row) => values[row]);
    return cells.every((cell) => typeof cell === "number") ? [{ name, cells }] : [];
  });

/** What columns can give, on the rows of the examples, that stands in each of the wanted texts. */
function usableFragments(dialect: Dialect, sample: Sample, rows: readonly number[], wanted: readonly string[]): Fragment[] {
  const goal = new Goal(wanted);
  const found: Fragment[] = [];
  for (const { name, values: all } of sample.columns) {
    const cells = rows.map((row) => all[row]);
    if (cells.some((cell) => cell === null || typeof cell === "object")) continue;
    const column: Fragment = { node: { column: name }, values: cells.map(String), cost: 1 };
    if (goal.has(column.values)) found.push(column);
    if (cells.every((cell) => typeof cell === "number")) {
      found.push(...numbersOf(column, goal, wanted));
      const percents = cells.map((cell) => String(Number((cell * 100).toPrecision(15))));
      if (wanted.every((text) => text.includes("%")))
        found.push(...numbersOf(doing("hundredfold", column, percents), goal, wanted));
    }
    if (cells.every((cell) => typeof cell === "string")) {
      const tidy = cells.map((text) => text.trim().replace(/ +/g, " "));
      const bases = [column, ...(tidy.some((text, i) => text !== cells[i]) ? [doing("singleSpaces", column, tidy)] : [])];
      for (const base of bases) found.push(...filledOf(base, goal), ...styledOf(base, goal, true), ...fragmentsOf(base, goal, 2));
      found.push(...datePartsOf(datesOf(column), goal), ...countsOf(column, goal));
    }
  }
  const seen = new Map<string, number>();
  // Several ways to the same text are kept: which one is meant shows on the other rows.
  const isKept = ({ node, values }: Fragment) => {
    const key = values.join("\u0000");
    const count = seen.get(key) ?? 0;
    if (count >= most.alike || !isSaid(node, dialect)) return false;
    seen.set(key, count + 1);
    return true;
  };
  return found
    .sort((a, b) => a.cost - b.cost)
    .filter(isKept)
    .slice(0, most.fragments);
}

/** What may be meant; the dearer, the less likely. */
interface Costed {
  readonly node: Node;
  readonly cost: number;
}

/** A way through the wanted texts: how far each was made, of what. */
interface State {
  readonly at: readonly number[];
  readonly parts: readonly Fragment[];
  readonly cost: number;
}

/** Joins of fragments and constants that give the wanted texts, the cheapest first. */
function* joinsOf(wanted: readonly string[], fragments: readonly Fragment[]): Generator<Costed> {
  const queue: State[][] = [[{ at: wanted.map(() => 0), parts: [], cost: 0 }]];
  const visits = new Map<string, number>();
  const byStart = new Map<string, Fragment[]>();
  for (const fragment of fragments) {
    const start = fragment.values[0][0];
    const same = byStart.get(start);
    if (same) same.push(fragment);
    else byStart.set(start, [fragment]);
  }
  let states = 0;
  for (let place = 0; place < queue.length && states < most.states; place++) {
    for (const { at, parts, cost: own } of queue[place] ?? []) {
      if (at.every((from, i) => from === wanted[i].length)) {
        if (parts.some(({ node }) => !("constant" in node)))
          yield { node: parts.length === 1 ? parts[0].node : { joined: parts.map(({ node }) => node) }, cost: own };
        continue;
      }
      const key = at.join();
      visits.set(key, (visits.get(key) ?? 0) + 1);
      if (parts.length >= most.parts || visits.get(key)! > most.visits) continue;
      const rests = wanted.map((text, i) => text.slice(at[i]));
      for (const next of [...(byStart.get(rests[0][0]) ?? []), ...constantsOf(rests, parts.at(-1))]) {
        if (!next.values.every((value, i) => rests[i].startsWith(value))) continue;
        states++;
        // Each part that is joined costs, so that one part comes before many.
        const total = own + next.cost + (parts.length > 0 ? 0.5 : 0);
        (queue[Math.round(total * 10)] ??= []).push({
          at: at.map((from, i) => from + next.values[i].length),
          parts: [...parts, next],
          cost: total,
        });
      }
    }
  }
}

/** What gives the texts on some of the rows, the simplest first; one text that is wanted on all of them may be written as it is. */
function branchesOf(dialect: Dialect, sample: Sample, rows: readonly number[], texts: readonly string[]): Costed[] {
  // A text that one example alone wants is rarely meant, the less the longer it is.
  const cost = texts.length > 1 ? 0.8 : 1.5 + texts[0].replace(/[^\p{L}\p{N}]/gu, "").length / 2;
  const found: Costed[] = new Set(texts).size > 1 ? [] : [{ node: { constant: texts[0] }, cost }];
  for (const each of joinsOf(texts, usableFragments(dialect, sample, rows, texts))) {
    if (written(each.node, dialect) && found.push(each) > most.branch) break;
  }
  return found.sort((a, b) => a.cost - b.cost).slice(0, most.branch);
}

/** One thing where a mark stands in a column, another where not, for rows that are of two shapes. */
function choicesOf(dialect: Dialect, sample: Sample, rows: readonly number[], texts: readonly string[]): Node[] {
  const tests = new Map<string, { readonly name: string; readonly mark: string; readonly has: readonly boolean[] }>();
  for (const { name, values } of sample.columns) {
    if (!rows.every((row) => typeof values[row] === "string")) continue;
    for (const mark of marks) {
      const has = rows.map((row) => (values[row] as string).includes(mark));
      const key = `${name} ${has.join()}`;
      if (has.includes(true) && has.includes(false) && !tests.has(key)) tests.set(key, { name, mark, has });
    }
  }
  const made = [...tests.values()].slice(0, most.marks).flatMap(({ name, mark, has }) => {
    const branches = [true, false].map((kind) => {
      const places = rows.map((_, i) => i).filter((i) => has[i] === kind);
      const [own, wanted] = [places.map((i) => rows[i]), places.map((i) => texts[i])];
      return branchesOf(dialect, sample, own, wanted);
    });
    const condition: Node = { task: "contains", given: { text: { column: name }, needle: { constant: mark } } };
    return branches[0].flatMap((one) =>
      branches[1].flatMap((other): Costed[] => {
        const node: Node = { task: "choose", given: { condition, then: one.node, else: other.node } };
        // What is looked at is mostly what is taken from.
        const isRead = JSON.stringify([one.node, other.node]).includes(`{"column":${JSON.stringify(name)}}`);
        // What is made with much ado of columns that have nothing to do with the test, or written as it is, is made to fit.
        const written = [one, other].filter((each) => "constant" in each.node).length;
        const isFitted = written === 1 || Math.max(one.cost, other.cost) > most.unrelated;
        // Two texts of two examples are those examples again.
        const isLearnt = written < 2 || rows.length > 2;
        return !isLearnt || (isFitted && !isRead) ? [] : [{ node, cost: one.cost + other.cost + (isRead ? 0 : 1) }];
      }),
    );
  });
  return made.sort((a, b) => a.cost - b.cost).map(({ node }) => node);
}

/** One text or another by a column that has no more than two values in the sample, of which the examples show both. */
function mappingsOf({ columns }: Sample, rows: readonly number[], texts: readonly string[]): Node[] {
  return columns.flatMap(({ name, values }): Node[] => {
    const all = new Set(values);
    const [first, other] = new Set(rows.map((row) => values[row]));
    if (all.size !== 2 || values.length <= rows.length || typeof first !== "string" || typeof other !== "string") return [];
    const wantedFor = (value: string) => new Set(texts.filter((_, i) => values[rows[i]] === value));
    const [own, others] = [wantedFor(first), wantedFor(other)];
    if (own.size !== 1 || others.size !== 1) return [];
    const condition: Node = { task: "sameText", given: { a: { column: name }, b: { constant: first } } };
    return [{ task: "choose", given: { condition, then: { constant: [...own][0] }, else: { constant: [...others][0] } } }];
  });
}

/** What may stand next as it is: the beginning that the rests of all texts share; not after another constant. */
function constantsOf(rests: readonly string[], last: Fragment | undefined): Fragment[] {
  if (last && "constant" in last.node) return [];
  let size = 0;
  while (size < 24 && rests.every((rest) => size < rest.length && rest[size] === rests[0][size])) size++;
  const lengths = Array.from({ length: size }, (_, i) => i + 1);
  return lengths.map((length) => {
    const text = rests[0].slice(0, length);
    // Letters and digits that all examples happen to share are rarely meant.
    const plain = text.replace(/[^\p{L}\p{N}]/gu, "").length;
    return { node: { constant: text }, values: rests.map(() => text), cost: 0.5 + plain };
  });
}

/**
 * Expressions that give what is wanted on some rows, the simplest first, each tried on all rows of the sample.
 *
 * @param wanted the values that are wanted, by row, 0-based; numbers are wanted as they are written
 * @param count how many are given, 5 when left out
 * @returns no candidate where nothing that is tried gives them
 */
export function expressionsFor(
  dialect: Dialect,
  sample: Sample,
  wanted: ReadonlyMap<number, string | number>,
  count = 5,
): Wanted {
  const rows = [...wanted.keys()];
  const texts = [...wanted.values()].map(String);
  const candidates: Candidate[] = [];
  if (rows.length === 0 || rows.some((row) => !(row >= 0 && row < sample.rows))) return { candidates, telling: [] };
  const told = new Set<string>();
  let run = 0;
  /** Whether it gives what is wanted; then it is a candidate, unless another gives the same on every row. */
  const isTaken = (node: Node): boolean => {
    const expression = written(node, dialect)?.text;
    if (expression === undefined || told.has(expression)) return false;
    told.add(expression);
    run++;
    const program = compile(dialect, expression, sample);
    if (!program.ok || !rows.every((row, i) => isWanted(program.runRow(sample, row), texts[i]))) return false;
    const values = program.run(sample);
    const isNew = candidates.every((other) => !other.values.every((value, row) => agree(value, values[row])));
    if (isNew) candidates.push({ expression, values: [...values] });
    return true;
  };
  const isEnough = () => candidates.length >= count || run >= most.run;
  let dearest = Infinity;
  const isAlike = texts.length > 1 && new Set(texts).size === 1;
  for (const { node, cost } of joinsOf(texts, usableFragments(dialect, sample, rows, texts))) {
    if (isEnough() || cost > dearest) break;
    // One text that is wanted everywhere is rather written as it is than made with much ado.
    if (isAlike && cost > most.unrelated) isTaken({ constant: texts[0] });
    if (isTaken(node)) dearest = Math.min(dearest, cost + most.dearer);
  }
  if (candidates.length === 0 && isAlike) isTaken({ constant: texts[0] });
  const numbers = texts.map(Number);
  if (candidates.length === 0 && texts.every((text, i) => String(numbers[i]) === text))
    for (const { sign, sides } of calculations(numericColumns(sample, rows), numbers)) {
      const [left, right] = sides.map((side): Node => (typeof side === "number" ? { constant: side } : { column: side }));
      if (!isEnough()) isTaken({ sign, sides: [left, right] });
    }
  if (candidates.length === 0 && rows.length > 1)
    for (const node of [...mappingsOf(sample, rows, texts), ...choicesOf(dialect, sample, rows, texts)]) {
      if (isEnough()) break;
      isTaken(node);
    }
  const telling = Array.from({ length: sample.rows }, (_, row) => row).filter((row) =>
    candidates.some(({ values }) => !agree(values[row], candidates[0].values[row])),
  );
  return { candidates, telling };
}

/** Whether a value is what is wanted: as it is written, or as a number. */
function isWanted(value: Value, text: string): boolean {
  if (isFailure(value) || value === null) return false;
  const isNumber = typeof value !== "string" && typeof value !== "boolean" && String(Number(text)) === text;
  return String(value) === text || (isNumber && agree(value, Number(text)));
}
