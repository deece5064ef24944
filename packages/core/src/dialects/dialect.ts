import type { Type } from "./types.ts";
import type { Expression, ListExpression, Parsed, ParseLimits } from "../syntax/index.ts";
import type { KnownKind } from "../text/index.ts";
import type { Facts, Failure, MessageCode, TextRange, Value } from "../values/index.ts";
import type { CallNotation, FunctionRow, Refusal } from "./row.ts";
import type { Step, Work } from "./step.ts";

/** The value of an expression on the row with this number (0-based) of the columns it is bound to. */
export type Cell = (row: number) => Value;

/** How a value of one type becomes one of another. */
export interface Conversion {
  /** 0 for the same type; the overload with the least total is meant. */
  readonly cost: number;
  /** Left out where nothing has to be done. */
  readonly convert?: Work;
  /** A constant that does not convert is an error of the whole expression, whatever becomes of it. */
  readonly early?: true;
  /** A constant that does not convert is an error of the rows that need it, in a dialect where others are not. */
  readonly late?: true;
}

/**
 * A line of a table of conversions: which types (`isOneOf`) become which, at what cost, and what is done to a value, where
 * anything is; `never` for those that do not become it although a line further down would take them. `=` stands for the very
 * type that is wanted, `> text` for whatever becomes a text and has done so; what is done after that is done to no null.
 */
export type ConversionLine = readonly [
  from: string,
  to: string,
  cost: number | "never",
  convert?: Work,
  told?: Pick<Conversion, "early" | "late">,
];

/** What a cast that is written does. */
export interface Cast {
  readonly type: Type;
  /** Left out where nothing has to be done. */
  readonly convert?: Work;
  /** What cannot be cast is null. */
  readonly tries?: true;
}

/** A place that holds the value of a variable while its body is evaluated. */
export interface Variable {
  readonly name: string;
  readonly type: Type;
  value: Value;
}

/** What a sub-expression was bound to: its type and how it is evaluated. */
export interface Bound {
  readonly source: Expression;
  readonly type: Type;
}

/** What code of a dialect's own may ask while a call is bound. */
export interface CodeContext {
  readonly types: readonly Type[];
  readonly args: readonly Expression[];
  readonly range: TextRange;
  /** The constant value of an argument, if it is one. */
  readonly constant: (index: number) => Value | undefined;
  /** Whether an argument is the same for every row. */
  readonly steady: (index: number) => boolean;
  /** Whether nothing is asked but which rows it holds for: what stands in a condition, there or within its AND and OR. */
  readonly isCondition: boolean;
  /** The values of the whole column that an argument names, if it does. */
  column(index: number): (() => readonly Value[]) | undefined;
  /** Counts steps against the limit `steps`; a failure when they are spent. */
  spend(count: number): Failure | undefined;
}

/**
 * Code of a dialect's own. `run` gets values; failures never reach it, and with `strict` neither
 * does null. `one` gets its only argument where it is there. `lazy` gets cells and evaluates what it needs.
 */
export type Code = (
  | { readonly run: (args: readonly Value[], context: CodeContext) => Value; readonly strict?: true }
  | { readonly one: (value: Value) => Value; readonly strict?: true }
  | { readonly lazy: (cells: readonly Cell[], context: CodeContext) => Cell; readonly strict?: undefined }
) & {
  /** How it reads texts, by the places of its arguments: what the step gives may stand in the place of one. */
  readonly reads?: Readonly<Record<number, Step>>;
  /** The operation that it comes to on most rows; whoever uses it compares what both give on the row. */
  readonly like?: Likeness | ((constant: (index: number) => Value | undefined) => Likeness | undefined);
};

/**
 * An operation that code comes to, with the slots that its arguments fill in turn, or what some of them are made into for one;
 * null stands for an argument that fills none.
 */
export type Likeness = Step & { readonly slots: readonly (string | null | (Likeness & { readonly slot: string }))[] };

