import { type Diagnostic, type Fix, applyFix } from "../../diagnostics/index.ts";
import {
  type Bound,
  type BoundOperation,
  type Program,
  type Sample,
  compile,
  defaultLimits,
  unconverted,
} from "../../evaluate/index.ts";
import type { Expression } from "../../syntax/index.ts";
import { operationOf } from "../../text/index.ts";
import { type Facts, type MessageCode, type TextRange, type Value, isFailure, limitCodes } from "../../values/index.ts";

/** What a note is made from: the program, and what it gives on each row of the sample. */
export interface Asked {
  readonly program: Program;
  readonly sample: Sample;
  readonly values: readonly Value[];
  /** The first rows, on which parts of the expression are tried. */
  readonly first: Sample;
  /** When no more parts are tried, in milliseconds as `Date.now()` counts them. */
  readonly end: number;
}

export type Operation = Bound & BoundOperation;

export const note = (code: MessageCode, range: TextRange, facts: Facts = {}, fixes: readonly Fix[] = []): Diagnostic => ({
  code,
  severity: "warning",
  range,
  facts,
  fixes,
});

export const writing = (range: TextRange, text: string): Fix => ({ title: `Write ${text}`, edits: [{ range, text }] });

/** Rows on which parts of an expression are tried, and the milliseconds that one of them, a part, and all parts may take. */
const most = { rows: 200, row: 20, part: 50, all: 300 };

/** What notes on a program are made from, beginning now. */
export function askedOf(program: Program, sample: Sample, values: readonly Value[]): Asked {
  const rows = Math.min(sample.rows, most.rows);
  const first = { ...sample, rows, columns: sample.columns.map((each) => ({ ...each, values: each.values.slice(0, rows) })) };
  return { program, sample, values, first, end: Date.now() + most.all };
}

/** What an expression gives on the first rows; none where it cannot run, or takes long. */
export function valuesOn({ program: { dialect }, first, end }: Asked, text: string): readonly Value[] {
  if (Date.now() > end) return [];
  const program = compile(dialect, text, first, { ...defaultLimits, milliseconds: most.row });
  const values = program.ok ? program.run(first, { milliseconds: most.part }) : [];
  return values.some((value) => isFailure(value) && limitCodes.has(value.code)) ? [] : values;
}

/** What a part gives on the first rows, as it is written or after a mend. */
export function valuesOf(asked: Asked, { source: { range } }: Bound, fix: Fix = { title: "", edits: [] }): readonly Value[] {
  const { source } = asked.program;
  const text = applyFix(source, fix);
  return valuesOn(asked, text.slice(range.start, text.length - (source.length - range.end)));
}

/** What is put into an operation, without its conversions. */
export const inner = (input: Operation["inputs"][number]): Bound | undefined =>
  input && "kind" in input ? unconverted(input) : undefined;

/** The value of a part that is the same on every row, and the part itself. */
export function constantOf(input: Operation["inputs"][number]): { value: Value; part: Bound } | undefined {
  const part = inner(input);
  return part?.kind === "constant" ? { value: part.value, part } : undefined;
}

/** What stands in a slot of an operation, by the slot's name. */
export const slotOf = (operation: Operation, name: string): Operation["inputs"][number] =>
  operation.inputs[operationOf(operation.operation).slots.findIndex((slot) => slot.name === name)];

export const textOf = (program: Program, { range }: Expression): string => program.source.slice(range.start, range.end);

/** The sign of a call of two parts, as it is written. */
export function signOf(node: Expression, source: string): string | undefined {
  if (node.kind !== "call" || node.notation !== "operator" || node.args.length !== 2) return undefined;
  return source.slice(node.args[0].range.end, node.args[1].range.start).trim();
}

export const isNumberText = (text: string): boolean => text.trim() !== "" && Number.isFinite(Number(text));

/** A column beside a text that is written, which an operation compares or orders. */
export function textBesideColumn(
  operation: Operation,
): { readonly column: number; readonly text: string; readonly part: Bound; readonly beside: Bound } | undefined {
  const sides = ["a", "b"].map((name) => slotOf(operation, name));
  const found = sides.map(constantOf).find((side) => typeof side?.value === "string");
  const beside = sides.map(inner).find((part) => part?.kind === "column");
  if (beside?.kind !== "column" || typeof found?.value !== "string") return undefined;
  return { column: beside.column, text: found.value, part: found.part, beside };
}
