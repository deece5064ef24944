import type { Cell, Dialect, Variable } from "../dialects/dialect.ts";
import { type Piece, type Slot, applyKernel, operationOf, watched } from "../text/index.ts";
import { type TextRange, type Value, isFailure } from "../values/index.ts";
import { type Bound, type BoundOperation, type Control, allPartsOf, handsOn, isImplicit } from "./bound.ts";
import { itemsAt, longestOf, placeOf, within } from "./control.ts";
import { emit, kernelOf } from "./emit.ts";
import type { Frame } from "./frame.ts";
import { type Origins, type Source, type Stretch, cutter, droppedOf, placed, sourcesOf } from "./stretches.ts";

/** The pieces that the kernel of an operation tells of its result for these values; undefined where it does not tell all. */
export function piecesOf(bound: BoundOperation, slots: readonly (Value | undefined)[]): readonly Piece[] | undefined {
  const { slots: kinds } = operationOf(bound.operation);
  return watched(() => applyKernel(kernelOf(bound), slots, kinds, bound.answers.missing)).pieces;
}

/** A value with its stretches, or those of its items, found out where they are asked for. */
interface Traced {
  readonly value: Value;
  stretches(): readonly Stretch[];
  /** The stretches that lie in a range of its text. */
  part(range: TextRange): readonly Stretch[];
  items(): readonly Traced[];
}

/** Where the value of a bound tree came from on the row that has just been evaluated. */
export function originsOf(bound: Bound, row: number, frame: Frame, dialect: Dialect, columns: readonly string[]): Origins {
  const traced = new Tracer(row, frame, dialect, columns).trace(bound);
  const { value } = traced;
  const stretches = Array.isArray(value)
    ? traced.items().flatMap((item, i) => placed(item.stretches()).map((origin) => ({ ...origin, item: i })))
    : placed(traced.stretches());
  const read = new Set(allPartsOf(bound).flatMap((part) => (part.kind === "column" ? [part.column] : [])));
  const dropped = [...read].flatMap((column) => droppedOf(columns[column], frame.columns[column][row], stretches));
  return { value, stretches, dropped };
}

/** What gave a value that is handed on: as it is, or a list of one as its item. */
function handedOn(traced: Traced, value: Value): Traced | undefined {
  if (traced.value === value) return traced;
  const items: readonly Value[] = Array.isArray(traced.value) ? traced.value : [];
  if (!Array.isArray(value)) return items.length === 1 && items[0] === value ? traced.items()[0] : undefined;
  return value.length > 0 && value.length === items.length && items.every((item, i) => item === value[i]) ? traced : undefined;
}

/** A question that is asked once. */
function lazily<T>(ask: () => T): () => T {
  let known: { readonly answer: T } | undefined;
  return () => (known ??= { answer: ask() }).answer;
}

const none = (): readonly Stretch[] => [];
const nowhere: TextRange = { start: 0, end: 0 };

/** Follows the values of one row back through a bound tree. */
class Tracer {
  readonly #row: number;
  readonly #frame: Frame;
  readonly #dialect: Dialect;
  readonly #columns: readonly string[];
  readonly #cells = new Map<Bound, Cell>();
  /** What variables stand for where the tracer is. */
  readonly #meant = new Map<Variable, Traced>();

  constructor(row: number, frame: Frame, dialect: Dialect, columns: readonly string[]) {
    this.#row = row;
    this.#frame = frame;
    this.#dialect = dialect;
    this.#columns = columns;
  }

  #valueOf(bound: Bound): Value {
    const cell = this.#cells.get(bound) ?? emit(bound, this.#frame, this.#dialect);
    this.#cells.set(bound, cell);
    return cell(this.#row);
  }

  readonly #known = new Map<Bound, Traced>();

  trace(bound: Bound): Traced {
    // What stands in several places is the same in each, but for what depends on variables.
    const known = this.#meant.size === 0 ? this.#known.get(bound) : undefined;
    const traced = known ?? this.#traced(bound);
    if (this.#meant.size === 0) this.#known.set(bound, traced);
    return traced;
  }

  #traced(bound: Bound): Traced {
    switch (bound.kind) {
      case "column": {
        const column = this.#columns[bound.column];
        return this.#read(this.#valueOf(bound), (range) => ({ column, ...range }));
      }
      case "constant": {
        const { source, value } = bound;
        if (source.kind === "missing") return this.#made(value, [], source.range);
        const literal = source.range;
        if (!bound.by || typeof value !== "string") return this.#read(value, (range) => ({ literal, ...range }));
        return this.trace(bound.by);
      }
      case "variable":
        return this.#meant.get(bound.variable) ?? this.#made(bound.variable.value, [], bound.source.range);
      case "operation":
        return this.#operation(bound);
      case "control":
        return this.#control(bound, bound.control, bound.children);
      case "code": {
        const value = this.#valueOf(bound);
        const made = bound.children.map((child) => this.trace(child));
        const same = isImplicit(bound) ? handedOn(made[0], value) : undefined;
        return same ?? this.#made(value, made, bound.source.range);
      }
    }
  }

