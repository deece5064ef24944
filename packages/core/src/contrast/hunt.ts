import {
  type Bound,
  type DeclaredType,
  type Program,
  type Sample,
  allPartsOf,
  compile,
  defaultLimits,
  isImplicit,
  sampleOf,
} from "../evaluate/index.ts";
import { walk } from "../syntax/index.ts";
import { type Value, isFailure } from "../values/index.ts";
import { behavioursOf, instead } from "./answers.ts";
import { type Switch, agree, agreeBy, isUnknown } from "./equal.ts";
import { type RowDifference, type Side, contrast, toldOf } from "./contrast.ts";
import { lettersOf, poolOf, textsOver, writtenIn } from "./pool.ts";
import { type RowOf, programFor, randomRows, bySize, rowsOf, rowsToTry, shrunk } from "./rows.ts";

/** What is hunted for: a row on which two sides differ, or one on which a side gives an error, nothing, empty text, or a part of a text. */
export const quarries = ["difference", "error", "nothing", "empty", "cut"] as const;
export type Quarry = (typeof quarries)[number];

export interface HuntOptions {
  /** What is hunted for: a difference where there are two sides, otherwise an error. */
  readonly quarry?: Quarry;
  /** What the columns hold, by name. Those of the sample, or the names in the expressions as texts, where it is left out. */
  readonly columns?: Readonly<Record<string, DeclaredType>>;
  /** Rows to begin with. */
  readonly sample?: Sample;
  readonly agreement?: readonly Switch[];
  /** Milliseconds that the search may take; 500 where it is left out. */
  readonly milliseconds?: number;
  /** The most rows that are given, each with another cause; 5 where it is left out. */
  readonly most?: number;
}

/** A row that was found, made as small as it can be. */
export interface Caught {
  /** The columns that either side reads. */
  readonly row: Readonly<Record<string, Value>>;
  /** One value for each side. */
  readonly values: readonly Value[];
  /** Of a difference. */
  readonly difference?: RowDifference;
}

/** How far was searched. */
export interface Reach {
  readonly rows: number;
  /** On how many of these rows it is not known what a side gives: it met a limit, or something that is not covered. */
  readonly unknown: number;
  /** Whether nothing can be found: both sides do the same in every step. */
  readonly isProved: boolean;
  /** Every text of so many of these letters was tried in a column. */
  readonly exhausted?: { readonly column: string; readonly letters: readonly string[]; readonly length: number };
}

export interface Hunt {
  readonly programs: readonly Program[];
  readonly columns: Readonly<Record<string, DeclaredType>>;
  /** One row for each cause, the smallest first. */
  readonly caught: readonly Caught[];
  readonly reach: Reach;
}

const nowhere = { rows: 0, unknown: 0 };

/** Rows that are evaluated together: few at first, more as long as that takes no longer than so many milliseconds. */
const batch = { first: 16, most: 512, milliseconds: 20 };

/** Rows that are found before the search ends. */
const enough = 300;

/** Rows of a sample that are tried. */
const mostGiven = 2000;

/** Rows of which the cause is looked for. */
const mostExplained = 60;

/** Texts of which all are tried. */
const mostTexts = 12_000;

/** What the values of a column say that it holds. */
function kindOf(values: readonly Value[]): DeclaredType {
  const present = values.filter((value) => value !== null);
  if (present.length === 0) return "text";
  if (present.every((value) => typeof value === "boolean")) return "boolean";
  if (!present.every((value) => typeof value === "number" || typeof value === "bigint")) return "text";
  return present.every((value) => Number.isInteger(Number(value))) ? "integer" : "decimal";
}

/** The columns that the sides read: as they are said to be, as the sample has them, or as texts. */
export function columnsOf(sides: readonly Side[], { columns, sample }: HuntOptions): Record<string, DeclaredType> {
  const known: Record<string, DeclaredType> = {
    ...Object.fromEntries((sample?.columns ?? []).map(({ name, values, declared }) => [name, declared ?? kindOf(values)])),
    ...columns,
  };
  const names = sides.flatMap(({ dialect, expression }) =>
    [...walk(dialect.parse(expression).tree)].flatMap((node) => (node.kind === "name" ? [[dialect, node.name] as const] : [])),
  );
  const used: Record<string, DeclaredType> = {};
  for (const [dialect, written] of names) {
    const name =
      Object.keys({ ...known, ...used }).find((column) => dialect.namesColumn(written, column)) ?? written.replace(/^\$/, "");
    if (sample === undefined || Object.hasOwn(known, name)) used[name] = known[name] ?? "text";
  }
  return used;
}

