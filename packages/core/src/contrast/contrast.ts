import type { Diagnostic } from "../diagnostics/index.ts";
import type { Dialect } from "../dialects/dialect.ts";
import { type Program, type Sample, compile } from "../evaluate/index.ts";
import type { Failure, TextRange, Value } from "../values/index.ts";
import { type KnownCauses, nothingKnown, partingAgain, partingOf } from "./cause.ts";
import { anotherOf, truthParting } from "./chain.ts";
import { type Effect, type Outcome, effectOf, stretchesApart } from "./effect.ts";
import { type Switch, agree, agreeBy, asTruth, isUnknown, switches } from "./equal.ts";
import type { Parting } from "./parting.ts";
import type { Evaluated } from "./swap.ts";
import { Workbench, triedOf } from "./workbench.ts";

/** An expression with its dialect. */
export interface Side {
  readonly dialect: Dialect;
  readonly expression: string;
}

/** How two sides differ on a row; `parting` is undefined where they have no step in common that makes up the difference. */
export interface RowDifference {
  /** Two sides, from 0, each the first of a group that agrees on the row. */
  readonly sides: readonly [number, number];
  readonly parting: Parting | undefined;
  /** Where both write one function or sign and it is another operation on each side: what it is on each. */
  readonly another?: string;
  /** Whether the time for that was up before a cause was looked for, or found. */
  readonly isUnsought?: true;
  /** Found out where it is asked for. */
  readonly effect: Effect;
}

/** One row of a contrast. */
export interface ContrastRow {
  /** 0-based. */
  readonly row: number;
  /** One value for each side. */
  readonly values: readonly Value[];
  /**
   * The sides, from 0, in groups that agree, by their first sides. Sides that cannot run, and such as met a limit on the row, are
   * in none.
   */
  readonly groups: readonly (readonly number[])[];
  /** Whether there is no more than one group. */
  readonly agree: boolean;
  /** Between each two groups; where there are more than eight, between the first and each other. */
  readonly differences: readonly RowDifference[];
}

/** Rows on which two sides differ for one reason. */
export interface CauseGroup {
  /** 0-based. */
  readonly rows: readonly number[];
  /** How they differ on the first of these rows. */
  readonly difference: RowDifference;
}

/** Rows on which it is not known what a side gives: it met a limit, or something that is not covered. */
export interface UnknownRows {
  /** From 0. */
  readonly side: number;
  /** 0-based. */
  readonly rows: readonly number[];
  /** What the side met on the first of these rows. */
  readonly failure: Failure;
}

export interface Contrast {
  readonly programs: readonly Program[];
  /** Every row of the sample, in order. */
  readonly rows: readonly ContrastRow[];
  /** The rows that stand aside, by sides that can run and by what they met. */
  readonly unknown: readonly UnknownRows[];
  /** The rows that differ, by sides and cause; the commonest of two sides first. */
  readonly groups: readonly CauseGroup[];
  /** For each switch that is off how many rows more would agree with it, where there are any. */
  readonly nearly: Readonly<Partial<Record<Switch, number>>>;
  /** Goes on looking for causes where the time for that was up, for so many milliseconds; left out where nothing is left. */
  readonly more?: (milliseconds: number) => Contrast;
}

/** How a contrast is made. */
export interface ContrastOptions {
  /** What counts as no difference; nothing does where it is left out. */
  readonly agreement?: readonly Switch[];
  /** Milliseconds in which causes are looked for, of all rows together; 20 seconds where it is left out. */
  readonly milliseconds?: number;
}

/** Groups on a row beyond which each is contrasted with the first only. */
const mostGroups = 8;

/** Rows in a row without a cause after which that what is named alike is two things says it all. */
const mostUnexplained = 12;

/** Explanations that are kept for rows which read the same, and UTF-16 units of what they read. */
const mostExplained = 5000;
const longestKey = 10_000;

const unsought = { parting: undefined, isUnsought: true } as const;

/** Where two evaluations part, and, where no cause is found, what one name is on each side. */
function explained(
  both: () => readonly [Evaluated, Evaluated],
  known: KnownCauses,
  end: number,
): Pick<RowDifference, "parting" | "another" | "isUnsought"> {
  if (Date.now() > end) return unsought;
  const [left, right] = both();
  if (agree(asTruth(left.value), asTruth(right.value))) return { parting: truthParting(left, right) };
  const found = triedOf(
    left,
    right,
    (one, other) => {
      // Where one name is two things and no row before had a cause, none is looked for anew.
      const always = known.unexplained >= mostUnexplained ? anotherOf(one, other) : undefined;
      const parting = (always === undefined ? partingOf : partingAgain)(one, other, known);
      const another = parting && parting.causes.length > 0 ? undefined : (always ?? anotherOf(one, other));
      return { parting, ...(another !== undefined && { another }) };
    },
    end,
  );
  return found ?? unsought;
}

