import type { ReadOptions } from "@indigo-quill/data";
import { type DeclaredType, declaredTypes } from "indigo-quill";
import { type Hunt, type Quarry, hunt, isUnknown, showValue, titlesOf } from "indigo-quill/contrast";
import { readSample } from "../input.ts";
import { differenceText } from "../output/contrast.ts";
import { report } from "../output/diagnostics.ts";
import { differenceData } from "../output/difference.ts";
import { writeWhole } from "../output/file.ts";
import { type Style, failureText, styleFor } from "../output/style.ts";
import { type Streams, UsageError, exit } from "../streams.ts";
import { agreementOf, sideOf } from "./contrast.ts";

export interface HuntCommandOptions extends ReadOptions {
  readonly rows?: string;
  readonly column?: readonly string[];
  readonly for?: Quarry;
  readonly agree?: string;
  readonly limit: number;
  readonly most: number;
  readonly keep?: string;
  readonly json?: boolean;
}

/** Searches the smallest rows on which two expressions differ, or on which one gives what is hunted for. */
export async function huntCommand(sides: readonly string[], options: HuntCommandOptions, streams: Streams): Promise<number> {
  const quarry = options.for ?? (sides.length > 1 ? "difference" : "error");
  const wanted = quarry === "difference" ? 2 : 1;
  if (sides.length !== wanted)
    throw new UsageError(
      `give ${wanted === 2 ? "two expressions" : "one expression"} to hunt for ${article[quarry]}, as dialect=expression`,
    );
  const read = await Promise.all(sides.map(sideOf));
  const found = hunt(read, {
    quarry,
    columns: Object.fromEntries((options.column ?? []).map(columnOf)),
    agreement: agreementOf(options.agree ?? "strict"),
    milliseconds: options.limit,
    most: options.most,
    ...(options.rows !== undefined && { sample: await readSample(options.rows, options, streams) }),
  });
  if (!found.programs.map((program) => report(program, streams)).every(Boolean)) return exit.failed;
  const style = styleFor(streams);
  streams.stdout.write(options.json ? asNdjson(found) : huntText(found, quarry, style));
  if (options.keep !== undefined) {
    await writeWhole(options.keep, "new", (output) => Promise.resolve(void output.write(casesOf(found))));
    streams.stderr.write(`${options.keep}: the rows as cases of verify, with what Indigo Quill gives\n`);
  }
  return found.caught.length === 0 ? exit.ok : exit.some;
}

/** A column with what it holds. */
function columnOf(setting: string): [string, DeclaredType] {
  const [, name, kind] = /^(.+)=(\w+)$/.exec(setting) ?? [];
  if (name === undefined || !declaredTypes.includes(kind as DeclaredType))
    throw new UsageError(`"${setting}" is not name=kind, the kind being one of ${declaredTypes.join(", ")}`);
  return [name, kind as DeclaredType];
}

const article: Readonly<Record<Quarry, string>> = {
  difference: "a difference",
  error: "an error",
  nothing: "nothing where every column has a value",
  empty: "empty text where no column is empty",
  cut: "a part of a column's text",
};

const headings: Readonly<Record<Quarry, string>> = {
  difference: "The smallest rows on which they differ, one for each cause:",
  error: "The smallest rows on which it gives an error, one for each kind:",
  nothing: "The smallest row on which it gives nothing:",
  empty: "The smallest row on which it gives empty text:",
  cut: "The smallest row on which it gives a part of a text:",
};

function huntText({ programs, caught, reach }: Hunt, quarry: Quarry, style: Style): string {
  const titles = titlesOf(programs);
  const { colour } = style;
  const expressions = programs.map(({ source }, i) => `${colour.bold(titles[i].padEnd(12))} ${source}\n`).join("");
  const rows = caught.map(({ row, values, difference }) => {
    const cells = Object.entries(row).map(([name, value]) => `${name} = ${showValue(value)}`);
    const given = values.map((value, i) =>
      typeof value === "object" && value !== null && "code" in value
        ? `  ${titles[i]}: ${failureText(value)}\n`
        : `  ${titles[i]}: ${showValue(value)}\n`,
    );
    const told = difference ? differenceText(difference, titles, "", style) : "";
    return `\n${colour.yellow(cells.join(", ") || "on every row")}\n${given.join("")}${told}`;
  });
  const found = caught.length > 0 ? `${headings[quarry]}\n${rows.join("")}` : `No row was found for ${article[quarry]}.\n`;
  return `${expressions}\n${found}\n${reachText(reach)}\n`;
}

function reachText({ rows, unknown, isProved, exhausted }: Hunt["reach"]): string {
  if (isProved) return "That is proved: step by step both do the same operation with the same answers, on any text.";
  const all = exhausted
    ? `, and in ${exhausted.column} every text of up to ${exhausted.length} of the characters ${exhausted.letters.map((letter) => JSON.stringify(letter)).join(" ")}`
    : "";
  const aside =
    unknown > 0
      ? ` On ${unknown.toLocaleString("en")} of them a limit was met, or something that is not covered, so that is not known.`
      : "";
  return `Tried: ${rows.toLocaleString("en")} rows, made from what is written in them, the rows that were given and the usual traps${all}.${aside} What was not tried may still differ.`;
}

const asNdjson = ({ programs, caught, reach }: Hunt): string =>
  [
    ...caught.map(({ row, values, difference }) => ({
      row,
      values: values.map((value, i) => programs[i].dialect.plain(value)),
      ...(difference && differenceData(difference)),
    })),
    { found: caught.length, ...reach },
  ]
    .map((line) => `${JSON.stringify(line)}\n`)
    .join("");

/** A case of verify for each side of each row; a value that is not known is left out. */
const casesOf = ({ programs, columns, caught }: Hunt): string =>
  caught
    .flatMap(({ row, values }, number) =>
      programs.flatMap(({ dialect, source }, i) => {
        const value = values[i];
        if (isUnknown(value)) return [];
        const plain = dialect.plain(value);
        const isError = typeof plain === "object" && plain !== null && "error" in plain;
        const expect = isError ? { error: true } : { value: plain };
        const id = `hunted-${number + 1}-${dialect.id}`;
        return [{ id, dialect: dialect.id, options: dialect.chosen, expression: source, row, types: columns, expect }];
      }),
    )
    .map((line) => `${JSON.stringify(line)}\n`)
    .join("");
