import { csvLines, readCsv } from "@indigo-quill/data";
import type { Sample } from "indigo-quill";
import { type Folio, checkClaims, listFiles, readFolio, withSnippets } from "indigo-quill/folio";
import { dialectLoaders } from "indigo-quill/dialects/load";
import { type WrittenJob, listFromTable, tableOfList } from "indigo-quill/lists";
import { parse, stringify } from "yaml";
import type { Draft, DraftColumn, FolioRead } from "./protocol.ts";

/** The parts of a folio, as plain data, that the page shows; the others are kept for when it is saved. */
interface Written {
  readonly title?: string;
  readonly dialect: string;
  readonly columns: readonly {
    name: string | readonly string[];
    expression?: string;
    then?: readonly WrittenJob[];
    helper?: boolean;
  }[];
  readonly where?: string;
  readonly only?: string;
  readonly unfold?: string;
}

/** Reads a folio from its text; `files` has the texts of the files that its lists name. */
export async function openFolio(text: string, files: Readonly<Record<string, string>>): Promise<FolioRead> {
  let data: unknown;
  try {
    data = parse(text, { maxAliasCount: 100 });
  } catch (error) {
    return { problems: [`This is neither YAML nor JSON: ${(error as Error).message}`] };
  }
  const missing = listFiles(data).filter((file) => !(file in files));
  if (missing.length > 0)
    return { problems: [`Its lists are in ${missing.join(", ")}; choose these files together with the folio.`] };
  const tables = new Map<string, Sample>();
  for (const file of listFiles(data)) tables.set(file, readCsv(files[file]).sample);
  const { folio, problems } = readFolio(data, tables);
  if (!folio) return { problems: problems.map(({ path, message }) => `${path.join(".")}: ${message}`) };
  const load = dialectLoaders[folio.dialect];
  if (!load) return { problems: [`There is no dialect "${folio.dialect}".`] };
  const dialect = (await load())(folio.options);
  let pointed: Folio;
  try {
    pointed = withSnippets(dialect, folio);
  } catch (error) {
    return { problems: [(error as Error).message] };
  }
  const written = data as Written;
  const { title = "", where = "", only = "", unfold = "" } = written;
  const results = checkClaims(dialect, pointed);
  return {
    title,
    kept: data,
    draft: {
      dialect: folio.dialect,
      options: folio.options,
      where,
      only,
      unfold,
      lists: Object.fromEntries([...folio.lists].map(([name, list]) => [name, csvLines(tableOfList(list))])),
      columns: written.columns.map(({ name, then = [], helper = false }, i): DraftColumn => ({
        key: `${i}`,
        name: typeof name === "string" ? name : name.join(", "),
        expression: pointed.columns[i].expression,
        isHelper: helper,
        then,
      })),
    },
    claims: {
      held: results.filter(({ holds }) => holds).length,
      missed: results.filter(({ holds }) => !holds).map(({ claim }) => `${claim.id} (${claim.column})`),
    },
  };
}

/** The names in a text, between commas. */
export const namesIn = (text: string): string[] =>
  text
    .split(",")
    .map((name) => name.trim())
    .filter((name) => name !== "");

/** Parts of a folio that the page does not show, and gives back when it is saved. */
const passedOn = ["notes", "types", "snippets", "claims"];

/** A draft as the text of a folio, with what was kept of the one that it was opened from. */
export function folioText(draft: Draft, title: string, sample: string | undefined, kept: unknown): string {
  const rest = Object.entries((kept ?? {}) as Record<string, unknown>).filter(([name]) => passedOn.includes(name));
  const lists = Object.entries(draft.lists).map(([name, csv]) => {
    const list = listFromTable(readCsv(csv).sample);
    return [name, "terms" in list ? list.terms : { rules: list.rules }];
  });
  const data = {
    folio: 1,
    ...(title && { title }),
    ...(sample && { sample }),
    dialect: draft.dialect,
    ...(Object.keys(draft.options).length > 0 && { options: draft.options }),
    columns: draft.columns.map(({ name, expression, isHelper, then }) => {
      const names = namesIn(name);
      return {
        name: names.length === 1 ? names[0] : names,
        expression,
        ...(isHelper && { helper: true }),
        ...(then.length > 0 && { then }),
      };
    }),
    ...(lists.length > 0 && { lists: Object.fromEntries(lists) as object }),
    ...(draft.where && { where: draft.where }),
    ...(draft.only && { only: draft.only }),
    ...(draft.unfold && { unfold: draft.unfold }),
    ...(Object.fromEntries(rest) as object),
  };
  return stringify(data, { lineWidth: 0 });
}