/** The sides whose values are known, in groups that agree. */
function groupsOf(values: readonly Value[], sides: readonly number[], alike: (a: Value, b: Value) => boolean): number[][] {
  const groups: number[][] = [];
  for (const side of sides) {
    const group = groups.find(([first]) => alike(values[first], values[side]));
    if (group) group.push(side);
    else groups.push([side]);
  }
  return groups;
}

/** Each two of some, as long as they are not too many. */
const pairsOf = (firsts: readonly number[]): (readonly [number, number])[] =>
  firsts.flatMap((a, i) =>
    i === 0 || firsts.length <= mostGroups ? firsts.slice(i + 1).map((b): readonly [number, number] => [a, b]) : [],
  );

/**
 * Evaluates two or more expressions over the same rows, and says on which rows which of them differ, at which step first, and by
 * which traits. Sides that cannot run stand aside.
 *
 * @example
 * const sides = [{ dialect: postgresql(), expression: "split_part(label, ',', 1)" }, { dialect: xpath(), expression: "substring-before($label, ',')" }];
 * const { rows, groups } = contrast(sides, sampleOf([{ label: "Alnus, L." }, { label: "Salix" }]));
 * rows.map(({ groups }) => groups); // [[[0, 1]], [[0], [1]]]
 * groups[0].difference.parting.causes; // [[{ trait: "absent", answers: ["whole", "empty"] }]]
 */
export function contrast(sides: readonly Side[], sample: Sample, options: ContrastOptions = {}): Contrast {
  const { agreement = [], milliseconds = 20_000 } = options;
  const on = new Set(agreement);
  const alike = agreeBy(on);
  const programs = sides.map(({ dialect, expression }) => compile(dialect, expression, sample));
  const runnable = programs.flatMap(({ ok }, side) => (ok ? [side] : []));
  const columns = programs.map((program) => program.run(sample));
  const benches = programs.map((program) => new Workbench(program, sample));
  const known = new Map<string, KnownCauses>();
  const knownOf = (pair: readonly number[]): KnownCauses => {
    const key = pair.join();
    const found = known.get(key) ?? nothingKnown();
    known.set(key, found);
    return found;
  };

  /** What was found for two sides on rows of which they read the same. */
  const explainedBefore = new Map<string, ReturnType<typeof explained>>();
  const explainedOnce = (row: number, [a, b]: readonly [number, number], explain: () => ReturnType<typeof explained>) => {
    const key = `${a} ${benches[a].readOn(row)} ${b} ${benches[b].readOn(row)}`;
    // What a long text gives is not met again, and would be held.
    if (key.length > longestKey) return explain();
    const found = explainedBefore.get(key) ?? explain();
    if (explainedBefore.size >= mostExplained) explainedBefore.clear();
    if (!found.isUnsought) explainedBefore.set(key, found);
    return found;
  };

  /** How two sides differ on a row; the steps of a side are carried out once for all the others. */
  const differencesOn = (row: number): ((sides: readonly [number, number], end: number) => RowDifference) => {
    const evaluated = lazily((side) => benches[side].at(row));
    const outcome = lazily((side): Outcome => ({ program: programs[side], value: columns[side][row] }));
    return (sides, end) => {
      const [a, b] = sides;
      let effect: Effect | undefined;
      return {
        sides,
        ...explainedOnce(row, sides, () => explained(() => [evaluated(a), evaluated(b)], knownOf(sides), end)),
        get effect() {
          return (effect ??= effectOf(outcome(a), outcome(b), sample, row));
        },
      };
    };
  };

  const compared = Array.from({ length: sample.rows }, (_, row): ContrastRow => {
    const values = columns.map((column) => column[row]);
    const groups = groupsOf(
      values,
      runnable.filter((side) => !isUnknown(values[side])),
      alike,
    );
    if (groups.length < 2) return { row, values, groups, agree: true, differences: [] };
    const difference = differencesOn(row);
    const differences = pairsOf(groups.map(([first]) => first)).map((pair) => difference(pair, -Infinity));
    return { row, values, groups, agree: false, differences };
  });
  const nearly = nearlyOf(compared, on);
  const unknown = runnable.flatMap((side) => unknownRows(side, columns[side]));

  /** Differences that alone took all the time: nothing comes of trying again. */
  const givenUp = new Set<RowDifference>();
  const sought = (before: readonly ContrastRow[], time: number): Contrast => {
    const end = Date.now() + time;
    let isFirst = true;
    let isLeft = false;
    const rows = before.map((one): ContrastRow => {
      if (!one.differences.some(({ isUnsought }) => isUnsought)) return one;
      const difference = differencesOn(one.row);
      const differences = one.differences.map((known) => {
        if (!known.isUnsought || givenUp.has(known)) return known;
        const found = difference(known.sides, end);
        if (found.isUnsought && isFirst && time > 0) givenUp.add(found);
        else isLeft ||= found.isUnsought === true;
        isFirst = false;
        return found;
      });
      return { ...one, differences };
    });
    const all = { programs, rows, unknown, groups: causeGroups(rows), nearly };
    return isLeft ? { ...all, more: (milliseconds) => sought(rows, milliseconds) } : all;
  };
  return sought(compared, milliseconds);
}

