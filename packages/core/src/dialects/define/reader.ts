import { type ShapeProblem, mend, problemsOf } from "../../diagnostics/shape.ts";
import { type OperationId, isOfMany, operationOf } from "../../text/index.ts";
import type { TraitId } from "../../traits/index.ts";
import type { Dialect } from "../dialect.ts";
import { dialects } from "../index.ts";
import { type FunctionRow, type Parameter, params } from "../row.ts";
import { type Step, type Work, stepsIn, withSteps } from "../step.ts";
import { type Definition, type LikeFunction, type OwnFunction, answersOf } from "./shapes.ts";
import { typeOf } from "../types.ts";

/** Functions that are like one another in turn, at most. */
const longestChain = 50;

type Path = ShapeProblem["path"];
type Named = { readonly name: string; readonly aliases?: readonly string[] };

const namesOf = ({ name, aliases = [] }: Named): readonly string[] => [name, ...aliases];
const typesOf = ({ parameters }: FunctionRow): string => parameters.map(({ type }) => type).join(", ");
const traitsOf = (part: object): readonly string[] =>
  "operation" in part ? operationOf(part.operation as OperationId).traits : [];

/** Reads a definition that has its shape, on top of a dialect; what is wrong with it is gathered with its place. */
export class DefinitionReader {
  readonly problems: ShapeProblem[] = [];
  readonly #definition: Definition;
  readonly #base: Dialect;
  /** The rows of the dialect below by each of their names, and where the names of the file stand. */
  readonly #below = new Map<string, FunctionRow[]>();
  readonly #places = new Map<string, number[]>();
  readonly #types: ReadonlySet<string>;
  readonly #results: ReadonlySet<string>;
  readonly #read = new Map<number, readonly FunctionRow[]>();

  constructor(definition: Definition, base: Dialect) {
    this.#definition = definition;
    this.#base = base;
    this.#types = new Set(base.rows.flatMap((row) => row.parameters.map(({ type }) => type)));
    this.#results = new Set(base.rows.map((row) => row.result));
    for (const row of base.rows)
      for (const name of namesOf(row)) this.#below.set(this.#key(name), [...this.#rowsBelow(name), row]);
    definition.functions.forEach(({ name }, i) => {
      const key = this.#key(name);
      this.#places.set(key, [...(this.#places.get(key) ?? []), i]);
    });
  }

