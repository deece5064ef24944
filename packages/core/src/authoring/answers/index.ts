import { stepsOf } from "../../dialects/conversions.ts";
import type { Dialect } from "../../dialects/dialect.ts";
import { type FunctionRow, isPure } from "../../dialects/row.ts";
import { showValue } from "../../contrast/index.ts";
import { compile } from "../../evaluate/index.ts";
import { type OperationId, applyKernel, operationOf, operations } from "../../text/index.ts";
import { type Answers, type TraitId, describeTrait } from "../../traits/index.ts";
import { Bytes, Double, Moment, type Value, hexOf, isFailure, isList } from "../../values/index.ts";
import { type Case, type Slots, cases } from "./cases.ts";

/** A value that shows what follows from an answer. */
export interface AnswerExample {
  /** What is carried out, `slice("abc", start 0, length 2)`, or an expression. */
  readonly call: string;
  /** What comes of it, in words: texts in quotes, floating-point numbers with a power of ten. */
  readonly shown: string;
}

/** A value in words, numbers by their kind. */
function told(value: Value): string {
  if (value instanceof Double)
    return Number.isFinite(value.value) ? `${value.value}e0`.replace(/(e.*)e0$/, "$1") : String(value.value);
  if (value instanceof Moment) return value.text;
  if (value instanceof Bytes) return `the bytes ${hexOf(value.bytes)}`;
  if (isList(value)) return `[${value.map(told).join(", ")}]`;
  return typeof value === "object" && value !== null && !isFailure(value) ? String(value) : showValue(value);
}

/** An operation with what is in its slots. */
function callOf(id: OperationId, slots: Slots, fixed: Readonly<Record<string, string>>): string {
  const given = operationOf(id).slots.flatMap(({ name }, i) => {
    const value = fixed[name] ?? slots[i];
    if (value === undefined) return [];
    return [i === 0 ? told(value) : `${name} ${told(value)}`];
  });
  return `${id}(${given.join(", ")})`;
}

const answersOf = (answers: object): Readonly<Record<string, string>> => answers as Readonly<Record<string, string>>;

/** The answers of some function or step that does an operation; the first ones where none of these dialects has it. */
function someAnswers(id: OperationId, dialects: readonly Dialect[]): Readonly<Record<string, string>> {
  for (const dialect of dialects) {
    const found = [...dialect.rows.filter(isPure), ...stepsOf(dialect)].find(({ operation }) => operation === id);
    if (found) return answersOf(found.answers);
  }
  return Object.fromEntries(operationOf(id).traits.map((trait) => [trait, Object.keys(describeTrait(trait).answers)[0]]));
}

/** What comes of slots by an answer. */
function ofSlots(id: OperationId, slots: Slots, { fixed = {} }: Case, answers: Readonly<Record<string, string>>): Value {
  const operation = operationOf(id);
  const kernel = operation.prepare(answers as Answers, fixed);
  return applyKernel(kernel, slots, operation.slots, answers.missing);
}

const noRows = { columns: [], rows: 1 };

/** What comes of an expression where an operation in it answers so. */
function ofExpression(id: OperationId, expression: string, answers: Readonly<Record<string, string>>, dialect: Dialect): Value {
  const changed = (row: FunctionRow) =>
    isPure(row) && row.operation === id ? ({ ...row, answers: { ...row.answers, ...answers } } as FunctionRow) : row;
  return compile({ ...dialect, rows: dialect.rows.map(changed) }, expression, noRows).run(noRows)[0];
}

/** What comes of the same values by each answer to a question, in the order of the answers. */
export interface TriedAnswers {
  /** What is carried out, `slice("abc", start 0, length 2)`, or an expression. */
  readonly call: string;
  /** What comes of it by each answer, in words. */
  readonly shown: readonly string[];
}

/** The answers to a question that an operation asks, tried on values that tell them apart. */
export function* answersTried(id: OperationId, trait: TraitId, dialects: readonly Dialect[]): Generator<TriedAnswers> {
  const given = (cases[id] as Readonly<Partial<Record<TraitId, Case>>>)[trait];
  if (!given) return;
  const answers = Object.keys(describeTrait(trait).answers);
  const { expression, slots, more = [], fixed = {} } = given;
  if (expression !== undefined) {
    const dialect = dialects.find(({ rows }) => rows.some((row) => isPure(row) && row.operation === id && trait in row.answers));
    if (!dialect) return;
    const values = answers.map((answer) => ofExpression(id, expression, { ...given.with, [trait]: answer }, dialect));
    yield { call: `${expression} (${dialect.title})`, shown: values.map(told) };
  }
  const usual = { ...someAnswers(id, dialects), ...given.with };
  for (const each of slots ? [slots, ...more] : []) {
    const values = answers.map((answer) => ofSlots(id, each, given, { ...usual, [trait]: answer }));
    yield { call: callOf(id, each, fixed), shown: values.map(told) };
  }
}

/**
 * For each answer to a question a value that shows what follows from it: of those that are known the one on which most of the
 * other answers give another value.
 *
 * @param dialects where the answers to the other questions are taken from
 */
export function examplesOfAnswers(trait: TraitId, dialects: readonly Dialect[]): Readonly<Record<string, AnswerExample>> {
  const tried = (Object.keys(operations) as OperationId[]).flatMap((id) => [...answersTried(id, trait, dialects)]);
  const telling =
    (at: number) =>
    ({ shown }: TriedAnswers) =>
      shown.filter((each) => each !== shown[at]).length;
  return Object.fromEntries(
    Object.keys(describeTrait(trait).answers).flatMap((answer, at) => {
      const counts = tried.map(telling(at));
      const most = Math.max(0, ...counts);
      if (most === 0) return [];
      const { call, shown } = tried[counts.indexOf(most)];
      return [[answer, { call, shown: shown[at] }] as const];
    }),
  );
}
