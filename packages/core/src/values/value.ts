import type { MessageCode } from "./messages.ts";
import type { Bytes } from "./bytes.ts";
import type { Decimal } from "./decimal.ts";

/**
 * A stretch of source text: `start` inclusive, `end` exclusive, both 0-based in UTF-16 code units.
 * In `"a😀b"` the offset of `b` is 3, because 😀 takes two units.
 */
export interface TextRange {
  readonly start: number;
  readonly end: number;
}

export const sameRange = (a: TextRange | undefined, b: TextRange): boolean =>
  a !== undefined && a.start === b.start && a.end === b.end;

/** The facts behind a message, by name; plain data, so that a message can be made anywhere. */
export type Facts = Readonly<Record<string, unknown>>;

/** The codes of failures that are limits of ours: a dialect or an engine may well go on there. */
export const limitCodes: ReadonlySet<MessageCode> = new Set<MessageCode>([
  "beyond-memory",
  "calls-too-deep",
  "list-too-long",
  "pattern-budget",
  "run-stopped",
  "steps-spent",
  "text-too-long",
  "time-spent",
]);

/**
 * An outcome that is an error, as a value: it has a code, facts, and the range of the
 * sub-expression where it was born. `code` is ours; `standard` is the code that the dialect's
 * standard or engine gives (an SQLSTATE, an `err:` name, a `#VALUE!` kind) where it has one.
 * The range counts UTF-16 units of the expression from 0; its end is not in it.
 *
 * @example
 * const [failure] = compile(postgresql(), "1 / 0", { columns: [], rows: 1 }).run({ columns: [], rows: 1 });
 * failure instanceof Failure; // true
 * [failure.code, failure.standard, failure.range]; // ["division-by-zero", "22012", { start: 0, end: 5 }]
 * message(failure); // "Division by zero."
 */
export class Failure {
  constructor(
    readonly code: MessageCode,
    readonly facts: Facts = {},
    readonly range?: TextRange,
    readonly standard?: string,
  ) {}

  /** The same failure, born at `range`; a failure that already has a place keeps it. */
  at(range: TextRange): Failure {
    return this.range ? this : new Failure(this.code, this.facts, range, this.standard);
  }

  named(standard: string): Failure {
    return this.standard ? this : new Failure(this.code, this.facts, this.range, standard);
  }
}

/** The failure of a value that an operation cannot take, and why. */
export const bad = (problem: string): Failure => new Failure("invalid-value", { problem });

/**
 * A binary floating-point number, in dialects that tell it apart from integers and decimals; also NaN and the infinities.
 *
 * @example
 * const sample = sampleOf([{ n: new Double(0.1) }, { n: new Double(NaN) }]);
 * const program = compile(xpath(), "$n * 3", sample);
 * program.run(sample).map((value) => xpath().plain(value)); // [0.30000000000000004, "NaN"]
 */
export class Double {
  constructor(readonly value: number) {}

  /** Another double, shown as this one is. */
  with(value: number): Double {
    return new Double(value);
  }
}

/** A double that is shown with so many decimals, where rounding and the like give one. */
export class FixedDouble extends Double {
  constructor(
    value: number,
    readonly decimals: number,
  ) {
    super(value);
  }

  override with(value: number): FixedDouble {
    return new FixedDouble(value, this.decimals);
  }
}

/**
 * A date, a time or both as ISO text, in dialects that tell it apart from texts; `type` is the dialect's name for which.
 *
 * @example
 * const sample = { columns: [], rows: 1 };
 * const [date] = compile(xpath(), "xs:date('2019-04-03')", sample).run(sample);
 * [date instanceof Moment, date.type, date.text]; // [true, "date", "2019-04-03"]
 */
export class Moment {
  constructor(
    readonly type: string,
    readonly text: string,
  ) {}
}

/**
 * A function as a value (query dialects); a call with another number of arguments than `arity` is not made.
 *
 * @example
 * const sample = { columns: [], rows: 1 };
 * const [item] = compile(xpath(), "function($a) { $a || '!' }", sample).run(sample);
 * [item instanceof FunctionItem, item.arity, item.call(["Alnus"])]; // [true, 1, "Alnus!"]
 */
export class FunctionItem {
  constructor(
    readonly name: string,
    readonly arity: number,
    readonly call: (args: readonly Value[]) => Value,
  ) {}
}

/**
 * An array that is one item, not a sequence of items (query dialects).
 *
 * @example
 * const sample = { columns: [], rows: 1 };
 * const [array] = compile(xpath(), "['a', ('b', 'c')]", sample).run(sample);
 * [array instanceof ArrayItem, array.members]; // [true, ["a", ["b", "c"]]]
 */
export class ArrayItem {
  constructor(readonly members: readonly Value[]) {}
}

/**
 * A map from atomic keys to values (query dialects); keys are compared by `mapKey`.
 *
 * @example
 * const sample = { columns: [], rows: 1 };
 * const [map] = compile(xpath(), "map { 'a': 1 }", sample).run(sample);
 * [map instanceof MapItem, [...map.entries.values()]]; // [true, [["a", 1]]]
 */
export class MapItem {
  constructor(readonly entries: ReadonlyMap<string, readonly [Value, Value]>) {}
}

/**
 * What an expression gives. A JavaScript `number` is an integer (within ±2^53) in dialects that
 * tell integers from doubles, and the dialect's only number elsewhere; a `bigint` is an integer
 * beyond that. `null` is null, blank, the empty sequence or unbound. An array is a list or a
 * sequence of two or more items.
 */
export type Value =
  | string
  | number
  | bigint
  | boolean
  | null
  | Decimal
  | Double
  | Moment
  | Bytes
  | Failure
  | FunctionItem
  | ArrayItem
  | MapItem
  | readonly Value[];

/** Any value but a failure or a missing one. */
export type Present = Exclude<Value, Failure | null>;

/**
 * Whether a value is an error.
 *
 * @example
 * const sample = sampleOf([{ label: "Alnus" }]);
 * compile(openformula(), 'FIND("x";label)', sample).run(sample).map(isFailure); // [true]
 */
export const isFailure = (value: unknown): value is Failure => value instanceof Failure;

/**
 * Whether a value is a list, or a sequence of no or several items.
 *
 * @example
 * const sample = sampleOf([{ label: "a b" }, { label: "a" }]);
 * compile(xpath(), "tokenize($label)", sample).run(sample).map(isList); // [true, false]
 */
export const isList = (value: Value): value is readonly Value[] => Array.isArray(value);

/** Whether a cell of a sample is a whole number, of any size. */
export const isWholeNumber = (value: Value): boolean => typeof value === "bigint" || Number.isInteger(value);

/** An integer as a `number` where that is exact, as a `bigint` beyond. */
export function integer(value: bigint): number | bigint {
  return value >= -9007199254740991n && value <= 9007199254740991n ? Number(value) : value;
}