/** Whether two parts do the same, whatever the row: the same operations with the same answers on the same texts. */
function isSame(a: Bound, b: Bound, kinds: readonly DeclaredType[]): boolean {
  if (a.kind === "constant" && b.kind === "constant") return typeof a.value === typeof b.value && agree(a.value, b.value);
  if (a.kind === "column" && b.kind === "column") return a.column === b.column && kinds[a.column] === "text";
  if (a.kind === "code" && b.kind === "code" && isImplicit(a))
    return a.code === b.code && isSame(a.children[0], b.children[0], kinds);
  if (a.kind !== "operation" || b.kind !== "operation") return false;
  const [x, y] = [a.inputs.flat(), b.inputs.flat()];
  return (
    a.operation === b.operation &&
    JSON.stringify([a.fixed, Object.entries(a.answers).sort()]) === JSON.stringify([b.fixed, Object.entries(b.answers).sort()]) &&
    x.length === y.length &&
    x.every((part, i) => (part === undefined || y[i] === undefined ? part === y[i] : isSame(part, y[i], kinds)))
  );
}

/** Whether a text is a beginning or an end of a column's text, and not all of it. */
const isPart = (value: Value, row: RowOf): boolean =>
  typeof value === "string" &&
  value !== "" &&
  Object.values(row).some(
    (text) => typeof text === "string" && text !== value && (text.startsWith(value) || text.endsWith(value)),
  );

/** Whether the values of a row are what is hunted for. */
function isQuarry(quarry: Quarry, options: HuntOptions): (values: readonly Value[], row: RowOf) => boolean {
  const alike = agreeBy(new Set(options.agreement));
  switch (quarry) {
    case "difference":
      return ([a, b]) => !isUnknown(a) && !isUnknown(b) && !alike(a, b);
    case "error":
      return ([value]) => isFailure(value) && !isUnknown(value);
    case "nothing":
      return ([value], row) => value === null && !Object.values(row).includes(null);
    case "empty":
      return ([value], row) => value === "" && !Object.values(row).includes("");
    case "cut":
      return ([value], row) => isPart(value, row);
  }
}

/**
 * Searches the smallest rows on which two expressions differ, one for each cause, or on which one gives an error, nothing, empty
 * text, or a part of a text: values made from what the expressions write, from the sample and the usual traps, then every short
 * text of the letters that matter, then any until the time is up.
 *
 * @example
 * const sides = [{ dialect: postgresql(), expression: "split_part(label, '-', 1)" }, { dialect: xpath(), expression: "substring-before($label, '-')" }];
 * const { caught, reach } = hunt(sides);
 * caught[0].row; // { label: "a" }
 * caught[0].difference.parting.causes[0][0].trait; // "absent"
 */
export function hunt(sides: readonly Side[], options: HuntOptions = {}): Hunt {
  const { milliseconds = 500, most = 5, quarry = sides.length > 1 ? "difference" : "error" } = options;
  const columns = columnsOf(sides, options);
  const names = Object.keys(columns);
  const limits = { ...defaultLimits, milliseconds };
  const programs = sides.map((side) => programFor(side, columns, limits));
  const none = { programs, columns, caught: [] };
  if (!programs.every(({ ok }) => ok)) return { ...none, reach: { ...nowhere, isProved: false } };
  const isProved =
    quarry === "difference" &&
    programs.every(({ dialect: { types } }) => types.nullStops === programs[0].dialect.types.nullStops) &&
    isSame(
      programs[0].bound,
      programs[1].bound,
      names.map((name) => columns[name]),
    );
  if (isProved) return { ...none, reach: { ...nowhere, isProved } };

  const end = Date.now() + milliseconds;
  const isWanted = isQuarry(quarry, options);
  const valuesOn = (rows: readonly RowOf[]): Value[][] => {
    const sample = sampleOf(rows, columns);
    const found = programs.map((program) => program.run(sample, { milliseconds }));
    return rows.map((_, row) => found.map((values) => values[row]));
  };

  const found: RowOf[] = [];
  let tried = 0;
  let unknown = 0;
  let size = batch.first;
  /** Tries rows until there are enough, or the time is up; whether all were tried. */
  const tryAll = (rows: Iterable<RowOf>): boolean => {
    let waiting: RowOf[] = [];
    const flush = () => {
      const started = Date.now();
      for (const [i, values] of valuesOn(waiting).entries()) {
        if (values.some(isUnknown)) unknown++;
        if (isWanted(values, waiting[i])) found.push(waiting[i]);
      }
      tried += waiting.length;
      waiting = [];
      if (Date.now() - started < batch.milliseconds) size = Math.min(batch.most, 2 * size);
    };
    for (const row of rows) {
      waiting.push(row);
      if (waiting.length < size) continue;
      flush();
      if (found.length >= enough || Date.now() > end) return false;
    }
    flush();
    return true;
  };

  const written = writtenIn(programs.map(({ bound }) => bound));
  const { sample } = options;
  const given = sample ? rowsOf(sample, names, mostGiven) : [];
  tryAll(names.length > 0 ? rowsToTry(columns, written, given) : [{}]);
  const text = names.find((name) => columns[name] === "text");
  const letters = lettersOf(written);
  let exhausted: Reach["exhausted"];
  if (text !== undefined && found.length < enough) {
    const { texts, length } = textsOver(letters, mostTexts);
    const usual = Object.fromEntries(names.map((name) => [name, poolOf(columns[name], written)[0]]));
    if (tryAll(texts.map((value) => ({ ...usual, [text]: value })))) exhausted = { column: text, letters, length };
  }
  if (names.length > 0 && found.length === 0) tryAll(randomRows(columns, written));

  /** A row by itself, since the digits of its decimals may decide. */
  const isAlone = Object.values(columns).includes("decimal");
  const isWantedAlone = (row: RowOf): boolean => {
    if (!isAlone) return isWanted(valuesOn([row])[0], row);
    const one = sampleOf([row], columns);
    return isWanted(
      sides.map(({ dialect, expression }) => compile(dialect, expression, one, limits).run(one)[0]),
      row,
    );
  };
  found.sort(bySize);
  const telling = quarry === "difference" ? rowsTelling(programs, found, columns, end + milliseconds / 2) : new Set<RowOf>();
  const caught = smallest(sides, found, telling, columns, most, options, isWantedAlone, end + milliseconds / 2);
  return { programs, columns, caught, reach: { rows: tried, unknown, isProved: false, ...(exhausted && { exhausted }) } };
}

