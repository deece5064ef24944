import type { ReadOptions } from "@indigo-quill/data";
import type { Sample } from "indigo-quill";
import { message } from "indigo-quill";
import { type Contrast, type Side, type Switch, agreements, contrast, paste, switches } from "indigo-quill/contrast";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { dialectOf, dialectWith, readSample } from "../input.ts";
import { contrastText } from "../output/contrast.ts";
import { report } from "../output/diagnostics.ts";
import { differenceData } from "../output/difference.ts";
import { styleFor } from "../output/style.ts";
import { type Streams, UsageError, exit } from "../streams.ts";

export interface ContrastOptions extends ReadOptions {
  readonly rows?: string;
  readonly pasted?: string;
  readonly all?: boolean;
  readonly agree?: string;
  readonly versions?: boolean;
  readonly json?: boolean;
  readonly spaces?: boolean;
}

/** Evaluates expressions of several dialects over the same rows, and says where and why they differ. */
export async function contrastCommand(sides: readonly string[], options: ContrastOptions, streams: Streams): Promise<number> {
  if (options.rows === undefined) throw new UsageError("give the rows with --rows FILE, or cases with --cases FILE");
  const sample = await readSample(options.rows, options, streams);
  const agreement = agreementOf(options.agree ?? "strict");
  const result =
    options.pasted === undefined
      ? contrast(await (options.versions ? versionsOf(sides) : sidesOf(sides)), sample, { agreement })
      : await pasteText(options.pasted, sample, agreement, streams);
  if (!result) return exit.failed;
  const running = result.programs.map((program) => report(program, streams));
  // The sides that can run are contrasted all the same.
  if (running.filter(Boolean).length < 2) return exit.failed;
  const style = styleFor(streams, options.spaces);
  const shown = { all: options.all === true, agreement };
  streams.stdout.write(options.json ? asNdjson(result) : contrastText(result, sample, shown, style));
  if (!running.every(Boolean)) return exit.failed;
  return result.groups.length + result.unknown.length === 0 ? exit.ok : exit.some;
}

/** Sides as they are written: dialect=expression, or dialect[option=value]=expression. */
export async function sidesOf(sides: readonly string[]): Promise<Side[]> {
  if (sides.length < 2) throw new UsageError("give at least two expressions, each as dialect=expression, or one with --pasted");
  return Promise.all(sides.map(sideOf));
}

/** An expression in every version of its dialect that is known. */
async function versionsOf(sides: readonly string[]): Promise<Side[]> {
  if (sides.length !== 1) throw new UsageError("give one expression with --versions, as dialect=expression");
  const { dialect, expression } = await sideOf(sides[0]);
  const versions = dialect.options.find(({ name }) => name === "version")?.values;
  if (!versions) throw new UsageError(`${dialect.title} is known in one version, ${dialect.source}`);
  const made = versions.map((version) => dialectWith(dialect.id, { ...dialect.chosen, version }));
  return (await Promise.all(made)).map((each) => ({ dialect: each, expression }));
}

/** One side as it is written. */
export async function sideOf(side: string): Promise<Side> {
  const found = /^([\w-]+|[^=[\]]+\.json)(?:\[([^\]]*)\])?=([^]*)$/.exec(side);
  if (!found) throw new UsageError(`"${side}" is not dialect=expression, for example postgresql='left(taxon, 3)'`);
  const [, id, settings, expression] = found;
  return { dialect: await dialectOf(id, settings?.split(",") ?? []), expression };
}

/** The switches of an agreement: the name of a set of them, or some between commas. */
export function agreementOf(text: string): readonly Switch[] {
  if (Object.hasOwn(agreements, text)) return agreements[text as keyof typeof agreements];
  return text.split(",").map((name) => {
    if (Object.hasOwn(switches, name)) return name as Switch;
    throw new UsageError(
      `there is no "${name}" in --agree; it takes ${Object.keys(agreements).join(", ")}, or some of ${Object.keys(switches).join(", ")} between commas`,
    );
  });
}

async function pasteText(
  expression: string,
  sample: Sample,
  agreement: readonly Switch[],
  streams: Streams,
): Promise<Contrast | undefined> {
  const result = paste(expression, await Promise.all(Object.keys(dialectLoaders).map((id) => dialectOf(id))), sample, {
    agreement,
  });
  for (const { dialect, refused } of result.pasted) {
    streams.stderr.write(
      refused.length === 0 ? `${dialect.title} accepts it\n` : `${dialect.title} does not: ${message(refused[0])}\n`,
    );
  }
  if (!result.contrast) streams.stderr.write("fewer than two dialects accept this text, so there is nothing to contrast\n");
  return result.contrast;
}

/** One line for each row, then one for each cause. */
function asNdjson(result: Contrast): string {
  const plain = (values: Contrast["rows"][number]["values"]) => values.map((value, i) => result.programs[i].dialect.plain(value));
  const rows = result.rows.map(({ row, values, agree, groups }) => ({ row: row + 1, values: plain(values), agree, groups }));
  const causes = result.groups.map(({ rows: own, difference }) => ({
    rows: own.map((row) => row + 1),
    ...differenceData(difference),
  }));
  return [...rows, ...causes].map((line) => `${JSON.stringify(line)}\n`).join("");
}
