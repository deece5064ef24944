import { get, set } from "idb-keyval";
import type { Draft, Step } from "./bench/protocol.ts";
import type { Side } from "./findings.ts";
import type { Scratch } from "./sample.ts";

/** The pages of the desk. */
export const pages = ["Try", "Look", "Columns", "Ledger"] as const;
export type PageName = (typeof pages)[number];

/** Everything that is there again after the page was closed. */
export interface Memory {
  readonly page: PageName;
  /** The file as it was loaded; the demo register when left out. */
  readonly file?: File | undefined;
  readonly steps: readonly Step[];
  readonly undone: readonly Step[];
  readonly draft: Draft;
  readonly title: string;
  /** What was opened with a folio and is not shown. */
  readonly kept?: unknown;
  /** Texts that were decided on in a preview of values, by columns. */
  readonly decided: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly sides: readonly Side[];
  readonly scratch: readonly Scratch[];
  /** What is wanted on rows, by their names; undefined where that is not asked. */
  readonly wanted?: Readonly<Record<string, string>> | undefined;
}

/** Changes what is remembered, from what it is by then: two changes may come before the page is drawn again. */
export type Change<Part> = (part: (before: Part) => Partial<Part>) => void;

const key = "indigo-quill desk 1";

export const nothingYet: Memory = {
  page: "Try",
  steps: [],
  undone: [],
  title: "",
  decided: {},
  draft: {
    dialect: "postgresql",
    options: {},
    columns: [
      { key: "1", name: "surname", expression: "split_part(collector, ',', 1)", isHelper: false, then: [{ tidy: true }] },
      { key: "2", name: "taxon", expression: "btrim(regexp_replace(taxon, '\\s+', ' ', 'g'))", isHelper: false, then: [] },
    ],
    where: "",
    only: "",
    unfold: "",
    lists: {},
  },
  sides: [
    { dialect: "openformula", text: 'TRIM(LEFT(collector;FIND(",";collector)-1))' },
    { dialect: "postgresql", text: "btrim(split_part(collector, ',', 1))" },
  ],
  scratch: [],
};

/** What was kept; nothing yet where there is none, or the browser keeps nothing. */
export async function remembered(): Promise<Memory> {
  try {
    return { ...nothingYet, ...(await get<Partial<Memory>>(key)) };
  } catch {
    return nothingYet;
  }
}

/** Keeps it; false where the browser has no room or allows none. */
export async function remember(memory: Memory): Promise<boolean> {
  try {
    await set(key, memory);
    return true;
  } catch {
    return false;
  }
}
