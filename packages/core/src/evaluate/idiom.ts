import { type OperationId, operationOf, operations } from "../text/index.ts";
import type { AnswerOf, TraitId } from "../traits/index.ts";
import type { Value } from "../values/index.ts";
import { type Bound, type BoundOperation, partsOf, unconverted } from "./bound.ts";
import { type Answered, constantOf, implied, isSame } from "./shapes.ts";

/**
 * An operation that is written by others: what they look like, what they must answer, and what they come to. It may do so on some
 * rows only, and whoever uses it compares its value with that of what is written; an `exact` one gives the very same values and
 * failures on every row.
 */
export interface Idiom {
  readonly does: string;
  /**
   * Operations with what is in their slots, in order: `slice(text, 1, locate(text, delimiter) - 1)`. A name stands for any part, and
   * for the same part where it stands again; `size(x)` for the number of characters of a text, written or measured; [a, b] for the
   * parts of a slot of many; x? and _ for a slot that may hold anything or nothing, … for all further ones; those that are not told
   * hold nothing. Where one operation stands twice each has a name: `recase:first(x)`. Other names with brackets are kinds of control.
   */
  readonly shape: string;
  /** What operations of the shape must answer, by their names: one answer, or one of several. */
  readonly needs?: Readonly<Record<string, { readonly [T in TraitId]?: AnswerOf<T> | readonly AnswerOf<T>[] | Reference }>>;
  /** What must hold of what is written, and what else follows of it; undefined where it does not hold. */
  readonly when?: (written: Readonly<Record<string, Value | undefined>>) => Readonly<Record<string, Value>> | undefined;
  /** What it comes to, written like the shape. */
  readonly is: string;
  /**
   * The answers of that, by its names; `slice.missing` is what another answers, a pair what follows of what another answers, and
   * under … stands the name of one whose answers hold where no others are told.
   */
  readonly answers: Readonly<Record<string, { readonly [T in TraitId]?: Answer<AnswerOf<T>> } & { readonly "…"?: string }>>;
  readonly exact?: true;
}

/** What another operation of the shape answers. */
type Reference = `${string}.${TraitId}`;

/** An answer, or by the answer of another: by `*` where that is none of those named. */
export type Answer<A extends string = string> = A | Reference | readonly [of: Reference, by: Readonly<Record<string, Answer<A>>>];

type Shape =
  | { readonly is: "any"; readonly name: string; readonly isOptional: boolean }
  | { readonly is: "ignored" }
  | { readonly is: "rest" }
  | { readonly is: "value"; readonly value: Value }
  | { readonly is: "size"; readonly of: Shape & { readonly is: "any" } }
  | { readonly is: "many"; readonly parts: readonly Shape[] }
  | { readonly is: "control"; readonly form: string; readonly parts: readonly Shape[] }
  | {
      readonly is: "operation";
      readonly operation: OperationId;
      readonly name: string;
      readonly sign?: string;
      readonly parts: readonly Shape[];
    };

const token = /\s*(?:([a-z][a-z-]*[a-z]|[a-z])(?::([a-z]+))?|(\d+)|'([^']*)'|(<>|>=|[-+*/=>(),[\]_…?]))/y;
const signs: readonly (readonly string[])[] = [
  ["=", "<>", ">", ">="],
  ["+", "-"],
  ["*", "/"],
];

/** Reads the shape of an idiom. */
function shapeIn(text: string): Shape {
  token.lastIndex = 0;
  const tokens: RegExpExecArray[] = [];
  while (token.lastIndex < text.length) {
    const found = token.exec(text);
    if (!found) throw new Error(`${text}: not to be read behind ${tokens.at(-1)?.[0] ?? "its start"}`);
    tokens.push(found);
  }
  let at = 0;
  const isNext = (sign: string) => tokens.at(at)?.[5] === sign;
  const within = (end: string): Shape[] => {
    const parts: Shape[] = [];
    while (!isNext(end)) {
      parts.push(beside(0));
      if (isNext(",")) at++;
      else if (!isNext(end)) throw new Error(`${text}: ${end} is wanted`);
    }
    at++;
    return parts;
  };
  function beside(level: number): Shape {
    if (level === signs.length) return single();
    let left = beside(level + 1);
    for (let sign = tokens.at(at)?.[5] ?? ""; signs[level].includes(sign); sign = tokens.at(at)?.[5] ?? "") {
      at++;
      const operation = level === 0 ? "compare" : "calculate";
      left = { is: "operation", operation, name: operation, sign, parts: [left, beside(level + 1)] };
    }
    return left;
  }
  function single(): Shape {
    const [, name, own, number, literal, sign] = tokens[at++];
    if (number !== undefined) return { is: "value", value: Number(number) };
    if (literal !== undefined) return { is: "value", value: literal };
    if (sign === "-" && tokens.at(at)?.[3]) return { is: "value", value: -Number(tokens[at++][3]) };
    if (sign === "(") return within(")")[0];
    if (sign === "[") return { is: "many", parts: within("]") };
    if (sign === "_") return { is: "ignored" };
    if (sign === "…") return { is: "rest" };
    const isOptional = isNext("?");
    if (isOptional) at++;
    if (!isNext("(")) return name === "true" ? { is: "value", value: true } : { is: "any", name, isOptional };
    at++;
    const parts = within(")");
    if (name === "size" && parts[0].is === "any") return { is: "size", of: parts[0] };
    if (Object.hasOwn(operations, name)) return { is: "operation", operation: name as OperationId, name: own ?? name, parts };
    return { is: "control", form: name, parts };
  }
  return beside(0);
}

