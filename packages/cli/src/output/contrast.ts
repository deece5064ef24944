import type { Sample } from "indigo-quill";
import {
  type Contrast,
  type ContrastRow,
  type ExplainedParting,
  type RowDifference,
  type Switch,
  apartOn,
  explainEffect,
  explainFailure,
  explainParting,
  switches,
  titlesOf,
} from "indigo-quill/contrast";
import { marked } from "./marks.ts";
import { type Style, cellText } from "./style.ts";
import { table, wrapped } from "./table.ts";

/** What of a contrast is shown: its rows also where they agree, and what counts as no difference. */
export interface Shown {
  readonly all?: boolean;
  readonly agreement?: readonly Switch[];
}

/** How many rows differ, why, and then the rows that do, side by side. */
export function contrastText(result: Contrast, sample: Sample, shown: Shown, style: Style): string {
  const { programs, rows, unknown, nearly } = result;
  const titles = titlesOf(programs);
  const { colour } = style;
  const wide = Math.max(12, ...titles.map(({ length }) => length));
  const expressions = programs.map(({ source }, i) => `${colour.bold(titles[i].padEnd(wide))} ${source}\n`).join("");
  const differing = rows.filter((row) => !row.agree).length;
  const taken = (shown.agreement ?? []).map((name) => switches[name]);
  const counted = `\n${differing} of ${sample.rows} rows differ${taken.length > 0 ? `, taking that ${taken.join("; ")}` : ""}.\n`;
  const aside = unknown.map(({ side, rows: own, failure }) => {
    const told = `What ${titles[side]} gives is not known on ${rowsNamed(own)}: ${explainFailure(failure)}`;
    return `${wrapped(told, style.width ?? Infinity, "", "  ")}\n`;
  });
  const near = Object.entries(nearly).map(
    ([name, count]) => `${count} of them would agree if ${switches[name as Switch]} (--agree ${name}).\n`,
  );
  const told = rows.some((row) => !row.agree || shown.all) ? `\n${rowsText(result, titles, shown.all === true, style)}` : "";
  return `${expressions}${counted}${aside.join("")}${near.join("")}${groupsText(result, titles, style)}${causesText(result, titles, style)}${told}`;
}

/** The cells of a row, each with what marks where it differs from the others. */
function cellsOf(row: ContrastRow, { programs }: Contrast, style: Style): { cell: string; carets: string }[] {
  return apartOn(row).map((apart, side) => {
    const value = row.values[side];
    if (apart && typeof value === "string") return marked(value, apart);
    return { cell: cellText(value, programs[side].dialect, style), carets: "" };
  });
}

/** The rows that differ, or all, with the values side by side and marks under what differs. */
function rowsText(result: Contrast, titles: readonly string[], isAll: boolean, style: Style): string {
  const lines = result.rows
    .filter((row) => isAll || !row.agree)
    .flatMap((row) => {
      const cells = cellsOf(row, result, style);
      const line = [row.agree ? " " : style.colour.yellow("≠"), String(row.row + 1), ...cells.map(({ cell }) => cell)];
      const carets = ["", "", ...cells.map(({ carets: own }) => style.colour.yellow(own))];
      return cells.some(({ carets: own }) => own !== "") ? [line, carets] : [line];
    });
  return table([" ", "row", ...titles], lines, style, [1]);
}

/** The first of some rows, counted from 1. */
const rowNumbers = (rows: readonly number[]): string =>
  rows
    .slice(0, 12)
    .map((row) => row + 1)
    .join(", ") + (rows.length > 12 ? ", …" : "");

const rowsNamed = (rows: readonly number[]): string =>
  rows.length > 1 ? `${rows.length} rows (${rowNumbers(rows)})` : `row ${rowNumbers(rows)}`;

/** Which of several sides go together, and on which rows. */
function groupsText({ rows, programs }: Contrast, titles: readonly string[], style: Style): string {
  if (programs.length < 3) return "";
  const found = new Map<string, number[]>();
  for (const { row, groups, agree } of rows) {
    if (agree) continue;
    const key = groups.map((group) => group.map((side) => titles[side]).join(", ")).join(" | ");
    const own = found.get(key);
    if (own) own.push(row);
    else found.set(key, [row]);
  }
  const lines = [...found].sort(([, a], [, b]) => b.length - a.length);
  if (lines.length === 0) return "";
  return `\n${table(
    ["rows", "which of them agree"],
    lines.map(([key, own]) => [style.colour.yellow(rowNumbers(own)), key]),
    style,
  )}`;
}

const unexplained = "No set of up to three traits explains it.";
const noStep = "No step got the same on both sides and makes up the difference by what it gave.";
const unsought = "No cause was looked for here: the time for that was up.";

/** Each smallest set of traits with its answers, and what parts with it. */
function reasonsText({ does, causes, tried, further = [] }: ExplainedParting, style: Style): string {
  const reasons = causes.map((cause) =>
    cause.map(({ question, sides }) => `${question}\n    ${sides.join("\n    ")}`).join("\n  and "),
  );
  const told = (reasons.length > 0 ? reasons : [unexplained])
    .map((reason) => `  ${style.colour.cyan("Why:")} ${reason}\n`)
    .join("");
  const together = further.map((other) => `  and ${other.happened}\n${reasonsText(other, style)}`).join("");
  return `${does === "" ? "" : `  ${does}\n`}${told}${tried === undefined ? "" : `  ${tried}\n`}${together}`;
}

/** What happened on a row, why, and where the results differ first. */
export function differenceText(difference: RowDifference, titles: readonly string[], lead: string, style: Style): string {
  const { sides, parting, another, isUnsought, effect } = difference;
  const pair: [string, string] = [titles[sides[0]], titles[sides[1]]];
  const told = (sentence: string) => `${wrapped(lead + sentence, style.width ?? Infinity, "  ", "  ")}\n`;
  const seen = `  ${explainEffect(effect, pair)}\n`;
  if (another !== undefined) return `${told(`${another}.`)}${seen}`;
  if (!parting) return `${told(isUnsought ? unsought : noStep)}${seen}`;
  const explained = explainParting(parting, pair);
  return `${told(explained.happened)}${reasonsText(explained, style)}${seen}`;
}

/** The rows of each cause, what happened on the first of them, and why. */
function causesText(result: Contrast, titles: readonly string[], style: Style): string {
  return result.groups
    .map(({ rows, difference }) => {
      const between = titles.length > 2 ? `${difference.sides.map((side) => titles[side]).join(" and ")}: ` : "";
      const lead = rows.length > 1 ? `Row ${rows[0] + 1}: ` : "";
      return `\n${style.colour.yellow(`${between}${rowsNamed(rows)}`)}\n${differenceText(difference, titles, lead, style)}`;
    })
    .join("");
}
