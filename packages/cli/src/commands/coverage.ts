import type { ReadOptions } from "@indigo-quill/data";
import { type Assumption, type Coverage, type Untold, coverage, showValue } from "indigo-quill/contrast";
import { describeTrait } from "indigo-quill/traits";
import { dialectOf, readSample } from "../input.ts";
import { report } from "../output/diagnostics.ts";
import { type Style, styleFor } from "../output/style.ts";
import { type Streams, exit } from "../streams.ts";

export interface CoverageOptions extends ReadOptions {
  readonly in: string;
  readonly rows: string;
  readonly option?: readonly string[];
  readonly json?: boolean;
}

/** Milliseconds that are spent on finding rows. */
const patience = 2000;

/** What the rows show of an expression, and what they hide. */
export async function coverageCommand(expression: string, options: CoverageOptions, streams: Streams): Promise<number> {
  const dialect = await dialectOf(options.in, options.option);
  const sample = await readSample(options.rows, options, streams);
  const found = coverage({ dialect, expression }, sample, patience);
  if (!report(found.program, streams)) return exit.failed;
  streams.stdout.write(options.json ? asJson(found) : coverageText(found, styleFor(streams)));
  return found.untold.length === 0 ? exit.ok : exit.some;
}

function assumptionText({ column, mark, count, rows, others }: Assumption): string {
  const what = mark === undefined ? (count === 1 ? "character" : "characters") : JSON.stringify(mark);
  const told = others.slice(0, 8).map((other) => `row ${other.row + 1} has ${other.count}`);
  const rest = others.length > 8 ? `, and ${others.length - 8} more have others` : "";
  return others.length === 0
    ? `every ${column} has ${count} ${what}`
    : `${column} has ${count} ${what} on ${rows} rows; ${told.join(", ")}${rest}`;
}

function untoldText({ name, trait, answers, row, values, hiddenBy }: Untold, style: Style): string {
  const { question, answers: known } = describeTrait(trait);
  const cells = Object.entries(row ?? {}).map(([column, value]) => `${column} = ${showValue(value)}`);
  const shows = hiddenBy
    ? `hidden by what is written: with ${hiddenBy.slot} ${hiddenBy.instead} in the place of ${hiddenBy.written} rows would show it`
    : `${cells.join(", ")} gives ${showValue(values![0])}; with the other answer it would give ${showValue(values![1])}`;
  return `\n${style.colour.yellow(name)}: ${question}\n  ${known[answers[0]]}\n  ${style.colour.dim(`Or: ${known[answers[1]]}`)}\n  ${shows}\n`;
}

function coverageText({ program, told, untold, assumptions, isCut }: Coverage, style: Style): string {
  const { colour } = style;
  const taken = assumptions.map((assumption) => `  ${assumptionText(assumption)}\n`).join("");
  return [
    `${colour.bold(program.dialect.title)}  ${program.source}\n`,
    ...(taken === "" ? [] : [`\nTaken for granted about the columns:\n${taken}`]),
    `\nThe rows show ${told} of ${told + untold.length} questions whose answers decide here.\n`,
    ...(untold.length > 0 ? [`What they do not show, each with the smallest row that would:\n`] : []),
    ...untold.map((each) => untoldText(each, style)),
    ...(isCut ? ["\nThe time was up before all answers were tried: there may be more.\n"] : []),
  ].join("");
}

const asJson = ({ program, told, untold, assumptions, isCut }: Coverage): string => {
  const shown = untold.map(({ values, range, ...rest }) => ({
    ...rest,
    range: [range.start, range.end],
    ...(values && { values: values.map((value) => program.dialect.plain(value)) }),
  }));
  const rows = assumptions.map(({ others, ...rest }) => ({
    ...rest,
    others: others.map(({ row, count }) => ({ row: row + 1, count })),
  }));
  return `${JSON.stringify({ told, untold: shown, assumptions: rows, isCut }, undefined, 1)}\n`;
};