  #tell(path: Path, message: string): void {
    this.problems.push({ path, message });
  }

  #key(name: string): string {
    return this.#base.functionCase === "ignored" ? name.toLowerCase() : name;
  }

  #rowsBelow(name: string): readonly FunctionRow[] {
    return this.#below.get(this.#key(name)) ?? [];
  }

  /** Whether the grammar reads a name with brackets as a call of that name. */
  #checkNames(given: Named, path: Path): void {
    for (const name of namesOf(given)) {
      const { tree } = this.#base.parse(`${name}(1)`);
      if (tree.kind !== "call" || this.#key(tree.name) !== this.#key(name))
        this.#tell(path, `"${name}" cannot be called in ${this.#base.title}; take letters, digits and _`);
    }
  }

  #parameters(form: string, path: Path): readonly Parameter[] {
    try {
      const read = params(form);
      for (const { name, type } of read)
        if (!this.#types.has(type)) this.#tell(path, `"${name}": there is no type "${type}"${mend(type, this.#types)}`);
      return read;
    } catch (error) {
      this.#tell(path, `${(error as Error).message}; write each as "name type", with "> slot" where its slot has another name`);
      return [];
    }
  }

  /** Each slot is filled once: by a parameter, or once for all. */
  #checkSlots({ operation, fixed = {} }: OwnFunction, parameters: readonly Parameter[], path: Path): void {
    const { slots } = operationOf(operation);
    const filled = [...parameters.map(({ slot }) => slot), ...Object.keys(fixed)];
    for (const name of new Set(filled)) {
      const slot = slots.find((each) => each.name === name);
      if (!slot)
        this.#tell(
          path,
          `${operation} has no slot "${name}"${mend(
            name,
            slots.map((each) => each.name),
          )}`,
        );
      else if (!isOfMany(slot) && filled.filter((each) => each === name).length > 1)
        this.#tell(path, `the slot "${name}" is filled twice`);
    }
    for (const { name, optional, settled } of slots)
      if (!optional && !settled && !filled.includes(name))
        this.#tell(
          path,
          `nothing fills the slot "${name}" of ${operation}; name a parameter so, or write "> ${name}" after its type`,
        );
  }

  #own(given: OwnFunction, path: Path): FunctionRow {
    const before = this.problems.length;
    const place = [...path, "parameters"];
    const parameters = this.#parameters(given.parameters, place);
    if (this.problems.length === before) this.#checkSlots(given, parameters, place);
    for (const { name, fault } of operationOf(given.operation).slots) {
      const problem = fault?.(String(given.fixed?.[name]));
      if (problem !== undefined) this.#tell([...path, "fixed", name], problem);
    }
    if (!this.#results.has(given.result))
      this.#tell([...path, "result"], `there is no type "${given.result}"${mend(given.result, this.#results)}`);
    // Its shape has been checked, with every answer.
    return {
      family: operationOf(given.operation).family,
      evidence: this.#definition.source,
      ...given,
      parameters,
    } as FunctionRow;
  }

  /** Rows or steps with some answers changed; a trait that none of them asks is a problem. */
  #answered<Part extends object>(parts: readonly Part[], answers: Readonly<Record<string, string>>, path: Path): readonly Part[] {
    const asked = [...new Set(parts.flatMap(traitsOf))];
    for (const [trait, answer] of Object.entries(answers)) {
      if (!asked.includes(trait)) this.#tell([...path, trait], `nothing asks "${trait}" here${mend(trait, asked)}`);
      else this.problems.push(...problemsOf(answer, answersOf(trait as TraitId), "an answer", [...path, trait]));
    }
    return parts.map((part) => {
      const own = Object.entries(answers).filter(([trait]) => traitsOf(part).includes(trait));
      return "answers" in part ? { ...part, answers: { ...(part.answers as object), ...Object.fromEntries(own) } } : part;
    });
  }

  #like({ like, answers = {}, ...given }: LikeFunction, path: Path, within: readonly string[]): readonly FunctionRow[] {
    const found = this.#named(like, [...path, "like"], within);
    return this.#answered(found, answers, [...path, "answers"]).map(({ aliases: _, ...row }) => ({
      ...row,
      evidence: this.#definition.source,
      ...given,
    }));
  }

  /** The rows of a function of the file, or of the dialect below. */
  #named(name: string, path: Path, within: readonly string[]): readonly FunctionRow[] {
    const key = this.#key(name);
    if (within.includes(key)) this.#tell(path, `"${name}" is like itself: ${[...within, key].join(", ")}`);
    else if (within.length > longestChain) this.#tell(path, `functions are like one another over more than ${longestChain}`);
    else {
      const [at] = this.#places.get(key) ?? [];
      if (at !== undefined) return this.#function(at, within);
      const below = this.#rowsBelow(name);
      if (below.length > 0) return below;
      const names = [...this.#places.keys(), ...this.#below.keys()];
      this.#tell(path, `there is no function "${name}" here or in ${this.#base.title}${mend(name, names, "")}`);
    }
    return [];
  }

  #function(at: number, within: readonly string[] = []): readonly FunctionRow[] {
    const known = this.#read.get(at);
    if (known) return known;
    const given = this.#definition.functions[at];
    const path = ["functions", at];
    const rows = "like" in given ? this.#like(given, path, [...within, this.#key(given.name)]) : [this.#own(given, path)];
    this.#read.set(at, rows);
    return rows;
  }

  #functions(): readonly FunctionRow[] {
    return this.#definition.functions.flatMap((given, i) => {
      this.#checkNames(given, ["functions", i, "name"]);
      const rows = this.#function(i);
      const [first] = this.#places.get(this.#key(given.name))!;
      const twice = first < i && rows.find((row) => this.#function(first).some((other) => typesOf(other) === typesOf(row)));
      if (twice) this.#tell(["functions", i, "name"], `"${given.name}" stands twice with the types ${typesOf(twice)}`);
      return rows;
    });
  }

  /** What the dialect below keeps: operators, what its syntax is made of, and the functions that are named. */
  #kept(): readonly FunctionRow[] {
    const { keeps = [], functions } = this.#definition;
    keeps.forEach((name, i) => {
      if (this.#rowsBelow(name).length === 0)
        this.#tell(["keeps", i], `${this.#base.title} has no function "${name}"${mend(name, this.#below.keys(), "")}`);
    });
    const kept = new Set(keeps.map((name) => this.#key(name)));
    const own = new Set(functions.flatMap((given) => namesOf(given).map((name) => this.#key(name))));
    return this.#base.rows.filter((row) => {
      if (row.notation === "operator" || !/^[\p{L}_][\p{L}\p{N}_.:-]*$/u.test(row.name)) return true;
      const keys = namesOf(row).map((name) => this.#key(name));
      return keys.some((key) => kept.has(key)) && !own.has(this.#key(row.name));
    });
  }

  /** The steps of the dialect below, each with what stands in its place. */
  #steps(): ReadonlyMap<Step, Step> {
    const { steps } = this.#base;
    const changed = Object.entries(this.#definition.steps ?? {}).flatMap(([name, answers]): [Step, Step][] => {
      if (!Object.hasOwn(steps, name)) {
        this.#tell(["steps", name], `${this.#base.title} has no step "${name}"${mend(name, Object.keys(steps))}`);
        return [];
      }
      return [[steps[name], this.#answered([steps[name]], answers, ["steps", name])[0]]];
    });
    return new Map(changed);
  }

  /** What is done otherwise on the way to a type, by its name and the operation. */
  #conversions(): ReadonlyMap<string, Readonly<Record<string, string>>> {
    const lines = this.#base.types.conversions.flatMap(([, to, , work = []]) =>
      to.split("|").flatMap((type) => stepsIn(work).map((step) => ({ type, step }))),
    );
    const types = new Set(lines.map(({ type }) => type));
    const changed = new Map<string, Readonly<Record<string, string>>>();
    (this.#definition.conversions ?? []).forEach(({ to, operation, answers }, i) => {
      const path = ["conversions", i];
      const there = lines.filter(({ type }) => type === to).map(({ step }) => step);
      const same = there.filter((step) => step.operation === operation);
      if (!types.has(to)) this.#tell([...path, "to"], `nothing becomes "${to}" in ${this.#base.title}${mend(to, types)}`);
      else if (same.length === 0)
        this.#tell(
          [...path, "operation"],
          `"${operation}" is not done on the way to ${to}; done ${there.length === 0 ? "is nothing" : `are ${[...new Set(there.map((step) => step.operation))].join(", ")}`}`,
        );
      else this.#answered(same, answers, [...path, "answers"]);
      const key = `${to} ${operation}`;
      changed.set(key, { ...changed.get(key), ...answers });
    });
    return changed;
  }

  /** The dialect, where nothing is wrong. */
  read(): Dialect | undefined {
    const { id, title, source } = this.#definition;
    const base = this.#base;
    if (!/^[a-z][a-z0-9-]*$/.test(id) || Object.hasOwn(dialects, id))
      this.#tell(["id"], `"${id}" must be small letters, digits and hyphens, and none of our dialects`);
    const rows = [...this.#functions(), ...this.#kept()];
    const changes = this.#steps();
    const onTheWay = this.#conversions();
    if (this.problems.length > 0) return undefined;
    const replaced = (work: Work, to: string): Work =>
      withSteps(work, (step) => {
        const own = changes.get(step) ?? step;
        const answers = onTheWay.get(`${to} ${step.operation}`);
        return answers ? ({ ...own, answers: { ...own.answers, ...answers } } as Step) : own;
      });
    const changed = <C extends { readonly convert?: Work }>(found: C | undefined, to: string): C | undefined =>
      found?.convert ? { ...found, convert: replaced(found.convert, to) } : found;
    return {
      ...base,
      id,
      title,
      source,
      rows,
      uncovered: new Map(),
      steps: Object.fromEntries(Object.entries(base.steps).map(([name, step]) => [name, changes.get(step) ?? step])),
      types: {
        ...base.types,
        conversions: base.types.conversions.map(([from, to, cost, work, told]) => [
          from,
          to,
          cost,
          work && replaced(work, to),
          told,
        ]),
        conversion: (from, to) => changed(base.types.conversion(from, to), to.name),
        cast: (from, to) => changed(base.types.cast(from, to), typeOf(to).name),
      },
    };
  }
}
