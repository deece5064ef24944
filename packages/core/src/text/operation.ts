import type { Answers, TraitId } from "../traits/index.ts";
import { Double, Failure, type Value, countCodePoints } from "../values/index.ts";

/** The groups in which functions are browsed. */
export const families = [
  "extract",
  "locate",
  "substitute",
  "recase",
  "split-join",
  "trim",
  "measure-test",
  "pad",
  "convert",
  "logic",
  "list",
] as const;
export type Family = (typeof families)[number];

/** The families whose functions are made of operations and traits. */
export const textFamilies: readonly Family[] = families.slice(0, 8);

/**
 * What an operation takes in one place. `texts` is a list whose items are text or null, `list` one of any items, `values`
 * what several arguments are.
 */
export type SlotKind = "text" | "number" | "boolean" | "texts" | "list" | "values" | "any";

export interface Slot {
  readonly name: string;
  readonly kind: SlotKind;
  readonly optional?: true;
  /** A missing value counts as left out, or is given to the kernel as null. */
  readonly nullable?: "left out" | "kept";
  /** The trait that says what a missing value does there; where it is answered with `null`, the whole is missing. */
  readonly keptBy?: TraitId;
  /** The trait that says in which language it is written; two sides may then write the same in their own. */
  readonly writtenBy?: "pattern" | "replacement" | "numberFormats";
  /** It holds a date: with its time of day, or of which only the day counts. */
  readonly dated?: "moment" | "day";
  /** The kernel sees failures, too. */
  readonly failing?: true;
  /** Always set by the function row, and known when the kernel is prepared: to one of these, or to something like them. */
  readonly settled?: readonly string[];
  /** What is wrong with what the row sets it to, where that may be something like them. */
  readonly fault?: (given: string) => string | undefined;
}

/** Whether several arguments may fill a slot, one by one. */
export const isOfMany = ({ kind }: Slot): boolean => kind === "texts" || kind === "values";

/** What the values in a slot are known to be, those that are there: a whole number is one of at most 32 bits. */
export type KnownKind = "text" | "whole number" | "double";

/** An operation with its answers and constants settled; it gets a present value (or undefined) for each slot. */
export type Kernel = (...slots: never[]) => Value;

/** Applies a kernel to slots as they come: failures first, then what is missing, then the kernel. */
export function applyKernel(
  kernel: Kernel,
  slots: readonly (Value | undefined)[],
  kinds: readonly Slot[],
  missing: string,
): Value {
  let filled: readonly (Value | undefined)[] = slots;
  for (let i = 0; i < slots.length; i++) {
    const value = slots[i];
    if (value instanceof Failure && !kinds[i].failing) return value;
  }
  for (let i = 0; i < slots.length; i++) {
    if (slots[i] !== null) continue;
    const { kind, nullable } = kinds[i];
    if (nullable === "kept") continue;
    if (missing === "null" && !nullable) return null;
    if (filled === slots) filled = [...slots];
    (filled as (Value | undefined)[])[i] = nullable
      ? undefined
      : kind === "text"
        ? ""
        : kind === "number"
          ? 0
          : kind === "list" || isOfMany(kinds[i])
            ? []
            : null;
  }
  return (kernel as (...values: readonly (Value | undefined)[]) => Value)(...filled);
}

/** A pure text operation: what it does is decided by its arguments and its answers alone. */
export interface Operation<T extends TraitId = TraitId> {
  readonly id: string;
  readonly family: Family;
  /** What it does, in one sentence. */
  readonly summary: string;
  readonly slots: readonly Slot[];
  readonly traits: readonly T[];
  /**
   * `small`: a number in the range of a text's length, which every integer type holds; `part`: never longer than its text;
   * `given`: perhaps a value that it was given.
   */
  readonly result?: "small" | "part" | "given";
  /** `fixed` holds the slots whose value the function row sets once for all. */
  prepare(answers: Answers<T>, fixed: Readonly<Record<string, Value>>): Kernel;
  /** A kernel for values in its first two slots that are known to be of one kind, and need no look at each; undefined where there is none. */
  narrowed?(answers: Answers<T>, fixed: Readonly<Record<string, Value>>, kind: KnownKind): Kernel | undefined;
  /** What the value in the first slot comes to by itself, so that the second is not evaluated; undefined where that counts. */
  settles?(answers: Answers<T>, fixed: Readonly<Record<string, Value>>): (first: Value) => Value | undefined;
}

