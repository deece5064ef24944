import { namedTemplate } from "../syntax/index.ts";
import type { Family } from "../text/index.ts";
import type { TextRange } from "../values/index.ts";
import type { Step } from "./step.ts";

/** The comparisons that languages share. */
export const relations = ["=", "<>", "<", "<=", ">", ">="] as const;

/** One parameter of a function. */
export interface Parameter {
  readonly name: string;
  /** The dialect's name for what may be given: a key of its conversions. */
  readonly type: string;
  /** The slot of the operation that it fills. */
  readonly slot: string;
  readonly optional?: true;
  /** May be given any number of times (with `optional`, also not at all). */
  readonly repeats?: true;
  /** Must be the same for every row. */
  readonly constant?: true;
  /** What an optional parameter is when it is left out. */
  readonly default?: string | number | boolean;
}

/**
 * Types with which a call is refused, though each of them would become the parameter's: for each argument those that `isOneOf`
 * knows, and `…` at the end for any more.
 */
export interface Refusal {
  readonly types: string;
  readonly as: "ambiguous-call" | "argument-type" | "not-covered";
}

interface RowBase {
  readonly name: string;
  readonly aliases?: readonly string[];
  readonly family: Family;
  readonly summary: string;
  readonly parameters: readonly Parameter[];
  /** The dialect's name for the type of the result. */
  readonly result: string;
  /** The standard's section, or the engine and version it was observed on. */
  readonly evidence: string;
  /** Widely shared, but not in the dialect's standard. */
  readonly extension?: true;
  readonly notation?: "operator";
  /** What it gives depends on all rows of a table; here on the one that there is. */
  readonly aggregate?: true;
  /** The collations of a call that it is meant for, of several rows that take the same types; left out where it is for any. */
  readonly collations?: readonly string[];
  /** What its parameters take and the engine does not. */
  readonly refuses?: readonly Refusal[];
}

/** A function that is its operation with answers; what is done to its result, by another step. */
type PureRow = RowBase & Step & { readonly then?: Step };

/** How a function chooses its value among its arguments, of which it evaluates no more than it needs. */
export type Decision =
  /** Conditions, each with its result after it, and perhaps what is taken where none holds; without that nothing, or an error. */
  | { readonly decides: "first that holds"; readonly none: "null" | "not available" }
  /** Values of one type. */
  | { readonly decides: "first present" }
  /** A number, counted from 1, and the values; a number beyond them gives nothing, or is an error. */
  | { readonly decides: "nth"; readonly none: "null" | "error" }
  /** A value, and perhaps what is taken where it fails; without that null. */
  | { readonly decides: "unless failing"; readonly caught: "all" | "not available" };

/** A function that is a decision. */
type DecidingRow = RowBase & Decision;

/** A function that carries code of its own, named in the dialect's table of code. */
interface CodedRow extends RowBase {
  readonly code: string;
}

/** The parameter that takes the argument at an index; the last one takes all beyond it. */
export const parameterAt = (row: FunctionRow, index: number): Parameter =>
  row.parameters[Math.min(index, row.parameters.length - 1)];

/** A function of a dialect: plain data, the same after being written to JSON and read back. */
export type FunctionRow = PureRow | DecidingRow | CodedRow;

/**
 * Whether a function is an operation with answers.
 *
 * @example
 * postgresql().rows.filter(({ name }) => name === "split_part").map(isPure); // [true]
 */
export const isPure = (row: FunctionRow): row is PureRow => "operation" in row;

/** Whether a function chooses among its arguments. */
export const isDeciding = (row: FunctionRow): row is DecidingRow => "decides" in row;

const none = { null: "nothing", "not available": "the error #N/A" };

/**
 * What a function that chooses among its arguments evaluates and gives, in a sentence; undefined for any other.
 *
 * @example
 * const [row] = postgresql().rows.filter(({ name }) => name === "upper");
 * decisionText(row); // undefined
 * const [choose] = openformula().rows.filter(({ name }) => name === "IFERROR");
 * decisionText(choose); // "Evaluates what comes instead, or gives nothing, only where the first argument fails."
 */
