import type { Dialect } from "../dialects/dialect.ts";
import { repointed } from "./names.ts";

/** A change of a folio's plain data: another value at a path, or another key for what stands there. */
export type FolioEdit = { readonly path: readonly (string | number)[] } & ({ readonly value: string } | { readonly key: string });

/** The parts of a folio, as plain data, in which columns are named. */
interface Named {
  readonly types?: Readonly<Record<string, unknown>>;
  readonly columns: readonly {
    readonly name: string | readonly string[];
    readonly expression?: string;
    readonly of?: string | Readonly<Record<string, string>>;
  }[];
  readonly where?: string;
  readonly only?: string;
  readonly unfold?: string;
  readonly claims?: readonly { readonly column: string; readonly row: Readonly<Record<string, unknown>> }[];
}

/**
 * What has to be changed in a folio so that a column, of the sample or calculated, has another name everywhere.
 * @throws RangeError where a variable of an expression would hide it
 */
export function renamings(data: unknown, dialect: Dialect, from: string, to: string): FolioEdit[] {
  const { types = {}, columns, claims = [], ...rest } = data as Named;
  const edits: FolioEdit[] = [];
  const names = new Map([[from, to]]);
  const inSource = (path: readonly (string | number)[], source: string | undefined) => {
    if (source === undefined) return;
    const put = repointed(dialect, source, names);
    if (typeof put !== "string") throw new RangeError(`${path.join(".")}: ${put.refused}`);
    if (put !== source) edits.push({ path, value: put });
  };
  const asName = (path: readonly (string | number)[], name: unknown) => {
    if (name === from) edits.push({ path, value: to });
  };
  const asKey = (path: readonly (string | number)[], record: Readonly<Record<string, unknown>>) => {
    if (Object.hasOwn(record, from)) edits.push({ path: [...path, from], key: to });
  };
  asKey(["types"], types);
  columns.forEach(({ name, expression, of }, i) => {
    if (typeof name === "string") asName(["columns", i, "name"], name);
    else name.forEach((each, n) => asName(["columns", i, "name", n], each));
    inSource(["columns", i, "expression"], expression);
    if (typeof of === "string") asName(["columns", i, "of"], of);
    else for (const [slot, column] of Object.entries(of ?? {})) asName(["columns", i, "of", slot], column);
  });
  inSource(["where"], rest.where);
  inSource(["only"], rest.only);
  asName(["unfold"], rest.unfold);
  claims.forEach(({ column, row }, i) => {
    asName(["claims", i, "column"], column);
    asKey(["claims", i, "row"], row);
  });
  return edits;
}
