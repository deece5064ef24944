import type { Variable } from "../dialects/dialect.ts";
import { type Bound, type Program, type Sample, allPartsOf, defaultLimits, inputValues, jobsOf } from "../evaluate/index.ts";
import { operationOf } from "../text/index.ts";
import { Decimal, OverTime, type Value, isFailure, startClock, stopClock } from "../values/index.ts";
import { type Cells, type Evaluated, type Step, withAnswers } from "./swap.ts";
import { agree, asTruth } from "./equal.ts";

/** A part of a program whose value can be set, and the whole with it. */
interface Place {
  readonly variable: Variable;
  readonly run: (sample: Sample, row: number) => Value;
}

/** How many rows of the sample stand for all. */
const mostAround = 12;

/** How many results of values that were tried are kept. */
const mostKept = 5000;

/** One side of a contrast, with what is tried of it: an experiment is compiled once for all rows. */
export class Workbench {
  readonly #places = new Map<Bound, Place>();
  readonly #changed = new Map<string, { readonly changes: ReadonlyMap<Bound, Bound>; readonly run: Place["run"] }>();
  readonly #columns = new Map<Bound, ((row: number) => Pick<Step, "bound" | "slots">) | null>();
  readonly #numbers = new Map<Bound, number>();
  /** The columns that the whole reads, and what came of values in them: the same is tried on many rows. */
  readonly #read: readonly number[];
  readonly #came = new Map<string, Value>();
  /** What was found out of another side, told by the rows around that it has. */
  readonly #asked = new WeakMap<readonly Cells[], Map<string, boolean>>();
  /** Rows from all over the sample. */
  #around: readonly Cells[] | undefined;
  /** Whether the program has run on other values since a row was looked at. */
  #isElsewhere = false;

  constructor(
    readonly program: Program,
    readonly sample: Sample,
  ) {
    const columns = allPartsOf(program.bound).flatMap((part) => (part.kind === "column" ? [part.column] : []));
    this.#read = [...new Set(columns)];
  }