/** Something of each side, made where it is asked for, once. */
function lazily<T>(make: (side: number) => T): (side: number) => T {
  const made = new Map<number, T>();
  return (side) => {
    if (!made.has(side)) made.set(side, make(side));
    return made.get(side)!;
  };
}

/** The rows on which it is not known what a side gives, by the code of what it met. */
function unknownRows(side: number, values: readonly Value[]): UnknownRows[] {
  const found = new Map<string, { side: number; rows: number[]; failure: Failure }>();
  values.forEach((value, row) => {
    if (!isUnknown(value)) return;
    const own = found.get(value.code);
    if (own) own.rows.push(row);
    else found.set(value.code, { side, rows: [row], failure: value });
  });
  return [...found.values()];
}

/** How many rows more would agree with each switch that is off. */
function nearlyOf(rows: readonly ContrastRow[], on: ReadonlySet<Switch>): Contrast["nearly"] {
  const differing = rows.filter((row) => !row.agree);
  const counts = (Object.keys(switches) as Switch[]).flatMap((name) => {
    if (on.has(name)) return [];
    const alike = agreeBy(new Set([...on, name]));
    const count = differing.filter(({ values, groups }) => groups.every(([side]) => alike(values[groups[0][0]], values[side])));
    return count.length > 0 ? [[name, count.length] as const] : [];
  });
  return Object.fromEntries(counts);
}

/** What is told of a difference: differences of the same sides that are told alike have one cause. */
export const toldOf = ({ parting, another, isUnsought }: RowDifference): unknown => [
  parting && [parting, ...(parting.further ?? [])].map(({ operation, ranges, causes }) => [operation, ranges, causes]),
  another,
  isUnsought,
];

function causeGroups(rows: readonly ContrastRow[]): CauseGroup[] {
  const groups = new Map<string, { rows: number[]; difference: RowDifference }>();
  for (const { row, differences } of rows) {
    for (const difference of differences) {
      const key = JSON.stringify([difference.sides, toldOf(difference)]);
      const group = groups.get(key);
      if (group) group.rows.push(row);
      else groups.set(key, { rows: [row], difference });
    }
  }
  return [...groups.values()].sort(
    (a, b) =>
      a.difference.sides[0] - b.difference.sides[0] ||
      a.difference.sides[1] - b.difference.sides[1] ||
      b.rows.length - a.rows.length,
  );
}

/** For each side the stretch of its text that is not that of another group; undefined where it is no text, or the same. */
export function apartOn({ values, groups }: Pick<ContrastRow, "values" | "groups">): (TextRange | undefined)[] {
  return values.map((value, side) => {
    const own = groups.findIndex((group) => group.includes(side));
    const other = own === -1 ? undefined : groups[own === 0 ? 1 : 0]?.[0];
    const against = other === undefined ? undefined : values[other];
    return typeof value === "string" && typeof against === "string" ? stretchesApart(value, against)[0] : undefined;
  });
}

/** What a dialect makes of a text pasted into it. */
export interface Pasted {
  readonly dialect: Dialect;
  /** Why it is not accepted; empty when it is. */
  readonly refused: readonly Diagnostic[];
}

/** Gives one text to several dialects, and contrasts those that accept it (undefined when fewer than two do). */
export function paste(
  expression: string,
  dialects: readonly Dialect[],
  sample: Sample,
  options: ContrastOptions = {},
): { pasted: readonly Pasted[]; contrast: Contrast | undefined } {
  const pasted = dialects.map((dialect): Pasted => {
    const program = compile(dialect, expression, sample);
    return { dialect, refused: program.ok ? [] : program.diagnostics.filter((d) => d.severity === "error") };
  });
  const sides = pasted.filter(({ refused }) => refused.length === 0).map(({ dialect }) => ({ dialect, expression }));
  return { pasted, contrast: sides.length > 1 ? contrast(sides, sample, options) : undefined };
}
