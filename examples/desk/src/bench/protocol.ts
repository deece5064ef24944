/** What the page asks of the thread that holds all rows, and what it is told: plain data. */
import type { Sample } from "indigo-quill";
import type { CalculatedColumn, Effect } from "indigo-quill/folio";
import type { WrittenJob } from "indigo-quill/lists";
import type { ColumnSurvey, Remark } from "indigo-quill/survey";
import type { Problem, Shown } from "../findings.ts";

/** A column as it is written on the page. */
export interface DraftColumn {
  readonly key: string;
  /** A name, or several between commas for the items of a list. */
  readonly name: string;
  readonly expression: string;
  readonly isHelper: boolean;
  readonly then: readonly WrittenJob[];
}

/** Calculated columns as they are written on the page, with what they need. */
export interface Draft {
  readonly dialect: string;
  /** Options of the dialect by their names. */
  readonly options: Readonly<Record<string, string>>;
  readonly columns: readonly DraftColumn[];
  readonly where: string;
  readonly only: string;
  readonly unfold: string;
  /** Lists as CSV, by their names. */
  readonly lists: Readonly<Record<string, string>>;
}

/** A step that was applied: enough to do it again. */
export interface Step {
  readonly at: string;
  readonly dialect: string;
  readonly options: Readonly<Record<string, string>>;
  readonly columns: readonly CalculatedColumn[];
  readonly where?: string | undefined;
  readonly only?: string | undefined;
  readonly unfold?: string | undefined;
  /** Texts that became what was decided, by columns. */
  readonly decided?: Readonly<Record<string, Readonly<Record<string, string>>>> | undefined;
}

/** What became of the rows in a step. */
export interface StepEffects {
  readonly rows: number;
  readonly effects: Readonly<Record<string, Effect>>;
}

export interface RowsState {
  readonly rows: number;
  readonly columns: readonly string[];
  /** The first rows, for help at the caret. */
  readonly glimpse: Sample;
  readonly steps: readonly StepEffects[];
}

export interface ColumnCounts {
  readonly name: string;
  readonly isNew: boolean;
  readonly isHelper: boolean;
  readonly changed: number;
  readonly failed: number;
  readonly empty: number;
  readonly nothing: number;
  /** The rules of its lists that were used, the most used first. */
  readonly hits: readonly { readonly rule: string; readonly count: number }[];
  readonly unused: number;
}

/** What is known of a draft. */
export interface PlanFindings {
  /** By the key of the column, `where`, `only`, `unfold`, or `list NAME`. */
  readonly problems: Readonly<Record<string, readonly Problem[]>>;
  /** Undefined where it cannot run. */
  readonly result?: {
    readonly given: number;
    readonly kept: number;
    /** Rows with a cell that changes. */
    readonly changedRows: number;
    readonly values: number;
    readonly counts: readonly ColumnCounts[];
    readonly warnings: readonly string[];
  };
}

export type View = "all" | "changed" | "values";

/** A cell as it is shown; with what it was before where that is something else. */
export interface CellShown {
  readonly now: Shown;
  readonly before?: Shown;
  readonly parts?: { readonly before: readonly PartShown[]; readonly after: readonly PartShown[] };
}

export interface PartShown {
  readonly text: string;
  readonly isChanged: boolean;
}

export interface TableHead {
  readonly columns: readonly { readonly name: string; readonly kind: "given" | "replaced" | "new" | "helper" }[];
  readonly rows: number;
}

export interface TableRow {
  /** Its number in the rows as they are, from 1; of a view of values how many rows have it. */
  readonly number: number;
  readonly cells: readonly CellShown[];
}

export interface LookFindings {
  readonly rows: number;
  readonly columns: readonly { readonly survey: ColumnSurvey; readonly remarks: readonly Remark[] }[];
}

export interface CellHistory {
  readonly column: string;
  readonly steps: readonly { readonly step: number; readonly by: string; readonly before: Shown; readonly after: Shown }[];
}

export type ExportFormat = "csv" | "tsv" | "json" | "ndjson" | "parquet" | "arrow";

/** What can be asked: what it takes, and what comes back. */
export interface Requests {
  open: {
    file: File | undefined;
    steps: readonly Step[];
    asks: (RowsState & { notices: readonly string[] }) | { refused: string };
  };
  look: { asks: LookFindings };
  plan: { draft: Draft; decided: Step["decided"]; asks: PlanFindings };
  head: { view: View; helpers: boolean; asks: TableHead };
  rows: { view: View; helpers: boolean; from: number; count: number; asks: readonly TableRow[] };
  /** The step that the draft of the last `plan` is. */
  apply: { at: string; asks: RowsState & { step: Step } };
  /** The rows after some of the steps, or before them. */
  move: { steps: readonly Step[]; asks: RowsState };
  cell: { row: number; column: string; asks: CellHistory };
  export: { format: ExportFormat; asks: Blob };
  folio: { text: string; files: Readonly<Record<string, string>>; asks: FolioRead };
}

/** A folio as the page takes it. */
export type FolioRead =
  | { readonly problems: readonly string[] }
  | {
      readonly draft: Draft;
      readonly title: string;
      readonly kept: unknown;
      readonly claims: { readonly held: number; readonly missed: readonly string[] };
    };

export type Request = { [K in keyof Requests]: { readonly kind: K } & Omit<Requests[K], "asks"> }[keyof Requests];
export type Answer<K extends keyof Requests> = Requests[K]["asks"];

/** What the thread says: an answer, that a newer request has come in its place, or what went wrong. */
export type Reply = { readonly id: number } & (
  { readonly answer: unknown } | { readonly isStale: true } | { readonly error: string }
);
