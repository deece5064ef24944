import { readJson } from "@indigo-quill/data";
import { contrast } from "indigo-quill/contrast";
import { demoFile, dialectOf } from "../input.ts";
import { cellText, styleFor } from "../output/style.ts";
import { table } from "../output/table.ts";
import { traceText } from "../output/trace.ts";
import { type Streams, UsageError, exit } from "../streams.ts";
import { contrastText } from "../output/contrast.ts";

interface DemoColumn {
  readonly name: string;
  readonly job: string;
  readonly openformula?: string;
  readonly postgresql?: string;
  readonly xpath?: string;
}

/** Shows the register and one of its calculated columns in every dialect that has it. */
export async function demo(name: string | undefined, options: { list?: boolean }, streams: Streams): Promise<number> {
  const { sample } = readJson(await demoFile("register.json"));
  const columns = JSON.parse(await demoFile("columns.json")) as DemoColumn[];
  const style = styleFor(streams);
  if (options.list) {
    streams.stdout.write(
      table(
        ["column", "what it is for"],
        columns.map((column) => [column.name, column.job]),
        style,
      ),
    );
    return exit.ok;
  }
  const column = columns.find((candidate) => candidate.name === (name ?? "surname"));
  if (!column) throw new UsageError(`the demo has no column "${name}"; "iquill demo --list" lists them`);
  const plain = await dialectOf("xpath");
  const shown = ["accession", "taxon", "collector", "shelf", "collected"];
  const register = sample.columns.filter((c) => shown.includes(c.name));
  const rows = Array.from({ length: 8 }, (_, row) =>
    register.map(({ values }) => cellText(values[row], plain, { ...style, spaces: true })),
  );
  const ids = (["openformula", "postgresql", "xpath"] as const).filter((id) => column[id] !== undefined);
  const sides = await Promise.all(ids.map(async (id) => ({ dialect: await dialectOf(id), expression: column[id]! })));
  const result = contrast(sides, sample);
  const differing = result.rows.find((row) => !row.agree)?.row ?? 0;
  streams.stdout.write(
    [
      `A made-up herbarium register: ${sample.rows} specimens, the first 8 of them here.\n\n${table(
        register.map((c) => c.name),
        rows,
        style,
      )}`,
      `One calculated column, "${column.name}", in ${sides.length} dialects. ${column.job}\n\n${contrastText(result, sample, {}, style)}`,
      `How row ${differing + 1} comes about in ${result.programs[0].dialect.title}:\n\n${traceText(result.programs[0], sample, differing, style)}`,
      `Next: iquill demo --list  ·  iquill demo "proper collector"  ·  iquill eval --help\n`,
    ].join("\n"),
  );
  return exit.ok;
}