  #written(value: Value): string {
    return typeof value === "string" ? value : value === null || isFailure(value) ? "" : String(this.#dialect.plain(value));
  }

  /** A value that is read from somewhere. */
  #read(value: Value, source: (range: { range?: TextRange }) => Source): Traced {
    const text = this.#written(value);
    const from = [source(typeof value === "string" ? { range: { start: 0, end: text.length } } : {})];
    return this.#listed(
      value,
      () => [{ text, from }],
      (item) => this.#read(item, () => source({})),
    );
  }

  /** A value that is made of others, no one knows how. */
  #made(value: Value, of: readonly Traced[], by: TextRange): Traced {
    const from = lazily(() => sourcesOf(of.flatMap((each) => this.#allOf(each))));
    const stretches = () => [{ text: this.#written(value), from: from(), by }];
    return this.#listed(value, stretches, (item) => this.#listed(item, () => [{ text: this.#written(item), from: from(), by }]));
  }

  #allOf(traced: Traced): readonly Stretch[] {
    return Array.isArray(traced.value) ? traced.items().flatMap((item) => this.#allOf(item)) : traced.stretches();
  }

  #listed(
    value: Value,
    stretches: () => readonly Stretch[],
    item: (value: Value, index: number) => Traced = (each) => this.#made(each, [], nowhere),
  ): Traced {
    const items = lazily(() => (Array.isArray(value) ? (value as readonly Value[]).map(item) : []));
    const all = lazily(stretches);
    const cut = lazily(() => cutter(all()));
    return { value, stretches: all, part: (range) => cut()(range), items };
  }

  #operation(bound: Bound & BoundOperation): Traced {
    const value = this.#valueOf(bound);
    const { slots } = operationOf(bound.operation);
    const traced = (input: Bound | readonly Bound[], { kind }: Slot) =>
      "kind" in input
        ? this.trace(input)
        : this.#side(
            input.map((each) => this.trace(each)),
            kind === "texts",
          );
    const inputs = bound.inputs.map((input, i) => input && traced(input, slots[i]));
    const by = bound.source.range;
    const [first] = inputs;
    const others = inputs.filter((input) => input !== undefined);
    const same = first && (handsOn(bound) ? handedOn(first, value) : undefined);
    if (same) return same;
    const pieces = piecesOf(
      bound,
      inputs.map((input) => input?.value),
    );
    if (!pieces || (pieces.length === 0 && value !== "" && !Array.isArray(value)))
      return (first && handedOn(first, value)) ?? this.#made(value, others, by);
    /** What a slot or an item of it holds, where a piece is that as it is. */
    const wholeOf = (piece: Piece): Traced | undefined => {
      const input = piece.slot === undefined || piece.range ? undefined : inputs[piece.slot];
      return piece.item === undefined ? input : input?.items().at(piece.item);
    };
    const [only] = pieces;
    const handed = pieces.length === 1 && !Array.isArray(value) ? wholeOf(only) : undefined;
    if (handed) return handed;
    const stretchesOf = (piece: Piece): readonly Stretch[] => {
      const input = piece.slot === undefined ? undefined : inputs[piece.slot];
      const taken = piece.item === undefined ? input : input?.items().at(piece.item);
      if (!taken || !piece.range) return [{ text: piece.text, from: taken ? sourcesOf(taken.stretches()) : [], by }];
      const part = taken.part(piece.range);
      return piece.changed ? [{ text: piece.text, from: sourcesOf(part), by }] : part;
    };
    if (!Array.isArray(value)) return this.#listed(value, () => pieces.flatMap(stretchesOf));
    return this.#listed(value, none, (item, i) => wholeOf(pieces[i]) ?? this.#listed(item, () => stretchesOf(pieces[i])));
  }

  /** What stands in a slot of many: values side by side, lists among them opened where it `isFlat`. */
  #side(parts: readonly Traced[], isFlat: boolean): Traced {
    const flat = parts.flatMap((part) => (isFlat && Array.isArray(part.value) ? part.items() : [part]));
    return this.#listed(
      flat.map((part) => part.value),
      none,
      (_, i) => flat[i],
    );
  }

  #control(bound: Bound, control: Control, children: readonly Bound[]): Traced {
    const value = this.#valueOf(bound);
    const unknown = () =>
      this.#made(
        value,
        children.map((child) => this.trace(child)),
        bound.source.range,
      );
    if (isFailure(value)) return unknown();
    switch (control.form) {
      case "choice": {
        const { tests } = control;
        const at = children.slice(0, tests).findIndex((test) => this.#valueOf(test) === true);
        const taken = children.at(at >= 0 ? tests + at : 2 * tests);
        return taken ? this.trace(taken) : unknown();
      }
      case "let":
        return this.#within(control.variables, [this.trace(children[0])], () => this.trace(children[1]));
      case "list":
        return this.#gathered(
          value,
          children.map((child) => this.trace(child)),
          unknown,
        );
      case "for":
      case "each": {
        const items = this.#itemsOf(this.trace(children[0]));
        const turns = items.map((item, i) => this.#turn(control.variables, item, i, items.length, children[1]));
        return this.#gathered(value, turns, unknown);
      }
      case "items": {
        const items = this.#itemsOf(this.trace(children[0]));
        const turns = items.map((item) =>
          item.value === null ? item : this.#within(control.variables, [item], () => this.trace(children[1])),
        );
        return this.#gathered(value, turns, unknown);
      }
      case "filter": {
        const items = this.#itemsOf(this.trace(children[0]));
        const keeps = (item: Traced, i: number) =>
          this.#turnValue(control.variables, item, i, items.length, () => this.#valueOf(children[1]));
        const kept = items.filter((item, i) => this.#dialect.types.filter!(keeps(item, i), i + 1) === true);
        return this.#gathered(value, kept, unknown);
      }
      case "lift": {
        const lists = children.slice(1).map((child) => this.trace(child));
        const values = lists.map((list) => list.value);
        const turns = Array.from({ length: longestOf(values) }, (_, i) => {
          const each = itemsAt(values, i).map((item, k) =>
            Array.isArray(values[k]) ? (lists[k].items().at(i) ?? this.#made(item, [], bound.source.range)) : lists[k],
          );
          return this.#within(control.variables, each, () => this.trace(children[0]));
        });
        return this.#gathered(value, turns, unknown);
      }
      case "query":
      case "unless-failing":
        return value === null ? unknown() : this.trace(children[0]);
      case "recover": {
        const isCaught = isFailure(this.#valueOf(children[0]));
        return isCaught && children.length === 1 ? unknown() : this.trace(children[isCaught ? 1 : 0]);
      }
      case "first-present": {
        const present = children.find((child) => this.#valueOf(child) !== null);
        return present ? this.trace(present) : unknown();
      }
      case "nth": {
        const chosen = children.at(placeOf(this.#valueOf(children[0]), children.length));
        return chosen ? this.trace(chosen) : unknown();
      }
      case "unless-null":
        return value === null ? unknown() : this.trace(children[children.length - 1]);
      case "overload": {
        const isOther = children.slice(2).every((child) => this.#dialect.types.onRow!.holds(this.#valueOf(child)));
        return this.trace(children[isOther ? 1 : 0]);
      }
      case "some":
      case "every":
      case "function":
      case "apply":
        return unknown();
    }
  }

  #itemsOf(traced: Traced): readonly Traced[] {
    if (Array.isArray(traced.value)) return traced.items();
    return traced.value === null ? [] : [traced];
  }

  #turn(variables: readonly Variable[], item: Traced, at: number, size: number, body: Bound): Traced {
    return this.#turnValue(variables, item, at, size, () => this.trace(body));
  }

  #turnValue<T>(variables: readonly Variable[], item: Traced, at: number, size: number, body: () => T): T {
    const number = (value: number) => this.#made(value, [], nowhere);
    return this.#within(variables, [item, number(at + 1), number(size)].slice(0, variables.length), body);
  }

  #within<T>(variables: readonly Variable[], values: readonly Traced[], body: () => T): T {
    const before = variables.map((variable) => this.#meant.get(variable));
    variables.forEach((variable, i) => this.#meant.set(variable, values[i]));
    const result = within(
      variables,
      values.map(({ value }) => value),
      body,
    );
    variables.forEach((variable, i) => {
      const last = before[i];
      if (last) this.#meant.set(variable, last);
      else this.#meant.delete(variable);
    });
    return result;
  }

  /** Parts that were made a list, or the one value that they are; `unknown` where the list was made otherwise. */
  #gathered(value: Value, parts: readonly Traced[], unknown: () => Traced): Traced {
    const flat = parts.flatMap((part) => (Array.isArray(part.value) ? part.items() : part.value === null ? [] : [part]));
    const found = Array.isArray(value) && value.length === parts.length ? parts : flat;
    if (!Array.isArray(value)) return found.length === 1 && found[0].value === value ? found[0] : unknown();
    if (found.length !== value.length) return unknown();
    return this.#listed(value, none, (_, i) => found[i]);
  }
}