  /** A row, 0-based: the value, the steps that are carried out, with the jobs that they come to, and what the whole gives otherwise. */
  at(row: number): Evaluated {
    const { program, sample } = this;
    const steps: Step[] = [];
    const nodes: Omit<Step, "bound" | "slots">[] = [];
    const turns = new Map<Bound, number>();
    this.#isElsewhere = false;
    const value = program.runRow(sample, row, (source, found, node, slots) => {
      turns.set(node, (turns.get(node) ?? 0) + 1);
      const name = source.kind === "call" ? program.source.slice(source.nameRange.start, source.nameRange.end) : "";
      const step = { dialect: program.dialect, range: source.range, written: name.toLowerCase(), node, value: found };
      if (node.kind === "operation" && slots) steps.push({ ...step, bound: node, slots });
      nodes.push(step);
    });
    for (const step of nodes) {
      const taken = step.node.kind === "column" && this.#column(step.node);
      if (taken) steps.push({ ...step, ...taken(row) });
    }
    // What is carried out several times has no one value that another could stand for.
    const isOnce = ({ node }: Step) => turns.get(node) === 1;
    const plainSteps = steps.filter(isOnce);
    const repeated = [...turns].flatMap(([node, count]) => (count > 1 ? [steps.filter((step) => step.node === node)] : []));
    let all: readonly Step[] | undefined;
    const allSteps = () => (all ??= [...plainSteps, ...this.#jobs(nodes, row, value).filter(isOnce)]);
    return {
      dialect: program.dialect,
      value,
      get steps() {
        return allSteps();
      },
      plainSteps,
      repeated: repeated.filter((each) => each.length > 0),
      parts: nodes,
      root: program.bound,
      valueOf: (column) => sample.columns[column].values[row],
      nameOf: (column) => sample.columns[column].name,
      around: (this.#around ??= rowsOver(sample)),
      asked: ({ around }, changes, what, ask) => this.#askedOnce(around, this.#nameOf(changes, ` ${what}`), ask),
      alone: () => (program.readsWholeColumns ? this.#on(new Map(), row) : value),
      put: (node, put) => this.#put(node, put, row),
      on: (values) => this.#on(values, row),
      runWith: (changes, name, values) => {
        const run = () => this.#changing(changes, name);
        if (!values) return run()(sample, row);
        const tried = () => run()(this.#with(values, row), 0);
        return name === undefined ? tried() : this.#once(`${this.#nameOf(changes, name)} on`, values, row, tried);
      },
    };
  }

  /** How a number is taken from a column: what the dialect makes of one with two digits after the point, and of one with one. */
  #column(node: Bound & { kind: "column" }): ((row: number) => Pick<Step, "bound" | "slots">) | undefined {
    const found = this.#columns.get(node);
    if (found !== undefined) return found ?? undefined;
    const { values } = this.sample.columns[node.column];
    const numbers = values.filter((value) => typeof value === "number");
    const { types } = this.program.dialect;
    const probe = types.readColumn?.(types.columnType([0.25, 0.5]), 0.5);
    const columnNumbers = probe instanceof Decimal ? (probe.scale === 2 ? "of one scale" : "as written") : "double";
    const scale = Math.max(0, ...numbers.filter(Number.isFinite).map((value) => Decimal.of(value).scale));
    const { type, source } = node;
    const bound = {
      type,
      source,
      kind: "operation",
      operation: "column",
      answers: { columnNumbers },
      fixed: {},
      inputs: [],
    } as const;
    const made = scale > 0 ? (row: number) => ({ bound, slots: [values[row], scale] }) : undefined;
    this.#columns.set(node, made ?? null);
    return made;
  }

  /** The jobs that steps come to on a row, within the time of one. */
  #jobs(nodes: readonly Omit<Step, "bound" | "slots">[], row: number, whole: Value): Step[] {
    const { program, sample } = this;
    const steps: Step[] = [];
    withinTime(() => {
      // What was tried has left other columns behind.
      if (this.#isElsewhere) program.runRow(sample, row);
      this.#isElsewhere = false;
      for (const step of nodes) {
        for (const bound of jobsOf(step.node)) {
          const slots = inputValues(program, bound, row);
          // A shape may come to an operation on some rows only.
          const isSame = !slots.some(isFailure) && agree(asTruth(withAnswers(bound, slots, bound.answers)), asTruth(step.value));
          if (isSame) steps.push({ ...step, bound, slots });
        }
        steps.push(...this.#readings(step.node, nodes, row, whole));
      }
    });
    return steps;
  }

  /** How code of a dialect's own reads its arguments, where the whole is the same with what is read in their place. */
  #readings(code: Bound, nodes: readonly Omit<Step, "bound" | "slots">[], row: number, whole: Value): Step[] {
    if (code.kind !== "code" || !code.code.reads) return [];
    return Object.entries(code.code.reads).flatMap(([place, { operation, answers, fixed = {} }]): Step[] => {
      const node = code.children.at(Number(place));
      const given = nodes.find((step) => step.node === node);
      if (!node || !given || (given.value !== null && typeof given.value !== "string")) return [];
      const { type, source } = node;
      const bound = { type, source, kind: "operation", operation, answers, fixed, inputs: [node], implicit: true } as const;
      const slots = operationOf(operation).slots.map((_, i) => (i === 0 ? given.value : undefined));
      const read = withAnswers(bound, slots, answers);
      const { range } = code.source;
      // What cannot be read is the error of the whole only where that was born there.
      const isBorn = isFailure(whole) && whole.range && range.start <= whole.range.start && whole.range.end <= range.end;
      if (isFailure(read) && !isBorn) return [];
      const value = isFailure(read) ? whole : read;
      return agree(asTruth(this.#put(node, value, row)), asTruth(whole)) ? [{ ...given, bound, slots, value }] : [];
    });
  }

  /** The whole with other values in some columns, and the row's in the rest, without other rows. */
  #on(values: Cells, row: number): Value {
    return this.#once("", values, row, () => {
      this.#isElsewhere = true;
      return this.program.runRow(this.#with(values, row), 0);
    });
  }

  /** What tells a row from others for this side, with other values in some columns: what the expression reads of it. */
  readOn(row: number, values?: Cells): string {
    let key = this.program.readsWholeColumns && !values ? `row ${row}` : "";
    for (const column of this.#read) {
      const cell = values?.has(column) ? values.get(column) : this.sample.columns[column].values[row];
      const text = Object.is(cell, -0) ? "-0" : String(cell);
      key += ` ${typeof cell} ${text.length} ${text}`;
    }
    return key;
  }

  /** What comes of values in the columns that are read; kept, of so many. */
  #once(what: string, values: Cells, row: number, run: () => Value): Value {
    const key = what + this.readOn(row, values);
    const known = this.#came.get(key);
    if (known !== undefined) return known;
    const came = run();
    if (this.#came.size >= mostKept) this.#came.clear();
    this.#came.set(key, came);
    return came;
  }

  #askedOnce(other: readonly Cells[], what: string, ask: () => boolean): boolean {
    let known = this.#asked.get(other);
    if (!known) this.#asked.set(other, (known = new Map<string, boolean>()));
    const found = known.get(what) ?? ask();
    known.set(what, found);
    return found;
  }

  /** A row with other values in some columns, as a sample of its own. */
  #with(changed: Cells, row: number): Sample {
    const columns = this.sample.columns.map((own, i) => ({
      ...own,
      values: [changed.has(i) ? changed.get(i)! : own.values[row]],
    }));
    return { columns, rows: 1 };
  }

  #put(node: Bound, value: Value, row: number): Value {
    let place = this.#places.get(node);
    if (!place) {
      const variable: Variable = { name: "", type: node.type, value };
      const changes = new Map<Bound, Bound>([[node, { kind: "variable", variable, type: node.type, source: node.source }]]);
      place = { variable, run: this.program.experiment(changes) };
      this.#places.set(node, place);
    }
    place.variable.value = value;
    return place.run(this.sample, row);
  }

  /** `name` says what was changed at the parts, where that is the same on every row, but for values that are set in their places. */
  #changing(changes: ReadonlyMap<Bound, Bound>, name: string | undefined): (sample: Sample, row: number) => Value {
    if (name === undefined) return this.program.experiment(changes);
    const key = this.#nameOf(changes, name);
    let known = this.#changed.get(key);
    if (!known) this.#changed.set(key, (known = { changes, run: this.program.experiment(changes) }));
    for (const [node, to] of known.changes) {
      const now = changes.get(node);
      if (to.kind === "variable" && now?.kind === "variable") to.variable.value = now.variable.value;
    }
    return known.run;
  }

