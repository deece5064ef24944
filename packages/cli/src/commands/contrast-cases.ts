import { type Sample, sampleOf } from "indigo-quill";
import { type Contrast, type Side, agree, contrast } from "indigo-quill/contrast";
import { type CaseBase, type CaseSide, casesOf, dialectFor, isRecord, readBase, readSide } from "../cases.ts";
import { isDialect } from "../input.ts";
import { differenceData } from "../output/difference.ts";
import { styleFor } from "../output/style.ts";
import { type Streams, UsageError, exit } from "../streams.ts";
import { contrastText } from "./contrast.ts";

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

/** Between each two groups of sides that agree, the difference of their first sides. */
function differencesOf(sides: readonly Side[], result: Contrast, sample: Sample) {
  const [{ values, differences }] = result.rows;
  const firsts: number[] = [];
  for (const [side, value] of values.entries()) if (!firsts.some((first) => agree(values[first], value))) firsts.push(side);
  return firsts.flatMap((a, i) =>
    firsts.slice(i + 1).map((b) => {
      const known = a === 0 ? differences.find(({ side }) => side === b) : undefined;
      const difference = known ?? contrast([sides[a], sides[b]], sample).rows[0].differences[0];
      return { sides: [a, b], ...differenceData(difference) };
    }),
  );
}

/** A case contrasted. A fault of ours costs that case alone: it is told, and the others are still contrasted. */
function outcomeOf(sides: readonly Side[], sample: Sample) {
  try {
    const result = contrast(sides, sample);
    return { result, differences: differencesOf(sides, result, sample) };
  } catch (error) {
    return { fault: `a fault of Indigo Quill: ${String(error)}` };
  }
}

/** Contrasts the cases of files: a JSON line each and a summary, or those that differ in words. */
export async function contrastCases(files: readonly string[], options: { json?: boolean }, streams: Streams): Promise<number> {
  let [compared, differ, explained] = [0, 0, 0];
  const style = styleFor(streams);
  for (const file of files) {
    for await (const { given, where, folder } of casesOf(file, streams)) {
      const { id, sides: read, row, types } = readCase(given, where, folder);
      const sides: Side[] = [];
      for (const side of read) sides.push({ dialect: await dialectFor(side), expression: side.expression });
      const sample = { ...sampleOf([row], types), rows: 1 };
      compared++;
      const found = outcomeOf(sides, sample);
      if ("fault" in found) {
        streams.stdout.write(options.json ? `${JSON.stringify({ id, ...found })}\n` : `${id}\n${found.fault}\n`);
        continue;
      }
      const { result, differences } = found;
      const values = result.rows[0].values.map((value, i) => result.programs[i].dialect.plain(value));
      if (differences.length > 0) differ++;
      if (differences.length > 0 && differences.every(({ causes, another }) => causes.length > 0 || another !== undefined))
        explained++;
      const line = { id, values, agree: differences.length === 0, differences };
      if (options.json) streams.stdout.write(`${JSON.stringify(line)}\n`);
      else if (!line.agree) streams.stdout.write(`${id}\n${contrastText(result, sample, true, style)}\n`);
    }
  }
  const summary = { compared, differ, explained };
  streams.stdout.write(
    options.json ? `${JSON.stringify(summary)}\n` : `${compared} compared, ${differ} differ, ${explained} of them with a cause\n`,
  );
  return differ === 0 ? exit.ok : exit.some;
}