export function decisionText(row: FunctionRow): string | undefined {
  if (!isDeciding(row)) return undefined;
  switch (row.decides) {
    case "first that holds":
      return `Evaluates its conditions in turn, and the result of the first that holds; where none does and nothing else is given: ${none[row.none]}.`;
    case "first present":
      return "Evaluates its arguments in turn, up to the first that is there.";
    case "nth":
      return `Evaluates the number, and the argument that it chooses, the first being 1; beyond them it ${row.none === "null" ? "gives nothing" : "is an error"}.`;
    case "unless failing":
      return `Evaluates what comes instead, or gives nothing, only where the first argument fails${row.caught === "all" ? "" : " with #N/A"}.`;
  }
}

/** Whether a function is nothing but its row, without code of its own. */
export const isData = (row: FunctionRow): boolean => !("code" in row);

/**
 * Reads parameters from a short form: `"needle text > needle, start? number = 1, more* any"`.
 * After the name: `?` optional, `*` repeated at least once, `?*` any number of times, `!` constant; then the type,
 * `> slot` where the slot has another name, `= value` for a default.
 */
export function params(form: string): Parameter[] {
  if (form === "") return [];
  return form.split(", ").map((part) => {
    const match = /^(\w+)(\??)(\*?)(!?) ([\w?*+[\]().!-]+)(?: > (\w+))?(?: = (.+))?$/.exec(part);
    if (!match) throw new Error(`cannot read the parameter "${part}"`);
    const [, name, optional, repeats, constant, type, slot, value] = match;
    return {
      name,
      type,
      slot: slot ?? name,
      ...(optional && { optional: true as const }),
      ...(repeats && { repeats: true as const }),
      ...(constant && { constant: true as const }),
      ...(value !== undefined && { default: JSON.parse(value) as string | number | boolean }),
    };
  });
}

/** The least and most arguments that a row takes. */
export function arity(row: FunctionRow): { least: number; most: number } {
  const { parameters } = row;
  return {
    least: parameters.filter((p) => !p.optional).length,
    most: parameters.some((p) => p.repeats) ? Infinity : parameters.length,
  };
}

/** All names that a row is called by. */
export const namesOf = ({ name, aliases = [] }: FunctionRow): string[] => [name, ...aliases];

/** The functions that are called by a name, in upper or lower case letters; operators are none. */
export const functionsNamed = (rows: readonly FunctionRow[], name: string): FunctionRow[] =>
  rows.filter((row) => row.notation !== "operator" && namesOf(row).some((own) => own.toLowerCase() === name.toLowerCase()));

/** How a dialect writes calls. */
export interface CallNotation {
  readonly separator: "," | ";";
  /** Calls with words between the arguments, by the function's name: `position($2> in $1>)`. */
  readonly calls: Readonly<Record<string, string>>;
}

/**
 * The signature for showing: `mid(text, start, [length], …)`, with words between the arguments where the dialect has them,
 * or the kinds of an operator's operands: `text || text`.
 *
 * @param notation the dialect; commas and no words when left out
 * @example
 * const [row] = openformula().rows.filter(({ name }) => name === "SUBSTITUTE");
 * signature(row, openformula()); // "SUBSTITUTE(text; old; new; [which])"
 */
export const signature = (row: FunctionRow, notation?: CallNotation): string => signatureWithPlaces(row, notation).text;

/** The signature, and where each parameter stands in it. */
export function signatureWithPlaces(
  row: FunctionRow,
  { separator, calls }: CallNotation = { separator: ",", calls: {} },
): { readonly text: string; readonly places: readonly TextRange[] } {
  const { name, parameters } = row;
  if (Object.hasOwn(calls, name))
    return namedTemplate(
      calls[name],
      parameters.map((parameter) => parameter.name),
    );
  if (row.notation === "operator") {
    const [left, ...others] = parameters.map((p) => p.type.replace(/^side\.|[?!]+$/g, ""));
    return { text: others.length === 0 ? `${name} ${left}` : [left, name, others.join(" ")].join(" "), places: [] };
  }
  // An aggregate of no values counts the rows.
  if (row.aggregate && parameters.length === 0) return { text: `${name}(*)`, places: [] };
  let text = `${name}(`;
  const places = parameters.map((parameter, i) => {
    text += (i > 0 ? `${separator} ` : "") + (parameter.optional ? "[" : "");
    const start = text.length;
    text += parameter.name;
    const end = text.length;
    text += (parameter.optional ? "]" : "") + (parameter.repeats ? ", …" : "");
    return { start, end };
  });
  return { text: `${text})`, places };
}