export const operation = <const T extends TraitId>(definition: Operation<T>): Operation<T> => definition;

export const text = (name: string): Slot => ({ name, kind: "text" });
export const moment = (name: string): Slot => ({ ...text(name), dated: "moment" });
export const day = (name: string): Slot => ({ ...text(name), dated: "day" });
export const number = (name: string): Slot => ({ name, kind: "number" });
export const list = (name: string): Slot => ({ name, kind: "list" });
export const any = (name: string): Slot => ({ name, kind: "any" });
export const optional = (slot: Slot): Slot => ({ ...slot, optional: true });
export const nullable = (slot: Slot): Slot => ({ ...slot, optional: true, nullable: "left out" });
export const kept = (slot: Slot): Slot => ({ ...slot, optional: true, nullable: "kept" });
export const keptBy = (slot: Slot, trait: TraitId): Slot => ({ ...slot, nullable: "kept", keptBy: trait });
export const written = (slot: Slot, writtenBy: Slot["writtenBy"]): Slot => ({ ...slot, writtenBy });
export const failing = (slot: Slot): Slot => ({ ...slot, failing: true });
export const settled = (name: string, values: readonly string[]): Slot => ({ ...text(name), settled: values });

export const tabled = (name: string, example: string, fault: Slot["fault"]): Slot => ({ ...settled(name, [example]), fault });

/** UTF-16 units beyond which no operation makes a text. */
export const textLimit = 1 << 28;

export const tooLong = (length: number): Failure => new Failure("text-too-long", { length, limit: textLimit });

/** What stands for a text of so many UTF-16 units, and bytes, that would be too long; undefined where it may be. */
export function beyondLimit(
  limit: Answers<"tooLong">["tooLong"],
  length: number,
  bytes: () => number,
): Failure | null | undefined {
  if (limit === "null beyond 16 MiB" && bytes() > 1 << 24) return null;
  return length > textLimit ? tooLong(length) : undefined;
}

/** Items beyond which no list is made. */
export const listLimit = 1_000_000;

export const listTooLong = (length: number): Failure => new Failure("list-too-long", { length, limit: listLimit });

/** The characters of a text as a list. */
export function charactersOf(value: string): string[] | Failure {
  const length = value.length > listLimit ? countCodePoints(value) : value.length;
  return length > listLimit ? listTooLong(length) : [...value];
}

/** A truth value in the form of the trait `truth`. */
export const truthBy = (form: Answers<"truth">["truth"]): ((value: boolean) => boolean | number) =>
  form === "1 or 0" ? Number : (value) => value;

/** A double as a value by the trait `numbers`: plain ones are finite. */
export const givenBy = (numbers: Answers<"numbers">["numbers"]): ((value: number) => Value) =>
  numbers === "exact"
    ? (value) => new Double(value)
    : (value) => (Number.isFinite(value) ? value : new Failure("number-out-of-range"));

/** A number in a slot: a whole one beyond the exact ones may be a BigInt. */
export type SlotNumber = number | bigint;

/** A position or count as a whole number by the trait `fraction`; what is no number stays so. */
export function wholeBy(rule: Answers<"fraction">["fraction"]): (value: SlotNumber) => number | Failure {
  if (rule === "truncated") return (value) => Math.trunc(Number(value));
  if (rule === "rounded") return (value) => Math.floor(Number(value) + 0.5);
  return (value) => (Number.isInteger(Number(value)) ? Number(value) : new Failure("fraction-refused", { value }));
}

/** The same for what must be a number. */
export function countBy(rule: Answers<"fraction">["fraction"]): (value: SlotNumber) => number | Failure {
  const whole = wholeBy(rule);
  return (value) => {
    const count = whole(value);
    return Number.isNaN(count) ? new Failure("fraction-refused", { value }) : count;
  };
}
