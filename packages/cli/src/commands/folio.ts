import { dirname, resolve } from "node:path";
import { decode, readTable } from "@indigo-quill/data";
import type { Dialect, Sample } from "indigo-quill";
import {
  type Folio,
  type FolioEdit,
  checkClaims,
  folioSchema,
  inlined,
  listFiles,
  needsOf,
  planColumns,
  planStatement,
  readFolio,
  renamings,
  withSnippets,
} from "indigo-quill/folio";
import { nameTroubles } from "indigo-quill/authoring";
import { KindReader } from "indigo-quill/survey";
import { type Document, LineCounter, isMap, isScalar, parseDocument } from "yaml";
import { type RowOptions, demoFile, dialectWith, readBytes, readFiles, readSample, said } from "../input.ts";
import { counted } from "../output/counted.ts";
import { writeWhole } from "../output/file.ts";
import { cellText, styleFor } from "../output/style.ts";
import { table } from "../output/table.ts";
import { sayIdle } from "../output/tally.ts";
import { type Guarded, UsageError, exit } from "../streams.ts";
import { emptied } from "./list.ts";
import { type OutputOptions, apply, reported } from "./apply.ts";

export interface FolioOptions extends OutputOptions, Omit<RowOptions, "format" | "types" | "text"> {
  readonly check?: boolean;
  readonly print?: string;
  readonly table: string;
}

/** Runs a folio on its sample or on files of that shape, checks its claims, or prints its statement. */
export async function runFolio(path: string, files: readonly string[], options: FolioOptions, streams: Guarded): Promise<number> {
  const { folio, dialect } = await openFolio(path, streams);
  if (options.check) return check(dialect, folio, streams);
  if (options.print !== undefined && options.print !== dialect.id)
    throw new UsageError(
      `${path}: its expressions are ${dialect.id}, and are not carried to ${options.print}; --print ${dialect.id} prints them`,
    );
  const sources = files.length > 0 ? files : folio.sample === undefined ? [] : [besideFolio(path, folio.sample)];
  if (sources.length === 0) throw new UsageError(`${path}: it names no sample; give a file of rows`);
  const kinds = new KindReader(folio.kinds);
  const { encoding, separator, missing, ragged } = options;
  const pieces = readFiles(sources, { ...said({ encoding, separator, missing }), ...(ragged && { ragged }) }, streams, kinds);
  const columns = () => folio.columns;
  if (options.print === undefined)
    return apply(
      {
        dialect,
        pieces,
        kinds,
        columns,
        plan: folio.plan,
        options: dialect.chosen,
        reading: said({ encoding, separator, missing }),
        isRagged: ragged === true,
      },
      options,
      streams,
    );
  const { value: first } = (await pieces.next()) as { value: Sample };
  const plan = planColumns(dialect, folio.columns, first, folio.plan);
  if (!reported(plan, streams)) return exit.failed;
  try {
    streams.stdout.write(`${planStatement(plan, options.table, first)}\n`);
    for (const trouble of nameTroubles(dialect, plan.names)) streams.stderr.write(`${trouble}\n`);
    return exit.ok;
  } catch (error) {
    throw error instanceof RangeError ? new UsageError(`${path}: ${error.message}`) : error;
  }
}

/** Columns of a folio planned over its sample; nothing where they cannot run, which is told. */
async function planned(path: string, why: string, streams: Guarded) {
  const { folio, dialect } = await openFolio(path, streams);
  if (folio.sample === undefined) throw new UsageError(`${path}: it names no sample, ${why}`);
  const pieces = readFiles([besideFolio(path, folio.sample)], {}, streams, new KindReader(folio.kinds));
  const { value: sample } = (await pieces.next()) as { value: Sample };
  const plan = planColumns(dialect, folio.columns, sample, folio.plan);
  return reported(plan, streams) ? { folio, plan, sample } : undefined;
}