/** Where rows of values may stand, and how they compare. */
export interface RowRules {
  /** The operators that take rows. */
  readonly compares: ReadonlySet<string>;
  /** Whether a row is a value by itself there, which it is not yet here. */
  readonly areValues?: true;
  /** Whether a row may hold rows. */
  readonly nested?: true;
  /** Whether the row that a query gives is compared like one that is written. */
  readonly queries?: true;
  /** Whether a comparison is always true or false, null being like null and behind every value. */
  readonly nullsLast?: true;
  /** Whether a query is worked out for every row, whether the row needs it or not. */
  readonly eager?: true;
  /** Whether what does not depend on a row in the condition of a query is worked out, whether the query is needed or not. */
  readonly checksConditions?: true;
  /** The type of a query whose one column has a type; left out where it is that of a choice. */
  queryType?(type: Type): Type;
  /** How a truth value is written. */
  truth(value: boolean, range: TextRange): Expression;
}

/** The type of what a call gives, from those of its arguments and the value of one where no row changes it. */
export type ResultType = (types: readonly Type[], constant: (index: number) => Value | undefined) => Type;

/** The rules of a dialect's values, as the binder needs them. */
export interface TypeRules {
  /** The type of a column that holds these values. */
  columnType(values: readonly Value[]): Type;
  /** A value as it stands in a sample, as a value of the column's type; left out where they are the same. */
  readColumn?(type: Type, value: Value): Value;
  /** The conversions as a table: the first line for both types is meant. */
  readonly conversions: readonly ConversionLine[];
  /** How `from` becomes the parameter type `to`, by that table and what is derived from it; undefined when it cannot. */
  conversion(from: Type, to: Type): Conversion | undefined;
  /**
   * A type of values that others may turn out to be on a row, where something of it is among what they are made of: overloads
   * for it are then chosen on the row.
   */
  readonly onRow?: { readonly type: Type; isOpen(type: Type): boolean; holds(value: Value): boolean };
  /** The collation of a call with these argument types, by which the rows that are meant for one are chosen. */
  collationOf?(types: readonly Type[], row: FunctionRow): string;
  /** Added to the cost of an overload for these argument types; left out where the conversions alone decide. */
  preference?(row: FunctionRow, types: readonly Type[]): number;
  /** Why the row that fits best, and does not refuse these types itself, is still not what such a call means. */
  refuses?(row: FunctionRow, types: readonly Type[]): Refusal["as"] | undefined;
  /** The type of a call: from the row's result type, the arguments' types, and the value of one where no row changes it. */
  resultType(row: FunctionRow, types: readonly Type[], constant: (index: number) => Value | undefined): Type;
  /** How an operand is cast to a named type; undefined when there is no such type or cast. */
  cast(from: Type, to: string): Cast | undefined;
  /** The type of dates as a cast writes it; left out where dates are texts or numbers. */
  readonly dates?: string;
  /**
   * One type for the branches of a choice (what ELSE gives first) or the items of a list; undefined when
   * there is none. `isOpen` says that a choice gives null where no branch is taken.
   */
  unify(types: readonly Type[], isOpen?: boolean): Type | undefined;
  /** The type of a whole number that is written beside what has types; left out where it is always its own. */
  numberBeside?(value: number | bigint, own: Type, others: readonly Type[]): Type;
  /**
   * The type of the parameters in which BETWEEN compares its value with both bounds, IN with a list or CASE with a value, by the types of all;
   * undefined where each comparison is one of its own.
   */
  togetherType?(types: readonly Type[], form: "between" | "in" | "case"): Type | undefined;
  /** The type of NULLIF(left, right); that of the left one where it is left out. */
  nullifType?(left: Type, right: Type): Type;
  /** Whether a function of single values, given an array within a function of arrays, works on each item. */
  readonly liftsArrays?: true;
  /** Whether values of a type carry a collation that is written for what they are made of; two such do not stand side by side. */
  carriesCollation?(type: Type): boolean;
  /** Whether beside an aggregate a column stands only within one. */
  readonly groups?: true;
  /** Left out where the language has no rows of values and no queries. */
  readonly rows?: RowRules;
  /** Makes a list of the given form from values. */
  list(form: Exclude<ListExpression["form"], "row">, values: readonly Value[]): Value;
  /** What the values of a type are for certain, by its name: they need no look on each row. */
  readonly kinds?: Readonly<Record<string, KnownKind>>;
  /** What is done to a value of a type where the whole expression gives it; left out where it is shown as it is. */
  shown?(type: Type): Work | undefined;
  /**
   * A check or a last change for the values of a type (the range of an integer, say); undefined when there is none, as for the
   * size of what is a part of a text.
   */
  fits?(type: Type, isPart?: boolean): Work | undefined;
  /** The predicate of a filter on an item at a 1-based position. */
  filter?(predicate: Value, position: number): boolean | Failure;
  /** The items of a value, for bindings and filters. */
  items?(value: Value): readonly Value[];
  /** The value made of items. */
  sequence?(items: readonly Value[]): Value;
  /** The types of what a function that is an argument is called with, by its parameter's type and the list before it; undefined where that is open. */
  lambdaTypes?(parameter: string, list: Type): readonly Type[] | undefined;
  /** What a function given as a value does with arguments. */
  apply?(callee: Value, args: readonly Value[]): Value;
  /** Whether a function that gives null for null is not called where an argument is null on all rows, whatever the others are. */
  readonly nullFirst?: true;
  /** The type of such a call, where it is not that of the function's result. */
  typeOfNothing?(type: Type, row: FunctionRow): Type | undefined;
  /** Whether a comparison whose left side is null does not look at its right side, which may be an error. */
  readonly nullStops?: true;
  /** Whether what does not depend on a row is evaluated before any is, so that its error is that of the whole. */
  readonly folds?: true;
  /** Whether a condition of a choice that no row changes is worked out first: its error is that of the whole. */
  readonly simplifiesChoices?: true;
  /** Whether types are known only on the row; where not, a constant that does not convert is an error of the whole expression. */
  readonly dynamic: boolean;
}

