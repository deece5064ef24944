import { dirname, resolve } from "node:path";
import { decode, parseLines } from "@indigo-quill/data";
import { type DeclaredType, type Dialect, type Value, declaredTypes } from "indigo-quill";
import { demoFile, dialectWith, isDefinition, readBytes } from "./input.ts";
import { type Streams, UsageError } from "./streams.ts";

/** An expression of a dialect with options of that, as cases have it. */
export interface CaseSide {
  readonly dialect: string;
  readonly expression: string;
  readonly options: Readonly<Record<string, string>>;
}

/** What cases of all kinds have. */
export interface CaseBase {
  readonly id: string;
  readonly row: Readonly<Record<string, Value>>;
  readonly types: Readonly<Record<string, DeclaredType>>;
}

export function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** The side of a case; a dialect that a file defines is named from where the cases lie. */
export function readSide(
  { dialect, expression, options = {} }: Record<string, unknown>,
  where: string,
  folder: string,
): CaseSide {
  for (const [name, field] of Object.entries({ dialect, expression }))
    if (typeof field !== "string") throw new UsageError(`${where}: "${name}" must be a text`);
  if (!isRecord(options)) throw new UsageError(`${where}: "options" must be an object`);
  const id = dialect as string;
  return {
    dialect: isDefinition(id) ? resolve(folder, id) : id,
    expression: expression as string,
    options: options as CaseSide["options"],
  };
}

export function readBase({ id, row = {}, types = {} }: Record<string, unknown>, where: string): CaseBase {
  if (!isRecord(row) || !isRecord(types)) throw new UsageError(`${where}: "row" and "types" must be objects`);
  for (const [column, type] of Object.entries(types))
    if (!declaredTypes.includes(type as DeclaredType))
      throw new UsageError(
        `${where}: the type of "${column}" must be one of ${declaredTypes.join(", ")}, not ${JSON.stringify(type)}`,
      );
  return { id: String(id ?? where), row: row as CaseBase["row"], types: types as CaseBase["types"] };
}

/** The cases of a file, one JSON object a line, each with where it stands and the folder of the file. */
export async function* casesOf(
  file: string,
  streams: Streams,
): AsyncGenerator<{ given: Record<string, unknown>; where: string; folder: string }> {
  const text = file === "demo" ? await demoFile("cases.ndjson") : decode(await readBytes(file, streams));
  for (const { value, line } of parseLines(text)) {
    const where = `${file}, line ${line}`;
    if (!isRecord(value)) throw new UsageError(`${where}: a case is an object`);
    yield { given: value, where, folder: dirname(file) };
  }
}

const made = new Map<string, Dialect>();

/** The dialect of a side, made once for the same options. */
export async function dialectFor({ dialect, options }: CaseSide): Promise<Dialect> {
  const key = JSON.stringify([dialect, options]);
  const found = made.get(key) ?? (await dialectWith(dialect, options));
  made.set(key, found);
  return found;
}
