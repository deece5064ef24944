import type { ReadOptions } from "@indigo-quill/data";
import type { Program, Sample } from "indigo-quill";
import { message } from "indigo-quill";
import { type Contrast, type ExplainedParting, contrast, explainEffect, explainParting, paste } from "indigo-quill/contrast";
import type { Dialect } from "indigo-quill/dialects";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { dialectOf, readSample } from "../input.ts";
import { report } from "../output/diagnostics.ts";
import { differenceData } from "../output/difference.ts";
import { type Style, cellText, styleFor } from "../output/style.ts";
import { table, wrapped } from "../output/table.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface ContrastOptions extends ReadOptions {
  readonly rows?: string;
  readonly pasted?: string;
  readonly differing?: boolean;
  readonly json?: boolean;
  readonly spaces?: boolean;
}

/** Evaluates expressions of several dialects over the same rows, and says where and why they differ. */
export async function contrastCommand(sides: readonly string[], options: ContrastOptions, streams: Streams): Promise<number> {
  if (options.rows === undefined) throw new UsageError("give the rows with --rows FILE, or cases with --cases FILE");
  const sample = await readSample(options.rows, options, streams);
  const result =
    options.pasted === undefined ? await contrastSides(sides, sample) : await pasteText(options.pasted, sample, streams);
  if (!result) return exit.failed;
  if (!result.programs.map((program) => report(program, streams)).every(Boolean)) return exit.failed;
  const style = styleFor(streams, options.spaces);
  streams.stdout.write(options.json ? asNdjson(result) : contrastText(result, sample, options.differing === true, style));
  return result.groups.length === 0 ? exit.ok : exit.some;
}

async function contrastSides(sides: readonly string[], sample: Sample): Promise<Contrast> {
  if (sides.length < 2) throw new UsageError("give at least two expressions, each as dialect=expression, or one with --pasted");
  const read = sides.map(async (side) => {
    const found = /^([\w-]+|[^=[\]]+\.json)(?:\[([^\]]*)\])?=([^]*)$/.exec(side);
    if (!found) throw new UsageError(`"${side}" is not dialect=expression, for example postgresql='left(taxon, 3)'`);
    const [, id, settings, expression] = found;
    return { dialect: await dialectOf(id, settings?.split(",") ?? []), expression };
  });
  return contrast(await Promise.all(read), sample);
}

async function pasteText(expression: string, sample: Sample, streams: Streams): Promise<Contrast | undefined> {
  const result = paste(expression, await Promise.all(Object.keys(dialectLoaders).map((id) => dialectOf(id))), sample);
  for (const { dialect, refused } of result.pasted) {
    streams.stderr.write(
      refused.length === 0 ? `${dialect.title} accepts it\n` : `${dialect.title} does not: ${message(refused[0])}\n`,
    );
  }
  if (!result.contrast) streams.stderr.write("fewer than two dialects accept this text, so there is nothing to contrast\n");
  return result.contrast;
}

/** The title of a dialect, with its options that are not the usual ones. */
function titleOf({ title, options, chosen }: Dialect): string {
  const own = options.filter((option) => chosen[option.name] !== option.default).map(({ name }) => chosen[name]);
  return own.length > 0 ? `${title} ${own.join(" ")}` : title;
}

/** A title for each side; one that stands there twice is numbered. */
export function titlesOf(programs: readonly Program[]): string[] {
  const titles = programs.map((program) => titleOf(program.dialect));
  return titles.map((title, i) =>
    titles.filter((t) => t === title).length > 1 ? `${title} ${titles.slice(0, i + 1).filter((t) => t === title).length}` : title,
  );
}

/** The values side by side, differing rows marked, and then the causes. */
export function contrastText(result: Contrast, sample: Sample, onlyDiffering: boolean, style: Style): string {
  const titles = titlesOf(result.programs);
  const { colour } = style;
  const expressions = result.programs.map((program, i) => `${colour.bold(titles[i].padEnd(12))} ${program.source}\n`).join("");
  const rows = result.rows
    .filter((row) => !onlyDiffering || !row.agree)
    .map((row) => [
      row.agree ? " " : colour.yellow("≠"),
      String(row.row + 1),
      ...row.values.map((value, i) => cellText(value, result.programs[i].dialect, style)),
    ]);
  const differing = result.rows.filter((row) => !row.agree).length;
  const counted = `\n${differing} of ${sample.rows} rows differ.\n`;
  return `${expressions}\n${table([" ", "row", ...titles], rows, style, [1])}${counted}${causesText(result, titles, style)}`;
}

const unexplained = "no set of up to three traits explains it.";
const noStep = "No step got the same on both sides and makes up the difference by what it gave.";

/** Each smallest set of traits with its answers, and what parts with it. */
function reasonsText({ causes, oneWay, further = [] }: ExplainedParting, style: Style): string {
  const reasons = causes.map((cause) =>
    cause.map(({ question, sides }) => `${question}\n    ${sides.join("\n    ")}`).join("\n  and "),
  );
  const told = (reasons.length > 0 ? reasons : [unexplained])
    .map((reason) => `  ${style.colour.cyan("Why:")} ${reason}\n`)
    .join("");
  const together = further.map((other) => `  and ${other.place}\n${reasonsText(other, style)}`).join("");
  return `${told}${oneWay ? `  ${oneWay}\n` : ""}${together}`;
}

function causesText(result: Contrast, titles: readonly string[], style: Style): string {
  const { colour, width } = style;
  return result.groups
    .map(({ side, parting, another, effect, rows }) => {
      const numbers =
        rows
          .slice(0, 12)
          .map((row) => row + 1)
          .join(", ") + (rows.length > 12 ? ", …" : "");
      const pair: [string, string] = [titles[0], titles[side]];
      const head = `\n${colour.yellow(`Row${rows.length > 1 ? "s" : ""} ${numbers}`)}  `;
      const told = (text: string) => `${wrapped(text, width ?? Infinity, head, "  ")}\n`;
      const seen = `  ${explainEffect(effect, pair)}\n`;
      if (another !== undefined) return `${told(`${another}.`)}${seen}`;
      if (!parting) return `${told(noStep)}${seen}`;
      const explained = explainParting(parting, pair);
      return `${told(explained.place)}  ${explained.outputs}\n${reasonsText(explained, style)}${seen}`;
    })
    .join("");
}

/** One line for each row, then one for each cause. */
function asNdjson(result: Contrast): string {
  const plain = (values: Contrast["rows"][number]["values"]) => values.map((value, i) => result.programs[i].dialect.plain(value));
  const rows = result.rows.map(({ row, values, agree }) => ({ row: row + 1, values: plain(values), agree }));
  const causes = result.groups.map((group) => ({
    side: group.side,
    rows: group.rows.map((row) => row + 1),
    ...differenceData(group),
  }));
  return [...rows, ...causes].map((line) => `${JSON.stringify(line)}\n`).join("");
}
