/** What the worker finds out for the page: plain data, which can be sent, and is ready to be shown. */
import type { TextRange } from "indigo-quill";
import type { ExplainedParting } from "indigo-quill/contrast";
import type { PatternPart } from "indigo-quill/patterns";
import type { Scratch } from "./sample.ts";

/** Rows on one page of the table. */
export const pageSize = 200;

/** An expression with its dialect's id. */
export interface Side {
  readonly dialect: string;
  readonly text: string;
}

/** What the page wants to know. */
export interface Question {
  readonly sides: readonly Side[];
  /** The file with the rows; the demo register when left out. */
  readonly file: File | undefined;
  readonly scratch: readonly Scratch[];
  /** The row to trace, 0-based, scratch rows first. */
  readonly selected: number;
  /** The page of the table, 0-based. */
  readonly page: number;
  /** What is wanted on rows, 0-based, scratch rows first. */
  readonly wanted: readonly (readonly [row: number, text: string])[];
  /** Whether nothing was typed for a while: time for what takes longer. */
  readonly isSettled: boolean;
  /** Whether the values of the first expression's steps are wanted beside all rows. */
  readonly steps: boolean;
  /** How often rows were hunted for on which the first two expressions differ; they are hunted for where it is not 0. */
  readonly hunt: number;
}

/** A value as it is shown; `length` counts the UTF-16 units of a text that is cut. */
export type Shown =
  | { readonly kind: "nothing" }
  | { readonly kind: "text"; readonly text: string; readonly length: number }
  | { readonly kind: "plain"; readonly text: string }
  | { readonly kind: "failure"; readonly code: string; readonly sentence: string };

export interface Problem {
  readonly severity: "error" | "warning";
  readonly range: TextRange;
  readonly sentence: string;
  /** Each mend with the whole text after it. */
  readonly mends: readonly { readonly title: string; readonly text: string }[];
}

export interface SideFindings {
  readonly title: string;
  readonly isOk: boolean;
  readonly type: string;
  readonly problems: readonly Problem[];
  /** The text laid out in lines, where that is another text and loses no comment. */
  readonly formatted: string | undefined;
}

export interface RowFindings {
  /** 0-based. */
  readonly row: number;
  /** The cells of the columns that are shown. */
  readonly cells: readonly Shown[];
  /** For each side; undefined where it cannot run. */
  readonly values: readonly (Shown | undefined)[];
  /** For each step that is shown; undefined where it was not needed. */
  readonly steps: readonly (Shown | undefined)[];
}

export interface TableFindings {
  readonly rowCount: number;
  /** Whether the file has more rows than are tried. */
  readonly isCut: boolean;
  /** Every column's name, and which are shown. */
  readonly columns: readonly string[];
  readonly shownColumns: readonly number[];
  readonly rows: readonly RowFindings[];
  /** The steps of the first expression whose values stand beside the rows. */
  readonly steps: readonly string[];
  /** The selected row as a scratch row has it. */
  readonly selectedCells: Scratch;
}

export interface TraceFindings {
  readonly title: string;
  readonly source: string;
  /** Undefined where the expression cannot be read. */
  readonly steps: readonly StepFindings[] | undefined;
}

export interface StepFindings {
  readonly key: string;
  readonly range: TextRange;
  readonly text: string;
  readonly depth: number;
  readonly values: readonly Shown[];
  /** How many values there are in all. */
  readonly turns: number;
  /** What its value was converted to before it was used, unasked. */
  readonly became: { readonly how: "read" | "written" | "taken"; readonly value: Shown } | undefined;
  /** Why the error that was born here is one. */
  readonly failure: string | undefined;
  readonly isBorn: boolean;
  readonly ruler: RulerFindings | undefined;
  /** Of a pattern: its parts in words, with what each fitted on the row. */
  readonly parts: readonly PatternPart[];
}

export interface RulerFindings {
  readonly cells: readonly { readonly shown: string; readonly position: number; readonly taken: boolean }[];
  readonly before: number;
  readonly after: number;
}

/** Traits with both sides' answers. */
export interface ShortCause {
  readonly trait: string;
  readonly question: string;
  readonly answers: string;
}

/** An experiment on the selected row: what a side gives with the other's answers. */
export interface Experiment {
  readonly side: number;
  readonly value: Shown;
}

/** A place in the expression of a side. */
export interface Place {
  readonly side: number;
  readonly range: TextRange;
}

export interface ContrastFindings {
  readonly differing: number;
  /** On how many rows it is not known what a side gives, and why. */
  readonly unknown: readonly { readonly title: string; readonly count: number; readonly why: string }[];
  /** By row of the page the stretch of each side's text that is not the others'. */
  readonly apart: ReadonlyMap<number, readonly (TextRange | undefined)[]>;
  /**
   * By row of the page, why it differs; a row that does not is not there. No single operation explains an empty list; undefined
   * where the time was up before a cause was found.
   */
  readonly causes: ReadonlyMap<number, readonly ShortCause[] | undefined>;
  /** Whether looking for causes can go on. */
  readonly isUnfinished: boolean;
  readonly groups: readonly {
    /** The first rows, and how many there are. */
    readonly rows: readonly number[];
    readonly size: number;
    readonly holdsSelected: boolean;
    readonly parting: ExplainedParting | undefined;
    /** What a function or sign that both write is on each side, where it is another; or that no cause was looked for yet. */
    readonly instead: string | undefined;
    readonly effect: string;
    /** Of the selected row: an experiment for each cause, and where the steps stand. */
    readonly experiments: readonly Experiment[];
    readonly places: readonly Place[];
  }[];
}

/** A question about a step that no row tells from another answer. */
export interface UntoldFindings {
  readonly sentence: string;
  /** A row that would tell; left out where none does with the numbers that are written. */
  readonly row?: Scratch;
}

/** Expressions of the first one's dialect that give what is wanted. */
export interface WantedFindings {
  /** Each with its values on the rows of the page. */
  readonly candidates: readonly { readonly expression: string; readonly values: readonly Shown[] }[];
  /** The rows on which they differ. */
  readonly telling: readonly number[];
}

/** What is known, part by part: each comes as soon as it is there. */
export interface Findings {
  readonly question: Question;
  readonly notices: readonly string[];
  /** Whether the file could not be read; the notices say why, and nothing else follows. */
  readonly isRefused: boolean;
  readonly sides: readonly SideFindings[];
  readonly table: TableFindings;
  readonly traces: readonly TraceFindings[];
  /** Undefined where fewer than two sides can run. */
  readonly contrast: ContrastFindings | undefined;
  readonly wanted: WantedFindings;
  /** Questions that no row answers, each with a row that would. */
  readonly untold: readonly UntoldFindings[];
  /** Rows that were hunted for, by the question's number of hunts. */
  readonly hunted: { readonly hunt: number; readonly rows: readonly Scratch[] } | undefined;
}

/** What a worker says: a part of its answer to a question, by the question's number, or that it has nothing more to say. */
export interface Said {
  readonly id: number;
  readonly part: Partial<Findings>;
  readonly isLast: boolean;
}
