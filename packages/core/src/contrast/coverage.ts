import {
  type Bound,
  type DeclaredType,
  type Program,
  type Sample,
  allPartsOf,
  unconverted,
  compile,
  sampleOf,
} from "../evaluate/index.ts";
import { type OperationId, operationOf } from "../text/index.ts";
import { type TraitId, describeTrait } from "../traits/index.ts";
import type { TextRange, Value } from "../values/index.ts";
import { type BoundStep, type OtherAnswer, behavioursOf, instead, othersTo } from "./answers.ts";
import type { Side } from "./contrast.ts";
import { agree, isUnknown } from "./equal.ts";
import { columnsOf } from "./hunt.ts";
import { writtenIn } from "./pool.ts";
import { showValue } from "./shown.ts";
import { type RowOf, programFor, rowsToTry, shrunk } from "./rows.ts";

/** A question about a step that no row of a sample tells from another answer, and the smallest row that would. */
export interface Untold {
  readonly operation: OperationId;
  /** The function, or the sign, as the dialect names it. */
  readonly name: string;
  readonly range: TextRange;
  readonly trait: TraitId;
  /** The answer that the dialect gives, and the other one. */
  readonly answers: readonly [string, string];
  /** The smallest row that would tell them apart; left out where none does with the numbers that are written. */
  readonly row?: RowOf;
  /** What the expression gives on that row, and would give with the other answer. */
  readonly values?: readonly [Value, Value];
  /** The slot whose number hides it, and another number with which rows of the sample would tell. */
  readonly hiddenBy?: { readonly slot: string; readonly written: number; readonly instead: number };
}

/** What an expression takes for granted about a column: how often what it searches for stands there, or how long its texts are. */
export interface Assumption {
  readonly column: string;
  /** What is counted; the characters of the text where it is left out. */
  readonly mark?: string;
  /** The commonest count, and how many rows have it. */
  readonly count: number;
  readonly rows: number;
  /** The rows that have another, 0-based, with what they have; rows without a value are not looked at. */
  readonly others: readonly { readonly row: number; readonly count: number }[];
}

/**
 * What no row tells, in a sentence: the question, the answer here, and what it gives on the smallest row on which another one would
 * give something else.
 *
 * @example
 * const sample = sampleOf([{ shelf: "HB#0412#A" }]);
 * const { untold } = coverage({ dialect: postgresql(), expression: "split_part(shelf, '#', 1)" }, sample);
 * untoldText(untold.find(({ trait }) => trait === "absent")).startsWith("No row tells: "); // true
 */
export function untoldText({ trait, answers: [own, other], row, values, hiddenBy }: Untold): string {
  const why = hiddenBy ? `, as the ${hiddenBy.slot} is ${hiddenBy.written}` : "";
  const told = `No row tells${why}: ${describeTrait(trait).question} Here ${own}`;
  if (!row || !values) return `${told}, not ${other}.`;
  const cells = Object.entries(row).map(([column, value]) => `${column} = ${showValue(value)}`);
  return `${told}: ${cells.join(", ")} gives ${showValue(values[0])}, where ${other} would give ${showValue(values[1])}.`;
}

export interface Coverage {
  readonly program: Program;
  /** Answers of steps that some row tells from all others, and those that none does. */
  readonly told: number;
  readonly untold: readonly Untold[];
  readonly assumptions: readonly Assumption[];
  /** Whether the time was up before all answers were tried. */
  readonly isCut: boolean;
}

/** Rows that are made for finding one on which two answers differ, and rows of a sample that are looked at. */
const most = { made: 700, given: 5000 };

/** The steps of a program, each with its other answers. */
const othersOf = (root: Bound): { readonly step: BoundStep; readonly other: OtherAnswer }[] =>
  allPartsOf(root)
    .filter((part) => part.kind === "operation")
    .flatMap((step) => othersTo(step, behavioursOf(step)).map((other) => ({ step, other })));

/**
 * Which answers in play the rows of a sample never tell apart, each with the smallest row that would, and what the expression
 * takes for granted about the columns. Only answers that change something on some row are in play.
 *
 * @param milliseconds that it may take; half a second where it is left out
 * @example
 * const sample = sampleOf([{ shelf: "HB#0412#A" }, { shelf: "HB#0413#B" }]);
 * const { untold, assumptions } = coverage({ dialect: postgresql(), expression: "split_part(shelf, '#', 1)" }, sample);
 * untold.find(({ trait }) => trait === "absent").row; // { shelf: "" }
 * assumptions[0].count; // 2
 */
export function coverage(side: Side, sample: Sample, milliseconds = 500): Coverage {
  const program = compile(side.dialect, side.expression, sample);
  if (!program.ok) return { program, told: 0, untold: [], assumptions: [], isCut: false };
  const columns = columnsOf([side], { sample });
  const end = Date.now() + milliseconds;
  const own = program.run(sample);
  const given = Array.from({ length: Math.min(sample.rows, most.given) }, (_, row) => row).filter((row) => !isUnknown(own[row]));

  const made = tryingRows(side, columns);
  const told = new Set<string>();
  const untold = new Map<string, Untold>();
  let isCut = false;
  for (const { step, other } of othersOf(program.bound)) {
    const { trait, answer } = other;
    isCut = Date.now() > end;
    if (isCut) break;
    const key = `${step.source.range.start} ${step.operation} ${trait}`;
    if (untold.has(key)) continue;
    const tried = program.experiment(instead(step, other));
    if (given.some((row) => !isAlike(tried(sample, row), own[row]))) {
      told.add(key);
      continue;
    }
    const hiddenBy = hidden(program, sample, given, step, other);
    const found = made.rowFor(step.operation, other, step.source.range.start);
    const isKnown = (each: Untold) => each.trait === trait && JSON.stringify(each.row) === JSON.stringify(found?.row);
    if ((!found && !hiddenBy) || (step.implicit && [...untold.values()].some(isKnown))) continue;
    const { source, operation, row } = step;
    const name = row?.name ?? (step.implicit ? "a conversion" : program.source.slice(source.range.start, source.range.end));
    const answers = [step.answers[trait], answer] as const;
    untold.set(key, { operation, name, range: source.range, trait, answers, ...found, ...(!found && hiddenBy && { hiddenBy }) });
  }
  return {
    program,
    told: [...told].filter((key) => !untold.has(key)).length,
    untold: [...untold.values()],
    assumptions: assumptionsOf(program, sample),
    isCut,
  };
}