export interface DialectOption {
  readonly name: string;
  readonly values: readonly string[];
  readonly default: string;
  readonly summary: string;
}

/** How a calculated column is written into a statement of an engine. */
export interface Statements {
  /** A name between the engine's quotes. */
  quoted(name: string): string;
  /** What the engine takes for a name: how long it may be, and whether names that differ only in case are two. */
  readonly names: { readonly most?: number; readonly unit?: "bytes" | "characters"; readonly caseMinded: boolean };
  /** The engine's name for a type. */
  typeName(type: Type): string;
  /** `ALTER TABLE` text that adds a generated column; names and type are as the engine writes them. */
  generated(table: string, column: string, type: string, expression: string): string;
  /**
   * What the engine does not take in a generated column because it is not immutable: functions by name, by name and
   * number of arguments as `NAME of N`, or by the type of an argument as `NAME over TYPE`, casts as `cast FROM to TO`,
   * a trailing `*` for any ending.
   */
  readonly unsteady: ReadonlySet<string>;
  /** Of these, functions whose body stands in their place before constants are worked out. */
  readonly inlined?: ReadonlySet<string>;
}

/** Whether a call is of a function that its engine does not take for immutable. */
export const isUnsteadyCall = (name: string, types: readonly Type[], { unsteady }: Statements): boolean =>
  unsteady.has(name) ||
  unsteady.has(`${name} of ${types.length}`) ||
  types.some((type) => unsteady.has(`${name} over ${String(type)}`));

/**
 * How a dialect says what is done with lists: sources made of sources, each of which may stand as an argument. A part of a
 * pattern is given in the dialect's own pattern language. What is left out cannot be said there.
 */
