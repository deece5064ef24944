import { type Sample, sampleOf } from "indigo-quill";
import { type Side, type Switch, contrast } from "indigo-quill/contrast";
import { type CaseBase, type CaseSide, casesOf, dialectFor, isRecord, readBase, readSide } from "../cases.ts";
import { isDialect } from "../input.ts";
import { differenceData } from "../output/difference.ts";
import { styleFor } from "../output/style.ts";
import { type Streams, UsageError, exit } from "../streams.ts";
import { contrastText } from "../output/contrast.ts";
import { agreementOf } from "./contrast.ts";

/** One case of the contrast contract (docs/contrast.md). */
interface Case extends CaseBase {
  readonly sides: readonly CaseSide[];
}

function readCase(given: Record<string, unknown>, where: string, folder: string): Case {
  const { sides } = given;
  if (!Array.isArray(sides) || sides.length < 2) throw new UsageError(`${where}: "sides" must be a list of at least two`);
  const read = sides.map((side: unknown, i) => {
    if (!isRecord(side)) throw new UsageError(`${where}: side ${i + 1} must be an object with a dialect and an expression`);
    const found = readSide(side, `${where}, side ${i + 1}`, folder);
    if (!isDialect(found.dialect)) throw new UsageError(`${where}, side ${i + 1}: there is no dialect "${found.dialect}"`);
    return found;
  });
  return { ...readBase(given, where), sides: read };
}

/** A case contrasted. A fault of ours costs that case alone: it is told, and the others are still contrasted. */
function outcomeOf(sides: readonly Side[], sample: Sample, agreement: readonly Switch[]) {
  try {
    return contrast(sides, sample, { agreement });
  } catch (error) {
    return { fault: `a fault of Indigo Quill: ${String(error)}` };
  }
}

/** Contrasts the cases of files: a JSON line each and a summary, or those that differ in words. */
export async function contrastCases(
  files: readonly string[],
  options: { json?: boolean; agree?: string },
  streams: Streams,
): Promise<number> {
  let [compared, differ, explained] = [0, 0, 0];
  const style = styleFor(streams);
  for (const file of files) {
    for await (const { given, where, folder } of casesOf(file, streams)) {
      const { id, sides: read, row: cells, types } = readCase(given, where, folder);
      const sides: Side[] = [];
      for (const side of read) sides.push({ dialect: await dialectFor(side), expression: side.expression });
      const sample = { ...sampleOf([cells], types), rows: 1 };
      compared++;
      const agreement = agreementOf(options.agree ?? "strict");
      const found = outcomeOf(sides, sample, agreement);
      if ("fault" in found) {
        streams.stdout.write(options.json ? `${JSON.stringify({ id, ...found })}\n` : `${id}\n${found.fault}\n`);
        continue;
      }
      const [row] = found.rows;
      const values = row.values.map((value, i) => found.programs[i].dialect.plain(value));
      const differences = row.differences.map(differenceData);
      if (differences.length > 0) differ++;
      if (differences.length > 0 && differences.every(({ causes, another }) => causes.length > 0 || another !== undefined))
        explained++;
      const refused = found.programs.flatMap(({ ok }, side) => (ok ? [] : [side]));
      const line = { id, values, agree: row.agree, differences, ...(refused.length > 0 && { refused }) };
      if (options.json) streams.stdout.write(`${JSON.stringify(line)}\n`);
      else if (!line.agree) streams.stdout.write(`${id}\n${contrastText(found, sample, { agreement }, style)}\n`);
    }
  }
  const summary = { compared, differ, explained };
  streams.stdout.write(
    options.json ? `${JSON.stringify(summary)}\n` : `${compared} compared, ${differ} differ, ${explained} of them with a cause\n`,
  );
  return differ === 0 ? exit.ok : exit.some;
}