  #nameOf(changes: ReadonlyMap<Bound, Bound>, name: string): string {
    return [...changes.keys()].map((node) => this.#numberOf(node)).join(" ") + name;
  }

  #numberOf(node: Bound): number {
    const number = this.#numbers.get(node) ?? this.#numbers.size;
    this.#numbers.set(node, number);
    return number;
  }
}

/** The values of some rows that lie as far from one another as they can. */
function rowsOver({ rows, columns }: Sample): Cells[] {
  const count = Math.min(rows, mostAround);
  return Array.from({ length: count }, (_, i) => {
    const row = Math.floor((i * rows) / count);
    return new Map(columns.map(({ values }, column) => [column, values[row]]));
  });
}

/**
 * What is tried on a row, where that takes no longer than a row may, nor goes on after `last`; otherwise undefined. `go` goes on
 * with the time that is left after a run of a whole expression, which has a clock of its own.
 */
function withinTime<T>(tried: (go: () => void) => T, last = Infinity): T | undefined {
  const end = Math.min(last, Date.now() + defaultLimits.milliseconds);
  const go = () => {
    if (Date.now() > end) throw new OverTime();
    startClock(end - Date.now());
  };
  try {
    go();
    return tried(go);
  } catch (error) {
    if (error instanceof OverTime) return undefined;
    throw error;
  } finally {
    stopClock();
  }
}

/** What is tried of two sides within the time of a row, and before `end`. */
export function triedOf<T>(
  left: Evaluated,
  right: Evaluated,
  tried: (left: Evaluated, right: Evaluated) => T,
  end: number,
): T | undefined {
  let isOver = false;
  const timed = (side: Evaluated, go: () => void): Evaluated => {
    const then = (value: Value) => {
      // What is replayed later has the time of a run.
      if (!isOver) go();
      return value;
    };
    const { dialect, value, plainSteps, repeated, parts, root, valueOf, nameOf, around } = side;
    return {
      dialect,
      value,
      plainSteps,
      repeated,
      parts,
      root,
      valueOf,
      nameOf,
      around,
      get steps() {
        const { steps } = side;
        if (!isOver) go();
        return steps;
      },
      asked: (other, changes, what, ask) => side.asked(other, changes, what, ask),
      alone: () => then(side.alone()),
      put: (node, value) => then(side.put(node, value)),
      on: (values) => then(side.on(values)),
      runWith: (changes, name, values) => then(side.runWith(changes, name, values)),
    };
  };
  const found = withinTime((go) => tried(timed(left, go), timed(right, go)), end);
  isOver = true;
  return found;
}
