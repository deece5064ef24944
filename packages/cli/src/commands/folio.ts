import { dirname, resolve } from "node:path";
import { decode, readTable } from "@indigo-quill/data";
import type { Dialect, Sample } from "indigo-quill";
import {
  type Folio,
  checkClaims,
  folioSchema,
  inlined,
  listFiles,
  planColumns,
  planStatement,
  readFolio,
} from "indigo-quill/folio";
import { KindReader } from "indigo-quill/survey";
import { LineCounter, parseDocument } from "yaml";
import { demoFile, dialectWith, readBytes, readPieces, readSample } from "../input.ts";
import { cellText, styleFor } from "../output/style.ts";
import { type Guarded, UsageError, exit } from "../streams.ts";
import { emptied } from "./list.ts";
import { type OutputOptions, apply, reported } from "./apply.ts";

export interface FolioOptions extends OutputOptions {
  readonly check?: boolean;
  readonly print?: string;
  readonly table: string;
}

/** Runs a folio on its sample or on files of that shape, checks its claims, or prints its statement. */
export async function runFolio(path: string, files: readonly string[], options: FolioOptions, streams: Guarded): Promise<number> {
  const folio = await openFolio(path, streams);
  const dialect = await dialectWith(folio.dialect, folio.options);
  if (options.check) return check(dialect, folio, streams);
  if (options.print !== undefined && options.print !== dialect.id)
    throw new UsageError(
      `${path}: its expressions are ${dialect.id}, and are not carried to ${options.print}; --print ${dialect.id} prints them`,
    );
  const sources = files.length > 0 ? files : folio.sample === undefined ? [] : [besideFolio(path, folio.sample)];
  if (sources.length === 0) throw new UsageError(`${path}: it names no sample; give a file of rows`);
  const kinds = new KindReader(folio.kinds);
  const pieces = piecesOf(sources, kinds, streams);
  const columns = () => folio.columns;
  if (options.print === undefined)
    return apply(
      { dialect, pieces, kinds, columns, plan: folio.plan, options: dialect.chosen, isRagged: false },
      options,
      streams,
    );
  const { value: first } = (await pieces.next()) as { value: Sample };
  const plan = planColumns(dialect, folio.columns, first, folio.plan);
  if (!reported(plan, streams)) return exit.failed;
  try {
    streams.stdout.write(`${planStatement(plan, options.table, first)}\n`);
    return exit.ok;
  } catch (error) {
    throw error instanceof RangeError ? new UsageError(`${path}: ${error.message}`) : error;
  }
}

/** Prints columns of a folio as one expression each, proven to give the same. */
export async function inlineCommand(path: string, names: readonly string[], streams: Guarded): Promise<number> {
  const folio = await openFolio(path, streams);
  const dialect = await dialectWith(folio.dialect, folio.options);
  if (folio.sample === undefined) throw new UsageError(`${path}: it names no sample, on which the expressions are proven`);
  const { value: sample } = (await piecesOf([besideFolio(path, folio.sample)], new KindReader(folio.kinds), streams).next()) as {
    value: Sample;
  };
  const plan = planColumns(dialect, folio.columns, sample, folio.plan);
  if (!reported(plan, streams)) return exit.failed;
  const unknown = names.find((name) => !plan.calculated.has(name));
  if (unknown !== undefined)
    throw new UsageError(`${path}: there is no calculated column "${unknown}"; there are ${[...plan.calculated].join(", ")}`);
  const wanted = names.length > 0 ? names : folio.columns.flatMap((column) => (column.isHelper ? [] : column.names));
  const results = wanted.map((name) => inlined(plan, name, sample));
  for (const result of results) {
    if ("expression" in result) {
      streams.stdout.write(`${wanted.length > 1 ? `${result.name} = ` : ""}${result.expression}\n`);
      if (result.emptyForNothing) streams.stderr.write(`${result.name}: ${emptied}`);
    } else streams.stderr.write(`${result.name}: ${result.refused}\n`);
  }
  return results.every((result) => "expression" in result) ? exit.ok : exit.some;
}

/** Prints the JSON Schema of folios. */
export function printSchema(streams: Guarded): number {
  streams.data.write(`${JSON.stringify(folioSchema, undefined, 2)}\n`);
  return exit.ok;
}

const besideFolio = (path: string, sample: string): string =>
  sample === "demo" || path === "demo" ? sample : resolve(dirname(path), sample);

async function openFolio(path: string, streams: Guarded): Promise<Folio> {
  const text = path === "demo" ? await demoFile("folio.yaml") : decode(await readBytes(path, streams));
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines, prettyErrors: false });
  const at = (offset: number) => `${path}, line ${lines.linePos(offset).line}`;
  if (document.errors.length > 0)
    throw new UsageError(
      document.errors.map(({ message, pos }) => `${at(pos[0])}: this is neither YAML nor JSON: ${message}`).join("\n"),
    );
  const data: unknown = document.toJS({ maxAliasCount: 100 });
  const files = new Map<string, Sample>();
  for (const file of listFiles(data))
    files.set(
      file,
      path === "demo"
        ? readTable(Buffer.from(await demoFile(file))).sample
        : await readSample(besideFolio(path, file), { text: true }, streams),
    );
  const { folio, problems } = readFolio(data, files);
  if (folio) return folio;
  const placed = problems.map(({ path: keys, message }) => {
    const node = document.getIn(keys, true) as { range?: [number, number, number] } | undefined;
    return `${node?.range ? at(node.range[0]) : path}: ${message}`;
  });
  throw new UsageError(placed.join("\n"));
}

/** The rows of several files as those of one; each has the columns of the first. */
async function* piecesOf(files: readonly string[], kinds: KindReader, streams: Guarded): AsyncGenerator<Sample> {
  let names: readonly string[] | undefined;
  for (const file of files)
    for await (const piece of readPieces(file, {}, streams, kinds)) {
      const own = piece.columns.map(({ name }) => name);
      names ??= own;
      const missing = names.find((name, i) => name !== own[i]) ?? (own.length > names.length ? own[names.length] : undefined);
      if (missing !== undefined)
        throw new UsageError(
          `${file}: its columns are not those of ${files[0]}: ${own.join(", ")} here, ${names.join(", ")} there`,
        );
      yield piece;
    }
}

function check(dialect: Dialect, folio: Folio, streams: Guarded): number {
  const style = styleFor(streams);
  const results = checkClaims(dialect, folio);
  for (const { claim, holds, got } of results) {
    if (holds) continue;
    const shown = got === undefined ? "no such column, or it does not fit the row" : cellText(got, dialect, style);
    const wanted =
      "value" in claim.expect
        ? JSON.stringify(claim.expect.value)
        : `error${claim.expect.error === true ? "" : ` ${claim.expect.error}`}`;
    streams.stdout.write(
      `✗ ${claim.id}  ${claim.column}\n  row      ${JSON.stringify(claim.row)}\n  expected ${wanted}\n  got      ${shown}\n`,
    );
  }
  const failed = results.filter(({ holds }) => !holds).length;
  streams.stdout.write(`${results.length - failed} passed, ${failed} failed\n`);
  return failed === 0 ? exit.ok : exit.some;
}