/** Questions that two sides answer otherwise for which a row is looked for. */
const mostAsked = 40;

/** Of rows, the first for each question about steps that stand for each other, on which one side's answer is not the other's. */
function rowsTelling(
  [left, right]: readonly Program[],
  rows: readonly RowOf[],
  columns: Readonly<Record<string, DeclaredType>>,
  end: number,
): ReadonlySet<RowOf> {
  const steps = ({ bound }: Program) => allPartsOf(bound).filter((part) => part.kind === "operation");
  const asked = steps(left).flatMap((step) =>
    steps(right).flatMap((other) =>
      step.operation === other.operation
        ? behavioursOf(step)
            .filter((trait) => step.answers[trait] !== other.answers[trait])
            .map((trait) => instead(step, { trait, answer: other.answers[trait] }))
        : [],
    ),
  );
  const sample = sampleOf(rows, columns);
  const own = left.run(sample, { milliseconds: end - Date.now() });
  const telling = asked.slice(0, mostAsked).map((changes) => {
    const tried = left.experiment(changes);
    return rows.find((_, row) => Date.now() < end && !isUnknown(own[row]) && !agree(tried(sample, row), own[row]));
  });
  return new Set(telling.filter((row) => row !== undefined));
}

/** Milliseconds that are left for the cause of a row that was found, however late. */
const leastForCause = 300;

/** The smallest of the rows that were found for each cause; they come by their size. */
function smallest(
  sides: readonly Side[],
  found: readonly RowOf[],
  telling: ReadonlySet<RowOf>,
  columns: Readonly<Record<string, DeclaredType>>,
  most: number,
  { agreement = [] }: HuntOptions,
  isWanted: (row: RowOf) => boolean,
  end: number,
): Caught[] {
  const explained = (row: RowOf): Caught => {
    const [{ values, differences }] = contrast(sides, sampleOf([row], columns), {
      agreement,
      milliseconds: Math.max(leastForCause, end - Date.now()),
    }).rows;
    return { row, values, ...(differences[0] && { difference: differences[0] }) };
  };
  const keyOf = ({ difference, values }: Caught): string =>
    difference ? JSON.stringify(toldOf(difference)) : values.map((value) => (isFailure(value) ? value.code : "")).join();
  // The smallest of each kind of row and of values, for each question, and some of each size: a cause that few rows show is met, too.
  const signature = (row: RowOf) =>
    Object.values(row)
      .map((value) => (value === null || value === "" ? String(value) : ""))
      .join();
  const met = new Map<string, number>();
  const step = Math.max(1, Math.floor(found.length / mostExplained));
  const chosen = found.filter((row, i) => {
    const key = signature(row);
    met.set(key, (met.get(key) ?? 0) + 1);
    return i < mostExplained / 2 || i % step === 0 || met.get(key)! <= 4 || telling.has(row);
  });
  const first = new Map<string, Caught>();
  for (const row of chosen) {
    if (first.size >= most || (first.size > 0 && Date.now() > end)) break;
    if (!isWanted(row)) continue;
    const one = explained(row);
    if (!first.has(keyOf(one))) first.set(keyOf(one), one);
  }
  const result = new Map<string, Caught>();
  for (const one of first.values()) {
    const less = explained(shrunk(one.row, (row) => Date.now() < end && isWanted(row)));
    // What is left may differ for another reason, which has a row of its own.
    const kept = keyOf(less) === keyOf(one) || !first.has(keyOf(less)) ? less : one;
    if (!result.has(keyOf(kept))) result.set(keyOf(kept), kept);
  }
  return [...result.values()].sort((a, b) => bySize(a.row, b.row));
}