type Input = Bound | readonly Bound[] | undefined;

/** What stands for the names of a shape, and what its operations answer. */
class Match {
  readonly parts = new Map<string, Bound | readonly Bound[]>();
  readonly answers = new Map<string, Answered>();
  /** Sizes are asked for last: the text may stand behind its size. */
  readonly #sizes: (readonly [of: string, input: Bound])[] = [];

  /** @param jobsOf the operations that a part comes to, beside its own */
  constructor(readonly jobsOf: (bound: Bound) => readonly (Bound & BoundOperation)[]) {}

  fits(shape: Shape, bound: Bound): boolean {
    return this.#fits(shape, bound) && this.#sizes.every(([of, input]) => isSize(this.parts.get(of), input));
  }

  #fits(shape: Shape, input: Input): boolean {
    if (shape.is === "ignored") return true;
    if (!input) return shape.is === "any" && shape.isOptional;
    if (shape.is === "any") {
      const known = this.parts.get(shape.name);
      if (!known) this.parts.set(shape.name, input);
      return !known || (!isMany(known) && !isMany(input) && isSame(known, input));
    }
    if (isMany(input))
      return (
        shape.is === "many" && shape.parts.length === input.length && shape.parts.every((part, i) => this.#fits(part, input[i]))
      );
    switch (shape.is) {
      case "value":
        return isValue(constantOf(input), shape.value);
      case "size":
        this.#sizes.push([shape.of.name, input]);
        return true;
      case "control": {
        const inner = unconverted(input);
        const parts = partsOf(inner);
        return (
          inner.kind === "control" &&
          inner.control.form === shape.form &&
          parts.length === shape.parts.length &&
          shape.parts.every((part, i) => this.#fits(part, parts[i]))
        );
      }
      case "operation":
        return this.#isOperation(shape, input);
    }
    return false;
  }

  #isOperation({ operation, name, sign, parts }: Shape & { is: "operation" }, input: Bound): boolean {
    const inner = unconverted(input);
    const isWanted = (each: Bound) => each.kind === "operation" && each.operation === operation;
    const call = isWanted(inner) ? inner : this.jobsOf(inner).find(isWanted);
    if (call?.kind !== "operation") return false;
    this.answers.set(name, call.answers);
    const isOpen = parts.at(-1)?.is === "rest";
    const inputs = operation === "join" ? this.#opened(call.inputs) : call.inputs;
    const told = isOpen ? parts.slice(0, -1) : parts;
    return operationOf(operation).slots.every(({ settled }, i) => {
      if (sign !== undefined && settled) return constantOf(inputs[i] as Bound | undefined) === sign;
      if (i < told.length) return this.#fits(told[i], inputs[i]);
      return isOpen || settled !== undefined || inputs[i] === undefined;
    });
  }

  /** The slots of a join, with those that are joined within it in their place: a || b || c joins three. */
  #opened([items, ...rest]: BoundOperation["inputs"]): BoundOperation["inputs"] {
    if (!isMany(items) || rest.some((input) => input !== undefined)) return [items, ...rest];
    const open = (item: Bound): readonly Bound[] => {
      const inner = [unconverted(item), ...this.jobsOf(unconverted(item))].find(isJoin);
      const own = inner?.inputs[0];
      return own && isMany(own) && inner.inputs.slice(1).every((input) => input === undefined) ? own.flatMap(open) : [item];
    };
    return [items.flatMap(open), ...rest];
  }

  /** What a part is that a name stands for, where it is written. */
  written(): Record<string, Value | undefined> {
    return Object.fromEntries([...this.parts].map(([name, part]) => [name, isMany(part) ? undefined : constantOf(part)]));
  }

  answerOf(reference: string): string | undefined {
    const [, name, trait] = /^([a-z-]+)\.(\w+)$/.exec(reference) ?? [];
    return name === undefined ? undefined : this.answers.get(name)?.[trait];
  }
}