/** Prints columns of a folio as one expression each, proven to give the same. */
export async function inlineCommand(path: string, names: readonly string[], streams: Guarded): Promise<number> {
  const found = await planned(path, "on which the expressions are proven", streams);
  if (!found) return exit.failed;
  const { folio, plan, sample } = found;
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

/** Says what each column of a folio needs and what needs it, and which cleaned ones nothing uses. */
export async function needsCommand(path: string, streams: Guarded): Promise<number> {
  const found = await planned(path, "whose columns they are", streams);
  if (!found) return exit.failed;
  const { plan, sample } = found;
  const list = (names: readonly string[]) => names.join(", ");
  const rows = needsOf(plan).map(({ name, isCalculated, needs, neededBy }) => [
    name,
    isCalculated ? (plan.given.has(name) ? "replaced" : plan.names.includes(name) ? "new" : "helper") : "given",
    list(needs),
    list(neededBy),
  ]);
  streams.stdout.write(table(["column", "", "needs", "needed by"], rows, styleFor(streams)));
  sayIdle(plan, sample, plan.run(sample), streams);
  return exit.ok;
}

/** A column's old and new name, `old=new`; either may stand in double quotes. */
const renaming = /^(?:"([^"]+)"|([^"=]+))=(?:"([^"]+)"|([^"=]+))$/;

/** Prints a folio, or writes it, in which a column has another name wherever it stands. */
export async function renameCommand(
  path: string,
  names: string,
  { to, over }: { to?: string; over?: string },
  streams: Guarded,
): Promise<number> {
  const match = renaming.exec(names);
  if (!match) throw new UsageError(`names are given as old=new, not "${names}"`);
  if (to !== undefined && over !== undefined) throw new UsageError("--to makes a file, --over replaces one; give one of them");
  const [from, put] = [match[1] ?? match[2], match[3] ?? match[4]];
  const { document, dialect, data, folio } = await openFolio(path, streams);
  const own = folio.columns.flatMap((column) => column.names);
  if (own.includes(put)) throw new UsageError(`${path}: there is a column "${put}" already`);
  let edits: readonly FolioEdit[];
  try {
    edits = renamings(data, dialect, from, put);
  } catch (error) {
    throw error instanceof RangeError ? new UsageError(`${path}: ${error.message}`) : error;
  }
  if (edits.length === 0) throw new UsageError(`${path}: it names no column "${from}"`);
  for (const edit of edits) {
    const last = edit.path.at(-1)!;
    if ("value" in edit) {
      const node = document.getIn(edit.path, true);
      if (isScalar(node)) node.value = edit.value;
    } else {
      const map = document.getIn(edit.path.slice(0, -1), true);
      const pair = isMap(map) ? map.items.find(({ key }) => isScalar(key) && key.value === last) : undefined;
      if (isScalar(pair?.key)) pair.key.value = edit.key;
    }
  }
  const text = document.toString({ lineWidth: 0 });
  const target = over ?? to;
  if (target === undefined) streams.data.write(text);
  else
    await writeWhole(target, over === undefined ? "new" : "over", (output) => {
      output.write(text);
      return Promise.resolve();
    });
  streams.stderr.write(`${from} is ${put} in ${counted(edits.length, "place")}\n`);
  return exit.ok;
}

/** Prints the JSON Schema of folios, or of definitions of dialects. */
export async function printSchema(of: "folio" | "dialect", streams: Guarded): Promise<number> {
  const schema = of === "folio" ? folioSchema : (await import("indigo-quill/dialects/define")).dialectSchema;
  streams.data.write(`${JSON.stringify(schema, undefined, 2)}\n`);
  return exit.ok;
}

const besideFolio = (path: string, sample: string): string =>
  sample === "demo" || path === "demo" ? sample : resolve(dirname(path), sample);

/** A folio with its dialect, its plain data, and the document that it was read from. */
interface Opened {
  readonly folio: Folio;
  readonly dialect: Dialect;
  readonly data: unknown;
  readonly document: Document;
}

async function openFolio(path: string, streams: Guarded): Promise<Opened> {
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
  if (folio) {
    const dialect = await dialectWith(folio.dialect, folio.options);
    try {
      return { folio: withSnippets(dialect, folio), dialect, data, document };
    } catch (error) {
      throw error instanceof RangeError ? new UsageError(`${path}: ${error.message}`) : error;
    }
  }
  const placed = problems.map(({ path: keys, message }) => {
    const node = document.getIn(keys, true) as { range?: [number, number, number] } | undefined;
    return `${node?.range ? at(node.range[0]) : path}: ${message}`;
  });
  throw new UsageError(placed.join("\n"));
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