export interface Phrases {
  /** Every place of a text, upper and lower case apart. */
  readonly replace?: (text: string, old: string, put: string) => string;
  /** One place of a text, from 1. */
  readonly replaceOne?: (text: string, old: string, put: string, place: number) => string;
  /** Every match of a pattern; what is put is texts and the numbers of groups. */
  readonly replacePattern?: (text: string, pattern: string, put: readonly (string | number)[], ignoresCase: boolean) => string;
  /** Parts of a pattern between which a whole word stands. */
  readonly wordEdges?: readonly [string, string];
  /** Kinds of characters as they stand between the brackets of a pattern. */
  readonly kinds?: Readonly<Record<string, string>>;
  /** Whether two texts are the same, upper and lower case apart. */
  readonly same: (text: string, other: string) => string;
  readonly contains: (text: string, part: string) => string;
  /** All letters small. */
  readonly lower: (text: string) => string;
  readonly choose: (cases: readonly (readonly [condition: string, value: string])[], other: string) => string;
  readonly any: (conditions: readonly string[]) => string;
  /** Nothing, as the value of a choice. */
  readonly nothing: string;
  /** Whether a text is one of several. */
  readonly among?: (text: string, values: readonly string[]) => string;
  /** The first match of a pattern; nothing where there is none. */
  readonly firstMatch?: (text: string, pattern: string) => string;
  /** Letters and numbers as they stand between the brackets of a pattern, in a language that can look around. */
  readonly lettersAndNumbers?: string;
  /** What is made of each piece of a list; those for which a condition holds. */
  readonly each?: (list: string, change: (piece: string) => string) => string;
  readonly only?: (list: string, condition: (piece: string) => string) => string;
  /** A piece of a list, from 1 or from the end with -1; nothing where it is missing. */
  readonly item?: (list: string, place: number) => string | undefined;
  readonly join?: (list: string, between: string) => string;
  /** The pieces between matches of a pattern. */
  readonly split?: (text: string, pattern: string) => string;
  /** No white space at the ends, single spaces within. */
  readonly tidy?: (text: string) => string;
  /** Letters without their accents. */
  readonly withoutAccents?: (text: string) => string;
}

/** A language for expressions: how it is read, its functions, its rules for values. */
export interface Dialect extends CallNotation {
  readonly id: string;
  readonly title: string;
  /** Which of the three kinds of language it is. */
  readonly family: "spreadsheet" | "sql" | "query";
  /** The standard or engine, with its version. */
  readonly source: string;
  readonly options: readonly DialectOption[];
  readonly chosen: Readonly<Record<string, string>>;
  parse(source: string, limits?: ParseLimits): Parsed;
  readonly rows: readonly FunctionRow[];
  readonly code: Readonly<Record<string, Code>>;
  /** What is done to values without a function: conversions and the like, by what they make of a value. */
  readonly steps: Readonly<Record<string, Step>>;
  /** Functions that the dialect has and that are not covered, by their names in lower case: what they are about. */
  readonly uncovered: ReadonlyMap<string, string>;
  readonly types: TypeRules;
  /** Whether upper and lower case letters in function names are told apart. */
  readonly functionCase: "minded" | "ignored";
  /** How a column is written in this dialect. */
  columnText(name: string): string;
  /** Whether `written` (as read by the parser) names the column. */
  namesColumn(written: string, column: string): boolean;
  /** How a text literal is written in this dialect. */
  textLiteral(text: string): string;
  readonly phrases: Phrases;
  /** How a text is read as a number; left out where comparing and calculating do so by themselves. */
  readonly numberOfText?: {
    /** The expression for a text, as one for its number. */
    write(source: string): string;
    /** What comes of comparing a text with a number as they are; left out where that is refused. */
    readonly compared?: string;
  };
  /** A tree without missing parts as text, which reads back as the same tree; in lines of `width` characters where that can be. */
  print(tree: Expression, width?: number): string;
  /** What an engine would say: the standard's code for one of our failure codes. */
  standardCode(code: MessageCode, facts: Facts): string | undefined;
  /** How a column is written into a statement; left out where the language has none. */
  readonly statements?: Statements;
  /** What a failing row does to the whole: one error value, or the whole query fails. */
  readonly errorScope: "value" | "query";
  /** A value as plain data: the form of the verify contract. */
  plain(value: Value): unknown;
}
