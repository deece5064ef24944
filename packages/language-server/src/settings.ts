import { readFile } from "node:fs/promises";
import { readTable } from "@indigo-quill/data";
import { type Dialect, type Sample, sampleOf } from "indigo-quill";
import { dialectLoaders } from "indigo-quill/dialects/load";

/** What the editor says when it starts the server, as `initializationOptions`. */
export interface Settings {
  /** The dialect of documents whose names do not end in one, as `genus.postgresql` does. */
  readonly dialect?: string;
  /** A CSV or JSON file with the rows that expressions are tried on. */
  readonly rows?: string;
}

const noRows = sampleOf([{}]);

/** Reads settings, whatever they are; what is wrong with them is told. */
export function settingsOf(given: unknown): { settings: Settings; problem?: string } {
  const fields = (typeof given === "object" && given !== null ? given : {}) as Record<string, unknown>;
  const { dialect, rows } = fields;
  if (dialect !== undefined && !(typeof dialect === "string" && Object.hasOwn(dialectLoaders, dialect)))
    return { settings: {}, problem: `"dialect" is one of ${Object.keys(dialectLoaders).join(", ")}` };
  if (rows !== undefined && typeof rows !== "string") return { settings: {}, problem: '"rows" is the path of a file' };
  return { settings: { ...(dialect !== undefined && { dialect }), ...(rows !== undefined && { rows }) } };
}

/** The dialect of a document, by the end of its name or as it is set; undefined where neither says one. */
export async function dialectOf(uri: string, { dialect }: Settings): Promise<Dialect | undefined> {
  const ending = /\.(\w+)$/.exec(uri)?.[1].toLowerCase() ?? "";
  const id = Object.hasOwn(dialectLoaders, ending) ? ending : dialect;
  return id === undefined ? undefined : (await dialectLoaders[id]())();
}

/** The rows that are set, or none, and why. */
export async function rowsOf({ rows }: Settings): Promise<{ sample: Sample; problem?: string }> {
  if (rows === undefined) return { sample: noRows };
  try {
    return { sample: readTable(await readFile(rows)).sample };
  } catch (error) {
    return { sample: noRows, problem: `${rows}: ${(error as Error).message}` };
  }
}