const isJoin = (bound: Bound): bound is Bound & BoundOperation => bound.kind === "operation" && bound.operation === "join";

const isMany = (input: Input): input is readonly Bound[] => Array.isArray(input);

const isValue = (given: Value | undefined, wanted: Value): boolean =>
  typeof wanted === "number"
    ? (typeof given === "number" || typeof given === "bigint") && Number(given) === wanted
    : given === wanted;

/** Whether a part is the number of characters of a text, written or measured. */
function isSize(text: Bound | readonly Bound[] | undefined, input: Bound): boolean {
  if (!text || isMany(text)) return false;
  const written = constantOf(text);
  if (typeof written === "string" && isValue(constantOf(input), [...written].length)) return true;
  const measured = unconverted(input);
  return measured.kind === "operation" && measured.operation === "measure" && isSame(measured.inputs[0] as Bound, text);
}

/** An answer that is told, or that of another; undefined where nothing follows of it. */
function settled(answer: Answer, match: Match): string | undefined {
  if (typeof answer === "string") return /^[a-z-]+\.\w+$/.test(answer) ? match.answerOf(answer) : answer;
  const [of, by] = answer;
  const given = match.answerOf(of);
  const next = given === undefined ? undefined : Object.hasOwn(by, given) ? by[given] : by["*"];
  return next === undefined ? undefined : settled(next, match);
}

/** Makes what an idiom comes to, at the place where it stands; undefined where an answer does not follow. */
function made(shape: Shape, at: Bound, match: Match, values: Readonly<Record<string, Value>>, answers: Idiom["answers"]): Input {
  if (shape.is === "any") {
    if (!(shape.name in values)) return match.parts.get(shape.name);
    const value = values[shape.name];
    return implied(value, typeof value === "number" ? "number" : "text", at);
  }
  if (shape.is === "value") return implied(shape.value, typeof shape.value === "number" ? "number" : "text", at);
  if (shape.is === "many") return shape.parts.map((part) => made(part, at, match, values, answers) as Bound);
  if (shape.is !== "operation") return undefined;
  const { operation, name, parts } = shape;
  const { slots } = operationOf(operation);
  const fixed = slots.flatMap(({ name, settled }, i) => {
    const part = settled ? parts.at(i) : undefined;
    return part?.is === "value" ? [[name, part.value] as const] : [];
  });
  const inputs = slots.map(({ settled }, i) => (settled ? undefined : parts.at(i) && made(parts[i], at, match, values, answers)));
  const { "…": like, ...told } = answers[name] ?? {};
  const own: [string, string][] = Object.entries((typeof like === "string" && match.answers.get(like)) || {});
  for (const [trait, answer] of Object.entries(told)) {
    const known = settled(answer, match);
    if (known === undefined) return undefined;
    own.push([trait, known]);
  }
  const hole = parts.some(({ is }, i) => is === "operation" && inputs[i] === undefined);
  if (hole) return undefined;
  return {
    type: at.type,
    source: at.source,
    kind: "operation",
    operation,
    answers: Object.fromEntries(own),
    fixed: Object.fromEntries(fixed),
    inputs,
  };
}

/** What a part comes to by an idiom; undefined where it has not its shape. */
export type Recognised = (bound: Bound, jobsOf: Match["jobsOf"]) => (Bound & BoundOperation) | undefined;

/** An idiom, ready to be recognised. */
export function recognised({ shape: written, needs = {}, when, is, answers }: Idiom): Recognised {
  const [shape, result] = [shapeIn(written), shapeIn(is)];
  return (bound, jobsOf) => {
    const match = new Match(jobsOf);
    if (!match.fits(shape, bound)) return undefined;
    for (const [name, wanted] of Object.entries(needs))
      for (const [trait, answer] of Object.entries(wanted)) {
        const given = match.answers.get(name)?.[trait];
        const isAsWanted = typeof answer === "string" ? given === settled(answer, match) : answer.some((each) => each === given);
        if (given === undefined || !isAsWanted) return undefined;
      }
    const values = when ? when(match.written()) : {};
    const input = values && made(result, bound, match, values, answers);
    return input && !isMany(input) && input.kind === "operation" ? input : undefined;
  };
}
