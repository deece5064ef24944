import type { Dialect, Sample } from "indigo-quill";
import { type CalculatedColumn, type Plan, planColumns } from "indigo-quill/folio";
import type { TextDocument } from "vscode-languageserver-textdocument";

/** Where a document stands, and the column that it is: its name without its ending. */
function partsOf(uri: string): { readonly folder: string; readonly name: string; readonly ending: string } {
  const [, folder, name, ending] = /^(.*\/)?([^/]*?)(\.\w+)?$/s.exec(uri)!;
  return { folder: folder ?? "", name: decoded(name), ending: ending ?? "" };
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    // A sign of a hundred that encodes nothing is one.
    return text;
  }
}

/** The column that a document is. */
export const columnOf = ({ uri }: TextDocument): string => partsOf(uri).name;

/** The address of a column's document beside another one. */
export function addressOf(column: string, { uri }: TextDocument): string {
  const { folder, ending } = partsOf(uri);
  return `${folder}${encodeURIComponent(column)}${ending}`;
}

/** The open documents that stand in one folder with one in its dialect: columns that see each other. */
export function besides(document: TextDocument, all: readonly TextDocument[]): TextDocument[] {
  const { folder, ending } = partsOf(document.uri);
  return all.filter(({ uri }) => {
    const other = partsOf(uri);
    return uri !== document.uri && other.folder === folder && other.ending === ending;
  });
}

const asColumn = (document: TextDocument): CalculatedColumn => ({ names: [columnOf(document)], expression: document.getText() });

/** The columns that documents are, without those that cannot be calculated. */
function planOf(documents: readonly TextDocument[], dialect: Dialect, rows: Sample): Plan {
  let columns = documents.filter((each) => each.getText().trim() !== "").map(asColumn);
  for (;;) {
    const plan = planColumns(dialect, columns, rows);
    if (plan.ok) return plan;
    const wrong = new Set(
      plan.problems.flatMap(({ of, diagnostics }) => (diagnostics.some(({ severity }) => severity === "error") ? [of] : [])),
    );
    const left = columns.filter(({ names }) => !wrong.has(names[0]));
    columns = left.length < columns.length ? left : [];
  }
}

const seen = new Map<string, { readonly rows: Sample; readonly state: string; readonly sample: Sample }>();

/** The rows as the expression of a document sees them: with the columns that the documents beside it are. */
export function seenBy(document: TextDocument, all: readonly TextDocument[], dialect: Dialect, rows: Sample): Sample {
  const others = besides(document, all);
  if (others.length === 0) return rows;
  const state = others.map(({ uri, version }) => `${uri} ${version}`).join("\n");
  const known = seen.get(document.uri);
  if (known?.rows === rows && known.state === state) return known.sample;
  const plan = planOf(others, dialect, rows);
  const made = [...plan.stages(rows)].map(({ step, values }) => ({ name: step.column.names[0], values: [...values] }));
  const names = new Set(made.map(({ name }) => name));
  const sample = { rows: rows.rows, columns: [...rows.columns.filter(({ name }) => !names.has(name)), ...made] };
  seen.set(document.uri, { rows, state, sample });
  return sample;
}

/** The column of a document with those beside it that can be calculated. */
export const planWith = (document: TextDocument, all: readonly TextDocument[], dialect: Dialect, rows: Sample): Plan =>
  planOf([...besides(document, all), document], dialect, rows);

/** Forgets a document that was closed. */
export const forget = ({ uri }: TextDocument): void => void seen.delete(uri);