/** A number that is written in a slot and keeps rows from telling two answers apart: one more would let them. */
function hidden(
  program: Program,
  sample: Sample,
  given: readonly number[],
  step: BoundStep,
  { trait, answer }: OtherAnswer,
): Untold["hiddenBy"] {
  const { slots } = operationOf(step.operation);
  for (const [i, input] of step.inputs.entries()) {
    if (!input || !("kind" in input) || input.kind !== "constant" || typeof input.value !== "number") continue;
    const { value } = input;
    const inputs = step.inputs.map((each, place) => (place === i ? { ...input, value: value + 1 } : each));
    const [own, other] = [step.answers, { ...step.answers, [trait]: answer }].map((answers) =>
      program.experiment(new Map<Bound, Bound>([[step, { ...step, inputs, answers }]])),
    );
    if (given.some((row) => !isAlike(own(sample, row), other(sample, row))))
      return { slot: slots[i].name, written: value, instead: value + 1 };
  }
  return undefined;
}

/** Whether two values are the same; what is not known is like anything. */
const isAlike = (a: Value, b: Value): boolean => isUnknown(a) || isUnknown(b) || agree(a, b);

/** The same expression over rows that are made, and the smallest of them on which an answer makes a difference. */
export function tryingRows(side: Side, columns: Readonly<Record<string, DeclaredType>>) {
  const program = programFor(side, columns);
  const rows: RowOf[] = [];
  for (const row of rowsToTry(columns, writtenIn([program.bound]), [])) {
    if (rows.length === most.made) break;
    rows.push(row);
  }
  const sample = sampleOf(rows, columns);
  const own = program.run(sample);
  const placeOf = (operation: OperationId, start?: number) =>
    allPartsOf(program.bound).find(
      (part) =>
        part.kind === "operation" &&
        part.operation === operation &&
        part.source.range.start === (start ?? part.source.range.start),
    );
  return {
    /** Of the first step of an operation, or of that which begins at a place. */
    rowFor(operation: OperationId, other: OtherAnswer, start?: number) {
      const place = placeOf(operation, start);
      if (place?.kind !== "operation") return undefined;
      const tried = program.experiment(instead(place, other));
      const at = rows.findIndex((_, row) => !isAlike(tried(sample, row), own[row]));
      if (at < 0) return undefined;
      const on = (row: RowOf): readonly [Value, Value] => {
        const one = sampleOf([row], columns);
        return [program.runRow(one, 0), tried(one, 0)];
      };
      const row = shrunk(rows[at], (each) => !isAlike(...on(each)));
      return { row, values: on(row) };
    },
  };
}

/** The slots that hold what is searched for, and those that say how much of a text is taken. */
const marking: ReadonlySet<string> = new Set(["needle", "delimiter", "old", "separator"]);
const measuring: ReadonlySet<string> = new Set(["start", "length"]);

/** What steps take for granted about the columns that they are given as they are. */
function assumptionsOf({ bound }: Program, sample: Sample): Assumption[] {
  const found = new Map<string, Assumption>();
  for (const part of allPartsOf(bound)) {
    if (part.kind !== "operation" || part.implicit) continue;
    const { slots } = operationOf(part.operation);
    const [given] = part.inputs;
    const text = given && "kind" in given ? unconverted(given) : undefined;
    if (text?.kind !== "column") continue;
    slots.forEach(({ name }, i) => {
      const input = part.inputs[i];
      const value = input && "kind" in input && input.kind === "constant" ? input.value : undefined;
      const isLiteral = part.answers.pattern === undefined || part.answers.pattern === "literal";
      const mark = marking.has(name) && isLiteral && typeof value === "string" && value !== "" ? value : undefined;
      if (mark === undefined && !(measuring.has(name) && typeof value === "number")) return;
      const assumption = counted(sample, text.column, mark);
      if (assumption) found.set(JSON.stringify([text.column, mark]), assumption);
    });
  }
  return [...found.values()];
}

/** How often something stands in the texts of a column, or how many characters they have, where most rows agree in that. */
function counted({ columns }: Sample, column: number, mark: string | undefined): Assumption | undefined {
  const { name, values } = columns[column];
  const counts = values.flatMap((value, row) =>
    typeof value === "string" ? [{ row, count: mark === undefined ? [...value].length : value.split(mark).length - 1 }] : [],
  );
  const sizes = new Map<number, number>();
  for (const { count } of counts) sizes.set(count, (sizes.get(count) ?? 0) + 1);
  const [[count, rows] = [0, 0]] = [...sizes].sort(([, a], [, b]) => b - a);
  // What fewer than two in three have is no rule.
  if (counts.length === 0 || rows * 3 < counts.length * 2) return undefined;
  const others = counts.filter((each) => each.count !== count);
  return { column: name, ...(mark !== undefined && { mark }), count, rows, others };
}
